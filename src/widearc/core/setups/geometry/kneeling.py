"""Kneeling extensions: how far the body leans."""

from __future__ import annotations

from collections.abc import Iterator

from widearc.core.setups.geometry.asked import Asked, Geometry, Rule
from widearc.core.words import Angle, Said

UPRIGHT_DEG = 90.0  # of knee bend when kneeling upright
SHALLOW_DEG, LEAST_DEG = 30.0, 10.0


def _applies(asked: Asked) -> bool:
    entry = asked.exercise
    leans = entry.family == "kneeling" and "lean_from_deg" in asked.specs
    return leans and entry.prime[0].direction < 0


def _make(asked: Asked) -> Iterator[Geometry]:
    usual = deepest = asked.usual("lean_from_deg")
    if asked.wanted is not None:
        deepest = max(LEAST_DEG, min(usual, asked.wanted.from_deg - UPRIGHT_DEG))
    for lean in sorted({deepest, SHALLOW_DEG, usual}):
        yield Geometry(
            options={"lean_from_deg": lean}, words=Said("lean to {angle}", angle=Angle.of_deg(lean))
        )


RULE = Rule(rank=1, applies=_applies, make=_make)
