"""A part turned into arrays once, so that a plan only joins fragments."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.parts.model import Load, Part
from cobblewort.core.parts.plain import plain

DRAWS = ("off", "idle", "light", "working", "peak", "start")
"""Rows of a load's table: nothing, idle, half way to working, working, peak, start."""


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


class CompiledPart:
    """A part and the samples of its figures; `model` is the part as its document says it.

    A draw is keyed by part id and field, so two copies of one model share it; the activities of
    one load share a draw too. `draws` are the tables of each rail, of its loads together: those in
    watts, and those in amperes. `connected` says that it can be joined to others or
    offers a function, `passes_on` that it hangs on a socket and brings sockets of its own, as a hub
    and an extension lead do.
    """

    __slots__ = (
        "_bases",
        "_cache",
        "connected",
        "draws",
        "loads",
        "model",
        "part",
        "passes_on",
        "samples",
    )

    def __init__(self, part: Part, samples: int) -> None:
        self.model = part
        self.part = part = plain(part)
        self.samples = samples
        self.connected = bool(part.plugs or part.sockets or part.rails or part.offers)
        self.passes_on = part.kind in ("hub", "lead") and bool(part.sockets) and bool(part.plugs)
        self._cache: dict[str, FloatArray] = {}
        self._bases: dict[str, str] = {}
        self.loads = {name: self._load(name, load) for name, load in part.loads.items()}
        self.draws: dict[str, list[tuple[bool, FloatArray]]] = {}
        sums: dict[tuple[str, bool], FloatArray] = {}
        for load in self.loads.values():
            key = load.rail, load.in_watts
            sums[key] = sums[key] + load.table if key in sums else load.table
        for (rail, in_watts), table in sums.items():
            self.draws.setdefault(rail, []).append((in_watts, table))

    def _load(self, name: str, load: Load) -> LoadArrays:
        key = f"{self.part.id}/loads.{name}"
        idle, working, peak = (
            sampled(reading, key, self.samples) for reading in (load.idle, load.working, load.peak)
        )
        start = working if load.start is None else sampled(load.start, key, self.samples)
        rows = (np.zeros_like(idle), idle, (idle + working) / 2, working, peak, start)
        return LoadArrays(load.rail, load.unit == "w", np.array(rows))

    def figure(self, field: str, reading: Reading | None, missing: float = 0.0) -> FloatArray:
        """Samples of one figure of the part, by the path of its field; `missing` when not given."""
        values = self._cache.get(field)
        if values is None:
            if reading is None:
                values = np.full(self.samples, missing)
            else:
                values = sampled(reading, f"{self.part.id}/{field}", self.samples)
            values.setflags(write=False)
            self._cache[field] = values
            self._bases[field] = "typical" if reading is None else reading.basis
        return values

    def uncertain(self) -> Iterator[tuple[str, str, FloatArray]]:
        """Figures in use whose samples differ: path, basis and samples."""
        for name, load in self.loads.items():
            values = load.row("peak")
            if np.ptp(values) > 0:
                yield f"loads.{name}", self.part.loads[name].peak.basis, values
        for path, values in self._cache.items():
            if np.ptp(values) > 0:
                yield path, self._bases[path], values
