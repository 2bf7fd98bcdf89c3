"""What fields and choices are called, wherever a person reads them: the one table of labels.

The page gets it as `web/src/api/labels.ts`, which `make types` writes.
"""

from __future__ import annotations

SEVERITIES: dict[str, str] = {
    "ok": "OK",
    "note": "Note",
    "tight": "Tight",
    "problem": "Problem",
}
STATUSES: dict[str, str] = {
    "planning": "Planning",
    "ordered": "Ordered",
    "built": "Built",
    "tested": "Tested",
}
ROLES: dict[str, str] = {
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
KINDS: dict[str, tuple[str, str]] = {
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
HELD_BY: dict[str, str] = {
    "screws": "Screws",
    "glue": "Glue",
    "tape": "Tape",
    "clips": "Clips",
    "compartment": "A compartment",
    "nothing": "Nothing",
}
"""What holds a board in its case."""
LOADS: dict[str, str] = {
    "off": "Off",
    "idle": "Idle",
    "light": "Light",
    "normal": "Normal",
    "full": "Full",
}
POWER_SOURCES: dict[str, str] = {
    "mains": "Mains",
    "poe": "PoE",
    "vehicle": "Vehicle",
    "battery": "Battery",
    "solar": "Solar",
    "machine": "Another machine",
}
LATITUDES: dict[float, str] = {
    35: "Up to 35° north",
    45: "35° to 45° (Mediterranean)",
    50: "45° to 50° (Alps)",
    55: "50° to 55° (North Sea)",
    60: "55° to 60° (Baltic)",
    66.5: "Farther north",
    -35: "Up to 35° south",
    -45: "35° to 45° south",
    -55: "Farther south",
}
"""The darker end of each band."""
POWER_AT: dict[str, str] = {
    "mains": "mains",
    "poe": "PoE",
    "vehicle": "vehicle power",
    "battery": "battery power",
    "solar": "solar power",
    "machine": "power from another machine",
}
"""What a location has, as it stands in a sentence."""
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
ENDS: dict[str, str] = {
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
BASES: dict[str, str] = {
    "datasheet": "datasheet",
    "measured": "measured",
    "typical": "typical value",
    "estimate": "estimate",
    "standard": "standard",
    "plan": "this plan",
    "calculated": "calculated",
}
FILE_SYSTEMS: dict[str, str] = {
    "native": "The system's own",
    "checksummed": "With checksums",
    "exchange": "Exchange format (readable by every computer)",
}
WHEN_FULL: dict[str, str] = {
    "stops": "Does not save new files",
    "deletes_oldest": "Deletes the oldest files",
}
WRITES: dict[str, str] = {
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
    "in_kit": "On another drive of this kit",
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
PROTOCOLS: dict[str, str] = {
    "newer": "Shared folder (newer protocol)",
    "older": "Shared folder (older protocol)",
    "transfer": "Plain copy",
}
WORD_SIZES: dict[str, str] = {"32": "32 bits", "64": "64 bits"}
WIRED_KINDS: dict[str, str] = {"led": "LED", "button": "Button"}
ARRAY_LAYOUTS: dict[str, str] = {
    "separate": "separate disks",
    "stripe": "stripe (RAID 0)",
    "mirror": "mirror (RAID 1)",
    "striped_mirrors": "striped mirrors (RAID 10)",
    "parity": "parity (RAID 5)",
    "double_parity": "double parity (RAID 6)",
}
