"""Strength over time: what the sets of made-up lives say, against the truth that made them."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from widearc.core.arrays import Array
from widearc.core.record import Estimate, Point, estimate_of, gap_of, shares_of_set
from widearc.core.strength import effort_of_reps, scales_of_set

LIVES = 200


def life(seed: int, *, weeks: int = 6, gain: float = 0.01, lifts_sd: float = 0.05):
    """Points of a client who gains, two sessions of three sets a week, each session another of 12
    exercises and another load; reps are misjudged by up to two. Returns points and the truth now.
    """
    rng = np.random.default_rng(seed)
    own = {f"lift {i}": math.exp(rng.normal(0.0, lifts_sd)) for i in range(12)}
    start = rng.uniform(0.6, 1.6)
    points = []
    for session in range(2 * weeks):
        week = session / 2
        truth = start * (1.0 + gain) ** week
        exercise = f"lift {rng.integers(12)}"
        for _ in range(3):
            reps, reserve = int(rng.integers(5, 13)), int(rng.integers(0, 4))
            really = max(1.0, reps + reserve + rng.integers(-2, 3))
            asked = truth * own[exercise] * effort_of_reps(really)
            scale = scales_of_set(
                {"knee_extension": np.array([asked]) * 100.0},
                {"knee_extension": np.array([100.0])},
                reps=reps,
                reserve=reserve,
            )[0]
            points.append(
                Point(
                    exercise=exercise,
                    kappa=scale.kappa,
                    error_share=scale.error_share,
                    weeks=weeks - week,
                )
            )
    return points, start * (1.0 + gain) ** weeks


def told(lifts_sd: float, gain: float = 0.01) -> tuple[Array, Array]:
    """Relative errors and stated standard errors of many lives."""
    errors, stated = [], []
    for seed in range(LIVES):
        points, truth = life(seed, lifts_sd=lifts_sd, gain=gain)
        found = estimate_of(points)
        assert found is not None and found.sd is not None
        errors.append(math.log(found.kappa / truth))
        stated.append(found.sd)
    return np.array(errors), np.array(stated)


@pytest.mark.parametrize(("lifts_sd", "covered"), [(0.0, 0.95), (0.05, 0.90), (0.10, 0.80)])
def test_the_truth_lies_within_what_is_stated(lifts_sd, covered):
    errors, stated = told(lifts_sd)
    inside = float((np.abs(errors) <= 2.0 * stated).mean())
    assert inside >= covered
    if lifts_sd <= 0.05:
        assert float(np.quantile(np.abs(errors), 0.95)) < 0.06


def test_a_plain_mean_of_the_same_sets_would_lag():
    """Why it is not a mean: of a client who gains 3 % a week the mean of the sets is behind."""
    late = []
    for seed in range(60):
        points, truth = life(seed, gain=0.03, lifts_sd=0.0)
        late.append(float(np.mean([p.kappa for p in points])) / truth - 1.0)
    assert np.median(late) < -0.06
    errors, _ = told(0.0, gain=0.03)
    assert abs(np.median(errors[:60])) < 0.03


def test_it_does_not_matter_on_which_exercise_a_set_was():
    points = [
        Point(exercise=f"lift {i}", kappa=1.0, error_share=0.03, weeks=float(i)) for i in range(6)
    ]
    other = [Point(exercise="one", kappa=1.0, error_share=0.03, weeks=p.weeks) for p in points]
    first, second = estimate_of(points), estimate_of(other)
    assert first.kappa == pytest.approx(1.0) and second.kappa == pytest.approx(1.0)
    # six exercises tell more than one: the model errs anew on each
    assert first.sd < second.sd


def test_gain_and_loss_have_their_signs():
    def steady(a_week: float) -> Estimate:
        return estimate_of(
            [
                Point(exercise="a", kappa=(1 + a_week) ** (8 - w), error_share=0.02, weeks=float(w))
                for w in range(9)
            ]
        )

    assert steady(0.01).gain > 0.003 > 0 > steady(-0.01).gain
    assert steady(0.01).kappa > steady(0.0).kappa > steady(-0.01).kappa


def test_lower_bounds_only_lift_the_estimate():
    exact = [Point(exercise="a", kappa=1.0, error_share=0.03, weeks=1.0)]

    def bound(kappa: float, weeks: float = 2.0) -> Point:
        return Point(exercise="b", kappa=kappa, error_share=0.03, weeks=weeks, at_least=True)

    alone = estimate_of(exact)
    assert estimate_of([*exact, bound(0.7)]) == alone, "a lower one says nothing new"
    assert estimate_of([*exact, bound(1.2)]).kappa == pytest.approx(1.2)
    only = estimate_of([bound(0.7), bound(0.9)])
    assert only.at_least and only.kappa == 0.9 and only.sets == 0


def test_old_sets_and_sets_to_come_are_left_out():
    old = Point(exercise="a", kappa=2.0, error_share=0.03, weeks=10.1)
    ahead = Point(exercise="a", kappa=2.0, error_share=0.03, weeks=-0.1)
    assert estimate_of([old, ahead]) is None and estimate_of([]) is None
    new = Point(exercise="a", kappa=1.0, error_share=0.03, weeks=0.0)
    assert estimate_of([old, new]).kappa == pytest.approx(1.0)


def test_one_set_is_no_surer_than_its_reps_and_the_model():
    one = estimate_of([Point(exercise="a", kappa=1.0, error_share=0.05, weeks=0.0)])
    assert one.sd == pytest.approx(math.sqrt(0.05**2 + 0.02**2 + 0.07**2), rel=1e-6)


def test_a_set_counts_in_proportion_to_the_most_worked_group():
    """The squat of mechanics.md §7: vasti 213 J, gluteus maximus 84, long hamstrings 9."""
    shares = shares_of_set({"vasti": 213.0, "glute_max": 84.0, "long_ham": 9.0, "soleus": -10.0})
    assert shares["vasti"] == 1.0
    assert shares["glute_max"] == pytest.approx(0.39, abs=0.005)
    assert shares["long_ham"] == pytest.approx(0.04, abs=0.005)
    assert "soleus" not in shares
    assert shares_of_set({"vasti": -1.0}) == {} == shares_of_set({})


def two_sides(seed: int, gap: float, *, opens: float = 0.0):
    """Points of a life, its right side stronger by a share; what the model errs on a lift it errs
    on both sides alike.
    """
    left, _ = life(seed, lifts_sd=0.05)
    rng = np.random.default_rng(1000 + seed)
    right = []
    for point in left:
        luck = math.exp(rng.normal(0.0, point.error_share))
        kappa = point.kappa * (1.0 + gap - opens * point.weeks) * luck
        right.append(replace(point, kappa=kappa))
    return left, right


@pytest.mark.parametrize("gap", [0.0, 0.09, -0.2])
def test_the_gap_of_the_sides_lies_within_what_is_stated(gap):
    found = [gap_of(*two_sides(seed, gap)) for seed in range(LIVES)]
    inside = [abs(math.log((1 + g.share) / (1 + gap))) <= 2.0 * g.sd for g in found]
    assert np.mean(inside) >= 0.93
    assert np.median([g.sd for g in found]) < 0.03, "better known than either side"
    if gap:
        assert np.mean([g.known for g in found]) > 0.7
        assert np.sign(np.median([g.share for g in found])) == np.sign(gap)
    else:
        assert np.mean([g.known for g in found]) < 0.1, "alike is not called different"


def test_a_gap_that_opens_is_said_to_open():
    weeks = [gap_of(*two_sides(seed, 0.12, opens=0.02)).week for seed in range(60)]
    assert np.median(weeks) > 0.002


def test_no_gap_without_two_sets_of_either_side():
    left, right = two_sides(1, 0.1)
    assert gap_of(left, right[:1]) is None and gap_of([], right) is None
    bounds = [replace(p, at_least=True) for p in left]
    assert gap_of(bounds, right) is None, "a bound says nothing of it"
    old = [replace(p, weeks=11.0) for p in left]
    assert gap_of(old, right) is None
