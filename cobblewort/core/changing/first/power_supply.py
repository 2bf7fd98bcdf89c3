"""The cheapest supply, with its lead, that leaves the fewest snags."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.aspects.purpose.model import of as requirements_of
from cobblewort.core.changing.first.draft import SAMPLES, Draft, Shop
from cobblewort.core.changing.first.repairs import lacking_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import joining_cables
from cobblewort.core.judging.rules import Rule
from cobblewort.core.parts.model import Feed, Part
from cobblewort.core.plans.patch import Patch, apply_patch
from cobblewort.core.plans.plan import FEEDS_AT, Requirement
from cobblewort.core.verdict.evaluation import Evaluation, judge_kit

_SURELY_DRAWN = 0.9
"""A kit draws this much of what it drew from another supply at least: leads lose a few percent."""


def add_supply(shop: Shop, draft: Draft) -> Evaluation:
    """The cheapest supply, with its lead where it has none, that leaves the fewest snags."""
    sources, drawn_w = feeds_of(shop), 0.0
    best: tuple[tuple[bool, int, int, Decimal], Evaluation] | None = None
    for supply in shop.on_offer("power_supply"):
        if supply.source is None or supply.source.power_source not in sources or supply.inside:
            continue
        if supply.source.rated_a.nominal * supply.source.set_v.nominal < drawn_w:
            continue  # too small by far: what a kit draws hardly depends on its supply
        for patch in _with_cables(shop, draft, supply):
            plan = apply_patch(draft.plan, patch)
            checked = judge_kit(Kit(plan, shop.catalogue, 1), _of_supply)
            drawn_w = _SURELY_DRAWN * _drawn_w(checked)
            rank = _rank(shop, checked)
            if best is None or rank < best[0]:
                sure = judge_kit(Kit(plan, shop.catalogue, SAMPLES), _of_supply)
                rank = _rank(shop, sure)
                if best is None or rank < best[0]:
                    best = (rank, checked)
        if best is not None and best[0][:3] == (False, 0, 0):
            break
    if best is None:
        return shop.judge(draft)
    draft.plan = best[1].kit.plan
    checked = judge_kit(best[1].kit)
    for line in draft.plan.lines:
        if line.role == "power_supply":
            draft.reasons[line.id] = shop.why(
                line.part, "Lowest-priced power supply within its limits all day"
            )
        elif line.role == "cable":
            why = shop.why(line.part, "Connects the power supply to the board")
            draft.reasons.setdefault(line.id, why)
    return checked


def feeds_of(shop: Shop) -> tuple[Feed, ...]:
    """What a supply may take its power from."""
    if any(requirement.function == "vehicle_power" for requirement in shop.wanted):
        return ("vehicle",)
    has = shop.plan.place.power
    return (
        FEEDS_AT[has]
        if any(_of_battery(requirement) for requirement in shop.plan.requirements)
        else (has,)
    )


def _rank(shop: Shop, checked: Evaluation) -> tuple[bool, int, int, Decimal]:
    """Whether something stays dark, what stops it, what is tight, and what it costs."""
    stops = checked.count("problem")
    stops += sum(lacking_of(r) for r in requirements_of(checked.kit) if _of_battery(r.requirement))
    unfed = not power_of(checked.kit).feeds_every_board()
    return unfed, stops, checked.count("tight"), cost_of(checked.kit).total


def _with_cables(shop: Shop, draft: Draft, supply: Part) -> Iterator[Patch]:
    """A supply alone, or with each lead that joins it."""
    alone: Patch = (shop.line_of("power_supply", supply),)
    if supply.plugs:
        yield alone
        return
    kit = Kit(apply_patch(draft.plan, alone), shop.catalogue, 1)
    for cable in joining_cables(kit):
        yield (*alone, shop.line_of("cable", cable))


def _of_supply(rule: Rule) -> bool:
    """Whether a rule is about feeding the kit: its limits, and the lead that joins it."""
    return rule.family == "power" or rule.id in ("FIT-02", "FIT-09")


def _drawn_w(checked: Evaluation) -> float:
    """What the supply has to give in the heaviest state that must hold; 0 where it feeds no board.

    In watts, at nominal figures.
    """
    power = power_of(checked.kit)
    if not power.feeds_every_board():
        return 0.0
    watts = power.limit_voltage_v[:, :, 0] * power.limit_current_a[:, :, 0]
    roots = [
        place
        for place, node in enumerate(power.nodes)
        if node.parent < 0 and node.item.line.role == "power_supply"
    ]
    return max((float(watts[place, power.limits.hard].max()) for place in roots), default=0.0)


def _of_battery(requirement: Requirement) -> bool:
    """Whether a need is about what a supply holds or takes in."""
    return requirement.condition == "without_mains" or requirement.function in ("battery", "solar")
