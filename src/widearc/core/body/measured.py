"""A joint's angle by tape, by a level, or by three taps on a photo, each with its stated error."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from widearc.core.body.segments import HEEL, Body
from widearc.core.errors import InputError
from widearc.core.words import Distance, Said

TAPE_M = 0.01  # each length, one standard error: skin and clothes move (assumed)
LEVEL_DEG = 1.0  # each reading of a phone's level (assumed)
TAP_SHARE = 0.02  # each tap, as a share of the shorter limb in the picture (assumed)
KNEE_DEPTH_M = 0.05  # the knee's middle lies this far behind the kneecap (assumed)
WORST_DEG = 45.0  # near straight a tape tells nothing: more than this is not said
SKEW_DEG = 2.0  # the picture is not quite square to the leg (assumed)


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasuredAngle:
    """An angle and one standard error, degrees."""

    angle_deg: float
    error_deg: float


def bend_by_tape(upper_m: float, lower_m: float, across_m: float) -> MeasuredAngle:
    """Return a joint's bend from three lengths: 0° straight, by the cosine rule.

    upper_m and lower_m: joint to the two far points; across_m: between these, m. Each may be 1 cm
    off. Raises InputError for lengths that make no triangle.
    """
    for name, value in (("upper_m", upper_m), ("lower_m", lower_m), ("across_m", across_m)):
        if not math.isfinite(value) or not 0.03 <= value <= 2.0:
            raise InputError(name, value, Said("from 0.03 to 2 m"))
    if across_m > upper_m + lower_m:
        longest = upper_m + lower_m
        raise InputError(
            "across_m",
            across_m,
            Said("at most the two others together, {distance}", distance=Distance(longest)),
        )
    if across_m < abs(upper_m - lower_m):
        raise InputError(
            "across_m",
            across_m,
            Said(
                "at least the two others' difference, {distance}",
                distance=Distance(abs(upper_m - lower_m)),
            ),
        )
    a, b, c = upper_m, lower_m, across_m
    cosine = (a * a + b * b - c * c) / (2 * a * b)
    inner = math.acos(max(-1.0, min(1.0, cosine)))
    sine = max(
        math.sin(inner), 0.05
    )  # near straight a centimetre is many degrees: the error stays finite
    slopes = np.array(
        [(1 / b - cosine / a) / sine, (1 / a - cosine / b) / sine, c / (a * b * sine)],
    )
    error = math.degrees(TAPE_M * float(np.hypot.reduce(slopes)))
    return MeasuredAngle(angle_deg=180.0 - math.degrees(inner), error_deg=min(error, WORST_DEG))


def bend_by_levels(upper_deg: float, lower_deg: float) -> MeasuredAngle:
    """Return a joint's bend from a level's reading on each limb: their difference, degrees over
    level, same way.
    """
    for name, value in (("upper_deg", upper_deg), ("lower_deg", lower_deg)):
        if not math.isfinite(value) or not -180 <= value <= 180:
            raise InputError(name, value, Said("from -180 to 180 degrees"))
    turn = abs(upper_deg - lower_deg) % 360.0
    return MeasuredAngle(angle_deg=min(turn, 360.0 - turn), error_deg=math.sqrt(2.0) * LEVEL_DEG)


def bend_by_points(
    upper: tuple[float, float], joint: tuple[float, float], lower: tuple[float, float]
) -> MeasuredAngle:
    """Return a joint's bend from three points of a side picture, in any unit of length: 0°
    straight.
    """
    points = np.array([upper, joint, lower], dtype=float)
    if not np.all(np.isfinite(points)):
        raise InputError("points", "not a number", Said("three points of the picture"))
    first, second = points[0] - points[1], points[2] - points[1]
    lengths = np.hypot(*first), np.hypot(*second)
    if min(lengths) < 5.0:
        raise InputError(
            "points", round(float(min(lengths))), Said("taps at least 5 picture points apart")
        )
    inner = math.degrees(
        math.acos(float(np.clip(first @ second / (lengths[0] * lengths[1]), -1.0, 1.0)))
    )
    # a tap at the joint turns both limbs, a tap at an end one
    tap = math.degrees(
        TAP_SHARE * min(lengths) * math.hypot(1 / lengths[0], 1 / lengths[1])
    ) * math.sqrt(2.0)
    return MeasuredAngle(angle_deg=180.0 - inner, error_deg=math.hypot(tap, SKEW_DEG))


def shank_lean_at_wall(toe_to_wall_m: float, knee_height_m: float, body: Body) -> MeasuredAngle:
    """Return how far the shank leans with the knee at a wall and the heel down: the ankle's limit,
    degrees.

    toe_to_wall_m: big toe to wall; knee_height_m: where the knee touches, over the floor, m. The
    toes end 0.77 of the foot ahead of the ankle (heel to ankle 0.23, as in the tables).
    """
    if not math.isfinite(toe_to_wall_m) or not 0.0 <= toe_to_wall_m <= 0.4:
        raise InputError("toe_to_wall_m", toe_to_wall_m, Said("from 0 to 0.4 m"))
    highest = body.shank_m + body.ankle_height_m + 0.1
    if not math.isfinite(knee_height_m) or not 0.2 <= knee_height_m <= highest:
        raise InputError(
            "knee_height_m",
            knee_height_m,
            Said("from 0.2 to {distance} for this stature", distance=Distance(highest)),
        )
    ahead = toe_to_wall_m + (1.0 + HEEL) * body.foot_m - KNEE_DEPTH_M
    up = knee_height_m - body.ankle_height_m
    reach_sq = ahead * ahead + up * up
    error = math.degrees(TAPE_M * math.hypot(up, ahead) / reach_sq * math.sqrt(2.0))
    return MeasuredAngle(angle_deg=math.degrees(math.atan2(ahead, up)), error_deg=error)


KNEE_DEPTH_M = 0.05  # the knee's middle lies this far behind the kneecap (assumed)
