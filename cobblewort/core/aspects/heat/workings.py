"""Workings of the thermal network: where a temperature comes from.

Figure ids: `heat:{die|sink|board|inside|wall}@{state}` and those of hot bodies, once everything is
settled; `heat:full.{node}@{state}` as if nothing slowed itself; `heat:hottest_ambient`.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import isnan

import numpy as np

from cobblewort.core.aspects.heat.enclosure import exchange_w_k, inside_w_k, outside_w_k
from cobblewort.core.aspects.heat.flows import flows_w
from cobblewort.core.aspects.heat.model import HeatDetail, HeatResult, HotTemps
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.heat.safe_ambient import COLDEST_C, HOTTEST_C
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES
from cobblewort.core.judging.working import (
    Explained,
    Sum,
    Term,
    computed_term,
    plain_term,
    plan_term,
    reading_term,
)
from cobblewort.core.standards.air import ZERO_C_K

_INNER_FILM = "convection at the inner wall, at these temperatures"
_OUTER_FILM = "from the outer wall, at these temperatures"
_VENTS = "through the vents, at these temperatures"
_FULL = "full."
_LABELS = {
    "die": "Processor",
    "sink": "Cooler",
    "board": "Board",
    "inside": "Air in the case",
    "wall": "Wall",
}


def explained(kit: Kit, figure: str) -> Explained | None:
    """A figure `heat:{node}@{state}` or `heat:hottest_ambient`; None for any other."""
    kind, _, rest = figure.partition(":")
    heat, source = heat_of(kit), RULES["HEAT-01"].source
    if kind != "heat" or heat.work is None:
        return None
    if rest == "hottest_ambient":
        return _hottest_explained(heat, kit.plan.place.ambient_max_c)
    name, _, state_id = rest.partition("@")
    settled = not name.startswith(_FULL)
    node = name.removeprefix(_FULL)
    detail = heat.detail(settled)
    if state_id not in heat.means.ids or detail is None:
        return None
    state = heat.means.ids.index(state_id)
    when = heat.means.labels[state]
    hot = next((hot for hot in heat.hot_bodies if hot.id == node), None)
    if hot is not None:
        formula = _hot_sum(_Told(detail, state, settled, heat.ambient_c), hot)
        values = (hot.held_c if settled else hot.temp_c)[state]
        full = "" if settled else " at full speed"
        return Explained(f"Temperature: {hot.label}{full}", formula, values, "°C", when, source)
    if node not in detail.nodes_c:
        return None
    temps = heat.work.governed if settled else heat.work.wanted
    values = heat.work.nodes_c(temps)[node][state]
    formula = _SUMS[node](_Told(detail, state, settled, heat.ambient_c))
    full = "" if settled else " at full clock"
    return Explained(f"{_LABELS[node]}{full}", formula, values, "°C", when, source)


def throttle_term(board: Item) -> Term:
    """The throttle point of a board."""
    heat = board.part.board_heat
    if heat is None:
        raise ValueError("the board has no thermal values")
    path = "board_heat.throttle_c"
    return reading_term("T_limit", "throttle temperature", "°C", board, path, heat.throttle_c)


def limit_term(hot: HotTemps) -> Term:
    """The temperature that a hot body may reach."""
    body = hot.warm.body
    return reading_term("T_limit", "limit", "°C", hot.item, hot.warm.limit_path, body.limit_c)


@dataclass(slots=True, frozen=True)
class _Told:
    """A state that is told: of everything settled, or as if nothing slowed itself."""

    detail: HeatDetail
    state: int
    settled: bool
    ambient_c: float

    def at(self, values: FloatArray) -> float:
        """A figure in this state."""
        return float(values[self.state, 0])

    def temp(self, node: str, symbol: str, label: str) -> Term:
        """The temperature of a node, with a working of its own."""
        prefix = "" if self.settled else _FULL
        figure = f"heat:{prefix}{node}@{self.detail.state_ids[self.state]}"
        return computed_term(symbol, label, "°C", self.at(self.detail.nodes_c[node]), figure)

    def surroundings(self) -> tuple[Term, Term]:
        """What a body gives its heat to: air and wall, or the open on both sides."""
        if self.detail.box is None:
            ambient = self.ambient_c
            return (
                plan_term("T_air", "open air", "°C", ambient),
                plan_term("T_wall", "surroundings", "°C", ambient),
            )
        inner_c = self.at(self.detail.temps.inner_k) - ZERO_C_K
        inner = computed_term("T_wall", "inner wall", "°C", inner_c, None)
        return self.temp("inside", "T_air", "air in the case"), inner


def _watts(symbol: str, label: str, value: float) -> Term:
    return computed_term(symbol, label, "W", value, None)


def _w_k(symbol: str, label: str, value: Quantity) -> Term:
    return computed_term(symbol, label, "W/K", nominal(value), None)


def _die(told: _Told) -> Sum:
    detail = told.detail
    board = told.temp("board", "T_board", "board")
    power = _watts("P_soc", "heat of the processor", told.at(detail.temps.soc_w))
    link = _w_k("G_db", "processor to board", detail.body.die_board_w_k)
    die_sink_w_k = detail.body.die_sink_w_k
    if die_sink_w_k is None:
        return Sum(
            "temperature of the board plus the rise from it to the processor",
            "T_board + P_soc / G_db",
            [board, power, link],
        )
    if detail.body.on_wall:
        through = _w_k("G_ds", "processor to the wall", die_sink_w_k)
        sink = replace(told.surroundings()[1], symbol="T_sink")
    else:
        through = _w_k("G_ds", "processor to cooler", die_sink_w_k)
        sink = told.temp("sink", "T_sink", "cooler")
    return Sum(
        "heat of the processor leaves to the board and the cooler",
        "(P_soc + G_db * T_board + G_ds * T_sink) / (G_db + G_ds)",
        [power, link, board, through, sink],
    )


def _sink(told: _Told) -> Sum:
    air, wall = told.surroundings()
    sink, die_sink_w_k = told.detail.body.sink, told.detail.body.die_sink_w_k
    if sink is None or die_sink_w_k is None:
        raise ValueError("a bare processor has no heat sink")
    die = told.temp("die", "T_die", "processor")
    return Sum(
        "heat from the processor leaves to the air and, as radiation, to the wall",
        "(G_ds * T_die + G_air * T_air + G_rad * T_wall) / (G_ds + G_air + G_rad)",
        [
            _w_k("G_ds", "processor to cooler", die_sink_w_k),
            die,
            _w_k("G_air", "cooler to air", sink.air_w_k),
            air,
            _w_k("G_rad", "cooler to wall", sink.wall_w_k),
            wall,
        ],
    )


def _board(told: _Told) -> Sum:
    air, wall = told.surroundings()
    detail = told.detail
    path = detail.body.board
    return Sum(
        "heat of the board and the processor leaves to the air and, as radiation, to the wall",
        "(P_rest + G_db * T_die + G_air * T_air + G_rad * T_wall) / (G_db + G_air + G_rad)",
        [
            _watts("P_rest", "heat of the rest of the board", told.at(detail.rest_w)),
            _w_k("G_db", "processor to board", detail.body.die_board_w_k),
            told.temp("die", "T_die", "processor"),
            _w_k("G_air", "board to air", path.air_w_k),
            air,
            _w_k("G_rad", "board to wall", path.wall_w_k),
            wall,
        ],
    )


def _hot_sum(told: _Told, hot: HotTemps) -> Sum:
    """What a body gives off leaves to the air near it and, as radiation, to the wall."""
    detail = told.detail
    air, wall = told.surroundings()
    warm, number = hot.warm, hot.place
    inputs = [
        _watts(
            "P",
            f"mean heat of the {hot.warm.body.label.lower()}",
            told.at(detail.temps.body_w[number]),
        ),
        _w_k("G_air", "to the air near it", warm.path.air_w_k),
        air,
        _w_k("G_rad", "to the wall", warm.path.wall_w_k),
        wall,
    ]
    near, heat = "T_air", "P"
    if warm.pull:
        near = "(T_air + n * (T_board - T_air))"
        inputs += [
            told.temp("board", "T_board", "board"),
            Term(
                "n",
                "share by which the air near it follows the board",
                warm.pull,
                "",
                "estimate",
                "an estimate",
                None,
            ),
        ]
    warmth_w = told.at(detail.warmth_w[number])
    if warmth_w:
        heat = "P + P_c"
        inputs.append(_watts("P_c", "heat taken up from its carrier", warmth_w))
    return Sum(
        "heat of the part leaves to the air near it and, as radiation, to the wall",
        f"({heat} + G_air * {near} + G_rad * T_wall) / (G_air + G_rad)",
        inputs,
    )


def _case_terms(told: _Told) -> tuple[float, float, float, float, float]:
    """Heat to air and to the wall, and conductances inside, out and through the vents."""
    detail = told.detail
    box, flows = detail.box, flows_w(detail)
    if box is None:
        raise ValueError("an open kit has no air in the case")
    to_air_w, to_wall_w = (
        sum(
            float(flow[told.state])
            for (start, end), flow in flows.items()
            if end == node and start != "inside"
        )
        for node in ("inside", "wall")
    )
    temps, ambient_k = detail.temps, told.at(detail.ambient_k)
    air_k, inner_k = told.at(temps.air_k), told.at(temps.inner_k)
    draught, forced = exchange_w_k(box, air_k, ambient_k)
    return (
        to_air_w,
        to_wall_w,
        nominal(inside_w_k(box, air_k, inner_k)),
        nominal(outside_w_k(box, told.at(temps.outer_k), ambient_k)),
        nominal(draught + forced),
    )


def _inside(told: _Told) -> Sum:
    heat_w, _, inside, _, vents = _case_terms(told)
    _, wall = told.surroundings()
    return Sum(
        "heat released to the air leaves to the wall and through the vents",
        "(P_air + G_in * T_wall + G_vent * T_out) / (G_in + G_vent)",
        [
            _watts("P_air", "heat released to the air in the case", heat_w),
            computed_term("G_in", _INNER_FILM, "W/K", inside, None),
            wall,
            computed_term("G_vent", _VENTS, "W/K", vents, None),
            plan_term("T_out", "highest ambient", "°C", told.ambient_c),
        ],
    )


def _wall(told: _Told) -> Sum:
    _, radiated_w, inside, outside, _ = _case_terms(told)
    air, wall = told.surroundings()
    box = told.detail.box
    sun_w = 0.0 if box is None else nominal(box.sun_w)
    return Sum(
        "heat that reaches the wall leaves from its outside",
        "T_out + (P_rad + P_sun + G_in * (T_air - T_wall)) / G_out",
        [
            plan_term("T_out", "highest ambient", "°C", told.ambient_c),
            _watts("P_rad", "radiation to the inner wall", radiated_w),
            _watts("P_sun", "heat from the sun", sun_w),
            computed_term("G_in", _INNER_FILM, "W/K", inside, None),
            air,
            wall,
            computed_term("G_out", _OUTER_FILM, "W/K", outside, None),
        ],
    )


def _hottest_explained(heat: HeatResult, ambient_c: float) -> Explained | None:
    """The highest safe ambient; None where there is none."""
    values = heat.hottest.ambient_c
    if isnan(values[0]):
        return None
    return Explained(
        "Highest safe ambient",
        _hottest(heat, ambient_c),
        np.where(np.isnan(values), COLDEST_C, values),
        "°C",
        "",
        RULES["HEAT-01"].source,
    )


def _hottest(heat: HeatResult, ambient: float) -> Sum:
    """One kelvin outside is close to one kelvin at a body; how close is solved, not assumed."""
    hottest = heat.hottest
    detail = heat.detail(settled=False)
    if heat.board is None or detail is None:
        raise ValueError("without a board there is no highest safe ambient")
    most = hottest.ambient_c
    if float(most[0]) == HOTTEST_C:
        where = computed_term("T_end", "end of the range", "°C", float(most[0]), None)
        return Sum("end of the range", "T_end", [where])
    rated = hottest.rated
    if rated is not None and (rated.part.kind == "board" or not heat.shelters(rated.line.id)):
        rating = float(rated.part.ambient_max_c or 0.0)
        return Sum(
            "lowest ambient rating",
            "T_rated",
            [plain_term("T_rated", "rated to", "°C", rated, rating)],
        )
    hard = [n for n, state in enumerate(heat.states) if state.hard]
    if rated is not None and heat.work is not None:
        temps_c, name = heat.work.wanted.air_k - ZERO_C_K, "inside"
        limit = plain_term(
            "T_limit",
            f"rating of {rated.name}",
            "°C",
            rated,
            float(rated.part.ambient_max_c or 0.0),
        )
        label = "air in the case in the worst state"
    elif hottest.body is not None:
        hot = heat.hot_bodies[hottest.body]
        temps_c, name, limit = hot.temp_c, hot.id, limit_term(hot)
        label = f"{hot.label} in the worst state"
    else:
        temps_c, name, limit = heat.wanted_die_c, "die", throttle_term(heat.board)
        label = "processor in the worst state"
    worst = max(hard, key=temps_c[:, 0].__getitem__)
    figure = f"heat:{_FULL}{name}@{detail.state_ids[worst]}"
    body = computed_term("T", label, "°C", float(temps_c[worst, 0]), figure)
    rise = float(most[0]) - ambient
    slope = (limit.value - body.value) / rise if abs(rise) > 1e-9 else 1.0
    return Sum(
        "highest ambient, plus the spare in the worst state divided by the rise per kelvin of "
        "ambient, with throttling parts at 90 % of their speed, in light work at 60 %",
        "T_out + (T_limit - T) / s",
        [
            plan_term("T_out", "highest ambient", "°C", ambient),
            limit,
            body,
            computed_term("s", "rise per kelvin of ambient, solved", "", slope, None),
        ],
    )


_SUMS = {"die": _die, "sink": _sink, "board": _board, "inside": _inside, "wall": _wall}
