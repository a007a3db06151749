"""No solved load is absurd: what is held, where it lies, and usual strength; what is held back says
so. The kilograms are common practice, no source.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from tests.looked import looked
from widearc.core.answers import cautions_of
from widearc.core.body import Body, Limits
from widearc.core.curve import Action
from widearc.core.equipment import FreeMass, Stack
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Furniture, Kit, Rules, Thing, Weight
from widearc.core.movement import Setup
from widearc.core.search import Memo, Question, search
from widearc.core.statics import curve
from widearc.core.strength import strength_nm
from widearc.words import plain

BODY = Body()  # 80 kg
DUMBBELLS = tuple(
    Weight(id=f"d{kg}", kind="dumbbell", kg=kg, count=2) for kg in (8, 12, 15, 20, 30, 40, 50, 60)
)
KIT = Kit(
    weights=(
        Weight(id="bar", kind="bar", kg=20),
        *(
            Weight(id=f"p{kg}", kind="plate", kg=kg, count=n)
            for kg, n in ((2.5, 2), (5, 4), (10, 4))
        ),
        Weight(id="p20", kind="plate", kg=20, count=10),
        *DUMBBELLS,
    ),
    furniture=(
        Furniture(id="bench", name="Bench", kind="bench", height_m=0.43),
        Furniture(id="rack", name="Rack", kind="rack", height_m=1.2),
        Furniture(id="box", name="Box", kind="box", height_m=0.3),
    ),
    things=(
        Thing(id="hold", name="Hold", kind="ankle hold"),
        Thing(id="ball", name="Ball", kind="ball"),
    ),
)
STACK = Stack(kg=60.0, angle_deg=(0.0, 60.0, 110.0), radius_m=(0.15, 0.17, 0.13))


def asked(exercise, *loads, **options):
    return curve(Setup(exercise=EXERCISES[exercise], loads=loads, options=options), lowering=False)


def answers(wanted, kit=KIT, **more):
    rules = more.pop("rules", Rules(partner=True))
    question = Question(
        asked=wanted, kit=kit, body=BODY, limits=Limits(), rules=rules, memo=Memo(), **more
    )
    return {
        id_: question.candidate(best)
        for id_ in EXERCISES
        if EXERCISES[id_].ways and (best := question.best(EXERCISES[id_])) is not None
    }


HEAVY_PRESS = asked("back-squat-high", FreeMass(kg=115.0, port="back-high"))
EXTENSION = asked("leg-extension", STACK)
THRUST = asked("hip-thrust", FreeMass(kg=160.0, port="hip-crease"))


@pytest.fixture(scope="module")
def found():
    return {
        "squat": answers(HEAVY_PRESS),
        "extension": answers(EXTENSION),
        "thrust": answers(THRUST),
    }


@pytest.mark.parametrize(
    ("what", "exercise", "by", "kg"),
    [
        ("extension", "leg-extension-dumbbell", "place", 15),
        ("squat", "ball-wall-squat", "place", 60),
        ("squat", "goblet-squat", "goblet", 40),
        ("thrust", "romanian-deadlift", "bar", 120),
    ],
)
def test_a_load_is_held_back_by_what_bears_it_and_the_sentence_says_so(
    found, what, exercise, by, kg
):
    own = found[what][exercise]
    assert own.row.kg == kg
    assert own.held_back.by == by and own.held_back.kg == kg
    assert plain(own.sentence).endswith(plain(own.held_back.words))
    assert f"{kg} kg is the most" in plain(own.sentence)


def test_no_loaded_set_up_asks_more_than_usual_strength_or_a_quarter_over_the_wanted_peak(found):
    """Each exact curve is looked at sample by sample, joints that are held among them."""
    at_the_edge = 0
    for what, wanted in (("squat", HEAVY_PRESS), ("extension", EXTENSION), ("thrust", THRUST)):
        for own in looked(found[what].values(), 20):
            if not own.row.kg:
                continue
            actions = {*own.target.actions, *own.exercise.prime, Action.KE, Action.HE}
            for action in actions - {Action.AB, Action.AD}:
                if action.joint not in own.curve.demand_nm:
                    continue
                demand = action.sign * own.curve.demand_nm[action.joint][0]
                usual = strength_nm(
                    action.label,
                    own.curve.motion.angles[action.joint][0],
                    mass_kg=80,
                    stature_m=1.8,
                    sex="mean" if BODY.sex is None else BODY.sex.value,
                )
                there = wanted.demand_nm.get(action.joint, np.zeros((1, 1)))
                most = np.maximum(usual, 1.25 * max(0.0, float((action.sign * there).max())))
                assert float((demand / most).max()) < 1.021, (what, own.exercise.id, action)
                at_the_edge += float((demand / most).max()) > 0.9
    assert at_the_edge > 5


def test_an_effort_that_holds_a_load_back_is_named_and_gives_way_to_a_logged_set(found):
    own = found["thrust"]["one-leg-romanian-deadlift"]
    assert own.held_back.by == "hip_extension" and not own.held_back.kg
    assert "hip: more would pass usual hip extension strength" in plain(own.sentence)
    stronger = answers(THRUST, shown_effort={"hip_extension": 2.0})["one-leg-romanian-deadlift"]
    assert stronger.row.kg > own.row.kg and stronger.held_back is None


def test_what_the_wanted_lift_itself_puts_there_is_no_more_a_ceiling():
    wanted = asked("deadlift", FreeMass(kg=180.0, port="hands"))
    own = answers(wanted)["romanian-deadlift"]
    assert 120 < own.row.kg <= 180


def test_a_grip_holds_back_what_hangs_in_the_hands_and_nothing_else():
    weak = answers(HEAVY_PRESS, rules=Rules(grip_kg=12.0))
    assert weak["dumbbell-squat"].row.kg == 24 and weak["dumbbell-squat"].held_back.by == "grip"
    assert "12 kg in one hand" in plain(weak["dumbbell-squat"].sentence)
    assert weak["goblet-squat"].row.kg == 40


@pytest.mark.parametrize(
    ("rack", "rules", "most"),
    [(True, Rules(to_shoulders_kg=60.0), 120.0), (False, Rules(to_shoulders_kg=60.0), 60.0)],
)
def test_without_a_rack_the_front_rack_holds_what_is_brought_to_the_shoulders(rack, rules, most):
    kit = KIT if rack else KIT.without(frozenset({"rack"}))
    own = answers(HEAVY_PRESS, kit, rules=rules)["front-squat"]
    assert own.row.kg <= most
    assert (own.row.kg > 60) is rack
    assert rack or (
        own.held_back.by == "rack" and "60 kg brought to the shoulders" in plain(own.sentence)
    )


def test_body_weight_over_usual_strength_is_shown_with_a_caution_and_weights_on_it_are_not():
    own = answers(asked("lying-leg-curl", replace(STACK, kg=30.0)))["nordic-curl"]
    assert own.row.kg == 0 and own.over_strength == (Action.KF,)
    said = [c for c in map(plain, cautions_of(own)) if "more knee flexion than is usual" in c]
    assert len(said) == 1 and "no load at all" in said[0]


def test_the_two_hands_of_an_unequal_pair_are_looked_at_one_by_one():
    wanted = asked("split-squat", FreeMass(kg=160.0, port="hands"))
    own = answers(wanted)["offset-lunge"]
    assert max(piece.kg for piece in own.pieces) <= 50


def test_a_ranking_shows_which_ceiling_held_a_load_back():
    ranking = search(HEAVY_PRESS, KIT, body=BODY, limits=Limits(), rules=Rules(partner=True))
    held = {c.exercise.id: c.held_back.by for c in ranking.candidates if c.held_back is not None}
    assert held["goblet-squat"] == "goblet"
    assert "back-squat-high" not in held


def test_set_ups_at_the_edge_of_what_balances_have_ceilings_too():
    """Where a client's ankle ends the range, each total is a set-up of its own in the search."""
    question = Question(
        asked=asked("walking-lunge", FreeMass(kg=40.0, port="hands")),
        kit=KIT,
        body=BODY,
        limits=Limits(),
        rules=Rules(partner=True),
        memo=Memo(),
    )
    alone = [
        part
        for part in question.prepared(EXERCISES["reverse-nordic"]).parts
        if any(row.kg > 40 for row in part.batch.unloaded)
    ]
    assert alone
    for part in alone:
        heavy = np.array([row.kg > 40 for row in part.batch.unloaded])
        assert not question.allowed(part)[heavy].any()
