"""Cooler, case and what holds the stack together."""

from __future__ import annotations

from decimal import Decimal

from cobblewort.core.aspects.fit.model import fasteners_of
from cobblewort.core.changing.first.draft import SAMPLES, Draft, Shop
from cobblewort.core.changing.first.repairs import stopping, tight
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.patch import Patch
from cobblewort.core.standards import enclosures
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation
from cobblewort.core.verdict.report import ASPECTS

BEFORE_CASE = tuple(a.family for a in ASPECTS if a.in_first_kit.before_case)
"""What cooler and case cannot mend; what they can is left to them."""
_BY_CASE = tuple(a.family for a in ASPECTS if a.in_first_kit.decided_by_case)


def add_shell(shop: Shop, draft: Draft, now: Evaluation) -> Evaluation:
    """Cooler and case together, from the cheapest pair, until they leave no snag."""
    pairs: list[tuple[Decimal, Part | None, Part]] = []
    for case in shop.on_offer("case"):
        if case.case is None or not case_will_do(shop, case):
            continue
        pairs.append((shop.price(case), None, case))
        pairs += [
            (shop.price(case) + shop.price(cooler), cooler, case)
            for cooler in shop.on_offer("cooling")
            if cooler.cooler is not None
            and not (cooler.cooler.r_fan_k_w is not None and "silent" in shop.conditions)
        ]
    pairs.sort(key=lambda pair: (pair[0], pair[2].id, pair[1].id if pair[1] else ""))
    unmended = sum(f.severity == "problem" and f.family in BEFORE_CASE for f in now.findings)
    best: tuple[tuple[int, int], Draft, Evaluation] = ((stopping(now) + 1, 0), draft, now)
    for _, cooler, case in pairs:
        patch: Patch = (shop.line_of("case", case),)
        if cooler is not None:
            patch = (shop.line_of("cooling", cooler), *patch)
        checked = shop.judge(draft, patch)
        if _shell_rank(checked) < best[0]:
            sure = evaluation_of(checked.kit.plan, shop.catalogue, SAMPLES)
            rank = _shell_rank(sure)
            if rank[0] == 0 and rank[1] > 0:
                shop.passed_over.setdefault(draft.plan.line("board").part, checked.kit.plan)
            if rank >= best[0]:
                continue
            tried = Draft(checked.kit.plan, dict(draft.reasons))
            for line in tried.plan.lines:
                if line.role == "case":
                    tried.reasons[line.id] = shop.why(
                        line.part, "Lowest-priced case that fits and stays cool"
                    )
                elif line.role == "cooling":
                    tried.reasons[line.id] = shop.why(
                        line.part, "Keeps the processor cool in this case"
                    )
            best = (rank, tried, checked)
        if best[0] <= (unmended, 0):
            break
    draft.plan, draft.reasons = best[1].plan, best[1].reasons
    return best[2]


def add_fasteners(shop: Shop, draft: Draft, now: Evaluation) -> Evaluation:
    """The cheapest bag in which every length is that the stack wants, where it wants any."""
    if not fasteners_of(now.kit):
        return now
    for part in shop.on_offer("fastener"):
        checked = shop.judge(draft, (shop.line_of("fastener", part),))
        if part.fasteners and all(f.length_mm is not None for f in fasteners_of(checked.kit)):
            shop.add(draft, "fastener", part, "Standoffs and screws for the boards")
            return checked
    return now


def case_will_do(shop: Shop, case: Part) -> bool:
    """Whether a case stands the place and the hands that reach it."""
    own, place = case.case, shop.plan.place
    if own is None or (place.wet and own.ip_water < enclosures.SPLASHING):
        return False
    if place.dust == "much" and own.ip_solid < enclosures.DUST_PROTECTED:
        return False
    return not (own.open and ("children" in shop.conditions or place.within_reach_of == "children"))


def _shell_rank(checked: Evaluation) -> tuple[int, int]:
    """What stops a kit, and what is tight of that which cooler and case decide."""
    return stopping(checked), sum(f.family in _BY_CASE for f in tight(checked))
