"""The catalogue as a document."""

from __future__ import annotations

import math
from typing import Any

from widearc.core.exercises import EXERCISES, STATURE_M, Exercise, OptionSpec
from widearc.core.movement.takes import kinds_of
from widearc.formats.documents import check


def exercises_document() -> dict[str, Any]:
    """Return the wide-arc/exercises document: every entry with its options, ranges and ports."""
    document = {
        "format": "wide-arc/exercises",
        "version": 1,
        "exercises": [_entry(item) for item in EXERCISES.values()],
    }
    check(document, "exercises")
    return document


def _entry(item: Exercise) -> dict[str, Any]:
    return {
        "id": item.id,
        "name": item.name,
        "aliases": list(item.aliases),
        "family": item.family,
        "prime": [action.label for action in item.prime],
        "ports": list(item.ports),
        "load_kinds": [kind.kind for kind in kinds_of(item)],
        "has_curve": item.has_curve,
        "options": [_option(spec) for spec in item.options.values()],
        "needs": list(item.needs),
        "steadiness": item.steadiness,
        "fails_alone": item.fails_alone,
        "limiting_links": list(item.limits),
        "set_up_minutes": item.minutes,
        "one_leg": item.one_leg,
        "checks": list(item.checks),
        "cues": list(item.cues),
        "mistakes": list(item.mistakes),
        "breathing": item.breathing,
        "cautions": list(item.cautions),
        "reps": list(item.reps),
        "rest_s": list(item.rest_s),
        "replaces": list(item.replaces),
    }


def _option(spec: OptionSpec) -> dict[str, Any]:
    part: dict[str, Any] = {
        "id": spec.name,
        "label": spec.label,
        "unit": spec.unit,
        "default": spec.default,
    }
    if spec.of_body:
        part["of_stature_m"] = STATURE_M
    if not spec.used:
        part["changes_curve"] = False
    if spec.choices:
        part["choices"] = list(spec.choices)
    if math.isfinite(spec.low):
        part |= {"from": spec.low, "to": spec.high}
    return part
