"""Cautions: what can hurt somebody."""

import pytest

from cobblewort.core.aspects.safety.rules import TOUCH_HOT_C
from tests.kits import checked, kit, told

HOT = ("B10", "S03", "M02", "K03", "E01")


def hottest_sink_c(ambient_c: float) -> float:
    """The cooler in its warmest state, with everything at once among them."""
    heat = checked(kit(*HOT, place={"ambient_min_c": -20, "ambient_max_c": ambient_c})).heat
    return max(next(node for node in heat.nodes if node.id == "sink").temp_c)


@pytest.mark.parametrize(("over_k", "warned"), [(-0.3, False), (0.3, True)])
def test_from_which_temperature_on_a_sink_burns(over_k: float, warned: bool) -> None:
    """60 °C, the lower end for bare metal at a few seconds: ISO 13732-1 (from memory)."""
    assert TOUCH_HOT_C == 60
    ambient_c = 10.0
    for _ in range(5):  # the sink follows the day nearly one to one
        ambient_c += TOUCH_HOT_C + over_k - hottest_sink_c(ambient_c)
    assert hottest_sink_c(ambient_c) == pytest.approx(TOUCH_HOT_C + over_k, abs=0.05)
    report = checked(kit(*HOT, place={"ambient_min_c": -20, "ambient_max_c": ambient_c}))
    assert bool(told(report, "SAFE-02")) == warned


def test_children_and_an_open_board() -> None:
    """Where they can reach it and nothing closes it; a closed case or adults alone are silent."""
    place = {"within_reach_of": "children"}
    assert told(checked(kit(*HOT, place=place)), "SAFE-03")[0].severity == "note"
    assert told(checked(kit(*HOT)), "SAFE-03") == []
    closed = checked(kit("B10", "S03", "M02", "K03", "E03", place=place))
    assert told(closed, "SAFE-03") == []
