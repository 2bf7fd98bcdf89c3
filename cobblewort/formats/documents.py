"""Plan and part documents: JSON and YAML read with the place of every error."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import yaml

from cobblewort.core.errors import InputError

MAX_FILE_BYTES = 2_000_000


def read_text(path: Path) -> str:
    """The text of a file of bounded size. Raises InputError with a sentence for people."""
    try:
        if path.stat().st_size > MAX_FILE_BYTES:
            raise InputError([("", f"{path.name} is larger than {MAX_FILE_BYTES // 10**6} MB")])
        return path.read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        reason = error.strerror if isinstance(error, OSError) else "it is not UTF-8 text"
        raise InputError([("", f"{path.name} cannot be read: {reason}")]) from error


def parse_json(text: str) -> Any:
    """The value of a JSON text; NaN and infinities are refused.

    Raises
    ------
    InputError
        With line and column of the error.
    """

    def refuse(name: str) -> float:
        raise InputError([("", f"{name} is not a JSON number; leave the figure out instead")])

    try:
        return json.loads(text, parse_constant=refuse)
    except json.JSONDecodeError as error:
        place = f"line {error.lineno}, column {error.colno}"
        raise InputError([(place, f"this is not JSON: {error.msg}")]) from error
    except RecursionError as error:
        raise InputError([("", "the file is nested too deeply")]) from error


def parse_document(path: Path) -> Any:
    """The value of a JSON or YAML file, told apart by its ending."""
    text = read_text(path)
    if path.suffix not in (".yaml", ".yml"):
        return parse_json(text)
    try:
        return yaml.safe_load(text)
    except yaml.YAMLError as error:
        raise InputError([("", f"{path.name} is not YAML: {error}")]) from error


def pack_from(value: Any) -> list[dict[str, Any]]:
    """The part documents of a pack: a list of parts, or an object with `parts`."""
    parts = value.get("parts") if isinstance(value, dict) else value
    if not isinstance(parts, list) or not all(isinstance(part, dict) for part in parts):
        raise InputError([("", "a part pack holds a list of parts, or an object with 'parts'")])
    return parts
