"""Every movement: energy audit, both sides, limits, mirror of loads, and what cannot be done."""

from __future__ import annotations

import numpy as np
import pytest

from tests.conftest import points_law
from tests.spoken import refused
from widearc.core.body import Body, Limits
from widearc.core.equipment import Band, FreeMass, Sled, Stack
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.geometry import bracketed_root
from widearc.core.movement import Setup, move
from widearc.core.statics import audit, curve, curves_in_parts, joint_work_j
from widearc.core.units import to_deg
from widearc.words import plain


def test_wide_stance_still_balances_its_energy():
    setup = Setup(
        exercise=EXERCISES["goblet-squat"],
        options={"stance_m": 0.8},
        loads=[FreeMass(kg=24, port="goblet")],
    )
    assert audit(curve(setup)).relative_error.max() <= 0.005


def test_one_leg_carries_what_two_share():
    two = curve(
        Setup(
            exercise=EXERCISES["leg-press-45"],
            loads=[Sled(kg=100, empty_kg=20)],
            options={"push": "none"},
        )
    )
    one = curve(
        Setup(
            exercise=EXERCISES["leg-press-45"],
            loads=[Sled(kg=40, empty_kg=20)],
            options={"push": "none", "legs": 1},
        )
    )
    np.testing.assert_allclose(one.demand_nm["knee"], two.demand_nm["knee"], atol=1e-9)
    single = curve(Setup(exercise=EXERCISES["one-leg-squat"], options={"knee_from_deg": 80}))
    assert audit(single).relative_error.max() <= 0.005


def test_doubling_a_load_doubles_its_part_where_the_posture_stays():
    def knee(kg):
        loads = [FreeMass(kg=kg, port="ankle")]
        return curve(Setup(exercise=EXERCISES["leg-extension-dumbbell"], loads=loads)).demand_nm[
            "knee"
        ]

    np.testing.assert_allclose(knee(20) - knee(0), 2 * (knee(10) - knee(0)), atol=1e-9)


def test_bar_place_changes_neither_knee_nor_hip_at_equal_shank_lean():
    # mechanics, stance: only the trunk's lean answers the bar's place
    def at(port, name):
        setup = Setup(
            exercise=EXERCISES[name],
            options={"knee_travel": 0.33},
            limits=Limits(hip_flexion_deg=160),
            loads=[FreeMass(kg=60, port=port)],
        )
        return curve(setup)

    back, front = at("back-high", "back-squat-high"), at("front-rack", "front-squat")
    np.testing.assert_allclose(back.demand_nm["knee"], front.demand_nm["knee"], atol=1e-9)
    np.testing.assert_allclose(back.demand_nm["hip"], front.demand_nm["hip"], atol=1e-9)
    assert back.motion.marks["trunk_lean"][0, 0] > front.motion.marks["trunk_lean"][0, 0] + 0.1


def test_scalar_and_batch_agree():
    kgs = np.array([0.0, 16.0, 24.0])
    batch = curve(
        Setup(
            exercise=EXERCISES["goblet-squat"],
            options={"knee_from_deg": np.array([90.0, 100.0, 110.0])},
            loads=[FreeMass(kg=kgs[:, None], port="goblet")],
        )
    )
    for row, (kg, depth) in enumerate(zip(kgs, (90.0, 100.0, 110.0), strict=True)):
        loads = [FreeMass(kg=float(kg), port="goblet")]
        one = curve(
            Setup(exercise=EXERCISES["goblet-squat"], options={"knee_from_deg": depth}, loads=loads)
        )
        np.testing.assert_allclose(
            batch.demand_nm["knee"][row], one.demand_nm["knee"][0], atol=1e-9
        )


def test_parts_of_a_batch_are_the_batch():
    kgs, depths = np.linspace(0, 40, 7), np.linspace(80, 110, 7)
    band = Band(
        law=points_law(top_n=60),
        port="shoulders",
        anchor=(0.1, 0.0, 0.1),
        count=np.linspace(0, 2, 7)[:, None],
    )
    setup = Setup(
        exercise=EXERCISES["goblet-squat"],
        options={"knee_from_deg": depths},
        limits=Limits(hip_flexion_deg=155),
        loads=[FreeMass(kg=kgs[:, None], port="goblet"), band],
    )
    whole = curve(setup, strict=False).demand_nm
    parts = [c.demand_nm for c in curves_in_parts(setup, rows=3)]
    assert setup.rows == 7 and len(parts) == 3
    for joint, demand in whole.items():
        np.testing.assert_allclose(np.concatenate([p[joint] for p in parts]), demand, atol=1e-9)


def test_hip_and_knee_limits_cut_the_range_and_are_named():
    setup = Setup(
        exercise=EXERCISES["bodyweight-squat"], limits=Limits(hip_flexion_deg=95, knee_deg=105)
    )
    motion = curve(setup).motion
    assert np.rad2deg(motion.angles["hip"]).max() <= 95.2
    text = next(plain(n.text) for n in motion.notices if n.code == "range-cut")
    assert "hip limit 95°" in text and "knee limit 105°" in text
    assert f"{np.rad2deg(motion.angles['knee'][0, 0]):.0f}°" in text


def test_ankle_limit_refuses_a_press_and_names_the_depth_still_possible():
    with refused(PostureError, r"ankle limit 20°.*possible up to \d\d° of knee bend"):
        curve(Setup(exercise=EXERCISES["leg-press-45"], limits=Limits(dorsiflexion_deg=20)))


def test_what_cannot_balance_is_refused_with_a_depth():
    setup = Setup(
        exercise=EXERCISES["back-squat-high"],
        limits=Limits(dorsiflexion_deg=0, hip_flexion_deg=160),
        options={"pressure": "ball"},
        loads=[FreeMass(kg=0, port="back-high")],
        body=Body(stature_m=2.0),
    )
    with pytest.raises(PostureError) as refused:
        curve(setup)
    assert "cannot balance below" in str(refused.value) and refused.value.position == 0.0


def test_a_band_past_three_times_its_rest_length_is_refused():
    band = Band(law=points_law(rest_m=0.4), port="shoulders", anchor_port="sole")
    with refused(PostureError, "3 times its rest length"):
        curve(Setup(exercise=EXERCISES["band-squat"], loads=[band]))


def test_an_unknown_port_is_refused_by_name():
    with pytest.raises(InputError, match="/loads/0/port"):
        Setup(exercise=EXERCISES["front-squat"], loads=[FreeMass(kg=5, port="ankle")])


def test_bracketed_root_finds_roots_and_says_where_there_is_none():
    shift = np.array([[0.1, 0.5, 5.0]])
    root, found = bracketed_root(lambda x: x**3 - shift, np.zeros((1, 3)), np.ones((1, 3)))
    np.testing.assert_allclose(root[0, :2], np.cbrt([0.1, 0.5]), atol=1e-10)
    assert found.tolist() == [[True, True, False]] and np.isnan(root[0, 2])


@pytest.mark.parametrize("kg", [0.0, 8.0, 16.0, 24.0, 40.0])
def test_where_a_hip_limit_ends_the_range_does_not_depend_on_how_many_samples_are_taken(kg):
    """As balance is lost the trunk sinks level: the hip limit lies before, often between two
    samples.
    """
    limits = Limits(hip_flexion_deg=105.0, dorsiflexion_deg=20.0)
    ends = []
    for samples in (11, 21, 41, 101, 401):
        setup = Setup(
            exercise=EXERCISES["belt-squat-home"],
            body=Body(mass_kg=60.0),
            limits=limits,
            samples=samples,
            options={"knee_from_deg": 95.0},
            loads=(FreeMass(kg=kg, port="hip-belt"),),
        )
        motion = move(setup)
        ends.append(float(to_deg(motion.angles["knee"][0, 0])))
        assert float(to_deg(motion.angles["hip"].max())) < 105.1
        assert any(n.code == "range-cut" for n in motion.notices)
    assert max(ends) - min(ends) < 0.6, ends


@pytest.mark.parametrize("samples", [11, 21, 101, 401])
def test_where_balance_ends_before_the_hip_the_set_up_is_refused_at_any_number_of_samples(samples):
    setup = Setup(
        exercise=EXERCISES["belt-squat-home"],
        body=Body(mass_kg=60.0),
        samples=samples,
        limits=Limits(hip_flexion_deg=105.0, dorsiflexion_deg=20.0),
        options={"knee_from_deg": 95.0},
        loads=(FreeMass(kg=60.0, port="hip-belt"),),
    )
    with pytest.raises(PostureError, match="cannot balance below"):
        move(setup)


def test_a_dumbbell_in_a_one_leg_calf_raise_hangs_from_the_shoulder():
    """The arm hangs straight down: the load's place follows the shoulder, not the trunk's line."""
    made = curve(
        Setup(exercise=EXERCISES["calf-raise-one-leg"], loads=[FreeMass(kg=20, port="hands")])
    )
    load = next(f for f in made.motion.forces if f.source == "load 0")
    shoulder = made.motion.points["shoulder"]
    np.testing.assert_allclose(made.motion.full(load.point)[0], shoulder[0], atol=1e-9)
    assert audit(made).relative_error[0] < 0.005
    assert "shoulder" in made.motion.angles


def test_an_abduction_stack_s_readings_are_for_one_thigh_or_for_both():
    one, both = (
        curve(
            Setup(
                exercise=EXERCISES["abduction-machine"],
                options={"readings_for": words},
                loads=[Stack(kg=40, angle_deg=(0, 60), radius_m=(0.1, 0.12))],
            )
        )
        for words in ("one thigh", "both")
    )
    np.testing.assert_allclose(
        both.demand_nm["hip_abduction"], 0.5 * one.demand_nm["hip_abduction"]
    )
    assert one.demand_nm["hip_abduction"][0, 0] == pytest.approx(40 * 9.80665 * 0.1)
    for made, words in ((one, "for one thigh"), (both, "for both thighs")):
        assert audit(made).relative_error[0] < 0.005
        assert any(words in plain(said) for said in made.motion.assumptions)


def test_opening_a_hip_is_work_too():
    """A stack of 40 kg on a cam of 10 cm, thighs open by 35°: m·g·r times the turn, a leg."""
    cam = Stack(kg=40, angle_deg=(0, 60), radius_m=(0.1, 0.1))
    made = curve(Setup(exercise=EXERCISES["abduction-machine"], loads=[cam]))
    assert joint_work_j(made) == pytest.approx(40 * 9.80665 * 0.1 * np.deg2rad(35), rel=1e-6)
