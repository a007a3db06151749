"""Stance: feet flat, squats with any load on trunk, hands or belt.

Closure: the shank leans min(5° + τ·knee flexion, dorsiflexion limit + wedge); the trunk's lean is
solved so that all external forces together have no moment about the pressure point. At equal shank
lean and pressure point the bar's place changes trunk lean and hip angle, but neither knee nor hip
demand. Feet wider than the hips turn the leg planes by ψ: the legs' horizontal offsets shrink by
cos ψ, sagittal leg moments are divided by it, and a lean θ of the trunk bends the hip by θ·cos ψ.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.body import segments as s
from widearc.core.equipment import Line, Load
from widearc.core.errors import InputError
from widearc.core.exercises import Exercise, Options
from widearc.core.geometry import ahead, bracketed_root, lean, spread, turning_root, vec
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m, stand_on
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, book, load_shape, only_weights, pulls
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body, upper_body_terms
from widearc.core.units import DEG, G, to_deg
from widearc.core.words import Angle, Distance, Said

FAMILY = "stance"

FIRST_LEAN = 5 * DEG  # shank lean at a straight knee (common practice, no source)
LEAN_RANGE = (-35 * DEG, 89 * DEG)
WEDGE_SPAN = s.BALL - s.HEEL  # heel to ball, share of foot length


def solve(lift: Lift) -> Motion:
    """Return the squat's motion for options `o` (radians, metres) at `position` (1, samples)."""
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    knee_bend = lift.through("knee")
    wedge = np.arcsin(np.clip(o["heel_wedge"] / (WEDGE_SPAN * body.foot_m), 0.0, 1.0))
    shank_lean = np.minimum(FIRST_LEAN + o["knee_travel"] * knee_bend, limits.dorsiflexion + wedge)
    cos_turn = leg_plane_cosine(body, o["stance"])
    legs = int(o["legs"])

    foot = foot_on(body, o, wedge)
    knee = foot.ankle + body.shank_m * lean(shank_lean) * turned(cos_turn)
    hip = knee - body.thigh_m * vec(
        np.sin(knee_bend - shank_lean), -np.cos(knee_bend - shank_lean)
    ) * turned(cos_turn)
    sole = foot.sole(pressure_m(body, o["pressure"]) * cos_turn)

    shape = np.broadcast_shapes(hip.shape[1:], load_shape(loads, o))
    motion = lift.motion(shape, legs=legs, plane_cos=cos_turn)
    # the balance is solved on the small arrays: often only the loads differ between set-ups
    small = [
        spread(p, (2, *np.broadcast_shapes(p.shape[1:], hip.shape[1:]))) for p in (hip, knee, sole)
    ]
    hip, knee, sole = (spread(p, (2, *shape)) for p in (hip, knee, sole))

    add_leg(motion, body, foot, knee, hip, legs=legs)
    trunk_terms = upper_body_terms(body, one_piece=lift.exercise.one_piece)
    free_terms = free_leg_terms(body, o["free_leg"]) if legs == 1 else []
    balance = _Balance(
        motion,
        body,
        small[0],
        small[2],
        [(m, along, 0.0) for m, along in trunk_terms] + free_terms,
        _Pulls(loads, small[2], small[1], small[0], foot.ankle, o, lift.lowering),
    )
    trunk_lean, found = balance.trunk_lean()
    motion.fail(~found, _why_unbalanced(knee_bend, shape, found, limits))
    trunk = Trunk(body=body, hip=hip, lean=trunk_lean)

    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    for mass, along, forward in free_terms:
        motion.add_segment("free_thigh", mass, trunk.place(along, forward))
    attach(
        motion,
        loads,
        lambda name: spread(balance.pulls.place(name, trunk), (2, *shape)),
        lowering=lift.lowering,
    )
    for index, load in enumerate(loads):
        if isinstance(load, Line) and load.other_port == load.port:
            length = motion.full(o["stance"])
            stored = load.stores_along(length, np.zeros((2, *motion.shape)))
            book(motion, index, stored, motion.points["hip"], "thigh")
    stand_on(motion, sole)

    motion.points |= {"shoulder": trunk.shoulder, "pressure": sole}
    motion.angles |= {
        "knee": motion.full(knee_bend),
        "hip": motion.full(knee_bend - shank_lean + trunk_lean * cos_turn),
        "ankle": motion.full(shank_lean - wedge),
    }
    if not lift.exercise.one_piece:
        motion.angles["shoulder"] = motion.full(trunk_lean)
    if legs == 1:
        motion.angles["free_hip"] = motion.full(o["free_leg"])
    motion.marks |= {"trunk_lean": motion.full(trunk_lean), "shank_lean": motion.full(shank_lean)}
    motion.assumptions += _assumptions(lift.exercise, legs)
    capped = np.any(
        motion.full(FIRST_LEAN + o["knee_travel"] * knee_bend > limits.dorsiflexion + wedge) > 0,
        axis=1,
    )
    motion.notice(
        "ankle-limit",
        Said(
            "ankle limit {angle} holds the shank back", angle=Angle.of_deg(limits.dorsiflexion_deg)
        ),
        capped,
    )
    return motion


def turned(cos_turn: Array) -> Array:
    """Return factors (2, …) that shrink horizontal offsets of the leg plane and leave heights."""
    return vec(cos_turn, np.ones_like(cos_turn))


MOST_TURN = 0.98  # sine of the leg plane's turn


def widest_stance_m(body: Body) -> float:
    """Return how far apart the feet can stand, m: the leg plane turned almost square."""
    return float(np.min(body.outer_hip_breadth_m + 2 * MOST_TURN * body.thigh_m))


def leg_plane_cosine(body: Body, stance: Array | float) -> Array:
    """Return cos ψ (set-ups, 1) of the leg plane's turn: 1 up to feet at the outer hip breadth.

    The turn at which a level thigh still has its knee over the foot (assumed).
    """
    out = np.maximum(0.0, np.atleast_2d(stance) - body.outer_hip_breadth_m) / 2.0
    sine = out / body.thigh_m
    widest = widest_stance_m(body)
    if np.any(np.atleast_2d(stance) > widest):
        raise InputError(
            "/options/stance_m",
            float(np.max(stance)),
            Said("up to {distance} for this body", distance=Distance(widest)),
        )
    return np.asarray(np.sqrt(1.0 - sine**2))


def foot_on(body: Body, o: Options, wedge: Array) -> Foot:
    """Return the flat foot on its box and wedge, ankle over x = 0."""
    wedge = np.atleast_2d(wedge)
    ball = body.sole_m(s.BALL)
    height = o["box"] + body.ankle_height_m * np.cos(wedge) + ball * np.sin(wedge)
    return Foot(body, flat(0.0, height), ahead(wedge), -lean(wedge))


def free_leg_terms(
    body: Body, free_leg: Array | float
) -> list[tuple[float, Array | float, Array | float]]:
    """Return (mass, along, forward) of the straight free leg, fixed to the trunk by its hip
    angle.
    """
    parts = (
        (s.M_THIGH, s.COM_THIGH * body.thigh_m),
        (s.M_SHANK, body.thigh_m + s.COM_SHANK * body.shank_m),
        (s.M_FOOT, body.thigh_m + body.shank_m + body.ankle_height_m / 2),
    )
    return [
        (share * body.mass_kg, -np.cos(free_leg) * far, np.sin(free_leg) * far)
        for share, far in parts
    ]


class _Pulls:
    """The loads with a way to place them, for any trial lean of the trunk."""

    def __init__(
        self,
        loads: Sequence[Load],
        sole: Array,
        knee: Array,
        hip: Array,
        ankle: Array,
        o: Options,
        lowering: bool,
    ) -> None:
        self.loads, self.sole, self.lowering, self.belt = loads, sole, lowering, o["belt_offset"]
        self.fixed = {
            "sole": sole,
            "thigh": hip + 0.9 * (knee - hip),
            "ankle": spread(ankle, hip.shape),
        }

    def place(self, name: str, trunk: Trunk) -> Array:
        """Return a port's point, m."""
        point = trunk.port(name, self.belt)
        if point is None:
            point = self.fixed.get(name)
        if point is None:
            raise InputError("/loads/port", name, Said("a port that a squat has"))
        return point

    def moment(self, trunk: Trunk, *, vertical: bool) -> Array:
        """Return the moment about the pressure point (N·m) of the loads that hang, or of those that
        pull otherwise.

        Body-to-body pulls cancel.
        """
        return pulls(
            self.loads,
            lambda name: self.place(name, trunk),
            self.sole,
            lowering=self.lowering,
            hanging=vertical,
        )[0]

    @property
    def only_weights(self) -> bool:
        """Return whether balance is linear in sin and cos of the lean: no band pulls from the
        room.
        """
        return only_weights(self.loads)


class _Balance:
    """Balance about the pressure point as a function of the trunk's lean."""

    def __init__(
        self,
        motion: Motion,
        body: Body,
        hip: Array,
        sole: Array,
        terms: Sequence[tuple[float, Array | float, Array | float]],
        pulls: _Pulls,
    ) -> None:
        self.motion, self.body, self.hip, self.sole, self.pulls = motion, body, hip, sole, pulls
        # rows of equal geometry have equal legs: the small arrays' rows are enough
        self.legs_moment = motion.moment_about(spread(sole, (2, *motion.shape)))[: sole.shape[1]]
        self.terms = terms

    def weights(self, trunk_lean: Array) -> Array:
        """Return the moment of body and vertical loads about the pressure point, N·m: linear in sin
        and cos.
        """
        trunk = Trunk(body=self.body, hip=self.hip, lean=trunk_lean)
        total = self.legs_moment + self.pulls.moment(trunk, vertical=True)
        for mass, along, forward in self.terms:
            total = total - mass * G * (trunk.place(along, forward)[0] - self.sole[0])
        return np.asarray(total)

    def trunk_lean(self) -> tuple[Array, BoolArray]:
        """Return the lean (rad) that balances and where there is one.

        Closed form A sin θ + B cos θ + C = 0 for weights; pulls that turn are added to it in a root
        search.
        """
        at_0, at_90, at_180 = (
            self.weights(np.full((1, 1), turn * np.pi / 2)) for turn in (0, 1, 2)
        )
        theta, inside, slope = turning_root(at_0, at_90, at_180)
        low, high = LEAN_RANGE
        if self.pulls.only_weights:
            found = inside & (theta >= low) & (theta <= high)
            return np.where(found, theta, np.nan), found

        c = 0.5 * (at_0 + at_180)
        b, a = at_0 - c, at_90 - c

        def moment(lean_: Array) -> Array:
            """Return the moment about the pressure point, N·m anticlockwise."""
            trunk = Trunk(body=self.body, hip=self.hip, lean=lean_)
            # the trunk has its sine and cosine already
            sine, cosine = trunk.sine_cosine
            return np.asarray(a * sine + b * cosine + c + self.pulls.moment(trunk, vertical=False))

        theta = spread(theta, self.motion.shape)
        return bracketed_root(
            moment, np.full(theta.shape, low), np.full(theta.shape, high), theta, slope=slope
        )


def _why_unbalanced(
    knee_bend: Array, shape: tuple[int, ...], found: BoolArray, limits: Limits
) -> Said:
    """Return the reason in words, with the deepest bend that still balances."""
    ok = np.where(found, spread(knee_bend, shape), -1.0)
    deepest = float(to_deg(np.max(ok))) if ok.size else -1.0
    limit = Said("ankle limit {angle}", angle=Angle.of_deg(limits.dorsiflexion_deg))
    if deepest < 0:
        return Said(
            "cannot balance at any depth: {limit}; move the pressure point or the load",
            limit=limit,
        )
    return Said(
        "cannot balance below {angle} of knee bend: {limit}; raise the heels or reduce depth",
        angle=Angle.of_deg(deepest),
        limit=limit,
    )


def _assumptions(exercise: Exercise, legs: int) -> list[Said]:
    lines = [
        Said(
            "Quasi-static and in the side view; feet flat; "
            "the trunk leans so that the body balances over the pressure point."
        ),
        Said("Shank leans 5° plus a fixed share of the knee bend, up to the ankle limit."),
    ]
    if not exercise.one_piece:
        lines.append(Said("Arms hang straight down from the shoulders."))
    if legs == 1:
        lines.append(Said("The free leg is held straight at a fixed hip angle."))
    return lines
