"""A plan under other assumptions; never stored."""

from __future__ import annotations

from typing import Any

from cobblewort.core.plans.patch import SetFields, apply_patch
from cobblewort.core.plans.plan import Activity, Plan


def what_if(plan: Plan, ambient_c: float | None = None, activity: Activity | None = None) -> Plan:
    """The plan with another hottest day, or with everything as hard at work in every phase.

    Parameters
    ----------
    plan : Plan
        Is left as it is.
    ambient_c : float, optional
        Hottest day; the coldest follows it down. [°C]
    activity : Activity, optional
        What the whole kit does in every phase of the day.
    """
    fields = assumed_fields(plan, ambient_c, activity)
    return apply_patch(plan, (SetFields.model_validate({"fields": fields}),)) if fields else plan


def assumed_fields(
    plan: Plan, ambient_c: float | None, activity: Activity | None
) -> dict[str, Any]:
    """What would have to be set in the plan to make the assumptions its own."""
    fields: dict[str, Any] = {}
    if ambient_c is not None:
        coldest = min(plan.place.ambient_min_c, ambient_c)
        place = {"ambient_min_c": coldest, "ambient_max_c": ambient_c}
        fields["place"] = {**plan.place.model_dump(), **place}
    if activity is not None:
        fields["schedule"] = [
            {**phase.model_dump(), "activity": activity, "lines": {}} for phase in plan.schedule
        ]
    return fields
