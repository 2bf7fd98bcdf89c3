"""Suggesting kits on the command line."""

from __future__ import annotations

import time
from collections.abc import Sequence
from decimal import Decimal
from pathlib import Path
from typing import Literal, cast

from cobblewort.commands.checking import shipped_with
from cobblewort.core.changing.suggest import (
    CRITERIA,
    USUAL,
    CriterionId,
    Suggestion,
    Wishes,
    gains,
    suggest,
)
from cobblewort.core.errors import InputError
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Role, plan_from
from cobblewort.core.words import listed
from cobblewort.formats.display_units import DisplayUnits
from cobblewort.formats.documents import parse_document
from cobblewort.formats.kits import kits_csv, kits_json, kits_text, what_gives

Form = Literal["text", "csv", "json"]


def wishes_of(
    criteria: str | None,
    own: Sequence[str],
    owned_only: bool,
    without: Sequence[str],
    require: Sequence[str],
    at_most: float | None,
    tight: bool,
    no_case: bool,
) -> Wishes:
    """What is asked, from what was typed. Raises InputError."""
    asked = ",".join(USUAL) if criteria is None else criteria
    names = tuple(name for name in asked.replace(" ", "").split(",") if name)
    for name in names:
        if name not in CRITERIA:
            told = f"'{name}' is no criterion. Choose from {listed(CRITERIA)}."
            raise InputError([("--criteria", told)])
    pinned: dict[Role, str] = {}
    for entry in require:
        role, sign, part = entry.partition("=")
        if not sign or role not in KINDS_FOR_ROLE:
            told = f"'{entry}' is not ROLE=PART. Roles are {listed(KINDS_FOR_ROLE)}."
            raise InputError([("--require", told)])
        pinned[role] = part
    return Wishes(
        cast("tuple[CriterionId, ...]", names),
        frozenset(own),
        pinned,
        frozenset(without),
        frozenset(without),
        tight,
        no_case,
        owned_only,
        None if at_most is None else Decimal(str(at_most)),
    )


def suggested(
    file: Path,
    packs: Sequence[Path],
    wishes: Wishes,
    first: bool,
    seconds: float | None,
    form: Form,
    units: DisplayUnits,
) -> tuple[str, bool]:
    """The kits for a plan file, and whether there is any; what is known when it is stopped.

    Raises InputError.
    """
    plan, catalogue = plan_from(parse_document(file)), shipped_with(packs)
    catalogue = catalogue.for_plan(plan)
    found = Suggestion((), Decimal(0), 0, 0, {})
    until = None if seconds is None else time.monotonic() + seconds
    try:
        for found in suggest(plan, catalogue, wishes):
            late = until is not None and time.monotonic() > until
            if late or (first and found.kits):
                break
    except KeyboardInterrupt:
        pass  # what is known so far is what was asked for
    if form == "json":
        text = kits_json(found)
    elif form == "csv":
        text = kits_csv(found, wishes.criteria, catalogue, plan.currency)
    else:
        text = kits_text(found, wishes, catalogue, plan.currency, units)
        if not found.kits and found.proven:
            told = what_gives(list(gains(plan, catalogue, wishes)), found, plan.currency)
            text = "\n".join([text, *map(units.text, told)])
    return text, bool(found.kits)
