"""The benchmark is not run here, but it can be."""

from tests.bench.__main__ import DOCUMENT, PLAN_25
from tests.kits import checked


def test_the_benchmark_can_be_run() -> None:
    """It is put together, its plan is judged, and its document has the mark below which it goes."""
    assert checked(PLAN_25).lines
    assert "<!-- measured -->" in DOCUMENT.read_text()
