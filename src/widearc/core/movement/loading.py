"""Loads meet the body: every family attaches its loads here, so that a load's law is used once."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Sequence
from functools import partial
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS
from widearc.core.equipment import AtPort, Line, Load, Pendulum, Stack, Stored, height_j
from widearc.core.equipment.loads.load import Moving
from widearc.core.errors import InputError
from widearc.core.exercises import Options
from widearc.core.geometry import spread, vec
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.units import G
from widearc.core.words import Duration, Said

NO_OPTIONS: Options = MappingProxyType({})
Ends = dict[tuple[object, ...], tuple[Array, Array]]
"""Length (m) and unit vector of lines by what they run between: those alike run alike."""


def _at_port(index: int, load: Load) -> AtPort:
    if not isinstance(load, AtPort):
        allowed = Said("a load at a port of the body on this exercise")
        raise InputError(f"/loads/{index}/kind", load.kind, allowed)
    return load


def pulls(
    loads: Sequence[Load],
    place: Callable[[str], Array],
    about: Array,
    *,
    lowering: bool,
    hanging: bool | None = None,
) -> tuple[Array, Array]:
    """Return moment about a point (N·m anticlockwise) and upward force (N) of the loads at ports of
    the body.

    `place` gives a port's point (m); pulls between two places of the body cancel. hanging: only of
    the loads that hang straight down, or only of the others. Raises InputError for a load that has
    no port.
    """
    moment: Array = np.zeros((1, 1))
    up: Array = np.zeros((1, 1))
    # lines between the same port and place pull as one
    tied: dict[tuple[object, ...], tuple[Array, tuple[Array, Array], list[Array]]] = {}

    def add(point: Array, force: Array) -> None:
        """Count a force (N) at a point (m) in."""
        nonlocal moment, up
        moment = moment + (point[0] - about[0]) * force[1]
        if force[0].any():
            moment = moment - (point[1] - about[1]) * force[0]
        up = up + force[1]

    for index, item in enumerate(loads):
        if item.other_port or (hanging is not None and item.hangs is not hanging):
            continue
        load = _at_port(index, item)
        if not isinstance(load, Line):
            point = place(load.port)
            add(point, load.force(point, lowering=lowering))
            continue
        key = load.tied()
        if key not in tied:
            point = place(load.port)
            tied[key] = point, load.ends(point, None), []
        tied[key][2].append(load.pull_n(tied[key][1][0], lowering=lowering))
    for point, (_, towards), tensions in tied.values():
        add(point, sum(tensions[1:], tensions[0]) * towards)
    return moment, up


def only_weights(loads: Iterable[Load]) -> bool:
    """Return whether balance is linear in sin and cos of a lean: no load pulls at a slant from the
    room.
    """
    return all(load.hangs or load.other_port for load in loads)


def load_shape(loads: Sequence[Load], o: Options = NO_OPTIONS) -> tuple[int, ...]:
    """Return the common shape (set-ups, 1) of all the loads' amounts and anchors, and of options
    that differ.
    """
    shapes = {v.shape for v in o.values() if isinstance(v, np.ndarray)}
    for load in loads:
        shapes |= load.many()
    shapes.discard((1, 1))
    return next(iter(shapes)) if len(shapes) == 1 else np.broadcast_shapes((1, 1), *shapes)


def attach(
    motion: Motion,
    loads: Sequence[Load],
    place: Callable[[str], Array],
    *,
    lowering: bool,
    skip: tuple[str, ...] = (),
    pad: str = "trunk",
    handled: Collection[int] = (),
) -> None:
    """Add every load at a port to the motion: force, stored energy, lengths and warnings.

    `place` gives a port's point (m, (2, set-ups, samples)) by name. Loads of the kinds in `skip`,
    or of the numbers in `handled`, are the family's own business. pad: the segment that a machine's
    pad meets. Raises InputError for a load that has no port.
    """
    points: dict[str, Array] = {}
    ends: Ends = {}
    for index, item in enumerate(loads):
        if item.kind in skip or index in handled:
            continue
        load = _at_port(index, item)
        if load.port not in points:
            points[load.port] = spread(place(load.port), (2, *motion.shape))
        point, segment = points[load.port], pad if load.port == "pad" else _segment(load.port)
        if isinstance(load, Line):
            force = _along(motion, index, load, point, place, ends, segment, lowering=lowering)
        else:
            force = load.force(point, lowering=lowering)
            book(motion, index, load.stores(point), point, segment)
        motion.add_force(segment, point, force, f"load {index}")


def _along(
    motion: Motion,
    index: int,
    load: Line,
    point: Array,
    place: Callable[[str], Array],
    ends: Ends,
    segment: str,
    *,
    lowering: bool,
) -> Array:
    """Book a line and its pull at a far end on the body; return its force (N) at its port."""
    far = place(load.other_port) if load.other_port else None
    key = load.tied()
    if key not in ends:
        ends[key] = load.ends(point, far)
    length, towards = ends[key]
    force = np.asarray(load.pull_n(length, lowering=lowering) * towards)
    # a loop round both thighs is as long as these are apart: the family knows how far
    if load.other_port != load.port:
        book(motion, index, load.stores_along(length, towards), point, segment)
    if load.other_port and far is not None:
        motion.add_force(_segment(load.other_port), far, -force, f"load {index}")
    return force


def _segment(port: str) -> str:
    segment = PORTS[port].segment
    return "trunk" if segment == "pad" else segment


def _inertia(motion: Motion, moving: Moving, point: Array, segment: str) -> Inertia:
    travel = None if moving.travel is None else motion.full(moving.travel)
    return Inertia(
        segment=segment, point=point, kg=moving.kg, towards=moving.towards, travel=travel
    )


def book(motion: Motion, index: int, stored: Stored, point: Array, segment: str) -> None:
    """Book what a load stores, its length, the mass that a fast lift must speed up, and what must
    be known of it.
    """
    if stored.length is not None:
        motion.load_lengths[index] = motion.full(stored.length)
    if stored.gravity_j is not None:
        motion.load_gravity.append(stored.gravity_j)
    if stored.elastic_j is not None:
        motion.load_elastic.append(stored.elastic_j)
    if stored.friction_j is not None:
        motion.friction_work_j = motion.friction_work_j + motion.full(stored.friction_j)
    if stored.moving is not None:
        motion.inertias.append(_inertia(motion, stored.moving, point, segment))
    for name, value in stored.marks.items():
        motion.marks[f"{name}_{index}_m"] = spread(value, motion.shape)
    for where, text in stored.fails:
        motion.fail(motion.full(np.asarray(where, dtype=float)) > 0, text)
    for note in stored.notices:
        motion.notice(note.code, note.text, note.where)


def book_pull(motion: Motion, index: int, load: Line, point: Array, segment: str) -> None:
    """Book a band or cable that pulls on a moving part of a machine at `point`."""
    if load.other_port:
        allowed = Said("a point of the room on a moving part")
        raise InputError(f"/loads/{index}/anchor", load.other_port, allowed)
    book(motion, index, load.stores(point), point, segment)


def add_couple_of_stack(
    motion: Motion,
    load: Stack,
    segment: str,
    angle: Array,
    machine: Array,
    way: float,
    *,
    lowering: bool,
    gear: Array | float = 1.0,
) -> None:
    """Add a cam stack as a moment on `segment`, against a lift that turns it by `way` (+1
    anticlockwise).

    angle: the joint's (rad); machine: the angle by which the cam's table is read (rad); gear: the
    machine's turn per turn of the joint.
    """
    moment = load.moment_nm(machine, lowering=lowering) * gear
    motion.couples.append((segment, motion.full(-way * moment), "load stack"))
    weight = load.moment_nm(machine) * gear / (1.0 + load.friction)
    steps = 0.5 * (weight[..., 1:] + weight[..., :-1]) * np.abs(np.diff(angle, axis=-1))
    risen = np.concatenate((np.zeros((*steps.shape[:-1], 1)), np.cumsum(steps, axis=-1)), axis=-1)
    motion.load_gravity.append(partial(motion.full, risen))
    motion.friction_work_j = motion.friction_work_j + motion.full(risen * load.friction)
    inertia = np.asarray(load.kg) * (load.ratio * load.radius(machine) * gear) ** 2
    motion.turning.append((segment, way, inertia))


def add_pendulum(
    motion: Motion, index: int, load: Pendulum, segment: str, joint: Array, along: Array
) -> None:
    """Hang a pendulum's weight in line with a limb: at arm_m from the joint (m) the way of `along`
    (2, …).
    """
    point = spread(joint + load.arm_m * along, (2, *motion.shape))
    weight = vec(np.zeros((1, 1)), -np.atleast_2d(np.asarray(load.kg) * G))
    motion.add_force(segment, point, weight, f"load {index}")
    motion.load_gravity.append(partial(height_j, load.kg, point))
    motion.inertias.append(Inertia(segment=segment, point=point, kg=np.asarray(load.kg)))
    motion.marks["period_s"] = np.full(motion.shape, load.period_s)
    motion.notice(
        "pendulum-swings",
        Said(
            "a pendulum: its free swing takes {time} and carries the lift; go slower",
            time=Duration(load.period_s),
        ),
    )
