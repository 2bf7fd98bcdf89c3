"""What gives off heat inside, whatever case is around it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.bays import Bays, bays_of
from cobblewort.core.aspects.fit.model import boards_of, coolers_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.heat.dissipation import Inside, MeanRows, what_is_inside
from cobblewort.core.aspects.heat.network import Body
from cobblewort.core.aspects.heat.thermal_bodies import (
    Fans,
    Warm,
    fans_among,
    further_boards,
    split_heat,
    thin_air,
    warm_bodies,
)
from cobblewort.core.aspects.heat.throttling import PowerSplit
from cobblewort.core.aspects.power.forest import Forest
from cobblewort.core.aspects.power.model import Hung, forest_of, hung_of
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived, firm
from cobblewort.core.standards.air import ZERO_C_K


@dataclass(frozen=True)
class Sources:
    """What gives off heat inside, as asked, whatever case is around it.

    Of the board's heat `soc_w` is its processor's and `rest_w` the rest, with `soc_idle_w` of an
    idle processor beside that rest, shape (states, samples); `soc_peak_w` of shape (samples,).
    `curve` tells the rest at any clock between. [W]
    """

    board: Item
    warm: list[Warm]
    inside: Inside
    soc_w: FloatArray
    rest_w: FloatArray
    soc_idle_w: FloatArray
    soc_peak_w: FloatArray
    curve: PowerSplit

    @cached_property
    def bodies(self) -> list[Body]:
        """The hot bodies of its network."""
        return [
            Body(
                warm.path,
                warm.pull,
                warm.body.slows,
                warm.limit_c + ZERO_C_K,
                lost,
                warm.carried,
                tuple(warm.mates),
            )
            for warm, lost in zip(self.warm, self.inside.lost, strict=True)
        ]

    @cached_property
    def plain_bodies(self) -> list[Body]:
        """The same at nominal figures alone, in plain numbers."""
        return [
            Body(
                warm.path.nominal,
                warm.pull,
                warm.body.slows,
                nominal(warm.limit_c) + ZERO_C_K,
                tuple([(place, nominal(share)) for place, share in lost]),
                nominal(warm.carried),
                tuple(warm.mates),
            )
            for warm, lost in zip(self.warm, self.inside.lost, strict=True)
        ]


@firm("built", bays_of)
def indoors_of(built: Items, bays: Bays) -> list[Item]:
    """What sits inside and may give off heat."""
    taken = bays.taken
    return [
        item
        for item in built
        if (item.part.inside or item.id in taken)
        and (item.part.rails or item.part.loads or item.part.hot)
    ]


@firm("built", coolers_of)
def fans_of(built: Items, coolers: list[Item]) -> Fans:
    """What stirs the air."""
    return fans_among(built, next(iter(coolers), None))


@derived("place.altitude_m", boards_of, coolers_of, fit_of, indoors_of, fans_of, forest_of, hung_of)
def sources_of(
    altitude_m: float,
    boards: list[Item],
    coolers: list[Item],
    fit: Assignment,
    inside: list[Item],
    fans: Fans,
    forest: Forest,
    hung: Hung,
) -> Sources | None:
    """What gives off heat inside; None without a board whose heat is known."""
    board = boards[0] if boards else None
    own = None if board is None else board.compiled.loads.get("own")
    if board is None or board.part.board_heat is None or own is None or not own.in_watts:
        return None
    pressure = thin_air(altitude_m)
    warm = warm_bodies(fit, inside, board, fans, pressure)
    if len(boards) > 1:
        warm += further_boards(boards[1:], coolers, fans.case or fans.beside, pressure)
    rows = MeanRows(hung)
    split, mean = split_heat(board.compiled), rows.of(board)
    soc_w = split.soc_w.take(mean, axis=0)
    return Sources(
        board,
        warm,
        what_is_inside(forest, hung, rows, inside, board, warm, soc_w.shape),
        soc_w,
        split.rest_w.take(mean, axis=0),
        split.soc_idle_w.take(mean, axis=0),
        split.soc_peak_w,
        split.curve,
    )
