"""What is measured: kinds and quantities, angles three ways, how sure a law is, pairs and folds."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import points_law
from tests.loads import admissible
from tests.looked import looked
from tests.spoken import refused
from widearc.core.body import Body, bend_by_levels, bend_by_points, bend_by_tape, shank_lean_at_wall
from widearc.core.equipment import (
    KINDS,
    LinearLaw,
    Source,
    check_quantity,
    drawn_pulls,
    fit_machine,
    folded_pull_n,
    kind_of,
    law_error_share,
    pair_match,
    pull_error_n,
    rail_angle_deg,
    shim_bend_deg,
    trust,
    weakest,
    wedge_relief_deg,
)
from widearc.core.errors import InputError, UnknownNameError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import (
    BodyUncertainty,
    body_variants,
    curve,
    demand_error_nm,
    load_variants,
    uncertainty_of,
)


def test_every_need_of_the_catalogue_is_met_by_a_kind_or_a_fact_of_the_place():
    served = {need for kind in KINDS.values() for need in kind.serves}
    points_of = {"partner", "wall", "floor to walk"}
    made = {
        "sled press",
        "level press",
        "vertical press",
        "rack or clean",
        "anchor behind",
        "anchor ahead",
        "anchor under the feet",
        "boxes",
    }
    needed = {need for exercise in EXERCISES.values() for need in exercise.needs}
    assert needed <= served | points_of | made
    assert served <= needed | {"rack", "seat"}, "no kind serves a need that nothing has"


@pytest.mark.parametrize("kind", KINDS.values(), ids=lambda k: k.id)
def test_a_kind_s_usual_numbers_are_within_its_own_ranges(kind):
    names = [q.name for q in kind.quantities]
    assert len(set(names)) == len(names)
    for quantity in kind.quantities:
        assert quantity.low < quantity.high
        if quantity.usual is not None:
            assert check_quantity(quantity, quantity.usual, quantity.name) == quantity.usual
        shown = float(quantity.shown(quantity.high)) * quantity.per
        assert shown == pytest.approx(quantity.high), "what is shown is what is kept"


def test_a_quantity_out_of_range_is_named_in_the_unit_it_is_typed_in():
    height = kind_of("box").quantity("height_m")
    with refused(InputError, "900 cm.* from 2 cm to 300 cm"):
        check_quantity(height, 9.0, "height_m")
    with refused(InputError, "whole number"):
        check_quantity(kind_of("plate").quantity("count"), 2.5, "count")
    with pytest.raises(InputError):
        check_quantity(height, math.nan, "height_m")
    with pytest.raises(UnknownNameError):
        kind_of("trampoline")
    with pytest.raises(UnknownNameError):
        kind_of("box").quantity("wheels")


def test_the_weakest_source_speaks():
    assert weakest([Source.MEASURED, Source.ASSUMED, Source.DESCRIBED]) is Source.ASSUMED
    assert weakest([]) is Source.DESCRIBED


@pytest.mark.parametrize(("cm", "degrees"), [(2.5, 8.0), (3, 9.6), (4, 12.8), (5, 16.1)])
def test_heel_wedges(cm, degrees):
    """Over 18 cm from heel to ball (common practice, no source)."""
    assert wedge_relief_deg(cm / 100) == pytest.approx(degrees, abs=0.05)


@pytest.mark.parametrize(("lever_cm", "degrees"), [(30, 9.6), (35, 8.3), (40, 7.2), (45, 6.4)])
def test_a_pad_before_the_pad(lever_cm, degrees):
    """5.08 cm thick (common practice, no source)."""
    assert shim_bend_deg(0.0508, lever_cm / 100) == pytest.approx(degrees, abs=0.06)


def test_a_rail_s_angle_by_rise_over_run():
    assert rail_angle_deg(1.0, 1.0) == pytest.approx(45)
    assert rail_angle_deg(0.5, 0.0) == pytest.approx(90)
    with pytest.raises(InputError):
        rail_angle_deg(0.0, 0.0)


@settings(max_examples=60)
@given(
    st.floats(0.2, 0.6),
    st.floats(0.2, 0.6),
    st.floats(5, 170),
    st.floats(-3, 3),
    st.floats(-2, 2),
    st.floats(0, 6.28),
)
def test_three_ways_agree_on_one_bend(upper, lower, bend, x, y, turned):
    """A joint at (x, y), turned in the picture; tape, level and points see the same angle."""
    first = np.array([math.cos(turned), math.sin(turned)])
    inner = math.radians(180 - bend)
    second = np.array([math.cos(turned + inner), math.sin(turned + inner)])
    joint = np.array([x, y])
    a, b = joint + upper * first, joint + lower * second
    by_tape = bend_by_tape(upper, lower, float(np.hypot(*(a - b))))
    by_points = bend_by_points(*(tuple(1000 * p) for p in (a, joint, b)))
    assert by_tape.angle_deg == pytest.approx(bend, abs=0.02)
    assert by_points.angle_deg == pytest.approx(bend, abs=0.02)
    assert 0.5 < by_tape.error_deg <= 45 and 2 < by_points.error_deg < 10


def test_the_stated_error_of_the_tape_is_what_a_centimetre_does():
    """The error by slopes against the spread of angles with each length drawn 1 cm off."""
    random = np.random.default_rng(5)
    truth = bend_by_tape(0.44, 0.42, 0.55)
    drawn = [
        bend_by_tape(*(np.array([0.44, 0.42, 0.55]) + 0.01 * random.standard_normal(3))).angle_deg
        for _ in range(4000)
    ]
    assert truth.error_deg == pytest.approx(np.std(drawn), rel=0.05)


def test_what_makes_no_triangle_and_no_level_is_refused():
    for lengths in ((0.4, 0.4, 0.9), (0.8, 0.2, 0.1), (0.4, math.nan, 0.5), (0.0, 0.4, 0.4)):
        with pytest.raises(InputError):
            bend_by_tape(*lengths)
    assert bend_by_levels(170, -175).angle_deg == pytest.approx(15)
    with pytest.raises(InputError):
        bend_by_levels(0, 999)
    with pytest.raises(InputError):
        bend_by_points((0, 0), (1, 1), (2, 2))


def test_the_knee_to_wall_test():
    """A shank of 0.44 m leant by hand: knee height and toe distance are laid out, the lean must
    come back.
    """
    body = Body(stature_m=1.80)
    lean = math.radians(35)
    knee_ahead, knee_up = (
        body.shank_m * math.sin(lean),
        body.shank_m * math.cos(lean) + body.ankle_height_m,
    )
    toe = knee_ahead + 0.05 - 0.77 * body.foot_m  # the kneecap is 5 cm ahead of the knee's middle
    found = shank_lean_at_wall(toe, knee_up, body)
    assert found.angle_deg == pytest.approx(35, abs=0.01)
    assert 1 < found.error_deg < 3
    with pytest.raises(InputError, match="for this stature"):
        shank_lean_at_wall(0.1, 1.4, body)


def test_the_band_of_a_law_holds_the_truth_and_shrinks_with_the_error():
    """Readings of a known line, each with the stated error: the true line lies in the 95 % band, as
    a rule.
    """
    random = np.random.default_rng(11)
    lengths = np.linspace(1.0, 2.0, 6)
    true = 300.0 * (lengths - 1.0)
    inside = []
    for _ in range(60):
        read = np.maximum.accumulate(
            np.maximum(true + pull_error_n(lengths, true) * random.standard_normal(6), 0)
        )
        low, high = np.quantile(drawn_pulls(lengths, read, lengths[1:]), (0.025, 0.975), axis=0)
        inside.append(((low <= true[1:]) & (true[1:] <= high)).mean())
    assert np.mean(inside) > 0.85
    assert law_error_share(tuple(lengths), tuple(true)) < law_error_share((1.0, 1.05), (0.0, 15.0))
    assert law_error_share((1.0,), (0.0,)) == 0.5
    assert law_error_share((1.0, 2.0), (0.0, 0.0)) == 0.5


def test_drawn_pulls_are_the_same_each_time_and_never_fall():
    lengths, forces = np.array([1.0, 1.2, 1.5, 2.0]), np.array([0.0, 60.0, 61.0, 62.0])
    reach = np.linspace(1.0, 2.4, 50)
    pulls = drawn_pulls(lengths, forces, reach)
    assert np.array_equal(pulls, drawn_pulls(lengths, forces, reach))
    assert np.all(np.diff(pulls, axis=1) >= -1e-9) and np.all(pulls >= 0)


@pytest.mark.parametrize(
    ("predicted", "read", "says"),
    [
        (100, 101, "trust"),
        (100, 104, "trust"),
        (100, 110, "read again"),
        (100, 140, "weigh anew"),
        (100, 60, "weigh anew"),
    ],
)
def test_a_check_reading_says_whether_to_trust(predicted, read, says):
    off, verdict = trust(predicted, 1.0, read)
    assert verdict == says
    assert off == pytest.approx((read - predicted) / read)


def test_a_pair_that_differs_is_told_where():
    first = LinearLaw(rest_m=1.0, rate_n_per_m=300)
    match = pair_match(first, LinearLaw(rest_m=1.0, rate_n_per_m=330), 2.0)
    assert match.off == pytest.approx(1 - 300 / 330, abs=1e-6) and not match.alike
    assert pair_match(first, first.scaled(1.03), 2.0).alike
    shorter = pair_match(first, LinearLaw(rest_m=0.95, rate_n_per_m=300), 2.0)
    assert shorter.at_m == pytest.approx(1.1, abs=0.02), (
        "a shorter one differs most where both are nearly slack"
    )
    with pytest.raises(InputError):
        pair_match(first, first, 1.05)


def test_a_loop_folded_once_is_four_times_as_stiff():
    """Common practice, no source: four strands of half length against two full strands over the
    same hand travel.
    """
    law = LinearLaw(rest_m=1.0, rate_n_per_m=100)
    travel = np.array([0.1, 0.2, 0.3])
    open_ = 2 * law.force_n(1.0 + travel)
    assert folded_pull_n(law, 0.5 + travel) == pytest.approx(4 * open_)


@pytest.mark.parametrize(
    "exercise",
    [
        "leg-extension",
        "lying-leg-curl",
        "pendulum-hip-extension",
        "multi-hip",
        "kickback",
        "side-lying-raise",
    ],
)
def test_a_scaled_load_adds_to_the_demand_in_step(exercise):
    """Every kind of load on a fixed posture: from 1 to 1.5 times adds as much as from 1.5 to 2
    times.
    """
    entry = EXERCISES[exercise]
    for kind, (load,) in looked(admissible(entry), 10):
        one, half, two = (
            curve(Setup(exercise=entry, loads=(load.scaled(k),)), lowering=False, strict=False)
            for k in (1, 1.5, 2)
        )
        if one.motion.failed or two.motion.failed:
            continue
        for name in looked(one.demand_nm, 1):
            step = half.demand_nm[name] - one.demand_nm[name]
            assert two.demand_nm[name] - half.demand_nm[name] == pytest.approx(
                step, rel=1e-6, abs=1e-6
            ), kind


@pytest.mark.parametrize(
    "law", [LinearLaw(rest_m=1.0, rate_n_per_m=200), points_law()], ids=["line", "points"]
)
def test_a_scaled_law_is_scaled_everywhere(law):
    reach = np.linspace(0.8, 1.9, 20)
    assert law.scaled(1.3).force_n(reach) == pytest.approx(1.3 * law.force_n(reach))


def test_what_readings_are_left_over_for_tells_the_spread_and_the_outlier():
    travel = [0.0, 0.1, 0.2, 0.3, 0.4, 0.5]
    force = [20.0, 50.2, 79.7, 150.0, 140.1, 170.0]
    found = fit_machine("spring", {"travel_m": travel, "force_n": force})
    assert found.outlier == 3
    assert found.spread_n == pytest.approx(math.sqrt(sum(r * r for r in found.residuals_n) / 4))
    assert fit_machine("spring", {"travel_m": [0, 0.5], "force_n": [10, 60]}).spread_n is None


# how sure a curve is


def setup_of(exercise, kind="stack"):
    loads = dict(admissible(EXERCISES[exercise])).get(kind, ())
    return Setup(exercise=EXERCISES[exercise], body=Body(), loads=tuple(loads))


def test_an_error_of_a_load_moves_a_fixed_posture_by_just_that():
    """Leg extension: the posture is given, so the error is the share of the load's own part."""
    setup = setup_of("leg-extension")
    base = curve(setup, lowering=False)
    bare = curve(Setup(exercise=setup.exercise, body=setup.body), lowering=False)
    error = demand_error_nm(base, load_variants(setup, (0.05,)))
    assert error["knee"] == pytest.approx(
        0.05 * np.abs(base.demand_nm["knee"] - bare.demand_nm["knee"]), abs=1e-6
    )


def test_sources_add_as_squares_and_none_makes_none():
    setup = setup_of("band-squat", "band")
    base = curve(setup, lowering=False)
    load = demand_error_nm(base, load_variants(setup, (0.04,)))["knee"]
    body = demand_error_nm(base, body_variants(setup, BodyUncertainty()))["knee"]
    both = demand_error_nm(
        base, {**load_variants(setup, (0.04,)), **body_variants(setup, BodyUncertainty())}
    )["knee"]
    assert both == pytest.approx(np.hypot(load, body))
    assert float(np.max(demand_error_nm(base, load_variants(setup, (0.0,)))["knee"])) == 0.0


def test_a_body_that_was_not_asked_is_less_sure():
    known = uncertainty_of(mass_known=True, stature_known=True, thigh_taped=True)
    guessed = uncertainty_of(mass_known=False, stature_known=False, thigh_taped=False)
    assert known.mass < guessed.mass and known.thigh < guessed.thigh
    setup = setup_of("bodyweight-squat")
    base = curve(setup, lowering=False)
    small, large = (
        demand_error_nm(base, body_variants(setup, d))["hip"].max() for d in (known, guessed)
    )
    assert large > 2.5 * small > 0


def test_places_of_a_squat_lie_where_geometry_puts_them():
    """Thighs level: hip and knee at one height. The ankle's limit: where the shank law first
    reaches it.
    """
    from widearc.core.body import Limits
    from widearc.core.equipment import FreeMass
    from widearc.core.statics import knee_past_toes_m, points_of

    setup = Setup(
        exercise=EXERCISES["back-squat-high"],
        body=Body(),
        limits=Limits(dorsiflexion_deg=34, hip_flexion_deg=155),
        options={"knee_from_deg": 128.0},
        loads=(FreeMass(kg=40, port="back-high"),),
    )
    found = curve(setup, lowering=False)
    marks = {p.name: p.sample for p in points_of(found)}
    hip, knee = (found.motion.full(found.motion.points[p])[1][0] for p in ("hip", "knee"))
    level = marks["thighs level"]
    assert hip[level - 1] <= knee[level - 1] and hip[level] >= knee[level]
    bend = np.degrees(found.motion.angles["knee"][0][marks["ankle limit"]])
    assert bend == pytest.approx((34 - 5) / 0.33, abs=2.0), "shank = 5° + 0.33 · knee, held at 34°"
    assert 0 < knee_past_toes_m(found) < 0.15
    sat = curve(Setup(exercise=EXERCISES["leg-extension"], body=Body()), lowering=False)
    assert points_of(sat) == () and knee_past_toes_m(sat) is None
