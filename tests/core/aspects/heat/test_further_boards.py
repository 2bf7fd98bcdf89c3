"""Boards beside the first one in a case: how hot their processors come to, and what that slows."""

from __future__ import annotations

import pytest

from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.judging.kit import Kit
from tests.kits import checked, kit, shipped, told

FLAT_OUT = [{"name": "work", "hours": 24, "activity": "full"}]


def peak_c(*parts: str) -> list[float]:
    """Dies at their peak, the first board's first."""
    heat = heat_of(Kit(kit(*parts, schedule=FLAT_OUT), shipped(), 1))
    state = len(heat.states) - 1
    return [
        float(heat.wanted_die_c[state, 0]),
        *(float(hot.temp_c[state, 0]) for hot in heat.hot_bodies if hot.warm.clock),
    ]


@pytest.mark.parametrize("cooler", ["K03", "K05"])
def test_a_second_board_is_about_as_hot_as_the_first(cooler: str) -> None:
    """The same board and cooler in the same tray: two nodes brought to one, within 6 K."""
    first, second = peak_c("2xB10", "2xS03", "2xM02", f"2x{cooler}", "E14")
    assert second == pytest.approx(first, abs=6)


def test_a_cooler_for_the_first_alone_leaves_the_second_bare() -> None:
    """Each further board has the next cooler, as long as there is one."""
    first, second = peak_c("2xB10", "2xS03", "2xM02", "K05", "E14")
    assert second > first + 15


def test_each_board_that_slows_is_named() -> None:
    """Flat out and bare they slow; at light work nothing is said."""
    parts = ("3xB06", "3xS04", "3xC08", "3xM02", "E14")
    hot = checked(kit(*parts, schedule=FLAT_OUT))
    sentences = [f.sentence.text for f in told(hot, "HEAT-05")]
    assert [f"Hurdle 2 #{n}" in text for n, text in enumerate(sentences, 2)] == [True, True]
    assert all("of its clock" in text for text in sentences)
    light = [{"name": "work", "hours": 24, "activity": "light"}]
    calm = told(checked(kit(*parts, schedule=light)), "HEAT-05")
    assert {f.severity for f in calm} <= {"note"}  # of everything at once


def test_their_heat_is_counted_once() -> None:
    """All that is given off inside is what the boards draw, whichever is first."""
    heat = heat_of(Kit(kit("2xB06", "2xS04", "2xC08", "2xM02", "E14"), shipped(), 1))
    one = heat_of(Kit(kit("B06", "S04", "C08", "M02", "E14"), shipped(), 1))
    assert float(heat.inside_w[0, 0]) == pytest.approx(2 * float(one.inside_w[0, 0]), rel=0.02)
