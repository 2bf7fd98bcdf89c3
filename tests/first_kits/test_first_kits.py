"""First kits of all purposes: never dearer than they were, and as the document says."""

import pytest

from cobblewort.core.changing.suggest import FirstKit
from cobblewort.core.plans.plan import FEEDS_AT, Plan
from cobblewort.formats.shipped import shipped_places, shipped_purposes
from tests.first_kits.table import DOCUMENT, PLACES, before, is_sound, kit_for, table
from tests.kits import checked, shipped

SHARE = [
    pytest.param(purpose, place, marks=() if (row + column) % 4 == 0 else pytest.mark.long)
    for row, purpose in enumerate(shipped_purposes())
    for column, place in enumerate(PLACES)
]


@pytest.mark.parametrize(("purpose", "place"), SHARE)
def test_it_is_never_dearer_than_it_was(purpose: str, place: str) -> None:
    """And sound wherever it was; nothing in it is useless, nor fed twice."""
    found, was = kit_for(purpose, shipped_places()[place].place), before(purpose, place)
    if was is not None:
        assert is_sound(found), [one.text for one in (*found.failing, *found.tight)]
        assert found.total <= was
    if is_sound(found):
        assert useless_lines(found.plan) == []
    else:
        assert found.failing or found.tight


@pytest.mark.parametrize("power", [power for power in FEEDS_AT if power != "mains"])
@pytest.mark.parametrize("purpose", ["climate-logger", "frost-camera", "sign"])
def test_each_power_source_has_its_supply(purpose: str, power: str) -> None:
    """One power supply, for that source, and nothing that is not plugged in."""
    place = shipped_places()["indoor-room"].place.model_copy(update={"power": power})
    found: FirstKit = kit_for(purpose, place)
    supplies = [line.part for line in found.plan.lines if line.role == "power_supply"]
    assert [shipped().part(one).source.power_source for one in supplies] == [power]
    assert found.failing == []
    assert useless_lines(found.plan) == []


_TOLD_BY_NOTES = ("set_up", "case", "fastener", "other_equipment")
"""Roles whose absence is no snag, or a note."""


def useless_lines(plan: Plan) -> list[str]:
    """Parts of a kit without which nothing is missing or worse: each has to be for something."""
    report = checked(plan)
    assert not report.count("problem")
    lines = [line for line in plan.lines if line.role not in _TOLD_BY_NOTES]
    useless = []
    for line in lines:
        rest = tuple(one for one in plan.lines if one is not line)
        without = checked(plan.model_copy(update={"lines": rest}), 256)
        if not without.count("problem") and not without.count("tight"):
            useless.append(line.part)
    return useless


@pytest.mark.long
def test_the_document_is_the_newest() -> None:
    """`make first-kits` writes it."""
    assert DOCUMENT.read_text() == table()
