"""Where kits and parts stand: what beats them, what stops them, and how sure that is."""

from __future__ import annotations

import re
from operator import le

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.changing.suggest import (
    CRITERIA,
    Suggestion,
    Wishes,
    also_tried,
    bought,
    stays,
    why_not,
)
from cobblewort.core.errors import InputError
from cobblewort.core.figures.arrays import FloatArray
from tests.core.changing.test_suggest import FOUR, SMALL_CUPBOARD, cupboard, last, wanted

SIGN = wanted("sign", "indoor-room")
MANY = (*SMALL_CUPBOARD, "B10", "S03", "M05", "K03", "K05", "E04", "S33", "H03", "X17", "C04")
THERE = cupboard(*MANY)
FRONT = last(SIGN, THERE, Wishes(FOUR))


def steps(*rows: list[float]) -> FloatArray:
    """A kit's steps, criterion by criterion; the first of each is nominal."""
    return np.array(rows)


def test_how_often_a_kit_is_beaten_is_counted_draw_by_draw() -> None:
    """By hand: two criteria, four draws. The second is beaten in the draws in which the first is no
    dearer and no worse; of two that are alike the earlier stands for both. Nominal counts for
    nothing.
    """
    cheap = steps([1, 1, 1, 1, 1], [9, 5, 5, 2, 2])
    good = steps([2, 2, 2, 2, 2], [1, 4, 5, 3, 1])
    assert stays([cheap, good]) == [1.0, 0.5]
    assert stays([cheap, cheap]) == [1.0, 0.0]
    assert stays([good]) == [1.0]


def test_a_kit_of_its_own_price_is_never_beaten_by_a_dearer_one() -> None:
    """The cheapest stays in every draw, whatever luck the others have; each share is one."""
    shares = stays([kit.drawn for kit in FRONT.kits])
    assert len(shares) > 2
    assert shares[0] == 1.0
    assert all(0 < share <= 1 for share in shares)
    assert all(kit.drawn.shape == (4, 256) for kit in FRONT.kits)


@pytest.mark.parametrize("name", list(CRITERIA))
def test_a_draw_without_luck_is_the_nominal_figure(name: str) -> None:
    """Sample 0 of each criterion is what the criterion itself says, in its steps."""
    criterion = next(one for one in CRITERIA if one == name)
    found = last(SIGN, THERE, Wishes(("price", criterion) if name != "price" else ("price",)))
    for kit in found.kits:
        assert tuple(kit.drawn[:, 0]) == pytest.approx(kit.steps)


def test_what_is_beaten_is_beaten_by_what_it_names() -> None:
    """In everything as good, and better in what is told; none of the kits is among them."""
    others = also_tried(FRONT)
    assert others
    for tried, by in others:
        best = FRONT.kits[by.by]
        assert all(map(le, best.steps, tried.steps))
        assert all(best.values[name] != tried.values[name] for name in by.better_in)
        assert tried.parts not in [bought(kit.plan) for kit in FRONT.kits]
    assert also_tried(Suggestion((), None, 0, 0, {})) == []


@pytest.mark.parametrize(
    ("part", "words"),
    [
        ("B04", "is in "),
        ("S33", "takes solar power; the location has mains"),
        ("H03", "No kit needs Bollard 4"),
        ("X17", "No requirement asks for what Dew does"),
        ("B10", r"The lowest-priced kit with Mullion 8 costs .*; kit \d is better \(price"),
    ],
)
def test_why_a_part_is_in_no_kit(part: str, words: str) -> None:
    """What it would do, what beats it, or what stops it."""
    told = why_not(SIGN, THERE, Wishes(FOUR), THERE.part(part), FRONT.kits)
    assert told.text.endswith(".")
    assert re.search(words, told.text), told.text


def test_what_stops_every_kit_with_a_part() -> None:
    """Told by what it does to the first kit, in place of what that has for its role."""
    there = cupboard(*SMALL_CUPBOARD, "K05", "S08", "C04")
    kits = last(SIGN, there, Wishes(FOUR)).kits
    fan = why_not(SIGN, there, Wishes(FOUR), there.part("K05"), kits)
    assert re.match("No kit with Windrow .*In kit 1: The fan cable of Windrow needs", fan.text)
    none = why_not(SIGN, there, Wishes(FOUR), there.part("K05"), ())
    assert "In kit 1" not in none.text


@pytest.mark.parametrize(
    ("wishes", "part", "words"),
    [
        (Wishes(FOUR, left_out=frozenset({"B10"})), "B10", "is excluded"),
        (Wishes(FOUR, without_makers=frozenset({"Marlpit"})), "B06", "is excluded"),
        (Wishes(FOUR, owned_only=True), "B10", "is not marked as owned"),
    ],
)
def test_why_a_part_is_not_looked_at(wishes: Wishes, part: str, words: str) -> None:
    """What was asked keeps it out."""
    assert words in why_not(SIGN, THERE, wishes, THERE.part(part), ()).text


def test_a_cold_or_wet_place_keeps_parts_out() -> None:
    """Its rating, and what a case does not keep out."""
    outside = wanted("sign", "outdoors-shaded")
    cold = why_not(outside, THERE, Wishes(FOUR), THERE.part("B10"), ())
    assert "is rated from 0" in cold.text
    assert "protect enough" in why_not(outside, THERE, Wishes(FOUR), THERE.part("E01"), ()).text


def test_a_maker_can_be_left_out() -> None:
    """None of its parts is in any kit; one that is required as well is told."""
    makers = {THERE.part(part).maker for kit in FRONT.kits for part in kit.parts}
    for maker in sorted(makers):
        found = last(SIGN, THERE, Wishes(FOUR, without_makers=frozenset({maker})))
        used = {THERE.part(part).maker for kit in found.kits for part in kit.parts}
        assert maker not in used
    pinned = Wishes(pinned={"board": "B06"}, without_makers=frozenset({"Marlpit"}))
    with pytest.raises(InputError, match="both required and left out"):
        last(SIGN, THERE, pinned)


def covers(better: Suggestion, worse: Suggestion) -> bool:
    """Whether for each kit of one there is one as good in everything in the other."""
    return all(any(all(map(le, one.steps, kit.steps)) for one in better.kits) for kit in worse.kits)


@settings(max_examples=5, deadline=None)
@given(st.sets(st.sampled_from(MANY), min_size=6), st.sampled_from(MANY), st.sampled_from(FOUR[1:]))
def test_more_to_choose_from_is_never_worse(parts: set[str], more: str, criterion: str) -> None:
    """A part added never worsens what can be had, nor does a requirement dropped; and a part that
    is in no kit can be taken away without a change.
    """
    asked = Wishes(("price", next(name for name in FOUR if name == criterion)))
    there = {*parts, "B04", "M02", "S06", "E01"}
    before = last(SIGN, cupboard(*there), asked)
    assert before.kits
    assert covers(last(SIGN, cupboard(*there, more), asked), before)
    dropped = SIGN.model_copy(update={"requirements": SIGN.requirements[1:]})
    assert covers(last(dropped, cupboard(*there), asked), before)
    used = {part for kit in before.kits for part in kit.parts}
    again = last(SIGN, cupboard(*used), asked)
    assert [kit.steps for kit in again.kits] == [kit.steps for kit in before.kits]
