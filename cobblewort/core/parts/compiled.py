"""A part turned into arrays once, so that a plan only joins fragments."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.parts.model import Load, Part
from cobblewort.core.parts.readings import readings_of

DRAWS = ("off", "idle", "light", "normal", "peak", "start")
"""Rows of a load's table: nothing, idle, half way to normal, normal, peak, start."""


_STAND_THERE = ("case", "cooler", "fastener", "tool", "machine")
"""Kinds of which many are joined to nothing."""


_FORMER_STEPS = {
    "cable": "lead",
    "flat_cable": "cable",
    "cable_ohm": "lead_ohm",
    "undervoltage_v": "flag_v",
    "advertises_a": "announces_a",
    "limit_unadvertised_a": "limit_unannounced_a",
}


def drawn_as(path: str) -> str:
    """The name by which a figure is drawn: that under which it was first published, so that
    renaming it moves no sample.
    """
    steps = path.split(".")  # of which the second may be a name that the part itself gives
    former = (
        step if n == 1 and len(steps) > 2 else _FORMER_STEPS.get(step, step)
        for n, step in enumerate(steps)
    )
    return ".".join(former)


@dataclass(slots=True, frozen=True)
class Moved:
    """A figure of a part that is set to one end of its band, to see what moves with it.

    `path` is that of a reading, or of a load, whose readings all move together.
    """

    path: str
    end: Literal["low", "high"]


@dataclass(slots=True, frozen=True)
class LoadArrays:
    """What a load draws, one row for each of `DRAWS`, shape (6, samples). [W] or [A]"""

    rail: str
    in_watts: bool
    table: FloatArray

    def row(self, name: str) -> FloatArray:
        """One of `DRAWS`, shape (samples,)."""
        values: FloatArray = self.table[DRAWS.index(name)]
        return values


Draws = dict[str, list[tuple[bool, FloatArray]]]
"""Tables of each rail, of its loads together: those in watts, and those in amperes."""


def draws_by_rail(loads: Iterable[LoadArrays]) -> Draws:
    """What some loads draw from each rail."""
    sums: dict[tuple[str, bool], FloatArray] = {}
    for load in loads:
        key = load.rail, load.in_watts
        sums[key] = sums[key] + load.table if key in sums else load.table
    draws: Draws = {}
    for (rail, in_watts), table in sums.items():
        draws.setdefault(rail, []).append((in_watts, table))
    return draws


class CompiledPart:
    """A part and the samples of all its figures; made once and never changed.

    A draw is keyed by part id and path, so two copies of one model share it; the activities of
    one load share a draw too. `draws` are the tables of each rail, of its loads together: those in
    watts, and those in amperes. `connected` says that it does more than stand there: it can be
    joined to others or offers a function. `passes_on` says that it hangs on a socket and brings
    sockets of its own, as a hub and an extension lead do.
    """

    __slots__ = (
        "_figures",
        "_moved",
        "_plain",
        "connected",
        "draws",
        "loads",
        "part",
        "passes_on",
        "samples",
    )

    def __init__(self, part: Part, samples: int, moved: Moved | None = None) -> None:
        self.part = part
        self.samples = samples
        self._moved = moved
        self.connected = part.kind not in _STAND_THERE or bool(
            part.plugs or part.sockets or part.rails or part.offers or part.pins or part.add_on
        )
        self.passes_on = part.kind in ("hub", "cable") and bool(part.sockets) and bool(part.plugs)
        self._figures = {
            path: self._drawn(path, reading)
            for path, reading in readings_of(part)
            if not path.startswith("loads.")
        }
        self._plain = {path: values.item(0) for path, values in self._figures.items()}
        self.loads = {name: self._load(name, load) for name, load in part.loads.items()}
        self.draws = draws_by_rail(self.loads.values())

    def _drawn(self, path: str, reading: Reading) -> FloatArray:
        """Samples of a figure, or the end that it is moved to."""
        if self._moved is not None and self._moved.path == path:
            values = np.full(self.samples, getattr(reading, self._moved.end))
        else:
            values = sampled(reading, f"{self.part.id}/{drawn_as(path)}", self.samples)
        values.setflags(write=False)
        return values

    def _load(self, name: str, load: Load) -> LoadArrays:
        path = f"loads.{name}"
        idle, normal, peak = (
            self._drawn(path, reading) for reading in (load.idle, load.normal, load.peak)
        )
        start = normal if load.start is None else self._drawn(path, load.start)
        table = np.array([np.zeros_like(idle), idle, (idle + normal) / 2, normal, peak, start])
        table.setflags(write=False)
        return LoadArrays(load.rail, load.unit == "w", table)

    def figure(self, path: str, missing: float | None = None) -> FloatArray:
        """Samples of a figure by its path in the part, shape (samples,).

        Parameters
        ----------
        path : str
            Such as `case.wall_w_mk`.
        missing : float, optional
            What stands for a figure that nobody states.

        Raises
        ------
        KeyError
            If the part has no such figure and nothing stands for it.
        """
        values = self._figures.get(path)
        if values is None:
            if missing is None:
                raise KeyError(f"{self.part.id} has no value '{path}'")
            values = np.full(self.samples, missing)
        return values

    def quantity(self, path: str) -> Quantity:
        """`figure`, as a plain number where there are no samples."""
        return self._plain[path] if self.samples == 1 else self.figure(path)

    def stated(self, path: str) -> FloatArray | None:
        """Samples of a figure by its path, None where nobody states it, shape (samples,)."""
        return self._figures.get(path)

    def uncertain(self) -> Iterator[tuple[str, str, FloatArray]]:
        """Figures whose samples differ: path, basis and samples; of a load those at its peak."""
        for name, load in self.loads.items():
            peak = self.part.loads[name].peak
            if peak.low < peak.high:
                yield f"loads.{name}", peak.basis, load.row("peak")
        for path, reading in readings_of(self.part):
            if reading.low < reading.high and path in self._figures:
                yield path, reading.basis, self._figures[path]
