"""The routes of what the owner of a workspace prefers."""

from typing import Annotated

from fastapi import APIRouter, Depends, Request

from cobblewort.api import problems
from cobblewort.formats.preferences import Preferences, preferences_from
from cobblewort.store.preferences import PreferenceStore

router = APIRouter(prefix="/api", responses=problems.RESPONSES, tags=["Preferences"])


def preferences_of(request: Request) -> Preferences:
    """What is preferred."""
    return preferences_from(PreferenceStore(request.app.state.database).read())


Preferred = Annotated[Preferences, Depends(preferences_of)]


@router.get("/preferences")
def get_preferences(preferred: Preferred) -> Preferences:
    """How its owner wants it."""
    return preferred


@router.patch("/preferences")
def change_preferences(body: Preferences, request: Request) -> Preferences:
    """Prefer something else from now on; what is not given stays."""
    chosen = body.model_dump(mode="json", exclude_unset=True)
    PreferenceStore(request.app.state.database).change(chosen)
    return preferences_of(request)
