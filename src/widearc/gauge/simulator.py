"""The simulated stand-in: serves the gauge's lines over TCP, with noise, quantisation, drift and
lost lines.
"""

from __future__ import annotations

import contextlib
import socket
import threading
import time

import numpy as np

from widearc.gauge.line import GREETING, Sample, format_line
from widearc.gauge.scripts import Script

RATE_HZ = 25.0
DEFAULT_PORT = 7701


class Simulator:
    """Serves one script to any number of listeners on 127.0.0.1; a port that is busy is answered
    with a free one.

    seed: of the noise; speed: how much faster than life the script plays (for tests).
    """

    def __init__(
        self, script: Script, *, port: int = DEFAULT_PORT, seed: int = 1, speed: float = 1.0
    ) -> None:
        self._script, self._speed = script, speed
        self._random = np.random.default_rng(seed)
        self._stop = threading.Event()
        self._listening = _listen(port)
        self.port: int = self._listening.getsockname()[1]
        self._threads: list[threading.Thread] = []

    @property
    def address(self) -> str:
        """Return the address that a reader opens."""
        return f"socket://127.0.0.1:{self.port}"

    def sample(self, time_s: float) -> Sample | None:
        """Return what the gauge sends at a time (s), None for a line that is lost."""
        script = self._script
        if self._random.random() < script.drop_share:
            return None
        position, back = script.position_m(time_s)
        true = script.force_n(position, back=back) + script.drift_n_per_s * time_s
        if true > script.limit_n:
            return Sample(time_s=time_s, position_m=round(position, 4), force_n=0.0, overload=True)
        read = true + float(self._random.normal(0.0, script.noise_n))
        shaken = position + float(self._random.normal(0.0, 0.0003))
        return Sample(
            time_s=time_s, position_m=shaken, force_n=round(read / script.step_n) * script.step_n
        )

    def start(self) -> Simulator:
        """Serve in the background; return itself."""
        thread = threading.Thread(target=self.run, name="gauge-simulator", daemon=True)
        thread.start()
        self._threads.append(thread)
        return self

    def run(self) -> None:
        """Serve until stopped."""
        self._listening.settimeout(0.2)
        while not self._stop.is_set():
            try:
                talking, _ = self._listening.accept()
            except TimeoutError:
                continue
            except OSError:
                break
            threading.Thread(target=self._talk, args=(talking,), daemon=True).start()
        self._listening.close()

    def _talk(self, talking: socket.socket) -> None:
        start = time.monotonic()
        with contextlib.suppress(OSError), talking:
            talking.sendall((GREETING + "\n").encode("ascii"))
            count = 0
            while not self._stop.is_set():
                due = count / RATE_HZ / self._speed
                if self._stop.wait(max(0.0, due - (time.monotonic() - start))):
                    break
                sample = self.sample(count / RATE_HZ)
                count += 1
                if sample is not None:
                    talking.sendall((format_line(sample) + "\n").encode("ascii"))

    def stop(self) -> None:
        """Stop serving: to a reader it is a gauge that was unplugged."""
        self._stop.set()
        for thread in self._threads:
            thread.join(timeout=2.0)


def _listen(port: int) -> socket.socket:
    for wanted in (port, 0):
        listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
        listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listening.bind(("127.0.0.1", wanted))
        except OSError:
            listening.close()
            continue
        listening.listen()
        return listening
    raise OSError("no free port on 127.0.0.1")
