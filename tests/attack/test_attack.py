"""A short form of each attack; the long one is `make attack`."""

from pathlib import Path

from tests.attack.attacks import clients, documents, kills, tabs
from tests.attack.fields import fields
from tests.attack.workspaces import archives, full_disk, restores_under_fire
from tests.browser.conftest import free_port, running_server


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


def test_something_odd_in_every_field(tmp_path: Path) -> None:
    """One in a thousand of them."""
    assert "none failed" in fields(tmp_path, 0.001)


def test_bent_and_hostile_archives(tmp_path: Path) -> None:
    """Sixty of the two thousand."""
    assert "restored whole" in archives(tmp_path, 60)


def test_restores_under_fire(tmp_path: Path) -> None:
    """Two of the thirty."""
    assert "each in the data or in a kept copy" in restores_under_fire(tmp_path, 2)


def test_a_full_disk(tmp_path: Path) -> None:
    """Soon full."""
    assert "none lost" in full_disk(tmp_path, free_port(), 100_000)
