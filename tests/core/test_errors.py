"""What is wrong with a document, in our words."""

from typing import Annotated, Any, Literal

import pytest
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from cobblewort.core.errors import InputError


class _Thing(BaseModel):
    model_config = ConfigDict(extra="forbid")

    share: Annotated[float, Field(ge=0, lt=1)] = 0
    kind: Literal["card", "drive"] = "card"
    name: Annotated[str, Field(min_length=1, max_length=1000)] = "x"
    count: int = 1
    parts: Annotated[list[bool], Field(min_length=1, max_length=2)] = [True]


@pytest.mark.parametrize(
    ("document", "told"),
    [
        ({"share": -1}, "share: must be at least 0 (got -1)"),
        ({"share": 1.5}, "share: must be below 1 (got 1.5)"),
        ({"share": "much"}, "share: must be a number (got 'much')"),
        ({"share": [1]}, "share: must be a number"),
        ({"kind": "ship"}, "kind: must be one of 'card' or 'drive' (got 'ship')"),
        ({"name": ""}, "name: must not be empty (got '')"),
        ({"name": "x" * 1001}, "name: must have at most 1,000 characters"),
        ({"name": 3}, "name: must be text (got 3)"),
        ({"count": 1.5}, "count: must be a whole number (got 1.5)"),
        ({"parts": []}, "parts: is too short: at least 1 needed (got 0)"),
        ({"parts": "on"}, "parts: must be a list (got 'on')"),
        ({"parts": [None]}, "parts.0: must be true or false (got None)"),
        (
            {"parts": [True] * 3},
            "parts: at most 2 entries are possible (got 3). Remove some, or split them.",
        ),
        ({"cuont": 1}, "cuont: This field is not known. Remove it, or check its spelling."),
    ],
)
def test_what_is_wrong_is_told_in_plain_words(document: dict[str, Any], told: str) -> None:
    """With its place and what was got, where that is short."""
    with pytest.raises(ValidationError) as caught:
        _Thing.model_validate(document)
    assert str(InputError.from_validation(caught.value)) == told
