"""One set-up cut out of the curves of many: what was computed together is not computed again."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import PostureError
from widearc.core.movement import Force, Motion, Segment, Setup
from widearc.core.statics.demand import Curve, others_of


def row_of(
    curve: Curve, index: int, setup: Setup | None = None, loads: Sequence[int] | None = None
) -> Curve:
    """Return the curve of one set-up of many, its arrays (…, 1, samples); raises PostureError where
    that one fails.

    setup: its own, if it is not simply a part of the many; loads: the numbers that its loads have
    there. Its contacts stand as computed: it has no closure, so a fast lift is asked of its `setup`
    afresh.
    """
    motion = curve.motion
    if index in motion.failed:
        raise PostureError(*motion.failed[index])

    cut = partial(_cut, index=index)
    cut_all = partial(_cut_all, index=index)
    work = motion.friction_work_j
    alone = Motion(
        position=motion.position,
        shape=(1, motion.shape[1]),
        legs=motion.legs,
        plane_cos=cut(motion.plane_cos),
        points=cut_all(motion.points),
        angles=cut_all(motion.angles),
        marks=cut_all(motion.marks),
        segments=[Segment(name=s.name, mass_kg=s.mass_kg, com=cut(s.com)) for s in motion.segments],
        forces=[
            Force(
                segment=f.segment,
                point=cut(f.point),
                force=cut(f.force),
                source=f.source,
                works=f.works,
                upright=f.upright,
            )
            for f in motion.forces
        ],
        couples=[(segment, cut(moment), source) for segment, moment, source in motion.couples],
        load_lengths={k: cut(length) for k, length in motion.load_lengths.items()},
        load_gravity=[partial(_cut_of, f, cut) for f in motion.load_gravity],
        load_elastic=[partial(_cut_of, f, cut) for f in motion.load_elastic],
        friction_work_j=cut(work) if isinstance(work, np.ndarray) else work,
        path_travel=None if motion.path_travel is None else cut(motion.path_travel),
        path_force=None if motion.path_force is None else cut(motion.path_force),
        complete=motion.complete,
        assumptions=list(motion.assumptions),
        notices=[
            replace(n, where=n.where[index : index + 1]) for n in motion.notices if n.where[index]
        ],
    )
    own = setup or (curve.setup.part(index, index + 1) if curve.setup.rows > 1 else curve.setup)
    numbers = range(len(own.loads)) if loads is None else loads
    return Curve(
        setup=_without_unused(own, numbers, alone),
        motion=alone,
        demand_nm=cut_all(curve.demand_nm),
        other_nm=others_of(alone),
        lowering_nm=None if curve.lowering_nm is None else cut_all(curve.lowering_nm),
    )


def _without_unused(setup: Setup, numbers: Sequence[int], motion: Motion) -> Setup:
    """Return the set-up without loads that only others of the many have; the motion loses their
    forces.

    numbers: those that the set-up's loads have in the motion.
    """
    kept = [i for i, load in enumerate(setup.loads) if np.any(getattr(load, "count", 1))]
    new = {f"load {numbers[i]}": f"load {number}" for number, i in enumerate(kept)}
    motion.forces = [
        f if new.get(f.source, f.source) == f.source else replace(f, source=new[f.source])
        for f in motion.forces
        if f.source in new or not _numbered(f)
    ]
    lengths = motion.load_lengths
    motion.load_lengths = {
        n: lengths[numbers[i]] for n, i in enumerate(kept) if numbers[i] in lengths
    }
    return (
        setup
        if len(kept) == len(setup.loads)
        else replace(setup, loads=tuple(setup.loads[i] for i in kept))
    )


def _numbered(force: Force) -> bool:
    """Return whether a force is a numbered load's, not a weight of the body or a contact."""
    return force.source.removeprefix("load ").isdigit()


def _cut(array: Array, *, index: int) -> Array:
    return array[..., index : index + 1, :] if array.shape[-2] > 1 else array


def _cut_all(named: dict[str, Array], *, index: int) -> dict[str, Array]:
    return {name: _cut(array, index=index) for name, array in named.items()}


def _cut_of(whole: Callable[[], Array], cut: Callable[[Array], Array]) -> Array:
    return cut(np.asarray(whole()))
