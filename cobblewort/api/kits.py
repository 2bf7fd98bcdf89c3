"""Routes of suggested kits: start a search, see what it knows, stop it."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter, Depends, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from cobblewort.api import problems
from cobblewort.api.answers import answer, written
from cobblewort.api.deps import CatalogueInUse, Plans
from cobblewort.api.searches import Search, Searches
from cobblewort.core.changing.suggest import (
    CRITERIA,
    USUAL,
    CriterionId,
    Suggested,
    Wishes,
    also_tried,
    beaten,
    shown,
    stays,
    what_stops,
    why_not,
)
from cobblewort.core.errors import InputError
from cobblewort.core.parts.model import Identifier
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import NOT_OF_IT, Plan, Role
from cobblewort.core.text import EMPTY, Text, say
from cobblewort.formats.kits import how_sure, part_names, what_gives

router = APIRouter(prefix="/api/plans", responses=problems.RESPONSES, tags=["Suggested kits"])


class KitWishes(BaseModel):
    """What is asked of the kits."""

    model_config = ConfigDict(extra="forbid")

    criteria: Annotated[tuple[CriterionId, ...], Field(min_length=1, max_length=len(CRITERIA))] = (
        USUAL
    )
    pinned: Annotated[dict[Role, Identifier], Field(max_length=20)] = {}
    left_out: Annotated[list[Identifier], Field(max_length=400)] = []
    without_makers: Annotated[
        list[Annotated[str, Field(max_length=80)]], Field(max_length=100)
    ] = []
    tight: bool = False
    without_case: bool = False
    owned_only: bool = False
    at_most: Annotated[Decimal, Field(gt=0, le=10**7)] | None = None


@dataclass(slots=True, frozen=True)
class KitPart:
    """One line of a suggested kit."""

    role: Role
    part: str
    name: str
    maker: str
    quantity: int
    owned: bool


@dataclass(slots=True, frozen=True)
class ChosenPart:
    """A part that was left out of the search, or the only one for its role."""

    part: str
    name: str
    role: Role | None


@dataclass(slots=True, frozen=True)
class KitFigure:
    """A kit's figure in one criterion: as a number to draw, and as it is told."""

    criterion: CriterionId
    value: float
    text: Text


@dataclass(slots=True, frozen=True)
class SuggestedKit:
    """A kit that no other beats. `plan` is the plan with it, `tight` what is tight in it, `stays`
    in which share of likely cases none of the others beats it.
    """

    parts: list[KitPart]
    figures: list[KitFigure]
    tight: list[Text]
    stays: float
    plan: Plan


@dataclass(slots=True, frozen=True)
class BeatenKit:
    """A kit that was tried, and the place of the first that beats it with what is better there."""

    parts: str
    figures: list[KitFigure]
    beaten_by: int
    better_in: list[CriterionId]


@dataclass(slots=True, frozen=True)
class WhyNot:
    """Why a part is in none of the kits, or in which it is."""

    text: Text


@dataclass(slots=True, frozen=True)
class OwnKitView:
    """The kit that the plan has: its figures, what stops it and what is tight, and the place of the
    first kit that beats it with what that is better in.
    """

    figures: list[KitFigure]
    stopped: list[Text]
    tight: list[Text]
    beaten_by: int | None
    better_in: list[CriterionId]


@dataclass(slots=True, frozen=True)
class CriterionView:
    """What kits are compared by; `usual` where somebody has to choose nothing for it."""

    id: CriterionId
    label: str
    help: str
    usual: bool
    unit: str
    more: bool


@dataclass(slots=True, frozen=True)
class KitSearch:
    """The latest search of a plan as it stands, and what it was asked; `begun` is false where there
    was none.

    `what_gives` is what less would cost, or where there is no kit, what gives one; it grows after
    all kits are known. `offered` are the criteria that can be chosen for the plan, `criteria` those
    of the search. `also` are kits on the way that others beat, once the search rests.
    """

    begun: bool
    tight: bool
    without_case: bool
    owned_only: bool
    at_most: Decimal | None
    left_out: list[ChosenPart]
    without_makers: list[str]
    pinned: list[ChosenPart]
    running: bool
    proven: bool
    failed: str
    sure: Text
    why_none: list[Text]
    what_gives: list[Text]
    offered: list[CriterionView]
    criteria: list[CriterionView]
    kits: list[SuggestedKit]
    also: list[BeatenKit]
    own: OwnKitView | None = None


def _searches(request: Request) -> Searches:
    searches: Searches = request.app.state.searches
    return searches


Running = Annotated[Searches, Depends(_searches)]


@router.post("/{plan_id}/kits", responses=answer(KitSearch))
def start_search(
    plan_id: str, body: KitWishes, plans: Plans, catalogue: CatalogueInUse, searches: Running
) -> Response:
    """Search for the kits that no other beats; an earlier search of the plan ends."""
    stored = plans.get(plan_id)
    owned = frozenset(line.part for line in stored.plan.lines if line.owned)
    wishes = Wishes(
        body.criteria,
        owned,
        body.pinned,
        frozenset(body.left_out),
        frozenset(body.without_makers),
        body.tight,
        body.without_case,
        body.owned_only,
        body.at_most,
    )
    catalogue = catalogue.for_plan(stored.plan)
    search = searches.start(plan_id, stored.version, stored.plan, catalogue, wishes)
    return written(_view(search, stored.plan, catalogue))


@router.get("/{plan_id}/kits", responses=answer(KitSearch))
def see_search(
    plan_id: str, plans: Plans, catalogue: CatalogueInUse, searches: Running
) -> Response:
    """What the latest search of a plan knows; nothing once the plan has changed."""
    stored = plans.get(plan_id)
    search = searches.of(plan_id, stored.version)
    return written(_view(search, stored.plan, catalogue.for_plan(stored.plan)))


@router.get("/{plan_id}/kits/why-not", responses=answer(WhyNot))
def ask_why_not(
    plan_id: str, part: Identifier, plans: Plans, catalogue: CatalogueInUse, searches: Running
) -> Response:
    """Where a part stands among the kits that no other beats, and why."""
    stored = plans.get(plan_id)
    catalogue = catalogue.for_plan(stored.plan)
    search = searches.of(plan_id, stored.version)
    if search is None:
        raise InputError([("", "There is no search of this plan yet. Search first.")])
    asked = catalogue.part(part, "part")
    text = why_not(stored.plan, catalogue, search.wishes, asked, search.known.kits)
    return written(WhyNot(text))


@router.delete("/{plan_id}/kits", status_code=204)
def stop_search(plan_id: str, plans: Plans, searches: Running) -> None:
    """Stop the search of a plan; what it knows stays."""
    plans.get(plan_id)
    searches.stop(plan_id)


def _view(search: Search | None, plan: Plan, catalogue: Catalogue) -> KitSearch:
    offered = _criteria(name for name in CRITERIA if name != "rate" or plan.transfers)
    if search is None:
        usual = [one for one in offered if one.usual]
        asked = (False, False, False, False, None)
        return KitSearch(
            *asked, [], [], [], False, False, "", EMPTY, [], [], offered, usual, [], []
        )
    known, wishes = search.known, search.wishes
    return KitSearch(
        True,
        wishes.tight,
        wishes.without_case,
        wishes.owned_only,
        wishes.at_most,
        [ChosenPart(one, _name(one, catalogue), None) for one in sorted(wishes.left_out)],
        sorted(wishes.without_makers),
        [ChosenPart(one, _name(one, catalogue), role) for role, one in wishes.pinned.items()],
        search.running,
        known.proven,
        search.failed,
        how_sure(known, wishes, search.currency),
        [] if known.kits else list(what_stops(known)),
        what_gives(search.gains, known, search.currency),
        offered,
        _criteria(wishes.criteria),
        [
            _kit(kit, share, search, catalogue)
            for kit, share in zip(known.kits, stays([k.drawn for k in known.kits]), strict=True)
        ],
        [] if search.running else list(_also(search, catalogue)),
        _own(search),
    )


def _name(part_id: str, catalogue: Catalogue) -> str:
    part = catalogue.find(part_id)
    return part_id if part is None else part.model


def _also(search: Search, catalogue: Catalogue) -> Iterator[BeatenKit]:
    for kit, by in also_tried(search.known):
        parts = ", ".join(part_names(kit.parts, catalogue))
        yield BeatenKit(parts, _figures(kit.values, search.currency), by.by, list(by.better_in))


def _own(search: Search) -> OwnKitView | None:
    if search.own is None:
        return None
    by = beaten(search.own, search.known.kits)
    return OwnKitView(
        _figures(search.own.values, search.currency),
        list(search.own.stopped),
        list(search.own.tight),
        None if by is None else by.by,
        [] if by is None else list(by.better_in),
    )


def _figures(values: Mapping[CriterionId, float], currency: str) -> list[KitFigure]:
    figures = []
    for name, value in values.items():
        figure = shown(CRITERIA[name], value, currency)
        figures.append(KitFigure(name, value, say("{figure}", figure=figure)))
    return figures


def _criteria(names: Iterable[CriterionId]) -> list[CriterionView]:
    asked = [CRITERIA[name] for name in names]
    return [
        CriterionView(one.id, one.label, one.help, one.id in USUAL, one.unit, one.more)
        for one in asked
    ]


def _kit(kit: Suggested, share: float, search: Search, catalogue: Catalogue) -> SuggestedKit:
    parts = [
        KitPart(line.role, line.part, part.model, part.maker, line.quantity, line.owned)
        for line in kit.plan.lines
        if line.role not in NOT_OF_IT
        for part in (catalogue.part(line.part),)
    ]
    figures = _figures(kit.values, search.currency)
    return SuggestedKit(parts, figures, list(kit.tight), share, kit.plan)
