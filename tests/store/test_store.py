"""The store: migrations, refusals, ownership, undo."""

from __future__ import annotations

import sqlite3

import pytest

from tests.conftest import NOW
from widearc import store
from widearc.core.body import Body, Limits
from widearc.core.substitution import Piece
from widearc.store.errors import MissingError
from widearc.store.migrate import migrate, migrations


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
    steps = [*migrations(), (newest + 1, "CREATE TABLE good (x INTEGER) STRICT;\nCREATE TABLE bad (;")]
    with pytest.raises(sqlite3.OperationalError):
        migrate(raw, "half.db", steps)
    assert raw.execute("PRAGMA user_version").fetchone()[0] == newest
    assert raw.execute("SELECT count(*) FROM sqlite_master WHERE name = 'good'").fetchone()[0] == 0
    raw.close()


def test_migrations_keep_what_was_there(tmp_path):
    """A database of the first version with a change in it is brought up to date, its undo still working."""
    raw = sqlite3.connect(tmp_path / "old.db", isolation_level=None)
    raw.row_factory = sqlite3.Row
    migrate(raw, "old.db", migrations()[:1])
    raw.execute("INSERT INTO trainer (id, name, created_at) VALUES (1, 'You', ?)", (NOW,))
    raw.execute("INSERT INTO place (id, trainer_id, name) VALUES (1, 1, 'Cabin')")
    raw.execute(
        "INSERT INTO equipment (id, trainer_id, place_id, kind, name, state) VALUES (1, 1, 1, 'box', 'Box', 'taken')"
    )
    raw.execute("INSERT INTO furniture (equipment_id, trainer_id, height_m) VALUES (1, 1, 0.3)")
    raw.execute("INSERT INTO equipment (id, trainer_id, place_id, kind, name) VALUES (2, 1, 1, 'band', 'Loop')")
    raw.execute(
        "INSERT INTO band (equipment_id, trainer_id, shape, strands, rest_m, law)"
        " VALUES (2, 1, 'loop', 2, 1.0, 'linear')"
    )
    raw.execute(
        "INSERT INTO change (trainer_id, place_id, changed_at, kind, words, equipment_id, state_before)"
        " VALUES (1, 1, ?, 'state', 'Box taken', 1, 'free')",
        (NOW,),
    )
    raw.close()
    con = store.open_store(tmp_path / "old.db")
    change = store.last_change(con, 1, 1)
    assert change.words == "Box taken"
    with store.transaction(con):
        store.undo(con, 1, change.id, now=NOW)
    assert store.item(con, 1, 1).state is store.State.FREE
    band = store.item(con, 1, 2)
    assert (band.law, band.rest_m, band.back_share, band.looked_over_on) == ("linear", 1.0, None, None)
    con.close()


def test_a_row_cannot_belong_to_someone_elses_place(demo):
    demo.execute("INSERT INTO trainer (name, created_at) VALUES ('Other', ?)", (NOW,))
    with pytest.raises(sqlite3.IntegrityError):
        store.add_item(demo, 2, 1, kind="box", name="Stray", height_m=0.3)
    with pytest.raises(MissingError):
        store.item(demo, 2, 1)
    with pytest.raises(MissingError):
        store.client(demo, 2, 1)
    assert store.places(demo, 2) == ()


def test_words_in_a_number_column_are_refused(demo):
    with pytest.raises(sqlite3.IntegrityError):
        demo.execute("UPDATE stock SET kg = 'heavy'")


def test_a_transaction_keeps_all_or_nothing(demo):
    before = len(store.items(demo, 1, 1))

    def stopped():
        with store.transaction(demo):
            store.add_item(demo, 1, 1, kind="box", name="Box 99", height_m=0.3)
            raise RuntimeError("stop")

    with pytest.raises(RuntimeError):
        stopped()
    assert len(store.items(demo, 1, 1)) == before


def test_decisions_come_back_as_they_were_kept(demo):
    row = store.DecisionRow(
        place_id=1, client_id=1, decided_at=NOW, wanted_exercise="leg-press-45", wanted_kg=120, sets=3, reps=10,
        exercise="goblet-squat", set_up="", sentence="20 % short all the way.", match=0.47, shape=0.4, reach=0.6,
        level=1.1, pieces=(Piece(item="x", kind="kettlebell", label="24", number=1, kg=24),), options={"knee": 95.0},
    )  # fmt: skip
    with store.transaction(demo):
        kept = store.add_decision(demo, 1, row)
    found = store.decisions(demo, 1)[0]
    assert (found.id, found.place, found.client, found.match) == (kept, "Deck container", "Bosun", 0.47)
    assert found.pieces[0].kg == 24
    assert store.decisions(demo, 2) == ()


def test_client_rows_carry_body_and_limits(con):
    trainer = store.local_trainer(con, now=NOW)
    body, limits = Body(mass_kg=70, stature_m=1.7), Limits(knee_deg=120, no_axial_load=True)
    who = store.add_client(con, trainer, name="Cook", body=body, limits=limits, to_shoulders_kg=30)
    found = store.client(con, trainer, who)
    assert (found.body.mass_kg, found.limits.knee_deg, found.limits.no_axial_load, found.to_shoulders_kg) == (
        70, 120, True, 30,
    )  # fmt: skip


def test_the_demo_is_loaded_once_and_only_once(demo):
    from widearc.demo import load_demo

    load_demo(demo, now=NOW)
    assert [p.name for p in store.places(demo, 1)] == ["Deck container", "Cabin 14", "Harbour gym"]
    kinds = {item.kind for item in store.items(demo, 1, 1)}
    assert {"sled press", "bar", "plate", "dumbbell", "kettlebell", "band", "bench", "box", "anchor"} <= kinds
    press = next(i for i in store.items(demo, 1, 1) if i.kind == "sled press")
    assert (press.rail_deg, press.empty_kg) == (40, 38)
