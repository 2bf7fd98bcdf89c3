"""The command line told wrong things: a sentence and exit 2, never a traceback."""

from __future__ import annotations

import json
import os
import signal
import socket
import sqlite3
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path

import pytest
from click.testing import CliRunner

from cobblewort.cli import DATA_NAME, DEMO_NAME, main
from cobblewort.formats.shipped import demo_plans
from tests.browser.conftest import free_port

PLAN = demo_plans()[0]["plan"]
BOMB = "a0: &a0 [x, x]\n" + "".join(
    f"a{n}: &a{n} [{', '.join([f'*a{n - 1}'] * 9)}]\n" for n in range(1, 30)
)
FILES = {
    "digits.json": '{"name": "x", "copies": ' + "9" * 5000 + "}",
    "digits.yaml": "name: x\ncopies: " + "9" * 5000,
    "date.yaml": "name: 2024-13-45",
    "deep.yaml": "[" * 5000 + "]" * 5000,
    "deep.json": "[" * 100_000 + "]" * 100_000,
    "bomb.yaml": BOMB,
    "itself.yaml": "&a [*a]",
    "long.yaml": "\n".join(f"a{n}: {n}" for n in range(60_000)),
    "wide.yaml": f"[{', '.join(['x'] * 40_000)}]",
    "nested.yaml": "- - - - 1\n" * 20_000,
    "merge.yaml": "name: x\n<<: 3",
    "tab.yaml": "name: x\n\tlines: []",
    "two.yaml": "name: x\n---\nname: y",
    "tag.yaml": "!!python/object/apply:os.system ['true']",
    "key.yaml": "? [a, b]\n: 1",
    "list.json": '{"name": ["x"], "lines": "many", "place": [], "parts": [[1], "x", null]}',
    "empty.json": "",
    "empty.yaml": "",
    "null.json": "null",
    "nan.json": '{"name": "x", "budget": NaN}',
    "surrogate.json": '{"name": "a\\ud800b"}',
    "control.json": '{"name": "a\\u001b[31mb"}',
    "carried.json": '{"name": "x", "parts": [{"id": ["x"], "part_class": {}}]}',
    "gone.json": '{"name": "x", "lines": [{"id": "b", "role": "board", "part": "nowhere"}]}',
    "phases.json": json.dumps({"name": "x", "schedule": [{"name": "p", "hours": 0.001}] * 5000}),
}


def check(path: Path, *options: str) -> tuple[int, str, str]:
    """Exit code, output and errors of `check` as a process."""
    done = subprocess.run(
        [sys.executable, "-m", "cobblewort.cli", "check", str(path), *options],
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
    )
    return done.returncode, done.stdout, done.stderr


@pytest.mark.parametrize("name", list(FILES))
def test_a_wrong_file_is_a_sentence_and_exit_2(tmp_path: Path, name: str) -> None:
    """With the place where there is one; within the second."""
    file = tmp_path / name
    file.write_bytes(FILES[name].encode("utf-8", "surrogatepass"))
    result = CliRunner().invoke(main, ["check", str(file)])
    assert result.exit_code == 2, result.output
    assert result.stderr.strip()
    assert "Traceback" not in result.stderr
    assert "the program failed" not in result.stderr.lower(), "a fault of ours, caught at the door"
    assert "\x1b" not in result.stderr


def test_files_that_never_end_or_are_none(tmp_path: Path) -> None:
    """A named pipe, an endless device, a folder: none is waited for."""
    pipe = tmp_path / "pipe.json"
    os.mkfifo(pipe)
    for path in (pipe, Path("/dev/zero"), tmp_path, tmp_path / "nowhere.json"):
        code, _, told = check(path)
        assert (code, "Traceback" in told) == (2, False), path
        assert told.strip()
    large = tmp_path / "large.json"
    large.write_text(" " * 3_000_000)
    assert "larger than 2 MB" in check(large)[2]


def test_a_byte_order_mark_is_no_hindrance(tmp_path: Path) -> None:
    """As some editors write it."""
    file = tmp_path / "plan.json"
    file.write_text(json.dumps(PLAN), encoding="utf-8-sig")
    assert check(file)[0] == 0


def test_a_pack_that_is_none(tmp_path: Path) -> None:
    """The same for `--parts`."""
    plan, pack = tmp_path / "plan.json", tmp_path / "pack.yaml"
    plan.write_text(json.dumps(PLAN))
    for text in ("- [1]", BOMB, "parts: {a: 1}", "- {id: X, kind: board}"):
        pack.write_text(text)
        code, _, told = check(plan, "--parts", str(pack))
        assert (code, "Traceback" in told) == (2, False), text[:20]


@contextmanager
def server(folder: Path, port: int, command: str = "serve") -> Iterator[subprocess.Popen[str]]:
    """The server as a process, once it answers."""
    process = subprocess.Popen(
        [
            sys.executable,
            "-m",
            "cobblewort.cli",
            command,
            "--data",
            str(folder),
            "--port",
            str(port),
        ],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
    )
    try:
        wait_until(lambda: process.poll() is not None or answers(port))
        yield process
    finally:
        process.kill()
        process.communicate()


def answers(port: int) -> bool:
    """Whether a server answers there."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/plans", timeout=2) as answer:
            return bool(answer.status == 200)
    except OSError:
        return False


def wait_until(done: Callable[[], bool], within_s: float = 30.0) -> None:
    """Look again and again, and fail when it takes too long."""
    end = time.monotonic() + within_s
    while not done():
        assert time.monotonic() < end, "it took too long"
        time.sleep(0.05)


def test_a_port_in_use_is_told(tmp_path: Path) -> None:
    """With what to do, before a data file is made."""
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        arguments = ["serve", "--data", str(tmp_path / "new"), "--port", str(port)]
        result = CliRunner().invoke(main, arguments)
    assert result.exit_code == 2
    assert "another program uses it" in result.stderr
    assert "--port" in result.stderr
    assert not (tmp_path / "new").exists()


def test_a_second_process_on_one_folder_is_told(tmp_path: Path) -> None:
    """Another server, an import and a restore; a backup and an export are made beside the first."""
    folder, one, two = tmp_path / "new", free_port(), free_port()
    plan, made = tmp_path / "plan.json", tmp_path / "made.zip"
    plan.write_text(json.dumps(PLAN))
    with server(folder, one) as first:
        with server(folder, two) as second:
            assert second.wait(10) == 2
            assert "Another Cobblewort uses" in (second.stderr or sys.stderr).read()
        assert not answers(two)
        for command, status in (
            (["backup", str(made)], 0),
            (["export"], 0),
            (["import", "--dry-run", str(plan)], 0),
            (["import", str(plan)], 2),
            (["restore", "--yes", str(made)], 2),
        ):
            result = CliRunner().invoke(main, [*command, "--data", str(folder)])
            assert result.exit_code == status, result.output
            assert ("Another Cobblewort uses" in result.stderr) == (status == 2)
        first.kill()  # as by a cut of power: nobody has to tidy up
        first.wait(10)
    assert CliRunner().invoke(main, ["import", str(plan), "--data", str(folder)]).exit_code == 0
    with closing(sqlite3.connect(folder / DATA_NAME)) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    assert made.stat().st_mode & 0o777 == 0o600


def test_the_server_ends_though_somebody_holds_half_a_request_open(tmp_path: Path) -> None:
    """Within five seconds of SIGTERM; the data file is readable by its owner alone."""
    port = free_port()
    with (
        server(tmp_path, port) as process,
        socket.create_connection(("127.0.0.1", port)) as half,
    ):
        half.sendall(
            b"POST /api/plans HTTP/1.1\r\nHost: 127.0.0.1:%d\r\nContent-Length: 100\r\n"
            b"Content-Type: application/json\r\n\r\n{" % port
        )
        time.sleep(0.3)
        began = time.monotonic()
        process.send_signal(signal.SIGTERM)
        process.wait(10)
        assert time.monotonic() - began < 5
    mode = (tmp_path / DATA_NAME).stat().st_mode & 0o777
    assert mode == 0o600


def test_reset_touches_nothing_that_the_demo_did_not_make(tmp_path: Path) -> None:
    """A folder with own plans is refused; what is replaced is kept; own files stay as they are."""
    own = tmp_path / "own"
    own.mkdir()
    (own / DATA_NAME).write_bytes(b"mine")
    (own / f"{DATA_NAME}-notes.txt").write_text("keep me")
    refused = CliRunner().invoke(main, ["demo", "--reset", "--data", str(own)])
    assert refused.exit_code == 2
    assert "contains your own" in refused.stderr
    assert (own / DATA_NAME).read_bytes() == b"mine"
    assert (own / f"{DATA_NAME}-notes.txt").exists()
    folder = tmp_path / "demo"
    for kept in (0, 1, 2):
        result = CliRunner().invoke(main, ["demo", "--reset", "--data", str(folder)])
        assert result.exit_code == 0
        assert len(list(folder.glob("demo-kept-*.sqlite3"))) == kept
    with closing(sqlite3.connect(folder / DEMO_NAME)) as connection:
        assert connection.execute("SELECT count(*) FROM plan").fetchone()[0] == 3


def test_reset_waits_for_no_server(tmp_path: Path) -> None:
    """While one serves the demo, bringing it back is refused and nothing is moved."""
    port = free_port()
    with server(tmp_path, port, "demo"):
        result = CliRunner().invoke(main, ["demo", "--reset", "--data", str(tmp_path)])
    assert result.exit_code == 2
    assert "Another Cobblewort uses" in result.stderr
    assert list(tmp_path.glob("demo-kept-*")) == []


def command(*arguments: str) -> tuple[int, str]:
    """Exit code and errors of a command that is given no answers."""
    result = CliRunner().invoke(main, list(arguments))
    return result.exit_code, result.stderr


def test_a_mistyped_folder_is_told_and_not_made(tmp_path: Path) -> None:
    """By all that only read; a folder of the demo is told as such."""
    nowhere, plan = tmp_path / "mistyped", tmp_path / "plan.json"
    plan.write_text(json.dumps(PLAN))
    commands: tuple[tuple[str, ...], ...] = (
        ("export",),
        ("export", "--parts", "json"),
        ("backup", str(tmp_path / "out.zip")),
        ("import", "--dry-run", str(plan)),
    )
    for one in commands:
        code, told = command(*one, "--data", str(nowhere))
        assert (code, f"There is no folder {nowhere}" in told) == (2, True), one
    assert not nowhere.exists()
    demo = tmp_path / "demo"
    assert command("demo", "--reset", "--data", str(demo))[0] == 0
    code, told = command("export", "--data", str(demo))
    assert (code, "contains the demo" in told) == (2, True)
    (tmp_path / "empty").mkdir()
    code, told = command("backup", str(tmp_path / "out.zip"), "--data", str(tmp_path / "empty"))
    assert (code, "contains no workspace" in told) == (2, True)
    assert list((tmp_path / "empty").iterdir()) == []


def test_two_kinds_of_output_at_once_are_refused(tmp_path: Path) -> None:
    """Of which one would be lost."""
    for kinds in (("--sheet", "--calendar"), ("--parts", "json", "--sheet")):
        code, told = command("export", *kinds, "--data", str(tmp_path))
        assert (code, "Name one of" in told) == (2, True)


def test_what_is_written_replaces_no_device_and_follows_no_trap(tmp_path: Path) -> None:
    """A pipe and a device stay; a link leads to its file; nothing half written is left."""
    data = tmp_path / "data"
    plan = tmp_path / "plan.json"
    plan.write_text(json.dumps(PLAN))
    assert command("import", str(plan), "--data", str(data))[0] == 0
    pipe, own = tmp_path / "pipe", tmp_path / "own.txt"
    os.mkfifo(pipe)
    for output in (pipe, Path("/dev/null"), tmp_path):
        code, told = command("export", "--data", str(data), "-o", str(output))
        assert (code, "is not a plain file" in told) == (2, True), output
    assert pipe.is_fifo()
    own.write_text("mine")
    (tmp_path / "out.json.unfinished").symlink_to(own)
    link = tmp_path / "link.json"
    link.symlink_to(tmp_path / "out.json")
    assert command("export", "--data", str(data), "-o", str(link))[0] == 0
    assert link.is_symlink()
    assert json.loads((tmp_path / "out.json").read_text())["plans"]
    assert own.read_text() == "mine"
    folder = tmp_path / "nowhere"
    assert command("export", "--data", str(data), "-o", str(folder / "out.json"))[0] == 2
    assert not [file for file in tmp_path.iterdir() if file.name.startswith(".")]


def test_a_damaged_workspace_is_mended_by_a_restore(tmp_path: Path) -> None:
    """Every other command tells what to do; what was there is kept."""
    data, plan, made = tmp_path / "data", tmp_path / "plan.json", tmp_path / "made.zip"
    plan.write_text(json.dumps(PLAN))
    assert command("import", str(plan), "--data", str(data))[0] == 0
    assert command("backup", str(made), "--data", str(data))[0] == 0
    (data / DATA_NAME).write_bytes(b"Dear diary")
    code, told = command("export", "--data", str(data))
    assert (code, "restore a backup" in told) == (2, True)
    assert command("restore", "--yes", str(made), "--data", str(data))[0] == 0
    assert command("export", "--data", str(data))[0] == 0
    (kept,) = data.glob("*-before-restore.sqlite3")
    assert kept.read_bytes() == b"Dear diary"
    assert command("restore", "--yes", str(tmp_path / "none.zip"), "--data", str(data))[0] == 2
