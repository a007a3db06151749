"""Groups of stand-ins: the rule itself, for every pair of leader and stand-in."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from tests.core.test_brute import BODY, KIT, LIMITS, MEMO, PRESS, RULES
from tests.looked import looked
from widearc.core.equipment import FreeMass
from widearc.core.exercises import EXERCISES, LIFTS, is_same_lift
from widearc.core.movement import Setup
from widearc.core.search import Question, chance_better, grouped, ranked, sore_of, variants_of
from widearc.core.search.groups import _in_stages
from widearc.core.statics import curve, joint_peak_nm
from widearc.words import plain


@pytest.fixture(scope="module")
def groups():
    question = Question(asked=PRESS, kit=KIT, body=BODY, limits=LIMITS, rules=RULES)
    return grouped(ranked(question).candidates, question)


def leader(group):
    return max(group, key=lambda c: c.uncertainty.usual)


def test_no_one_stands_behind_a_group_who_may_well_be_as_good_as_its_best(groups):
    assert len(groups) > 2
    for number, group in enumerate(groups):
        best = leader(group)
        for one in group:
            assert one is best or chance_better(one.uncertainty, best.uncertainty) >= 0.25
        for one in (c for behind in groups[number + 1 :] for c in behind):
            assert one.uncertainty.usual <= best.uncertainty.usual
            assert chance_better(one.uncertainty, best.uncertainty) < 0.25


def test_each_stand_in_is_in_one_group(groups):
    names = [c.exercise.id for group in groups for c in group]
    assert len(names) == len(set(names)) > 20


def test_a_beginner_s_rear_raised_squat_waits_for_the_plain_one(groups):
    every = [c for group in groups for c in group]
    place = {c.exercise.id: n for n, c in enumerate(every)}
    assert "split-squat" in place and "rear-raised-split-squat" in place
    # the plain one put behind everything: the later stage goes after it, nothing is lost
    plain = next(c for c in every if c.exercise.id == "split-squat")
    turned = (*(tuple(c for c in g if c is not plain) for g in groups), (plain,))
    stepped = [c for g in _in_stages(turned, replace(RULES, beginner=True)) for c in g]
    order = [c.exercise.id for c in stepped]
    assert sorted(order) == sorted(place)
    assert order.index("rear-raised-split-squat") > order.index("split-squat")


def sore_question(**rules):
    rules = replace(RULES, sore={"knee": "left"}, **rules)
    return Question(asked=PRESS, kit=KIT, body=BODY, limits=LIMITS, rules=rules, memo=MEMO)


def peak_either_leg(own):
    """By hand: every knee that the movement has, whichever leg's."""
    names = [n for n in own.motion.angles if n == "knee" or n.endswith("_knee")]
    full = curve(own.setup, lowering=False)
    every = {**full.demand_nm, **full.other_nm}
    return max(float(np.abs(every[n][0]).max()) for n in names)


def test_what_asks_more_of_a_sore_joint_on_either_leg_comes_last_unless_turned_off():
    question = sore_question()
    candidates = ranked(question).candidates
    sore = sore_of(question.rules, PRESS, question.target)
    wanted = peak_either_leg(PRESS)
    over = {c.exercise.id for c in candidates if peak_either_leg(c.curve) > 1.05 * wanted}
    assert {c.exercise.id for c in candidates if sore.harder(c.curve)} == over
    assert 3 < len(over) < len(candidates) - 3
    order = [c.exercise.id for g in grouped(candidates, question) for c in g]
    assert set(order[-len(over) :]) == over and len(order) == len(candidates)
    either = sore_question(sore_last=False)
    mixed = [c.exercise.id for g in grouped(candidates, either) for c in g]
    assert set(mixed[-len(over) :]) != over and sorted(mixed) == sorted(order)


def test_a_split_squat_s_rear_knee_is_what_it_asks_of_a_sore_knee():
    question = sore_question()
    split = next(c for c in ranked(question).candidates if c.exercise.id == "split-squat")
    front = float(np.abs(split.curve.demand_nm["knee"][0]).max())
    assert joint_peak_nm(split.curve, "knee") == pytest.approx(peak_either_leg(split.curve))
    assert joint_peak_nm(split.curve, "knee") > front + 5


def test_inside_a_group_the_kindest_to_a_sore_joint_comes_first_then_the_steadiest():
    question = sore_question()
    sore = sore_of(question.rules, PRESS, question.target)
    failing = {"yes": 0, "with stops": 1, "no": 2}
    looked_at = 0
    for group in grouped(ranked(question).candidates, question):
        lead = variants_of((group,))
        rows = [c for c in group if c.exercise.id not in lead]
        keys = [
            (sore.step(c), -c.exercise.steadiness, failing[c.exercise.fails_alone]) for c in rows
        ]
        assert keys == sorted(keys)
        looked_at += len(rows) > 1
    assert looked_at > 1


def test_curves_that_are_the_same_are_one_row_with_its_variants(groups):
    lead = variants_of(groups)
    every = {c.exercise.id: c for g in groups for c in g}
    squats = {"bodyweight-squat", "loop-squat", "ball-squeeze-squat"}
    assert len({lead.get(id_, id_) for id_ in squats}) == 1
    number = {c.exercise.id: n for n, g in enumerate(groups) for c in g}
    for variant, first in looked(lead.items(), 2):
        assert number[variant] == number[first]
        for own, other in zip(
            every[variant].comparison.bins, every[first].comparison.bins, strict=True
        ):
            assert np.abs(own - other).sum() <= 0.02 * max(
                float(b.sum()) for b in every[first].comparison.bins
            )
    # a row is followed by its variants
    order = [c.exercise.id for g in groups for c in g]
    for variant, first in lead.items():
        between = order[order.index(first) + 1 : order.index(variant)]
        assert all(lead.get(id_) == first for id_ in between)


def test_the_same_lift_with_another_load_comes_first_where_its_own_load_is_gone():
    """A hip thrust with a dumbbell or plates where the bar is taken; where the bar is free, the
    thrust itself is no stand-in for itself.
    """
    thrust = curve(
        Setup(exercise=EXERCISES["hip-thrust"], loads=(FreeMass(kg=40.0, port="hip-crease"),)),
        lowering=False,
    )
    free = Question(asked=thrust, kit=KIT, body=BODY, limits=LIMITS, rules=RULES, memo=MEMO)
    assert free.is_here
    assert "hip-thrust" not in {c.exercise.id for c in ranked(free).candidates}
    left = {e.exercise.id: plain(e.reason) for e in ranked(free).excluded}
    assert left["hip-thrust"] == "this is the exercise to replace"
    gone = replace(free, taken=frozenset({"bar", "p20"}))
    assert not gone.is_here
    groups = grouped(ranked(gone).candidates, gone)
    own = next(c for c in groups[0] if c.exercise.id == "hip-thrust")
    assert own.pieces and own.pieces[0].kind != "bar"
    assert all(is_same_lift("hip-thrust", c.exercise.id) for c in groups[0])
    assert all(c.uncertainty.usual >= 0.5 for c in groups[0])


def test_entries_of_one_lift_exist_and_train_what_the_lift_trains():
    for lift in looked(LIFTS, 12):
        known = [EXERCISES[id_] for id_ in lift if id_ in EXERCISES]
        assert len(known) > 1
        assert frozenset.intersection(*(frozenset(e.prime) for e in known)), lift
