"""The lines of a kit, and the one next thing to do about it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Severity
from cobblewort.core.parts.key_value import telling_figure
from cobblewort.core.parts.model import Origin, Part
from cobblewort.core.parts.sheet import changed_figures
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Role


@dataclass(slots=True, frozen=True)
class LineReport:
    """One line of the kit, with the figure that tells most about it.

    `changed` tells what is different in the newest revision of a part that the line keeps an
    earlier one of; it is empty where the line has the newest.
    """

    id: str
    role: Role
    part: str
    name: str
    maker: str
    summary: str
    quantity: int
    owned: bool
    figure: str
    severity: Severity
    origin: Origin
    newest_revision: int
    changed: list[str]


@dataclass(slots=True, frozen=True)
class NextStep:
    """The one next thing to do: choose a part for `role`, or look at `finding`; or neither."""

    text: str
    role: Role | None
    finding: str | None


def line_reports(kit: Kit, severity: Mapping[str, Severity]) -> list[LineReport]:
    """The kit line by line, in kit order."""
    reports = []
    for line, part in kit.items.by_line():
        worst = severity.get(line.id, "ok")
        kept, newest = kit.catalogue.of_line(line), kit.catalogue.part(line.part)
        changed = [] if newest is kept else _changes(kit.catalogue, kept, newest)
        reports.append(
            LineReport(
                line.id, line.role, part.id, part.model, part.maker, part.summary, line.quantity,
                line.owned, telling_figure(part), worst, part.origin,
                newest.revision, changed,
            )
        )  # fmt: skip
    return reports


def _changes(catalogue: Catalogue, part: Part, newest: Part) -> list[str]:
    """What the newest revision says differently; never empty, as there is a newer one."""
    told = changed_figures(catalogue.sheet(part), catalogue.sheet(newest))
    return told or ["something that no figure shows"]


_FIRST_CHOICES: tuple[tuple[Role, str], ...] = (
    ("board", "Choose a board: everything else hangs on it."),
    ("power_supply", "Choose a supply for it."),
    ("boot_drive", "Choose what it starts from: a memory card, or a drive."),
)
_LATER_CHOICES: tuple[tuple[Role, str], ...] = (
    ("cooling", "Choose a cooler, or leave the board bare if it stays cool enough."),
    ("case", "Choose a case; until then its heat is that of a bare board in the open."),
)


def next_step(kit: Kit, findings: list[Finding]) -> NextStep:
    """What to do next: what is missing, then what stops it, then what is still open."""
    missing = {finding.id for finding in findings}
    for role, text in _FIRST_CHOICES:
        if f"FIT-01:{role}" in missing:  # a board may well be fed by what is no supply
            return NextStep(text, role, None)
    worst = findings[0] if findings else None
    if worst is not None and worst.severity == "problem":
        return NextStep("Open the first snag and try one of its ways out.", None, worst.id)
    for role, text in _LATER_CHOICES:
        if not kit.items.of_role(role):
            return NextStep(text, role, None)
    if worst is not None and worst.severity == "tight":
        return NextStep("Nothing stops it. Look at what is tight and decide.", None, worst.id)
    if kit.plan.budget is None:
        return NextStep("Set a budget, so that the cost is judged too.", None, None)
    return NextStep("Nothing stands in the way. Print the plan sheet and order.", None, None)
