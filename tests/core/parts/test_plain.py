"""Plain parts say what their models say."""

from typing import Any

import pytest
from pydantic import BaseModel

from cobblewort.core.parts.model import Part
from cobblewort.core.parts.plain import plain
from tests.kits import shipped


def written(value: Any) -> Any:
    """A model or what stands for it, as a document."""
    if isinstance(value, BaseModel):
        return value.model_dump()
    if hasattr(value, "__slots__"):
        return {name: written(getattr(value, name)) for name in value.__slots__}
    if isinstance(value, dict):
        return {key: written(entry) for key, entry in value.items()}
    return tuple(map(written, value)) if isinstance(value, tuple) else value


@pytest.mark.parametrize("part", shipped().parts(), ids=lambda part: part.id)
def test_every_field_of_every_part_is_there(part: Part) -> None:
    """Down to the last figure, and nothing in it is a model any more."""
    twin = plain(part)
    assert not isinstance(twin, BaseModel)
    assert written(twin) == part.model_dump()


def test_properties_and_methods_come_along() -> None:
    """What a part works out from its fields it can still work out."""
    part = shipped().part("B06")
    twin = plain(part)
    assert twin.name == part.name
    bus = next(iter(part.buses))
    assert twin.buses_above(bus) == part.buses_above(bus)
