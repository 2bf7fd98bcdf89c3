"""The lines of a kit, and the one next thing to do about it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic_core import to_jsonable_python

from cobblewort.core.aspects.heat.aspect import ASPECT as HEAT
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.severity import Severity
from cobblewort.core.parts.key_value import key_value, short_name
from cobblewort.core.parts.model import Origin, Part
from cobblewort.core.parts.sheet import changed_figures
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import PlanStatus, Role
from cobblewort.core.text import Text, as_text, say
from cobblewort.core.verdict.doubts import least_sure


@dataclass(slots=True, frozen=True)
class LineReport:
    """One line of the kit, with the figure that tells most about it.

    `short_name` says what the part is where there is no space for its summary.

    `changed` tells what is different in the newest revision of a part that the line keeps an
    earlier one of; it is empty where the line has the newest.
    """

    id: str
    role: Role
    part: str
    name: str
    short_name: str
    maker: str
    summary: str
    quantity: int
    owned: bool
    spare: bool
    figure: Text
    severity: Severity
    origin: Origin
    newest_revision: int
    changed: list[str]


@dataclass(slots=True, frozen=True)
class NextStep:
    """The one next thing to do: choose a part for `role`, look at `finding`, or at how `figure`
    comes about; or none of these.
    """

    text: Text
    role: Role | None
    finding: str | None
    figure: str | None


def line_reports(kit: Kit, severity: Mapping[str, Severity]) -> list[LineReport]:
    """The kit line by line, in kit order."""
    reports = []
    there = {line.id: (line, part) for line, part in (*kit.items.by_line(), *kit.spares.by_line())}
    for line, part in (there[line.id] for line in kit.plan.lines):
        worst = severity.get(line.id, "ok")
        kept, newest = kit.catalogue.of_line(line), kit.catalogue.part(line.part)
        changed = [] if newest is kept else _changes(kit.catalogue, kept, newest)
        reports.append(
            LineReport(
                line.id,
                line.role,
                part.id,
                part.model,
                short_name(part),
                part.maker,
                part.summary,
                line.quantity,
                line.owned,
                line.spare,
                key_value(part),
                worst,
                part.origin,
                newest.revision,
                changed,
            )
        )
    return reports


def _changes(catalogue: Catalogue, part: Part, newest: Part) -> list[str]:
    """What the newest revision states differently; empty where only its words are new."""
    told = changed_figures(catalogue.sheet(part), catalogue.sheet(newest))
    if told or same_but_for_words(part, newest):
        return told
    return ["other details"]


_WORDS = frozenset(
    {"id", "revision", "maker", "model", "summary", "label", "looks_like", "cautions"}
)


def same_but_for_words(one: Part, other: Part) -> bool:
    """Whether two parts differ in nothing but names, labels and descriptions."""
    return _without_words(to_jsonable_python(one)) == _without_words(to_jsonable_python(other))


def _without_words(document: Any) -> object:
    if isinstance(document, dict):
        return {k: _without_words(v) for k, v in document.items() if k not in _WORDS}
    if isinstance(document, list):
        return [_without_words(entry) for entry in document]
    return document


_FIRST_CHOICES: tuple[tuple[Role, str], ...] = (
    ("board", "Choose a board."),
    ("power_supply", "Choose a power supply."),
    ("boot_drive", "Choose a boot drive: a memory card or a drive."),
)
_NO_COOLER = "Choose a cooler. The board gets too warm without one."
_NO_CASE = "Choose a case. Until then heat is calculated for a bare board in open air."


def _later_choice(kit: Kit, findings: list[Finding]) -> NextStep | None:
    """A cooler where it is too warm without one, and a case."""
    warm = any(f.family == HEAT.family and f.severity == "tight" for f in findings)
    if warm and not kit.items.of_role("cooling"):
        return NextStep(as_text(_NO_COOLER), "cooling", None, None)
    if not kit.items.of_role("case"):
        return NextStep(as_text(_NO_CASE), "case", None, None)
    return None


_BY_STATUS: dict[PlanStatus, str] = {
    "planning": "No problems found. Print the plan sheet and order the parts.",
    "ordered": "Compare each part that arrives with the plan sheet.",
    "built": "Run it under its heaviest load for a day, then set the status to Tested.",
    "tested": "Nothing is open. See Lifetime for what to do each year.",
}


def next_step(
    kit: Kit, findings: list[Finding], checked: Iterable[tuple[Margin, Check]]
) -> NextStep:
    """What to do next: what is missing, then what stops it, what nothing uses, what is still open,
    what is not known; in the end to buy, build and test it, and what to measure first.
    """
    missing = {finding.id for finding in findings}
    for role, text in _FIRST_CHOICES:
        if f"FIT-01:{role}" in missing:  # a board may well be fed by what is no supply
            return NextStep(as_text(text), role, None, None)
    return (
        _of_problem(findings)
        or _later_choice(kit, findings)
        or _of_tight(findings)
        or _of_unknown(findings)
        or _then(kit, checked)
    )


def _of_problem(findings: list[Finding]) -> NextStep | None:
    """The first problem; else the first part that nothing uses."""
    worst = findings[0] if findings else None
    if worst is not None and worst.severity == "problem":
        hint = "Try one of its fixes." if worst.has_fixes else "Change one of the parts it names."
        told = say("Solve the first problem. {hint}", hint=hint)
        return NextStep(told, None, worst.id, None)
    idle = next((f for f in findings if f.rule == "FIT-44" and f.severity == "tight"), None)
    if idle is None:
        return None
    told = say("{sentence} Remove it, or mark it as spare.", sentence=idle.sentence)
    return NextStep(told, None, idle.id, None)


def _of_tight(findings: list[Finding]) -> NextStep | None:
    """The first tight limit that a change eases, else the first."""
    tight = [finding for finding in findings if finding.severity == "tight"]
    if not tight:
        return None
    eased = next((finding for finding in tight if finding.has_fixes), None)
    told = "Look at what is tight." if eased is None else "See what eases a tight limit."
    return NextStep(as_text(f"There are no problems. {told}"), None, (eased or tight[0]).id, None)


def _of_unknown(findings: list[Finding]) -> NextStep | None:
    """The first figure that a part lacks."""
    unknown = next((finding for finding in findings if finding.unknown), None)
    if unknown is None:
        return None
    told = "{sentence} Look the value up or measure it, and enter it under Parts."
    return NextStep(say(told, sentence=unknown.sentence), None, unknown.id, None)


def _then(kit: Kit, checked: Iterable[tuple[Margin, Check]]) -> NextStep:
    """What is next when nothing is wrong."""
    status = kit.plan.status
    if not kit.plan.requirements:
        told = "Open Purpose and add what the kit must do. Then that is checked too."
        return NextStep(as_text(told), None, None, None)
    unsure = None if status == "tested" else least_sure(kit, checked)
    if unsure is None:
        return NextStep(as_text(_BY_STATUS[status]), None, None, None)
    is_here = any(line.owned for line, part in kit.items.by_line() if part.id == unsure.part)
    if status == "built" or is_here:
        words = say("Measure {value}. {why}", value=unsure.value, why=unsure.told)
    else:
        words = say(
            "{first} When it arrives, measure {value}. {why}",
            first=_BY_STATUS[status],
            value=unsure.value,
            why=unsure.told,
        )
    return NextStep(words, None, None, unsure.margin.id)
