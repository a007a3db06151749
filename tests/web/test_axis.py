"""Marks of an axis: round steps, both ends, places that belong to their values."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from widearc.web.drawing.axis import (
    STEPS,
    degree_ticks,
    every,
    figures,
    scale_ticks,
    share_ticks,
    value_ticks,
)


def test_the_multiples_of_a_step_have_both_ends_that_are_one():
    assert every(10, 0, 30).tolist() == [0, 10, 20, 30]
    assert every(10, 0.1, 29.9).tolist() == [10, 20]
    assert every(10, 1e-9, 30 - 1e-9).tolist() == [0, 10, 20, 30]
    assert every(10, 1, 9).size == 0


def test_zero_has_no_sign_and_a_minus_is_one():
    assert [figures(v) for v in (-0.0, -12.5, 1e-12)] == ["0", "−12.5", "0"]


@pytest.mark.parametrize("turned", [False, True])
def test_a_bend_is_marked_every_ten_degrees_and_written_every_thirty(turned):
    angle = np.linspace(-15.0, 95.0, 221)
    x = np.linspace(0.0, 220.0, 221)
    ticks = degree_ticks(angle[::-1] if turned else angle, x)
    assert [t.text for t in ticks if t.text] == ["0°", "30°", "60°", "90°"]
    assert len(ticks) == 11
    at = {t.text: t.at for t in ticks}
    assert at["30°"] == pytest.approx(130.0 if turned else 90.0)


def test_a_lift_without_an_angle_is_marked_at_start_middle_and_end():
    ticks = share_ticks(np.array([40.0, 90.0, 240.0]))
    assert [(t.at, t.text) for t in ticks] == [(40.0, "0 %"), (140.0, "50 %"), (240.0, "100 %")]


@given(st.floats(-3000.0, 0.0), st.floats(1.0, 3000.0), st.floats(100.0, 400.0))
def test_marks_of_a_quantity_stand_at_their_values_and_never_crowd(low, high, tall):
    per = tall / (high - low)
    zero = 20.0 + high * per
    ticks = value_ticks(low, high, zero, per)
    for tick in ticks:
        value = float(tick.text.replace("−", "-"))
        assert tick.at == pytest.approx(zero - per * value, abs=0.06)
    gaps = np.diff([t.at for t in ticks])
    assert (gaps <= -25.9).all() and "0" in {t.text for t in ticks}


def test_a_step_is_never_smaller_than_asked_for():
    assert [t.text for t in value_ticks(0, 12, 100, 30, least=10)] == ["0", "10"]
    assert len(value_ticks(0, 12, 100, 30)) == 13 and 1 in STEPS


@given(st.floats(-5.0, 5.0), st.floats(0.01, 900.0))
def test_a_scale_has_some_marks_and_at_most_eight(low, span):
    ticks = scale_ticks(low, low + span, lambda v: 10 * v)
    assert 2 <= len(ticks) <= 8
    for tick in ticks:
        assert tick.at == pytest.approx(10 * float(tick.text.replace("−", "-")), abs=0.06)
