"""Springs, cables, chains, cams and the corner bar: laws, energy, refusals. Facts marked where
common practice.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
import scipy.optimize

from tests.spoken import refused
from widearc.core.body import Limits
from widearc.core.equipment import (
    FITS,
    Cable,
    Chain,
    CornerBar,
    FreeMass,
    Hold,
    Lever,
    LinearLaw,
    MooneyRivlinLaw,
    Pendulum,
    Sled,
    Spring,
    SpringLoad,
    Stack,
    fit_band,
    fit_machine,
    fit_mooney_rivlin,
    margin,
    parallel,
)
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import audit, curve
from widearc.core.units import FORCE_N, G
from widearc.words import plain

LBF = FORCE_N["lbf"]
TRAVEL = 0.9


def spring(start_lbf: float, end_lbf: float) -> Spring:
    return Spring(start_n=start_lbf * LBF, end_n=end_lbf * LBF, travel_m=TRAVEL)


LIGHT, MEDIUM, THIRD, FOURTH = spring(1, 6), spring(2.5, 12.5), spring(7.5, 37.5), spring(10, 70)


def test_a_spring_past_its_stop_has_no_force_and_bad_marks_are_refused():
    assert np.isnan(LIGHT.force_n(np.array(TRAVEL + 0.1)))
    x = np.linspace(0, TRAVEL, 2001)
    assert LIGHT.energy_j(np.array(TRAVEL)) == pytest.approx(np.trapezoid(LIGHT.force_n(x), x))
    for bad in ({"start_n": -1}, {"end_n": 1}, {"travel_m": 0}):
        with pytest.raises(InputError):
            Spring(**{"start_n": 5, "end_n": 20, "travel_m": 1, **bad})
    with pytest.raises(InputError):
        parallel([LIGHT, Spring(start_n=1, end_n=2, travel_m=1.5)])
    with pytest.raises(InputError):
        parallel([])


def test_corner_bar_square_to_itself_is_less_by_the_cosine_and_tilts_to_the_pivot():
    sizes = {"plate_kg": 20, "bar_kg": 20, "bar_m": 2.2, "sleeve_m": 2.0, "hand_m": 2.1}
    bar = CornerBar(**sizes, direction="perpendicular", pivot=(2.0, 0.0))
    beta = np.deg2rad(30)
    hand = np.array([2.0 - 2.1 * np.cos(beta), 2.1 * np.sin(beta)])[:, None, None]
    force, _ = bar.square_to_bar(hand)
    assert np.hypot(*force[:, 0, 0]) == pytest.approx(float(bar.hand_n) * np.cos(beta))
    # the body is pushed down and away from the pivot; the hand answers up and towards it, tilted by
    # β
    assert np.arctan2(-force[0, 0, 0], -force[1, 0, 0]) == pytest.approx(beta)
    with pytest.raises(InputError, match="pivot"):
        CornerBar(**sizes, direction="perpendicular")


def test_a_lever_s_moment_and_height_go_together():
    lever = Lever(
        pivot=(0, 1), kg=30, arm_m=0.8, angle_deg=-40, own_kg=10, own_arm_m=0.4, own_angle_deg=10
    )
    turn = np.linspace(0, 1.6, 4001)
    gained = np.trapezoid(lever.moment_nm(turn), turn)
    assert lever.energy_j(turn[-1:])[0] - lever.energy_j(turn[:1])[0] == pytest.approx(
        gained, rel=1e-6
    )
    # moment = (m·d·cos(φ + φ0) + m0·d0·cos(φ + φ1))·g
    expected = (30 * 0.8 * np.cos(np.deg2rad(-40)) + 10 * 0.4 * np.cos(np.deg2rad(10))) * G
    assert lever.moment_nm(np.zeros(1))[0] == pytest.approx(expected)


def test_a_lever_on_the_knee_s_axis_reaches_the_knee_whole_and_one_beside_it_slides():
    def extension(pivot):
        lever = Lever(pivot=pivot, kg=40, arm_m=0.3, angle_deg=-60, port="shin-pad")
        return curve(
            Setup(exercise=EXERCISES["leg-extension"], options={"knee_from_deg": 90}, loads=[lever])
        )

    bare = curve(
        Setup(exercise=EXERCISES["leg-extension"], options={"knee_from_deg": 90})
    ).demand_nm["knee"][0]
    on, off = extension((0.441, 0.6)), extension((0.441 + 0.05, 0.6 + 0.04))
    turn = np.pi / 2 - on.motion.angles["knee"][0]
    moment = 40 * 0.3 * G * np.cos(turn - np.deg2rad(60))
    np.testing.assert_allclose(2 * (on.demand_nm["knee"][0] - bare), moment, atol=1e-6)
    assert (
        "pad-slides" in [n.code for n in off.motion.notices]
        and off.motion.marks["pad_slide_m"][0, 0] > 0.02
    )
    assert "pad-slides" not in [n.code for n in on.motion.notices]
    with refused(InputError, r"within 0\.2 m of the knee"):
        extension((1.4, 0.6))


def test_a_spring_at_a_port_starts_at_its_first_mark_and_ends_at_its_stop():
    spring = Spring(start_n=50, end_n=250, travel_m=0.8)
    load = SpringLoad(spring=spring, port="shoulders", anchor=(0.0, 0.0))
    got = curve(
        Setup(
            exercise=EXERCISES["bodyweight-squat"], limits=Limits(hip_flexion_deg=155), loads=[load]
        )
    )
    length = got.motion.load_lengths[0][0]
    force = next(f for f in got.motion.forces if f.source == "load 0")
    pull = np.hypot(*got.motion.full(force.force)[:, 0])
    np.testing.assert_allclose(pull, 50 + 250 * (length - length.min()), rtol=2e-3)
    short = SpringLoad(
        spring=Spring(start_n=5, end_n=25, travel_m=0.1), port="shoulders", anchor=(0.0, 0.0)
    )
    with refused(PostureError, "passes its stop at 10 cm"):
        curve(Setup(exercise=EXERCISES["bodyweight-squat"], loads=[short]))


def test_a_carriage_s_springs_resist_or_help_and_a_lighter_help_is_harder():
    def knee_work(id_, end_n):
        spring = SpringLoad(spring=Spring(start_n=20, end_n=end_n, travel_m=0.9))
        got = curve(Setup(exercise=EXERCISES[id_], loads=[spring]))
        return audit(got).joint_work_j[0]

    assert knee_work("carriage-push", 300) > knee_work("carriage-push", 100)
    assert knee_work("carriage-lunge-front", 300) < knee_work("carriage-lunge-front", 100)


def test_a_pendulum_reports_its_period():
    got = curve(
        Setup(exercise=EXERCISES["pendulum-hip-extension"], loads=[Pendulum(kg=20, arm_m=1.0)])
    )
    assert got.motion.marks["period_s"][0, 0] == pytest.approx(2.006, abs=1e-3)
    assert "pendulum-swings" in [n.code for n in got.motion.notices]


def test_sled_friction_counts_the_push_across_the_rails():
    """At level rails with a push, friction is μ times weight and push; lifting more, returning
    less.
    """
    sled = Sled(kg=100, empty_kg=20, friction=0.1)
    got = curve(Setup(exercise=EXERCISES["leg-press-45"], loads=[sled]))
    motion, rail = got.motion, np.deg2rad(45)
    push = motion.marks["push"][0]
    wanted = 120 * G * np.sin(rail) + 0.1 * np.abs(120 * G * np.cos(rail) - push)
    np.testing.assert_allclose(motion.path_force[0], wanted, rtol=1e-6)
    assert audit(got).relative_error[0] <= 0.005
    assert np.all(got.motion.path_force[0] > 120 * G * np.sin(rail)), "lifting"
    for joint in ("knee", "hip"):
        # friction turns round: what it adds on the way up it takes away on the way down, but for
        # the push, which follows the rail force
        both = got.lowering_nm[joint][0] + got.demand_nm[joint][0]
        without = curve(replace(got.setup, loads=[replace(sled, friction=0.0)])).demand_nm[joint][0]
        np.testing.assert_allclose(0.5 * both, without, rtol=0.01, atol=1.0)


@pytest.mark.parametrize(
    ("hold", "pull", "gives_by", "verdict"),
    [
        (Hold(kind="eye", holds_n=1000), (0, 400), "breaks", "holds"),
        (Hold(kind="eye", holds_n=1000), (600, 500), "breaks", "warn"),
        (Hold(kind="weight", kg=40), (0, 300), "lifts", "warn"),
        (Hold(kind="weight", kg=40), (0, 500), "lifts", "refuse"),
        (Hold(kind="weight", kg=40), (120, 100), "slides", "refuse"),
        (Hold(kind="furniture", kg=40, height_m=0.8, depth_m=0.5), (140, 0), "tips", "refuse"),
        (Hold(kind="furniture", kg=40, height_m=0.1, depth_m=0.9), (80, 0), "slides", "holds"),
        (Hold(kind="feet", kg=80), (0, 300), "lifts", "holds"),
    ],
)
def test_hold_down(hold, pull, gives_by, verdict):
    found = margin(hold, np.array([0.0, pull[0]]), np.array([0.0, pull[1]]))
    assert (found.gives_by, found.verdict) == (gives_by, verdict)


def test_hold_down_by_hand():
    # a loose 40 kg weighs 392 N: pulled up by 100 N it slides at 0.4·(392 − 100) = 117 N
    just = margin(Hold(kind="weight", kg=40), np.array([0.4 * (40 * G - 100)]), np.array([100.0]))
    assert just.margin == pytest.approx(1.0)
    assert margin(Hold(kind="eye"), np.array([10.0]), np.array([10.0])) is None, (
        "a rating that is not known"
    )


def test_rubber_law_energy_and_refusal():
    law = MooneyRivlinLaw(rest_m=0.8, area_m2=1e-4, c1_pa=1.2e5, c2_pa=0.8e5)
    lengths = np.linspace(0.4, 2.4, 8001)
    force = law.force_n(lengths)
    assert np.all(force >= 0) and np.all(force[lengths <= 0.8] == 0) and np.all(np.diff(force) >= 0)
    assert law.energy_j(lengths[-1:])[0] == pytest.approx(np.trapezoid(force, lengths), rel=1e-6)
    with pytest.raises(InputError, match="grows with stretch"):
        MooneyRivlinLaw(rest_m=0.8, area_m2=1e-4, c1_pa=-1e5, c2_pa=1e5)


def test_rubber_fit_agrees_with_a_general_least_squares_fit():
    truth = MooneyRivlinLaw(rest_m=1.0, area_m2=1e-4, c1_pa=1.5e5, c2_pa=1.0e5)
    lengths = tuple(np.linspace(1.05, 2.6, 12).tolist())
    noise = np.random.default_rng(3).normal(0, 0.4, 12)
    forces = tuple(np.maximum.accumulate(truth.force_n(np.array(lengths)) + noise).tolist())
    ours = fit_mooney_rivlin(lengths, forces, 1.0).law

    def law(length, c1, c2):
        return 2e-4 * (c1 + c2 / length) * (length - length**-2)

    theirs, _ = scipy.optimize.curve_fit(law, lengths, forces, p0=(1e5, 1e5))
    assert (ours.c1_pa, ours.c2_pa) == pytest.approx(tuple(theirs), rel=1e-5)
    # the rest length, too, where it was not measured
    free = fit_mooney_rivlin(lengths, tuple(truth.force_n(np.array(lengths)).tolist())).law
    assert free.rest_m == pytest.approx(1.0, abs=0.002)


def test_the_score_chooses_the_law_that_made_the_readings():
    lengths = tuple(np.linspace(1.05, 2.4, 10).tolist())
    noise = np.random.default_rng(5).normal(0, 0.3, 10)
    rubber = MooneyRivlinLaw(rest_m=1.0, area_m2=1e-4, c1_pa=1.5e5, c2_pa=1.0e5)
    line = LinearLaw(rest_m=1.0, rate_n_per_m=60.0)
    for law, kind in ((rubber, "mooney-rivlin"), (line, "linear")):
        forces = np.maximum.accumulate(np.maximum(law.force_n(np.array(lengths)) + noise, 0.01))
        assert fit_band(lengths, tuple(forces.tolist()), 1.0).chosen == kind
    assert fit_band((1.0, 1.5), (0.0, 40.0), 1.0).chosen == "points", (
        "two readings cannot be scored"
    )


@pytest.mark.parametrize(
    ("kind", "columns", "law"),
    [
        (
            "spring",
            {"travel_m": [0, 0.3, 0.6], "force_n": [20, 80, 140]},
            {"start_n": 20, "rate_n_per_m": 200, "end_n": 140},
        ),
        # a known round pulley of 12 cm: moment 40 kg·g·0.12 at every angle
        (
            "stack",
            {"angle_deg": [0, 45, 90], "force_n": [40 * G * 0.12 / 0.4] * 3, "pad_m": [0.4] * 3},
            {"mean_moment_nm": 40 * G * 0.12, "kg": 40},
        ),
        (
            "sled",
            {"direction": ["push", "push", "return"], "force_n": [620, 620, 480]},
            {"along_rail_n": 550, "friction_n": 70, "kg": 550 / (G * np.sin(np.deg2rad(40)))},
        ),
        (
            "lever",
            {
                "angle_deg": [0, 30, 60],
                "force_n": [30 * 0.8 * G * np.cos(np.deg2rad(a - 20)) / 0.5 for a in (0, 30, 60)],
                "arm_m": [0.5] * 3,
            },
            {"kg_m": 24, "angle_deg": -20},
        ),
        (
            "pendulum",
            {
                "angle_deg": [30, 60],
                "force_n": [18 * G * np.sin(np.deg2rad(a)) / 0.9 for a in (30, 60)],
                "arm_m": [0.9, 0.9],
            },
            {"kg_m": 18},
        ),
        (
            "cable",
            {"stack_kg": [10, 20, 40], "force_n": [5 * G + 6, 10 * G + 6, 20 * G + 6]},
            {"ratio": 0.5, "offset_n": 6},
        ),
        (
            "rail-bar",
            {"direction": ["push", "return", "push"], "force_n": [165, 135, 165]},
            {"kg": 150 / G, "friction": 0.1},
        ),
        (
            "carriage",  # weighs the 40 kg that are given
            {"on_kg": [0, 30, 60], "force_n": [0.04 * G * (40 + m) for m in (0, 30, 60)]},
            {"friction": 0.04, "kg": 40},
        ),
        (
            "corner-bar",
            {"plate_kg": [0, 10, 20], "force_n": [100, 100 + 9.5 * G, 100 + 19 * G]},
            {"bar_n": 100, "sleeve_per_hand": 0.95},
        ),
    ],
)
def test_machines_are_recovered_from_their_readings(kind, columns, law):
    found = fit_machine(kind, columns, {"kg": 40.0, "rail_deg": 40.0})
    for name, value in law.items():
        assert found.law[name] == pytest.approx(value, rel=1e-6), name
    assert found.rms_n == pytest.approx(0, abs=1e-6) and not [
        n for n in found.notes if "unexplained" in plain(n)
    ]
    if kind == "stack":
        assert found.tables["radius_m"] == pytest.approx([0.12] * 3)
    if kind == "sled":
        assert found.law["friction"] == pytest.approx(70 / (550 / np.tan(np.deg2rad(40))))


def test_a_carriage_that_is_not_weighed_is_told_by_two_loads_and_never_by_one():
    read = {"on_kg": [0, 50], "force_n": [0.03 * G * (22 + m) for m in (0, 50)]}
    found = fit_machine("carriage", read)
    assert (found.law["kg"], found.law["friction"]) == pytest.approx((22, 0.03))
    assert FITS["carriage"].pull_n(found, 80.0, 1.0, True) == pytest.approx(0.03 * G * 102)
    with refused(InputError, "2 readings or more"):
        fit_machine("carriage", {"on_kg": [0], "force_n": [8]})
    with pytest.raises(InputError, match="grows with the weight"):
        fit_machine("carriage", {"on_kg": [0, 50], "force_n": [20, 12]})
    for weight in (0.0, -5.0, float("nan")):
        with pytest.raises(InputError, match=r"from 0\.1 to 500 kg"):
            fit_machine("carriage", read, {"kg": weight})


def test_a_bar_on_rails_that_pulls_up_is_refused_and_its_check_reading_is_foretold():
    with pytest.raises(InputError, match="pulls down"):
        fit_machine("rail-bar", {"direction": ["push", "return"], "force_n": [0, 0]})
    found = fit_machine("rail-bar", {"direction": ["push", "return"], "force_n": [165, 135]})
    pull = FITS["rail-bar"].pull_n
    assert (pull(found, 0.0, 1.0, True), pull(found, 0.0, 1.0, False)) == (165, 135)


def test_a_description_that_cannot_explain_the_readings_says_so():
    found = fit_machine("spring", {"travel_m": [0, 0.2, 0.4, 0.6], "force_n": [0, 90, 60, 160]})
    assert "unexplained" in plain(found.notes[-1])


def test_chain_weighs_what_hangs():
    chain = Chain(kg_per_m=8, length_m=1.2, port="back-high")
    np.testing.assert_allclose(chain.weight_n(np.array([0.0, 0.5, 1.2, 1.5])) / G, [0, 4, 9.6, 9.6])
    y = np.linspace(0, 1.5, 3001)
    assert chain.energy_j(np.array(1.5)) == pytest.approx(
        np.trapezoid(chain.weight_n(y), y), rel=1e-6
    )


def test_a_cam_of_a_round_pulley_is_a_constant_moment():
    stack = Stack(kg=40, angle_deg=(0, 120), radius_m=(0.1, 0.1), ratio=0.5)
    np.testing.assert_allclose(stack.moment_nm(np.deg2rad(np.array([-10, 50, 130]))), 40 * G * 0.05)


@pytest.mark.parametrize(
    ("name", "load"),
    [
        ("back-squat-high", Chain(kg_per_m=6, length_m=1.0, port="back-high")),
        ("belt-squat-cable", Cable(kg=60, port="hip-belt", pulley=(0.06, -0.05))),
        ("belt-squat-cable", Cable(kg=60, port="hip-belt", pulley=(0.06, -0.05), friction=0.1)),
        (
            "corner-bar-squat",
            CornerBar(plate_kg=20, bar_kg=20, bar_m=2.2, sleeve_m=2.0, hand_m=2.1),
        ),
        ("leg-extension", Stack(kg=40, angle_deg=(0, 60, 110), radius_m=(0.06, 0.11, 0.08))),
        (
            "seated-leg-curl",
            Stack(kg=30, angle_deg=(0, 60, 110), radius_m=(0.1, 0.11, 0.05), friction=0.1),
        ),
        ("leg-extension-cable", Cable(kg=15, port="ankle", pulley=(-0.6, 0.2))),
        ("leg-curl-dumbbell", FreeMass(kg=10, port="ankle")),
    ],
)
def test_energy_audit_of_every_kind_of_load(name, load):
    result = curve(Setup(exercise=EXERCISES[name], loads=[load]))
    assert audit(result).relative_error.max() <= 0.005
    if getattr(load, "friction", 0):
        lifting, down = result.demand_nm["knee"], result.lowering_nm["knee"]
        assert np.abs(down).sum() < np.abs(lifting).sum()


# common practice, no source: prone, a dumbbell by the feet is heaviest at the straight knee,
# nothing at 90°
def test_prone_dumbbell_curl_is_heaviest_straight():
    def knee(kg):
        loads = [FreeMass(kg=kg, port="ankle")]
        return curve(Setup(exercise=EXERCISES["leg-curl-dumbbell"], loads=loads)).demand_nm["knee"][
            0
        ]

    part = knee(10) - knee(0)
    assert part[0] < 0 and part[-1] == pytest.approx(0, abs=1e-9)
    assert abs(part[0]) == np.abs(part).max()


def test_a_stack_makes_the_demand_of_its_moment_per_leg():
    stack = Stack(kg=40, angle_deg=(0, 120), radius_m=(0.1, 0.1))

    def knee(loads):
        return curve(Setup(exercise=EXERCISES["leg-extension"], loads=loads)).demand_nm["knee"][0]

    np.testing.assert_allclose(knee([stack]) - knee([]), 40 * G * 0.1 / 2)


def test_a_stack_is_refused_where_nothing_turns():
    stack = Stack(kg=40, angle_deg=(0.0,), radius_m=(0.1,))
    with pytest.raises(InputError, match="/loads/0/kind"):
        Setup(exercise=EXERCISES["goblet-squat"], loads=[stack])


@pytest.mark.parametrize(
    ("make", "where"),
    [
        (lambda: Cable(kg=10, port="ankle", pulley=(0, 0), ratio=0), "ratio"),
        (lambda: Cable(kg=-1, port="ankle", pulley=(0, 0)), "kg"),
        (lambda: Chain(kg_per_m=0, length_m=1, port="hands"), "kg_per_m"),
        (lambda: CornerBar(plate_kg=1, bar_kg=20, bar_m=2.2, sleeve_m=9, hand_m=2), "sleeve_m"),
        (lambda: Stack(kg=1, angle_deg=(10, 5), radius_m=(0.1, 0.1)), "radius/angle_deg/1"),
        (lambda: Stack(kg=1, angle_deg=(1, 5), radius_m=(0.1, 2.0)), "radius/radius_m/1"),
        (lambda: Stack(kg=1, angle_deg=(1, 5), radius_m=(0.1,)), "radius/radius_m"),
    ],
)
def test_impossible_loads_are_refused_at_their_field(make, where):
    with pytest.raises(InputError) as refused:
        make()
    assert refused.value.where == where
