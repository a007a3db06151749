"""What every sheet shares: a refusal with a message per field, and cells to numbers."""

from __future__ import annotations

import math
from collections.abc import Mapping

from widearc.core.errors import WideArcError
from widearc.core.words import Name, Said


class SheetError(WideArcError, ValueError):
    """A sheet that cannot be kept: a message per field ("rest", "row-0-length", "rows")."""

    def __init__(self, messages: Mapping[str, str]) -> None:
        self.messages = dict(messages)
        super().__init__(Said("{problems}", problems=Name("; ".join(self.messages.values()))))


def cell(text: str, key: str, what: str, messages: dict[str, str]) -> float | None:
    """Return the number in a cell; None with a message under `key` for what is no number."""
    clean = text.strip().replace(",", ".").replace("−", "-")
    try:
        value = float(clean)
    except ValueError:
        shown = f"“{text.strip()[:20]}” is not" if clean else "empty: type"
        messages[key] = f"{shown} {what}"
        return None
    if not math.isfinite(value):
        messages[key] = f"{text.strip()[:20]} is not {what}"
        return None
    return value
