/** Labels of fields and choices. Written by `make types` from cobblewort/core/labels.py and
 * cobblewort/core/plans/fields.py. */

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

export const HELD_BY = {
  "screws": "Screws",
  "glue": "Glue",
  "tape": "Tape",
  "clips": "Clips",
  "compartment": "A compartment",
  "nothing": "Nothing"
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
  "solar": "Solar",
  "machine": "Another machine"
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

export const ARRAY_LAYOUTS = {
  "separate": "separate disks",
  "stripe": "stripe (RAID 0)",
  "mirror": "mirror (RAID 1)",
  "striped_mirrors": "striped mirrors (RAID 10)",
  "parity": "parity (RAID 5)",
  "double_parity": "double parity (RAID 6)"
} as const;

export const REQUIREMENT_STATUSES = {
  "met": "Met",
  "met_if": "Met if",
  "not_met": "Not met",
  "not_checked": "Not checked"
} as const;

export const BACKUP_PLACES = {
  "in_kit": "On another drive of this kit",
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

export const FAMILIES = {
  "purpose": "Purpose",
  "fit": "Fit",
  "power": "Power",
  "heat": "Heat",
  "data": "Data",
  "lifetime": "Lifetime",
  "cost": "Cost",
  "noise": "Noise",
  "safety": "Cautions"
} as const;

export const FIELDS = {
  "plan": {
    "name": {
      "label": "Name",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 120
    },
    "status": {
      "label": "Status",
      "unit": "",
      "control": "choice",
      "choices": {
        "planning": "Planning",
        "ordered": "Ordered",
        "built": "Built",
        "tested": "Tested"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "purpose": {
      "label": "Purpose",
      "unit": "",
      "control": "lines",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 1000
    },
    "budget": {
      "label": "Budget",
      "unit": "",
      "control": "money",
      "choices": {},
      "named": {},
      "empty": "No limit",
      "example": "250",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": 0.0,
      "above": null,
      "most": null,
      "longest": null
    },
    "currency": {
      "label": "Currency",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "EUR",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "rates": {
      "label": "Exchange rates",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "USD 0.92; GBP 1.17",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "copies": {
      "label": "Number of copies",
      "unit": "",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": true,
      "least": 1,
      "above": null,
      "most": 100,
      "longest": null
    },
    "schedule": {
      "label": "Daily schedule",
      "unit": "",
      "control": "list",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "requirements": {
      "label": "Requirements",
      "unit": "",
      "control": "list",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "transfers": {
      "label": "Transfers",
      "unit": "",
      "control": "list",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "image": {
      "label": "Operating system image",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "ready_made": {
      "label": "Ready-made alternative",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    }
  },
  "place": {
    "name": {
      "label": "Location",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 200
    },
    "ambient_min_c": {
      "label": "Lowest ambient",
      "unit": "°C",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": -60,
      "above": null,
      "most": 90,
      "longest": null
    },
    "ambient_max_c": {
      "label": "Highest ambient",
      "unit": "°C",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "28",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": -60,
      "above": null,
      "most": 90,
      "longest": null
    },
    "altitude_m": {
      "label": "Altitude",
      "unit": "m",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": -400,
      "above": null,
      "most": 9000,
      "longest": null
    },
    "mounting": {
      "label": "Mounting",
      "unit": "",
      "control": "choice",
      "choices": {
        "table": "Flat on a surface",
        "feet": "On feet",
        "hung": "Hung, free on all sides"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "sun_w_m2": {
      "label": "Peak sun",
      "unit": "W/m²",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "800",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": 0,
      "above": null,
      "most": 1400,
      "longest": null
    },
    "wet": {
      "label": "Gets wet",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "rain, splashes or condensation",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "dust": {
      "label": "Dust",
      "unit": "",
      "control": "choice",
      "choices": {
        "clean": "No dust",
        "some": "Some dust",
        "much": "Much dust"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "noise_max_dba": {
      "label": "Noise limit at 1 m",
      "unit": "dB(A)",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "No limit",
      "example": "25",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 140,
      "longest": null
    },
    "network": {
      "label": "Network",
      "unit": "",
      "control": "choice",
      "choices": {
        "both": "Ethernet and Wi-Fi",
        "ethernet": "Ethernet only",
        "wifi": "Wi-Fi only",
        "none": "None"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "within_reach_of": {
      "label": "Within reach of",
      "unit": "",
      "control": "choice",
      "choices": {
        "nobody": "Nobody",
        "adults": "Adults",
        "children": "Adults and children"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "power": {
      "label": "Power source",
      "unit": "",
      "control": "choice",
      "choices": {
        "mains": "Mains",
        "poe": "PoE",
        "vehicle": "Vehicle",
        "battery": "Battery",
        "solar": "Solar",
        "machine": "Another machine"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "latitude_deg": {
      "label": "Latitude",
      "unit": "°",
      "control": "number",
      "choices": {},
      "named": {
        "35": "Up to 35° north",
        "45": "35° to 45° (Mediterranean)",
        "50": "45° to 50° (Alps)",
        "55": "50° to 55° (North Sea)",
        "60": "55° to 60° (Baltic)",
        "66.5": "Farther north",
        "-35": "Up to 35° south",
        "-45": "35° to 45° south",
        "-55": "Farther south"
      },
      "empty": "50",
      "example": "52",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": -90,
      "above": null,
      "most": 90,
      "longest": null
    }
  },
  "settings": {
    "lift_port_limit": {
      "label": "Lift the USB port limit in the board settings",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "at your own risk: a power supply that cannot deliver the current shuts down",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "push_slot": {
      "label": "Run the drive slot above its certified rate",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "test it for a day first",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "read_only_root": {
      "label": "Read-only root file system",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "survives a power cut",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "logs_in_memory": {
      "label": "Keep logs in memory",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    }
  },
  "phase": {
    "name": {
      "label": "Name",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 60
    },
    "hours": {
      "label": "Hours",
      "unit": "h",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "2.5",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 24,
      "longest": null
    },
    "activity": {
      "label": "Load",
      "unit": "",
      "control": "choice",
      "choices": {
        "off": "Off",
        "idle": "Idle",
        "light": "Light",
        "normal": "Normal",
        "full": "Full"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    }
  },
  "transfer": {
    "text": {
      "label": "Name",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "rehearsal to the office",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 120
    },
    "source": {
      "label": "From",
      "unit": "",
      "control": "choice",
      "choices": {
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
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "target": {
      "label": "To",
      "unit": "",
      "control": "choice",
      "choices": {
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
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "amount_gb": {
      "label": "Amount each time",
      "unit": "GB",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "27.6",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 1000000.0,
      "longest": null
    },
    "within_min": {
      "label": "Time limit (optional)",
      "unit": "min",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "20",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 1000000.0,
      "longest": null
    },
    "least_mb_s": {
      "label": "Minimum rate (optional)",
      "unit": "MB/s",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "80",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 100000.0,
      "longest": null
    },
    "file_mb": {
      "label": "File size (if small)",
      "unit": "MB",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "4",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 1000000.0,
      "longest": null
    },
    "runs_a_day": {
      "label": "How often",
      "unit": "per day",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "0",
      "example": "0.3",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": 0,
      "above": null,
      "most": 86400,
      "longest": null
    },
    "stream_mb_s": {
      "label": "Rate of one stream",
      "unit": "MB/s",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "3.1",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 100000.0,
      "longest": null
    },
    "at_once": {
      "label": "Number of streams",
      "unit": "",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": true,
      "least": 1,
      "above": null,
      "most": 1000,
      "longest": null
    },
    "hours_a_day": {
      "label": "Hours per day",
      "unit": "h",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "6",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 24,
      "longest": null
    },
    "protocol": {
      "label": "Network protocol",
      "unit": "",
      "control": "choice",
      "choices": {
        "newer": "Shared folder (newer protocol)",
        "older": "Shared folder (older protocol)",
        "transfer": "Plain copy"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "during": {
      "label": "At the same time as the phase",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "On its own",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 60
    },
    "stays": {
      "label": "Data stays in the kit",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    }
  },
  "storage_use": {
    "layout": {
      "label": "Array layout",
      "unit": "",
      "control": "choice",
      "choices": {
        "separate": "separate disks",
        "stripe": "stripe (RAID 0)",
        "mirror": "mirror (RAID 1)",
        "striped_mirrors": "striped mirrors (RAID 10)",
        "parity": "parity (RAID 5)",
        "double_parity": "double parity (RAID 6)"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "file_system": {
      "label": "File system",
      "unit": "",
      "control": "choice",
      "choices": {
        "native": "The system's own",
        "checksummed": "With checksums",
        "exchange": "Exchange format (readable by every computer)"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "encrypted": {
      "label": "Encrypt the disks",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "read_elsewhere": {
      "label": "Other computers read the disk",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "unplugged from this kit",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "when_full": {
      "label": "When storage is full",
      "unit": "",
      "control": "choice",
      "choices": {
        "stops": "Does not save new files",
        "deletes_oldest": "Deletes the oldest files"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "growth_gb_month": {
      "label": "Growth",
      "unit": "GB per month",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "0",
      "example": "12",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": 0,
      "above": null,
      "most": 1000000.0,
      "longest": null
    }
  },
  "retention": {
    "years": {
      "label": "Required lifetime",
      "unit": "years",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "5",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 50,
      "longest": null
    },
    "writes": {
      "label": "Write pattern",
      "unit": "",
      "control": "choice",
      "choices": {
        "logger": "Logger",
        "hub": "Hub with a database",
        "light": "Console, sign or receiver",
        "server": "Server",
        "games": "Games"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "system_gb_day": {
      "label": "Measured writes",
      "unit": "GB per day",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "Typical",
      "example": "1.5",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": 0,
      "above": null,
      "most": 100000.0,
      "longest": null
    },
    "replaceable": {
      "label": "This data can be replaced",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "backups": {
      "label": "Backups",
      "unit": "",
      "control": "list",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    }
  },
  "backup": {
    "text": {
      "label": "Name",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "disk in the office",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 60
    },
    "place": {
      "label": "Location",
      "unit": "",
      "control": "choice",
      "choices": {
        "in_kit": "On another drive of this kit",
        "here": "At the same location",
        "same_house": "Elsewhere in the building",
        "elsewhere": "In another building"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "medium": {
      "label": "Drive",
      "unit": "",
      "control": "choice",
      "choices": {
        "disk": "Hard disk",
        "solid_state": "SSD",
        "card": "Memory card or USB drive",
        "somebody_elses": "Someone else's computer"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "every_days": {
      "label": "How often",
      "unit": "days",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "7",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 3650,
      "longest": null
    }
  },
  "image": {
    "name": {
      "label": "Image",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 120
    },
    "card_gb": {
      "label": "Size on the drive",
      "unit": "GB",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "8",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 10000,
      "longest": null
    },
    "memory_gb": {
      "label": "Memory needed",
      "unit": "GB",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "0.5",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 1000,
      "longest": null
    },
    "families": {
      "label": "Board families",
      "unit": "",
      "control": "list",
      "choices": {},
      "named": {},
      "empty": "Not known",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "bits": {
      "label": "Word size",
      "unit": "",
      "control": "choice",
      "choices": {
        "32": "32 bits",
        "64": "64 bits"
      },
      "named": {},
      "empty": "Not known",
      "example": "",
      "hint": "",
      "is_optional": true,
      "whole": true,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "desktop": {
      "label": "With a desktop",
      "unit": "",
      "control": "check",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    }
  },
  "wired": {
    "kind": {
      "label": "Type",
      "unit": "",
      "control": "choice",
      "choices": {
        "led": "LED",
        "button": "Button"
      },
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    },
    "label": {
      "label": "Name",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "red lamp",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": 60
    },
    "pin": {
      "label": "Pin",
      "unit": "",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": true,
      "least": 1,
      "above": null,
      "most": 40,
      "longest": null
    },
    "forward_v": {
      "label": "Forward voltage",
      "unit": "V",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "2.0",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 48,
      "longest": null
    },
    "current_ma": {
      "label": "Current",
      "unit": "mA",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "5",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 1000,
      "longest": null
    },
    "made_for_v": {
      "label": "Supply voltage on its label (optional)",
      "unit": "V",
      "control": "number",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "12",
      "hint": "",
      "is_optional": true,
      "whole": false,
      "least": null,
      "above": 0,
      "most": 48,
      "longest": null
    },
    "series": {
      "label": "Resistor series",
      "unit": "",
      "control": "text",
      "choices": {},
      "named": {},
      "empty": "",
      "example": "",
      "hint": "",
      "is_optional": false,
      "whole": false,
      "least": null,
      "above": null,
      "most": null,
      "longest": null
    }
  }
} as const;
