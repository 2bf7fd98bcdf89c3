"""The array type of the core.

Last axis: samples, sample 0 nominal. Axis before it, where there is one: states of the kit.
"""

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]
IntArray = NDArray[np.intp]
Quantity = FloatArray | float
"""Many values, or one: nominal figures by themselves."""
