"""How rubber pulls: the laws of a band's strand."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, ClassVar

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError
from widearc.core.words import Count, Distance, Figure, Force, Name, Said

SAFE_STRETCH = 2.5  # of the rest length: beyond it a warning (common practice, no source)


REFUSED_STRETCH = (
    3.0  # of the rest length: beyond it the set-up is refused (common practice, no source)
)


def _number(where: str, value: float, low: float, high: float, unit: str) -> None:
    if not np.isfinite(value) or not low <= value <= high:
        raise InputError(
            where,
            value,
            Said("from {low} to {high}", low=Figure(low), high=Figure(high, f" {unit}")),
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class LinearLaw:
    """A straight line with slack: f = k (L - L0) for one unfolded strand, 0 when shorter.

    rest_m L0 0.02 to 10 m, rate_n_per_m k 0 to 100,000 N/m.
    """

    kind: ClassVar[str] = "linear"
    rest_m: float
    rate_n_per_m: float

    def __post_init__(self) -> None:
        """Check both numbers."""
        _number("rest_m", self.rest_m, 0.02, 10, "m")
        _number("rate_n_per_m", self.rate_n_per_m, 0, 1e5, "N/m")

    def scaled(self, factor: float) -> LinearLaw:
        """Return a law whose pull is `factor` times as much at every length."""
        return replace(self, rate_n_per_m=self.rate_n_per_m * factor)

    def halved(self) -> LinearLaw:
        """Return the law of half a strand: the same pull at half the length."""
        return LinearLaw(rest_m=self.rest_m / 2, rate_n_per_m=self.rate_n_per_m * 2)

    def key(self) -> tuple[object, ...]:
        """Return a hashable value that is equal for equal laws."""
        return (self.rest_m, self.rate_n_per_m)

    @property
    def measured_to_m(self) -> float:
        """Return the longest length the law speaks for (m): a line has no end of its own."""
        return float("inf")

    def force_n(self, length: Array) -> Array:
        """Return the pull (N) of one strand at `length` (m), 0 or more, same shape."""
        return np.maximum(0.0, self.rate_n_per_m * (length - self.rest_m))

    def energy_j(self, length: Array) -> Array:
        """Return the energy stored (J) in one strand at `length` (m), 0 at rest, same shape."""
        return np.asarray(0.5 * self.rate_n_per_m * np.maximum(0.0, length - self.rest_m) ** 2)


@dataclass(frozen=True, kw_only=True, eq=False)
class PointsLaw:
    """Readings joined by a monotone cubic (Fritsch & Carlson 1980, SciPy's PCHIP), for one unfolded
    strand.

    rest_m m; length_m strictly rising m; force_n N, never falling, 0 or more. Below the rest length
    the pull is 0; from rest to the first reading the curve starts at 0; past the last reading it
    goes on as a straight line of the last slope and `measured_to_m` says where that begins.
    """

    kind: ClassVar[str] = "points"
    rest_m: float
    length_m: tuple[float, ...]
    force_n_at: tuple[float, ...]

    def __post_init__(self) -> None:
        """Check the table."""
        _number("rest_m", self.rest_m, 0.02, 10, "m")
        check_table(self.length_m, self.force_n_at)
        if max(self.length_m) <= self.rest_m:
            raise InputError(
                "length_m",
                max(self.length_m),
                Said("longer than the rest length {distance}", distance=Distance(self.rest_m)),
            )

    @cached_property
    def _cubic(self) -> tuple[Any, Any, tuple[float, float, float, float]]:
        """Return the cubic, its integral, and where it ends: length m, pull N, slope N/m, energy
        J.
        """
        # scipy.interpolate costs about a second to import: only when a band is really pulled
        from scipy.interpolate import PchipInterpolator

        pairs = [
            (L, f) for L, f in zip(self.length_m, self.force_n_at, strict=True) if self.rest_m < L
        ]
        x, y = np.array([(self.rest_m, 0.0), *pairs]).T
        cubic = PchipInterpolator(x, y)
        integral = cubic.antiderivative()
        # the slope of the last interval, not the cubic's end slope, which may be flat
        end_slope = (y[-1] - y[-2]) / (x[-1] - x[-2])
        return cubic, integral, (x[-1], y[-1], end_slope, float(integral(x[-1])))

    def scaled(self, factor: float) -> PointsLaw:
        """Return a law whose pull is `factor` times as much at every length."""
        pulls = tuple(f * factor for f in self.force_n_at)
        return PointsLaw(rest_m=self.rest_m, length_m=self.length_m, force_n_at=pulls)

    def halved(self) -> PointsLaw:
        """Return the law of half a strand: the same pull at half the length."""
        lengths = tuple(length / 2 for length in self.length_m)
        return PointsLaw(rest_m=self.rest_m / 2, length_m=lengths, force_n_at=self.force_n_at)

    def key(self) -> tuple[object, ...]:
        """Return a hashable value that is equal for equal laws."""
        return (self.rest_m, self.length_m, self.force_n_at)

    @property
    def measured_to_m(self) -> float:
        """Return the longest length that was measured, m."""
        return self.length_m[-1]

    def force_n(self, length: Array) -> Array:
        """Return the pull (N) of one strand at `length` (m), 0 or more, same shape."""
        cubic, _, (last, _, slope, _) = self._cubic
        inside = cubic(np.clip(length, self.rest_m, last))
        return np.asarray(np.maximum(inside, 0.0) + slope * np.maximum(0.0, length - last))

    def energy_j(self, length: Array) -> Array:
        """Return the energy stored (J) in one strand at `length` (m), 0 at rest, same shape."""
        _, integral, (last, top, slope, _) = self._cubic
        past = np.maximum(0.0, length - last)
        inside = integral(np.clip(length, self.rest_m, last))
        return np.asarray(inside + top * past + 0.5 * slope * past**2)


@dataclass(frozen=True, slots=True, kw_only=True)
class MooneyRivlinLaw:
    """Rubber in simple tension, for one unfolded strand: f = 2·A0·(C1 + C2/λ)·(λ − 1/λ²), λ = L /
    L0.

    rest_m L0 m; area_m2 A0 at rest; c1_pa, c2_pa Pa, C1 + C2 above 0 and no fall up to λ = 3.
    Source: Treloar, The Physics of Rubber Elasticity (Mooney 1940, Rivlin 1948).
    """

    kind: ClassVar[str] = "mooney-rivlin"
    rest_m: float
    area_m2: float
    c1_pa: float
    c2_pa: float

    def __post_init__(self) -> None:
        """Check the numbers, and that the pull grows with stretch as far as a band may be
        stretched.
        """
        _number("rest_m", self.rest_m, 0.02, 10, "m")
        _number("area_m2", self.area_m2, 1e-8, 0.01, "m²")
        _number("c1_pa", self.c1_pa, -1e7, 1e8, "Pa")
        _number("c2_pa", self.c2_pa, -1e8, 1e8, "Pa")
        pull = self.force_n(self.rest_m * np.linspace(1.0, REFUSED_STRETCH, 50))
        if pull[-1] <= 0 or np.any(np.diff(pull) < 0):
            raise InputError(
                "c2_pa",
                self.c2_pa,
                Said("constants whose pull grows with stretch up to 3 times the rest length"),
            )

    def scaled(self, factor: float) -> MooneyRivlinLaw:
        """Return a law whose pull is `factor` times as much at every length."""
        return replace(self, area_m2=self.area_m2 * factor)

    def halved(self) -> MooneyRivlinLaw:
        """Return the law of half a strand: the same pull at half the length."""
        return replace(self, rest_m=self.rest_m / 2)

    def key(self) -> tuple[object, ...]:
        """Return a hashable value that is equal for equal laws."""
        return (self.rest_m, self.area_m2, self.c1_pa, self.c2_pa)

    @property
    def measured_to_m(self) -> float:
        """Return the longest length the law speaks for (m): no end of its own."""
        return float("inf")

    def force_n(self, length: Array) -> Array:
        """Return the pull (N) of one strand at `length` (m), 0 when shorter than at rest."""
        stretch = np.maximum(length / self.rest_m, 1.0)
        pull = 2.0 * self.area_m2 * (self.c1_pa + self.c2_pa / stretch) * (stretch - stretch**-2)
        return np.asarray(np.maximum(pull, 0.0))

    def energy_j(self, length: Array) -> Array:
        """Return the energy stored (J): A0·L0·(C1(λ² + 2/λ − 3) + C2(2λ + 1/λ² − 3))."""
        stretch = np.maximum(length / self.rest_m, 1.0)
        first = self.c1_pa * (stretch**2 + 2.0 / stretch - 3.0)
        second = self.c2_pa * (2.0 * stretch + stretch**-2 - 3.0)
        return np.asarray(self.area_m2 * self.rest_m * (first + second))


BandLaw = LinearLaw | PointsLaw | MooneyRivlinLaw


def check_table(length_m: tuple[float, ...], force_n: tuple[float, ...]) -> None:
    """Refuse a table of readings that no band gives; the error's `where` is the row's pointer.

    Fewer than two readings, unequal columns, lengths (m) that do not rise, pulls (N) below 0 or
    falling.
    """
    if len(length_m) != len(force_n):
        raise InputError(
            "force_n",
            len(force_n),
            Said("as many as {name}, {count}", name=Name("length_m"), count=Count(len(length_m))),
        )
    if len(length_m) < 2:
        raise InputError("length_m", len(length_m), Said("two readings or more"))
    for row, (length, force) in enumerate(zip(length_m, force_n, strict=True)):
        _number(f"length_m/{row}", length, 0.02, 20, "m")
        _number(f"force_n/{row}", force, 0, 20000, "N")
        if row and length <= length_m[row - 1]:
            raise InputError(
                f"length_m/{row}",
                length,
                Said(
                    "longer than the reading before, {distance}",
                    distance=Distance(length_m[row - 1]),
                ),
            )
        if row and force < force_n[row - 1]:
            raise InputError(
                f"force_n/{row}",
                force,
                Said(
                    "no less than the reading before, {force}: the band is longer",
                    force=Force(force_n[row - 1]),
                ),
            )
