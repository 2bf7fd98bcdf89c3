"""Plans that ask for less: a requirement left out or lowered, a milder location."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from cobblewort.core import words
from cobblewort.core.changing.suggest.search import Wishes, cheapest
from cobblewort.core.changing.suggest.shop import Shop, amount
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Place, Plan, Requirement
from cobblewort.core.plans.purpose import transfers_asked
from cobblewort.core.text import Text, say

_LESS = (0.99, 0.75, 0.5, 0.25, 0.1)
"""Shares of an amount that are asked for instead, one after the other."""
_COOLER_K = 5.0
_MOST_JUDGED = 400
"""Kits after which it is left open what an easing brings."""


@dataclass(slots=True, frozen=True)
class Easing:
    """A plan that asks for less, and in what; `requirement` is the one that it leaves out."""

    text: Text
    plan: Plan
    requirement: Requirement | None = None


@dataclass(slots=True, frozen=True)
class Gain:
    """What an easing brings: the price of the cheapest kit then; None where there is none either,
    or where none was found before the search was given up, `known` being false.
    """

    text: Text
    price: Decimal | None
    known: bool


def easings(plan: Plan) -> Iterator[Easing]:
    """Each requirement left out in turn, then what is milder about the location."""
    asked = plan.requirements
    for number, requirement in enumerate(asked):
        others = (*asked[:number], *asked[number + 1 :])
        text = say("Without “{text}”", text=requirement.text)
        transfers = transfers_asked(plan.transfers, asked, others)
        fields = {"requirements": others, "transfers": transfers}
        yield Easing(text, plan.model_copy(update=fields), requirement)
    for text, fields in _milder(plan.place):
        place = plan.place.model_copy(update=fields)
        yield Easing(text, plan.model_copy(update={"place": place}))


def _milder(place: Place) -> Iterator[tuple[Text, dict[str, Any]]]:
    if place.network != "both":
        yield say("With Ethernet and Wi-Fi at the location"), {"network": "both"}
    cooler_c = max(place.ambient_max_c - _COOLER_K, place.ambient_min_c)
    if cooler_c < place.ambient_max_c:
        highest = words.counted(cooler_c, "°C")
        yield say("At {highest} ambient at most", highest=highest), {"ambient_max_c": cooler_c}
    if place.wet or place.dust != "clean" or place.sun_w_m2:
        dry: dict[str, Any] = {"wet": False, "dust": "clean", "sun_w_m2": 0}
        yield say("In a dry, clean and shaded location"), dry


def steps_of(easing: Easing, shop: Shop) -> Iterator[Plan]:
    """The plan with less of the requirement that an easing leaves out, step by step."""
    whole, asked = easing.requirement, shop.plan.requirements
    if whole is None:
        return
    for fields in _less(whole, shop):
        less = whole.model_copy(update=fields)
        requirements = tuple(less if one is whole else one for one in asked)
        yield shop.plan.model_copy(update={"requirements": requirements})


def _less(requirement: Requirement, shop: Shop) -> Iterator[dict[str, float]]:
    least, most, function = requirement.at_least, requirement.at_most, requirement.function
    if least is not None:
        parts = shop.catalogue.parts()
        had = () if function is None else (amount(part, function) for part in parts)
        best = max((one for one in had if 0 < one < least), default=least)
        yield from ({"at_least": best * share} for share in _LESS)
    elif most is not None:
        yield from ({"at_most": most / share} for share in _LESS)


def restored(kit: Plan, plan: Plan) -> Plan:
    """The plan as it is, with a kit that was found for one that asks for less."""
    return plan.model_copy(update={"lines": kit.lines, "storage_use": kit.storage_use})


def gains(plan: Plan, catalogue: Catalogue, wishes: Wishes) -> Iterator[Gain]:
    """What each easing brings: what a requirement costs, or stands in the way of."""
    for easing in easings(plan):
        found = cheapest(easing.plan, catalogue, wishes, _MOST_JUDGED)
        price = Decimal(str(found.kits[0].values["price"])) if found.kits else None
        yield Gain(easing.text, price, found.proven or bool(found.kits))
