"""Readings that take themselves: still for a second, moved before the next; overload and drift are
noticed.
"""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass

import numpy as np

from widearc.gauge.line import Sample

STILL_S = 1.0
STILL_POSITION_M = 0.002  # standard deviation of the position that still counts as still (assumed)
STILL_FORCE_N, STILL_FORCE_SHARE = 1.0, 0.015  # the force's, the larger of both (assumed)
MOVED_M = 0.01  # between two readings
LEAST_SAMPLES = 8
ZERO_WITHIN_M, ZERO_SHIFT_N = (
    0.005,
    2.0,
)  # back where it began, a zero that moved by more is drift (assumed)
SLACK_N = 5.0  # a start that pulls more is no zero


@dataclass(frozen=True, slots=True, kw_only=True)
class Capture:
    """One steady reading: means over the still second, their spread, and which way the pull
    went.
    """

    time_s: float
    position_m: float
    force_n: float
    force_sd_n: float
    direction: str


class Steady:
    """Watches samples one by one; give each to `see`, which returns a new capture or None."""

    def __init__(self) -> None:
        self.captures: list[Capture] = []
        self.overloads = 0
        self.drift_n: float | None = None
        self._zero: tuple[float, float] | None = None
        self._window: deque[Sample] = deque()
        self._taken_here = False

    def see(self, sample: Sample) -> Capture | None:
        """Take a sample in; return the capture it completes, if any. An overload starts the second
        anew.
        """
        if sample.overload:
            self.overloads += 1
            self._window.clear()
            return None
        if self._window and (
            sample.time_s < self._window[-1].time_s or sample.time_s - self._window[-1].time_s > 0.5
        ):
            # the gauge started anew, or samples are missing: what was still is not known
            self._window.clear()
        self._window.append(sample)
        while self._window[-1].time_s - self._window[0].time_s > STILL_S:
            self._window.popleft()
        if self.captures and abs(sample.position_m - self.captures[-1].position_m) > MOVED_M:
            self._taken_here = False
        return None if self._taken_here else self._capture(sample)

    def _capture(self, sample: Sample) -> Capture | None:
        span = self._window[-1].time_s - self._window[0].time_s
        if span < 0.9 * STILL_S or len(self._window) < LEAST_SAMPLES:
            return None
        position = np.array([s.position_m for s in self._window])
        force = np.array([s.force_n for s in self._window])
        loose = max(STILL_FORCE_N, STILL_FORCE_SHARE * abs(float(force.mean())))
        if float(position.std()) > STILL_POSITION_M or float(force.std()) > loose:
            return None
        self._taken_here = True
        here, pull = float(position.mean()), float(force.mean())
        self._note_drift(here, pull)
        before = self.captures[-1].position_m if self.captures else -np.inf
        made = Capture(
            time_s=sample.time_s,
            position_m=here,
            force_n=pull,
            force_sd_n=float(force.std()),
            direction="loading" if here > before else "unloading",
        )
        self.captures.append(made)
        return made

    def _note_drift(self, position_m: float, force_n: float) -> None:
        if self._zero is None:
            if abs(force_n) <= SLACK_N:
                self._zero = position_m, force_n
        elif (
            abs(position_m - self._zero[0]) <= ZERO_WITHIN_M
            and abs(force_n - self._zero[1]) > ZERO_SHIFT_N
        ):
            self.drift_n = force_n - self._zero[1]
