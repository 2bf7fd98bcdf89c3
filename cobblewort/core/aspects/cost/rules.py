"""Rules of cost: the budget, and what is not known of it."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.aspects.cost.model import CostResult
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.cost.upgrades import better_buys_of
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import cheaper, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, INFORMS, UNKNOWN
from cobblewort.core.judging.working import Sum, computed_term, plan_term
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import ReadyMade
from cobblewort.core.text import Figure, Text, say


@rule(
    "COST-01",
    "cost",
    "The kit stays within its budget",
    why="Small parts such as cables and cards add up.",
    formula="sum of price x quantity x copies over parts that are neither owned nor borrowed <= "
    "budget",
    source="common practice",
    reads=(cost_of, "budget", "copies", "currency"),
    remedies=(cheaper,),
)
def budget(cost: CostResult, budget: Decimal | None, copies: int, currency: str) -> Iterator[Check]:
    """What is still to be bought against the budget; silent without one."""
    if budget is None:
        return

    def sentence(margin: Margin) -> Text:
        return say(
            "{what} {cost}; the budget is {budget}.",
            what="The kit costs" if copies == 1 else f"{copies} copies of the kit cost",
            cost=words.money(margin.value, currency),
            budget=words.money(margin.limit, currency),
        )

    def working(state: int) -> Sum:
        del state
        inputs = [
            plan_term("B", "budget", currency, limit),
            computed_term("C", "cost of the parts to buy", currency, total, "cost:total"),
        ]
        return Sum("budget less the cost", "B - C", inputs)

    total, limit = float(cost.total), float(budget)
    lines = tuple(c.line for c in cost.lines if c.to_pay)
    yield Check(
        "budget",
        "Cost against budget",
        currency,
        "max",
        total,
        limit,
        sentence,
        lines,
        consequence=BOTHERS,
        working=working,
    )


@rule(
    "COST-02",
    "cost",
    "Every price is known",
    why="A missing price makes the total too low.",
    formula="each bought line has a price in the plan's currency, or in one with a rate",
    source="common practice",
    reads=(cost_of, "catalogue", "currency"),
    remedies=(remove_named,),
)
def prices_known(cost: CostResult, catalogue: Catalogue, currency: str) -> Iterator[Observation]:
    """Lines that the sum leaves out, and why."""
    for lines, why in (
        (cost.unknown, "It has no price"),
        (cost.other_currency, f"Its price is not in {currency} and the plan has no rate"),
    ):
        for line in lines:
            name = catalogue.of_line(line).model
            yield Observation(
                line.id,
                UNKNOWN,
                say(
                    "Not checked: the price of {part}. {why}. The total leaves it out.",
                    part=name,
                    why=why,
                ),
                (line.id,),
            )


@rule(
    "COST-03",
    "cost",
    "No better offer is known",
    why="A ready-made device can cost less than the kit, and a larger drive or a newer board "
    "hardly more.",
    formula="price of the ready-made device / cost of the kit for one copy, with owned parts at "
    "their value; a larger drive of the same kind for less, worse in no stated value; a board of "
    "the same kind, over 2.1 times as fast (parity, one core) for at most 1.35 of its price",
    source="common practice",
    reads=(cost_of, better_buys_of, "ready_made", "currency"),
)
def compared(
    cost: CostResult, better_buys: list[Observation], bought: ReadyMade | None, currency: str
) -> Iterator[Observation]:
    """How often the kit's price goes into that of a ready-made; storage with a cheaper and larger
    one beside it, boards with a much faster one for little more.
    """
    if bought is not None and bought.price and cost.further and not cost.unknown:
        price, own = words.money(bought.price, currency), cost.further
        name = bought.name or "A ready-made device"
        times = float(bought.price / own)
        if times >= 1:
            told = say(
                "{name} costs {price}, {times} times as much as this kit.",
                name=name,
                price=price,
                times=Figure(times, "", 1),
            )
        else:
            told = say(
                "{name} costs {price}, this kit {own}. Consider buying it instead.",
                name=name,
                price=price,
                own=words.money(own, currency),
            )
        yield Observation("ready-made", INFORMS, told)
    yield from better_buys
