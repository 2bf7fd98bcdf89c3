"""Findings: what a rule has to say about a kit."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from cobblewort.core.judging.margin import Severity
from cobblewort.core.text import Text


class _Later:
    """Holds what makes a sentence; apart, so that it is no field of a finding."""

    __slots__ = ("make",)

    make: Callable[[], Text]


@dataclass(slots=True)
class Finding(_Later):
    """What a rule found: one plain sentence that carries its figures.

    `id` is stable while the cause is the same, so that it can be asked about later; `margin` names
    the margin it comes from. Some sentences take a solution of their own, and most findings of a
    search are only counted: a sentence is made when it is first read.
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

    def say_later(self, make: Callable[[], Text]) -> None:
        """Let the sentence be made by this, when it is first read."""
        self.make = make
        del self.sentence

    def __getattr__(self, name: str) -> Any:
        """What is not there yet: the sentence, until it has been read once."""
        if name != "sentence":
            raise AttributeError(name)
        self.sentence = self.make()
        return self.sentence


@dataclass(slots=True, frozen=True)
class Observation:
    """What a rule says where there is no limit to measure against."""

    subject: str
    severity: Severity
    sentence: Text
    lines: tuple[str, ...] = ()
    sockets: tuple[str, ...] = ()
