"""Keeps how its owner wants the program to look: one document."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Mapping
from contextlib import closing
from pathlib import Path
from typing import Any

from cobblewort.store.database import Database


class PreferenceStore:
    """What was chosen, by name; what nobody chose is not in it."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def read(self) -> dict[str, Any]:
        """All that was chosen."""
        with self._database.reading() as connection:
            row = connection.execute("SELECT document FROM preference").fetchone()
        return _chosen(row)

    def change(self, chosen: Mapping[str, Any]) -> None:
        """Keep these beside what was chosen before; of two writers none is lost."""
        with self._database.writing() as connection:
            row = connection.execute("SELECT document FROM preference").fetchone()
            before = _chosen(row)
            connection.execute(
                "INSERT INTO preference (one, document) VALUES (1, ?) ON CONFLICT (one) DO "
                "UPDATE SET document = excluded.document",
                (json.dumps({**before, **chosen}),),
            )


def preferences_in(data_file: Path) -> dict[str, Any]:
    """All that was chosen in a data file that is only looked at; nothing where it is none, or of a
    version before preferences.
    """
    try:
        with closing(
            sqlite3.connect(f"{data_file.absolute().as_uri()}?mode=ro", uri=True)
        ) as found:
            row = found.execute("SELECT document FROM preference").fetchone()
        return _chosen(row)
    except (sqlite3.Error, ValueError):
        return {}


def _chosen(row: Any) -> dict[str, Any]:
    """What a row holds; what is none of ours counts as nothing chosen."""
    document = {} if row is None else json.loads(row[0])
    return document if isinstance(document, dict) else {}
