"""Lanes and modules against check values PCI7 and M2A to M2C."""

import pytest

from cobblewort.core.standards import m2, pcie


def test_pci7_a_link_takes_the_lesser_of_both_ends() -> None:
    """PCI Express Base specification (from memory): gen 3 x4 in gen 2 x1 is 500 MB/s raw."""
    agreed = pcie.negotiated(3, 4, 2, 1)
    assert agreed == (2, 1)
    assert pcie.raw_rate_mb_s(*agreed) == pytest.approx(500.0)


@pytest.mark.parametrize(
    ("generation", "rate"), [(1, 250.0), (2, 500.0), (3, 984.6154), (4, 1969.2308)]
)
def test_pci1_to_4_rate_of_one_lane(generation: int, rate: float) -> None:
    """PCI Express Base specification (from memory): GT/s times line code over 8."""
    assert pcie.raw_rate_mb_s(generation, 1) == pytest.approx(rate, rel=1e-6)
    assert pcie.raw_rate_mb_s(generation, 4) == pytest.approx(4 * rate, rel=1e-6)


def test_an_unknown_generation_is_refused() -> None:
    """A generation without a rate is an error, not a guess."""
    with pytest.raises(ValueError, match="generation must be"):
        pcie.raw_rate_mb_s(9, 1)


@pytest.mark.parametrize(
    ("card", "socket", "fits"),
    [
        ("B+M", "B", True),
        ("B+M", "M", True),
        ("B", "B", True),
        ("M", "M", True),
        ("B", "M", False),
        ("M", "B", False),
        ("E", "M", False),
    ],
)
def test_m2b_keys(card: str, socket: str, fits: bool) -> None:
    """PCI Express M.2 specification (from memory): both notches fit both, one fits its own."""
    assert m2.key_fits(card, socket) is fits
