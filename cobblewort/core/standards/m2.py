"""M.2 modules: sizes and keys. PCI Express M.2 specification, from memory."""

WIDTH_MM = 22.0
BOARD_THICKNESS_MM = 0.8
LENGTHS_MM = {"2230": 30.0, "2242": 42.0, "2260": 60.0, "2280": 80.0, "22110": 110.0}
"""Length by name: two digits of width, then the length."""

KEY_MISSING_PINS = {"A": (8, 15), "B": (12, 19), "E": (24, 31), "M": (59, 66)}
"""First and last of the pins that each key leaves out."""

KEY_CARRIES = {
    "B": {"pcie": 2, "sata": 1, "usb": 1},
    "M": {"pcie": 4, "sata": 1},
    "E": {"pcie": 2, "usb": 1, "sdio": 1, "uart": 1},
}
"""What a socket of each key may carry: protocol and the most lanes of it."""


def key_fits(card_key: str, socket_key: str) -> bool:
    """Whether a card goes into a socket: one of its notches must be the socket's key."""
    return socket_key in card_key.split("+")
