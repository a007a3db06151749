"""Band laws: never a push, energy is the integral of the pull, folding, and what is refused."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from tests.conftest import points_law
from widearc.core.equipment import Band, LinearLaw, PointsLaw, fit_band, fit_linear, fit_points
from widearc.core.errors import InputError
from widearc.words import plain

LENGTHS = np.linspace(0.2, 3.0, 2801)


@pytest.mark.parametrize(
    "law", [points_law(), LinearLaw(rest_m=0.9, rate_n_per_m=140.0)], ids=["points", "linear"]
)
def test_pull_is_never_a_push_and_energy_is_its_integral(law):
    force, energy = law.force_n(LENGTHS), law.energy_j(LENGTHS)
    assert np.all(force >= 0) and np.all(force[law.rest_m >= LENGTHS] == 0)
    assert np.all(np.diff(force) >= -1e-12)
    trapezoids = np.concatenate(([0], np.cumsum(0.5 * (force[1:] + force[:-1]) * np.diff(LENGTHS))))
    np.testing.assert_allclose(energy, trapezoids, atol=2e-3)


def test_points_law_goes_through_its_readings_and_on_with_its_last_slope():
    law = PointsLaw(rest_m=1.0, length_m=(1.0, 1.4, 1.8), force_n_at=(0.0, 90.0, 150.0))
    np.testing.assert_allclose(law.force_n(np.array([1.4, 1.8])), [90, 150])
    assert law.force_n(np.array(2.0)) == pytest.approx(150 + 0.2 * 60 / 0.4)
    assert law.measured_to_m == 1.8


def test_loop_folded_once_is_four_times_as_stiff_over_the_same_hand_travel():
    # common practice, no source: four strands of half length against two full strands
    law = LinearLaw(rest_m=1.0, rate_n_per_m=100.0)
    flat = Band(law=law, port="hands", anchor_port="sole", strands=2)
    folded = Band(law=law, port="hands", anchor_port="sole", strands=4)
    travel = 0.3
    assert folded.tension_n(np.array(0.5 + travel)) == pytest.approx(
        4 * flat.tension_n(np.array(1.0 + travel))
    )
    # the same energy law on both sides of folding
    assert folded.energy_j(np.array(0.5 + travel)) == pytest.approx(
        4 * flat.energy_j(np.array(1.0 + travel))
    )


def test_hysteresis_takes_its_share_on_the_way_down_only():
    band = Band(law=points_law(), port="hands", anchor_port="sole", hysteresis=0.1)
    length = np.array(1.5)
    assert band.tension_n(length, lowering=True) == pytest.approx(0.9 * band.tension_n(length))


@pytest.mark.parametrize(
    ("lengths", "forces", "where"),
    [
        ((1.0,), (0.0,), "length_m"),
        ((1.0, 0.9), (0.0, 5.0), "length_m/1"),
        ((1.0, 1.2), (0.0, -5.0), "force_n/1"),
        ((1.0, 1.2, 1.4), (0.0, 9.0, 5.0), "force_n/2"),
        ((1.0, float("nan")), (0.0, 5.0), "length_m/1"),
        ((1.0, 1.2), (0.0,), "force_n"),
    ],
)
def test_tables_no_band_gives_are_refused_at_the_cell(lengths, forces, where):
    with pytest.raises(InputError) as refused:
        fit_points(lengths, forces)
    assert refused.value.where == where


def test_line_with_slack_finds_a_known_line_through_slack_readings():
    lengths = (0.8, 0.9, 1.1, 1.3, 1.5)
    truth = LinearLaw(rest_m=1.0, rate_n_per_m=80.0)
    fit = fit_linear(lengths, tuple(truth.force_n(np.array(lengths)).tolist()))
    assert fit.law.rest_m == pytest.approx(1.0) and fit.law.rate_n_per_m == pytest.approx(80.0)
    assert fit.rms_n == pytest.approx(0.0, abs=1e-9)


@given(
    st.lists(st.floats(1, 60), min_size=2, max_size=8),
    st.lists(st.floats(0, 80), min_size=8, max_size=8),
)
def test_any_fitted_law_never_pushes_and_never_falls(steps_cm, rises):
    lengths = tuple(np.round(1.0 + np.cumsum(steps_cm) / 100, 6).tolist())
    forces = tuple(np.cumsum([5.0, *rises])[: len(lengths)].tolist())
    reach = np.linspace(0.3, lengths[-1] * 1.3, 400)
    for fit in (
        fit_points(lengths, forces),
        fit_linear(lengths, forces) if max(rises[: len(lengths) - 1]) > 1 else None,
    ):
        if fit is not None:
            pull = fit.law.force_n(reach)
            assert np.all(pull >= 0) and np.all(np.diff(pull) >= -1e-6 * max(pull[-1], 1))


def test_half_a_strand_pulls_the_same_at_half_the_length():
    law = points_law(rest_m=2.0)
    np.testing.assert_allclose(law.halved().force_n(LENGTHS / 2), law.force_n(LENGTHS), atol=1e-9)


def test_unmeasured_rest_length_is_said_to_be_assumed():
    fit = fit_points((1.2, 1.4), (20.0, 40.0))
    assert fit.law.rest_m == pytest.approx(1.0) and "assumed" in plain(fit.notes[0])


@example(
    0.5, [(0.0625, 3.0), (0.5, 1.0), (0.5, 1.0)], False
)  # read far over 3 times the fitted rest length
@given(
    st.floats(0.3, 2.0),
    st.lists(st.tuples(st.floats(0.02, 0.5), st.floats(0.5, 60)), min_size=3, max_size=9),
    st.booleans(),
)
def test_no_fitted_law_pushes_or_falls_while_the_readings_rise(start, steps, slack):
    rises = np.cumsum(np.array(steps), axis=0)
    lengths = (start, *(start + rises[:, 0]))
    forces = (0.0 if slack else 5.0, *(5.0 + rises[:, 1]))
    found = fit_band(tuple(map(float, lengths)), tuple(map(float, forces)))
    assert found.chosen in found.fits and set(found.fits) | set(found.refused) == {
        "points",
        "linear",
        "mooney-rivlin",
    }
    for fit in found.fits.values():
        pull = fit.law.force_n(np.linspace(0.5 * start, lengths[-1], 300))
        assert np.all(pull >= 0) and np.all(np.diff(pull) >= -1e-9 * max(forces)), fit.law
