"""The cheapest supply, with its lead, that leaves the fewest snags."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.needs.model import of as needs_of
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.changing.first.mending import lacking_of
from cobblewort.core.changing.first.shop import SAMPLES, Draft, Shop
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import joining_leads
from cobblewort.core.judging.rules import Rule
from cobblewort.core.parts.model import Feed, Part
from cobblewort.core.plans.patch import Patch, apply_patch
from cobblewort.core.plans.plan import FEEDS_AT, Need
from cobblewort.core.verdict.judgement import Judgement, judge_kit

_SURELY_DRAWN = 0.9
"""A kit draws this much of what it drew from another supply at least: leads lose a few percent."""


def add_supply(shop: Shop, draft: Draft) -> Judgement:
    """The cheapest supply, with its lead where it has none, that leaves the fewest snags."""
    sources, drawn_w = _feeds(shop), 0.0
    best: tuple[tuple[bool, int, int, Decimal], Judgement] | None = None
    for supply in shop.on_offer("supply"):
        if supply.source is None or supply.source.feeds_on not in sources or supply.inside:
            continue
        if supply.source.rated_a.nominal * supply.source.set_v.nominal < drawn_w:
            continue  # too small by far: what a kit draws hardly depends on its supply
        for patch in _with_leads(shop, draft, supply):
            plan = apply_patch(draft.plan, patch)
            judged = judge_kit(Kit(plan, shop.catalogue, 1), _of_supply)
            drawn_w = _SURELY_DRAWN * _drawn_w(judged)
            rank = _rank(shop, judged)
            if best is None or rank < best[0]:
                sure = judge_kit(Kit(plan, shop.catalogue, SAMPLES), _of_supply)
                rank = _rank(shop, sure)
                if best is None or rank < best[0]:
                    best = (rank, judged)
        if best is not None and best[0][:3] == (False, 0, 0):
            break
    if best is None:
        return shop.judge(draft)
    draft.plan = best[1].kit.plan
    judged = judge_kit(best[1].kit)
    for line in draft.plan.lines:
        if line.role == "supply":
            draft.reasons[line.id] = shop.why(
                line.part, "the cheapest that holds in every phase of the day"
            )
        elif line.role == "lead":
            why = shop.why(line.part, "joins the supply to the board")
            draft.reasons.setdefault(line.id, why)
    return judged


def _feeds(shop: Shop) -> tuple[Feed, ...]:
    """What a supply may take its power from."""
    if any(need.function == "vehicle_power" for need in shop.wanted):
        return ("vehicle",)
    has = shop.plan.place.power
    return FEEDS_AT[has] if any(_of_battery(need) for need in shop.plan.needs) else (has,)


def _rank(shop: Shop, judged: Judgement) -> tuple[bool, int, int, Decimal]:
    """Whether something stays dark, what stops it, what is tight, and what it costs."""
    stops = judged.count("stops")
    stops += sum(lacking_of(r) for r in needs_of(judged.kit) if _of_battery(r.need))
    unfed = not power_of(judged.kit).feeds_every_board()
    return unfed, stops, judged.count("tight"), cost_of(judged.kit).total


def _with_leads(shop: Shop, draft: Draft, supply: Part) -> Iterator[Patch]:
    """A supply alone, or with each lead that joins it."""
    alone: Patch = (shop.line_of("supply", supply),)
    if supply.plugs:
        yield alone
        return
    kit = Kit(apply_patch(draft.plan, alone), shop.catalogue, 1)
    for lead in joining_leads(kit):
        yield (*alone, shop.line_of("lead", lead))


def _of_supply(rule: Rule) -> bool:
    """Whether a rule is about feeding the kit: its limits, and the lead that joins it."""
    return rule.family == "supply" or rule.id in ("FIT-02", "FIT-09")


def _drawn_w(judged: Judgement) -> float:
    """What the supply has to give in the heaviest state that must hold; 0 where it feeds no board.

    In watts, at nominal figures.
    """
    power = power_of(judged.kit)
    if not power.feeds_every_board():
        return 0.0
    watts = power.limit_voltage_v[:, :, 0] * power.limit_current_a[:, :, 0]
    roots = [
        place
        for place, node in enumerate(power.nodes)
        if node.parent < 0 and node.piece.line.role == "supply"
    ]
    return max((float(watts[place, power.limits.hard].max()) for place in roots), default=0.0)


def _of_battery(need: Need) -> bool:
    """Whether a need is about what a supply holds or takes in."""
    return need.condition == "off_mains" or need.function in ("battery", "solar")
