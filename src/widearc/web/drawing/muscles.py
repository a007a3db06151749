"""Muscles over their own length, drawn from long to short: tension as height, ordered by work.
Draws only.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.muscle import GROUPS, NAMES, GroupUse, MuscleUse, positive_work_j
from widearc.web.drawing import path
from widearc.web.words.words import newtons, whole
from widearc.words import size_of

WIDTH, HEIGHT, BASE = 240.0, 34.0, 30.0
TALL = 26.0
SHOWN = 0.03  # of the greatest tension: less is left out


@dataclass(frozen=True, slots=True, kw_only=True)
class MuscleRow:
    """One muscle group's line: name, work and shares in words, the tension's path over its range,
    where it went.
    """

    name: str
    work: str
    share: str
    thirds: tuple[str, str, str]
    path: str
    start: float
    end: float
    most: str
    travel: str


def rows(use: MuscleUse) -> tuple[MuscleRow, ...]:
    """Return the groups that are under tension, the one with the most work first."""
    groups = [use.of(name) for name in GROUPS]
    most = max(float(g.force_n.max()) for g in groups)
    total = positive_work_j(use)
    shown = [g for g in groups if most > 0 and float(g.force_n.max()) >= SHOWN * most]
    return tuple(_row(g, most, total) for g in sorted(shown, key=lambda g: -g.work_j))


def _row(group: GroupUse, most: float, total: float) -> MuscleRow:
    x = WIDTH * (1.0 - np.clip(group.fraction, 0.0, 1.0))
    y = BASE - TALL * group.force_n / most
    worked = max(group.work_j, 0.0)
    return MuscleRow(
        name=NAMES[group.group],
        work=whole(group.work_j),
        share=whole(100 * worked / total) if total > 0 else "0",
        thirds=_thirds(group),
        path=_area(x, y),
        start=round(float(x[0]), 1),
        end=round(float(x[-1]), 1),
        most=newtons(float(group.force_n.max())),
        travel=f"{1000 * group.shortening_m / size_of('mm'):.1f}"
        if size_of("mm") != 1.0
        else whole(1000 * group.shortening_m),
    )


def _thirds(group: GroupUse) -> tuple[str, str, str]:
    total = sum(max(v, 0.0) for v in group.thirds_j)
    if total <= 0.5:
        return ("–", "–", "–")
    long, middle, short = (whole(100 * max(v, 0.0) / total) for v in group.thirds_j)
    return long, middle, short


def _area(x: Array, y: Array) -> str:
    return path.down_to(x, y, BASE)


COLUMNS = (
    "muscle",
    "work, J",
    "share, %",
    "long third, %",
    "middle third, %",
    "short third, %",
    "most tension, N",
    "shortens by, mm",
)


def values(use: MuscleUse) -> tuple[tuple[str, ...], ...]:
    """Return the same groups as a table of text, one leg while lifting."""
    return tuple((r.name, r.work, r.share, *r.thirds, r.most, r.travel) for r in rows(use))
