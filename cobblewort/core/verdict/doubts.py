"""Which uncertain figures of parts a result goes along with, and what is worth measuring."""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

import numpy as np

from cobblewort.core import words
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.parts.model import Part
from cobblewort.core.parts.names import figure_words
from cobblewort.core.text import Text, say

LEAST_SHARE = 0.02
"""What accounts for less of a result is not told."""
_DECIDES_SHARE = 0.2
_SURE_SHARE = 0.9
"""A limit that holds in so many draws needs no measurement."""
_NOT_MEASURED = ("fan_exchange_share", "soc_share_idle", "soc_share_peak", "emissivity", "limit_a")
"""What a hobbyist has no means to measure."""


class Along(NamedTuple):
    """A figure whose draws go along with a result: the square of their correlation."""

    share: float
    samples: FloatArray
    part: Part
    path: str
    basis: str

    @property
    def label(self) -> str:
        """What it is called."""
        return f"{figure_words(self.path)} of {self.part.model}"


def is_out_of_reach(label: str) -> bool:
    """Whether a hobbyist has no means to measure it."""
    return any(label.startswith(figure_words(name)) for name in _NOT_MEASURED)


def going_along(kit: Kit, values: FloatArray) -> list[Along]:
    """Uncertain figures that a result of shape (samples,) goes along with, most first."""
    drawn = values[1:]
    if drawn.size < 2 or float(np.std(drawn)) < 1e-9 * max(1.0, abs(float(values[0]))):
        return []
    found = [
        Along(
            float(np.corrcoef(samples[1:], drawn)[0, 1]) ** 2,
            samples[1:],
            part.part,
            path,
            basis,
        )
        for part in dict.fromkeys(item.compiled for item in kit.items)
        for path, basis, samples in part.uncertain()
    ]
    return sorted((f for f in found if f.share >= LEAST_SHARE), key=lambda f: -f.share)


class Unsure(NamedTuple):
    """A limit that holds and may not, and the figure to measure for it."""

    margin: Margin
    value: str
    part: str

    @property
    def told(self) -> Text:
        """Why it is worth measuring."""
        return say(
            "It decides most on “{limit}”, which is OK in {cases}.",
            limit=self.margin.label,
            cases=words.likely(self.margin.holds_share or 0.0),
        )


def least_sure(kit: Kit, checked: Iterable[tuple[Margin, Check]]) -> Unsure | None:
    """The limit that holds at nominal figures in the fewest draws, and what decides it; None where
    all are sure enough, or nothing that decides them can be measured.

    What wears is left to its years: nobody measures a life.
    """
    unsure = [
        (margin, check)
        for margin, check in checked
        if margin.spare >= 0
        and margin.holds_share is not None
        and margin.holds_share < _SURE_SHARE
        and check.consequence.kind in ("fails", "slows")
    ]
    for margin, check in sorted(unsure, key=lambda pair: pair[0].holds_share or 0.0):
        spare = check.spares(kit.samples)[check.states.ids.index(margin.state)]
        for along in going_along(kit, spare):
            if along.share >= _DECIDES_SHARE and not is_out_of_reach(along.label):
                return Unsure(margin, along.label, along.part.id)
    return None
