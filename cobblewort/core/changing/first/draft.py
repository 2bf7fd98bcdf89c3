"""What a first kit is put together from: the catalogue as seen from one place, and a draft."""

from __future__ import annotations

from dataclasses import dataclass, field
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.purpose.model import wanted_memory_gb
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import AddLine, Patch, apply_patch
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan, Role
from cobblewort.core.text import Text, as_text, joined, say
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation

SAMPLES = 64
"""Draws that a kit has to hold in before it is called sound."""
_UNTESTED = Decimal(10**6)
"""Stands for a price that is not known, so that such parts come last."""


@dataclass(slots=True)
class Draft:
    """A kit on its way, and why each line was taken."""

    plan: Plan
    reasons: dict[str, Text] = field(default_factory=dict)


class Shop:
    """The catalogue for one plan: what stands its place, what is owned, what it costs.

    `passed_over` are kits that were tight and cheaper, one a board.
    """

    def __init__(self, plan: Plan, catalogue: Catalogue, owned: frozenset[str]) -> None:
        self.plan, self.catalogue, self.owned = plan, catalogue, owned
        self.wanted = [
            requirement for requirement in plan.requirements if requirement.function is not None
        ]
        self.conditions = {
            requirement.condition for requirement in plan.requirements if requirement.condition
        }
        self.passed_over: dict[str, Plan] = {}
        self._cheapest: dict[Role, Decimal] = {}

    def price(self, part: Part) -> Decimal:
        """What a part adds to the bill: nothing where it is owned."""
        if part.id in self.owned:
            return Decimal(0)
        price = self.plan.price_of(part)
        return _UNTESTED if price is None else price

    def on_offer(self, role: Role) -> list[Part]:
        """Parts for a role that stand the place, owned and cheap ones first.

        What costs nothing is nothing that a shop sells: it counts only where it is owned.
        """
        place = self.plan.place
        return sorted(
            (
                part
                for part in self.catalogue.parts(KINDS_FOR_ROLE[role])
                if part.origin != "typical"
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
        least_of: dict[FunctionId, float] = {"memory": image_gb, "ethernet": 0}
        for function, least in least_of.items():
            asked = [
                requirement.at_least or 0
                for requirement in self.wanted
                if requirement.function == function
            ]
            if function == "memory":
                asked = [
                    wanted_memory_gb(requirement, self.plan.image) for requirement in self.wanted
                ]
            wanted = max([*asked, least])
            best = max((amount(board, function) for board in found), default=0.0)
            found = [board for board in found if amount(board, function) >= min(wanted, best)]
        return found

    def cheapest(self, role: Role) -> Decimal:
        """The least that a part of a role adds to the bill; nothing where there is none."""
        if role not in self._cheapest:
            prices = [self.price(part) for part in self.on_offer(role)]
            self._cheapest[role] = min(prices, default=Decimal(0))
        return self._cheapest[role]

    def at_least(self, checked: Evaluation, *roles: Role) -> Decimal:
        """What a kit comes to when the cheapest part of each role is still to be added."""
        least = sum((self.cheapest(role) for role in roles), Decimal(0))
        return cost_of(checked.kit).total + least * self.plan.copies

    def why(self, part_id: str, why: Text | str) -> Text:
        """A reason; of what is owned, that it is."""
        return say("Already owned") if part_id in self.owned else as_text(why)

    def why_board(self, board: Part) -> Text:
        """Why a board was taken: what every cheaper one lacks."""
        price = self.price(board)
        cheaper = [
            part
            for part in self.catalogue.parts(("board",))
            if part.origin != "typical" and self.price(part) < price
        ]
        lacking = {self._lacks(part) for part in cheaper}
        if "" in lacking:
            return say("Lowest-priced board that works in this kit")
        told = [
            self._has(board, what)
            for what in ("cold", "heat", "memory", "interfaces")
            if what in lacking
        ]
        return joined([say("Lowest-priced board"), *told], " ")

    def _lacks(self, board: Part) -> str:
        """What of a plan's needs a board does not meet by itself, first the place's."""
        place = self.plan.place
        if board.ambient_min_c is not None and board.ambient_min_c > place.ambient_min_c:
            return "cold"
        if board.ambient_max_c is not None and board.ambient_max_c < place.ambient_max_c:
            return "heat"
        if amount(board, "memory") < self._memory_gb():
            return "memory"
        return "interfaces" if self._interfaces() - board.offers.keys() else ""

    def _has(self, board: Part, what: str) -> Text:
        """What a board has that cheaper ones lack, as it follows its noun."""
        if what == "cold":
            return say("rated down to {temp}", temp=words.counted(board.ambient_min_c or 0, "°C"))
        if what == "heat":
            return say("rated up to {temp}", temp=words.counted(board.ambient_max_c or 0, "°C"))
        if what == "memory":
            memory = words.counted(amount(board, "memory"), "GB")
            return say("with {memory} of memory", memory=memory)
        needed = [
            FUNCTIONS[name].label
            for name in FUNCTIONS
            if name in self._interfaces() and name in board.offers
        ]
        return say("with every interface needed ({names})", names=words.listed(needed))

    def _memory_gb(self) -> float:
        image_gb = self.plan.image.memory_gb if self.plan.image else 0.0
        return max([image_gb, *(wanted_memory_gb(one, self.plan.image) for one in self.wanted)])

    def _interfaces(self) -> set[FunctionId]:
        """Functions of the plan that boards can have themselves."""
        of_boards = {f for part in self.catalogue.parts(("board",)) for f in part.offers}
        return {one.function for one in self.wanted if one.function in of_boards if one.function}

    def line_of(
        self, role: Role, part: Part, line: str | None = None, quantity: int = 1
    ) -> AddLine:
        """The change that adds a part."""
        return AddLine(
            role=role, part=part.id, line=line, quantity=quantity, owned=part.id in self.owned
        )

    def add(self, draft: Draft, role: Role, part: Part, why: Text | str, quantity: int = 1) -> None:
        """Put a part into the draft."""
        line = draft.plan.free_line_id(role)
        draft.plan = apply_patch(draft.plan, (self.line_of(role, part, line, quantity),))
        draft.reasons[line] = self.why(part.id, why)

    def judge(self, draft: Draft, patch: Patch = ()) -> Evaluation:
        """The draft after a change."""
        plan = apply_patch(draft.plan, patch) if patch else draft.plan
        return evaluation_of(plan, self.catalogue)


def amount(part: Part, function: FunctionId) -> float:
    """How much of a function a part gives, in its unit; 0 where nobody says."""
    offer = part.offers.get(function)
    return 0.0 if offer is None or offer.amount is None else offer.amount


def capacity_gb(part: Part) -> float:
    """Room on a part. [GB]"""
    return 0.0 if part.storage is None else part.storage.capacity_gb
