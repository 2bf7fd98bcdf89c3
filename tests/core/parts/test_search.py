"""Parts are found by what is shown of them."""

from __future__ import annotations

import pytest

from cobblewort.core.parts.search import PartIndex, find_parts, is_one_slip, words_of
from tests.kits import shipped


def found(text: str) -> list[str]:
    """The ids that a search finds."""
    return [part.id for part in find_parts(shipped().parts(), text)]


@pytest.mark.parametrize(
    ("text", "part"),
    [
        ("5 V, 3 A", "S02"),
        ("5v 3a", "S02"),
        ("usb-c 3a", "C01"),
        ("kettle", "S03"),
        ("kettel", "S03"),
        ("ketle", "S03"),
        ("Kettle 27", "S03"),
        ("boards hurdle", "B06"),
        ("memory card 64", "M05"),
        ("64 GB", "M05"),
        ("tower", "K07"),
        ("vented case", "E02"),
        ("2,5-inch", "D09"),
        ("hollinbrae", "S03"),
    ],
)
def test_what_is_shown_is_found(text: str, part: str) -> None:
    """By name, figure, kind and class, with one typo, with comma or point."""
    assert part in found(text)


@pytest.mark.parametrize("text", ["zzzz", "kettle zzzz", "ke77le", "3a5v9k"])
def test_what_is_not_there_is_not_found(text: str) -> None:
    """Every word counts; figures are not guessed at."""
    assert found(text) == []


def test_a_number_is_not_part_of_a_longer_one() -> None:
    """3 A is not 3.5 A or 30 A; 3 alone is 3 of anything."""
    words = PartIndex(shipped().parts())
    assert "S03" not in {part.id for part in words.find("3 A kettle")}  # it gives 5 A
    assert words_of("5.0 V 3 A, two sockets") == ["5.0v", "3a", "two", "sockets"]


def test_names_come_first() -> None:
    """Before parts that only tell of it."""
    assert found("kettle")[0] in {"S01", "S03"}
    assert found("") == [part.id for part in shipped().parts()]


@pytest.mark.parametrize(
    ("typed", "word", "slip"),
    [
        ("kettel", "kettle", True),
        ("ketle", "kettle", True),
        ("ketttle", "kettle", True),
        ("kittle", "kettle", True),
        ("kettle", "kettle", True),
        ("kitchen", "kettle", False),
        ("ektlte", "kettle", False),
        ("ket", "kettle", False),
    ],
)
def test_one_slip(typed: str, word: str, slip: bool) -> None:
    """One edit of Damerau and Levenshtein (Commun. ACM 7 (1964) 171)."""
    assert is_one_slip(typed, word) == slip
