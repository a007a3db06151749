"""A place said in one line: what is understood, what is not, in both languages and units."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from widearc.core.equipment import KINDS, Source
from widearc.core.equipment.items.line import WORDS, read_line
from widearc.core.units import IN_M, LB_KG
from widearc.usecases.room.line import STARTS

LINE = (
    "bar 20, plates 2×1.25 2×2.5 4×5 4×10 4×20, dumbbells 8 to 24 by 4, kettlebells 16 24, "
    "loops light medium heavy, bench 43, boxes 30 52, eyes at 8 and 110 left, "
    "leg press 45 degrees sled 38, couch"
)


def found(text, **more):
    return {t.name: t for t in read_line(text, **more).things}


def test_a_trainers_line_is_a_room():
    line = read_line(LINE)
    assert line.left == ()
    things = {t.name: t for t in line.things}
    assert things["Bar 20"].quantities["kg"] == 20.0
    plates = {t.quantities["kg"]: t.quantities["count"] for t in line.things if t.kind == "plate"}
    assert plates == {1.25: 2, 2.5: 2, 5.0: 4, 10.0: 4, 20.0: 4}
    bells = [t.quantities["kg"] for t in line.things if t.kind == "dumbbell"]
    assert bells == [8.0, 12.0, 16.0, 20.0, 24.0]
    assert {t.quantities["count"] for t in line.things if t.kind == "dumbbell"} == {2.0}
    assert [t.name for t in line.things if t.kind == "band"] == [
        "Light loop",
        "Medium loop",
        "Heavy loop",
    ]
    assert things["Bench"].quantities["height_m"] == pytest.approx(0.43)
    assert {t.quantities["height_m"] for t in line.things if t.kind == "box"} == {0.30, 0.52}
    eyes = [t for t in line.things if t.kind == "anchor"]
    assert {t.quantities["height_m"] for t in eyes} == {0.08, 1.10} and eyes[0].side == "left"
    press = next(t for t in line.things if t.kind == "sled press")
    assert press.quantities["rail_deg"] == 45.0 and press.quantities["empty_kg"] == 38.0
    assert press.sources["empty_kg"] is Source.DESCRIBED
    couch = next(t for t in line.things if t.kind == "couch")
    assert couch.sources["height_m"] is Source.ASSUMED, "nobody said how high it is"


def test_indonesian_and_pounds():
    things = found("batang 20, piringan 2x5, dumbel 8 sampai 16 kelipatan 4, kotak 30, sofa")
    assert {"Bar 20", "Plate 5", "Dumbbell 8", "Dumbbell 16", "Box 30", "Couch"} <= set(things)
    pounds = [*found("bar 45, plates 2×45, bench 17", imperial=True).values()]
    assert pounds[0].quantities["kg"] == pytest.approx(45 * LB_KG, abs=1e-3)
    assert pounds[2].quantities["height_m"] == pytest.approx(17 * IN_M, abs=1e-3)
    suffix = [*found("bar 45 lb, bench 17in, box 1.5 m").values()]
    assert suffix[0].quantities["kg"] == pytest.approx(45 * LB_KG, abs=1e-3)
    assert suffix[1].quantities["height_m"] == pytest.approx(17 * IN_M, abs=1e-3)
    assert suffix[2].quantities["height_m"] == pytest.approx(1.5)


def test_a_unit_holds_for_a_range_and_a_sled_and_stands_in_the_name():
    """Pounds taken as kilograms would load more than twice what is meant."""
    for text in ("dumbbells 10 to 30 lb by 10", "dumbbells 10 to 30 by 10 lb"):
        bells = found(text)
        assert [*bells] == ["Dumbbell 10 lb", "Dumbbell 20 lb", "Dumbbell 30 lb"], text
        kilograms = [t.quantities["kg"] for t in bells.values()]
        assert kilograms == pytest.approx([10 * LB_KG, 20 * LB_KG, 30 * LB_KG], abs=1e-3)
    assert [*found("dumbbells 8 to 16 kg by 8", imperial=True)] == ["Dumbbell 8", "Dumbbell 16"]
    for text, kg in (("sled 84 lb", 84 * LB_KG), ("sled 38kg", 38.0), ("sled 38", 38.0)):
        (press,) = found(f"leg press 45 degrees {text}").values()
        assert press.quantities["empty_kg"] == pytest.approx(kg), text
    named = found("bar 45, box 12, eye at 4 left", imperial=True)
    assert [*named] == ["Bar 45 lb", "Box 12 in", "Eye 4 in left"]


def test_numbers_go_on_after_a_comma_and_equal_plates_are_one():
    things = found("plates 2×5, 4×10, 2×5")
    assert (
        things["Plate 5"].quantities["count"] == 4 and things["Plate 10"].quantities["count"] == 4
    )


def test_what_is_not_understood_is_given_back():
    line = read_line("bar 20, a flux capacitor, plates 2×5, 17 somethings")
    assert line.left == ("a flux capacitor", "17 somethings")
    assert [t.kind for t in line.things] == ["bar", "plate"]
    assert read_line("") == read_line(" , ;\n") and read_line("").things == ()
    assert read_line("dumbbells 1 to 900 by 0.01").left == ("dumbbells 1 to 900 by 0.01",)


def test_every_word_leads_to_a_kind():
    assert {k for k in WORDS.values() if k not in ("loop", "long")} <= set(KINDS)


def test_rooms_to_begin_with_are_understood_whole_and_assumed():
    for _, text in STARTS.values():
        line = read_line(text, assumed=True)
        assert line.left == () and len(line.things) >= 4
        assert {s for t in line.things for s in t.sources.values()} == {Source.ASSUMED}


@given(st.text(max_size=200))
def test_no_text_breaks_it(text):
    line = read_line(text)
    for thing in line.things:
        known = {q.name for q in KINDS[thing.kind].quantities}
        assert thing.quantities.keys() <= known and thing.name


def test_a_couch_is_an_anchor_and_an_ankle_hold_too():
    (couch,) = read_line("couch 40").things
    assert couch.quantities == {"height_m": 0.40, "foot_m": 0.05, "gap_m": 0.10}
    assert {n: s.value for n, s in couch.sources.items()} == {
        "height_m": "described",
        "foot_m": "assumed",
        "gap_m": "assumed",
    }


def test_a_machine_is_called_as_it_was_said():
    names = [
        t.name for t in read_line("leg press 45 degrees sled 38, hack squat, cable 200").things
    ]
    assert names == ["Leg press", "Hack squat", "Cable"]
    cable = read_line("cable 200").things[0]
    assert cable.quantities["height_m"] == 2.0 and cable.sources["height_m"].value == "described"
    assert read_line("cable").things[0].sources["height_m"].value == "assumed"


@pytest.mark.parametrize("word", sorted(WORDS))
def test_every_word_alone_says_all_that_its_sheet_needs(word):
    """What is understood can be kept: nothing needed is left empty (weights need their number)."""
    for thing in read_line(word).things:
        needed = {q.name for q in KINDS[thing.kind].quantities if q.usual is None}
        needed -= {q.name for q in KINDS[thing.kind].quantities if q.optional}
        assert needed <= thing.quantities.keys(), (word, thing)
