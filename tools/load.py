"""Twenty phones on one server: marks, sets and swaps, with pauses and without. See `make load`.

All is bounded: `SECONDS` (60 by default) of each kind, on loopback, in a folder of its own.
"""

from __future__ import annotations

import argparse
import http.client
import random
import re
import tempfile
import threading
import time
from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path

from tools.served import REPLY_S, Answer, Browser, served

PHONES = 20
MARK_EVERY_S, SWAP_EVERY_S = 5.0, 30.0
SWAPS_WITHOUT_PAUSE = 0.2  # of all that is asked
SETTLED_S = 120.0  # memory is compared from here on
SET = [
    ("query", "exercise=back-squat-high&client=1&load-kind=free-mass&kg=80"),
    ("reps", "5"),
    ("reserve", "2"),
    ("side", "both"),
    ("formula", "epley"),
]
LOADS = ("", "&kg=90", "&kg=110", "&kg=130")


@dataclass(slots=True)
class Seen:
    """What the phones saw: seconds by what was asked, and what went wrong."""

    seconds: dict[str, list[float]] = field(default_factory=lambda: defaultdict(list))
    wrong: list[str] = field(default_factory=list)
    lock: threading.Lock = field(default_factory=threading.Lock)

    def add(self, kind: str, seconds: float, status: int) -> None:
        """Count one answer."""
        with self.lock:
            self.seconds[kind].append(seconds)
            if status >= 400:
                self.wrong.append(f"{kind}: {status}")


class Phone(threading.Thread):
    """One phone: a session of its own, marking items, keeping sets and asking for stand-ins."""

    def __init__(self, port: int, seed: int, until: float, seen: Seen, *, pauses: bool) -> None:
        super().__init__(daemon=True)
        self._until, self._seen, self._pauses = until, seen, pauses
        self._random = random.Random(seed)
        self._browser = Browser(port)

    def run(self) -> None:
        """Speak to the server until the time is over."""
        try:
            self._session()
        except (OSError, http.client.HTTPException) as error:
            with self._seen.lock:
                self._seen.wrong.append(f"no answer: {error!r}")

    def _session(self) -> None:
        start = time.monotonic()
        pause = self._random.uniform(0, MARK_EVERY_S) if self._pauses else 0.0
        time.sleep(pause)
        place = 1 + self._random.randrange(3)
        page = self._browser.get(f"/room/{place}").text
        items = re.findall(r'action="(/room/item/\d+/state)"', page)
        swaps = self._random.uniform(0, SWAP_EVERY_S)
        while time.monotonic() < self._until:
            due = time.monotonic() - start >= swaps
            if due if self._pauses else self._random.random() < SWAPS_WITHOUT_PAUSE:
                swaps += SWAP_EVERY_S
                path = f"/swap?place={place}{self._random.choice(LOADS)}"
                self._timed("swap", lambda path=path: self._browser.get(path))
            elif self._random.random() < 0.3:
                self._timed("set", lambda: self._browser.post("/arc/set", SET))
            else:
                form = [("state", self._random.choice(("taken", "free")))]
                path = self._random.choice(items)
                self._timed("mark", lambda path=path, form=form: self._browser.post(path, form))
            if self._pauses:
                time.sleep(self._random.uniform(0.5, 1.5) * MARK_EVERY_S)

    def _timed(self, kind: str, ask: Callable[[], Answer]) -> None:
        start = time.monotonic()
        status = ask().status
        self._seen.add(kind, time.monotonic() - start, status)


def resident_mb(pid: int) -> float:
    """Return the memory of a process and its children, MB."""
    total = 0
    for process in (pid, *_children(pid)):
        text = Path(f"/proc/{process}/status").read_text(encoding="ascii")
        found = re.search(r"VmRSS:\s+(\d+)", text)
        total += int(found.group(1)) if found else 0
    return total / 1024


def _children(pid: int) -> list[int]:
    path = Path(f"/proc/{pid}/task/{pid}/children")
    return [int(p) for p in path.read_text(encoding="ascii").split()] if path.exists() else []


def percentile(values: list[float], share: float) -> float:
    """Return the value that `share` of all do not exceed; 0 where there are none."""
    return sorted(values)[min(len(values) - 1, int(share * len(values)))] if values else 0.0


def run(seconds: float, *, pauses: bool, phones: int = PHONES) -> tuple[Seen, list[float]]:
    """Return what the phones saw, and the server's memory (MB) every tenth of the time after it
    has settled.
    """
    with tempfile.TemporaryDirectory() as folder, served(folder) as server:
        _warm(server.port)
        return _watch(server.process.pid, server.port, seconds, phones, pauses=pauses)


def _warm(port: int) -> None:
    """Ask once for a stand-in in each room: a day in use is tried, not its first minute."""
    browser = Browser(port)
    for place in (1, 2, 3):
        for kg in LOADS:
            browser.get(f"/swap?place={place}{kg}")


def _watch(
    pid: int, port: int, seconds: float, phones: int, *, pauses: bool
) -> tuple[Seen, list[float]]:
    seen, memory = Seen(), []
    start = time.monotonic()
    every = [Phone(port, seed, start + seconds, seen, pauses=pauses) for seed in range(phones)]
    for phone in every:
        phone.start()
    settled = min(SETTLED_S, 0.5 * seconds)
    while (gone := time.monotonic() - start) < seconds:
        time.sleep(min(seconds / 20, seconds - gone))
        if time.monotonic() - start >= settled:
            memory.append(resident_mb(pid))
    for phone in every:
        phone.join(REPLY_S)
    return seen, memory


def told(seen: Seen, memory: list[float]) -> str:
    """Return what was seen as lines."""
    lines = []
    for kind, values in sorted(seen.seconds.items()):
        p50, p95, p99 = (1000 * percentile(values, share) for share in (0.5, 0.95, 0.99))
        lines.append(
            f"  {kind}: {len(values)}, p50 {p50:.0f} ms, p95 {p95:.0f} ms, p99 {p99:.0f} ms, "
            f"longest {1000 * max(values):.0f} ms"
        )
    if memory:
        growth = memory[-1] / memory[0] - 1
        lines.append(f"  memory after settling {memory[0]:.0f} MB, grown by {growth:.1%}")
    lines.append(f"  wrong: {len(seen.wrong)} {sorted(set(seen.wrong))[:5] if seen.wrong else ''}")
    return "\n".join(lines)


def main() -> None:
    """Print both kinds of load."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("seconds", type=float, nargs="?", default=60.0)
    seconds = min(parser.parse_args().seconds, 3600.0)
    for words, pauses in (
        (f"{PHONES} phones, a set or mark every 5 s and a swap every 30 s", True),
        (f"{PHONES} phones without pauses", False),
    ):
        print(f"{words}, {seconds:.0f} s:", flush=True)
        print(told(*run(seconds if pauses else min(seconds, 60.0), pauses=pauses)), flush=True)


if __name__ == "__main__":
    main()
