"""The catalogues: complete, nothing over, and the same places for values in every language."""

from __future__ import annotations

import re

import pytest

from tests.looked import looked
from tools.messages import CALLS, gathered, of_python, read, wrong
from widearc.core import words as w
from widearc.web.messages import messages_of
from widearc.words import LANGUAGES, How, say, speaking, tell, tr
from widearc.words.catalogue import DOMAIN, FOLDER

OTHERS = [name for name in LANGUAGES if name != "en"]
INDONESIAN = How(language="id")
PLACES = re.compile(r"[{\[](\w+)[}\]]")


@pytest.mark.parametrize("language", OTHERS)
def test_every_text_is_translated_and_none_is_left_over(language):
    found = gathered()
    assert len(found) > 3000
    assert wrong(language, found) == []


@pytest.mark.parametrize("language", OTHERS)
def test_a_translation_has_the_places_of_its_english(language):
    for message in looked((m for m in read(language) if m.id), 3000):
        english = message.id if isinstance(message.id, str) else message.id[0]
        said = message.string if isinstance(message.string, str) else message.string[0]
        assert sorted(PLACES.findall(said)) == sorted(PLACES.findall(english)), english
        # what stands before or behind a value keeps its distance
        assert said[:1].isspace() == english[:1].isspace(), english
        assert said[-1:].isspace() == english[-1:].isspace(), english


@pytest.mark.parametrize("language", OTHERS)
def test_no_card_or_claim_is_english_under_another_name(language):
    """Names of the trade may be the same; a sentence may not."""
    same = [
        m.id
        for m in read(language)
        if m.id and m.id == m.string and len(str(m.id).split()) > 3 and "{" not in m.id
    ]
    assert same == []


def test_a_catalogue_is_small_enough_to_ship():
    for file in FOLDER.rglob(f"{DOMAIN}.?o"):
        assert file.stat().st_size < 400_000, file


def test_what_lacks_or_is_over_or_old_is_told():
    found = gathered()
    some = next(iter(found))
    less = {m: places for m, places in found.items() if m != some}
    assert wrong("id", less) == [f"not used in id: {some}"]
    more = {**found, "A text that nobody says": {("x.py", 1)}}
    assert wrong("id", more) == ["missing in id: A text that nobody says"]


SOURCE = """
def f(x, n):
    words = "{a} more" if x else "{a} less"
    tell(words, a=x)
    Said("one thing", "{n} things", n=n)
    tr({1: "once"}.get(n, "often"))
    other("not said")
"""


def test_sentences_are_found_by_the_calls_that_say_them():
    found = [message for _, message in of_python(SOURCE, CALLS)]
    assert sorted(map(str, found)) == sorted(
        map(str, ["{a} more", "{a} less", ("one thing", "{n} things"), "once", "often"])
    )


@pytest.mark.parametrize(
    ("source", "messages"),
    [
        ("<p>{{ n }} of {{ all }} pieces</p>", ["{n} of {all} pieces"]),
        ("<p>a <b>{{ x }}</b> b</p>", ["a", "b"]),
        ('<input placeholder="how much" name="kg" class="wide">', ["how much"]),
        ('<a aria-label="row {{ loop.index }}" href="/x{{ y }}">go</a>', ["row {index}", "go"]),
        ("<p>{{ _('none') if not x else x }}</p>", ["none"]),
        ("<script>var a = 'text';</script><style>p{}</style><p>seen</p>", ["seen"]),
        ("<!-- a note --><p>&ensp;·&ensp;{{ x }}</p>", []),
        ("{% if a %}<p>one{% else %}<p>two{% endif %}</p>", ["one", "two"]),
        ("<p>{{ a.kg | mass }} + {{ b.kg | mass }} kg</p>", ["{kg} + {kg2} kg"]),
        ('{% macro bad(k) %} aria-invalid="true"{% endmacro %}', []),
        ("<p>  two\n   lines  </p>", ["two lines"]),
        ('<button data-say-done="It is done.">x</button>', ["It is done.", "x"]),
    ],
)
def test_texts_of_templates_are_messages_as_they_stand(source, messages):
    assert [text for _, text in messages_of(source)] == messages


def test_a_sentence_is_said_in_the_language_with_its_numbers():
    said = w.Said("{share} more", share=w.Share(0.25))
    assert say(said, INDONESIAN) == "25 % lebih"
    assert say(w.Mass(2.5), INDONESIAN) == "2,5 kg"
    assert say(w.Length(0.035), How(units="imperial", language="id")) == "1,5 in"
    assert say(w.Name("Band 2.5"), INDONESIAN) == "Band 2.5", "what somebody typed stays"
    both = w.Listed((w.Term("knee"), w.Term("hip")), "and")
    assert say(both, INDONESIAN) == "lutut dan pinggul"
    with speaking(INDONESIAN):
        assert tr("knee") == "lutut"
        assert tell("{angle}, lengthened end", angle=w.Angle.of_deg(90)) == "90°, ujung memanjang"
    assert say(said) == "25 % more"


def test_a_number_of_things_has_its_own_words():
    said = [w.Said("{n} reading is", "{n} readings are", n=w.Count(n)) for n in (1, 3)]
    assert [say(s) for s in said] == ["1 reading is", "3 readings are"]
