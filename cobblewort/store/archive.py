"""The whole workspace as one file: made, and looked into before anything of it is used.

An archive is a ZIP with a copy of the database, made by SQLite itself so that it is whole while the
server runs, and a note of what it holds. The comment of the ZIP is the SHA-256 of all bytes before
it: whatever is damaged, the archive is refused. Copies that are kept beside the data file are bare
databases, and are taken as well.

What comes from outside is read row by row into a database of ours, from tables alone and within a
time: nothing that an archive may hold besides them, such as triggers and views, is ever run.
"""

from __future__ import annotations

import hashlib
import io
import json
import re
import sqlite3
import tempfile
import time
import zipfile
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from cobblewort.core.errors import InputError
from cobblewort.store.database import (
    Database,
    StoreError,
    UnreadableError,
    is_full,
    migrations,
    reason_of,
)

FORMAT = "cobblewort-workspace/1"
MAX_ARCHIVE_BYTES = 64_000_000
MAX_DATA_BYTES = 400_000_000
_MAX_NOTE_BYTES = 100_000
_MAX_VALUE_BYTES = 8_000_000
_MAX_READ_S = 60.0
_NOTE, _DATA = "workspace.json", "data.sqlite3"
_SEAL = "cobblewort sha256 "
_SEAL_BYTES = len(_SEAL) + 64
_EOCD_BYTES = 22
"""The end record of a ZIP without its comment."""
_DATABASE_STARTS = b"SQLite format 3\0"
_UNCHANGED = "Nothing was changed."


class ArchiveError(InputError):
    """A file is no whole archive of a workspace; `str()` says why."""

    def __init__(self, why: str) -> None:
        super().__init__([("", f"{why} {_UNCHANGED}")])


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
    """The whole workspace, as it is at this moment.

    Raises
    ------
    ArchiveError
        If it is larger than an archive that can be restored.
    """
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / _DATA
        with database.reading() as source, closing(sqlite3.connect(copy)) as target:
            source.backup(target)
            target.execute("PRAGMA journal_mode = DELETE")
            target.commit()
            target.execute("VACUUM")
            target.row_factory = sqlite3.Row
            holds = holdings_in(target)
            schema = target.execute("PRAGMA user_version").fetchone()[0]
        if copy.stat().st_size > MAX_DATA_BYTES:
            raise _too_large(copy.stat().st_size)
        with copy.open("rb") as data:
            digest = hashlib.file_digest(data, "sha256").hexdigest()
        note = {
            "format": FORMAT,
            "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
            "schema": schema,
            "plans": len(holds.plans),
            "sha256": digest,
        }
        buffer = io.BytesIO()
        with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr(_NOTE, json.dumps(note, indent=1))
            packed.write(copy, _DATA)
            packed.comment = b" " * _SEAL_BYTES  # its length counts among what is sealed
    whole = buffer.getvalue()[:-_SEAL_BYTES]
    if len(whole) + _SEAL_BYTES > MAX_ARCHIVE_BYTES:
        raise _too_large(len(whole))
    return whole + (_SEAL + hashlib.sha256(whole).hexdigest()).encode()


def _too_large(size: int) -> InputError:
    return InputError(
        [
            (
                "",
                f"The workspace is too large for an archive ({size / 1e6:.0f} MB; at most "
                f"{MAX_ARCHIVE_BYTES // 10**6} MB packed and {MAX_DATA_BYTES // 10**6} MB unpacked)"
                ". Empty the bin, or stop the server and copy the data file.",
            )
        ]
    )


def look_at(content: bytes | Path) -> Archived:
    """What an archive holds, after all of it was tried. Raises ArchiveError."""
    with tempfile.TemporaryDirectory() as folder:
        return unpacked(content, Path(folder))[1]


def unpacked(content: bytes | Path, folder: Path) -> tuple[Path, Archived]:
    """A database of ours in a folder, with every row of an archive.

    Parameters
    ----------
    content : bytes or Path
        An archive, or a copy of a data file that was kept.
    folder : Path
        An empty folder.

    Raises
    ------
    ArchiveError
        If it is not whole, too new, too large, or holds a row that is none of ours.
    StoreError
        If there is no room to unpack it.
    """
    foreign = folder / "foreign.sqlite3"
    made_at = _taken_out(content, foreign)
    try:
        with _looking(foreign) as source:
            schema = _schema_of(source)
            ours = folder / _DATA
            _copy_rows(source, ours, schema)
    except sqlite3.Error as error:
        if is_full(error):
            raise StoreError(f"{reason_of(error)} {_UNCHANGED}") from error
        raise ArchiveError(f"The archive is damaged ({_said(error)}).") from error
    except UnicodeError as error:  # what SQLite says of a damaged schema holds pieces of it
        raise ArchiveError("The archive is damaged (its tables cannot be read).") from error
    try:
        Database(ours).prepare()  # brings an older one up to date
    except UnreadableError as error:
        raise ArchiveError(f"The archive cannot be brought up to date: {error}") from error
    with closing(sqlite3.connect(ours)) as connection:
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA journal_mode = DELETE")
        return ours, Archived(made_at, schema, holdings_in(connection))


def _taken_out(content: bytes | Path, to: Path) -> str:
    """Write the database of an archive to a file, and tell when the archive was made."""
    if isinstance(content, Path):
        size = content.stat().st_size
        with content.open("rb") as opened:
            bare = opened.read(len(_DATABASE_STARTS)) == _DATABASE_STARTS
            if size > (MAX_DATA_BYTES if bare else MAX_ARCHIVE_BYTES):
                raise ArchiveError(f"{content.name} is too large ({size / 1e6:.0f} MB).")
            if bare:
                opened.seek(0)
                _copied(opened, to, MAX_DATA_BYTES)
                changed = datetime.fromtimestamp(content.stat().st_mtime, UTC)
                return changed.isoformat(timespec="seconds")
        content = content.read_bytes()
    if len(content) > MAX_ARCHIVE_BYTES:
        raise ArchiveError(f"The archive is larger than {MAX_ARCHIVE_BYTES // 10**6} MB.")
    if content.startswith(_DATABASE_STARTS):
        to.write_bytes(content)
        return ""
    whole, seal = content[:-_SEAL_BYTES], content[-_SEAL_BYTES:]
    if len(whole) < _EOCD_BYTES or not seal.startswith(_SEAL.encode()):
        raise ArchiveError("The archive is not complete: its end is missing.")
    if seal != (_SEAL + hashlib.sha256(whole).hexdigest()).encode():
        raise ArchiveError("The archive is damaged: its checksum is wrong.")
    return _unzipped(content, to)


def _unzipped(content: bytes, to: Path) -> str:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            with packed.open(_NOTE) as opened:
                text = opened.read(_MAX_NOTE_BYTES + 1)
            if len(text) > _MAX_NOTE_BYTES:
                raise ArchiveError("The note of the archive is too long.")
            note = json.loads(text)
            form, made_at = note["format"], str(note["made_at"])[:40]
            if form == FORMAT:
                with packed.open(_DATA) as opened:
                    _copied(opened, to, MAX_DATA_BYTES)
    except (
        zipfile.BadZipFile,
        KeyError,
        ValueError,
        TypeError,
        RecursionError,
        NotImplementedError,  # a kind of packing that nobody uses
        RuntimeError,  # one behind a password
        EOFError,
    ) as error:
        if isinstance(error, ArchiveError):
            raise
        raise ArchiveError("This file is not an archive of a workspace.") from error
    except OSError as error:
        raise StoreError(f"The archive cannot be unpacked: {error.strerror}.") from error
    if form != FORMAT:
        raise ArchiveError(f"The archive has no format line {FORMAT}.")
    return made_at


def _copied(source: Any, to: Path, most: int) -> None:
    left = most
    with to.open("wb") as target:
        while piece := source.read(min(1 << 20, left + 1)):
            left -= len(piece)
            if left < 0:
                raise ArchiveError(f"The archive unpacks to more than {most // 10**6} MB.")
            target.write(piece)


@contextmanager
def _looking(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection to a database from outside, that trusts nothing in it and takes no long time."""
    ends = time.monotonic() + _MAX_READ_S
    there = f"{path.absolute().as_uri()}?mode=ro&immutable=1"
    with closing(sqlite3.connect(there, uri=True)) as connection:
        connection.row_factory = sqlite3.Row
        connection.text_factory = bytes  # what is no text is told with its row
        connection.setlimit(sqlite3.SQLITE_LIMIT_LENGTH, _MAX_VALUE_BYTES)
        connection.set_progress_handler(lambda: time.monotonic() > ends, 10_000)
        connection.execute("PRAGMA cell_size_check = ON")
        yield connection


def _schema_of(source: sqlite3.Connection) -> int:
    """The schema of a database from outside, of which we know the steps."""
    version, newest = source.execute("PRAGMA user_version").fetchone()[0], migrations()[-1][0]
    if version > newest:
        raise ArchiveError(
            f"The archive was made by a newer Cobblewort (schema {version}, this one knows "
            f"{newest}). Use that version."
        )
    if version < 1:
        raise ArchiveError("The database in it is none of Cobblewort.")
    return int(version)


_ID = re.compile(r"[A-Za-z0-9_][A-Za-z0-9_.-]{0,63}")


def _is_id(value: Any) -> bool:
    return isinstance(value, str) and _ID.fullmatch(value) is not None


def _is_count(value: Any) -> bool:
    return type(value) is int and 1 <= value < 1 << 50


def _is_short(value: Any) -> bool:
    return isinstance(value, str) and len(value) <= 400


def _is_document(value: Any) -> bool:
    try:
        json.loads(value)
    except (ValueError, TypeError, RecursionError):
        return False
    return True


def _or_none(test: Callable[[Any], bool]) -> Callable[[Any], bool]:
    return lambda value: value is None or test(value)


_TABLES: dict[str, dict[str, Callable[[Any], bool]]] = {
    "part": {
        "id": _is_id,
        "revision": _is_count,
        "document": _is_document,
        "created_at": _is_short,
        "origin": lambda value: value in ("pack", "own"),
    },
    "part_away": {"id": _is_id, "away_at": _is_short},
    "plan": {
        "id": _is_id,
        "version": _is_count,
        "head": _is_count,
        "created_at": _is_short,
        "changed_at": _is_short,
        "deleted_at": _or_none(_is_short),
    },
    "plan_revision": {
        "plan_id": _is_id,
        "number": _is_count,
        "parent": _or_none(_is_count),
        "label": _is_short,
        "document": _is_document,
        "created_at": _is_short,
    },
    "preference": {"one": lambda value: value == 1, "document": _is_document},
}
"""What rows of ours hold, by table and column."""
TABLES = tuple(_TABLES)


def _copy_rows(source: sqlite3.Connection, to: Path, schema: int) -> None:
    """Put every row into a new database of our own of the same schema."""
    there = {
        row["name"].decode("utf-8", "replace"): row
        for row in source.execute("SELECT type, name, sql FROM sqlite_master")
    }
    with closing(sqlite3.connect(to, isolation_level=None)) as target:
        for number, text in migrations():
            if number <= schema:
                target.executescript(text)
        target.execute("PRAGMA foreign_keys = OFF")
        target.execute("BEGIN")
        for table, columns in _TABLES.items():
            known = [
                row[1] for row in target.execute(f"PRAGMA table_info({table})") if row[1] in columns
            ]
            if not known:
                continue  # of a later schema
            if table not in there or not _is_plain(there[table]):
                raise ArchiveError(f"The archive lacks the table {table}.")
            _copy_table(source, target, table, known)
        if target.execute("PRAGMA foreign_key_check").fetchone() is not None:
            raise ArchiveError(_gone(target))
        target.execute(f"PRAGMA user_version = {schema}")
        target.execute("COMMIT")


def _gone(target: sqlite3.Connection) -> str:
    """Which plan refers to a step that is gone, or the other way round."""
    plan = target.execute(
        "SELECT plan_id, number FROM plan_revision WHERE plan_id NOT IN (SELECT id FROM plan) "
        "LIMIT 1"
    ).fetchone()
    if plan is not None:
        return f"The archive holds step {plan[1]} of the plan '{plan[0]}' without that plan."
    plan = target.execute(
        "SELECT plan.id FROM plan LEFT JOIN plan_revision ON plan_id = plan.id AND number = head "
        "WHERE number IS NULL LIMIT 1"
    ).fetchone()
    which = "a plan" if plan is None else f"the plan '{plan[0]}'"
    return f"The archive lacks a step of {which}."


def _is_plain(row: sqlite3.Row) -> bool:
    return row["type"] == b"table" and not re.match(
        rb"\s*CREATE\s+VIRTUAL", row["sql"] or b"", re.I
    )


def _copy_table(
    source: sqlite3.Connection, target: sqlite3.Connection, table: str, columns: list[str]
) -> None:
    tests = _TABLES[table]
    names = ", ".join(columns)
    marks = ", ".join("?" * len(columns))
    first = "rowid" if table == "plan" else "1"
    for row in source.execute(f"SELECT {names} FROM {table} ORDER BY {first}"):
        values = [_text(value) for value in row]
        for column, value in zip(columns, values, strict=True):
            if not tests[column](value):
                raise ArchiveError(_wrong_row(table, columns, values, column))
        try:
            target.execute(f"INSERT INTO {table} ({names}) VALUES ({marks})", values)
        except sqlite3.IntegrityError as error:
            raise ArchiveError(_wrong_row(table, columns, values, "id")) from error


def _text(value: Any) -> Any:
    """A value as text, where it is some."""
    try:
        return value.decode() if isinstance(value, bytes) else value
    except UnicodeDecodeError:
        return value


def _wrong_row(table: str, columns: list[str], values: list[Any], column: str) -> str:
    key = ascii(values[0])[:80]
    more = f", {columns[1]} {ascii(values[1])[:20]}" if len(values) > 2 else ""
    return f"The archive holds a row that is none of ours: {table} {key}{more}, {column}."


def _said(error: sqlite3.Error) -> str:
    return "it takes too long to read" if "interrupted" in str(error) else str(error)


def holdings_in(connection: sqlite3.Connection) -> Holdings:
    """What a database of ours holds."""
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
