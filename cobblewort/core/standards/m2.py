"""M.2 modules: keys. PCI Express M.2 specification, from memory."""


def key_fits(card_key: str, socket_key: str) -> bool:
    """Whether a card goes into a socket: one of its notches must be the socket's key."""
    return socket_key in card_key.split("+")
