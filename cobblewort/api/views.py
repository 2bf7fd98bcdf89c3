"""How the routes show a stored plan."""

from fastapi import Response

from cobblewort.api.models import PlanView
from cobblewort.store.plans import StoredPlan


def created(stored: StoredPlan, response: Response) -> PlanView:
    """A new plan, and where it is."""
    response.headers["Location"] = f"/api/plans/{stored.id}"
    return plan_view(stored, response)


def plan_view(stored: StoredPlan, response: Response) -> PlanView:
    """A plan with the steps that can be taken from here; its version is the ETag."""
    response.headers["ETag"] = f'"{stored.version}"'
    return PlanView(
        id=stored.id,
        version=stored.version,
        plan=stored.plan,
        changed_at=stored.changed_at,
        undo_label=stored.undo_label,
        redo_label=stored.redo_label,
    )
