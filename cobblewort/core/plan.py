"""A plan: a kit in a place, with a duty and a budget."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints, model_validator

from cobblewort.core.parts.model import Identifier, Piece

Role = Literal[
    "board", "supply", "boot", "data", "addon", "cooling", "case", "lead", "fastener", "borrow"
]
KIT_ORDER: tuple[Role, ...] = (
    "board", "supply", "boot", "data", "addon", "cooling", "case", "lead", "fastener", "borrow",
)  # fmt: skip
"""The order in which a kit is put together."""

KINDS_FOR_ROLE: dict[Role, tuple[str, ...]] = {
    "board": ("board",),
    "supply": ("supply",),
    "boot": ("card", "drive"),
    "data": ("drive", "card"),
    "addon": ("storage_adapter", "hub", "device"),
    "cooling": ("cooler",),
    "case": ("case",),
    "lead": ("lead",),
    "fastener": ("fastener",),
    "borrow": ("tool",),
}
"""Which kinds of part can take which role."""

Activity = Literal["off", "idle", "light", "working", "full"]
"""How hard a part works in a phase.

    activity   mean (heat, energy)          peak (limits)
    off        0                            0
    idle       idle                         idle
    light      half way to working          working
    working    working                      peak
    full       peak                         peak
"""
PlanState = Literal["thinking", "ordered", "built", "proved"]
"""How far a build has come."""
Temperature = Annotated[float, Field(ge=-60, le=90)]
MAX_INSTANCES = 400


class Place(Piece):
    """Where it will live. [°C], [m]"""

    name: Annotated[str, StringConstraints(max_length=200)] = ""
    ambient_min_c: Temperature = 15
    ambient_max_c: Temperature = 28
    altitude_m: Annotated[float, Field(ge=-400, le=9000)] = 0
    standing: Literal["table", "feet", "hung"] = "feet"

    @model_validator(mode="after")
    def _in_order(self) -> Place:
        if self.ambient_min_c > self.ambient_max_c:
            raise ValueError(
                "the coldest day must not be warmer than the hottest "
                f"(got {self.ambient_min_c:g} and {self.ambient_max_c:g} °C)"
            )
        return self


class Phase(Piece):
    """A part of the day: how long, and what the kit does then.

    `activity` is for the whole kit; `lines` says which lines do something else.
    """

    name: Annotated[str, StringConstraints(min_length=1, max_length=60)]
    hours: Annotated[float, Field(gt=0, le=24)]
    activity: Activity = "working"
    lines: dict[Identifier, Activity] = Field(default_factory=dict)


class Settings(Piece):
    """Choices in the firmware or system that change what is allowed."""

    lift_port_limit: bool = False


class Line(Piece):
    """One line of the kit. `pins` says which plug goes where: plug id to `line#n.socket`.

    `part_revision` keeps the figures that the part had when it was chosen; None takes the newest.
    """

    id: Identifier
    role: Role
    part: Identifier
    part_revision: Annotated[int, Field(ge=1)] | None = None
    quantity: Annotated[int, Field(ge=1, le=MAX_INSTANCES)] = 1
    owned: bool = False
    pins: dict[str, str] = Field(default_factory=dict)


class Plan(Piece):
    """A build being thought through.

    `copies` is how many of it are to be built; `budget` is for all of them.
    """

    format: Literal["cobblewort-plan/1"] = "cobblewort-plan/1"
    name: Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
    state: PlanState = "thinking"
    purpose: Annotated[str, StringConstraints(max_length=1000)] = ""
    place: Place = Place()
    duty: tuple[Phase, ...] = (Phase(name="all day", hours=24),)
    budget: Annotated[Decimal, Field(ge=0, max_digits=12, decimal_places=2)] | None = None
    currency: str = "EUR"
    copies: Annotated[int, Field(ge=1, le=100)] = 1
    settings: Settings = Settings()
    lines: tuple[Line, ...] = ()
    parts: tuple[dict[str, Any], ...] = ()

    @model_validator(mode="after")
    def _consistent(self) -> Plan:
        ids = [line.id for line in self.lines]
        twice = sorted({i for i in ids if ids.count(i) > 1})
        if twice:
            raise ValueError(f"each line needs an id of its own (twice: {', '.join(twice)})")
        pieces = sum(line.quantity for line in self.lines)
        if pieces > MAX_INSTANCES:
            raise ValueError(f"a plan holds at most {MAX_INSTANCES} parts (got {pieces})")
        hours = sum(phase.hours for phase in self.duty)
        if not self.duty or hours > 24.0001:
            raise ValueError(f"the phases of a day must add up to at most 24 h (got {hours:g} h)")
        return self

    def line(self, line_id: str) -> Line:
        """The line with this id. Raises KeyError when there is none."""
        for line in self.lines:
            if line.id == line_id:
                return line
        raise KeyError(line_id)

    def free_line_id(self, role: str) -> str:
        """An id that no line has yet: the role, numbered from the second on."""
        taken = {line.id for line in self.lines}
        number = 1
        while (candidate := role if number == 1 else f"{role}-{number}") in taken:
            number += 1
        return candidate
