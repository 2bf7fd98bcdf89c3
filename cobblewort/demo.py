"""Fills a data file with the demo plans."""

from __future__ import annotations

from pathlib import Path

from cobblewort.core.plans.plan import plan_from
from cobblewort.formats.shipped import demo_plans
from cobblewort.store.database import Database
from cobblewort.store.plans import PlanStore


def fill_with_demo(data_file: Path) -> None:
    """Store the demo plans, unless the file holds or held plans already."""
    database = Database(data_file)
    database.prepare()
    store = PlanStore(database)
    if not store.is_empty():
        return
    for entry in demo_plans():
        store.create(plan_from(entry["plan"]), "demo plan", entry["id"])
