import gc
import json
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from click.testing import CliRunner, Result

from cobblewort.cli import DATA_NAME, DEMO_NAME, made_to_stay, main
from cobblewort.formats.shipped import demo_plans

PLANS = {entry["id"]: entry["plan"] for entry in demo_plans()}


def check(tmp_path: Path, document: Any, *options: str) -> Result:
    """Run `cobblewort check` on a document written to a file."""
    file = tmp_path / "plan.json"
    file.write_text(document if isinstance(document, str) else json.dumps(document))
    return CliRunner().invoke(main, ["check", str(file), *options])


@pytest.mark.parametrize(
    ("plan_id", "code"), [("bat-recorder", 0), ("moss-cabinet", 0), ("choir-recorder", 1)]
)
def test_exit_code_tells_whether_something_stops_it(
    tmp_path: Path, plan_id: str, code: int
) -> None:
    """0 when nothing stops it, tight included; 1 when something does."""
    result = check(tmp_path, PLANS[plan_id])
    assert result.exit_code == code
    assert PLANS[plan_id]["name"] in result.stdout
    assert {"Data", "Lifetime"} <= set(result.stdout.split())
    assert "not judged yet" not in result.stdout


def test_the_ambient_option_replaces_the_hottest_day(tmp_path: Path) -> None:
    """A hotter day stops what a mild one lets through."""
    assert check(tmp_path, PLANS["moss-cabinet"], "--ambient", "52").exit_code == 1


def test_the_json_report_holds_margins_findings_nodes_and_totals(tmp_path: Path) -> None:
    """Every margin with all its fields, voltages and currents by state, temperatures, the bill."""
    result = check(tmp_path, PLANS["choir-recorder"], "--json", "--samples", "64")
    report = json.loads(result.stdout)
    assert result.exit_code == 1
    fields = {
        "value",
        "limit",
        "limit_kind",
        "spare",
        "spare_p05",
        "spare_p95",
        "holds_share",
        "loaded_share",
        "ruler_share",
        "state",
        "severity",
        "unit",
    }
    assert all(fields <= set(margin) for margin in report["margins"])
    states = len(report["power"]["states"])
    assert all(len(node["voltage_v"]) == states for node in report["power"]["nodes"])
    assert {node["id"] for node in report["heat"]["nodes"]} >= {"die", "board", "inside", "wall"}
    assert report["cost"]["total"] == "591"


def test_a_plan_file_can_carry_its_own_parts(tmp_path: Path) -> None:
    """One file says all."""
    own = {"id": "own", "kind": "board", "part_class": "fast_card", "maker": "me", "model": "Mine"}
    plan = {"name": "p", "parts": [own], "lines": [{"id": "b", "role": "board", "part": "own"}]}
    result = check(tmp_path, plan)
    assert "supply" in " ".join(result.stdout.split())


def test_a_pack_adds_parts(tmp_path: Path) -> None:
    """`--parts` reads a pack; without it the part is missing."""
    pack = tmp_path / "pack.yaml"
    pack.write_text(
        "parts:\n- {id: Z1, kind: board, part_class: fast_card, maker: m, model: Zed}\n"
    )
    plan = {"name": "p", "lines": [{"id": "b", "role": "board", "part": "Z1"}]}
    assert check(tmp_path, plan, "--parts", str(pack)).exit_code == 1
    missing = check(tmp_path, plan)
    assert missing.exit_code == 2
    assert "lines.0.part: The catalogue has no part 'Z1'" in missing.stderr


@pytest.mark.parametrize(
    ("document", "sentence"),
    [
        ("{", "this is not JSON"),
        ("[]", "a plan file holds one object"),
        ('{"name": "x", "budget": NaN}', "NaN is not a JSON number"),
        ({"lines": []}, "name: This field is missing"),
        ({"name": "x", "colour": 1}, "colour: This field is not known"),
        ({"name": "x", "place": {"ambient_max_c": 1e9}}, "place.ambient_max_c: must be at most 90"),
        (
            {"name": "x", "lines": [{"id": "a", "role": "board", "part": "B06", "quantity": 0}]},
            "lines.0.quantity: must be at least 1 (got 0)",
        ),
        (
            {"name": "x", "lines": [{"id": "a", "role": "board", "part": "B06"}] * 2},
            "each line needs its own id (twice: a)",
        ),
    ],
)
def test_a_wrong_file_is_told_with_its_places(tmp_path: Path, document: Any, sentence: str) -> None:
    """Exit 2 and a sentence for each error, never a traceback."""
    result = check(tmp_path, document)
    assert result.exit_code == 2
    assert sentence in result.stderr
    assert "Traceback" not in result.stderr


def test_every_error_is_told_at_once(tmp_path: Path) -> None:
    """Two mistakes, two lines."""
    plan = {"name": "x", "currency": 5, "lines": [{"id": "a", "role": "roof", "part": "B06"}]}
    assert len(check(tmp_path, plan).stderr.strip().splitlines()) == 2


def test_a_file_that_is_not_there(tmp_path: Path) -> None:
    """Its name and the system's reason."""
    result = CliRunner().invoke(main, ["check", str(tmp_path / "none.json")])
    assert result.exit_code == 2
    assert "none.json cannot be read" in result.stderr


def test_check_needs_no_database_and_no_server(tmp_path: Path) -> None:
    """The real command leaves nothing behind and loads no web framework."""
    file = tmp_path / "plan.json"
    file.write_text(json.dumps(PLANS["bat-recorder"]))
    code = (
        "import sys; from cobblewort.cli import main\n"
        "try: main(['check', sys.argv[1]])\n"
        "except SystemExit as e: assert not e.code, e.code\n"
        "assert not {'fastapi', 'sqlite3', 'uvicorn'} & set(sys.modules)"
    )
    subprocess.run([sys.executable, "-c", code, str(file)], check=True, capture_output=True)
    assert [p.name for p in tmp_path.iterdir()] == ["plan.json"]


def test_the_collector_runs_again_after_the_start() -> None:
    """Whether the start went well or not; what was loaded is kept out of its way."""
    frozen, threshold = gc.get_freeze_count(), gc.get_threshold()
    try:
        with made_to_stay():
            assert not gc.isenabled()
            loaded: list[object] = [[] for _ in range(100)]
        assert gc.isenabled()
        assert gc.get_freeze_count() >= frozen + len(loaded)
        with pytest.raises(OSError, match="no such file"), made_to_stay():
            raise OSError("no such file")
        assert gc.isenabled()
    finally:
        gc.unfreeze()
        gc.set_threshold(*threshold)


@pytest.mark.parametrize("command", ["serve", "demo"])
def test_a_data_file_that_cannot_be_used_ends_with_a_sentence(tmp_path: Path, command: str) -> None:
    """A file of a newer program, no database at all, and a file where the folder should be."""
    name = {"serve": DATA_NAME, "demo": DEMO_NAME}[command]
    newer = tmp_path / "newer"
    newer.mkdir()
    with closing(sqlite3.connect(newer / name)) as connection:
        connection.execute("PRAGMA user_version = 999")
    letter = tmp_path / "letter"
    letter.mkdir()
    (letter / name).write_text("Dear diary, " * 100)
    in_the_way = tmp_path / "in-the-way"
    in_the_way.write_text("")
    for folder, sentence in (
        (newer, "written by a newer Cobblewort"),
        (letter, "Move it away"),
        (in_the_way, "in-the-way"),
    ):
        result = CliRunner().invoke(main, [command, "--data", str(folder)])
        assert result.exit_code == 2
        assert sentence in result.stderr
        assert len(result.stderr.splitlines()) == 1


def test_help_tells_every_command_and_option() -> None:
    """What people read first; a port or a day out of reach is refused with its range."""
    assert all(word in CliRunner().invoke(main, []).output for word in ("serve", "demo", "check"))
    told = CliRunner().invoke(main, ["check", "--help"]).output
    assert all(f"--{word}" in told for word in ("parts", "ambient", "samples", "json"))
    result = CliRunner().invoke(main, ["serve", "--port", "70000"])
    assert result.exit_code == 2
    assert "1<=x<=65535" in result.stderr
