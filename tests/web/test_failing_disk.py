"""A full, read-only or damaged disk: the true cause and what to do, one line in the log."""

from __future__ import annotations

import logging
import os
import stat

import pytest

from tests.looked import looked
from tests.web.test_pages import text
from widearc import store
from widearc.web import create_app
from widearc.web.server import listening_server


@pytest.fixture
def log(app, caplog):
    caplog.set_level(logging.INFO, logger=app.logger.name)
    return caplog


def taken(app, *pragmas: str):
    """Return a client whose next request gets a connection on which a pragma was said."""
    pool = app.extensions["connections"]
    con = pool.take()
    for pragma in pragmas:
        con.execute(pragma)
    pool.give(con)
    return app.test_client()


def test_a_full_disk_is_told_and_nothing_is_half_written(app, con, log):
    pages = con.execute("PRAGMA page_count").fetchone()[0]
    client = taken(app, f"PRAGMA max_page_count = {pages}")
    before = con.execute("SELECT count(*) FROM client").fetchone()[0]
    answer = None
    for number in range(400):
        form = {"name": f"Client {number}", "note": "x" * 480}
        answer = client.post("/clients/", data=form)
        if answer.status_code != 302:
            break
    assert answer.status_code == 503
    said = text(answer)
    assert "The disk is full" in said and "kept is safe" in said and "make room" in said
    kept = con.execute("SELECT count(*) FROM client").fetchone()[0]
    assert kept == before + number
    assert con.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    lines = [r.getMessage() for r in log.records if "data cannot be used" in r.getMessage()]
    assert len(lines) == 1 and "\n" not in lines[0] and "full" in lines[0]
    assert f"Client {number}" not in lines[0] and "POST /clients/" in lines[0]
    # what can be read is still read
    assert client.get("/clients/").status_code == 200


def test_a_read_only_file_is_told_and_its_pages_are_still_shown(app, con, log):
    client = taken(app, "PRAGMA query_only = ON")
    answer = client.post("/room/item/1/state", data={"state": "taken"})
    assert answer.status_code == 503 and "read only" in text(answer)
    assert client.get("/room/1").status_code == 200
    assert store.item(con, 1, 1).state is store.State.FREE


def test_a_damaged_page_is_told_by_its_cause_and_logged_without_a_name(database, log, tmp_path):
    con = store.open_store(database)
    con.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    root = con.execute("SELECT rootpage FROM sqlite_master WHERE name = 'client'").fetchone()[0]
    size = con.execute("PRAGMA page_size").fetchone()[0]
    con.close()
    with database.open("r+b") as file:
        file.seek((root - 1) * size)
        file.write(b"\xa5" * size)
    app = create_app(database, secret_key="x", config={"WTF_CSRF_ENABLED": False})
    for path in looked(("/clients/", "/swap", "/room/1")):
        answer = app.test_client().get(path)
        assert answer.status_code == 503, path
        assert "damaged" in text(answer) and "last good backup" in text(answer)
        assert "Traceback" not in answer.text and "sqlite" not in answer.text.lower()
    lines = [r.getMessage() for r in log.records]
    assert len(lines) == 3 and all("\n" not in line for line in lines)
    assert not any("Bosun" in line for line in lines)


def test_a_database_that_does_not_open_is_logged_with_the_driver_s_word(database, log):
    app = create_app(database, secret_key="x", config={"WTF_CSRF_ENABLED": False})
    for beside in database.parent.glob(f"{database.name}*"):
        beside.unlink()
    database.mkdir()
    assert app.test_client().get("/clients/").status_code >= 500
    line = log.records[-1].getMessage()
    assert "SQLITE_CANTOPEN" in line or "unable to open" in line, line
    assert "store/connection.py:" in line and str(database) not in line and "\n" not in line


def test_an_error_of_ours_is_one_line_that_says_where_and_not_what(app, log):
    def fails() -> str:
        raise ValueError("Bosun weighs 84 kg")

    app.add_url_rule("/fails", view_func=fails)
    answer = app.test_client().get("/fails?name=Bosun")
    assert answer.status_code == 500
    (line,) = [r.getMessage() for r in log.records]
    assert "ValueError" in line and "test_failing_disk.py:" in line and "GET /fails" in line
    assert "Bosun" not in line and "\n" not in line


@pytest.mark.skipif(os.name != "posix", reason="rights as POSIX has them")
def test_only_the_owner_reads_the_data(tmp_path):
    path = tmp_path / "new.db"
    con = store.open_store(path)
    trainer = store.local_trainer(con, now="2026-11-24T09:00:00+00:00")
    assert trainer == 1
    for file in looked(sorted(tmp_path.glob("new.db*")), 2):
        assert stat.S_IMODE(file.stat().st_mode) == 0o600, file
    con.close()


def test_pages_that_name_a_client_are_kept_by_nobody(client):
    for path in looked(
        ("/clients/", "/clients/1", "/swap", "/kept", "/week/", "/arc/", "/exchange/")
    ):
        assert client.get(path).headers["Cache-Control"] == "no-store", path
    style = client.get("/static/wide-arc.css")
    assert "no-store" not in style.headers.get("Cache-Control", "")
    style.close()


def test_the_cookie_has_the_port_in_its_name(database):
    app = create_app(database, secret_key="x", config={"SESSION_COOKIE_NAME": "wide-arc-7000"})
    answer = app.test_client().get("/swap")
    assert answer.headers["Set-Cookie"].startswith("wide-arc-7000=")
    assert "HttpOnly" in answer.headers["Set-Cookie"] and "SameSite=Lax" in str(answer.headers)
    server = listening_server(app, "127.0.0.1", 0)
    assert int(server.effective_port) > 0
    server.close()


def test_what_was_changed_is_listed_with_its_time_and_whether_it_was_taken_back(client, con):
    client.post("/room/item/1/state", data={"state": "taken"})
    client.post("/clients/", data={"name": "Listed"})
    change = store.last_change(con, 1, "clients")
    client.post(f"/undo/{change.id}")
    page = text(client.get("/exchange/changes"))
    assert "Listed added" in page and "taken" in page and "Trainer" in page
    assert page.index("Listed added") < page.index("Sled press")
