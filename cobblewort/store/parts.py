"""Parts in the store: every revision kept, the newest one in use."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from datetime import UTC, datetime
from typing import Any

from cobblewort.store.database import Database


class PartStore:
    """Reads and writes part documents."""

    def __init__(self, database: Database) -> None:
        self.database = database

    def bring_up_to_date(self, documents: Iterable[Mapping[str, Any]]) -> int:
        """Store documents that are new or have changed, as a next revision. Returns how many."""
        now = datetime.now(UTC).isoformat(timespec="seconds")
        changed = 0
        with self.database.writing() as connection:
            known = {
                row["id"]: row
                for row in connection.execute(
                    "SELECT id, max(revision) AS revision, document FROM part GROUP BY id"
                )
            }
            for document in documents:
                text = json.dumps(document, sort_keys=True)
                row = known.get(document["id"])
                if row is not None and row["document"] == text:
                    continue
                connection.execute(
                    "INSERT INTO part (id, revision, document, created_at) "
                    "VALUES (:id, :revision, :document, :now)",
                    {
                        "id": document["id"],
                        "revision": 1 if row is None else row["revision"] + 1,
                        "document": text,
                        "now": now,
                    },
                )
                changed += 1
        return changed

    def documents(self) -> list[dict[str, Any]]:
        """The newest document of every part, by id, with its revision."""
        with self.database.reading() as connection:
            rows = connection.execute(
                "SELECT document, max(revision) AS revision FROM part GROUP BY id ORDER BY id"
            ).fetchall()
        return [{**json.loads(row["document"]), "revision": row["revision"]} for row in rows]
