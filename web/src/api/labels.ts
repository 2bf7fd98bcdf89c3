/** Labels of fields and choices. Written by `make types` from cobblewort/core/labels.py. */

export const SEVERITIES = {
  "ok": "OK",
  "note": "Note",
  "tight": "Tight",
  "problem": "Problem"
} as const;

export const STATUSES = {
  "planning": "Planning",
  "ordered": "Ordered",
  "built": "Built",
  "tested": "Tested"
} as const;

export const ROLES = {
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
  "other_equipment": "Other equipment"
} as const;

export const KINDS = {
  "board": [
    "Boards",
    "board"
  ],
  "power_supply": [
    "Power supplies",
    "power supply"
  ],
  "cable": [
    "Cables",
    "cable"
  ],
  "hub": [
    "Hubs",
    "hub"
  ],
  "card": [
    "Memory cards",
    "memory card"
  ],
  "drive": [
    "Drives",
    "drive"
  ],
  "storage_adapter": [
    "Storage adapters",
    "storage adapter"
  ],
  "device": [
    "Add-on boards and USB adapters",
    "add-on"
  ],
  "cooler": [
    "Coolers",
    "cooler"
  ],
  "case": [
    "Cases",
    "case"
  ],
  "fastener": [
    "Fasteners",
    "set of fasteners"
  ],
  "tool": [
    "Needed for set-up",
    "set-up tool"
  ],
  "machine": [
    "Other equipment",
    "other equipment"
  ]
} as const;

export const LOADS = {
  "off": "Off",
  "idle": "Idle",
  "light": "Light",
  "normal": "Normal",
  "full": "Full"
} as const;

export const POWER_SOURCES = {
  "mains": "Mains",
  "poe": "PoE",
  "vehicle": "Vehicle",
  "battery": "Battery",
  "solar": "Solar"
} as const;

export const NETWORKS = {
  "both": "Ethernet and Wi-Fi",
  "ethernet": "Ethernet only",
  "wifi": "Wi-Fi only",
  "none": "None"
} as const;

export const DUST = {
  "clean": "No dust",
  "some": "Some dust",
  "much": "Much dust"
} as const;

export const MOUNTINGS = {
  "table": "Flat on a surface",
  "feet": "On feet",
  "hung": "Hung, free on all sides"
} as const;

export const REACH = {
  "nobody": "Nobody",
  "adults": "Adults",
  "children": "Adults and children"
} as const;

export const ENDS = {
  "storage": "Storage",
  "boot_drive": "Boot drive",
  "network": "Network",
  "wifi": "Wi-Fi",
  "access_point": "Wi-Fi access point",
  "camera": "Camera",
  "audio_in": "Audio input",
  "video_in": "Video input",
  "sdr": "SDR",
  "program": "Program on the board"
} as const;

export const BASES = {
  "datasheet": "datasheet",
  "measured": "measured",
  "typical": "typical value",
  "estimate": "estimate",
  "standard": "standard",
  "plan": "this plan",
  "calculated": "calculated"
} as const;

export const FILE_SYSTEMS = {
  "native": "The system's own",
  "checksummed": "With checksums",
  "exchange": "Exchange format (readable by every computer)"
} as const;

export const WHEN_FULL = {
  "stops": "Does not save new files",
  "deletes_oldest": "Deletes the oldest files"
} as const;

export const WRITES = {
  "logger": "Logger",
  "hub": "Hub with a database",
  "light": "Console, sign or receiver",
  "server": "Server",
  "games": "Games"
} as const;

export const REQUIREMENT_STATUSES = {
  "met": "Met",
  "met_if": "Met if",
  "not_met": "Not met",
  "not_checked": "Not checked"
} as const;

export const BACKUP_PLACES = {
  "here": "At the same location",
  "same_house": "Elsewhere in the building",
  "elsewhere": "In another building"
} as const;

export const BACKUP_DRIVES = {
  "disk": "Hard disk",
  "solid_state": "SSD",
  "card": "Memory card or USB drive",
  "somebody_elses": "Someone else's computer"
} as const;

export const PLACE_FIELDS = {
  "name": [
    "Location",
    ""
  ],
  "ambient_min_c": [
    "Lowest ambient",
    "°C"
  ],
  "ambient_max_c": [
    "Highest ambient",
    "°C"
  ],
  "altitude_m": [
    "Altitude",
    "m"
  ],
  "mounting": [
    "Mounting",
    ""
  ],
  "sun_w_m2": [
    "Peak sun",
    "W/m²"
  ],
  "wet": [
    "Gets wet",
    ""
  ],
  "dust": [
    "Dust",
    ""
  ],
  "noise_max_dba": [
    "Noise limit",
    "dB(A)"
  ],
  "network": [
    "Network",
    ""
  ],
  "within_reach_of": [
    "Within reach of",
    ""
  ],
  "power": [
    "Power source",
    ""
  ]
} as const;

export const PLAN_FIELDS = {
  "name": [
    "Name",
    ""
  ],
  "status": [
    "Status",
    ""
  ],
  "purpose": [
    "Purpose",
    ""
  ],
  "budget": [
    "Budget",
    ""
  ],
  "currency": [
    "Currency",
    ""
  ],
  "rates": [
    "Exchange rates",
    ""
  ],
  "copies": [
    "Number of copies",
    ""
  ],
  "schedule": [
    "Daily schedule",
    ""
  ],
  "requirements": [
    "Requirements",
    ""
  ],
  "transfers": [
    "Transfers",
    ""
  ],
  "image": [
    "Operating system image",
    ""
  ],
  "ready_made": [
    "Ready-made alternative",
    ""
  ]
} as const;

export const SETTING_FIELDS = {
  "lift_port_limit": [
    "Lift the USB port limit",
    ""
  ],
  "push_slot": [
    "Run the drive slot above its certified rate",
    ""
  ],
  "read_only_root": [
    "Read-only root file system",
    ""
  ],
  "logs_in_memory": [
    "Keep logs in memory",
    ""
  ]
} as const;

export const LAYOUTS = {
  "separate": "separate disks",
  "stripe": "stripe (RAID 0)",
  "mirror": "mirror (RAID 1)",
  "striped_mirrors": "striped mirrors (RAID 10)",
  "parity": "parity (RAID 5)",
  "double_parity": "double parity (RAID 6)"
} as const;
