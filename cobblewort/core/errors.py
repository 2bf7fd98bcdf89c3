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


def _sentence(item: Mapping[str, Any]) -> str:
    kind, value = item["type"], item.get("input")
    if kind == "missing":
        return "This field is missing. Enter a value."
    if kind in ("extra_forbidden", "unexpected_keyword_argument"):
        return "This field is not known. Remove it, or check its spelling."
    if kind == "too_long":
        most, given = item["ctx"]["max_length"], item["ctx"]["actual_length"]
        return f"at most {most} entries are possible (got {given}). Remove some, or split them."
    if kind == "string_pattern_mismatch":
        return "must be letters, digits, dots, dashes or underscores, at most 64, such as usb-1"
    text = str(item["msg"]).removeprefix("Value error, ")
    shown = repr(value)
    if isinstance(value, int | float | str | bool | None) and len(shown) < 60 and "got" not in text:
        return f"{text} (got {shown})"
    return text
