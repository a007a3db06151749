"""Swap requests in, rankings out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from typing import Any

import numpy as np

from widearc.core.answers import Tweak, cautions_of
from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG
from widearc.core.dose import RepStyle, Tempo
from widearc.core.exercises import is_same_lift
from widearc.core.intent import Intent
from widearc.core.kit import Kit, Piece, Rules
from widearc.core.movement import Setup
from widearc.core.search import (
    Candidate,
    Groups,
    Question,
    Ranking,
    Uncertainty,
    variants_of,
)
from widearc.core.statics import BodyUncertainty
from widearc.formats.documents import check
from widearc.formats.intent import intent_part, parse_intent
from widearc.formats.kit import kit_part, parse_kit
from widearc.formats.loads import load_part
from widearc.formats.scenario import (
    inner_part,
    parse_body,
    parse_limits,
    parse_setup,
    parse_style,
    person_part,
)
from widearc.words import plain


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SwapRequest:
    """A parsed wide-arc/swap-request: wanted is a set-up, done in a style at a tempo, or an
    intent.
    """

    wanted: Setup | Intent
    style: RepStyle
    tempo: Tempo
    by_dose: bool
    body: Body
    limits: Limits
    kit: Kit
    taken: frozenset[str]
    rules: Rules
    limit: int | None
    reps: int
    strength_scale: Mapping[str, float]
    shown_effort: Mapping[str, float]
    body_uncertainty: BodyUncertainty


def parse_swap_request(document: Any) -> SwapRequest:
    """Return a swap request; InputError names the JSON pointer, the value and what is allowed."""
    check(document, "swap-request")
    target = document["target"]
    body = document.get("body", target.get("body", {}))
    limits = document.get("limits", target.get("limits", {}))
    wanted: Setup | Intent
    if "actions" in target:
        wanted = parse_intent(target, "/target")
        own, allowed = parse_body(body), parse_limits(limits)
        style, tempo = wanted.style, wanted.tempo
    else:
        wanted, _ = parse_setup(target, body, limits, "/target")
        own, allowed = wanted.body, wanted.limits
        style, said = parse_style(target)
        tempo = said or Tempo()
    rules = document.get("rules", {})
    return SwapRequest(
        wanted=wanted,
        style=style,
        tempo=tempo,
        by_dose=document.get("compare") == "dose",
        body=own,
        limits=allowed,
        kit=parse_kit(document["kit"]),
        taken=frozenset(document.get("taken", [])),
        rules=Rules(**rules),
        reps=document.get("reps", target.get("reps", 10) if "actions" in target else 10),
        strength_scale=body.get("strength_scale", {}),
        shown_effort=document.get("shown_effort", {}),
        body_uncertainty=BodyUncertainty(**document.get("body_errors", {})),
        limit=document.get("limit"),
    )


def swap_request_document(question: Question, *, sets: int, reps: int) -> dict[str, Any]:
    """Return the wide-arc/swap-request document of a question, checked by its schema; the same
    answer follows.
    """
    target: dict[str, Any]
    if isinstance(question.asked, Intent):
        target = intent_part(question.asked)
    else:
        target = inner_part(question.asked.setup)
    body, limits, rules = question.body, question.limits, question.rules
    known = {
        "to_shoulders_kg": rules.to_shoulders_kg,
        "alone": rules.alone,
        "partner": rules.partner,
        "wall": rules.wall,
        "floor_length_m": rules.floor_length_m,
        "packed": rules.packed,
        "beginner": rules.beginner,
        "grip_kg": rules.grip_kg,
        "sore": dict(rules.sore) or None,
        "sore_last": None if rules.sore_last else False,
        "stronger_side": rules.stronger_side,
    }
    document = {
        "format": "wide-arc/swap-request",
        "version": 1,
        "target": target,
        "sets": sets,
        "reps": reps,
        **person_part(body, limits),
        "kit": kit_part(question.kit),
        "taken": sorted(question.taken),
        "rules": {name: value for name, value in known.items() if value is not None},
    } | ({"shown_effort": dict(question.shown_effort)} if question.shown_effort else {})
    document |= {"compare": "dose"} if question.by_dose else {}
    if question.body_uncertainty != BodyUncertainty():
        document["body_errors"] = asdict(question.body_uncertainty)
    check(document, "swap-request")
    return document


def swap_document(
    ranking: Ranking,
    groups: Groups,
    elapsed_ms: float,
    tweaks: Mapping[str, Sequence[Tweak]],
    reps: Mapping[str, int | None],
    again: Uncertainty | None = None,
    wanted: str | None = None,
) -> dict[str, Any]:
    """Return the wide-arc/swap document of a ranking, checked by its schema; its
    candidates in their groups.

    tweaks and reps (of equal effort, None where none can be said) by exercise id. again: the wanted
    lift set up once more; wanted: its exercise's id.
    """
    lead = variants_of(groups)
    document = {
        "format": "wide-arc/swap",
        "version": 1,
        "candidates": [
            {
                "group": number,
                "variant_of": lead.get(item.exercise.id),
                "same_lift": wanted is not None and is_same_lift(wanted, item.exercise.id),
            }
            | _candidate(
                ranking, item, tweaks.get(item.exercise.id, ()), reps.get(item.exercise.id)
            )
            for number, group in enumerate(groups, start=1)
            for item in group
        ],
        "excluded": [
            {"exercise": item.exercise.id, "reason": plain(item.reason)}
            | ({"admits": plain(item.admits)} if item.admits else {})
            for item in ranking.excluded
        ],
        **({"again": _usual(again)} if again is not None else {}),
        "elapsed_ms": round(elapsed_ms, 1),
        "setups_tried": ranking.tried,
    } | ({"untried": [plain(said) for said in ranking.untried]} if ranking.untried else {})
    check(document, "swap")
    return document


def _usual(sure: Uncertainty) -> dict[str, float]:
    return {"usual": round(sure.usual, 6), "usual_sd": round(sure.sd, 6)}


def _candidate(
    ranking: Ranking, item: Candidate, tweaks: Sequence[Tweak], reps: int | None
) -> dict[str, Any]:
    exercise, motion = item.exercise, item.curve.motion
    part = {
        "exercise": exercise.id,
        "name": exercise.name,
        "options": dict(item.row.options),
        "pieces": [_piece(p) for p in item.pieces],
        "set_up": plain(item.row.words),
        "loads": [load_part(load) for load in item.curve.setup.loads],
        "match": None,
        **_usual(item.uncertainty),
        "shape": round(item.shape, 6),
        "reach": round(item.reach, 6),
        "other": round(float(item.comparison.other[0]), 6),
        "level": None,
        "joints": [_joint(ranking, item, index) for index in range(len(ranking.target.actions))],
        "equal_effort_reps": reps,
        "tweaks": [_tweak(t) for t in tweaks],
        "sentence": plain(item.sentence),
        "cautions": [plain(caution) for caution in cautions_of(item)],
        "checks": list(exercise.checks),
        "warnings": [{"code": n.code, "text": plain(n.text)} for n in motion.notices if n.where[0]],
        "set_up_minutes": exercise.minutes,
        "smallest_step": None if item.step is None else round(item.step, 6),
        "held_back_by": None if item.held_back is None else item.held_back.by,
        "steadiness": exercise.steadiness,
        "fails_alone": exercise.fails_alone,
    }
    if ranking.target.has_level:
        part |= {"match": round(item.match, 6), "level": round(item.level, 6)}
    return part


def _tweak(tweak: Tweak) -> dict[str, Any]:
    part = {"words": plain(tweak.words), "gain": round(tweak.gain, 6), "key": tweak.key}
    return part | ({"note": plain(tweak.note)} if tweak.note else {})


def _piece(piece: Piece) -> dict[str, Any]:
    return {
        "item": piece.item,
        "kind": piece.kind,
        "label": piece.label,
        "number": piece.number,
        "kg": piece.kg,
    }


def _joint(ranking: Ranking, item: Candidate, index: int) -> dict[str, Any]:
    target, own = ranking.target.bins[index], item.comparison.bins[index][0]
    used = np.flatnonzero((target > 0) | (own > 0))
    span = slice(int(used.min()), int(used.max()) + 1)
    shift = float(item.comparison.shift_deg(ranking.target, index)[0])
    return {
        "action": ranking.target.actions[index].label,
        "match": round(float(item.comparison.by_joint[index][0]), 6),
        "covered": round(float(item.comparison.covered[index][0]), 6),
        "extra": round(float(item.comparison.extra[index][0]), 6),
        "shift_deg": round(shift, 2) if np.isfinite(shift) else None,
        "angle_deg": CENTRES_DEG[span].tolist(),
        "target_nm": [round(float(v), 4) for v in target[span]],
        "candidate_nm": [round(float(v), 4) for v in own[span]],
        "long_third_share": {
            "target": round(ranking.target.long_third_share(index), 6),
            "candidate": round(float(item.comparison.long_third_share[index][0]), 6),
        },
    }
