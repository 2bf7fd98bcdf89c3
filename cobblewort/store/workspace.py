"""The whole workspace as one file, and back: plans with every step, parts, and what is put away.

An archive is a ZIP with a copy of the database, made by SQLite itself so that it is whole while the
server runs, and a note of what it holds. The comment of the ZIP is the SHA-256 of all bytes before
it: whatever is damaged, the archive is refused before anything is touched.
"""

from __future__ import annotations

import hashlib
import io
import json
import sqlite3
import tempfile
import zipfile
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from cobblewort.core.errors import InputError
from cobblewort.store.database import Database, StoreError, migrations, reason_of

FORMAT = "cobblewort-workspace/1"
MAX_ARCHIVE_BYTES = 64_000_000
_MAX_DATA_BYTES = 400_000_000
_NOTE, _DATA = "workspace.json", "data.sqlite3"
_SEAL = "cobblewort sha256 "
_SEAL_BYTES = len(_SEAL) + 64
_EOCD_BYTES = 22
"""The end record of a ZIP without its comment."""


class ArchiveError(InputError):
    """A file is no whole archive of a workspace; `str()` says why."""

    def __init__(self, why: str) -> None:
        super().__init__([("", why)])


@dataclass(slots=True, frozen=True)
class Holdings:
    """What a workspace holds: names of plans, counts of steps and of parts of one's own."""

    plans: tuple[str, ...]
    steps: int
    custom_parts: int
    in_bin: int


@dataclass(slots=True, frozen=True)
class Archived:
    """An archive that is whole: when it was made, its schema, and what it holds."""

    made_at: str
    schema: int
    holds: Holdings


def archive(database: Database) -> bytes:
    """The whole workspace, as it is at this moment."""
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / _DATA
        with database.reading() as source, closing(sqlite3.connect(copy)) as target:
            source.backup(target)
            target.execute("PRAGMA journal_mode = DELETE")
            target.commit()
            target.execute("VACUUM")
        data = copy.read_bytes()
        holds, schema = _look_into(copy)
    note = {
        "format": FORMAT,
        "made_at": _now(),
        "schema": schema,
        "plans": len(holds.plans),
        "sha256": hashlib.sha256(data).hexdigest(),
    }
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr(_NOTE, json.dumps(note, indent=1))
        packed.writestr(_DATA, data)
        packed.comment = b" " * _SEAL_BYTES  # its length counts among what is sealed
    whole = buffer.getvalue()[:-_SEAL_BYTES]
    return whole + (_SEAL + hashlib.sha256(whole).hexdigest()).encode()


def look_at(content: bytes) -> Archived:
    """What an archive holds. Raises ArchiveError when it is not whole, or too new."""
    with tempfile.TemporaryDirectory() as folder:
        return _unpacked(content, Path(folder))[1]


def holdings(database: Database) -> Holdings:
    """What the workspace holds now."""
    with database.reading() as connection:
        return _holdings(connection)


def restore(database: Database, content: bytes) -> tuple[Archived, Path]:
    """Put an archive in the place of everything that is here; a copy of that is kept beside it.

    Returns what was restored, and where the copy is.

    Raises
    ------
    ArchiveError
        If the archive is not whole; nothing is changed.
    StoreError
        If the data file cannot be written; nothing is changed.
    """
    with tempfile.TemporaryDirectory() as folder:
        data, archived = _unpacked(content, Path(folder))
        Database(data).prepare()  # brings an older archive up to date, before anything is touched
        try:
            kept = database.keep_copy("restore")
            with closing(sqlite3.connect(data)) as source, closing(database.open()) as target:
                source.backup(target)
        except sqlite3.Error as error:
            raise StoreError(reason_of(error)) from error
    return archived, kept


def _unpacked(content: bytes, folder: Path) -> tuple[Path, Archived]:
    """The database of an archive in a folder, after everything about it was looked at."""
    if len(content) > MAX_ARCHIVE_BYTES:
        raise ArchiveError(f"The archive is larger than {MAX_ARCHIVE_BYTES // 10**6} MB.")
    whole, seal = content[:-_SEAL_BYTES], content[-_SEAL_BYTES:]
    if len(whole) < _EOCD_BYTES or not seal.startswith(_SEAL.encode()):
        raise ArchiveError("The archive is not complete: its end is missing. Nothing was changed.")
    if seal != (_SEAL + hashlib.sha256(whole).hexdigest()).encode():
        raise ArchiveError("The archive is damaged: its checksum is wrong. Nothing was changed.")
    data = folder / _DATA
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            note = json.loads(packed.read(_NOTE))
            if packed.getinfo(_DATA).file_size > _MAX_DATA_BYTES:
                raise ArchiveError("The archive is larger than a workspace can be.")
            data.write_bytes(packed.read(_DATA))
        holds, schema = _look_into(data)
        made_at = str(note["made_at"]) if note["format"] == FORMAT else None
    except (zipfile.BadZipFile, KeyError, ValueError, TypeError, sqlite3.Error) as error:
        raise ArchiveError(
            "This file is not an archive of a workspace. Nothing was changed."
        ) from error
    if made_at is None:
        raise ArchiveError(f"The archive has no format line {FORMAT}.")
    newest = migrations()[-1][0]
    if schema > newest:
        raise ArchiveError(
            f"The archive was made by a newer Cobblewort (schema {schema}, this one knows "
            f"{newest}). Use that version."
        )
    return data, Archived(made_at, schema, holds)


def _look_into(path: Path) -> tuple[Holdings, int]:
    """What a database holds, after a look through all of it. Raises sqlite3.Error."""
    with closing(sqlite3.connect(path)) as connection:
        connection.row_factory = sqlite3.Row
        if connection.execute("PRAGMA integrity_check(1)").fetchone()[0] != "ok":
            raise sqlite3.DatabaseError("malformed")
        return _holdings(connection), connection.execute("PRAGMA user_version").fetchone()[0]


def _holdings(connection: sqlite3.Connection) -> Holdings:
    names = connection.execute(
        "SELECT json_extract(document, '$.name') FROM plan JOIN plan_revision "
        "ON plan_revision.plan_id = plan.id AND plan_revision.number = plan.head "
        "WHERE deleted_at IS NULL ORDER BY plan.created_at, plan.rowid"
    ).fetchall()

    def count(query: str) -> int:
        return int(connection.execute(query).fetchone()[0])

    return Holdings(
        tuple(str(row[0]) for row in names),
        count("SELECT count(*) FROM plan_revision"),
        count("SELECT count(DISTINCT id) FROM part WHERE origin = 'own'"),
        count("SELECT count(*) FROM plan WHERE deleted_at IS NOT NULL"),
    )


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
