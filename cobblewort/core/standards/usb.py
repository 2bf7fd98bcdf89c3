"""USB: what leads may carry, and what a device needs. From memory of the named documents."""

UNMARKED_LEAD_A = 3.0
"""USB Type-C and USB Power Delivery: more only through an electronically marked 5 A lead."""
MARKED_LEAD_A = 5.0

DEVICE_MIN_V = 4.4
"""Least voltage at a bus-fed device's plug. USB 2.0, 7.2.2."""


def lead_limit_a(marked_a: float) -> float:
    """What a Type-C lead lets through: 5 A when it is marked for it, else 3 A. [A]"""
    return MARKED_LEAD_A if marked_a >= MARKED_LEAD_A else UNMARKED_LEAD_A
