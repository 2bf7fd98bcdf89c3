"""The working of the bill."""

from __future__ import annotations

import numpy as np

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES
from cobblewort.core.judging.working import Explained, Sum, Term, computed_term


def explained(kit: Kit, figure: str) -> Explained | None:
    """`cost:total`; None for any other figure."""
    if figure != "cost:total":
        return None
    inputs: list[Term] = []
    cost, currency = cost_of(kit), kit.plan.currency
    names = {line.id: part.model for line, part in kit.items.by_line()}
    for line in cost.lines:
        if line.to_pay:
            symbol = f"c_{len(inputs) + 1}"
            inputs.append(
                computed_term(symbol, names[line.line], currency, float(line.to_pay), None)
            )
    formula = Sum(
        "sum of all parts that are neither owned nor borrowed",
        " + ".join(term.symbol for term in inputs) or "0",
        inputs,
    )
    total = np.full(kit.samples, float(cost.total))
    return Explained("Total cost", formula, total, currency, "", RULES["COST-01"].source)
