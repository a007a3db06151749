"""One candidate's drawing: plots, figure, cursors and readings for every sample, as values for the
template.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from weakref import WeakKeyDictionary

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import CENTRES_DEG, STILL, Action
from widearc.core.intent import SHAPES, Shape
from widearc.core.matching import Target
from widearc.core.search import Candidate
from widearc.core.statics import Curve
from widearc.core.units import to_deg
from widearc.web.drawing.areas import Areas, Line, grid, line_of, nothing
from widearc.web.drawing.figure import Figure, figure_of
from widearc.web.drawing.plot import Plot, plots
from widearc.web.drawing.strip import strip_between
from widearc.web.words.words import joint_bend, whole
from widearc.words import How, spoken, tell, tr


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Drawing:
    """Everything the chosen candidate's drawing shows.

    script: what the scrubber needs, as plain lists. table: (action, angle, intended, actual) as
    text.
    """

    plots: tuple[Plot, ...]
    figure: Figure
    script: dict[str, Any]
    joints: tuple[dict[str, Any], ...]
    table: tuple[tuple[str, str, str, str], ...]
    start: int


def pair(
    target: Target, index: int, wanted: Curve | None, candidate: Candidate
) -> tuple[Action, Line, Line]:
    """Return the action with intended and actual line over their common grid."""
    action = target.actions[index]
    angles = grid([target.bins[index], candidate.comparison.bins[index][0]], action)
    if wanted is None or target.shape is not Shape.ORIGINAL or target.weights:
        intended = _laid_out(target.at_level_of(candidate.comparison).bins[index], angles)
    else:
        intended = _line(wanted, action, angles)
    own = candidate.curve
    actual = nothing(angles) if is_held(own, action) else _line(own, action, angles)
    return action, intended, actual


def _laid_out(bins: Array, angles: Array) -> Line:
    """Return a wanted demand that no exercise has, over the grid; nowhere outside its range."""
    used = np.flatnonzero(bins > 0)
    low, high = CENTRES_DEG[used[0]] - 0.5, CENTRES_DEG[used[-1]] + 0.5
    value = np.interp(angles, CENTRES_DEG[used], bins[used])
    return Line(angle_deg=angles, value=np.where((angles < low) | (angles > high), np.nan, value))


def is_held(curve: Curve, action: Action) -> bool:
    """Return whether a candidate keeps this joint still, so that it has no curve to draw."""
    return (
        action.joint not in curve.demand_nm
        or float(np.ptp(curve.motion.angles[action.joint])) < STILL
    )


def _line(curve: Curve, action: Action, angles: Array) -> Line:
    theta = to_deg(curve.motion.angles[action.joint][0])
    return line_of(theta, curve.demand_nm[action.joint][0], action, angles)


def _doubt(candidate: Candidate, action: Action, actual: Line) -> Array | None:
    """Return one standard error of the actual line over its grid, N·m; None where the joint is
    held.
    """
    error = candidate.uncertainty.demand_nm.get(action.joint)
    if error is None or is_held(candidate.curve, action):
        return None
    theta = to_deg(candidate.curve.motion.angles[action.joint][0])
    order = np.argsort(theta)
    return np.asarray(np.interp(actual.angle_deg, theta[order], error[order]))


def strip_of(target: Target, wanted: Curve | None, candidate: Candidate) -> Areas:
    """Return the candidate's strip on the target's main joint, over the wanted range; drawn once a
    candidate.
    """
    if candidate not in _STRIPS:
        _STRIPS[candidate] = _strip(target, wanted, candidate)
    return _STRIPS[candidate]


# a candidate belongs to one target, so it is the whole key; it goes when the candidate goes
_STRIPS: WeakKeyDictionary[Candidate, Areas] = WeakKeyDictionary()


def _strip(target: Target, wanted: Curve | None, candidate: Candidate) -> Areas:
    main = target.main
    _, intended, actual = pair(target, main, wanted, candidate)
    return strip_between(intended, actual, target.range_deg(main))


# like the strips: drawn once a candidate, gone with it
_DRAWINGS: WeakKeyDictionary[Candidate, dict[How, Drawing]] = WeakKeyDictionary()


def drawing_of(target: Target, wanted: Curve | None, candidate: Candidate) -> Drawing:
    """Return the drawing of a candidate against the wanted curve; drawn once a candidate for each
    way of speaking: weights stand on it.
    """
    known = _DRAWINGS.setdefault(candidate, {})
    if spoken() not in known:
        known[spoken()] = _drawing(target, wanted, candidate)
    return known[spoken()]


def _drawing(target: Target, wanted: Curve | None, candidate: Candidate) -> Drawing:
    order = sorted(range(len(target.actions)), key=lambda i: i != target.main)
    pairs = [pair(target, i, wanted, candidate) for i in order]
    asked = tr("as wanted" if wanted is None else wanted.setup.exercise.name).lower()
    if target.shape is not Shape.ORIGINAL:
        asked = f"{asked}, {tr(SHAPES[target.shape])}"
    names = (asked, tr(candidate.exercise.name).lower())
    drawn = plots(pairs, names, [_doubt(candidate, action, actual) for action, _, actual in pairs])
    motion = candidate.curve.motion
    script: dict[str, Any] = {"joints": []}
    joints = []
    for plot, (action, intended, actual), i in zip(drawn, pairs, order, strict=True):
        theta = to_deg(motion.angles[action.joint][0])
        held = is_held(candidate.curve, action)
        joints.append(
            {
                "name": action.joint,
                "held": held,
                "match": whole(100 * float(candidate.comparison.by_joint[i][0])),
                "share": whole(
                    100 * float(target.bins[i].sum() / sum(b.sum() for b in target.bins))
                ),
            }
        )
        script["joints"].append(_cursor(plot, theta, intended, actual, held=held))
    fig = figure_of(candidate.curve)
    script["frames"] = fig.frames
    script["n"] = len(motion.position)
    return Drawing(
        plots=tuple(drawn),
        figure=fig,
        script=script,
        joints=tuple(joints),
        table=tuple(_table(pairs)),
        start=20,
    )


def _cursor(
    plot: Plot, theta: Array, intended: Line, actual: Line, *, held: bool
) -> dict[str, Any]:
    """Return the cursor's px and the readings at every sample, as text ready to show."""
    angles = intended.angle_deg
    px = plot.left + (plot.right - plot.left) * np.abs(theta - angles[0]) / np.ptp(angles)
    bends = [whole(v) + "°" for v in theta]
    # a joint that is held passes no degree at which both could be read: its plot says what is
    # missing
    read = {
        "intended": ["–"] * len(theta) if held else _readings(theta, intended),
        "actual": _readings(theta, actual),
    }
    return {
        "name": plot.joint,
        "bend": [tr("held") if held else bend for bend in bends],
        "x": [round(float(v), 1) for v in px],
        "deg": [round(float(v), 1) for v in theta],
        "angle": bends,
        "say": [
            tell(
                "{at} {where}, intended {wanted}, actual {given} newton metres",
                at=bend,
                where=joint_bend(plot.joint),
                wanted=wanted,
                given=given,
            )
            for bend, wanted, given in zip(bends, read["intended"], read["actual"], strict=True)
        ],
        "read": read,
    }


def _readings(theta: Array, line: Line) -> list[str]:
    order = np.argsort(line.angle_deg)
    angle, value = line.angle_deg[order], line.value[order]
    nearest = np.clip(np.searchsorted(angle, theta), 0, len(angle) - 1)
    inside = np.isfinite(value)
    if not inside.any():
        return ["–"] * len(theta)
    exact = np.interp(theta, angle[inside], value[inside])
    return [whole(v) if np.isfinite(value[k]) else "–" for v, k in zip(exact, nearest, strict=True)]


def _table(pairs: list[tuple[Action, Line, Line]]) -> list[tuple[str, str, str, str]]:
    rows = []
    for action, intended, actual in pairs:
        for i in np.flatnonzero(np.abs(intended.angle_deg % 10) < 1e-6):
            t, c = (
                whole(v) if np.isfinite(v) else "–" for v in (intended.value[i], actual.value[i])
            )
            rows.append((action.joint, whole(intended.angle_deg[i]) + "°", t, c))
    return rows
