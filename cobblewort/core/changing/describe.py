"""A patch in words."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from cobblewort.core import words
from cobblewort.core.aspects.data.arrays import LAYOUTS
from cobblewort.core.labels import HELD_BY, POWER_AT
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
from cobblewort.core.plans.plan import FloorPosition, Plan
from cobblewort.core.text import Text, as_text, joined, say


def describe(plan: Plan, catalogue: Catalogue, patch: Patch) -> Text:
    """A patch in words: what is added, removed and moved."""
    own = catalogue.for_plan(plan)
    texts: list[Text] = []
    pins = [change for change in patch if isinstance(change, PinPlug)]
    for change in patch:
        before, lines = plan, {line.id: line.part for line in plan.lines}
        plan = apply_patch(plan, (change,))
        match change:
            case AddLine():
                texts.append(say("add {part}", part=own.part(change.part).model))
            case SwapPart():
                old, new = own.part(lines[change.line]), own.part(change.part)
                texts.append(say("swap {old} for {new}", old=old.model, new=new.model))
            case RemoveLine():
                texts.append(say("remove {part}", part=own.part(lines[change.line]).model))
            case EditLine():
                texts.append(_edit_words(change, own.part(lines[change.line]).model))
            case SetFields():
                texts.append(as_text(_set_words(change, before)))
            case PinPlug():
                pass
    if pins:
        moved = dict.fromkeys(own.of_line(plan.line(pin.line)).model for pin in pins)
        texts.append(say("plug {parts} into it", parts=words.listed(moved)))
    return words.opened(joined(texts, ", "))


_PLACE_HAS: dict[str, dict[str, str]] = {
    "power": POWER_AT,
    "network": {"both": "Ethernet and Wi-Fi", "ethernet": "Ethernet", "wifi": "Wi-Fi"},
}


_SETTING_WORDS = {
    "lift_port_limit": (
        "restore the port limit in the board settings",
        "lift the port limit in the board settings",
    ),
    "push_slot": (
        "run the drive slot at its certified rate",
        "run the drive slot above its certified rate",
    ),
    "logs_in_memory": ("keep logs on the boot drive", "keep logs in memory"),
    "read_only_root": ("make the system writable", "make the system read-only"),
}
"""What turning a setting off and on is called."""


def _has_now(place: dict[str, object], plan: Plan) -> str:
    """What a place is said to have that it had not, in words."""
    before = plan.place.model_dump()
    changed = [name for name in _PLACE_HAS if place.get(name, before[name]) != before[name]]
    told = [_PLACE_HAS[name].get(str(place[name]), "") for name in changed]
    return words.listed(told) if told else ""


_EDITS = {
    "sheets_off": "remove the top sheets of {part}",
    "modified": "cut openings in {part} by hand",
    "part_revision": "use the newest values of {part}",
}


def _edit_words(change: EditLine, model: str) -> Text:
    """What changing a line does, in words."""
    template = next(
        (words for field, words in _EDITS.items() if getattr(change, field) is not None),
        "move {part} to the middle" if change.position == "middle" else "",
    )
    if change.spare is not None:
        template = "mark {part} as spare" if change.spare else "use {part} again"
    if template:
        return say(template, part=model)
    if change.held_by is not None:
        how = HELD_BY[change.held_by].lower()
        return say("hold the board in {part} by {how}", part=model, how=how)
    if change.standoff_mm is not None:
        # As they are sold, whatever units their reader prefers.
        return say("put {part} on {sold} standoffs", part=model, sold=f"{change.standoff_mm:g} mm")
    if isinstance(change.position, FloorPosition):
        at = change.position
        return say(
            "move {part} to {x} along and {y} across",
            part=model,
            x=words.stated_mm(at.x_mm),
            y=words.stated_mm(at.y_mm),
        )
    if change.addresses:
        addresses = words.listed(f"0x{address:02X}" for address in change.addresses.values())
        return say("set the address of {part} to {to}", part=model, to=addresses)
    return say("change {part}", part=model)


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
        return f"wire {moved[0]['label']} to GPIO pin {moved[0]['pin']}"
    return "use a bare LED with a resistor"


def _place_words(place: dict[str, object], plan: Plan) -> str:
    has = _has_now(place, plan)
    return f"set the location to {has}" if has else ""


def _image_words(image: dict[str, object], plan: Plan) -> str:
    del plan
    return f"use {image['name']}" if "name" in image else ""


def _storing_words(storage_use: dict[str, object], plan: Plan) -> str:
    """What using the disks in another way is called."""
    del plan
    layout = storage_use.get("layout")
    if layout in LAYOUTS:
        return f"use the array layout {LAYOUTS[layout].label}"
    if storage_use.get("encrypted") is False:
        return "turn off disk encryption"
    file_system = storage_use.get("file_system")
    if file_system is not None:
        checks = file_system == "checksummed"
        return "use a file system with checksums" if checks else "use the system's own file system"
    return "change how the drives are used"


_SETS: dict[str, Callable[[Any, Plan], str]] = {
    "settings": _settings_words,
    "wired": _wired_words,
    "place": _place_words,
    "image": _image_words,
    "storage_use": _storing_words,
}
"""What setting a field is called, by the field; nothing where there is no word for it."""
