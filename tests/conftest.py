"""For all tests: programs that they start, some forty of them, find their modules compiled."""

import os
import sys
from pathlib import Path

import pytest

COMPILED = str(Path(__file__).parents[1] / "build" / "compiled")

# As an installed program does; beside the sources a machine may forbid it.
sys.dont_write_bytecode, sys.pycache_prefix = False, COMPILED
os.environ["PYTHONDONTWRITEBYTECODE"], os.environ["PYTHONPYCACHEPREFIX"] = "", COMPILED


def pytest_addoption(parser: pytest.Parser) -> None:
    """`--long` runs the long forms of tests: everything of which `make test` tries a share."""
    parser.addoption("--long", action="store_true", help="long forms instead of shares")


@pytest.fixture(scope="session")
def is_long(pytestconfig: pytest.Config) -> bool:
    """Whether the long forms are asked for."""
    return bool(pytestconfig.getoption("--long"))


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """Leave out what is marked as long, unless the long forms are asked for."""
    if not config.getoption("--long"):
        items[:] = [item for item in items if item.get_closest_marker("long") is None]
