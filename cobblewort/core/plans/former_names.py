"""Documents of earlier versions: the names they used, and the names used now.

Plans, packs and workspaces of format 1 call some fields and values otherwise. What is read goes
through `current_plan` or `current_part` once, at the edge; only names of today are written. A
document of today comes out as it went in, so nothing asks which of the two it is.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

PLAN_FIELDS = {
    "state": "status",
    "needs": "requirements",
    "duty": "schedule",
    "flows": "transfers",
    "storing": "storage_use",
    "keeping": "retention",
    "settled": "done",
}
STATUSES = {"thinking": "planning", "proved": "tested"}
PLACE_FIELDS = {"standing": "mounting", "touched_by": "within_reach_of"}
POWER_SOURCES = {"network": "poe", "sun": "solar"}
NETWORKS = {"wired": "ethernet", "radio": "wifi"}
ACTIVITIES = {"working": "normal"}
FUNCTIONS = {
    "wired_network": "ethernet",
    "radio": "wifi",
    "software_radio": "sdr",
    "sound_in": "audio_in",
    "sound_out": "audio_out",
    "clock": "rtc",
    "position": "gnss",
    "aerial": "antenna",
    "usb_socket": "usb_port",
}
CONDITIONS = {
    "pulled_plug": "power_cut",
    "from_outside": "remote_access",
    "off_mains": "without_mains",
    "moves": "in_vehicle",
    "survives_disk": "disk_failure",
}
ENDS = {
    "data": "storage",
    "boot": "boot_drive",
    "radio": "wifi",
    "sound_in": "audio_in",
    "software_radio": "sdr",
}
ROLES = {
    "supply": "power_supply",
    "boot": "boot_drive",
    "data": "storage",
    "addon": "add_on",
    "lead": "cable",
    "borrow": "set_up",
    "beside": "other_equipment",
}
KINDS = {"supply": "power_supply", "lead": "cable"}
PART_FIELDS = {"lead": "cable"}
SOURCE_FIELDS = {
    "feeds_on": "power_source",
    "announces_a": "advertises_a",
    "network_type": "poe_type",
}
RAIL_FIELDS = {"limit_unannounced_a": "limit_unadvertised_a", "announce_a": "advertise_a"}
PLUG_FIELDS = {"cable": "flat_cable", "lead_ohm": "cable_ohm"}
BASES = {"guess": "estimate"}


def current_plan(document: Any) -> Any:
    """A plan document with the names of today; what is no plan document comes back as it is."""
    plan = _renamed(document, PLAN_FIELDS)
    if not isinstance(plan, dict):
        return document
    if plan.get("format") == "cobblewort-plan/1":
        plan["format"] = "cobblewort-plan/2"
    _change(plan, "status", STATUSES)
    _each(plan, "requirements", _requirement)
    _each(plan, "schedule", _phase)
    _each(plan, "transfers", _transfer)
    _each(plan, "lines", _line)
    _each(plan, "reminders", _about)
    _each(plan, "parts", current_part)
    _one(plan, "place", _place)
    _one(plan, "storage_use", _storage_use)
    _one(plan, "retention", lambda retention: _renamed(retention, {"copies": "backups"}))
    return plan


def current_part(document: Any) -> Any:
    """A part document with the names of today; what is none comes back as it is."""
    part = _renamed(document, PART_FIELDS)
    if not isinstance(part, dict):
        return document
    _change(part, "kind", KINDS)
    _change(part, "origin", {"own": "custom", "class": "typical"})
    for name in ("offers", "ports"):
        _one(part, name, lambda found: _renamed(found, FUNCTIONS))
    _values(part, "offers", lambda offer: _renamed(offer, {"on_inlet": "on_power_input"}))
    _one(part, "source", _source)
    _one(part, "cable", lambda cable: _renamed(cable, {"network_type": "poe_type"}))
    _one(part, "voltages", lambda volts: _renamed(volts, {"flag_v": "undervoltage_v"}))
    _values(part, "rails", lambda rail: _renamed(rail, RAIL_FIELDS))
    _values(part, "plugs", lambda plug: _renamed(plug, PLUG_FIELDS))
    _values(part, "loads", lambda load: _renamed(load, ACTIVITIES))
    for name in ("sockets", "ports", "buttons"):
        _values(part, name, lambda entry: _renamed(entry, {"spot": "face"}))
    return _with_bases(part)


def _requirement(requirement: dict[str, Any]) -> dict[str, Any]:
    _change(requirement, "function", FUNCTIONS)
    _change(requirement, "condition", CONDITIONS)
    return requirement


def _phase(phase: dict[str, Any]) -> dict[str, Any]:
    _change(phase, "activity", ACTIVITIES)
    if isinstance(lines := phase.get("lines"), Mapping):
        phase["lines"] = {line: _of(ACTIVITIES, activity) for line, activity in lines.items()}
    return phase


def _transfer(transfer: dict[str, Any]) -> Any:
    transfer = _renamed(transfer, {"sink": "target"})
    _change(transfer, "source", ENDS)
    _change(transfer, "target", ENDS)
    return transfer


def _line(line: dict[str, Any]) -> Any:
    line = _renamed(line, {"stands_at": "position"})
    _change(line, "role", ROLES)
    return line


def _about(reminder: dict[str, Any]) -> dict[str, Any]:
    _change(reminder, "about", FUNCTIONS)
    return reminder


def _place(place: dict[str, Any]) -> Any:
    place = _renamed(place, PLACE_FIELDS)
    _change(place, "power", POWER_SOURCES)
    _change(place, "network", NETWORKS)
    return place


def _storage_use(storage_use: dict[str, Any]) -> dict[str, Any]:
    _change(storage_use, "when_full", {"oldest_goes": "deletes_oldest"})
    return storage_use


def _source(source: dict[str, Any]) -> Any:
    source = _renamed(source, SOURCE_FIELDS)
    _change(source, "power_source", POWER_SOURCES)
    return source


def _with_bases(value: Any) -> Any:
    """The same with the basis of every reading in it as it is called today."""
    if isinstance(value, dict):
        return {
            name: _of(BASES, entry) if name == "basis" else _with_bases(entry)
            for name, entry in value.items()
        }
    return value


def _of(names: Mapping[str, str], value: Any) -> Any:
    return names.get(value, value) if isinstance(value, str) else value


def _renamed(value: Any, names: Mapping[str, str]) -> Any:
    """A copy with fields renamed in place; where both names are there, both stay and the model
    refuses the former one.
    """
    if not isinstance(value, Mapping):
        return value
    return {
        names[name] if name in names and names[name] not in value else name: entry
        for name, entry in value.items()
    }


def _change(holder: Any, name: str, values: Mapping[str, str]) -> None:
    if isinstance(holder, dict) and name in holder:
        holder[name] = _of(values, holder[name])


def _one(holder: dict[str, Any], name: str, change: Callable[[dict[str, Any]], Any]) -> None:
    if isinstance(holder.get(name), Mapping):
        holder[name] = change(dict(holder[name]))


def _each(holder: dict[str, Any], name: str, change: Callable[[dict[str, Any]], Any]) -> None:
    entries = holder.get(name)
    if isinstance(entries, list | tuple):
        holder[name] = [
            change(dict(entry)) if isinstance(entry, Mapping) else entry for entry in entries
        ]


def _values(holder: dict[str, Any], name: str, change: Callable[[dict[str, Any]], Any]) -> None:
    entries = holder.get(name)
    if isinstance(entries, Mapping):
        holder[name] = {
            key: change(dict(entry)) if isinstance(entry, Mapping) else entry
            for key, entry in entries.items()
        }
