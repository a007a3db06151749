"""Scenarios in."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from widearc.core.body import Body, Limits, Sex
from widearc.core.dose import RepStyle, StyleKind, Tempo
from widearc.core.errors import InputError
from widearc.core.exercises import exercise_of
from widearc.core.movement import Setup
from widearc.formats.documents import check
from widearc.formats.loads import load_part, one, parse_load


def parse_scenario(document: Any) -> tuple[Setup, Mapping[str, float]]:
    """Return the set-up of a wide-arc/scenario document and the client's strength scale per action
    (may be empty).

    Raises InputError (JSON pointer, value, what is allowed) and writes nothing.
    """
    check(document, "scenario")
    return parse_setup(document, document.get("body", {}), document.get("limits", {}), "")


def scenario_document(setup: Setup) -> dict[str, Any]:
    """Return the wide-arc/scenario document of a set-up of one row, checked by its schema: the same
    curve follows.
    """
    document = {
        "format": "wide-arc/scenario",
        "version": 1,
        **inner_part(setup),
        **person_part(setup.body, setup.limits),
    }
    check(document, "scenario")
    return document


def person_part(body: Body, limits: Limits) -> dict[str, Any]:
    """Return body and limits, as every document has them."""
    return {
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
    }


def inner_part(setup: Setup) -> dict[str, Any]:
    """Return exercise, options and loads of a set-up of one row, as every document has them."""
    return {
        "exercise": setup.exercise.id,
        "options": {n: v if isinstance(v, str) else one(v) for n, v in setup.options.items()},
        "loads": [load_part(load) for load in setup.loads],
    }


def parse_setup(
    part: Mapping[str, Any], body: Mapping[str, Any], limits: Mapping[str, Any], where: str
) -> tuple[Setup, Mapping[str, float]]:
    """Return the set-up of a scenario's inner part; `where` is the pointer of that part."""
    try:
        setup = Setup(
            exercise=exercise_of(part["exercise"], "/exercise"),
            body=parse_body(body),
            limits=parse_limits(limits),
            options=part.get("options", {}),
            loads=tuple(
                parse_load(item, f"/loads/{i}", exercise_of(part["exercise"], "/exercise").ports)
                for i, item in enumerate(part.get("loads", []))
            ),
            samples=part.get("samples", 101),
        )
    except InputError as error:
        prefix = "" if error.where.startswith(("/body", "/limits")) else where
        raise InputError(prefix + error.where, error.value, error.allowed) from None
    return setup, body.get("strength_scale", {})


def parse_body(part: Mapping[str, Any]) -> Body:
    """Return a body from its document part; the default body where a value is left out."""
    return Body(
        mass_kg=float(part.get("mass_kg", 80.0)),
        stature_m=float(part.get("stature_m", 1.80)),
        sex=Sex(part.get("sex", "mean")),
        segments=MappingProxyType({k: float(v) for k, v in part.get("segments", {}).items()}),
    )


def parse_limits(part: Mapping[str, Any]) -> Limits:
    """Return limits from their document part."""
    return Limits(**part)


def parse_style(document: Mapping[str, Any]) -> tuple[RepStyle, Tempo | None]:
    """Return a scenario's rep style (plain when left out) and its tempo (None when left out)."""
    part = dict(document.get("style", {"kind": "plain"}))
    name = part.pop("kind").removesuffix(" set").replace(" ", "-")
    style = RepStyle(kind=StyleKind(name), **part)
    return style, Tempo(**document["tempo"]) if "tempo" in document else None
