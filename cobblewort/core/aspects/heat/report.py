"""Temperatures and heat paths on the hottest day, for the drawing of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import isfinite

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.heat.flows import flows_w
from cobblewort.core.aspects.heat.model import HeatResult, HotTemps
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.margin import Margin, percentiles
from cobblewort.core.judging.states import StateReport, told_states

_HEAT_LABELS = {
    "die": "Processor",
    "sink": "Cooler",
    "board": "Board",
    "inside": "Air in the case",
    "wall": "Wall",
}


@dataclass(slots=True, frozen=True)
class HeatNode:
    """A node of the thermal network by state, with the 5 and 95 % values. [°C]"""

    id: str
    label: str
    temp_c: list[float]
    temp_p05_c: list[float] | None
    temp_p95_c: list[float] | None
    limit_c: float | None


@dataclass(slots=True, frozen=True)
class HeatPath:
    """Heat that passes between two nodes by state, `outside` being one of them. [W]"""

    start: str
    end: str
    power_w: list[float]


@dataclass(slots=True, frozen=True)
class HeatReport:
    """Temperatures on the hottest day. `why_not` is empty where they are known.

    `wanted_die_c` is where the die would come to at full clock, `speed_share` the clock it holds
    over the clock that is asked for, the least of them at `least_speed_when`, which is empty where
    it never gives way. Up to `hottest_ambient_c` outside nothing passes its limit, None where that
    is not even so in the cold;
    `hottest_ambient_then` says what comes first beyond.
    """

    why_not: str
    ambient_c: float
    states: list[StateReport]
    nodes: list[HeatNode]
    paths: list[HeatPath]
    wanted_die_c: list[float]
    speed_share: list[float]
    least_speed_share: float
    least_speed_when: str
    inside_w: list[float]
    hottest_ambient_c: float | None
    hottest_ambient_p05_c: float | None
    hottest_ambient_p95_c: float | None
    hottest_ambient_then: str


def heat_report(heat: HeatResult, samples: int, _: Sequence[Margin]) -> HeatReport:
    """The thermal network with its bands."""
    if heat.board is None:
        return HeatReport(
            heat.why_not,
            heat.ambient_c,
            told_states(heat.states),
            [],
            [],
            [],
            [],
            1.0,
            "",
            [],
            None,
            None,
            None,
            "",
        )
    banded = samples > 1
    nodes = []
    for name, label in _HEAT_LABELS.items():
        if name not in heat.nodes:
            continue
        temp = heat.nodes[name]
        low, high = _band(temp) if banded else (None, None)
        limit = float(heat.throttle_c[0]) if name == "die" else None
        nodes.append(HeatNode(name, label, temp[:, 0].tolist(), low, high, limit))
    detail = heat.detail(settled=True)
    paths = {} if detail is None else flows_w(detail)
    for hot in heat.hot_bodies:
        low, high = _band(hot.held_c) if banded else (None, None)
        name = _hot_body_name(hot)
        nodes.append(
            HeatNode(hot.id, name, hot.held_c[:, 0].tolist(), low, high, float(hot.limit_c[0]))
        )
    hottest = heat.hottest
    days_c = np.where(np.isnan(hottest.ambient_c), -np.inf, hottest.ambient_c)
    low, high = _band(days_c[np.newaxis, :]) if banded else (None, None)
    speeds: list[float] = heat.speed_share[:, 0].tolist()
    least = min(speeds)
    slowest = heat.states[speeds.index(least)]
    return HeatReport(
        why_not="",
        ambient_c=heat.ambient_c,
        states=told_states(heat.states),
        nodes=nodes,
        paths=[HeatPath(start, end, flow.tolist()) for (start, end), flow in paths.items()],
        wanted_die_c=heat.wanted_die_c[:, 0].tolist(),
        speed_share=speeds,
        least_speed_share=least,
        least_speed_when=words.when(slowest.id, slowest.label).strip() if least < 1 else "",
        inside_w=heat.inside_w[:, 0].tolist(),
        hottest_ambient_c=_known(hottest.ambient_c.item(0)),
        hottest_ambient_p05_c=_known(low[0]) if low else None,
        hottest_ambient_p95_c=_known(high[0]) if high else None,
        hottest_ambient_then=_first_beyond(heat),
    )


def _known(temp_c: float) -> float | None:
    """None of what is no number."""
    return temp_c if isfinite(temp_c) else None


def _first_beyond(heat: HeatResult) -> str:
    hottest = heat.hottest
    if hottest.rated is not None:
        return f"{hottest.rated.name} is outside its rated temperature"
    if hottest.body is None:
        return "the processor throttles"
    hot = heat.hot_bodies[hottest.body]
    if hot.slows:
        return f"{hot.item.name} throttles"
    return f"the {words.within(hot.label)} is too hot"


def _hot_body_name(hot: HotTemps) -> str:
    """What slows itself is known by its name; of others the body too."""
    return hot.item.name if hot.slows else hot.label


def _band(values: FloatArray) -> tuple[list[float], list[float]]:
    bands = [percentiles(row[1:]) for row in values]
    return [low for low, _ in bands], [high for _, high in bands]
