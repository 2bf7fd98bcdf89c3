"""USB: what ports give, and what leads may carry. All from memory of the named documents."""

USB2_UNIT_LOAD_A, USB2_UNIT_LOADS = 0.100, 5
"""USB 2.0 specification, 7.2.1: a configured device may draw five unit loads."""
USB3_UNIT_LOAD_A, USB3_UNIT_LOADS = 0.150, 6
"""USB 3.2 specification, clause 11, single lane."""

USB2_PORT_A = USB2_UNIT_LOAD_A * USB2_UNIT_LOADS
USB3_PORT_A = USB3_UNIT_LOAD_A * USB3_UNIT_LOADS

TYPE_C_RP_CURRENT_A: dict[str, dict[float, float]] = {
    "5 V": {22.0: 1.5, 10.0: 3.0},
    "3.3 V": {12.0: 1.5, 4.7: 3.0},
}
"""Current a Type-C source advertises by its pull-up in kohm, by the voltage it pulls to. [A]

USB Type-C specification. 56 kohm to 5 V and 36 kohm to 3.3 V mean the default of the USB
generation behind the port instead of a current of their own.
"""
TYPE_C_RP_DEFAULT_KOHM = {"5 V": 56.0, "3.3 V": 36.0}

UNMARKED_LEAD_A = 3.0
"""USB Type-C and USB Power Delivery: more only through an electronically marked 5 A lead."""
MARKED_LEAD_A = 5.0

VBUS_DEFAULT_LOW_V, VBUS_DEFAULT_HIGH_V = 4.75, 5.50
"""vSafe5V at the source connector. USB 2.0 with the 2014 change notice (5.25 V before it)."""
FIXED_STEPS_V = (9.0, 15.0, 20.0)
FIXED_STEP_TOLERANCE_SHARE = 0.05
"""USB Power Delivery, fixed supplies."""

VBUS_WIRE_DROP_MAX_V, GROUND_WIRE_DROP_MAX_V = 0.500, 0.250
"""USB Type-C specification, 4.4.1: most a lead may lose at its rated current."""

DEVICE_MIN_V = 4.4
"""Least voltage at a bus-fed device's plug. USB 2.0, 7.2.2."""


def port_current_a(generation: float) -> float:
    """Current a plain host port owes a configured device: 0.5 A, or 0.9 A from USB 3 on. [A]"""
    return USB3_PORT_A if generation >= 3 else USB2_PORT_A


def type_c_current_a(pull_up_kohm: float, pulled_to: str, default_a: float) -> float:
    """Current that a Type-C source without power delivery advertises. [A]

    Parameters
    ----------
    pull_up_kohm : float
        The source's Rp. [kohm]
    pulled_to : str
        ``"5 V"`` or ``"3.3 V"``.
    default_a : float
        What the USB generation behind the port gives. [A]

    Raises
    ------
    ValueError
        If the pull-up is none of the three of the specification.
    """
    if pull_up_kohm == TYPE_C_RP_DEFAULT_KOHM[pulled_to]:
        return default_a
    table = TYPE_C_RP_CURRENT_A[pulled_to]
    if pull_up_kohm not in table:
        known = sorted([TYPE_C_RP_DEFAULT_KOHM[pulled_to], *table])
        raise ValueError(f"pull_up_kohm must be one of {known} (got {pull_up_kohm:g})")
    return table[pull_up_kohm]


def lead_limit_a(marked_a: float) -> float:
    """What a Type-C lead lets through: 5 A when it is marked for it, else 3 A. [A]"""
    return MARKED_LEAD_A if marked_a >= MARKED_LEAD_A else UNMARKED_LEAD_A


def lead_loop_max_ohm(rated_a: float) -> float:
    """Most loop resistance of a Type-C lead for its rated current. [ohm]"""
    return (VBUS_WIRE_DROP_MAX_V + GROUND_WIRE_DROP_MAX_V) / rated_a


def fixed_step_range_v(step_v: float) -> tuple[float, float]:
    """Lowest and highest voltage of a fixed power-delivery step. [V]"""
    return step_v * (1 - FIXED_STEP_TOLERANCE_SHARE), step_v * (1 + FIXED_STEP_TOLERANCE_SHARE)
