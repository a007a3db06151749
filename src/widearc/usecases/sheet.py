"""What every sheet shares: a refusal with a message per field, and cells to numbers."""

from __future__ import annotations

import math
from collections.abc import Mapping

from widearc.core.errors import WideArcError
from widearc.core.words import Listed, Name, Said, Words
from widearc.words import say


class SheetError(WideArcError, ValueError):
    """A sheet that cannot be kept: a message per field ("rest", "row-0-length", "rows")."""

    def __init__(self, messages: Mapping[str, Words | str]) -> None:
        self.fields = {
            name: Said("{text}", text=Name(words)) if isinstance(words, str) else words
            for name, words in messages.items()
        }
        super().__init__(Said("{problems}", problems=Listed(tuple(self.fields.values()), "; ")))

    @property
    def messages(self) -> dict[str, str]:
        """Return what is wrong by field, as it is said now."""
        return {name: say(words) for name, words in self.fields.items()}


def cell(text: str, key: str, what: Said, messages: dict[str, Words]) -> float | None:
    """Return the number in a cell; None with a message under `key` for what is no number."""
    clean = text.strip().replace(",", ".").replace("−", "-")
    try:
        value = float(clean)
    except ValueError:
        told = Said("“{text}” is not {what}", text=Name(text.strip()[:20]), what=what)
        messages[key] = told if clean else Said("empty: type {what}", what=what)
        return None
    if not math.isfinite(value):
        messages[key] = Said("{text} is not {what}", text=Name(text.strip()[:20]), what=what)
        return None
    return value
