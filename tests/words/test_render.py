"""Sentences of the core as text: values in their units, lists, plurals; what never becomes text by
itself.
"""

from __future__ import annotations

import ast
import dataclasses
import importlib
import math
import pkgutil
import typing
from pathlib import Path

import pytest

import widearc.core
from widearc.core import words as w
from widearc.core.units import IN_M, LB_KG, G
from widearc.words import How, plain, say, speaking

US = How(units="imperial")


@pytest.mark.parametrize(
    ("value", "metric", "imperial"),
    [
        (w.Mass(20.0), "20 kg", "44 lb"),
        (w.Mass(1.25), "1.25 kg", "3 lb"),
        (w.Mass(61.235), "61.2 kg", "135 lb"),
        (w.Mass(47.6, whole=True), "48 kg", "105 lb"),
        (w.Mass(45 * LB_KG, thing=True), "45 lb", "45 lb"),
        (w.Mass(2.5 * LB_KG, thing=True), "2.5 lb", "2.5 lb"),
        (w.Mass(45 * LB_KG), "20.4 kg", "45 lb"),
        (w.Mass(20.0, thing=True), "20 kg", "20 kg"),
        (w.Length(0.43), "43 cm", "17 in"),
        (w.Length(0.03), "3 cm", "1.25 in"),
        (w.Length(17.5 * IN_M), "44 cm", "17.5 in"),
        (w.Length(0.038, fine=True), "38 mm", "1.5 in"),
        (w.Distance(5.0), "5 m", "16.4 ft"),
        (w.Force(100.0), "100 N", "22 lbf"),
        (w.Force(45.0 * LB_KG * G), "200 N", "45 lbf"),
        (w.Angle(math.radians(70.0)), "70°", "70°"),
        (w.Angle.of_deg(-20.0), "−20°", "−20°"),
        (w.Moment(118.6), "119 N·m", "119 N·m"),
        (w.Share(0.204), "20 %", "20 %"),
        (w.Times(2.46), "2.5", "2.5"),
        (w.Duration(4.0), "4 s", "4 s"),
        (w.Duration(150.0, minutes=True), "2.5 min", "2.5 min"),
        (w.Figure(0.3, " m"), "0.3 m", "0.3 m"),
        (w.Name("Bench", lower=True), "bench", "bench"),
        (w.Term("knee extension"), "knee extension", "knee extension"),
    ],
)
def test_a_value_is_said_in_the_units_that_are_spoken(value, metric, imperial):
    assert plain(value) == say(value, How()) == metric
    assert say(value, US) == imperial
    with speaking(US):
        assert say(value) == imperial
    assert say(value) == metric, "for a while only"


def test_a_sentence_is_made_of_its_parts_in_the_template_order():
    part = w.Said("{share} short {where}", share=w.Share(0.2), where=w.Said("all the way"))
    told = w.Said("{differs}.", differs=w.joined(part, w.UNSAID, w.Said("no lever")), begins=True)
    assert plain(told) == "20 % short all the way, no lever."
    knee = w.Said("{joint} not loaded.", joint=w.Term("knee"), begins=True)
    assert plain(w.sentences((told, w.UNSAID, knee))) == (
        "20 % short all the way, no lever. Knee not loaded."
    )


@pytest.mark.parametrize(
    ("names", "and_", "or_"),
    [(1, "a", "a"), (2, "a and b", "a or b"), (3, "a, b and c", "a, b or c")],
)
def test_a_list_is_read_aloud_with_its_word_before_the_last(names, and_, or_):
    items = tuple(w.Name(c) for c in "abc"[:names])
    assert plain(w.Listed(items, "and")) == and_
    assert plain(w.Listed(items, "or")) == or_


def test_a_count_chooses_the_plural():
    def points(n):
        return w.Said("{n} point under", "{n} points under", n=w.Count(n))

    assert [plain(points(n)) for n in (0, 1, 2)] == [
        "0 points under",
        "1 point under",
        "2 points under",
    ]


def test_braces_in_a_template_and_in_a_name_are_text():
    assert plain(w.Said("{{a}} {name}", name=w.Name("{b}"))) == "{a} {b}"


def test_nothing_says_nothing_and_is_left_out():
    assert not w.UNSAID
    assert not w.joined(w.UNSAID, w.joined())
    assert plain(w.joined(w.UNSAID, w.Said("x"), w.UNSAID)) == "x"


def test_sentences_are_alike_by_what_they_say_and_can_be_keys():
    one, same = (w.Said("heel wedge {length}", length=w.Length(0.03)) for _ in "ab")
    assert one == same
    assert len({one, same}) == 1
    assert one != w.Said("heel wedge {length}", length=w.Length(0.04))
    assert one.key == "heel wedge 0.03", "in SI, whatever is spoken"
    assert w.Said("one leg").key == "one leg"


@pytest.mark.parametrize("value", [w.Mass(20.0), w.Said("a"), w.Listed(()), w.Term("knee")])
def test_what_is_not_said_yet_cannot_slip_into_a_text(value):
    with pytest.raises(TypeError, match="at the edge"):
        f"{value}"


def test_what_is_no_value_cannot_be_said():
    with pytest.raises(TypeError):
        say(3.0)  # type: ignore[arg-type]


def _modules():
    for found in pkgutil.walk_packages(widearc.core.__path__, "widearc.core."):
        yield importlib.import_module(found.name)


SPOKEN = {"reason", "admits", "sentence", "note", "notes", "text", "problem", "untried", "by"}
SPOKEN_OF = {"widearc.core.answers", "widearc.core.search", "widearc.core.kit.admission"}


def test_every_answer_of_the_core_is_typed_sentences_not_text():
    """Walks the fields of the core's answers: what a person reads is never a `str`."""
    seen = 0
    for module in _modules():
        if not any(module.__name__.startswith(name) for name in SPOKEN_OF):
            continue
        for kind in vars(module).values():
            if not (isinstance(kind, type) and dataclasses.is_dataclass(kind)):
                continue
            if kind.__module__ != module.__name__:
                continue
            for field in dataclasses.fields(kind):
                if field.name in SPOKEN and field.name != "by":
                    seen += 1
                    assert "str" not in str(field.type), f"{kind.__name__}.{field.name}"
    assert seen >= 5


ALLOWED = {
    # keys and identifiers, in SI: never read by a person
    ("core/words.py", "key"),
    ("core/answers/tweaks.py", "style_key"),
    # the name a piece carries: what is stamped on it
    ("core/kit/totals.py", ""),
    ("core/equipment/items/line.py", "_weight"),
    ("core/equipment/items/line.py", "_standing"),
    # as a field types it and refuses it
    ("core/units.py", ""),
    ("core/equipment/items/quantity.py", ""),
    ("core/errors.py", ""),
}


def test_no_number_is_formatted_in_the_core():
    """An f-string with a number's format in it would fix a unit and a language."""
    root = Path(widearc.core.__file__).parent.parent
    found = []
    for path in sorted((root / "core").rglob("*.py")):
        name = str(path.relative_to(root))
        if (name, "") in ALLOWED:
            continue
        for function in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if not isinstance(function, ast.FunctionDef) or (name, function.name) in ALLOWED:
                continue
            for node in ast.walk(function):
                if isinstance(node, ast.FormattedValue) and node.format_spec is not None:
                    found.append(f"{name}:{node.lineno} {ast.unparse(node)}")
    assert found == []


TYPED = {"usecases/bench/bands.py", "usecases/bench/machines.py"}
"""What fills the cells of a sheet: numbers as they are typed."""


def test_no_sentence_of_a_use_case_fixes_a_number():
    root = Path(widearc.core.__file__).parent.parent
    found = []
    for path in sorted((root / "usecases").rglob("*.py")):
        name = str(path.relative_to(root))
        if name in TYPED or "selfcheck" in name:
            continue
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.FormattedValue) and node.format_spec is not None:
                found.append(f"{name}:{node.lineno} {ast.unparse(node)}")
    # the split of work, a ratio of three, is one figure
    assert [f for f in found if "100 * share" not in f] == []


def test_the_values_of_a_sentence_are_the_known_ones():
    """Every value can be said, in every unit: none was added without its words."""
    kinds = typing.get_args(w.Value)
    assert len(kinds) == 16
    for kind in kinds:
        assert issubclass(kind, w.Unspoken)
