"""A complete first kit: the cheapest that meets the needs of a plan and is sound.

Boards are tried from the cheapest; for each the kit is grown in building order, and every choice is
judged in the plan. It is a greedy search: it finds a sound kit quickly, and does not prove that no
cheaper one exists. Where none is sound it gives the one with the fewest snags.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from decimal import Decimal

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.data.arrays import usable_gb
from cobblewort.core.aspects.fit.model import fasteners_of
from cobblewort.core.aspects.needs.model import NeedResult, wanted_memory_gb, wanted_room_gb
from cobblewort.core.aspects.needs.model import of as needs_of
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.errors import InputError
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import joining_leads
from cobblewort.core.judging.rules import Rule
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.parts.model import Feed, Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import AddLine, Patch, apply_patch
from cobblewort.core.plans.plan import FEEDS_AT, KINDS_FOR_ROLE, Need, Plan, Role
from cobblewort.core.standards import enclosures
from cobblewort.core.verdict.evaluate import judgement_of
from cobblewort.core.verdict.judgement import Judgement, judge_kit
from cobblewort.core.verdict.report import ASPECTS

_MOST_REPAIRS = 3
_SAMPLES = 64
"""Draws that a kit has to hold in before it is called sound."""
_MUCH_CHEAPER = Decimal("5"), Decimal("0.05")
"""A tight kit is a choice where it saves at least so much, and this share of the price."""
_LIVED_WITH = frozenset({"supply", "heat", "noise"})
"""What somebody may choose to live with to save money."""
_BEFORE_THE_SHELL: tuple[str, ...] = ("needs", "supply")
"""What cooler and case cannot mend; what they can is left to them."""
_BY_THE_SHELL: tuple[str, ...] = ("needs", "fit", "heat", "noise", "safety")
"""What cooler and case decide."""
_REPAIRED: tuple[str, ...] = tuple(aspect.family for aspect in ASPECTS if aspect.id != "cost")
"""Every choice was the cheapest that would do; trying each cheaper part again finds nothing."""
_SURELY_DRAWN = 0.9
"""A kit draws this much of what it drew from another supply at least: leads lose a few percent."""
_FOUND_LATER: tuple[FunctionId | None, ...] = (
    "storage", "recording", "vehicle_power", "battery", "solar", "memory", "users",
)  # fmt: skip
"""What board, media and supply give, which are no add-ons."""
_MOST_DISKS = 4
_UNTESTED = Decimal(10**6)
"""Stands for a price that is not known, so that such parts come last."""


@dataclass(slots=True)
class Reason:
    """Why a line was taken."""

    line: str
    text: str


@dataclass(slots=True)
class Choice:
    """A kit that costs less and is tight: what it saves, and what that means."""

    plan: Plan
    less: Decimal
    sentences: list[str]


@dataclass(slots=True)
class FirstKit:
    """A plan with a kit in it, why each part was taken, and what is still wrong with it.

    `failing` names what stops it, with its figures, and `tight` what is tight; both are empty for a
    sound kit. `only_dear` says that nothing stops it but perhaps its price. `lacking` tells how far
    it is from its needs. `cheaper` is a tight kit that costs much less.
    """

    plan: Plan
    reasons: list[Reason]
    failing: list[str]
    total: Decimal
    only_dear: bool = False
    lacking: int = 0
    tight: list[str] = field(default_factory=list)
    cheaper: Choice | None = None

    @property
    def settled(self) -> bool:
        """Whether only a cheaper kit would be better."""
        return self.only_dear and not self.tight


@dataclass(slots=True)
class _Draft:
    plan: Plan
    reasons: dict[str, str] = field(default_factory=dict)


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
    search = _Search(plan, catalogue, frozenset(owned))
    best: FirstKit | None = None
    for board in search.boards():
        if best is not None and best.settled and search.price(board) >= best.total:
            continue
        found = search.grown(board, best.total if best is not None and best.settled else None)
        if found is not None and (best is None or _rank(found) < _rank(best)):
            best = found
    if best is None:
        return FirstKit(plan, [], ["There is no board in the cupboard."], Decimal(0))
    best.cheaper = search.much_cheaper(best)
    return best


def _rank(kit: FirstKit) -> tuple[int, int, bool, int, Decimal]:
    """What stops it, needs that it lacks, whether it is too dear, what is tight, and its price: a
    kit that runs and is too dear comes before one that does not run.
    """
    broken = 0 if kit.only_dear else len(kit.failing)
    dear = kit.only_dear and bool(kit.failing)
    return broken, kit.lacking, dear, len(kit.tight), kit.total


class _Search:
    def __init__(self, plan: Plan, catalogue: Catalogue, owned: frozenset[str]) -> None:
        self.plan, self.catalogue, self.owned = plan, catalogue, owned
        self.wanted = [need for need in plan.needs if need.function is not None]
        self._cheapest: dict[Role, Decimal] = {}
        self._tight: dict[str, Plan] = {}
        self.conditions = {need.condition for need in plan.needs if need.condition}

    def price(self, part: Part) -> Decimal:
        """What a part adds to the bill: nothing where it is owned."""
        if part.id in self.owned:
            return Decimal(0)
        return _UNTESTED if part.price is None else part.price

    def on_offer(self, role: Role) -> list[Part]:
        """Parts for a role that stand the place, owned and cheap ones first.

        What costs nothing is nothing that a shop sells: it counts only where it is owned.
        """
        place = self.plan.place
        return sorted(
            (
                part
                for part in self.catalogue.parts(KINDS_FOR_ROLE[role])
                if part.origin != "class"
                and (part.price != 0 or part.id in self.owned)
                and (part.ambient_min_c is None or part.ambient_min_c <= place.ambient_min_c)
                and (part.ambient_max_c is None or part.ambient_max_c >= place.ambient_max_c)
            ),
            key=lambda part: (part.id not in self.owned, self.price(part), part.id),
        )

    def boards(self) -> list[Part]:
        """Boards with memory and network enough; where none has, those that come closest."""
        found = self.on_offer("board") or self.catalogue.parts(("board",))
        image_gb = self.plan.image.memory_gb if self.plan.image else 0
        least_of: dict[FunctionId, float] = {"memory": image_gb, "wired_network": 0}
        for function, least in least_of.items():
            asked = [need.at_least or 0 for need in self.wanted if need.function == function]
            if function == "memory":
                asked = [wanted_memory_gb(need, self.plan) for need in self.wanted]
            wanted = max([*asked, least])
            best = max((_amount(board, function) for board in found), default=0.0)
            found = [board for board in found if _amount(board, function) >= min(wanted, best)]
        return found

    def grown(self, board: Part, at_most: Decimal | None) -> FirstKit | None:
        """A kit on this board; None where it would cost more than the one there is already."""
        draft = _Draft(self.plan)
        self.add(draft, "board", board, "carries it all")
        self.add_functions(draft)
        self.add_room(draft)
        if at_most is not None and self.at_least(self.judge(draft), "supply", "case") >= at_most:
            return None
        judged = self.add_supply(draft)
        if at_most is not None and self.at_least(judged, "case") >= at_most:
            return None
        judged = self.repaired(draft, judged, _BEFORE_THE_SHELL)
        judged = self.add_shell(draft, judged)
        judged = self.repaired(draft, judged, _REPAIRED)
        judged = self.add_fasteners(draft, judged)
        judged = self.eased(draft, judgement_of(draft.plan, self.catalogue, _SAMPLES))
        stopping = [f for f in judged.findings if f.severity == "stops"]
        only_dear = all(finding.family == "cost" for finding in stopping)
        failing = [finding.sentence for finding in stopping]
        lines = {line.id for line in draft.plan.lines}
        reasons = [Reason(line, text) for line, text in draft.reasons.items() if line in lines]
        lacking = sum(_lacking(result) for result in needs_of(judged.kit))
        return FirstKit(
            draft.plan, reasons, failing, cost_of(judged.kit).total, only_dear, lacking,
            [finding.sentence for finding in _tight(judged)],
        )  # fmt: skip

    def much_cheaper(self, best: FirstKit) -> Choice | None:
        """The cheapest kit that was passed over for being tight, where it saves enough, or where it
        keeps to a budget that the sound one does not.
        """
        if not best.settled:
            return None
        least, share = _MUCH_CHEAPER
        budget = self.plan.budget if best.failing else None
        found: tuple[Decimal, Judgement] | None = None
        for plan in self._tight.values():
            total = cost_of(Kit(plan, self.catalogue, 1)).total
            keeps = budget is not None and total <= budget
            if not keeps and best.total - total < max(least, share * best.total):
                continue
            if found is not None and found[0] <= total:
                continue
            judged = judgement_of(plan, self.catalogue, _SAMPLES)
            told = {finding.family for finding in _tight(judged)}
            lacking = any(map(_lacking, needs_of(judged.kit)))
            if told and told <= _LIVED_WITH and not lacking and not judged.count("stops"):
                found = total, judged
        if found is None:
            return None
        total, judged = found
        sentences = [finding.sentence for finding in _tight(judged)]
        return Choice(judged.kit.plan, best.total - total, sentences)

    def at_least(self, judged: Judgement, *roles: Role) -> Decimal:
        """What a kit comes to when the cheapest part of each role is still to be added."""
        least = sum((self.cheapest(role) for role in roles), Decimal(0))
        return cost_of(judged.kit).total + least * self.plan.copies

    def cheapest(self, role: Role) -> Decimal:
        """The least that a part of a role adds to the bill; nothing where there is none."""
        if role not in self._cheapest:
            prices = [self.price(part) for part in self.on_offer(role)]
            self._cheapest[role] = min(prices, default=Decimal(0))
        return self._cheapest[role]

    def add(self, draft: _Draft, role: Role, part: Part, why: str, quantity: int = 1) -> None:
        """Put a part into the draft."""
        line = draft.plan.free_line_id(role)
        draft.plan = apply_patch(draft.plan, (self.line_of(role, part, line, quantity),))
        draft.reasons[line] = self.why(part.id, why)

    def why(self, part_id: str, text: str) -> str:
        """A reason, with being owned as the first one."""
        return f"owned, and {text}" if part_id in self.owned else text

    def line_of(
        self, role: Role, part: Part, line: str | None = None, quantity: int = 1
    ) -> AddLine:
        """The change that adds a part."""
        return AddLine(
            role=role, part=part.id, line=line, quantity=quantity, owned=part.id in self.owned
        )

    def judge(self, draft: _Draft, patch: Patch = ()) -> Judgement:
        """The draft after a change."""
        plan = apply_patch(draft.plan, patch) if patch else draft.plan
        return judgement_of(plan, self.catalogue)

    def add_functions(self, draft: _Draft) -> None:
        """For every function that is still missing the cheapest part that gives it."""
        for need in self.wanted:
            for _ in range(need.count):
                result = next(r for r in needs_of(self.judge(draft).kit) if r.need.id == need.id)
                if result.reason == "inlet" or need.function == "device_port":
                    self.add_splitter(draft)
                    break
                if result.status == "met" or need.function in _FOUND_LATER:
                    break
                giver = next(self.givers(need), None)
                if giver is None:
                    break
                label = FUNCTIONS[need.function or "radio"].label
                self.add(draft, "addon", giver, f"gives {label}: {need.text}")

    def add_splitter(self, draft: _Draft) -> None:
        """What parts data and power, as the supply will take the inlet."""
        for part in self.on_offer("addon"):
            if part.splits_device_port:
                self.add(draft, "addon", part, "keeps the device port and the supply apart")
                return

    def givers(self, need: Need) -> Iterator[Part]:
        """Add-ons that give a function with the amount wanted, drivers in the image first."""
        wanted = need.function
        if wanted is None:
            return
        found = [part for part in self.on_offer("addon") if wanted in part.offers]
        found = [part for part in found if _amount(part, wanted) >= (need.at_least or 0)]
        yield from sorted(found, key=lambda part: part.offers[wanted].driver == "build")

    def add_room(self, draft: _Draft) -> None:
        """A boot medium for the image, and room for the data beside it or on drives."""
        image_gb = self.plan.image.card_gb if self.plan.image else 4
        room_gb = max([wanted_room_gb(need, self.plan) for need in self.wanted], default=0)
        cards = [p for p in self.on_offer("boot") if p.kind == "card" and p.storage is not None]
        both = self.lasting(draft, [c for c in cards if _capacity(c) >= image_gb + room_gb])
        drives = (
            min(self.drives(draft, room_gb), key=lambda d: d[0], default=None) if room_gb else None
        )
        disks = () if drives is None else (self.line_of("data", drives[1]),)
        plain = self.lasting(draft, [c for c in cards if _capacity(c) >= image_gb], disks)
        if both is not None and (
            drives is None or plain is None or self.price(both) <= self.price(plain) + drives[0]
        ):
            why = "holds image and data" if room_gb else "holds the image"
            self.add(draft, "boot", both, why)
            return
        if plain is not None:
            self.add(draft, "boot", plain, "holds the image")
        if drives is not None:
            _, drive, adapter, quantity = drives
            self.add(draft, "addon", adapter, f"joins {drive.model} to the board", quantity)
            self.add(draft, "data", drive, f"holds {room_gb:g} GB of data", quantity)

    def lasting(self, draft: _Draft, cards: Sequence[Part], beside: Patch = ()) -> Part | None:
        """The first card that is not written out too soon, with what stands beside it; the first of
        all where none lasts.
        """
        for card in cards:
            plan = apply_patch(draft.plan, (self.line_of("boot", card), *beside))
            if not judge_kit(Kit(plan, self.catalogue, 1), _of_wear).findings:
                return card
        return next(iter(cards), None)

    def drives(self, draft: _Draft, room_gb: float) -> Iterator[tuple[Decimal, Part, Part, int]]:
        """Drives with what joins them, for the room wanted: cost, drive, adapter, how many."""
        board = self.catalogue.of_line(draft.plan.line("board"))
        hosts = {s.connector for s in board.sockets.values() if s.role == "host"}
        for drive in self.on_offer("data"):
            form = drive.drive
            if form is None or (form.spins and self.conditions & {"silent", "moves"}):
                continue
            quantity = self.disks_for(_capacity(drive), room_gb)
            for adapter in self.on_offer("addon"):
                takes = _takes(adapter, drive)
                joins = any(set(p.connectors) & hosts for p in adapter.plugs.values())
                if adapter.kind != "storage_adapter" or not takes or not joins:
                    continue
                adapters = int(-(-quantity // takes))
                if adapters > 1 and any("flat-16" in p.connectors for p in adapter.plugs.values()):
                    continue  # a board has one such slot
                if quantity > _MOST_DISKS or (takes > 1 and adapters * takes != quantity):
                    continue
                cost = self.price(drive) * quantity + self.price(adapter) * adapters
                yield cost, drive, adapter, quantity

    def disks_for(self, size_gb: float, room_gb: float) -> int:
        """How many disks of one size hold so much, as the plan uses them together."""
        layout = self.plan.storing.layout
        return next(
            (n for n in range(1, _MOST_DISKS + 1) if usable_gb(layout, [size_gb] * n) >= room_gb),
            _MOST_DISKS + 1,
        )

    def add_supply(self, draft: _Draft) -> Judgement:
        """The cheapest supply, with its lead where it has none, that leaves the fewest snags."""
        feeds, drawn_w = self.feeds(), 0.0
        best: tuple[tuple[bool, int, int, Decimal], Judgement] | None = None
        for supply in self.on_offer("supply"):
            if supply.source is None or supply.source.feeds_on not in feeds or supply.inside:
                continue
            if supply.source.rated_a.nominal * supply.source.set_v.nominal < drawn_w:
                continue  # too small by far: what a kit draws hardly depends on its supply
            for patch in self.with_leads(draft, supply):
                plan = apply_patch(draft.plan, patch)
                judged = judge_kit(Kit(plan, self.catalogue, 1), _of_supply)
                drawn_w = _SURELY_DRAWN * _drawn_w(judged)
                rank = self.supply_rank(judged)
                if best is None or rank < best[0]:
                    sure = judge_kit(Kit(plan, self.catalogue, _SAMPLES), _of_supply)
                    rank = self.supply_rank(sure)
                    if best is None or rank < best[0]:
                        best = (rank, judged)
            if best is not None and best[0][:3] == (False, 0, 0):
                break
        if best is None:
            return self.judge(draft)
        draft.plan = best[1].kit.plan
        judged = judge_kit(best[1].kit)
        for line in draft.plan.lines:
            if line.role == "supply":
                draft.reasons[line.id] = self.why(
                    line.part, "the cheapest that holds in every phase of the day"
                )
            elif line.role == "lead":
                why = self.why(line.part, "joins the supply to the board")
                draft.reasons.setdefault(line.id, why)
        return judged

    def feeds(self) -> tuple[Feed, ...]:
        """What a supply may take its power from."""
        if any(need.function == "vehicle_power" for need in self.wanted):
            return ("vehicle",)
        has = self.plan.place.power
        return FEEDS_AT[has] if any(_of_battery(need) for need in self.plan.needs) else (has,)

    def supply_rank(self, judged: Judgement) -> tuple[bool, int, int, Decimal]:
        """Whether something stays dark, what stops it, what is tight, and what it costs."""
        stops = judged.count("stops")
        stops += sum(_lacking(r) for r in needs_of(judged.kit) if _of_battery(r.need))
        unfed = not power_of(judged.kit).feeds_every_board()
        return unfed, stops, judged.count("tight"), cost_of(judged.kit).total

    def with_leads(self, draft: _Draft, supply: Part) -> Iterator[Patch]:
        """A supply alone, or with each lead that joins it."""
        alone: Patch = (self.line_of("supply", supply),)
        if supply.plugs:
            yield alone
            return
        kit = Kit(apply_patch(draft.plan, alone), self.catalogue, 1)
        for lead in joining_leads(kit):
            yield (*alone, self.line_of("lead", lead))

    def add_shell(self, draft: _Draft, now: Judgement) -> Judgement:
        """Cooler and case together, from the cheapest pair, until they leave no snag."""
        pairs: list[tuple[Decimal, Part | None, Part]] = []
        for case in self.on_offer("case"):
            if case.case is None or not self.case_will_do(case):
                continue
            pairs.append((self.price(case), None, case))
            pairs += [
                (self.price(case) + self.price(cooler), cooler, case)
                for cooler in self.on_offer("cooling")
                if cooler.cooler is not None
                and not (cooler.cooler.r_fan_k_w is not None and "silent" in self.conditions)
            ]
        pairs.sort(key=lambda pair: (pair[0], pair[2].id, pair[1].id if pair[1] else ""))
        unmended = sum(f.severity == "stops" and f.family in _BEFORE_THE_SHELL
                       for f in now.findings)  # fmt: skip
        best: tuple[tuple[int, int], _Draft, Judgement] = ((_stops(now) + 1, 0), draft, now)
        for _, cooler, case in pairs:
            patch: Patch = (self.line_of("case", case),)
            if cooler is not None:
                patch = (self.line_of("cooling", cooler), *patch)
            judged = self.judge(draft, patch)
            if _shell_rank(judged) < best[0]:
                sure = judgement_of(judged.kit.plan, self.catalogue, _SAMPLES)
                rank = _shell_rank(sure)
                if rank[0] == 0 and rank[1] > 0:
                    self._tight.setdefault(draft.plan.line("board").part, judged.kit.plan)
                if rank >= best[0]:
                    continue
                tried = _Draft(judged.kit.plan, dict(draft.reasons))
                for line in tried.plan.lines:
                    if line.role == "case":
                        tried.reasons[line.id] = self.why(
                            line.part, "the cheapest that closes and stays cool with it"
                        )
                    elif line.role == "cooling":
                        tried.reasons[line.id] = self.why(line.part, "keeps it cool in that case")
                best = (rank, tried, judged)
            if best[0] <= (unmended, 0):
                break
        draft.plan, draft.reasons = best[1].plan, best[1].reasons
        return best[2]

    def add_fasteners(self, draft: _Draft, now: Judgement) -> Judgement:
        """The cheapest bag in which every length is that the stack wants, where it wants any."""
        if not fasteners_of(now.kit):
            return now
        for part in self.on_offer("fastener"):
            judged = self.judge(draft, (self.line_of("fastener", part),))
            if part.fasteners and all(f.length_mm is not None for f in fasteners_of(judged.kit)):
                self.add(draft, "fastener", part, "standoffs and screws for the stack")
                return judged
        return now

    def case_will_do(self, case: Part) -> bool:
        """Whether a case stands the place and the hands that reach it."""
        own, place = case.case, self.plan.place
        if own is None or (place.wet and own.ip_water < enclosures.SPLASHING):
            return False
        if place.dust == "much" and own.ip_solid < enclosures.DUST_PROTECTED:
            return False
        return not (own.open and ("children" in self.conditions or place.touched_by == "children"))

    def repaired(self, draft: _Draft, judged: Judgement, families: tuple[str, ...]) -> Judgement:
        """Take the best ways out of what stops it, while they lead to fewer snags."""
        for _ in range(_MOST_REPAIRS):
            stopping = (f for f in judged.findings if f.severity == "stops" and f.has_fixes)
            snag = next((f for f in stopping if f.family in families), None)
            after = None if snag is None else self.without(draft, snag, 1)
            if snag is None or after is None or after.count("stops") >= judged.count("stops"):
                return judged
            judged = self.taken(draft, after, snag)
        return judged

    def eased(self, draft: _Draft, judged: Judgement) -> Judgement:
        """Take ways out of what is tight too, once nothing stops it; judged with its draws."""
        for snag in _tight(judged)[:_MOST_REPAIRS]:
            if judged.count("stops") or not snag.has_fixes or judged.finding(snag.id) is None:
                continue
            after = self.without(draft, snag, _SAMPLES)
            if after is None or after.count("stops") or len(_tight(after)) >= len(_tight(judged)):
                continue
            self._tight.setdefault(draft.plan.line("board").part, draft.plan)
            judged = self.taken(draft, after, snag)
        return judged

    def without(self, draft: _Draft, snag: Finding, samples: int) -> Judgement | None:
        """The draft after the best way out of a snag that keeps what was chosen for a need."""
        try:
            fixes = propose_fixes(draft.plan, self.catalogue, snag.id, samples, chains=False)
        except InputError:
            return None
        fix = next((f for f in fixes if not _removes(draft.plan, f.patch)), None)
        if fix is None:
            return None
        return judgement_of(apply_patch(draft.plan, fix.patch), self.catalogue, samples)

    def taken(self, draft: _Draft, after: Judgement, snag: Finding) -> Judgement:
        """Go on from a way out of a snag, and say what it settles."""
        before = {line.id: line.part for line in draft.plan.lines}
        draft.plan = after.kit.plan
        for line in draft.plan.lines:
            if before.get(line.id) != line.part:
                draft.reasons[line.id] = f"settles: {snag.sentence}"
        return after


def _tight(judged: Judgement) -> list[Finding]:
    """What is tight in a kit apart from its cost."""
    return [f for f in judged.findings if f.severity == "tight" and f.family != "cost"]


def _shell_rank(judged: Judgement) -> tuple[int, int]:
    """What stops a kit, and what is tight of that which cooler and case decide."""
    return _stops(judged), sum(f.family in _BY_THE_SHELL for f in _tight(judged))


def _stops(judged: Judgement) -> int:
    """What stops a kit apart from its cost, which no further part makes less."""
    return sum(f.severity == "stops" and f.family != "cost" for f in judged.findings)


def _of_supply(rule: Rule) -> bool:
    """Whether a rule is about feeding the kit: its limits, and the lead that joins it."""
    return rule.family == "supply" or rule.id in ("FIT-02", "FIT-09")


def _of_wear(rule: Rule) -> bool:
    """Whether a rule is about what is written to a medium."""
    return rule.id == "LIFE-01"


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


def _lacking(result: NeedResult) -> int:
    """How far a kit is from a need: 1 for too little, 2 for nothing of it."""
    return {"too_little": 1, "missing": 2}.get(result.reason, 0)


def _removes(plan: Plan, patch: Patch) -> bool:
    """Whether a way out takes something away that was chosen for a need, asks for another place, or
    for a setting, which is its owner's choice.
    """
    roles = {line.id: line.role for line in plan.lines}
    return any(
        (c.op == "remove" and roles.get(c.line) != "lead")
        or (c.op == "set" and c.fields.keys() & {"place", "settings", "storing"})
        for c in patch
    )


def _amount(part: Part, function: FunctionId) -> float:
    offer = part.offers.get(function)
    return 0.0 if offer is None or offer.amount is None else offer.amount


def _capacity(part: Part) -> float:
    return 0.0 if part.storage is None else part.storage.capacity_gb


def _takes(adapter: Part, drive: Part) -> int:
    """How many of a drive a storage adapter takes."""
    connectors = {c for plug in drive.plugs.values() for c in plug.connectors}
    form = drive.drive
    if form is None:
        return 0
    return sum(
        socket.role == "host"
        and socket.connector in connectors
        and (not socket.lengths or form.size in socket.lengths)
        and (not socket.protocols or form.protocol in socket.protocols)
        for socket in adapter.sockets.values()
    )
