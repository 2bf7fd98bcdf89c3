"""What is heard of a kit, piece by piece, for the drawing of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cobblewort.core.aspects.noise.model import NoiseResult
from cobblewort.core.judging.margin import Margin
from cobblewort.core.standards.rooms import ROOMS_DBA


@dataclass(slots=True, frozen=True)
class HeardPart:
    """A piece that turns, and what is heard of it at 1 m; None where nobody says. [dB(A)]"""

    line: str
    name: str
    level_dba: float | None


@dataclass(slots=True, frozen=True)
class RoomLevel:
    """How loud a room is that people know. [dB(A)]"""

    name: str
    level_dba: float


@dataclass(slots=True, frozen=True)
class NoiseReport:
    """What is heard of the kit at 1 m at its loudest, piece by piece and together. [dB(A)]

    `limit_dba` is what its place allows, None where nobody minds; `rooms` are levels that people
    know.
    """

    heard: list[HeardPart]
    level_dba: float
    limit_dba: float | None
    rooms: list[RoomLevel]


def noise_report(noise: NoiseResult, most: float | None, _: Sequence[Margin]) -> NoiseReport:
    """What is heard, the loudest first; what is not known last."""
    known = [HeardPart(p.line.id, p.name, float(level[0])) for p, level in noise.heard]
    known.sort(key=lambda part: -(part.level_dba or 0.0))
    unknown = [HeardPart(p.line.id, p.name, None) for p in noise.unknown]
    rooms = [RoomLevel(name, level_dba) for name, level_dba in ROOMS_DBA]
    level_dba = float(noise.level_dba[0])
    return NoiseReport([*known, *unknown], level_dba, most, rooms)
