"""Carrying plans, parts and workspaces by the command line."""

from __future__ import annotations

import io
import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result
from pypdf import PdfReader

from cobblewort.cli import main
from cobblewort.formats.shipped import demo_plans
from cobblewort.store.archive import look_at

PLANS = {entry["id"]: entry["plan"] for entry in demo_plans()}


def run(*arguments: str, typed: str | None = None) -> Result:
    """Run the command."""
    return CliRunner().invoke(main, list(arguments), input=typed)


def written(tmp_path: Path, *plan_ids: str) -> list[str]:
    """Plan files of demo plans."""
    found = []
    for plan_id in plan_ids:
        file = tmp_path / f"{plan_id}.json"
        file.write_text(json.dumps(PLANS[plan_id]))
        found.append(str(file))
    return found


def test_several_plans_are_checked_in_a_line_each(tmp_path: Path) -> None:
    """A wrong file takes no other down, and decides what the command exits with."""
    files = written(tmp_path, "bat-recorder", "choir-recorder")
    result = run("check", "--samples", "1", *files)
    assert result.exit_code == 1
    assert "choir-recorder.json: Problem. " in result.stdout
    assert "2 plans: 1 with" in result.stdout
    broken = tmp_path / "broken.json"
    broken.write_text("{")
    result = run("check", "--samples", "1", str(broken), *files)
    assert result.exit_code == 2
    assert "broken.json: unreadable file: line 1" in result.stderr
    assert "1 unreadable files" in result.stdout


def test_parts_of_a_check_may_be_csv(tmp_path: Path) -> None:
    """The pack's part is known to the plan."""
    pack = tmp_path / "pack.csv"
    pack.write_text("id,kind,part_class,maker,model\nQ1,device,usb2_device,m,Quill\n")
    plan = tmp_path / "plan.json"
    plan.write_text(
        json.dumps({"name": "x", "lines": [{"id": "a", "role": "add_on", "part": "Q1"}]})
    )
    assert run("check", str(plan)).exit_code == 2
    assert run("check", str(plan), "--parts", str(pack)).exit_code in (0, 1)


def test_in_and_out_and_in(tmp_path: Path) -> None:
    """What is exported from one folder comes into another as it was."""
    one, other = str(tmp_path / "one"), str(tmp_path / "other")
    nowhere = run("import", "--dry-run", "--data", one, *written(tmp_path, "bat-recorder"))
    assert (nowhere.exit_code, "There is no folder" in nowhere.stderr) == (2, True)
    pack = tmp_path / "pack.csv"
    pack.write_text("id,kind,part_class,maker,model\nQ1,device,usb2_device,m,Quill\n")
    run("import", "--data", one, str(pack))
    looked = run("import", "--dry-run", "--data", one, *written(tmp_path, "bat-recorder"))
    assert looked.exit_code == 0
    assert "“Churchyard bat-call recorder”: " in looked.stdout
    assert json.loads(run("export", "--data", one).stdout)["plans"] == []
    run("import", "--data", one, *written(tmp_path, "bat-recorder", "choir-recorder"))
    out = tmp_path / "out.json"
    assert run("export", "--data", one, "--history", "-o", str(out)).exit_code == 0
    run("import", "--data", other, str(out))
    first, second = (
        [entry["plan"] for entry in json.loads(run("export", "--data", data).stdout)["plans"]]
        for data in (one, other)
    )
    assert first == second
    assert len(first) == 2
    single = json.loads(run("export", "--data", one, "Choir recorder with mirrored drives").stdout)
    assert single["name"] == "Choir recorder with mirrored drives"
    missing = run("export", "--data", one, "Nothing")
    assert missing.exit_code == 2
    assert "There is no plan “Nothing”" in missing.stderr


def test_a_sheet_is_written(tmp_path: Path) -> None:
    """The same builder as the page's."""
    data = str(tmp_path / "data")
    run("import", "--data", data, *written(tmp_path, "bat-recorder"))
    file = tmp_path / "sheet.pdf"
    result = run(
        "export", "--data", data, "--sheet", "Churchyard bat-call recorder", "-o", str(file)
    )
    assert result.exit_code == 0
    assert "To buy" in PdfReader(io.BytesIO(file.read_bytes())).pages[0].extract_text()
    assert run("export", "--data", data, "--sheet").exit_code == 2


def test_packs_come_in_and_go_out(tmp_path: Path) -> None:
    """New, then the same; out again as JSON and CSV."""
    data, pack = str(tmp_path / "data"), tmp_path / "pack.csv"
    pack.write_text("id,kind,part_class,maker,model\nQ1,device,usb2_device,m,Quill\n")
    assert "m Quill: new" in run("import", "--data", data, str(pack)).stdout
    assert "m Quill: unchanged" in run("import", "--data", data, str(pack)).stdout
    assert json.loads(run("export", "--data", data, "--parts", "json").stdout)["parts"] == [
        {"id": "Q1", "kind": "device", "part_class": "usb2_device", "maker": "m", "model": "Quill"}
    ]
    csv = run("export", "--data", data, "--parts", "csv").stdout
    assert csv.splitlines()[1].startswith("Q1,device,usb2_device,m,Quill")


def test_a_back_up_and_back(tmp_path: Path) -> None:
    """It tells what it would replace, asks, and keeps what was there."""
    data, file = str(tmp_path / "data"), tmp_path / "all.zip"
    run("import", "--data", data, *written(tmp_path, "bat-recorder"))
    assert run("backup", "--data", data, str(file)).exit_code == 0
    assert look_at(file.read_bytes()).holds.plans == ("Churchyard bat-call recorder",)
    run("import", "--data", data, *written(tmp_path, "choir-recorder"))
    refused = run("restore", "--data", data, str(file), typed="n\n")
    assert "It replaces 2 plans with 2 steps of" in refused.stdout
    assert (refused.exit_code, refused.stdout.splitlines()[-1]) == (0, "Nothing was changed.")
    assert len(json.loads(run("export", "--data", data).stdout)["plans"]) == 2
    done = run("restore", "--data", data, str(file), "--yes")
    assert "Restored. The former workspace is kept as" in done.stdout
    assert len(json.loads(run("export", "--data", data).stdout)["plans"]) == 1
    file.write_bytes(file.read_bytes()[:-1])
    damaged = run("restore", "--data", data, str(file), "--yes")
    assert damaged.exit_code == 2
    assert "Nothing was changed" in damaged.stderr


@pytest.mark.parametrize(
    "command",
    [("export",), ("backup", "out.zip"), ("restore", "in.zip"), ("import", "in.json"), ("demo",)],
)
def test_a_file_in_the_place_of_the_folder_is_told(
    tmp_path: Path, command: tuple[str, ...]
) -> None:
    """What is wrong and what to do, in one line, from every command that keeps plans."""
    taken = tmp_path / "taken"
    taken.write_text("mine")
    for folder in (taken, taken / "deeper"):
        done = CliRunner().invoke(main, [*command, "--data", str(folder)])
        assert done.exit_code == 2
        assert done.stderr.splitlines() == [f"{folder} is a file, not a folder. Name a folder."]
    assert taken.read_text() == "mine"


def test_shells_complete_the_commands() -> None:
    """What click writes for the shell names this program."""
    for shell in ("bash", "zsh", "fish"):
        assert "_COBBLEWORT_COMPLETE" in run("completion", shell).stdout
