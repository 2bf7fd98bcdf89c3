"""Files and workspaces of earlier versions: they open, and are checked alike."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from cobblewort.core.parts.compiled import drawn_as
from cobblewort.core.plans import former_names
from cobblewort.core.plans.former_names import current_part, current_plan
from cobblewort.core.plans.plan import Plan, plan_from
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.core.verdict.lines import same_but_for_words
from cobblewort.formats.documents import parse_json
from cobblewort.formats.packs import pack_of_csv, pack_of_text
from cobblewort.formats.plan_files import plans_from
from cobblewort.formats.shipped import shipped_parts
from cobblewort.store.database import Database
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import PlanStore, StoredPlan
from cobblewort.store.workspace import restore
from tests.kits import shipped
from tests.plans import PLANS

FORMER = Path(__file__).parent / "former"
"""Written by the last version that used the former names; its reports beside them."""
REPORTS: dict[str, dict[str, Any]] = json.loads((FORMER / "reports-1.json").read_text())


def _plans() -> dict[str, Plan]:
    read = plans_from(parse_json((FORMER / "plans-1.json").read_text()))
    names = ("bat-recorder", "moss-cabinet", "choir-recorder", "rich", "sunny")
    return {**dict(zip(names, (entry.plan for entry in read), strict=True)), **PLANS}


_AS_EVER = ("FIT-", "PWR-", "COST-")
"""Rules whose sums are those of the version that wrote the files; how they are judged is not."""


@pytest.mark.parametrize("name", sorted(REPORTS))
def test_plans_of_the_former_format_come_to_the_same(name: str) -> None:
    """Each margin and price as the version that wrote the file worked it out."""
    plan, _, samples = name.partition("@")
    before, report = REPORTS[name], evaluate(_plans()[plan], shipped(), int(samples))
    assert str(report.cost.total) == before["total"]
    now = {m.id: m for m in report.margins}
    compared = 0
    for margin_id, (_, limit, *_) in before["margins"].items():
        if not margin_id.startswith(_AS_EVER):
            continue
        found, (value, _, spare, _) = now[margin_id], before["margins"][margin_id]
        compared += 1
        assert found.limit == pytest.approx(limit, rel=1e-9), margin_id
        if samples == "1":
            assert (found.value, found.spare) == pytest.approx((value, spare), rel=1e-9), margin_id
    assert compared > 5


_NEWER = (
    {"mine-A05", "mine-A06", "mine-S08", "mine-S12"}
    | {
        "mine-S33",
        "mine-S34",
        "mine-X03",
        "mine-X07",
        "mine-X22",
        "mine-X23",
        "mine-X24",
        "mine-X25",
        "mine-X27",
        "mine-X37",
        "mine-X42",
    }
    | {f"mine-{cable}" for cable in ("C01", "C02", "C03", "C04", "C06", "C07", "C08", "C14")}
)
"""Parts whose figures have changed since: their uplink, size, length, where their power is
from, the diagonal of a screen, whether in the case, their rating
against water."""


@pytest.mark.parametrize("kind", ["json", "csv"])
def test_packs_of_the_former_format_hold_the_same_parts(kind: str) -> None:
    """All shipped parts, written under other ids by an earlier version; their words are newer."""
    text = (FORMER / f"pack-1.{kind}").read_text()
    read = pack_of_csv(text) if kind == "csv" else pack_of_text(text, "pack.json")
    now = {f"mine-{part['id']}": part for part in shipped_parts()}
    assert {part["id"] for part in read} <= now.keys()
    catalogue = shipped().extended(read)
    for part in read:
        if part["id"] in _NEWER:
            continue
        figures = {**now[part["id"]], "id": part["id"]}
        brought, ours = catalogue.part(part["id"]), shipped().complete(figures)
        assert same_but_for_words(brought, ours), part["id"]


def test_a_workspace_of_the_former_format_is_restored(tmp_path: Path) -> None:
    """Its plans are read, its custom parts are there, and no line is told to have newer values."""
    database = Database(tmp_path / "cobblewort.sqlite3")
    database.prepare()
    restore(database, (FORMER / "workspace-1.archive").read_bytes())
    plans = PlanStore(database).all()
    assert all(isinstance(plan, StoredPlan) for plan in plans)
    assert len(plans) == 2
    parts = PartStore(database)
    assert sum(part.own for part in parts.all()) == 2
    assert {part.document["origin"] for part in parts.all()} == {"pack", "custom"}
    kept = {part.id for part in parts.all() if not part.own}
    assert kept
    # The words of shipped parts are newer than the archive; that is nothing to tell anybody.
    assert parts.bring_up_to_date(p for p in shipped_parts() if p["id"] in kept) > 0
    newest = shipped().extended(part.document for part in parts.all() if part.own)
    for plan in plans:
        report = evaluate(plan.plan, newest, 1)
        assert [line.changed for line in report.lines] == [[] for _ in report.lines]


_TABLES = {
    name: table
    for name, table in vars(former_names).items()
    if name.isupper() and isinstance(table, dict)
}


@pytest.mark.parametrize(
    ("former", "now"), [pair for table in _TABLES.values() for pair in table.items()]
)
def test_each_former_name_is_in_the_files_that_are_read(former: str, now: str) -> None:
    """So that none of them is there for nothing, and each is read at least once."""
    written = "".join(path.read_text() for path in sorted(FORMER.glob("*-1.json")))
    assert f'"{former}"' in written
    assert former != now


def test_a_document_of_today_stays_as_it_is() -> None:
    """Whatever it holds: reading it once more changes nothing."""
    for plan in _plans().values():
        document = plan.model_dump(mode="json")
        assert current_plan(document) == document
    for part in shipped_parts():
        assert current_part(part) == part


@pytest.mark.parametrize("value", [None, 3, "text", [], [{"needs": 1}], {"needs": 3, "parts": "x"}])
def test_what_is_no_document_does_no_harm(value: object) -> None:
    """It is refused later, with a sentence."""
    current_plan(value)
    current_part(value)


def test_both_names_at_once_are_refused() -> None:
    """With the one that is not known any more."""
    with pytest.raises(Exception, match="duty"):
        plan_from({"name": "x", "duty": [], "schedule": [{"name": "a", "hours": 1}]})


def test_a_renamed_figure_keeps_its_draws() -> None:
    """Draws go by the name under which a figure was first published."""
    assert drawn_as("cable.rated_a") == "lead.rated_a"
    assert drawn_as("voltages.undervoltage_v") == "voltages.flag_v"
    assert drawn_as("plugs.out.cable_ohm") == "plugs.out.lead_ohm"
    assert drawn_as("plugs.ribbon.flat_cable.bend_mm") == "plugs.ribbon.cable.bend_mm"
    assert drawn_as("loads.own") == "loads.own"
