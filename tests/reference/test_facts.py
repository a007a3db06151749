"""Facts of the trade and worked values that these parts can answer. Source beside each."""

from __future__ import annotations

import numpy as np
import pytest

from widearc.core.body import Body, Limits, Sex
from widearc.core.body import segments as s
from widearc.core.catalogue import EXERCISES
from widearc.core.equipment import FreeMass, Sled
from widearc.core.movement import Setup
from widearc.core.statics import audit, curve
from widearc.core.strength import strength_nm
from widearc.core.units import FORCE_N, LENGTH_M, G


def result(name, options=None, loads=(), **limits):
    limits = Limits(**{"hip_flexion_deg": 155, **limits})
    return curve(Setup(exercise=EXERCISES[name], options=options or {}, loads=loads, limits=limits))


# Worked values of mechanics.md §5 (computed for 80 kg, 1.80 m): knee and hip N·m at 115° of knee bend
@pytest.mark.parametrize(
    ("kg", "ankle_deg", "knee", "hip"),
    [
        (80, 35, 146, 159),
        (0, 35, 70, 65),
        (80, 60, 182, None),
        (0, 60, 87, None),
        (80, 30, 121, None),
        (0, 30, 58, None),
    ],
)
def test_worked_high_bar_squat(kg, ankle_deg, knee, hip):
    loads = [FreeMass(kg=kg, port="back-high")]
    got = result("back-squat-high", {"knee_from_deg": 115}, loads, dorsiflexion_deg=ankle_deg)
    assert round(got.demand_nm["knee"][0, 0]) == knee
    if hip is not None:
        assert round(got.demand_nm["hip"][0, 0]) == hip


def test_worked_high_bar_squat_energy_728_j_both_ways():
    balance = audit(result("back-squat-high", {"knee_from_deg": 115}, [FreeMass(kg=80, port="back-high")]))
    assert balance.joint_work_j[0] == pytest.approx(728, abs=0.6)
    assert balance.energy_change_j[0] == pytest.approx(728, abs=0.6)


# common practice, no source: load on the shank line, thigh level: cos of knee flexion
def test_dumbbell_on_the_foot_follows_the_cosine():
    def knee(kg):
        options = {"knee_from_deg": 90, "knee_to_deg": 0}
        return result("leg-extension-dumbbell", options, [FreeMass(kg=kg, port="ankle")])

    part = knee(16).demand_nm["knee"][0] - knee(0).demand_nm["knee"][0]
    bend = np.rad2deg(knee(16).motion.angles["knee"][0])
    shown = np.interp([0, 30, 45, 60, 90], bend[::-1], (part / part.max())[::-1])
    np.testing.assert_allclose(shown, [1, 0.87, 0.71, 0.50, 0], atol=0.005)


# common practice, no source: straight body leaning from the knees: sin of the lean
def test_straight_body_follows_the_sine_of_the_lean():
    got = result("reverse-nordic", {"lean_from_deg": 40, "lean_to_deg": 0}).demand_nm["knee"][0]
    lean = np.linspace(40, 0, 101)
    np.testing.assert_allclose(got / got[0], np.sin(np.deg2rad(lean)) / np.sin(np.deg2rad(40)), atol=1e-9)
    assert [round(float(np.sin(np.deg2rad(a))), 2) for a in (30, 60, 90)] == [0.50, 0.87, 1.0]


# common practice, no source: share of the weight along the rails
@pytest.mark.parametrize(("rail", "share"), [(30, 0.50), (35, 0.57), (45, 0.71), (90, 1.0)])
def test_sled_along_its_rails(rail, share):
    got = result("leg-press-45", {"rail_deg": rail}, [Sled(kg=100, empty_kg=0)])
    force = got.motion.path_force[0]
    assert np.ptp(force) == pytest.approx(0, abs=1e-9), "a sled's force is the same all the way"
    assert force[0] / (100 * G) == pytest.approx(share, abs=0.005)


# exercises.md, as tried: knee 90°, foot 0.10 m, tilt 10° asks 26° of dorsiflexion; 5 cm higher 5° less, 5° more hip
def test_worked_press_ankle():
    def at(height, tilt=10):
        motion = result(
            "leg-press-45",
            {"foot_height_m": height, "plate_tilt_deg": tilt},
            [Sled(kg=0, empty_kg=0)],
            dorsiflexion_deg=60,
        ).motion
        return np.rad2deg(motion.angles["ankle"][0, 0]), np.rad2deg(motion.angles["hip"][0, 0])

    assert at(0.10)[0] == pytest.approx(26, abs=0.5)
    assert at(0.10)[0] - at(0.15)[0] == pytest.approx(5, abs=0.5)
    assert at(0.15)[1] - at(0.10)[1] == pytest.approx(5, abs=0.5)
    assert at(0.10, 0)[0] - at(0.10)[0] == pytest.approx(10, abs=1e-6)


# the picture of intent: 120 kg on a 38 kg sled at 40° is 498 N a leg
def test_press_of_120_kg_at_40_degrees():
    got = result("leg-press-45", {"rail_deg": 40}, [Sled(kg=120, empty_kg=38)])
    assert got.motion.path_force[0, 0] / 2 == pytest.approx(498, abs=0.5)


def test_least_effort_push_lowers_the_effort_it_minimises():
    def cost(push):
        got = result("leg-press-45", {"push": push}, [Sled(kg=120, empty_kg=38)])
        total = 0.0
        for joint, action in (("hip", "hip_extension"), ("knee", "knee_extension"), ("ankle", "plantarflexion")):
            can = strength_nm(action, got.motion.angles[joint], mass_kg=80, stature_m=1.8, sex="mean")
            total = total + (got.demand_nm[joint] / can) ** 2
        return total[0], got.motion.marks["push"][0]

    least, push = cost("least-effort")
    none, nothing = cost("none")
    assert np.all(least <= none + 1e-12) and np.all(nothing == 0)
    assert np.abs(push).max() <= 0.3 * 158 * G * np.sin(np.deg2rad(45)) + 1e-9


# Winter 2009, table 4.1 (from memory): the segments are the whole body
def test_segment_masses_add_up_to_the_body():
    assert pytest.approx(1.0) == 2 * (s.M_FOOT + s.M_SHANK + s.M_THIGH + s.M_ARM) + s.M_TRUNK
    assert pytest.approx(s.M_ONE_PIECE) == s.M_TRUNK + 2 * s.M_ARM
    body = Body(mass_kg=80, stature_m=1.8)
    assert body.thigh_m == pytest.approx(0.441) and body.shank_m == pytest.approx(0.4428)


# Anderson, Madigan & Nussbaum 2007 (from memory): peaks for a man of 80 kg and 1.80 m
@pytest.mark.parametrize(
    ("action", "peak_nm", "peak_deg"),
    [("knee_extension", 230, 65), ("hip_extension", 227, 53), ("knee_flexion", 123, 30), ("plantarflexion", 134, 23)],
)
def test_strength_peaks(action, peak_nm, peak_deg):
    angle = np.deg2rad(np.arange(-30, 120, 0.5))
    got = strength_nm(action, angle, mass_kg=80, stature_m=1.8, sex=Sex.MALE.value)
    assert got.max() == pytest.approx(peak_nm, rel=0.01)
    assert np.rad2deg(angle[np.argmax(got)]) == pytest.approx(peak_deg, abs=1)
    assert got.min() >= 0.30 * got.max() - 1e-9


def test_strength_limits():
    angle = np.deg2rad(np.array([0.0, 20.0, 100.0, 140.0]))
    got = strength_nm("knee_extension", angle, mass_kg=80, stature_m=1.8, sex="male")
    peak = strength_nm("knee_extension", np.deg2rad(np.array([65.0])), mass_kg=80, stature_m=1.8, sex="male")[0]
    assert got[2] == got[3] and got[0] >= 0.45 * peak - 0.1


# exact by definition: international pound and inch; common practice: a 12-inch box is 30.5 cm
def test_units():
    assert pytest.approx(4.4482216, rel=1e-7) == FORCE_N["lbf"]
    assert pytest.approx(0.305, abs=5e-4) == 12 * LENGTH_M["in"]


# common practice, no source: wedge 2.5, 3, 4, 5 cm over 18 cm heel to ball
@pytest.mark.parametrize(("wedge", "relief"), [(0.025, 8.0), (0.03, 9.6), (0.04, 12.8), (0.05, 16.1)])
def test_heel_wedge_relieves_the_ankle(wedge, relief):
    options = {"knee_from_deg": 60}
    flat = result("bodyweight-squat", options, dorsiflexion_deg=60).motion.angles["ankle"][0, 0]
    raised = result("bodyweight-squat", {**options, "heel_wedge_m": wedge}, dorsiflexion_deg=60)
    assert np.rad2deg(flat - raised.motion.angles["ankle"][0, 0]) == pytest.approx(relief, abs=0.1)
    assert audit(raised).relative_error.max() <= 0.005
