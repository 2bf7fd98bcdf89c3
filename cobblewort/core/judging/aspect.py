"""What an aspect is to all that loops over them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from cobblewort.core.judging.kit import Kit, Read
from cobblewort.core.judging.margin import Margin
from cobblewort.core.judging.working import Explained


@dataclass(slots=True, frozen=True, kw_only=True)
class Aspect:
    """One thing that a kit is judged by.

    `id` names its part of the report, `label` is how people call it, `prefix` begins the ids of its
    rules. `ruler` is the ruler on which
    its rules count, named like the aspect that it belongs to; without one they are told as snags
    only. `missing` is what a kit lacks where its rules have nothing to look at, empty where they
    always have. `report` lays out what its drawing shows, from the kit and the margins on its
    ruler, and reads no more than `reads`. `explained` gives the working of a figure of its own,
    None for all others.
    """

    id: str
    label: str
    prefix: str
    ruler: str | None = None
    missing: str = ""
    reads: tuple[Read, ...] = ()
    report: Callable[[Kit, Sequence[Margin]], Any] | None = None
    explained: Callable[[Kit, str], Explained | None] | None = None

    @property
    def family(self) -> str:
        """What its rules say that they belong to."""
        return self.ruler or self.id
