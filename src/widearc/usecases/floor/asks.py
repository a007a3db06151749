"""What a lift asks a rep: kept beside it, so that years of sets need no curve again."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from widearc import store
from widearc.core.arrays import Array
from widearc.core.body import Body, Sex
from widearc.core.curve import Action
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.muscle import NAMES, MuscleUse
from widearc.core.record import shares_of_set
from widearc.core.statics import Curve, curve
from widearc.core.statics.frontal import frontal_nm
from widearc.formats import parse_scenario
from widearc.usecases.arc.arc import muscles
from widearc.usecases.arc.felt import computed_third
from widearc.usecases.client.strength import asked

LEAST_NM = 5.0
ABDUCTION = "hip_abduction"
MODEL = "2"
"""The model's version: raised when its numbers change, so that older ones can be told."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """What a set-up asks a rep: see store.LiftRow, LiftAction and LiftMuscle."""

    one_sided: bool
    tilt: float | None
    hardest: str | None
    actions: tuple[store.LiftAction, ...]
    muscles: tuple[store.LiftMuscle, ...]


@lru_cache(maxsize=1024)
def measured(scenario: str) -> Measured:
    """Return what the set-up of a scenario (JSON) asks; one that was asked for before is known."""
    setup, _ = parse_scenario(json.loads(scenario))
    found = curve(replace(setup, samples=101), lowering=False)
    actions = actions_of(found)
    return Measured(
        one_sided=round(float(found.motion.legs)) == 1,
        tilt=_tilt(found),
        hardest=computed_third(found) if found.demand_nm else None,
        actions=actions,
        muscles=muscles_of(found),
    )


def _tilt(curve: Curve) -> float | None:
    """Return how much more the joint that is asked most is asked in the half where it is long than
    in the half where it is short, as a share of the latter; None where nothing is asked.
    """
    demands = [np.abs(nm[0]) for nm in curve.demand_nm.values()]
    most = max(demands, key=lambda nm: float(nm.max()), default=None)
    if most is None or float(most.max()) < LEAST_NM:
        return None
    half = len(most) // 2
    long, short = float(most[: half + 1].mean()), float(most[half:].mean())
    return round(min(long / max(short, 1e-3 * long) - 1.0, 999.0), 4)


def actions_of(curve: Curve) -> tuple[store.LiftAction, ...]:
    """Return what a set-up of one row asks of every joint action, of one leg."""
    demand, usual = asked(curve)
    ratios = {
        a: float(np.max(nm / usual[a])) for a, nm in demand.items() if float(nm.max()) >= LEAST_NM
    }
    first = max(ratios, key=lambda a: ratios[a], default=None)
    found = [
        store.LiftAction(
            action=action,
            demand_nm=round(float(nm.max()), 2),
            ratio=round(ratios[action], 5),
            work_j=round(_work_j(curve, action, nm), 2),
            first=action == first,
        )
        for action, nm in demand.items()
        if action in ratios
    ]
    frontal = curve.demand_nm.get(ABDUCTION)
    if frontal is not None and float(np.abs(frontal[0]).max()) >= LEAST_NM:
        found.append(
            store.LiftAction(
                action=ABDUCTION,
                demand_nm=round(float(np.abs(frontal[0]).max()), 2),
                ratio=None,
                work_j=0.0,
                first=not found,
            )
        )
    return tuple(found)


def _work_j(curve: Curve, action: str, nm: Array) -> float:
    """Return the work (J) that an action does while lifting: demand over the angle that it
    closes.
    """
    joint = {"plantarflexion": "ankle"}.get(action, action.split("_", maxsplit=1)[0])
    if joint not in curve.motion.angles:
        return 0.0
    turn = np.abs(np.diff(curve.motion.angles[joint][0]))
    return float((0.5 * (nm[1:] + nm[:-1]) * turn).sum())


def muscles_of(curve: Curve) -> tuple[store.LiftMuscle, ...]:
    """Return the work of every muscle group a rep, in thirds, and what one set counts for it."""
    use = muscles(curve)
    if use is None:
        frontal = gluteus_medius(curve)
        return () if frontal is None else (frontal,)
    groups = {name: use.of(name) for name in NAMES if name != MEDIUS}
    counts = shares_of_set({name: _positive_j(use, name) for name in groups})
    frontal = gluteus_medius(curve)
    return (() if frontal is None else (frontal,)) + tuple(
        store.LiftMuscle(
            grp=name,
            long_j=round(groups[name].thirds_j[0], 2),
            middle_j=round(groups[name].thirds_j[1], 2),
            short_j=round(groups[name].thirds_j[2], 2),
            counts=round(share, 4),
        )
        for name, share in counts.items()
    )


MEDIUS, LEAST_MEDIUS = "gluteus_medius", 0.05


def gluteus_medius(curve: Curve) -> store.LiftMuscle | None:
    """Return what a set counts for the gluteus medius, of which no path is known: 1 for abduction,
    else its part of the abduction that lying on the side asks the same body, at most 1 (assumed);
    in place of work the mean demand, N·m, in thirds of the lift. None where it is asked little.
    """
    setup, motion = curve.setup, curve.motion
    asked = curve.demand_nm.get(ABDUCTION)
    by_itself = setup.exercise.prime == (Action.AB,)
    demand = asked if asked is not None else frontal_nm(setup, motion)
    if demand is None:
        return None
    nm = np.maximum(np.broadcast_to(demand, motion.shape)[0], 0.0)
    body = setup.body
    whole = _lying_nm(body.mass_kg, body.stature_m, body.sex.value)
    share = 1.0 if by_itself else min(1.0, float(nm.mean()) / whole)
    if share < LEAST_MEDIUS:
        return None
    long, middle, short = (float(part.mean()) for part in np.array_split(nm, 3))
    return store.LiftMuscle(
        grp=MEDIUS,
        long_j=round(long, 2),
        middle_j=round(middle, 2),
        short_j=round(short, 2),
        counts=round(share, 4),
    )


@lru_cache(maxsize=256)
def _lying_nm(mass_kg: float, stature_m: float, sex: str) -> float:
    """Return the mean abduction demand (N·m) of raising a leg on the side, of the same body."""
    body = Body(mass_kg=mass_kg, stature_m=stature_m, sex=Sex(sex))
    found = curve(Setup(exercise=EXERCISES["side-lying-raise"], body=body), lowering=False)
    return float(np.maximum(found.demand_nm[ABDUCTION][0], 0.0).mean())


def _positive_j(use: MuscleUse, group: str) -> float:
    return max(0.0, use.of(group).work_j)
