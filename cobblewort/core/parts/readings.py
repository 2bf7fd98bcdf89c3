"""The readings of a part by their paths, such as `board_heat.r_db_k_w`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from typing import Any

from cobblewort.core.figures.reading import Reading
from cobblewort.core.parts.model import Part


def readings_of(part: Part) -> Iterator[tuple[str, Reading]]:
    """Every reading that a part has, with its path, in the order of its fields."""
    return _readings(part, "")


def class_figures(part: Part) -> list[str]:
    """Paths of the figures that come from its class: those with basis `typical`."""
    return [path for path, reading in readings_of(part) if reading.basis == "typical"]


def _readings(value: Any, path: str) -> Iterator[tuple[str, Reading]]:
    if isinstance(value, Reading):
        yield path, value
    elif isinstance(value, dict):
        for name, item in value.items():
            yield from _readings(item, f"{path}.{name}")
    elif is_dataclass(value):
        kind: Any = type(value)
        for name in _names(kind):
            item = getattr(value, name)
            if item is not None:
                yield from _readings(item, f"{path}.{name}" if path else name)


def _names(kind: Any) -> tuple[str, ...]:
    return tuple(field.name for field in fields(kind))
