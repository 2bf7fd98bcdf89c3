"""Power over the network lead. IEEE 802.3, clauses 33 and 145, from memory."""

NETWORK_POWER = "network-power"
"""What a socket of a switch that gives power is called, and a plug that wants it."""
PORT_W = {1: 15.4, 2: 30.0, 3: 60.0, 4: 90.0}
"""What a port of the switch gives, by type. [W]"""
