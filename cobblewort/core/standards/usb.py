"""USB: what leads may carry, and what a device needs. From memory of the named documents."""

UNMARKED_CABLE_A = 3.0
"""USB Type-C and USB Power Delivery: more only through an electronically marked 5 A lead."""
MARKED_CABLE_A = 5.0

DEVICE_MIN_V = 4.4
"""Least voltage at a bus-fed device's plug. USB 2.0, 7.2.2."""

HIGH_SPEED_MB_S = 60.0
_RAW_MB_S = {
    1.0: 1.5,
    2.0: HIGH_SPEED_MB_S,
    3.0: 500.0,
    3.1: 1e4 * 128 / 132 / 8,
    3.2: 2e4 * 128 / 132 / 8,
}
"""Full, high and the super speeds, by generation. USB 2.0, 5.3.3 and USB 3.2, 6.3, from memory."""


def raw_rate_mb_s(generation: float) -> float | None:
    """Rate of a link after its line code, before packets; None below generation 1. [10^6 B/s]"""
    known = [rate for least, rate in _RAW_MB_S.items() if least <= generation]
    return known[-1] if known else None


def cable_limit_a(marked_a: float) -> float:
    """What a Type-C lead lets through: 5 A when it is marked for it, else 3 A. [A]"""
    return MARKED_CABLE_A if marked_a >= MARKED_CABLE_A else UNMARKED_CABLE_A


BULK_MB_S = 13 * 512 * 8000 / 1e6
"""The most that high speed moves in bulk: 13 packets of 512 bytes in each of 8000 microframes.
USB 2.0, table 5-10, from memory. [10^6 B/s]"""
