"""The first kits of all purposes, place by place and by each power source, as a document."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal
from pathlib import Path

import yaml

from cobblewort.core.changing.suggest import FirstKit, first_kit
from cobblewort.core.plans.plan import FEEDS_AT, NOT_OF_IT, Place
from cobblewort.core.plans.purpose import plan_for
from cobblewort.formats.shipped import shipped_catalogue, shipped_places, shipped_purposes

HERE = Path(__file__).parent
DOCUMENT = HERE.parents[1] / "docs" / "first-kits.md"
PLACES = ("indoor-room", "workshop", "outdoors-shaded", "outdoors-sun", "closed-vehicle")
BEFORE: dict[str, dict[str, str | None]] = yaml.safe_load((HERE / "before.yaml").read_text())

_HEAD = """# First kits

Written by `make first-kits`. For each purpose the lowest-priced kit without a problem or a tight
limit, where there is one; no cheaper one exists, as all that cost less were judged or ruled out.
“Before” is what the first kit of an earlier version cost, which was grown part by part and proved
nothing; it is empty where something in it was a problem or tight.
"""


def kit_for(purpose_id: str, place: Place) -> FirstKit:
    """The first kit of a purpose somewhere."""
    plan = plan_for(shipped_purposes()[purpose_id], purpose_id, place)
    return first_kit(plan, shipped_catalogue())


def table() -> str:
    """The document."""
    return "\n".join([_HEAD, *_by_place(), *_by_power()])


def _by_place() -> Iterator[str]:
    for place_id in PLACES:
        known = shipped_places()[place_id]
        yield f"## {known.title}\n"
        yield "| Purpose | Price | Before | Judged | Parts, or why there is none |"
        yield "|---|---:|---:|---:|---|"
        for purpose_id, purpose in shipped_purposes().items():
            found = kit_for(purpose_id, known.place)
            was = BEFORE[purpose_id][place_id] or ""
            row = (purpose.title, _price(found), was, str(found.checked), _told(found))
            yield f"| {' | '.join(row)} |"
        yield ""


def _by_power() -> Iterator[str]:
    room = shipped_places()["indoor-room"].place.model_copy(update={"sun_w_m2": 0})
    yield "## By power source, in a room\n"
    yield "| Purpose | Power source | Price | Judged | Parts, or why there is none |"
    yield "|---|---|---:|---:|---|"
    for purpose_id, purpose in shipped_purposes().items():
        for power in FEEDS_AT:
            if power != "mains":
                found = kit_for(purpose_id, room.model_copy(update={"power": power}))
                row = (purpose.title, power, _price(found), str(found.checked), _told(found))
                yield f"| {' | '.join(row)} |"
    yield ""


def is_sound(found: FirstKit) -> bool:
    """Whether nothing in it is a problem or tight."""
    return bool(found.reasons) and not found.failing and not found.tight


def _price(found: FirstKit) -> str:
    return f"{found.total:.2f}".removesuffix(".00") if is_sound(found) else ""


def _told(found: FirstKit) -> str:
    if is_sound(found):
        models = [
            (f"{line.quantity} " if line.quantity > 1 else "")
            + shipped_catalogue().part(line.part).model
            for line in found.plan.lines
            if line.role not in NOT_OF_IT
        ]
        return ", ".join(models)
    sure = "None exists" if found.proven else f"None among {found.checked} kits"
    why = " ".join(one.text for one in (found.failing or found.tight)[:2])
    return f"{sure}. {why}"


def before(purpose_id: str, place_id: str) -> Decimal | None:
    """What the first kit cost before, None where it was not sound."""
    price = BEFORE[purpose_id][place_id]
    return None if price is None else Decimal(price)
