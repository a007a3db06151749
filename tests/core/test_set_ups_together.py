"""Set-ups computed together are what each is by itself: whatever may differ between them."""

from __future__ import annotations

import numpy as np
import pytest

from widearc.core.catalogue import EXERCISES, Exercise
from widearc.core.movement import Setup
from widearc.core.statics import curve

MOVED = 0.03  # of an option's range: so far a second set-up differs from the usual one
CURVED = [e for e in EXERCISES.values() if e.has_curve]


def two_values(exercise: Exercise, name: str) -> np.ndarray | None:
    """Return an option's default and a value beside it; None for a choice of words or counts."""
    spec = exercise.options[name]
    if isinstance(spec.default, str) or spec.choices:
        return None
    step = MOVED * (spec.high - spec.low)
    other = spec.default + step if spec.default + step <= spec.high else spec.default - step
    return np.array([float(spec.default), other])


@pytest.mark.parametrize("exercise", CURVED, ids=lambda e: e.id)
def test_any_option_may_differ_between_set_ups_that_are_computed_together(exercise: Exercise) -> None:
    for name in exercise.options:
        values = two_values(exercise, name)
        if values is None:
            continue
        together = curve(Setup(exercise=exercise, options={name: values}, samples=21), strict=False, lowering=False)
        assert together.motion.shape == (2, 21), name
        for index, value in enumerate(values):
            alone = curve(Setup(exercise=exercise, options={name: float(value)}, samples=21), strict=False)
            assert (index in together.motion.failed) == bool(alone.motion.failed), name
            for joint, demand in alone.demand_nm.items():
                np.testing.assert_allclose(
                    np.broadcast_to(together.demand_nm[joint], (2, 21))[index],
                    np.broadcast_to(demand, (1, 21))[0],
                    rtol=1e-7, atol=1e-6, err_msg=f"{name} {joint}",
                )  # fmt: skip
