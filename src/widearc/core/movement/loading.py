"""Loads meet the body: every family attaches its loads here, so that a load's law is used once."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS, Body
from widearc.core.equipment import Band, Cable, Chain, CornerBar, FreeMass, Load
from widearc.core.equipment.band import REFUSED_STRETCH, SAFE_STRETCH
from widearc.core.errors import InputError
from widearc.core.geometry import vec
from widearc.core.movement.motion import Motion
from widearc.core.units import G


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

    def place(self, along: float, forward: float | Array = 0.0) -> Array:
        """Return the point `along` the trunk from the hip and `forward` of its axis (m)."""
        point = self.hip + along * self._axes[0] if along else self.hip
        return point + forward * self._axes[1] if np.any(forward) else np.asarray(point)

    @property
    def shoulder(self) -> Array:
        """Return the shoulder, m (2, …)."""
        return self.place(self.body.trunk_m)

    def port(self, name: str, belt_m: float = 0.12) -> Array | None:
        """Return a trunk, pelvis or hand port (m), or None where the port is not carried by the trunk.

        Hands hang straight under the shoulder. The belt's ring is `belt_m` ahead of the hip, fixed in
        the pelvis; the hip crease 0.05 m.
        """
        port = PORTS[name]
        if port.segment == "trunk":
            return self.place(self.body.trunk_m - port.below, port.ahead)
        if port.segment == "arms":
            return self.shoulder - vec(0.0, np.asarray(self.body.arm_m))[:, None, None]
        if port.segment == "pelvis":
            return self.place(0.0, belt_m if name == "hip-belt" else 0.05)
        return None


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


PortLoad = FreeMass | Band | Cable | Chain | CornerBar
"""Loads that pull at a port of the body."""


def load_force(load: Load, point: Array, other: Array | None, *, lowering: bool) -> Array:
    """Return the force (N, (2, …)) that a load at a port puts on the body there."""
    if isinstance(load, FreeMass):
        return vec(np.zeros((1, 1)), -np.atleast_2d(load.weight_n))
    if isinstance(load, Band):
        length, towards = band_ends(load, point, other)
        return np.asarray(load.tension_n(length, lowering=lowering) * towards)
    if isinstance(load, Cable):
        _, towards = cable_ends(load, point)
        return np.asarray(load.tension_n(lowering=lowering) * towards)
    if isinstance(load, Chain):
        return vec(np.zeros_like(point[1]), -load.weight_n(point[1]))
    if isinstance(load, CornerBar):
        return vec(np.zeros((1, 1)), -np.atleast_2d(load.hand_n))
    raise InputError("loads", load.kind, "a load at a port of the body")


def cable_ends(cable: Cable, point: Array) -> tuple[Array, Array]:
    """Return a cable's length out (m) and the unit vector (2, …) from its port towards the pulley."""
    gap = np.array(cable.pulley)[:, None, None] - point
    length = np.sqrt(gap[0] ** 2 + gap[1] ** 2)
    return length, gap / np.maximum(length, 1e-9)


def is_vertical(load: Load) -> bool:
    """Return whether a load pulls straight down with a force that does not depend on where its port is."""
    return isinstance(load, FreeMass | CornerBar)


def load_shape(loads: Sequence[Load]) -> tuple[int, ...]:
    """Return the common shape (set-ups, 1) of all the loads' amounts and anchors."""
    sizes: list[tuple[int, ...]] = [(1, 1)]
    for load in loads:
        for name in ("kg", "empty_kg", "plate_kg", "count"):
            sizes.append(np.shape(getattr(load, name, 1)))
        sizes += [np.shape(np.atleast_2d(p)) for p in (getattr(load, "anchor", None) or ())]
    return np.broadcast_shapes(*sizes)


def attach(
    motion: Motion, loads: Sequence[Load], place: Callable[[str], Array], *, lowering: bool, skip: str = ""
) -> None:
    """Add every load at a port to the motion: force, stored energy, lengths and warnings.

    `place` gives a port's point (m, (2, set-ups, samples)) by name. Loads of kind `skip` are the
    family's own business.
    """
    for index, load in enumerate(loads):
        if load.kind == skip:
            continue
        if not isinstance(load, PortLoad):
            raise InputError(f"/loads/{index}/kind", load.kind, "a load at a port of the body on this exercise")
        point = place(load.port)
        other = place(load.anchor_port) if isinstance(load, Band) and load.anchor_port else None
        force = load_force(load, point, other, lowering=lowering)
        _book_energy(motion, index, load, point, other)
        if other is not None and isinstance(load, Band) and load.anchor_port:
            motion.add_force(_segment(load.anchor_port), other, -force, f"load {index}")
        motion.add_force(_segment(load.port), point, force, f"load {index}")


def _segment(port: str) -> str:
    segment = PORTS[port].segment
    return "trunk" if segment == "pelvis" else segment


def _book_energy(motion: Motion, index: int, load: PortLoad, point: Array, other: Array | None) -> None:
    """Book what a load stores, and a band's or cable's length."""
    if isinstance(load, Band):
        note_band(motion, index, load, band_ends(load, point, other)[0])
    elif isinstance(load, Cable):
        length = cable_ends(load, point)[0]
        motion.load_lengths[index] = motion.full(length)
        motion.load_gravity.append(partial(load.energy_j, length))
        if load.friction:
            motion.friction_work_j = motion.friction_work_j + motion.full(load.friction_j(length))
    elif isinstance(load, Chain):
        motion.load_gravity.append(partial(load.energy_j, point[1]))
    else:
        kg = load.kg if isinstance(load, FreeMass) else load.hand_n / G
        motion.load_gravity.append(partial(_height_j, kg, point))


def _height_j(kg: float | Array, point: Array) -> Array:
    return np.asarray(np.asarray(kg) * G * point[1])


def note_band(motion: Motion, index: int, band: Band, length: Array) -> None:
    """Add a band's length, energy and stretch warnings to the motion."""
    motion.load_lengths[index] = motion.full(length)
    motion.load_elastic.append(partial(band.energy_j, length))
    used = np.broadcast_to(np.asarray(band.count) > 0, motion.shape)
    stretch = motion.full(band.stretch(length))
    motion.fail(
        used & (stretch > REFUSED_STRETCH),
        f"the band would be stretched past {REFUSED_STRETCH:g} times its rest length; use a longer band or less range",
    )
    most = np.max(np.where(used, stretch, 0.0), axis=1)
    motion.notice(
        "band-overstretch",
        f"band stretched past {SAFE_STRETCH:g} times its rest length: use a longer band",
        most > SAFE_STRETCH,
    )
    measured = band.law.measured_to_m * band.fold
    motion.notice(
        "band-outside-readings",
        f"band pulled longer than it was measured ({100 * measured:.0f} cm): its pull there is a guess",
        np.max(np.where(used, length, 0.0), axis=1) > measured + 1e-9,
    )
    slack = np.any(used & (stretch <= 1.0), axis=1)
    motion.notice("band-slack", "band slack in part of the range", slack)


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
