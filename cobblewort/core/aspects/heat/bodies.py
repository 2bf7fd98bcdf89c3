"""A board with its die and cooler, reduced to what it gives to inside air and to the wall.

die --R_db-- board --R_ba-- air, wall
 |
 +--R_jc + R_tim-- sink --R_sink-- air, wall          (no second term for a bare die)

(Td - Tb)/Rdb + (Td - Tin)/(Rjc + Rtim + Rsink) = Psoc
(Tb - Tin)/Rba = Prest + (Td - Tb)/Rdb
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from cobblewort.core.aspects.heat.enclosure import HeatInput
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import at_least, nominal

RADIATED_SHARE = 0.40
"""Share of a small body's natural conductance that is radiation: common practice."""


@dataclass(frozen=True)
class Path:
    """From a body to its surroundings, split into what air takes and what the wall takes. [W/K]"""

    air_w_k: Quantity
    wall_w_k: Quantity

    @cached_property
    def total_w_k(self) -> Quantity:
        """Both together. [W/K]"""
        return self.air_w_k + self.wall_w_k

    def nominal(self) -> Path:
        """The same path with nominal figures alone, as plain numbers."""
        return Path(nominal(self.air_w_k), nominal(self.wall_w_k))


def split_path(still_k_w: Quantity, forced_k_w: Quantity | None = None) -> Path:
    """Split a body's resistance to its surroundings; under a fan only the natural part radiates.

    Parameters
    ----------
    still_k_w, forced_k_w : ndarray, shape (samples,), or float
        Resistance in still air, and under a fan if there is one. [K/W]
    """
    radiated = RADIATED_SHARE / still_k_w
    total = 1 / (still_k_w if forced_k_w is None else forced_k_w)
    return Path(at_least(0.0, total - radiated), radiated)


@dataclass(slots=True)
class BodyTemps:
    """Temperatures of die, sink and board. Without a cooler the sink is the die. [K]"""

    die_k: Quantity
    sink_k: Quantity
    board_k: Quantity


@dataclass(frozen=True)
class BoardBody:
    """Conductances of a board, each of shape (samples,) or a plain number. [W/K]

    `sink` is None for a bare die.
    """

    die_board_w_k: Quantity
    die_sink_w_k: Quantity | None
    sink: Path | None
    board: Path

    def temps(
        self, soc_w: Quantity, rest_w: Quantity, air_k: Quantity, wall_k: Quantity
    ) -> BodyTemps:
        """Temperatures for given powers and surroundings, shape (states, samples). [W], [K]"""
        board_total = self.board.total_w_k
        board_env = (self.board.air_w_k * air_k + self.board.wall_w_k * wall_k) / board_total
        if self.sink is None or self.die_sink_w_k is None:
            board = board_env + (soc_w + rest_w) / board_total
            die = board + soc_w / self.die_board_w_k
            return BodyTemps(die, die, board)
        sink_total = self.sink.total_w_k
        sink_env = (self.sink.air_w_k * air_k + self.sink.wall_w_k * wall_k) / sink_total
        link = self.die_board_w_k
        through, a11, a22, det = self._balance
        b1, b2 = soc_w + through * sink_env, rest_w + board_total * board_env
        die = (b1 * a22 + link * b2) / det
        board = (a11 * b2 + link * b1) / det
        sink = sink_env + through * (die - sink_env) / sink_total
        return BodyTemps(die, sink, board)

    @cached_property
    def nominal(self) -> BoardBody:
        """The same board with nominal figures alone, as plain numbers."""
        sink = None if self.sink is None else self.sink.nominal()
        through = None if self.die_sink_w_k is None else nominal(self.die_sink_w_k)
        return BoardBody(nominal(self.die_board_w_k), through, sink, self.board.nominal())

    @cached_property
    def _balance(self) -> tuple[Quantity, Quantity, Quantity, Quantity]:
        """From die through the sink to its surroundings, and the matrix of die and board."""
        if self.sink is None or self.die_sink_w_k is None:
            raise ValueError("a bare die has no sink")
        link = self.die_board_w_k
        through = 1 / (1 / self.die_sink_w_k + 1 / self.sink.total_w_k)
        a11, a22 = link + through, link + self.board.total_w_k
        return through, a11, a22, a11 * a22 - link * link

    def given_off_w(
        self, temps: BodyTemps, air_k: Quantity, wall_k: Quantity
    ) -> tuple[Quantity, Quantity]:
        """Heat to inside air and to the wall at these temperatures. [W]"""
        to_air = self.board.air_w_k * (temps.board_k - air_k)
        to_wall = self.board.wall_w_k * (temps.board_k - wall_k)
        if self.sink is not None:
            to_air = to_air + self.sink.air_w_k * (temps.sink_k - air_k)
            to_wall = to_wall + self.sink.wall_w_k * (temps.sink_k - wall_k)
        return to_air, to_wall

    @cached_property
    def response(self) -> BoardResponse:
        """What the board gives off for one watt and for one kelvin of each kind.

        The board is linear in powers and surroundings, so four probes describe it exactly.
        """
        return BoardResponse(
            self._given_off_at(soc_w=1.0),
            self._given_off_at(rest_w=1.0),
            self._given_off_at(air_k=1.0),
            self._given_off_at(wall_k=1.0),
        )

    def _given_off_at(
        self, soc_w: float = 0.0, rest_w: float = 0.0, air_k: float = 0.0, wall_k: float = 0.0
    ) -> tuple[Quantity, Quantity]:
        return self.given_off_w(self.temps(soc_w, rest_w, air_k, wall_k), air_k, wall_k)


@dataclass(slots=True, frozen=True)
class BoardResponse:
    """Heat to air and to the wall for each unit: [W/W] for powers, [W/K] for surroundings."""

    per_soc: tuple[Quantity, Quantity]
    per_rest: tuple[Quantity, Quantity]
    per_air: tuple[Quantity, Quantity]
    per_wall: tuple[Quantity, Quantity]

    def heat_input(self, soc_w: Quantity, rest_w: Quantity, other_w: Quantity) -> HeatInput:
        """The board's part in the balance of its case, and `other_w` straight to inside air."""
        (soc_air, soc_wall), (rest_air, rest_wall) = self.per_soc, self.per_rest
        return HeatInput(
            air_w=soc_air * soc_w + rest_air * rest_w + other_w,
            air_per_air=self.per_air[0],
            air_per_wall=self.per_wall[0],
            wall_w=soc_wall * soc_w + rest_wall * rest_w,
            wall_per_air=self.per_air[1],
            wall_per_wall=self.per_wall[1],
        )
