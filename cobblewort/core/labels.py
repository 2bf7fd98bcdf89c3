"""What fields and choices are called, wherever a person reads them: the one table of labels.

The page gets it as `web/src/api/labels.ts`, which `make types` writes.
"""

from __future__ import annotations

from typing import get_args

from cobblewort.core.figures.reading import Basis
from cobblewort.core.judging.margin import Severity
from cobblewort.core.parts.model import Feed, Kind
from cobblewort.core.plans.plan import (
    Activity,
    Condition,
    End,
    FileSystem,
    Layout,
    PlanStatus,
    Role,
    Writes,
)

SEVERITIES: dict[Severity, str] = {
    "ok": "OK",
    "note": "Note",
    "tight": "Tight",
    "problem": "Problem",
}
STATUSES: dict[PlanStatus, str] = {
    "planning": "Planning",
    "ordered": "Ordered",
    "built": "Built",
    "tested": "Tested",
}
ROLES: dict[Role, str] = {
    "board": "Board",
    "power_supply": "Power supply",
    "boot_drive": "Boot drive",
    "storage": "Storage",
    "add_on": "Add-ons",
    "cooling": "Cooling",
    "case": "Case",
    "cable": "Cables",
    "fastener": "Fasteners",
    "set_up": "Needed for set-up",
    "other_equipment": "Other equipment",
}
KINDS: dict[Kind, tuple[str, str]] = {
    "board": ("Boards", "board"),
    "power_supply": ("Power supplies", "power supply"),
    "cable": ("Cables", "cable"),
    "hub": ("Hubs", "hub"),
    "card": ("Memory cards", "memory card"),
    "drive": ("Drives", "drive"),
    "storage_adapter": ("Storage adapters", "storage adapter"),
    "device": ("Add-on boards and USB adapters", "add-on"),
    "cooler": ("Coolers", "cooler"),
    "case": ("Cases", "case"),
    "fastener": ("Fasteners", "set of fasteners"),
    "tool": ("Needed for set-up", "set-up tool"),
    "machine": ("Other equipment", "other equipment"),
}
"""Kinds of part, many and one."""
LOADS: dict[Activity, str] = {
    "off": "Off",
    "idle": "Idle",
    "light": "Light",
    "normal": "Normal",
    "full": "Full",
}
POWER_SOURCES: dict[Feed, str] = {
    "mains": "Mains",
    "poe": "PoE",
    "vehicle": "Vehicle",
    "battery": "Battery",
    "solar": "Solar",
}
NETWORKS: dict[str, str] = {
    "both": "Ethernet and Wi-Fi",
    "ethernet": "Ethernet only",
    "wifi": "Wi-Fi only",
    "none": "None",
}
DUST: dict[str, str] = {"clean": "No dust", "some": "Some dust", "much": "Much dust"}
MOUNTINGS: dict[str, str] = {
    "table": "Flat on a surface",
    "feet": "On feet",
    "hung": "Hung, free on all sides",
}
REACH: dict[str, str] = {
    "nobody": "Nobody",
    "adults": "Adults",
    "children": "Adults and children",
}
ENDS: dict[End, str] = {
    "storage": "Storage",
    "boot_drive": "Boot drive",
    "network": "Network",
    "wifi": "Wi-Fi",
    "access_point": "Wi-Fi access point",
    "camera": "Camera",
    "audio_in": "Audio input",
    "video_in": "Video input",
    "sdr": "SDR",
    "program": "Program on the board",
}
BASES: dict[Basis | str, str] = {
    "datasheet": "datasheet",
    "measured": "measured",
    "typical": "typical value",
    "estimate": "estimate",
    "standard": "standard",
    "plan": "this plan",
    "calculated": "calculated",
}
FILE_SYSTEMS: dict[FileSystem, str] = {
    "native": "The system's own",
    "checksummed": "With checksums",
    "exchange": "Exchange format (readable by every computer)",
}
WHEN_FULL: dict[str, str] = {
    "stops": "Does not save new files",
    "deletes_oldest": "Deletes the oldest files",
}
WRITES: dict[Writes, str] = {
    "logger": "Logger",
    "hub": "Hub with a database",
    "light": "Console, sign or receiver",
    "server": "Server",
    "games": "Games",
}
REQUIREMENT_STATUSES: dict[str, str] = {
    "met": "Met",
    "met_if": "Met if",
    "not_met": "Not met",
    "not_checked": "Not checked",
}
BACKUP_PLACES: dict[str, str] = {
    "here": "At the same location",
    "same_house": "Elsewhere in the building",
    "elsewhere": "In another building",
}
BACKUP_DRIVES: dict[str, str] = {
    "disk": "Hard disk",
    "solid_state": "SSD",
    "card": "Memory card or USB drive",
    "somebody_elses": "Someone else's computer",
}
PLACE_FIELDS: dict[str, tuple[str, str]] = {
    "name": ("Location", ""),
    "ambient_min_c": ("Lowest ambient", "°C"),
    "ambient_max_c": ("Highest ambient", "°C"),
    "altitude_m": ("Altitude", "m"),
    "mounting": ("Mounting", ""),
    "sun_w_m2": ("Peak sun", "W/m²"),
    "wet": ("Gets wet", ""),
    "dust": ("Dust", ""),
    "noise_max_dba": ("Noise limit", "dB(A)"),
    "network": ("Network", ""),
    "within_reach_of": ("Within reach of", ""),
    "power": ("Power source", ""),
}
"""Fields of a location: label and unit."""
PLAN_FIELDS: dict[str, tuple[str, str]] = {
    "name": ("Name", ""),
    "status": ("Status", ""),
    "purpose": ("Purpose", ""),
    "budget": ("Budget", ""),
    "currency": ("Currency", ""),
    "rates": ("Exchange rates", ""),
    "copies": ("Number of copies", ""),
    "schedule": ("Daily schedule", ""),
    "requirements": ("Requirements", ""),
    "transfers": ("Transfers", ""),
    "image": ("Operating system image", ""),
    "ready_made": ("Ready-made alternative", ""),
}
SETTING_FIELDS: dict[str, tuple[str, str]] = {
    "lift_port_limit": ("Lift the USB port limit", ""),
    "push_slot": ("Run the drive slot above its certified rate", ""),
    "read_only_root": ("Read-only root file system", ""),
    "logs_in_memory": ("Keep logs in memory", ""),
}


def complete() -> bool:
    """Whether each choice of the models has its label; a test asks."""
    tables = (
        (SEVERITIES, Severity),
        (STATUSES, PlanStatus),
        (ROLES, Role),
        (KINDS, Kind),
        (LOADS, Activity),
        (POWER_SOURCES, Feed),
        (ENDS, End),
        (FILE_SYSTEMS, FileSystem),
        (WRITES, Writes),
    )
    return all(set(table) == set(get_args(kind)) for table, kind in tables) and bool(
        get_args(Layout) and get_args(Condition)
    )
