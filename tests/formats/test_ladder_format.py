"""Ladder requests and answers: the schema, what is refused and where, and a way back."""

from __future__ import annotations

import copy
from datetime import date

import pytest

from widearc.core.errors import InputError, WideArcError
from widearc.core.progression.aims import Occasion
from widearc.core.progression.answer import LadderQuestion
from widearc.formats import check, schema
from widearc.formats.ladder import ladder_request_document, parse_ladder_request
from widearc.usecases.ladder import answer_ladder

TODAY = date(2026, 11, 27)
EXAMPLE = schema("ladder-request")["examples"][0]


def ask(**changed):
    return copy.deepcopy(EXAMPLE) | changed


def answered(document):
    return answer_ladder(document, today=TODAY, clock=lambda: 0.0)


def test_an_answer_follows_its_schema_and_its_rungs_their_order():
    found = answered(ask())
    check(found, "ladder")
    efforts = [r["effort"] for r in found["rungs"]]
    assert efforts == sorted(efforts) and found["rungs"][found["present"]]["kg"] == 32
    assert found["proposal"]["rung"] == found["present"] + 1 and found["bridge"]["after"] < 10
    assert found["elapsed_ms"] == 0.0
    assert found == answered(ask())


def test_without_a_history_it_is_asked_as_now():
    found = answered({k: v for k, v in ask().items() if k not in ("last", "rule", "today")})
    assert found["proposal"]["rung"] == found["present"]
    assert "No set of it is kept" in found["proposal"]["reason"]


@pytest.mark.parametrize(
    ("changed", "where"),
    [
        ({"rule": {"name": "hope"}}, "/rule/name"),
        ({"reps": {"low": 12, "high": 8}}, "/reps/low"),
        ({"last": [{"day": "2026-02-30", "sets": [{"reps": 8}]}]}, "/last/0/day"),
        ({"last": [{"day": "2026-02-20", "sets": [{"reps": 800}]}]}, "/last/0/sets/0/reps"),
        ({"last": [{"day": "2026-02-20", "effort": 0, "sets": [{"reps": 8}]}]}, "/last/0/effort"),
        ({"machine": "none"}, "/machine"),
        ({"scenario": {"exercise": "no-such"}}, "/scenario/exercise"),
        ({"today": "tomorrow"}, "/today"),
        ({"rule": {"name": "all", "own": {"rain": {"act": "same"}}}}, "/rule/own"),
        ({"more": 1}, "/more"),
    ],
)
def test_bad_requests_are_refused_at_their_place(changed, where):
    with pytest.raises(InputError) as refused:
        answered(ask(**changed))
    assert refused.value.where.startswith(where)


def test_a_set_up_that_cannot_be_done_is_refused_in_words():
    document = ask(limits={"dorsiflexion_deg": 5})
    with pytest.raises(WideArcError):
        answered(document)


def test_a_request_that_is_written_gives_the_same_answer():
    wanted = ask(
        two_legs={
            "exercise": "goblet-squat",
            "loads": [{"kind": "mass", "kg": 24, "port": "goblet"}],
        }
    )
    wanted["rule"] = {
        "name": "percent",
        "percent": 0.03,
        "own": {"pain": {"act": "share", "share": 0.8}},
    }
    request = parse_ladder_request(wanted, today=TODAY)
    question = LadderQuestion(
        setup=request.setup,
        pieces=request.pieces,
        kit=request.kit,
        aim=request.aim,
        seen=tuple(Occasion(day=d, sets=s, effort=e or 0.84) for d, s, e in request.seen),
        today=request.today,
        tempo=request.tempo,
        two=request.two,
    )
    written = ladder_request_document(question)
    first, second = answered(wanted), answered(written)
    assert first["one_leg"] is not None
    assert first == second
