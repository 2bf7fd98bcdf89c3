"""The bill, for the table of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from cobblewort.core.aspects.cost.model import CostResult, LineCost
from cobblewort.core.judging.margin import Margin


@dataclass(slots=True, frozen=True)
class CostReport:
    """What is to be paid for all copies, each further one, and what the owned parts are worth.

    `lines` tells the same of each line, in kit order; `unknown` names those without a price.
    """

    currency: str
    copies: int
    total: Decimal
    further: Decimal
    owned_value: Decimal
    budget: Decimal | None
    unknown: list[str]
    lines: list[LineCost]


def cost_report(
    cost: CostResult, currency: str, copies: int, budget: Decimal | None, _: Sequence[Margin]
) -> CostReport:
    """The bill."""
    unknown = [line.id for line in (*cost.unknown, *cost.other_currency)]
    return CostReport(
        currency,
        copies,
        cost.total,
        cost.further,
        cost.owned_value,
        budget,
        unknown,
        cost.lines,
    )
