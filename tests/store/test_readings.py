from operator import itemgetter
from pathlib import Path
from typing import Any

import pytest

from cobblewort.api.app import create_app
from cobblewort.core.parts.model import PART
from cobblewort.formats import shipped
from cobblewort.store.database import Database
from cobblewort.store.readings import reading_of


def test_a_file_is_read_again_only_when_its_text_has_changed(database: Database) -> None:
    """The second time the kept reading does; a changed text replaces it."""
    asked: list[str] = []

    def read(text: str) -> dict[str, Any]:
        asked.append(text)
        return {"held": [text, 1.5, None]}

    for text in ("one", "one", "two", "two", "one"):
        found = reading_of(database, "a.yaml", text, lambda text=text: read(text))
        assert found == {"held": [text, 1.5, None]}
    assert asked == ["one", "two", "one"]


by_id = itemgetter("id")


def test_files_do_not_mix(database: Database) -> None:
    """The same text under two names is two readings."""
    assert reading_of(database, "a.yaml", "", lambda: 1) == 1
    assert reading_of(database, "b.yaml", "", lambda: 2) == 2
    assert reading_of(database, "a.yaml", "", lambda: 3) == 1


def test_a_reading_that_json_cannot_hold_is_refused(database: Database) -> None:
    """Nothing of it is kept."""
    with pytest.raises(TypeError):
        reading_of(database, "a.yaml", "", lambda: {1, 2})
    assert reading_of(database, "a.yaml", "", lambda: "good") == "good"


def test_a_second_start_reads_no_shipped_file_and_offers_the_same(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Every part is, figure by figure, what the files themselves give."""
    first = create_app(tmp_path / "data.sqlite3").state.catalogue

    def unread() -> None:
        raise AssertionError("the file was read again")

    monkeypatch.setattr("cobblewort.api.app.shipped_parts", unread)
    monkeypatch.setattr("cobblewort.api.app.shipped_classes", unread)
    again = create_app(tmp_path / "data.sqlite3").state.catalogue
    expected = [PART.dump_python(part) for part in shipped.shipped_catalogue().parts()]
    for catalogue in (first, again):
        found = [PART.dump_python(part) for part in catalogue.parts()]
        assert sorted(found, key=by_id) == sorted(expected, key=by_id)
