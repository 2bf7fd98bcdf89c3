"""What an aspect is to all that loops over them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from cobblewort.core.judging.kit import Inputs, Kit, Read, inputs_of
from cobblewort.core.judging.margin import Margin
from cobblewort.core.judging.working import Explained


@dataclass(slots=True, frozen=True, kw_only=True)
class Aspect:
    """One thing that a kit is judged by.

    `id` names its part of the report, `label` is how people call it, `prefix` begins the ids of its
    rules. `ruler` is the ruler on which its rules count, named like the aspect that it belongs to;
    without one they are told as snags only. `missing` is what a kit lacks where its rules have
    nothing to look at, empty where they always have. `report` lays out what its drawing shows, from
    the values of `reads` and the margins on its ruler. `explained` gives the working of a figure of
    its own, None for all others.
    """

    id: str
    label: str
    prefix: str
    ruler: str | None = None
    missing: str = ""
    reads: tuple[Read, ...] = ()
    report: Callable[..., Any] | None = None
    explained: Callable[[Kit, str], Explained | None] | None = None
    _inputs: Inputs | None = field(init=False, default=None)

    def __post_init__(self) -> None:
        if self.report is not None:
            object.__setattr__(self, "_inputs", inputs_of(self.reads, self.report, more=1))

    def laid_out(self, kit: Kit, margins: Sequence[Margin]) -> Any:
        """Its part of the report. Raises TypeError for an aspect without one."""
        if self.report is None or self._inputs is None:
            raise TypeError(f"{self.id} has no part of the report")
        return self.report(*self._inputs.of(kit), margins)

    @property
    def family(self) -> str:
        """What its rules say that they belong to."""
        return self.ruler or self.id
