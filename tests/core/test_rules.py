"""What to do next time: every rule over scripted histories, and what practice leaves open."""

from __future__ import annotations

import pytest

from widearc.core.body import Body
from widearc.core.equipment import FreeMass
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Kit, Weight
from widearc.core.movement import Setup
from widearc.core.progression.aims import Aim, Occasion, OwnRule, SetSeen
from widearc.core.progression.answer import advised
from widearc.core.progression.feel import by_feel
from widearc.core.progression.ladder import ladder_of
from widearc.core.progression.rules import RULE_WORDS, RULES, event_of, propose
from widearc.words import plain

TODAY = 700
BEFORE = TODAY - 3


def did(*reps, day=BEFORE, effort=1.0, **more):
    """Return a session of sets; a pair of reps is left and right."""
    sets = []
    for n in reps:
        sides = zip(("left", "right"), n, strict=True) if isinstance(n, tuple) else (("both", n),)
        sets += [SetSeen(side=side, reps=count, **more) for side, count in sides]
    return Occasion(day=day, sets=tuple(sets), effort=effort)


def asked(rule, *seen, today=TODAY, **aim):
    return propose(Aim(rule=rule, low=8, high=10, **aim), seen, today)


def test_every_rule_has_words_and_starts_from_nothing():
    assert set(RULES) == set(RULE_WORDS)
    for rule in RULES:
        first = asked(rule)
        assert (first.step, first.sets, first.reps) == (0, 3, 8)


@pytest.mark.parametrize(
    ("rule", "sets", "step", "reps", "words"),
    [
        ("all", (10, 10, 10), 1, 10, "Every set reached 10"),
        ("all", (10, 10, 9), 0, 10, "2 of 3 sets reached 10; one stopped at 9."),
        ("all", (12, 11, 10), 1, 10, "Every set reached 10"),
        ("all", (10, 10), 0, 10, "1 set fewer than planned."),
        ("all", ((10, 10), (10, 10), (9, 10)), 0, 10, "the left side stopped at 9"),
        ("all", ((10, 10), (10, 10), (10, 10)), 1, 10, "Every set"),
        ("first", (10, 8, 8), 1, 8, "The first set reached 10"),
        ("first", (9, 10, 10), 0, 10, "The first set stopped at 9 of 10."),
        ("first", ((10, 9), (8, 8)), 0, 10, "stopped at 9 of 10"),
        ("reps", (10, 10, 10), 1, 8, "Every set reached 10"),
        ("reps", (9, 9, 8), 0, 9, "0 of 3 sets reached 10; one stopped at 8."),
        ("reps", (10, 10, 9), 0, 10, "one stopped at 9"),
    ],
)
def test_rules_of_reps(rule, sets, step, reps, words):
    found = asked(rule, did(*sets))
    assert (found.step, found.reps) == (step, reps)
    assert words in plain(found.reason)


@pytest.mark.parametrize("rule", [rule for rule in RULES if rule != "minute"])
def test_form_comes_before_any_step(rule):
    found = asked(rule, did(10, 10, 10, form="knees cave"))
    assert found.step == 0 and "knees cave" in plain(found.reason)


def test_a_minute_of_slow_control():
    assert asked("minute", did(8, 8, 8, seconds=62.0)).step == 1
    short = asked("minute", did(8, 8, 8, seconds=44.0))
    assert short.step == 0 and plain(short.reason).startswith("44 s so far")
    # one side's minute is not the other's
    sides = Occasion(
        day=BEFORE,
        sets=(
            SetSeen(reps=8, side="left", seconds=70.0),
            SetSeen(reps=8, side="right", seconds=50.0),
        ),
        effort=1.0,
    )
    assert asked("minute", sides).step == 0
    # few reps are no failure where time is counted
    assert asked("minute", did(3, 3, 3, seconds=61.0)).step == 1
    assert asked("minute", did(8, form="swing", seconds=80.0)).step == 0


def test_a_percent_a_week_allows_what_the_weeks_on_the_rung_make_and_warns():
    one = asked("percent", did(10, 10, 10), percent=0.05)
    assert one.step == 1 and one.most == pytest.approx(0.05)
    # job.md: 5 % is 1.80 times in 12 weeks
    assert "1.8" in plain(one.warns) and "twelve weeks" in plain(one.warns)
    long = [did(10, 10, 10, day=TODAY - d) for d in (21, 14, 7)]
    assert asked("percent", *long, percent=0.05).most == pytest.approx(1.05**3 - 1)
    lighter = did(10, 10, 10, day=TODAY - 28, effort=0.9)
    assert asked("percent", lighter, *long, percent=0.05).most == pytest.approx(1.05**3 - 1)


def test_a_light_week_comes_after_so_many_by_the_trainers_own_numbers():
    weeks = [did(10, 10, 10, day=TODAY - d) for d in (28, 21, 14, 7)]
    found = asked("deload", *weeks, weeks=4, deload=0.6)
    assert found.share == 0.6 and "4 weeks" in plain(found.reason)
    assert asked("deload", *weeks[1:], weeks=4).step == 1
    light = [*weeks[:2], did(10, day=TODAY - 14, effort=0.6), weeks[3]]
    assert asked("deload", *light, weeks=4).share is None, "counted from the light one"


@pytest.mark.parametrize(
    ("seen", "event"),
    [
        ((did(10, 10, 10, pain=3),), "pain"),
        ((did(10, 10, 6),), "failure"),
        ((did(10, 10, 6, reserve=3),), ""),
        ((did(10, 10, 10, day=TODAY - 12),), "missed"),
        ((did(10, 10, 10), did(10, 10, 10, effort=0.7)), "light"),
        ((did(10, 10, 10), did(10, 10, 10, effort=0.98)), ""),
    ],
)
def test_what_practice_leaves_open_is_asked_once_and_offered_again(seen, event):
    aim = Aim(low=8, high=10)
    assert event_of(aim, seen, TODAY) == event
    if not event:
        return
    unknown = propose(aim, seen, TODAY)
    assert unknown.asks == event and unknown.step == 0 and unknown.share is None
    for act, wanted in (("same", (0, None)), ("below", (-1, None)), ("share", (0, 0.8))):
        own = {event: OwnRule(act=act, share=0.8, reason="as agreed")}
        known = propose(Aim(low=8, high=10, own=own), seen, TODAY)
        assert (known.step, known.share) == wanted and not known.asks


def test_back_to_what_was_done_before_a_light_week():
    own = {"light": OwnRule(act="back")}
    seen = (did(10, 10, 10, effort=1.0), did(10, 10, 10, effort=0.6))
    found = propose(Aim(low=8, high=10, own=own), seen, TODAY)
    assert found.share == pytest.approx(1 / 0.6)


@pytest.mark.parametrize(
    ("seen", "step", "words"),
    [
        ((), 0, "easiest"),
        ((did(10, 10, 10, form="knees cave"),), 0, "First form"),
        ((did(10, 10, 10, form="depth lost"),), 0, "Then range"),
        ((did(10, 10, 10, form="swing"),), 0, "Then tempo"),
        ((did(10, 9, 9, seconds=30.0),), 0, "Then duration"),
        ((did(10, 9, 9, seconds=61.0),), 1, "a step harder"),
        ((did(10, 10, 10),), 1, "a step harder"),
        ((did(10, 10, 10, pain=2),), -1, "hurt"),
    ],
)
def test_by_feel_says_no_number_and_keeps_the_order(seen, step, words):
    found = by_feel(Aim(low=8, high=10), seen)
    said = plain(found.reason)
    assert found.step == step and words in said
    assert not any(c.isdigit() for c in said)


def ladder(*pairs, now):
    kit = Kit(weights=tuple(Weight(id=f"d{k}", kind="dumbbell", kg=k, count=2) for k in pairs))
    setup = Setup(
        exercise=EXERCISES["split-squat"], body=Body(), loads=(FreeMass(kg=2 * now, port="hands"),)
    )
    return ladder_of(setup, (), kit)


def test_a_proposal_stands_on_a_rung_that_is_there():
    aim, met = Aim(low=8, high=10), (did(10, 10, 10),)
    fine = ladder(20, 21, now=20)
    near = advised(fine, aim, met, TODAY)
    assert fine.rungs[near.rung].kg == 42 and near.bridge is None
    # 20 to 26 is 30 %: over it with fewer reps
    far = ladder(20, 26, now=20)
    wide = advised(far, aim, met, TODAY)
    assert far.rungs[wide.rung].kg == 52
    assert wide.proposal.reps == wide.bridge.after < 10
    assert "wide" in plain(wide.proposal.reason)
    # nothing above
    top = ladder(16, 20, now=20)
    last = advised(top, aim, met, TODAY)
    assert last.rung == top.present and last.proposal.step == 0
    # one rung down, and a share of the load
    pain = (did(10, 10, 10, pain=4),)
    below = advised(top, Aim(own={"pain": OwnRule(act="below")}), pain, TODAY)
    assert top.rungs[below.rung].kg == 32
    most = advised(top, Aim(own={"pain": OwnRule(act="share", share=0.85)}), pain, TODAY)
    assert top.rungs[most.rung].kg == 32


def test_a_rung_over_what_the_percent_allows_is_not_yet_stepped_to():
    found = ladder(20, 21, now=20)
    slow = Aim(low=8, high=10, rule="percent", percent=0.02)
    advice = advised(found, slow, (did(10, 10, 10),), TODAY)
    assert advice.rung == found.present and "not yet" in plain(advice.proposal.reason)
    weeks = [did(10, 10, 10, day=TODAY - d) for d in (21, 14, 7)]
    assert advised(found, slow, weeks, TODAY).rung == found.present + 1
