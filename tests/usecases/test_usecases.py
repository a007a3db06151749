"""What a trainer asks: mark, undo, weigh, swap, decide."""

from __future__ import annotations

import pytest

from tests.conftest import NOW
from widearc import store, usecases
from widearc.core.errors import InputError
from widearc.core.search import Memo
from widearc.store.errors import MissingError
from widearc.usecases.bench.bands import parse_rows
from widearc.usecases.sheet import SheetError
from widearc.usecases.swap.wanted import SwapAsk
from widearc.words import plain

ASK = SwapAsk(place_id=1, client_id=1)


def item_named(con, name, place=1):
    return next(i for i in store.items(con, 1, place) if i.name == name)


def test_marking_is_kept_and_undone_in_order(demo):
    press = item_named(demo, "Sled press")
    usecases.mark(demo, 1, press.id, store.State.TAKEN, now=NOW)
    usecases.mark(demo, 1, press.id, store.State.BROKEN, now=NOW)
    newest = store.last_change(demo, 1, "place:1")
    assert plain(newest.said) == "Sled press broken"
    with pytest.raises(MissingError, match="undo that first"):
        usecases.take_back(demo, 1, newest.id - 1, now=NOW)
    usecases.take_back(demo, 1, newest.id, now=NOW)
    assert store.item(demo, 1, press.id).state is store.State.TAKEN
    usecases.take_back(demo, 1, newest.id - 1, now=NOW)
    assert store.item(demo, 1, press.id).state is store.State.FREE
    with pytest.raises(MissingError, match="taken back already"):
        usecases.take_back(demo, 1, newest.id, now=NOW)


def test_marking_what_it_is_already_leaves_no_undo(demo):
    usecases.mark(demo, 1, item_named(demo, "Bench").id, store.State.FREE, now=NOW)
    assert store.last_change(demo, 1, "place:1") is None


def test_the_whole_job_from_a_taken_press_to_a_kept_decision(demo):
    memo = Memo()
    usecases.mark(demo, 1, item_named(demo, "Sled press").id, store.State.TAKEN, now=NOW)
    view = usecases.swap_view(demo, 1, ASK, memo)
    names = [c.exercise.id for c in view.ranking.candidates]
    assert {"front-squat", "goblet-squat", "dumbbell-squat", "band-squat", "split-squat"} <= set(
        names
    )
    assert "Sled press".lower() in plain(
        next(e for e in view.ranking.excluded if e.exercise.family == "sled press").reason
    )
    best = view.ranking.candidates[0]
    usecases.decide(demo, 1, ASK, best.exercise.id, memo, now=NOW)
    kept = store.decisions(demo, 1)[0]
    assert (kept.exercise, kept.match, kept.sentence) == (
        best.exercise.id,
        best.match,
        plain(best.sentence),
    )
    assert [p.label for p in kept.pieces] == [p.label for p in best.pieces]
    usecases.take_back(demo, 1, store.last_change(demo, 1, "place:1").id, now=NOW)
    assert store.decisions(demo, 1) == ()


def test_a_stand_in_that_was_just_taken_is_not_kept(demo):
    memo = Memo()
    for name in (
        "Kettlebell 16",
        "Kettlebell 24",
        "Dumbbell 8",
        "Dumbbell 12",
        "Dumbbell 16",
        "Dumbbell 20",
    ):
        usecases.mark(demo, 1, item_named(demo, name).id, store.State.TAKEN, now=NOW)
    with pytest.raises(InputError, match="the room changed"):
        usecases.decide(demo, 1, ASK, "goblet-squat", memo, now=NOW)
    assert store.decisions(demo, 1) == ()


def test_a_reading_changes_the_band_in_the_ranking(demo):
    def knee(exercise):
        view = usecases.swap_view(demo, 1, ASK, Memo())
        return next(c for c in view.ranking.candidates if c.exercise.id == exercise).pieces

    assert any(p.kind == "band" for p in knee("band-squat"))
    for name in ("Light loop", "Medium loop", "Heavy loop", "Long band"):
        with store.transaction(demo):
            store.replace_readings(demo, 1, item_named(demo, name).id, [])
    view = usecases.swap_view(demo, 1, ASK, Memo())
    assert view.unread_bands == ("Light loop", "Medium loop", "Heavy loop", "Long band")
    assert "band-squat" in [e.exercise.id for e in view.ranking.excluded]


def test_readings_are_per_strand_in_the_kit(demo):
    kit = usecases.stock_of(demo, 1, 1).kit
    loop = next(b for b in kit.bands if b.name == "medium loop")
    assert loop.law.force_n_at[-1] == pytest.approx(262 / 2)


def test_what_is_typed_becomes_si(demo):
    rows = parse_rows([("100", "0"), ("", ""), ("120", "5,5")], "cm", "kgf")
    assert rows[1].length_m == pytest.approx(1.2)
    assert rows[1].force_n == pytest.approx(5.5 * 9.80665)


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ([("1.0", "0")], "rows"),
        ([], "rows"),
        ([("1.0", "0"), ("0.9", "5")], "row-1-length"),
        ([("1.0", "0"), ("1.2", "-88")], "row-1-force"),
        ([("1.0", "zero"), ("1.2", "5")], "row-0-force"),
        ([("1.0", "0"), ("1.2", "")], "row-1-force"),
        ([("nan", "0"), ("1.2", "5")], "row-0-length"),
        ([("1.0", "9"), ("1.2", "5")], "row-1-force"),
        ([("1.0", "0"), ("1e9", "5")], "row-1-length"),
        ([(f"{1 + 0.01 * i:.2f}", f"{i}") for i in range(501)], "rows"),
    ],
)
def test_bad_readings_are_named_at_their_row(typed, field):
    with pytest.raises(SheetError) as refused:
        parse_rows(typed, "m", "N")
    assert field in refused.value.messages


def test_a_sheet_that_allows_no_law_keeps_nothing(demo):
    band = item_named(demo, "Light loop")
    before = store.readings(demo, 1, band.id)
    rows = [store.Reading(length_m=1.0, force_n=5), store.Reading(length_m=1.2, force_n=9)]
    with pytest.raises(SheetError) as refused:
        usecases.save_band(
            demo, 1, band.id, rows=rows, rest_m=1.1, strands=2, shape="loop", law="points", now=NOW
        )
    assert "rest" in refused.value.messages
    assert store.readings(demo, 1, band.id) == before
    assert store.last_change(demo, 1, "place:1") is None


def test_saving_a_sheet_can_be_undone(demo):
    band = item_named(demo, "Light loop")
    before = usecases.band_sheet(demo, 1, band.id)
    rows = [store.Reading(length_m=1.0, force_n=5), store.Reading(length_m=1.2, force_n=9)]
    usecases.save_band(
        demo, 1, band.id, rows=rows, rest_m=None, strands=1, shape="long", law="linear", now=NOW
    )
    assert usecases.band_sheet(demo, 1, band.id).item.law == "linear"
    usecases.take_back(demo, 1, store.last_change(demo, 1, "place:1").id, now=NOW)
    after = usecases.band_sheet(demo, 1, band.id)
    assert (after.item, after.readings) == (before.item, before.readings)


def test_a_second_band_of_one_name_is_refused_at_the_field(demo):
    facts = usecases.ItemFacts(kind="band", name="  Light   loop ", quantities={}, sources={})
    with pytest.raises(SheetError) as refused:
        usecases.add_item(demo, 1, 1, facts, now=NOW)
    assert "already" in refused.value.messages["name"]


@pytest.mark.parametrize(
    ("field", "value"), [("kg", -1), ("kg", 9999), ("depth_deg", 10), ("sets", 0), ("reps", 101)]
)
def test_what_is_asked_is_checked_by_field(field, value):
    with pytest.raises(InputError) as refused:
        SwapAsk(place_id=1, client_id=1, **{field: value})
    assert refused.value.where == field


def test_a_client_who_cannot_do_the_wanted_exercise_gets_the_reason(demo):
    view = usecases.swap_view(demo, 1, SwapAsk(place_id=1, client_id=3), Memo())
    assert view.ranking is None
    assert "ankle limit 25°" in plain(view.problem)


def test_every_exercise_that_can_be_asked_for_gets_an_answer(demo):
    memo = Memo()
    one_of_each = {(e.family, e.variant, e.prime): e for e in usecases.wantable()}
    assert len(one_of_each) > 20
    for exercise in one_of_each.values():
        view = usecases.swap_view(
            demo, 1, SwapAsk(place_id=1, client_id=1, exercise=exercise.id, kg=20), memo
        )
        assert view.problem or view.ranking.candidates or view.ranking.excluded, exercise.id
