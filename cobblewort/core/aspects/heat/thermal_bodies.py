"""What is warm in a kit: the board under its cooler, the case, and bodies that warm themselves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.aspects.heat.bodies import (
    AIR_W_MK,
    M2_CARRIER_M2,
    M2_SPREAD,
    BoardBody,
    Path,
    carried_path,
    split_path,
)
from cobblewort.core.aspects.heat.enclosure import (
    BOTTOM_SHARE,
    Enclosure,
    Faces,
    vent_area_m2,
    wall_conductance_w_k,
)
from cobblewort.core.aspects.heat.films import layer_k_w
from cobblewort.core.aspects.heat.throttling import PowerSplit
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.compiled import CompiledPart
from cobblewort.core.parts.model import HotBody, Part
from cobblewort.core.standards.air import SEA_LEVEL_PA, pressure_pa

ADD_ON_FACTOR = {(): 1.0, ("above",): 1.25, ("below",): 1.25, ("above", "below"): 1.5}
"""How boards stacked on it raise a board's resistance to air: typical, from memory."""
BLOWN_BOARD_FACTOR = 0.7
"""What is left of it where a cooler's fan also blows over the board: typical, from memory."""
STIRRED_BODY_FACTOR = 0.65
"""What is left of a sink's or a hot body's resistance to air where a fan stirs it, as at 0.5 m/s:
typical, from memory."""
NEAR_BOARD_SHARE = 0.3
"""How far the air around a drive or chip on a stacked board follows the main board: a guess."""
VENT_RISE_SHARE = 0.8
"""Height between low and high vents over inner height, where a case does not state it."""
CASE_FAN_SHARE = Reading(nominal=0.45, low=0.3, high=0.6, basis="typical")
"""What is left of a fan's free flow in a small case: typical, from memory."""
_GAP_M = 0.004
"""Between a board and the wall of a case that is its heat sink: a guess."""
_SINK_WALL_W_K = 1e6
"""From the foot of a pillar to the wall that it is part of: as good as nothing between them."""


@dataclass(frozen=True, slots=True)
class Fans:
    """The fans of a kit: on the cooler, over the board, beside add-on boards; those in walls of the
    case, and those that stand loose in it.
    """

    cooler: bool
    board: bool
    beside: bool
    in_case: tuple[CompiledPart, ...]
    loose: tuple[CompiledPart, ...]

    @property
    def case(self) -> bool:
        """Whether one is in a wall of the case."""
        return bool(self.in_case)

    @property
    def any(self) -> bool:
        """Whether one stirs the air inside."""
        return self.cooler or self.board or self.beside or self.case

    @property
    def over_board(self) -> bool:
        """Whether one that is not the cooler's own blows over board and sink."""
        return self.board or self.case


def fans_among(items: Sequence[Item], cooler: Item | None) -> Fans:
    """A cooler's own fan reaches board and add-on boards, one in the case everything, one beside a
    part everything but the main board.
    """
    own = None if cooler is None else cooler.part.cooler
    in_case: list[CompiledPart] = []
    loose: list[CompiledPart] = []
    reached = set()
    for item in items:
        fan = item.part.fan
        if fan is not None and item.part.inside:
            reached.add(fan.at)
            (in_case if fan.at == "case" else loose).append(item.compiled)
    return Fans(
        own is not None and own.r_fan_k_w is not None,
        "board" in reached,
        bool(reached - {"board", "case"}),
        tuple(in_case),
        tuple(loose),
    )


@dataclass(slots=True)
class Warm:
    """A hot body inside by piece and name, with its way to its surroundings.

    `carrier` is the piece that it lies on, and `carried` the share of its heat that warms the body;
    `pull` how far the air around it follows the main board. `share` is what of its load or
    converter it gives off, `limit_path` the figure of its part that limits it. A `clock` is the
    processor of a further board, whose speed follows its governor.
    """

    item: Item
    name: str
    body: HotBody
    path: Path
    limit_c: FloatArray
    stirred: bool
    share: Quantity
    limit_path: str
    clock: bool = False
    pull: float = 0.0
    carrier: Item | None = None
    carried: Quantity = 0.0
    mates: list[int] = field(default_factory=list)

    @property
    def id(self) -> str:
        """`line#n.name`, as a figure of the report names it."""
        return f"{self.item.id}.{self.name}"

    @property
    def label(self) -> str:
        """The part, and which of its bodies."""
        return f"{self.body.label} of {self.item.name}"


def warm_bodies(
    fit: Assignment, inside: Sequence[Item], board: Item, fans: Fans, pressure: float
) -> list[Warm]:
    """Every hot body inside."""
    seats = {
        plug.item.id: socket.item
        for plug, socket in fit.placed.values()
        if plug.item.part.drive is not None and plug.plug.role == "device"
    }
    modules: dict[str, int] = {}
    for item in inside:
        seat = seats.get(item.id)
        if seat is not None and _is_module(item):
            modules[seat.id] = modules.get(seat.id, 0) + 1
    found: list[Warm] = []
    for item in inside:
        if item is board:
            continue
        seat = seats.get(item.id)
        stacked = item.part.add_on is not None
        on_stack = seat is not None and seat.part.add_on is not None and _is_module(item)
        reached = stacked or _is_module(item)
        stirred = fans.case or fans.beside or (fans.cooler and reached)
        pull = NEAR_BOARD_SHARE if stacked or on_stack else 0.0
        for name, hot in item.part.hot.items():
            of, path = item.compiled.figure, f"hot.{name}"
            warm = Warm(
                item,
                name,
                hot,
                Path(1.0, 1.0),
                of(f"{path}.limit_c"),
                stirred,
                of(f"{path}.share"),
                f"{path}.limit_c",
                pull=pull,
            )
            if hot.r_air_k_w is not None:
                warm.path = _own_path(item.compiled, f"{path}.r_air_k_w", stirred, pressure)
            else:
                drives = modules.get(seat.id, 1) if seat is not None else 1
                warm.path, share = _module_path(
                    item.compiled,
                    path,
                    None if seat is None else seat.compiled,
                    drives,
                    stirred,
                    pressure,
                )
                if seat is not None and seat is not board:
                    warm.carrier, warm.carried = seat, share / drives
            found.append(warm)
    for warm in found:
        if warm.carrier is not None:
            warm.mates = [n for n, mate in enumerate(found) if mate.carrier is warm.carrier]
    return found


PROCESSOR = "processor"
"""The name of the hot body that a further board is taken as."""


def further_boards(
    boards: Sequence[Item], coolers: Sequence[Item], stirred: bool, pressure: float
) -> list[Warm]:
    """Boards beside the main one, each as one hot body: its die, with all that it draws.

    The two nodes of a board, die and board, are brought to the resistance from the die to what is
    around it that they have together.
    """
    found = []
    for number, board in enumerate(boards):
        heat, own = board.part.board_heat, board.part.loads.get("own")
        if heat is None or own is None or own.unit != "w":
            continue
        cooler = coolers[number + 1] if number + 1 < len(coolers) else None
        still = _die_k_w(board.compiled, None if cooler is None else cooler.compiled)
        forced = still * STIRRED_BODY_FACTOR if stirred else None
        body = HotBody(
            label="Processor",
            of="loads.own",
            limit_c=heat.throttle_c,
            slows=True,
            r_air_k_w=heat.r_ba_k_w,
        )
        path = "board_heat.throttle_c"
        found.append(
            Warm(
                board,
                PROCESSOR,
                body,
                split_path(still, forced, pressure),
                board.compiled.figure(path),
                stirred,
                1.0,
                path,
                clock=True,
            )
        )
    return found


def _die_k_w(board: CompiledPart, cooler: CompiledPart | None) -> FloatArray:
    """From the die of a board, with what it draws at its peak, to what is around it, in still air
    but for the fan of its own cooler.
    """
    figure = board.figure
    link, out = 1 / figure("board_heat.r_db_k_w"), 1 / figure("board_heat.r_ba_k_w")
    share, sink = figure("board_heat.soc_share_peak"), 0.0 * link
    if cooler is not None and cooler.part.cooler is not None:
        own = "cooler.r_still_k_w" if cooler.part.cooler.r_fan_k_w is None else "cooler.r_fan_k_w"
        side = figure("board_heat.soc_side_mm")
        pad = layer_k_w(
            cooler.figure("cooler.interface_mm"),
            cooler.figure("cooler.interface_w_mk"),
            side * side,
        )
        sink = 1 / (figure("board_heat.r_jc_k_w") + pad + cooler.figure(own))
    passed = link / (link + out)
    die_k_w: FloatArray = (share + (1 - share) * passed) / (sink + link - link * passed)
    return die_k_w


def _is_module(item: Item) -> bool:
    return item.part.drive is not None and "." not in item.part.drive.size


def _own_path(part: CompiledPart, figure: str, stirred: bool, pressure: float) -> Path:
    """The path of a body that states its resistance to air."""
    still = part.figure(figure)
    return split_path(still, still * STIRRED_BODY_FACTOR if stirred else None, pressure)


def _module_path(
    module: CompiledPart,
    path: str,
    carrier: CompiledPart | None,
    drives: int,
    stirred: bool,
    pressure: float,
) -> tuple[Path, float]:
    """The path of an M.2 module by its size and its carrier's, and the share of the carrier's heat
    that warms it; kept for the next kit.
    """
    drive = module.part.drive
    if drive is None:
        raise ValueError("only a drive lies on a carrier")
    own = None if carrier is None else carrier.part.add_on
    area_m2 = M2_CARRIER_M2
    if own is not None and own.length_mm is not None and own.width_mm is not None:
        area_m2 = own.length_mm * own.width_mm * 1e-6
    carried = carried_path(drive.length_mm * 1e-3, area_m2, drives)
    films = split_path(1.0, STIRRED_BODY_FACTOR if stirred else None, pressure)
    stronger = nominal(films.total_w_k)
    spread = sampled(M2_SPREAD, f"{module.part.id}/{path}.r_air_k_w", module.samples)
    part = carried.total_w_k(stronger) / stronger / spread
    return Path(films.air_w_k * part, films.wall_w_k * part), carried.share(stronger)


def board_body(
    board: CompiledPart,
    cooler: CompiledPart | None,
    shell: CompiledPart | None,
    sides: tuple[str, ...],
    blown: bool,
    pressure: float,
) -> BoardBody:
    """The board under its cooler, or on the pillar of a `shell` that is the heat sink, with boards
    stacked on `sides` of it; kept for the next kit. `blown` says that a fan of its own, not the
    cooler's, blows over it.
    """
    heat, figure = board.part.board_heat, board.figure
    if heat is None:
        raise ValueError("the board has no thermal values")
    still = figure("board_heat.r_ba_k_w") * ADD_ON_FACTOR[sides]
    forced_sink: FloatArray | None = None
    own = None if cooler is None else cooler.part.cooler
    by_cooler = own is not None and own.blows_over_board and own.r_fan_k_w is not None
    forced = still * BLOWN_BOARD_FACTOR if by_cooler or blown else None
    board_path = split_path(still, forced, pressure)
    link = 1 / figure("board_heat.r_db_k_w")
    if cooler is None or own is None:
        if shell is None:
            return BoardBody(link, None, None, board_path)
        joint = 1 / shell.figure("case.joint_k_w")
        board_path = Path(board_path.air_w_k, board_path.wall_w_k + _across_gap_w_k(board.part))
        return BoardBody(link, joint, Path(0.0, _SINK_WALL_W_K), board_path)
    of = cooler.figure
    side = figure("board_heat.soc_side_mm")
    pad = layer_k_w(of("cooler.interface_mm"), of("cooler.interface_w_mk"), side * side)
    die_sink = 1 / (figure("board_heat.r_jc_k_w") + pad)
    still_sink = of("cooler.r_still_k_w")
    if own.r_fan_k_w is not None:
        forced_sink = of("cooler.r_fan_k_w")
    elif blown:
        forced_sink = still_sink * STIRRED_BODY_FACTOR
    return BoardBody(link, die_sink, split_path(still_sink, forced_sink, pressure), board_path)


def _across_gap_w_k(board: Part) -> float:
    """From a board to the wall of a case that is its heat sink, through the air between. [W/K]"""
    own = board.stack
    area_m2 = 0.0 if own is None else own.length_mm * own.width_mm * 1e-6
    return AIR_W_MK * area_m2 / _GAP_M


def _enclosure(
    shell: CompiledPart,
    cooler: CompiledPart | None,
    mounting: str,
    altitude_m: float,
    sun_w_m2: float,
    fans: Fans,
) -> Enclosure | None:
    """A shell with what stirs the air in it."""
    case, of = shell.part.case, shell.figure
    if case is None or case.open:
        return None
    own = None if cooler is None else cooler.part.cooler
    area = vent_area_m2(case.vent_low_cm2 * 1e-4, case.vent_high_cm2 * 1e-4)
    fan_flow: FloatArray | float = 0.0
    if own is not None and own.r_fan_k_w is not None and area > 0 and cooler is not None:
        free = cooler.figure("cooler.free_flow_m3_h", missing=0.0)
        fan_flow = of("case.fan_exchange_share") * free / 3600
    if area > 0 and (fans.in_case or fans.loose):
        fan_flow = fan_flow + _blown_m3_s(shell, fans)
    wall = case.wall_mm * 1e-3
    inner = Faces(
        case.inner_length_mm * 1e-3,
        case.inner_width_mm * 1e-3,
        case.inner_height_mm * 1e-3,
        BOTTOM_SHARE[mounting],
    )
    rise = case.vent_rise_mm
    box = Enclosure(
        inner=inner,
        outer=inner.grown_by(wall),
        wall_w_k=wall_conductance_w_k(inner, wall, of("case.wall_w_mk")),
        emissivity=of("case.emissivity"),
        fins=1.0 if case.fins is None else of("case.fins"),
        stirred=fans.any,
        vent_area_m2=area,
        vent_rise_m=(VENT_RISE_SHARE * case.inner_height_mm if rise is None else rise) * 1e-3,
        fan_flow_m3_s=fan_flow,
        pressure_pa=pressure_pa(altitude_m),
    )
    if not sun_w_m2:
        return box
    return replace(box, sun_w=of("case.absorptance") * sun_w_m2 * box.sunlit_m2)


def enclosure(
    stack: StackResult, mounting: str, altitude_m: float, sun_w_m2: float, fans: Fans
) -> Enclosure | None:
    """The case in its place, stirred by fans; None where there is none, or an open one."""
    if stack.case is None:
        return None
    cooler = None if stack.cooler is None else stack.cooler.compiled
    return _enclosure(stack.case.compiled, cooler, mounting, altitude_m, sun_w_m2, fans)


def _blown_m3_s(shell: CompiledPart, fans: Fans) -> Quantity:
    """What fans in the walls and fans loose in a vented case exchange, by their free flows."""
    flow = "fan.flow_m3_h"
    share = sampled(CASE_FAN_SHARE, "case/fan_share", shell.samples)
    loose = shell.figure("case.fan_exchange_share") * sum(fan.figure(flow) for fan in fans.loose)
    exchanged_m3_h: FloatArray = share * sum(fan.figure(flow) for fan in fans.in_case) + loose
    return exchanged_m3_h / 3600


def thin_air(altitude_m: float) -> float:
    """The pressure at an altitude; at sea level exactly that of the standard. [Pa]"""
    return SEA_LEVEL_PA if altitude_m == 0 else pressure_pa(altitude_m)


@dataclass(slots=True, frozen=True)
class SplitHeat:
    """Heat of a board by rows of its table, shape (6, samples): of its processor, of the rest, and
    of an idle processor beside that rest; at its peak, shape (samples,). [W]
    `curve` tells the rest at any clock between.
    """

    soc_w: FloatArray
    rest_w: FloatArray
    soc_idle_w: FloatArray
    soc_peak_w: FloatArray
    curve: PowerSplit


def split_heat(board: CompiledPart) -> SplitHeat:
    """How a board's draw divides; the processor's share grows from idle to peak."""
    heat, figure, own = board.part.board_heat, board.figure, board.loads["own"]
    if heat is None:
        raise ValueError("the board has no thermal values")
    idle_w, peak_w = own.row("idle"), own.row("peak")
    share_idle = figure("board_heat.soc_share_idle")
    share_peak = figure("board_heat.soc_share_peak")
    part = np.clip((own.table - idle_w) / np.maximum(peak_w - idle_w, 1e-9), 0.0, 1.0)
    soc_w = own.table * (share_idle + (share_peak - share_idle) * part)
    curve = PowerSplit(
        idle_w, share_idle, (share_peak - share_idle) / np.maximum(peak_w - idle_w, 1e-9)
    )
    return SplitHeat(
        soc_w, own.table - soc_w, np.minimum(idle_w * share_idle, soc_w), peak_w * share_peak, curve
    )
