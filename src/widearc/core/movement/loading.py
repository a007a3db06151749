"""Loads meet the body: every family attaches its loads here, so that a load's law is used once."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import dataclass, field
from functools import partial
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS, Body
from widearc.core.catalogue import Options
from widearc.core.equipment import (
    Band,
    Cable,
    Chain,
    CornerBar,
    FreeMass,
    Lever,
    Load,
    Pendulum,
    SpringLoad,
    Stack,
)
from widearc.core.equipment.band import REFUSED_STRETCH, SAFE_STRETCH
from widearc.core.errors import InputError
from widearc.core.geometry import spread, vec
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.units import G

NO_OPTIONS: Options = MappingProxyType({})


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Trunk:
    """The trunk at one posture: hip m (2, …), lean forward rad (…); places loads on it."""

    body: Body
    hip: Array
    lean: Array

    _axes: tuple[Array, Array] = field(init=False, repr=False)

    def __post_init__(self) -> None:
        """Work out the trunk's axes once: every port and weight is placed along them."""
        sine, cosine = np.sin(self.lean), np.cos(self.lean)
        object.__setattr__(self, "_axes", (vec(sine, cosine), vec(cosine, -sine)))

    @property
    def sine_cosine(self) -> tuple[Array, Array]:
        """Return sine and cosine of the lean."""
        return self._axes[0][0], self._axes[0][1]

    def place(self, along: float | Array, forward: float | Array = 0.0) -> Array:
        """Return the point `along` the trunk from the hip and `forward` of its axis (m)."""
        point = self.hip if _is_none(along) else self.hip + along * self._axes[0]
        return np.asarray(point if _is_none(forward) else point + forward * self._axes[1])

    @property
    def shoulder(self) -> Array:
        """Return the shoulder, m (2, …)."""
        return self.place(self.body.trunk_m)

    def port(self, name: str, belt_m: float = 0.12) -> Array | None:
        """Return a trunk, pelvis or hand port (m), or None where the port is not carried by the
        trunk.

        Hands hang straight under the shoulder. The belt's ring is `belt_m` ahead of the hip, fixed
        in the pelvis; the hip crease 0.05 m.
        """
        port = PORTS[name]
        if port.segment == "trunk":
            return self.place(self.body.trunk_m - port.below, port.ahead)
        if port.segment == "arms":
            return self.shoulder - vec(0.0, np.asarray(self.body.arm_m))[:, None, None]
        if port.segment == "pelvis":
            return self.place(0.0, belt_m if name == "hip-belt" else 0.05)
        return None


def _is_none(distance: float | Array) -> bool:
    return isinstance(distance, float | int) and distance == 0


def band_ends(band: Band, point: Array, other: Array | None) -> tuple[Array, Array]:
    """Return a band's length (m) and the unit vector (2, …) from its port towards its other end.

    `other` is the anchor port's place for a band tied to the body. Sideways spacing counts in the
    length; the sagittal part of the unit vector is shorter by it.
    """
    if band.anchor is not None:
        x, y, z = band.anchor
        end = vec(np.asarray(x, dtype=float), np.asarray(y, dtype=float))
        end = end.reshape(2, *((1, 1) if end.ndim == 1 else end.shape[1:]))
    else:
        if other is None:
            raise InputError("anchor", band.anchor_port, "a port that this exercise has")
        end, z = other, 0.0
    gap = end - point
    length = np.sqrt(gap[0] ** 2 + gap[1] ** 2 + np.square(z))
    return length, gap / np.maximum(length, 1e-9)


PortLoad = FreeMass | Band | Cable | Chain | CornerBar | SpringLoad | Lever
"""Loads that pull at a port of the body."""


def load_force(load: Load, point: Array, other: Array | None, *, lowering: bool) -> Array:
    """Return the force (N, (2, …)) that a load at a port puts on the body there."""
    if isinstance(load, FreeMass):
        return vec(np.zeros((1, 1)), -np.atleast_2d(load.weight_n))
    if isinstance(load, Band):
        return _pull(load, band_ends(load, point, other), lowering=lowering)
    if isinstance(load, Cable):
        _, towards = line_to(load.pulley, point)
        return np.asarray(load.tension_n(lowering=lowering) * towards)
    if isinstance(load, Chain):
        return vec(np.zeros_like(point[1]), -load.weight_n(point[1]))
    if isinstance(load, CornerBar):
        if load.direction == "perpendicular":
            return np.asarray(load.square_to_bar(point)[0])
        return vec(np.zeros((1, 1)), -np.atleast_2d(load.hand_n))
    if isinstance(load, SpringLoad) and load.anchor is not None:
        length, towards = line_to(load.anchor, point)
        return np.asarray(load.tension_n(load.travel(length)) * towards)
    if isinstance(load, Lever):
        return lever_force(load, point)
    raise InputError("loads", load.kind, "a load at a port of the body")


def _pull(band: Band, ends: tuple[Array, Array], *, lowering: bool) -> Array:
    """Return the force (N, (2, …)) of a band from its length and direction as `band_ends` gives
    them.
    """
    length, towards = ends
    return np.asarray(band.tension_n(length, lowering=lowering) * towards)


def line_to(end: tuple[float, float], point: Array) -> tuple[Array, Array]:
    """Return the distance (m) and the unit vector (2, …) from a port to a fixed point of the
    room.
    """
    gap = np.array(end)[:, None, None] - point
    length = np.sqrt(gap[0] ** 2 + gap[1] ** 2)
    return length, gap / np.maximum(length, 1e-9)


def lever_angle(lever: Lever, point: Array) -> Array:
    """Return the angle in the room (rad, anticlockwise from forward) of the arm to a port."""
    x, y = lever.pivot
    return np.asarray(np.arctan2(point[1] - y, point[0] - x))


def lever_force(lever: Lever, point: Array) -> Array:
    """Return the force (N, (2, …)) of a lever's pad: square to the line from pivot to port, against
    the lift.
    """
    arm = point - lever.pivot_m
    far = np.maximum(np.hypot(arm[0], arm[1]), 1e-9)
    angle = lever_angle(lever, point)
    raw = np.unwrap(angle, axis=-1)
    way = lever.way(raw - raw[..., :1])
    with_lift = way * np.stack((-arm[1], arm[0])) / far
    return np.asarray(-lever.moment_nm(lever.turned(angle)) / far * with_lift)


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
    tied: dict[tuple[object, ...], tuple[Array, tuple[Array, Array], list[Array]]] = {}

    def add(point: Array, force: Array) -> None:
        """Count a force (N) at a point (m) in."""
        nonlocal moment, up
        moment = moment + (point[0] - about[0]) * force[1]
        if force[0].any():
            moment = moment - (point[1] - about[1]) * force[0]
        up = up + force[1]

    for index, load in enumerate(loads):
        if isinstance(load, Band) and load.anchor_port:
            continue
        if not isinstance(load, PortLoad):
            raise InputError(
                f"/loads/{index}/kind", load.kind, "a load at a port of the body on this exercise"
            )
        if hanging is not None and is_vertical(load) is not hanging:
            continue
        if isinstance(load, Band):
            # bands between the same port and place pull as one
            where = _where(load)
            if where not in tied:
                point = place(load.port)
                tied[where] = point, band_ends(load, point, None), []
            tied[where][2].append(load.tension_n(tied[where][1][0], lowering=lowering))
            continue
        point = place(load.port)
        add(point, load_force(load, point, None, lowering=lowering))
    for point, (_, towards), tensions in tied.values():
        total = tensions[0]
        for tension in tensions[1:]:
            total = total + tension
        add(point, total * towards)
    return moment, up


def _where(band: Band) -> tuple[object, ...]:
    """Return what is equal of bands that run between the same port and place of the room."""
    assert band.anchor is not None
    return (band.port, *(np.asarray(v, dtype=float).tobytes() for v in band.anchor))


def _ends(
    band: Band, point: Array, known: dict[tuple[object, ...], tuple[Array, Array]]
) -> tuple[Array, Array]:
    """Return `band_ends` of a band to the room; bands between the same port and place run alike."""
    where = _where(band)
    if where not in known:
        known[where] = band_ends(band, point, None)
    return known[where]


def is_vertical(load: Load) -> bool:
    """Return whether a load pulls straight down with a force that does not depend on where its port
    is.
    """
    return isinstance(load, FreeMass) or (isinstance(load, CornerBar) and load.direction == "up")


def only_weights(loads: Iterable[Load]) -> bool:
    """Return whether balance is linear in sin and cos of a lean: no load pulls at a slant from the
    room.
    """
    return all(
        is_vertical(load) or (isinstance(load, Band) and bool(load.anchor_port)) for load in loads
    )


_MANY = ("kg", "empty_kg", "plate_kg", "count", "mark_m", "sense", "start_rad", "anchor", "pivot")
"""What of a load may be an array (set-ups, 1), or a tuple of them."""


def load_shape(loads: Sequence[Load], o: Options = NO_OPTIONS) -> tuple[int, ...]:
    """Return the common shape (set-ups, 1) of all the loads' amounts and anchors, and of options
    that differ.
    """
    shapes = {v.shape for v in o.values() if isinstance(v, np.ndarray)}
    for load in loads:
        for name in _MANY:
            value = getattr(load, name, None)
            if isinstance(value, np.ndarray):
                shapes.add(value.shape)
            elif isinstance(value, tuple):
                # a tuple of numbers is one point for all set-ups
                shapes |= {v.shape for v in value if isinstance(v, np.ndarray)}
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
    ends: dict[
        tuple[object, ...], tuple[Array, Array]
    ] = {}  # bands between the same two places run alike
    for index, load in enumerate(loads):
        if load.kind in skip or index in handled:
            continue
        if not isinstance(load, PortLoad):
            raise InputError(
                f"/loads/{index}/kind", load.kind, "a load at a port of the body on this exercise"
            )
        if load.port not in points:
            points[load.port] = spread(place(load.port), (2, *motion.shape))
        point, segment = points[load.port], pad if load.port == "pad" else _segment(load.port)
        if isinstance(load, Band) and load.anchor_port:
            other, between = place(load.anchor_port), (load.port, load.anchor_port)
            if between not in ends:
                ends[between] = band_ends(load, point, other)
            force = _pull(load, ends[between], lowering=lowering)
            # a loop round both thighs is as long as these are apart: the family knows how far
            if load.anchor_port != load.port:
                note_band(motion, index, load, ends[between][0])
            motion.add_force(_segment(load.anchor_port), other, -force, f"load {index}")
        elif isinstance(load, Band):
            there = _ends(load, point, ends)
            force = _pull(load, there, lowering=lowering)
            note_band(motion, index, load, there[0])
        else:
            force = load_force(load, point, None, lowering=lowering)
            _book_energy(motion, index, load, point, segment)
        motion.add_force(segment, point, force, f"load {index}")


def _segment(port: str) -> str:
    segment = PORTS[port].segment
    return "trunk" if segment == "pad" else segment


def _book_energy(motion: Motion, index: int, load: PortLoad, point: Array, segment: str) -> None:
    """Book what a load stores, its length where it has one, and the mass that a fast lift must
    speed up.
    """
    if isinstance(load, Band):
        note_band(motion, index, load, band_ends(load, point, None)[0])
    elif isinstance(load, Cable):
        length, towards = line_to(load.pulley, point)
        motion.load_lengths[index] = motion.full(length)
        motion.load_gravity.append(partial(load.energy_j, length))
        if load.friction:
            motion.friction_work_j = motion.friction_work_j + motion.full(load.friction_j(length))
        # the stack moves `ratio` times as far as the port
        kg = np.asarray(load.kg) * load.ratio**2
        motion.inertias.append(
            Inertia(segment=segment, point=point, kg=kg, towards=-towards, travel=length)
        )
    elif isinstance(load, Chain):
        motion.load_gravity.append(partial(load.energy_j, point[1]))
        motion.inertias.append(
            Inertia(segment=segment, point=point, kg=load.weight_n(point[1]) / G)
        )
    elif isinstance(load, SpringLoad):
        note_spring(motion, index, load, line_to(load.anchor or (0.0, 0.0), point)[0])
    elif isinstance(load, Lever):
        _book_lever(motion, index, load, point, segment)
    elif isinstance(load, CornerBar):
        height = motion.full(point[1])
        effective = load.inertia_kgm2 / load.hand_m**2
        up = vec(np.zeros((1, 1)), np.ones((1, 1)))
        motion.inertias.append(
            Inertia(segment=segment, point=point, kg=effective, towards=up, travel=height)
        )
        if load.direction == "perpendicular":
            motion.load_gravity.append(partial(np.asarray, load.square_to_bar(point)[1]))
        else:
            motion.load_gravity.append(partial(_height_j, load.hand_n / G, point))
    else:
        motion.load_gravity.append(partial(_height_j, load.kg, point))
        motion.inertias.append(Inertia(segment=segment, point=point, kg=np.asarray(load.kg)))


def _height_j(kg: float | Array, point: Array) -> Array:
    return np.asarray(np.asarray(kg) * G * point[1])


def note_pull(motion: Motion, index: int, load: Band | Cable, point: Array, segment: str) -> None:
    """Book length, energy and warnings of a band or cable that pulls on a moving part of a machine
    at `point`.
    """
    if isinstance(load, Band) and load.anchor_port:
        raise InputError(
            f"/loads/{index}/anchor", load.anchor_port, "a point of the room on a moving part"
        )
    _book_energy(motion, index, load, point, segment)


def _book_lever(motion: Motion, index: int, lever: Lever, point: Array, segment: str) -> None:
    """Book a lever's height and inertia; note where the user's arm is not as long as it was said to
    be.
    """
    turn = lever.turned(lever_angle(lever, point))
    motion.load_gravity.append(partial(lever.energy_j, turn))
    arm = point - lever.pivot_m
    far = np.hypot(arm[0], arm[1])
    way = lever.way(turn)
    along = way * np.stack((-arm[1], arm[0])) / np.maximum(far, 1e-9)
    kg = lever.inertia_kgm2 / np.maximum(far, 1e-3) ** 2
    motion.inertias.append(
        Inertia(segment=segment, point=point, kg=kg, towards=along, travel=turn * np.mean(far))
    )
    slide = np.ptp(motion.full(far), axis=1)
    motion.marks[f"slide_{index}_m"] = spread(slide[:, None], motion.shape)
    motion.notice(
        "pad-slides",
        "the pad slides along the body: the machine's pivot is off the joint",
        slide > 0.02,
    )
    if lever.user_arm_m is not None:
        apart = np.abs(np.mean(motion.full(far), axis=1) - lever.user_arm_m)
        text = (
            "the lever meets the body at another distance than user_arm_m: the body's own place is "
            "used"
        )
        motion.notice("lever-arm-differs", text, apart > 0.05)


def note_spring(motion: Motion, index: int, load: SpringLoad, length: Array) -> None:
    """Add a spring's travel and energy to the motion; refuse what runs past its stop."""
    travel = load.travel(length)
    motion.load_lengths[index] = motion.full(length)
    motion.load_elastic.append(partial(load.energy_j, travel))
    motion.fail(
        motion.full(load.past_stop(travel)) > 0,
        f"the spring passes its stop at {load.spring.travel_m:.2f} m of travel",
    )
    motion.notice(
        "spring-slack",
        "spring not yet at its first mark in part of the range",
        np.any(motion.full(travel) < -1e-6, axis=1),
    )


def note_band(motion: Motion, index: int, band: Band, length: Array) -> None:
    """Add a band's length, energy and stretch warnings to the motion."""
    motion.load_lengths[index] = motion.full(length)
    motion.load_elastic.append(partial(band.energy_j, length))
    used = np.broadcast_to(np.asarray(band.count) > 0, (motion.shape[0], 1))[:, 0]
    stretch = motion.full(band.stretch(length))
    # where balance is lost there is no length: `fmax` and `fmin` pass over it
    least, most = np.fmin.reduce(stretch, axis=1), np.fmax.reduce(stretch, axis=1)
    refused = used & (most > REFUSED_STRETCH)
    if refused.any():
        motion.fail(
            refused[:, None] & (stretch > REFUSED_STRETCH),
            f"the band would be stretched past {REFUSED_STRETCH:g} times its rest length; "
            "use a longer band or less range",
        )
    motion.notice(
        "band-overstretch",
        f"band stretched past {SAFE_STRETCH:g} times its rest length: use a longer band",
        used & (most > SAFE_STRETCH),
    )
    measured = band.law.measured_to_m * band.fold
    motion.notice(
        "band-outside-readings",
        (
            f"band pulled longer than it was measured ({100 * measured:.0f} cm): its pull there "
            "is a "
            "guess"
        ),
        used & (most * band.law.rest_m * band.fold > measured + 1e-9),
    )
    idle = used & ~(most > 1.0)
    motion.notice("band-slack", "band slack in part of the range", used & (least <= 1.0) & ~idle)
    motion.notice("band-idle", "band slack all the way: it adds nothing", idle)


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
    motion.turning.append(
        (segment, way, np.asarray(load.kg) * (load.ratio * load.radius(machine) * gear) ** 2)
    )


def add_pendulum(
    motion: Motion, index: int, load: Pendulum, segment: str, joint: Array, along: Array
) -> None:
    """Hang a pendulum's weight in line with a limb: at arm_m from the joint (m) the way of `along`
    (2, …).
    """
    point = spread(joint + load.arm_m * along, (2, *motion.shape))
    weight = vec(np.zeros((1, 1)), -np.atleast_2d(np.asarray(load.kg) * G))
    motion.add_force(segment, point, weight, f"load {index}")
    motion.load_gravity.append(partial(_height_j, load.kg, point))
    motion.inertias.append(Inertia(segment=segment, point=point, kg=np.asarray(load.kg)))
    motion.marks["period_s"] = np.full(motion.shape, load.period_s)
    motion.notice(
        "pendulum-swings",
        f"a pendulum: its free swing takes {load.period_s:.1f} s and carries the lift; go slower",
    )


def add_upper_body(motion: Motion, trunk: Trunk, *, one_piece: bool) -> None:
    """Add head, arms and trunk: in one piece, or with the arms hanging from the shoulder."""
    from widearc.core.body import segments as s

    body = trunk.body
    if one_piece:
        com = trunk.place(s.COM_ONE_PIECE * body.trunk_m)
        motion.add_segment("trunk", s.M_ONE_PIECE * body.mass_kg, com)
        return
    motion.add_segment("trunk", s.M_TRUNK * body.mass_kg, trunk.place(s.COM_TRUNK * body.trunk_m))
    hang = np.asarray(ARM_COM * body.arm_m)
    arms = trunk.shoulder - vec(0.0, hang)[:, None, None]
    motion.add_segment("arms", 2 * s.M_ARM * body.mass_kg, arms)


ARM_COM = 0.53  # of the straight arm from the shoulder; Winter table 4.1 (total arm), from memory


def upper_body_terms(body: Body, *, one_piece: bool) -> list[tuple[float, float]]:
    """Return (mass kg, distance along the trunk m) of what leans with the trunk."""
    from widearc.core.body import segments as s

    if one_piece:
        return [(s.M_ONE_PIECE * body.mass_kg, s.COM_ONE_PIECE * body.trunk_m)]
    return [
        (s.M_TRUNK * body.mass_kg, s.COM_TRUNK * body.trunk_m),
        (2 * s.M_ARM * body.mass_kg, body.trunk_m),
    ]
