"""What is wrong with what was typed, in a sentence each."""

from __future__ import annotations

from widearc.core.errors import InputError
from widearc.core.words import Value
from widearc.words import figures, say, spoken, tell


def sentence(words: Value | str) -> str:
    """Return words as one sentence: a capital and a full stop."""
    text = say(words)
    return text[:1].upper() + text[1:] + ("" if text.endswith(".") else ".")


def not_used(error: InputError, shown: str = "") -> str:
    """Return why a value is refused. shown: the value as it was typed, where that was in a unit of
    its own.
    """
    if shown:
        return tell("{value} is not used: {allowed}", value=shown, allowed=error.allowed)
    value = error.value
    typed = figures.short(value, spoken()) if isinstance(value, float) else str(value)[:30]
    return sentence(tell("“{value}” is not used: {allowed}", value=typed, allowed=error.allowed))


def not_kept(error: InputError) -> str:
    """Return why a place of a file is refused."""
    return tell(
        "{where}: “{value}” is not kept; {allowed}",
        where=error.where,
        value=str(error.value)[:40],
        allowed=error.allowed,
    )


def does_not_fit(error: InputError, shown: str) -> str:
    """Return why a value that goes with others is refused; shown: as it was typed."""
    return tell("{value} does not fit: {allowed}", value=shown, allowed=error.allowed)
