"""Parts as plain objects: what rules read thousands of times for one verdict.

A model of Pydantic looks attributes up through a hook of its own, which takes about four times as
long as a slot. Models stand at the edges, where documents come in; inside, their fields are slots.
"""

from __future__ import annotations

from functools import cache
from types import FunctionType
from typing import Any, TypeVar, cast

from pydantic import BaseModel

Model = TypeVar("Model", bound=BaseModel)


def plain(model: Model) -> Model:
    """An object with the fields, properties and methods of a model that is none itself.

    It stands for the model wherever it is read; it cannot be copied, compared or written down like
    one. What it holds, down to the last figure, is turned alike.
    """
    return cast("Model", _plain(model))


def _plain(value: Any) -> Any:
    if isinstance(value, BaseModel):
        twin = _twin(type(value))()
        for name in type(value).model_fields:
            setattr(twin, name, _plain(getattr(value, name)))
        return twin
    if isinstance(value, dict):
        return {key: _plain(entry) for key, entry in value.items()}
    return tuple(map(_plain, value)) if isinstance(value, tuple) else value


@cache
def _twin(model: type[BaseModel]) -> type[Any]:
    """The class of such objects."""
    shared = {
        name: entry
        for name, entry in vars(model).items()
        if isinstance(entry, property | FunctionType) and not name.startswith("_")
    }
    return type(model.__name__, (), {**shared, "__slots__": tuple(model.model_fields)})
