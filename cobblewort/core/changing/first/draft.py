"""What a first kit is put together from: the cupboard as seen from one place, and a draft."""

from __future__ import annotations

from dataclasses import dataclass, field
from decimal import Decimal

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.purpose.model import wanted_memory_gb
from cobblewort.core.parts.functions import FunctionId
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import AddLine, Patch, apply_patch
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan, Role
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
    reasons: dict[str, str] = field(default_factory=dict)


class Shop:
    """The cupboard for one plan: what stands its place, what is owned, what it costs.

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
                asked = [wanted_memory_gb(requirement, self.plan) for requirement in self.wanted]
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

    def add(self, draft: Draft, role: Role, part: Part, why: str, quantity: int = 1) -> None:
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
