"""YAML read with the place of every error, and within bounds."""

from __future__ import annotations

from typing import Any

import yaml

from cobblewort.core.errors import InputError
from cobblewort.formats.documents import MAX_DEPTH, MAX_VALUES, TOO_DEEP

MOST_ENTRIES = 30_000
"""Lines and entries of lists, counted before they are read: more would take seconds."""
YAML_LOADER: Any = getattr(yaml, "CSafeLoader", yaml.SafeLoader)
"""The same reader in C, where it is there: it is ten times as fast."""


def parse_yaml(text: str) -> Any:
    """The value of a YAML text. Raises InputError with line and column of the error."""
    if sum(text.count(sign) for sign in ("\n", ",", "- ")) > MOST_ENTRIES:
        told = f"a YAML file has at most {MOST_ENTRIES:,} lines and entries; use JSON instead"
        raise InputError([("", told)])
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
        raise InputError([("", TOO_DEEP)]) from error
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
            raise InputError([("", TOO_DEEP)])
        inside[key] = None
        stack.append((node, True))
        stack += [(child, False) for child in children]


def _children(node: yaml.Node) -> list[yaml.Node]:
    if isinstance(node, yaml.MappingNode):
        return [part for pair in node.value for part in pair]
    return list(node.value) if isinstance(node, yaml.SequenceNode) else []
