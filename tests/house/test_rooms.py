"""What owns itself: loads, families, columns and screens say all that others ask of them."""

from __future__ import annotations

import pytest

from widearc.core.answers.columns import COLUMNS, FILTERS
from widearc.core.equipment import LOADS, Cable, FreeMass, Sled, Spring, SpringLoad
from widearc.core.errors import RangeError
from widearc.core.exercises import EXERCISES
from widearc.core.exercises.families import FAMILIES
from widearc.core.movement import Setup
from widearc.core.movement.families import closure_of
from widearc.core.statics import curve
from widearc.core.units import CENTIMETRE
from widearc.usecases.arc.felt import measure_again
from widearc.web.forms.loads import inputs, refusal
from widearc.words import plain


@pytest.mark.parametrize("kind", LOADS.values(), ids=lambda kind: kind.kind)
def test_a_kind_of_load_says_how_it_is_asked_for_named_and_measured_again(kind):
    assert kind.words and kind.short and kind.again and kind.FIELDS
    keys = [shown.key for shown in inputs(kind.kind)]
    assert len(keys) == len(set(keys)) > 0
    for number in kind.numbers():
        assert number.low < number.high and number.name
    assert len({other.rank for other in LOADS.values()}) == len(LOADS)


def test_every_family_has_a_closure_and_every_exercise_a_family():
    used = {entry.family for entry in EXERCISES.values()}
    assert used == set(FAMILIES) and len(used) > 15
    moved = [entry for entry in EXERCISES.values() if entry.compared]
    assert len(moved) > 80
    for entry in moved:
        assert callable(closure_of(entry)), entry.id


def test_columns_do_not_share_a_name_a_rank_or_a_place_among_the_weights():
    ranks = [column.rank for column in COLUMNS.values()]
    weights = [column.weighed for column in COLUMNS.values() if column.weighed]
    assert len(ranks) == len(set(ranks)) > 8 and len(weights) == len(set(weights)) > 3
    filters = [column.filter for column in FILTERS]
    assert len(filters) == len(set(filters)) > 2 and "" not in filters


def test_a_range_is_said_anew_in_another_unit_from_its_numbers():
    error = RangeError("/loads/1/length_m", 7.0, 0.01, 5.0, " m")
    assert plain(error.said) == "/loads/1/length_m: 7.0 is not allowed; from 0.01 to 5 m"
    assert plain(error.between(lambda m: m / CENTIMETRE.per, CENTIMETRE.said)) == "from 1 to 500 cm"
    field, words = refusal(error, ["mass", "chain"], EXERCISES["goblet-squat"])
    assert field == "l1-long" and "700 cm" in words and "from 1 to 500 cm" in words
    # a load that is not in the form is named by its pointer's first part, never guessed
    assert refusal(error, ["mass"], EXERCISES["goblet-squat"])[0] != "l1-long"


SPRINGS = SpringLoad(spring=Spring(start_n=20, end_n=160, travel_m=0.9), count=2)


@pytest.mark.parametrize(
    ("exercise", "loads", "first"),
    [
        ("carriage-push", [Sled(kg=20, empty_kg=20), SPRINGS], SPRINGS),
        ("goblet-squat", [FreeMass(kg=16, port="goblet")], FreeMass),
        (
            "goblet-squat",
            [FreeMass(kg=16, port="goblet"), Cable(kg=8, port="goblet", pulley=(0.4, 0.1))],
            Cable,
        ),
        ("bodyweight-squat", [], FreeMass),
    ],
)
def test_what_errs_most_is_measured_again_first(exercise, loads, first):
    """A carriage is level: its springs are weighed, and no rail's angle is read."""
    found = curve(Setup(exercise=EXERCISES[exercise], loads=loads))
    assert measure_again(found, "middle") == first.again
