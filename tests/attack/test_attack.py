"""A short form of each attack; the long one is `make attack`."""

from pathlib import Path

from tests.attack.attacks import clients, documents, kills, tabs
from tests.browser.conftest import running_server


def test_killed_writers(tmp_path: Path) -> None:
    """Three rounds on one file."""
    assert "none lost" in kills(tmp_path, 3)


def test_two_tabs(tmp_path: Path) -> None:
    """Forty steps in any order."""
    assert "stale ones refused" in tabs(tmp_path, 40)


def test_clients_at_once(tmp_path: Path) -> None:
    """Eight of them for two seconds."""
    with running_server(tmp_path) as address:
        assert "none an error" in clients(address, 8, 2.0)


def test_mutated_documents(tmp_path: Path) -> None:
    """Three hundred of the twenty thousand."""
    assert "none failed" in documents(tmp_path, 300)
