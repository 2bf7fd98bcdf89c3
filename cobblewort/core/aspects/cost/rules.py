"""Rules of cost: the budget, and what is not known of it."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.judging.findings import Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import cheaper, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import Sum, computed_term, plan_term


@rule(
    "COST-01", "cost", "The kit stays within its budget",
    why="The sum is made from memory, without the lead and the card, until the order is placed.",
    formula="sum of price x quantity x copies over what is not owned or borrowed <= budget",
    source="common practice",
    reads=(cost_of, "budget", "copies", "currency"),
    remedies=(cheaper,),
)  # fmt: skip
def budget(kit: Kit) -> Iterator[Check]:
    """What is still to be bought against the budget; silent without one."""
    cost = cost_of(kit)
    if kit.plan.budget is None:
        return
    currency = kit.plan.currency

    def sentence(margin: Margin) -> str:
        copies = kit.plan.copies
        what = "The kit comes" if copies == 1 else f"{copies} copies of the kit come"
        return (
            f"{what} to {words.money(margin.value, currency)}; the budget is "
            f"{words.money(margin.limit, currency)}."
        )

    def working(state: int) -> Sum:
        del state
        inputs = [
            plan_term("B", "budget", currency, limit),
            computed_term("C", "what is to be bought", currency, total, "cost:total"),
        ]
        return Sum("budget less the bill", "B - C", inputs)

    total, limit = float(cost.total), float(kit.plan.budget)
    lines = tuple(c.line for c in cost.lines if c.to_pay)
    yield Check(
        "budget", "Kit against budget", currency, "max", total, limit, sentence, lines,
        working=working,
    )  # fmt: skip


@rule(
    "COST-02", "cost", "Every price is known",
    why="A sum with a gap in it is not a sum.",
    formula="each bought line has a price in the plan's currency",
    source="common practice",
    reads=(cost_of, "catalogue", "currency"),
    remedies=(remove_named,),
)  # fmt: skip
def prices_known(kit: Kit) -> Iterator[Remark]:
    """Lines that the sum leaves out, and why."""
    cost = cost_of(kit)
    for lines, why in (
        (cost.unknown, "no price is known"),
        (cost.other_currency, f"its price is not in {kit.plan.currency}"),
    ):
        for line in lines:
            name = kit.catalogue.of_line(line).model
            yield Remark(
                line.id, "note", f"Not known: what {name} costs, as {why}; the sum leaves it out.",
                (line.id,),
            )  # fmt: skip
