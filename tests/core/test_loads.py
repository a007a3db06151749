"""Springs, cables, chains, cams and the corner bar: laws, energy, refusals. Facts marked where common practice."""

from __future__ import annotations

import numpy as np
import pytest

from widearc.core.catalogue import EXERCISES
from widearc.core.equipment import (
    Cable,
    Chain,
    CornerBar,
    FreeMass,
    Spring,
    Stack,
    hung_rest_m,
    lighter_until_m,
    parallel,
)
from widearc.core.errors import InputError
from widearc.core.movement import Setup
from widearc.core.statics import audit, curve
from widearc.core.units import FORCE_N, G

LBF = FORCE_N["lbf"]
TRAVEL = 0.9


def spring(start_lbf: float, end_lbf: float) -> Spring:
    return Spring(start_n=start_lbf * LBF, end_n=end_lbf * LBF, travel_m=TRAVEL)


LIGHT, MEDIUM, THIRD, FOURTH = spring(1, 6), spring(2.5, 12.5), spring(7.5, 37.5), spring(10, 70)


# common practice, no source: carriage of 15 lb hung upright on each of four springs
def test_hung_carriage():
    rest = [hung_rest_m(s, 15 * LBF) / TRAVEL for s in (LIGHT, MEDIUM, THIRD, FOURTH)]
    assert rest[:2] == [1.0, 1.0]
    assert rest[2] == pytest.approx(0.25)
    assert rest[3] == pytest.approx(0.083, abs=5e-4)
    assert hung_rest_m(FOURTH, 5 * LBF) == 0.0


# common practice, no source: the push ladder at start, middle and end of travel, lbf
@pytest.mark.parametrize(
    ("springs", "wanted"),
    [
        ([THIRD], (7.5, 22.5, 37.5)),
        ([THIRD, LIGHT], (8.5, 26, 43.5)),
        ([THIRD, MEDIUM], (10, 30, 50)),
        ([THIRD, MEDIUM, LIGHT], (11, 33.5, 56)),
        ([FOURTH], (10, 40, 70)),
        ([FOURTH, LIGHT], (11, 43.5, 76)),
        ([FOURTH, MEDIUM], (12.5, 47.5, 82.5)),
        ([FOURTH, MEDIUM, LIGHT], (13.5, 51, 88.5)),
        ([FOURTH, THIRD], (17.5, 62.5, 107.5)),
        ([LIGHT, MEDIUM], (3.5, 11, 18.5)),
        ([MEDIUM, MEDIUM], (5, 15, 25)),
    ],
)
def test_parallel_springs_add(springs, wanted):
    pull = parallel(springs).force_n(np.array([0, 0.5, 1]) * TRAVEL) / LBF
    np.testing.assert_allclose(pull, wanted, atol=1e-9)


# common practice, no source: ratios by rate, at the start and at the end
@pytest.mark.parametrize(
    ("heavy", "light", "ratios"),
    [(MEDIUM, LIGHT, (2, 2.5, 2.08)), (THIRD, MEDIUM, (3, 3, 3)), (FOURTH, THIRD, (2, 1.33, 1.87))],
)
def test_spring_ratios(heavy, light, ratios):
    got = (heavy.rate_n_per_m / light.rate_n_per_m, heavy.start_n / light.start_n, heavy.end_n / light.end_n)
    assert got == pytest.approx(ratios, abs=0.005)


# common practice, no source: three lighter springs against the fourth: lighter for the first 6.7 % of travel
def test_a_heavier_spring_can_start_lighter():
    assert lighter_until_m(parallel([THIRD, MEDIUM, LIGHT]), FOURTH) / TRAVEL == pytest.approx(0.067, abs=5e-4)
    assert lighter_until_m(THIRD, FOURTH) == 0.0


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


# common practice, no source: bar 20 kg and 2.2 m, plate 20 kg at 2.0 m, hand at 2.1 m: 29.5 kgf at any angle
def test_corner_bar():
    bar = CornerBar(plate_kg=20, bar_kg=20, bar_m=2.2, sleeve_m=2.0, hand_m=2.1)
    assert float(bar.hand_n) / G == pytest.approx(29.5, abs=0.05)


def test_chain_weighs_what_hangs():
    chain = Chain(kg_per_m=8, length_m=1.2, port="back-high")
    np.testing.assert_allclose(chain.weight_n(np.array([0.0, 0.5, 1.2, 1.5])) / G, [0, 4, 9.6, 9.6])
    y = np.linspace(0, 1.5, 3001)
    assert chain.energy_j(np.array(1.5)) == pytest.approx(np.trapezoid(chain.weight_n(y), y), rel=1e-6)


def test_a_cam_of_a_round_pulley_is_a_constant_moment():
    stack = Stack(kg=40, angle_deg=(0, 120), radius_m=(0.1, 0.1), ratio=0.5)
    np.testing.assert_allclose(stack.moment_nm(np.deg2rad(np.array([-10, 50, 130]))), 40 * G * 0.05)


@pytest.mark.parametrize(
    ("name", "load"),
    [
        ("back-squat-high", Chain(kg_per_m=6, length_m=1.0, port="back-high")),
        ("belt-squat-cable", Cable(kg=60, port="hip-belt", pulley=(0.06, -0.05))),
        ("belt-squat-cable", Cable(kg=60, port="hip-belt", pulley=(0.06, -0.05), friction=0.1)),
        ("corner-bar-squat", CornerBar(plate_kg=20, bar_kg=20, bar_m=2.2, sleeve_m=2.0, hand_m=2.1)),
        ("leg-extension", Stack(kg=40, angle_deg=(0, 60, 110), radius_m=(0.06, 0.11, 0.08))),
        ("seated-leg-curl", Stack(kg=30, angle_deg=(0, 60, 110), radius_m=(0.1, 0.11, 0.05), friction=0.1)),
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


# common practice, no source: prone, a dumbbell by the feet is heaviest at the straight knee, nothing at 90°
def test_prone_dumbbell_curl_is_heaviest_straight():
    def knee(kg):
        loads = [FreeMass(kg=kg, port="ankle")]
        return curve(Setup(exercise=EXERCISES["leg-curl-dumbbell"], loads=loads)).demand_nm["knee"][0]

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
