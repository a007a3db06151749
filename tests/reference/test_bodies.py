"""Every entry fits every body: lengths that belong to it are shares of stature, the low back gives
in a fold, and a support may let the trunk come upright.
"""

from __future__ import annotations

import numpy as np
import pytest

from tests.looked import looked
from tests.spoken import refused
from widearc.core.body import Body, Limits
from widearc.core.equipment import FreeMass
from widearc.core.errors import PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import audit, curve

BODIES = ((1.50, 48.0), (1.65, 62.0), (1.80, 80.0), (2.00, 105.0))
EDGES = ((1.45, 45.0), (2.05, 112.0))
LEGS = ("knee", "hip", "ankle", "rear_knee", "rear_hip", "rear_ankle")


@pytest.mark.parametrize("exercise", [e.id for e in EXERCISES.values() if e.has_curve])
def test_every_entry_is_reachable_at_its_defaults(exercise):
    entry = EXERCISES[exercise]
    for stature, mass in (*BODIES, *EDGES):
        for legs in looked(entry.options["legs"].choices):
            options = {"legs": legs} if entry.law.own_legs else {}
            body = Body(mass_kg=mass, stature_m=stature)
            made = curve(Setup(exercise=entry, body=body, options=options))
            assert audit(made).relative_error[0] < 0.005, (stature, legs)
            assert all(np.isfinite(v).all() for v in made.demand_nm.values()), (stature, legs)


@pytest.mark.parametrize("exercise", ["deadlift", "wide-deadlift", "deficit-romanian-deadlift"])
@pytest.mark.parametrize(("stature", "mass"), BODIES)
def test_a_bar_lifts_from_the_floor_at_any_stature(exercise, stature, mass):
    body = Body(mass_kg=mass, stature_m=stature)
    made = curve(
        Setup(
            exercise=EXERCISES[exercise], body=body, loads=[FreeMass(kg=1.2 * mass, port="hands")]
        )
    )
    assert audit(made).relative_error[0] < 0.005
    fold = np.degrees(made.motion.angles["hip"]).max()
    assert fold <= 125 + 15 + 0.02
    said = [n.code for n in made.motion.notices if n.where.any()]
    assert ("low-back-gives" in said) == (fold > 125.5)


def test_the_low_back_gives_in_a_fold_and_nowhere_else():
    stiff = Limits(hip_flexion_deg=80)
    made = curve(Setup(exercise=EXERCISES["romanian-deadlift"], limits=stiff))
    assert np.degrees(made.motion.angles["hip"]).max() == pytest.approx(95, abs=0.05)
    squat = curve(Setup(exercise=EXERCISES["back-squat-high"], limits=stiff))
    assert np.degrees(squat.motion.angles["hip"]).max() == pytest.approx(80, abs=0.05)
    assert not [n for n in squat.motion.notices if n.code == "low-back-gives"]
    with refused(PostureError, "hip limit 70° passed: raise the weight"):
        curve(Setup(exercise=EXERCISES["deadlift"], limits=Limits(hip_flexion_deg=70)))


def test_small_and_tall_bodies_of_one_build_move_alike():
    """Twice similar bodies, lengths of the body in proportion: the same angles, demand in
    proportion to weight times stature.
    """
    for exercise in looked(("split-squat", "walking-lunge", "ball-wall-squat"), 3):
        small, tall = (
            curve(
                Setup(exercise=EXERCISES[exercise], body=Body(mass_kg=80 * s**3, stature_m=1.8 * s))
            )
            for s in (1.5 / 1.8, 2.0 / 1.8)
        )
        for joint in small.demand_nm:
            np.testing.assert_allclose(
                small.motion.angles[joint], tall.motion.angles[joint], atol=5e-3
            )
            np.testing.assert_allclose(
                small.demand_nm[joint] * (2.0 / 1.5) ** 4, tall.demand_nm[joint], atol=1.5
            )


@pytest.mark.parametrize(
    ("exercise", "port"),
    [
        ("rail-squat", "back-high"),
        ("ball-wall-squat", "hands"),
        ("hack-squat-ball-band", "shoulders"),
        ("belt-squat-pin", "hip-belt"),
    ],
)
@pytest.mark.parametrize(("first", "last"), [(20, 0), (0, 20), (15, 15)])
def test_a_support_leaves_the_trunk_lean_from_start_to_end(exercise, port, first, last):
    made = curve(
        Setup(
            exercise=EXERCISES[exercise],
            options={"trunk_lean_deg": first, "trunk_lean_to_deg": last},
            loads=[FreeMass(kg=30, port=port)],
        )
    )
    lean = np.degrees(made.motion.marks["trunk_lean"][0])
    assert lean == pytest.approx(np.linspace(first, last, 101))
    assert audit(made).relative_error[0] < 0.002


def test_on_rails_the_trunk_ends_upright_on_a_ball_it_keeps_its_lean():
    rail, ball, belt = (
        curve(Setup(exercise=EXERCISES[name], options={"trunk_lean_deg": 12}))
        for name in ("rail-squat", "ball-wall-squat", "belt-squat-lever")
    )
    for made, last in ((rail, 0), (ball, 12), (belt, 0)):
        lean = np.degrees(made.motion.marks["trunk_lean"][0])
        assert (lean[0], lean[-1]) == pytest.approx((12, last))
