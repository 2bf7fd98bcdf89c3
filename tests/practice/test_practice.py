"""Kits as practitioners build them: what must be said of each, and what must not.

The kits are data: `sound.yaml` holds those of which nothing but the listed notes may be said,
`built.yaml` kits as they were built, each with its headline, and `blunders.yaml` those with one
mistake each. All of it is common practice.
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest
import yaml

from cobblewort.core.judging.rules import RULES
from cobblewort.core.judging.severity import SEVERITY_RANK, Severity
from cobblewort.core.plans.plan import Plan
from cobblewort.core.plans.purpose import plan_for
from cobblewort.formats.shipped import shipped_places, shipped_purposes
from tests.kits import checked, kit

HERE = Path(__file__).parent
FIELDS = (
    "place",
    "schedule",
    "requirements",
    "wired",
    "settings",
    "image",
    "budget",
    "copies",
    "ready_made",
    "transfers",
    "storage_use",
    "retention",
)
SAMPLES = 128
ALWAYS = {
    "NEED-03",
    "SOFT-04",
    "SOFT-07",
    "SAFE-05",
    "FIT-21",
    "FIT-35",
    "FIT-38",
    "FIT-39",
    "FIT-45",
    "HEAT-07",
    "COST-03",
    "LIFE-04",
    "LIFE-05",
    "LIFE-06",
}
"""Notes that every kit of the kind may have: what is left to do, what could hurt, a better buy."""


def read(name: str) -> list[dict[str, Any]]:
    """The kits of a file."""
    kits: list[dict[str, Any]] = yaml.safe_load((HERE / name).read_text())
    return kits


def plan_of(entry: dict[str, Any]) -> Plan:
    """The plan of an entry: its parts in a room, with what its purpose asks where it has one."""
    lines = [
        line.model_copy(
            update={
                "pins": entry.get("pins", {}).get(line.id, {}),
                "spare": line.id in entry.get("spare", ()),
                "held_by": entry.get("held_by", "screws") if line.role == "case" else "screws",
            }
        )
        for line in kit(*entry["parts"]).lines
    ]
    plan = Plan(name=entry["name"])
    if "purpose" in entry:
        room = shipped_places()["indoor-room"].place
        plan = plan_for(shipped_purposes()[entry["purpose"]], entry["name"], room)
    given = {field: entry[field] for field in FIELDS if field in entry}
    return Plan.model_validate({**plan.model_dump(), **given, "lines": lines})


def worst_by_rule(entry: dict[str, Any]) -> dict[str, tuple[Severity, str]]:
    """The worst that each rule says of a kit."""
    worst: dict[str, tuple[Severity, str]] = {}
    for finding in checked(plan_of(entry), SAMPLES).findings:  # worst first
        worst.setdefault(finding.rule, (finding.severity, finding.sentence.text))
    return worst


SOUND, BUILT, BLUNDERS = read("sound.yaml"), read("built.yaml"), read("blunders.yaml")


@pytest.mark.parametrize("entry", SOUND, ids=lambda entry: entry["name"])
def test_nothing_is_wrong_with_what_works(entry: dict[str, Any]) -> None:
    """Nothing stops it, nothing is tight, and only the listed notes are there."""
    said = worst_by_rule(entry)
    assert {rule: told for rule, told in said.items() if told[0] != "note"} == {}
    known = ALWAYS | set(entry.get("notes", ()))
    assert {rule: told for rule, told in said.items() if rule not in known} == {}


@pytest.mark.parametrize("entry", BUILT, ids=lambda entry: entry["name"])
def test_what_was_built_gets_its_verdict(entry: dict[str, Any]) -> None:
    """Its headline and what must be said; anything else is a note that is listed."""
    said, expected = worst_by_rule(entry), entry.get("says", {})
    assert {rule: said.get(rule, ("", ""))[0] for rule in expected} == expected
    worst = max((SEVERITY_RANK[severity] for severity, _ in said.values()), default=0)
    assert worst <= SEVERITY_RANK[entry["worst"]], said
    known = ALWAYS | set(entry.get("notes", ())) | set(expected)
    assert {rule: told for rule, told in said.items() if rule not in known} == {}


@pytest.mark.parametrize("entry", BLUNDERS, ids=lambda entry: entry["name"])
def test_a_blunder_is_told(entry: dict[str, Any]) -> None:
    """By its rule and with its severity; what stops or is tight besides has to be listed too."""
    said = worst_by_rule(entry)
    expected: dict[str, Severity] = entry["says"]
    assert {rule: said.get(rule, ("", ""))[0] for rule in expected} == expected
    besides = {
        rule: told
        for rule, told in said.items()
        if SEVERITY_RANK[told[0]] > SEVERITY_RANK["note"] and rule not in expected
    }
    assert besides.keys() <= set(entry.get("besides", ())), besides
    assert not said.keys() & set(entry.get("quiet", ()))


def test_notes_are_few() -> None:
    """At most four on average, of kits with which nothing is wrong."""
    told = [checked(plan_of(entry)).findings for entry in [*SOUND, *BUILT]]
    notes = [sum(finding.severity == "note" for finding in findings) for findings in told]
    assert sum(notes) / len(notes) <= 4


def test_the_kits_are_many_and_their_rules_exist() -> None:
    """Over a hundred, a third of them sound, over every purpose; no rule is misspelt."""
    assert len(SOUND) + len(BLUNDERS) >= 60
    assert len(SOUND) >= 30
    assert len(BUILT) >= 40
    named = [rule for entry in [*BUILT, *BLUNDERS] for rule in entry.get("says", ())]
    named += [
        rule
        for entry in [*SOUND, *BUILT, *BLUNDERS]
        for key in ("notes", "besides", "quiet")
        for rule in entry.get(key, ())
    ]
    assert set(named) <= set(RULES)
    told = {entry.get("purpose") for entry in [*SOUND, *BLUNDERS]}
    assert set(shipped_purposes()) <= told
