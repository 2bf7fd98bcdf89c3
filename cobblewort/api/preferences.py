"""The routes of what its owner prefers, and how a request wants its figures."""

from typing import Annotated

from fastapi import APIRouter, Depends, Header, Request

from cobblewort.api import problems
from cobblewort.formats.display_units import PLAIN, Shown, shown_of
from cobblewort.formats.preferences import Preferences, preferences_from
from cobblewort.store.preferences import PreferenceStore

router = APIRouter(prefix="/api", responses=problems.RESPONSES)


async def asked_shown(shown: Annotated[str | None, Header()] = None) -> Shown:
    """How the request wants figures in sentences: `F in comma` in its header `Shown`."""
    return PLAIN if shown is None else shown_of(shown)


def preferences_of(request: Request) -> Preferences:
    """What is preferred."""
    return preferences_from(PreferenceStore(request.app.state.database).read())


AskedShown = Annotated[Shown, Depends(asked_shown)]
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
