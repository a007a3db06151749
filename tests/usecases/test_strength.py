"""Strength from sets that were done: the scale, its bounds, effort along the range, what is never
said.
"""

from __future__ import annotations

import numpy as np
import pytest

from tests.conftest import NOW
from widearc import store, usecases
from widearc.core.body import Body
from widearc.core.equipment import FreeMass, Stack
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import curve
from widearc.core.strength import (
    Scale,
    can_predict,
    current,
    effort_of_reps,
    reps_left_words,
    scales_of_set,
    strength_nm,
)
from widearc.store.errors import MissingError
from widearc.usecases import SheetError
from widearc.words import plain


def test_reps_to_effort_by_both_formulas():
    """Epley 1985: 1/(1 + n/30); Brzycki 1993: (37 - n)/36. At 10 reps 75.0 and 75.0 % (both from
    memory).
    """
    assert effort_of_reps(10) == pytest.approx(0.75)
    assert effort_of_reps(10, "brzycki") == pytest.approx(0.75)
    assert effort_of_reps(1) == pytest.approx(30 / 31)
    for n, formula in ((31, "epley"), (21, "brzycki"), (0, "epley")):
        with pytest.raises(InputError):
            effort_of_reps(n, formula)
    with pytest.raises(InputError):
        effort_of_reps(5, "guess")


ANGLE = np.linspace(1.6, 0.2, 60)
USUAL = {
    a: strength_nm(a, ANGLE, mass_kg=80, stature_m=1.8, sex="mean")
    for a in ("knee_extension", "hip_extension")
}


def test_a_set_at_a_known_strength_gives_that_strength_back():
    """A person 1.3 times the usual curve, knee demand a constant share of it: 8 reps with 2 left
    mean 75 %.
    """
    demand = {
        "knee_extension": 0.75 * 1.3 * USUAL["knee_extension"],
        "hip_extension": 0.2 * USUAL["hip_extension"],
    }
    knee, hip = scales_of_set(demand, USUAL, reps=8, reserve=2)
    assert (knee.action, knee.kappa, knee.at_least) == ("knee_extension", pytest.approx(1.3), False)
    assert (hip.action, hip.at_least, hip.kappa) == (
        "hip_extension",
        True,
        pytest.approx(0.2 / 0.75),
    )
    assert 0.03 < knee.error_share < 0.10
    doubled = scales_of_set({a: 2 * d for a, d in demand.items()}, USUAL, reps=8, reserve=2)
    assert [s.kappa for s in doubled] == pytest.approx([2 * knee.kappa, 2 * hip.kappa])
    with pytest.raises(InputError):
        scales_of_set({"knee_extension": 0 * ANGLE}, USUAL, reps=8, reserve=2)


def scale(kappa, at_least=False):
    return Scale(
        action="knee_extension", kappa=kappa, error_share=0.05, demand_nm=100, at_least=at_least
    )


def test_the_newest_set_speaks_unless_a_bound_is_more():
    assert current([scale(1.0), scale(0.9)])["knee_extension"].kappa == 0.9
    assert current([scale(1.0), scale(0.5, True)])["knee_extension"].kappa == 1.0
    assert current([scale(1.0), scale(1.4, True)])["knee_extension"].kappa == 1.4
    assert current([]) == {}


def test_what_is_never_said():
    assert plain(reps_left_words(1.02)) == "above the estimate"
    assert plain(reps_left_words(0.4)) == "30+ reps"
    assert plain(reps_left_words(0.75)) == "about 10 reps to the limit"
    assert (
        can_predict(scale(1.0), 129)
        and not can_predict(scale(1.0), 131)
        and not can_predict(scale(1.0), 69)
    )


def extension(kg):
    return curve(
        Setup(
            exercise=EXERCISES["leg-extension"],
            body=Body(),
            loads=(Stack(kg=kg, angle_deg=(-20, 120), radius_m=(0.12, 0.12)),),
        ),
        lowering=False,
    )


def log(con, kg=40, **more):
    given = {"reps": 8, "reserve": 2, "side": "both", "formula": "epley", "now": NOW} | more
    usecases.log_set(con, 1, 1, extension(kg), "Leg extension, 40 kg", **given)


def test_the_logged_set_itself_comes_back_as_its_own_effort(demo):
    assert usecases.efforts(extension(40), usecases.strength_of(demo, 1, 1)) == (), (
        "nothing is known before a set"
    )
    log(demo)
    (knee,) = usecases.efforts(extension(40), usecases.strength_of(demo, 1, 1))
    assert float(knee.share.max()) == pytest.approx(0.75) and knee.known
    assert "about 10 reps to the limit" in plain(knee.words) and "sticking point at" in plain(
        knee.words
    )
    (heavier,) = usecases.efforts(extension(60), usecases.strength_of(demo, 1, 1))
    assert not heavier.known and "too far" in plain(heavier.words)
    usecases.take_back(demo, 1, store.last_change(demo, 1, "clients").id, now=NOW)
    assert usecases.strength_of(demo, 1, 1) == {}


def test_the_weaker_side_is_what_counts_and_a_removed_set_no_longer_does(demo):
    log(demo, 40, side="left")
    log(demo, 50, side="right")
    left = usecases.strength_of(demo, 1, 1)["knee_extension"].kappa
    sets = store.strength_sets(demo, 1, 1)
    assert left == pytest.approx(min(s.scales[0].kappa for s in sets))
    assert usecases.remove_set(demo, 1, sets[0].id, now=NOW) == 1
    assert usecases.strength_of(demo, 1, 1)["knee_extension"].kappa > left
    with pytest.raises(MissingError):
        usecases.remove_set(demo, 1, 999, now=NOW)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"reps": 0}, "reps"),
        ({"reserve": 21}, "reserve"),
        ({"side": "up"}, "side"),
        ({"formula": "guess"}, "formula"),
        ({"reps": 30, "reserve": 5}, "reps"),
    ],
)
def test_a_wrong_set_is_named_at_its_field(demo, change, field):
    with pytest.raises(SheetError) as refused:
        log(demo, **change)
    assert list(refused.value.messages) == [field] and store.strength_sets(demo, 1, 1) == ()


def test_a_squat_speaks_for_one_joint_and_bounds_the_other(demo):
    squat = curve(
        Setup(
            exercise=EXERCISES["back-squat-high"],
            body=Body(),
            loads=(FreeMass(kg=80, port="back-high"),),
        ),
        lowering=False,
    )
    usecases.log_set(
        demo, 1, 1, squat, "Back squat", reps=5, reserve=1, side="both", formula="brzycki", now=NOW
    )
    (row,) = store.strength_sets(demo, 1, 1)
    assert [s.at_least for s in row.scales] == [False] + [True] * (len(row.scales) - 1) and len(
        row.scales
    ) >= 2
    found = usecases.efforts(squat, usecases.strength_of(demo, 1, 1))
    assert float(found[0].share.max()) == pytest.approx(effort_of_reps(6, "brzycki"))
