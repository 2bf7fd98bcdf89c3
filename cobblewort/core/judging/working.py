"""The arithmetic behind a figure: formula, inputs with their origin, result, source."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.names import figure_words
from cobblewort.core.text import Text


@dataclass(slots=True)
class Term:
    """One input of a formula.

    `basis` is that of a part's reading, or `plan`, `computed` or `standard`; `origin` says where it
    comes from in words. `figure` names a figure that has a working of its own.
    """

    symbol: str
    label: str
    value: float
    unit: str
    basis: str
    origin: str
    figure: str | None


@dataclass(slots=True, frozen=True)
class Doubt:
    """An uncertain figure, and how much of the width of a band it accounts for, 0 to 1."""

    label: str
    share: float
    basis: str


@dataclass(slots=True, frozen=True)
class Working:
    """How one figure comes about, at nominal figures in one state.

    `expression` is the formula in the symbols of `inputs`, in plain arithmetic with `min`, `max`,
    `sqrt` and `log10`; worked out with their values it gives `result`. `doubts` are the figures
    that make its band wide, widest first, and `measure` the one measurement that would narrow it
    most.
    """

    figure: str
    label: str
    words: str
    expression: str
    inputs: list[Term]
    result: float
    unit: str
    state: str
    source: str
    doubts: list[Doubt]
    measure: Text


@dataclass(slots=True, frozen=True)
class Sum:
    """A formula as a rule states it: words, expression and inputs."""

    words: str
    expression: str
    inputs: list[Term]


@dataclass(slots=True, frozen=True)
class Explained:
    """A figure of an aspect, shape (samples,), with the formula from which it comes.

    `state` is the label of the state it is told for, empty where states do not matter.
    """

    label: str
    formula: Sum
    values: FloatArray
    unit: str
    state: str
    source: str


SumFunction = Callable[[int], Sum]
"""Gives the formula of a margin in one of its states."""


def reading_term(
    symbol: str, label: str, unit: str, item: Item, path: str, reading: Reading
) -> Term:
    """An input that is a figure of a part."""
    origin = f"{item.name}, {figure_words(path)}"
    return Term(symbol, label, reading.nominal, unit, reading.basis, origin, None)


def plain_term(symbol: str, label: str, unit: str, item: Item, value: float) -> Term:
    """An input that is a plain dimension or count of a part."""
    return Term(symbol, label, value, unit, "datasheet", item.name, None)


def plan_term(symbol: str, label: str, unit: str, value: float) -> Term:
    """An input that the plan states."""
    return Term(symbol, label, value, unit, "plan", "this plan", None)


def computed_term(symbol: str, label: str, unit: str, value: float, figure: str | None) -> Term:
    """An input that is worked out, with the figure that tells how."""
    return Term(symbol, label, value, unit, "calculated", "calculated", figure)


def standard_term(symbol: str, label: str, unit: str, value: float, source: str) -> Term:
    """An input that a standard fixes."""
    return Term(symbol, label, value, unit, "standard", source, None)
