"""Fibres of the muscles: published data, copied unchanged, and what force is left to a short one.

Source: as `data.py` (gluteus medius from the package): optimal fibre length m, tendon slack length
m, pennation degrees. Scaled with the paths, so that a fibre's place does not depend on the body.
"""

from __future__ import annotations

from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.units import DEG

FIBRES = MappingProxyType(
    {
        "recfem": (0.0759, 0.44849, 12.43),
        "vasmed": (0.0968, 0.1999, 24.19),
        "vaslat": (0.0994, 0.2206, 14.49),
        "vasint": (0.0993, 0.20221, 3.62),
        "bflh": (0.0976, 0.32523, 10.08),
        "semiten": (0.193, 0.2472, 13.83),
        "semimem": (0.069, 0.34759, 14.59),
        "bfsh": (0.1103, 0.10582, 15.14),
        "glmax1": (0.147, 0.04884, 20.28),
        "glmax2": (0.157, 0.06789, 21.05),
        "glmax3": (0.167, 0.06972, 21.91),
        "glmed1": (0.073, 0.05582, 18.14),
        "glmed2": (0.073, 0.06525, 18.14),
        "glmed3": (0.073, 0.04523, 18.14),
        "addmagDist": (0.1772, 0.08738, 11.16),
        "addmagIsch": (0.1562, 0.21634, 9.63),
        "addmagMid": (0.1377, 0.04663, 11.88),
        "addmagProx": (0.1056, 0.04032, 17.85),
        "gasmed": (0.051, 0.39872, 9.49),
        "gaslat": (0.0588, 0.37607, 12.05),
        "soleus": (0.044, 0.27676, 21.85),
        "iliacus": (0.1066, 0.09612, 16.04),
        "psoas": (0.1169, 0.09954, 12.35),
        "tibant": (0.0683, 0.24046, 11.18),
        "grac": (0.2278, 0.17201, 9.85),
        "sart": (0.403, 0.124, 1.5),
        "tfl": (0.09314, 0.44068, 3),
    }
)
"""By muscle: optimal fibre length m, tendon slack length m, pennation at the optimal length,
degrees.
"""

WIDTH = 0.45  # of the active force's bell (Thelen, J. Biomech. Eng. 125 (2003) 70-77, from memory)
LEAST = 0.1  # of the greatest force

_OPTIMAL, _SLACK, _PENNATION = np.array(list(FIBRES.values())).T[..., None]


def short_side_factor(length_m: Array) -> Array:
    """Return the share of its greatest force that is left to each muscle, (muscles, samples), 0.1
    to 1.

    length_m: muscle and tendon, m (muscles, samples), of the unscaled model. A rigid tendon; the
    bell exp(-(l/l₀ - 1)²/0.45) on its short side only: beyond the optimal length passive tension
    makes up for what the active force loses (assumed).
    """
    stretch = np.maximum(length_m - _SLACK, 0.0)
    fibre = np.hypot(stretch, _OPTIMAL * np.sin(_PENNATION * DEG)) / _OPTIMAL
    bell = np.exp(-((np.minimum(fibre, 1.0) - 1.0) ** 2) / WIDTH)
    return np.asarray(np.maximum(bell, LEAST))
