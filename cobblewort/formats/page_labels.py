"""Writes the table of labels as the page reads it."""

import json
import sys
from dataclasses import asdict
from pathlib import Path
from typing import Any

from cobblewort.core import labels
from cobblewort.core.plans.fields import FORMS, fields_of
from cobblewort.core.verdict.report import ASPECTS

_HEAD = (
    "/** Labels of fields and choices. Written by `make types` from cobblewort/core/labels.py and\n"
    " * cobblewort/core/plans/fields.py. */\n"
)
_TABLES = (
    "SEVERITIES",
    "STATUSES",
    "ROLES",
    "KINDS",
    "HELD_BY",
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
    "ARRAY_LAYOUTS",
    "REQUIREMENT_STATUSES",
    "BACKUP_PLACES",
    "BACKUP_DRIVES",
)


def labels_text() -> str:
    """The module `web/src/api/labels.ts`."""
    tables = {name: getattr(labels, name) for name in _TABLES}
    tables["FAMILIES"] = {one.id: one.label for one in ASPECTS if one.id == one.family}
    tables["FIELDS"] = {form: _rows(form) for form in FORMS}
    return _HEAD + "".join(
        f"\nexport const {name} = {json.dumps(table, indent=2, ensure_ascii=False)} as const;\n"
        for name, table in tables.items()
    )


def _rows(form: str) -> dict[str, dict[str, Any]]:
    return {name: asdict(field) for name, field in fields_of(form).items()}


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(labels_text(), encoding="utf-8")
