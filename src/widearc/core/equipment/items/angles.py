"""Angles that furniture makes: a wedge, a pad before a pad, rails by their rise."""

from __future__ import annotations

import math

from widearc.core.errors import InputError
from widearc.core.words import Distance, Said

HEEL_TO_BALL_M = 0.18  # common practice, no source


def wedge_relief_deg(thick_m: float, heel_to_ball_m: float = HEEL_TO_BALL_M) -> float:
    """Return the ankle relief of a heel wedge, degrees: asin(thickness / heel to ball), m. Range of
    the asin only.
    """
    if not 0 <= thick_m < heel_to_ball_m:
        raise InputError(
            "thick_m",
            thick_m,
            Said("from 0 to less than heel to ball, {distance}", distance=Distance(heel_to_ball_m)),
        )
    return math.degrees(math.asin(thick_m / heel_to_ball_m))


def shim_bend_deg(thick_m: float, lever_m: float) -> float:
    """Return how much more the knee is bent at the start by a pad put before the pad, degrees:
    atan(t / lever).
    """
    if not lever_m > 0:
        raise InputError("lever_m", lever_m, Said("more than 0 m"))
    return math.degrees(math.atan(thick_m / lever_m))


def rail_angle_deg(rise_m: float, run_m: float) -> float:
    """Return the angle of rails over level, degrees, from their rise and run, m: atan(rise /
    run).
    """
    for name, value in (("rise_m", rise_m), ("run_m", run_m)):
        if not math.isfinite(value) or not 0 <= value <= 10:
            raise InputError(name, value, Said("from 0 to 10 m"))
    if rise_m == run_m == 0:
        raise InputError("run_m", run_m, Said("rise or run above 0"))
    return math.degrees(math.atan2(rise_m, run_m))
