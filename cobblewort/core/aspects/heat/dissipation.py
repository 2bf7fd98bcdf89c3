"""What everything inside gives off in the mean of each state: loads, and what converters lose.

What loads draw, and what converters lose of a watt, is known before voltages are.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from cobblewort.core.aspects.heat.thermal_bodies import Warm
from cobblewort.core.aspects.power.forest import Forest, Node
from cobblewort.core.aspects.power.model import Hung, Rows
from cobblewort.core.figures.arrays import FloatArray, IntArray, Quantity
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.states import looked_at
from cobblewort.core.parts.compiled import DRAWS, LoadArrays

CHARGE = "charge"
"""The load of a battery that is charged."""
CHARGING_LOSS = Reading(nominal=0.14, low=0.10, high=0.18, basis="typical")
"""What charger and cells make warm of it: typical, from memory."""
_IDLE = DRAWS.index("idle")
Lost = tuple[tuple[int | None, Quantity], ...]
"""What converters lose of a watt behind them, the nearest first, with the hot body in which each
does, by its place; None where that is none."""


@dataclass(slots=True, frozen=True)
class GivenOff:
    """Heat as asked, shape (states, samples), of hot bodies with one axis more before. [W]

    `carrier_w` is what the boards that carry hot bodies give off, `air_w` what goes straight to the
    air.
    """

    body_w: FloatArray
    carrier_w: FloatArray
    air_w: FloatArray


@dataclass(slots=True, frozen=True)
class Drawing:
    """What some loads draw, shape (states, samples): in watts together, and each that is stated in
    amperes, with the place of its rail.
    """

    watts: FloatArray
    amps: list[tuple[int, FloatArray]]

    def at(self, voltage_v: FloatArray) -> FloatArray:
        """All of it in watts, by the voltages of all rails."""
        total = self.watts
        for place, drawn_a in self.amps:
            total = total + drawn_a * voltage_v[place]
        return total


@dataclass(slots=True, frozen=True)
class Losing:
    """A rail whose converter or supply is inside, and what it loses of a watt that it gives."""

    place: int
    share: FloatArray


@dataclass(slots=True, frozen=True)
class Carrier:
    """A board that carries hot bodies, by their places: its own loads, and its rails that lose."""

    bodies: list[int]
    loads: Drawing
    losing: list[int]


@dataclass(slots=True, frozen=True)
class Inside:
    """What there is inside but the board itself, shape (states, samples), of hot bodies with one
    axis more before.

    `body_w` and `rest_body_w` are what hot bodies draw as asked and at rest, nothing of those in
    `by_loss`: these give off a share of what a rail loses, by its place among `losing`. `lost` is
    of each hot body what converters inside lose of its watts.
    """

    body_w: FloatArray
    rest_body_w: FloatArray
    loads: Drawing
    losing: list[Losing]
    by_loss: list[tuple[int, int, Quantity]]
    carriers: list[Carrier]
    lost: list[Lost]

    def given_off(self, current_a: FloatArray, voltage_v: FloatArray) -> GivenOff:
        """What it gives off, by what passes each rail, and the voltage there. [A], [V]"""
        losses_w = [current_a[one.place] * voltage_v[one.place] * one.share for one in self.losing]
        body_w = self.body_w
        if self.by_loss:
            body_w = body_w.copy()
            for body, rail, share in self.by_loss:
                body_w[body] = losses_w[rail] * share
        air_w = self.loads.at(voltage_v) + sum(losses_w) - body_w.sum(axis=0)
        carrier_w = np.zeros(body_w.shape)
        for carrier in self.carriers:
            lost_w = sum([losses_w[rail] for rail in carrier.losing])
            carrier_w[carrier.bodies] = carrier.loads.at(voltage_v) + lost_w
        return GivenOff(body_w, carrier_w, air_w)


class MeanRows:
    """Which rows of their tables pieces draw in the mean states."""

    def __init__(self, hung: Hung) -> None:
        self._rows, self._at = hung.rows, looked_at(tuple(hung.states))[1].at

    def named(self, item: Item) -> str:
        """A name that pieces share which draw the same rows."""
        return self._of(item).line

    def of(self, item: Item) -> IntArray:
        """Those of a piece; lines of which no phase says anything share theirs."""
        return self._of(item).mean.take(self._at)

    def _of(self, item: Item) -> Rows:
        rows = self._rows.get(item.line.id)
        return next(iter(self._rows.values())) if rows is None else rows


def what_is_inside(
    forest: Forest,
    hung: Hung,
    rows: MeanRows,
    inside: Sequence[Item],
    board: Item,
    warm: Sequence[Warm],
    shape: tuple[int, ...],
) -> Inside:
    """What everything inside but the board itself draws, and what converters there lose."""
    return _Sources(forest, hung, rows, {item.id for item in inside}, shape).of(
        [item for item in inside if item is not board], warm
    )


class _Sources:
    """Where heat inside comes from."""

    def __init__(
        self, forest: Forest, hung: Hung, rows: MeanRows, inside: set[str], shape: tuple[int, ...]
    ) -> None:
        self._forest, self._hung, self._rows, self._inside = forest, hung, rows, inside
        self._shape = shape
        self._losing: list[Losing] = []
        self._rails: dict[str, int] = {}
        for place, node in enumerate(forest.nodes):
            if node.item.id not in inside or (node.converter != place and node.parent >= 0):
                continue
            efficiency = _efficiency(node, place)
            if efficiency is not None:
                self._rails[node.id] = len(self._losing)
                self._losing.append(Losing(place, 1 / efficiency - 1))

    def of(self, items: Iterable[Item], warm: Sequence[Warm]) -> Inside:
        """All of it."""
        shape = len(warm), *self._shape
        body_w, rest_body_w = np.zeros(shape), np.zeros(shape)
        by_loss: list[tuple[int, int, Quantity]] = []
        by_rail: dict[str, int] = {}
        for n, body in enumerate(warm):
            rail = _rail_of(body)
            if rail is None:
                table = self._load_of(body).table
                power_w = table.take(self._rows.of(body.item), axis=0) * body.share
                body_w[n] = power_w
                rest_body_w[n] = np.minimum(table[_IDLE] * body.share, power_w)
                continue
            by_rail[rail] = n
            if rail in self._rails:
                by_loss.append((n, self._rails[rail], body.share))
        return Inside(
            body_w,
            rest_body_w,
            self._drawing(items),
            self._losing,
            by_loss,
            self._carriers(warm),
            [self._lost_above(body, by_rail) if body.body.slows else () for body in warm],
        )

    def _drawing(self, items: Iterable[Item]) -> Drawing:
        """All loads of some pieces; one stated in amperes does not count while nothing feeds it."""
        watts, amps = np.zeros(self._shape), []
        # Loads in watts that draw the same rows of their tables are added up before these are read.
        alike: dict[str, tuple[IntArray, list[FloatArray]]] = {}
        for item in items:
            rows = self._rows.of(item)
            for name, load in self._hung.loads_of(item).items():
                table = load.table
                if name == CHARGE:  # the rest of it is stored
                    table = table * sampled(
                        CHARGING_LOSS, f"{item.part.id}/charging", len(table[0])
                    )
                if load.in_watts:
                    alike.setdefault(self._rows.named(item), (rows, []))[1].append(table)
                elif (place := self._forest.index(f"{item.id}.{load.rail}")) is not None:
                    amps.append((place, table.take(rows, axis=0)))
        for rows, tables in alike.values():
            watts += np.add.reduce(tables).take(rows, axis=0)
        return Drawing(watts, amps)

    def _carriers(self, warm: Sequence[Warm]) -> list[Carrier]:
        """The boards on which hot bodies lie."""
        found: dict[str, Carrier] = {}
        for n, body in enumerate(warm):
            item = body.carrier
            if item is None:
                continue
            if item.id not in found:
                own = f"{item.id}."
                losing = [place for rail, place in self._rails.items() if rail.startswith(own)]
                found[item.id] = Carrier([], self._drawing([item]), losing)
            found[item.id].bodies.append(n)
        return list(found.values())

    def _load_of(self, warm: Warm) -> LoadArrays:
        """The load whose heat a body gives off."""
        return self._hung.loads_of(warm.item)[warm.body.of.partition(".")[2]]

    def _lost_above(self, warm: Warm, by_rail: Mapping[str, int]) -> Lost:
        """What each converter inside loses of a watt of a drive."""
        place = None
        if _rail_of(warm) is None:
            place = self._forest.index(f"{warm.item.id}.{self._load_of(warm).rail}")
        found: list[tuple[int | None, Quantity]] = []
        passed: Quantity = 1.0
        while place is not None and place >= 0:
            node = self._forest.nodes[place]
            efficiency = _efficiency(node, place)
            if efficiency is not None:
                if node.item.id in self._inside:
                    found.append((by_rail.get(node.id), passed * (1 / efficiency - 1)))
                passed = passed / efficiency
            place = node.parent
        return tuple(found)


def _rail_of(warm: Warm) -> str | None:
    """The rail whose converter or source loses what a body gives off; None of a load's."""
    group, _, key = warm.body.of.partition(".")
    if group == "loads":
        return None
    source = warm.item.part.source
    rail = key if source is None or group == "rails" else source.rail
    return f"{warm.item.id}.{rail}"


def _efficiency(node: Node, place: int) -> FloatArray | None:
    """That of the converter or supply whose output a rail is; None where it is neither, or nobody
    states it.
    """
    if node.converter == place and node.rail.efficiency is not None:
        return node.item.compiled.figure(f"rails.{node.name}.efficiency")
    source = node.item.part.source
    if node.parent < 0 and source is not None and source.efficiency is not None:
        return node.item.compiled.figure("source.efficiency")
    return None
