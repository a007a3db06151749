"""Bridges: shoulder blades on a bench edge, feet flat, the hip rises.

Closure: the trunk turns about the bench's edge at 0.8 of hip to shoulder; bench edge and ankle
stay, so the hip angle places hip and knee; vertical reactions at bench and foot follow from
balance, the horizontal pair between them is 0 (option). The feet stand where the shins are vertical
at the end, or so far ahead of the bench as given.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.errors import InputError
from widearc.core.exercises import Options
from widearc.core.geometry import slope, spread, third_side, vec
from widearc.core.movement.families.stance import free_leg_terms
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.words import Said

FAMILY = "bridge"

BENCH_AT = 0.8  # of hip to shoulder


def solve(lift: Lift) -> Motion:
    """Return the bridge's motion for options `o` (radians, metres) at `position` (1, samples)."""
    body, o, loads = lift.body, lift.o, lift.loads
    hip_bend = lift.through("hip")
    shape = lift.shape(hip_bend)
    hip_bend = spread(hip_bend, shape)
    legs = int(o["legs"])
    motion = lift.motion(shape, legs=legs)
    back = BENCH_AT * body.trunk_m
    ankle = flat(0.0, o["foot"] + body.ankle_height_m)
    edge = _edge(body, o, ankle, back)
    knee = _knee(motion, body, edge, ankle, third_side(back, body.thigh_m, hip_bend))
    # from the line knee to edge, the hip hangs below by the triangle's angle at the edge
    line = np.arctan2(knee[1] - edge[1], knee[0] - edge[0])
    at_edge = np.arctan2(body.thigh_m * np.sin(hip_bend), back + body.thigh_m * np.cos(hip_bend))
    hip = edge + back * slope(line - at_edge)
    ankle, edge = spread(ankle, (2, *shape)), spread(edge, (2, *shape))
    foot = Foot(
        body, ankle, vec(np.ones((1, 1)), np.zeros((1, 1))), vec(np.zeros((1, 1)), -np.ones((1, 1)))
    )
    add_leg(motion, body, foot, knee, hip, legs=legs)
    trunk_lean = np.arctan2(edge[0] - hip[0], edge[1] - hip[1])
    trunk = Trunk(body=body, hip=hip, lean=trunk_lean)
    add_upper_body(motion, trunk, one_piece=True)
    if legs == 1:
        for mass, along, forward in free_leg_terms(body, o["free_leg"]):
            motion.add_segment("free_thigh", mass, trunk.place(along, forward))
        motion.angles["free_hip"] = motion.full(o["free_leg"])
    sole = spread(foot.sole(pressure_m(body, o["pressure"])), (2, *shape))

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = sole if name == "sole" else trunk.port(name)
        if point is None:
            raise InputError("/loads/port", name, Said("a port that a bridge has"))
        return point

    attach(motion, loads, place, lowering=lift.lowering)
    motion.close(lambda moved: _reactions(moved, sole, edge, o["horizontal_pair"]))
    thigh = np.arctan2(knee[1] - hip[1], knee[0] - hip[0])
    shank = np.arctan2(ankle[1] - knee[1], ankle[0] - knee[0])
    motion.points |= {"shoulder": trunk.shoulder, "bench": edge, "pressure": sole}
    motion.angles |= {
        "hip": hip_bend,
        "knee": thigh - shank,
        "ankle": np.arctan2(knee[0], knee[1] - ankle[1]),
    }
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; the shoulder blades turn on the bench's edge "
            "without sliding."
        ),
        Said("Bench and feet carry vertical forces; they do not push against each other."),
    ]
    if legs == 1:
        motion.assumptions.append(Said("The free leg is held straight at a fixed hip angle."))
    return motion


def _edge(body: Body, o: Options, ankle: Array, back: float) -> Array:
    """Return the bench edge (m): so far from the feet that the shins are vertical at the end of the
    lift.
    """
    knee = ankle + flat(0.0, body.shank_m)
    reach = third_side(back, body.thigh_m, np.atleast_2d(o["hip_to"]))
    rise = np.atleast_2d(o["bench"]) - knee[1]
    away = np.sqrt(np.maximum(reach**2 - rise**2, 0.01))
    if not isinstance(o["foot_ahead"], str):
        away = np.atleast_2d(o["foot_ahead"])
    return vec(knee[0] - away, np.atleast_2d(o["bench"]))


def _knee(motion: Motion, body: Body, edge: Array, ankle: Array, reach: Array) -> Array:
    """Return the knee (m): `reach` from the edge, a shank from the ankle, on the upper side."""
    gap = edge - ankle
    distance = np.hypot(gap[0], gap[1])
    along = (body.shank_m**2 - reach**2 + distance**2) / (2 * distance)
    off2 = body.shank_m**2 - along**2
    motion.fail(
        motion.full(off2) < 0, Said("bench and feet are too far apart or too close: move the feet")
    )
    off = np.sqrt(np.maximum(off2, 0.0))
    unit = gap / distance
    # up and towards the feet: clockwise from the line ankle to bench
    return np.asarray(ankle + along * unit + off * np.stack((unit[1], -unit[0])))


def _reactions(motion: Motion, sole: Array, edge: Array, pair: Array | float) -> None:
    """Add the vertical forces of foot and bench, and the horizontal pair `pair` (N, feet pushing
    away).
    """
    total = motion.total_force()
    moment = motion.moment_about(edge)
    pair = spread(np.atleast_2d(pair), motion.shape)
    front_x = -pair - total[0]
    span_x, span_y = sole[0] - edge[0], sole[1] - edge[1]
    foot_y = (-moment + span_y * front_x) / span_x
    motion.add_force("foot", sole, vec(front_x, foot_y), "contact foot")
    motion.add_force("trunk", edge, vec(pair, -total[1] - foot_y), "contact bench")
    motion.fail(foot_y < -1e-6, Said("the feet would lift: move them away from the bench"))
