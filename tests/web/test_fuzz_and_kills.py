"""Odd input over everything, and kills under writes: a share of `make fuzz` and `make soak`."""

from __future__ import annotations

import email

from tools.fuzz import Answer, _wrong, fuzz
from tools.kills import kill


def test_two_hundred_odd_cases_break_nothing():
    seen = fuzz(200, seed=7)
    assert seen.broke == []
    assert sum(seen.cases.values()) == 200 and len(seen.cases) == 5
    # some were taken, some refused at a field, some refused whole
    assert all(seen.statuses[status] > 3 for status in (200, 302, 400, 422))


def test_what_breaks_would_be_seen():
    policy = "Content-Type: text/html\nContent-Security-Policy: default-src 'none'\n\n"
    headers = email.message_from_string(policy)
    for status, body, words in (
        (500, b"", "status 500"),
        (200, b"<p>NaN</p>", "NaN"),
        (200, b"<p>nan N</p>", "nan N"),
        (200, b"Traceback (most recent call last)", "traceback"),
        (200, b"<p>Inference of nanny kg</p>", ""),
    ):
        found = _wrong(Answer(status=status, headers=headers, body=body))
        assert (words in found) if words else found == ""
    bare = email.message_from_string("Content-Type: text/html\n\n")
    assert _wrong(Answer(status=200, headers=bare, body=b"<p>")) == "no policy"


def test_five_kills_lose_nothing_that_was_acknowledged():
    seen = kill(5)
    assert seen.kills == 5 and len(seen.acknowledged) > 5
    assert seen.lost == set() and seen.wrong == []
