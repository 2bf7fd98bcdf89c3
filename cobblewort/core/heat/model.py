"""The thermal network of a plan: its board in its case in its place."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cobblewort.core.arrays import FloatArray
from cobblewort.core.fit.stack import StackResult
from cobblewort.core.heat.bodies import BoardBody, BodyTemps, split_path
from cobblewort.core.heat.enclosure import (
    BOTTOM_SHARE,
    CaseTemps,
    Enclosure,
    solve_enclosure,
    vent_area_m2,
)
from cobblewort.core.heat.films import layer_k_w
from cobblewort.core.heat.governor import clock_share
from cobblewort.core.kit import Instance
from cobblewort.core.plan import Plan
from cobblewort.core.power.model import PowerResult, State, draws_by_state
from cobblewort.core.standards.air import ZERO_C_K, pressure_pa

ADD_ON_FACTOR = {(): 1.0, ("above",): 1.25, ("below",): 1.25, ("above", "below"): 1.5}
"""How boards stacked on it raise a board's resistance to air: typical, from memory."""
BLOWN_BOARD_FACTOR = 0.7
"""What is left of it where a cooler's fan also blows over the board: typical, from memory."""
VENT_RISE_SHARE = 0.8
"""Height between low and high vents over inner height, where a case does not state it."""
_GOVERNOR_ROUNDS = 4


@dataclass(slots=True)
class HeatResult:
    """Temperatures by node, each of shape (states, samples), for the mean states. [°C]

    `speed_share` is the clock held over the clock asked for; `hottest_ambient_c` the highest
    outside temperature at which no hard state throttles, shape (samples,); `spare_k` that less the
    plan's hottest day. `board` is None when there is nothing to judge, and `why_not` says why.
    """

    states: list[State]
    board: Instance | None
    why_not: str
    ambient_c: float
    throttle_c: FloatArray
    nodes: dict[str, FloatArray]
    wanted_die_c: FloatArray
    speed_share: FloatArray
    hottest_ambient_c: FloatArray
    coolable: bool
    inside_w: FloatArray


def build_heat(
    plan: Plan, instances: list[Instance], stack: StackResult, power: PowerResult, samples: int
) -> HeatResult:
    """Temperatures of the plan's board on the hottest day, in steady state."""
    states = [state for state in power.states if state.mean]
    board, ambient_c = stack.board, plan.place.ambient_max_c
    own = None if board is None else board.compiled.loads.get("own")
    if board is None or board.part.board_heat is None or own is None or not own.in_watts:
        why = "the kit has no board yet" if board is None else "the board states no thermal figures"
        nothing = np.zeros((len(states), samples))
        return HeatResult(
            states, None, why, ambient_c, np.zeros(samples), {}, nothing, nothing,
            np.zeros(samples), True, nothing,
        )  # fmt: skip
    network = _Network(plan, instances, stack, board, states, power)
    return network.result()


class _Network:
    def __init__(
        self, plan: Plan, instances: list[Instance], stack: StackResult, board: Instance,
        states: list[State], power: PowerResult,
    ) -> None:  # fmt: skip
        self.plan, self.board, self.states = plan, board, states
        heat = board.part.board_heat
        if heat is None:
            raise ValueError("the board needs thermal figures")
        self.throttle_c = board.compiled.figure("board_heat.throttle_c", heat.throttle_c)
        cooler = stack.cooler
        self.body = _board_body(stack, board, cooler)
        self.box = _enclosure(plan, stack)

        own = board.compiled.loads["own"]
        drawn, idle_w, peak_w = draws_by_state(plan, states, board, own), own.idle, own.peak
        share_idle = board.compiled.figure("board_heat.soc_share_idle", heat.soc_share_idle)
        share_peak = board.compiled.figure("board_heat.soc_share_peak", heat.soc_share_peak)
        span = np.maximum(peak_w - idle_w, 1e-9)
        part = np.clip((drawn - idle_w) / span, 0.0, 1.0)
        self.soc_w = drawn * (share_idle + (share_peak - share_idle) * part)
        self.rest_w = drawn - self.soc_w
        self.soc_idle_w = np.minimum(idle_w * share_idle, self.soc_w)
        self.soc_peak_w = peak_w * share_peak
        self.other_w = _other_heat_w(plan, states, instances, board, power)

    def solve(
        self, soc_w: FloatArray, ambient_k: FloatArray, start: CaseTemps | None = None
    ) -> tuple[BodyTemps, CaseTemps | None]:
        if self.box is None:
            return self.body.temps(soc_w, self.rest_w, ambient_k, ambient_k), None
        heat = self.body.as_input(soc_w, self.rest_w, self.other_w)
        case = solve_enclosure(self.box, heat, ambient_k, start)
        return self.body.temps(soc_w, self.rest_w, case.air_k, case.inner_wall_k), case

    def result(self) -> HeatResult:
        ambient_c = self.plan.place.ambient_max_c
        ambient_k = np.full(self.soc_w.shape, ambient_c + ZERO_C_K)
        limit_k = self.throttle_c + ZERO_C_K
        wanted, case = self.solve(self.soc_w, ambient_k)
        soc_w, bodies, held, coolable = self._governed(wanted, case, ambient_k, limit_k)
        speed = np.where(
            self.soc_w > soc_w + 1e-9,
            clock_share(soc_w, self.soc_idle_w, self.soc_peak_w)
            / np.maximum(clock_share(self.soc_w, self.soc_idle_w, self.soc_peak_w), 1e-9),
            1.0,
        )
        nodes = {"die": bodies.die_k - ZERO_C_K, "board": bodies.board_k - ZERO_C_K}
        if self.body.sink is not None:
            nodes["sink"] = bodies.sink_k - ZERO_C_K
        if held is not None:
            nodes["inside"] = held.air_k - ZERO_C_K
            nodes["wall"] = held.outer_wall_k - ZERO_C_K
        return HeatResult(
            self.states, self.board, "", ambient_c, self.throttle_c, nodes,
            wanted.die_k - ZERO_C_K, speed, self._hottest_ambient_c(wanted, case, ambient_c),
            coolable, self.soc_w + self.rest_w + self.other_w,
        )  # fmt: skip

    def _governed(
        self, wanted: BodyTemps, case: CaseTemps | None, ambient_k: FloatArray, limit_k: FloatArray
    ) -> tuple[FloatArray, BodyTemps, CaseTemps | None, bool]:
        """Lower the clock where the die would pass its limit; secant on the die's power."""
        hot = wanted.die_k > limit_k
        if not hot.any():
            return self.soc_w, wanted, case, True
        low_w = np.where(hot, self.soc_idle_w, self.soc_w)
        low, low_case = self.solve(low_w, ambient_k, case)
        soc_w, bodies, held = low_w, low, low_case
        w0, t0, w1, t1 = low_w, low.die_k, self.soc_w, wanted.die_k
        for _ in range(_GOVERNOR_ROUNDS):
            with np.errstate(divide="ignore", invalid="ignore"):
                guess = w0 + (limit_k - t0) * (w1 - w0) / (t1 - t0)
            soc_w = np.where(hot & np.isfinite(guess), np.clip(guess, low_w, self.soc_w), low_w)
            bodies, held = self.solve(soc_w, ambient_k, held)
            if np.abs(np.where(hot, bodies.die_k - limit_k, 0)).max() < 0.02:
                break
            w0, t0, w1, t1 = w1, t1, soc_w, bodies.die_k
        return soc_w, bodies, held, not bool((low.die_k > limit_k)[:, 0].any())

    def _hottest_ambient_c(
        self, wanted: BodyTemps, case: CaseTemps | None, ambient_c: float
    ) -> FloatArray:
        """Outside temperature at which the worst hard state just reaches its limit; two steps."""
        hard = [n for n, state in enumerate(self.states) if state.hard]
        spare = (self.throttle_c - (wanted.die_k - ZERO_C_K))[hard].min(axis=0)
        first: FloatArray = ambient_c + np.clip(spare, -150.0, 150.0)
        ambient_k = np.broadcast_to(first + ZERO_C_K, self.soc_w.shape)
        if self.box is None:
            return first
        there, _ = self.solve(self.soc_w, ambient_k, case and _shifted(case, first - ambient_c))
        left = (self.throttle_c - (there.die_k - ZERO_C_K))[hard].min(axis=0)
        moved = np.where(np.abs(spare - left) > 1e-6, spare - left, 1.0)
        slope = np.where(np.abs(first - ambient_c) > 1e-6, moved / (first - ambient_c), 1.0)
        return np.asarray(first + left / np.clip(slope, 0.3, 1.5))


def _shifted(case: CaseTemps, delta_k: FloatArray) -> CaseTemps:
    return CaseTemps(
        case.air_k + delta_k, case.inner_wall_k + delta_k, case.outer_wall_k + delta_k,
        case.settled,
    )  # fmt: skip


def _board_body(stack: StackResult, board: Instance, cooler: Instance | None) -> BoardBody:
    heat = board.part.board_heat
    if heat is None:
        raise ValueError("the board needs thermal figures")
    figure = board.compiled.figure
    sides = tuple(side for side in ("above", "below") if stack.add_ons(side))
    still = figure("board_heat.r_ba_k_w", heat.r_ba_k_w) * ADD_ON_FACTOR[sides]
    own = None if cooler is None else cooler.part.cooler
    blown = own is not None and own.blows_over_board and own.r_fan_k_w is not None
    board_path = split_path(still, still * BLOWN_BOARD_FACTOR if blown else None)
    link = 1 / figure("board_heat.r_db_k_w", heat.r_db_k_w)
    if cooler is None or own is None:
        return BoardBody(link, None, None, board_path)
    of = cooler.compiled.figure
    side = figure("board_heat.soc_side_mm", heat.soc_side_mm)
    pad = layer_k_w(
        of("cooler.interface_mm", own.interface_mm),
        of("cooler.interface_w_mk", own.interface_w_mk),
        side * side,
    )
    die_sink = 1 / (figure("board_heat.r_jc_k_w", heat.r_jc_k_w) + pad)
    still_sink = of("cooler.r_still_k_w", own.r_still_k_w)
    forced = None
    if own.r_fan_k_w is not None:
        forced = of("cooler.r_fan_k_w", own.r_fan_k_w)
    return BoardBody(link, die_sink, split_path(still_sink, forced), board_path)


def _enclosure(plan: Plan, stack: StackResult) -> Enclosure | None:
    if stack.case is None or stack.case.part.case is None or stack.case.part.case.open:
        return None
    case, of = stack.case.part.case, stack.case.compiled.figure
    own = None if stack.cooler is None else stack.cooler.part.cooler
    low, high = case.vent_low_cm2 * 1e-4, case.vent_high_cm2 * 1e-4
    area = vent_area_m2(low, high)
    has_fan = own is not None and own.r_fan_k_w is not None
    fan_flow: FloatArray | float = 0.0
    if has_fan and area > 0 and stack.cooler is not None and own is not None:
        free = stack.cooler.compiled.figure("cooler.free_flow_m3_h", own.free_flow_m3_h)
        fan_flow = of("case.fan_exchange_share", case.fan_exchange_share) * free / 3600
    wall = case.wall_mm * 1e-3
    rise = case.vent_rise_mm
    return Enclosure(
        length_m=case.inner_length_mm * 1e-3 + 2 * wall,
        width_m=case.inner_width_mm * 1e-3 + 2 * wall,
        height_m=case.inner_height_mm * 1e-3 + 2 * wall,
        wall_m=wall,
        wall_w_mk=of("case.wall_w_mk", case.wall_w_mk),
        emissivity=of("case.emissivity", case.emissivity),
        bottom_share=BOTTOM_SHARE[plan.place.standing],
        stirred=has_fan,
        vent_area_m2=area,
        vent_rise_m=(VENT_RISE_SHARE * case.inner_height_mm if rise is None else rise) * 1e-3,
        fan_flow_m3_s=fan_flow,
        pressure_pa=pressure_pa(plan.place.altitude_m),
    )


def _other_heat_w(
    plan: Plan, states: list[State], instances: list[Instance], board: Instance, power: PowerResult
) -> FloatArray:
    """Heat of everything else inside the case, straight to its air. [W]

    A load stated in amperes counts at the voltage of its rail, and not at all while nothing feeds
    it.
    """
    mean = [n for n, state in enumerate(power.states) if state.mean]
    total = np.zeros((len(states), power.voltage_v.shape[2]))
    for instance in instances:
        if instance is board or not instance.part.inside:
            continue
        for load in instance.compiled.loads.values():
            drawn = draws_by_state(plan, states, instance, load)
            if not load.in_watts:
                place = power.index(f"{instance.id}.{load.rail}")
                if place is None:
                    continue
                drawn = drawn * power.voltage_v[place, mean]
            total += drawn
    return total
