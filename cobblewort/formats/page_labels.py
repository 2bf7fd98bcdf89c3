"""Writes the table of labels as the page reads it."""

import json
import sys
from pathlib import Path

from cobblewort.core import labels
from cobblewort.core.aspects.data.arrays import LAYOUTS

_HEAD = (
    "/** Labels of fields and choices. Written by `make types` from cobblewort/core/labels.py. */\n"
)
_TABLES = (
    "SEVERITIES",
    "STATUSES",
    "ROLES",
    "KINDS",
    "LOADS",
    "POWER_SOURCES",
    "NETWORKS",
    "DUST",
    "MOUNTINGS",
    "REACH",
    "ENDS",
    "BASES",
    "FILE_SYSTEMS",
    "WHEN_FULL",
    "WRITES",
    "REQUIREMENT_STATUSES",
    "BACKUP_PLACES",
    "BACKUP_DRIVES",
    "PLACE_FIELDS",
    "PLAN_FIELDS",
    "SETTING_FIELDS",
)


def labels_text() -> str:
    """The module `web/src/api/labels.ts`."""
    tables = {name: getattr(labels, name) for name in _TABLES}
    tables["LAYOUTS"] = {layout: facts.label for layout, facts in LAYOUTS.items()}
    return _HEAD + "".join(
        f"\nexport const {name} = {json.dumps(table, indent=2, ensure_ascii=False)} as const;\n"
        for name, table in tables.items()
    )


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(labels_text(), encoding="utf-8")
