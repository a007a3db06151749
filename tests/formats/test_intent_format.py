"""Intents as documents: alone, and as the target of a swap request."""

from __future__ import annotations

import pytest

from widearc.core.curve import Action
from widearc.core.dose import RepStyle, StyleKind, Tempo
from widearc.core.errors import InputError
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.formats import intent_part, parse_intent, parse_swap_request
from widearc.usecases import answer_request

KIT = {
    "dumbbells": [{"id": "d16", "kg": 16, "count": 2}, {"id": "d24", "kg": 24, "count": 1}],
    "bars": [{"id": "bar", "kg": 20}],
    "plates": [{"id": "p10", "kg": 10, "count": 4}],
}
HANDLES = [{"fraction": 0, "nm": 120}, {"fraction": 0.5, "nm": 100}, {"fraction": 1, "nm": 20}]
KNEE = {"action": "knee_extension", "from_deg": 95, "to_deg": 10, "handles": HANDLES}


def request(target, **more):
    return {
        "format": "wide-arc/swap-request",
        "version": 1,
        "body": {"mass_kg": 80, "stature_m": 1.8},
        "target": target,
        "kit": KIT,
        **more,
    }


def test_an_intent_goes_out_and_comes_back_the_same():
    intent = Intent(
        parts=(
            WantedAction(
                action=Action.HE,
                from_deg=90,
                to_deg=0,
                handles=((0.0, 150.0), (0.3, 90.0), (1.0, 10.0)),
            ),
            WantedAction(action=Action.KE, from_deg=95, to_deg=10, shape=Shape.EVEN, mean_nm=60.0),
        ),
        sets=4,
        reps=8,
        tempo=Tempo(lowering_s=3, lifting_s=1),
        by_feel=True,
        style=RepStyle(kind=StyleKind.PAUSE, at_deg=90, seconds=2),
    )
    assert parse_intent(intent_part(intent)) == intent


def test_the_command_line_takes_an_intent_and_answers_in_its_terms():
    answer = answer_request(request({"actions": [KNEE]}), clock=lambda: 0.0)
    best = answer["candidates"][0]
    assert 0 < best["match"] <= 1 and best["joints"][0]["action"] == "knee_extension"
    loose = {"action": "knee_extension", "from_deg": 95, "to_deg": 10, "shape": "stretch"}
    answer = answer_request(request({"actions": [loose]}), clock=lambda: 0.0)
    assert all(c["match"] is None and c["level"] is None for c in answer["candidates"])
    last = max(c["group"] for c in answer["candidates"])
    best = [
        max(c["usual"] for c in answer["candidates"] if c["group"] == n + 1) for n in range(last)
    ]
    assert best == sorted(best, reverse=True)
    # how usual a shape is, never above the shape itself
    assert all(c["usual"] <= c["shape"] + 1e-6 for c in answer["candidates"])


def test_a_style_of_the_target_changes_what_is_wanted_where_dose_is_compared():
    squat = {"exercise": "goblet-squat", "loads": [{"kind": "mass", "kg": 24, "port": "goblet"}]}
    plain = answer_request(request(squat), clock=lambda: 0.0)
    styled = request(squat | {"style": {"kind": "one-and-a-quarter"}})
    by_demand = answer_request(styled, clock=lambda: 0.0)
    quarter = answer_request(styled | {"compare": "dose"}, clock=lambda: 0.0)
    first, same, second = (
        {c["exercise"]: c["match"] for c in a["candidates"]} for a in (plain, by_demand, quarter)
    )
    assert first == same != second
    joint = quarter["candidates"][0]["joints"][0]
    assert max(joint["target_nm"]) > 1.8 * max(plain["candidates"][0]["joints"][0]["target_nm"])


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"from_deg": 10, "to_deg": 95}, "/target/actions/0/to_deg"),
        (
            {"handles": [{"fraction": 0, "nm": 5}, {"fraction": 0.4, "nm": 5}]},
            "/target/actions/0/handles",
        ),
        (
            {"handles": [{"fraction": 0, "nm": -5}, {"fraction": 1, "nm": 5}]},
            "/target/actions/0/handles/0/nm",
        ),
        ({"action": "flying"}, "/target/actions/0/action"),
        ({"shape": "even"}, "/target/actions/0/handles"),
        ({"colour": "blue"}, "/target/actions/0/colour"),
    ],
)
def test_what_is_wrong_is_named_by_its_pointer(change, where):
    with pytest.raises(InputError) as refused:
        parse_swap_request(request({"actions": [KNEE | change]}))
    assert refused.value.where == where


def test_both_the_counts_and_the_joints_are_checked():
    with pytest.raises(InputError) as refused:
        parse_swap_request(request({"actions": [KNEE], "sets": 0}))
    assert refused.value.where == "/target/sets"
    with pytest.raises(InputError) as refused:
        parse_swap_request(request({"actions": [KNEE, KNEE]}))
    assert refused.value.where == "/target/actions/1/action"
