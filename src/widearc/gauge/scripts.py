"""What the simulated gauge plays: invented bands and springs with known laws, pulled in steps and
let back.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np

HOLD_S, MOVE_S = 2.0, 1.2


@dataclass(frozen=True, slots=True, kw_only=True)
class Script:
    """A pull in steps: law N at m while loading, hysteresis share less on the way back, steps m,
    the gauge's faults.

    noise_n standard deviation; step_n quantisation; drift_n_per_s of the zero; drop_share of lines
    lost; limit_n beyond which the gauge reads an overload.
    """

    law: Callable[[float], float]
    steps_m: tuple[float, ...]
    hysteresis: float = 0.0
    noise_n: float = 0.25
    step_n: float = 0.1
    drift_n_per_s: float = 0.0
    drop_share: float = 0.0
    limit_n: float = 2000.0

    @property
    def period_s(self) -> float:
        """Return how long one pull up and back takes, s."""
        return (2 * len(self.steps_m) - 1) * (HOLD_S + MOVE_S)

    def position_m(self, time_s: float) -> tuple[float, bool]:
        """Return where the handle is, and whether it is on its way back."""
        path = (*self.steps_m, *self.steps_m[-2::-1])
        turn = time_s % self.period_s
        index = int(turn // (HOLD_S + MOVE_S))
        within = turn - index * (HOLD_S + MOVE_S)
        here, there = path[index], path[(index + 1) % len(path)]
        going_back = index > len(self.steps_m) - 1 or (
            index == len(self.steps_m) - 1 and within > HOLD_S
        )
        if within <= HOLD_S:
            return here, going_back
        part = 0.5 - 0.5 * float(np.cos(np.pi * (within - HOLD_S) / MOVE_S))
        return here + (there - here) * part, going_back

    def force_n(self, position_m: float, *, back: bool) -> float:
        """Return the true pull (N) at a position (m)."""
        return self.law(position_m) * (1.0 - self.hysteresis if back else 1.0)


def rubber(rest_m: float, size_n: float) -> Callable[[float], float]:
    """Return a rubber-like pull (N): steep first, then flatter (Mooney-Rivlin with equal
    constants).
    """

    def pull(length_m: float) -> float:
        stretch = max(1.0, length_m / rest_m)
        return size_n * (1.0 + 1.0 / stretch) * (stretch - stretch**-2)

    return pull


def spring(first_m: float, start_n: float, rate_n_per_m: float) -> Callable[[float], float]:
    """Return a spring's pull (N): nothing before its first mark, then a straight line."""
    return lambda x: 0.0 if x < first_m else start_n + rate_n_per_m * (x - first_m)


_STEPS = (1.00, 1.10, 1.25, 1.45, 1.70, 2.00)

SCRIPTS: Mapping[str, Script] = MappingProxyType(
    {
        "band-light": Script(law=rubber(1.0, 55.0), steps_m=_STEPS, hysteresis=0.08),
        "band-heavy": Script(
            law=rubber(1.0, 160.0),
            steps_m=_STEPS,
            hysteresis=0.12,
            noise_n=0.6,
            step_n=0.5,
            drop_share=0.02,
        ),
        "band-drifting": Script(
            law=rubber(1.0, 90.0), steps_m=_STEPS, hysteresis=0.10, drift_n_per_s=0.12
        ),
        "band-overload": Script(law=rubber(1.0, 260.0), steps_m=_STEPS, limit_n=400.0),
        "spring": Script(law=spring(0.02, 45.0, 260.0), steps_m=(0.02, 0.15, 0.30, 0.45, 0.60)),
    }
)
"""Every script by the name that `wide-arc gauge --script` takes."""
