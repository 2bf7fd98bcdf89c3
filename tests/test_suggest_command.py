"""`cobblewort suggest`."""

import csv
import io
import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from cobblewort.cli import main
from cobblewort.core.plans.purpose import plan_for
from cobblewort.formats.shipped import shipped_places, shipped_purposes

FEW = [
    option
    for role, part in {
        "board": "B04",
        "power_supply": "S06",
        "case": "E01",
    }.items()
    for option in ("--require", f"{role}={part}")
]


def suggest(folder: Path, *options: str, purpose: str = "sign") -> Result:
    """Run the command on a plan that states its needs."""
    plan = plan_for(shipped_purposes()[purpose], purpose, shipped_places()["indoor-room"].place)
    file = folder / "plan.json"
    file.write_text(plan.model_dump_json())
    return CliRunner().invoke(main, ["suggest", str(file), *options])


def test_the_first_kit_and_its_figures(tmp_path: Path) -> None:
    """A table with a head, a row, and that less is not proven yet."""
    result = suggest(tmp_path, "--first", "--units", "comma")
    assert result.exit_code == 0
    head, row, empty, sure = result.stdout.splitlines()
    assert head.split() == ["Price", "Mean", "power", "Noise", "Tightest", "margin", "Parts"]
    assert row.startswith("€59")
    assert "1,1 W" in row.replace("\N{NO-BREAK SPACE}", " ")
    assert "Stile, Micro 12, Plain 16, Trestle" in row
    assert empty == ""
    assert sure.startswith("Complete up to €59.")


def test_what_is_proven(tmp_path: Path) -> None:
    """Of few parts the front is whole."""
    result = suggest(tmp_path, *FEW)
    assert result.exit_code == 0
    assert "Proven: no other kit is better." in result.stdout


def test_json_holds_plans_and_csv_a_row_for_each(tmp_path: Path) -> None:
    """The plans can be checked; the columns name their units."""
    found = json.loads(suggest(tmp_path, *FEW, "--json").stdout)
    assert found["proven"] is True
    (tmp_path / "first.json").write_text(json.dumps(found["kits"][0]["plan"]))
    assert CliRunner().invoke(main, ["check", str(tmp_path / "first.json")]).exit_code == 0
    rows = list(csv.DictReader(io.StringIO(suggest(tmp_path, *FEW, "--csv").stdout)))
    assert len(rows) == len(found["kits"])
    assert rows[0]["price (EUR)"] == "59.00"
    assert rows[0]["parts"].startswith("Stile; Micro 12")


def test_nothing_for_so_little(tmp_path: Path) -> None:
    """A limit is told with what is proven, and no kit is an exit code of its own."""
    result = suggest(tmp_path, "--at-most", "30")
    assert result.exit_code == 1
    assert "Proven: no kit of these parts for at most €30 meets every" in result.stdout
    everything = suggest(tmp_path, "--owned-only")
    assert everything.exit_code == 1
    assert "Board: no part on offer" in everything.stdout


@pytest.mark.parametrize(
    ("options", "told"),
    [
        (("--criteria", "beauty"), "'beauty' is no criterion. Choose from price, watts"),
        (("--criteria", ","), "Choose at least one criterion"),
        (("--require", "board"), "'board' is not ROLE=PART"),
        (("--require", "hat=B04"), "'hat=B04' is not ROLE=PART"),
        (("--require", "board=B99"), "There is no part 'B99'"),
        (("--json", "--csv"), "Choose either --json or --csv"),
        (("--at-most", "0"), "not in the range"),
    ],
)
def test_wrong_options_are_told(tmp_path: Path, options: tuple[str, ...], told: str) -> None:
    """Each with what to change."""
    result = suggest(tmp_path, *options)
    assert result.exit_code == 2
    assert told in result.stderr
