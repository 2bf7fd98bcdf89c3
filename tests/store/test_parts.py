import sqlite3
from contextlib import closing
from pathlib import Path

import pytest

from cobblewort.store.database import Database, migrations
from cobblewort.store.parts import NotCustomError, PartNotFoundError, PartStore, StalePartError


@pytest.fixture
def parts(database: Database) -> PartStore:
    """A store with one part of a pack."""
    store = PartStore(database)
    store.bring_up_to_date([{"id": "a", "kind": "tool", "x": 1}])
    return store


def test_parts_get_a_revision_only_when_they_change(parts: PartStore) -> None:
    """The newest revision is the one in use; both are kept."""
    assert parts.bring_up_to_date([{"id": "a", "kind": "tool", "x": 1}]) == 0
    assert parts.bring_up_to_date([{"id": "a", "kind": "tool", "x": 2}]) == 1
    newest = {"id": "a", "kind": "tool", "x": 2, "revision": 2, "origin": "pack"}
    assert [part.document for part in parts.all()] == [newest]
    assert parts.older() == {("a", 1): {**newest, "x": 1, "revision": 1}}


def test_a_part_of_ones_own_has_an_id_and_revisions_of_its_own(parts: PartStore) -> None:
    """Created, changed, and read back; the first revision is kept."""
    made = parts.create({"id": "a", "kind": "tool", "x": 1, "origin": "pack", "revision": 9})
    assert made.id.startswith("own-")
    assert (made.revision, made.own, made.document["origin"]) == (1, True, "custom")
    changed = parts.save(made.id, 1, {**made.document, "x": 3})
    assert (changed.revision, changed.document["x"]) == (2, 3)
    assert parts.older()[made.id, 1]["x"] == 1
    assert parts.get("a").document["x"] == 1, "the part it was copied from is as it was"


def test_two_writers_of_one_part_do_not_overwrite_each_other(parts: PartStore) -> None:
    """The second is told, and nothing is written."""
    made = parts.create({"kind": "tool"})
    parts.save(made.id, 1, {"kind": "tool", "x": 1})
    with pytest.raises(StalePartError):
        parts.save(made.id, 1, {"kind": "tool", "x": 2})
    assert parts.get(made.id).document["x"] == 1


def test_what_came_with_a_pack_is_not_changed(parts: PartStore) -> None:
    """Neither saved over nor put away; an unknown part is not found."""
    with pytest.raises(NotCustomError):
        parts.save("a", 1, {"kind": "tool"})
    with pytest.raises(NotCustomError):
        parts.bin("a", 1)
    with pytest.raises(PartNotFoundError):
        parts.bin("none", 1)
    with pytest.raises(PartNotFoundError):
        parts.restore("none")


def test_put_away_and_brought_back(parts: PartStore) -> None:
    """Twice is as good as once."""
    made = parts.create({"kind": "tool"})
    parts.bin(made.id, 1)
    parts.bin(made.id, 1)
    assert parts.get(made.id).away
    assert not parts.restore(made.id).away


def test_a_data_file_of_the_first_schema_keeps_its_parts(tmp_path: Path) -> None:
    """The step adds to what is there; a copy of the old file stands beside it."""
    path = tmp_path / "old.sqlite3"
    with closing(sqlite3.connect(path)) as connection:
        connection.executescript(migrations()[0][1] + "\nPRAGMA user_version = 1;")
        connection.execute(
            "INSERT INTO part (id, revision, document, created_at) "
            'VALUES (\'a\', 1, \'{"id": "a", "kind": "tool"}\', \'\')'
        )
        connection.commit()
    database = Database(path)
    database.prepare()
    assert [(part.id, part.own) for part in PartStore(database).all()] == [("a", False)]
    assert len(database.copies()) == 1
