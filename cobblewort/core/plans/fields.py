"""Every field that a person fills in on a plan, described once: forms, errors and help are drawn
from these rows, and bounds are those of the models.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from pydantic import BaseModel

from cobblewort.core import labels
from cobblewort.core.plans.plan import (
    Backup,
    Image,
    Phase,
    Place,
    Plan,
    Retention,
    Settings,
    StorageUse,
    Transfer,
    Wired,
)

Control = Literal["text", "lines", "number", "money", "choice", "check", "list"]
_CONTROLS: dict[str, Control] = {
    "boolean": "check",
    "array": "list",
    "number": "number",
    "integer": "number",
}


@dataclass(slots=True, frozen=True)
class Row:
    """A field for people: what it is called, its unit, what can be chosen and what that is called.

    `empty` is what an empty field means, shown in its place; `example` is something to type. `hint`
    says more of a check. A field with several `lines` of text is typed in a larger one. Figures
    that are `named` can be chosen by their words too.
    """

    label: str
    unit: str = ""
    choices: Mapping[Any, str] = field(default_factory=dict)
    empty: str = ""
    example: str = ""
    hint: str = ""
    lines: bool = False
    named: Mapping[float, str] = field(default_factory=dict)


PLAN: dict[str, Row] = {
    "name": Row("Name"),
    "status": Row("Status", choices=labels.STATUSES),
    "purpose": Row("Purpose", lines=True),
    "budget": Row("Budget", empty="No limit", example="250"),
    "currency": Row("Currency", example="EUR"),
    "rates": Row("Exchange rates", example="USD 0.92; GBP 1.17"),
    "copies": Row("Number of copies"),
    "schedule": Row("Daily schedule"),
    "requirements": Row("Requirements"),
    "transfers": Row("Transfers"),
    "image": Row("Operating system image"),
    "ready_made": Row("Ready-made alternative"),
}
PLACE: dict[str, Row] = {
    "name": Row("Location"),
    "ambient_min_c": Row("Lowest ambient", "°C"),
    "ambient_max_c": Row("Highest ambient", "°C", example="28"),
    "altitude_m": Row("Altitude", "m"),
    "mounting": Row("Mounting", choices=labels.MOUNTINGS),
    "sun_w_m2": Row("Peak sun", "W/m²", example="800"),
    "wet": Row("Gets wet", hint="rain, splashes or condensation"),
    "dust": Row("Dust", choices=labels.DUST),
    "noise_max_dba": Row("Noise limit at 1 m", "dB(A)", empty="No limit", example="25"),
    "network": Row("Network", choices=labels.NETWORKS),
    "within_reach_of": Row("Within reach of", choices=labels.REACH),
    "power": Row("Power source", choices=labels.POWER_SOURCES),
    "latitude_deg": Row("Latitude", "°", empty="50", example="52", named=labels.LATITUDES),
}
SETTINGS: dict[str, Row] = {
    "lift_port_limit": Row(
        "Lift the USB port limit in the board settings",
        hint="at your own risk: a power supply that cannot deliver the current shuts down",
    ),
    "push_slot": Row("Run the drive slot above its certified rate", hint="test it for a day first"),
    "read_only_root": Row("Read-only root file system", hint="survives a power cut"),
    "logs_in_memory": Row("Keep logs in memory"),
}
PHASE: dict[str, Row] = {
    "name": Row("Name"),
    "hours": Row("Hours", "h", example="2.5"),
    "activity": Row("Load", choices=labels.LOADS),
}
TRANSFER: dict[str, Row] = {
    "text": Row("Name", example="rehearsal to the office"),
    "source": Row("From", choices=labels.ENDS),
    "target": Row("To", choices=labels.ENDS),
    "amount_gb": Row("Amount each time", "GB", example="27.6"),
    "within_min": Row("Time limit (optional)", "min", example="20"),
    "least_mb_s": Row("Minimum rate (optional)", "MB/s", example="80"),
    "file_mb": Row("File size (if small)", "MB", example="4"),
    "runs_a_day": Row("How often", "per day", empty="0", example="0.3"),
    "stream_mb_s": Row("Rate of one stream", "MB/s", example="3.1"),
    "at_once": Row("Number of streams"),
    "hours_a_day": Row("Hours per day", "h", example="6"),
    "protocol": Row("Network protocol", choices=labels.PROTOCOLS),
    "during": Row("At the same time as the phase", empty="On its own"),
    "stays": Row("Data stays in the kit"),
}
STORAGE_USE: dict[str, Row] = {
    "layout": Row("Array layout", choices=labels.ARRAY_LAYOUTS),
    "file_system": Row("File system", choices=labels.FILE_SYSTEMS),
    "encrypted": Row("Encrypt the disks"),
    "read_elsewhere": Row("Other computers read the disk", hint="unplugged from this kit"),
    "when_full": Row("When storage is full", choices=labels.WHEN_FULL),
    "growth_gb_month": Row("Growth", "GB per month", empty="0", example="12"),
}
RETENTION: dict[str, Row] = {
    "years": Row("Required lifetime", "years", example="5"),
    "writes": Row("Write pattern", choices=labels.WRITES),
    "system_gb_day": Row("Measured writes", "GB per day", empty="Typical", example="1.5"),
    "replaceable": Row("This data can be replaced"),
    "backups": Row("Backups"),
}
BACKUP: dict[str, Row] = {
    "text": Row("Name", example="disk in the office"),
    "place": Row("Location", choices=labels.BACKUP_PLACES),
    "medium": Row("Drive", choices=labels.BACKUP_DRIVES),
    "every_days": Row("How often", "days", example="7"),
}
IMAGE: dict[str, Row] = {
    "name": Row("Image"),
    "card_gb": Row("Size on the drive", "GB", example="8"),
    "memory_gb": Row("Memory needed", "GB", example="0.5"),
    "families": Row("Board families", empty="Not known"),
    "bits": Row("Word size", choices=labels.WORD_SIZES, empty="Not known"),
    "desktop": Row("With a desktop"),
}
WIRED: dict[str, Row] = {
    "kind": Row("Type", choices=labels.WIRED_KINDS),
    "label": Row("Name", example="red lamp"),
    "pin": Row("Pin"),
    "forward_v": Row("Forward voltage", "V", example="2.0"),
    "current_ma": Row("Current", "mA", example="5"),
    "made_for_v": Row("Supply voltage on its label (optional)", "V", example="12"),
    "series": Row("Resistor series"),
}

FORMS: dict[str, tuple[type[BaseModel], dict[str, Row]]] = {
    "plan": (Plan, PLAN),
    "place": (Place, PLACE),
    "settings": (Settings, SETTINGS),
    "phase": (Phase, PHASE),
    "transfer": (Transfer, TRANSFER),
    "storage_use": (StorageUse, STORAGE_USE),
    "retention": (Retention, RETENTION),
    "backup": (Backup, BACKUP),
    "image": (Image, IMAGE),
    "wired": (Wired, WIRED),
}
"""The rows by what they are fields of."""
NOT_FILLED_IN: dict[str, frozenset[str]] = {
    "plan": frozenset(
        {"format", "purpose_id", "lines", "wired", "parts", "reminders", "done"}
        | {"place", "settings", "storage_use", "retention"}
    ),
    "phase": frozenset({"lines"}),
    "transfer": frozenset({"id"}),
    "backup": frozenset({"id"}),
    "wired": frozenset({"id"}),
}
"""Fields of the models that have rows of their own, or none, as nobody types them."""


@dataclass(slots=True, frozen=True)
class Field:
    """A row with what its model says of it: how it is typed and what is taken. A figure is at least
    `least`, above `above`, and at most `most`; of a text `longest` is its most characters.
    """

    label: str
    unit: str
    control: Control
    choices: Mapping[Any, str]
    named: Mapping[float, str]
    empty: str
    example: str
    hint: str
    is_optional: bool
    whole: bool
    least: float | None
    above: float | None
    most: float | None
    longest: int | None


def fields_of(form: str) -> dict[str, Field]:
    """The fields of a form by name. Raises KeyError for a form that is none."""
    model, rows = FORMS[form]
    schema = model.model_json_schema()
    return {name: _field(row, schema["properties"][name], schema) for name, row in rows.items()}


def _field(row: Row, described: Mapping[str, Any], schema: Mapping[str, Any]) -> Field:
    kinds = [_resolved(one, schema) for one in described.get("anyOf", [described])]
    stated = [kind for kind in kinds if kind.get("type") != "null"]
    kind = next((k for k in stated if k.get("type") in ("number", "integer")), stated[0])
    return Field(
        label=row.label,
        unit=row.unit,
        control=_control(row, kind, len(stated) > 1),
        choices=row.choices,
        named=row.named,
        empty=row.empty,
        example=row.example,
        hint=row.hint,
        is_optional=len(stated) < len(kinds),
        whole=kind.get("type") == "integer",
        least=kind.get("minimum"),
        above=kind.get("exclusiveMinimum"),
        most=kind.get("maximum"),
        longest=next((k["maxLength"] for k in stated if "maxLength" in k), None),
    )


def _resolved(kind: Mapping[str, Any], schema: Mapping[str, Any]) -> Mapping[str, Any]:
    reference = kind.get("$ref")
    if reference is None:
        return kind
    found: Mapping[str, Any] = schema["$defs"][reference.rsplit("/", 1)[1]]
    return found


def _control(row: Row, kind: Mapping[str, Any], is_decimal: bool) -> Control:
    if row.choices:
        return "choice"
    if row.lines:
        return "lines"
    if is_decimal:  # a number or a string in JSON
        return "money"
    return _CONTROLS.get(str(kind.get("type")), "text")
