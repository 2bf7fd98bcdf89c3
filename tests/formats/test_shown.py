"""Figures in the units that their reader is used to."""

from __future__ import annotations

import io
import json
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic_core import from_json, to_json
from pypdf import PdfReader

from cobblewort.core.errors import InputError
from cobblewort.core.plans.plan import Plan
from cobblewort.formats.display_units import PLAIN, Shown, shown_of
from cobblewort.formats.preferences import Preferences, preferences_from
from cobblewort.formats.sheet import sheet_pdf
from tests.kits import checked, demo
from tests.sentences.gather import of_demo, of_rules

ABROAD = Shown("F", "in", "comma")


@pytest.mark.parametrize(
    ("told", "expected"),
    [
        # NIST SP 811: t/°F = 1.8 t/°C + 32, a difference 1.8 K; 1 in = 25.4 mm exactly.
        ("It throttles at 80 °C.", "It throttles at 176 °F."),
        ("rated from −40 °C", "rated from −40 °F"),
        ("15 to 28 °C", "59 to 82 °F"),
        ("at 22.5 °C", "at 72,5 °F"),
        ("it would pass its 80 °C by 16 °C", "it would pass its 176 °F by 29 °F"),
        ("within 6 K of it", "within 11 °F of it"),
        ("by 2 K/W", "by 2 K/W"),
        ("It is 25.4 mm high.", "It is 1,000 in high."),
        ("12 x 6.5 mm, not 13 mm", "0,47 x 0,256 in, not 0,51 in"),
        ("4 standoffs of 16 mm and 4 screws of 4 mm", "4 standoffs of 16 mm and 4 screws of 4 mm"),
        ("screw M2.5 × 6 mm", "screw M2.5 × 6 mm"),
        ("standoff M2.5, 10 mm, with 1.5 mm of washers",
         "standoff M2.5, 10 mm, with 0,059 in of washers"),
        ("USB 3.2 and IEEE 802.3 at 4.75 V", "USB 3.2 and IEEE 802.3 at 4,75 V"),
        ("Vent 2.0b, M.2", "Vent 2.0b, M.2"),
        ("€ 12.50", "€ 12,50"),
    ],
)  # fmt: skip
def test_figures_change_their_unit_and_nothing_else_does(told: str, expected: str) -> None:
    """Temperatures, differences of them, lengths and the decimal sign; what is sold by a metric
    size, and names of standards, stay.
    """
    assert ABROAD.text(told) == expected
    assert PLAIN.text(told) == told


def test_no_sentence_keeps_a_figure_in_the_units_of_the_core() -> None:
    """Every sentence of every rule, and every text of the demo reports."""
    texts = {text for _, told in of_demo() for _, _, text in told}
    texts |= {text for _, _, said in of_rules() for _, text in said}
    for name in ("choir-recorder", "bat-recorder", "moss-cabinet"):
        _gather(from_json(to_json(checked(demo(name)), inf_nan_mode="null")), texts)
    assert len(texts) > 400
    for text in texts:
        shown = re.sub(r"(standoffs?|screws?) of \d+\S* mm|M2\.5|USB \d\.\d(, \d\.\d\S*)?", "",
                       ABROAD.text(text))  # fmt: skip
        assert not re.search(r"\d (°C|mm|K)(?![\w/])", shown), text
        assert " " not in text or not re.search(r"\d\.\d", shown), text


def _gather(value: object, into: set[str]) -> None:
    if isinstance(value, str):
        into.add(value)
    elif isinstance(value, list):
        for entry in value:
            _gather(entry, into)
    elif isinstance(value, dict):
        for entry in value.values():
            _gather(entry, into)


@given(st.floats(-60, 200).map(lambda temp: round(temp, 1)))
def test_what_was_told_apart_stays_apart(value: float) -> None:
    """A step of a tenth in the core's unit is never lost in the other."""
    for unit in ("°C", "mm", "K"):
        low, high = (ABROAD.text(f"x {entry:.1f} {unit}") for entry in (value, value + 0.1))
        assert low != high


def test_changes_that_are_sent_back_stay_as_they_came() -> None:
    """A way out is applied as the core proposed it."""
    fix = {"sentence": "28.5 mm", "patch": [{"fields": {"purpose": "at 20 °C, 2.5 m"}}]}
    assert ABROAD.of(fix) == {"sentence": "1,122 in", "patch": fix["patch"]}


def test_names_and_bare_figures_stay() -> None:
    """What the page asks by again, a line called 2.5-disk, and money, which is a number."""
    told = {
        "id": "FIT-19:front 3.5 mm", "lines": ["2.5-disk"], "resolves": ["FIT-19:front 3.5 mm"],
        "total": "12.50", "socket": "2.5-disk#1.usb", "label": "front 3.5 mm",
        "margin": {"label": "at 20 °C"},
    }  # fmt: skip
    assert ABROAD.of(told) == told | {"label": "front 0,138 in", "margin": {"label": "at 68 °F"}}


def test_a_request_names_one_of_the_ways() -> None:
    """Anything else is told with what may stand there."""
    assert shown_of("F in comma") == ABROAD
    with pytest.raises(InputError, match="F in comma"):
        shown_of("K furlong dot")


def test_preferences_survive_an_entry_that_nobody_can_read() -> None:
    """A newer version's, or a damaged one; the others count."""
    kept = {"temperature": "F", "length": "ell", "scent": "rose", "price_of_a_euro": "1.08"}
    read = preferences_from(json.loads(json.dumps(kept)))
    assert (read.temperature, read.length, str(read.price_of_a_euro)) == ("F", "mm", "1.08")


def test_a_plan_begins_in_the_money_that_is_preferred() -> None:
    """With the rate for what ships; none where it is euros."""
    plan = Plan(name="new")
    dollars = Preferences.model_validate({"currency": "USD", "price_of_a_euro": "1.08"})
    assert dollars.begun(plan).currency == "USD"
    assert {name: str(rate) for name, rate in dollars.begun(plan).rates.items()} == {"EUR": "1.08"}
    assert Preferences.model_validate({"price_of_a_euro": "1.08"}).begun(plan) == plan


def test_the_sheet_tells_screws_as_they_are_sold_and_the_rest_as_it_is_read() -> None:
    """Degrees of the place in °F, a standoff by its millimetres."""
    plan = demo("choir-recorder")
    content = io.BytesIO(sheet_pdf(plan, checked(plan), shown=ABROAD))
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(content).pages).split())
    assert "M2.5 x 10 mm" in text
    assert "°F" in text
    assert "°C" not in text
