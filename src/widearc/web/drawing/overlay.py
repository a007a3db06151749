"""Up to five exercises in one drawing: curves over one joint's angle, differences in words, who
does the work.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from widearc import usecases
from widearc.core.arrays import Array
from widearc.core.curve import STILL, Action
from widearc.core.errors import TargetError
from widearc.core.matching import compare, target_of
from widearc.core.muscle import GROUPS, NAMES, positive_work_j
from widearc.core.search import sentence
from widearc.core.statics import Curve, joint_work_j, low_back_ratio, mean_split
from widearc.core.units import to_deg
from widearc.core.words import Angle, Listed, Moment, Said, Share, Term, Work
from widearc.web.drawing import path
from widearc.web.drawing.areas import Areas, line_of
from widearc.web.drawing.axis import Tick, degree_ticks, value_ticks
from widearc.web.drawing.curves import NAMES as JOINT_NAMES
from widearc.web.drawing.curves import NEGATIVE, POSITIVE
from widearc.web.drawing.strip import strip_alone
from widearc.web.words.words import whole
from widearc.words import say, tell, tr

WIDTH, LEFT, RIGHT, TOP, BASE = 744.0, 44.0, 14.0, 24.0, 330.0
JOINTS = ("hip", "knee", "ankle", "hip_abduction")
LEAST_SHARE = 0.03  # of the work: a muscle with less in every exercise is left out


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Pinned:
    """One pinned exercise: its letter, its set-up in words, its address, its curve, where it felt
    hardest.
    """

    letter: str
    words: str
    query: str
    curve: Curve
    felt: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawn:
    """One curve: letter, path, where its letter stands, px."""

    letter: str
    path: str
    x: float
    y: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """One exercise in words and numbers: peak in words, hip : knee : ankle of the mean demand, work
    one leg.
    """

    letter: str
    words: str
    query: str
    peak: str
    split: str
    work: str
    against: str
    spine: str
    strip: Areas | None = None
    felt: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Compared:
    """Everything the comparison shows; muscles: name and share of the work in each, gains in
    words.
    """

    joint: str
    joints: tuple[str, ...]
    action: str
    drawn: tuple[Drawn, ...]
    absent: tuple[str, ...]
    x_ticks: tuple[Tick, ...]
    y_ticks: tuple[Tick, ...]
    rows: tuple[Row, ...]
    muscles: tuple[tuple[str, tuple[str, ...]], ...]
    gains: tuple[str, ...]
    table: tuple[tuple[str, ...], ...]


def overlaid(pins: Sequence[Pinned], joint: str, *, own_peak: bool) -> Compared:
    """Return the comparison over one joint; own_peak: each curve to its own peak, else in N·m."""
    moving = tuple(j for j in JOINTS if any(_moves(p.curve, j) for p in pins))
    prime = next(
        (a.joint for a in pins[0].curve.setup.exercise.prime if a.joint in moving),
        moving[0] if moving else "",
    )
    joint = joint if joint in moving else prime
    shown = [p for p in pins if joint and _moves(p.curve, joint)]
    action = _action(shown, joint)
    drawn, x_ticks, y_ticks, table = _draw(shown, joint, action, own_peak=own_peak)
    uses = [usecases.muscles(p.curve) for p in pins]
    return Compared(
        joint=joint,
        joints=moving,
        action=action.words,
        drawn=drawn,
        absent=tuple(p.letter for p in pins if p not in shown),
        x_ticks=x_ticks,
        y_ticks=y_ticks,
        rows=tuple(_row(p, pins[0]) for p in pins),
        muscles=_muscles(uses),
        gains=_gains(pins, uses),
        table=table,
    )


def _moves(curve: Curve, joint: str) -> bool:
    return joint in curve.demand_nm and float(np.ptp(curve.motion.angles[joint][0])) >= STILL


def _action(pins: Sequence[Pinned], joint: str) -> Action:
    """Return the action of the joint that the first exercise is for, else what its curve asks
    most.
    """
    if not pins:
        return Action.KE
    for action in pins[0].curve.setup.exercise.prime:
        if action.joint == joint:
            return action
    demand = pins[0].curve.demand_nm[joint][0]
    most = demand[int(np.argmax(np.abs(demand)))]
    return POSITIVE[joint] if most >= 0 else NEGATIVE[joint] or POSITIVE[joint]


def _draw(
    pins: Sequence[Pinned], joint: str, action: Action, *, own_peak: bool
) -> tuple[tuple[Drawn, ...], tuple[Tick, ...], tuple[Tick, ...], tuple[tuple[str, ...], ...]]:
    if not pins:
        return (), (), (), ()
    angles = [to_deg(p.curve.motion.angles[joint][0]) for p in pins]
    low, high = np.floor(min(a.min() for a in angles)), np.ceil(max(a.max() for a in angles))
    grid = np.arange(low, high + 0.25, 0.5)[:: action.direction]
    lines = [
        line_of(a, p.curve.demand_nm[joint][0], action, grid).value
        for a, p in zip(angles, pins, strict=True)
    ]
    if own_peak:
        lines = [100 * v / max(float(np.nanmax(v)), 1e-9) for v in lines]
    most = max(10.0, max(float(np.nanmax(v)) for v in lines))
    x = LEFT + (WIDTH - LEFT - RIGHT) * np.abs(grid - grid[0]) / max(high - low, 1e-9)
    per = (BASE - TOP) / most
    drawn = tuple(_drawn(p.letter, x, BASE - per * v) for p, v in zip(pins, lines, strict=True))
    y_ticks = value_ticks(0.0, 1.01 * most, BASE, per, gap=40.0, least=5)
    x_ticks = degree_ticks(grid, x)
    table = tuple(
        (f"{whole(grid[i])}°", *(whole(v[i]) if np.isfinite(v[i]) else "–" for v in lines))
        for i in np.flatnonzero(np.abs(grid % 10) < 1e-6)
    )
    return drawn, x_ticks, y_ticks, table


def _drawn(letter: str, x: Array, y: Array) -> Drawn:
    there = np.isfinite(y)
    # letters stand on their own lines, each a little further along than the one before
    at = np.flatnonzero(there)[int(there.sum() * (0.12 + 0.16 * "ABCDE".index(letter)))]
    return Drawn(
        letter=letter,
        path=path.line(x[there], y[there]),
        x=round(float(x[at]), 1),
        y=round(float(y[at]), 1),
    )


def _row(pin: Pinned, first: Pinned) -> Row:
    curve = pin.curve
    demand = {j: curve.demand_nm[j][0] for j in JOINTS if j in curve.demand_nm}
    main = max(demand, key=lambda j: float(np.abs(demand[j]).mean()))
    most = int(np.argmax(np.abs(demand[main])))
    bend = to_deg(curve.motion.angles[main][0])[most]
    return Row(
        letter=pin.letter,
        words=pin.words,
        query=pin.query,
        peak=tell(
            "{joint} {demand} at {bend}",
            joint=Term(JOINT_NAMES[main]),
            demand=Moment(abs(demand[main][most])),
            bend=Angle.of_deg(bend),
        ),
        split=_split(curve),
        work=whole(joint_work_j(curve)),
        against="" if pin is first else against(first.curve, curve),
        spine="" if pin is first else _spine(first.curve, curve),
        strip=_strip(curve, main),
        felt=pin.felt,
    )


def _split(curve: Curve) -> str:
    """Return how the mean demand is shared by hip, knee and ankle; empty where it is the hip's to
    the side alone.
    """
    shares = mean_split(curve).values()
    return " : ".join(whole(100 * share) for share in shares) if any(shares) else ""


def _strip(curve: Curve, joint: str) -> Areas | None:
    """Return the strip of an exercise by itself, on its main joint; None where that hardly
    moves.
    """
    if float(np.ptp(curve.motion.angles[joint][0])) < STILL:
        return None
    return strip_alone(np.abs(curve.demand_nm[joint][0]))


def against(first: Curve, other: Curve) -> str:
    """Return how a curve differs from the first, over the first one's prime joints, with angles."""
    try:
        target = target_of(first)
    except TargetError:
        return ""
    return say(sentence(target, compare(target, other.motion.angles, other.demand_nm, 1), other))


def _spine(first: Curve, other: Curve) -> str:
    """Return the low back's moment beside the first one's, a ratio only: the estimate says no
    more.
    """
    ratio = low_back_ratio(first, other)
    if ratio is None:
        return ""
    if abs(ratio - 1.0) < 0.03:
        return tr("Low back: asked as much as in A")
    return tell(
        "Low back: asked {share} more than in A"
        if ratio > 1
        else "Low back: asked {share} less than in A",
        share=Share(abs(ratio - 1)),
    )


def _share(group: str, use: usecases.MuscleUse | None) -> float | None:
    if use is None:
        return None
    return max(0.0, use.of(group).work_j) / max(positive_work_j(use), 1e-9)


def _muscles(uses: Sequence[usecases.MuscleUse | None]) -> tuple[tuple[str, tuple[str, ...]], ...]:
    shares = {group: [_share(group, use) for use in uses] for group in GROUPS}
    shown = {g: s for g, s in shares.items() if max([0.0, *filter(None, s)]) >= LEAST_SHARE}
    ordered = sorted(shown, key=lambda g: -(shown[g][0] or 0.0))
    return tuple(
        (tr(NAMES[g]), tuple("–" if v is None else whole(100 * v) for v in shown[g]))
        for g in ordered
    )


def _gains(pins: Sequence[Pinned], uses: Sequence[usecases.MuscleUse | None]) -> tuple[str, ...]:
    """Return which muscle does most more, and which most less, than in the first, for every other
    exercise.
    """
    said: list[str] = []
    base = uses[0]
    if base is None:
        return ()
    for pin, use in list(zip(pins, uses, strict=True))[1:]:
        if use is None:
            continue
        change = {g: use.of(g).work_j - base.of(g).work_j for g in GROUPS}
        more, less = max(change, key=lambda g: change[g]), min(change, key=lambda g: change[g])
        parts = []
        if change[more] >= 1:
            parts.append(
                Said("{muscle} {work} more", muscle=Term(NAMES[more]), work=Work(change[more]))
            )
        if change[less] <= -1:
            parts.append(
                Said("{muscle} {work} less", muscle=Term(NAMES[less]), work=Work(-change[less]))
            )
        if parts:
            said.append(
                tell(
                    "{letter} against A, one leg and rep: {gains}.",
                    letter=pin.letter,
                    gains=Listed(tuple(parts)),
                )
            )
    return tuple(said)
