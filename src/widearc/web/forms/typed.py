"""Text from addresses and forms to values; a refusal names the field and keeps what was typed."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping

from widearc.core.errors import InputError


def number(source: Mapping[str, str], name: str, default: float, *, what: str) -> float:
    """Return a typed number, the default where the field is missing; InputError names the field."""
    text = source.get(name)
    if text is None:
        return default
    clean = text.strip().replace(",", ".").replace("−", "-")
    try:
        value = float(clean)
    except ValueError:
        raise InputError(name, text, what) from None
    if not math.isfinite(value):
        raise InputError(name, text, what)
    return value


def integer(source: Mapping[str, str], name: str, default: int, *, what: str) -> int:
    """Return a typed whole number, the default where the field is missing; InputError names the
    field.
    """
    value = number(source, name, default, what=what)
    if value != int(value) or abs(value) > 2**53:
        raise InputError(name, source.get(name), what)
    return int(value)


def optional(
    source: Mapping[str, str], name: str, messages: dict[str, str], *, per: float, unit: str
) -> float | None:
    """Return a typed number in SI (typed in `unit`, `per` SI each), None where it is empty; a
    message for no number.
    """
    if not source.get(name, "").strip():
        return None
    try:
        return number(source, name, 0.0, what=unit) * per
    except InputError as error:
        what = f"a number of {unit}" if unit else "a number"
        messages[name] = f"“{str(error.value).strip()[:20]}” is not {what}"
        return None


def back_or(text: str, otherwise: str) -> str:
    """Return the page a form came from, if it is one of ours, else another address."""
    # one slash only: two would name another host
    return text if text.startswith("/") and not text.startswith(("//", "/\\")) else otherwise


def known_id(text: str, known: Iterable[int]) -> int | None:
    """Return the one of `known` that a text names, None for any other text."""
    return next((i for i in known if str(i) == text.strip()), None)


class Texts(dict[str, str]):
    """Texts by a field's name: empty where there is none, so that a template may ask for any."""

    def __missing__(self, name: str) -> str:
        return ""
