"""The edge of words: sentences of the core as text, in units and a language."""

from widearc.words.catalogue import tr, translated
from widearc.words.how import LANGUAGES, PLAIN, UNITS, How, begin, end, speaking, spoken
from widearc.words.kept import again, kept
from widearc.words.render import plain, say, shown, tell
from widearc.words.units import (
    how_of,
    metric_text,
    plain_number,
    sign_of,
    size_of,
    spoken_text,
    suffix_of,
    typed_number,
)

__all__ = [
    "LANGUAGES",
    "PLAIN",
    "UNITS",
    "How",
    "again",
    "begin",
    "end",
    "how_of",
    "kept",
    "metric_text",
    "plain",
    "plain_number",
    "say",
    "shown",
    "sign_of",
    "size_of",
    "speaking",
    "spoken",
    "spoken_text",
    "suffix_of",
    "tell",
    "tr",
    "translated",
    "typed_number",
]
