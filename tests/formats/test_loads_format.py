"""Every kind of load out to its part of a document and in again."""

from __future__ import annotations

from dataclasses import fields, is_dataclass

import numpy as np
import pytest

from tests.loads import admissible, one_of_each
from widearc.core.equipment import LOADS, AtPort, Chain, FreeMass, SpringLoad
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import curve
from widearc.formats import exercises_document, parse_scenario
from widearc.formats.loads import load_part, parse_load

TAKEN = [
    (f"{entry.id} {kind}", entry, load)
    for entry in EXERCISES.values()
    for kind, loads in admissible(entry)
    for load in loads
]


def differing(one, other):
    """Yield the fields by which two loads differ by more than the six digits of a document."""
    for item in fields(one):
        a, b = getattr(one, item.name), getattr(other, item.name)
        if is_dataclass(a):
            yield from differing(a, b)
        elif isinstance(a, str) or a is None or b is None:
            if a != b:
                yield item.name
        elif not np.allclose(np.asarray(a, float), np.asarray(b, float), rtol=1e-5, atol=1e-6):
            yield item.name


@pytest.mark.parametrize(("entry", "load"), [t[1:] for t in TAKEN], ids=[t[0] for t in TAKEN])
def test_a_load_comes_back_as_it_went(entry, load):
    again = parse_load(load_part(load), "/loads/0", entry.ports)
    assert type(again) is type(load) and list(differing(load, again)) == []


def test_every_kind_is_among_those_that_went():
    assert {load.kind for _, _, load in TAKEN} == set(LOADS)


@pytest.mark.parametrize(
    ("load", "lost"),
    [
        (Chain(kg_per_m=6, length_m=1.2, port="hands"), {"length_m": 0.4}),
        (FreeMass(kg=20, port="hands"), {"kg": 24.0}),
    ],
)
def test_what_differs_is_seen(load, lost):
    part = load_part(load) | lost
    assert list(differing(load, parse_load(part, "/loads/0", ("hands",)))) == list(lost)


def test_a_spring_keeps_what_it_is_anchored_to():
    (spring,) = {
        load.anchor: load for _, _, load in TAKEN if isinstance(load, SpringLoad) and load.anchor
    }.values()
    assert load_part(spring)["anchor"] == {"x_m": 0.3, "y_m": 0.1}


def test_a_value_out_of_range_is_said_with_its_place_and_its_limits():
    with pytest.raises(InputError) as refused:
        parse_load({"kind": "mass", "kg": 5000.0, "port": "hands"}, "/loads/2", ("hands",))
    error = refused.value
    assert (error.where, error.value) == ("/loads/2/kg", 5000.0)
    assert (error.low, error.high, error.unit) == (0.0, 1000.0, " kg")


def test_a_scenario_with_a_chain_is_read():
    setup, _ = parse_scenario(
        {
            "format": "wide-arc/scenario",
            "version": 1,
            "body": {"mass_kg": 80, "stature_m": 1.8, "sex": "male"},
            "exercise": "goblet-squat",
            "loads": [load_part(Chain(kg_per_m=6, length_m=1.2, port="goblet"))],
        }
    )
    assert [load.kind for load in setup.loads] == ["chain"]


def test_only_kinds_of_load_that_are_accepted_are_listed():
    """Every listed kind is accepted at some port; every other is refused at the load, by name."""
    listed = {e["id"]: set(e["load_kinds"]) for e in exercises_document()["exercises"]}
    compared = 0
    for entry in EXERCISES.values():
        if not entry.has_curve:
            continue
        taken = {load.kind for _, loads in admissible(entry) for load in loads}
        assert taken <= listed[entry.id], entry.id
        for kind in LOADS.values():
            load = next(_samples_of(kind, entry), None)
            if load is None:
                continue
            compared += 1
            if kind.kind in listed[entry.id]:
                _accepted(entry, kind)
            else:
                with pytest.raises(InputError) as refused:
                    Setup(exercise=entry, loads=[load])
                assert (refused.value.where, refused.value.value) == ("/loads/0/kind", kind.kind)
    assert compared > 700


def _samples_of(kind, entry):
    """Yield a load of a kind at each port of an exercise; one without a port for the others."""
    at_port = issubclass(kind, AtPort)
    for port in (entry.ports or ("hands",)) if at_port else ("",):
        yield from (load for load in one_of_each(entry, port) if type(load) is kind)


def _accepted(entry, kind):
    """Compute a curve with a kind of load at the first port that takes it; PostureError is no
    refusal of the kind.
    """
    reasons = []
    for load in _samples_of(kind, entry):
        try:
            curve(Setup(exercise=entry, loads=[load]))
        except PostureError:
            return
        except InputError as error:
            reasons.append(str(error))
        else:
            return
    raise AssertionError((entry.id, kind.kind, reasons))
