"""Kits that many tests build on: the shipped catalogue, the demo plans, and plans made from ids."""

from __future__ import annotations

from typing import Any

from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.margin import Margin
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.core.verdict.report import Report
from cobblewort.formats.shipped import demo_plans, shipped_catalogue

ROLE_OF_LETTER = {
    "B": "board",
    "S": "power_supply",
    "M": "boot_drive",
    "D": "storage",
    "A": "add_on",
    "X": "add_on",
    "H": "add_on",
    "K": "cooling",
    "E": "case",
    "C": "cable",
    "F": "fastener",
    "T": "set_up",
    "N": "other_equipment",
}


OWN = {"X-Cobblewort": "test"}
"""The header that every change over HTTP carries."""


def shipped() -> Catalogue:
    """The shipped catalogue."""
    return shipped_catalogue()


def demo(plan_id: str) -> Plan:
    """One of the demo plans."""
    return next(
        Plan.model_validate(entry["plan"]) for entry in demo_plans() if entry["id"] == plan_id
    )


def role_of(part_id: str) -> str:
    """The role by the letter of an id; parts of class figures alone go by their kind."""
    if not part_id.startswith("any-"):
        return ROLE_OF_LETTER[part_id[0]]
    kind = shipped().part(part_id).kind
    return next(role for role, kinds in KINDS_FOR_ROLE.items() if kind in kinds)


def kit(*parts: str, **fields: Any) -> Plan:
    """A plan of these parts, each on a line named like it; `2xD11` stands for two of them."""
    lines = []
    for text in parts:
        count, _, rest = text.partition("x")
        quantity, part = (int(count), rest) if count.isdigit() else (1, text)
        line: dict[str, Any] = {"id": part, "role": role_of(part), "part": part}
        lines.append({**line, "quantity": quantity})
    return Plan.model_validate({"name": "test kit", "lines": lines, **fields})


SMALL = ("B06", "S01", "M02", "K03", "E03", "T04")
"""A small kit that nothing stops."""


def checked(plan: Plan, samples: int = 1, catalogue: Catalogue | None = None) -> Report:
    """The report of a plan with the shipped catalogue, or another one."""
    return evaluate(plan, catalogue or shipped(), samples)


def told(report: Report, rule: str) -> list[Finding]:
    """What a rule has to say."""
    return [f for f in (*report.findings, *report.aside) if f.rule == rule]


def margin(report: Report, margin_id: str) -> Margin:
    """The margin with this id, which must be there."""
    found = report.margin(margin_id)
    assert found is not None, f"no margin {margin_id}; there are {[m.id for m in report.margins]}"
    return found


def with_part(**changes: Any) -> Catalogue:
    """The shipped catalogue with one more part, as a document."""
    return shipped().extended([changes])
