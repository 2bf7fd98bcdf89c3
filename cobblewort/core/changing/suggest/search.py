"""All complete kits of a catalogue that none beats, found in order of their price.

Kits are put together level by level (`choices`), and of all that are begun the one whose whole
costs least is gone on with. So the first kit that is confirmed is the cheapest there is, and at any
time everything below a price is known. What is begun is given up when nothing sound can come of it,
or nothing that is better in any criterion than a kit that is confirmed:

- Parts only load: a rule that no part of the roles still open eases (`Rule.eased_by`) says of what
  is begun what it will say of the whole, or worse.
- What a rule says of the fit and warmth of boards, what stands on them, case and cooler holds for
  every kit that has these alike, whatever card and power supply it has. It is learnt once.
- Price and mean power of what is begun are the least, its tightest margin the best that can come.

The judge is `evaluation_of` alone, with as many draws as on the page.

References
----------
.. [1] A. H. Land, A. G. Doig, "An automatic method of solving discrete programming problems",
   Econometrica 28 (1960), 497 to 520: branch and bound.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal
from heapq import heappop, heappush

from cobblewort.core import words
from cobblewort.core.aspects.cost.aspect import ASPECT as COST
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.data.route import held_of
from cobblewort.core.aspects.fit.aspect import ASPECT as FIT
from cobblewort.core.aspects.fit.model import fasteners_of
from cobblewort.core.aspects.fit.remedies import is_video
from cobblewort.core.aspects.heat.aspect import ASPECT as HEAT
from cobblewort.core.aspects.power.aspect import ASPECT as POWER
from cobblewort.core.changing.suggest.choices import Choices, Chosen, Option, parts_of
from cobblewort.core.changing.suggest.criteria import (
    CRITERIA,
    USUAL,
    CriterionId,
    added_dba,
    case_litres,
    dominates,
    noise_of_kit,
    part_dba,
    tight_in,
    tightest,
)
from cobblewort.core.changing.suggest.shop import Shop
from cobblewort.core.changing.suggest.surety import steps_drawn
from cobblewort.core.errors import InputError
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES, Outcome, Rule
from cobblewort.core.judging.severity import SEVERITY_RANK, Severity
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import AddLine, apply_patch
from cobblewort.core.plans.plan import NOT_OF_IT, Plan, Role
from cobblewort.core.text import Text
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation

SAMPLES = 256
"""Draws that a kit has to hold in before it is confirmed: those of the page."""
_SHELL: frozenset[Role] = frozenset({"cooling", "case", "fastener"})
_AFTER_SUPPLY: frozenset[Role] = _SHELL | {"boot_drive"}
_AFTER_HUB: frozenset[Role] = _AFTER_SUPPLY | {"power_supply"}
"""What is still open before the power supply; cables that come then only feed the board."""
_AFTER_DATA: frozenset[Role] = _AFTER_HUB | {"add_on", "cable"}
_NOTHING: frozenset[Role] = frozenset()
_INSIDE: frozenset[Role] = frozenset({"board", "add_on", "storage", "cooling", "case"})
"""Roles whose parts decide by themselves what fits and stays cool."""
_CHOSEN_ONCE: tuple[Role, ...] = (
    "board",
    "power_supply",
    "boot_drive",
    "storage",
    "cable",
    "cooling",
    "case",
)
"""Roles that hold one kind of part in a kit."""
_MOST_KEPT = 100
"""So many kits that wait for their turn keep what was worked out of them."""
_MOST_TRIED = 400
"""So many kits that others beat are kept to be shown."""
_NEVER = 10**12
"""Worse than any kit in any criterion."""
_PAUSE = 8
"""How many kits are judged between two signs of life."""
_MOST_PASSED = 500
"""The same of kits that are begun without being judged."""


@dataclass(slots=True, frozen=True)
class Wishes:
    """What is asked of the kits.

    `pinned` names the only part for a role, `left_out` parts that are not used and `without_makers`
    whose parts are not, `owned` those that cost nothing. `at_most` is the most that may be spent.
    """

    criteria: tuple[CriterionId, ...] = USUAL
    owned: frozenset[str] = frozenset()
    pinned: Mapping[Role, str] = field(default_factory=dict)
    left_out: frozenset[str] = frozenset()
    without_makers: frozenset[str] = frozenset()
    tight: bool = False
    without_case: bool = False
    owned_only: bool = False
    at_most: Decimal | None = None


@dataclass(slots=True, frozen=True)
class Suggested:
    """A kit that no other beats: its plan, its figure in each criterion, and what is tight. `drawn`
    are its steps in every draw, shape (criteria, samples).
    """

    plan: Plan
    parts: tuple[str, ...]
    values: dict[CriterionId, float]
    steps: tuple[int, ...]
    tight: tuple[Text, ...]
    drawn: FloatArray = field(compare=False, repr=False)


@dataclass(slots=True, frozen=True)
class Tried:
    """A whole kit that nothing stopped at nominal figures: what is bought for it, and its place."""

    parts: tuple[tuple[str, int], ...]
    values: dict[CriterionId, float]
    steps: tuple[int, ...]


@dataclass(slots=True, frozen=True)
class Suggestion:
    """What is known so far.

    `kits` are beaten by none that is known, the cheapest first. Below `proven_to` everything is
    known; it is None when nothing is open any more. `begun` and `whole` count what was judged in
    part and as a whole, `stopped_by` counts what stopped kits by the id of the rule. `lacking` are
    roles that every kit needs and for which nothing is on offer, `unpriced` counts parts that are
    left out as their price is not known. `tried` are whole kits on the way, the first of them.
    """

    kits: tuple[Suggested, ...]
    proven_to: Decimal | None
    begun: int
    whole: int
    stopped_by: dict[str, int]
    lacking: tuple[Role, ...] = ()
    unpriced: int = 0
    tried: tuple[Tried, ...] = ()

    @property
    def proven(self) -> bool:
        """Whether no further kit can come."""
        return self.proven_to is None

    @property
    def judged(self) -> int:
        """How many kits were judged, in part or as a whole."""
        return self.begun + self.whole


@dataclass(slots=True)
class _Node:
    """A kit that is begun: its options so far, and the price that its completion comes to at least.

    `shell` counts the cases and coolers that were tried with it, `noise_dba` is what is heard
    without them. `steps` are the best that its criteria can come to, `like` is what is known of it,
    or of what it came from where it is `untried`. `ready` is a whole kit that waits for its turn,
    as it cost more than was known before.
    """

    chosen: Chosen
    untried: bool = False
    shell: int = 0
    steps: tuple[int, ...] = ()
    noise_dba: float = 0.0
    like: Evaluation | None = None
    ready: Plan | None = None


def suggest(plan: Plan, catalogue: Catalogue, wishes: Wishes) -> Iterator[Suggestion]:
    """Search; what is known so far comes whenever it changes, and now and then.

    Parameters
    ----------
    plan : Plan
        Needs, image, place, duty and copies. Of its lines only what is borrowed or there already
        is kept.
    catalogue : Catalogue
        Where parts are taken from; parts of class figures alone and those without a price are not.
    wishes : Wishes
        What else is asked.

    Yields
    ------
    Suggestion
        The last one is proven. The same ones for the same input.

    Raises
    ------
    InputError
        If a wish cannot be taken as it stands.
    """
    return _Search(plan, catalogue, wishes).run()


def bought(plan: Plan) -> tuple[tuple[str, int], ...]:
    """What belongs to a kit, line by line: part and quantity."""
    return tuple((line.part, line.quantity) for line in plan.lines if line.role not in NOT_OF_IT)


def stops(finding: Finding, wishes: Wishes) -> bool:
    """Whether a kit with it is not wanted: a problem, and what is tight unless that is allowed; not
    its price.
    """
    least: Severity = "problem" if wishes.tight else "tight"
    worse = SEVERITY_RANK[finding.severity] >= SEVERITY_RANK[least]
    return worse and finding.family != COST.family


def _nothing() -> None:
    """Nothing is done between kits."""


def cheapest(
    plan: Plan,
    catalogue: Catalogue,
    wishes: Wishes,
    most_judged: int | None = None,
    between: Callable[[], None] = _nothing,
) -> Suggestion:
    """The search up to its first kit, or to its end where there is none; or, where that is limited,
    until so many kits were judged. `between` is as in `searched_until`.
    """

    def enough(known: Suggestion) -> bool:
        late = most_judged is not None and known.judged >= most_judged
        return late or bool(known.kits)

    return searched_until(plan, catalogue, replace(wishes, criteria=("price",)), enough, between)


def searched_until(
    plan: Plan,
    catalogue: Catalogue,
    wishes: Wishes,
    enough: Callable[[Suggestion], bool],
    between: Callable[[], None] = _nothing,
) -> Suggestion:
    """The search as far as it has to go, or to its end. `between` is called every few kits; what it
    raises ends the search.
    """
    last = None
    for last in suggest(plan, catalogue, wishes):
        between()
        if enough(last):
            return last
    if last is None:
        raise AssertionError("a search ends with what it knows")
    return last


class _Search:
    def __init__(self, plan: Plan, catalogue: Catalogue, wishes: Wishes) -> None:
        _check(catalogue, wishes)
        kept = tuple(line for line in plan.lines if line.role in NOT_OF_IT)
        self.base = plan.model_copy(update={"lines": kept})
        self.catalogue, self.wishes = catalogue, wishes
        self.criteria = [CRITERIA[name] for name in wishes.criteria]
        self.choices = Choices(
            Shop(self.base, catalogue, wishes.owned),
            wishes.left_out | set(_of_makers(catalogue, wishes.without_makers)),
            dict(wishes.pinned),
            wishes.without_case,
            wishes.owned_only,
        )
        cases = (part for shell in self.choices.shells for _, part, _ in shell.parts)
        litres = (own for part in cases if (own := case_litres(part)) is not None)
        smallest = 0.0 if wishes.without_case else min(litres, default=0.0)
        self.best = tuple(
            one.bound(smallest if one.id == "litres" else one.best) for one in self.criteria
        )
        self.heap: list[tuple[Decimal, tuple[tuple[str, ...], ...], int, _Node]] = []
        self.kits: list[Suggested] = []
        self.tried: list[Tried] = []
        self.rules = sorted(RULES.values(), key=_dearness)
        first = self.choices.hub_level + 1
        self.open_after: dict[int, frozenset[Role]] = {2: _AFTER_DATA}
        self.open_after |= enumerate((_AFTER_HUB, _AFTER_SUPPLY, _SHELL), first)
        self.begun = self.whole = self.pushed = 0
        self.stopped_by: Counter[str] = Counter()
        self._told_of: dict[tuple[str, ...], int] = {}
        self._clashes: set[tuple[tuple[str, ...], str | None, str | None]] = set()
        self._too_hot: set[tuple[tuple[str, ...], str, str]] = set()
        self._tightest: dict[tuple[tuple[str, ...], str, str], float] = {}

    def run(self) -> Iterator[Suggestion]:
        """Go on with what costs least until nothing is open."""
        self._push(_Node((), steps=self.best), self.choices.least_after[0])
        told, passed = 0, 0
        while self.heap:
            price, _, _, node = heappop(self.heap)
            passed += 1
            if self.wishes.at_most is not None and price > self.wishes.at_most:
                break
            if self._beaten(self._surely(node), price):
                continue
            found = len(self.kits)
            if node.ready is not None:
                self._confirm(node.ready, node.chosen)
            else:
                self._go_on(node, price)
            judged = self.begun + self.whole
            if len(self.kits) != found or judged >= told + _PAUSE or passed >= _MOST_PASSED:
                told, passed = judged, 0
                yield self._so_far(price)
        yield self._so_far(None)

    def _so_far(self, price: Decimal | None) -> Suggestion:
        return Suggestion(
            tuple(_front(self.kits)),
            price,
            self.begun,
            self.whole,
            dict(self.stopped_by),
            self.choices.lacking,
            self.choices.unpriced,
            tuple(self.tried),
        )

    def _push(self, node: _Node, price: Decimal) -> None:
        self.pushed += 1
        if len(self.heap) > _MOST_KEPT:
            node.like = None  # worked out anew when its turn comes, so that memory stays bounded
        ids = tuple(option.ids for option in node.chosen)
        heappush(self.heap, (price, ids, self.pushed, node))

    def _beaten(self, steps: tuple[int, ...], price: Decimal) -> bool:
        """Whether a confirmed kit is as good in everything as whatever comes of this."""
        if not self.kits:
            return steps[:1] == (_NEVER,)
        best = list(steps)
        for place, criterion in enumerate(self.criteria):
            if criterion.id == "price":
                best[place] = max(best[place], criterion.bound(float(price)))
        return any(dominates(kit.steps, best) for kit in self.kits)

    def _go_on(self, node: _Node, price: Decimal) -> None:
        """Ask the rules of what is begun, unless they were asked, and add to it."""
        level = len(node.chosen)
        if node.untried:
            tried = self._bounded(node, self.open_after[level])
            if tried is None or self._beaten(tried.steps, price):
                return
            node = tried
        if level <= self.choices.boot_level:
            self._branch(node, price)
        else:
            self._furnish(node, price)

    def _surely(self, node: _Node) -> tuple[int, ...]:
        """The best that a kit can come to, by what the draws of others told that have these parts:
        it holds whatever case and cooler they have.
        """
        known = (self._told_of.get(_all(node.chosen[:level]), 0) for level in self.open_after)
        told = max(known)
        if told >= _NEVER:
            return (_NEVER,) * len(node.steps)
        return tuple(
            max(step, told) if one.id == "tight" else step
            for one, step in zip(self.criteria, node.steps, strict=True)
        )

    def _learn_from_draws(self, found: Evaluation, chosen: Chosen) -> None:
        """Keep what rules tell by their draws of a part of a kit alone, where they told it of the
        whole: of what is added later something may have been the reason.
        """
        told = [*self._stopping(found), *tight_in(found.findings)]
        rules = {finding.rule: RULES[finding.rule] for finding in told}
        for level, still_open in self.open_after.items():
            key = _all(chosen[:level])
            asked = [rule for rule in rules.values() if rule.may_cut(still_open)]
            if not asked or key in self._told_of:
                continue
            kit = Kit(self._plan(chosen[:level]), self.catalogue, SAMPLES)
            alone = [finding for rule in asked for finding in rule.judge(kit).findings]
            stops = any(map(self._stops, alone))
            self._told_of[key] = _NEVER if stops else len(list(tight_in(alone)))

    def _branch(self, node: _Node, price: Decimal) -> None:
        """Every option of the next level; each is asked about when its turn comes."""
        level, least = len(node.chosen), self.choices.least_after
        spent = price - least[level]
        for option in self.choices.at_level(level, node.chosen):
            untried = level + 1 in self.open_after
            after = _Node((*node.chosen, option), untried, steps=node.steps, like=node.like)
            self._push(after, spent + option.price + least[level + 1])

    def _tried(self, node: _Node, still_open: frozenset[Role]) -> _Node | None:
        """What is begun as the rules see it that nothing open eases; None where one stops it."""
        self.begun += 1
        known = {} if node.like is None else node.like.outcomes
        like = None if node.like is None else node.like.kit
        try:
            kit = Kit(self._plan(node.chosen), self.catalogue, 1, like)
        except InputError:
            return None  # larger than any kit that is judged
        outcomes: dict[str, Outcome] = {}
        for rule in self.rules:
            if not rule.may_cut(still_open) and not _cuts_cool(rule, still_open, kit):
                continue
            outcome = known.get(rule.id)
            if outcome is None or not kit.still(rule.inputs.reads):
                outcome = rule.judge(kit)
            if any(map(self._stops, outcome.findings)):
                self.stopped_by[rule.id] += 1
                return None
            outcomes[rule.id] = outcome
        kit.settle()
        return replace(node, untried=False, like=Evaluation(kit, outcomes, [], [], []))

    def _bounded(self, node: _Node, still_open: frozenset[Role]) -> _Node | None:
        """The same, with the best that it can come to: what is tight stays so, and with its power
        supply it draws the least that it will.
        """
        after = self._tried(node, still_open)
        if after is None or after.like is None:
            return None
        found, fed = after.like, still_open in (_AFTER_SUPPLY, _SHELL)
        steps = tuple(
            best if one.begun is None or (one.fed and not fed) else one.bound(one.begun(found))
            for one, best in zip(self.criteria, self.best, strict=True)
        )
        return replace(after, steps=steps, noise_dba=noise_of_kit(found) if fed else 0.0)

    def _furnish(self, node: _Node, price: Decimal) -> None:
        """The next case with its cooler; the one after it waits for its turn."""
        shells, shell = self.choices.shells, node.shell
        spent = price - shells[shell].price if shells else price
        while shell < len(shells) and self._passed_over(node, shells[shell], spent):
            shell += 1
        if shell >= len(shells):
            return
        if shells[shell].price > shells[node.shell].price:
            self._push(replace(node, shell=shell), spent + shells[shell].price)
            return
        found = self._furnished(node, shells[shell])
        stopping = self._stopping(found)
        if not stopping:
            values = {one.id: one.of(found) for one in self.criteria}
            steps = tuple(one.bound(values[one.id]) for one in self.criteria)
            if len(self.tried) < _MOST_TRIED:
                worth = tuple(one.worth(values[one.id]) for one in self.criteria)
                self.tried.append(Tried(bought(found.kit.plan), values, worth))
            ready = _Node((*node.chosen, shells[shell]), steps=steps, ready=found.kit.plan)
            self._push(ready, cost_of(found.kit).total)
        self.stopped_by.update({finding.rule for finding in stopping})
        self._learn(found, stopping, shells[shell], node.chosen)
        if not held_of(found.kit) and any(_eased_by_speed(RULES[f.rule]) for f in stopping):
            return  # nothing is slowed here by heat, so that no other case or cooler eases it
        if shell + 1 < len(shells):
            further = spent + shells[shell + 1].price
            self._push(replace(node, shell=shell + 1, like=found), further)

    def _passed_over(self, node: _Node, shell: Option, spent: Decimal) -> bool:
        """Whether a case with its cooler is known not to do for this, or to better nothing."""
        if self._clash(node.chosen, shell):
            return True
        if not self.kits:
            return False
        known = min(
            self._tightest.get((inside, *_of_shell(shell)), 1.0)
            for inside in self._less(node.chosen)
        )
        levels_dba = [node.noise_dba, *(part_dba(part) for _, part, _ in shell.parts)]
        litres = [one for _, part, _ in shell.parts if (one := case_litres(part)) is not None]
        bounds = {
            "noise": CRITERIA["noise"].bound(added_dba(levels_dba)),
            "margin": CRITERIA["margin"].bound(known),
            "litres": CRITERIA["litres"].bound(max(litres, default=0.0)),
        }
        steps = tuple(
            max(own, bounds.get(criterion.id, own))
            for own, criterion in zip(node.steps, self.criteria, strict=True)
        )
        return self._beaten(steps, spent + shell.price)

    def _furnished(self, node: _Node, shell: Option) -> Evaluation:
        """A whole kit at nominal figures, with the cheapest set in which every standoff and screw
        is, and the cheapest video cable.
        """
        self.whole += 1
        plan = self._plan((*node.chosen, shell))
        found = evaluation_of(plan, self.catalogue, 1, node.like)
        if any(finding.rule == "FIT-28" for finding in self._stopping(found)):
            for part in self.choices.of("cable"):
                if any(is_video(c) for plug in part.plugs.values() for c in plug.connectors):
                    tried = self._with(found, "cable", part)
                    if not any(finding.rule == "FIT-28" for finding in self._stopping(tried)):
                        found = tried
                        break
        if fasteners_of(found.kit):
            for part in self.choices.of("fastener"):
                tried = self._with(found, "fastener", part)
                wanted = fasteners_of(tried.kit)
                if part.fasteners and all(one.length_mm is not None for one in wanted):
                    return tried
        return found

    def _with(self, found: Evaluation, role: Role, part: Part) -> Evaluation:
        line = AddLine(role=role, part=part.id, owned=part.id in self.wishes.owned)
        plan = apply_patch(found.kit.plan, (line,))
        return evaluation_of(plan, self.catalogue, 1, found)

    def _confirm(self, plan: Plan, chosen: Chosen) -> None:
        """A whole kit whose turn it is, judged as on the page."""
        self.whole += 1
        found = evaluation_of(plan, self.catalogue, SAMPLES)
        stopping = self._stopping(found)
        self._learn_from_draws(found, chosen)
        if stopping:
            self.stopped_by.update({finding.rule for finding in stopping})
            return
        values = {criterion.id: criterion.of(found) for criterion in self.criteria}
        steps = tuple(criterion.worth(values[criterion.id]) for criterion in self.criteria)
        if any(dominates(kit.steps, steps) for kit in self.kits):
            return
        tight = tuple(finding.sentence for finding in tight_in(found.findings))
        parts = tuple(line.part for line in plan.lines)
        drawn = steps_drawn(found, self.wishes.criteria)
        self.kits.append(Suggested(plan, parts, values, steps, tight, drawn))

    def _stopping(self, found: Evaluation) -> list[Finding]:
        """What must not be: a problem, and what is tight unless that is allowed; not its price."""
        return [finding for finding in found.findings if self._stops(finding)]

    def _stops(self, finding: Finding) -> bool:
        return stops(finding, self.wishes)

    def _plan(self, chosen: Chosen) -> Plan:
        return apply_patch(self.base, self.choices.changes(chosen))

    def _learn(
        self, found: Evaluation, stopping: Iterable[Finding], shell: Option, chosen: Chosen
    ) -> None:
        """Keep which case does not go with these parts, or only not with this cooler; and how tight
        they fit and how warm they are in it.
        """
        inside = [m for m in found.margins if m.family in (FIT.family, HEAT.family)]
        key = (_inside(chosen), *_of_shell(shell))
        self._tightest[key] = max(tightest(inside), self._tightest.get(key, -1.0))
        roles = {line.id: line.role for line in found.kit.plan.lines}
        case, cooler = _of_shell(shell)
        for finding in stopping:
            named = {roles[line] for line in finding.lines}
            of_shell = finding.family == HEAT.family or named & {"cooling", "case"}
            if finding.family not in (FIT.family, HEAT.family) or not of_shell:
                continue
            # What is said of the fit of a case alone holds with every cooler, and the other way.
            of_case = finding.family == FIT.family and "cooling" not in named
            of_cooler = finding.family == FIT.family and "case" not in named
            if finding.family == HEAT.family and named <= _INSIDE:
                self._too_hot.add(key)
            scope = _inside(chosen) if named <= _INSIDE else _all(chosen)
            place = None if of_cooler else case, None if of_case else cooler
            self._clashes.add((scope, *place))

    def _less(self, chosen: Chosen) -> tuple[tuple[str, ...], ...]:
        """What is inside, without the hub, and with board and media alone: what is too hot or tight
        so is no better with more.
        """
        hub = self.choices.hub_level
        without_hub = (*chosen[:hub], *chosen[hub + 1 :])
        return _inside(chosen), _inside(without_hub), _inside(chosen[:2])

    def _clash(self, chosen: Chosen, shell: Option) -> bool:
        """Whether a case, alone or with its cooler, is known not to go with these parts."""
        case, cooler = _of_shell(shell)
        if any((inside, case, cooler) in self._too_hot for inside in self._less(chosen)):
            return True
        return any(
            (scope, *place) in self._clashes
            for scope in (_inside(chosen), _all(chosen))
            for place in ((case, None), (None, cooler), (case, cooler))
        )


_IN_ORDER = (FIT.family, POWER.family)
"""Aspects that ask no others: their rules are the cheapest to ask."""


def _dearness(rule: Rule) -> tuple[int, str]:
    """What is worked out for fewest others comes first."""
    order = _IN_ORDER.index(rule.family) if rule.family in _IN_ORDER else len(_IN_ORDER)
    return order, rule.id


def _cuts_cool(rule: Rule, still_open: frozenset[Role], kit: Kit) -> bool:
    """Whether a rule that case and cooler ease by the speed alone finds nothing slowed by heat."""
    return still_open == _SHELL and _eased_by_speed(rule) and not held_of(kit)


def _eased_by_speed(rule: Rule) -> bool:
    """Whether case and cooler ease what a rule says by the speed alone that heat leaves."""
    return rule.may_cut(_NOTHING) and not rule.may_cut(_SHELL)


def _of_shell(shell: Option) -> tuple[str, str]:
    """The case and the cooler of an option; empty where there is none."""
    ids = {role: part.id for role, part, _ in shell.parts}
    return ids.get("case", ""), ids.get("cooling", "")


def _inside(chosen: Chosen) -> tuple[str, ...]:
    """What decides with case and cooler whether a kit fits and stays cool."""
    inside = [f"{part.id}x{number}" for role, part, number in parts_of(chosen) if role in _INSIDE]
    return (*sorted(inside), *(option.layout for option in chosen if option.layout))


def _all(chosen: Chosen) -> tuple[str, ...]:
    """Everything that is chosen."""
    return tuple(one for option in chosen for one in (*option.ids, option.layout or ""))


def _front(kits: Sequence[Suggested]) -> Iterator[Suggested]:
    """Kits that none of the others beats, the earlier of two that are alike."""
    for place, kit in enumerate(kits):
        if not any(
            dominates(other.steps, kit.steps) and (other.steps != kit.steps or before < place)
            for before, other in enumerate(kits)
            if before != place
        ):
            yield kit


def _of_makers(catalogue: Catalogue, makers: frozenset[str]) -> Iterator[str]:
    """The ids of all parts of some makers."""
    if makers:
        yield from (part.id for part in catalogue.parts() if part.maker in makers)


def _check(catalogue: Catalogue, wishes: Wishes) -> None:
    """Raises InputError for wishes that cannot be taken as they stand."""
    problems = []
    if not wishes.criteria:
        problems.append(("criteria", "Choose at least one criterion."))
    if len(set(wishes.criteria)) < len(wishes.criteria):
        problems.append(("criteria", "Name each criterion once."))
    for role, part_id in wishes.pinned.items():
        if role not in _CHOSEN_ONCE:
            told = f"Only one of these roles can be fixed: {words.listed(_CHOSEN_ONCE)}."
            problems.append((f"pinned.{role}", told))
        elif (part := catalogue.find(part_id)) is None:
            told = f"There is no part '{part_id}'. Choose another part, or leave the role open."
            problems.append((f"pinned.{role}", told))
        elif part_id in wishes.left_out or part.maker in wishes.without_makers:
            problems.append((f"pinned.{role}", f"'{part_id}' is both required and left out."))
    if wishes.at_most is not None and wishes.at_most <= 0:
        problems.append(("at_most", "must be above 0; leave it out for no limit"))
    if problems:
        raise InputError(problems)
