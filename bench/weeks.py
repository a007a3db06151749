"""A week of five days and eight slots each: its page, and what mends what is found."""

from __future__ import annotations

import tempfile
import time
from datetime import date
from pathlib import Path

from widearc import store
from widearc.core.search import Memo
from widearc.demo import load_demo, load_record
from widearc.usecases.week import plans
from widearc.usecases.week.coverage import week_view
from widearc.web import create_app

NOW = "2026-11-24T09:00:00+00:00"
MONDAY = "2026-11-23"
SLOTS = (
    *("leg-press-45", "split-squat", "reverse-lunge", "goblet-squat", "step-up"),
    *("calf-raise-step", "one-leg-romanian-deadlift", "dumbbell-squat"),
)


def bench_weeks() -> None:
    """Print what a full week costs: at most 100 ms warm and 300 ms for remedies are wanted."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "weeks.db"
        con = store.open_store(path)
        load_demo(con, now=NOW)
        load_record(con, now=NOW)
        week = plans.begin_week(con, 1, 1, MONDAY, now=NOW)
        for weekday in range(5):
            day = plans.add_day(con, 1, week, weekday, 1, now=NOW)
            for exercise in SLOTS:
                plans.add_exercise(con, 1, day, exercise, now=NOW)
        row = plans.week_row(con, 1, week)
        spent = []
        memo = Memo()
        for _ in range(6):
            start = time.perf_counter()
            view = week_view(con, 1, row, memo, today=date(2026, 11, 24))
            spent.append(1000.0 * (time.perf_counter() - start))
        remedies = sum(f.remedy is not None for f in view.findings)
        print(
            f"week of {len(view.slots)} slots: {spent[0]:.0f} ms with {remedies} remedies cold, "
            f"{min(spent[1:]):.0f} ms warm"
        )
        app = create_app(path, secret_key="bench", now=lambda: NOW)
        client = app.test_client()
        client.get("/week/?client=1")
        start = time.perf_counter()
        assert client.get("/week/?client=1").status_code == 200
        print(f"  its page: {1000.0 * (time.perf_counter() - start):.0f} ms warm")
        con.close()


if __name__ == "__main__":
    bench_weeks()
