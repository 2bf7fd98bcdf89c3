"""Single steps of the thermal network that a sum over all of them would hide."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from cobblewort.core.aspects.heat.bodies import split_path
from cobblewort.core.aspects.heat.enclosure import VENT_DISCHARGE, stack_flow_m3_s
from cobblewort.core.standards.air import SEA_LEVEL_PA
from tests.kits import checked, kit, shipped, with_part

HALF = SEA_LEVEL_PA / 2


def test_thin_air_carries_less_and_radiation_stays() -> None:
    """0.6 G (p/p0)^0.5 in still air, (1/R_fan - 0.4 G) (p/p0)^0.7 under a fan (computation by
    hand, R = 5 and 3 K/W at half the pressure).
    """
    still, forced = split_path(5.0, None, HALF), split_path(5.0, 3.0, HALF)
    assert still.wall_w_k == forced.wall_w_k == pytest.approx(0.08)
    assert still.air_w_k == pytest.approx(0.12 * 0.5**0.5)
    assert forced.air_w_k == pytest.approx((1 / 3 - 0.08) * 0.5**0.7)


def test_the_stack_draws_as_a_chimney_does() -> None:
    """V = Cd A sqrt(2 g h dT / T): 4 cm2, 5 cm, 10 K over 293 K (BS 5925 (from memory), by hand);
    nothing where the air inside is no warmer.
    """
    flow = stack_flow_m3_s(4e-4, 0.05, 10.0, 293.15)
    by_hand = VENT_DISCHARGE * 4e-4 * (2 * 9.80665 * 0.05 * 10 / 293.15) ** 0.5
    assert flow == pytest.approx(by_hand, rel=1e-4)
    assert stack_flow_m3_s(4e-4, 0.05, -3.0, 293.15) == 0.0


def test_each_path_carries_what_its_ends_say() -> None:
    """What leaves a sink comes out of its die; what goes into each node comes out of it."""
    heat = checked(kit("B10", "S03", "M02", "K05", "E03")).heat
    for state in range(len(heat.states)):
        into: dict[str, float] = {}
        out: dict[str, float] = {}
        for path in heat.paths:
            out[path.start] = out.get(path.start, 0.0) + path.power_w[state]
            into[path.end] = into.get(path.end, 0.0) + path.power_w[state]
        assert into["sink"] == pytest.approx(out["sink"], rel=1e-3)
        assert into["inside"] == pytest.approx(out["inside"], rel=5e-3)
        assert into["outside"] == pytest.approx(heat.inside_w[state], rel=5e-3)
        die_to_sink = next(p for p in heat.paths if (p.start, p.end) == ("die", "sink"))
        assert die_to_sink.power_w[state] > 0


@pytest.mark.parametrize(
    ("where", "board_c", "card_c", "then"),
    [
        ("open", 50, 30, "Plain card"),  # in the open a card stands in the room
        ("shut", 45, 85, "Hurdle 2"),  # a board is rated for the room also in its case
        ("shut", 85, 30, "Plain card"),  # a card for the air that it sits in
    ],
)
def test_good_up_to_counts_the_rating_that_comes_first(
    where: str, board_c: float, card_c: float, then: str
) -> None:
    """And says whose it is."""
    card: dict[str, Any] = {
        "id": "M90",
        "kind": "card",
        "part_class": "memory_card",
        "maker": "m",
        "model": "Plain card",
        "ambient_max_c": card_c,
        "storage": {"capacity_gb": 8},
    }
    catalogue = with_part(**card)
    board = {**catalogue.document(catalogue.part("B06")), "ambient_max_c": board_c}
    catalogue = catalogue.extended([board])
    parts = ("B06", "S01", "M90", "K03", *(("E03",) if where == "shut" else ()))
    day = [{"name": "rest", "hours": 24, "activity": "idle"}]
    heat = checked(kit(*parts, schedule=day, place={"ambient_max_c": 20}), 1, catalogue).heat
    assert heat.hottest_ambient_c is not None
    assert heat.hottest_ambient_c <= min(board_c, card_c) + 1e-6
    assert then in heat.hottest_ambient_then


def test_no_body_is_colder_than_its_surroundings() -> None:
    """Of every kind of case, in every state."""
    for case in ("E02", "E03", "E04", "E07", "E11"):
        heat = checked(kit("B06", "S01", "M02", "K03", case)).heat
        assert all(np.min(node.temp_c) >= heat.ambient_c - 1e-6 for node in heat.nodes)


def test_a_load_in_amperes_warms_the_case_as_one_in_watts_does() -> None:
    """The fan of a cooler inside: 0.4 A of some 5 V are 2 W."""

    def given_off_w(unit: str, drawn: float) -> float:
        load = {"rail": "in", "unit": unit, "idle": drawn, "normal": drawn, "peak": drawn}
        document = {**shipped().document(shipped().part("K05")), "id": "K95"}
        fan = shipped().extended([{**document, "loads": {"own": load}}])
        return checked(kit("B10", "S03", "M02", "E03", "K95"), 1, fan).heat.inside_w[0]

    assert given_off_w("a", 0.4) == pytest.approx(given_off_w("w", 2.0), rel=0.02)
    assert given_off_w("a", 0.4) > given_off_w("a", 0.0) + 1.5
