"""A plan under another assumption; never stored."""

from __future__ import annotations

from cobblewort.core.patch import SetFields, apply_patch
from cobblewort.core.plan import Plan


def with_ambient(plan: Plan, ambient_c: float | None) -> Plan:
    """The plan with another hottest day; None leaves it as it is. [°C]"""
    if ambient_c is None:
        return plan
    place = plan.place.model_dump()
    place["ambient_max_c"] = ambient_c
    place["ambient_min_c"] = min(plan.place.ambient_min_c, ambient_c)
    return apply_patch(plan, (SetFields(fields={"place": place}),))
