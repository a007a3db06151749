"""What is laid over a curve as intended: pin A, the intent of the address, or a kept one."""

from __future__ import annotations

import numpy as np
from flask import request

from widearc.core.curve import CENTRES_DEG, STILL
from widearc.core.matching import compare, target_of_intent
from widearc.core.statics import Curve
from widearc.core.units import to_deg
from widearc.web.db import held
from widearc.web.drawing import curves as arcplot
from widearc.web.screens.arc.query import Asked
from widearc.web.screens.intent.query import intent_of
from widearc.words import tr


def choices(pins: list[str]) -> list[tuple[str, str]]:
    """Return what can be laid over the curve as intended: pin A, the intent of the address, kept
    intents.
    """
    found = [("pin", tr("pin A"))] if pins else []
    if request.args.get("want"):
        found.append(("want", tr("the wanted loading")))
    return found + [(f"i{row.id}", row.name) for row in held().intents]


def laid_over(found: Curve, first: Asked | None) -> tuple[arcplot.Intended, ...]:
    """Return what is wanted, from the address; without a level brought to the curve's own work."""
    chosen = request.args.get("over", "want" if request.args.get("want") else "")
    if (
        chosen == "pin"
        and first is not None
        and first.found is not None
        and first.found.curve is not None
    ):
        return _lines_of(first.found.curve)
    intent = None
    if chosen == "want":
        intent = intent_of(request.args.get("want", ""), found.setup.body)
    elif chosen.startswith("i"):
        intent = next((r.intent for r in held().intents if f"i{r.id}" == chosen), None)
    if intent is None:
        return ()
    target = target_of_intent(intent, found.setup.body)
    target = target.at_level_of(compare(target, found.motion.angles, found.demand_nm, 1))
    made = []
    for part, bins in zip(intent.parts, target.bins, strict=True):
        used = np.flatnonzero(bins > 0)
        inner = used[1:-1] if len(used) > 4 else used
        angle = np.linspace(part.from_deg, part.to_deg, 121)
        nm = np.interp(angle, CENTRES_DEG[inner], bins[inner])
        made.append(
            arcplot.Intended(joint=part.action.joint, sign=part.action.sign, angle_deg=angle, nm=nm)
        )
    return tuple(made)


def _lines_of(curve: Curve) -> tuple[arcplot.Intended, ...]:
    """Return a curve's own demands on its prime joints as what is wanted."""
    made = []
    for action in curve.setup.exercise.prime:
        if (
            action.joint in curve.demand_nm
            and float(np.ptp(curve.motion.angles[action.joint][0])) >= STILL
        ):
            nm = np.maximum(curve.demand_nm[action.joint][0] * action.sign, 0.0)
            angle = to_deg(curve.motion.angles[action.joint][0])
            made.append(
                arcplot.Intended(joint=action.joint, sign=action.sign, angle_deg=angle, nm=nm)
            )
    return tuple(made)
