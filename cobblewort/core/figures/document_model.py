"""What a document states, read into objects: checked on the way in, never changed afterwards.

Bounds are generous for people and checked before any work is done.
"""

import re
from typing import Annotated, TypeVar, cast, dataclass_transform

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic.dataclasses import dataclass

T = TypeVar("T")

_UNSEEN = re.compile("[\x00-\x1f\x7f-\x9f\u2028-\u202e\u2066-\u2069\ud800-\udfff]")
"""Control characters, line breaks, half characters, marks that turn the writing round."""


def _seen(text: str) -> str:
    if _UNSEEN.search(text):
        raise ValueError(
            "must be plain text on one line; remove control characters and line breaks"
        )
    return text


def _seen_lines(text: str) -> str:
    if _UNSEEN.search(text.replace("\r\n", "\n").replace("\n", "").replace("\t", "")):
        raise ValueError("must be plain text; remove control characters")
    return text


OneLine = AfterValidator(_seen)
Lines = AfterValidator(_seen_lines)


def _currency(text: str) -> str:
    if not re.fullmatch("[A-Z]{3}", text):
        raise ValueError("must be a currency code of three letters, such as EUR")
    return text


Currency = Annotated[str, AfterValidator(_currency)]
"""A code of ISO 4217."""

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
