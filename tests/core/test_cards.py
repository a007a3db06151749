"""Cards: every entry's texts are its own, and fit what it is done with."""

from __future__ import annotations

import re
from collections import Counter

import pytest

from tests.looked import looked
from widearc.core.exercises import EXERCISES
from widearc.core.exercises.cards import CARDS

TRAINED = [e for e in EXERCISES.values() if e.compared]


def stocks(entry):
    return {way.stock for ways in entry.ways for way in ways}


def ports(entry):
    return {way.port for ways in entry.ways for way in ways}


FITS = {
    r"\bbands?\b|\bloop\b": lambda e: "band" in stocks(e),
    r"\bdumbbells?\b": lambda e: stocks(e) & {"dumbbell", "dumbbells", "one hand", "unequal pair"},
    r"\b(the|a) bar\b|\bbar (on|at|over|low)\b": lambda e: (
        stocks(e) & {"bar", "rail", "corner"} or "bar to hang from" in e.needs
    ),
    r"\bsled\b": lambda e: stocks(e) & {"sled", "hack"},
    r"\b(the|a|soft|half) ball\b(?! of)": lambda e: (
        {"ball", "half ball"} & set(e.needs) or "squeeze" in e.id
    ),
    r"\bcouch\b": lambda e: "couch" in e.needs,
    r"\btable\b": lambda e: "table" in e.needs or "pendulum machine" in e.needs,
    r"\bbench\b": lambda e: any("bench" in need or need == "seat" for need in e.needs),
    r"\bbelt\b": lambda e: "hip-belt" in ports(e),
    r"\bcable\b|\bpulley\b": lambda e: "cable" in stocks(e),
    r"\bstack\b": lambda e: "stack" in stocks(e),
    r"\bsprings?\b": lambda e: "spring" in stocks(e),
    r"\bpartner\b": lambda e: "partner" in e.needs,
    r"\bwedge\b": lambda e: "heel wedge" in e.needs or "wedge it" in " ".join(e.cautions),
    r"\bstand up to unhook\b": lambda e: "hip-belt" in ports(e),
}
"""A word, and what an entry must have for it to be true."""


@pytest.mark.parametrize("entry", TRAINED, ids=lambda e: e.id)
def test_a_card_speaks_of_nothing_that_its_exercise_does_not_have(entry):
    texts = (*entry.checks, *entry.cues, *entry.mistakes, *entry.cautions, entry.breathing)
    for text in looked(texts, 5):
        for word, fits in FITS.items():
            assert not re.search(word, text.lower()) or fits(entry), (word, text)


def test_an_alias_belongs_to_one_entry_alone_and_is_no_entry_s_name():
    every = Counter(alias.lower() for e in EXERCISES.values() for alias in e.aliases)
    assert len(every) > 10
    assert [a for a, n in every.items() if n > 1] == []
    assert not every.keys() & {e.name.lower() for e in EXERCISES.values()}


def test_two_wordings_are_gone():
    for entry in looked(EXERCISES.values(), 90):
        texts = (*entry.aliases, *entry.checks, *entry.cues, *entry.mistakes, *entry.cautions)
        said = " ".join(texts).lower()
        assert "drawbridge" not in said and "travelling" not in said


def test_every_card_has_what_a_newcomer_needs():
    for entry in looked(TRAINED, 90):
        assert 3 <= len(entry.checks) <= 6, entry.id
        assert entry.cues and entry.mistakes and entry.breathing, entry.id
        assert all(2 < len(t) <= 160 for t in (*entry.checks, *entry.cues, *entry.mistakes))
    assert CARDS.keys() <= EXERCISES.keys()


def test_a_seated_calf_raise_says_what_it_does_not_replace():
    for id_ in ("calf-raise-seated", "calf-raise-seated-weights"):
        assert any(
            "does not replace raises with a straight knee" in c for c in EXERCISES[id_].cautions
        )
