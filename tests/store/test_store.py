"""The store: migrations, refusals, ownership, undo."""

from __future__ import annotations

import re
import sqlite3

import pytest

from tests.conftest import NOW
from widearc import store
from widearc.core.equipment import KINDS
from widearc.core.kit import Piece
from widearc.store.changes import TRACKED
from widearc.store.errors import MissingError
from widearc.store.schema import migrate, migrations


def test_a_new_database_is_strict_with_wal_and_foreign_keys(con):
    assert con.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
    assert con.execute("PRAGMA foreign_keys").fetchone()[0] == 1
    tables = con.execute("PRAGMA table_list").fetchall()
    ours = [t for t in tables if t["type"] == "table" and not t["name"].startswith("sqlite_")]
    assert len(ours) >= 13
    assert all(t["strict"] for t in ours)
    for table in ours:
        columns = {row["name"] for row in con.execute(f"PRAGMA table_info({table['name']})")}
        assert "trainer_id" in columns or table["name"] == "trainer", table["name"]


def test_a_newer_database_is_refused_and_left_alone(tmp_path):
    path = tmp_path / "newer.db"
    store.open_store(path).close()
    raw = sqlite3.connect(path)
    raw.execute("PRAGMA user_version = 9999")
    raw.close()
    with pytest.raises(store.StoreError, match="newer Wide Arc"):
        store.open_store(path)


def test_a_foreign_database_and_a_file_of_words_are_refused(tmp_path):
    foreign = tmp_path / "foreign.db"
    raw = sqlite3.connect(foreign)
    raw.execute("CREATE TABLE other (x)")
    raw.commit()
    raw.close()
    with pytest.raises(store.StoreError, match="another program"):
        store.open_store(foreign)
    words = tmp_path / "words.db"
    words.write_text("this is no database, only words" * 50)
    with pytest.raises(store.StoreError, match="not a database"):
        store.open_store(words)
    assert words.read_text().startswith("this is no database")
    with pytest.raises(store.StoreError, match="cannot be opened"):
        store.open_store(tmp_path / "no" / "such" / "folder.db")


def test_a_failing_migration_leaves_nothing(tmp_path):
    raw = sqlite3.connect(tmp_path / "half.db", isolation_level=None)
    raw.row_factory = sqlite3.Row
    newest = migrations()[-1][0]
    steps = [
        *migrations(),
        (newest + 1, "CREATE TABLE good (x INTEGER) STRICT;\nCREATE TABLE bad (;"),
    ]
    with pytest.raises(sqlite3.OperationalError):
        migrate(raw, "half.db", steps)
    assert raw.execute("PRAGMA user_version").fetchone()[0] == newest
    assert raw.execute("SELECT count(*) FROM sqlite_master WHERE name = 'good'").fetchone()[0] == 0
    raw.close()


def test_migrations_keep_what_was_there(tmp_path):
    """A database of the first version with a change in it is brought up to date, its undo still
    working.
    """
    raw = sqlite3.connect(tmp_path / "old.db", isolation_level=None)
    raw.row_factory = sqlite3.Row
    migrate(raw, "old.db", migrations()[:1])
    raw.execute("INSERT INTO trainer (id, name, created_at) VALUES (1, 'You', ?)", (NOW,))
    raw.execute("INSERT INTO place (id, trainer_id, name) VALUES (1, 1, 'Cabin')")
    raw.execute(
        "INSERT INTO equipment (id, trainer_id, place_id, kind, name, state) VALUES (1, 1, 1, "
        "'box', 'Box', 'taken')"
    )
    raw.execute("INSERT INTO furniture (equipment_id, trainer_id, height_m) VALUES (1, 1, 0.3)")
    raw.execute(
        "INSERT INTO equipment (id, trainer_id, place_id, kind, name) VALUES (2, 1, 1, 'band', "
        "'Loop')"
    )
    raw.execute(
        "INSERT INTO band (equipment_id, trainer_id, shape, strands, rest_m, law)"
        " VALUES (2, 1, 'loop', 2, 1.0, 'linear')"
    )
    raw.execute(
        "INSERT INTO change (trainer_id, place_id, changed_at, kind, words, equipment_id, "
        "state_before)"
        " VALUES (1, 1, ?, 'state', 'Box taken', 1, 'free')",
        (NOW,),
    )
    raw.close()
    con = store.open_store(tmp_path / "old.db")
    change = store.last_change(con, 1, "place:1")
    assert change.words == "Box taken"
    store.undo(con, 1, change.id, now=NOW)
    box = store.item(con, 1, 1)
    assert (box.state, box.height_m, box.sources["height_m"].value) == (
        store.State.FREE,
        0.3,
        "described",
    )
    band = store.item(con, 1, 2)
    assert (band.law, band.rest_m, band.back_share, band.looked_over_on) == (
        "linear",
        1.0,
        None,
        None,
    )
    con.close()


def test_a_row_cannot_belong_to_someone_elses_place(demo):
    demo.execute("INSERT INTO trainer (name, created_at) VALUES ('Other', ?)", (NOW,))
    with pytest.raises(sqlite3.IntegrityError):
        store.add_item(demo, 2, 1, kind="box", name="Stray", quantities={"height_m": 0.3})
    with pytest.raises(MissingError):
        store.item(demo, 2, 1)
    with pytest.raises(MissingError):
        store.client(demo, 2, 1)
    assert store.places(demo, 2) == ()


def test_words_in_a_number_column_are_refused(demo):
    with pytest.raises(sqlite3.IntegrityError):
        demo.execute("UPDATE quantity SET value = 'heavy'")


def test_a_transaction_keeps_all_or_nothing(demo):
    before = len(store.items(demo, 1, 1))

    def stopped():
        with store.transaction(demo):
            store.add_item(demo, 1, 1, kind="box", name="Box 99", quantities={"height_m": 0.3})
            raise RuntimeError("stop")

    with pytest.raises(RuntimeError):
        stopped()
    assert len(store.items(demo, 1, 1)) == before


def test_decisions_come_back_as_they_were_kept(demo):
    row = store.DecisionRow(
        place_id=1,
        client_id=1,
        decided_at=NOW,
        wanted_exercise="leg-press-45",
        wanted_kg=120,
        sets=3,
        reps=10,
        exercise="goblet-squat",
        set_up="",
        sentence="20 % short all the way.",
        match=0.47,
        shape=0.4,
        reach=0.6,
        level=1.1,
        pieces=(Piece(item="x", kind="kettlebell", label="24", number=1, kg=24),),
        options={"knee": 95.0},
    )
    with store.transaction(demo):
        kept = store.add_decision(demo, 1, row)
    found = store.decisions(demo, 1)[0]
    assert (found.id, found.place, found.client, found.match) == (
        kept,
        "Deck container",
        "Bosun",
        0.47,
    )
    assert found.pieces[0].kg == 24
    assert store.decisions(demo, 2) == ()


def test_client_rows_carry_body_and_limits(con):
    trainer = store.local_trainer(con, now=NOW)
    facts = store.ClientFacts(
        name="Cook",
        mass_kg=70,
        stature_m=1.7,
        knee_deg=120,
        no_axial_load=True,
        to_shoulders_kg=30,
        thigh_m=0.40,
        sore={"knee": "left"},
    )
    who = store.add_client(con, trainer, facts)
    found = store.client(con, trainer, who)
    assert (found.body.thigh_m, dict(found.sore), found.trains_alone) == (
        0.40,
        {"knee": "left"},
        None,
    )
    assert found.limits.dorsiflexion_deg == 35, "what was not asked is the usual value"
    assert (
        found.body.mass_kg,
        found.limits.knee_deg,
        found.limits.no_axial_load,
        found.to_shoulders_kg,
    ) == (
        70,
        120,
        True,
        30,
    )


def test_the_demo_is_loaded_once_and_only_once(demo):
    from widearc.demo import load_demo

    load_demo(demo, now=NOW)
    assert [p.name for p in store.places(demo, 1)] == ["Deck container", "Cabin 14", "Harbour gym"]
    kinds = {item.kind for item in store.items(demo, 1, 1)}
    assert {
        "sled press",
        "bar",
        "plate",
        "dumbbell",
        "kettlebell",
        "band",
        "bench",
        "box",
        "anchor",
    } <= kinds
    press = next(i for i in store.items(demo, 1, 1) if i.kind == "sled press")
    assert (press.quantities["rail_deg"], press.quantities["empty_kg"]) == (40, 38)


def _everything(con):
    """Every row of every tracked table, rowids too."""
    return {
        t: [tuple(r) for r in con.execute(f"SELECT rowid, * FROM {t} ORDER BY rowid")]
        for t in TRACKED
    }


def test_undo_puts_back_every_row_of_whatever_was_changed(demo):
    """Removing a place cascades through seven tables; undo brings back each row with its id."""
    store.replace_machine_readings(demo, 1, 1, [store.MachineReading(at=0.1, force_n=3.3)])
    before = _everything(demo)
    with store.recorded(demo, 1, scope="places", kind="place", words="all gone", now=NOW):
        store.remove_place(demo, 1, 1)
        store.set_place(demo, 1, 2, store.PlaceFacts(name="Renamed", floor_width_m=1 / 3))
        store.remove_client(demo, 1, 2)
        store.replace_readings(
            demo, 1, store.items(demo, 1, 2)[2].id, [store.Reading(length_m=0.1 + 0.2, force_n=1)]
        )
    assert _everything(demo) != before
    change = store.undo(demo, 1, store.last_change(demo, 1, "places").id, now=NOW)
    assert change.words == "all gone"
    assert _everything(demo) == before
    assert demo.execute("PRAGMA foreign_key_check").fetchall() == []


def test_a_change_that_fails_or_changes_nothing_leaves_no_trace(demo):
    before = _everything(demo)

    def stopped():
        with store.recorded(demo, 1, scope="x", kind="item", words="half", now=NOW):
            store.remove_item(demo, 1, 1)
            raise RuntimeError("stop")

    with pytest.raises(RuntimeError):
        stopped()
    with store.recorded(demo, 1, scope="x", kind="item", words="nothing", now=NOW):
        pass
    assert _everything(demo) == before and store.last_change(demo, 1, "x") is None
    with store.recorded(demo, 1, scope="x", kind="item", words="again", now=NOW):
        store.remove_item(demo, 1, 1)
    assert store.last_change(demo, 1, "x").words == "again", (
        "the listening triggers went with the failed change"
    )


def test_undo_of_what_cannot_come_back_says_so(demo):
    """A decision of a removed client cannot return once its place is gone too."""
    with store.recorded(demo, 1, scope="place:1", kind="item", words="box gone", now=NOW):
        store.remove_item(demo, 1, 14)
    change = store.last_change(demo, 1, "place:1")
    with store.recorded(demo, 1, scope="places", kind="place", words="place gone", now=NOW):
        store.remove_place(demo, 1, 1)
    with pytest.raises(MissingError, match="undo that first"):
        store.undo(demo, 1, change.id, now=NOW)
    store.undo(demo, 1, store.last_change(demo, 1, "places").id, now=NOW)
    store.undo(demo, 1, change.id, now=NOW)
    assert store.item(demo, 1, 14).kind == "band" or store.item(demo, 1, 14).name


def test_old_changes_are_forgotten_in_the_end(demo, monkeypatch):
    monkeypatch.setattr("widearc.store.changes.KEPT_CHANGES", 5)
    for number in range(9):
        with store.recorded(demo, 1, scope="place:1", kind="state", words=str(number), now=NOW):
            store.set_state(
                demo, 1, [1], store.State.TAKEN if number % 2 else store.State.FREE, at=str(number)
            )
    steps = demo.execute("SELECT count(DISTINCT change_id) FROM change_step").fetchone()[0]
    assert steps == 5 and demo.execute("SELECT count(*) FROM change").fetchone()[0] == 9
    assert store.last_change(demo, 1, "place:1").words == "8"
    # what cannot be taken back any more is still told, and not offered
    for _ in range(5):
        store.undo(demo, 1, store.last_change(demo, 1, "place:1").id, now=NOW)
    assert store.last_change(demo, 1, "place:1") is None
    told = store.told_changes(demo, 1, 100)
    assert [t.words for t in told] == [str(n) for n in range(8, -1, -1)]
    assert [bool(t.undone_at) for t in told] == [True] * 5 + [False] * 4
    assert {t.trainer for t in told} == {"Trainer"}
    monkeypatch.setattr("widearc.store.changes.TOLD_CHANGES", 6)
    with store.recorded(demo, 1, scope="place:1", kind="state", words="last", now=NOW):
        store.set_state(demo, 1, [1], store.State.BROKEN, at="x")
    assert len(store.told_changes(demo, 1, 100)) == 6


def test_the_kinds_in_sql_are_the_kinds_of_the_core(con):
    sql = con.execute("SELECT sql FROM sqlite_master WHERE name = 'equipment'").fetchone()[0]
    listed = re.search(r"kind IN \((.*?)\)\)", sql, re.S).group(1)
    assert set(re.findall(r"'([^']+)'", listed)) == set(KINDS)
