"""Swap requests in, rankings out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG
from widearc.core.dose import RepStyle, Tempo
from widearc.core.equipment import Band, FreeMass, Load, Sled
from widearc.core.intent import Intent
from widearc.core.movement import Setup
from widearc.core.substitution import (
    Anchor,
    BandShape,
    BandStock,
    Candidate,
    Furniture,
    Kit,
    Ranking,
    Rules,
    SledPress,
    Weight,
)
from widearc.formats.documents import check
from widearc.formats.intent import parse_intent
from widearc.formats.scenario import law_part, parse_body, parse_law, parse_limits, parse_setup, parse_style


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SwapRequest:
    """A parsed wide-arc/swap-request: wanted is a set-up, done in a style at a tempo, or an intent."""

    wanted: Setup | Intent
    style: RepStyle
    tempo: Tempo
    body: Body
    limits: Limits
    kit: Kit
    taken: frozenset[str]
    rules: Rules
    limit: int | None


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
        body=own,
        limits=allowed,
        kit=parse_kit(document["kit"]),
        taken=frozenset(document.get("taken", [])),
        rules=Rules(to_shoulders_kg=rules.get("to_shoulders_kg"), alone=rules.get("alone", False)),
        limit=document.get("limit"),
    )


def parse_kit(part: Mapping[str, Any]) -> Kit:
    """Return a kit from its document part."""
    weights = [
        Weight(
            id=item["id"],
            kind=kind,
            kg=float(item["kg"]),
            count=item.get("count", 1),
            name=item.get("name", ""),
        )
        for key, kind in (
            ("bars", "bar"),
            ("plates", "plate"),
            ("dumbbells", "dumbbell"),
            ("kettlebells", "kettlebell"),
        )
        for item in part.get(key, [])
    ]
    bands = [
        BandStock(
            id=item["id"],
            name=item.get("name", item["id"]),
            shape=BandShape(item["shape"]),
            law=parse_law(item["law"], f"/kit/bands/{index}/law"),
            count=item.get("count", 1),
        )
        for index, item in enumerate(part.get("bands", []))
    ]
    return Kit(
        weights=tuple(weights),
        bands=tuple(bands),
        furniture=tuple(Furniture(**{"name": i["id"], **i}) for i in part.get("furniture", [])),
        anchors=tuple(Anchor(**{"name": i["id"], **i}) for i in part.get("anchors", [])),
        presses=tuple(
            SledPress(**{"name": i["id"], **{k: v for k, v in i.items() if k != "kind"}})
            for i in part.get("machines", [])
        ),
    )


def swap_document(ranking: Ranking, elapsed_ms: float) -> dict[str, Any]:
    """Return the wide-arc/swap document of a ranking, checked by its schema."""
    document = {
        "format": "wide-arc/swap",
        "version": 1,
        "candidates": [_candidate(ranking, item) for item in ranking.candidates],
        "excluded": [
            {"exercise": item.exercise.id, "reason": item.reason} | ({"admits": item.admits} if item.admits else {})
            for item in ranking.excluded
        ],
        "elapsed_ms": round(elapsed_ms, 1),
        "setups_tried": ranking.tried,
    }
    check(document, "swap")
    return document


def _candidate(ranking: Ranking, item: Candidate) -> dict[str, Any]:
    exercise, motion = item.exercise, item.curve.motion
    return {
        "exercise": exercise.id,
        "name": exercise.name,
        "options": dict(item.row.options),
        "pieces": [
            {"item": p.item, "kind": p.kind, "label": p.label, "number": p.number, "kg": p.kg} for p in item.pieces
        ],
        "set_up": item.row.place,
        "loads": [load_part(load) for load in item.curve.setup.loads],
        "match": round(item.match, 6) if ranking.target.has_level else None,
        "match_error": round(item.doubt.match, 6),
        "shape": round(item.shape, 6),
        "reach": round(item.reach, 6),
        "level": round(item.level, 6) if ranking.target.has_level else None,
        "joints": [_joint(ranking, item, index) for index in range(len(ranking.target.actions))],
        "equal_effort_reps": None,
        "sentence": item.sentence,
        "cautions": list(exercise.cautions),
        "checks": list(exercise.checks),
        "warnings": [{"code": n.code, "text": n.text} for n in motion.notices if n.where[0]],
        "set_up_minutes": exercise.minutes,
        "smallest_step": None if item.step is None else round(item.step, 6),
        "steadiness": exercise.steadiness,
        "fails_alone": exercise.fails_alone,
    }


def _joint(ranking: Ranking, item: Candidate, index: int) -> dict[str, Any]:
    target, own = ranking.target.bins[index], item.comparison.bins[index][0]
    used = np.flatnonzero((target > 0) | (own > 0))
    span = slice(int(used.min()), int(used.max()) + 1)
    return {
        "action": ranking.target.actions[index].label,
        "match": round(float(item.comparison.by_joint[index][0]), 6),
        "angle_deg": CENTRES_DEG[span].tolist(),
        "target_nm": [round(float(v), 4) for v in target[span]],
        "candidate_nm": [round(float(v), 4) for v in own[span]],
        "long_third_share": {
            "target": round(ranking.target.long_third_share(index), 6),
            "candidate": round(float(item.comparison.long_third_share[index][0]), 6),
        },
    }


def load_part(load: Load) -> dict[str, Any]:
    """Return one load of a single set-up as its document part."""
    if isinstance(load, FreeMass):
        return {"kind": "mass", "kg": _one(load.kg), "port": load.port}
    if isinstance(load, Sled):
        return {
            "kind": "sled",
            "kg": _one(load.kg),
            "empty_kg": _one(load.empty_kg),
            "friction": load.friction,
        }
    assert isinstance(load, Band)
    anchor: dict[str, Any] = {"port": load.anchor_port}
    if load.anchor is not None:
        x, y, z = (_one(v) for v in load.anchor)
        anchor = {"x_m": x, "y_m": y, "z_m": z}
    return {
        "kind": "band",
        "port": load.port,
        "anchor": anchor,
        "strands": load.strands,
        "count": int(_one(load.count)),
        "law": law_part(load.law),
        "hysteresis": load.hysteresis,
    }


def _one(value: Any) -> float:
    return round(float(np.asarray(value, dtype=float).ravel()[0]), 6)
