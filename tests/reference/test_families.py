"""Worked values and facts of the hinge, bench, calf and kneeling families. Source beside each."""

from __future__ import annotations

import numpy as np
import pytest

from widearc.core.body import Limits
from widearc.core.equipment import FreeMass
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import curve


def result(name, options=None, loads=()):
    limits = Limits(hip_flexion_deg=155)
    return curve(Setup(exercise=EXERCISES[name], options=options or {}, loads=loads, limits=limits))


def work(got, joint):
    return -np.trapezoid(got.demand_nm[joint][0], got.motion.angles[joint][0])


def test_a_bar_over_the_foot_asks_less_of_the_hip_than_hanging_weights():
    bar = result("romanian-deadlift", {"hold": "bar"}, [FreeMass(kg=60, port="hands")])
    hang = result("romanian-deadlift", {"hold": "hang"}, [FreeMass(kg=60, port="hands")])
    assert bar.demand_nm["hip"][0, 0] < 0.75 * hang.demand_nm["hip"][0, 0]
    np.testing.assert_allclose(
        bar.motion.marks["bar_x"][0], bar.motion.points["pressure"][0][0], atol=1e-9
    )
    np.testing.assert_allclose(hang.other_nm["shoulder"][0], 0, atol=1e-9)


def test_calf_force_passes_through_the_ball_so_the_toes_have_no_moment():
    got = result("calf-raise-step", loads=[FreeMass(kg=32, port="hands")])
    np.testing.assert_allclose(got.other_nm["mtp"], 0, atol=1e-9)
    assert np.all(got.demand_nm["ankle"] > 0)


def test_one_leg_calf_asks_twice_of_the_ankle():
    two, one = result("calf-raise-step"), result("calf-raise-one-leg")
    ratio = one.demand_nm["ankle"][0] / two.demand_nm["ankle"][0]
    assert np.all((ratio > 1.95) & (ratio < 2.1))


def test_nordic_follows_the_sine_of_the_lean_and_names_the_strap():
    got = result("nordic-curl")
    lean = np.deg2rad(np.linspace(60, 0, 101))
    np.testing.assert_allclose(
        got.demand_nm["knee"][0],
        got.demand_nm["knee"][0, 0] * np.sin(lean) / np.sin(lean[0]),
        atol=1e-9,
    )
    assert np.all(got.demand_nm["knee"][0, :-1] < 0)
    assert got.motion.marks["strap_n"][0, 0] > 300


def test_bridge_shins_end_vertical_and_the_hip_is_hard_at_the_shortened_end():
    got = result("hip-thrust", loads=[FreeMass(kg=60, port="hip-crease")])
    knee, ankle = got.motion.points["knee"], got.motion.points["ankle"]
    assert knee[0, 0, -1] == pytest.approx(float(ankle[0, 0, -1]), abs=1e-9)
    assert np.rad2deg(got.motion.angles["knee"][0, -1]) == pytest.approx(90, abs=12)
    assert got.demand_nm["hip"][0, -1] > 50
