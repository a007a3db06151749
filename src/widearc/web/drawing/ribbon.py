"""The arc: a ribbon along a joint's real arc of motion at the figure, its width the demand. Numbers
to px; draws only.

The dial is fixed to the segment that turns less in the room, the other segment is the needle. The
ribbon stands on the outer side of the arc line; a demand of the opposite action stands on the inner
side.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import STILL
from widearc.core.statics import Curve, points_of
from widearc.core.units import to_deg
from widearc.web.drawing import path
from widearc.web.drawing.axis import every, named
from widearc.web.words.words import whole

RADIUS, WIDEST = (
    0.5,
    0.4,
)  # of the shank: the arc line, and the greatest width, so that it ends before the foot


COMB = 7.0  # px that the comb hangs from the outline


ENDS = {
    "knee": (("hip", "knee"), ("ankle", "knee")),
    "hip": (("shoulder", "hip"), ("knee", "hip")),
    "ankle": (("knee", "ankle"), ("toe", "ankle")),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Ribbon:
    """A joint's ribbon, px round the joint's own place: the arc line, demand out and in, ticks, and
    its end labels.
    """

    joint: str
    arc: str
    out: str
    inward: str
    edge: str
    ticks: str
    ends: tuple[tuple[str, str], tuple[str, str]]
    places: str
    intended: str = ""
    comb: str = ""


def ribbons(
    curve: Curve,
    points: Mapping[str, Array],
    scale: float,
    frames: dict[str, list[list[float]]],
    place: Any,
    over: Sequence[Any] = (),
) -> tuple[Ribbon, ...]:
    """Return a ribbon for each joint of the side view that moves and is asked something; adds its
    frames.

    points: m (2, samples); scale: px a metre. frames gain "dial_knee" (px, px, degrees) and so on.
    All ribbons have the same px per N·m. over: what is wanted of a joint (arcplot.Intended), an
    outline on the same arc line.
    """
    shank = curve.setup.body.shank_m * scale
    joints = [
        j for j in ENDS if _moves(curve, j) and all(p in points for ends in ENDS[j] for p in ends)
    ]
    most = max((float(np.abs(curve.demand_nm[j][0]).max()) for j in joints), default=0.0)
    if most < 1.0:
        return ()
    wanted = {w.joint: w for w in over}
    most = max([most, *(float(w.nm.max()) for w in over if w.joint in joints)])
    return tuple(
        _one(curve, j, points, RADIUS * shank, WIDEST * shank / most, frames, place, wanted.get(j))
        for j in joints
    )


def _moves(curve: Curve, joint: str) -> bool:
    return joint in curve.demand_nm and float(np.ptp(curve.motion.angles[joint][0])) >= STILL


def _one(
    curve: Curve,
    joint: str,
    points: Mapping[str, Array],
    radius: float,
    per_nm: float,
    frames: dict[str, list[list[float]]],
    place: Any,
    wanted: Any = None,
) -> Ribbon:
    first, second = (_turn(points[a] - points[b]) for a, b in ENDS[joint])
    dial, needle = (first, second) if np.ptp(first) <= np.ptp(second) else (second, first)
    turn = np.unwrap(needle - dial)
    demand = curve.demand_nm[joint][0]
    wide = per_nm * demand
    centre = place.dots(points[joint])
    frames[f"dial_{joint}"] = [
        [*xy, round(float(a), 2)] for xy, a in zip(centre, to_deg(dial), strict=True)
    ]
    bend = to_deg(curve.motion.angles[joint][0])
    labels = []
    for end in (0, -1):
        key = f"end_{joint}_{'long' if end == 0 else 'short'}"
        reach = radius + max(float(wide[end]), 0.0) + 12.0
        at = dial + turn[end]
        x, y = np.array(centre).T
        frames[key] = [
            [round(float(a), 1), round(float(b), 1)]
            for a, b in zip(x + reach * np.cos(at), y + reach * np.sin(at) + 4, strict=True)
        ]
        labels.append((key, f"{whole(bend[end])}°"))
    frames[f"needle_{joint}"] = [
        [
            round(float(v), 1)
            for v in (
                cx + (radius - 5) * np.cos(a),
                cy + (radius - 5) * np.sin(a),
                cx + (radius + max(w, 0.0) + 5) * np.cos(a),
                cy + (radius + max(w, 0.0) + 5) * np.sin(a),
            )
        ]
        for (cx, cy), a, w in zip(centre, dial + turn, wide, strict=True)
    ]
    outline, comb = ("", "") if wanted is None else _outline(wanted, bend, turn, radius, per_nm)
    return Ribbon(
        intended=outline,
        comb=comb,
        joint=joint,
        arc=_polar(turn, np.full(len(turn), radius)),
        out=_between(turn, radius, np.maximum(wide, 0.0)) if (wide > 0.5).any() else "",
        inward=_between(turn, radius, np.maximum(np.minimum(wide, 0.0), -0.8 * radius))
        if (wide < -0.5).any()
        else "",
        edge=_polar(turn, radius + np.maximum(wide, -0.8 * radius)),
        ticks=_ticks(turn, bend, radius),
        ends=(labels[0], labels[1]),
        places="".join(
            _across(float(turn[p.sample]), radius, float(max(wide[p.sample], 0.0)))
            for p in points_of(curve)
            if joint in p.joints
        ),
    )


def _outline(
    wanted: Any, bend: Array, turn: Array, radius: float, per_nm: float
) -> tuple[str, str]:
    """Return the open outline of what is wanted on the arc, and the comb that hangs from it every
    2°.
    """
    # the needle turns degree for degree with the joint, so the arc goes on past what this lift
    # covers
    rate = (turn[-1] - turn[0]) / (bend[-1] - bend[0])
    at = turn[0] + rate * (wanted.angle_deg - bend[0])
    far = radius + np.maximum(wanted.sign * per_nm * wanted.nm, -0.8 * radius)
    ends = [_polar(at[[i]], np.array([radius]))[1:] for i in (0, -1)]
    line = f"M{ends[0]}L{_polar(at, far)[1:]}L{ends[1]}"
    every = np.arange(np.ceil(wanted.angle_deg.min() / 2) * 2, wanted.angle_deg.max() + 1e-6, 2.0)
    order = np.argsort(wanted.angle_deg)
    reach = np.interp(every, wanted.angle_deg[order], far[order])
    turns = turn[0] + rate * (every - bend[0])
    foot = np.where(
        reach >= radius, np.maximum(reach - COMB, radius), np.minimum(reach + COMB, radius)
    )
    comb = "".join(
        f"M{a * np.cos(t):.1f} {a * np.sin(t):.1f}L{b * np.cos(t):.1f} {b * np.sin(t):.1f}"
        for t, a, b in zip(turns, reach, foot, strict=True)
    )
    return line, comb


def _turn(v: Array) -> Array:
    """Return a direction's angle in px (rad, y down), unwrapped over the samples."""
    return np.asarray(np.unwrap(np.arctan2(-v[1], v[0])))


def _polar(angle: Array, reach: Array) -> str:
    return path.line(reach * np.cos(angle), reach * np.sin(angle))


def _between(angle: Array, radius: float, wide: Array) -> str:
    inner = _polar(angle[::-1], np.full(len(angle), radius))
    return f"{_polar(angle, radius + wide)}L{inner[1:]}Z"


def _across(angle: float, radius: float, wide: float) -> str:
    """Return a mark across the ribbon, a little longer than it is wide."""
    c, s = np.cos(angle), np.sin(angle)
    near, far = radius - 3.0, radius + wide + 7.0
    return f"M{near * c:.1f} {near * s:.1f}L{far * c:.1f} {far * s:.1f}"


def _ticks(turn: Array, bend: Array, radius: float) -> str:
    """Return marks inward from the arc line at every 10°, longer at 30°."""
    order = np.argsort(bend)
    parts = []
    for value in every(10, bend.min(), bend.max()):
        a = float(np.interp(value, bend[order], turn[order]))
        long = 7.0 if named(value) else 4.0
        parts.append(
            f"M{radius * np.cos(a):.1f} {radius * np.sin(a):.1f}L{(radius - long) * np.cos(a):.1f} "
            f"{(radius - long) * np.sin(a):.1f}"
        )
    return "".join(parts)
