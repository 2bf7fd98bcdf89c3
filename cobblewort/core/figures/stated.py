"""What a document states, read into objects: checked on the way in, never changed afterwards."""

from typing import TypeVar, cast, dataclass_transform

from pydantic import BaseModel, ConfigDict, Field
from pydantic.dataclasses import dataclass

T = TypeVar("T")

CONFIG = ConfigDict(
    extra="forbid", allow_inf_nan=False, json_schema_serialization_defaults_required=True
)
"""No unknown fields, no NaN."""


@dataclass_transform(kw_only_default=True, frozen_default=True, field_specifiers=(Field,))
def stated(kind: type[T]) -> type[T]:
    """Make a class a dataclass with slots, checked by Pydantic when it is made.

    For parts: rules look their fields up thousands of times for one verdict, and a model of
    Pydantic looks attributes up through a hook of its own, which takes four times as long as a
    slot. Two of them are equal only when they are the same.
    """
    made = dataclass(frozen=True, slots=True, kw_only=True, eq=False, config=CONFIG)(kind)
    return cast("type[T]", made)


class Stated(BaseModel):
    """Base of what a plan states, which is copied, compared and written down."""

    model_config = ConfigDict(frozen=True, **CONFIG)
