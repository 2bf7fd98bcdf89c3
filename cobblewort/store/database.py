"""Opens the database, and brings its schema up to date."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from importlib.resources import files
from pathlib import Path

BUSY_TIMEOUT_S = 5.0


class StoreError(Exception):
    """The data file cannot be used; `str()` says why and what to do."""


def migrations() -> list[tuple[int, str]]:
    """The numbered SQL files in their order: number and text."""
    folder = files("cobblewort.store") / "schema"
    names = sorted(entry.name for entry in folder.iterdir() if entry.name.endswith(".sql"))
    return [
        (int(name.split("_")[0]), (folder / name).read_text(encoding="utf-8")) for name in names
    ]


class Database:
    """One SQLite file. Connections are opened where they are used, since a request handler and
    its dependencies may run in different threads.
    """

    def __init__(self, path: Path) -> None:
        self.path = path

    def open(self) -> sqlite3.Connection:
        """A connection with foreign keys on; transactions are begun by hand."""
        connection = sqlite3.connect(self.path, timeout=BUSY_TIMEOUT_S, isolation_level=None)
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
            If the file is newer than this program, or is not a database.
        """
        self.path.parent.mkdir(parents=True, exist_ok=True)
        try:
            with closing(self.open()) as connection:
                connection.execute("PRAGMA journal_mode = WAL")
                self._migrate(connection)
        except sqlite3.DatabaseError as error:
            raise StoreError(
                f"{self.path.name} cannot be opened as a Cobblewort data file ({error}). "
                "Move it away, or put a back-up in its place."
            ) from error

    def _migrate(self, connection: sqlite3.Connection) -> None:
        steps = migrations()
        version = connection.execute("PRAGMA user_version").fetchone()[0]
        newest = steps[-1][0]
        if version > newest:
            raise StoreError(
                f"{self.path.name} was written by a newer Cobblewort (schema {version}, this one "
                f"knows {newest}). Use that version, or another data folder."
            )
        pending = [(number, text) for number, text in steps if number > version]
        if pending and version > 0:
            self._keep_copy(connection, version)
        for number, text in pending:
            # executescript commits what is open, so the whole step stands in one script.
            try:
                connection.executescript(
                    f"BEGIN;\n{text}\nPRAGMA user_version = {number};\nCOMMIT;"
                )
            except sqlite3.Error:
                if connection.in_transaction:
                    connection.execute("ROLLBACK")
                raise

    def _keep_copy(self, connection: sqlite3.Connection, version: int) -> None:
        copy = self.path.with_name(f"{self.path.stem}-before-{version + 1}{self.path.suffix}")
        with closing(sqlite3.connect(copy)) as target:
            connection.backup(target)
