"""JSON Schemas of the open formats, made from the models that read them."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from cobblewort.core.parts.model import PART
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.report import Report

_DIALECT = "https://json-schema.org/draft/2020-12/schema"
_FIGURE: dict[str, Any] = {
    "description": "A number, [low, nominal, high], or nominal with basis or low and high.",
    "anyOf": [
        {"type": "number"},
        {"type": "array", "items": {"type": "number"}, "minItems": 1, "maxItems": 3},
        {
            "type": "object",
            "properties": {
                "nominal": {"type": "number"},
                "low": {"type": "number"},
                "high": {"type": "number"},
                "basis": {"enum": ["standard", "measured", "datasheet", "estimate", "typical"]},
            },
            "required": ["nominal"],
            "additionalProperties": False,
        },
    ],
}


def plan_schema() -> dict[str, Any]:
    """Schema of a plan file."""
    schema = {"$schema": _DIALECT, **Plan.model_json_schema()}
    schema["properties"]["parts"]["items"] = {"$ref": "part-pack.schema.json#/$defs/PartDocument"}
    return schema


def part_pack_schema() -> dict[str, Any]:
    """Schema of a part pack. A part is a merge patch over its class, so little is required."""
    part = PART.json_schema()
    definitions = part.pop("$defs")
    for definition in definitions.values():
        definition.pop("required", None)
        for field, schema in definition.get("properties", {}).items():
            definition["properties"][field] = {"anyOf": [schema, {"type": "null"}]}
    definitions["Reading"] = _FIGURE
    for name, schema in part["properties"].items():
        part["properties"][name] = _or_null_items(schema)
    part["required"] = ["id", "kind", "maker", "model"]
    return {
        "$schema": _DIALECT,
        "title": "Part pack",
        "anyOf": [
            {"type": "array", "items": {"$ref": "#/$defs/PartDocument"}},
            {
                "type": "object",
                "properties": {
                    "parts": {"type": "array", "items": {"$ref": "#/$defs/PartDocument"}}
                },
                "required": ["parts"],
            },
        ],
        "$defs": {**definitions, "PartDocument": part},
    }


def _or_null_items(schema: dict[str, Any]) -> dict[str, Any]:
    """A collection whose entries may be null, which takes the class's entry out."""
    by_pattern = schema.get("patternProperties", {})
    opened = {pattern: {"anyOf": [s, {"type": "null"}]} for pattern, s in by_pattern.items()}
    return {**schema, "patternProperties": opened} if opened else schema


def report_schema() -> dict[str, Any]:
    """Schema of a report as the command line prints it."""
    return {"$schema": _DIALECT, **TypeAdapter(Report).json_schema(mode="serialization")}


SCHEMAS = {
    "plan.schema.json": plan_schema,
    "part-pack.schema.json": part_pack_schema,
    "report.schema.json": report_schema,
}


def schema_text(name: str) -> str:
    """One schema as the text of its file."""
    return json.dumps(SCHEMAS[name](), indent=2, ensure_ascii=False) + "\n"


def write_schemas(folder: Path) -> None:
    """Write every schema into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    for name in SCHEMAS:
        (folder / name).write_text(schema_text(name), encoding="utf-8")


if __name__ == "__main__":
    write_schemas(Path(sys.argv[1]))
