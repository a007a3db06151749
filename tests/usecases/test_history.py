"""A client's record over time: the demo's fourteen weeks against the lives that made them."""

from __future__ import annotations

import shutil
from datetime import datetime, timedelta

import pytest

from tests.conftest import NOW
from widearc import store
from widearc.core.errors import InputError
from widearc.demo import load_record
from widearc.demo.record import LIVES
from widearc.usecases.client import history
from widearc.usecases.client.over_time import trends
from widearc.usecases.floor.recompute import recompute
from widearc.words import plain


@pytest.fixture(scope="module")
def lived_file(demo_file, tmp_path_factory):
    path = shutil.copy(demo_file, tmp_path_factory.mktemp("lived") / "lived.db")
    con = store.open_store(path)
    load_record(con, now=NOW)
    load_record(con, now=NOW)
    con.close()
    return path


@pytest.fixture
def lived(lived_file, tmp_path):
    con = store.open_store(shutil.copy(lived_file, tmp_path / "own.db"))
    yield con
    con.close()


def trend_of(con, client, action):
    return next(t for t in trends(con, 1, client, now=NOW) if t.action == action)


@pytest.mark.parametrize("life", LIVES, ids=["bosun", "cook", "second engineer"])
def test_what_each_can_do_is_found_again(lived, life):
    """The demo's reps come from a strength; the page's estimate must find it, ± as stated."""
    truth = life.kappa * (1.0 + life.gain) ** min(13, life.plateau)
    found = trend_of(lived, life.client + 1, "knee_extension")
    for side, estimate in found.sides.items():
        own = truth * (life.right if side == "right" else 1.0)
        assert estimate.kappa == pytest.approx(own, abs=2.0 * estimate.sd * own + 0.02 * own)


def test_the_side_difference_is_found_and_nobody_elses(lived):
    bosun, cook = (trend_of(lived, c, "knee_extension").gap for c in (1, 2))
    assert bosun.known and bosun.share == pytest.approx(0.09, abs=2 * bosun.sd)
    assert cook is None or not cook.known


def test_a_plateau_is_no_gain_and_a_gain_is_one(lived):
    flat = trend_of(lived, 1, "knee_extension").sides["left"].gain
    rising = trend_of(lived, 2, "knee_extension").sides["left"].gain
    assert flat < 0.007 < rising


def test_every_chart_of_the_demo_shows_something(lived):
    rows = store.lifts_done(lived, 1, 1, "2026-08-01")
    weeks = history.muscle_weeks(lived, 1, 1, now=NOW)
    assert weeks[0].grp == "vasti" and sum(n > 0 for n in weeks[0].sets) >= 12
    assert all(sum(t) == pytest.approx(1.0) or sum(t) == 0 for m in weeks for t in m.thirds)
    profiles = history.profiles(rows, now=NOW)
    assert sum(n > 0 for n in profiles.sets) >= 12 and profiles.same == ""
    assert len(history.felt_rows(rows)) >= 5
    places = {s.place for s in store.sessions(lived, 1, client_id=1)}
    assert len(places) == 3
    why = [r[0] for r in lived.execute("SELECT why FROM lift WHERE why <> ''")]
    assert why == ["taken", "taken"]
    assert len(store.notes(lived, 1, 1)) == 3


def lift(day, *, tilt=0.5, one_sided=True, felt="", hardest="lengthened", sets=3):
    return store.WeekLift(
        day=day,
        exercise="split-squat",
        one_sided=one_sided,
        tilt=tilt,
        hardest=hardest,
        felt=felt,
        sets=sets,
    )


def days(weeks):
    at = datetime.fromisoformat(NOW)
    return [(at - timedelta(weeks=w)).date().isoformat() for w in range(weeks)]


@pytest.mark.parametrize(
    ("tilt", "profile"),
    [(None, None), (0.5, "long"), (0.16, "long"), (0.1, "even"), (-0.1, "even"), (-0.2, "short")],
)
def test_how_a_lift_lies_has_three_names(tilt, profile):
    assert history.profile_of(tilt) == profile


def test_the_same_profile_for_eight_weeks_is_said(lived):
    same = history.profiles([lift(d) for d in days(9)], now=NOW)
    assert same.same == "long" and sum(same.sets) == 27
    mixed = [lift(d) for d in days(9)] + [lift(days(3)[2], tilt=-0.5)]
    assert history.profiles(mixed, now=NOW).same == ""
    assert history.profiles([lift(d) for d in days(7)], now=NOW).same == "", "too few weeks"


def test_felt_elsewhere_more_often_than_not_is_apart():
    rows = [lift("2026-11-20", felt="shortened", sets=3), lift("2026-11-20", felt="lengthened")]
    apart, alike = history.felt_rows([*rows, lift("2026-11-21", felt="middle", sets=2)]), rows
    assert apart[0].apart and apart[0].felt == {"shortened": 3, "lengthened": 3, "middle": 2}
    assert not history.felt_rows(alike)[0].apart


def test_six_weeks_of_one_leg_ask_for_two(demo):
    found = history.retests(demo, 1, 1, [lift(d) for d in days(6)], (), now=NOW)
    assert [plain(s) for s in found] == [
        "Six weeks of one leg alone: test a lift with both legs again."
    ]
    both = [*(lift(d) for d in days(6)), lift(days(2)[1], one_sided=False)]
    assert history.retests(demo, 1, 1, both, (), now=NOW) == ()


def test_a_band_that_was_used_and_not_looked_over_is_named(demo):
    band = next(i for i in store.items(demo, 1, 1) if i.kind == "band")
    demo.execute("UPDATE band SET looked_over_on = '2026-01-05' WHERE equipment_id = ?", (band.id,))
    at = NOW
    session = store.add_session(demo, 1, store.SessionRow(client_id=1, place_id=1, started_at=at))
    row = store.LiftRow(
        session_id=session,
        position=0,
        exercise="band-squat",
        scenario="{}",
        asked="",
        said="{}",
        pieces=(),
        items=(band.id,),
        sets=3,
        reps=10,
        one_sided=False,
        lowering_s=2,
        lifting_s=1,
        rest_s=90,
        model="1",
    )
    store.add_lift(demo, 1, row, (), ())
    found = [plain(s) for s in history.retests(demo, 1, 1, (), (), now=NOW)]
    assert found == [f"{band.name}: looked over 323 days ago; check a reading at Bench."]


def test_notes_are_kept_removed_and_undone(demo):
    made = history.note(demo, 1, 1, " watch the left knee ", now=NOW)
    assert [n.words for n in store.notes(demo, 1, 1)] == ["watch the left knee"]
    history.remove_note(demo, 1, made, now=NOW)
    assert store.notes(demo, 1, 1) == ()
    change = store.last_change(demo, 1, "sessions")
    store.undo(demo, 1, change.id, now=NOW)
    assert len(store.notes(demo, 1, 1)) == 1
    for words in ("", "x" * 501):
        with pytest.raises(InputError, match="a note of"):
            history.note(demo, 1, 1, words, now=NOW)


def test_an_older_models_measures_are_renewed(lived):
    def told():
        return [
            tuple(r)
            for r in lived.execute("SELECT lift_id, action, ratio FROM lift_action ORDER BY 1, 2")
        ]

    right = told()
    lived.execute("UPDATE lift SET model = '0' WHERE id <= 5")
    lived.execute("UPDATE lift_action SET ratio = 9.0 WHERE lift_id <= 5")
    lived.execute("UPDATE lift SET scenario = '{}', model = '0' WHERE id = 6")
    found = recompute(lived, 1)
    assert (found.renewed, found.left) == (5, 1) and found.current > 50
    assert told() == right
    assert recompute(lived, 1).renewed == 0
