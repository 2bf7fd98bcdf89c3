"""Opens the database, and brings its schema up to date."""

from __future__ import annotations

import glob
import os
import sqlite3
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager
from importlib.resources import files
from pathlib import Path

BUSY_TIMEOUT_S = 4.0
COPIES_KEPT = 10


class StoreError(Exception):
    """The data file cannot be used; `str()` says why and what to do."""


class UnreadableError(StoreError):
    """The data file is damaged, is none, or is of a newer version; a backup can take its place."""


_REASONS = (
    ("locked", "Another program uses it. Stop that program, or use another data folder."),
    ("full", "The disk is full. Free some space and try again."),
    ("disk I/O error", "The disk fails. Check its free space and its health."),
    ("readonly", "It is write-protected. Check the permissions of the file and its folder."),
    ("unable to open", "It cannot be opened. Check that it is still there and writable."),
    ("malformed", "It is damaged. Keep a copy of it and restore a backup."),
    ("not a database", "It is not a database. Move it away, or restore a backup."),
    ("no such table", "A table is missing. Move the file away, or restore a backup."),
)
"""What SQLite says, by a word of it; what it means for somebody, and what to do."""


def reason_of(error: sqlite3.Error) -> str:
    """Why a data file cannot be used, and what to do."""
    told = next((text for word, text in _REASONS if word in str(error)), None)
    return f"The data file cannot be used. {told or f'SQLite says: {error}.'}"


def is_damage(error: sqlite3.Error) -> bool:
    """Whether a file is damaged or none, and not only in use or out of reach."""
    return any(word in str(error) for word in ("malformed", "not a database", "no such table"))


def is_full(error: sqlite3.Error) -> bool:
    """Whether the disk takes no more."""
    return any(word in str(error) for word in ("full", "disk I/O error"))


def migrations() -> list[tuple[int, str]]:
    """The numbered SQL files in their order: number and text."""
    folder = files("cobblewort.store") / "schema"
    names = sorted(entry.name for entry in folder.iterdir() if entry.name.endswith(".sql"))
    return [
        (int(name.split("_")[0]), (folder / name).read_text(encoding="utf-8")) for name in names
    ]


@contextmanager
def out_of_reach_told(path: Path) -> Iterator[None]:
    """Tell of a path that cannot be made or opened, with what to do. Raises StoreError."""
    try:
        yield
    except (FileExistsError, NotADirectoryError) as error:
        raise StoreError(f"{error.filename} is a file, not a folder. Name a folder.") from error
    except OSError as error:
        told = f"{path} cannot be used ({error.strerror}). Check its permissions"
        raise StoreError(f"{told}, or name another folder.") from error


_TABLES = frozenset({"part", "plan", "plan_revision", "part_away", "preference"})
_WAL_TRIES, _WAL_WAIT_S = 50, 0.1


def _into_wal(connection: sqlite3.Connection) -> None:
    """Switch to the write-ahead log; while another start does, SQLite answers at once, and no."""
    for _ in range(_WAL_TRIES):
        try:
            connection.execute("PRAGMA journal_mode = WAL")
        except sqlite3.OperationalError as error:
            if "locked" not in str(error):
                raise
            time.sleep(_WAL_WAIT_S)
        else:
            return


class Database:
    """One SQLite file. Connections are opened where they are used, since a request handler and
    its dependencies may run in different threads.
    """

    def __init__(self, path: Path) -> None:
        self.path = path

    def open(self) -> sqlite3.Connection:
        """A connection with foreign keys on; transactions are begun by hand. A file that is gone is
        not made anew.
        """
        there = f"{self.path.absolute().as_uri()}?mode=rw"
        connection = sqlite3.connect(there, BUSY_TIMEOUT_S, isolation_level=None, uri=True)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA foreign_keys = ON")
        connection.execute("PRAGMA synchronous = FULL")
        return connection

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """A connection to read from."""
        with closing(self.open()) as connection:
            yield connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """One write transaction: committed at the end, rolled back on any error.

        It takes the write lock at once, so that what it reads cannot change before it writes.
        """
        with closing(self.open()) as connection:
            connection.execute("BEGIN IMMEDIATE")
            try:
                yield connection
            except BaseException:
                connection.execute("ROLLBACK")
                raise
            connection.execute("COMMIT")

    def prepare(self) -> None:
        """Create the file if there is none, and apply the migrations that it lacks.

        A copy of an older file is kept beside it first.

        Raises
        ------
        StoreError
            If the file is newer than this program, or is not a database, or has no place.
        """
        with out_of_reach_told(self.path):
            self.path.parent.mkdir(parents=True, exist_ok=True)
            os.close(os.open(self.path, os.O_CREAT | os.O_RDWR, 0o600))  # its owner's alone
        try:
            with closing(self.open()) as connection:
                _into_wal(connection)
                self._migrate(connection)
                self._check(connection)
        except sqlite3.DatabaseError as error:
            kind = UnreadableError if is_damage(error) else StoreError
            raise kind(f"{self.path.name}: {reason_of(error)}") from error

    def settle(self) -> None:
        """Write everything into the file itself. Raises StoreError where a server is using it."""
        try:
            with closing(self.open()) as connection:
                connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
                connection.execute("PRAGMA locking_mode = EXCLUSIVE")
                connection.execute("BEGIN EXCLUSIVE")
                connection.execute("ROLLBACK")
        except sqlite3.DatabaseError as error:
            if "locked" in str(error):
                raise StoreError(f"{self.path.name} is in use. Stop its server first.") from error

    def _check(self, connection: sqlite3.Connection) -> None:
        """Look once through the pages and for the tables, so that damage is told at the start."""
        found = " ".join(connection.execute("PRAGMA quick_check(1)").fetchone()[0].split())
        if found != "ok":
            raise UnreadableError(
                f"{self.path.name} is damaged ({found}). Restore a backup with `cobblewort "
                "restore`; the damaged file is kept."
            )
        names = {row[0] for row in connection.execute("SELECT name FROM sqlite_master")}
        missing = sorted(_TABLES - names)
        if missing:
            raise UnreadableError(
                f"{self.path.name} lacks the table {missing[0]}. It may belong to another program. "
                "Move it away, or restore a backup."
            )

    def _migrate(self, connection: sqlite3.Connection) -> None:
        steps = migrations()
        version = connection.execute("PRAGMA user_version").fetchone()[0]
        newest = steps[-1][0]
        if version > newest:
            raise UnreadableError(
                f"{self.path.name} was written by a newer Cobblewort (schema {version}, this one "
                f"knows {newest}). Use that version, or another data folder."
            )
        pending = [(number, text) for number, text in steps if number > version]
        if pending and version > 0:
            self._keep_copy(connection, f"schema-{newest}")
        for number, text in pending:
            # executescript commits what is open, so the whole step stands in one script.
            try:
                connection.executescript(
                    f"BEGIN IMMEDIATE;\n{text}\nPRAGMA user_version = {number};\nCOMMIT;"
                )
            except sqlite3.Error:
                if connection.in_transaction:
                    connection.execute("ROLLBACK")
                # Two starts on one file: the other one was first, and has taken this step.
                if connection.execute("PRAGMA user_version").fetchone()[0] < number:
                    raise

    def keep_copy(self, before: str) -> Path:
        """Keep a copy beside the file, before something that replaces much; the newest
        `COPIES_KEPT` of them stay. Returns where it is.
        """
        with self.reading() as connection:
            return self._keep_copy(connection, before)

    def _keep_copy(self, connection: sqlite3.Connection, before: str) -> Path:
        copy = self.next_copy(before)
        unfinished = copy.with_name(f".{copy.name}.unfinished")
        try:
            unfinished.unlink(missing_ok=True)
            os.close(os.open(unfinished, os.O_CREAT | os.O_EXCL | os.O_RDWR, 0o600))
            with closing(sqlite3.connect(unfinished)) as target:
                connection.backup(target)
                target.execute("PRAGMA journal_mode = DELETE")
            unfinished.replace(copy)
        except BaseException:
            unfinished.unlink(missing_ok=True)
            raise
        for old in self.copies()[:-COPIES_KEPT]:
            old.unlink(missing_ok=True)
        return copy

    def next_copy(self, before: str) -> Path:
        """Where the next copy goes. They are counted, as a clock may be wrong."""
        number = 1 + max((_number_of(copy) for copy in self.copies()), default=0)
        return self.path.with_name(f"{self.path.stem}-{number:06d}-before-{before}.sqlite3")

    def copies(self) -> list[Path]:
        """The copies that are kept beside the file, oldest first."""
        pattern = f"{glob.escape(self.path.stem)}-*-before-*.sqlite3"
        return sorted(self.path.parent.glob(pattern), key=lambda copy: (_number_of(copy), copy))


def _number_of(copy: Path) -> int:
    """The number of a copy; 0 of those that former versions named by the time."""
    number = copy.stem.rsplit("-before-", 1)[0].rsplit("-", 1)[-1]
    return int(number) if len(number) == 6 and number.isdigit() else 0
