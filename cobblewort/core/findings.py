"""Findings: what a rule has to say about a kit."""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.margin import Family, Severity


@dataclass(slots=True, frozen=True)
class Finding:
    """One plain sentence with the figures in it. `margin` names the margin it comes from.

    `id` is stable while the cause is the same, so that it can be asked about later.
    """

    id: str
    rule: str
    family: Family
    severity: Severity
    sentence: str
    lines: tuple[str, ...]
    sockets: tuple[str, ...]
    source: str
    margin: str | None
    has_fixes: bool


@dataclass(slots=True, frozen=True)
class Remark:
    """What a rule says where there is no limit to measure against."""

    subject: str
    severity: Severity
    sentence: str
    lines: tuple[str, ...] = ()
    sockets: tuple[str, ...] = ()
