"""The array type shared by the core's modules."""

from __future__ import annotations

from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

Array: TypeAlias = NDArray[np.float64]
"""A float array; shapes are stated where it is used, most often (set-ups, samples)."""

BoolArray: TypeAlias = NDArray[np.bool_]
"""A mask of the same shapes."""
