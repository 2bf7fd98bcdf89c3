"""The highest safe ambient against a root finder that asks the thermal network alone."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest
from scipy.optimize import brentq

from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.heat.safe_ambient import COLDEST_C, HOTTEST_C
from cobblewort.core.errors import InputError
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.plan import Plan
from cobblewort.core.plans.what_if import what_if
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.core.verdict.explain import explain
from tests.kits import kit, shipped
from tests.practice.test_practice import BLUNDERS, BUILT, SOUND, plan_of

KITS = [*SOUND, *BUILT, *BLUNDERS]
STATED_C = (0.0, 25.0, 60.0)


def heat_at(plan: Plan, ambient_c: float) -> HeatResult:
    """The heat of a plan on a stated day, at nominal figures."""
    return heat_of(Kit(what_if(plan, ambient_c), shipped(), 1))


def left_k(plan: Plan, ambient_c: float) -> float:
    """How much is left of the tightest limit, in kelvins or, of a speed, in hundredths of a share;
    negative where something planned slows below what is sound or is too hot.
    """
    heat = heat_at(plan, ambient_c)
    work = heat.work
    assert work is not None
    spares = [1000.0]
    least = [0.6 if light else 0.9 for light in heat.light]
    rows = [(heat.speed_share, heat.wanted_die_c, heat.throttle_c, least)]
    for hot in heat.hot_bodies:
        if hot.slows:
            least = [0.6 if light else 0.9 for light in hot.light]
            rows.append((hot.speed_share, hot.temp_c, hot.limit_c, least))
        else:
            hard = hot.held_c[list(heat.means.must_hold), 0]
            spares.append(float(hot.limit_c[0] - hard.max()))
    for share, wanted_c, limit_c, leasts in rows:
        for state in heat.means.must_hold:
            kept = float(share[state, 0])
            cool_k = max(0.0, float(limit_c[0] - wanted_c[state, 0]))
            spares.append(100 * (kept - leasts[state]) + cool_k)
    inside = heat.inside_c
    rated = work._rated()
    if inside is not None and rated is not None:
        spares.append(rated[1] - float(inside[list(heat.means.must_hold), 0].max()))
    room_c = work._rated_for_the_room()[1]
    return min(*spares, room_c - ambient_c)


@pytest.mark.parametrize("number", range(len(KITS)))
def test_against_a_root_finder_and_any_stated_day(number: int, is_long: bool) -> None:
    """Within 0.1 K, on whatever day it is asked; every twelfth kit, with --long all of them."""
    if not is_long and number % 12:
        pytest.skip("one of twelve")
    plan = plan_of(KITS[number])
    if heat_at(plan, 25.0).work is None:
        pytest.skip("the board states no thermal figures")
    found = [float(heat_at(plan, day_c).hottest.ambient_c[0]) for day_c in STATED_C]
    if left_k(plan, COLDEST_C) < 0:
        assert np.isnan(found).all()
    elif left_k(plan, HOTTEST_C) > 0:
        assert found == [HOTTEST_C] * len(found)
    else:
        exact_c = brentq(lambda day_c: left_k(plan, day_c), COLDEST_C, HOTTEST_C, xtol=1e-3)
        assert found == pytest.approx([exact_c] * len(found), abs=0.1)


@pytest.mark.parametrize("parts", [("B10", "E04"), ("B10", "K05", "E02"), ("B06", "K03", "E04")])
@pytest.mark.parametrize("day_c", [25.0, 45.0])
def test_what_is_asked_for_more_never_does_less(parts: tuple[str, ...], day_c: float) -> None:
    """The clock held, over that of the peak, never falls as the load asked rises."""
    levels = ("light", "normal", "full")
    clocks = []
    for level in levels:
        schedule = [{"name": "work", "hours": 8, "activity": level}]
        heat = heat_at(kit("S03", "M02", *parts, schedule=schedule), day_c)
        work = heat.work
        assert work is not None
        at = heat.means.ids.index("phase-1-mean")
        clocks.append(float(work.governed.soc_w[at, 0]))
    assert all(less <= more + 1e-6 for less, more in pairwise(clocks)), clocks


def test_where_there_is_none_nothing_is_told_of_it() -> None:
    """Neither the end of the search nor a working; the band knows no number either."""
    full = [{"name": "day", "hours": 24, "activity": "full"}]
    plan = kit("B11", "S03", "M02", "E02", schedule=full, place={"sun_w_m2": 1000})
    heat = evaluate(plan, shipped(), 64).heat
    assert (heat.hottest_ambient_c, heat.hottest_ambient_p05_c) == (None, None)
    with pytest.raises(InputError):
        explain(plan, shipped(), "heat:hottest_ambient", 64)
