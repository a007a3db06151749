"""Plane geometry on arrays shaped (2, set-ups, samples), and one safeguarded root finder."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from widearc.core.arrays import Array, BoolArray


def vec(x: Array | float, y: Array | float) -> Array:
    """Return a point or vector array (2, ...) from its components, broadcast together."""
    ax, ay = np.asarray(x, dtype=float), np.asarray(y, dtype=float)
    # thousands of times a search: filling is ten times as quick as stacking what was broadcast
    made = np.empty((2, *(ax.shape if ax.shape == ay.shape else np.broadcast(ax, ay).shape)))
    made[0], made[1] = ax, ay
    return made


def spread(array: Array | float, shape: tuple[int, ...]) -> Array:
    """Return an array as a view of a larger shape; as it is where it has that shape already, as
    most do.
    """
    return (
        array
        if isinstance(array, np.ndarray) and array.shape == shape
        else np.broadcast_to(array, shape)
    )


def cross(r: Array, f: Array) -> Array:
    """Return the moment r × f about the z axis, anticlockwise positive (x forward, y up)."""
    return np.asarray(r[0] * f[1] - r[1] * f[0])


def lean(angle: Array | float) -> Array:
    """Return the unit vector leaning forward from the vertical by `angle` (rad)."""
    return vec(np.sin(angle), np.cos(angle))


def ahead(angle: Array | float) -> Array:
    """Return the unit vector square to `lean(angle)`, pointing forward."""
    return vec(np.cos(angle), -np.sin(angle))


def slope(angle: Array | float) -> Array:
    """Return the unit vector rising from the horizontal by `angle` (rad)."""
    return vec(np.cos(angle), np.sin(angle))


def third_side(a: Array | float, b: Array | float, flexion: Array | float) -> Array:
    """Return the distance between the ends of two links a, b (m) bent by `flexion` (rad, 0 =
    straight).
    """
    return np.asarray(np.sqrt(a * a + b * b + 2.0 * a * b * np.cos(flexion)))


def flexion_for(a: Array | float, b: Array | float, distance: Array) -> Array:
    """Return the bend (rad, 0 = straight) at which links a, b (m) span `distance`; NaN out of
    reach.
    """
    c = (distance**2 - np.square(a) - np.square(b)) / (2.0 * np.asarray(a) * b)
    with np.errstate(invalid="ignore"):
        return np.asarray(np.arccos(np.where(np.abs(c) <= 1.0, c, np.nan)))


def turning_root(at_0: Array, at_90: Array, at_180: Array) -> tuple[Array, BoolArray, Array]:
    """Return the angle θ (rad) with A sin θ + B cos θ + C = 0, where there is one, and the slope
    there.

    From the values at 0, 90 and 180° of a moment that falls as θ grows (A < 0): of the two roots
    the one on the falling branch. Without a root the angle comes closest.
    """
    c = 0.5 * (at_0 + at_180)
    b, a = at_0 - c, at_90 - c
    ratio = -c / np.maximum(np.hypot(a, b), 1e-12)
    theta = np.arctan2(b, -a) - np.arcsin(np.clip(ratio, -1.0, 1.0))
    return theta, np.abs(ratio) <= 1.0, a * np.cos(theta) - b * np.sin(theta)


def balanced_angle(
    moment: Callable[[Array], Array],
    span: tuple[float, float],
    shape: tuple[int, ...],
    *,
    turning: bool,
    start: Array,
) -> tuple[Array, BoolArray]:
    """Return the angle (rad, within `span`) at which a moment that falls with it is 0, and where
    there is one.

    turning: the moment is A sin θ + B cos θ + C, as weights on turning links make it: closed form.
    Otherwise a root search that starts from `start` (rad).
    """
    low, high = span
    if turning:
        theta, inside, _ = turning_root(
            *(moment(np.full((1, 1), quarter * np.pi / 2)) for quarter in (0, 1, 2))
        )
        theta = np.broadcast_to(theta, shape)
        found = np.asarray(inside & (theta >= low) & (theta <= high))
        return np.where(found, theta, np.nan), np.broadcast_to(found, shape)
    return bracketed_root(
        moment, np.full(shape, low), np.full(shape, high), np.broadcast_to(start, shape)
    )


def bracketed_root(
    f: Callable[[Array], Array],
    low: Array,
    high: Array,
    start: Array | None = None,
    tolerance: float = 1e-10,
    slope: Array | None = None,
) -> tuple[Array, BoolArray]:
    """Return the root (rad or m) of an elementwise function inside [low, high], and where one was
    found.

    Newton steps with a secant slope, kept inside a shrinking bracket (bisection when a step leaves
    it), all elements together. start: a first guess, else where a line between the ends is 0;
    slope: a first guess of f's there. Where f has the same sign at both ends the answer is NaN and
    found is False. Stops once a step is below `tolerance`, relative to the width of the first
    bracket: a secant step leaves far less than its own length of error, and at a kink no more.
    """
    a, b = np.array(low, dtype=float), np.array(high, dtype=float)
    fa, fb = f(a), f(b)
    found = np.asarray(np.sign(fa) * np.sign(fb) <= 0)
    with np.errstate(divide="ignore", invalid="ignore"):
        x = np.clip(a + (b - a) * (fa / (fa - fb)) if start is None else start, a, b)
    x = np.where(np.isfinite(x), x, 0.5 * (a + b))
    nearer = np.abs(fa) < np.abs(fb)
    previous, f_previous = np.where(nearer, a, b), np.where(nearer, fa, fb)
    width = np.max(np.abs(b - a)) if a.size else 0.0
    for trial in range(80):
        fx = f(x)
        same = np.sign(fx) == np.sign(fa)
        a, fa = np.where(same, x, a), np.where(same, fx, fa)
        b, fb = np.where(same, b, x), np.where(same, fb, fx)
        with np.errstate(divide="ignore", invalid="ignore"):
            step = (
                fx / slope
                if trial == 0 and slope is not None
                else fx * (x - previous) / (fx - f_previous)
            )
        step = np.where(np.isfinite(step), step, 0.0)
        previous, f_previous = x, fx
        x = x - step
        outside = (x < np.minimum(a, b)) | (x > np.maximum(a, b))
        x = np.where(outside, 0.5 * (a + b), x)
        moved = np.where(found & (fx != 0.0), np.abs(x - previous), 0.0)
        if not a.size or np.max(moved) <= tolerance * width:
            break
    return np.where(found, x, np.nan), found
