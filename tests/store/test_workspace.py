"""The whole workspace as one file: what comes back, what is refused, what is kept."""

from __future__ import annotations

import io
import os
import sqlite3
import threading
import zipfile
from contextlib import closing
from pathlib import Path

import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.plans.patch import SetFields, apply_patch
from cobblewort.demo import fill_with_demo
from cobblewort.store.archive import ArchiveError, archive, look_at
from cobblewort.store.database import Database, StoreError, migrations
from cobblewort.store.owner import owned
from cobblewort.store.parts import PartStore, StalePartError
from cobblewort.store.plans import PlanStore, StaleWriteError
from cobblewort.store.preferences import PreferenceStore
from cobblewort.store.workspace import holdings, kept_copies, kept_copy, restore
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


def test_a_copy_that_was_kept_can_be_restored(full: Database, tmp_path: Path) -> None:
    """As a file that is named, and as bytes that are sent."""
    before = contents(full)
    empty = Database(tmp_path / "empty.sqlite3")
    empty.prepare()
    _, kept = restore(full, archive(empty))
    restore(full, kept)
    assert contents(full) == before
    restore(full, archive(empty))
    restore(full, kept.read_bytes())
    assert contents(full) == before
    assert [copy.name for copy in kept_copies(full)] == [
        f"full-{number:06d}-before-restore.sqlite3" for number in (4, 3, 2, 1)
    ]
    with pytest.raises(InputError, match="no such copy"):
        kept_copy(full, "../full.sqlite3")


def test_a_tab_from_before_a_restore_is_told(full: Database) -> None:
    """Versions of plans were never there before; a part that is another has another revision."""
    plans, parts = PlanStore(full), PartStore(full)
    part = parts.create(OWN)
    content = archive(full)
    here = plans.get("mine")
    parts.save(part.id, 1, {**OWN, "model": "Changed"})
    parts.save(part.id, 2, {**OWN, "model": "Changed again"})
    restore(full, content)
    with pytest.raises(StaleWriteError):
        plans.save("mine", here.version, here.plan, "from a tab of before")
    back = parts.get(part.id)
    assert (back.revision, back.document["model"]) == (4, "Mine")
    with pytest.raises(StalePartError):
        parts.save(part.id, 3, {**OWN, "model": "From a tab of before"})


@pytest.mark.parametrize("damage", ["pages", "text", "gone"])
def test_a_restore_mends_a_damaged_file(full: Database, tmp_path: Path, damage: str) -> None:
    """It opens none of it first; what was there is kept as it was."""
    content, before = archive(full), contents(full)
    full.settle()
    whole = bytearray(full.path.read_bytes())
    if damage == "pages":
        whole[4096 : len(whole) - 4096] = b"\xff" * (len(whole) - 8192)
    full.path.write_bytes(whole if damage == "pages" else b"Dear diary")
    if damage == "gone":
        full.path.unlink()
    found = None if damage == "gone" else full.path.read_bytes()
    _, kept = restore(full, content)
    assert contents(full) == before
    assert found is None or kept.read_bytes() == found
    assert full.path.stat().st_mode & 0o777 == 0o600


def test_versions_do_not_run_away(full: Database) -> None:
    """However often what was restored is archived and restored again."""
    for _ in range(60):
        restore(full, archive(full))
    assert PlanStore(full).get("mine").version < 100_000_000


def test_what_was_just_kept_is_never_pruned(full: Database) -> None:
    """Whatever the clock of former versions wrote into the names of older ones."""
    for year in range(2090, 2102):
        full.path.with_name(f"full-{year}0101T000000000000-before-schema-5.sqlite3").write_bytes(
            b""
        )
    kept = full.keep_copy("restore")
    assert kept in full.copies()
    assert len(full.copies()) == 10
    assert kept.stat().st_size > 0


def test_preferences_of_another_shape_are_none(full: Database) -> None:
    """As an archive of another program might hold them."""
    with full.writing() as connection:
        connection.execute("INSERT INTO preference (one, document) VALUES (1, '[1, 2]')")
    preferences = PreferenceStore(full)
    assert preferences.read() == {}
    preferences.change({"temperature": "F"})
    assert preferences.read() == {"temperature": "F"}


def test_a_workspace_too_large_for_an_archive_is_told_when_it_goes_out(
    full: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    """And not when somebody needs it."""
    monkeypatch.setattr("cobblewort.store.archive.MAX_DATA_BYTES", 10_000)
    with pytest.raises(InputError, match="too large for an archive"):
        archive(full)


def test_an_archive_that_unfolds_is_refused(
    full: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Before it fills the disk."""
    content = archive(full)
    monkeypatch.setattr("cobblewort.store.archive.MAX_DATA_BYTES", 10_000)
    with pytest.raises(ArchiveError, match="unpacks to more"):
        restore(full, content)


def test_a_file_that_is_gone_is_not_made_anew(full: Database) -> None:
    """While a server works with it."""
    full.settle()
    full.path.unlink()
    with pytest.raises(sqlite3.OperationalError, match="unable to open"):
        PlanStore(full).all()
    assert not full.path.exists()


def test_one_process_owns_a_file(tmp_path: Path) -> None:
    """The next one is told, and may once the first is through."""
    data = tmp_path / "data.sqlite3"
    with owned(data), pytest.raises(StoreError, match="Another Cobblewort uses"), owned(data):
        pass
    with owned(data):
        pass


def test_a_full_disk_is_not_taken_for_a_damaged_archive(
    full: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Whoever is told that a backup is damaged might throw it away."""

    def fail(*_: object) -> None:
        raise sqlite3.OperationalError("database or disk is full")

    content, before = archive(full), contents(full)
    monkeypatch.setattr("cobblewort.store.archive._copy_table", fail)
    with pytest.raises(StoreError, match=r"The disk is full.*Nothing was changed"):
        restore(full, content)
    assert contents(full) == before


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ("DELETE FROM plan WHERE id = 'mine'", "step 1 of the plan 'mine' without that plan"),
        ("UPDATE plan SET head = 9 WHERE id = 'mine'", "lacks a step of the plan 'mine'"),
        ("UPDATE plan SET changed_at = hex(zeroblob(400)) WHERE id = 'mine'", "plan 'mine'"),
    ],
)
def test_a_row_that_is_none_of_ours_is_named(
    full: Database, tmp_path: Path, change: str, told: str
) -> None:
    """And nothing is changed."""
    bare, before = full.keep_copy("test"), contents(full)
    with closing(sqlite3.connect(bare)) as connection, connection:
        connection.execute("PRAGMA foreign_keys = OFF")
        connection.execute(change)
    with pytest.raises(ArchiveError, match=rf"{told}.*Nothing was changed\."):
        restore(full, bare)
    assert contents(full) == before


@pytest.mark.parametrize("year", [1970, 2100])
def test_a_clock_that_is_wrong_loses_nothing(
    full: Database, monkeypatch: pytest.MonkeyPatch, year: int
) -> None:
    """As on a small board without a clock of its own, before it has found the time."""
    for store in ("plans", "parts"):
        monkeypatch.setattr(
            f"cobblewort.store.{store}._now", lambda: f"{year}-01-01T00:00:00.000+00:00"
        )
    plans = PlanStore(full)
    made = plans.create(kit("B06"), "made then", "then")
    made = plans.save("then", made.version, made.plan, "changed then")
    for copy in (full.keep_copy("first"), full.keep_copy("second")):
        os.utime(copy, (4_102_444_800 if year > 2000 else 0,) * 2)
    _, kept = restore(full, archive(full))
    assert [revision.label for revision in plans.revisions("then")] == ["changed then", "made then"]
    assert kept_copies(full)[0].name == kept.name
    assert kept_copies(full)[1].made_at.startswith(str(year))
