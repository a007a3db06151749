"""Ten years of a trainer with sixty clients: how long pages and sets take, what a set weighs."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from pathlib import Path

import numpy as np

from widearc import store
from widearc.demo import load_demo
from widearc.usecases import floor
from widearc.usecases.floor.asks import measured
from widearc.usecases.floor.lifts import row_of
from widearc.usecases.floor.typed import SetUps, TypedSet
from widearc.web import create_app

NOW = "2026-11-24T09:00:00+00:00"
CLIENTS, WEEKS, SETS = 60, 520, (2, 2, 3)
LIFTS = (
    ("leg-press-45", (80, 100, 120, 140)),
    ("split-squat", (16, 24, 32, 40)),
    ("romanian-deadlift", (40, 50, 60)),
    ("back-squat-high", (50, 60, 70, 80)),
    ("goblet-squat", (16, 20, 24)),
    ("calf-raise-step", (16, 24, 32)),
)
PAGES = (
    "/floor/?new=1",
    "/floor/{session}",
    "/clients/",
    "/clients/5",
    "/clients/5/time",
    "/clients/5/sets",
    "/ladder/?client=5",
    "/room/1",
    "/kept",
    "/week?place=1&client=5",
    "/swap?place=1&client=5&exercise=goblet-squat&kg=24",
    "/arc/?client=5",
    "/bench/",
    "/method/",
)


def fill(con: store.Connection) -> int:
    """Write ten years; return how many sets."""
    rng = np.random.default_rng(4)
    clients = [c.id for c in store.clients(con, 1)]
    with store.transaction(con):
        who = store.client(con, 1, clients[0])
        facts = store.ClientFacts(name="x", mass_kg=80.0, stature_m=1.8, sex=who.sex)
        for n in range(CLIENTS - len(clients)):
            clients.append(store.add_client(con, 1, replace(facts, name=f"Hand {n + 1}")))
    made = SetUps(con, 1, store.client(con, 1, clients[0]))
    rows = [
        row_of(0, 0, made.facts(_typed(exercise, kg))) for exercise, loads in LIFTS for kg in loads
    ]
    start, number = datetime.fromisoformat(NOW), 0
    with store.transaction(con):
        for client in clients:
            for week in range(WEEKS):
                when = start - timedelta(weeks=WEEKS - week, days=int(rng.integers(0, 6)))
                session = store.add_session(
                    con,
                    1,
                    store.SessionRow(
                        client_id=client,
                        place_id=1,
                        started_at=when.isoformat(),
                        ended_at=when.isoformat(),
                    ),
                )
                for position, sets in enumerate(SETS):
                    row = rows[int(rng.integers(len(rows)))]
                    asks = measured(row.scenario)
                    row = replace(row, session_id=session, position=position, sets=sets)
                    lift = store.add_lift(con, 1, row, asks.actions, asks.muscles)
                    for n in range(sets):
                        number += 1
                        at = (when + timedelta(minutes=5 * position + n)).isoformat()
                        done = store.SetRow(
                            lift_id=lift,
                            uid=f"years-{number:07d}",
                            side=("left", "right")[n % 2] if row.one_sided else "both",
                            reps=int(rng.integers(6, 13)),
                            reserve=int(rng.integers(0, 4)),
                            done_at=at,
                            received_at=at,
                        )
                        store.add_set(con, 1, done)
    return number


def _typed(exercise: str, kg: float) -> TypedSet:
    return TypedSet(row=0, done_at="", place_id=1, exercise=exercise, reps=10, load_kg=kg)


def p95_ms(spent: Sequence[float]) -> float:
    """Return the 95th percentile, ms."""
    return 1000.0 * float(np.quantile(spent, 0.95))


def bench_years() -> None:
    """Print what ten years cost: at most 100 ms a page and 30 ms a set are wanted."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "years.db"
        con = store.open_store(path)
        load_demo(con, now=NOW)
        before, began = path.stat().st_size, time.perf_counter()
        sets = fill(con)
        seconds = time.perf_counter() - began
        con.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        size = (path.stat().st_size - before) / sets
        print(f"ten years: {sets:,} sets written in {seconds:.0f} s, {size:.0f} bytes a set")
        session = floor.begin(con, 1, 5, 1, now=NOW)
        last = store.last_lift(con, 1, 5, "goblet-squat")
        assert last is not None
        lift = floor.add_lift(con, 1, session, floor.facts_of(last), now=NOW)
        client = create_app(
            path, secret_key="bench", config={"WTF_CSRF_ENABLED": False}
        ).test_client()
        for page in PAGES:
            address = page.format(session=session)
            client.get(address)  # what is computed once is not a page's own
            spent = []
            for _ in range(40):
                start = time.perf_counter()
                assert client.get(address).status_code == 200, address
                spent.append(time.perf_counter() - start)
            print(f"  {address}: {p95_ms(spent):.0f} ms (p95)")
        spent = []
        for n in range(100):
            data = {"uid": f"bench-{n:05d}", "side": "both", "reps": "8", "number": "1"}
            start = time.perf_counter()
            assert client.post(f"/floor/lift/{lift}/set", data=data).status_code == 302
            spent.append(time.perf_counter() - start)
        print(f"a set on disk, synchronous=FULL: {p95_ms(spent):.0f} ms (p95)")
        con.close()


if __name__ == "__main__":
    bench_years()
