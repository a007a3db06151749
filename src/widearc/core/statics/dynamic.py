"""The same posture lifted at a tempo: demands with the inertia of body and weights.

Rep position follows a minimum-jerk profile, s(τ) = 10τ³ − 15τ⁴ + 6τ⁵ (Flash & Hogan 1985), τ from 0
to 1 over the lifting time. Postures are those of the slow lift; contacts answer the inertia too.
Where the slow posture has a corner (an ankle meets its limit, a foot leaves the floor) no body
could follow it at speed: there its paths are taken as the closest curves of fourth degree. Bands
and springs have no mass. Radii of gyration about the centre of mass: Winter 2009, table 4.1 (from
memory).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from widearc.core.arrays import Array
from widearc.core.movement import Motion
from widearc.core.statics.demand import Curve, demand_nm
from widearc.core.units import G

GYRATION = {"foot": 0.475, "shank": 0.302, "thigh": 0.323, "trunk": 0.496, "arms": 0.368}
ENDS = {
    "foot": ("heel", "toe"),
    "shank": ("knee", "ankle"),
    "thigh": ("hip", "knee"),
    "trunk": ("hip", "shoulder"),
    "arms": ("shoulder", "hand"),
}


def profile(position: Array, seconds: float) -> tuple[Array, Array]:
    """Return speed (1/s) and acceleration (1/s²) of the rep position at given positions (0 to
    1).
    """
    tau = np.linspace(0.0, 1.0, 20001)
    t = np.interp(position, 10 * tau**3 - 15 * tau**4 + 6 * tau**5, tau)
    # one Newton step where the profile is not flat: interpolation alone leaves 1e-5
    slope = 30 * t**2 - 60 * t**3 + 30 * t**4
    gap = 10 * t**3 - 15 * t**4 + 6 * t**5 - position
    t = np.where(slope > 1e-3, t - gap / np.where(slope > 1e-3, slope, 1.0), t)
    speed = (30 * t**2 - 60 * t**3 + 30 * t**4) / seconds
    return speed, (60 * t - 180 * t**2 + 120 * t**3) / seconds**2


def derivatives(values: Array, step: float) -> tuple[Array, Array]:
    """Return first and second derivative along the last axis: fourth order inside, second order at
    the ends.
    """
    first = np.gradient(values, step, axis=-1, edge_order=2)
    second = np.gradient(first, step, axis=-1, edge_order=2)
    f = values
    first[..., 2:-2] = (f[..., :-4] - 8 * f[..., 1:-3] + 8 * f[..., 3:-1] - f[..., 4:]) / (
        12 * step
    )
    second[..., 2:-2] = (
        -f[..., :-4] + 16 * f[..., 1:-3] - 30 * f[..., 2:-2] + 16 * f[..., 3:-1] - f[..., 4:]
    ) / (12 * step**2)
    return first, second


DEGREE = (
    4  # of the curves that replace paths with a corner (assumed: start, end, speeds and one bow)
)
STEPS = ("lunge", "step-up")
CORNER = 12.0  # times the usual bend of a path: sharper is a corner


def rounded(values: Array) -> Array:
    """Return paths as the closest curves of fourth degree along the lift (least squares, last
    axis).
    """
    s = np.linspace(-1.0, 1.0, values.shape[-1])
    basis = np.polynomial.chebyshev.chebvander(s, DEGREE)
    return np.asarray(values @ (basis @ np.linalg.pinv(basis)).T)


def has_corner(values: Array) -> bool:
    """Return whether a path bends somewhere far more sharply than it does elsewhere."""
    bend = np.abs(np.diff(values, n=2, axis=-1))
    usual = np.nanpercentile(bend, 80, axis=-1, keepdims=True)
    size = np.ptp(values, axis=-1, keepdims=True)
    return bool(np.any(bend > np.maximum(CORNER * usual, 1e-6 * size + 1e-9)))


def lifted(motion: Motion, seconds: float) -> Motion:
    """Return the motion with inertia and contacts of a lift that takes `seconds`."""
    speed, acceleration = profile(motion.position, seconds)
    step = float(motion.position[1] - motion.position[0])
    corners = any(has_corner(motion.full(part.com)) for part in motion.segments)

    def smooth(values: Array) -> Array:
        """Return a path that can be differentiated twice."""
        return rounded(motion.full(values)) if corners else motion.full(values)

    def sped(values: Array) -> Array:
        """Return a path's acceleration in time, its own unit per s²."""
        first, second = derivatives(smooth(values), step)
        return np.asarray(second * speed**2 + first * acceleration)

    fast = replace(
        motion,
        forces=[f for f in motion.forces if not f.source.startswith("contact")],
        couples=[c for c in motion.couples if not c[2].startswith("contact")],
        notices=[],
        failed=dict(motion.failed),
        marks=dict(motion.marks),
        speeding=[],
        dynamic=True,
    )
    for part in motion.segments:
        fast.add_force(part.name, part.com, -part.mass_kg * sped(part.com), f"inertia {part.name}")
        _turn(motion, fast, part.name, part.mass_kg, sped)
    for inertia in motion.inertias:
        if inertia.towards is None or inertia.travel is None:
            fast.add_force(
                inertia.segment, inertia.point, -inertia.kg * sped(inertia.point), "inertia load"
            )
        else:
            extra = np.asarray(inertia.kg * sped(inertia.travel))
            if inertia.segment == "sled":
                fast.speeding.append((inertia, extra))
            else:
                fast.add_force(
                    inertia.segment, inertia.point, -extra * inertia.towards, "inertia load"
                )
    for segment, _, kgm2 in motion.turning:
        angle = _orientation(motion, segment)
        turn, _ = derivatives(smooth(angle), step)
        change, _ = derivatives(smooth(kgm2), step)
        fast.couples.append(
            (segment, -(kgm2 * sped(angle) + 0.5 * change * turn * speed**2), "inertia stack")
        )
    if fast.closure is not None:
        fast.closure(fast)
    return fast


def _orientation(motion: Motion, segment: str) -> Array:
    prefix = next((p for p in ("rear_", "other_") if segment.startswith(p)), "")
    start, end = ENDS[segment.removeprefix(prefix)]
    points = motion.points
    a = motion.full(points[prefix + start if prefix + start in points else start])
    b = motion.full(points[prefix + end if prefix + end in points else end])
    return np.unwrap(np.arctan2(b[1] - a[1], b[0] - a[0]), axis=-1)


def _turn(
    motion: Motion, fast: Motion, segment: str, mass_kg: float, sped: Callable[[Array], Array]
) -> None:
    """Add the couple of a segment's own moment of inertia."""
    bare = segment.removeprefix("rear_").removeprefix("other_")
    if bare not in ENDS or any(name not in motion.points for name in ENDS[bare]):
        return
    prefix = segment[: len(segment) - len(bare)]
    start, end = (
        motion.full(motion.points[prefix + n if prefix + n in motion.points else n])
        for n in ENDS[bare]
    )
    length = float(np.nanmax(np.hypot(*(end - start))))
    couple = -mass_kg * (GYRATION[bare] * length) ** 2 * sped(_orientation(motion, segment))
    fast.couples.append((segment, couple, f"inertia {segment}"))


def dynamic_nm(curve: Curve, seconds: float) -> dict[str, Array]:
    """Return the demands (N·m, (set-ups, samples)) of a lift that takes `seconds`, by the curve's
    working joints.

    Empty for steps and lunges: a fast step is a fall that is caught, which balance at rest does not
    describe.
    """
    if curve.setup.exercise.variant in STEPS:
        return {}
    fast = lifted(curve.motion, seconds)
    return {name: demand_nm(fast, name) for name in curve.demand_nm}


def inertia_percent(travel_m: float, seconds: float) -> float:
    """Return how much a free weight's force swings at the peak, in percent either way: 59·d/T²
    (minimum jerk).
    """
    return float(5.77 * travel_m / seconds**2 / G * 100.0)
