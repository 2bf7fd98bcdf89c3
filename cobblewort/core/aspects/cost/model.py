"""What a kit costs: bought parts at their price, owned ones at nothing.

For several copies the owned pieces serve the first one; the others are bought whole. What is
borrowed serves them all.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.judging.prices import prices_of
from cobblewort.core.plans.plan import NOT_OF_IT, Line, Prices


@dataclass(slots=True, frozen=True)
class LineCost:
    """One line: what it adds to the bill for all copies, and what it is worth in one of them.

    None where no price is known.
    """

    line: str
    to_pay: Decimal | None
    value: Decimal | None


@dataclass(slots=True)
class CostResult:
    """The bill in the plan's currency: `total` for all copies, `further` for each one more."""

    lines: list[LineCost]
    total: Decimal
    further: Decimal
    owned_value: Decimal
    unknown: list[Line]
    other_currency: list[Line]


def build_cost(items: Items, copies: int, prices: Prices) -> CostResult:
    """Add up the kit. Borrowed things are not bought; prices without a rate are named."""
    result = CostResult([], Decimal(0), Decimal(0), Decimal(0), [], [])
    for line, part in items.by_line():
        borrowed = line.role in NOT_OF_IT
        price = prices.of(part)
        if price is None:
            foreign = part.price is not None
            free = borrowed or (line.owned and copies == 1)
            result.lines.append(LineCost(line.id, Decimal(0) if free else None, None))
            if not free:
                (result.other_currency if foreign else result.unknown).append(line)
            continue
        value = price * line.quantity
        bought = 0 if borrowed else copies - line.owned
        result.lines.append(LineCost(line.id, value * bought, value))
        result.total += value * bought
        result.further += Decimal(0) if borrowed else value
        if line.owned:
            result.owned_value += value
    return result


@derived("items", "spares", "copies", prices_of)
def of(items: Items, spares: Items, copies: int, prices: Prices) -> CostResult:
    """The bill, with what is spare."""
    return build_cost(Items((*items, *spares)), copies, prices)
