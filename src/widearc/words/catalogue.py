"""Translations by the English that they stand for: gettext's catalogues, read once."""

from __future__ import annotations

import gettext
import re
from functools import cache, lru_cache
from pathlib import Path

from widearc.words.how import LANGUAGES, spoken

FOLDER = Path(__file__).parent / "catalogues"
DOMAIN = "wide-arc"
MOST_MISSED = 1000

MISSED: set[str] = set()
"""English that was asked for in another language and has no translation: tests look here."""


_PLACE = re.compile(r"\{\w+\}")


class _English(gettext.NullTranslations):
    """What is said where a catalogue has no text: the English, and it is noted."""

    def gettext(self, message: str) -> str:
        # what is only a place for values is the same in every language
        if len(MISSED) < MOST_MISSED and any(map(str.isalpha, _PLACE.sub("", message))):
            MISSED.add(message)
        return message

    def ngettext(self, msgid1: str, msgid2: str, n: int) -> str:
        MISSED.add(msgid1)
        return msgid1 if n == 1 else msgid2


@cache
def catalogue(language: str) -> gettext.NullTranslations:
    """Return a language's catalogue; English needs none. Raises ValueError for a language that is
    not shipped.
    """
    if language not in LANGUAGES:
        raise ValueError(f"no language {language}")
    if language == "en":
        return gettext.NullTranslations()
    with (FOLDER / language / "LC_MESSAGES" / f"{DOMAIN}.mo").open("rb") as file:
        found = gettext.GNUTranslations(file)
    found.add_fallback(_English())
    return found


@lru_cache(maxsize=8192)
def translated(english: str, language: str) -> str:
    """Return a text in a language."""
    return catalogue(language).gettext(english) if english else english


@lru_cache(maxsize=1024)
def translated_number(one: str, many: str, is_one: bool, language: str) -> str:
    """Return the text for one or for another number of things, in a language."""
    return catalogue(language).ngettext(one, many, 1 if is_one else 2)


def tr(english: str) -> str:
    """Return a text in the language that is spoken."""
    return translated(english, spoken().language)
