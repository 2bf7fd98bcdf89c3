from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from cobblewort.api.app import create_app
from cobblewort.demo import fill_with_demo
from tests.kits import OWN


@pytest.fixture
def client(tmp_path: Path) -> Iterator[TestClient]:
    """The application with the demo plans, as its own page calls it."""
    path = tmp_path / "data.sqlite3"
    fill_with_demo(path)
    with TestClient(create_app(path), base_url="http://127.0.0.1:8000", headers=OWN) as client:
        yield client
