"""The same set-up with every other weight that the stock makes."""

from __future__ import annotations

import pytest

from widearc.core.equipment import Cable, CornerBar, FreeMass, Sled, Stack
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Kit, Machine, Piece, Weight
from widearc.core.movement import Setup
from widearc.core.progression.weights import other_weights, weight_of

KIT = Kit(
    weights=(
        Weight(id="bar", kind="bar", kg=20),
        Weight(id="p10", kind="plate", kg=10, count=4),
        Weight(id="p5", kind="plate", kg=5, count=2),
        Weight(id="d8", kind="dumbbell", kg=8, count=2),
        Weight(id="d12", kind="dumbbell", kg=12, count=1),
        Weight(id="k16", kind="kettlebell", kg=16, count=1),
    )
)
TOWER = Machine(
    id="t",
    name="Tower",
    kind="cable",
    quantities={"smallest_kg": 5.0, "largest_kg": 20.0, "step_kg": 5.0},
)


def of(exercise, load):
    return Setup(exercise=EXERCISES[exercise], loads=(load,))


@pytest.mark.parametrize(
    ("setup", "machine", "kg"),
    [
        (of("back-squat-high", FreeMass(kg=30, port="back-high")), None, [20, 30, 40, 50, 60, 70]),
        (of("goblet-squat", FreeMass(kg=12, port="goblet")), None, [8, 12, 16]),
        (of("leg-press-45", Sled(kg=40, empty_kg=38)), None, [0, 10, 20, 30, 40, 50]),
        (of("back-squat-high", FreeMass(kg=30, port="back-high")), TOWER, [20, 30, 40, 50, 60, 70]),
    ],
    ids=["bar", "goblet", "sled", "bar, whatever the machine"],
)
def test_every_total_of_its_stock_is_a_set_up(setup, machine, kg):
    found = other_weights(setup, (), KIT, machine)
    assert [w.kg for w in found] == kg
    for one in found:
        assert weight_of(one.setup) == one.kg
        assert sum(p.kg * p.number for p in one.pieces) == one.kg
        assert one.setup.exercise is setup.exercise and one.setup.options == setup.options


def test_what_it_is_made_of_stays_what_it_is_made_of():
    setup = of("split-squat", FreeMass(kg=16, port="hands"))
    pair = (Piece(item="d8", kind="dumbbell", label="8", number=2, kg=8),)
    made = other_weights(setup, pair, KIT)
    assert [(w.kg, w.pieces[0].kind, w.pieces[0].number) for w in made] == [(16, "dumbbell", 2)]
    bar = (Piece(item="bar", kind="bar", label="bar", number=1, kg=20),)
    assert other_weights(setup, bar, KIT) == (), "no bar is held so"


def test_nothing_weighs_nothing_and_two_weights_are_left_alone():
    assert weight_of(Setup(exercise=EXERCISES["bodyweight-squat"])) is None
    two = Setup(
        exercise=EXERCISES["split-squat"],
        loads=(FreeMass(kg=8, port="hand-left"), FreeMass(kg=12, port="hand-right")),
    )
    assert weight_of(two) is None and other_weights(two, (), KIT) == ()
    assert other_weights(of("goblet-squat", FreeMass(kg=12, port="goblet")), (), Kit()) == ()


def test_stack_cable_and_corner_change_their_own_number():
    stack = Stack(kg=10, angle_deg=(0.0, 100.0), radius_m=(0.1, 0.1))
    assert weight_of(of("leg-extension", stack)) == 10.0
    corner = CornerBar(plate_kg=15, bar_kg=20, bar_m=2.2, sleeve_m=2.0, hand_m=2.1, port="goblet")
    assert weight_of(Setup(exercise=EXERCISES["corner-bar-squat"], loads=(corner,))) == 15.0
    cable = Cable(kg=10, port="ankle", pulley=(1.0, 0.1), ratio=0.5)
    setup = Setup(exercise=EXERCISES["leg-extension-cable"], loads=(cable,))
    assert [w.kg for w in other_weights(setup, (), KIT, TOWER)] == [5, 10, 15, 20]
