"""The needs of a purpose, for the page that shows them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cobblewort.core.aspects.purpose.model import RequirementResult, RequirementStatus
from cobblewort.core.judging.margin import Margin
from cobblewort.core.text import Text


@dataclass(slots=True, frozen=True)
class RequirementReport:
    """One need of the purpose: how the kit stands to it, by which lines, and what is left to do.

    `have` and `want` are amounts in `unit`. `sentence` is empty for a need that is met.
    """

    id: str
    text: str
    status: RequirementStatus
    sentence: Text
    lines: tuple[str, ...]
    unit: str
    have: float | None
    want: float | None


def requirement_reports(
    results: list[RequirementResult], _: Sequence[Margin]
) -> list[RequirementReport]:
    """The needs of the purpose, in their order."""
    return [
        RequirementReport(
            r.requirement.id,
            r.requirement.text,
            r.status,
            r.sentence,
            tuple(line for line in r.lines if line),
            r.unit,
            r.have,
            r.want,
        )
        for r in results
    ]
