"""Parts in the store: every revision kept, the newest one in use."""

from __future__ import annotations

import json
import secrets
import sqlite3
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from cobblewort.core.plans.former_names import current_part
from cobblewort.store.database import Database

Document = dict[str, Any]


class PartNotFoundError(LookupError):
    """There is no part with this id."""


class NotCustomError(Exception):
    """A part that came with a pack is not edited; it is copied."""


class StalePartError(Exception):
    """A part has changed since the revision that a write was made from."""


@dataclass(slots=True, frozen=True)
class StoredPart:
    """The newest revision of a part. `document` carries its revision and origin."""

    id: str
    revision: int
    own: bool
    away: bool
    document: Document


class PartStore:
    """Reads and writes part documents."""

    def __init__(self, database: Database) -> None:
        self.database = database

    def bring_up_to_date(self, documents: Iterable[Mapping[str, Any]]) -> int:
        """Store documents that are new or have changed, as a next revision. Returns how many."""
        changed = 0
        with self.database.writing() as connection:
            known = {row["id"]: row for row in connection.execute(_NEWEST)}
            for document in documents:
                row = known.get(document["id"])
                if row is not None and _read_text(row["document"]) == json.loads(_text(document)):
                    continue
                revision = 1 if row is None else row["revision"] + 1
                _insert(connection, document["id"], revision, document, "pack")
                changed += 1
        return changed

    def all(self) -> list[StoredPart]:
        """Every part at its newest revision, by id."""
        with self.database.reading() as connection:
            return [_stored(row) for row in connection.execute(f"{_NEWEST} ORDER BY id")]

    def text(self, part_id: str) -> str:
        """The newest document of a part as it is kept. Raises PartNotFoundError."""
        with self.database.reading() as connection:
            row = connection.execute(f"{_NEWEST} HAVING id = :id", {"id": part_id}).fetchone()
        if row is None:
            raise PartNotFoundError(part_id)
        return str(row["document"])

    def get(self, part_id: str) -> StoredPart:
        """One part at its newest revision. Raises PartNotFoundError."""
        with self.database.reading() as connection:
            return _read(connection, part_id)

    def older(self) -> dict[tuple[str, int], Document]:
        """The documents of all revisions before the newest, by id and number."""
        with self.database.reading() as connection:
            rows = connection.execute(
                "SELECT id, revision, origin, document FROM part AS one WHERE revision < "
                "(SELECT max(revision) FROM part WHERE part.id = one.id)"
            ).fetchall()
        return {(row["id"], row["revision"]): _document(row) for row in rows}

    def older_of(self, part_id: str) -> dict[tuple[str, int], Document]:
        """The documents of the revisions of one part before its newest, by id and number."""
        with self.database.reading() as connection:
            rows = connection.execute(
                "SELECT id, revision, origin, document FROM part WHERE id = :id AND revision < "
                "(SELECT max(revision) FROM part WHERE id = :id)",
                {"id": part_id},
            ).fetchall()
        return {(row["id"], row["revision"]): _document(row) for row in rows}

    def create(self, document: Mapping[str, Any]) -> StoredPart:
        """Store a part of one's own under a fresh id."""
        new_id = f"own-{secrets.token_hex(4)}"
        with self.database.writing() as connection:
            _insert(connection, new_id, 1, {**document, "id": new_id}, "own")
            return _read(connection, new_id)

    def save(self, part_id: str, revision: int, document: Mapping[str, Any]) -> StoredPart:
        """Store the next revision of a part of one's own, made from `revision`.

        Raises
        ------
        PartNotFoundError
            If there is no such part.
        NotOwnError
            If it came with a pack.
        StalePartError
            If it is at another revision; nothing is written.
        """
        with self.database.writing() as connection:
            now = _own(connection, part_id)
            if now.revision != revision:
                raise StalePartError(part_id)
            _insert(connection, part_id, revision + 1, {**document, "id": part_id}, "own")
            return _read(connection, part_id)

    def import_all(self, documents: Iterable[Mapping[str, Any]]) -> int:
        """Store parts of a pack as parts of one's own, under the ids that they have: new ones, and
        the next revision of those that are there. All of them or none; returns how many changed.

        Raises
        ------
        NotOwnError
            If one of them ships with the program; nothing is written.
        """
        changed = 0
        with self.database.writing() as connection:
            known = {row["id"]: row for row in connection.execute(_NEWEST)}
            for document in documents:
                part_id = document["id"]
                row = known.get(part_id)
                if row is not None and row["origin"] != "own":
                    raise NotCustomError(part_id)
                connection.execute("DELETE FROM part_away WHERE id = :id", {"id": part_id})
                if row is None or _read_text(row["document"]) != json.loads(_kept_text(document)):
                    revision = 1 if row is None else row["revision"] + 1
                    _insert(connection, part_id, revision, document, "own")
                    changed += 1
        return changed

    def bin(self, part_id: str, revision: int) -> None:
        """Offer a part of one's own no more, as it was at `revision`; plans keep it. Raises as
        `save`.
        """
        with self.database.writing() as connection:
            if _own(connection, part_id).revision != revision:
                raise StalePartError(part_id)
            connection.execute(
                "INSERT OR IGNORE INTO part_away (id, away_at) VALUES (:id, :now)",
                {"id": part_id, "now": _now()},
            )

    def restore(self, part_id: str) -> StoredPart:
        """Offer a part again. Raises PartNotFoundError."""
        with self.database.writing() as connection:
            connection.execute("DELETE FROM part_away WHERE id = :id", {"id": part_id})
            return _read(connection, part_id)


_NEWEST = (
    "SELECT id, max(revision) AS revision, origin, document, EXISTS (SELECT 1 FROM part_away "
    "WHERE part_away.id = part.id) AS away FROM part GROUP BY id"
)
"""SQLite takes the other columns from the row that holds the maximum."""


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")


def _text(document: Mapping[str, Any]) -> str:
    return json.dumps(document, sort_keys=True)


def _document(row: sqlite3.Row) -> Document:
    origin = _ORIGINS.get(row["origin"], row["origin"])
    stated = {**_read_text(row["document"]), "id": row["id"]}
    return {**stated, "revision": row["revision"], "origin": origin}


def _read_text(text: str) -> Document:
    """A stored document with the names of today; an empty one of what is none."""
    try:
        document = current_part(json.loads(text))
    except (ValueError, RecursionError):
        return {}
    return document if isinstance(document, dict) else {}


_ORIGINS = {"own": "custom"}
"""Origins as the core calls them, by what the table holds."""


def _stored(row: sqlite3.Row) -> StoredPart:
    return StoredPart(
        row["id"], row["revision"], row["origin"] == "own", bool(row["away"]), _document(row)
    )


def _read(connection: sqlite3.Connection, part_id: str) -> StoredPart:
    row = connection.execute(f"{_NEWEST} HAVING id = :id", {"id": part_id}).fetchone()
    if row is None:
        raise PartNotFoundError(part_id)
    return _stored(row)


def _own(connection: sqlite3.Connection, part_id: str) -> StoredPart:
    stored = _read(connection, part_id)
    if not stored.own:
        raise NotCustomError(part_id)
    return stored


def _kept_text(document: Mapping[str, Any]) -> str:
    """A document without what the store adds."""
    return _text({name: value for name, value in document.items() if name not in _ADDED})


_ADDED = ("revision", "origin")


def _insert(
    connection: sqlite3.Connection,
    part_id: str,
    revision: int,
    document: Mapping[str, Any],
    origin: str,
) -> None:
    connection.execute(
        "INSERT INTO part (id, revision, document, created_at, origin) "
        "VALUES (:id, :revision, :document, :now, :origin)",
        {
            "id": part_id,
            "revision": revision,
            "document": _kept_text(document),
            "now": _now(),
            "origin": origin,
        },
    )
