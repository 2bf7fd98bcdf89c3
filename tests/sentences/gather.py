"""The sentences as they come out: of the demo plans, and of a kit in which each rule fires."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core.text import Text
from cobblewort.core.verdict.report import rules_in_order
from cobblewort.formats.shipped import demo_plans
from tests.core.judging.test_rules import FIRES
from tests.kits import checked, demo

SAMPLES = 64


def of_demo() -> Iterator[tuple[str, list[tuple[str, str, str]]]]:
    """For each demo plan its name, and rule, severity and sentence of each finding."""
    for entry in demo_plans():
        plan = demo(entry["id"])
        findings = checked(plan, SAMPLES).findings
        yield plan.name, [(f.rule, f.severity, f.sentence.text) for f in findings]


def of_rules() -> Iterator[tuple[str, str, list[tuple[str, str]]]]:
    """For each rule its id and title, and severity and sentence of what it says where it fires."""
    for rule in (rule for rule in rules_in_order() if rule.id in FIRES):
        plan, catalogue = FIRES[rule.id]
        findings = [f for f in checked(plan, SAMPLES, catalogue).findings if f.rule == rule.id]
        yield rule.id, rule.title, [(f.severity, f.sentence.text) for f in findings]


def texts_of_rules() -> Iterator[Text]:
    """What the rules say where they fire, as texts."""
    for plan, catalogue in FIRES.values():
        for finding in checked(plan, SAMPLES, catalogue).findings:
            yield finding.sentence


def page() -> str:
    """All of them as Markdown."""
    parts = [
        "# Sentences",
        "",
        "Made by `make sentences`. What the rules say, to be read aloud.",
        "",
    ]
    for name, told in of_demo():
        parts += [f"## {name}", ""]
        parts += [f"- {rule}, {severity}: {sentence}" for rule, severity, sentence in told]
        parts.append("")
    for rule, title, said in of_rules():
        parts += [f"## {rule} {title}", ""]
        parts += [f"- {severity}: {sentence}" for severity, sentence in said]
        parts.append("")
    return "\n".join(parts)
