"""A complete first kit: the cheapest that meets the needs of a plan and is sound.

Boards are tried from the cheapest; for each the kit is grown in building order, and every choice is
judged in the plan. It is a greedy search: it finds a sound kit quickly, and does not prove that no
cheaper one exists. Where none is sound it gives the one with the fewest snags.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from decimal import Decimal

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.purpose.model import of as requirements_of
from cobblewort.core.changing.first.addons import add_functions, add_room
from cobblewort.core.changing.first.case_and_cooling import (
    BEFORE_CASE,
    add_fasteners,
    add_shell,
)
from cobblewort.core.changing.first.draft import SAMPLES, Draft, Shop
from cobblewort.core.changing.first.power_supply import add_supply
from cobblewort.core.changing.first.repairs import eased, lacking_of, repaired, tight
from cobblewort.core.judging.kit import Kit
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.text import Text, say
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation
from cobblewort.core.verdict.report import ASPECTS

_MUCH_CHEAPER = Decimal("5"), Decimal("0.05")
"""A tight kit is a choice where it saves at least so much, and this share of the price."""
_LIVED_WITH = frozenset(a.family for a in ASPECTS if a.in_first_kit.tight_is_a_choice)
"""What somebody may choose to live with to save money."""
_REPAIRED: tuple[str, ...] = tuple(aspect.family for aspect in ASPECTS if aspect.id != "cost")
"""Every choice was the cheapest that would do; trying each cheaper part again finds nothing."""


@dataclass(slots=True, frozen=True)
class Reason:
    """Why a line was taken."""

    line: str
    text: Text


@dataclass(slots=True, frozen=True)
class Choice:
    """A kit that costs less and is tight: what it saves, and what that means."""

    plan: Plan
    less: Decimal
    sentences: list[Text]


@dataclass(slots=True)
class FirstKit:
    """A plan with a kit in it, why each part was taken, and what is still wrong with it.

    `failing` names what stops it, with its figures, and `tight` what is tight; both are empty for a
    sound kit. `only_dear` says that nothing stops it but perhaps its price. `lacking` tells how far
    it is from its needs. `cheaper` is a tight kit that costs much less.
    """

    plan: Plan
    reasons: list[Reason]
    failing: list[Text]
    total: Decimal
    only_dear: bool = False
    lacking: int = 0
    tight: list[Text] = field(default_factory=list)
    cheaper: Choice | None = None

    @property
    def settled(self) -> bool:
        """Whether only a cheaper kit would be better."""
        return self.only_dear and not self.tight


def first_kit(plan: Plan, catalogue: Catalogue, owned: Iterable[str] = ()) -> FirstKit:
    """Fill an empty plan that states its needs.

    Parameters
    ----------
    plan : Plan
        Needs, image, place, duty, budget and copies; lines that it has already are kept.
    catalogue : Catalogue
        Where parts are taken from; parts of class figures alone are not.
    owned : iterable of str
        Parts that are there already; they cost nothing and are preferred.

    Returns
    -------
    FirstKit
        The same for the same input.
    """
    shop = Shop(plan, catalogue, frozenset(owned))
    best: FirstKit | None = None
    for board in shop.boards():
        if best is not None and best.settled and shop.price(board) >= best.total:
            continue
        found = grown(shop, board, best.total if best is not None and best.settled else None)
        if found is not None and (best is None or _rank(found) < _rank(best)):
            best = found
    if best is None:
        return FirstKit(plan, [], [say("The catalogue has no board.")], Decimal(0))
    best.cheaper = much_cheaper(shop, best)
    return best


def _rank(kit: FirstKit) -> tuple[int, int, bool, int, Decimal]:
    """What stops it, needs that it lacks, whether it is too dear, what is tight, and its price: a
    kit that runs and is too dear comes before one that does not run.
    """
    broken = 0 if kit.only_dear else len(kit.failing)
    dear = kit.only_dear and bool(kit.failing)
    return broken, kit.lacking, dear, len(kit.tight), kit.total


def grown(shop: Shop, board: Part, at_most: Decimal | None) -> FirstKit | None:
    """A kit on this board; None where it would cost more than the one there is already."""
    draft = Draft(shop.plan)
    shop.add(draft, "board", board, shop.why_board(board))
    add_functions(shop, draft)
    add_room(shop, draft)
    if at_most is not None and shop.at_least(shop.judge(draft), "power_supply", "case") >= at_most:
        return None
    checked = add_supply(shop, draft)
    if at_most is not None and shop.at_least(checked, "case") >= at_most:
        return None
    checked = repaired(shop, draft, checked, BEFORE_CASE)
    checked = add_shell(shop, draft, checked)
    checked = repaired(shop, draft, checked, _REPAIRED)
    checked = add_fasteners(shop, draft, checked)
    checked = eased(shop, draft, evaluation_of(draft.plan, shop.catalogue, SAMPLES))
    broken = [
        f
        for f in checked.findings
        if f.severity == "problem" or (f.severity == "tight" and f.family == "cost")
    ]
    only_dear = all(finding.family == "cost" for finding in broken)
    failing = [finding.sentence for finding in broken]
    lines = {line.id for line in draft.plan.lines}
    reasons = [Reason(line, text) for line, text in draft.reasons.items() if line in lines]
    lacking = sum(lacking_of(result) for result in requirements_of(checked.kit))
    return FirstKit(
        draft.plan,
        reasons,
        failing,
        cost_of(checked.kit).total,
        only_dear,
        lacking,
        [finding.sentence for finding in tight(checked)],
    )


def much_cheaper(shop: Shop, best: FirstKit) -> Choice | None:
    """The cheapest kit that was passed over for being tight, where it saves enough, or where it
    keeps to a budget that the sound one does not.
    """
    if not best.settled:
        return None
    least, share = _MUCH_CHEAPER
    budget = shop.plan.budget if best.failing else None
    found: tuple[Decimal, Evaluation] | None = None
    for plan in shop.passed_over.values():
        total = cost_of(Kit(plan, shop.catalogue, 1)).total
        keeps = budget is not None and total <= budget
        if not keeps and best.total - total < max(least, share * best.total):
            continue
        if found is not None and found[0] <= total:
            continue
        checked = evaluation_of(plan, shop.catalogue, SAMPLES)
        told = {finding.family for finding in tight(checked)}
        lacking = any(map(lacking_of, requirements_of(checked.kit)))
        if told and told <= _LIVED_WITH and not lacking and not checked.count("problem"):
            found = total, checked
    if found is None:
        return None
    total, checked = found
    sentences = [finding.sentence for finding in tight(checked)]
    return Choice(checked.kit.plan, best.total - total, sentences)
