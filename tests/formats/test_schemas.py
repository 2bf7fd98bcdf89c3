import json
from dataclasses import replace
from pathlib import Path

import pytest
from jsonschema import Draft202012Validator
from pydantic import TypeAdapter
from referencing import Registry, Resource

from cobblewort.core.verdict.report import Report
from cobblewort.formats.schemas import SCHEMAS, schema_text
from cobblewort.formats.shipped import demo_plans, shipped_parts
from tests.kits import SMALL, checked, demo, kit

DOCS = Path(__file__).parents[2] / "docs" / "schema"


def validator(name: str) -> Draft202012Validator:
    """A validator for one of our schemas that knows the others."""
    registry: Registry = Registry().with_resources(
        (other, Resource.from_contents(json.loads(schema_text(other)))) for other in SCHEMAS
    )
    schema = json.loads(schema_text(name))
    Draft202012Validator.check_schema(schema)
    return Draft202012Validator(schema, registry=registry)


@pytest.mark.parametrize("name", list(SCHEMAS))
def test_the_schemas_in_docs_are_those_of_the_models(name: str) -> None:
    """`make schemas` writes them; a stale one fails here."""
    assert (DOCS / name).read_text(encoding="utf-8") == schema_text(name)


def test_the_shipped_parts_and_plans_are_valid_by_the_schemas() -> None:
    """JSON Schema 2020-12, checked by a general validator."""
    validator("part-pack.schema.json").validate(shipped_parts())
    for entry in demo_plans():
        validator("plan.schema.json").validate(entry["plan"])


def test_a_report_is_valid_by_its_schema() -> None:
    """Bands and a kit that stops included."""
    adapter = TypeAdapter(Report)
    for report in (checked(demo("choir-recorder"), 32), checked(kit(*SMALL)), checked(kit())):
        validator("report.schema.json").validate(json.loads(adapter.dump_json(report)))


def test_the_schemas_refuse_what_is_wrong() -> None:
    """A role that is none, a figure that is a word, a report without a plan."""
    bad_plan = {"name": "x", "lines": [{"id": "a", "role": "roof", "part": "B06"}]}
    assert not validator("plan.schema.json").is_valid(bad_plan)
    bad_part = {
        "id": "a",
        "kind": "board",
        "maker": "m",
        "model": "x",
        "loads": {"own": {"idle": "much"}},
    }
    assert not validator("part-pack.schema.json").is_valid([bad_part])
    report = json.loads(TypeAdapter(Report).dump_json(replace(checked(kit(*SMALL)), plan="p")))
    del report["plan"]
    assert not validator("report.schema.json").is_valid(report)
