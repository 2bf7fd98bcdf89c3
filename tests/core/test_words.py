from decimal import Decimal

import pytest

from cobblewort.core import words
from cobblewort.core.text import Said, as_text


@pytest.mark.parametrize(
    ("found", "expected"),
    [
        (words.amps(1.2), "1.20 A"),
        (words.volts(4.826), "4.83 V"),
        (words.watts(5.25), "5.2 W"),
        (words.mm(54.45), "54.5 mm"),
        (words.degrees(78.5), "78 °C"),
        (words.money(Decimal("12.5"), "EUR"), "€12.50"),
        (words.money(Decimal("12.00"), "XAU"), "XAU 12"),
        (words.money(0.1 + 0.2, "EUR"), "€0.30"),
        (words.minutes(0.001), "0.1 s"),
        (words.minutes(0.2), "12 s"),
        (words.minutes(31), "31 min"),
        (words.minutes(210), "3.5 h"),
        (words.minutes(5760), "4 days"),
        (words.years(4.56), "4.6 years"),
        (words.years(50), "50 years"),
        (words.years(60, most_y=10), "10 years and more"),
        (words.years(1.02), "1 year"),
        (words.years(0.05), "18 days"),
        (words.size(0), "0 GB"),
        (words.size(0.00964), "9.64 MB"),
        (words.size(480), "480 GB"),
        (words.size(1500), "1.5 TB"),
        (words.size(12345678), "12350 TB"),
        (words.daily(0.00034), "0.34 MB per day"),
        (words.daily(1.23), "1.2 GB per day"),
        (words.daily(1234), "1200 GB per day"),
    ],
)
def test_each_unit_has_one_form(found: Said, expected: str) -> None:
    """Digits and sign of the unit, wherever a sentence holds it."""
    assert str(as_text(found)) == expected


@pytest.mark.parametrize(
    ("names", "expected"),
    [(["a"], "a"), (["a", "b"], "a and b"), (["a", "b", "c"], "a, b and c")],
)
def test_a_list_reads_like_a_sentence(names: list[str], expected: str) -> None:
    """Commas, and an `and` before the last."""
    assert words.listed(names) == expected


@pytest.mark.parametrize(
    ("state", "expected"),
    [
        (("", ""), ""),
        (("start", "Start"), " at power-up"),
        (("idle", "Idle"), " when idle"),
        (("all", "Worst case"), " in the worst case"),
        (("phase-1", "film"), " during “film”"),
        (("phase-1-mean", "film (mean)"), " during “film”"),
        (("phase-2", "Start"), " during “Start”"),
    ],
)
def test_a_state_ends_a_clause(state: tuple[str, str], expected: str) -> None:
    """Phases are quoted by the name their user gave them, whether limit or mean."""
    assert words.when(*state) == expected


def test_connectors_have_the_names_people_use() -> None:
    """One that is not known is called what the part calls it."""
    assert words.connector("usb-c") == "USB-C"
    assert words.connector("own-plug") == "own-plug"


def test_a_few_are_named_and_the_rest_counted() -> None:
    """Each once; four hundred sensors make no sentence of four hundred names."""
    assert words.few(["a", "b", "a"]) == "a and b"
    assert words.few("abcd") == "a, b, c and 1 more"
    assert words.few("abcdefg") == "a, b, c and 4 more"


@pytest.mark.parametrize(
    ("value", "limit", "expected"),
    [
        (3.74, 4.3, ("3.74 V", "4.30 V")),
        (4.2471, 4.25, ("4.247 V", "4.250 V")),
        (4.24997, 4.25, ("4.25 V", "4.25 V")),
        (4.25, 4.25, ("4.25 V", "4.25 V")),
    ],
)
def test_what_is_short_reads_short(value: float, limit: float, expected: tuple[str, str]) -> None:
    """4.25 V under a limit of 4.25 V would puzzle; two more digits are enough."""
    told = words.apart(words.volts, value, limit)
    assert tuple(str(as_text(one)) for one in told) == expected
