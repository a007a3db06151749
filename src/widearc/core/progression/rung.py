"""A rung and a ladder, and what they are measured by."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import Load, SpringLoad
from widearc.core.kit import Piece
from widearc.core.movement import Setup
from widearc.core.progression.weights import weight_of
from widearc.core.setups import ELASTIC
from widearc.core.statics import Curve, leg_effort, peak_effort, whole_effort

WIDE = 0.10
"""A wider step is a wide one (common practice, no source)."""

SAMPLES = 101


@dataclass(frozen=True, slots=True, kw_only=True)
class Lighter:
    """Where on its way a lift asks less than another does: from and to, of its travel, 0 to 1."""

    start: float
    end: float


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Rung:
    """One set-up of a ladder.

    effort: its place, by the ladder's measure; peak: the greatest share of usual strength that any
    joint is asked, leg: whole effort of the working leg, None without one; demand_nm: mean on the
    joint that is asked most; joints: mean demand by joint, N·m; pull_n: of all its loads together
    at start, middle and end of the lift, N; elastic_n: of its bands and springs, mean; kg: its
    weight, where one can be changed. step: how much more than the rung below (None for the lowest),
    of the load where of_load; effort_step: of effort always. lighter: where it asks less than the
    rung below all the same. same: others that ask as much. items: what it uses, by id.
    """

    setup: Setup
    pieces: tuple[Piece, ...]
    bands: tuple[str, ...]
    kg: float | None
    effort: float
    peak: float | None
    leg: float | None
    demand_nm: float
    joints: Mapping[str, float]
    pull_n: tuple[float, float, float]
    elastic_n: float
    step: float | None = None
    effort_step: float | None = None
    of_load: bool = False
    lighter: Lighter | None = None
    same: tuple[tuple[Piece, ...], ...] = ()
    items: tuple[str, ...] = ()
    asked_nm: Array = field(repr=False)

    @property
    def wide(self) -> bool:
        """Return whether the step to it is a wide one."""
        return self.step is not None and self.step > WIDE + 1e-9

    @property
    def size(self) -> float:
        """Return its weight (kg) where one can be changed, its effort otherwise: what a share of
        it is a share of.
        """
        return self.kg or self.effort


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Ladder:
    """Rungs from the least to the most that is asked. measure: "whole effort", "demand" (N·m) or
    "force" (N), by what is known; joint: the one that is asked most, None where none is; present:
    which rung is what is done now; next: the next step, None where the next rung is too wide or
    there is none. turning: the rung from which more pull of springs or bands is harder and less is
    harder too; None where one of them is not.
    """

    rungs: tuple[Rung, ...]
    measure: str
    joint: str | None
    present: int
    next: int | None
    turning: int | None

    @property
    def now(self) -> Rung:
        """Return the rung that is done now."""
        return self.rungs[self.present]

    @property
    def above(self) -> Rung | None:
        """Return the rung above the present one."""
        return self.rungs[self.present + 1] if self.present + 1 < len(self.rungs) else None

    @property
    def below(self) -> Rung | None:
        """Return the rung below the present one."""
        return self.rungs[self.present - 1] if self.present else None

    def no_more_than(self, share: float) -> int:
        """Return which rung is the highest that is no more than a share of the present one; the
        lowest where none is.
        """
        most = share * self.now.size * (1.0 + 1e-9)
        fits = [i for i, r in enumerate(self.rungs) if _size_beside(r, self.now) <= most]
        return max(fits, default=0)


def _size_beside(rung: Rung, now: Rung) -> float:
    """Return what a rung is in the measure of another's size: its weight where that alone differs,
    else its effort on that scale.
    """
    if now.kg and rung.bands == now.bands:
        return rung.kg or 0.0
    return now.size * rung.effort / now.effort


def rungs_of(
    found: Curve, setups: Sequence[Setup], pieces: Sequence[tuple[Piece, ...]], joint: str | None
) -> list[Rung]:
    """Return the rungs that a curve's rows are; joint: the one that is asked most."""
    rows = len(setups)
    efforts = np.broadcast_to(efforts_of(found), (rows,))
    peaks, legs = (_of_rows(f(found), rows) for f in (peak_effort, leg_effort))
    pulls = np.broadcast_to(pulls_of(found), (rows, SAMPLES))
    elastic = [i for i, load in enumerate(found.setup.loads) if is_elastic(load)]
    springs = np.broadcast_to(pulls_of(found, elastic), (rows, SAMPLES)).mean(axis=1)
    demands = {j: np.broadcast_to(np.abs(nm), (rows, SAMPLES)) for j, nm in found.demand_nm.items()}
    asked = demands.get(joint or "", np.zeros((rows, 0)))
    return [
        Rung(
            setup=setups[i],
            pieces=pieces[i],
            bands=bands_of(pieces[i]),
            kg=weight_of(setups[i]),
            effort=float(efforts[i]),
            peak=None if peaks is None else float(peaks[i]),
            leg=None if legs is None else float(legs[i]),
            demand_nm=float(asked[i].mean()) if asked[i].size else 0.0,
            joints={j: float(nm[i].mean()) for j, nm in demands.items()},
            pull_n=(float(pulls[i, 0]), float(pulls[i, SAMPLES // 2]), float(pulls[i, -1])),
            elastic_n=float(springs[i]),
            asked_nm=asked[i],
        )
        for i in range(rows)
    ]


def _of_rows(values: Array | None, rows: int) -> Array | None:
    return None if values is None else np.broadcast_to(values, (rows,))


def most_asked(found: Curve) -> str | None:
    """Return the joint with the highest demand of all set-ups, N·m; None where none is known."""
    most = {j: float(np.abs(nm[0]).max()) for j, nm in found.demand_nm.items()}
    return max(most, key=lambda j: most[j], default=None)


def measure_of(found: Curve) -> str:
    """Return by what rungs of such a curve are told apart: "whole effort", "demand" or "force"."""
    if whole_effort(found) is not None:
        return "whole effort"
    return "demand" if found.demand_nm else "force"


def efforts_of(found: Curve) -> Array:
    """Return what set-ups ask, (set-ups,): whole effort where usual strengths are known, else mean
    demand on the joint that is asked most, N·m, else the mean pull of their loads, N.
    """
    whole = whole_effort(found)
    if whole is not None:
        return whole
    joint = most_asked(found)
    if joint is not None:
        return np.asarray(np.abs(found.demand_nm[joint]).mean(axis=1))
    return np.asarray(pulls_of(found).mean(axis=1))


def pulls_of(found: Curve, loads: Sequence[int] | None = None) -> Array:
    """Return what all loads of set-ups pull together, N, (set-ups, samples); loads: only those.
    What pulls a carriage acts on the body through it.
    """
    total: Array = np.zeros(found.motion.shape)
    wanted = range(len(found.setup.loads)) if loads is None else loads
    sources = {f"load {i}" for i in wanted}
    for force in found.motion.forces:
        if force.source in sources:
            total = total + np.hypot(force.force[0], force.force[1])
    for i in wanted:
        load = found.setup.loads[i]
        if isinstance(load, SpringLoad) and load.port == "carriage":
            total = total + load.pull_n(found.motion.load_lengths[i], lowering=False)
    return total


def is_elastic(load: Load) -> bool:
    """Return whether a load is a band or spring: it pulls the more, the longer it is."""
    return getattr(load, "made_of", "") == "elastic"


def kinds_of_pieces(pieces: Sequence[Piece]) -> frozenset[str]:
    """Return what kinds of things are picked up, plates aside: they go on any bar."""
    return frozenset(piece.kind for piece in pieces) - {"plate"}


def bands_of(pieces: Sequence[Piece]) -> tuple[str, ...]:
    """Return the bands and springs among what is picked up, each as often as it is there."""
    elastic = (p for p in pieces if p.kind in ELASTIC)
    return tuple(sorted(p.label for p in elastic for _ in range(p.number)))
