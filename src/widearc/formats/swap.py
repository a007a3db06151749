"""Swap requests in, rankings out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.answers import Tweak
from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG
from widearc.core.dose import RepStyle, Tempo
from widearc.core.equipment import (
    Band,
    Cable,
    CornerBar,
    FreeMass,
    Lever,
    Load,
    Pendulum,
    Sled,
    Spring,
    SpringLoad,
    Stack,
)
from widearc.core.errors import InputError
from widearc.core.intent import Intent
from widearc.core.kit import (
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    Rules,
    SledPress,
    SpringStock,
    Thing,
    Weight,
)
from widearc.core.movement import Setup
from widearc.core.search import Candidate, Question, Ranking
from widearc.formats.documents import check
from widearc.formats.intent import intent_part, parse_intent
from widearc.formats.scenario import (
    law_part,
    parse_body,
    parse_law,
    parse_limits,
    parse_setup,
    parse_style,
)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SwapRequest:
    """A parsed wide-arc/swap-request: wanted is a set-up, done in a style at a tempo, or an
    intent.
    """

    wanted: Setup | Intent
    style: RepStyle
    tempo: Tempo
    body: Body
    limits: Limits
    kit: Kit
    taken: frozenset[str]
    rules: Rules
    limit: int | None
    reps: int
    strength_scale: Mapping[str, float]


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
        rules=Rules(**rules),
        reps=document.get("reps", target.get("reps", 10) if "actions" in target else 10),
        strength_scale=body.get("strength_scale", {}),
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
        for key, kind in _WEIGHTS
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
            SledPress(**{"name": i["id"], **{k: v for k, v in i.items() if k in _PRESS}})
            for i in part.get("machines", [])
            if i["kind"] == "sled press"
        ),
        machines=tuple(
            _machine(i, f"/kit/machines/{index}")
            for index, i in enumerate(part.get("machines", []))
            if i["kind"] != "sled press"
        ),
        springs=tuple(
            _spring(i, f"/kit/springs/{index}") for index, i in enumerate(part.get("springs", []))
        ),
        things=tuple(
            Thing(**{"name": i.get("name", i["kind"]), **i}) for i in part.get("things", [])
        ),
    )


_WEIGHTS = (
    ("bars", "bar"),
    ("plates", "plate"),
    ("dumbbells", "dumbbell"),
    ("kettlebells", "kettlebell"),
)
_PRESS = (
    "id",
    "name",
    "rail_deg",
    "empty_kg",
    "backrest_deg",
    "plate_tilt_deg",
    "friction",
    "peg_m",
)
_WORDS = ("id", "name", "kind", "dials")


def _machine(item: Mapping[str, Any], where: str) -> Machine:
    dials = []
    for index, dial in enumerate(item.get("dials", [])):
        cam = (tuple(map(float, dial["angle_deg"])), tuple(map(float, dial["radius_m"])))
        try:
            Stack(kg=1.0, angle_deg=cam[0], radius_m=cam[1])
        except InputError as error:
            raise InputError(
                f"{where}/dials/{index}/{error.where}", error.value, error.allowed
            ) from None
        dials.append((dial.get("setting", ""), cam))
    quantities = {name: float(value) for name, value in item.items() if name not in _WORDS}
    return Machine(
        id=item["id"],
        name=item.get("name", item["kind"]),
        kind=item["kind"],
        dials=tuple(dials),
        quantities=MappingProxyType(quantities),
    )


def _spring(item: Mapping[str, Any], where: str) -> SpringStock:
    try:
        spring = Spring(start_n=item["start_n"], end_n=item["end_n"], travel_m=item["travel_m"])
    except InputError as error:
        raise InputError(f"{where}/{error.where}", error.value, error.allowed) from None
    return SpringStock(
        id=item["id"], name=item.get("name", item["id"]), spring=spring, count=item.get("count", 1)
    )


def swap_request_document(question: Question, *, sets: int, reps: int) -> dict[str, Any]:
    """Return the wide-arc/swap-request document of a question, checked by its schema; the same
    answer follows.
    """
    target: dict[str, Any]
    if isinstance(question.asked, Intent):
        target = intent_part(question.asked)
    else:
        setup = question.asked.setup
        options = {n: v if isinstance(v, str) else _one(v) for n, v in setup.options.items()}
        target = {
            "exercise": setup.exercise.id,
            "options": options,
            "loads": [load_part(x) for x in setup.loads],
        }
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
    }
    document = {
        "format": "wide-arc/swap-request",
        "version": 1,
        "target": target,
        "sets": sets,
        "reps": reps,
        "body": {
            "mass_kg": body.mass_kg,
            "stature_m": body.stature_m,
            "sex": body.sex.value,
            "segments": dict(body.segments),
        },
        "limits": {
            "dorsiflexion_deg": limits.dorsiflexion_deg,
            "hip_flexion_deg": limits.hip_flexion_deg,
            "knee_deg": limits.knee_deg,
            "no_axial_load": limits.no_axial_load,
        },
        "kit": kit_part(question.kit),
        "taken": sorted(question.taken),
        "rules": {name: value for name, value in known.items() if value is not None},
    }
    check(document, "swap-request")
    return document


def kit_part(kit: Kit) -> dict[str, Any]:
    """Return a kit as its document part."""

    def given(item: object, *names: str) -> dict[str, Any]:
        return {n: getattr(item, n) for n in names if getattr(item, n) not in (None, "")}

    part: dict[str, Any] = {
        key: [
            {**given(w, "id", "name"), "kg": w.kg, "count": w.count}
            for w in kit.weights
            if w.kind == kind
        ]
        for key, kind in _WEIGHTS
    }
    part["bands"] = [
        {
            "id": b.id,
            "name": b.name,
            "shape": b.shape.value,
            "count": b.count,
            "law": law_part(b.law),
        }
        for b in kit.bands
    ]
    part["furniture"] = [
        given(f, "id", "name", "kind", "height_m", "own_kg", "depth_m") for f in kit.furniture
    ]
    part["anchors"] = [
        given(a, "id", "name", "height_m", "holds_n", "own_kg", "depth_m") for a in kit.anchors
    ]
    part["machines"] = [{"kind": "sled press", **given(p, *_PRESS)} for p in kit.presses] + [
        {
            **given(m, "id", "name", "kind"),
            **{n: v for n, v in m.quantities.items() if n in _MACHINE},
            "dials": [
                {"setting": s, "angle_deg": list(a), "radius_m": list(r)} for s, (a, r) in m.dials
            ],
        }
        for m in kit.machines
    ]
    part["springs"] = [
        {
            "id": s.id,
            "name": s.name,
            "start_n": s.spring.start_n,
            "end_n": s.spring.end_n,
            "travel_m": s.spring.travel_m,
            "count": s.count,
        }
        for s in kit.springs
    ]
    part["things"] = [
        {**given(t, "id", "name", "kind"), **({"thick_m": t.thick_m} if t.thick_m else {})}
        for t in kit.things
    ]
    return part


_MACHINE = (
    "rail_deg",
    "empty_kg",
    "friction",
    "smallest_kg",
    "largest_kg",
    "step_kg",
    "ratio",
    "height_m",
    "travel_m",
    "sleeve_m",
    "hand_m",
    "arm_kg",
    "arm_m",
    "user_arm_m",
    "angle_deg",
)


def swap_document(
    ranking: Ranking,
    elapsed_ms: float,
    tweaks: Mapping[str, Sequence[Tweak]],
    reps: Mapping[str, int | None],
) -> dict[str, Any]:
    """Return the wide-arc/swap document of a ranking, checked by its schema.

    tweaks and reps (of equal effort, None where none can be said) by exercise id.
    """
    document = {
        "format": "wide-arc/swap",
        "version": 1,
        "candidates": [
            _candidate(ranking, item, tweaks.get(item.exercise.id, ()), reps.get(item.exercise.id))
            for item in ranking.candidates
        ],
        "excluded": [
            {"exercise": item.exercise.id, "reason": item.reason}
            | ({"admits": item.admits} if item.admits else {})
            for item in ranking.excluded
        ],
        "elapsed_ms": round(elapsed_ms, 1),
        "setups_tried": ranking.tried,
    }
    check(document, "swap")
    return document


def _candidate(
    ranking: Ranking, item: Candidate, tweaks: Sequence[Tweak], reps: int | None
) -> dict[str, Any]:
    exercise, motion = item.exercise, item.curve.motion
    return {
        "exercise": exercise.id,
        "name": exercise.name,
        "options": dict(item.row.options),
        "pieces": [
            {"item": p.item, "kind": p.kind, "label": p.label, "number": p.number, "kg": p.kg}
            for p in item.pieces
        ],
        "set_up": item.row.place,
        "loads": [load_part(load) for load in item.curve.setup.loads],
        "match": round(item.match, 6) if ranking.target.has_level else None,
        "match_error": round(item.doubt.match, 6),
        "shape": round(item.shape, 6),
        "reach": round(item.reach, 6),
        "level": round(item.level, 6) if ranking.target.has_level else None,
        "joints": [_joint(ranking, item, index) for index in range(len(ranking.target.actions))],
        "equal_effort_reps": reps,
        "tweaks": [{"words": t.words, "gain": round(t.gain, 6), "key": t.key} for t in tweaks],
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
    if isinstance(load, Stack):
        radius = {"angle_deg": list(load.angle_deg), "radius_m": list(load.radius_m)}
        return {
            "kind": "stack",
            "kg": _one(load.kg),
            "ratio": load.ratio,
            "friction": load.friction,
            "radius": radius,
        }
    if isinstance(load, Cable):
        x, y = load.pulley
        return {
            "kind": "cable",
            "kg": _one(load.kg),
            "ratio": load.ratio,
            "pulley": {"x_m": x, "y_m": y},
            "port": load.port,
            "friction": load.friction,
        }
    if isinstance(load, CornerBar):
        return {
            "kind": "corner-bar",
            "plate_kg": _one(load.plate_kg),
            "bar_kg": load.bar_kg,
            "bar_m": load.bar_m,
            "sleeve_m": load.sleeve_m,
            "hand_m": load.hand_m,
            "port": load.port,
        }
    if isinstance(load, SpringLoad):
        s = load.spring
        return {
            "kind": "spring",
            "start_n": s.start_n,
            "end_n": s.end_n,
            "travel_m": s.travel_m,
            "count": int(_one(load.count)),
            "attached": load.port,
        }
    if isinstance(load, Lever):
        x, y = (_one(value) for value in load.pivot)
        return {
            "kind": "lever",
            "pivot": {"x_m": round(x, 6), "y_m": round(y, 6)},
            "kg": _one(load.kg),
            "arm_m": load.arm_m,
            "angle_deg": load.angle_deg,
            "own_kg": load.own_kg,
            "own_arm_m": load.own_arm_m,
            "own_angle_deg": load.own_angle_deg,
            "port": load.port,
        }
    if isinstance(load, Pendulum):
        return {"kind": "pendulum", "kg": _one(load.kg), "arm_m": load.arm_m}
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
        **({"lead_m": load.lead_m} if load.lead_m else {}),
    }


def _one(value: Any) -> float:
    return round(float(np.asarray(value, dtype=float).ravel()[0]), 6)
