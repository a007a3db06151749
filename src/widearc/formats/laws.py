"""A band's law as a document."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from widearc.core.equipment import BandLaw, LinearLaw, MooneyRivlinLaw, PointsLaw
from widearc.core.errors import InputError


def parse_law(part: Mapping[str, Any], where: str) -> BandLaw:
    """Return a band's law, errors named under `where`."""
    try:
        if part["kind"] == "linear":
            return LinearLaw(rest_m=part["rest_m"], rate_n_per_m=part["rate_n_per_m"])
        if part["kind"] == "mooney-rivlin":
            return MooneyRivlinLaw(
                rest_m=part["rest_m"],
                area_m2=part["area_m2"],
                c1_pa=part["c1_pa"],
                c2_pa=part["c2_pa"],
            )
        return PointsLaw(
            rest_m=part["rest_m"],
            length_m=tuple(float(v) for v in part["length_m"]),
            force_n_at=tuple(float(v) for v in part["force_n"]),
        )
    except InputError as error:
        raise InputError(f"{where}/{error.where}", error.value, error.allowed) from None


def law_part(law: BandLaw) -> dict[str, Any]:
    """Return a law as its document part."""
    if isinstance(law, LinearLaw):
        return {"kind": "linear", "rest_m": law.rest_m, "rate_n_per_m": law.rate_n_per_m}
    if isinstance(law, MooneyRivlinLaw):
        return {
            "kind": "mooney-rivlin",
            "rest_m": law.rest_m,
            "area_m2": law.area_m2,
            "c1_pa": law.c1_pa,
            "c2_pa": law.c2_pa,
        }
    return {
        "kind": "points",
        "rest_m": law.rest_m,
        "length_m": list(law.length_m),
        "force_n": list(law.force_n_at),
    }
