"""Many phones: writes queue and none is lost, searches take turns, connections are used again."""

from __future__ import annotations

import threading
import time

import pytest

from tools.load import run
from widearc import store
from widearc.store.changes import TRACKED
from widearc.store.connection import MOST_IDLE
from widearc.web.gate import Gate

NOW = "2026-11-24T09:00:00+00:00"


def test_twenty_phones_without_pauses_lose_nothing():
    seen, _ = run(6.0, pauses=False)
    assert seen.wrong == []
    # how long they wait is shown by `make load`
    assert sum(map(len, seen.seconds.values())) > 10 and seen.seconds["mark"]


def test_writers_of_one_process_queue_instead_of_being_refused(tmp_path):
    path = tmp_path / "queue.db"
    con = store.open_store(path)
    trainer = store.local_trainer(con, now=NOW)
    failed: list[BaseException] = []

    def write(number: int) -> None:
        own = store.open_store(path)
        try:
            for step in range(5):
                words = f"{number}/{step}"
                with store.recorded(own, trainer, scope="places", kind="t", words=words, now=NOW):
                    facts = store.PlaceFacts(name=words)
                    store.add_place(own, trainer, facts)
                    time.sleep(0.01)
        except BaseException as error:
            failed.append(error)
        finally:
            own.close()

    threads = [threading.Thread(target=write, args=(n,)) for n in range(12)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert failed == [] and len(store.places(con, trainer)) == 60
    con.close()


def test_triggers_stand_once_a_connection_and_record_only_what_is_being_recorded(tmp_path):
    con = store.open_store(tmp_path / "once.db")
    trainer = store.local_trainer(con, now=NOW)
    made: list[str] = []
    con.set_trace_callback(lambda sql: made.append(sql) if "CREATE TEMP TRIGGER" in sql else None)
    for name in ("a", "b", "c"):
        with store.recorded(con, trainer, scope="places", kind="t", words=name, now=NOW):
            store.add_place(con, trainer, store.PlaceFacts(name=name))
    assert len(made) == 3 * len(TRACKED), "one each for what is put in, changed, taken out"

    def fail() -> None:
        with store.recorded(con, trainer, scope="places", kind="t", words="d", now=NOW):
            store.add_place(con, trainer, store.PlaceFacts(name="d"))
            raise RuntimeError

    with pytest.raises(RuntimeError):
        fail()
    with store.transaction(con):
        store.add_place(con, trainer, store.PlaceFacts(name="unrecorded"))
    assert con.execute("SELECT count(*) FROM change_step").fetchone()[0] == 3
    change = store.last_change(con, trainer, "places")
    assert change is not None and change.words == "c"
    store.undo(con, trainer, change.id, now=NOW)
    assert [p.name for p in store.places(con, trainer)] == ["a", "b", "unrecorded"]
    con.close()


def test_a_connection_is_used_again_and_nothing_unfinished_stays_on_it(tmp_path):
    pool = store.Pool(tmp_path / "pool.db")
    first = pool.take()
    trainer = store.local_trainer(first, now=NOW)
    first.execute("BEGIN IMMEDIATE")
    store.add_place(first, trainer, store.PlaceFacts(name="unfinished"))
    pool.give(first)
    assert pool.take() is first and store.places(first, trainer) == ()
    many = [first, *(pool.take() for _ in range(MOST_IDLE + 3))]
    assert len({id(con) for con in many}) == len(many)
    for con in many:
        pool.give(con)
    assert len(pool._idle) == MOST_IDLE
    pool.close()
    assert pool._idle == []


def test_searches_take_turns_and_too_many_are_asked_to_come_again():
    gate = Gate(at_once=1, most_waiting=2)
    assert gate.enter()
    entered: list[bool] = []
    waiting = [
        threading.Thread(target=lambda: entered.append(gate.enter()), daemon=True) for _ in range(2)
    ]
    for thread in waiting:
        thread.start()
    while len(gate._waiting) < 2:
        time.sleep(0.001)
    assert not gate.enter() and entered == []
    gate.leave()
    while not entered:
        time.sleep(0.001)
    assert entered == [True] and not gate.enter(longest_wait_s=0.0)
    gate.leave()
    for thread in waiting:
        thread.join(2.0)
    assert entered == [True, True]
    gate.leave()
    assert gate._free == 1 and not gate._waiting


def test_who_came_first_computes_first():
    gate = Gate(at_once=1, most_waiting=9)
    assert gate.enter()
    order: list[int] = []

    def wait(number: int) -> None:
        assert gate.enter()
        order.append(number)
        gate.leave()

    threads = []
    for number in range(6):
        threads.append(threading.Thread(target=wait, args=(number,), daemon=True))
        threads[-1].start()
        while len(gate._waiting) < number + 1:
            time.sleep(0.001)
    gate.leave()
    for thread in threads:
        thread.join(5.0)
    assert order == list(range(6))


def test_who_finds_too_many_before_him_is_told_and_asks_again(app, client, monkeypatch):
    full = Gate(at_once=1, most_waiting=0)
    assert full.enter()
    monkeypatch.setitem(app.extensions, "gate", full)
    answer = client.get("/swap?place=1")
    assert answer.status_code == 503 and answer.headers["Retry-After"] == "2"
    assert "asks again by itself" in answer.text
    full.leave()
    assert client.get("/swap?place=1").status_code == 200
