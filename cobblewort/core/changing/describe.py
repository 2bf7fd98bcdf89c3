"""A patch in words."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from cobblewort.core import words
from cobblewort.core.aspects.data.arrays import LAYOUTS
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import (
    AddLine,
    EditLine,
    Patch,
    PinPlug,
    RemoveLine,
    SetFields,
    SwapPart,
    apply_patch,
)
from cobblewort.core.plans.plan import Plan


def describe(plan: Plan, catalogue: Catalogue, patch: Patch) -> str:
    """A patch in words: what comes, what goes, what moves."""
    own = catalogue.for_plan(plan)
    texts = []
    pins = [change for change in patch if isinstance(change, PinPlug)]
    for change in patch:
        before, lines = plan, {line.id: line.part for line in plan.lines}
        plan = apply_patch(plan, (change,))
        match change:
            case AddLine():
                texts.append(f"add {own.part(change.part).model}")
            case SwapPart():
                old, new = own.part(lines[change.line]), own.part(change.part)
                texts.append(f"{new.model} instead of {old.model}")
            case RemoveLine():
                texts.append(f"leave out {own.part(lines[change.line]).model}")
            case EditLine():
                texts.append(_edit_words(change, own.part(lines[change.line]).model))
            case SetFields():
                texts.append(_set_words(change, before))
            case PinPlug():
                pass
    if pins:
        moved = dict.fromkeys(own.of_line(plan.line(pin.line)).model for pin in pins)
        texts.append(f"plug {' and '.join(moved)} into it")
    text = ", ".join(texts)
    return text[:1].upper() + text[1:]


_PLACE_HAS: dict[str, dict[str, str]] = {
    "power": {
        "mains": "mains", "poe": "network power", "vehicle": "a vehicle's supply",
        "solar": "sun for a panel",
    },
    "network": {"both": "a network", "ethernet": "a network socket", "wifi": "Wi-Fi"},
}  # fmt: skip


_SETTING_WORDS = {
    "lift_port_limit": ("leave the port limit in the board's settings",
                        "lift the port limit in the board's settings"),
    "push_slot": ("run the drive slot at its certified rate",
                  "run the drive slot beyond its rate"),
    "logs_in_memory": ("keep logs on the boot medium", "keep logs in memory"),
    "read_only_root": ("let the system write", "make the system read-only"),
}  # fmt: skip
"""What turning a setting off and on is called."""


def _has_now(place: dict[str, object], plan: Plan) -> str:
    """What a place is said to have that it had not, in words."""
    before = plan.place.model_dump()
    changed = [name for name in _PLACE_HAS if place.get(name, before[name]) != before[name]]
    told = [_PLACE_HAS[name].get(str(place[name]), "") for name in changed]
    return words.listed(told) if told else ""


def _edit_words(change: EditLine, model: str) -> str:
    """What changing a line does, in words."""
    if change.sheets_off is not None or change.modified is not None:
        off = change.sheets_off is not None
        return f"leave the top sheets of {model} off" if off else f"cut {model} by hand"
    if change.standoff_mm is not None:
        return f"put {model} on standoffs of {change.standoff_mm:g} mm"
    if change.position == "middle":
        return f"put {model} into the middle"
    if change.position is not None:
        at = change.position
        return f"put {model} {at.x_mm:g} mm along and {at.y_mm:g} mm across"
    if change.addresses:
        addresses = words.listed(f"0x{address:02X}" for address in change.addresses.values())
        return f"set {model} to {addresses}"
    return f"newest figures of {model}" if change.part_revision else f"change {model}"


def _set_words(change: SetFields, plan: Plan) -> str:
    """What setting fields of the plan does, in words."""
    for field, value in change.fields.items():
        told = _SETS.get(field)
        if told is not None and isinstance(value, dict | list) and (text := told(value, plan)):
            return text
    return f"change {', '.join(change.fields)}"


def _settings_words(settings: dict[str, object], plan: Plan) -> str:
    now = plan.settings.model_dump()
    changed = {name: value for name, value in settings.items() if value != now.get(name)}
    name = next((name for name in _SETTING_WORDS if name in changed), None)
    return "" if name is None else _SETTING_WORDS[name][bool(changed[name])]


def _wired_words(wired: list[dict[str, object]], plan: Plan) -> str:
    pins = {entry.id: entry.pin for entry in plan.wired}
    moved = [w for w in wired if isinstance(w, dict) and pins.get(str(w["id"])) != w["pin"]]
    if len(moved) == 1:
        return f"wire {moved[0]['label']} to pin {moved[0]['pin']}"
    return "a bare LED with its resistor"


def _place_words(place: dict[str, object], plan: Plan) -> str:
    has = _has_now(place, plan)
    return f"its place has {has}" if has else ""


def _image_words(image: dict[str, object], plan: Plan) -> str:
    del plan
    return f"{image['name']} instead of the image before" if "name" in image else ""


def _storing_words(storage_use: dict[str, object], plan: Plan) -> str:
    """What using the disks in another way is called."""
    del plan
    layout = storage_use.get("layout")
    if layout in LAYOUTS:
        return f"use the disks as {LAYOUTS[layout].label}"
    if storage_use.get("encrypted") is False:
        return "leave the disks unencrypted"
    file_system = storage_use.get("file_system")
    if file_system is not None:
        checks = file_system == "checksummed"
        return "use one with checksums" if checks else "use the system's own file system"
    return "use the disks in another way"


_SETS: dict[str, Callable[[Any, Plan], str]] = {
    "settings": _settings_words, "wired": _wired_words, "place": _place_words,
    "image": _image_words, "storage_use": _storing_words,
}  # fmt: skip
"""What setting a field is called, by the field; nothing where there is no word for it."""
