"""Ladder requests in, ladders out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from types import MappingProxyType
from typing import Any

from widearc.core.dose import Tempo
from widearc.core.errors import InputError
from widearc.core.kit import Kit, Machine, Piece
from widearc.core.movement import Setup
from widearc.core.progression.aims import Aim, Occasion, OwnRule, SetSeen
from widearc.core.progression.answer import LadderAnswer, LadderQuestion
from widearc.core.progression.rung import Ladder, Rung
from widearc.core.progression.steps import turns
from widearc.core.words import Listed, Name, Said
from widearc.formats.documents import check
from widearc.formats.kit import kit_part, parse_kit
from widearc.formats.loads import load_part
from widearc.formats.scenario import inner_part, parse_setup, parse_style, person_part
from widearc.words import plain


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LadderRequest:
    """A parsed wide-arc/ladder-request; seen: days, sets and effort (None: as now)."""

    setup: Setup
    two: Setup | None
    pieces: tuple[Piece, ...]
    kit: Kit
    machine: Machine | None
    aim: Aim
    seen: tuple[tuple[int, tuple[SetSeen, ...], float | None], ...]
    today: int
    tempo: Tempo


def parse_ladder_request(document: Any, *, today: date) -> LadderRequest:
    """Return a ladder request; InputError names the JSON pointer, the value and what is allowed.

    today: where the request does not say it.
    """
    check(document, "ladder-request")
    body, limits = document.get("body", {}), document.get("limits", {})
    setup, _ = parse_setup(document["scenario"], body, limits, "/scenario")
    _, tempo = parse_style(document["scenario"])
    two = document.get("two_legs")
    kit = parse_kit(document["kit"])
    return LadderRequest(
        setup=setup,
        two=None if two is None else parse_setup(two, body, limits, "/two_legs")[0],
        pieces=tuple(Piece(**item) for item in document.get("pieces", [])),
        kit=kit.without(frozenset(document.get("taken", []))),
        machine=_machine(document.get("machine"), kit),
        aim=_aim(document),
        seen=tuple(_occasion(one, i) for i, one in enumerate(document.get("last", []))),
        today=_day(document["today"], "/today") if "today" in document else today.toordinal(),
        tempo=tempo or Tempo(),
    )


def _machine(wanted: str | None, kit: Kit) -> Machine | None:
    if wanted is None:
        return None
    found = next((m for m in kit.machines if m.id == wanted), None)
    if found is None:
        allowed = Said(
            "a machine of the kit: {ids}", ids=Listed(tuple(Name(m.id) for m in kit.machines))
        )
        raise InputError("/machine", wanted, allowed)
    return found


def _aim(document: Mapping[str, Any]) -> Aim:
    rule, reps = document.get("rule", {}), document.get("reps", {})
    usual = Aim()
    low, high = reps.get("low", usual.low), reps.get("high", usual.high)
    if low > high:
        raise InputError("/reps/low", low, Said("no more than /reps/high"))
    own = {
        event: OwnRule(act=o["act"], share=o.get("share", 0.9), reason=o.get("reason", ""))
        for event, o in rule.get("own", {}).items()
    }
    return Aim(
        sets=document.get("sets", usual.sets),
        low=low,
        high=high,
        rule=rule.get("name", usual.rule),
        percent=rule.get("percent", usual.percent),
        weeks=rule.get("weeks", usual.weeks),
        deload=rule.get("deload", usual.deload),
        own=MappingProxyType(own),
    )


def _occasion(part: Mapping[str, Any], index: int) -> tuple[int, tuple[SetSeen, ...], float | None]:
    sets = tuple(SetSeen(**item) for item in part["sets"])
    return _day(part["day"], f"/last/{index}/day"), sets, part.get("effort")


def _day(text: str, where: str) -> int:
    try:
        return date.fromisoformat(text).toordinal()
    except ValueError:
        raise InputError(where, text, Said("a day as 2026-11-24")) from None


def ladder_request_document(question: LadderQuestion) -> dict[str, Any]:
    """Return the wide-arc/ladder-request document of a question, checked by its schema; the same
    answer follows.
    """
    aim = question.aim
    document: dict[str, Any] = {
        "format": "wide-arc/ladder-request",
        "version": 1,
        **person_part(question.setup.body, question.setup.limits),
        "scenario": {
            **inner_part(question.setup),
            "tempo": {
                "lowering_s": question.tempo.lowering_s,
                "lifting_s": question.tempo.lifting_s,
            },
        },
        "pieces": [piece_part(p) for p in question.pieces],
        "kit": kit_part(question.kit),
        "sets": aim.sets,
        "reps": {"low": aim.low, "high": aim.high},
        "rule": {
            "name": aim.rule,
            "percent": aim.percent,
            "weeks": aim.weeks,
            "deload": aim.deload,
            "own": {
                event: {"act": o.act, "share": o.share, "reason": o.reason}
                for event, o in aim.own.items()
            },
        },
        "last": [_occasion_part(one) for one in question.seen],
        "today": date.fromordinal(question.today).isoformat(),
    }
    if question.two is not None:
        document["two_legs"] = inner_part(question.two)
    if question.machine is not None:
        document["machine"] = question.machine.id
    check(document, "ladder-request")
    return document


def _occasion_part(one: Occasion) -> dict[str, Any]:
    sets = [
        {
            "reps": s.reps,
            "side": s.side,
            **({} if s.reserve is None else {"reserve": s.reserve}),
            "form": s.form,
            "pain": s.pain,
            "seconds": s.seconds,
        }
        for s in one.sets
    ]
    return {"day": date.fromordinal(one.day).isoformat(), "effort": one.effort, "sets": sets}


def piece_part(piece: Piece) -> dict[str, Any]:
    """Return a piece as every document has it."""
    return {
        "item": piece.item,
        "kind": piece.kind,
        "label": piece.label,
        "number": piece.number,
        "kg": piece.kg,
    }


def ladder_document(answer: LadderAnswer, elapsed_ms: float) -> dict[str, Any]:
    """Return the wide-arc/ladder document of an answer, checked by its schema."""
    ladder, advice = answer.ladder, answer.advice
    bridge, bought, start = advice.bridge, answer.purchase, answer.start
    document = {
        "format": "wide-arc/ladder",
        "version": 1,
        "measure": ladder.measure,
        "joint": ladder.joint,
        "rungs": _rung_parts(ladder),
        "present": ladder.present,
        "next": ladder.next,
        "turning": ladder.turning,
        "bridge": None if bridge is None else {"reach": bridge.reach, "after": bridge.after},
        "proposal": {
            "rung": advice.rung,
            "sets": advice.proposal.sets,
            "reps": advice.proposal.reps,
            "reason": plain(advice.proposal.reason),
            "warns": plain(advice.proposal.warns),
            "asks": advice.proposal.asks,
            "by_feel": plain(advice.felt.reason),
            "by_feel_rung": advice.felt_rung,
        },
        "harder": [
            {
                "words": plain(way.words),
                "effort": round(way.effort, 6),
                "reps": way.reps,
                "lighter": _index(ladder, way.lighter),
                "by": "seconds" if way.seconds else "reserve",
            }
            for way in answer.harder
        ],
        "warm_up": [
            {
                "rung": _index(ladder, one.rung),
                "reps": one.reps,
                "share": round(one.share, 6),
            }
            for one in answer.warm_up
        ],
        "purchase": None
        if bought is None
        else {
            "words": plain(bought.words),
            "gap": round(bought.gap, 6),
            "becomes": [round(step, 6) for step in bought.becomes],
        },
        "one_leg": None
        if start is None
        else {
            "rung": _index(ladder, start.rung),
            "half_kg": start.half_kg,
            "half": _index(ladder, start.half),
        },
        "elapsed_ms": round(elapsed_ms, 1),
    }
    check(document, "ladder")
    return document


def _index(ladder: Ladder, rung: Rung | None) -> int | None:
    return next((i for i, r in enumerate(ladder.rungs) if r is rung), None)


def _rung_parts(ladder: Ladder) -> Sequence[dict[str, Any]]:
    rungs = ladder.rungs
    return [_rung(rung, rungs[i - 1] if i else None) for i, rung in enumerate(rungs)]


def _lighter(rung: Rung) -> dict[str, float] | None:
    if rung.lighter is None:
        return None
    return {"start": round(rung.lighter.start, 4), "end": round(rung.lighter.end, 4)}


def _rung(rung: Rung, below: Rung | None) -> dict[str, Any]:
    more, less = turns(below, rung) if below is not None else ((), ())
    return {
        "pieces": [piece_part(p) for p in rung.pieces],
        "loads": [load_part(load) for load in rung.setup.loads],
        "kg": rung.kg,
        "effort": round(rung.effort, 6),
        "demand_nm": round(rung.demand_nm, 4),
        "joints_nm": {joint: round(nm, 4) for joint, nm in rung.joints.items()},
        "pull_n": [round(n, 3) for n in rung.pull_n],
        "step": _rounded(rung.step),
        "step_of": "load" if rung.of_load else "effort",
        "effort_step": _rounded(rung.effort_step),
        "wide": rung.wide,
        "lighter": _lighter(rung),
        "more": list(more),
        "less": list(less),
        "same": [[piece_part(p) for p in pieces] for pieces in rung.same],
    }


def _rounded(share: float | None) -> float | None:
    return None if share is None else round(share, 6)
