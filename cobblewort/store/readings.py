"""Readings of shipped files in the store, so that a start does not read them anew."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from cobblewort.store.database import Database


def reading_of(database: Database, file: str, text: str, read: Callable[[], Any]) -> Any:
    """What a file with this text was read as; `read` is asked where that is not kept.

    Raises
    ------
    TypeError
        If the reading holds what JSON cannot.
    """
    with database.reading() as connection:
        row = connection.execute(
            "SELECT document FROM reading WHERE file = :file AND text = :text",
            {"file": file, "text": text},
        ).fetchone()
    if row is not None:
        return json.loads(row["document"])
    found = read()
    with database.writing() as connection:
        connection.execute(
            "INSERT OR REPLACE INTO reading (file, text, document) VALUES (:file, :text, "
            ":document)",
            {"file": file, "text": text, "document": json.dumps(found)},
        )
    return found
