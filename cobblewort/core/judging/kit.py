"""A plan with its parts looked up and its aspects worked out: what the rules look at."""

from __future__ import annotations

from functools import cached_property

from cobblewort.core.aspects.cost.model import CostResult, build_cost
from cobblewort.core.aspects.fit.assign import Assignment, assign
from cobblewort.core.aspects.fit.boxes import Space
from cobblewort.core.aspects.fit.fasteners import Fastener, fasteners_of
from cobblewort.core.aspects.fit.pins import HeaderResult, build_header
from cobblewort.core.aspects.fit.stack import StackResult, build_stack
from cobblewort.core.aspects.heat.model import HeatResult, build_heat
from cobblewort.core.aspects.needs.model import NeedResult, build_needs
from cobblewort.core.aspects.noise.model import NoiseResult, build_noise
from cobblewort.core.aspects.power.model import PowerResult, build_power
from cobblewort.core.judging.piece import Piece, expand
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Line, Plan


class Kit:
    """Everything a rule may look at. Each aspect is worked out when it is first looked at.

    Parameters
    ----------
    plan : Plan
        What is judged.
    catalogue : Catalogue
        Where its parts are looked up; those that the plan carries come first.
    samples : int
        Values a figure.
    like : Kit, optional
        A kit of nearly the same plan, from the same catalogue: pieces whose lines are unchanged are
        taken from it, and each aspect that depends on nothing that has changed.

    Raises
    ------
    UnknownPartError
        If a line names a part that is nowhere.
    """

    def __init__(
        self, plan: Plan, catalogue: Catalogue, samples: int, like: Kit | None = None
    ) -> None:
        self.plan = plan
        self.catalogue = catalogue.for_plan(plan)
        self.samples = samples
        alike = like if like is not None and like.samples == samples else None
        self.pieces: list[Piece] = expand(
            plan, self.catalogue, samples, () if alike is None else alike.pieces
        )
        if alike is not None:
            self._take_over(alike)

    def _take_over(self, like: Kit) -> None:
        """Keep of another kit what hangs on pieces alone that both have."""
        changed = set(self.pieces) ^ set(like.pieces)
        for part in (piece.part for piece in changed):
            if part.plugs or part.sockets or part.rails or part.offers:
                return  # what offers a battery or a panel is looked at by rules of supply too
        taken = ["fit"]
        if not changed:
            taken += ["stack", "space", "fasteners", "noise"]
        if (self.plan.place, self.plan.duty) == (like.plan.place, like.plan.duty):
            taken += ["power"] if changed else ["power", "heat"]
        self.__dict__.update((aspect, getattr(like, aspect)) for aspect in taken)

    @cached_property
    def fit(self) -> Assignment:
        """Which plug is in which socket."""
        return assign(self.pieces)

    @cached_property
    def stack(self) -> StackResult:
        """What stands on what."""
        return build_stack(self.pieces)

    @cached_property
    def space(self) -> Space:
        """Every block to scale."""
        return Space(self.stack, self.fit)

    @cached_property
    def fasteners(self) -> list[Fastener]:
        """Standoffs and screws that the stack wants."""
        return fasteners_of(self.stack, self.pieces)

    @cached_property
    def header(self) -> HeaderResult:
        """What the header carries."""
        return build_header(self.plan, self.pieces)

    @cached_property
    def power(self) -> PowerResult:
        """Voltages and currents in every state."""
        return build_power(self.plan, self.pieces, self.fit, self.samples)

    @cached_property
    def heat(self) -> HeatResult:
        """Temperatures on the hottest day."""
        return build_heat(self.plan, self.pieces, self.stack, self.power, self.samples)

    @cached_property
    def cost(self) -> CostResult:
        """The bill."""
        return build_cost(self.plan, self.pieces)

    @cached_property
    def noise(self) -> NoiseResult:
        """What is heard of it."""
        return build_noise(self.pieces, self.samples)

    @cached_property
    def needs(self) -> list[NeedResult]:
        """How it stands to what is asked of it."""
        if not self.plan.needs:
            return []
        return build_needs(self.plan, self.pieces, self.fit, self.power, self.noise)

    def has_supply_of(self, other: Kit) -> bool:
        """Whether all that rules of supply look at is that of another kit."""
        return (
            self.power is other.power
            and self.plan.settings == other.plan.settings
            and not any(i.part.source is not None and i.part.inside for i in self.pieces)
        )

    @cached_property
    def _by_role(self) -> dict[str, list[Piece]]:
        pieces: dict[str, list[Piece]] = {}
        for piece in self.pieces:
            pieces.setdefault(piece.line.role, []).append(piece)
        return pieces

    def of_role(self, role: str) -> list[Piece]:
        """The pieces on lines of one role, in kit order."""
        return self._by_role.get(role, [])

    @cached_property
    def by_line(self) -> list[tuple[Line, Part]]:
        """The lines with their parts, in kit order."""
        parts = {piece.line.id: piece.part for piece in self.pieces}
        return [(line, parts[line.id]) for line in self.plan.lines]
