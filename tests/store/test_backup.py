"""Backups and archives: whole, verified, of one moment, and brought back while others read."""

from __future__ import annotations

import hashlib
import json
import sqlite3
import subprocess
import sys
import threading
import zipfile
from contextlib import closing
from io import BytesIO
from pathlib import Path

import pytest

from tests.looked import looked
from widearc import store
from widearc.cli import main
from widearc.core.errors import InputError
from widearc.demo import load_demo
from widearc.formats import read_archive
from widearc.store.archive import everything
from widearc.store.backup import (
    FOLDER,
    KEPT_DAYS,
    back_up,
    daily,
    daily_backups,
    damage,
    last_good,
    restore,
    verified,
)
from widearc.store.changes import TRACKED
from widearc.store.errors import StoreError
from widearc.usecases.safe.safe import backup_age, export_all, import_all
from widearc.web.server import Serving, serve
from widearc.words import plain

NOW = "2026-11-24T09:00:00+00:00"


@pytest.fixture
def data(tmp_path) -> Path:
    path = tmp_path / "data" / "wide-arc.db"
    path.parent.mkdir()
    with closing(store.open_store(path)) as con:
        load_demo(con, now=NOW)
    return path


def names(path: Path) -> list[str]:
    with closing(store.open_store(path)) as con:
        return [c.name for c in store.clients(con, store.local_trainer(con, now=NOW))]


def add(path: Path, name: str) -> None:
    with closing(store.open_store(path)) as con, store.transaction(con):
        trainer = store.local_trainer(con, now=NOW)
        store.add_client(con, trainer, store.ClientFacts(name=name))


def test_a_backup_is_one_file_that_was_read_back_whole(data, tmp_path):
    made = back_up(data, tmp_path / "copy.db")
    assert made.sha256 == hashlib.sha256(made.path.read_bytes()).hexdigest()
    beside = tmp_path / "copy.db.sha256"
    assert beside.read_text() == f"{made.sha256}  copy.db\n"
    assert verified(made.path).sha256 == made.sha256
    assert sorted(p.name for p in tmp_path.glob("copy*")) == ["copy.db", "copy.db.sha256"]
    assert names(made.path) == names(data)
    with pytest.raises(StoreError, match="there already"):
        back_up(data, made.path)


@pytest.mark.parametrize("name", ["Żółta.db", "離.db", "\u202e.db", "a b.db"])
def test_a_backup_may_have_a_name_of_any_script(data, tmp_path, name):
    made = back_up(data, tmp_path / name)
    assert verified(made.path).sha256 == made.sha256
    assert not list(tmp_path.glob("*.part"))


def test_a_backup_is_of_one_moment_while_others_write(data, tmp_path):
    stop, failed = threading.Event(), []

    def write() -> None:
        con = store.open_store(data)
        trainer, number = store.local_trainer(con, now=NOW), 0
        try:
            while not stop.is_set():
                # two rows in one transaction: a copy has both or neither
                with store.transaction(con):
                    for half in ("a", "b"):
                        facts = store.ClientFacts(name=f"pair {number} {half}")
                        store.add_client(con, trainer, facts)
                number += 1
        except BaseException as error:
            failed.append(error)
        finally:
            con.close()

    writer = threading.Thread(target=write)
    writer.start()
    try:
        for number in range(6):
            made = back_up(data, tmp_path / f"moment-{number}.db")
            pairs = [n for n in names(made.path) if n.startswith("pair")]
            assert len(pairs) % 2 == 0
    finally:
        stop.set()
        writer.join()
    assert failed == []


def test_a_changed_or_damaged_backup_is_not_restored(data, tmp_path):
    made = back_up(data, tmp_path / "copy.db").path
    add(data, "Later")
    content = bytearray(made.read_bytes())
    content[len(content) // 2 :: 4096] = b"\xff" * len(content[len(content) // 2 :: 4096])
    made.write_bytes(bytes(content))
    before = names(data)
    for wrong in (made, tmp_path / "none.db", Path(__file__)):
        with pytest.raises(StoreError):
            restore(wrong, data, stamp="x")
        assert names(data) == before
    foreign = tmp_path / "foreign.db"
    with closing(sqlite3.connect(foreign)) as con:
        con.execute("CREATE TABLE other (x)")
    with pytest.raises(StoreError, match="not a database of this program"):
        verified(foreign)
    with (
        closing(sqlite3.connect(tmp_path / "newer.db")) as con,
        closing(store.open_store(data)) as ours,
    ):
        ours.backup(con)
        con.execute("PRAGMA user_version = 999")
    with pytest.raises(StoreError, match="newer"):
        verified(tmp_path / "newer.db")


def test_a_restore_is_seen_by_who_is_reading_and_keeps_what_was(data, tmp_path):
    made = back_up(data, tmp_path / "copy.db").path
    then = names(data)
    add(data, "Later")
    pool = store.Pool(data)
    reading = pool.take()
    trainer = store.local_trainer(reading, now=NOW)
    assert "Later" in {c.name for c in store.clients(reading, trainer)}
    before = restore(made, data, stamp="20261124-090000")
    assert [c.name for c in store.clients(reading, trainer)] == then == names(data)
    # what was recorded goes on on the same connection
    with store.recorded(reading, trainer, scope="clients", kind="t", words="w", now=NOW):
        store.add_client(reading, trainer, store.ClientFacts(name="After"))
    change = store.last_change(reading, trainer, "clients")
    store.undo(reading, trainer, change.id, now=NOW)
    pool.give(reading)
    pool.close()
    assert before is not None and "Later" in names(before.path)
    assert before.path.parent.name == FOLDER


def test_one_backup_a_day_is_kept_for_two_weeks(data):
    for day in range(1, 20):
        assert daily(data, f"2026-11-{day:02d}") is not None
        assert daily(data, f"2026-11-{day:02d}") is None
    found = daily_backups(data)
    assert [p.name for p in found] == [
        f"wide-arc-2026-11-{day:02d}.db" for day in range(19, 19 - KEPT_DAYS, -1)
    ]
    assert len(list(found[0].parent.glob("*.sha256"))) == KEPT_DAYS
    age = backup_age(data, "2026-11-21")
    assert age.days == 2 and age.number == KEPT_DAYS and "2 days ago" in plain(age.words)
    assert "today" in plain(backup_age(data, "2026-11-19").words)
    assert "No backup yet" in plain(backup_age(data.with_name("other.db"), "2026-11-19").words)


def test_a_damaged_database_is_told_at_the_start_with_the_last_good_backup(data, capsys):
    daily(data, "2026-11-22")
    daily(data, "2026-11-23")
    newest = daily_backups(data)[0]
    newest.write_bytes(newest.read_bytes()[:5000])
    with closing(store.open_store(data)) as con:
        con.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    content = bytearray(data.read_bytes())
    content[100:] = bytes(len(content) - 100)
    data.write_bytes(bytes(content))
    assert damage(data) and not damage(data.with_name("none.db"))
    good = last_good(data)
    assert good is not None and good.name == "wide-arc-2026-11-22.db"
    with pytest.raises(StoreError, match=r"damaged.*wide-arc restore .*2026-11-22"):
        serve(Serving(port=0, data=data.parent))
    assert main(["restore", str(good), "--data", str(data.parent)]) == 0
    said = json.loads(capsys.readouterr().out)
    assert said["before"] is None and "Bosun" in names(data)
    assert len(list(data.parent.glob("wide-arc.db.damaged-*"))) == 1


def test_the_commands_say_what_they_did_and_what_is_wrong(data, tmp_path, capsys):
    folder = str(data.parent)
    target = tmp_path / "all.db"
    assert main(["backup", str(target), "--data", folder]) == 0
    said = json.loads(capsys.readouterr().out)
    assert said["bytes"] == target.stat().st_size and len(said["sha256"]) == 64
    add(data, "Later")
    assert main(["restore", str(target), "--data", folder]) == 0
    said = json.loads(capsys.readouterr().out)
    assert "Later" not in names(data) and "Later" in names(Path(said["before"]))
    for words, message in (
        (["backup", str(target), "--data", folder], "there already"),
        (["backup", str(tmp_path / "no" / "x.db"), "--data", folder], "cannot be written"),
        (["backup", str(tmp_path / "y.db"), "--data", str(tmp_path)], "--data"),
        (["restore", str(tmp_path / "none.db"), "--data", folder], "no such file"),
        (["restore", str(target), "--data", str(tmp_path / "none")], "--data"),
    ):
        assert main(words) == 2
        error = capsys.readouterr().err
        assert message in error and "Traceback" not in error and error.count("\n") == 1


def test_a_backup_made_by_another_process_while_this_one_writes(data, tmp_path):
    con = store.open_store(data)
    trainer = store.local_trainer(con, now=NOW)
    with store.transaction(con):
        store.add_client(con, trainer, store.ClientFacts(name="half written"))
        done = subprocess.run(
            [sys.executable, "-m", "widearc.cli", "backup", str(tmp_path / "other.db"),
             "--data", str(data.parent)],
            check=True, capture_output=True, text=True,
        )  # fmt: skip
    assert json.loads(done.stdout)["written"].endswith("other.db")
    assert "half written" not in names(tmp_path / "other.db")
    con.close()


def test_everything_goes_out_as_one_file_and_comes_back_the_same(data, tmp_path):
    with closing(store.open_store(data)) as con:
        trainer = store.local_trainer(con, now=NOW)
        content = export_all(con, trainer, now=NOW)
        assert content == export_all(con, trainer, now=NOW)
        before = everything(con, trainer)
    assert {t.name for t in looked(before, 20)} == set(TRACKED)
    with zipfile.ZipFile(BytesIO(content)) as zipped:
        assert {f"csv/{t}.csv" for t in TRACKED} < set(zipped.namelist())
        assert b"Bosun" in zipped.read("csv/client.csv")
    with closing(store.open_store(tmp_path / "fresh.db")) as con:
        trainer = store.local_trainer(con, now=NOW)
        import_all(con, trainer, content, now=NOW)
        assert everything(con, trainer) == before


def test_what_comes_in_beside_another_trainer_s_gets_numbers_of_its_own_and_can_be_undone(data):
    with closing(store.open_store(data)) as con:
        trainer = store.local_trainer(con, now=NOW)
        content = export_all(con, trainer, now=NOW)
        con.execute("INSERT INTO trainer (name, created_at) VALUES ('Other', ?)", (NOW,))
        other = int(con.execute("SELECT max(id) FROM trainer").fetchone()[0])
        mine = everything(con, trainer)
        import_all(con, other, content, now=NOW)
        assert everything(con, trainer) == mine
        theirs = everything(con, other)
        assert [len(t.rows) for t in theirs] == [len(t.rows) for t in mine]
        assert not con.execute("PRAGMA foreign_key_check").fetchall()
        change = store.last_change(con, other, "places")
        assert change is not None and "everything replaced" in change.words
        store.undo(con, other, change.id, now=NOW)
        assert all(not t.rows for t in everything(con, other))
        # replaced, and undone: as before to the last row
        document = json.loads(zipfile.ZipFile(BytesIO(content)).read("wide-arc.json"))
        document["tables"]["client"]["rows"] = document["tables"]["client"]["rows"][:1]
        for table in TRACKED:
            if table not in ("client", "place"):
                document["tables"][table]["rows"] = []
        import_all(con, trainer, _zipped(document), now=NOW)
        assert len(store.clients(con, trainer)) == 1
        store.undo(con, trainer, store.last_change(con, trainer, "places").id, now=NOW)
        assert everything(con, trainer) == mine


def _zipped(document: object) -> bytes:
    out = BytesIO()
    with zipfile.ZipFile(out, "w") as zipped:
        zipped.writestr("wide-arc.json", json.dumps(document))
    return out.getvalue()


def _table(columns: list[str], rows: list[list[object]]) -> dict[str, object]:
    return {"columns": columns, "rows": rows}


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"format": "other"}, "/format"),
        ({"version": 2}, "/version"),
        ({"schema": 999}, "/schema"),
        ({"schema": "x"}, "/schema"),
        ({"tables": []}, "/tables"),
        ({"tables": {"sqlite_master": _table(["x"], [])}}, "/tables"),
        ({"tables": {"trainer": _table(["id"], [[1]])}}, "/tables"),
        ({"tables": {"client": 5}}, "/tables/client"),
        ({"tables": {"client": {"columns": [1], "rows": []}}}, "/tables/client/columns"),
        ({"tables": {"client": {"columns": [], "rows": [1]}}}, "/tables/client/rows"),
        ({"tables": {"client": _table(["id", "x; DROP"], [])}}, "/client/columns"),
        ({"tables": {"client": _table(["id", "name"], [[1]])}}, "/client/0"),
        ({"tables": {"client": _table(["id", "name"], [[1, True]])}}, "/client/0/name"),
        ({"tables": {"client": _table(["id", "name"], [[1, [2]]])}}, "/client/0/name"),
        ({"tables": {"client": _table(["id", "name"], [[1, None]])}}, "/client/0"),
        ({"tables": {"client": _table(["id", "name"], [[10**30, 10**30]])}}, "/client/0"),
        (
            {"tables": {"equipment": _table(["id", "place_id", "kind", "name"],
                                            [[1, 77, "band", "b"]])}},
            "/equipment/0/place_id",
        ),
    ],
)  # fmt: skip
def test_a_file_that_does_not_fit_changes_nothing_and_says_where(data, change, where):
    with closing(store.open_store(data)) as con:
        trainer = store.local_trainer(con, now=NOW)
        before = everything(con, trainer)
        document = {"format": "wide-arc/archive", "version": 1, "schema": 8, "made_at": NOW,
                    "tables": {}} | change  # fmt: skip
        with pytest.raises(InputError) as refused:
            import_all(con, trainer, _zipped(document), now=NOW)
        assert refused.value.where == where
        assert everything(con, trainer) == before


@pytest.mark.parametrize("content", [b"", b"PK\x03\x04broken", b"{}", b"\x00" * 100])
def test_what_is_no_archive_is_refused(content):
    with pytest.raises(InputError, match="ZIP"):
        read_archive(content)
