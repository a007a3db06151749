"""How a trainer is spoken to: units and language, for a while or for good."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar, Token
from dataclasses import dataclass

LANGUAGES = ("en", "id")
"""English, and Indonesian by its catalogue."""

UNITS = ("metric", "imperial")
"""Kilograms and centimetres, or pounds and inches."""


@dataclass(frozen=True, slots=True, kw_only=True)
class How:
    """Units ("metric": kg and cm, "imperial": lb and in) and language ("en")."""

    units: str = "metric"
    language: str = "en"


PLAIN = How()
"""What files, documents and the command line speak: SI and English."""

_SPOKEN: ContextVar[How] = ContextVar("spoken", default=PLAIN)


def spoken() -> How:
    """Return how is spoken now: plain where nobody said otherwise."""
    return _SPOKEN.get()


def begin(how: How) -> Token[How]:
    """Speak so from now on, until `end`."""
    return _SPOKEN.set(how)


def end(token: Token[How]) -> None:
    """Speak as before `begin`."""
    _SPOKEN.reset(token)


@contextmanager
def speaking(how: How) -> Iterator[None]:
    """Speak so within the block."""
    token = begin(how)
    try:
        yield
    finally:
        end(token)
