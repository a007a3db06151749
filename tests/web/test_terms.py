"""The glossary: every term is explained once, and every link to one arrives."""

from __future__ import annotations

import re

import pytest

from tests.looked import looked
from widearc.web.screens.terms.terms import BY_ID, TERMS
from widearc.words import plain

LINKED = (
    ("/swap", {"match", "shape", "reach", "level"}),
    ("/arc/", {"demand", "moment-arm", "effort"}),
    ("/bench/item/16", {"rest-length", "measured"}),
    ("/bench/item/1", {"measured"}),
    ("/intent/", {"lengthened"}),
    ("/claims/lunge-lean", {"demand"}),
    ("/arc/compare?pin=exercise%3Dgoblet-squat", {"demand"}),
    ("/clients/2", {"effort"}),
    ("/method/", {"demand"}),
)
ASKED = {  # what the trade's terms are, as the issue names them
    "demand",
    "resistance curve",
    "strength curve",
    "effort",
    "lengthened and shortened",
    "moment arm",
    "accommodating load",
}


def test_each_term_is_explained_once_in_words_that_can_be_read_aloud():
    assert len(BY_ID) == len(TERMS) == len({t.words for t in TERMS})
    assert {t.words for t in TERMS} >= ASKED
    for term in looked(TERMS, 25):
        said = plain(term.says)
        assert said[0].isupper() and said.endswith("."), term.id
        # no signs, brackets or long sentences: it is heard once
        assert not re.search(r"[()%°/=<>]", said), term.id
        assert all(len(part.split()) <= 32 for part in re.split(r"[.:;]", said)), term.id
        assert set(term.also) <= set(BY_ID) - {term.id}


def test_they_stand_in_the_order_of_the_alphabet():
    words = [t.words.casefold().lstrip("± ") for t in TERMS]
    assert words == sorted(words)


def test_every_drawing_that_is_named_is_drawn_and_says_what_it_shows(client):
    page = client.get("/terms/").text
    for term in looked(TERMS, 25):
        part = re.search(rf'<div id="{term.id}">(.*?)</div>', page, re.S)[1]
        assert bool(re.search(r'<svg[^>]*role="img" aria-label="[^"]{20,}"', part)) is bool(
            term.drawn
        ), term.id


@pytest.mark.parametrize(("address", "wanted"), LINKED)
def test_a_term_is_linked_where_it_first_stands(client, address, wanted):
    page = client.get(address, follow_redirects=True).text
    linked = re.findall(r'href="/terms/#([a-z-]+)"', page)
    assert wanted <= set(linked) <= set(BY_ID)
