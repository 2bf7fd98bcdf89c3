"""The sheet of a part: its figures one by one, where each comes from, and how to change them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from copy import deepcopy
from dataclasses import dataclass, is_dataclass, replace
from decimal import Decimal
from types import NoneType
from typing import Any, Literal, cast, get_args

from pydantic.fields import FieldInfo

from cobblewort.core import words
from cobblewort.core.errors import InputError
from cobblewort.core.figures.reading import READING, Basis, Reading
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.parts.model import Load, Offer, Origin, Part, Rail, Socket
from cobblewort.core.parts.names import figure_words, is_named, unit_of
from cobblewort.core.text import Text, say

Document = Mapping[str, Any]
"""A part as it is written down, or a class."""

_GROUPS = {
    "offers": "Functions",
    "parity_mb_s": "Functions",
    "cores": "Functions",
    "ambient": "Ambient",
    "mass_g": "Size",
    "stack": "Size",
    "add_on": "Size",
    "storage": "Capacity",
    "source": "Power output",
    "voltages": "Voltage",
    "loads": "Power draw",
    "rails": "Rails",
    "sockets": "Ports and slots",
    "pin_header": "Ports and slots",
    "plugs": "Plugs and cables",
    "cable": "Cable",
    "board_heat": "Heat",
    "cooler": "Cooling",
    "fan": "Cooling",
    "noise_dba": "Noise",
    "hot": "Heat",
    "drive": "Size",
    "case": "Case",
    "rates": "Data rates",
    "medium": "Drive",
    "wears": "Lifetime",
}
"""Headings by the first step of a path, in the order of the sheet."""
_SHAPES = frozenset(
    {
        "boxes",
        "face",
        "body",
        "openings",
        "posts",
        "compartments",
        "glands",
        "bays",
        "ports",
        "buttons",
        "latches",
        "panel_hole",
    }
)
"""Places and outlines, which a copy takes over; they are not asked for one by one."""

_SILENT_KINDS = frozenset({"board", "cable", "card", "fastener", "tool", "machine"})

_STORING = frozenset({"card", "drive"})
"""Kinds of which everybody asks how much they hold, though no class can say it."""

_ON_LABEL = frozenset(
    {
        "offers.wired_network.amount",
        "offers.memory.amount",
        "loads.own.peak",
        "source.set_v",
        "source.rated_a",
        "storage.capacity_gb",
        "drive.read_mb_s",
        "drive.write_mb_s",
        "drive.endurance_tb",
        "drive.length_mm",
        "cooler.height_mm",
        "case.inner_length_mm",
        "case.inner_width_mm",
        "case.inner_height_mm",
        "case.max_above_mm",
        "cable.rated_a",
        "add_on.height_mm",
        "noise_dba",
        "plugs.out.wire.length_m",
        "plugs.in.wire.length_m",
        "stack.length_mm",
        "stack.width_mm",
    }
)
"""What stands on a label or in a leaflet: what one knows with the part in hand."""

FigureKind = Literal["reading", "number"]
"""A reading may have a band and a basis, a number is a plain dimension."""


@dataclass(slots=True, frozen=True)
class SheetFigure:
    """One figure of a part.

    `nominal`, `low`, `high` and `basis` are those in use, None where nothing is known. `own` is
    true where the part states it itself; `class_nominal` is what it falls back to when it does not.
    `on_label` are the few that one reads off the part itself. `doubt` says why a figure of one's
    own is hard to believe; it is taken all the same.
    """

    path: str
    group: str
    label: str
    unit: str
    kind: FigureKind
    nominal: float | None
    low: float | None
    high: float | None
    basis: Basis | None
    own: bool
    class_nominal: float | None
    on_label: bool
    doubt: Text | None = None


@dataclass(slots=True, frozen=True)
class PartSheet:
    """A part as a person reads it."""

    id: str
    revision: int
    origin: Origin
    kind: str
    part_class: str | None
    maker: str
    model: str
    summary: str
    price: Decimal | None
    currency: str
    cautions: tuple[str, ...]
    figures: list[SheetFigure]


def part_sheet(part: Part, document: Document, from_class: Document) -> PartSheet:
    """Every figure of a part in the order of the sheet, with what it and its class state."""
    order = list(_GROUPS)
    figures = doubted(
        part.kind,
        sorted(
            _figures(part, "", document, from_class, part),
            key=lambda figure: order.index(_heading(figure.path)),
        ),
    )
    return PartSheet(
        part.id,
        part.revision,
        part.origin,
        part.kind,
        part.part_class,
        part.maker,
        part.model,
        part.summary,
        part.price,
        part.currency,
        part.cautions,
        figures,
    )


def _heading(path: str) -> str:
    first = path.split(".", 1)[0]
    return "ambient" if first.startswith("ambient") else first


def _figures(
    stated: Any, path: str, document: Any, from_class: Any, part: Part
) -> Iterator[SheetFigure]:
    for name, info in type(stated).__pydantic_fields__.items():
        here = f"{path}.{name}".strip(".")
        value, own, fallback = getattr(stated, name), _step(document, name), _step(from_class, name)
        if here == "storage" and value is None and part.kind in _STORING:
            yield _figure(f"{here}.capacity_gb", "number", None, None, None, part)
        if name in _SHAPES or (name == "noise_dba" and part.kind in _SILENT_KINDS):
            continue
        if isinstance(value, dict):
            for key, entry in value.items():
                if is_dataclass(entry):
                    inner = _step(own, key), _step(fallback, key)
                    yield from _figures(entry, f"{here}.{key}", *inner, part)
        elif is_dataclass(value) and not isinstance(value, Reading):
            yield from _figures(value, here, own, fallback, part)
        else:
            kind = _kind_of(info)
            if isinstance(stated, Offer) and not FUNCTIONS[cast("FunctionId", path[7:])].unit:
                continue
            if kind is not None and is_named(here):
                yield _figure(here, kind, value, own, fallback, part)


def _kind_of(info: FieldInfo) -> FigureKind | None:
    """What a field holds, read from its type; None for what is not a figure."""
    leaves = set(_leaves(info.annotation))
    if Reading in leaves:
        return "reading"
    return "number" if leaves in ({float}, {float, NoneType}) else None


def _leaves(annotation: Any) -> Iterator[Any]:
    """The plain types in an annotation: float and None in `Annotated[float, ...] | None`."""
    if hasattr(annotation, "__metadata__"):
        yield from _leaves(annotation.__origin__)
    elif inner := get_args(annotation):
        for part in inner:
            yield from _leaves(part)
    else:
        yield annotation


def _step(document: Any, name: str) -> Any:
    return document.get(name) if isinstance(document, Mapping) else None


def _figure(
    path: str, kind: FigureKind, value: Any, own: Any, fallback: Any, part: Part
) -> SheetFigure:
    unit, label = unit_of(path), figure_words(path).removeprefix("the ")
    group = _GROUPS[_heading(path)]
    steps = path.split(".")
    if len(steps) > 2:
        holder = getattr(part, steps[0]).get(steps[1])
        if isinstance(holder, Load):
            unit = holder.unit.upper()
        if isinstance(holder, Offer):
            return _offered(path, value, own, fallback)
        named = holder.label if isinstance(holder, Rail | Socket) and holder.label else ""
        whose = named or getattr(holder, "label", "") or ("" if steps[1] == "own" else steps[1])
        label = f"{label}, {whose}" if whose else label
        if isinstance(holder, Socket) and _is_repeated(part, holder):
            label = f"{label} ({steps[1]})"
    reading = value if isinstance(value, Reading) else None
    number = value if isinstance(value, int | float) else None
    class_value = _nominal(fallback)
    return SheetFigure(
        path=path,
        group=group,
        label=label[:1].upper() + label[1:],
        unit=unit,
        kind=kind,
        nominal=reading.nominal if reading else number,
        low=reading.low if reading else number,
        high=reading.high if reading else number,
        basis=reading.basis if reading else ("datasheet" if own is not None else None),
        own=own is not None,
        class_nominal=class_value,
        on_label=path in _ON_LABEL,
    )


def _offered(path: str, value: Any, own: Any, fallback: Any) -> SheetFigure:
    """The amount of a function that a part gives."""
    function = FUNCTIONS[cast("FunctionId", path.split(".")[1])]
    label = function.label[:1].upper() + function.label[1:]
    basis: Basis | None = None if value is None else "typical" if own is None else "datasheet"
    return SheetFigure(
        path,
        _GROUPS["offers"],
        label,
        function.unit,
        "number",
        value,
        value,
        value,
        basis,
        own is not None,
        _nominal(fallback),
        path in _ON_LABEL,
    )


_FAR: dict[str, float] = {"V": 3, "A": 8, "W": 8, "Ω": 20, "mm": 10}
"""So many times the typical figure, or this share of it, is far off; units that are not here, such
as those of room and rates, span more than that between any two parts, and so do the loads of
devices (common practice)."""


def doubted(kind: str, figures: list[SheetFigure]) -> list[SheetFigure]:
    """The figures, with a doubt where one is far from what is typical or contradicts another."""
    known = {figure.path: figure.nominal for figure in figures}
    return [
        replace(figure, doubt=_far_off(kind, figure) or _at_odds(figure, known))
        if figure.own
        else figure
        for figure in figures
    ]


def _far_off(kind: str, figure: SheetFigure) -> Text | None:
    usual, own, far = figure.class_nominal, figure.nominal, _FAR.get(figure.unit)
    if kind == "device" and figure.path.startswith("loads."):
        return None
    if far is None or not usual or own is None or own <= 0 or usual < 0:
        return None
    if usual / far <= own <= usual * far:
        return None
    return say(
        "{own} is far {side} the typical {usual}.",
        own=words.counted(own, figure.unit),
        side="above" if own > usual else "below",
        usual=words.counted(usual, figure.unit),
    )


def _at_odds(figure: SheetFigure, known: Mapping[str, float | None]) -> Text | None:
    """Clearance above the board in a case that is lower than that."""
    inner_mm = known.get("case.inner_height_mm")
    if figure.path != "case.max_above_mm" or figure.nominal is None or inner_mm is None:
        return None
    if figure.nominal < inner_mm:
        return None
    return say(
        "{above} above the board, in a case with an inner height of {inner}.",
        above=words.mm(figure.nominal),
        inner=words.mm(inner_mm),
    )


def _is_repeated(part: Part, socket: Socket) -> bool:
    """Whether another socket of the part is called the same."""
    return sum(other.label == socket.label for other in part.sockets.values()) > 1


def _nominal(value: Any) -> float | None:
    """The nominal value of a figure as a document writes it."""
    if value is None:
        return None
    if isinstance(value, int | float):
        return float(value)
    return READING.validate_python(value).nominal


def with_figures(
    sheet: PartSheet, document: Document, figures: Mapping[str, Mapping[str, Any] | None]
) -> dict[str, Any]:
    """A part document with figures changed; None takes one out, so that the class is asked again.

    Parameters
    ----------
    sheet : PartSheet
        The part as it stands: what can be changed.
    document : mapping
        What the part states now; it is not changed.
    figures : mapping
        By path: `nominal`, and `basis` or `low` and `high`.

    Raises
    ------
    InputError
        For a path that the part has no figure at.
    """
    kinds = {figure.path: figure.kind for figure in sheet.figures}
    unknown = [path for path in figures if path not in kinds]
    if unknown:
        raise InputError([(f"figures.{path}", "this part has no such value") for path in unknown])
    changed = deepcopy(dict(document))
    for path, value in figures.items():
        _put(changed, path.split("."), None if value is None else _written(kinds[path], value))
    return changed


def _written(kind: FigureKind, value: Mapping[str, Any]) -> Any:
    """A figure as its document writes it: bare where that says the same."""
    banded = "low" in value or "high" in value
    if kind == "number" or (not banded and value.get("basis", "datasheet") == "datasheet"):
        return value.get("nominal")
    return dict(value)


def _put(document: dict[str, Any], steps: list[str], value: Any) -> None:
    """Set a value below a document, or take it out together with what it leaves empty."""
    first, *rest = steps
    if not rest:
        if value is None:
            document.pop(first, None)
        else:
            document[first] = value
        return
    inner = document.get(first)
    below = dict(inner) if isinstance(inner, Mapping) else {}
    _put(below, rest, value)
    if below:
        document[first] = below
    else:
        document.pop(first, None)


def changed_figures(old: PartSheet, new: PartSheet) -> list[str]:
    """What differs between two revisions of a part, a few words each."""
    told = []
    if (old.price, old.currency) != (new.price, new.currency):
        told.append(f"price: {_price(old)} to {_price(new)}")
    now = {figure.path: figure for figure in new.figures}
    for figure in old.figures:
        other = now.pop(figure.path, None)
        after = None if other is None else (other.nominal, other.low, other.high)
        if after != (figure.nominal, figure.low, figure.high):
            told.append(f"{figure.label.lower()}: {_said(figure)} to {_said(other)}")
    told += [f"{f.label.lower()}: not known to {_said(f)}" for f in now.values()]
    if not told and (old.maker, old.model, old.summary) != (new.maker, new.model, new.summary):
        told.append("name or description")
    return told


def _price(sheet: PartSheet) -> str:
    return (
        "no price" if sheet.price is None else words.plain(words.money(sheet.price, sheet.currency))
    )


def _said(figure: SheetFigure | None) -> str:
    if figure is None or figure.nominal is None:
        return "not known"
    return f"{figure.nominal:g} {figure.unit}".strip()
