"""Text from addresses and forms to values; a refusal names the field and keeps what was typed."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping

from widearc.core.errors import InputError
from widearc.core.words import Name, Said
from widearc.words import plain_number


def as_number(text: str) -> float | None:
    """Return the number that a text is (a comma is a point, any minus is one); None for no finite
    number.
    """
    return plain_number(text)


def number(source: Mapping[str, str], name: str, default: float, *, what: str) -> float:
    """Return a typed number, the default where the field is missing; InputError names the field."""
    text = source.get(name)
    if text is None:
        return default
    value = as_number(text)
    if value is None:
        raise InputError(name, text, Said("{what}", what=Name(what)))
    return value


def integer(source: Mapping[str, str], name: str, default: int, *, what: str) -> int:
    """Return a typed whole number, the default where the field is missing; InputError names the
    field.
    """
    value = number(source, name, default, what=what)
    if value != int(value) or abs(value) > 2**53:
        raise InputError(name, source.get(name), Said("{what}", what=Name(what)))
    return int(value)


LONGEST_ADDRESS = 4000


def address_part(source: Mapping[str, str], name: str) -> str:
    """Return a part of an address that a form carries. InputError for one that is too long: cut
    off, it would be another set-up.
    """
    text = source.get(name, "")
    if len(text) > LONGEST_ADDRESS:
        raise InputError(
            name, f"{len(text)} characters", Said("at most {_}", _=Name(str(LONGEST_ADDRESS)))
        )
    return text


# one slash only: two would name another host; no white space, which browsers leave out
OWN_ADDRESS = re.compile(r"/(?![/\\])[^\s\\\x00-\x1f\x7f]{0,4000}")


def back_or(text: str, otherwise: str) -> str:
    """Return the page a form came from, if it is one of ours, else another address."""
    return text if OWN_ADDRESS.fullmatch(text) else otherwise


def known_id(text: str, known: Iterable[int]) -> int | None:
    """Return the one of `known` that a text names, None for any other text."""
    return next((i for i in known if str(i) == text.strip()), None)


class Texts(dict[str, str]):
    """Texts by a field's name: empty where there is none, so that a template may ask for any."""

    def __missing__(self, name: str) -> str:
        return ""
