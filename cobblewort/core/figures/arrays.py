"""The array type of the core.

Last axis: samples, sample 0 nominal. Axis before it, where there is one: states of the kit.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]
IntArray = NDArray[np.intp]
Quantity = FloatArray | float
"""Many values, or one: nominal figures by themselves."""
ByState = FloatArray | list[float]
"""A row of the states by samples, or of nominal figures by themselves a number a state."""


def by_state(values: FloatArray) -> Sequence[ByState]:
    """The rows of an array of shape (rows, states, samples)."""
    if values.shape[2] == 1:
        rows: list[list[float]] = values[:, :, 0].tolist()
        return rows
    return list(values)
