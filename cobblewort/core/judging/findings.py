"""Findings: what a rule has to say about a kit."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from cobblewort.core.judging.margin import Family, Severity


@dataclass(slots=True, eq=False)
class Finding:
    """What a rule found; `margin` names the margin it comes from.

    `id` is stable while the cause is the same, so that it can be asked about later. `say` is the
    sentence or gives it: one that takes a sum of its own is made when somebody reads it.
    """

    id: str
    rule: str
    family: Family
    severity: Severity
    say: str | Callable[[], str]
    lines: tuple[str, ...]
    sockets: tuple[str, ...]
    source: str
    margin: str | None
    has_fixes: bool

    @property
    def sentence(self) -> str:
        """One plain sentence with the figures in it."""
        if not isinstance(self.say, str):
            self.say = self.say()
        return self.say


@dataclass(slots=True, frozen=True)
class Remark:
    """What a rule says where there is no limit to measure against."""

    subject: str
    severity: Severity
    sentence: str
    lines: tuple[str, ...] = ()
    sockets: tuple[str, ...] = ()
