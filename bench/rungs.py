"""Ladders of a full room: cold, and again after a set."""

from __future__ import annotations

import shutil
import tempfile
import time
from datetime import date
from pathlib import Path

from widearc import store
from widearc.core.exercises import EXERCISES
from widearc.core.progression.start import start_of
from widearc.core.search import Memo
from widearc.demo import load_demo, load_record
from widearc.usecases import floor
from widearc.usecases.holdings import Holdings
from widearc.usecases.ladder import LadderAsk, ladder_view

NOW = "2026-11-24T09:00:00+00:00"
TODAY = date(2026, 11, 24)


def bench_rungs() -> None:
    """Print what a ladder costs: at most 150 ms cold and 20 ms after a set are wanted."""
    with tempfile.TemporaryDirectory() as folder:
        con = store.open_store(Path(folder) / "rungs.db")
        load_demo(con, now=NOW)
        load_record(con, now=NOW)
        held = Holdings(con, 1)
        client = held.client(1)
        cold: list[tuple[float, str, int]] = []
        for place in held.places:
            kit = held.at(place.id).kit
            for exercise in (e for e in EXERCISES.values() if e.has_curve):
                start = time.perf_counter()
                found = start_of(exercise, kit, client.body, client.limits)
                spent = 1000.0 * (time.perf_counter() - start)
                if found is not None:
                    cold.append((spent, exercise.id, len(found.rungs)))
        cold.sort()
        worst = cold[-1]
        print(
            f"ladders, whole rooms: {len(cold)} of them, median {cold[len(cold) // 2][0]:.0f} ms, "
            f"p95 {cold[int(0.95 * len(cold))][0]:.0f} ms, most {worst[0]:.0f} ms "
            f"({worst[1]}, {worst[2]} rungs)"
        )
        for exercise in store.exercises_done(con, 1, 1, 20):
            _after_a_set(con, exercise)
        con.close()
        shutil.rmtree(folder, ignore_errors=True)


def _after_a_set(con: store.Connection, exercise: str) -> None:
    memo = Memo()
    done = store.lifts_of_client(con, 1, 1, exercise, 1)[-1]
    ask = LadderAsk(client_id=1, place_id=done.place_id, lift_id=done.lift.id)

    def spent() -> float:
        start = time.perf_counter()
        ladder_view(con, 1, ask, memo, today=TODAY)
        return 1000.0 * (time.perf_counter() - start)

    first = spent()
    facts = floor.SetFacts(uid=f"rungs-{exercise}", side="both", reps=8, done_at=NOW)
    if done.lift.one_sided:
        facts = floor.SetFacts(uid=f"rungs-{exercise}", side="left", reps=8, done_at=NOW)
    floor.log_set(con, 1, done.lift.id, facts, now=NOW)
    print(f"  {exercise}: {first:.0f} ms cold, {min(spent() for _ in range(5)):.0f} ms after a set")


if __name__ == "__main__":
    bench_rungs()
