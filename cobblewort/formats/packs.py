"""Part packs as JSON and as CSV, each read back as it was written.

A pack in CSV has a row for each part and a column for each field, `loads.own.idle [A]`: the path in
the part's document, and for figures the unit (RFC 4180). A text that could be taken for a number or
a formula stands in quotes of its own or behind an apostrophe, and comes back without.
"""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from cobblewort.core.errors import InputError
from cobblewort.core.parts.names import unit_of
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.former_names import current_part
from cobblewort.formats.documents import exported, pack_from, parse_json, too_many
from cobblewort.formats.kit_list import FORMULA_STARTS

PACK_FORMAT = "cobblewort-parts/2"
MOST_PARTS = 20_000
MOST_COLUMNS = 2000
_MOST_STEPS_DEEP = 12
_FIRST = ("id", "kind", "part_class", "maker", "model", "summary", "price", "currency")
_FORMULA_STARTS = (*FORMULA_STARTS, "'")
_STEP = re.compile(r"[A-Za-z0-9_-]+")

Document = dict[str, Any]


def pack_json(documents: Iterable[Mapping[str, Any]]) -> str:
    """A pack as JSON. Raises InputError where it could not be imported again."""
    parts = [_kept(document) for document in documents]
    _count(parts)
    whole = {"format": PACK_FORMAT, "parts": parts}
    return exported(json.dumps(whole, indent=1, ensure_ascii=False) + "\n")


def _count(parts: Sequence[object]) -> None:
    if len(parts) > MOST_PARTS:
        raise too_many(f"{len(parts)} parts; at most {MOST_PARTS}")


def _kept(document: Mapping[str, Any]) -> Document:
    """A document without what the store adds."""
    return {name: value for name, value in document.items() if name not in ("revision", "origin")}


def pack_csv(documents: Iterable[Mapping[str, Any]]) -> str:
    """A pack as CSV with a header row and CRLF line ends. Raises as `pack_json`."""
    rows = [dict(_flat(_kept(document), "")) for document in documents]
    _count(rows)
    columns = [name for name in _FIRST if any(name in row for row in rows)]
    columns += sorted({path for row in rows for path in row} - set(columns))
    if len(columns) > MOST_COLUMNS:
        raise too_many(f"{len(columns)} columns; at most {MOST_COLUMNS}")
    sheet = io.StringIO()
    writer = csv.writer(sheet)
    writer.writerow([_heading(path, rows) for path in columns])
    for row in rows:
        writer.writerow([row.get(path, "") for path in columns])
    return exported(sheet.getvalue())


def _flat(value: Any, path: str) -> Iterable[tuple[str, str]]:
    """Every leaf of a document by its path; lists are leaves, as JSON."""
    if isinstance(value, Mapping) and value:
        for name, inner in value.items():
            yield from _flat(inner, f"{path}.{name}".strip("."))
    else:
        yield path, _cell(value)


def _cell(value: Any) -> str:
    """A leaf as text that says what it is: only texts that nothing else looks like stand bare."""
    if not isinstance(value, str):
        return json.dumps(value, ensure_ascii=False)
    if value == "" or value != value.strip() or _reads_as_other(value):
        return json.dumps(value, ensure_ascii=False)
    return f"'{value}" if value.startswith(_FORMULA_STARTS) else value


def _reads_as_other(text: str) -> bool:
    """Whether a text, standing bare, would be read as a number, a list, or as quoted."""
    if text[0] in '"[{':
        return True
    try:
        json.loads(text)
    except ValueError:
        return False
    return True


def _heading(path: str, rows: Iterable[Mapping[str, str]]) -> str:
    """A path, with its unit where it holds figures."""
    if path.startswith("price"):
        return path
    figures = any(_is_figure(row[path]) for row in rows if path in row)
    unit = unit_of(path) if figures else ""
    return f"{path} [{unit}]" if unit else path


def _is_figure(cell: str) -> bool:
    return bool(cell) and (cell[0].isdigit() or cell[0] in "-[")


def pack_of_csv(text: str) -> list[Document]:
    """The part documents of a pack in CSV.

    Raises
    ------
    InputError
        With every problem, by row and column.
    """
    try:
        rows = list(csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline=""), strict=True))
    except csv.Error as error:
        raise InputError([("", f"this is not CSV: {error}")]) from error
    if not rows or not any(rows[0]):
        raise InputError([("row 1", "the first row names the columns, such as id, kind, model")])
    if len(rows) > MOST_PARTS + 1:
        raise InputError([("", f"a pack contains at most {MOST_PARTS} parts")])
    if len(rows[0]) > MOST_COLUMNS:
        raise InputError([("row 1", f"a pack contains at most {MOST_COLUMNS} columns")])
    problems: list[tuple[str, str]] = []
    paths = [re.sub(r"\s*\[[^\]]*\]\s*$", "", heading).strip() for heading in rows[0]]
    for index, path in enumerate(paths, 1):
        steps = path.split(".")
        if len(steps) > _MOST_STEPS_DEEP or not all(_STEP.fullmatch(step) for step in steps):
            problems.append((f"row 1, column {index}", f"'{path:.60}' is not a field name"))
        elif path in paths[: index - 1]:
            problems.append((f"row 1, column {index}", f"the column {path} is there twice"))
    if problems:
        raise InputError(problems)
    found = []
    for number, row in enumerate(rows[1:], 2):
        if not any(row):
            continue
        if len(row) > len(paths):
            problems.append((f"row {number}", "it has more cells than the table has columns"))
            continue
        found.append(_document(number, paths, row, problems))
    if problems:
        raise InputError(problems)
    return [current_part(document) for document in found]


def _document(
    number: int, paths: list[str], row: list[str], problems: list[tuple[str, str]]
) -> Document:
    document: Document = {}
    for path, cell in zip(paths, row, strict=False):
        if cell == "":
            continue
        *above, last = path.split(".")
        inner: Any = document
        for step in above:
            inner = inner.setdefault(step, {})
            if not isinstance(inner, dict):
                break
        if not isinstance(inner, dict) or isinstance(inner.get(last), dict):
            problems.append((f"row {number}, {path}", "another column has a value for its group"))
            continue
        try:
            inner[last] = _value(cell)
        except InputError as error:
            problems.append((f"row {number}, {path}", error.problems[0][1]))
    return document


def _value(cell: str) -> Any:
    if cell[0] == "'":
        return cell[1:]
    if cell[0] in '"[{':
        return parse_json(cell)
    try:
        return json.loads(cell, parse_constant=str)
    except (ValueError, RecursionError):
        return cell


def pack_of_text(text: str, name: str) -> list[Document]:
    """The part documents of a pack, JSON or CSV by the ending of its name."""
    if name.lower().endswith(".csv"):
        return pack_of_csv(text)
    documents = pack_from(parse_json(text))
    if len(documents) > MOST_PARTS:
        raise InputError([("", f"a pack contains at most {MOST_PARTS} parts")])
    return documents


Arrival = Literal["new", "changes", "same", "clashes"]


@dataclass(slots=True, frozen=True)
class Arriving:
    """A part of a pack against the catalogue: `new`, `changes` one of one's own, the `same`, or
    `clashes` with one that ships with the program, which stays as it is.
    """

    id: str
    kind: str
    maker: str
    model: str
    state: Arrival
    fields: tuple[str, ...]


def arriving(documents: Iterable[Document], catalogue: Catalogue) -> list[Arriving]:
    """What bringing a pack in would do.

    Raises
    ------
    InputError
        With every problem of every part and its place.
    """
    documents = list(documents)
    read = catalogue.extended(documents)
    problems: list[tuple[str, str]] = []
    seen: set[str] = set()
    found = []
    for index, document in enumerate(documents):
        part = read.part(str(document.get("id")))
        if part.id in seen:
            problems.append((f"parts.{index}.id", f"the part {part.id} is there twice"))
        seen.add(part.id)
        here = catalogue.find(part.id)
        fields = () if here is None else _changed(catalogue.document(here), document)
        state: Arrival = "new"
        if here is not None:
            state = "same" if not fields else "changes" if here.origin == "custom" else "clashes"
        found.append(Arriving(part.id, part.kind, part.maker, part.model, state, fields))
    if problems:
        raise InputError(problems)
    return found


def _changed(before: Mapping[str, Any], after: Mapping[str, Any]) -> tuple[str, ...]:
    """The paths at which two documents differ."""
    one, other = (dict(_flat(json.loads(json.dumps(_kept(d))), "")) for d in (before, after))
    paths = one.keys() | other.keys()
    return tuple(sorted(path for path in paths if one.get(path) != other.get(path)))
