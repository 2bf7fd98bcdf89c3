"""Plan and part documents: JSON and YAML read with the place of every error."""

from __future__ import annotations

import json
import stat
from pathlib import Path
from typing import Any

import yaml

from cobblewort.core.errors import InputError
from cobblewort.core.plans.former_names import current_part

MAX_FILE_BYTES = 2_000_000
MAX_VALUES = 200_000
MAX_DEPTH = 60
_TOO_DEEP = "the file is nested too deeply"
YAML_LOADER: Any = getattr(yaml, "CSafeLoader", yaml.SafeLoader)
"""The same reader in C, where it is there: the small boards start half a second sooner."""


def read_text(path: Path) -> str:
    """The text of a file of bounded size. Raises InputError with a sentence for people."""
    try:
        if not stat.S_ISREG(path.stat().st_mode):  # a pipe or a device might never end
            raise InputError([("", f"{path.name} is not a plain file")])
        with path.open("rb") as file:
            data = file.read(MAX_FILE_BYTES + 1)
        if len(data) > MAX_FILE_BYTES:
            raise InputError([("", f"{path.name} is larger than {MAX_FILE_BYTES // 10**6} MB")])
        return data.decode("utf-8-sig")
    except (OSError, ValueError) as error:
        if isinstance(error, InputError):
            raise
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
        raise InputError([("", f"{name} is not a JSON number; leave the value out instead")])

    try:
        return json.loads(text, parse_constant=refuse)
    except json.JSONDecodeError as error:
        place = f"line {error.lineno}, column {error.colno}"
        raise InputError([(place, f"this is not JSON: {error.msg}")]) from error
    except RecursionError as error:
        raise InputError([("", _TOO_DEEP)]) from error
    except ValueError as error:  # a number of more digits than can be read
        raise InputError([("", f"this is not JSON that can be read: {error}")]) from error


def parse_document(path: Path) -> Any:
    """The value of a JSON or YAML file, told apart by its ending."""
    text = read_text(path)
    return parse_yaml(text) if path.suffix in (".yaml", ".yml") else parse_json(text)


def parse_yaml(text: str) -> Any:
    """The value of a YAML text. Raises InputError with line and column of the error."""
    loader = YAML_LOADER(text)
    try:
        node = loader.get_single_node()
        if node is None:
            return None
        _check_size(node)
        return loader.construct_document(node)
    except yaml.MarkedYAMLError as error:
        mark = error.problem_mark
        place = "" if mark is None else f"line {mark.line + 1}, column {mark.column + 1}"
        raise InputError([(place, f"this is not YAML: {error.problem or error}")]) from error
    except yaml.YAMLError as error:
        raise InputError([("", f"this is not YAML: {error}")]) from error
    except RecursionError as error:
        raise InputError([("", _TOO_DEEP)]) from error
    except (ValueError, OverflowError, TypeError) as error:  # such as the 45th of a month
        raise InputError([("", f"a value in it cannot be read: {error}")]) from error
    finally:
        loader.dispose()


def _check_size(root: yaml.Node) -> None:
    """Refuse what unfolds beyond bounds: an alias may stand for a thousand others, or for itself.

    Raises
    ------
    InputError
        If it holds itself, lies too deep, or comes to too many values.
    """
    sizes: dict[int, int] = {}
    stack: list[tuple[yaml.Node, bool]] = [(root, False)]
    inside: dict[int, None] = {}
    while stack:
        node, is_left = stack.pop()
        key, children = id(node), _children(node)
        if is_left:
            del inside[key]
            sizes[key] = 1 + sum(sizes[id(child)] for child in children)
            if sizes[key] > MAX_VALUES:
                raise InputError([("", f"it contains more than {MAX_VALUES} values")])
            continue
        if key in sizes:
            continue
        if key in inside:
            raise InputError([("", "an alias refers to the entry that contains it")])
        if len(inside) > MAX_DEPTH:
            raise InputError([("", _TOO_DEEP)])
        inside[key] = None
        stack.append((node, True))
        stack += [(child, False) for child in children]


def _children(node: yaml.Node) -> list[yaml.Node]:
    if isinstance(node, yaml.MappingNode):
        return [part for pair in node.value for part in pair]
    return list(node.value) if isinstance(node, yaml.SequenceNode) else []


def pack_from(value: Any) -> list[dict[str, Any]]:
    """The part documents of a pack: a list of parts, or an object with `parts`."""
    parts = value.get("parts") if isinstance(value, dict) else value
    if not isinstance(parts, list) or not all(isinstance(part, dict) for part in parts):
        raise InputError([("", "a part pack contains a list of parts, or an object with 'parts'")])
    return [current_part(part) for part in parts]
