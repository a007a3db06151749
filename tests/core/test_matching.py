"""Match, shape, reach and level on the 1° grid."""

from __future__ import annotations

import numpy as np
import pytest

from widearc.core.catalogue import EXERCISES
from widearc.core.curve import CENTRES_DEG, Action, on_grid
from widearc.core.equipment import FreeMass, Sled
from widearc.core.errors import TargetError
from widearc.core.matching import compare, target_of
from widearc.core.movement import Setup
from widearc.core.statics import curve


def press(kg: float, **options):
    return curve(Setup(exercise=EXERCISES["leg-press-45"], options=options, loads=[Sled(kg=kg, empty_kg=38)]))


def compared(target, result):
    return compare(target, result.motion.angles, result.demand_nm, result.motion.shape[0])


def test_an_exercise_matches_itself():
    wanted = press(120)
    same = compared(target_of(wanted), wanted)
    for share in (same.match, same.shape, same.level):
        assert share[0] == pytest.approx(1.0)
    assert same.reach[0] > 0.8
    assert same.by_joint[0][0] == pytest.approx(1.0)


def test_half_the_demand_matches_by_half_in_full_shape():
    wanted = press(120, push="none")
    half = compare(target_of(wanted), wanted.motion.angles, {name: 0.5 * d for name, d in wanted.demand_nm.items()}, 1)
    assert half.match[0] == pytest.approx(0.5) and half.level[0] == pytest.approx(0.5)
    assert half.shape[0] == pytest.approx(1.0)


def test_grid_sums_to_work():
    wanted = press(120)
    theta, demand = wanted.motion.angles["knee"][0], wanted.demand_nm["knee"][0]
    fine = np.linspace(theta[-1], theta[0], 20001)
    exact = np.trapezoid(np.maximum(0, np.interp(fine, theta[::-1], demand[::-1])), fine)
    bins = on_grid(theta, demand, Action.KE)
    assert np.deg2rad(bins.sum()) == pytest.approx(exact, rel=1e-3)


def test_a_joint_that_turns_back_counts_the_parts_that_move_with_the_action():
    theta = np.deg2rad(np.array([[60.0, 40.0, 50.0, 20.0]]))
    bins = on_grid(theta, np.full((1, 4), 10.0), Action.KE)[0]
    # 60 to 40 and 50 to 20 extend the knee; 40 to 50 does not count
    assert bins.sum() == pytest.approx(10 * (20 + 30))
    assert bins[np.isclose(CENTRES_DEG, 45.5)][0] == pytest.approx(20)


def test_demand_for_the_opposite_action_counts_as_nothing():
    theta = np.deg2rad(np.linspace(90, 10, 101))[None, :]
    assert on_grid(theta, np.full((1, 101), -5.0), Action.KE).sum() == 0
    assert on_grid(theta[:, ::-1], np.full((1, 101), -5.0), Action.KF).sum() == pytest.approx(400)


def test_a_held_joint_counts_as_nothing_over_the_whole_target_range():
    target = target_of(press(120))
    loads = [FreeMass(kg=16, port="ankle")]
    result = compared(target, curve(Setup(exercise=EXERCISES["leg-extension-dumbbell"], loads=loads)))
    hip = [a.joint for a in target.actions].index("hip")
    assert result.by_joint[hip][0] == 0 and result.bins[hip].sum() == 0


def test_no_positive_work_is_refused():
    with pytest.raises(TargetError, match="nothing to match"):
        target_of(curve(Setup(exercise=EXERCISES["reverse-nordic"], options={"lean_from_deg": 3})))


def test_long_third_share_of_an_even_target_is_a_third():
    target = target_of(press(120))
    flat = compare(
        target,
        {"knee": np.deg2rad(np.linspace(90, 8, 101))[None, :], "hip": np.zeros((1, 101))},
        {"knee": np.full((1, 101), 50.0)},
        1,
    )
    knee = [a.joint for a in target.actions].index("knee")
    assert flat.long_third_share[knee][0] == pytest.approx(1 / 3, abs=0.02)
