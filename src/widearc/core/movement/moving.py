"""A set-up's motion: what only the movement tells, limits applied, the family's solver called."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array
from widearc.core.equipment import AtPort, Cable, FreeMass, Load
from widearc.core.errors import PostureError
from widearc.core.movement.families import closure_of
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion
from widearc.core.movement.range import (
    _cut_knee,
    _note_cuts,
    _shorter_for_hip,
    note_low_back,
    refuse_broken_knees,
)
from widearc.core.movement.setup import LENGTHENED_ENDS, Setup, _load_part
from widearc.core.words import Angle, Said

MOST_TRIALS = 12  # to find where a spring is hooked: each trial brings it some ten times closer
HOOKED_M = 1e-6


def move(setup: Setup, *, lowering: bool = False, strict: bool = True) -> Motion:
    """Return the motion of a set-up, its range cut where the client's joints end.

    lowering: with the loads of the way down (bands give back less, friction helps). strict: a
    set-up that cannot be reached or balanced raises PostureError; otherwise it is listed in
    `failed` and its arrays hold NaN or are meaningless.
    """
    options = dict(setup.resolved)
    cut_words = _cut_knee(setup, options)
    lift = Lift(
        exercise=setup.exercise,
        body=setup.body,
        limits=setup.limits,
        o=options,
        loads=setup.loads,
        position=np.linspace(0.0, 1.0, setup.samples)[None, :],
        lowering=lowering,
    )
    closure, loads = closure_of(setup.exercise), _referred(setup, replace(lift, lowering=False))

    def solved(options: Mapping[str, Any], loads: Sequence[Load]) -> Motion:
        """Return the family's motion for options (radians, metres) and loads."""
        return closure(lift.with_(o=options, loads=loads))

    def between(rows: NDArray[np.intp], ends: Mapping[str, Array]) -> Motion:
        """Return the motion of some set-ups between other ends of their range."""
        cut = {
            n: v[rows] if isinstance(v, np.ndarray) and len(v) > 1 else v
            for n, v in options.items()
        }
        # what none of them has pulls nothing
        own = (_load_part(load, setup.rows, rows) for load in loads)
        there = [load for load in own if np.any(getattr(load, "count", 1))]
        return closure(lift.of_rows(rows).with_(o={**cut, **ends}, loads=there))

    key = next((k for k in LENGTHENED_ENDS if k in options), "")
    for _ in range(4):
        motion = solved(options, loads)
        shorter = _shorter_for_hip(motion, setup, key, between)
        if shorter is None:
            break
        options[key] = shorter
        cut_words["hip"] = Said(
            "hip limit {angle}", angle=Angle.of_deg(setup.limits.hip_flexion_deg)
        )
    _note_cuts(motion, cut_words, setup)
    note_low_back(motion, setup)
    refuse_broken_knees(motion)
    if strict and motion.failed:
        raise PostureError(*motion.failed[min(motion.failed)])
    return motion


def _referred(setup: Setup, lift: Lift) -> Sequence[Load]:
    """Return the loads with what only the movement tells: a spring's first mark, which way a lever
    turns.

    Both are read off the movement without these loads, so that balance can be solved with them.
    """
    unread = [load for load in setup.loads if isinstance(load, AtPort) and load.unread()]
    if not unread:
        return setup.loads
    others = [load for load in setup.loads if load not in unread]
    slides = setup.exercise.law.pad_slides

    def moved(loads: Sequence[Load]) -> list[Array]:
        """Return the points (m) of the unread loads' ports while lifting with these in their
        place.
        """
        motion = closure_of(setup.exercise)(lift.with_(loads=loads))
        return [
            next(motion.full(f.point) for f in motion.forces if f.source == f"load {index}")
            for index in range(len(others), len(loads))
        ]

    # weightless; where weight does not act, a cable without weight
    probes = [
        Cable(kg=0.0, port=load.port, pulley=(0.0, 0.0))
        if slides
        else FreeMass(kg=0.0, port=load.port)
        for load in unread
    ]
    points = moved([*others, *probes])
    known = [load.read_off(point) for load, point in zip(unread, points, strict=True)]
    for _ in range(0 if setup.exercise.law.still and not slides else MOST_TRIALS):
        # a spring hooked at the shortest place moves that place
        points = moved([*others, *known])
        again = [load.read_again(point) for load, point in zip(known, points, strict=True)]
        known = [load for load, _ in again]
        if max(apart for _, apart in again) < HOOKED_M:
            break
    # in their own order: sources are counted by it
    found = iter(known)
    return [next(found) if load in unread else load for load in setup.loads]
