"""What everything inside gives off in the mean of each state: loads, and what converters lose."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from cobblewort.core.aspects.heat.warm import Warm
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.figures.arrays import FloatArray, IntArray, Quantity
from cobblewort.core.judging.piece import Piece
from cobblewort.core.parts.compiled import DRAWS, LoadArrays

_IDLE = DRAWS.index("idle")
Lost = tuple[tuple[int | None, Quantity], ...]
"""What converters lose of a watt behind them, the nearest first, with the hot body in which each
does, by its place; None where that is none."""


@dataclass(slots=True)
class GivenOff:
    """Heat as asked, shape (states, samples), of hot bodies with one axis more before. [W]

    `rest_body_w` is what hot bodies give off at rest, `carrier_w` what the boards that carry them
    do, `air_w` what goes straight to the air; `lost` is of each hot body what converters inside
    lose of its watts.
    """

    body_w: FloatArray
    rest_body_w: FloatArray
    carrier_w: FloatArray
    air_w: FloatArray
    lost: list[Lost]


class MeanRows:
    """Which rows of their tables pieces draw in the mean states."""

    def __init__(self, power: PowerResult) -> None:
        self._power = power
        self._known: dict[int, IntArray] = {}

    def of(self, piece: Piece) -> IntArray:
        """Those of a piece; lines of which no phase says anything share theirs."""
        rows = self._power.hung.rows.get(piece.line.id)
        if rows is None:
            rows = next(iter(self._power.hung.rows.values()))
        mean = self._known.get(id(rows))
        if mean is None:
            mean = self._known[id(rows)] = rows.mean.take(self._power.means.at)
        return mean


def given_off(
    power: PowerResult, rows: MeanRows, inside: Sequence[Piece], board: Piece, warm: Sequence[Warm],
    shape: tuple[int, ...],
) -> GivenOff:  # fmt: skip
    """Heat of everything inside but the board itself."""
    sources = _Sources(power, rows, {piece.id for piece in inside}, shape)
    body_w, rest_body_w = np.zeros((len(warm), *shape)), np.zeros((len(warm), *shape))
    for n, body in enumerate(warm):
        body_w[n], rest_body_w[n] = sources.of_body(body)
    air_w = sources.of_all(piece for piece in inside if piece is not board)
    air_w += sum(sources.losses_w.values()) - body_w.sum(axis=0)
    by_rail = {rail: n for n, body in enumerate(warm) if (rail := rail_of(body)) is not None}
    return GivenOff(
        body_w, rest_body_w, sources.of_carriers(warm), air_w,
        [sources.lost_above(body, by_rail) if body.body.slows else () for body in warm],
    )  # fmt: skip


class _Sources:
    """Where heat inside comes from."""

    def __init__(
        self, power: PowerResult, rows: MeanRows, inside: set[str], shape: tuple[int, ...]
    ) -> None:
        self._power, self._rows, self._inside, self._shape = power, rows, inside, shape
        self.losses_w = _losses_w(power, inside)

    def of_all(self, pieces: Iterable[Piece]) -> FloatArray:
        """Of all loads of some pieces; one stated in amperes counts at the voltage of its rail, and
        not at all while nothing feeds it.
        """
        total = np.zeros(self._shape)
        # Loads in watts that draw the same rows of their tables are added up before these are read.
        alike: dict[int, tuple[IntArray, list[FloatArray]]] = {}
        for piece in pieces:
            rows = self._rows.of(piece)
            for load in self._power.loads_of(piece).values():
                if load.in_watts:
                    alike.setdefault(id(rows), (rows, []))[1].append(load.table)
                elif (place := self._power.forest.index(f"{piece.id}.{load.rail}")) is not None:
                    drawn_a = load.table.take(rows, axis=0)
                    total += drawn_a * self._power.mean_voltage_v[place]
        for rows, tables in alike.values():
            total += np.add.reduce(tables).take(rows, axis=0)
        return total

    def of_body(self, warm: Warm) -> tuple[FloatArray, FloatArray]:
        """What a hot body gives off as asked, and at rest; nothing while nothing feeds it."""
        group, _, key = warm.body.of.partition(".")
        share = warm.share
        if group == "loads":
            load: LoadArrays = self._power.loads_of(warm.piece)[key]
            power_w = load.table.take(self._rows.of(warm.piece), axis=0) * share
            return power_w, np.minimum(load.table[_IDLE] * share, power_w)
        lost_w = self.losses_w.get(rail_of(warm) or "")
        none = np.zeros(self._shape)
        return (none if lost_w is None else lost_w * share), none

    def of_carriers(self, warm: Sequence[Warm]) -> FloatArray:
        """For each hot body what the board that carries it gives off itself."""
        found = np.zeros((len(warm), *self._shape))
        known: dict[str, FloatArray] = {}
        for n, body in enumerate(warm):
            carrier = body.carrier
            if carrier is None:
                continue
            if carrier.id not in known:
                own = f"{carrier.id}."
                lost = [w for rail, w in self.losses_w.items() if rail.startswith(own)]
                known[carrier.id] = self.of_all([carrier]) + sum(lost)
            found[n] = known[carrier.id]
        return found

    def lost_above(self, warm: Warm, by_rail: Mapping[str, int]) -> Lost:
        """What each converter inside loses of a watt of a drive."""
        group, _, key = warm.body.of.partition(".")
        load = warm.piece.compiled.loads.get(key) if group == "loads" else None
        place = None if load is None else self._power.forest.index(f"{warm.piece.id}.{load.rail}")
        found: list[tuple[int | None, Quantity]] = []
        passed: Quantity = 1.0
        while place is not None and place >= 0:
            node = self._power.nodes[place]
            efficiency = _efficiency(self._power, place)
            if efficiency is not None:
                if node.piece.id in self._inside:
                    found.append((by_rail.get(node.id), passed * (1 / efficiency - 1)))
                passed = passed / efficiency
            place = node.parent
        return tuple(found)


def rail_of(warm: Warm) -> str | None:
    """The rail whose converter or source loses what a body gives off; None of a load's."""
    group, _, key = warm.body.of.partition(".")
    if group == "loads":
        return None
    source = warm.piece.part.source
    rail = key if source is None or group == "rails" else source.rail
    return f"{warm.piece.id}.{rail}"


def _efficiency(power: PowerResult, place: int) -> FloatArray | None:
    """That of the converter or supply whose output a rail is; None where it is neither, or nobody
    states it.
    """
    node = power.nodes[place]
    if node.converter == place and node.rail.efficiency is not None:
        return node.piece.compiled.figure(f"rails.{node.name}.efficiency")
    source = node.piece.part.source
    if node.parent < 0 and source is not None and source.efficiency is not None:
        return node.piece.compiled.figure("source.efficiency")
    return None


def _losses_w(power: PowerResult, inside: set[str]) -> Mapping[str, FloatArray]:
    """What converters and supplies inside lose as heat, by rail, shape (states, samples). [W]"""
    losses: dict[str, FloatArray] = {}
    for place, node in enumerate(power.nodes):
        if node.piece.id not in inside or (node.converter != place and node.parent >= 0):
            continue
        efficiency = _efficiency(power, place)
        if efficiency is not None:
            given_w = power.mean_current_a[place] * power.mean_voltage_v[place]
            losses[node.id] = given_w * (1 / efficiency - 1)
    return losses
