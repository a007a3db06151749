"""One set-up cut out of the curves of many: what was computed together is not computed again."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import PostureError
from widearc.core.movement import Motion, Setup
from widearc.core.statics.demand import Curve, others_of


def row_of(curve: Curve, index: int) -> Curve:
    """Return the curve of one set-up of many, its arrays (…, 1, samples); raises PostureError where that one fails.

    Its contacts stand as computed: it has no closure, so a fast lift is asked of its `setup` afresh.
    """
    motion = curve.motion
    if index in motion.failed:
        raise PostureError(*motion.failed[index])

    cut = partial(_cut, index=index)
    cut_all = partial(_cut_all, index=index)
    work = motion.friction_work_j
    alone = Motion(
        position=motion.position, shape=(1, motion.shape[1]), legs=motion.legs, plane_cos=cut(motion.plane_cos),
        points=cut_all(motion.points), angles=cut_all(motion.angles), marks=cut_all(motion.marks),
        segments=[replace(s, com=cut(s.com)) for s in motion.segments],
        forces=[replace(f, point=cut(f.point), force=cut(f.force)) for f in motion.forces],
        couples=[(segment, cut(moment), source) for segment, moment, source in motion.couples],
        load_lengths={k: cut(length) for k, length in motion.load_lengths.items()},
        load_gravity=[partial(_cut_of, f, cut) for f in motion.load_gravity],
        load_elastic=[partial(_cut_of, f, cut) for f in motion.load_elastic],
        friction_work_j=cut(work) if isinstance(work, np.ndarray) else work,
        path_travel=None if motion.path_travel is None else cut(motion.path_travel),
        path_force=None if motion.path_force is None else cut(motion.path_force),
        complete=motion.complete, assumptions=list(motion.assumptions),
        notices=[replace(n, where=n.where[index : index + 1]) for n in motion.notices if n.where[index]],
    )  # fmt: skip
    setup = curve.setup.part(index, index + 1) if curve.setup.rows > 1 else curve.setup
    return Curve(
        setup=_without_unused(setup, alone), motion=alone,
        demand_nm=cut_all(curve.demand_nm), other_nm=others_of(alone),
        lowering_nm=None if curve.lowering_nm is None else cut_all(curve.lowering_nm),
    )  # fmt: skip


def _without_unused(setup: Setup, motion: Motion) -> Setup:
    """Return the set-up without bands and springs that only others of the many have; the motion loses their forces."""
    kept = [i for i, load in enumerate(setup.loads) if np.any(np.asarray(getattr(load, "count", 1)) != 0)]
    if len(kept) == len(setup.loads):
        return setup
    new = {f"load {old}": f"load {number}" for number, old in enumerate(kept)}
    gone = {f"load {i}" for i in range(len(setup.loads))} - new.keys()
    motion.forces = [replace(f, source=new.get(f.source, f.source)) for f in motion.forces if f.source not in gone]
    motion.load_lengths = {number: motion.load_lengths[old] for number, old in enumerate(kept)
                           if old in motion.load_lengths}  # fmt: skip
    return replace(setup, loads=tuple(setup.loads[i] for i in kept))


def _cut(array: Array, *, index: int) -> Array:
    return array[..., index : index + 1, :] if array.shape[-2] > 1 else array


def _cut_all(named: dict[str, Array], *, index: int) -> dict[str, Array]:
    return {name: _cut(array, index=index) for name, array in named.items()}


def _cut_of(whole: Callable[[], Array], cut: Callable[[Array], Array]) -> Array:
    return cut(np.asarray(whole()))
