"""The whole workspace as one file: what comes back, what is refused, what is kept."""

from __future__ import annotations

import io
import threading
import zipfile
from pathlib import Path

import pytest

from cobblewort.core.plans.patch import SetFields, apply_patch
from cobblewort.demo import fill_with_demo
from cobblewort.store.archive import ArchiveError, archive, look_at
from cobblewort.store.database import Database, migrations
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import PlanStore
from cobblewort.store.workspace import holdings, restore
from tests.kits import kit

OWN = {"kind": "device", "maker": "m", "model": "Mine"}


@pytest.fixture
def full(tmp_path: Path) -> Database:
    """Demo plans with steps, one put away, and a part of one's own."""
    fill_with_demo(tmp_path / "full.sqlite3")
    database = Database(tmp_path / "full.sqlite3")
    plans = PlanStore(database)
    stored = plans.create(kit("B06", "S01"), "new plan", "mine")
    for name in ("one", "two"):
        changed = apply_patch(stored.plan, (SetFields(fields={"name": name}),))
        stored = plans.save("mine", stored.version, changed, f"name it {name}")
    plans.undo("mine", stored.version)
    moss = plans.get("moss-cabinet")
    plans.delete("moss-cabinet", moss.version)
    PartStore(database).create(OWN)
    return database


def contents(database: Database) -> list[tuple[object, ...]]:
    """Every row that is anybody's work, but for the versions of plans: each restore raises them."""
    with database.reading() as connection:
        return [
            tuple(row[name] for name in row.keys() if name != "version")  # noqa: SIM118
            for table in ("plan", "plan_revision", "part", "part_away")
            for row in connection.execute(f"SELECT * FROM {table} ORDER BY 1, 2")
        ]


def test_out_and_in_is_the_same_workspace(full: Database, tmp_path: Path) -> None:
    """Plans with steps, where they stand, what is put away, and parts."""
    content = archive(full)
    other = Database(tmp_path / "other.sqlite3")
    other.prepare()
    archived, copy = restore(other, content)
    assert contents(other) == contents(full)
    assert archived.holds == holdings(full) == look_at(content).holds
    assert archived.holds.plans[-1] == "one"
    assert (archived.holds.custom_parts, archived.holds.in_bin) == (1, 1)
    assert copy.exists()


def test_what_was_there_is_kept_beside_it(full: Database, tmp_path: Path) -> None:
    """A restore that was a mistake can be taken back by hand."""
    empty = Database(tmp_path / "empty.sqlite3")
    empty.prepare()
    before = contents(full)
    _, copy = restore(full, archive(empty))
    assert holdings(full).plans == ()
    assert contents(Database(copy)) == before


def test_damage_at_every_tenth_byte_is_refused(full: Database) -> None:
    """One bit is enough; nothing is touched."""
    content, before = archive(full), contents(full)
    for at in range(0, len(content), 10):
        damaged = bytearray(content)
        damaged[at] ^= 4
        with pytest.raises(ArchiveError):
            restore(full, bytes(damaged))
    for length in range(0, len(content), 97):
        with pytest.raises(ArchiveError):
            restore(full, content[:length])
    assert contents(full) == before
    assert full.copies() == []


def test_other_files_are_refused(full: Database) -> None:
    """A ZIP of something else, text, and nothing."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as packed:
        packed.writestr("a.txt", "a")
    for content in (b"", b"plain text", buffer.getvalue()):
        with pytest.raises(ArchiveError, match="The archive"):
            restore(full, content)


def test_an_archive_of_a_newer_program_is_refused(
    full: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    """It says which version to use."""
    with full.writing() as connection:
        connection.execute("PRAGMA user_version = 99")
    content = archive(full)
    with pytest.raises(ArchiveError, match="newer Cobblewort"):
        look_at(content)


def test_an_older_archive_is_brought_up_to_date(
    full: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """It was made before a step of the schema that this program takes."""
    content, before = archive(full), contents(full)
    known = migrations()
    later = [*known, (len(known) + 1, "CREATE TABLE extra (id TEXT) STRICT;")]
    monkeypatch.setattr("cobblewort.store.database.migrations", lambda: later)
    here = Database(tmp_path / "here.sqlite3")
    here.prepare()
    assert restore(here, content)[0].schema == len(known)
    assert contents(here) == before
    with here.reading() as connection:
        assert connection.execute("PRAGMA user_version").fetchone()[0] == len(known) + 1
        assert connection.execute("SELECT count(*) FROM extra").fetchone()[0] == 0


def test_it_is_whole_while_somebody_writes(full: Database) -> None:
    """Archives made beside a writer hold whole steps, and each can be restored."""
    plans, stop = PlanStore(full), threading.Event()

    def write() -> None:
        number = 0
        while not stop.is_set():
            stored, number = plans.get("mine"), number + 1
            changed = apply_patch(stored.plan, (SetFields(fields={"name": f"n{number}"}),))
            plans.save("mine", stored.version, changed, "again")

    writer = threading.Thread(target=write)
    writer.start()
    try:
        made = [archive(full) for _ in range(5)]
    finally:
        stop.set()
        writer.join()
    steps = [look_at(content).holds.steps for content in made]
    assert steps == sorted(steps)
    assert restore(full, made[0])[0].holds.steps == holdings(full).steps
