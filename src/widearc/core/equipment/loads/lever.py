"""A weighted lever arm about a fixed pivot."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import partial
from typing import Any, Self

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import Number, Port, place
from widearc.core.equipment.loads.load import AtPort, Moving, Note, Stored
from widearc.core.equipment.loads.mass import weight
from widearc.core.errors import InputError
from widearc.core.units import CENTIMETRE, DEG, DEGREE, G
from widearc.core.words import Figure, Said

FARTHEST_PIVOT_M = 5.0
SLIDES_M = 0.02  # along the body, over which it is said (assumed)
ANOTHER_ARM_M = 0.05  # from what was said, over which it is said (assumed)


def _length(
    name: str, words: str, key: str, usual: float, low: float = 0.0, high: float = 5.0, **more: Any
) -> Number:
    return Number(
        name=name, words=words, unit=CENTIMETRE, low=low, high=high, key=key, usual=usual, **more
    )


def _angle(name: str, words: str, key: str, **more: Any) -> Number:
    return Number(
        name=name, words=words, unit=DEGREE, low=-360.0, high=360.0, key=key, default=0.0, **more
    )


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Lever(AtPort):
    """A lever arm about `pivot` (x, y in the room frame, m, floats or (set-ups, 1)), met by the
    user at a port.

    kg (float or (set-ups, 1)) at arm_m from the pivot, angle_deg above the level at the start of
    the lift, measured the way the lift turns the arm; own_kg, own_arm_m, own_angle_deg: the bare
    arm's weight likewise. user_arm_m: from the pivot to where the user meets it (None: taken from
    the port). sense (+1 anticlockwise) and start_rad (the port's angle about the pivot at the
    start) are read off the movement where they are not known.
    """

    kind = "lever"
    words = "lever"
    short = "lever"
    again = "measure the lever's arm and its angle at the start again"
    rank = 6
    FIELDS = (
        weight("kg", "weight", usual=30.0),
        _length("arm_m", "weight from the pivot", "arm", 0.9),
        _angle(
            "angle_deg",
            "arm above level at the start",
            "angle",
            said="of the weight's arm above the level at the start of the lift, measured the way "
            "the lift turns it",
        ),
        place("pivot", ("pivot ahead", "pivot height"), -110.0, 100.0),
        weight("own_kg", "bare arm", key="own", usual=8.0, default=0.0),
        _length("own_arm_m", "its middle from the pivot", "ownarm", 0.5, default=0.0),
        _angle("own_angle_deg", "", "", follows="angle"),
        _length("user_arm_m", "", "", 0.0, low=0.02, high=3.0, optional=True),
        Port(
            optional=True,
            said="where it meets the body; left out: the exercise's first port",
        ),
    )
    amount = "kg"
    held = "pivot"
    pivot: tuple[float | Array, float | Array]
    kg: float | Array
    arm_m: float
    angle_deg: float = 0.0
    own_kg: float = 0.0
    own_arm_m: float = 0.0
    own_angle_deg: float = 0.0
    user_arm_m: float | None = None
    port: str = "shin-pad"
    sense: float | Array = 0.0
    start_rad: float | Array | None = None

    def __post_init__(self) -> None:
        """Check masses, lengths and angles."""
        self.check_numbers()
        for axis, value in zip(("x_m", "y_m"), self.pivot, strict=True):
            if not np.all(np.abs(value) <= FARTHEST_PIVOT_M):
                far = Said(
                    "from {low} to {high}",
                    low=Figure(-FARTHEST_PIVOT_M),
                    high=Figure(FARTHEST_PIVOT_M, " m"),
                )
                raise InputError(f"pivot/{axis}", value, far)

    @property
    def fixed_at(self) -> tuple[float | Array, float | Array]:
        """Return the pivot, m."""
        return self.pivot

    @property
    def disc_kg(self) -> float:
        """Return the weight, kg."""
        return float(np.ravel(self.kg)[0])

    @property
    def pivot_m(self) -> Array:
        """Return the pivot, m (2, set-ups or 1, 1)."""
        return np.stack(np.broadcast_arrays(*(np.atleast_2d(value) for value in self.pivot)))

    def turned(self, angle: Array) -> Array:
        """Return the arm's turn since the start (rad, positive with the lift) from its angle in the
        room (rad).
        """
        unwrapped = np.unwrap(angle, axis=-1)
        turn = unwrapped - unwrapped[..., :1]
        if self.start_rad is not None:
            first = angle[..., :1] - self.start_rad
            turn = turn + np.arctan2(np.sin(first), np.cos(first))
        return np.asarray(turn * self.way(turn))

    def way(self, turn: Array) -> Array:
        """Return +1 where the lift turns the arm anticlockwise, else -1, (…, 1)."""
        if np.any(np.asarray(self.sense) != 0):
            return np.asarray(self.sense, dtype=float)
        return np.asarray(np.where(turn[..., -1:] < 0, -1.0, 1.0))

    def moment_nm(self, turn: Array) -> Array:
        """Return the moment against the lift about the pivot (N·m) after a turn (rad): (m·d·cos +
        m0·d0·cos)·g.
        """
        main = np.asarray(self.kg) * self.arm_m * np.cos(turn + self.angle_deg * DEG)
        own = self.own_kg * self.own_arm_m * np.cos(turn + self.own_angle_deg * DEG)
        return np.asarray((main + own) * G)

    def energy_j(self, turn: Array) -> Array:
        """Return the energy of height (J) after a turn (rad)."""
        main = np.asarray(self.kg) * self.arm_m * np.sin(turn + self.angle_deg * DEG)
        own = self.own_kg * self.own_arm_m * np.sin(turn + self.own_angle_deg * DEG)
        return np.asarray((main + own) * G)

    @property
    def inertia_kgm2(self) -> Array:
        """Return the moment of inertia about the pivot, kg·m²: weights as points (the bare arm
        too).
        """
        return np.asarray(np.asarray(self.kg) * self.arm_m**2 + self.own_kg * self.own_arm_m**2)

    def angle_at(self, point: Array) -> Array:
        """Return the angle in the room (rad, anticlockwise from forward) of the arm to a point."""
        x, y = self.pivot
        return np.asarray(np.arctan2(point[1] - y, point[0] - x))

    def force(self, point: Array, *, lowering: bool) -> Array:
        """Return the force (N, (2, …)) of its pad: square to the line from pivot to port, against
        the lift.
        """
        arm = point - self.pivot_m
        far = np.maximum(np.hypot(arm[0], arm[1]), 1e-9)
        angle = self.angle_at(point)
        raw = np.unwrap(angle, axis=-1)
        way = self.way(raw - raw[..., :1])
        with_lift = way * np.stack((-arm[1], arm[0])) / far
        return np.asarray(-self.moment_nm(self.turned(angle)) / far * with_lift)

    def stores(self, point: Array) -> Stored:
        """Return its height and inertia; note where the user's arm is not as long as it was said
        to be.
        """
        turn = self.turned(self.angle_at(point))
        arm = point - self.pivot_m
        far = np.hypot(arm[0], arm[1])
        along = self.way(turn) * np.stack((-arm[1], arm[0])) / np.maximum(far, 1e-9)
        slide = np.ptp(far, axis=1)
        text = Said("the pad slides along the body: the machine's pivot is off the joint")
        notices = [Note(code="pad-slides", text=text, where=slide > SLIDES_M)]
        if self.user_arm_m is not None:
            apart = np.abs(np.mean(far, axis=1) - self.user_arm_m)
            text = Said(
                "the lever meets the body at another distance than user_arm_m: "
                "the body's own place is used"
            )
            notices.append(Note(code="lever-arm-differs", text=text, where=apart > ANOTHER_ARM_M))
        return Stored(
            gravity_j=partial(self.energy_j, turn),
            moving=Moving(
                kg=self.inertia_kgm2 / np.maximum(far, 1e-3) ** 2,
                towards=along,
                travel=turn * np.mean(far),
            ),
            notices=tuple(notices),
            marks={"slide": slide[:, None]},
        )

    def unread(self) -> bool:
        """Return True: which way the lift turns it, the movement tells."""
        return True

    def read_off(self, point: Array) -> Self:
        """Return it with its sense and its angle at the start."""
        angle = np.unwrap(self.angle_at(np.nan_to_num(point)), axis=-1)
        sense = np.where(angle[:, -1:] < angle[:, :1], -1.0, 1.0)
        return replace(self, sense=sense, start_rad=angle[:, :1])

    def read_again(self, point: Array) -> tuple[Self, float]:
        """Return it with its angle at the start; it has not turned yet there."""
        return replace(self, start_rad=self.angle_at(np.nan_to_num(point))[:, :1]), 0.0
