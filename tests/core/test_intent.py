"""Shapes of a wanted loading: range and mean kept, laid out as each school wants it, and searched
for.
"""

from __future__ import annotations

import numpy as np
import pytest

from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.equipment import Sled
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.intent import HOLDS, SHAPES, Shape
from widearc.core.matching import reshaped, target_of
from widearc.core.movement import Setup
from widearc.core.search import search
from widearc.core.statics import curve
from widearc.core.strength import strength_nm

BODY = Body()
PRESS = curve(
    Setup(
        exercise=EXERCISES["leg-press-45"],
        body=BODY,
        options={"rail_deg": 40},
        loads=(Sled(kg=100, empty_kg=38),),
    ),
    lowering=False,
)
ORIGINAL = target_of(PRESS)
KNEE = ORIGINAL.actions.index(Action.KE)


@pytest.mark.parametrize("shape", Shape)
def test_every_shape_keeps_range_and_mean(shape):
    made = reshaped(ORIGINAL, shape, BODY)
    for before, after in zip(ORIGINAL.bins, made.bins, strict=True):
        assert np.array_equal(
            np.flatnonzero(before > 0)[[0, -1]], np.flatnonzero(after > 0)[[0, -1]]
        )
        assert after.sum() == pytest.approx(before.sum())
    assert made.shape is shape and shape in SHAPES and shape in HOLDS


def ends(shape):
    """Demand at the lengthened and at the shortened end of the knee, over the mean."""
    bins = reshaped(ORIGINAL, shape, BODY).bins[KNEE]
    used = bins[bins > 0][::-1]  # a knee extends from large to small angles
    return used[0] / used.mean(), used[-1] / used.mean()


def test_each_school_gets_its_own_ends():
    assert ends(Shape.STRETCH) == pytest.approx((1.3, 0.7), abs=1e-9)
    assert ends(Shape.SQUEEZE) == pytest.approx((0.7, 1.3), abs=1e-9)
    assert ends(Shape.EVEN) == pytest.approx((1.0, 1.0))


def test_along_the_strength_curve_the_effort_is_the_same_all_the_way():
    bins = reshaped(ORIGINAL, Shape.STRENGTH, BODY).bins[KNEE]
    used = np.flatnonzero(bins > 0)
    strength = strength_nm(
        "knee_extension", np.deg2rad(CENTRES_DEG[used]), mass_kg=80, stature_m=1.8, sex="mean"
    )
    assert np.ptp(bins[used] / strength) < 1e-9 * bins.max()


def test_no_strength_is_known_to_the_side():
    found = curve(Setup(exercise=EXERCISES["side-lying-raise"], body=BODY), lowering=False)
    with pytest.raises(InputError, match="none is known"):
        reshaped(target_of(found), Shape.STRENGTH, BODY)


def test_the_search_ranks_against_the_shape(kit):
    """A wanted loading that is heavier where the knee is short: the leg extension rises, squats
    fall.
    """

    def matches(shape):
        found = search(PRESS, kit, body=BODY, limits=Limits(), shape=shape)
        return {c.exercise.id: c.match for c in found.candidates}, found.target

    as_it_is, _ = matches(Shape.ORIGINAL)
    squeezed, target = matches(Shape.SQUEEZE)
    assert target.shape is Shape.SQUEEZE
    assert squeezed["leg-extension-dumbbell"] > as_it_is["leg-extension-dumbbell"]
    assert squeezed["goblet-squat"] < as_it_is["goblet-squat"]
