"""Why a part is in none of the suggested kits."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from cobblewort.core import words
from cobblewort.core.changing.suggest.criteria import CRITERIA
from cobblewort.core.changing.suggest.search import (
    SAMPLES,
    Suggested,
    Suggestion,
    Wishes,
    searched_until,
    stops,
)
from cobblewort.core.changing.suggest.shop import Shop
from cobblewort.core.changing.suggest.standing import beaten, own_kit
from cobblewort.core.labels import POWER_AT
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import AddLine, SwapPart, apply_patch
from cobblewort.core.plans.plan import Plan, Role
from cobblewort.core.text import EMPTY, Text, joined, say
from cobblewort.core.verdict.evaluate import evaluation_of

_MOST_JUDGED = 400
"""Kits, whole and begun, after which a search with a part gives up: some seconds."""
_PINNED: dict[str, Role] = {
    "board": "board",
    "power_supply": "power_supply",
    "card": "boot_drive",
    "drive": "storage",
    "cooler": "cooling",
    "case": "case",
}
"""Kinds of which a kit has one part, with its role."""


def why_not(
    plan: Plan, catalogue: Catalogue, wishes: Wishes, part: Part, kits: Sequence[Suggested]
) -> Text:
    """Where a part stands: in which kits it is, or what beats the cheapest kit with it, or what
    stops them all.

    Parameters
    ----------
    plan, catalogue, wishes : Plan, Catalogue, Wishes
        As the kits were searched for.
    part : Part
        What is asked about.
    kits : sequence of Suggested
        The kits that none beats.
    """
    there = [n for n, kit in enumerate(kits, 1) if part.id in kit.parts]
    if there:
        every = len(there) == len(kits) > 1
        numbers = "every kit" if every else words.few(f"kit {n}" for n in there)
        return say("{part} is in {kits}.", part=part.model, kits=numbers)
    shop = Shop(plan, catalogue, wishes.owned)
    kept_out = _kept_out(shop, wishes, part)
    if kept_out is not None:
        return kept_out
    found = _with_it(shop, wishes, part)
    kit = next((one for one in found.kits if part.id in one.parts), None)
    if kit is not None:
        return _beside(kit, wishes, part, kits, shop)
    if found.kits:
        told = (
            "No requirement asks for what {part} does."
            if part.kind == "device"
            else "No kit needs {part}."
        )
        return say(told, part=part.model)
    if found.proven:
        none = say("No kit with {part} meets the requirements.", part=part.model)
    else:
        checked = words.count(found.judged, "kit")
        none = say("No kit with {part} found among {n}.", part=part.model, n=checked)
    why = _swapped_in(catalogue, wishes, part, kits)
    return none if why is None else joined([none, why], " ")


def _kept_out(shop: Shop, wishes: Wishes, part: Part) -> Text | None:
    """Why a part is not looked at; None where it is."""
    place, price = shop.plan.place, shop.price(part)
    source = part.source
    told: Text | None = None
    if part.id in wishes.left_out or part.maker in wishes.without_makers:
        told = say("{part} is excluded.", part=part.model)
    elif part.origin == "typical":
        told = say(
            "{part} stands for a whole class. Choose a part that can be bought.", part=part.model
        )
    elif price is None:
        told = say(
            "{part} has no price in {currency}.", part=part.model, currency=shop.plan.currency
        )
    elif wishes.owned_only and part.id not in shop.owned:
        told = say("{part} is not marked as owned.", part=part.model)
    elif part.ambient_min_c is not None and part.ambient_min_c > place.ambient_min_c:
        told = say(
            "{part} is rated from {low}; ambient falls to {coldest}.",
            part=part.model,
            low=words.counted(part.ambient_min_c, "°C"),
            coldest=words.counted(place.ambient_min_c, "°C"),
        )
    elif part.ambient_max_c is not None and part.ambient_max_c < place.ambient_max_c:
        told = say(
            "{part} is rated up to {high}; ambient rises to {hottest}.",
            part=part.model,
            high=words.counted(part.ambient_max_c, "°C"),
            hottest=words.counted(place.ambient_max_c, "°C"),
        )
    elif part.case is not None and not shop.houses(part):
        told = say("{part} does not protect enough for the location.", part=part.model)
    elif (
        part.kind == "power_supply"
        and source is not None
        and source.power_source not in shop.feeds()
    ):
        told = say(
            "{part} takes {source}; the location has {has}.",
            part=part.model,
            source=POWER_AT[source.power_source],
            has=POWER_AT[place.power],
        )
    return told


def _with_it(shop: Shop, wishes: Wishes, part: Part) -> Suggestion:
    """The cheapest kit with a part: the only one for its role, or of those that do the same."""
    role = _PINNED.get(part.kind)
    if role is not None:
        asked = replace(wishes, pinned={**wishes.pinned, role: part.id})
    else:
        wanted = {requirement.function for requirement in shop.wanted} & set(part.offers)
        rivals = frozenset(
            other.id
            for other in shop.catalogue.parts()
            if other.id != part.id
            and (wanted & set(other.offers) if part.kind == "device" else other.kind == part.kind)
        )
        asked = replace(wishes, left_out=wishes.left_out | rivals)

    def enough(known: Suggestion) -> bool:
        return known.judged >= _MOST_JUDGED or bool(known.kits)

    return searched_until(shop.plan, shop.catalogue, replace(asked, criteria=("price",)), enough)


def _beside(
    kit: Suggested, wishes: Wishes, part: Part, kits: Sequence[Suggested], shop: Shop
) -> Text:
    """What beats the cheapest kit with a part."""
    own = own_kit(evaluation_of(kit.plan, shop.catalogue, SAMPLES), wishes.criteria)
    by = beaten(own, kits)
    price = words.money(kit.values["price"], shop.plan.currency)
    base = say("The lowest-priced kit with {part} costs {price}", part=part.model, price=price)
    if by is None:
        return base + say("; none of these kits beats it.")
    if not by.better_in:
        return base + say("; kit {n} is as good in every criterion.", n=by.by + 1)
    better = words.listed([CRITERIA[name].label.lower() for name in by.better_in])
    return base + say(
        "; kit {n} is better ({better}) and worse in no criterion.", n=by.by + 1, better=better
    )


def _swapped_in(
    catalogue: Catalogue, wishes: Wishes, part: Part, kits: Sequence[Suggested]
) -> Text | None:
    """What stops the first kit with the part in place of its own; None where nothing does."""
    role = _PINNED.get(part.kind)
    if role is None or not kits:
        return None
    plan = kits[0].plan
    line = next((line for line in plan.lines if line.role == role), None)
    change = (
        AddLine(role=role, part=part.id) if line is None else SwapPart(line=line.id, part=part.id)
    )
    swapped = evaluation_of(apply_patch(plan, (change,)), catalogue)
    stop = next((finding for finding in swapped.findings if stops(finding, wishes)), None)
    if stop is None:
        return None
    own = EMPTY if line is None else say(" in place of {own}", own=catalogue.of_line(line).model)
    return say("In kit 1{own}: {sentence}", own=own, sentence=stop.sentence)
