"""Power over the network lead. IEEE 802.3, clauses 33 and 145, from memory."""

NETWORK_POWER = "network-power"
"""What a socket of a switch that gives power is called, and a plug that wants it."""
PORT_W = {1: 15.4, 2: 30.0, 3: 60.0, 4: 90.0}
"""What a port of the switch gives, by type. [W]"""
DEVICE_W = {1: 12.95, 2: 25.5, 3: 51.0, 4: 71.3}
"""What is left of it at the device. [W]"""
PAIR_A = {1: 0.350, 2: 0.600, 3: 0.600, 4: 0.960}
"""Current a pair set, by type. [A]"""
