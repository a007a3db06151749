"""Paths of a drawing: lines and areas through points, px, to a tenth."""

from __future__ import annotations

from widearc.core.arrays import Array


def line(x: Array, y: Array) -> str:
    """Return the path along points."""
    return "M" + "L".join(f"{a:.1f} {b:.1f}" for a, b in zip(x, y, strict=True))


def between(x: Array, high: Array, low: Array) -> str:
    """Return the area between two lines over the same x."""
    return f"{line(x, high)}L{line(x[::-1], low[::-1])[1:]}Z"


def down_to(x: Array, y: Array, base: float) -> str:
    """Return the area between a line and a level."""
    return f"{line(x, y)}L{x[-1]:.1f} {base:.1f}L{x[0]:.1f} {base:.1f}Z"
