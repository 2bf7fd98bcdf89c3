"""Attacks on the program: each goes on for as long as it is told, and tells what it found.

Each returns a sentence with counts, and raises AssertionError where something did not hold. All
depend on a seed alone, but for what the machine does in between.
"""

from __future__ import annotations

import copy
import json
import random
import signal
import sqlite3
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from cobblewort.api.app import create_app
from cobblewort.demo import fill_with_demo
from cobblewort.formats.shipped import demo_plans, shipped_parts
from cobblewort.store.database import Database
from cobblewort.store.plans import PlanStore
from tests.browser.conftest import running_server
from tests.kits import OWN

WRITER = """
import sys
from pathlib import Path
from cobblewort.core.plans.plan import Plan
from cobblewort.store.database import Database
from cobblewort.store.plans import PlanNotFoundError, PlanStore

database = Database(Path(sys.argv[1]))
database.prepare()
store = PlanStore(database)
try:
    stored = store.get("p")
except PlanNotFoundError:
    stored = store.create(Plan(name="change 0", purpose="x" * 1000), "new plan", "p")
number = int(stored.plan.name.split()[1])
while True:
    number += 1
    plan = stored.plan.model_copy(update={"name": f"change {number}"})
    stored = store.save("p", stored.version, plan, f"change {number}")
    print(number, flush=True)
"""


def kills(folder: Path, rounds: int, seed: int = 1) -> str:
    """`kill -9` in the middle of writes, round after round on one file; what was said is kept."""
    chosen, path, acknowledged = random.Random(seed), folder / "killed.sqlite3", 0
    for _ in range(rounds):
        writer = subprocess.Popen(
            [sys.executable, "-c", WRITER, str(path)], stdout=subprocess.PIPE, text=True
        )
        assert writer.stdout is not None
        first = int(writer.stdout.readline())
        time.sleep(chosen.random() * 0.15)
        writer.send_signal(signal.SIGKILL)
        seen = [first, *(int(line) for line in writer.stdout.read().split())]
        writer.stdout.close()
        writer.wait()
        acknowledged += len(seen)
        database = Database(path)
        database.prepare()
        with closing(sqlite3.connect(path)) as connection:
            assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            assert connection.execute("PRAGMA foreign_key_check").fetchall() == []
        stored = PlanStore(database).get("p")
        assert int(stored.plan.name.split()[1]) in (seen[-1], seen[-1] + 1)
        labels = {revision.label for revision in PlanStore(database).revisions("p")}
        assert {f"change {number}" for number in seen} <= labels
    return f"{rounds} rounds of kill -9, {acknowledged} acknowledged writes, none lost"


def tabs(folder: Path, steps: int, seed: int = 1) -> str:
    """Two tabs that read and write one plan in any order; a stale write changes nothing."""
    chosen = random.Random(seed)
    data = folder / "tabs.sqlite3"
    fill_with_demo(data)
    client = TestClient(create_app(data), base_url="http://localhost", headers=OWN)
    address, refused, written = "/api/plans/bat-recorder", 0, []
    seen = [client.get(address).json()["version"]] * 2
    for step in range(steps):
        tab = chosen.randrange(2)
        if chosen.random() < 0.3:
            seen[tab] = client.get(address).json()["version"]
            continue
        before = client.get(address).json()
        body = {"patch": [{"op": "set", "fields": {"budget": str(step)}}], "label": f"step {step}"}
        answer = client.patch(address, json=body, headers={"If-Match": f'"{seen[tab]}"'})
        after = client.get(address).json()
        if seen[tab] == before["version"]:
            assert answer.status_code == 200, answer.text
            seen[tab] = answer.json()["version"]
            written.append(f"step {step}")
            assert after["plan"]["budget"] == str(step)
        else:
            assert answer.status_code == 412, answer.text
            assert after == before
            refused += 1
    labels = [revision["label"] for revision in client.get(f"{address}/revisions").json()]
    assert [label for label in reversed(labels) if label.startswith("step")] == written
    return f"{steps} steps of two tabs, {len(written)} writes kept, {refused} stale ones refused"


def clients(address: str, many: int, seconds: float, seed: int = 1) -> str:
    """Many clients at once on a running server, reading and writing; no answer of 500 and above."""
    ids = [entry["id"] for entry in demo_plans()]
    end = time.monotonic() + seconds

    def work(number: int) -> list[tuple[int, float]]:
        chosen, took = random.Random(seed * 1000 + number), []
        while time.monotonic() < end:
            plan = chosen.choice(ids)
            began = time.monotonic()
            took.append((_request(chosen, f"{address}/api", plan), time.monotonic() - began))
        return took

    with ThreadPoolExecutor(many) as threads:
        answers = [answer for one in threads.map(work, range(many)) for answer in one]
    bad = [status for status, _ in answers if status >= 500 or status == 0]
    assert not bad, f"{len(bad)} of {len(answers)} answers were errors of the server: {set(bad)}"
    slowest = max(duration for _, duration in answers)
    return (
        f"{many} clients for {seconds:g} s, {len(answers)} answers, none an error of the server, "
        f"the slowest after {slowest:.1f} s"
    )


def an_hour_of_use(folder: Path, seconds: float, many: int = 10) -> str:
    """The memory of a server under `many` clients for so long: bounded, and bounded when idle."""
    with running_server(folder) as address:
        port = address.rsplit(":", 1)[1]
        found = subprocess.run(
            ["pgrep", "-f", f"port {port}"], capture_output=True, text=True, check=True
        )
        process = int(found.stdout.split()[0])
        idle, seen = _memory_mb(process), [0.0]
        ends = time.monotonic() + seconds
        while time.monotonic() < ends:
            clients(address, many, min(60.0, seconds))
            seen.append(_memory_mb(process))
    assert idle < 150, f"{idle:.0f} MB idle"
    assert max(seen) < 250, f"{max(seen):.0f} MB under load"
    return (
        f"{many} clients for {seconds / 60:.0f} min: {idle:.0f} MB idle, at most "
        f"{max(seen):.0f} MB under load, {seen[-1]:.0f} MB at the end"
    )


def _memory_mb(process: int) -> float:
    status = Path(f"/proc/{process}/status").read_text(encoding="utf-8")
    return int(status.split("VmRSS:")[1].split()[0]) / 1024


def _request(chosen: random.Random, api: str, plan: str) -> int:
    kind = chosen.randrange(6)
    if kind < 3:
        path = (
            "/plans",
            f"/plans/{plan}",
            f"/plans/{plan}/report?ambient_c={chosen.randrange(40)}",
        )
        return _status(urllib.request.Request(f"{api}{path[kind]}"))
    if kind == 3:
        return _status(urllib.request.Request(f"{api}/plans/{plan}/candidates?role=cooling"))
    if kind == 4 and chosen.random() < 0.9:
        return _status(urllib.request.Request(f"{api}/parts/B06/sheet"))
    if kind == 4:
        return _status(urllib.request.Request(f"{api}/parts/B06/copy", b"", OWN, method="POST"))
    body = {"patch": [{"op": "set", "fields": {"copies": chosen.randrange(1, 9)}}]}
    return _status(
        urllib.request.Request(
            f"{api}/plans/{plan}",
            json.dumps(body).encode(),
            method="PATCH",
            headers={
                **OWN,
                "Content-Type": "application/json",
                "If-Match": f'"{chosen.randrange(9)}"',
            },
        )
    )


def _status(request: urllib.request.Request) -> int:
    try:
        with urllib.request.urlopen(request, timeout=60) as answer:
            answer.read()
            return int(answer.status)
    except urllib.error.HTTPError as error:
        error.read()
        return error.code
    except OSError:
        return 0


ODD: list[Any] = [
    None,
    True,
    0,
    -1,
    1e308,
    10**30,
    "",
    "x" * 500,
    "\x00",
    "a\ud800",
    [],
    {},
    [[]],
    {"": {}},
    "S01",
    "usb-a",
    "idle",
    0.5,
    [1, 2, 3],
    {"nominal": 1, "basis": "estimate"},
    "2024-13-45",
]


def documents(folder: Path, many: int, seed: int = 1) -> str:
    """Plans with parts of their own, changed at random places: judged or refused, never failed."""
    chosen = random.Random(seed)
    data = folder / "documents.sqlite3"
    client = TestClient(
        create_app(data), base_url="http://localhost", headers=OWN, raise_server_exceptions=False
    )
    plans, parts = [entry["plan"] for entry in demo_plans()], shipped_parts()
    checked = 0
    for number in range(many):
        plan = copy.deepcopy(chosen.choice(plans))
        part = copy.deepcopy(chosen.choice(parts))
        plan["parts"] = [part]
        if chosen.random() < 0.5:
            plan.setdefault("lines", []).append({"id": "own", "role": "add_on", "part": part["id"]})
        for _ in range(chosen.randint(1, 4)):
            _change(chosen, part if chosen.random() < 0.6 else plan)
        body = json.dumps({"plan": plan}).encode()
        answer = client.post(
            "/api/evaluate", content=body, headers={"Content-Type": "application/json"}
        )
        assert answer.status_code in (200, 422), f"document {number}: {answer.text}\n{plan}"
        checked += answer.status_code == 200
    return f"{many} mutated documents, {checked} judged, {many - checked} refused, none failed"


def _change(chosen: random.Random, document: Any) -> None:
    """Change a figure, which may well be accepted; or put something odd there, or take it out."""
    if chosen.random() < 0.75:
        figures = list(_figures(document))
        if figures:
            at, key = chosen.choice(figures)
            at[key] = at[key] * chosen.choice((0, -1, 1e-6, 0.1, 0.5, 2, 10, 1000))
        return
    at = document
    while True:
        keys = list(at) if isinstance(at, dict) else list(range(len(at)))
        if not keys:
            return
        key = chosen.choice(keys)
        if not isinstance(at[key], dict | list) or not at[key] or chosen.random() < 0.2:
            break
        at = at[key]
    if chosen.random() < 0.5:
        at[key] = copy.deepcopy(chosen.choice(ODD))
    elif isinstance(at, list):
        at.append(copy.deepcopy(at[key]))
    else:
        del at[key]


def _figures(at: Any) -> Iterator[tuple[Any, Any]]:
    """Every number of a document, by what it lies in and its key there."""
    for key, value in at.items() if isinstance(at, dict) else enumerate(at):
        if isinstance(value, dict | list):
            yield from _figures(value)
        elif isinstance(value, int | float) and not isinstance(value, bool):
            yield at, key
