"""Attacks on what keeps the workspace: archives bent and hostile, restores under fire, a full disk.

Each returns a sentence with counts, and raises AssertionError where something did not hold.
"""

from __future__ import annotations

import hashlib
import io
import json
import random
import resource
import signal
import sqlite3
import subprocess
import sys
import time
import urllib.error
import urllib.request
import zipfile
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

from cobblewort.demo import fill_with_demo
from cobblewort.store.archive import ArchiveError, archive
from cobblewort.store.database import Database
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import PlanStore
from cobblewort.store.workspace import restore
from tests.kits import OWN, kit

_SEAL = "cobblewort sha256 "
_ENDLESS = "WITH RECURSIVE n(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM n) "
HOSTILE = (
    "CREATE TRIGGER late AFTER DELETE ON part BEGIN DELETE FROM plan; END",
    f"CREATE VIEW seen AS {_ENDLESS} SELECT x FROM n",
    f"ALTER TABLE plan RENAME TO away; CREATE VIEW plan AS {_ENDLESS} SELECT x AS id, 1 version, "
    "1 head, '' created_at, '' changed_at, NULL deleted_at FROM n",
    "CREATE TABLE more (text TEXT); INSERT INTO more VALUES (hex(zeroblob(2000000)))",
    "DROP TABLE part_away; CREATE TABLE part_away (id, away_at); "
    "INSERT INTO part_away VALUES (x'ff', 7)",
    "DROP TABLE preference; CREATE TABLE preference (one, document); "
    "INSERT INTO preference VALUES (1, '[1, 2]')",
    "DROP TABLE preference; CREATE TABLE preference (one, document); "
    "INSERT INTO preference VALUES (2, '{}')",
    "UPDATE plan SET id = id || '/../b'",
    "UPDATE plan SET head = 99",
    "UPDATE plan SET version = 9223372036854775807",
    """UPDATE plan_revision SET document = '{"name": "x"}'""",
    "UPDATE plan_revision SET document = '[]'",
    "UPDATE plan_revision SET label = hex(zeroblob(1000))",
    "UPDATE part SET document = json_remove(document, '$.maker') WHERE origin = 'own'",
    "UPDATE part SET document = json_set(document, '$.kind', 'ship') WHERE origin = 'own'",
    "DELETE FROM plan",
    "DELETE FROM plan_revision",
    "PRAGMA user_version = 0",
    "PRAGMA user_version = 99",
    "DROP TABLE plan",
    "CREATE INDEX slow ON plan_revision (hex(document))",
)
"""What somebody could have done to the database of an archive."""


def _filled(path: Path) -> Database:
    fill_with_demo(path)
    database = Database(path)
    PartStore(database).create({"kind": "device", "maker": "m", "model": "Mine"})
    return database


def _sealed(files: dict[str, bytes]) -> bytes:
    """An archive of these files, whole by its seal."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, data in files.items():
            packed.writestr(name, data)
        packed.comment = b" " * (len(_SEAL) + 64)
    whole = buffer.getvalue()[: -(len(_SEAL) + 64)]
    return whole + (_SEAL + hashlib.sha256(whole).hexdigest()).encode()


def _opened(content: bytes) -> dict[str, bytes]:
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        return {name: packed.read(name) for name in packed.namelist()}


def _rows(database: Database) -> list[tuple[object, ...]]:
    with database.reading() as connection:
        return [
            tuple(row)
            for table in ("plan", "plan_revision", "part", "part_away", "preference")
            for row in connection.execute(f"SELECT * FROM {table} ORDER BY 1, 2")
        ]


def archives(folder: Path, many: int, seed: int = 1) -> str:
    """Archives bent, cut and hostile: restored whole, or refused with a sentence and no change."""
    chosen = random.Random(seed)
    database = _filled(folder / "here.sqlite3")
    good = archive(_filled(folder / "there.sqlite3"))
    kinds: list[Callable[[], bytes]] = [
        lambda: _cut(chosen, good),
        lambda: _bent(chosen, good),
        lambda: _bent_inside(chosen, good),
        lambda: _hostile(chosen, good, folder),
        lambda: _odd_note(chosen, good),
    ]
    restored = refused = 0
    for number in range(many):
        content, before = kinds[number % len(kinds)](), _rows(database)
        began = time.monotonic()
        why = _restored(database, content)
        if why is None:
            restored += 1
            _is_sound(database, number)
        else:
            refused += 1
            assert why.endswith("Nothing was changed."), why
            assert _rows(database) == before, f"archive {number}: {why}"
        assert time.monotonic() - began < 90, f"archive {number} took too long"
        assert not list(folder.glob(".restoring-*"))
    assert restored
    assert refused
    return f"{many} bent, cut and hostile archives, {restored} restored whole, {refused} refused"


def _restored(database: Database, content: bytes) -> str | None:
    """Restore an archive; why it was refused, None where it was not."""
    try:
        restore(database, content)
    except ArchiveError as error:
        return str(error)
    return None


def _is_sound(database: Database, number: int) -> None:
    with closing(sqlite3.connect(database.path)) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
        assert connection.execute("PRAGMA foreign_key_check").fetchall() == []
        kinds = {row[0] for row in connection.execute("SELECT type FROM sqlite_master")}
        names = {row[0] for row in connection.execute("SELECT name FROM sqlite_master")}
    assert kinds <= {"table", "index"}, f"archive {number}: {kinds}"
    assert not names & {"late", "seen", "more", "slow", "away"}, f"archive {number}: {names}"
    PlanStore(database).all()  # broken ones are told, none raises
    PartStore(database).all()


def _cut(chosen: random.Random, good: bytes) -> bytes:
    return good[: chosen.randrange(len(good))]


def _bent(chosen: random.Random, good: bytes) -> bytes:
    content = bytearray(good)
    for _ in range(chosen.randint(1, 5)):
        content[chosen.randrange(len(content))] ^= 1 << chosen.randrange(8)
    return bytes(content)


def _bent_inside(chosen: random.Random, good: bytes) -> bytes:
    """Bytes of the database changed, and all of it sealed anew."""
    files = _opened(good)
    data = bytearray(files["data.sqlite3"])
    for _ in range(chosen.randint(1, 40)):
        data[chosen.randrange(len(data))] = chosen.randrange(256)
    return _sealed({**files, "data.sqlite3": bytes(data)})


def _hostile(chosen: random.Random, good: bytes, folder: Path) -> bytes:
    """A database that somebody prepared, sealed as a whole archive or bare."""
    files, path = _opened(good), folder / "hostile.sqlite3"
    path.write_bytes(files["data.sqlite3"])
    with closing(sqlite3.connect(path, isolation_level=None)) as connection:
        connection.execute("PRAGMA foreign_keys = OFF")
        connection.executescript(chosen.choice(HOSTILE))
    data = path.read_bytes()
    path.unlink()
    return data if chosen.random() < 0.3 else _sealed({**files, "data.sqlite3": data})


def _odd_note(chosen: random.Random, good: bytes) -> bytes:
    files = _opened(good)
    notes = (
        b"",
        b"[]",
        b'{"format": 3}',
        b'{"format": "cobblewort-workspace/9", "made_at": ""}',
        b"[" * 90_000,
        b" " * 3_000_000 + files["workspace.json"],
        b'{"format": "cobblewort-workspace/1", "made_at": {}}',
    )
    return _sealed({**files, "workspace.json": chosen.choice(notes)})


WRITER = """
import sys
from pathlib import Path
from cobblewort.core.plans.plan import Plan
from cobblewort.store.database import Database
from cobblewort.store.plans import PlanNotFoundError, PlanStore, StaleWriteError

path, name, number = Path(sys.argv[1]), sys.argv[2], 0
store = PlanStore(Database(path))
while True:
    number += 1
    label = f"{name} {number}"
    try:
        stored = store.get(name)
        store.save(name, stored.version, stored.plan, label)
    except PlanNotFoundError:
        try:
            store.create(Plan(name=name), label, name)
        except Exception:
            continue
    except StaleWriteError:
        continue
    except Exception as error:
        if "locked" in str(error):
            continue
        raise
    print(label, flush=True)
"""
RESTORER = """
import sys
from pathlib import Path
from cobblewort.store.database import Database
from cobblewort.store.workspace import restore

restore(Database(Path(sys.argv[1])), Path(sys.argv[2]))
"""


def restores_under_fire(folder: Path, rounds: int, writers: int = 3, seed: int = 1) -> str:
    """A restore beside writers, and `kill -9` of it at any point: what was said is in the data or
    in a copy that was kept.
    """
    chosen, path = random.Random(seed), folder / "fire.sqlite3"
    database, content = _filled(path), folder / "old.zip"
    PlanStore(database).create(kit("B06"), "the first of all", "old")
    content.write_bytes(archive(database))
    acknowledged = killed = 0
    for number in range(rounds):
        copies = set(database.copies())
        hands = [
            subprocess.Popen(
                [sys.executable, "-c", WRITER, str(path), f"round{number}-{hand}"],
                stdout=subprocess.PIPE,
                text=True,
            )
            for hand in range(writers)
        ]
        seen = [_line(hand) for hand in hands]
        restoring = subprocess.Popen([sys.executable, "-c", RESTORER, str(path), str(content)])
        if chosen.random() < 0.7:
            time.sleep(0.1 + chosen.random() * 0.5)
            restoring.send_signal(signal.SIGKILL)
        killed += restoring.wait(60) != 0
        time.sleep(chosen.random() * 0.1)
        for hand in hands:
            hand.send_signal(signal.SIGKILL)
        for hand in hands:
            assert hand.stdout is not None
            seen += hand.stdout.read().splitlines()
            hand.stdout.close()
            hand.wait()
        acknowledged += len(seen)
        database.prepare()
        there = {
            label for file in (path, *(set(database.copies()) - copies)) for label in _of(file)
        }
        lost = set(seen) - there
        assert not lost, f"round {number}: {len(lost)} acknowledged writes are nowhere"
    return (
        f"{rounds} restores beside {writers} writers, {killed} of them killed, {acknowledged} "
        "acknowledged writes, each in the data or in a kept copy"
    )


def _line(hand: subprocess.Popen[str]) -> str:
    assert hand.stdout is not None
    return hand.stdout.readline().strip()


def _of(file: Path) -> set[str]:
    with closing(sqlite3.connect(file)) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
        return {row[0] for row in connection.execute("SELECT label FROM plan_revision")}


def full_disk(folder: Path, port: int, more_bytes: int = 1_500_000) -> str:
    """A server whose files may grow no further: each write that fails is told within five seconds,
    nothing half made is left, and all that was said is there.
    """
    data = folder / "cobblewort.sqlite3"
    fill_with_demo(data)
    limit = data.stat().st_size + more_bytes
    command = [sys.executable, "-m", "cobblewort.cli", "serve"]
    process = subprocess.Popen(
        [*command, "--data", str(folder), "--port", str(port)],
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    address, kept, full = f"http://127.0.0.1:{port}/api", [], 0
    try:
        _wait_for(f"{address}/plans")
        good = _answer(f"{address}/workspace/archive")[1]
        resource.prlimit(process.pid, resource.RLIMIT_FSIZE, (limit, limit))
        for number in range(2000):
            body = json.dumps({"name": f"plan {number}", "plan": None}).encode()
            began = time.monotonic()
            status, text = _answer(f"{address}/plans", body)
            assert time.monotonic() - began < 5
            if status == 201:
                kept.append(json.loads(text)["id"])
                continue
            assert status == 507, text
            assert "disk" in json.loads(text)["detail"].lower()
            full += 1
            if full > 5:
                break
        assert full, "the disk was never full"
        status, text = _answer(f"{address}/workspace/restore", good, "application/zip")
        assert status in (200, 503, 507), text
        empty = [file.name for file in folder.glob("*-before-*") if file.stat().st_size == 0]
        assert not empty, empty
        assert not list(folder.glob(".*unfinished*")), "what is half made is taken away"
        there = {plan["id"] for plan in json.loads(_answer(f"{address}/plans")[1])}
        if status != 200:
            assert set(kept) <= there
    finally:
        process.kill()
        process.wait()
    return f"{len(kept)} plans until the disk was full, then {full} writes told of it, none lost"


def _wait_for(address: str) -> None:
    for _ in range(300):
        try:
            urllib.request.urlopen(address, timeout=1).close()
            return
        except OSError:
            time.sleep(0.1)
    raise AssertionError("the server did not answer in 30 s")


def _answer(
    address: str, body: bytes | None = None, media: str = "application/json"
) -> tuple[int, bytes]:
    headers = {**OWN, "Content-Type": media}
    request = urllib.request.Request(address, body, headers)
    try:
        with urllib.request.urlopen(request, timeout=60) as answer:
            return int(answer.status), answer.read()
    except urllib.error.HTTPError as error:
        return error.code, error.read()
