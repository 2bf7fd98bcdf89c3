"""Findings: what a rule has to say about a kit."""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.judging.severity import Consequence, Severity, of_what_is_seen
from cobblewort.core.text import Text


@dataclass(slots=True, frozen=True)
class Finding:
    """What a rule found: one plain sentence that carries its figures.

    `id` is stable while the cause is the same, so that it can be asked about later; `margin` names
    the margin it comes from. It is `unknown` where a figure is missing that somebody can look up or
    measure.
    """

    id: str
    rule: str
    family: str
    severity: Severity
    sentence: Text
    lines: tuple[str, ...]
    sockets: tuple[str, ...]
    source: str
    margin: str | None
    has_fixes: bool
    unknown: bool


@dataclass(slots=True, frozen=True)
class Observation:
    """What a rule says where there is no limit to measure against, and what comes of it.

    `holds_share` is the share of draws in which it is not there, None where it is there at nominal
    figures; `planned` is False where only everything at once brings it about.
    """

    subject: str
    consequence: Consequence
    sentence: Text
    lines: tuple[str, ...] = ()
    sockets: tuple[str, ...] = ()
    holds_share: float | None = None
    planned: bool = True

    @property
    def severity(self) -> Severity:
        """How much it matters."""
        return of_what_is_seen(self.consequence, self.holds_share, self.planned)
