from pathlib import Path

import pytest

from cobblewort.store.database import Database


@pytest.fixture
def database(tmp_path: Path) -> Database:
    """A fresh data file."""
    fresh = Database(tmp_path / "data.sqlite3")
    fresh.prepare()
    return fresh
