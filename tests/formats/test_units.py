"""Figures with units of people's own, against what the units are."""

from __future__ import annotations

import subprocess
import sys
from contextlib import suppress

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.errors import InputError
from cobblewort.formats.units import read_figure


@pytest.mark.parametrize(
    ("text", "unit", "expected"),
    [
        ("500 mA", "A", 0.5),
        ("2,5 A", "A", 2.5),
        ("−3", "°C", -3),
        ("1/2 in", "mm", 12.7),  # the inch is 25.4 mm exactly (ISO 31)
        ('3/8"', "mm", 9.525),
        ("25 cm", "mm", 250),
        ("4 TB", "GB", 4000),
        ("512 MiB", "GB", 0.536870912),  # IEC 80000-13
        ("100 Mb/s", "MB/s", 12.5),  # a small b is a bit
        ("1 Gbit/s", "Mbit/s", 1000),
        ("176 °F", "°C", 80),
        ("90 min", "h", 1.5),
        ("2 weeks", "days", 14),
        ("1 lb", "g", 453.59237),  # exactly, by the agreement of 1959
        ("0.1 W/(m K)", "W/(m K)", 0.1),
        ("0.1 W/(m·K)", "W/(m K)", 0.1),
        ("2 /K", "1/K", 2),
        ("2.5 %/K", "1/K", 0.025),
        ("9 °F", "K", 5),
        ("4 °C/W", "K/W", 4),
        ("1 l/s", "m³/h", 3.6),
        ("1 in^2", "cm²", 6.4516),
        ("400 Mbps", "MB/s", 50),
        ("2 kg", "g", 2000),
        ("3 µs", "ms", 0.003),
        ("7", "EUR", 7),
    ],
)
def test_it_is_brought_to_the_unit_of_the_field(text: str, unit: str, expected: float) -> None:
    """With a comma or a point, as a fraction, with any unit of its kind."""
    assert read_figure(text, unit) == pytest.approx(expected)


@pytest.mark.parametrize(
    ("text", "unit", "told"),
    [
        ("5 V", "A", "does not fit this field\\. Its"),
        ("3 apples", "mm", "is not known"),
        ("5 mm²²²²²²", "mm", "is not known"),
        ("5 mm^2^2^2", "mm", "is not known"),
        ("5 mm^9999999", "mm", "is not known"),
        ("5 m*m*m*m*m", "mm", "is not known"),
        ("5 (((((m)))))", "mm", "is not known"),
        ("5 kmm", "mm", "is not known"),
        ("5 mm/", "mm", "is not known"),
        ("5 1", "mm", "is not known"),
        ("much", "mm", "not a number"),
        ("9**9**9", "A", "is not known"),
        ("1/0 A", "A", "divided by 0"),
        ("5 h", "EUR", "a number"),
        ("", "A", "not a number"),
        ("1" * 60, "A", "not a number"),
        ("2 A; import os", "A", "unit"),
    ],
)
def test_what_is_wrong_is_said(text: str, unit: str, told: str) -> None:
    """In a sentence, and nothing is worked out that could take long."""
    with pytest.raises(InputError, match=told.replace("*", ".")):
        read_figure(text, unit)


@given(st.text(max_size=50), st.sampled_from(["A", "mm", "°C", "EUR", "GB", ""]))
@settings(deadline=None)  # the first text waits for the library of units
def test_any_text_is_read_or_refused(text: str, unit: str) -> None:
    """Never anything else."""
    with suppress(InputError):
        assert isinstance(read_figure(text, unit), float)


def test_the_library_of_units_is_not_loaded_at_the_start() -> None:
    """Nor that of calendars: people run this on the small boards themselves."""
    code = "import cobblewort.api.app, sys; print(sorted({'pint', 'icalendar'} & set(sys.modules)))"
    found = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert found.stdout.strip() == "[]"
