"""Suggested kits as text, CSV and JSON."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from decimal import Decimal
from typing import Any

from pydantic_core import to_json

from cobblewort.core import words
from cobblewort.core.changing.suggest import (
    CRITERIA,
    CriterionId,
    Gain,
    Suggestion,
    Wishes,
    bought,
    shown,
    what_stops,
)
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.text import EMPTY, Text, say
from cobblewort.formats.display_units import SI_UNITS, DisplayUnits
from cobblewort.formats.kit_list import harmless


def kits_text(
    found: Suggestion,
    wishes: Wishes,
    catalogue: Catalogue,
    currency: str,
    units: DisplayUnits = SI_UNITS,
) -> str:
    """The kits in a table, cheapest first, and how sure it is that none is missing."""
    criteria = wishes.criteria
    rows = [
        [
            *(units.text(shown(CRITERIA[name], kit.values[name], currency)) for name in criteria),
            ", ".join(part_names(bought(kit.plan), catalogue)),
        ]
        for kit in found.kits
    ]
    head = [*(CRITERIA[name].label for name in criteria), "Parts"]
    widths = [max(map(len, column)) for column in zip(head, *rows, strict=True)]
    lines = []
    for row in [head, *rows] if rows else []:
        cells = [cell.ljust(width) for cell, width in zip(row, widths, strict=True)]
        lines.append("  ".join(cells).rstrip())
    lines += [""] if rows else []
    lines.append(units.text(how_sure(found, wishes, currency)))
    if not found.kits:
        lines += [units.text(line) for line in what_stops(found)]
    return "\n".join(lines)


def part_names(parts: Iterable[tuple[str, int]], catalogue: Catalogue) -> list[str]:
    """What is bought, line by line: `2 Drum 1T`, `Kettle 15`."""
    names = ((catalogue.part(part).model, quantity) for part, quantity in parts)
    return [f"{quantity} {name}" if quantity > 1 else name for name, quantity in names]


def how_sure(found: Suggestion, wishes: Wishes, currency: str) -> Text:
    """Whether a further kit can come, how much was checked, and what was not looked at."""
    sure = _how_sure(found, wishes, currency)
    if not found.unpriced:
        return sure
    parts = words.count(found.unpriced, "part")
    return sure + say(" Left out, as the price is not known: {parts}.", parts=parts)


def _how_sure(found: Suggestion, wishes: Wishes, currency: str) -> Text:
    checked = words.count(found.begun + found.whole, "kit")
    most = wishes.at_most
    limit = EMPTY if most is None else say(" for at most {most}", most=words.money(most, currency))
    if found.proven_to is None and not found.kits:
        told = "Proven: no kit of these parts{limit} meets every requirement. Checked: {checked}."
        return say(told, limit=limit, checked=checked)
    if found.proven_to is None:
        return say(
            "Proven: no other kit{limit} is better. Checked: {checked}.",
            limit=limit,
            checked=checked,
        )
    price = words.money(found.proven_to, currency)
    if not found.kits:
        return say("No kit found up to {price}. Checked: {n}.", price=price, n=checked)
    return say("Complete up to {price}. Checked: {n}.", price=price, n=checked)


def what_gives(gains: Sequence[Gain], found: Suggestion, currency: str) -> list[Text]:
    """What less would cost where less is asked; where there is no kit, what gives one."""
    prices = [Decimal(str(kit.values["price"])) for kit in found.kits if "price" in kit.values]
    base = min(prices, default=None)
    told = []
    for gain in gains:
        if not gain.known:
            told.append(say("{what}: not known, too many kits to check.", what=gain.text))
            continue
        if gain.price is None or (base is not None and gain.price >= base):
            continue
        price = words.money(gain.price, currency)
        if base is None:
            told.append(say("{what}: from {price}.", what=gain.text, price=price))
        else:
            less = words.money(base - gain.price, currency)
            told.append(
                say("{what}: from {price}, {less} less.", what=gain.text, price=price, less=less)
            )
    return told


def kits_csv(
    found: Suggestion, criteria: Sequence[CriterionId], catalogue: Catalogue, currency: str
) -> str:
    """A row for each kit, with a header row and CRLF line ends (RFC 4180)."""
    sheet = io.StringIO()
    writer = csv.writer(sheet)
    writer.writerow([*(_column(name, currency) for name in criteria), "parts"])
    for kit in found.kits:
        values = [f"{kit.values[name]:.4g}" for name in criteria if name != "price"]
        if "price" in criteria:
            values.insert(list(criteria).index("price"), f"{kit.values['price']:.2f}")
        writer.writerow([*values, harmless("; ".join(part_names(bought(kit.plan), catalogue)))])
    return sheet.getvalue()


def _column(name: CriterionId, currency: str) -> str:
    unit = currency if name == "price" else CRITERIA[name].unit
    return f"{name} ({unit})" if unit else name


def kits_json(found: Suggestion) -> str:
    """All that is known, with the plan of each kit."""
    document: dict[str, Any] = {
        "proven": found.proven,
        "proven_to": found.proven_to,
        "begun": found.begun,
        "whole": found.whole,
        "stopped_by": found.stopped_by,
        "kits": [
            {
                "parts": kit.parts,
                "values": kit.values,
                "tight": [sentence.text for sentence in kit.tight],
                "plan": kit.plan,
            }
            for kit in found.kits
        ],
    }
    return to_json(document, indent=2).decode()
