"""One exercise's curves per joint, drawn with their sign: demand against the joint's angle, or
against the lift.

Lengthened left, shortened right; below the line the opposite action answers. Numbers to SVG paths;
computes no mechanics.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import STILL, Action
from widearc.core.dose import Tempo
from widearc.core.statics import (
    Curve,
    frontal_nm,
    knee_past_toes_m,
    line_of_force,
    points_of,
    share_near_straight,
)
from widearc.core.strength import ACTIONS, strength_nm
from widearc.core.units import to_deg, to_rad
from widearc.core.words import Angle, Duration, Force, Length, Moment, Said, Share, Term
from widearc.usecases import Effort
from widearc.web.drawing import path
from widearc.web.drawing.areas import Areas, Line, areas_between
from widearc.web.drawing.axis import (
    Tick,
    degree_ticks,
    every,
    figures,
    marks,
    share_ticks,
    value_ticks,
)
from widearc.web.drawing.figure import FARTHEST_ARM_M
from widearc.web.words.words import force as force_words
from widearc.web.words.words import joint_bend, newtons, whole
from widearc.web.words.words import tape as tape_words
from widearc.words import sign_of, size_of, tell, tr

WIDTH, LEFT, RIGHT, TOP, FOOT = 440.0, 44.0, 26.0, 26.0, 40.0
TALL = {1: 300.0, 2: 190.0, 3: 140.0, 4: 110.0}
POSITIVE = {"hip": Action.HE, "knee": Action.KE, "ankle": Action.PF, "hip_abduction": Action.AB}
NEGATIVE = {"hip": Action.HF, "knee": Action.KF, "ankle": None, "hip_abduction": Action.AD}
LEAST_SHOWN_NM = 3.0  # a frontal demand that is smaller all the way has no plot of its own
NAMES = {"hip": "hip", "knee": "knee", "ankle": "ankle", "hip_abduction": "hip to the side"}
LEG_ORDER = ("knee", "hip", "ankle", "hip_abduction")


@dataclass(frozen=True, slots=True, kw_only=True)
class Solo:
    """One joint's plot, px and text: filled area, edge, way down and fast lift where they
    differ.
    """

    joint: str
    name: str
    action: str
    opposite: str
    held: str
    height: float
    zero: float
    foot: float
    area: str
    edge: str
    lowering: str
    fast: str
    x_ticks: tuple[Tick, ...]
    y_ticks: tuple[Tick, ...]
    peak: str
    axis: str
    unit: str = "N·m"
    halo: str = ""
    strength: str = ""
    near_straight: str = ""
    effort: str = ""
    places: tuple[tuple[float, str], ...] = ()
    over: Areas | None = None
    intended: str = ""
    ghost: str = ""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Intended:
    """What is wanted of one joint: sign of the action's demand, degrees from lengthened to
    shortened, N·m there.
    """

    joint: str
    sign: int
    angle_deg: Array
    nm: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class Curves:
    """All plots of an exercise, what the scrubber needs, and the table of values."""

    plots: tuple[Solo, ...]
    script: list[dict[str, Any]]
    table: tuple[tuple[str, ...], ...]
    columns: tuple[str, ...]


def curves_of(
    found: Curve,
    fast: Mapping[str, Array],
    error: Mapping[str, Array] | None = None,
    efforts: Sequence[Effort] = (),
    over: Sequence[Intended] = (),
    ghost: Curve | None = None,
) -> Curves:
    """Return an exercise's plots, every one with the same px per N·m; error: one standard error of
    the demands; efforts: where a client's strength is known; over: what is wanted, drawn over it;
    ghost: the curve before a drag."""
    doubt = {name: value[0] for name, value in (error or {}).items()}
    frontal = frontal_nm(found.setup, found.motion)
    demand = {name: value[0] for name, value in found.demand_nm.items()}
    if frontal is not None and float(np.abs(frontal[0]).max()) >= LEAST_SHOWN_NM:
        demand["hip_abduction"] = frontal[0]
    order = _order(found, demand)
    lowering = {name: value[0] for name, value in (found.lowering_nm or {}).items()}
    moving = {name: value[0] for name, value in fast.items()}
    wanted = {w.joint: w for w in over}
    spans = [
        _span(
            [
                demand[j],
                *(d[j] for d in (lowering, moving) if j in d),
                *([wanted[j].sign * wanted[j].nm] if j in wanted else []),
            ]
        )
        for j in order
    ]
    tall = TALL[max(1, min(4, len(order)))]
    per_nm = min(5.0, tall * len(order) / max(sum(high - low for low, high in spans), 1e-9))
    plots, script = [], []
    for joint, span in zip(order, spans, strict=True):
        plot, cursor = _one(
            found,
            joint,
            demand[joint],
            lowering.get(joint),
            moving.get(joint),
            doubt.get(joint),
            span,
            per_nm,
            [e for e in efforts if e.joint == joint and e.known],
            wanted.get(joint),
            ghost,
        )
        plots.append(plot)
        script.append(cursor)
    if not order:
        plot, cursor = _handle(found)
        plots, script = [plot], [cursor]
    columns, table = _table(found, demand, order, [e for e in efforts if e.known])
    return Curves(plots=tuple(plots), script=script, table=table, columns=columns)


def _order(found: Curve, demand: Mapping[str, Array]) -> list[str]:
    """Return the joints, the prime ones first, then by the size of what is asked."""
    prime = [action.joint for action in found.setup.exercise.prime]
    first = [j for j in dict.fromkeys(prime) if j in demand]
    return first + [j for j in LEG_ORDER if j in demand and j not in first]


def _span(values: list[Array]) -> tuple[float, float]:
    everything = np.concatenate(values)
    return min(0.0, float(everything.min())), max(10.0, float(everything.max()))


def _one(
    found: Curve,
    joint: str,
    demand: Array,
    lowering: Array | None,
    fast: Array | None,
    doubt: Array | None,
    span: tuple[float, float],
    per_nm: float,
    efforts: Sequence[Effort],
    wanted: Intended | None,
    ghost: Curve | None,
) -> tuple[Solo, dict[str, Any]]:
    motion = found.motion
    angle = to_deg(motion.angles[joint][0]) if joint in motion.angles else np.zeros(len(demand))
    still = joint not in motion.angles or float(np.ptp(motion.angles[joint][0])) < STILL
    turns = not still and bool(np.ptp(np.sign(np.diff(angle)[np.abs(np.diff(angle)) > 1e-6])) > 0)
    axis = joint_bend(joint)
    if turns:
        axis = tell(
            "through the lift, {first} to {last} with a turn",
            first=Angle.of_deg(angle[0]),
            last=Angle.of_deg(angle[-1]),
        )
    elif still:
        axis = tr("through the lift")
    still = still or turns
    wanted = None if still else wanted
    first, last = _ends(angle, wanted)
    progress = motion.position if still else (angle - first) / (last - first)
    x = LEFT + (WIDTH - LEFT - RIGHT) * progress
    zero = TOP + span[1] * per_nm
    foot = zero - span[0] * per_nm
    y = zero - per_nm * demand
    positive, negative = POSITIVE[joint], NEGATIVE[joint]
    most = int(np.argmax(np.abs(demand)))
    at = (
        Said("{share} of the lift", share=Share(motion.position[most]))
        if still
        else Angle.of_deg(angle[most])
    )
    name = tr(NAMES[joint])
    held = (
        ""
        if not still or turns
        else (
            tr("held level")
            if joint not in motion.angles
            else tell("held at {angle}", angle=Angle.of_deg(angle[0]))
        )
    )
    plot = Solo(
        joint=joint,
        name=name,
        action=tr(positive.words),
        opposite=tr(negative.words) if negative and span[0] < -3 else "",
        held=held,
        height=round(foot + FOOT, 1),
        zero=round(zero, 1),
        foot=round(foot, 1),
        area=_filled(x, y if wanted is None or wanted.sign < 0 else np.maximum(y, zero), zero),
        edge=path.line(x, y),
        over=None
        if wanted is None or wanted.sign < 0
        else _over(wanted, angle, demand, (first, last), zero, per_nm),
        intended=""
        if wanted is None or wanted.sign > 0
        else _outline(wanted, (first, last), zero, per_nm),
        ghost=""
        if ghost is None or still
        else _ghost_path(ghost, joint, (first, last), zero, per_nm),
        lowering=path.line(x, zero - per_nm * lowering) if lowering is not None else "",
        fast=path.line(x, zero - per_nm * fast) if fast is not None else "",
        strength=""
        if still or efforts
        else _strength_path(found, joint, angle, demand, x, zero, per_nm),
        effort=_effort_path(x, efforts[0]) if efforts else "",
        places=tuple(
            (round(float(x[p.sample]), 1), tr(p.name))
            for p in points_of(found)
            if joint in p.joints and not still
        ),
        near_straight=_near_straight(found, joint, still),
        halo=""
        if doubt is None
        else path.between(x, y - 2 * per_nm * doubt, y + 2 * per_nm * doubt),
        x_ticks=share_ticks(x) if still else degree_ticks(*_axis((first, last))),
        y_ticks=value_ticks(*span, zero, per_nm, least=5),
        peak=tell("most {demand} at {at}", demand=Moment(abs(demand[most])), at=at),
        axis=axis,
    )
    return plot, _cursor(found, joint, angle, x, demand, still)


def _ends(angle: Array, wanted: Intended | None) -> tuple[float, float]:
    """Return where the axis begins and ends, degrees: the lift's own range and what is wanted of
    it.
    """
    first, last = float(angle[0]), float(angle[-1])
    if wanted is not None:
        sense = 1.0 if last >= first else -1.0
        low, high = (sense * wanted.angle_deg).min(), (sense * wanted.angle_deg).max()
        first, last = sense * min(sense * first, float(low)), sense * max(sense * last, float(high))
    return first, last if abs(last - first) > 1e-9 else first + 1e-9


def _axis(ends: tuple[float, float]) -> tuple[Array, Array]:
    """Return the angles at both ends of the axis and their px."""
    return np.array(ends), np.array([LEFT, WIDTH - RIGHT])


def _px(angle: Array, ends: tuple[float, float]) -> Array:
    return np.asarray(LEFT + (WIDTH - LEFT - RIGHT) * (angle - ends[0]) / (ends[1] - ends[0]))


def _filled(x: Array, y: Array, zero: float) -> str:
    return path.down_to(x, y, zero)


GRID_DEG = 0.5


def _over(
    wanted: Intended,
    angle: Array,
    demand: Array,
    ends: tuple[float, float],
    zero: float,
    per_nm: float,
) -> Areas:
    """Return what is wanted over what is, on one grid: met, short, over, comb and the outline."""
    grid = np.arange(min(ends), max(ends) + GRID_DEG / 2, GRID_DEG)
    grid = grid if ends[1] > ends[0] else grid[::-1]

    def line(at: Array, value: Array) -> Line:
        order = np.argsort(at)
        inside = (grid >= at.min() - 1e-6) & (grid <= at.max() + 1e-6)
        return Line(
            angle_deg=grid, value=np.where(inside, np.interp(grid, at[order], value[order]), np.nan)
        )

    actual = line(angle, np.maximum(demand, 0.0))
    return areas_between(line(wanted.angle_deg, wanted.nm), actual, _px(grid, ends), zero, per_nm)


def _outline(wanted: Intended, ends: tuple[float, float], zero: float, per_nm: float) -> str:
    """Return the open outline of a wanted demand whose sign is negative: below the line."""
    x, y = _px(wanted.angle_deg, ends), zero + per_nm * wanted.nm
    return f"M{x[0]:.1f} {zero:.1f}L{path.line(x, y)[1:]}L{x[-1]:.1f} {zero:.1f}"


def _ghost_path(
    ghost: Curve, joint: str, ends: tuple[float, float], zero: float, per_nm: float
) -> str:
    """Return the curve from before a drag, where it lies on the axis."""
    if joint not in ghost.demand_nm or joint not in ghost.motion.angles:
        return ""
    angle = to_deg(ghost.motion.angles[joint][0])
    on = (angle >= min(ends) - 1e-6) & (angle <= max(ends) + 1e-6)
    if int(on.sum()) < 2:
        return ""
    return path.line(_px(angle[on], ends), zero - per_nm * ghost.demand_nm[joint][0][on])


def _strength_path(
    found: Curve, joint: str, angle: Array, demand: Array, x: Array, zero: float, per_nm: float
) -> str:
    """Return the strength curve's shape at the demand's own peak: without a logged set its height
    says nothing.
    """
    most = int(np.argmax(np.abs(demand)))
    action = POSITIVE[joint] if demand[most] > 0 else NEGATIVE[joint]
    if action is None or action.label not in ACTIONS or abs(demand[most]) < 1.0:
        return ""
    body = found.setup.body
    shape = strength_nm(
        action.label,
        to_rad(angle),
        mass_kg=body.mass_kg,
        stature_m=body.stature_m,
        sex=body.sex.value,
    )
    return path.line(x, zero - per_nm * demand[most] * shape / float(shape.max()))


EFFORT_TALL, EFFORT_BASE = 44.0, 52.0


def _effort_path(x: Array, effort: Effort) -> str:
    """Return the effort along the range over a base line of its own, the limit 44 px high, cut
    there.
    """
    return path.line(x, EFFORT_BASE - EFFORT_TALL * np.minimum(effort.share, 1.0))


def _near_straight(found: Curve, joint: str, still: bool) -> str:
    """Return in words what is left of the peak before a straight knee or hip; empty where the lift
    stops short.
    """
    share = None if still or joint not in ("knee", "hip") else share_near_straight(found, joint)
    return (
        ""
        if share is None
        else tell("{share} of the peak left in the last 15° before straight", share=Share(share))
    )


def _tenths(values: Array) -> list[float]:
    return [round(float(v), 1) for v in values]


def _handle(found: Curve) -> tuple[Solo, dict[str, Any]]:
    """Return the plot and cursor of a plain path: the handle's force against its travel."""
    motion = found.motion
    assert motion.path_force is not None and motion.path_travel is not None
    force, travel = motion.path_force[0], 100 * motion.path_travel[0]
    span = _span([force])
    per_n = TALL[1] / max(span[1] - span[0], 1e-9)
    x = LEFT + (WIDTH - LEFT - RIGHT) * (travel - travel[0]) / max(float(np.ptp(travel)), 1e-9)
    zero = TOP + span[1] * per_n
    foot, y = zero - span[0] * per_n, zero - per_n * force
    most = int(np.argmax(np.abs(force)))
    step = next(s for s in (5, 10, 20, 50, 100) if s * 4 >= float(np.ptp(travel)))
    tape = every(step, 0.0, float(travel[-1]))
    plot = Solo(
        joint="hand",
        name=tr("handle"),
        action=tr("force along the path"),
        opposite="",
        held="",
        unit=sign_of("N"),
        height=round(foot + FOOT, 1),
        zero=round(zero, 1),
        foot=round(foot, 1),
        area=path.down_to(x, y, zero),
        edge=path.line(x, y),
        lowering="",
        fast="",
        x_ticks=marks(tape, np.interp(tape, travel, x), figures),
        y_ticks=value_ticks(*span, zero, per_n, least=5),
        peak=tell(
            "most {force} at {travel}",
            force=Force(force[most]),
            travel=Length(0.01 * travel[most]),
        ),
        axis=tell("travel, {unit}", unit=sign_of("cm")),
    )
    texts = [tape_words(0.01 * v) for v in travel]
    forces = [newtons(v) for v in force]
    return plot, {
        "name": "hand",
        "x": _tenths(x),
        "deg": _tenths(travel),
        "angle": texts,
        "bend": texts,
        "say": [f"{t}, {force_words(v)}" for t, v in zip(texts, force, strict=True)],
        "read": {"force": forces},
    }


def _cursor(
    found: Curve, joint: str, angle: Array, x: Array, demand: Array, still: bool
) -> dict[str, Any]:
    """Return px and texts for every sample: angle, demand, line of force and its arm."""
    shown = 100 * found.motion.position if still else angle
    angles = [f"{v:.0f} %" for v in shown] if still else [whole(v) + "°" for v in shown]
    demands = [whole(v) for v in demand]
    read: dict[str, list[str]] = {"demand": demands}
    if joint in found.demand_nm:
        line = line_of_force(found.motion, joint)
        size = np.hypot(*line.force[:, 0]) / found.motion.legs
        read["force"] = [newtons(v) for v in size]
        shown_arm = np.where(line.arm[0] > FARTHEST_ARM_M, np.nan, line.arm[0])
        per = 0.01 * size_of("cm")
        read["arm"] = [whole(v / per) if np.isfinite(v) else "–" for v in shown_arm]
    where = joint_bend(joint)
    says = (
        "{at} of the lift, {demand} newton metres"
        if still
        else "{at} {where}, {demand} newton metres"
    )
    return {
        "name": joint,
        "x": [round(float(v), 1) for v in x],
        "deg": [round(float(v), 1) for v in shown],
        "angle": angles,
        "bend": [whole(v) + "°" for v in angle]
        if joint in found.motion.angles
        else ["–"] * len(demand),
        "say": [
            tell(says, at=a, where=where, demand=d) for a, d in zip(angles, demands, strict=True)
        ],
        "read": read,
    }


def _table(
    found: Curve, demand: Mapping[str, Array], order: list[str], efforts: Sequence[Effort]
) -> tuple[tuple[str, ...], tuple[tuple[str, ...], ...]]:
    columns = [tr("lift")]
    for joint in order:
        columns += [f"{tr(NAMES[joint])}, °", f"{tr(NAMES[joint])}, N·m"]
    columns += [
        tell("{action}, % of the limit", action=Term(e.action.replace("_", " "))) for e in efforts
    ]
    path = found.motion.path_force
    columns += [tell("handle or sled, {unit}", unit=sign_of("N"))] if path is not None else []
    rows = []
    for i in range(0, len(found.motion.position), max(1, len(found.motion.position) // 20)):
        row = [f"{100 * found.motion.position[i]:.0f} %"]
        for joint in order:
            angle = (
                whole(float(to_deg(found.motion.angles[joint][0, i])))
                if joint in found.motion.angles
                else "–"
            )
            row += [angle, whole(demand[joint][i])]
        row += [whole(100 * float(e.share[i])) for e in efforts]
        rows.append(tuple(row + ([newtons(path[0, i])] if path is not None else [])))
    return tuple(columns), tuple(rows)


def path_words(found: Curve) -> str:
    """Return in words what the handle or sled asks along its path, empty where there is none."""
    motion = found.motion
    if motion.path_force is None or motion.path_travel is None:
        return ""
    force, travel = motion.path_force[0], float(np.max(np.abs(motion.path_travel[0])))
    return tell(
        "{first} at the start, {last} at the end of {travel} of travel, whole machine",
        first=Force(force[0]),
        last=Force(force[-1]),
        travel=Length(travel),
    )


def posture_words(found: Curve) -> str:
    """Return in words where the thighs are level, and how far the knee goes past the toes; empty
    for other lifts.
    """
    said = []
    for place in points_of(found):
        bend = (
            to_deg(found.motion.angles["knee"][0])[place.sample]
            if "knee" in found.motion.angles
            else 0.0
        )
        said.append(
            tell("{place} at {bend} of knee bend", place=Term(place.name), bend=Angle.of_deg(bend))
        )
    ahead = knee_past_toes_m(found)
    if ahead is not None:
        way = (
            "knee {far} past the toes at most"
            if ahead > 0
            else "knee {far} behind the toes at most"
        )
        said.append(tell(way, far=Length(abs(ahead))))
    return ", ".join(said)


def tempo_words(tempo: Tempo | None, fast: Mapping[str, Array], found: Curve) -> str:
    """Return in words what a lift in the given time adds at the most, empty without a tempo."""
    if tempo is None or not found.demand_nm:
        return ""
    if not fast:
        return tr(
            "Inertia is not computed for a step: balance at rest does not describe a fast one."
        )
    joint = max(fast, key=lambda j: float(np.abs(found.demand_nm[j]).max()))
    slow, quick = found.demand_nm[joint][0], fast[joint][0]
    most = int(np.argmax(np.abs(quick - slow)))
    change = 100 * (quick[most] - slow[most]) / max(float(np.abs(slow).max()), 1e-9)
    return tell(
        "Lifted in {time}, inertia asks up to {share} more of the {joint} (of its peak)."
        if change > 0
        else "Lifted in {time}, inertia asks up to {share} less of the {joint} (of its peak).",
        time=Duration(tempo.lifting_s),
        share=Share(abs(change) / 100),
        joint=Term(NAMES[joint]),
    )
