"""PCI Express lanes: rates and what two ends agree on. From memory of the Base specification."""

LANE_GT_S = {1: 2.5, 2: 5.0, 3: 8.0, 4: 16.0}
"""Transfers a second on one lane, by generation. [GT/s]"""
LINE_CODE_SHARE = {1: 8 / 10, 2: 8 / 10, 3: 128 / 130, 4: 128 / 130}
"""Payload bits for each bit on the wire: 8b/10b, and 128b/130b from generation 3 on."""


def negotiated(
    card_generation: float, card_lanes: int, socket_generation: float, socket_lanes: int
) -> tuple[int, int]:
    """Generation and lanes of a link: the lesser of each end."""
    return int(min(card_generation, socket_generation)), min(card_lanes, socket_lanes)


def raw_rate_mb_s(generation: int, lanes: int) -> float:
    """Rate of a link each way, before packet headers. [10^6 B/s]

    Raises
    ------
    ValueError
        If the generation is not 1 to 4.
    """
    if generation not in LANE_GT_S:
        raise ValueError(f"generation must be one of {sorted(LANE_GT_S)} (got {generation})")
    return LANE_GT_S[generation] * 1e3 * LINE_CODE_SHARE[generation] / 8 * lanes


PACKET_B, PACKET_OVERHEAD_B = 128, 20
"""Payload of a packet as small boards use it, and what surrounds it: framing and sequence 4, header
12, checksum 4. From memory of the Base specification."""
PAYLOAD_SHARE = PACKET_B / (PACKET_B + PACKET_OVERHEAD_B)
"""What of a lane's rate is left for data."""
