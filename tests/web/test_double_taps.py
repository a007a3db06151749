"""A form sent twice is kept once, and the second answer is the first's."""

from __future__ import annotations

import io
import re
import sqlite3
import threading
from collections.abc import Callable

import pytest
from werkzeug.datastructures import FileStorage

from tests.looked import looked
from tests.web.test_limits import as_multipart
from widearc import store
from widearc.core.body import Body
from widearc.store.errors import ConflictError, MissingError, RepeatedError, refusal
from widearc.store.once import KEPT
from widearc.usecases import SheetError, new_client, take_back
from widearc.words import plain

NOW = "2026-11-24T09:00:00+00:00"
SET = {
    "query": "exercise=back-squat-high&client=1&load-kind=free-mass&kg=80",
    "reps": "5",
    "reserve": "2",
    "side": "both",
    "formula": "epley",
}
USE = {"exercise": "leg-press-45", "kg": "80", "place": "1", "client": "1"}


def count(con, table: str) -> int:
    return int(con.execute(f"SELECT count(*) FROM {table}").fetchone()[0])


def together(tap: Callable[[], None], times: int) -> None:
    """Do the same so many times at once."""
    taps = [threading.Thread(target=tap) for _ in range(times)]
    for thread in taps:
        thread.start()
    for thread in taps:
        thread.join()


def at_once(app, path: str, form: dict[str, str], times: int = 3) -> list[tuple[int, str]]:
    answers: list[tuple[int, str]] = []

    def tap() -> None:
        answer = app.test_client().post(path, data=form)
        answers.append((answer.status_code, answer.headers.get("Location", "")))

    together(tap, times)
    return answers


@pytest.mark.parametrize(
    ("path", "form", "table"),
    [
        ("/arc/set", SET, "strength_set"),
        ("/clients/", {"name": "Deckhand"}, "client"),
        ("/room/new", {"name": "Second deck", "people": "alone", "crowding": "some"}, "place"),
        ("/room/1/add", {"kind": "plate", "name": "A plate", "kg": "5", "count": "2"}, "equipment"),
        ("/bench/", {"name": "A band", "place": "1", "shape": "loop"}, "equipment"),
        ("/room/item/1", {"action": "duplicate"}, "equipment"),
        ("/room/1/edit", {"action": "copy"}, "place"),
    ],
)
def test_three_taps_at_once_keep_one_and_give_one_answer(app, con, path, form, table):
    before = count(con, table)
    answers = at_once(app, path, form | {"once": "tapped-three-times"})
    assert len(set(answers)) == 1 and answers[0][0] == 302, answers
    assert count(con, table) == before + 1
    changes = count(con, "change")
    again = app.test_client().post(path, data=form | {"once": "tapped-three-times"})
    assert (again.status_code, again.headers["Location"]) == answers[0]
    assert count(con, table) == before + 1 and count(con, "change") == changes


def test_a_decision_tapped_twice_is_kept_once(app, con, client):
    page = client.get("/swap?place=1&client=1").text
    pick = re.search(r'name="pick" value="([\w-]+)"', page)
    assert pick is not None
    form = {"place": "1", "client": "1", "pick": pick[1], "once": "the-same-form"}
    before = count(con, "decision")
    answers = at_once(app, "/swap/use", form, 2)
    assert answers[0] == answers[1] and count(con, "decision") == before + 1


def test_the_same_form_filled_in_otherwise_is_another_one(app, con):
    for reps in ("5", "6"):
        app.test_client().post("/arc/set", data=SET | {"once": "gone-back-to", "reps": reps})
    assert count(con, "strength_set") == 2


def test_what_was_refused_may_be_sent_again(app, con):
    form = {"name": "", "once": "refused-at-first"}
    assert app.test_client().post("/clients/", data=form).status_code == 422
    assert app.test_client().post("/clients/", data=form).status_code == 422
    assert con.execute("SELECT count(*) FROM once").fetchone()[0] == 0


def test_without_a_key_or_with_an_odd_one_nothing_is_remembered(app, con):
    for once in ("", "short", "x" * 65):
        for _ in range(2):
            app.test_client().post("/arc/set", data=SET | {"once": once})
    assert count(con, "strength_set") == 6 and count(con, "once") == 0


def test_every_form_that_writes_carries_a_key_of_its_own(client):
    keys: list[str] = []
    for path in looked(
        ("/room/1", "/clients/1", "/swap", "/arc/", "/bench/", "/week/", "/intent/")
    ):
        page = client.get(path).text
        forms = re.findall(r'<form[^>]*method="post".*?</form>', page, re.S)
        assert forms, path
        for form in forms:
            found = re.findall(r'name="once" value="([\w-]{8,64})"', form)
            assert len(found) == 1 and form.count('name="csrf_token"') == 1, path
            keys += found
    assert len(set(keys)) == len(keys) > 20


def test_of_three_that_undo_at_once_one_does(database):
    con = store.open_store(database)
    trainer = store.local_trainer(con, now=NOW)
    new_client(con, trainer, store.ClientFacts(name="Cadet"), now=NOW)
    new_client(con, trainer, store.ClientFacts(name="Purser"), now=NOW)
    change = store.last_change(con, trainer, "clients")
    assert change is not None
    told: list[str] = []

    def undo() -> None:
        own = store.open_store(database)
        try:
            take_back(own, trainer, change.id, now=NOW)
            told.append("done")
        except MissingError as error:
            told.append(plain(error.said))
        finally:
            own.close()

    together(undo, 3)
    assert sorted(told) == ["done", *["nothing to undo: that change is taken back already"] * 2]
    names = {c.name for c in store.clients(con, trainer)}
    assert "Cadet" in names and "Purser" not in names
    con.close()


def test_a_name_that_two_take_at_once_is_refused_to_one_at_its_field(database):
    told: list[object] = []

    def add() -> None:
        own = store.open_store(database)
        trainer = store.local_trainer(own, now=NOW)
        try:
            told.append(new_client(own, trainer, store.ClientFacts(name="Twin"), now=NOW))
        except SheetError as error:
            told.append(error.messages)
        finally:
            own.close()

    together(add, 4)
    refused = [t for t in told if isinstance(t, dict)]
    assert len(refused) == 3 and all("already" in t["name"] for t in refused)


def test_old_keys_are_forgotten_and_a_claim_belongs_to_its_transaction(tmp_path):
    con = store.open_store(tmp_path / "once.db")
    trainer = store.local_trainer(con, now=NOW)
    for number in range(KEPT + 5):
        con.once = store.Once(trainer_id=trainer, key=f"{number:016d}", at=NOW)
        with store.transaction(con):
            pass
    assert count(con, "once") == KEPT
    assert store.answer_of(con, trainer, f"{0:016d}") is None
    assert store.answer_of(con, trainer, f"{KEPT:016d}") == ""
    con.once = store.Once(trainer_id=trainer, key="failed-at-its-end", at=NOW)

    @store.at_once
    def two(con, name: str) -> None:
        for _ in range(2):
            store.add_client(con, trainer, store.ClientFacts(name=name))

    with pytest.raises(ConflictError):
        two(con, "One")
    assert store.answer_of(con, trainer, "failed-at-its-end") is None
    assert store.clients(con, trainer) == () and not con.in_transaction
    with store.transaction(con):
        store.add_client(con, trainer, store.ClientFacts(name="One", mass_kg=Body().mass_kg))
    with pytest.raises(RepeatedError):
        two(con, "Two")
    con.close()


def test_each_failure_of_the_driver_is_told_by_its_cause():
    for text, words in (
        ("database or disk is full", "make room"),
        ("attempt to write a readonly database", "read only"),
        ("database is locked", "Another program"),
        ("database disk image is malformed", "backup"),
        ("disk I/O error", "look at the disk"),
        ("no such table: x", "no such table"),
    ):
        assert words in str(refusal(sqlite3.OperationalError(text)))


def test_a_file_that_is_sent_twice_is_taken_once_and_another_file_is_another_form(client, con):
    kit = client.get("/exchange/1.json").data
    for number, content in enumerate((kit, kit, kit + b" ")):
        upload = FileStorage(io.BytesIO(content), "kit.json")
        form = {"place": "2", "action": "import", "once": "the-same-upload", "file": upload}
        answer = client.post("/exchange/", **as_multipart(form))
        assert answer.status_code == 302, number
        if number == 1:
            assert count(con, "once") == 1
    assert count(con, "once") == 2
    assert count(con, "change") == 1


def test_a_set_up_that_is_too_long_is_refused_and_never_cut(client, con):
    long = SET | {"query": SET["query"] + "&x=" + "9" * 4000}
    assert client.post("/arc/set", data=long).status_code == 400
    assert client.post("/arc/pin", data=long | {"action": "pin"}).status_code == 400
    assert count(con, "strength_set") == 0
    for number in range(5):
        pin = {"action": "pin", "query": f"exercise=back-squat-high&n={number}" + "a" * 600}
        answer = client.post("/arc/pin", data=pin)
    assert answer.status_code == 400 and "fewer pins" in answer.text
