"""Whole effort of a set-up, and what less or more of its springs would do to it."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from widearc.core.equipment import SpringLoad
from widearc.core.statics import Curve, variant_curve, whole_effort

STEP = 0.2  # of the springs: so much less and more of them is tried
SAME = 0.005  # of the effort: less is no difference
NAMES = ("hip", "knee", "ankle")


@dataclass(frozen=True, slots=True, kw_only=True)
class Whole:
    """Whole effort of one set-up; less and more: with a fifth less and more of its springs, None
    without springs or where that cannot be done; rises and falls: leg joints of the moving leg that
    are asked more and less with more spring.
    """

    effort: float
    less: float | None = None
    more: float | None = None
    rises: tuple[str, ...] = ()
    falls: tuple[str, ...] = ()

    @property
    def harder(self) -> str:
        """Return which way is harder: "less" or "more" spring, "either" where the effort turns, an
        empty text where neither is or it is not known.
        """
        if self.less is None or self.more is None:
            return ""
        less, more = (v - self.effort > SAME * self.effort for v in (self.less, self.more))
        return "either" if less and more else "less" if less else "more" if more else ""


def whole_of(curve: Curve) -> Whole | None:
    """Return the whole effort of a curve of one set-up; None where none of its joints has a usual
    strength.
    """
    effort = whole_effort(curve)
    if effort is None:
        return None
    springs = [isinstance(load, SpringLoad) for load in curve.setup.loads]
    if curve.setup.exercise.family != "carriage" or not any(springs):
        return Whole(effort=float(effort[0]))

    def with_springs(share: float) -> Curve | None:
        """Return the curve with a share of the springs, None where it cannot be done."""
        loads = tuple(
            load.scaled(share) if sprung else load
            for load, sprung in zip(curve.setup.loads, springs, strict=True)
        )
        return variant_curve(replace(curve.setup, loads=loads))

    less, more = with_springs(1.0 - STEP), with_springs(1.0 + STEP)
    efforts = [None if made is None else whole_effort(made) for made in (less, more)]
    rises, falls = _ways(less or curve, more or curve)
    return Whole(
        effort=float(effort[0]),
        less=None if efforts[0] is None else float(efforts[0][0]),
        more=None if efforts[1] is None else float(efforts[1][0]),
        rises=rises,
        falls=falls,
    )


def _ways(less: Curve, more: Curve) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the leg joints that are asked more, and less, on the mean, with more spring."""
    asked = {
        name: [float(np.abs(made.demand_nm[name]).mean()) for made in (less, more)]
        for name in NAMES
        if name in less.demand_nm and name in more.demand_nm
    }
    rises = tuple(n for n, (a, b) in asked.items() if b > a + max(0.02 * a, 0.5))
    falls = tuple(n for n, (a, b) in asked.items() if b < a - max(0.02 * a, 0.5))
    return rises, falls
