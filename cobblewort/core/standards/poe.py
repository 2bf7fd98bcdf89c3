"""Power over the network lead. IEEE 802.3, clauses 33 and 145, from memory."""

NETWORK_POWER = "network-power"
"""What a socket of a switch that gives power is called, and a plug that wants it."""
PORT_W = {1: 15.4, 2: 30.0, 3: 60.0, 4: 90.0}
"""What a port of the switch gives, by type. [W]"""
LEAST_V = {1: 37.0, 2: 42.5, 3: 42.5, 4: 41.1}
"""The voltage at which what is fed still has to run, by its type. [V]"""


def conductors_each_way(poe_type: int) -> int:
    """Wires that carry the current out, and as many back: of two pairs, from type 3 on of four."""
    return 4 if poe_type > 2 else 2
