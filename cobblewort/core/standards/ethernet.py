"""Ethernet: what is left of a wire's rate for data."""

MTU_B = 1500
FRAME_OVERHEAD_B = 14 + 4 + 8 + 12
"""Header, checksum, preamble and gap round each frame. IEEE 802.3."""
HEADERS_B = 20 + 20 + 12
"""IPv4, TCP and its timestamps inside each frame. RFC 791, RFC 9293, RFC 7323."""


def goodput_mb_s(rate_mbit_s: float) -> float:
    """What full frames carry of a stream, each way. [10^6 B/s]"""
    return rate_mbit_s / 8 * (MTU_B - HEADERS_B) / (MTU_B + FRAME_OVERHEAD_B)
