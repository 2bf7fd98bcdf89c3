"""Prices of parts in the currency of a plan."""

from __future__ import annotations

from collections.abc import Mapping
from decimal import Decimal

from cobblewort.core.judging.kit import derived
from cobblewort.core.plans.plan import Prices


@derived("currency", "rates")
def prices_of(currency: str, rates: Mapping[str, Decimal]) -> Prices:
    """What parts cost in the plan's currency."""
    return Prices(currency, rates)
