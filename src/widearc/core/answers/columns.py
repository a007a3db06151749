"""What stands beside the match and is never folded into it: columns to sort by and to weigh."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np

from widearc.core.body import PORTS
from widearc.core.muscle import JOINTS, muscle_use
from widearc.core.search import Candidate
from widearc.core.statics import Curve, grip_n, lumbar
from widearc.core.units import G

COLUMNS: Mapping[str, str] = MappingProxyType(
    {
        "match": "match",
        "shape": "shape",
        "long": "share of the work where lengthened",
        "steady": "steadiness",
        "alone": "failing alone",
        "minutes": "set-up minutes",
        "step": "smallest step",
        "spine": "low back",
    }
)


ALONE = {"yes": 1.0, "with stops": 0.5, "no": 0.0}


MOST_WEIGHT = 5.0


FILTERS = ("alone", "spine", "quick", "step")


QUICK_MINUTES = 2.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Beside:
    """A stand-in's columns. minutes: to set up; step: share, None: none left; steady 1 to 5; alone:
    in words.

    spine: its greatest low-back moment over the wanted exercise's, None where one has no estimate;
    hand_kg: what one hand holds at most, None for free hands; axial: whether it presses on the
    spine; long: share of the work done in the lengthened third of the wanted range.
    """

    minutes: float
    step: float | None
    steady: int
    alone: str
    spine: float | None
    hand_kg: float | None
    axial: bool
    long: float

    def passes(self, only: Collection[str]) -> bool:
        """Return whether it passes every filter of FILTERS that is named; none of them changes a
        match.
        """
        fails = {
            "alone": self.alone != "yes",
            "spine": self.axial,
            "quick": self.minutes > QUICK_MINUTES,
            "step": self.step is None,
        }
        return not any(fails[name] for name in only)

    def good(self, column: str) -> float:
        """Return a column as 0 to 1, 1 being what a trainer would rather have."""
        if column == "steady":
            return (self.steady - 1) / 4.0
        if column == "alone":
            return ALONE[self.alone]
        if column == "minutes":
            return max(0.0, 1.0 - self.minutes / 10.0)
        if column == "step":
            return 0.0 if self.step is None else max(0.0, 1.0 - self.step / 0.3)
        if column == "spine":
            return 1.0 if self.spine is None else max(0.0, 1.0 - 0.5 * self.spine)
        return self.long


def beside(candidate: Candidate, wanted: Curve | None) -> Beside:
    """Return a stand-in's columns beside the wanted exercise (None: an intent)."""
    own, exercise = candidate.curve, candidate.exercise
    spine = None
    here = lumbar(own.setup, own.motion)
    there = None if wanted is None else lumbar(wanted.setup, wanted.motion)
    if here is not None and there is not None and float(np.abs(there.moment_nm[0]).max()) > 1.0:
        spine = float(np.abs(here.moment_nm[0]).max() / np.abs(there.moment_nm[0]).max())
    grip = grip_n(own.setup, own.motion)
    main = int(np.argmax([b.sum() for b in candidate.comparison.bins]))
    return Beside(
        minutes=exercise.minutes,
        step=candidate.step,
        steady=exercise.steadiness,
        alone=exercise.fails_alone,
        spine=spine,
        hand_kg=None if grip is None else float(np.nanmax(grip[0])) / G,
        axial=any(
            PORTS[getattr(x, "port", "sole")].axial for x in own.setup.loads if hasattr(x, "port")
        ),
        long=float(candidate.comparison.long_third_share[main][0]),
    )


def weighted(match: float, columns: Beside, weights: Mapping[str, float]) -> float:
    """Return the match with the weighted columns, 0 to 1: (match + sum of weight x column) / (1 +
    sum of weights).
    """
    total = 1.0 + sum(weights.values())
    return (match + sum(w * columns.good(name) for name, w in weights.items())) / total


def sorted_by(
    candidates: Sequence[Candidate],
    columns: Mapping[str, Beside],
    by: str,
    weights: Mapping[str, float],
) -> list[Candidate]:
    """Return candidates sorted by a column, the better first; equal ones keep the order of the
    match.

    columns: by exercise id. by: one of COLUMNS, or "sum" for the weighted sum.
    """

    def key(candidate: Candidate) -> float:
        """Return what a candidate is sorted by."""
        own = columns[candidate.exercise.id]
        if by == "sum":
            return -weighted(candidate.match, own, weights)
        if by == "match":
            return 0.0
        return -candidate.shape if by == "shape" else -own.good(by)

    return sorted(candidates, key=key)


def muscle_thirds(curve: Curve, group: str) -> tuple[float, float, float] | None:
    """Return a muscle group's work over its own length (J of one leg; long, middle, short third);
    None without any.
    """
    demand = {j: curve.demand_nm[j][0] for j in JOINTS if j in curve.demand_nm}
    if not demand or max(float(np.abs(d).max()) for d in demand.values()) < 1.0:
        return None
    angles = {j: curve.motion.angles[j][0] for j in JOINTS if j in curve.motion.angles}
    thirds = muscle_use(angles, demand, curve.setup.body).of(group).thirds_j
    return (max(thirds[0], 0.0), max(thirds[1], 0.0), max(thirds[2], 0.0))


def muscle_match(
    wanted: tuple[float, float, float], own: tuple[float, float, float] | None
) -> float:
    """Return work in common over work in either, by thirds of a muscle's own length, 0 to 1."""
    if own is None:
        return 0.0
    high = sum(max(a, b) for a, b in zip(wanted, own, strict=True))
    return sum(min(a, b) for a, b in zip(wanted, own, strict=True)) / high if high > 0 else 0.0
