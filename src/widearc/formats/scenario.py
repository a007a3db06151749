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
from widearc.formats.loads import parse_load


def parse_scenario(document: Any) -> tuple[Setup, Mapping[str, float]]:
    """Return the set-up of a wide-arc/scenario document and the client's strength scale per action
    (may be empty).

    Raises InputError (JSON pointer, value, what is allowed) and writes nothing.
    """
    check(document, "scenario")
    return parse_setup(document, document.get("body", {}), document.get("limits", {}), "")


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
