"""Match, shape, reach and level on the 1° grid."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from widearc.core.curve import CENTRES_DEG, Action, on_grid
from widearc.core.equipment import FreeMass, Sled
from widearc.core.errors import TargetError
from widearc.core.exercises import EXERCISES
from widearc.core.matching import Target, compare, target_of
from widearc.core.movement import Setup
from widearc.core.statics import curve


def press(kg: float, **options):
    return curve(
        Setup(exercise=EXERCISES["leg-press-45"], options=options, loads=[Sled(kg=kg, empty_kg=38)])
    )


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
    half = compare(
        target_of(wanted),
        wanted.motion.angles,
        {name: 0.5 * d for name, d in wanted.demand_nm.items()},
        1,
    )
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
    result = compared(
        target, curve(Setup(exercise=EXERCISES["leg-extension-dumbbell"], loads=loads))
    )
    hip = [a.joint for a in target.actions].index("hip")
    assert result.by_joint[hip][0] == 0 and result.bins[hip].sum() == 0


def test_no_positive_work_is_refused():
    with pytest.raises(TargetError, match="nothing to match"):
        target_of(curve(Setup(exercise=EXERCISES["reverse-nordic"], options={"lean_from_deg": 3})))


def test_long_third_share_of_an_even_target_is_a_third():
    target = target_of(press(120, push="least-effort"))
    flat = compare(
        target,
        {"knee": np.deg2rad(np.linspace(90, 8, 101))[None, :], "hip": np.zeros((1, 101))},
        {"knee": np.full((1, 101), 50.0)},
        1,
    )
    knee = [a.joint for a in target.actions].index("knee")
    assert flat.long_third_share[knee][0] == pytest.approx(1 / 3, abs=0.02)


def piece(ends, values):
    """Return a curve of one joint: knee angles from the lengthened end (degrees) and demands (N·m),
    both (1, 41).
    """
    share = np.linspace(0.0, 1.0, 41)
    theta = ends[0] + (ends[1] - ends[0]) * share
    return np.deg2rad(theta)[None, :], np.interp(share, np.linspace(0.0, 1.0, len(values)), values)[
        None, :
    ]


def fine_of(theta, demand, grid):
    """Return a curve's positive demand on a fine grid of degrees, 0 outside its range."""
    angle = np.rad2deg(theta[0])[::-1]
    return np.maximum(np.interp(grid, angle, demand[0][::-1], left=0.0, right=0.0), 0.0)


def plain_match(t, c, grid):
    """Return the match of two demands on a fine grid of degrees, one joint: by single hats."""

    def lump(demand, knot, spacing):
        hat = np.maximum(0.0, 1.0 - np.abs(grid - knot) / spacing)
        return np.trapezoid(demand * hat, grid)

    wanted, given_ = np.trapezoid(t, grid), np.trapezoid(c, grid)
    covers = np.trapezoid(np.minimum(t, c), grid) + min(wanted, given_)
    for spacing in (20.0, 60.0):
        # no hat beyond these reaches what is drawn
        for knot in np.arange(-60.0 + spacing, 220.0, spacing):
            covers += min(lump(t, knot, spacing), lump(c, knot, spacing))
    covers /= 4.0
    return covers / (wanted + (given_ - covers) / 2)


ENDS = st.tuples(st.floats(70, 130), st.floats(0, 45))
VALUES = st.lists(st.floats(-20, 200), min_size=4, max_size=4)


@given(ENDS, VALUES.filter(lambda v: max(v) > 30), ENDS, VALUES)
def test_match_level_shape_and_reach_are_those_of_a_plain_integral(
    wanted_ends, wanted, own_ends, own
):
    """By the trapezoidal rule over hundredths of a degree: four grains, what lacks and what is
    over, and the rest.
    """
    grid = np.arange(-10.0, 150.0, 0.01)
    theta, demand = piece(wanted_ends, wanted)
    bins = on_grid(theta, demand, Action.KE)[0]
    target = Target(actions=(Action.KE,), bins=(bins,))
    t = fine_of(theta, demand, grid)
    theta, demand = piece(own_ends, own)
    c = fine_of(theta, demand, grid)
    found = compare(target, {"knee": theta}, {"knee": demand}, 1)
    # what lies within the degree of an end or a change of sign is spread over it
    slack = 3.0 * max(t.max(), c.max(), 1.0)
    work, given_ = np.trapezoid(t, grid), np.trapezoid(c, grid)
    assert found.match[0] == pytest.approx(plain_match(t, c, grid), abs=3.0 * slack / work)
    assert found.level[0] == pytest.approx(given_ / work, abs=slack / work * (1.0 + given_ / work))
    if given_ > 20 * slack:
        scaled = c * work / given_
        assert found.shape[0] == pytest.approx(plain_match(t, scaled, grid), abs=0.05)


@given(VALUES.filter(lambda v: max(v) > 30), st.floats(0.2, 3.0))
def test_a_match_has_one_peak_in_the_load_where_demand_grows_with_it(values, most):
    """So that the best total of a stock lies beside the best load of all: it rises, then falls."""
    theta, demand = piece((100.0, 10.0), np.abs(values))
    target = Target(actions=(Action.KE,), bins=(on_grid(theta, demand, Action.KE)[0],))
    own_theta, own = piece((95.0, 15.0), np.abs(values)[::-1])
    factors = np.linspace(0.05, most + 1.0, 40)
    rows = len(factors)
    matches = compare(
        target,
        {"knee": np.broadcast_to(own_theta, (rows, own_theta.shape[1]))},
        {"knee": factors[:, None] * own},
        rows,
    ).match
    best = int(matches.argmax())
    # what counts as nothing below a millionth of a N·m may step by as little
    assert np.all(np.diff(matches[: best + 1]) >= -1e-6) and np.all(np.diff(matches[best:]) <= 1e-6)


@pytest.mark.parametrize("left", [1e-14, 5e-9, 2.2e-309])
def test_what_rounding_leaves_has_no_shape_and_reaches_nothing(left):
    """A joint that is not loaded may keep a last digit: brought to the wanted work it would be a
    shape of nothing.
    """
    theta, demand = piece((95.0, 10.0), [80.0, 120.0, 60.0, 20.0])
    target = Target(actions=(Action.KE,), bins=(on_grid(theta, demand, Action.KE)[0],))
    found = compare(target, {"knee": theta}, {"knee": np.full_like(demand, left)}, 1)
    assert (
        found.match[0]
        == found.shape[0]
        == found.level[0]
        == found.reach[0]
        == found.long_third_share[0][0]
        == 0.0
    )
    assert np.isnan(found.load_centre_deg[0][0])
