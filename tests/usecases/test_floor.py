"""Sessions on the floor: what is next, sets kept once, edits that keep the old, and undo."""

from __future__ import annotations

import csv
import io
import json
from datetime import datetime, timedelta

import pytest

from widearc import store, usecases
from widearc.core.body import Body
from widearc.core.equipment import FreeMass, Sled
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Piece
from widearc.core.movement import Setup
from widearc.core.words import Mass, Said
from widearc.formats import parse_scenario
from widearc.store.errors import MissingError
from widearc.usecases import floor
from widearc.usecases.client import history, over_time
from widearc.usecases.floor import log
from widearc.words import plain

NOW = "2026-11-24T09:00:00+00:00"


def at(minutes: float) -> str:
    return (datetime.fromisoformat(NOW) + timedelta(minutes=minutes)).isoformat()


def facts(exercise="goblet-squat", kg=24.0, **more):
    load = FreeMass(kg=kg, port="goblet")
    if exercise != "goblet-squat":
        load = FreeMass(kg=kg, port=EXERCISES[exercise].ports[0])
    setup = Setup(exercise=EXERCISES[exercise], body=Body(), loads=(load,))
    said = Said("kettlebell {kg}", kg=Mass(kg))
    return floor.LiftFacts(setup=setup, said=said, **more)


def a_set(n, side="both", reps=10, minutes=0.0, **more):
    return floor.SetFacts(uid=f"set-{n:05d}", side=side, reps=reps, done_at=at(minutes), **more)


@pytest.fixture
def session(demo):
    return floor.begin(demo, 1, 1, 1, now=NOW)


def test_a_session_goes_on_where_it_was(demo, session):
    assert floor.begin(demo, 1, 1, 1, now=at(5)) == session
    assert floor.begin(demo, 1, 2, 1, now=at(5)) != session, "another client's is another"
    with pytest.raises(MissingError):
        floor.begin(demo, 1, 99, 1, now=NOW)


def test_a_lift_keeps_its_whole_scenario_and_what_a_rep_asks(demo, session):
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    row = store.lift(demo, 1, lift)
    setup, _ = parse_scenario(json.loads(row.scenario))
    assert setup.exercise.id == "goblet-squat" and setup.loads[0].kg == 24.0
    asked = {
        r["action"]: dict(r)
        for r in demo.execute("SELECT * FROM lift_action WHERE lift_id = ?", (lift,))
    }
    assert asked["knee_extension"]["first"] == 1 and asked["knee_extension"]["ratio"] > 0.3
    counts = dict(demo.execute("SELECT grp, counts FROM lift_muscle WHERE lift_id = ?", (lift,)))
    assert counts["vasti"] == 1.0 and 0.2 < counts["gluteus_maximus"] < 0.8


def test_done_counts_rests_and_ends(demo, session):
    lift = floor.add_lift(demo, 1, session, facts(sets=2, reps=8), now=NOW)
    view = floor.view_of(demo, 1, session)
    assert (view.now.side, view.now.number, view.now.reps) == ("both", 1, 8)
    assert view.now.rest_until == "" and plain(view.now.said) == "kettlebell 24 kg"
    floor.log_set(demo, 1, lift, a_set(1, reps=8, minutes=1), now=at(1))
    now = floor.view_of(demo, 1, session).now
    assert now.number == 2 and now.rest_until == (
        datetime.fromisoformat(at(1)) + timedelta(seconds=now.lift.rest_s)
    ).isoformat(timespec="seconds")
    floor.log_set(demo, 1, lift, a_set(2, reps=8, minutes=4), now=at(4))
    assert floor.view_of(demo, 1, session).now is None


def test_the_weaker_side_goes_first_and_caps_the_other(demo, session):
    """The bosun's stronger side is the right: left first; what it did is what the right does."""
    lift = floor.add_lift(demo, 1, session, facts("split-squat", 10.0, sets=2, reps=10), now=NOW)
    assert store.client(demo, 1, 1).stronger_side == "right"
    now = floor.view_of(demo, 1, session).now
    assert (now.side, now.number, now.reps) == ("left", 1, 10)
    floor.log_set(demo, 1, lift, a_set(1, "left", 8, 1), now=at(1))
    now = floor.view_of(demo, 1, session).now
    assert (now.side, now.number, now.reps) == ("right", 1, 8)
    assert now.rest_until == "", "only turn round"
    floor.log_set(demo, 1, lift, a_set(2, "right", 8, 2), now=at(2))
    now = floor.view_of(demo, 1, session).now
    assert (now.side, now.number, now.reps) == ("left", 2, 10) and now.rest_until


def test_the_same_set_sent_fifty_times_is_one(demo, session):
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    ids = {floor.log_set(demo, 1, lift, a_set(7), now=at(i)) for i in range(50)}
    assert len(ids) == 1
    assert demo.execute("SELECT count(*) FROM set_done").fetchone()[0] == 1


def test_an_edit_keeps_what_was_and_undo_brings_it_back(demo, session):
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    done = floor.log_set(demo, 1, lift, a_set(1, reps=9), now=NOW)
    floor.edit_set(demo, 1, done, {"reps": 7, "reserve": 2}, now=at(1))
    assert store.set_done(demo, 1, done).reps == 7
    was = json.loads(demo.execute("SELECT was FROM set_was").fetchone()[0])
    assert was["reps"] == 9 and was["reserve"] is None
    change = store.last_change(demo, 1, floor.scope(session))
    store.undo(demo, 1, change.id, now=at(2))
    assert store.set_done(demo, 1, done).reps == 9
    floor.remove_done(demo, 1, done, now=at(3))
    assert store.set_done(demo, 1, done) is None
    store.undo(demo, 1, store.last_change(demo, 1, floor.scope(session)).id, now=at(4))
    assert store.set_done(demo, 1, done).reps == 9


def test_two_sets_with_pain_end_the_lift(demo, session):
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    hurt = {"pain_joint": "knee", "pain_side": "left"}
    floor.log_set(demo, 1, lift, a_set(1, pain=3, **hurt), now=NOW)
    floor.log_set(demo, 1, lift, a_set(2, pain=5, **hurt), now=NOW)
    assert not store.lift(demo, 1, lift).ended
    floor.log_set(demo, 1, lift, a_set(3, pain=4, **hurt), now=NOW)
    assert store.lift(demo, 1, lift).ended and floor.view_of(demo, 1, session).now is None


def test_another_lift_in_its_place_keeps_the_first_that_has_sets(demo, session):
    first = floor.add_lift(demo, 1, session, facts(), now=NOW)
    floor.log_set(demo, 1, first, a_set(1), now=NOW)
    other = floor.add_lift(
        demo, 1, session, facts("split-squat", 10.0), now=NOW, instead_of=first, why="taken"
    )
    view = floor.view_of(demo, 1, session)
    assert [p.lift.id for p in view.lifts] == [first, other] and view.now.lift.id == other
    assert view.lifts[0].done and view.lifts[1].lift.why == "taken"


def test_last_time_comes_back_as_it_was_done(demo, session):
    bell = Piece(item="9", kind="kettlebell", label="K", number=1, kg=24.0)
    lift = floor.add_lift(demo, 1, session, facts(pieces=(bell,)), now=NOW)
    floor.log_set(demo, 1, lift, a_set(1), now=NOW)
    floor.end(demo, 1, session, now=at(30))
    later = floor.begin(demo, 1, 1, 1, now=at(5000))
    assert floor.last_time(demo, 1, later, now=at(5000)) == (1, ())
    now = floor.view_of(demo, 1, later).now
    assert now.lift.pieces[0].kg == 24.0 and [s.reps for s in now.before] == [10]


def test_a_session_without_a_set_leaves_nothing(demo, session):
    floor.add_lift(demo, 1, session, facts(), now=NOW)
    floor.end(demo, 1, session, now=at(3))
    with pytest.raises(MissingError):
        floor.session_of(demo, 1, session)


@pytest.mark.parametrize(
    ("more", "where"),
    [
        ({"reps": 101}, "reps"),
        ({"reps": -1}, "reps"),
        ({"reserve": 21}, "reserve"),
        ({"pain": 11}, "pain"),
        ({"form": "sad"}, "form"),
        ({"pain_joint": "ear"}, "pain_joint"),
        ({"side": "middle"}, "side"),
        ({"done_at": "today"}, "done_at"),
        ({"uid": "x"}, "uid"),
    ],
)
def test_what_is_no_set_is_refused_and_nothing_is_kept(demo, session, more, where):
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    values = {"uid": "set-00001", "side": "both", "reps": 8, "done_at": NOW} | more
    with pytest.raises(InputError) as error:
        floor.log_set(demo, 1, lift, floor.SetFacts(**values), now=NOW)
    assert error.value.where == where
    assert demo.execute("SELECT count(*) FROM set_done").fetchone()[0] == 0


def test_another_trainer_sees_none_of_it(demo, session):
    demo.execute("INSERT INTO trainer (name, created_at) VALUES ('Other', ?)", (NOW,))
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    for call in (
        lambda: floor.session_of(demo, 2, session),
        lambda: floor.log_set(demo, 2, lift, a_set(1), now=NOW),
        lambda: floor.add_lift(demo, 2, session, facts(), now=NOW),
    ):
        with pytest.raises(MissingError):
            call()


def test_a_press_is_one_sided_where_one_leg_works(demo, session):
    for legs, one in ((1, True), (2, False)):
        setup = Setup(
            exercise=EXERCISES["leg-press-45"],
            body=Body(),
            options={"legs": legs},
            loads=(Sled(kg=40.0, empty_kg=38.0),),
        )
        lift = floor.add_lift(
            demo, 1, session, floor.LiftFacts(setup=setup, said=Said("sled")), now=NOW
        )
        assert store.lift(demo, 1, lift).one_sided is one


def squat_sets(con, session, *, reps, reserve, weeks_ago, kg=24.0):
    lift = floor.add_lift(con, 1, session, facts(kg=kg), now=NOW)
    for n in range(3):
        done = floor.SetFacts(
            uid=f"w{weeks_ago}-{kg}-{n}-{lift}",
            side="both",
            reps=reps,
            reserve=reserve,
            done_at=at(-weeks_ago * 7 * 24 * 60 + n),
        )
        floor.log_set(con, 1, lift, done, now=NOW)
    return lift


def test_sets_of_the_floor_speak_for_the_joint_that_gives_out_first(demo, session):
    """By hand: a goblet squat at so much of the usual strength, 10 reps with 2 left: the scale is
    that part times 1 + 12/30; the hip is a lower bound.
    """
    lift = squat_sets(demo, session, reps=10, reserve=2, weeks_ago=0)
    part = dict(demo.execute("SELECT action, ratio FROM lift_action WHERE lift_id = ?", (lift,)))
    found = {t.action: t for t in over_time.trends(demo, 1, 1, now=at(5))}
    knee, hip = found["knee_extension"], found["hip_extension"]
    for side in ("left", "right"):
        assert knee.sides[side].kappa == pytest.approx(part["knee_extension"] * 1.4, rel=1e-3)
        assert knee.sides[side].sets == 3 and hip.sides[side].at_least
    assert knee.gap is hip.gap is None, "two legs at once say nothing of it"
    # and what Swap knows of strength uses them
    known = usecases.strength_of(demo, 1, 1)
    assert known["knee_extension"].kappa == pytest.approx(part["knee_extension"] * 1.4, rel=1e-3)


def test_a_weaker_side_shows_as_a_gap(demo, session):
    lift = floor.add_lift(demo, 1, session, facts("split-squat", 16.0, reps=12), now=NOW)
    for n, (side, reps) in enumerate([("left", 6), ("right", 12)] * 4):
        done = floor.SetFacts(uid=f"gap-{n:05d}", side=side, reps=reps, reserve=1, done_at=at(n))
        floor.log_set(demo, 1, lift, done, now=NOW)
    first = over_time.trends(demo, 1, 1, now=at(60))[0]
    # 1 + 13/30 over 1 + 7/30
    assert first.gap.share == pytest.approx((1 + 13 / 30) / (1 + 7 / 30) - 1, rel=1e-3)
    assert first.gap.known and first.gap.sets == 8


def test_with_both_legs_the_stronger_side_is_only_a_bound(demo, session):
    """Where the right is stronger, a set of both legs says of it "at least": the estimate rests on
    its own sets.
    """
    lift = floor.add_lift(demo, 1, session, facts("split-squat", 16.0, reps=12), now=NOW)
    for n, (side, reps) in enumerate([("left", 6), ("right", 12)] * 4):
        done = floor.SetFacts(uid=f"one-{n:05d}", side=side, reps=reps, reserve=1, done_at=at(n))
        floor.log_set(demo, 1, lift, done, now=NOW)
    squat_sets(demo, session, reps=6, reserve=0, weeks_ago=0)
    found = {t.action: t for t in over_time.trends(demo, 1, 1, now=at(60))}
    (known,) = (t for t in found.values() if t.gap is not None and t.gap.known)
    assert known.sides["left"].sets >= known.sides["right"].sets == 4


def test_volume_counts_a_set_in_proportion_and_by_week(demo, session):
    squat_sets(demo, session, reps=10, reserve=2, weeks_ago=0)
    found = {m.grp: m.sets for m in history.muscle_weeks(demo, 1, 1, now=at(60))}
    assert found["vasti"][-1] == pytest.approx(3.0) and sum(found["vasti"][:-1]) == 0.0
    assert 0.2 * 3 < found["gluteus_maximus"][-1] < 0.8 * 3
    assert "long_hamstrings" not in found or found["long_hamstrings"][-1] < 0.4


def test_the_log_goes_out_row_by_row(demo, session):
    squat_sets(demo, session, reps=9, reserve=2, weeks_ago=0)
    rows = list(csv.DictReader(io.StringIO(log.log_csv(demo, 1, 1))))
    assert len(rows) == 3 and tuple(rows[0]) == log.COLUMNS
    assert (rows[1]["set"], rows[1]["reps"], rows[1]["rir"]) == ("2", "9", "2")
    assert rows[0]["load_kg"] == "24" and rows[0]["exercise"] == "goblet-squat"


def broke(demo, session, form, **more):
    lift = floor.add_lift(demo, 1, session, facts(**more), now=NOW)
    row = store.lift(demo, 1, lift)
    return lift, floor.proposal_of(demo, 1, row, form, 1)


@pytest.mark.parametrize(
    ("form", "words"),
    [
        ("depth lost", "lighter, 20 kg instead of 24 kg"),
        ("knees cave", "lighter, 20 kg instead of 24 kg"),
        ("back rounds", "stop short, at 100° instead of 110°"),
        ("heels lift", "2.5 cm under the heels, on plates: knee"),
        ("grip", "straps: one hand holds up to 12 kg"),
        ("balance", "one hand on something that stands"),
        ("breath", "longer rest: 180 s"),
        ("swing", "slower, 3 s down and 2 s up"),
    ],
)
def test_what_breaks_gets_one_change_that_can_be_done_here(demo, session, form, words):
    lift, found = broke(demo, session, form, sets=3)
    told = plain(found.said)
    assert told.startswith(words) and found.form == form, told
    floor.log_set(demo, 1, lift, a_set(1, form=form), now=NOW)
    row = store.lift(demo, 1, lift)
    assert floor.broke(row, store.sets_of(demo, 1, session)[lift]) == form
    made = floor.take_proposal(demo, 1, row, form, 1, now=NOW)
    other = store.lift(demo, 1, made)
    assert (other.instead_of, other.why, other.sets) == (lift, "form", 2)
    assert floor.view_of(demo, 1, session).now.lift.id == made


def test_a_press_whose_hips_lift_stops_shallower_and_says_what_that_changes(demo, session):
    press = EXERCISES["leg-press-45"]
    setup = Setup(exercise=press, body=Body(), loads=(Sled(kg=100, empty_kg=38),))
    asked = floor.LiftFacts(setup=setup, said=Said(""))
    lift = floor.add_lift(demo, 1, session, asked, now=NOW)
    found = floor.proposal_of(demo, 1, store.lift(demo, 1, lift), "hips lift", 1)
    deep = float(setup.resolved["knee_from"]) * 180 / 3.141592653589793
    other = found.facts.setup.options["knee_from_deg"]
    assert 8 <= deep - other <= 12 and "less at most" in plain(found.said)
    assert "100" not in plain(found.said), "the load stays"


def test_lighter_is_the_heaviest_that_the_stock_makes_below(demo, session):
    _, found = broke(demo, session, "depth lost", exercise="split-squat", kg=32.0)
    pieces = [(p.kind, p.kg, p.number) for p in found.facts.pieces]
    assert sum(kg * n for _, kg, n in pieces) == found.facts.setup.loads[0].kg == 24.0
    _, none = broke(demo, session, "depth lost", kg=8.0)
    assert none is None, "nothing here is lighter"


def test_the_sets_to_come_are_those_that_come(demo, session):
    """What a device shows without the line is what the server would say with it."""
    lift = floor.add_lift(demo, 1, session, facts("split-squat", sets=3, reps=8), now=NOW)
    n, ahead = 0, floor.view_of(demo, 1, session).now.ahead
    assert [(s.side, s.number, s.rests) for s in ahead][:3] == [
        ("left", 1, False),
        ("right", 1, False),
        ("left", 2, True),
    ]
    for step in ahead:
        now = floor.view_of(demo, 1, session).now
        assert (now.side, now.number, now.reps) == (step.side, step.number, step.reps)
        n += 1
        floor.log_set(demo, 1, lift, a_set(n, side=step.side, reps=step.reps, minutes=n), now=at(n))
    assert floor.view_of(demo, 1, session).now is None and n == 6


def test_a_load_in_one_hand_changes_hands_from_set_to_set(demo, session):
    setup = Setup(
        exercise=EXERCISES["romanian-deadlift"], loads=(FreeMass(kg=20, port="hand-left"),)
    )
    floor.add_lift(demo, 1, session, floor.LiftFacts(setup=setup, said=Said("")), now=NOW)
    assert [s.hand for s in floor.view_of(demo, 1, session).now.ahead] == ["left", "right", "left"]


def test_two_devices_keep_both_and_say_so(demo, session):
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    before = floor.mark_of(demo, 1, session)
    floor.log_set(demo, 1, lift, a_set(1, number=1), now=NOW)
    assert floor.mark_of(demo, 1, session) != before
    floor.log_set(demo, 1, lift, a_set(2, number=1, reps=9), now=NOW)
    view = floor.view_of(demo, 1, session).now
    assert view.twice == (("both", 1),) and len(view.sets) == 2
    mark = floor.mark_of(demo, 1, session)
    floor.edit_set(demo, 1, view.sets[0].id, {"reps": 7}, now=NOW)
    assert floor.mark_of(demo, 1, session) != mark
    floor.remove_done(demo, 1, view.sets[1].id, now=NOW)
    assert floor.view_of(demo, 1, session).now.twice == ()


def test_fifty_times_sent_is_once_kept(demo, session):
    lift = floor.add_lift(demo, 1, session, facts(), now=NOW)
    ids = {floor.log_set(demo, 1, lift, a_set(1), now=at(n)) for n in range(50)}
    assert len(ids) == 1 and len(store.sets_of(demo, 1, session)[lift]) == 1


def test_what_one_client_uses_is_set_aside_for_the_others(demo, session):
    item = next(i for i in store.items(demo, 1, 1) if i.kind == "kettlebell")
    floor.add_lift(demo, 1, session, facts(items=(item.id,), sets=1), now=NOW)
    assert store.in_use(demo, 1, 1, 2) == {item.id: "Bosun"}
    assert store.in_use(demo, 1, 1, 1) == {}, "not for the one who uses it"
    view = floor.view_of(demo, 1, session)
    floor.log_set(demo, 1, view.now.lift.id, a_set(1), now=NOW)
    assert store.in_use(demo, 1, 1, 2) == {}, "done is free again"
