"""What every module of the core shares: the array type, and copies of frozen records of arrays."""

from __future__ import annotations

from typing import Any, TypeAlias, TypeVar

import numpy as np
from numpy.typing import NDArray

Array: TypeAlias = NDArray[np.float64]
"""A float array; shapes are stated where it is used, most often (set-ups, samples)."""

BoolArray: TypeAlias = NDArray[np.bool_]
"""A mask of the same shapes."""

T = TypeVar("T")


def changed(record: T, **values: Any) -> T:
    """Return a copy of a frozen dataclass with slots, some fields as given: nothing is checked or
    worked out anew.

    Only for values out of records of its kind that were checked (rows of them, or joined):
    elsewhere `replace` is used.
    """
    made = object.__new__(type(record))
    for name in type(record).__slots__:  # type: ignore[attr-defined]
        object.__setattr__(made, name, values[name] if name in values else getattr(record, name))
    return made
