"""The other views of a lift: what the handle, loads and hands bear, and what the low back bears.
Draws only.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import STILL
from widearc.core.equipment import Band, Line
from widearc.core.statics import Curve, grip_n, lumbar
from widearc.core.statics.spine import OCCUPATIONAL_N
from widearc.core.units import to_deg
from widearc.core.words import Angle, Said, Share, Term
from widearc.web.drawing import path
from widearc.web.drawing.axis import (
    Tick,
    degree_ticks,
    every,
    figures,
    marks,
    named,
    share_ticks,
    value_ticks,
)
from widearc.web.drawing.curves import LEFT, RIGHT, TALL, TOP, WIDTH, Solo
from widearc.web.words.words import MINUS, joint_bend, whole
from widearc.words import sign_of, size_of, tell, tr

VIEWS = (
    ("joints", "joints"),
    ("muscles", "muscles"),
    ("forces", "handle and loads"),
    ("spine", "low back"),
)


RULE_WIDTH, RULE_LEFT, RULE_RIGHT = 1100.0, 40.0, 40.0


def lead_joint(found: Curve) -> str | None:
    """Return the joint whose angle names the place in the lift: the first prime one that moves one
    way.
    """
    for action in found.setup.exercise.prime:
        angle = found.motion.angles.get(action.joint)
        if (
            angle is not None
            and float(np.ptp(angle[0])) >= STILL
            and np.ptp(np.sign(np.diff(angle[0]))) == 0
        ):
            return action.joint
    return None


def _degree_ticks(first: float, last: float) -> tuple[Tick, ...]:
    """Return the ticks of a rule from one angle to another, degrees: every 5, named every 10."""
    degrees = every(5, *sorted((first, last)))
    at = RULE_LEFT + (RULE_WIDTH - RULE_LEFT - RULE_RIGHT) * (degrees - first) / (last - first)
    ticks = marks(degrees, at, lambda v: figures(v, "°") if v % 10 == 0 else "")
    return tuple(replace(t, bold=named(v)) for t, v in zip(ticks, degrees, strict=True))


def rule(found: Curve) -> tuple[dict[str, Any], tuple[Tick, ...], tuple[str, str], str]:
    """Return the scrub rule: its part of the script, its ticks, the words of both ends, and what it
    measures.
    """
    n = len(found.motion.position)
    joint = lead_joint(found)
    x = np.linspace(RULE_LEFT, RULE_WIDTH - RULE_RIGHT, n)
    if joint is None:
        shown = 100 * found.motion.position
        ticks = share_ticks(x)
        texts, name = [f"{v:.0f} %" for v in shown], tr("of the lift")
    else:
        shown = to_deg(found.motion.angles[joint][0])
        first, last = float(shown[0]), float(shown[-1])
        x = RULE_LEFT + (RULE_WIDTH - RULE_LEFT - RULE_RIGHT) * (shown - first) / (last - first)
        ticks = _degree_ticks(first, last)
        texts, name = [whole(v) + "°" for v in shown], joint_bend(joint)
    part = {
        "name": "rule",
        "x": [round(float(v), 1) for v in x],
        "deg": [round(float(v), 1) for v in shown],
        "angle": texts,
        "bend": texts,
        "say": [f"{t} {name}" for t in texts],
        "read": {},
    }
    return part, ticks, (tr("lengthened"), tr("shortened")), name


def forces(found: Curve) -> tuple[list[Solo], list[dict[str, Any]]]:
    """Return plots and cursors of every force that is put on the body: path, loads, hands, in N."""
    rows: list[tuple[str, str, str, Array]] = []
    motion = found.motion
    if motion.path_force is not None:
        rows.append(
            (
                "along-path",
                tr("handle or sled"),
                tr("force along its path, whole machine"),
                motion.path_force[0],
            )
        )
    for index, load in enumerate(found.setup.loads):
        acting = [f for f in motion.forces if f.source == f"load {index}"]
        name = tr(load.short)
        if acting:
            size = np.hypot(*motion.full(acting[-1].force)[:, 0])
            rows.append((f"load-{index}", name, tr(_pull_words(load)), size))
        elif index in motion.load_lengths and isinstance(load, Line) and load.on_parts:
            rows.append(
                (
                    f"load-{index}",
                    name,
                    tr("pull"),
                    motion.full(load.pull_n(motion.load_lengths[index], lowering=False))[0],
                )
            )
    hand = grip_n(found.setup, motion)
    if hand is not None:
        rows.append(("hand", tr("one hand"), tr("what it holds"), hand[0]))
    rows = [r for r in rows if np.isfinite(r[3]).all() and float(np.abs(r[3]).max()) >= 1.0]
    tall = TALL[max(2, min(4, len(rows)))]
    made = [
        _series(found, key, name, words, value / size_of("N"), sign_of("N"), tall)
        for key, name, words, value in rows
    ]
    return [m[0] for m in made], [m[1] for m in made]


def _pull_words(load: object) -> str:
    band = isinstance(load, Band)
    return "pull on the body, all strands" if band else "pull or weight on the body"


def spine(found: Curve, reference: Curve | None) -> tuple[list[Solo], list[dict[str, Any]], str]:
    """Return plots and cursors of the low back, and what they are, in words.

    The moment in N·m; the compression only as a multiple of the reference exercise's greatest.
    """
    own = lumbar(found.setup, found.motion)
    if own is None:
        return [], [], tr("A seat, a pad or the floor carries the trunk here: no estimate.")
    made = [
        _series(
            found,
            "lumbar",
            tr("low back"),
            tr("moment at the lowest lumbar joint"),
            own.moment_nm[0],
            "N·m",
            150.0,
        )
    ]
    words = tr(
        "An estimate at the lowest lumbar joint (one extensor, arm 6 cm, from memory). Never a "
        "verdict."
    )
    beside = None if reference is None else lumbar(reference.setup, reference.motion)
    if beside is None or reference is None:
        return (
            [m[0] for m in made],
            [m[1] for m in made],
            f"{words} {tr('Pin an exercise to see the compression beside it.')}",
        )
    most = float(beside.compression_n[0].max())
    line = OCCUPATIONAL_N / most
    plot, cursor = _series(
        found,
        "compression",
        tr("compression"),
        tr("times the most of A"),
        own.compression_n[0] / most,
        "× A",
        130.0,
        line,
    )
    made.append((plot, cursor))
    words += " " + tell(
        "Compression as a multiple of the greatest in A, {name}; the dashed line is 3.4 kN, an "
        "occupational line for lifting at work (NIOSH 1981; Waters et al. 1993, from memory).",
        name=Term(reference.setup.exercise.name, lower=True),
    )
    return [m[0] for m in made], [m[1] for m in made], words


def _series(
    found: Curve,
    key: str,
    name: str,
    words: str,
    value: Array,
    unit: str,
    tall: float,
    line: float | None = None,
) -> tuple[Solo, dict[str, Any]]:
    """Return one quantity along the lift as a plot and its cursor; line: a level drawn dashed."""
    joint = lead_joint(found)
    position = found.motion.position
    shown = 100 * position if joint is None else to_deg(found.motion.angles[joint][0])
    progress = (shown - shown[0]) / (shown[-1] - shown[0])
    x = LEFT + (WIDTH - LEFT - RIGHT) * progress
    low, high = (
        min(0.0, float(value.min())),
        max(float(value.max()), 1e-6, 0.0 if line is None else 1.05 * line),
    )
    per = tall / (high - low)
    zero = TOP + high * per
    foot, y = zero - low * per, zero - per * value
    digits = 1 if unit == "× A" else 0
    texts = [f"{v:.{digits}f}".replace("-", MINUS) for v in value]
    most = int(np.argmax(np.abs(value)))
    at = (
        Said("{share} of the lift", share=Share(shown[most] / 100))
        if joint is None
        else Angle.of_deg(shown[most])
    )
    edge = path.line(x, y)
    plot = Solo(
        joint=key,
        name=name,
        action=words,
        opposite="",
        held="",
        unit=unit,
        height=round(foot + 40.0, 1),
        zero=round(zero, 1),
        foot=round(foot, 1),
        lowering="",
        fast="",
        area=path.down_to(x, y, zero),
        edge=edge,
        strength="" if line is None else f"M{LEFT} {zero - per * line:.1f}H{WIDTH - RIGHT}",
        x_ticks=share_ticks(x) if joint is None else degree_ticks(shown, x),
        y_ticks=value_ticks(low, high, zero, per),
        peak=tell("most {size} {unit} at {at}", size=texts[most], unit=unit, at=at),
        axis=tr("through the lift") if joint is None else joint_bend(joint),
    )
    angles = [f"{v:.0f} %" if joint is None else whole(v) + "°" for v in shown]
    return plot, {
        "name": key,
        "x": [round(float(v), 1) for v in x],
        "deg": [round(float(v), 1) for v in shown],
        "angle": angles,
        "bend": angles,
        "say": [f"{a}, {t} {unit}" for a, t in zip(angles, texts, strict=True)],
        "read": {"value": texts},
    }


def table(
    plots: Sequence[Solo], script: Sequence[dict[str, Any]]
) -> tuple[tuple[str, ...], tuple[tuple[str, ...], ...]]:
    """Return columns and rows of a view's plots: the place in the lift and every quantity, as
    text.
    """
    own = {part["name"]: part for part in script}
    series = [own[p.joint] for p in plots if p.joint in own]
    if not series:
        return (), ()
    columns = (plots[0].axis, *(f"{p.name}, {p.unit}" for p in plots if p.joint in own))
    steps = range(0, len(series[0]["angle"]), max(1, len(series[0]["angle"]) // 20))
    return columns, tuple(
        (series[0]["angle"][i], *(part["read"]["value"][i] for part in series)) for i in steps
    )
