"""Which figures of a part come from its class."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from cobblewort.core.figures.reading import Reading
from cobblewort.core.parts.model import Part


def class_figures(part: Part) -> list[str]:
    """Paths of the figures with basis `typical`, such as `board_heat.r_db_k_w`."""
    return [path for path, reading in _readings(part, "") if reading.basis == "typical"]


def _readings(value: Any, path: str) -> list[tuple[str, Reading]]:
    if isinstance(value, Reading):
        return [(path, value)]
    if isinstance(value, BaseModel):
        items = [(name, getattr(value, name)) for name in type(value).model_fields]
    elif isinstance(value, dict):
        items = list(value.items())
    else:
        return []
    return [entry for name, item in items for entry in _readings(item, f"{path}.{name}".strip("."))]
