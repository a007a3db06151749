"""Groups of stand-ins: the rule itself, for every pair of leader and stand-in."""

from __future__ import annotations

from dataclasses import replace

import pytest

from tests.core.test_brute import BODY, KIT, LIMITS, PRESS, RULES
from widearc.core.search import Question, chance_better, grouped, ranked
from widearc.core.search.groups import _in_stages


@pytest.fixture(scope="module")
def groups():
    question = Question(asked=PRESS, kit=KIT, body=BODY, limits=LIMITS, rules=RULES)
    return grouped(ranked(question).candidates, RULES)


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
    assert grouped((), RULES) == ()


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
