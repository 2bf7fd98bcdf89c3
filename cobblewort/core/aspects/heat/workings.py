"""Workings of the thermal network: where a temperature comes from.

Figure ids: `heat:{die|sink|board|inside|wall}@{state}` and `heat:hottest_ambient`.
"""

from __future__ import annotations

from cobblewort.core.aspects.heat.enclosure import exchange_w_k, inside_w_k, outside_w_k
from cobblewort.core.aspects.heat.model import STIRRED_BODY_FACTOR, HeatDetail, HotTemps
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.piece import Piece
from cobblewort.core.judging.rules import RULES
from cobblewort.core.judging.working import (
    Explained,
    Sum,
    Term,
    computed_term,
    plan_term,
    reading_term,
)
from cobblewort.core.standards.air import ZERO_C_K

_INNER_FILM = "film on the inner wall, at these temperatures"
_OUTER_FILM = "from the outer wall, at these temperatures"
_VENTS = "through the vents, at these temperatures"
_LABELS = {"die": "Die", "sink": "Cooler", "board": "Board", "inside": "Inside air", "wall": "Wall"}


def explained(kit: Kit, figure: str) -> Explained | None:
    """A figure `heat:{node}@{state}` or `heat:hottest_ambient`; None for any other."""
    kind, _, rest = figure.partition(":")
    heat = heat_of(kit)
    detail, source = heat.detail, RULES["HEAT-01"].source
    if kind != "heat" or detail is None:
        return None
    if rest == "hottest_ambient":
        values = heat.hottest_ambient_c
        return Explained("Highest safe ambient", _hottest(kit, detail), values, "°C", "", source)
    node, _, state_id = rest.partition("@")
    if state_id not in heat.means.ids:
        return None
    state = heat.means.ids.index(state_id)
    when = heat.means.labels[state]
    hot = next((hot for hot in heat.hot_bodies if hot.id == node), None)
    if hot is not None:
        formula, values = _hot_sum(detail, hot, state, kit), hot.temp_c[state]
        return Explained(f"Temperature: {hot.label}", formula, values, "°C", when, source)
    if node not in detail.wanted_c:
        return None
    formula, values = _SUMS[node](detail, state, kit), detail.wanted_c[node][state]
    return Explained(f"{_LABELS[node]} at full clock", formula, values, "°C", when, source)


def throttle_term(board: Piece) -> Term:
    """The throttle point of a board."""
    heat = board.part.board_heat
    if heat is None:
        raise ValueError("the board needs thermal figures")
    path = "board_heat.throttle_c"
    return reading_term("T_limit", "throttle point", "°C", board, path, heat.throttle_c)


def limit_term(hot: HotTemps) -> Term:
    """The temperature that a hot body may reach."""
    path = f"hot.{hot.name}.limit_c"
    return reading_term("T_limit", "limit", "°C", hot.piece, path, hot.body.limit_c)


def _at(values: FloatArray, state: int) -> float:
    return float(values[state, 0])


def _temp(detail: HeatDetail, node: str, state: int, symbol: str, label: str) -> Term:
    figure = f"heat:{node}@{detail.state_ids[state]}"
    return computed_term(symbol, label, "°C", _at(detail.wanted_c[node], state), figure)


def _surroundings(detail: HeatDetail, state: int, kit: Kit) -> tuple[Term, Term]:
    """What a body gives its heat to: air and wall, or the open on both sides."""
    if detail.box is None:
        ambient = kit.plan.place.ambient_max_c
        return (
            plan_term("T_air", "open air", "°C", ambient),
            plan_term("T_wall", "surroundings", "°C", ambient),
        )
    inner = computed_term("T_wall", "inner wall", "°C", _at(detail.inner_wall_c, state), None)
    return _temp(detail, "inside", state, "T_air", "inside air"), inner


def _watts(symbol: str, label: str, value: float) -> Term:
    return computed_term(symbol, label, "W", value, None)


def _w_k(symbol: str, label: str, value: Quantity) -> Term:
    return computed_term(symbol, label, "W/K", nominal(value), None)


def _die(detail: HeatDetail, state: int, kit: Kit) -> Sum:
    del kit
    board = _temp(detail, "board", state, "T_board", "board")
    power = _watts("P_soc", "heat of the processor", _at(detail.soc_w, state))
    link = _w_k("G_db", "die to board", detail.body.die_board_w_k)
    die_sink_w_k = detail.body.die_sink_w_k
    if die_sink_w_k is None:
        return Sum(
            "the board, and the rise over the way to it", "T_board + P_soc / G_db",
            [board, power, link],
        )  # fmt: skip
    through = _w_k("G_ds", "die to cooler", die_sink_w_k)
    sink = _temp(detail, "sink", state, "T_sink", "cooler")
    return Sum(
        "its heat leaves to board and cooler at once",
        "(P_soc + G_db * T_board + G_ds * T_sink) / (G_db + G_ds)",
        [power, link, board, through, sink],
    )


def _sink(detail: HeatDetail, state: int, kit: Kit) -> Sum:
    air, wall = _surroundings(detail, state, kit)
    sink, die_sink_w_k = detail.body.sink, detail.body.die_sink_w_k
    if sink is None or die_sink_w_k is None:
        raise ValueError("a bare die has no sink")
    die = _temp(detail, "die", state, "T_die", "die")
    return Sum(
        "what comes from the die leaves to air and, as radiation, to the wall",
        "(G_ds * T_die + G_air * T_air + G_rad * T_wall) / (G_ds + G_air + G_rad)",
        [
            _w_k("G_ds", "die to cooler", die_sink_w_k), die,
            _w_k("G_air", "cooler to air", sink.air_w_k), air,
            _w_k("G_rad", "cooler to wall", sink.wall_w_k), wall,
        ],
    )  # fmt: skip


def _board(detail: HeatDetail, state: int, kit: Kit) -> Sum:
    air, wall = _surroundings(detail, state, kit)
    path = detail.body.board
    return Sum(
        "its own heat and the die's leave to air and, as radiation, to the wall",
        "(P_rest + G_db * T_die + G_air * T_air + G_rad * T_wall) / (G_db + G_air + G_rad)",
        [
            _watts("P_rest", "heat of the rest of the board", _at(detail.rest_w, state)),
            _w_k("G_db", "die to board", detail.body.die_board_w_k),
            _temp(detail, "die", state, "T_die", "die"),
            _w_k("G_air", "board to air", path.air_w_k), air,
            _w_k("G_rad", "board to wall", path.wall_w_k), wall,
        ],
    )  # fmt: skip


def _case_terms(detail: HeatDetail, state: int) -> tuple[float, float, float, float, float]:
    """Heat to air and to the wall, and conductances inside, out and through the vents."""
    if detail.box is None:
        raise ValueError("an open kit has no inside air")
    box, ambient_k = detail.box, _at(detail.ambient_k, state)
    air_k = _at(detail.wanted_c["inside"], state) + ZERO_C_K
    inner_k = _at(detail.inner_wall_c, state) + ZERO_C_K
    outer_k = _at(detail.wanted_c["wall"], state) + ZERO_C_K
    to_air, to_wall = detail.given_off_w
    draught, forced = exchange_w_k(box, air_k, ambient_k)
    return (
        _at(to_air + detail.other_w, state),
        _at(to_wall, state),
        nominal(inside_w_k(box, air_k, inner_k)),
        nominal(outside_w_k(box, outer_k, ambient_k)),
        nominal(draught + forced),
    )


def _hot_sum(detail: HeatDetail, hot: HotTemps, state: int, kit: Kit) -> Sum:
    air, _ = _surroundings(detail, state, kit)
    power = _watts("P", f"mean heat of the {hot.body.label.lower()}", _at(hot.power_w, state))
    path = f"hot.{hot.name}.r_air_k_w"
    resistance = reading_term("R", "to the air around", "K/W", hot.piece, path,
                              hot.body.r_air_k_w)  # fmt: skip
    factor = STIRRED_BODY_FACTOR if hot.stirred else 1.0
    source = "common practice"
    stirred = Term(
        "f", "what a fan leaves of it (1 in still air)", factor, "", "typical", source, None
    )
    inputs = [air, power, resistance, stirred]
    return Sum("the air around it, and its rise over it", "T_air + P * R * f", inputs)


def _inside(detail: HeatDetail, state: int, kit: Kit) -> Sum:
    heat_w, _, inside, _, vents = _case_terms(detail, state)
    return Sum(
        "the heat given to it leaves to the wall and through the vents",
        "(P_air + G_in * T_wall + G_vent * T_out) / (G_in + G_vent)",
        [
            _watts("P_air", "heat given to inside air", heat_w),
            computed_term("G_in", _INNER_FILM, "W/K", inside, None),
            computed_term("T_wall", "inner wall", "°C", _at(detail.inner_wall_c, state), None),
            computed_term("G_vent", _VENTS, "W/K", vents, None),
            plan_term("T_out", "hottest day", "°C", kit.plan.place.ambient_max_c),
        ],
    )  # fmt: skip


def _wall(detail: HeatDetail, state: int, kit: Kit) -> Sum:
    _, radiated_w, inside, outside, _ = _case_terms(detail, state)
    sun_w = 0.0 if detail.box is None else nominal(detail.box.sun_w)
    return Sum(
        "what reaches the wall leaves from its outside",
        "T_out + (P_rad + P_sun + G_in * (T_air - T_wall)) / G_out",
        [
            plan_term("T_out", "hottest day", "°C", kit.plan.place.ambient_max_c),
            _watts("P_rad", "radiated to the wall inside", radiated_w),
            _watts("P_sun", "taken in from the sun", sun_w),
            computed_term("G_in", _INNER_FILM, "W/K", inside, None),
            _temp(detail, "inside", state, "T_air", "inside air"),
            computed_term("T_wall", "inner wall", "°C", _at(detail.inner_wall_c, state), None),
            computed_term("G_out", _OUTER_FILM, "W/K", outside, None),
        ],
    )  # fmt: skip


def _hottest(kit: Kit, detail: HeatDetail) -> Sum:
    """One kelvin outside is close to one kelvin at a body; how close is solved, not assumed."""
    heat, hot = heat_of(kit), heat_of(kit).first_hot_body
    if heat.board is None:
        raise ValueError("without a board there is no ambient to look for")
    temps_c = heat.wanted_die_c if hot is None else hot.temp_c
    hard = [n for n, state in enumerate(heat.states) if state.hard]
    worst = max(hard, key=temps_c[:, 0].__getitem__)
    if hot is None:
        limit = throttle_term(heat.board)
        body = _temp(detail, "die", worst, "T", "die in the worst state")
    else:
        limit = limit_term(hot)
        label = f"{hot.label} in the worst state"
        figure = f"heat:{hot.id}@{detail.state_ids[worst]}"
        body = computed_term("T", label, "°C", _at(temps_c, worst), figure)
    ambient = kit.plan.place.ambient_max_c
    rise = float(heat.hottest_ambient_c[0]) - ambient
    slope = (limit.value - body.value) / rise if abs(rise) > 1e-9 else 1.0
    return Sum(
        "the hottest day, and the room that is left in the worst state over how its temperature "
        "follows the day",
        "T_out + (T_limit - T) / s",
        [
            plan_term("T_out", "hottest day", "°C", ambient), limit, body,
            computed_term("s", "kelvins there for one outside, solved", "", slope, None),
        ],
    )  # fmt: skip


_SUMS = {"die": _die, "sink": _sink, "board": _board, "inside": _inside, "wall": _wall}
