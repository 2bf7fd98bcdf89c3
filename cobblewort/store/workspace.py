"""The whole workspace: what it holds, and an archive put in its place."""

from __future__ import annotations

import os
import secrets
import shutil
import sqlite3
import tempfile
from collections.abc import Sequence
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from threading import Lock

from cobblewort.core.errors import InputError
from cobblewort.store.archive import TABLES, Archived, Holdings, holdings_in, unpacked
from cobblewort.store.database import (
    Database,
    StoreError,
    UnreadableError,
    is_damage,
    reason_of,
)

_UNFINISHED = ".restoring-"
_ONE_AT_A_TIME = Lock()
_MOST_STEPS_ON = 1_000_000
_BOTH = ("main.plan", "incoming.plan")


def holdings(database: Database) -> Holdings:
    """What the workspace holds now."""
    with database.reading() as connection:
        return holdings_in(connection)


@dataclass(slots=True, frozen=True)
class KeptCopy:
    """A copy that is kept beside the data file: when it was made, and how large it is. [MB]"""

    name: str
    made_at: str
    size_mb: float


def kept_copies(database: Database) -> list[KeptCopy]:
    """Copies that are kept, the newest first."""
    found = []
    for copy in reversed(database.copies()):
        told = copy.stat()
        made_at = datetime.fromtimestamp(told.st_mtime, UTC).isoformat(timespec="seconds")
        found.append(KeptCopy(copy.name, made_at, round(told.st_size / 1e6, 1)))
    return found


def kept_copy(database: Database, name: str) -> Path:
    """Where a copy is. Raises InputError where none of this name is kept."""
    for copy in database.copies():
        if copy.name == name:
            return copy
    raise InputError([("name", "There is no such copy any more. Reload.")])


def restore(database: Database, content: bytes | Path) -> tuple[Archived, Path]:
    """Put an archive, or a copy that was kept, in the place of everything that is here; a copy of
    that is kept beside it.

    What is here may be damaged: then its file is kept as it is. Plans come back at versions that
    they never had, so that a tab from before is told.

    Returns what was restored, and where the copy is.

    Raises
    ------
    ArchiveError
        If the archive is not whole; nothing is changed.
    StoreError
        If the data file cannot be written; nothing is changed.
    """
    with _ONE_AT_A_TIME:
        folder = database.path.parent
        try:
            for left in folder.glob(f"{_UNFINISHED}*"):  # of a process that was killed
                shutil.rmtree(left, ignore_errors=True)
            with tempfile.TemporaryDirectory(prefix=_UNFINISHED, dir=folder) as unfinished:
                incoming, archived = unpacked(content, Path(unfinished))
                return archived, _put_in(database, incoming)
        except sqlite3.Error as error:
            raise StoreError(f"{reason_of(error)} Nothing was changed.") from error
        except OSError as error:
            raise StoreError(
                f"The backup cannot be restored ({error.strerror}). Nothing was changed."
            ) from error


def _put_in(database: Database, incoming: Path) -> Path:
    try:
        database.prepare()
        return _replaced(database, incoming)
    except UnreadableError:
        return _in_place_of(database, incoming)
    except sqlite3.DatabaseError as error:
        if not is_damage(error):
            raise
        return _in_place_of(database, incoming)


def _replaced(database: Database, incoming: Path) -> Path:
    """Copy and replacement in one write transaction: no write comes in between."""
    with closing(database.open()) as connection:
        connection.execute("ATTACH DATABASE ? AS incoming", (f"{incoming.absolute().as_uri()}",))
        connection.execute("BEGIN IMMEDIATE")
        try:
            kept = database.keep_copy("restore")
            connection.execute("PRAGMA defer_foreign_keys = ON")
            version, beside = _fresh_version(connection), _parts_beside(connection)
            for table in TABLES:
                connection.execute(f"DELETE FROM main.{table}")
            for table in TABLES:
                names = ", ".join(
                    row["name"] for row in connection.execute(f"PRAGMA main.table_info({table})")
                )
                connection.execute(
                    f"INSERT INTO main.{table} ({names}) SELECT {names} FROM incoming.{table}"
                    f"{' ORDER BY rowid' if table == 'plan' else ''}"
                )
            connection.execute("UPDATE main.plan SET version = ?", (version,))
            connection.executemany(
                "INSERT INTO part (id, revision, document, created_at, origin) "
                "VALUES (:id, :revision, :document, :created_at, :origin)",
                beside,
            )
        except BaseException:
            connection.execute("ROLLBACK")
            raise
        connection.execute("COMMIT")
    return kept


def _fresh_version(connection: sqlite3.Connection, tables: Sequence[str] = _BOTH) -> int:
    """A version that no plan had before, here or in the archive; not even one that is gone, most
    likely.
    """
    most = max(
        int(connection.execute(f"SELECT coalesce(max(version), 0) FROM {table}").fetchone()[0])
        for table in tables
    )
    return most + 1 + secrets.randbelow(_MOST_STEPS_ON)


def _parts_beside(connection: sqlite3.Connection) -> list[dict[str, object]]:
    """A further revision of each part of one's own that is another here, at a number which the one
    here may have had: a tab from before names that number.
    """
    rows = connection.execute(
        "WITH here AS (SELECT id, max(revision) AS revision, document FROM main.part GROUP BY id), "
        "there AS (SELECT id, max(revision) AS revision, document, created_at, origin "
        "FROM incoming.part WHERE origin = 'own' GROUP BY id) "
        "SELECT there.id, here.revision + 1 AS revision, there.document, there.created_at, "
        "there.origin FROM there JOIN here ON here.id = there.id "
        "WHERE here.revision >= there.revision AND here.document <> there.document"
    ).fetchall()
    return [dict(row) for row in rows]


def _in_place_of(database: Database, incoming: Path) -> Path:
    """The file itself, where nothing can be written into the one that is here."""
    kept = database.next_copy("restore")
    with closing(sqlite3.connect(incoming)) as connection, connection:
        connection.execute("UPDATE plan SET version = ?", (_fresh_version(connection, ("plan",)),))
    for ending in ("-wal", "-shm", ""):
        beside = database.path.with_name(database.path.name + ending)
        if beside.exists():
            beside.rename(kept.with_name(kept.name + ending))
    os.chmod(incoming, 0o600)
    incoming.replace(database.path)
    database.prepare()
    return kept
