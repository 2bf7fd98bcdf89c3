"""The benchmark is not run here, but it can be."""

from tests.bench.__main__ import DOCUMENT, PLAN_25
from tests.kits import checked


def test_the_benchmark_can_be_run() -> None:
    """It is put together, its plan is judged, and the document into which it writes has its mark."""
    assert checked(PLAN_25).lines
    assert "<!-- measured -->" in DOCUMENT.read_text()
