"""Watches the gauge's live trace for minutes: does memory grow, does the trace keep up? `make soak`
prints it.
"""

from __future__ import annotations

import json
import sys
import tempfile
import threading
import time
import tracemalloc
import urllib.request
from contextlib import suppress
from pathlib import Path

from waitress.server import create_server

from widearc.gauge import SCRIPTS, Simulator
from widearc.web import create_app

MINUTES = 10.0
SETTLE_SHARE = 0.3  # by then the kept trace is full and what is imported once is imported


def soak(seconds: float, speed: float = 1.0) -> dict[str, float]:
    """Return events and samples per s, the longest gap (s), memory (kB) after settling and its
    growth until the end.
    """
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(
            Path(folder) / "soak.db", secret_key="soak", config={"WTF_CSRF_ENABLED": False}
        )
        server = create_server(app, host="127.0.0.1", port=0, threads=8)

        def run() -> None:
            with suppress(OSError):  # closing pulls the sockets from under the loop
                server.run()

        threading.Thread(target=run, daemon=True).start()
        simulator = Simulator(SCRIPTS["band-heavy"], port=0, speed=speed).start()
        app.extensions["gauge"].connect(simulator.address)
        tracemalloc.start()
        try:
            return _watch(f"http://127.0.0.1:{server.effective_port}/bench/gauge/stream", seconds)
        finally:
            tracemalloc.stop()
            app.extensions["gauge"].stop()
            simulator.stop()
            server.close()


def _watch(url: str, seconds: float) -> dict[str, float]:
    start = last = time.monotonic()
    events = samples = 0
    longest, settled = 0.0, None
    with urllib.request.urlopen(url) as answer:
        while (now := time.monotonic()) - start < seconds:
            line = answer.readline()
            if not line.startswith(b"data: "):
                continue
            got = len(json.loads(line[6:])["points"])
            if got:
                events, samples = events + 1, samples + got
                longest, last = (max(longest, now - last) if events > 1 else 0.0), now
            if settled is None and now - start > SETTLE_SHARE * seconds:
                settled = tracemalloc.get_traced_memory()[0]
    took = time.monotonic() - start
    memory = tracemalloc.get_traced_memory()[0]
    return {
        "seconds": round(took, 1),
        "events_per_s": round(events / took, 1),
        "samples_per_s": round(samples / took, 1),
        "longest_gap_s": round(longest, 2),
        "memory_kb": round((settled or memory) / 1e3),
        "growth_kb": round((memory - (settled or memory)) / 1e3),
    }


if __name__ == "__main__":
    minutes = float(sys.argv[1]) if len(sys.argv) > 1 else MINUTES
    print(json.dumps(soak(60 * minutes), indent=2))
