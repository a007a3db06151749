"""Sentences that are kept: each comes back as it was, and what is none never does."""

from __future__ import annotations

import json

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from widearc.core import words as w
from widearc.words import How, again, kept, plain, say

numbers = st.floats(-1e6, 1e6)
texts = st.text(max_size=20)
leaves = st.one_of(
    st.builds(w.Mass, numbers, st.booleans(), st.booleans()),
    st.builds(w.Length, numbers, st.booleans()),
    st.builds(w.Moment, numbers, st.booleans()),
    st.builds(w.Duration, numbers, st.booleans()),
    st.builds(w.Times, numbers, st.integers(0, 4)),
    st.builds(w.Figure, numbers, texts),
    st.builds(w.Count, st.integers(0, 1000)),
    *(st.builds(kind, numbers) for kind in (w.Force, w.Distance, w.Angle, w.Share)),
    *(st.builds(kind, texts, st.booleans()) for kind in (w.Name, w.Term)),
)
values = st.recursive(
    leaves,
    lambda inner: st.one_of(
        st.builds(w.Listed, st.lists(inner, max_size=3).map(tuple), st.sampled_from([", ", "and"])),
        st.builds(lambda a, b: w.Said("{a} beside {b}", a=a, b=b, begins=True), inner, inner),
    ),
    max_leaves=8,
)


@given(values)
def test_every_sentence_comes_back_as_it_was(value):
    back = again(kept(value))
    assert back == value
    for how in (How(), How(units="imperial")):
        assert say(back, how) == say(value, how)


@given(
    st.recursive(
        st.one_of(st.none(), st.booleans(), numbers, texts, st.sampled_from(["Said", "Mass"])),
        lambda inner: st.one_of(
            st.lists(inner, max_size=5), st.dictionaries(texts, inner, max_size=3)
        ),
    )
)
def test_what_is_no_sentence_is_none_and_never_an_error(document):
    value = again(json.dumps(document))
    assert value is None or again(kept(value)) == value
    if value is not None:
        plain(value)


@pytest.mark.parametrize(
    "text",
    [
        "",
        "a plain sentence",
        "[]",
        '["Mass"]',
        '["Mass","20",false,false]',
        '["Mass",20,0,false]',
        '["Count",2.5]',
        '["Said","{gone}","",false,{}]',
        '["Said","{","",false,{}]',
        '["Said","{0}","",false,{}]',
        '["Said","{a.b}","",false,{"a":["Mass",1,false,false]}]',
        '["open","/etc/passwd"]',
        "[" * 5000,
        '["Listed",", ",[' * 60 + "]]" * 60,
    ],
)
def test_a_text_that_is_none(text):
    assert again(text) is None


def test_numbers_of_arrays_are_kept():
    value = w.Said("{a}, {b}", a=w.Share(np.float64(0.5)), b=w.Count(np.int64(3)))
    assert plain(again(kept(value))) == "50 %, 3"
