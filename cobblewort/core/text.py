"""Sentences that carry their figures: words and names as they are, figures as numbers with a unit.

A rule makes a sentence from a template with named slots. What stands in a slot is a figure, another
sentence, or a name, which nobody ever looks into: a plan called “Owl 30 mm, 1.2” keeps its name in
every unit. A sentence is put into the units of whoever reads it once, at the edge (`formats` and
the page); here it is told in the units of the core.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from string import Formatter

NO_BREAK = "\u00a0"
MINUS = "\u2212"
CURRENCY_SIGNS = {"EUR": "€"}


@dataclass(slots=True, frozen=True)
class Figure:
    """A number in a sentence, in the unit that the core works in.

    `is_difference` marks what lies between two values: 5 °C of it are 9 °F. `has_unit` is false
    where the unit stands behind a later figure: “10 to 40 °C”. Amounts of money have their currency
    as `unit` and `is_money` set.
    """

    value: float
    unit: str
    decimals: int = 0
    is_difference: bool = False
    has_unit: bool = True
    is_money: bool = False

    def __format__(self, spec: str) -> str:
        """Refuse to become part of an f-string, in which it would no longer be a figure."""
        raise TypeError("a figure stands in a slot of `say`, not in an f-string")

    def without_unit(self) -> Figure:
        """The same where the unit stands behind a later figure."""
        return Figure(
            self.value,
            self.unit,
            self.decimals,
            self.is_difference,
            has_unit=False,
            is_money=self.is_money,
        )


@dataclass(slots=True, frozen=True)
class Text:
    """A sentence, or a part of one: `parts` in order, and `text`, all of it in the core's units."""

    text: str
    parts: tuple[str | Figure, ...]

    def __str__(self) -> str:
        """The whole in units of the core."""
        return self.text

    def __format__(self, spec: str) -> str:
        """Refuse to become part of an f-string, in which its figures would be lost."""
        raise TypeError("a text stands in a slot of `say`, not in an f-string")

    def __add__(self, other: Text | str) -> Text:
        """This text with another one behind it."""
        return joined([self, other], "")

    def __bool__(self) -> bool:
        """Whether there is anything in it."""
        return bool(self.parts)

    def rendered(self, show: Callable[[Figure], str]) -> str:
        """The whole with each figure as `show` tells it."""
        return "".join(part if isinstance(part, str) else show(part) for part in self.parts)


Said = Text | Figure | str | int
"""What may stand in a slot. A number by itself is a count."""


def say(template: str, **slots: Said) -> Text:
    """A text from a template such as `{name} reaches {temp}`.

    Raises
    ------
    KeyError
        If a slot is not given.
    ValueError
        If one is given that the template does not have.
    """
    parts: list[str | Figure] = []
    fields = _fields(template)
    for words, slot in fields:
        parts.append(words)
        if slot is not None:
            _put(parts, slots[slot])
    if len(slots) > sum(slot is not None for _, slot in fields):
        unused = slots.keys() - {slot for _, slot in fields}
        if unused:
            raise ValueError(f"{template!r} has no slot {', '.join(sorted(unused))}")
    return _text(parts)


def as_text(said: Said) -> Text:
    """A name, a figure or a text as a text."""
    if isinstance(said, Text):
        return said
    parts: list[str | Figure] = []
    _put(parts, said)
    return _text(parts)


def joined(texts: Iterable[Said], between: str) -> Text:
    """Texts one behind the other, with the same words between them."""
    parts: list[str | Figure] = []
    for number, said in enumerate(texts):
        if number and between:
            parts.append(between)
        _put(parts, said)
    return _text(parts)


def written(value: float, decimals: int, decimal_sign: str = ".") -> str:
    """A number as it is written: with a true minus, and none before a nought."""
    text = f"{value:.{decimals}f}"
    if text.startswith("-"):
        text = text[1:] if float(text) == 0 else MINUS + text[1:]
    return text.replace(".", decimal_sign)


def written_figure(figure: Figure, decimal_sign: str = ".", space: str = " ") -> str:
    """A figure in its own unit: `3.03 A`, `€89`, `USD 12.50`."""
    if figure.is_money:
        amount = written(abs(figure.value), figure.decimals, decimal_sign)
        sign = CURRENCY_SIGNS.get(figure.unit)
        before = MINUS if figure.value < 0 else ""
        return f"{before}{sign}{amount}" if sign else f"{before}{figure.unit}{space}{amount}"
    number = written(figure.value, figure.decimals, decimal_sign)
    return f"{number}{space}{figure.unit}" if figure.unit and figure.has_unit else number


def _put(parts: list[str | Figure], said: Said) -> None:
    if isinstance(said, Text):
        parts.extend(said.parts)
    elif isinstance(said, Figure):
        parts.append(said)
    else:
        parts.append(str(said))


def _text(parts: Iterable[str | Figure]) -> Text:
    """A text of these parts, with words that stand side by side made one."""
    merged: list[str | Figure] = []
    for part in parts:
        if part == "":
            continue
        before = merged[-1] if merged else None
        if isinstance(part, str) and isinstance(before, str):
            merged[-1] = before + part
        else:
            merged.append(part)
    whole = "".join(part if isinstance(part, str) else written_figure(part) for part in merged)
    return Text(whole, tuple(merged))


def _fields(template: str) -> tuple[tuple[str, str | None], ...]:
    """The words of a template, each with the slot behind it."""
    return tuple((words, slot) for words, slot, _, _ in Formatter().parse(template))


EMPTY = Text("", ())
