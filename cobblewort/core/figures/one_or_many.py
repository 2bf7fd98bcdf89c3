"""Functions of one number or of many: the same formula serves a float and an array.

A float is worked out by `math`: as an array of one it would cost twenty times as much, and nominal
figures are a few numbers at a time.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from cobblewort.core.figures.arrays import Quantity


def sqrt(value: Quantity) -> Quantity:
    """Square root."""
    return math.sqrt(value) if isinstance(value, float) else np.sqrt(value)


def cbrt(value: Quantity) -> Quantity:
    """Cube root."""
    return math.cbrt(value) if isinstance(value, float) else np.cbrt(value)


def exp(value: Quantity) -> Quantity:
    """Exponential."""
    return math.exp(value) if isinstance(value, float) else np.exp(value)


def absolute(value: Quantity) -> Quantity:
    """Without its sign."""
    return abs(value) if isinstance(value, float) else np.abs(value)


def at_least(least: float, value: Quantity) -> Quantity:
    """The greater of both, value by value."""
    return max(least, value) if isinstance(value, float) else np.maximum(least, value)


def lesser(one: Quantity, other: Quantity) -> Quantity:
    """The lesser of both, value by value."""
    if isinstance(one, float) and isinstance(other, float):
        return min(one, other)
    return np.minimum(one, other)


def pick(where: Any, yes: Quantity, no: Quantity) -> Quantity:
    """One of two values by a condition; of arrays value by value."""
    return np.where(where, yes, no) if isinstance(where, np.ndarray) else yes if where else no


def between(low: Quantity, value: Quantity, high: Quantity) -> Quantity:
    """The value, or the end of the range that it passes; all three are numbers or all arrays."""
    if isinstance(value, float):
        return min(max(low, value), high)
    return np.minimum(np.maximum(low, value), high)


def largest(value: Quantity) -> float:
    """The largest of all values."""
    return value if isinstance(value, float) else float(value.max())


def nominal(value: Quantity) -> float:
    """The value by itself, or the first sample of the first state."""
    return value.item(0) if isinstance(value, np.ndarray) else value
