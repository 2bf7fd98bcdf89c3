"""Part packs as JSON and CSV: read back exactly, and what they would do to a catalogue."""

from __future__ import annotations

import csv
import io
import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.errors import InputError
from cobblewort.formats.packs import arriving, pack_csv, pack_json, pack_of_csv, pack_of_text
from cobblewort.formats.shipped import shipped_parts
from tests.kits import shipped, with_part

SHIPPED: list[dict[str, Any]] = [json.loads(json.dumps(part)) for part in shipped_parts()]

KEYS = st.text("abcxyz_09-", min_size=1, max_size=6)
LEAVES = (
    st.none()
    | st.booleans()
    | st.integers(-(10**9), 10**9)
    | st.floats(allow_nan=False, allow_infinity=False)
    | st.text(max_size=12)
)
DOCUMENTS = st.recursive(
    LEAVES | st.lists(LEAVES, max_size=3),
    lambda inner: st.dictionaries(KEYS, inner, min_size=1, max_size=4),
    max_leaves=12,
)


def test_the_shipped_pack_survives_both_ways() -> None:
    """All of it, to the last figure."""
    assert pack_of_text(pack_json(SHIPPED), "a.json") == SHIPPED
    assert pack_of_text(pack_csv(SHIPPED), "a.csv") == SHIPPED


@settings(max_examples=120, deadline=None)
@given(st.lists(st.dictionaries(KEYS, DOCUMENTS, min_size=1, max_size=5), min_size=1, max_size=4))
def test_any_document_survives_as_csv(documents: list[dict[str, Any]]) -> None:
    """Texts that look like numbers, formulas, quotes, line ends and nothing; figures; lists."""
    text = pack_csv(documents)
    assert pack_of_csv(text) == documents


@settings(max_examples=200, deadline=None)
@given(st.text(max_size=20))
def test_no_cell_starts_a_formula(text: str) -> None:
    """What a spreadsheet would run stands behind an apostrophe, or is a number."""
    rows = csv.reader(io.StringIO(pack_csv([{"id": "x", "model": text}]), newline=""))
    for cell in list(rows)[1]:
        if cell.startswith(("=", "+", "-", "@", "\t", "\r")):
            float(cell)


def test_heads_tell_units() -> None:
    """A reader sees what a column is measured in."""
    heads = next(csv.reader(io.StringIO(pack_csv(SHIPPED))))
    assert "storage.capacity_gb [GB]" in heads
    assert "ambient_max_c [°C]" in heads
    assert heads[:4] == ["id", "kind", "part_class", "maker"]


@pytest.mark.parametrize(
    ("text", "place"),
    [
        ("", "row 1"),
        ("id,model,id\na,b,c", "row 1, column 3"),
        ("id,a b\nx,y", "row 1, column 2"),
        ("id,model\nx,y,z", "row 2"),
        ('id,loads,loads.own\nx,3,"{"', "row 2, loads.own"),
        ('id,tags\nx,"[1,"', "row 2, tags"),
        ('id,"mo\n', ""),
    ],
)
def test_a_wrong_table_tells_row_and_column(text: str, place: str) -> None:
    """Every problem with its place."""
    with pytest.raises(InputError) as told:
        pack_of_csv(text)
    assert told.value.problems[0][0] == place


def test_what_a_pack_would_do() -> None:
    """New, the same, a change of one's own, and a clash with what ships."""
    own = {
        "id": "own-1",
        "kind": "device",
        "part_class": "usb2_device",
        "maker": "m",
        "model": "Mine",
    }
    here = with_part(**{**own, "origin": "custom"})
    pack = [own, {**own, "id": "own-2"}, {**SHIPPED[0], "model": "Other"}, SHIPPED[1]]
    assert [part.state for part in arriving(pack, here)] == ["same", "new", "clashes", "same"]
    (changed,) = arriving([{**own, "summary": "now"}], here)
    assert (changed.state, changed.fields) == ("changes", ("summary",))
    with pytest.raises(InputError, match="twice"):
        arriving([own, own], shipped())
    with pytest.raises(InputError) as told:
        arriving([{**own, "kind": "nothing"}, {**own, "maker": 3}], shipped())
    assert {place.split(".")[1] for place, _ in told.value.problems} == {"0", "1"}
