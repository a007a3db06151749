"""The target ribbon with its handles, and the same unrolled. Numbers to px; draws only, computes no
mechanics.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.intent import Intent, WantedAction
from widearc.core.units import to_rad
from widearc.core.words import Duration, Said
from widearc.usecases.intent.intents import with_handles
from widearc.web.drawing import path
from widearc.web.drawing.areas import Areas, Line, areas_between, nothing
from widearc.web.drawing.axis import Tick, degree_ticks, every, named, value_ticks
from widearc.web.drawing.strip import strip_between
from widearc.web.words.words import whole
from widearc.words import tell, tr

WIDTH, HEIGHT = 560.0, 360.0
RADIUS, WIDEST, LIMB = 112.0, 96.0, 104.0
FULL_NM = (40, 60, 80, 100, 150, 200, 250, 300, 400, 500, 700, 1000, 1500, 2000)
PLOT_WIDTH, LEFT, RIGHT, TOP, TALL = 440.0, 44.0, 8.0, 18.0, 120.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Handle:
    """One handle: where it stands (px), which way it goes, px a newton metre, its value and
    words.
    """

    field: str
    x: float
    y: float
    dx: float
    dy: float
    px: float
    value: float
    most: float
    label: str
    says: str
    least: float = 0.0
    text: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Fan:
    """One action's ribbon and its unrolled plot. height: px of the ribbon's drawing; scale: N·m at
    the widest.
    """

    action: str
    joint: str
    words: str
    index: int
    box: tuple[float, float, float, float]
    scale: float
    arc: str
    ticks: str
    comb: str
    line: str
    limbs: tuple[tuple[float, float, float, float, str], ...]
    labels: tuple[tuple[float, float, str, str], ...]
    handles: tuple[Handle, ...]
    plot: Areas
    plot_height: float
    base: float
    x_ticks: tuple[Tick, ...]
    y_ticks: tuple[Tick, ...]
    share: str


def fans(intent: Intent, body: Body, scale: float | None = None) -> tuple[Fan, ...]:
    """Return a ribbon for each wanted action, all with the same px per N·m.

    scale: keep that one (N·m at the widest).
    """
    handles = [with_handles(part, body) for part in intent.parts]
    most = max(nm for own in handles for _, nm in own)
    full = scale or float(next((f for f in FULL_NM if f >= 1.15 * most), FULL_NM[-1]))
    work = [float(part.demand_nm(body).sum()) for part in intent.parts]
    made = [
        _fan(part, own, i, body, full, intent, work[i] / sum(work))
        for i, (part, own) in enumerate(zip(intent.parts, handles, strict=True))
    ]
    # drawn to one scale: boxes of one size, each round its own middle
    wide, tall = (max(fan.box[k] for fan in made) for k in (2, 3))
    return tuple(replace(fan, box=_same_size(fan.box, wide, tall)) for fan in made)


def _same_size(
    box: tuple[float, float, float, float], wide: float, tall: float
) -> tuple[float, float, float, float]:
    x, y, w, h = box
    return (round(x - (wide - w) / 2), round(y - (tall - h) / 2), round(wide), round(tall))


_FIXED = {
    "knee": ((-1.0, 0.0), "thigh"),
    "hip": ((0.0, -1.0), "trunk"),
    "ankle": ((0.0, -1.0), "shank"),
    "hip_abduction": ((0.0, -1.0), "trunk, from the front"),
}
"""Where the segment that stays lies, px (y down), and its name."""


def _turn(joint: str, angle: Array | float) -> Array:
    """Return the moving segment's direction in px (y down), (2, …), at angles of a joint, rad."""
    if joint == "knee":
        return np.array((np.cos(angle), np.sin(angle)))
    return (
        np.array((np.cos(angle), -np.sin(angle)))
        if joint == "ankle"
        else np.array((np.sin(angle), np.cos(angle)))
    )


def _fan(
    part: WantedAction,
    own: tuple[tuple[float, float], ...],
    index: int,
    body: Body,
    full: float,
    intent: Intent,
    share: float,
) -> Fan:
    joint = part.action.joint
    fixed, name = _FIXED[joint]
    px = WIDEST / full
    angle = np.linspace(part.from_deg, part.to_deg, 91)
    nm = _along(part, angle, body)
    unit = _turn(joint, to_rad(angle))
    outer = unit * (RADIUS + px * nm)
    arc = unit * RADIUS
    limbs = [(0.0, 0.0, fixed[0] * LIMB, fixed[1] * LIMB, "wa-limb-fixed")]
    for end, kind in ((0, "wa-limb-long"), (-1, "wa-limb-short")):
        limbs.append(
            (
                0.0,
                0.0,
                round(float(unit[0, end]) * LIMB, 1),
                round(float(unit[1, end]) * LIMB, 1),
                kind,
            )
        )
    labels = []
    for end, word in ((0, "lengthened"), (-1, "shortened")):
        far = RADIUS - 22.0
        labels.append(
            (
                round(float(unit[0, end]) * far, 1),
                round(float(unit[1, end]) * far + 4, 1),
                f"{whole(angle[end])}°",
                word,
            )
        )
    labels.append(
        (
            fixed[0] * LIMB * 0.55 + (0 if fixed[0] else 26),
            fixed[1] * LIMB * 0.55 - (8 if fixed[0] else 0),
            tr(name),
            "",
        )
    )
    made = []
    for k, (fraction, value) in enumerate(own):
        at = part.from_deg + fraction * (part.to_deg - part.from_deg)
        dx, dy = (float(v) for v in _turn(joint, to_rad(at)))
        reach = RADIUS + px * value
        where = f"{whole(at)}°"
        if k in (0, len(own) - 1):
            words = "{angle}, lengthened end" if k == 0 else "{angle}, shortened end"
            where = tell(words, angle=where)
        said = tr("light to heavy") if intent.by_feel else f"{whole(value)} N·m"
        made.append(
            Handle(
                field=f"h{index}-{k}",
                x=round(dx * reach, 1),
                y=round(dy * reach, 1),
                dx=round(dx, 4),
                dy=round(dy, 4),
                px=round(px, 4),
                value=round(value),
                most=2000.0,
                label=where,
                says=said,
            )
        )
    return Fan(
        action=part.action.label,
        joint=joint.replace("_", " "),
        words=part.action.words,
        index=index,
        box=_box(
            np.concatenate(
                [outer.T, np.array([[x, y] for _, _, x, y, _ in limbs]), np.zeros((1, 2))]
            )
        ),
        scale=full,
        arc=path.line(*arc),
        ticks=_ticks(part),
        comb=_comb(part, px, body),
        line=_outline(arc, outer),
        limbs=tuple(limbs),
        labels=tuple(labels),
        handles=tuple(made),
        **_unrolled(part, angle, nm, full, intent),
        share=whole(100 * share),
    )


def _along(part: WantedAction, angle: Array, body: Body) -> Array:
    """Return the wanted demand at angles, N·m."""
    if part.handles is not None:
        return part.at((angle - part.from_deg) / (part.to_deg - part.from_deg))
    bins = part.demand_nm(body)
    used = np.flatnonzero(bins > 0)
    inner = used[1:-1] if len(used) > 4 else used
    return np.asarray(np.interp(angle, CENTRES_DEG[inner], bins[inner]))


def _outline(arc: Array, outer: Array) -> str:
    """Return the open outline: out at the lengthened end, along, and back in at the shortened
    end.
    """
    first, last = (f"{x:.1f} {y:.1f}" for x, y in (arc[:, 0], arc[:, -1]))
    return f"M{first}L{path.line(*outer)[1:]}L{last}"


def _comb(part: WantedAction, px: float, body: Body) -> str:
    """Return full strokes every 2° down to the arc: what is wanted, with nothing actual beside
    it.
    """
    low, high = sorted((part.from_deg, part.to_deg))
    angle = np.arange(np.ceil(low / 2) * 2, high + 1e-6, 2.0)
    unit = _turn(part.action.joint, to_rad(angle))
    far = RADIUS + px * _along(part, angle, body)
    return "".join(
        f"M{x * RADIUS:.1f} {y * RADIUS:.1f}L{x * r:.1f} {y * r:.1f}"
        for x, y, r in zip(*unit, far, strict=True)
    )


def _ticks(part: WantedAction) -> str:
    low, high = sorted((part.from_deg, part.to_deg))
    parts = []
    for value in every(10, low, high):
        x, y = _turn(part.action.joint, to_rad(value))
        far = RADIUS - (8.0 if named(value) else 4.0)
        parts.append(f"M{x * RADIUS:.1f} {y * RADIUS:.1f}L{x * far:.1f} {y * far:.1f}")
    return "".join(parts)


def _box(xy: Array) -> tuple[float, float, float, float]:
    low, high = xy.min(axis=0) - 34.0, xy.max(axis=0) + 34.0
    return float(low[0]), float(low[1]), float(high[0] - low[0]), float(high[1] - low[1])


def _unrolled(
    part: WantedAction, angle: Array, nm: Array, full: float, intent: Intent
) -> dict[str, Any]:
    base, px = TOP + TALL, TALL / full
    x = LEFT + (PLOT_WIDTH - LEFT - RIGHT) * (angle - angle[0]) / (angle[-1] - angle[0])
    line = Line(angle_deg=angle, value=nm)
    drawn = areas_between(line, nothing(angle), x, base, px, comb=False)
    order = np.argsort(angle)
    foot = "".join(
        (
            f"M{np.interp(v, angle[order], x[order]):.1f} "
            f"{base - px * np.interp(v, angle[order], nm[order]):.1f}V{base}"
        )
        for v in every(2, angle.min(), angle.max())
    )
    return {
        "plot": Areas(met="", short="", over="", edge="", line=drawn.line, comb=foot),
        "plot_height": base + 42.0,
        "base": base,
        "x_ticks": degree_ticks(angle, x),
        "y_ticks": () if intent.by_feel else value_ticks(0.0, full, base, px, least=10),
    }


def strip_of_intent(intent: Intent, body: Body) -> Areas:
    """Return the 160 × 18 strip of a wanted loading alone, on its first action."""
    part = intent.parts[0]
    angle = np.linspace(part.from_deg, part.to_deg, 81)
    line = Line(angle_deg=angle, value=_along(part, angle, body))
    made = strip_between(line, nothing(angle), (part.from_deg, part.to_deg))
    return Areas(met="", short="", over="", edge="", line=made.line, comb=_strip_comb(line))


def _strip_comb(line: Line) -> str:
    x = 160.0 * np.arange(len(line.value)) / (len(line.value) - 1)
    y = 17.5 - 17.0 * line.value / float(line.value.max())
    return "".join(f"M{a:.1f} {b:.1f}V17.5" for a, b in zip(x[::4], y[::4], strict=True))


def quarters(intent: Intent, body: Body) -> tuple[tuple[str, tuple[str, str, str, str]], ...]:
    """Return each action's dose in quarters of its range, lengthened first, in whole percent."""
    return tuple(
        (part.action.words, (whole(100 * a), whole(100 * b), whole(100 * c), whole(100 * d)))
        for part, (a, b, c, d) in zip(intent.parts, intent.quarters(body), strict=True)
    )


def table(intent: Intent, body: Body, *, every: float = 10.0) -> tuple[tuple[str, str, str], ...]:
    """Return action, degrees and N·m along the range, lengthened first, as plain text."""
    rows = []
    for part in intent.parts:
        low, high = sorted((part.from_deg, part.to_deg))
        inner = np.arange(np.ceil(low / every) * every, high + 1e-6, every)
        angles = np.unique(np.concatenate([[low, high], inner]))[:: part.action.direction]
        rows += [
            (tr(part.action.words), f"{a:g}", f"{nm:.0f}")
            for a, nm in zip(angles, _along(part, angles, body), strict=True)
        ]
    return tuple(rows)


def dose_words(intent: Intent) -> str:
    """Return the dose of a rep and how long one takes, in words; without numbers where it goes by
    feel.
    """
    style, seconds = intent.style, intent.rep_s
    rep = Said(
        "A rep takes {rep}, a set about {set} under load",
        rep=Duration(round(seconds, 1)),
        set=Duration(round(seconds * intent.reps)),
    )
    if style.kind.value == "plain":
        return tell("{rep}.", rep=rep)
    return tell(
        "{rep}; {style}: dose is demand times the time at each degree, even speed assumed.",
        rep=rep,
        style=style.sentence,
    )


def action_choices() -> tuple[tuple[str, str], ...]:
    """Return the joint actions that can be wanted."""
    return tuple((a.label, a.words) for a in Action)


__all__ = [
    "Fan",
    "Handle",
    "action_choices",
    "dose_words",
    "fans",
    "quarters",
    "strip_of_intent",
]
