"""The thermal network of one board in its case: bodies, inside air and wall, all governors settled.

Every body is linear in its power and in its surroundings, so that it is reduced to what it gives to
inside air and to the wall, and only these two are iterated. What slows itself is at the watts that
are asked of it, or sits at its limit, or rests and is above it; which of the three is found by
trying: those that would pass their limit are held there, the air is solved anew, and so on until
nobody changes.

The same formulas serve plain numbers, one state at nominal figures, and arrays of states and
samples.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import starmap

import numpy as np

from cobblewort.core.aspects.heat.bodies import BoardBody, Path
from cobblewort.core.aspects.heat.enclosure import (
    CaseTemps,
    Enclosure,
    HeatInput,
    solve_enclosure,
)
from cobblewort.core.aspects.heat.throttling import PowerSplit
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import absolute, at_least, between, pick

ASKED, HELD, RESTS = 0.0, 1.0, 2.0
"""What something that slows itself does: all that is asked of it, what its limit allows, nothing
above rest."""
_MOST_TURNS = 16
_NEAR_ENOUGH_W = 1e-6


@dataclass(frozen=True, slots=True)
class Body:
    """A body that warms itself: a drive, a controller, a regulator, a supply.

    `pull` says how far the air around it follows the board that it lies beside, 0 to 1. Of one that
    `slows` itself `limit_k` is where it does, and `lost_w_w` what converters above it lose for each
    of its watts, the carrier's own first, with the bodies (by place) where they lose it; None
    stands for the air itself.
    `carried` is the share of its carrier's heat that warms it.
    """

    path: Path
    pull: float = 0.0
    slows: bool = False
    limit_k: Quantity = 0.0
    lost_w_w: tuple[tuple[int | None, Quantity], ...] = ()
    carried: Quantity = 0.0
    mates: tuple[int, ...] = ()
    """Bodies on the same carrier whose converters warm it, itself included, by place."""


@dataclass(slots=True)
class Asked:
    """What is asked of a network in some states: shape (states, samples), or plain numbers.

    [W], [K]
    `soc_idle_w` is what the processor gives off at rest. `body_w` and `rest_body_w` are what each
    body gives off as asked and at rest, `carrier_w` the heat of each body's carrier, `air_w` what
    else goes straight to the air inside.
    """

    soc_w: Quantity
    soc_idle_w: Quantity
    rest_w: Quantity
    air_w: Quantity
    ambient_k: Quantity
    body_w: Sequence[Quantity] = ()
    rest_body_w: Sequence[Quantity] = ()
    carrier_w: Sequence[Quantity] = ()


@dataclass(slots=True)
class Near:
    """Temperatures of a solution nearby: of board, air and walls. [K]"""

    board_k: Quantity
    air_k: Quantity
    inner_k: Quantity
    outer_k: Quantity

    def each(self) -> Iterator[Near]:
        """State by state at nominal figures, in plain numbers."""
        fields = (self.board_k, self.air_k, self.inner_k, self.outer_k)
        return starmap(Near, np.array(fields)[..., 0].T.tolist())


@dataclass(slots=True)
class Settled:
    """Temperatures and what is given off, in the shape of what was asked. [K], [W]

    Without a case air and walls are the surroundings.
    """

    die_k: Quantity
    sink_k: Quantity
    board_k: Quantity
    air_k: Quantity
    inner_k: Quantity
    outer_k: Quantity
    soc_w: Quantity
    rest_w: Quantity
    body_w: list[Quantity] = field(default_factory=list)
    body_k: list[Quantity] = field(default_factory=list)


_Linear = tuple[Quantity, Quantity, Quantity]
"""A heat `w + per_air T_air + per_wall T_wall`, or a temperature so: its three factors."""
_NOTHING: tuple[Quantity, Quantity] = 0.0, 0.0


class Network:
    """A board, what else is warm around it, and the case, if any."""

    def __init__(
        self,
        board: BoardBody,
        bodies: Sequence[Body],
        box: Enclosure | None,
        limit_k: Quantity,
        curve: PowerSplit,
    ) -> None:
        self.board, self.bodies, self.box, self.limit_k = board, list(bodies), box, limit_k
        self.curve = curve
        self.slowing = [n for n, body in enumerate(bodies) if body.slows]
        self._carriers = list(dict.fromkeys(body.mates for body in bodies if body.mates))
        # What passes from air to wall through a body for each kelvin between them, in W/K, and the
        # part of it that follows the board.
        self._through: Quantity = 0.0
        self._pulled: Quantity = 0.0
        self._to_wall: list[Quantity] = []
        for body in bodies:
            share = body.path.wall_w_k / body.path.total_w_k
            self._to_wall.append(share)
            self._through = self._through + body.path.air_w_k * share
            self._pulled = self._pulled + body.path.air_w_k * share * body.pull

    def settle(self, asked: Asked, governed: bool, near: Near | Settled | None = None) -> Settled:
        """Temperatures as asked, or with all that slows itself settled together.

        Equations (3) to (7) of docs/model.md in steady state, linear in air and wall, which
        `solve_enclosure` finds; where `governed`, each body that would pass its limit is held there
        by (8) or (9) and all is solved anew until no body changes its mode. `near` is a solution
        nearby, say of what would come of it if nothing slowed itself.
        """
        soc_mode, soc_w = 0.0 * asked.soc_w, asked.soc_w
        modes: dict[int, Quantity] = dict.fromkeys(self.slowing, 0.0 * asked.soc_w)
        start = None
        if near is not None:
            start = CaseTemps(near.air_k, near.inner_k, near.outer_k)
            if governed:
                warm = [
                    body.carried * heat_w
                    for body, heat_w in zip(self.bodies, asked.carrier_w, strict=True)
                ]
                soc_mode, modes = self._modes(asked, near, warm, soc_mode, modes)
        for _ in range(_MOST_TURNS):
            soc, rest = self._soc(asked, soc_mode, soc_w)
            board = self._board(soc, rest)
            powers = self._powers(asked, board, modes)
            carriers = self._carrier_heat(asked, modes, powers)
            start = case = self._surroundings(asked, soc, rest, board, powers, start)
            found, warm = self._found(asked, soc, rest, powers, carriers, case)
            if not governed:
                break
            new_soc_mode, new_modes = self._modes(asked, found, warm, soc_mode, modes)
            if (
                _alike(new_soc_mode, soc_mode)
                and all(map(_alike, new_modes.values(), modes.values()))
                and self._follows(soc_mode, found)
            ):
                break
            soc_mode, modes, soc_w = new_soc_mode, new_modes, found.soc_w
        return found

    def _board(self, processor: _Linear, beside: _Linear) -> _Linear:
        """The temperature of the board, by what its processor and the rest of it give off. [K]"""
        response = self.board.response
        own, other = response.soc.board_k, response.rest.board_k
        soc, soc_air, soc_wall = processor
        rest, rest_air, rest_wall = beside
        return (
            own * soc + other * rest,
            own * soc_air + other * rest_air + response.air.board_k,
            own * soc_wall + other * rest_wall + response.wall.board_k,
        )

    def _powers(
        self, asked: Asked, board: _Linear, modes: dict[int, Quantity]
    ) -> dict[int, _Linear]:
        """What each body gives off that does not do all that is asked of it; of one on a carrier as
        if that were cold.
        """
        powers: dict[int, _Linear] = {}
        for n in self.slowing:
            mode = modes[n]
            if not _any(mode):
                continue
            body, held = self.bodies[n], mode == HELD
            path, pulled = body.path, body.path.air_w_k * body.pull
            given = pick(mode == RESTS, asked.rest_body_w[n], asked.body_w[n])
            at_limit = path.total_w_k * body.limit_k - pulled * board[0]
            powers[n] = (
                pick(held, at_limit, given),
                pick(held, pulled - path.air_w_k - pulled * board[1], 0.0),
                pick(held, -path.wall_w_k - pulled * board[2], 0.0),
            )
        return powers

    def _carrier_heat(
        self, asked: Asked, modes: dict[int, Quantity], powers: dict[int, _Linear]
    ) -> list[_Linear]:
        """The heat of each carrier, which loses less for drives that draw less; what its drives may
        give off is lessened in `powers` by what of that heat warms them.

        A held drive gives off `X - c H`, and a carrier `H = C + sum of lost (P - A)` for what its
        drives give off less what is asked of them, so that `H = (C + sum of lost (X - A)) / (1 +
        sum of lost c)`.
        """
        found: list[_Linear] = []
        for mates in self._carriers:
            heat, heat_air, heat_wall = asked.carrier_w[mates[0]], *_NOTHING
            over: Quantity = 1.0
            slower = [n for n in mates if n in powers]
            for n in slower:
                body, (power, power_air, power_wall) = self.bodies[n], powers[n]
                for _, lost in body.lost_w_w[:1]:
                    heat = heat + lost * (power - asked.body_w[n])
                    heat_air, heat_wall = heat_air + lost * power_air, heat_wall + lost * power_wall
                    over = over + pick(modes[n] == HELD, lost * body.carried, 0.0)
            if slower:
                heat, heat_air, heat_wall = heat / over, heat_air / over, heat_wall / over
            found.append((heat, heat_air, heat_wall))
            for n in slower:
                share = pick(modes[n] == HELD, self.bodies[n].carried, 0.0)
                power, power_air, power_wall = powers[n]
                powers[n] = (
                    power - share * heat,
                    power_air - share * heat_air,
                    power_wall - share * heat_wall,
                )
        return found

    def _soc(self, asked: Asked, mode: Quantity, near_w: Quantity) -> tuple[_Linear, _Linear]:
        """The heat of processor and rest of the board, by the air and the wall around them.

        The rest follows the clock that is held, in a line through what it is near some power.
        """
        if not _any(mode):
            return (asked.soc_w, 0.0, 0.0), (asked.rest_w, 0.0, 0.0)
        response = self.board.response
        held, is_asked = mode == HELD, mode == ASKED
        near_w = pick(held, between(asked.soc_idle_w, near_w, asked.soc_w), asked.soc_idle_w)
        rest, slope = self.curve.rest_at(near_w)
        slope = pick(held, slope, 0.0)
        rest = pick(is_asked, asked.rest_w, rest - slope * near_w)
        per = response.soc.die_k + response.rest.die_k * slope
        given = pick(is_asked, asked.soc_w, asked.soc_idle_w)
        at_limit = (self.limit_k - response.rest.die_k * rest) / per
        soc = pick(held, at_limit, given)
        soc_air = pick(held, -response.air.die_k / per, 0.0)
        soc_wall = pick(held, -response.wall.die_k / per, 0.0)
        return (soc, soc_air, soc_wall), (rest + slope * soc, slope * soc_air, slope * soc_wall)

    def _follows(self, mode: Quantity, found: Settled) -> bool:
        """Whether the rest of a board that is held is what belongs to the clock that is held."""
        if not _any(mode):
            return True
        rest, _ = self.curve.rest_at(at_least(0.0, found.soc_w))
        off_w = pick(mode == HELD, absolute(rest - found.rest_w), 0.0)
        return bool(np.max(off_w) < _NEAR_ENOUGH_W)

    def _surroundings(
        self,
        asked: Asked,
        processor: _Linear,
        beside: _Linear,
        board: _Linear,
        powers: dict[int, _Linear],
        start: CaseTemps | None,
    ) -> CaseTemps:
        """Air and walls, with what slows itself as it is."""
        if self.box is None:
            return CaseTemps(asked.ambient_k, asked.ambient_k, asked.ambient_k)
        soc, soc_air, soc_wall = processor
        board_k, board_air, board_wall = board
        # Of the board for a watt of its processor, a watt of the rest, a kelvin of air and of wall.
        response = self.board.response
        rest, rest_air, rest_wall = beside
        own_to_air, own_to_wall, _, _ = response.soc
        rest_to_air, rest_to_wall, _, _ = response.rest
        air_to_air, air_to_wall, _, _ = response.air
        wall_to_air, wall_to_wall, _, _ = response.wall
        # All that bodies give off, and how much of it goes to the wall.
        heat: Quantity = asked.air_w
        heat_air, heat_wall = _NOTHING
        wall: Quantity = 0.0
        wall_air, wall_wall = _NOTHING
        for n, body in enumerate(self.bodies):
            to_wall = self._to_wall[n]
            if n not in powers:
                heat = heat + asked.body_w[n]
                wall = wall + to_wall * asked.body_w[n]
                continue
            power, power_air, power_wall = powers[n]
            total: Quantity = 1.0
            base: Quantity = 0.0
            base_wall: Quantity = 0.0
            for place, lost in body.lost_w_w:
                total = total + lost
                base = base - lost * asked.body_w[n]
                if place is not None:
                    to_wall = to_wall + lost * self._to_wall[place]
                    base_wall = base_wall - lost * self._to_wall[place] * asked.body_w[n]
            heat = heat + total * power + base
            heat_air, heat_wall = heat_air + total * power_air, heat_wall + total * power_wall
            wall = wall + to_wall * power + base_wall
            wall_air, wall_wall = wall_air + to_wall * power_air, wall_wall + to_wall * power_wall
        # From air to wall through the bodies, those beside the board in air that follows it.
        through, pulled = self._through, self._pulled
        wall = wall + pulled * board_k
        wall_air = wall_air + through - pulled + pulled * board_air
        wall_wall = wall_wall - through + pulled * board_wall
        gives = HeatInput(
            air_w=heat - wall + own_to_air * soc + rest_to_air * rest,
            air_per_air=heat_air
            - wall_air
            + own_to_air * soc_air
            + rest_to_air * rest_air
            + air_to_air,
            air_per_wall=heat_wall
            - wall_wall
            + own_to_air * soc_wall
            + rest_to_air * rest_wall
            + wall_to_air,
            wall_w=wall + own_to_wall * soc + rest_to_wall * rest,
            wall_per_air=wall_air + own_to_wall * soc_air + rest_to_wall * rest_air + air_to_wall,
            wall_per_wall=wall_wall
            + own_to_wall * soc_wall
            + rest_to_wall * rest_wall
            + wall_to_wall,
        )
        return solve_enclosure(self.box, gives, asked.ambient_k, start)

    def _found(
        self,
        asked: Asked,
        processor: _Linear,
        beside: _Linear,
        powers: dict[int, _Linear],
        carriers: Sequence[_Linear],
        case: CaseTemps,
    ) -> tuple[Settled, list[Quantity]]:
        """Powers and temperatures in such surroundings, and what each body takes up of its
        carrier's heat. [W]
        """
        air, wall = case.air_k, case.inner_wall_k
        soc_w, rest_w = _at(processor, air, wall), _at(beside, air, wall)
        board = self.board.temps(soc_w, rest_w, air, wall)
        body_w = list(asked.body_w)
        for n, power in powers.items():
            body_w[n] = _at(power, air, wall)
            for place, lost in self.bodies[n].lost_w_w:
                if place is not None:
                    body_w[place] = body_w[place] - lost * (asked.body_w[n] - body_w[n])
        warm: list[Quantity] = [0.0] * len(self.bodies)
        for mates, heat in zip(self._carriers, carriers, strict=True):
            heat_w = _at(heat, air, wall)
            for n in mates:
                warm[n] = self.bodies[n].carried * heat_w
        body_k = [
            (body_w[n] + warm[n] + self._around_w(n, air, wall, board.board_k))
            / body.path.total_w_k
            for n, body in enumerate(self.bodies)
        ]
        found = Settled(
            board.die_k,
            board.sink_k,
            board.board_k,
            air,
            wall,
            case.outer_wall_k,
            soc_w,
            rest_w,
            body_w,
            body_k,
        )
        return found, warm

    def _around_w(self, n: int, air: Quantity, wall: Quantity, board: Quantity) -> Quantity:
        """What a body would take up from its surroundings at absolute zero: `G T` of them. [W]"""
        body = self.bodies[n]
        near = air + body.pull * (board - air) if body.pull else air
        return body.path.air_w_k * near + body.path.wall_w_k * wall

    def _allowed_w(self, n: int, at: Near | Settled, warm: Sequence[Quantity]) -> Quantity:
        """What its limit lets a body give off there. [W]"""
        body = self.bodies[n]
        around_w = self._around_w(n, at.air_k, at.inner_k, at.board_k)
        return body.path.total_w_k * body.limit_k - around_w - warm[n]

    def _modes(
        self,
        asked: Asked,
        found: Near | Settled,
        warm: Sequence[Quantity],
        soc_mode: Quantity,
        modes: dict[int, Quantity],
    ) -> tuple[Quantity, dict[int, Quantity]]:
        """What each governor does next, in the air that is there."""
        response = self.board.response
        left_k = (
            self.limit_k - response.air.die_k * found.air_k - response.wall.die_k * found.inner_k
        )
        least_rest, _ = self.curve.rest_at(asked.soc_idle_w)
        enough_w, least_w = (
            (left_k - response.rest.die_k * rest) / response.soc.die_k
            for rest in (asked.rest_w, least_rest)
        )
        new_soc_mode = _next_mode(soc_mode, enough_w, asked.soc_w, least_w, asked.soc_idle_w)
        new_modes = {}
        for n in self.slowing:
            allowed_w = self._allowed_w(n, found, warm)
            new_modes[n] = _next_mode(
                modes[n], allowed_w, asked.body_w[n], allowed_w, asked.rest_body_w[n]
            )
        return new_soc_mode, new_modes


def _next_mode(
    mode: Quantity,
    allowed_w: Quantity,
    asked_w: Quantity,
    allowed_at_rest_w: Quantity,
    rest_w: Quantity,
) -> Quantity:
    """`ASKED`, `HELD` or `RESTS` for what a limit allows beside all that is asked, and beside what
    rests; one step at a time: what would have to rest in air that is too warm now may well be held
    in the air that holding it leaves.
    """
    enough = (allowed_w >= asked_w) | (asked_w <= 0.0)
    rests = (allowed_at_rest_w <= rest_w) & (mode != ASKED)
    return pick(enough & (mode != RESTS), ASKED, pick(rests, RESTS, HELD))


def _at(linear: _Linear, air_k: Quantity, wall_k: Quantity) -> Quantity:
    """What it comes to."""
    base, per_air, per_wall = linear
    return base + per_air * air_k + per_wall * wall_k


def _alike(one: Quantity, other: Quantity) -> bool:
    return bool(np.array_equal(one, other)) if isinstance(one, np.ndarray) else one == other


def _any(mode: Quantity) -> bool:
    return bool(mode.any()) if isinstance(mode, np.ndarray) else mode != 0.0
