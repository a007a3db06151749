"""The plan of a week: put on, taken off, planned again, and what one purchase would do for it."""

from __future__ import annotations

from dataclasses import replace

import pytest

from tests.conftest import NOW
from tests.spoken import refused
from widearc import store, usecases
from widearc.core.answers import purchases_for
from widearc.core.curve import Action
from widearc.core.dose import RepStyle, StyleKind
from widearc.core.errors import InputError
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.core.search import Memo
from widearc.usecases.intent.intents import intent_words
from widearc.usecases.swap.wanted import SwapAsk
from widearc.words import plain

ASK = SwapAsk(place_id=2, client_id=1, kg=220.0)
NEXT_WEEK = "2026-12-01T09:00:00+00:00"
KNEE = Intent(
    parts=(WantedAction(action=Action.KE, from_deg=90, to_deg=20, shape=Shape.EVEN, mean_nm=60.0),)
)


def lines(con, place=2, now=NOW):
    return usecases.week_plan(con, 1, place, now=now).lines


def test_the_demo_s_week_begins_on_monday_and_asks_swap_what_was_planned(demo):
    plan = usecases.week_plan(demo, 1, 1, now=NOW)
    assert plan.monday == "2026-11-23" and plan.earlier == 0
    assert [(line.client, line.times) for line in plan.lines] == [
        ("Bosun", 2),
        ("Bosun", 1),
        ("Cook", 2),
    ]
    assert plan.lines[1].ask == SwapAsk(
        place_id=1, client_id=1, exercise="split-squat", kg=48.0, sets=3, reps=8
    )
    for line in plan.lines:
        assert usecases.swap_view(demo, 1, line.ask, Memo()).ranking.candidates, line.words


@pytest.mark.parametrize(
    ("now", "monday"),
    [
        ("2026-11-23T00:00:00+00:00", "2026-11-23"),
        ("2026-11-29T23:59:59+00:00", "2026-11-23"),
        ("2027-01-01T10:00:00+00:00", "2026-12-28"),
        ("2024-02-29T10:00:00+00:00", "2024-02-26"),
    ],
)
def test_a_week_is_from_monday_to_sunday(now, monday):
    assert store.monday_of(now) == monday


def test_the_same_thing_planned_again_only_changes_how_often(demo):
    usecases.plan(demo, 1, ASK, 2, now=NOW)
    usecases.plan(demo, 1, ASK, 3, now=NOW)
    usecases.plan(demo, 1, replace(ASK, kg=200.0), 1, now=NOW)
    usecases.plan(demo, 1, replace(ASK, client_id=2), 1, now=NOW)
    assert [(line.client, line.ask.kg, line.times) for line in lines(demo)] == [
        ("Bosun", 220.0, 3),
        ("Bosun", 200.0, 1),
        ("Cook", 220.0, 1),
    ]
    usecases.take_back(demo, 1, store.last_change(demo, 1, "place:2").id, now=NOW)
    usecases.take_back(demo, 1, store.last_change(demo, 1, "place:2").id, now=NOW)
    usecases.take_back(demo, 1, store.last_change(demo, 1, "place:2").id, now=NOW)
    assert [(line.ask.kg, line.times) for line in lines(demo)] == [(220.0, 2)]


@pytest.mark.parametrize("times", [0, 15, -3])
def test_how_often_is_from_once_to_twice_a_day_and_nothing_is_kept_otherwise(demo, times):
    with refused(usecases.SheetError, "from 1 to 14 times"):
        usecases.plan(demo, 1, ASK, times, now=NOW)
    assert not lines(demo)


def test_an_intent_is_planned_under_its_words_and_goes_with_the_kept_one(demo):
    usecases.plan(demo, 1, replace(ASK, intent=KNEE), 2, now=NOW)
    (line,) = lines(demo)
    assert line.ask.intent == KNEE and line.words[1:].startswith(plain(intent_words(KNEE))[1:40])
    usecases.plan(demo, 1, replace(ASK, intent=KNEE), 4, now=NOW)
    assert [x.times for x in lines(demo)] == [4]
    kept = [row for row in store.intents(demo, 1) if row.intent == KNEE]
    assert len(kept) == 1
    other = replace(KNEE, sets=5)  # same words, another dose: both are kept
    usecases.plan(demo, 1, replace(ASK, intent=other), 1, now=NOW)
    assert {x.ask.intent.sets for x in lines(demo)} == {3, 5}
    usecases.remove_intent(demo, 1, kept[0].id, now=NOW)
    assert [x.ask.intent.sets for x in lines(demo)] == [5]
    usecases.take_back(demo, 1, store.last_change(demo, 1, usecases.INTENTS).id, now=NOW)
    assert len(lines(demo)) == 2


def test_a_line_is_taken_off_and_put_back_and_a_strange_one_refused(demo):
    usecases.plan(demo, 1, ASK, 2, now=NOW)
    (line,) = lines(demo)
    with pytest.raises(InputError, match="this week's plan"):
        usecases.unplan(demo, 1, 1, line.id, now=NOW)  # another place's
    usecases.unplan(demo, 1, 2, line.id, now=NOW)
    assert not lines(demo)
    usecases.take_back(demo, 1, store.last_change(demo, 1, "place:2").id, now=NOW)
    assert lines(demo)[0].id == line.id


def test_the_last_planned_week_is_planned_again_in_one_change(demo):
    assert not lines(demo, place=1, now=NEXT_WEEK)
    later = "2026-12-16T09:00:00+00:00"
    assert usecases.week_plan(demo, 1, 1, now=later).earlier == 3
    usecases.plan_again(demo, 1, 1, now=later)
    assert [x.words for x in lines(demo, 1, later)] == [x.words for x in lines(demo, 1, NOW)]
    usecases.plan_again(demo, 1, 2, now=later)  # nothing there: nothing happens
    assert not lines(demo, 2, later)
    usecases.take_back(demo, 1, store.last_change(demo, 1, "place:1").id, now=later)
    assert not lines(demo, 1, later) and lines(demo, 1, NOW)


def test_a_plan_goes_with_its_client_and_its_place(demo):
    store.remove_client(demo, 1, 2)
    assert [line.client for line in lines(demo, place=1)] == ["Bosun", "Bosun"]
    store.remove_place(demo, 1, 1)
    assert demo.execute("SELECT count(*) FROM planned").fetchone()[0] == 0


def test_what_to_buy_weighs_each_line_as_often_as_it_is_planned(demo):
    memo, split = (
        Memo(),
        SwapAsk(place_id=2, client_id=1, exercise="split-squat", kg=48.0, sets=3, reps=8),
    )
    alone = {}
    for ask in (ASK, split):
        view = usecases.swap_view(demo, 1, ask, memo)
        best = view.ranking.candidates[0].match
        alone[ask] = {b.words: max(0.0, b.match - best) for b in purchases_for(view.question)}
    usecases.plan(demo, 1, ASK, 1, now=NOW)
    usecases.plan(demo, 1, split, 3, now=NOW)
    found = usecases.worth_buying(demo, 1, SwapAsk(place_id=2, client_id=3, kg=0.0), memo, now=NOW)
    assert found.complete and (found.done, found.left_out) == (2, 0)
    found = found.found
    assert {b.words for b in found} == set(alone[ASK])
    for bought in found:
        assert bought.gain == pytest.approx(
            (alone[ASK][bought.words] + 3 * alone[split][bought.words]) / 4, abs=1e-9
        )
    gains = [round(b.gain, 12) for b in found]
    assert gains == sorted(gains, reverse=True)
    best = found[0]
    assert best.helps and best.gain > 0.005 and plain(best.most).startswith("Bosun, ")


def test_without_a_plan_what_is_asked_and_was_kept_of_late_counts(demo):
    found = usecases.worth_buying(demo, 1, ASK, Memo(), now=NOW).found
    assert (
        found[0].helps
        and "leg press" in plain(found[0].most)
        and "Bosun" not in plain(found[0].most)
    )


def test_a_long_plan_is_computed_in_parts_that_end_where_one_go_does(demo):
    for kg in (20.0, 40.0, 60.0):
        usecases.plan(demo, 1, replace(ASK, kg=kg), 1, now=NOW)
    whole = usecases.worth_buying(demo, 1, ASK, Memo(), now=NOW)
    memo, parts = Memo(), []
    # what was computed before is not asked again: `enough` is said after each new one
    for most in (1, 2, 3):
        asked = iter([False] * (most - 1) + [True] * 5)
        parts.append(
            usecases.worth_buying(demo, 1, ASK, memo, now=NOW, enough=lambda a=asked: next(a))
        )
    assert [(part.done, part.of) for part in parts] == [(1, 3), (2, 3), (3, 3)]
    assert [part.complete for part in parts] == [False, False, True]
    assert parts[-1] == whole


def test_an_intent_with_a_style_is_said_with_it():
    style = RepStyle(kind=StyleKind.PAUSE, at_deg=90.0, seconds=2.0)
    said = plain(intent_words(replace(KNEE, style=style)))
    assert said.endswith(", pause of 2 s at 90°") and said.startswith("knee extension 9")
