"""Searches take turns, so that a tap is answered while they compute.

Twenty searches at once would share one interpreter: none would be sooner, and every mark would
wait for all of them.
"""

from __future__ import annotations

import threading
from collections import deque
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec

from flask import Response, current_app, make_response
from flask.typing import ResponseReturnValue

from widearc.web.errors import error_page

P = ParamSpec("P")

AT_ONCE = 2  # a search of a cold room does not hold up those of warm ones
MOST_WAITING = 20  # the server has 32 threads: others stay free for marks
LONGEST_WAIT_S = 30.0
AGAIN_S = 2  # when a phone asks again by itself


class Gate:
    """Lets some compute at once and some wait, first come first served; the rest is asked to come
    again.
    """

    def __init__(self, at_once: int = AT_ONCE, most_waiting: int = MOST_WAITING) -> None:
        self._lock = threading.Lock()
        self._free, self._most = at_once, most_waiting
        self._waiting: deque[threading.Event] = deque()

    def enter(self, longest_wait_s: float = LONGEST_WAIT_S) -> bool:
        """Wait for a turn; return whether there is one."""
        with self._lock:
            if self._free > 0:
                self._free -= 1
                return True
            if len(self._waiting) >= self._most:
                return False
            mine = threading.Event()
            self._waiting.append(mine)
        if mine.wait(longest_wait_s):
            return True
        with self._lock:
            if mine.is_set():  # handed over at the last moment
                return True
            self._waiting.remove(mine)
            return False

    def leave(self) -> None:
        """Hand the turn to who has waited longest: a newcomer cannot take it."""
        with self._lock:
            if self._waiting:
                self._waiting.popleft().set()
            else:
                self._free += 1


def in_turn(view: Callable[P, ResponseReturnValue]) -> Callable[P, ResponseReturnValue]:
    """Return a view that computes in its turn; with too many before it, it says when to ask
    again.
    """

    @wraps(view)
    def waited(*args: P.args, **kwargs: P.kwargs) -> ResponseReturnValue:
        gate: Gate = current_app.extensions["gate"]
        if not gate.enter():
            return _busy()
        try:
            return view(*args, **kwargs)
        finally:
            gate.leave()

    return waited


def _busy() -> Response:
    answer = make_response(
        error_page(
            503,
            "Many are computing at once",
            "Nothing was lost. This page asks again by itself; or load it once more.",
        )
    )
    answer.headers["Retry-After"] = str(AGAIN_S)
    answer.headers["Refresh"] = str(AGAIN_S)
    return answer
