"""The trunk at one posture, with what leans and hangs with it."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS, Body
from widearc.core.geometry import vec
from widearc.core.movement.motion import Motion


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
