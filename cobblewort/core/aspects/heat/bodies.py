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
from typing import NamedTuple

from cobblewort.core.aspects.heat.enclosure import FORCED_EXPONENT, NATURAL_EXPONENT
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import at_least, nominal
from cobblewort.core.figures.reading import Reading
from cobblewort.core.standards.air import SEA_LEVEL_PA

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

    @cached_property
    def nominal(self) -> Path:
        """The same path with nominal figures alone, as plain numbers."""
        return Path(nominal(self.air_w_k), nominal(self.wall_w_k))


def split_path(
    still_k_w: Quantity, forced_k_w: Quantity | None = None, pressure_pa: float = SEA_LEVEL_PA
) -> Path:
    """Split a body's resistance to its surroundings; under a fan only the natural part radiates.

    Parameters
    ----------
    still_k_w, forced_k_w : ndarray, shape (samples,), or float
        Resistance in still air, and under a fan if there is one, at sea level. [K/W]
    pressure_pa : float
        Of the air: thin air carries less, while radiation stays. [Pa]
    """
    radiated = RADIATED_SHARE / still_k_w
    thin = pressure_pa / SEA_LEVEL_PA
    if forced_k_w is None:
        return Path((1 / still_k_w - radiated) * thin**NATURAL_EXPONENT, radiated)
    return Path(at_least(0.0, 1 / forced_k_w - radiated) * thin**FORCED_EXPONENT, radiated)


@dataclass(slots=True)
class BodyTemps:
    """Temperatures of die, sink and board. Without a cooler the sink is the die. [K]"""

    die_k: Quantity
    sink_k: Quantity
    board_k: Quantity


@dataclass(frozen=True)
class BoardBody:
    """Conductances of a board, each of shape (samples,) or a plain number. [W/K]

    `sink` is None for a bare die, and the foot of a pillar where the wall itself is the sink.
    """

    die_board_w_k: Quantity
    die_sink_w_k: Quantity | None
    sink: Path | None
    board: Path

    @property
    def on_wall(self) -> bool:
        """Whether the wall of the case is the sink."""
        return self.sink is not None and nominal(self.sink.air_w_k) == 0.0

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
        sink = None if self.sink is None else self.sink.nominal
        through = None if self.die_sink_w_k is None else nominal(self.die_sink_w_k)
        return BoardBody(nominal(self.die_board_w_k), through, sink, self.board.nominal)

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
        """What the board gives off and comes to for one watt and for one kelvin of each kind.

        The board is linear in powers and surroundings, so four probes describe it exactly.
        """
        return BoardResponse(
            self._probe(soc_w=1.0),
            self._probe(rest_w=1.0),
            self._probe(air_k=1.0),
            self._probe(wall_k=1.0),
        )

    def _probe(
        self, soc_w: float = 0.0, rest_w: float = 0.0, air_k: float = 0.0, wall_k: float = 0.0
    ) -> Probe:
        temps = self.temps(soc_w, rest_w, air_k, wall_k)
        return Probe(*self.given_off_w(temps, air_k, wall_k), temps.die_k, temps.board_k)


class Probe(NamedTuple):
    """What one unit of something does to a board: heat to air and to the wall, and temperatures of
    die and board; [W/W] and [K/W] for a power, [W/K] and [K/K] for a temperature around it.
    """

    air_w: Quantity
    wall_w: Quantity
    die_k: Quantity
    board_k: Quantity


@dataclass(slots=True, frozen=True)
class BoardResponse:
    """Probes of a board with its processor's heat, the rest of it, air and wall."""

    soc: Probe
    rest: Probe
    air: Probe
    wall: Probe


M2_FILM_W_M2K = 10.0
"""From the open face of an M.2 module to its surroundings: typical, from memory."""
M2_CARRIER_FILM_W_M2K = 9.0
"""From either face of the board that carries it: typical, from memory."""
M2_JOINT_W_K = 0.057
"""Through connector and screw: typical, from memory."""
M2_GAP_M = 0.002
M2_WIDTH_M = 0.022
M2_CARRIER_M2 = 0.065 * 0.056
"""A carrier whose size nobody states."""
M2_SPREAD = Reading(nominal=1.0, low=0.72, high=1.33, basis="typical")
"""How far such drives differ in their resistance: that of the classes, from memory."""
AIR_W_MK, _GAP_RADIATION_W_M2K = 0.026, 5.0


@dataclass(frozen=True, slots=True)
class CarriedPath:
    """An M.2 module on its carrier: its way to the surroundings in still air, all films, and the
    share of the carrier's own heat that warms it.

    `still_w_k = face + s carrier` with `s = through / (through + carrier)`, through gap and joint
    that no fan reaches. [W/K]
    """

    face_w_k: float
    through_w_k: float
    carrier_w_k: float

    def share(self, films: float = 1.0) -> float:
        """s, for films that are so many times those of still air."""
        return self.through_w_k / (self.through_w_k + self.carrier_w_k * films)

    def total_w_k(self, films: float = 1.0) -> float:
        """To the surroundings, by face and carrier. [W/K]"""
        return films * (self.face_w_k + self.share(films) * self.carrier_w_k)


def carried_path(length_m: float, carrier_m2: float, drives: int) -> CarriedPath:
    """The path of an M.2 module of some length on a carrier that it shares with others.

    About 18 K/W for 80 mm alone on a carrier as large as a card, 13.5 under a fan.
    """
    area_m2 = length_m * M2_WIDTH_M
    gap_w_k = (AIR_W_MK / M2_GAP_M + _GAP_RADIATION_W_M2K) * area_m2
    carrier_w_k = 2 * M2_CARRIER_FILM_W_M2K * carrier_m2 / drives
    return CarriedPath(M2_FILM_W_M2K * area_m2, gap_w_k + M2_JOINT_W_K, carrier_w_k)
