"""What is heard of a kit, piece by piece, for the drawing of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Margin


@dataclass(slots=True, frozen=True)
class HeardPart:
    """A piece that turns, and what is heard of it at 1 m; None where nobody says. [dB(A)]"""

    line: str
    name: str
    level_dba: float | None


@dataclass(slots=True, frozen=True)
class NoiseReport:
    """What is heard of the kit at 1 m at its loudest, piece by piece and together. [dB(A)]

    `limit_dba` is what its place allows, None where nobody minds.
    """

    heard: list[HeardPart]
    level_dba: float
    limit_dba: float | None


def noise_report(kit: Kit, _: Sequence[Margin]) -> NoiseReport:
    """What is heard, the loudest first; what is not known last."""
    noise = noise_of(kit)
    known = [HeardPart(p.line.id, p.name, float(level[0])) for p, level in noise.heard]
    known.sort(key=lambda part: -(part.level_dba or 0.0))
    unknown = [HeardPart(p.line.id, p.name, None) for p in noise.unknown]
    return NoiseReport([*known, *unknown], float(noise.level_dba[0]), kit.plan.place.noise_max_dba)
