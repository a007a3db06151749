"""A planar picture of a body by hand: points, weights and forces as plain numbers.

Nothing here is taken from the core: lengths and masses are the table's (Winter 2009, from memory)
for 80 kg and 1.80 m, strength is Anderson's formula (2007, from memory). What the core computes
with arrays, closures and solvers is worked out again from where joints are and what pulls there.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field

Point = tuple[float, float]

G = 9.80665
MASS, STATURE = 80.0, 1.80
THIGH, SHANK, FOOT, TRUNK = 0.245 * STATURE, 0.246 * STATURE, 0.152 * STATURE, 0.288 * STATURE
ANKLE = 0.039 * STATURE
KG = {"foot": 0.0145 * MASS, "shank": 0.0465 * MASS, "thigh": 0.100 * MASS}
UPPER_KG, UPPER_AT = 0.678 * MASS, 0.626  # head, arms and trunk in one piece
NEAR = 0.433  # centre of mass of thigh and shank from the near end


def way(degrees: float) -> Point:
    """Return the unit vector so many degrees over the level, forward."""
    turn = math.radians(degrees)
    return math.cos(turn), math.sin(turn)


def off(start: Point, far: float, direction: Point) -> Point:
    """Return the point `far` (m) from another along a direction."""
    return start[0] + far * direction[0], start[1] + far * direction[1]


def between(a: Point, b: Point, share: float) -> Point:
    """Return the point a share of the way from a to b."""
    return a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])


def bent(bend_deg: float) -> tuple[float, float]:
    """Return the distance hip to ankle (m) of a leg bent so far, and the angle at the ankle between
    that line and the shank, degrees.
    """
    bend = math.radians(bend_deg)
    far = math.sqrt(THIGH**2 + SHANK**2 + 2 * THIGH * SHANK * math.cos(bend))
    turn = math.atan2(THIGH * math.sin(bend), SHANK + THIGH * math.cos(bend))
    return far, math.degrees(turn)


@dataclass(slots=True)
class Picture:
    """Joints by name, and everything that acts: (segment, point, force N)."""

    joints: dict[str, Point]
    acts: list[tuple[str, Point, Point]] = field(default_factory=list)

    def weigh(self, segment: str, kg: float, at: Point) -> None:
        """Add a weight at a point."""
        self.acts.append((segment, at, (0.0, -kg * G)))

    def leg(self, legs: float, foot_at: Point) -> None:
        """Add the weights of so many alike legs; foot_at: the foot's centre of mass."""
        j = self.joints
        self.weigh("foot", legs * KG["foot"], foot_at)
        self.weigh("shank", legs * KG["shank"], between(j["knee"], j["ankle"], NEAR))
        self.weigh("thigh", legs * KG["thigh"], between(j["hip"], j["knee"], NEAR))

    def moment(self, about: Point, segments: tuple[str, ...] | None = None) -> float:
        """Return the moment of what acts on some segments (all: None), N·m anticlockwise."""
        return sum(
            (at[0] - about[0]) * f[1] - (at[1] - about[1]) * f[0]
            for segment, at, f in self.acts
            if segments is None or segment in segments
        )

    def force(self) -> Point:
        """Return the sum of all forces, N."""
        return sum(f[0] for _, _, f in self.acts), sum(f[1] for _, _, f in self.acts)

    def knee(self, legs: float = 2.0) -> float:
        """Return the knee's demand a leg, N·m: extension answers a moment that bends it."""
        return -self.moment(self.joints["knee"], ("foot", "shank")) / legs

    def hip(self, legs: float = 2.0) -> float:
        """Return the hip's demand a leg, N·m, extension positive."""
        return self.moment(self.joints["hip"], ("foot", "shank", "thigh")) / legs

    def ankle(self, legs: float = 2.0) -> float:
        """Return the ankle's demand a leg, N·m, plantarflexion positive."""
        return self.moment(self.joints["ankle"], ("foot",)) / legs


_ANDERSON = {
    "hip_extension": ((0.161, 0.958, 0.932), (0.181, 0.697, 1.242)),
    "knee_extension": ((0.163, 1.258, 1.133), (0.159, 1.187, 1.274)),
    "plantarflexion": ((0.095, 1.391, 0.408), (0.104, 1.399, 0.424)),
    "knee_flexion": ((0.087, 0.869, 0.522), (0.080, 0.873, 0.635)),
}


def strength(action: str, degrees: float) -> float:
    """Return the usual strength of an action at a bend, N·m, the mean of both sexes."""
    total = 0.0
    for share, stretch, best in _ANDERSON[action]:
        peak = share * MASS * 9.81 * STATURE
        angle = math.radians(min(degrees, 100.0) if action.endswith("extension") else degrees)
        value = max(peak * math.cos(stretch * (angle - best)), 0.30 * peak)
        if action == "knee_extension" and degrees < 30:
            value = max(value, 0.45 * peak)
        total += value / 2
    return total


@dataclass(frozen=True, slots=True)
class Pressed:
    """A leg press by hand at one knee bend, rails at 45°, back at 15°, foot 10 cm over the hip's
    line, plate tilted 10°: demands a leg without a push and per newton of it, N·m, and angles.
    """

    without: dict[str, float]
    per_newton: dict[str, float]
    degrees: dict[str, float]


def pressed(bend_deg: float, rail_n: float) -> Pressed:
    """Return a press by hand, with so much force along the rails (both legs, N)."""
    up, square = way(45), way(135)
    far, _ = bent(bend_deg)
    along = math.sqrt(far**2 - 0.10**2)
    hip = (0.0, 0.40)
    ankle = off(off(hip, along, up), 0.10, square)
    bend = math.radians(bend_deg)
    at_hip = math.atan2(SHANK * math.sin(bend), THIGH + SHANK * math.cos(bend))
    thigh = 45 + math.degrees(math.atan2(0.10, along) + at_hip)
    knee = off(hip, THIGH, way(thigh))
    toe, away = way(135 - 10), way(45 - 10)
    sole = off(off(ankle, ANKLE, away), 0.22 * FOOT, toe)
    foot_at = off(off(ankle, ANKLE / 2, away), (0.5 - 0.23) * FOOT, toe)

    def picture(push: float) -> Picture:
        made = Picture({"hip": hip, "knee": knee, "ankle": ankle})
        made.leg(2, foot_at)
        back = (-rail_n * up[0] - push * square[0], -rail_n * up[1] - push * square[1])
        made.acts.append(("foot", sole, back))
        return made

    none, one = picture(0.0), picture(1.0)
    without = {"hip": none.hip(), "knee": none.knee(), "ankle": none.ankle()}
    with_one = {"hip": one.hip(), "knee": one.knee(), "ankle": one.ankle()}
    return Pressed(
        without=without,
        per_newton={j: with_one[j] - without[j] for j in without},
        degrees={"hip": thigh + 15, "knee": bend_deg, "ankle": bend_deg + 45 - thigh - 10},
    )


def least_push(press: Pressed, rail_n: float) -> float:
    """Return the push across the plate that costs least, N, within 0.3 of the rail force."""
    of = {"hip": "hip_extension", "knee": "knee_extension", "ankle": "plantarflexion"}
    s = {j: strength(of[j], press.degrees[j]) for j in of}
    top = sum(press.without[j] * press.per_newton[j] / s[j] ** 2 for j in of)
    bottom = sum(press.per_newton[j] ** 2 / s[j] ** 2 for j in of)
    return max(-0.3 * rail_n, min(0.3 * rail_n, -top / bottom))


def press_demands(bend_deg: float, rail_n: float, share: float) -> list[float]:
    """Return hip, knee and ankle of a press by hand with a share of the least push, N·m."""
    made = pressed(bend_deg, rail_n)
    push = share * least_push(made, rail_n)
    return [made.without[j] + push * made.per_newton[j] for j in ("hip", "knee", "ankle")]


def at_the_ball() -> list[float]:
    """Return the ball's push (N) on the back and the knee's demand (N·m) of a ball-wall squat by
    hand: body weight, knees at 90°, trunk upright, feet 40 cm ahead, ball at 1.15 m at the end.
    """
    ankle, sole = (0.0, ANKLE), (0.22 * FOOT, 0.0)
    heights = []
    for bend_deg in (90.0, 5.0):
        far, _ = bent(bend_deg)
        heights.append(ANKLE + math.sqrt(far**2 - 0.4**2))
    hip = (-0.4, heights[0])
    far, turn = bent(90.0)
    lean = math.degrees(math.atan2(-0.4, heights[0] - ANKLE)) + turn
    knee = off(ankle, SHANK, way(90 - lean))
    made = Picture({"hip": hip, "knee": knee, "ankle": ankle})
    made.leg(2, ((0.5 - 0.23) * FOOT, ANKLE / 2))
    trunk_kg, arm_kg = 0.578 * MASS, 0.050 * MASS
    made.weigh("trunk", trunk_kg + 2 * arm_kg, (-0.4, 1.0))  # upright: how high does not matter
    # while the body sinks the ball climbs the back by half the drop
    contact = (-0.4, 1.15 - (heights[1] - heights[0]) / 2)
    push = made.moment(sole) / contact[1]
    made.acts.append(("trunk", contact, (push, 0.0)))
    total = made.force()
    made.acts.append(("foot", sole, (-total[0], -total[1])))
    return [push, made.knee()]


def thrust(kg: float) -> list[float]:
    """Return the feet's force (N) and the hip's demand (N·m) of a hip thrust by hand at its end:
    bench 40 cm, hips straight, shins upright, a weight 5 cm ahead of the hip's centre.
    """
    sole, knee = (0.22 * FOOT, 0.0), (0.0, ANKLE + SHANK)
    back = 0.8 * TRUNK
    rise = 0.40 - knee[1]
    edge = (-math.sqrt((back + THIGH) ** 2 - rise**2), 0.40)
    line = (knee[0] - edge[0], knee[1] - edge[1])
    unit = (line[0] / (back + THIGH), line[1] / (back + THIGH))
    hip = off(edge, back, unit)
    made = Picture({"hip": hip, "knee": knee, "ankle": (0.0, ANKLE)})
    made.leg(2, ((0.5 - 0.23) * FOOT, ANKLE / 2))
    made.weigh("trunk", UPPER_KG, off(hip, UPPER_AT * TRUNK, (-unit[0], -unit[1])))
    # ahead of the hip: square to the trunk, upwards as one lies
    made.weigh("trunk", kg, off(hip, 0.05, (-unit[1], unit[0])))
    feet = -made.moment(edge) / (sole[0] - edge[0])
    made.acts.append(("foot", sole, (0.0, feet)))
    return [feet, made.hip()]


def hack(bend_deg: float, kg: float) -> list[float]:
    """Return back pad (N), knee and hip (N·m) of a hack squat by hand: rails at 60°, feet 30 cm
    ahead of the hip's line, pad at 0.3 of the back, plate square.
    """
    up, ahead = way(120), way(30)  # the rails rise backwards
    far, turn = bent(bend_deg)
    along = math.sqrt(far**2 - 0.3**2)
    ankle = (0.0, ANKLE)
    hip = off(off(ankle, along, up), -0.3, ahead)
    lean = math.radians(turn) - math.atan2(0.3, along)  # of the shank, from the rails
    knee = off(off(ankle, SHANK * math.cos(lean), up), SHANK * math.sin(lean), ahead)
    shoulder = off(hip, TRUNK, up)
    sole = off(off(ankle, -ANKLE, up), 0.22 * FOOT, ahead)
    made = Picture({"hip": hip, "knee": knee, "ankle": ankle})
    made.leg(2, off(off(ankle, -ANKLE / 2, up), (0.5 - 0.23) * FOOT, ahead))
    made.weigh("trunk", UPPER_KG, between(hip, shoulder, UPPER_AT))
    down = kg * G * math.sin(math.radians(60))
    made.acts.append(("trunk", shoulder, (-down * up[0], -down * up[1])))
    pad = between(hip, shoulder, 0.3)
    arm = (pad[0] - sole[0]) * ahead[1] - (pad[1] - sole[1]) * ahead[0]
    push = -made.moment(sole) / arm
    made.acts.append(("trunk", pad, (push * ahead[0], push * ahead[1])))
    total = made.force()
    made.acts.append(("foot", sole, (-total[0], -total[1])))
    return [push, made.knee(), made.hip()]
