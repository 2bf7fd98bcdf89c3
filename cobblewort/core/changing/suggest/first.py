"""The first kit of a plan: the cheapest in which nothing is a problem or tight.

Where a tight one is much cheaper, it is told beside it. Where nothing does all that is asked, the
kit is the cheapest without the first requirement that stands in the way, and does as much of that
as can be had.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field, replace
from decimal import Decimal

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.changing.suggest.easing import easings, restored, steps_of
from cobblewort.core.changing.suggest.reasons import Reason, reasons_of, what_stops
from cobblewort.core.changing.suggest.search import (
    SAMPLES,
    Suggested,
    Suggestion,
    Wishes,
    cheapest,
    searched_until,
)
from cobblewort.core.changing.suggest.shop import Shop
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.text import Text, say
from cobblewort.core.verdict.evaluate import evaluation_of

_MOST_JUDGED = 2000
"""Kits, whole and begun, after which a search for a first kit gives up: some seconds."""
_MOST_WITHOUT, _MOST_EASED = 100, 150
"""The same of each search without a requirement, or with one that asks for less."""
_MUCH_CHEAPER = Decimal("5"), Decimal("0.05")
"""A tight kit is a choice where it saves at least so much, and this share of the price."""


@dataclass(slots=True, frozen=True)
class Choice:
    """A kit that costs less and is tight: what it saves, and what that means."""

    plan: Plan
    less: Decimal
    sentences: list[Text]


@dataclass(slots=True, frozen=True)
class FirstKit:
    """A plan with a kit in it, why each part was taken, and what is still wrong with it.

    `failing` names what stops it, its price over the budget too, and `tight` what is tight; both
    are empty for a sound kit. `cheaper` is a tight kit that costs much less. `proven` says that no
    cheaper kit does as well, or that none does, and `checked` counts the kits that were judged.
    """

    plan: Plan
    reasons: list[Reason]
    failing: list[Text]
    total: Decimal
    tight: list[Text] = field(default_factory=list)
    cheaper: Choice | None = None
    proven: bool = True
    checked: int = 0


def first_kit(
    plan: Plan,
    catalogue: Catalogue,
    owned: Iterable[str] = (),
    between: Callable[[], None] = lambda: None,
) -> FirstKit:
    """Fill a plan that states its requirements.

    Parameters
    ----------
    plan : Plan
        Requirements, image, location, schedule, budget and copies. Of its lines only what is
        borrowed or there already is kept.
    catalogue : Catalogue
        Where parts are taken from; typical parts and those without a price are not.
    owned : iterable of str
        Parts that are there already; they cost nothing.
    between : callable
        Called every few kits; what it raises ends the search.

    Returns
    -------
    FirstKit
        The same for the same input.
    """
    shop = Shop(plan, catalogue, frozenset(owned))
    found = _searched(plan, shop, between)
    sound = next((kit for kit in found.kits if not kit.tight), None)
    if sound is not None:
        told = _told(shop, sound.plan, found)
        return replace(told, cheaper=_cheaper(shop, found.kits[0], told.total))
    if found.kits:
        return _told(shop, found.kits[0].plan, found)
    nearest = _nearest(shop, between)
    if nearest is not None:
        return _told(shop, nearest, found)
    why = [say("No kit of these parts meets the requirements."), *what_stops(found)]
    return FirstKit(plan, [], why, Decimal(0), proven=found.proven, checked=found.judged)


def _searched(plan: Plan, shop: Shop, between: Callable[[], None]) -> Suggestion:
    """The kits up to the first in which nothing is tight; all that are tight cost less."""

    def enough(known: Suggestion) -> bool:
        return known.judged >= _MOST_JUDGED or any(not kit.tight for kit in known.kits)

    wishes = Wishes(("price", "tight"), shop.owned, tight=True)
    return searched_until(plan, shop.catalogue, wishes, enough, between)


def _told(shop: Shop, plan: Plan, found: Suggestion) -> FirstKit:
    """A kit with its reasons, and what is wrong with it as on the page."""
    evaluation = evaluation_of(plan, shop.catalogue, SAMPLES)
    failing, tight = [], []
    for finding in evaluation.findings:
        if finding.severity == "problem" or (
            finding.severity == "tight" and finding.family == "cost"
        ):
            failing.append(finding.sentence)
        elif finding.severity == "tight":
            tight.append(finding.sentence)
    reasons = list(reasons_of(shop, evaluation))
    proven = found.proven or any(not kit.tight for kit in found.kits)
    total = cost_of(evaluation.kit).total
    return FirstKit(plan, reasons, failing, total, tight, None, proven, found.judged)


def _cheaper(shop: Shop, tight: Suggested, total: Decimal) -> Choice | None:
    """The cheapest kit that is tight, where it saves enough, or where it keeps to a budget that the
    sound one does not.
    """
    if not tight.tight:
        return None
    price = Decimal(str(tight.values["price"]))
    least, share = _MUCH_CHEAPER
    budget = shop.plan.budget
    keeps = budget is not None and price <= budget < total
    if not keeps and total - price < max(least, share * total):
        return None
    return Choice(tight.plan, total - price, list(tight.tight))


def _nearest(shop: Shop, between: Callable[[], None]) -> Plan | None:
    """The cheapest kit without the first requirement that stands in the way, with as much of that
    as there is; or one for a location that asks for less. Judged by all that the plan asks.
    """
    wishes = Wishes(owned=shop.owned, tight=True)

    def kit_for(eased: Plan, most: int) -> Plan | None:
        kits = cheapest(eased, shop.catalogue, wishes, most, between).kits
        return restored(kits[0].plan, shop.plan) if kits else None

    for easing in easings(shop.plan):
        without = kit_for(easing.plan, _MOST_WITHOUT)
        if without is not None:
            less = (kit_for(one, _MOST_EASED) for one in steps_of(easing, shop))
            return next((plan for plan in less if plan is not None), without)
    return None
