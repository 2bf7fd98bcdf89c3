"""Plan and part documents: JSON and YAML read with the place of every error."""

from __future__ import annotations

import json
import stat
from pathlib import Path
from typing import Any

from cobblewort.core.errors import InputError
from cobblewort.core.plans.former_names import current_part

MAX_FILE_BYTES, MAX_IMPORT_BYTES = 2_000_000, 20_000_000
"""Of a plan or pack that is checked, and of what is imported or exported: plans with history.
"""
MAX_VALUES = 200_000
MAX_DEPTH = 60
TOO_DEEP = "the file is nested too deeply"


def read_text(path: Path, most: int = MAX_FILE_BYTES) -> str:
    """The text of a file of at most so many bytes. Raises InputError with a sentence for people."""
    try:
        if not stat.S_ISREG(path.stat().st_mode):  # a pipe or a device might never end
            raise InputError([("", f"{path.name} is not a plain file")])
        with path.open("rb") as file:
            data = file.read(most + 1)
        if len(data) > most:
            raise InputError([("", f"{path.name} is larger than {most // 10**6} MB")])
        return data.decode("utf-8-sig")
    except (OSError, ValueError) as error:
        if isinstance(error, InputError):
            raise
        reason = error.strerror if isinstance(error, OSError) else "it is not UTF-8 text"
        raise InputError([("", f"{path.name} cannot be read: {reason}")]) from error


def exported(text: str) -> str:
    """A text that goes out. Raises InputError where it could not be imported again."""
    size = len(text.encode("utf-8", "surrogatepass"))
    if size > MAX_IMPORT_BYTES:
        raise too_many(f"{size / 1e6:.0f} MB; at most {MAX_IMPORT_BYTES // 10**6} MB")
    return text


def imported(text: str) -> str:
    """A text that comes in. Raises InputError where it is larger than anything that goes out."""
    size = len(text.encode("utf-8", "surrogatepass"))
    if size > MAX_IMPORT_BYTES:
        told = f"The file has {size / 1e6:.0f} MB; at most {MAX_IMPORT_BYTES // 10**6} MB can be "
        raise InputError([("", f"{told}imported at once. Split it into several files.")])
    return text


def too_many(what: str) -> InputError:
    """Why a file is not written."""
    told = f"This file would be too large to import again ({what}). Export less at once."
    return InputError([("", told)])


def parse_json(text: str) -> Any:
    """The value of a JSON text; NaN and infinities are refused.

    Raises
    ------
    InputError
        With line and column of the error.
    """

    def refuse(name: str) -> float:
        raise InputError([("", f"{name} is not a JSON number; leave the value out instead")])

    try:
        return json.loads(text, parse_constant=refuse)
    except json.JSONDecodeError as error:
        place = f"line {error.lineno}, column {error.colno}"
        raise InputError([(place, f"this is not JSON: {error.msg}")]) from error
    except RecursionError as error:
        raise InputError([("", TOO_DEEP)]) from error
    except ValueError as error:  # a number of more digits than can be read
        raise InputError([("", f"this is not JSON that can be read: {error}")]) from error


def parse_document(path: Path, most: int = MAX_FILE_BYTES) -> Any:
    """The value of a JSON or YAML file, told apart by its ending."""
    text = read_text(path, most)
    if path.suffix not in (".yaml", ".yml"):
        return parse_json(text)
    from cobblewort.formats.yaml_documents import parse_yaml

    return parse_yaml(text)


def pack_from(value: Any) -> list[dict[str, Any]]:
    """The part documents of a pack: a list of parts, or an object with `parts`."""
    parts = value.get("parts") if isinstance(value, dict) else value
    if not isinstance(parts, list) or not all(isinstance(part, dict) for part in parts):
        raise InputError([("", "a part pack contains a list of parts, or an object with 'parts'")])
    return [current_part(part) for part in parts]
