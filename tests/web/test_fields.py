"""A sheet's fields: numbers read in SI, texts kept as typed, refusals at their own field."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from werkzeug.datastructures import MultiDict

from widearc.core.units import LENGTH_M
from widearc.usecases.sheet import SheetError
from widearc.web.forms.fields import ChoiceField, QuantityField, Sheet, TextField, TickField
from widearc.web.screens.bench.sheet import band_numbers

FIELDS = {
    "length": QuantityField(
        "length", unit="cm", per=0.01, low=0.02, high=10.0, allowed="from 2 cm to 10 m"
    ),
    "weight": QuantityField("weight", unit="kg", needed=True),
    "share": QuantityField("share", unit="%", per=0.01, what="a percentage"),
    "name": TextField("name"),
    "side": ChoiceField("side", choices={"": "none", "left": "left"}, usual="left"),
    "wall": TickField("wall"),
    "low back": TextField("low back"),
}


def typed(**texts: str) -> Sheet:
    return Sheet(FIELDS, MultiDict(texts))


@pytest.mark.parametrize("text", ["45", " 45 ", "45,0", "4.5e1"])
def test_a_number_is_read_in_si_and_shown_as_it_was_typed(text):
    sheet = typed(length=text, weight="1")
    assert sheet.value("length") == pytest.approx(0.45)
    assert sheet["length"].text == text and not sheet.messages


@pytest.mark.parametrize(
    ("name", "text", "message"),
    [
        ("length", "long", "“long” is not a number of cm"),
        ("length", "nan", "“nan” is not a number of cm"),
        ("length", "1", "1 cm is not used: from 2 cm to 10 m"),
        ("length", "1000.1", "1000.1 cm is not used: from 2 cm to 10 m"),
        ("length", "−5", "-5 cm is not used: from 2 cm to 10 m"),
        ("weight", "", "empty: type it in kg"),
        ("weight", "1e999", "“1e999” is not a number of kg"),
        ("share", "half", "“half” is not a percentage"),
    ],
)
def test_what_cannot_be_used_is_refused_at_its_field_and_kept_as_typed(name, text, message):
    sheet = typed(**{"weight": "1", name: text})
    assert sheet.messages == {name: message}
    assert sheet[name].text == text
    with pytest.raises(SheetError) as refused:
        sheet.settled()
    assert refused.value.messages == {name: message}


def test_the_ends_of_a_range_belong_to_it():
    for text in ("2", "1000"):
        assert not typed(length=text, weight="1").messages


@pytest.mark.parametrize("unit", ["in", "ft"])
def test_the_ends_of_a_range_can_be_typed_as_they_are_said_in_another_unit(unit):
    def rest(text: str) -> str:
        return band_numbers(unit, MultiDict({"rest": text})).messages.get("rest", "")

    words = rest("0.01").split()
    first, last = words[words.index("from") + 1], words[words.index("to") + 1]
    assert words[-1] == unit and not rest(first) and not rest(last)
    assert float(first) * LENGTH_M[unit] == pytest.approx(0.02, abs=0.01 * LENGTH_M[unit])
    assert float(last) * LENGTH_M[unit] == pytest.approx(10.0, abs=0.01 * LENGTH_M[unit])


def test_a_sheet_of_what_is_kept_refuses_nothing_and_shows_it_in_the_field_s_unit():
    sheet = Sheet(FIELDS, kept={"length": 0.455, "side": "left", "wall": True, "name": "Bosun"})
    shown = {field.name: field.text for field in sheet}
    assert shown["length"] == "45.5" and shown["weight"] == "" and shown["name"] == "Bosun"
    assert shown["side"] == "left" and sheet.value("wall") is True and not sheet.messages


def test_what_was_not_sent_is_empty_unticked_or_usual():
    sheet = typed(weight="1")
    assert sheet.value("side") == "left" and sheet.value("wall") is False
    assert sheet.value("name") == "" and sheet.value("length") is None
    assert typed(weight="1", side="below").value("side") == "below"


def test_a_field_s_own_refusal_comes_before_the_keeper_s():
    sheet = typed(weight="heavy")
    sheet.refuse({"weight": "too heavy", "row-0-at": "empty"})
    assert sheet.messages == {"weight": "“heavy” is not a number of kg", "row-0-at": "empty"}
    assert sheet["low back"].id == "low-back"


@given(st.floats(0.02, 10.0))
def test_a_kept_length_goes_out_and_comes_back(length):
    shown = Sheet(FIELDS, kept={"length": length})["length"].text
    assert typed(length=shown, weight="1").value("length") == pytest.approx(length, rel=1e-5)
