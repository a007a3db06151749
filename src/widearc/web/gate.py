"""Searches take turns, so that a tap is answered while they compute.

Twenty searches at once would share one interpreter: none would be sooner, and every mark would
wait for all of them.
"""

from __future__ import annotations

import threading
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
    """Lets some compute at once and some wait; the rest is asked to come again."""

    def __init__(self, at_once: int = AT_ONCE, most_waiting: int = MOST_WAITING) -> None:
        self._turns = threading.BoundedSemaphore(at_once)
        self._places = threading.BoundedSemaphore(at_once + most_waiting)

    def enter(self, longest_wait_s: float = LONGEST_WAIT_S) -> bool:
        """Wait for a turn; return whether there is one."""
        if not self._places.acquire(blocking=False):
            return False
        if self._turns.acquire(timeout=longest_wait_s):
            return True
        self._places.release()
        return False

    def leave(self) -> None:
        """Let the next one compute."""
        self._turns.release()
        self._places.release()


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
