"""Rules of cost: the budget, and what is not known of it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.judging.findings import Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import cheaper, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import Sum, computed_term, plan_term
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.plan import Line, Plan


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
    formula="each bought line has a price in the plan's currency, or in one with a rate",
    source="common practice",
    reads=(cost_of, "catalogue", "currency"),
    remedies=(remove_named,),
)  # fmt: skip
def prices_known(kit: Kit) -> Iterator[Remark]:
    """Lines that the sum leaves out, and why."""
    cost = cost_of(kit)
    for lines, why in (
        (cost.unknown, "no price is known"),
        (cost.other_currency, f"its price is not in {kit.plan.currency} and no rate is given"),
    ):
        for line in lines:
            name = kit.catalogue.of_line(line).model
            yield Remark(
                line.id, "note", f"Not known: what {name} costs, as {why}; the sum leaves it out.",
                (line.id,),
            )  # fmt: skip


@rule(
    "COST-03", "cost", "It is held against what can be bought",
    why="If you really need one, buy one: sometimes the ready-made is the better bargain, and "
    "sometimes a larger store costs less than the small one, and a newer board hardly more.",
    formula="price of the ready-made / sum of the kit for one copy, with what is owned at its "
    "value; a larger store of the same shape for less, worse in nothing that is stated; a board of "
    "the same make-up, over 2.1 times as fast (parity, one core) for at most 1.35 of its price",
    source="common practice",
    reads=(
        cost_of, "ready_made", "catalogue", "currency", "rates", "pieces", "place.ambient_min_c",
        "place.power",
    ),
)  # fmt: skip
def compared(kit: Kit) -> Iterator[Remark]:
    """How often the kit's price goes into that of a ready-made; storage with a cheaper and larger
    one beside it, boards with a much faster one for little more.
    """
    bought, cost = kit.plan.ready_made, cost_of(kit)
    if bought is not None and bought.price and cost.further and not cost.unknown:
        price, own = words.money(bought.price, kit.plan.currency), cost.further
        name = bought.name or "A ready-made one"
        times = float(bought.price / own)
        if times >= 1:
            told = f"{name} costs {price}, {times:.1f} times this kit."
        else:
            own_price = words.money(own, kit.plan.currency)
            told = f"{name} costs {price}, this kit {own_price}: it may be the better buy."
        yield Remark("ready-made", "note", told)
    chosen = [(line, part) for line, part in kit.connected.by_line() if not line.owned]
    yield from _faster_boards(kit, [entry for entry in chosen if entry[1].kind == "board"])
    stores = [(line, part) for line, part in chosen if part.storage is not None]
    offered = kit.catalogue.parts(("drive", "card")) if stores else []
    for line, part in stores:
        better = _larger_for_less(kit.plan, part, offered)
        if better is not None and better.storage is not None:
            price = words.money(kit.plan.price_of(better) or 0, kit.plan.currency)
            yield Remark(
                line.id, "note",
                f"{better.model} holds {better.storage.capacity_gb:g} GB for {price}, more than "
                f"{part.model} and for less.",
                (line.id,),
            )  # fmt: skip


_MUCH_FASTER, _LITTLE_MORE = 2.1, Decimal("1.35")
"""A board is the better buy where it is more than twice as fast for about a third more: a guess."""


def _faster_boards(kit: Kit, boards: Sequence[tuple[Line, Part]]) -> Iterator[Remark]:
    """Boards beside which one of the same make-up stands that is much faster for little more; where
    watts are short nobody wants that.
    """
    plan, place = kit.plan, kit.plan.place
    if place.power not in ("mains", "network"):
        return
    for line, part in boards:
        own = plan.price_of(part)
        if own is None or part.parity_mb_s is None:
            continue
        found = [
            (other.parity_mb_s.nominal / part.parity_mb_s.nominal, price, other)
            for other in kit.catalogue.parts(("board",))
            if other.parity_mb_s is not None and (price := plan.price_of(other)) is not None
            and other.origin != "class" and own < price <= own * _LITTLE_MORE
            and _stands_alike(other, part)
            and (other.ambient_min_c is None or other.ambient_min_c <= place.ambient_min_c)
        ]  # fmt: skip
        times, price, better = max(found, key=lambda entry: entry[0], default=(0.0, own, part))
        if times > _MUCH_FASTER:
            more = words.money(price - own, plan.currency)
            yield Remark(
                line.id, "note",
                f"{better.model} costs {more} more than {part.model} and is {times:.1f} times as "
                "fast.",
                (line.id,),
            )  # fmt: skip


def _stands_alike(other: Part, than: Part) -> bool:
    """Whether a board stands where another does and gives all that it gives."""
    one, two = other.stack, than.stack
    if one is None or two is None or one.holes != two.holes:
        return False
    return than.offers.keys() <= other.offers.keys()


def _larger_for_less(plan: Plan, part: Part, offered: Sequence[Part]) -> Part | None:
    """The largest drive of a drive's shape, or card, that holds more, costs less and is worse in
    nothing that is stated.
    """
    own, coldest_c = plan.price_of(part), plan.place.ambient_min_c
    if part.storage is None or own is None:
        return None
    room_gb = part.storage.capacity_gb
    found = [
        (other.storage.capacity_gb, other) for other in offered
        if other.storage is not None and other.storage.capacity_gb > room_gb
        and other.kind == part.kind and other.origin != "class"
        and (price := plan.price_of(other)) is not None and price < own
        and _as_good(other, part)
        and (other.ambient_min_c is None or other.ambient_min_c <= coldest_c)
    ]  # fmt: skip
    return max(found, key=lambda entry: entry[0])[1] if found else None


def _as_good(other: Part, than: Part) -> bool:
    """Whether a store goes where another does and is neither slower nor sooner worn; of a card that
    does not say how long it lasts, nobody knows.
    """
    one, two = other.drive, than.drive
    if two is not None:
        shape = (two.size, two.protocol, two.spins)
        if one is None or (one.size, one.protocol, one.spins) != shape:
            return False
        figures = [
            (one.read_mb_s, two.read_mb_s), (one.write_mb_s, two.write_mb_s),
            (one.endurance_tb, two.endurance_tb),
        ]  # fmt: skip
    elif other.storage is None or than.storage is None or than.storage.endurance_tb is None:
        return False
    else:
        figures = [
            (other.storage.endurance_tb, than.storage.endurance_tb),
            (other.storage.write_mb_s, than.storage.write_mb_s),
        ]
    return all(
        mine is not None and mine.nominal >= its.nominal for mine, its in figures if its is not None
    )
