"""`kill -9` in the middle of writes, with a real process."""

import signal
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest

from cobblewort.store.database import Database
from cobblewort.store.plans import PlanStore

WRITER = """
import sys
from pathlib import Path
from cobblewort.core.plans.plan import Plan
from cobblewort.store.database import Database
from cobblewort.store.plans import PlanStore

database = Database(Path(sys.argv[1]))
database.prepare()
store = PlanStore(database)
stored = store.create(Plan(name="change 0", purpose="x" * 1000), "new plan", "p")
number = 0
while True:
    number += 1
    plan = stored.plan.model_copy(update={"name": f"change {number}"})
    stored = store.save("p", stored.version, plan, f"change {number}")
    print(number, flush=True)
"""


@pytest.mark.parametrize("acknowledged", [1, 7, 23])
def test_a_killed_writer_loses_at_most_the_change_in_flight(
    tmp_path: Path, acknowledged: int
) -> None:
    """The file opens, is whole, and holds every change that was acknowledged."""
    path = tmp_path / "data.sqlite3"
    writer = subprocess.Popen(
        [sys.executable, "-c", WRITER, str(path)], stdout=subprocess.PIPE, text=True
    )
    assert writer.stdout is not None
    seen = 0
    while seen < acknowledged:
        seen = int(writer.stdout.readline())
    writer.send_signal(signal.SIGKILL)
    rest = [int(line) for line in writer.stdout.read().split()]
    writer.stdout.close()
    assert writer.wait() == -signal.SIGKILL
    seen = rest[-1] if rest else seen

    database = Database(path)
    database.prepare()
    with closing(sqlite3.connect(path)) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
        assert connection.execute("PRAGMA foreign_key_check").fetchall() == []
    stored = PlanStore(database).get("p")
    number = int(stored.plan.name.split()[1])
    assert number in (seen, seen + 1)
    assert stored.undo_label == f"change {number}"
