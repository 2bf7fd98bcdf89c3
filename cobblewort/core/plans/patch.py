"""Changes to a plan, as data: what a fix proposes and what the page sends."""

from collections.abc import Iterable, Iterator
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from cobblewort.core.errors import InputError
from cobblewort.core.figures.document_model import Stated
from cobblewort.core.parts.model import Identifier
from cobblewort.core.plans.plan import (
    KIT_ORDER,
    Addresses,
    FloorPosition,
    HeldBy,
    Line,
    Plan,
    PlugName,
    Role,
    SocketName,
)


class AddLine(Stated):
    """Put a part into the kit."""

    op: Literal["add"] = "add"
    role: Role
    part: Identifier
    line: Identifier | None = None
    quantity: Annotated[int, Field(ge=1, le=400)] = 1
    owned: bool = False


class SwapPart(Stated):
    """Let a line hold another part; where its plugs went is chosen afresh."""

    op: Literal["swap"] = "swap"
    line: Identifier
    part: Identifier


class RemoveLine(Stated):
    """Take a line out of the kit."""

    op: Literal["remove"] = "remove"
    line: Identifier


class EditLine(Stated):
    """Change how many of a part there are, whether they are owned, whose figures count, which I2C
    addresses the pieces are set to, on what standoffs a board stands (0: as delivered), where in
    its case it stands, what holds it there, and whether a case is cut by hand or left without its
    top sheets.
    """

    op: Literal["edit"] = "edit"
    line: Identifier
    quantity: Annotated[int, Field(ge=1, le=400)] | None = None
    owned: bool | None = None
    spare: bool | None = None
    part_revision: Annotated[int, Field(ge=1)] | None = None
    addresses: Addresses | None = None
    standoff_mm: Annotated[float, Field(ge=0, le=100)] | None = None
    position: FloorPosition | Literal["middle"] | None = None
    modified: bool | None = None
    sheets_off: bool | None = None
    held_by: HeldBy | None = None


class PinPlug(Stated):
    """Say which socket a plug goes into; `socket` null lets the program choose again."""

    op: Literal["pin"] = "pin"
    line: Identifier
    plug: PlugName
    socket: SocketName | None


class SetFields(Stated):
    """Change fields of the plan itself, such as its name, place, duty or budget.

    Of its place, settings, storing and keeping only the fields that are given are changed.
    """

    op: Literal["set"] = "set"
    fields: dict[
        Literal[
            "name",
            "status",
            "purpose",
            "purpose_id",
            "requirements",
            "image",
            "ready_made",
            "place",
            "schedule",
            "budget",
            "currency",
            "rates",
            "copies",
            "settings",
            "transfers",
            "storage_use",
            "retention",
            "wired",
            "reminders",
            "done",
        ],
        Any,
    ] = Field(min_length=1)


Change = Annotated[
    AddLine | SwapPart | RemoveLine | EditLine | PinPlug | SetFields, Field(discriminator="op")
]
Patch = tuple[Change, ...]


def apply_patch(plan: Plan, patch: Iterable[Change]) -> Plan:
    """The plan after the changes, in their order.

    Raises
    ------
    InputError
        If a change names a line that is not there, or leaves the plan invalid.
    """
    for index, change in enumerate(patch):
        plan = _apply(plan, change, f"patch.{index}")
    return plan


def _apply(plan: Plan, change: Change, place: str) -> Plan:
    match change:
        case AddLine():
            line = Line(
                id=change.line or plan.free_line_id(change.role),
                role=change.role,
                part=change.part,
                quantity=change.quantity,
                owned=change.owned,
            )
            lines = sorted([*plan.lines, line], key=lambda entry: KIT_ORDER.index(entry.role))
            return _with(plan, place, {"lines": tuple(lines)})
        case SetFields():
            return _with(plan, place, dict(_set(plan, change)))
        case RemoveLine():
            old = _line(plan, change.line, place)
            rest = tuple(_unpinned(line, old.id) for line in plan.lines if line is not old)
            return _with(plan, place, {"lines": rest, "schedule": _schedule_without(plan, old.id)})
        case SwapPart():
            update: dict[str, Any] = {
                "part": change.part,
                "part_revision": None,
                "pins": {},
                "addresses": {},
                "standoff_mm": None,
                "position": None,
                "modified": False,
                "sheets_off": False,
                "held_by": "screws",
            }
        case EditLine():
            given = change.model_dump(exclude={"op", "line", "position"})
            update = {name: value for name, value in given.items() if value is not None}
            if change.position is not None:
                update["position"] = None if change.position == "middle" else change.position
            if change.standoff_mm == 0:
                update["standoff_mm"] = None
        case PinPlug():
            pins = dict(_line(plan, change.line, place).pins)
            pins.pop(change.plug, None)
            if change.socket is not None:
                pins[change.plug] = change.socket
            update = {"pins": pins}
    old = _line(plan, change.line, place)
    changed = old.model_copy(update=update)
    lines_after = tuple(
        changed
        if line is old
        else _unpinned(line, old.id)
        if isinstance(change, SwapPart)
        else line
        for line in plan.lines
    )
    return _with(plan, place, {"lines": lines_after})


def _line(plan: Plan, line_id: str, place: str) -> Line:
    try:
        return plan.line(line_id)
    except KeyError:
        known = ", ".join(line.id for line in plan.lines) or "none"
        raise InputError(
            [(f"{place}.line", f"the kit has no line '{line_id}' (it has: {known})")]
        ) from None


_GROUPS = ("place", "settings", "storage_use", "retention")
"""Fields of a plan of which a change may state a part."""


def _set(plan: Plan, change: SetFields) -> Iterator[tuple[str, Any]]:
    """The fields to set, those of a group over the ones that are there."""
    for name, value in change.fields.items():
        if name in _GROUPS and isinstance(value, dict):
            yield name, {**getattr(plan, name).model_dump(), **value}
        else:
            yield name, value


def _with(plan: Plan, place: str, fields: dict[str, Any]) -> Plan:
    try:
        return Plan.model_validate({**_shallow(plan), **fields})
    except ValidationError as error:
        raise InputError.from_validation(error, place) from error


def _shallow(plan: Plan) -> dict[str, Any]:
    return {name: getattr(plan, name) for name in Plan.model_fields}


def _unpinned(line: Line, line_id: str) -> Line:
    """The line without its pins to another one; itself where it has none, so that it is known
    again.
    """
    kept = {p: at for p, at in line.pins.items() if not at.startswith(f"{line_id}#")}
    return line if len(kept) == len(line.pins) else line.model_copy(update={"pins": kept})


def _schedule_without(plan: Plan, line_id: str) -> tuple[Any, ...]:
    return tuple(
        phase.model_copy(update={"lines": {k: v for k, v in phase.lines.items() if k != line_id}})
        for phase in plan.schedule
    )
