"""What can be wrong with what is handed to the core, told apart by what the caller can do."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from pydantic import ValidationError


class CobblewortError(Exception):
    """Base of our errors; `str()` is a sentence for people."""


class InputError(CobblewortError, ValueError):
    """A document is wrong: each problem is a place in the document and a sentence."""

    def __init__(self, problems: list[tuple[str, str]]) -> None:
        self.problems = problems
        super().__init__(
            "; ".join(f"{place}: {text}" if place else text for place, text in problems)
        )

    @classmethod
    def from_validation(cls, error: ValidationError, prefix: str = "") -> InputError:
        """The problems that Pydantic found, in our words, placed below `prefix`."""
        return cls.from_items(error.errors(include_url=False), prefix)

    @classmethod
    def from_items(cls, items: Iterable[Mapping[str, Any]], prefix: str = "") -> InputError:
        """The same from Pydantic's list of errors."""
        problems = []
        for item in items:
            place = ".".join([prefix, *(str(step) for step in item["loc"])]).strip(".")
            problems.append((place, _sentence(item)))
        return cls(problems)


class UnknownPartError(InputError):
    """A plan names a part that is not in the catalogue."""

    def __init__(self, place: str, part_id: str) -> None:
        self.part_id = part_id
        super().__init__(
            [(place, f"The catalogue has no part '{part_id}'. Add it, or choose another part.")]
        )


_SENTENCES = {
    "missing": "This field is missing. Enter a value.",
    "extra_forbidden": "This field is not known. Remove it, or check its spelling.",
    "unexpected_keyword_argument": "This field is not known. Remove it, or check its spelling.",
    "too_long": "at most {max_length} entries are possible (got {actual_length}). Remove some, or "
    "split them.",
    "too_short": "is too short: at least {min_length} needed (got {actual_length})",
    "string_pattern_mismatch": "must be letters, digits, dots, dashes or underscores, at most 64, "
    "such as usb-1",
    "string_too_long": "must have at most {max_length:,} characters",
    "string_too_short": "must not be empty",
    "greater_than": "must be above {gt:g}",
    "greater_than_equal": "must be at least {ge:g}",
    "less_than": "must be below {lt:g}",
    "less_than_equal": "must be at most {le:g}",
    "multiple_of": "must be a multiple of {multiple_of:g}",
    "literal_error": "must be one of {expected}",
    "enum": "must be one of {expected}",
    "finite_number": "must be a finite number",
    "none_required": "must be empty",
    "json_invalid": "is not valid JSON",
    "union_tag_invalid": "has a kind that is not known; known are {expected_tags}",
    "union_tag_not_found": "does not say of which kind it is",
}
"""What each kind of Pydantic's errors says here."""
_TYPES = {
    "string": "must be text",
    "int": "must be a whole number",
    "float": "must be a number",
    "decimal": "must be an amount such as 12.50",
    "bool": "must be true or false",
    "list": "must be a list",
    "tuple": "must be a list",
    "dict": "must be an object with named fields",
    "mapping": "must be an object with named fields",
    "model": "must be an object with named fields",
    "dataclass": "must be an object with named fields",
    "date": "must be a date such as 2027-01-31",
}
"""What a value should have been: the same for `int_type`, `int_parsing` and `int_from_float`."""
_SAYS_ENOUGH = {"missing", "extra_forbidden", "unexpected_keyword_argument", "too_long"}
"""Kinds that the value itself makes no clearer."""


def _sentence(item: Mapping[str, Any]) -> str:
    kind, value = item["type"], item.get("input")
    told = _SENTENCES.get(kind) or _TYPES.get(kind.partition("_")[0])
    text = str(item["msg"]).removeprefix("Value error, ")
    if told is not None:
        text = _filled(told, item.get("ctx", {})) or text
    shown = repr(value)
    plain = isinstance(value, int | float | str | bool | None) and len(shown) < 60
    if plain and kind not in _SAYS_ENOUGH and "got" not in text:
        return f"{text} (got {shown})"
    return text


def _filled(template: str, values: Mapping[str, Any]) -> str | None:
    """A template with the bounds that were passed; None where one is no number, such as a day."""
    try:
        return template.format(**values)
    except (KeyError, ValueError, TypeError):
        return None
