"""A client's strength from sets that were done, and the effort of an exercise by it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from widearc import store
from widearc.core.arrays import Array
from widearc.core.curve import STILL
from widearc.core.errors import InputError, one_of, said_of
from widearc.core.statics import Curve
from widearc.core.strength import (
    ACTIONS,
    FORMULAS,
    EqualReps,
    Scale,
    can_predict,
    current,
    effort_of_reps,
    effort_ratios,
    equal_effort_reps,
    hardest,
    reps_left_words,
    scales_of_set,
    strength_nm,
)
from widearc.core.units import to_deg
from widearc.core.words import UNSAID, Angle, Count, Listed, Name, Said, Share, Term, Times, Words
from widearc.store.errors import MissingError
from widearc.usecases.client.over_time import all_sets
from widearc.usecases.sheet import SheetError

ACTIONS_OF = {
    "hip": ("hip_extension", "hip_flexion"),
    "knee": ("knee_extension", "knee_flexion"),
    "ankle": ("plantarflexion", "dorsiflexion"),
}


SIDES = ("both", "left", "right")


def asked(curve: Curve) -> tuple[dict[str, Array], dict[str, Array]]:
    """Return demand (positive in the action's sense) and usual strength by action, N·m
    (samples,).
    """
    body = curve.setup.body
    demand: dict[str, Array] = {}
    usual: dict[str, Array] = {}
    for joint, actions in ACTIONS_OF.items():
        if joint not in curve.demand_nm:
            continue
        for sign, action in zip((1.0, -1.0), actions, strict=True):
            part = np.maximum(sign * curve.demand_nm[joint][0], 0.0)
            if action in ACTIONS and float(part.max()) > 0:
                demand[action] = part
                usual[action] = strength_nm(
                    action,
                    curve.motion.angles[joint][0],
                    mass_kg=body.mass_kg,
                    stature_m=body.stature_m,
                    sex=body.sex.value,
                )
    return demand, usual


def log_set(
    con: store.Connection,
    trainer_id: int,
    client_id: int,
    curve: Curve,
    words: str,
    *,
    reps: int,
    reserve: int,
    side: str,
    formula: str,
    now: str,
) -> None:
    """Keep a set of a client, recorded for undo. SheetError at the field; nothing is kept then."""
    messages: dict[str, Words] = {}
    if not 1 <= reps <= 100:
        messages["reps"] = Said("{reps} is not kept: from 1 to 100", reps=Count(reps))
    if not 0 <= reserve <= 20:
        messages["reserve"] = Said("{reserve} is not kept: from 0 to 20", reserve=Count(reserve))
    if side not in SIDES:
        messages["side"] = Said("{side} is not kept: both, left or right", side=Name(side[:10]))
    if formula not in FORMULAS:
        messages["formula"] = Said(
            "{formula} is not kept: {allowed}", formula=Name(formula[:10]), allowed=one_of(FORMULAS)
        )
    scales: tuple[Scale, ...] = ()
    if not messages:
        try:
            demand, usual = asked(curve)
            scales = scales_of_set(demand, usual, reps=reps, reserve=reserve, formula=formula)
        except InputError as error:
            messages["reps"] = Said(
                "{value} is not kept: {allowed}", value=said_of(error.value), allowed=error.allowed
            )
    if messages:
        raise SheetError(messages)
    row = store.StrengthSet(
        client_id=client_id,
        logged_at=now,
        exercise=curve.setup.exercise.id,
        words=words[:300],
        side=side,
        reps=reps,
        reserve=reserve,
        formula=formula,
        scales=scales,
        strip=_strip(curve),
    )
    said = Said("set of {exercise} kept", exercise=Term(curve.setup.exercise.name, lower=True))
    with store.recorded(con, trainer_id, scope="clients", kind="set", words=said, now=now):
        store.add_strength_set(con, trainer_id, row)


STRIP_POINTS = 33


def _strip(curve: Curve) -> tuple[float, ...]:
    """Return the demand on the joint that is asked most, N·m, in even steps of the lift; empty
    where none moves.
    """
    moving = {
        j: np.abs(d[0])
        for j, d in curve.demand_nm.items()
        if float(np.ptp(curve.motion.angles[j][0])) >= STILL
    }
    if not moving:
        return ()
    most = max(moving.values(), key=lambda d: float(d.max()))
    steps = np.linspace(0.0, 1.0, STRIP_POINTS)
    return tuple(round(float(nm), 2) for nm in np.interp(steps, curve.motion.position, most))


@store.at_once
def remove_set(con: store.Connection, trainer_id: int, set_id: int, *, now: str) -> int:
    """Remove a set, recorded for undo; return its client. MissingError if it is not there."""
    client = store.strength_set_client(con, trainer_id, set_id)
    if client is None:
        raise MissingError(Said("that set does not exist here"))
    with store.recorded(
        con, trainer_id, scope="clients", kind="set", words=Said("set removed"), now=now
    ):
        store.remove_strength_set(con, trainer_id, set_id)
    return client


def strength_of(con: store.Connection, trainer_id: int, client_id: int) -> Mapping[str, Scale]:
    """Return what is known of each action of a client; where the sides differ, the weaker one: it
    sets the reps.
    """
    return strength_of_sets(all_sets(con, trainer_id, client_id))


def strength_of_sets(sets: Sequence[store.StrengthSet]) -> Mapping[str, Scale]:
    """Return what sets say of each action, as `strength_of` does."""
    sides = [
        current([scale for row in sets if row.side in ("both", side) for scale in row.scales])
        for side in ("left", "right")
    ]
    known = dict(sides[0])
    for action, scale in sides[1].items():
        if action not in known or scale.kappa < known[action].kappa:
            known[action] = scale
    return known


def shown_effort(sets: Sequence[store.StrengthSet]) -> Mapping[str, float]:
    """Return by action the greatest demand over usual strength that any of a client's sets asked:
    it raises the ceilings of a search.
    """
    shown: dict[str, float] = {}
    for row in sets:
        effort = effort_of_reps(row.reps + row.reserve, row.formula)
        for scale in row.scales:
            shown[scale.action] = max(shown.get(scale.action, 0.0), scale.kappa * effort)
    return shown


def equal_reps(first: Curve, other: Curve, known: Mapping[str, Scale], reps: int) -> EqualReps:
    """Return the reps of another exercise that come as close to failure as `reps` of the first, for
    a client.

    Only where the hardest place of both is an action of which a set near enough is logged.
    """
    efforts_at = []
    for found in (first, other):
        demand, usual = asked(found)
        place = hardest(demand, usual)
        if place is None:
            return EqualReps(
                reps=None, words=Said("no action with a strength curve is asked for much")
            )
        scale = known.get(place[0])
        name = Term(place[0].replace("_", " "))
        if scale is None:
            return EqualReps(
                reps=None, words=Said("no set is logged that speaks for {joint}", joint=name)
            )
        if not can_predict(scale, float(demand[place[0]].max())):
            return EqualReps(
                reps=None, words=Said("{joint} is too far from what was logged", joint=name)
            )
        efforts_at.append(place[1] / scale.kappa)
    return equal_effort_reps(efforts_at[0], efforts_at[1], reps)


def equal_reps_scaled(
    first: Curve, other: Curve, scale: Mapping[str, float], reps: int
) -> int | None:
    """Return the reps of another exercise that come as close to failure, by scales that are given;
    None: not said.
    """
    shares = []
    for found in (first, other):
        place = hardest(*asked(found))
        if place is None or place[0] not in scale:
            return None
        shares.append(place[1] / scale[place[0]])
    return equal_effort_reps(shares[0], shares[1], reps).reps


def effort_words(first: Curve, other: Curve) -> Said:
    """Return how hard another exercise is beside the first where no strength is known; nothing
    where that cannot be said.
    """
    ratios = effort_ratios(asked(first), asked(other))
    if not ratios:
        return UNSAID
    said = tuple(
        Said(
            "{joint} {ratio} times",
            joint=Term(action.replace("_", " ")),
            ratio=Times(ratio, digits=2),
        )
        for action, ratio in ratios.items()
        if abs(ratio - 1.0) > SAME_EFFORT
    )
    if not said:
        return Said("at its hardest place as hard of this client’s strength there")
    return Said(
        "at its hardest place {ratios} of this client’s strength there",
        ratios=Listed(said, "and"),
    )


SAME_EFFORT = 0.05


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Effort:
    """The effort of one action along the range: share of the limit (samples,); NaN-free. words: the
    hardest place.

    known: whether a number may be said; strength_nm: the scaled curve (samples,).
    """

    action: str
    joint: str
    share: Array
    strength_nm: Array
    known: bool
    words: Said


def efforts(curve: Curve, known: Mapping[str, Scale]) -> tuple[Effort, ...]:
    """Return the effort of every action that a curve asks and of which a set is logged, the
    greatest first.
    """
    demand, usual = asked(curve)
    found = []
    for joint, actions in ACTIONS_OF.items():
        for action in actions:
            scale = known.get(action)
            if scale is None or action not in demand or float(demand[action].max()) < 5.0:
                continue
            strength = scale.kappa * usual[action]
            share = demand[action] / strength
            most = int(np.argmax(share))
            near = can_predict(scale, float(demand[action].max()))
            at = to_deg(curve.motion.angles[joint][0])[most]
            found.append(
                Effort(
                    action=action,
                    joint=joint,
                    share=share,
                    strength_nm=strength,
                    known=near,
                    words=_words(action, float(share[most]), float(at), scale, near=near),
                )
            )
    return tuple(sorted(found, key=lambda e: -float(e.share.max())))


def _words(action: str, effort: float, at_deg: float, scale: Scale, *, near: bool) -> Said:
    joint, at = Term(action.replace("_", " ")), Angle.of_deg(at_deg)
    if not near:
        return Said("{joint}: too far from the logged set to say an effort", joint=joint)
    if effort >= 1.0:
        return Said("{joint}: above the estimate at {angle}", joint=joint, angle=at)
    words = "{joint}: {share} ± {error} of the limit, sticking point at {angle}; {reps}"
    if scale.at_least:
        words = "{joint}: at most {share} ± {error} of the limit, sticking point at {angle}; {reps}"
    return Said(
        words,
        joint=joint,
        share=Share(effort, bare=True),
        error=Share(max(0.01, effort * scale.error_share)),
        angle=at,
        reps=reps_left_words(effort),
    )
