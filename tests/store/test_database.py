import sqlite3
from contextlib import closing
from pathlib import Path

import pytest

from cobblewort.store.database import Database, StoreError, migrations


def test_migrations_are_numbered_without_gaps() -> None:
    """1, 2, 3 and so on, each with an opening comment that says why."""
    steps = migrations()
    assert [number for number, _ in steps] == list(range(1, len(steps) + 1))
    assert all(text.startswith("--") for _, text in steps)


def test_preparing_twice_changes_nothing(database: Database) -> None:
    """A second start finds nothing pending."""
    database.prepare()
    with database.reading() as connection:
        assert connection.execute("PRAGMA user_version").fetchone()[0] == migrations()[-1][0]
        assert connection.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
        assert connection.execute("PRAGMA foreign_keys").fetchone()[0] == 1


def test_a_failed_write_leaves_nothing_behind(database: Database) -> None:
    """Everything in one transaction, or nothing."""

    def write_and_fail() -> None:
        with database.writing() as connection:
            connection.execute(
                "INSERT INTO part (id, revision, document, created_at) "
                "VALUES ('a', 1, '{\"kind\": \"tool\"}', '')"
            )
            raise RuntimeError

    with pytest.raises(RuntimeError):
        write_and_fail()
    with database.reading() as connection:
        assert connection.execute("SELECT count(*) FROM part").fetchone()[0] == 0


def test_a_file_of_a_newer_program_is_left_alone(tmp_path: Path) -> None:
    """It says so, and changes nothing."""
    path = tmp_path / "new.sqlite3"
    with closing(sqlite3.connect(path)) as connection:
        connection.execute("PRAGMA user_version = 999")
    with pytest.raises(StoreError, match="written by a newer Cobblewort"):
        Database(path).prepare()


def test_a_file_that_is_no_database_is_left_alone(tmp_path: Path) -> None:
    """A sentence that says what to do; the file stays as it was."""
    path = tmp_path / "letter.sqlite3"
    path.write_text("Dear diary, " * 100)
    with pytest.raises(StoreError, match="Move it away"):
        Database(path).prepare()
    assert path.read_text().startswith("Dear diary")


def test_an_older_file_is_copied_before_it_is_changed(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The copy still has the old schema."""
    path = tmp_path / "data.sqlite3"
    Database(path).prepare()
    known = migrations()
    later = [*known, (len(known) + 1, "-- later\nCREATE TABLE extra (id TEXT) STRICT;")]
    monkeypatch.setattr("cobblewort.store.database.migrations", lambda: later)
    Database(path).prepare()
    (copy,) = Database(path).copies()
    assert copy.name.endswith(f"-before-schema-{len(known) + 1}.sqlite3")
    with closing(sqlite3.connect(copy)) as connection:
        assert connection.execute("PRAGMA user_version").fetchone()[0] == len(known)
    with closing(sqlite3.connect(path)) as connection:
        assert connection.execute("SELECT count(*) FROM extra").fetchone()[0] == 0


def test_a_migration_that_fails_leaves_the_old_schema(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Half a step is no step."""
    path = tmp_path / "data.sqlite3"
    Database(path).prepare()
    known = migrations()
    broken = [*known, (len(known) + 1, "CREATE TABLE extra (id TEXT);\nCREATE TABLE part (x);")]
    monkeypatch.setattr("cobblewort.store.database.migrations", lambda: broken)
    with pytest.raises(StoreError):
        Database(path).prepare()
    with closing(sqlite3.connect(path)) as connection:
        names = {row[0] for row in connection.execute("SELECT name FROM sqlite_master")}
        assert "extra" not in names
        assert connection.execute("PRAGMA user_version").fetchone()[0] == len(known)


def test_a_damaged_page_is_told_at_the_start(tmp_path: Path) -> None:
    """With what to do; the file stays as it was."""
    path = tmp_path / "data.sqlite3"
    database = Database(path)
    database.prepare()
    with database.writing() as connection:
        connection.executemany(
            "INSERT INTO part_away (id, away_at) VALUES (?, ?)",
            [(f"part {n}", "x" * 500) for n in range(200)],
        )
    database.settle()
    damaged = bytearray(path.read_bytes())
    for page in range(12, len(damaged) // 4096):
        damaged[page * 4096 : page * 4096 + 64] = b"\xff" * 64
    path.write_bytes(damaged)
    with pytest.raises(StoreError, match=r"damaged.*Restore a backup"):
        Database(path).prepare()
    assert path.read_bytes() == damaged


def test_a_missing_table_is_told_at_the_start(tmp_path: Path) -> None:
    """As of a file that another program made, or somebody tidied."""
    path = tmp_path / "data.sqlite3"
    Database(path).prepare()
    with closing(sqlite3.connect(path)) as connection:
        connection.execute("DROP TABLE preference")
    with pytest.raises(StoreError, match="lacks the table preference"):
        Database(path).prepare()


def test_a_file_that_another_program_holds_is_told(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """After waiting a while."""
    monkeypatch.setattr("cobblewort.store.database.BUSY_TIMEOUT_S", 0.1)
    path = tmp_path / "data.sqlite3"
    Database(path).prepare()
    with closing(sqlite3.connect(path)) as holder:
        holder.execute("PRAGMA user_version = 1")  # so that a step is left to do
        holder.execute("BEGIN IMMEDIATE")
        with pytest.raises(StoreError, match="Another program uses it"):
            Database(path).prepare()


def test_the_file_is_its_owners_alone(tmp_path: Path) -> None:
    """With what SQLite keeps beside it."""
    database = Database(tmp_path / "data.sqlite3")
    database.prepare()
    with database.writing() as connection:
        connection.execute("INSERT INTO part_away (id, away_at) VALUES ('a', '')")
        modes = {file.name: file.stat().st_mode & 0o777 for file in tmp_path.iterdir()}
    assert set(modes.values()) == {0o600}, modes


def test_the_last_ten_copies_are_kept(tmp_path: Path) -> None:
    """The oldest make room; a copy is a database of its own, for its owner alone."""
    database = Database(tmp_path / "data [1].sqlite3")
    database.prepare()
    made = [database.keep_copy("test") for _ in range(13)]
    assert database.copies() == made[3:]
    assert made[-1].stat().st_mode & 0o077 == 0
    with closing(sqlite3.connect(made[-1])) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
