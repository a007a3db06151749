"""Kills the server under writes, again and again: is anything lost that was acknowledged?"""

from __future__ import annotations

import argparse
import contextlib
import http.client
import random
import sqlite3
import tempfile
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path

from tools.served import Browser, served

KILLS, WRITERS = 100, 4
FIRST_S = 10.0  # for the first write of a start; then it is killed at any moment


@dataclass(slots=True)
class Lost:
    """What was acknowledged, and what of it is not there; kills; what else is wrong."""

    kills: int = 0
    acknowledged: set[str] = field(default_factory=set)
    lost: set[str] = field(default_factory=set)
    wrong: list[str] = field(default_factory=list)


def kill(times: int, seed: int = 1) -> Lost:
    """Return what was lost in so many kills, each at a moment of its own."""
    seen, chance = Lost(), random.Random(seed)
    with tempfile.TemporaryDirectory() as folder:
        for number in range(times):
            with served(folder) as server:
                stop, begun = threading.Event(), threading.Event()
                writers = [
                    threading.Thread(
                        target=_write, args=(server.port, f"{number}-{writer}", stop, begun, seen)
                    )
                    for writer in range(WRITERS)
                ]
                for writer in writers:
                    writer.start()
                begun.wait(FIRST_S)
                time.sleep(chance.uniform(0.0, 0.4))
                server.process.kill()
                server.process.wait()
                stop.set()
                for writer in writers:
                    writer.join()
            seen.kills += 1
            _look(Path(folder) / "demo.db", seen)
    return seen


def _write(port: int, name: str, stop: threading.Event, begun: threading.Event, seen: Lost) -> None:
    """Add clients one after the other until the server is gone; remember who was acknowledged."""
    browser, number = Browser(port), 0
    while not stop.is_set():
        number += 1
        who = f"killed {name}-{number}"
        try:
            answer = browser.post("/clients/", [("name", who), ("sore-knee", "left")])
        except (OSError, http.client.HTTPException):
            return
        if answer.status == 302:
            seen.acknowledged.add(who)
            begun.set()


def _look(database: Path, seen: Lost) -> None:
    with contextlib.closing(sqlite3.connect(database)) as con:
        said = con.execute("PRAGMA integrity_check").fetchone()[0]
        if said != "ok" or con.execute("PRAGMA foreign_key_check").fetchall():
            seen.wrong.append(f"kill {seen.kills}: {said}")
        # a client and what is sore are one change: both are there or neither
        half = con.execute(
            """SELECT name FROM client WHERE name LIKE 'killed %' AND id NOT IN
               (SELECT client_id FROM client_sore)"""
        ).fetchall()
        seen.wrong += [f"half written: {row[0]}" for row in half]
        there = {row[0] for row in con.execute("SELECT name FROM client")}
    seen.lost |= seen.acknowledged - there


def main() -> None:
    """Kill, print, and end with 1 where anything was lost."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("times", type=int, nargs="?", default=KILLS)
    seen = kill(parser.parse_args().times)
    print(
        f"{seen.kills} kills, {len(seen.acknowledged)} writes acknowledged, "
        f"{len(seen.lost)} lost, wrong: {seen.wrong[:5]}"
    )
    raise SystemExit(1 if seen.lost or seen.wrong else 0)


if __name__ == "__main__":
    main()
