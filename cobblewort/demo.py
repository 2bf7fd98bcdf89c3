"""Fills a data file with the demo plans."""

from __future__ import annotations

from pathlib import Path

from cobblewort.core.plans.plan import plan_from
from cobblewort.formats.shipped import demo_plans
from cobblewort.store.database import Database
from cobblewort.store.plans import PlanStore


def put_aside(data_file: Path) -> Path | None:
    """Move a data file out of the way, with what SQLite keeps beside it. Returns where it is kept.

    Raises
    ------
    StoreError
        If a server is using it.
    """
    if not data_file.exists():
        return None
    Database(data_file).settle()
    number = 1
    while (kept := data_file.with_name(f"{data_file.stem}-kept-{number}.sqlite3")).exists():
        number += 1
    data_file.rename(kept)
    for ending in ("-wal", "-shm"):
        data_file.with_name(data_file.name + ending).unlink(missing_ok=True)
    return kept


def fill_with_demo(data_file: Path) -> None:
    """Store the demo plans, unless the file holds or held plans already."""
    database = Database(data_file)
    database.prepare()
    store = PlanStore(database)
    if not store.is_empty():
        return
    for entry in demo_plans():
        store.create(plan_from(entry["plan"]), "demo plan", entry["id"])
