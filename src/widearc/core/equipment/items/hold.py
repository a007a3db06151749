"""Whether what a band or cable is tied to stays where it is: rated eyes, loose weights, furniture,
feet.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.units import G

GRIP = 0.4  # friction coefficient between a weight or furniture and the floor (assumed)
WARN_BELOW, REFUSE_BELOW = 1.5, 1.0  # margins (common practice, no source)
HoldKind = Literal["eye", "weight", "furniture", "feet", "partner"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Hold:
    """What holds an anchor.

    holds_n: an eye's or partner's rating, N. kg: a loose weight, furniture, or the body on its
    feet. height_m: of the tie over the floor; depth_m: furniture from its near foot to the tie's
    foot side (half its depth is taken for its centre of mass).
    """

    kind: HoldKind
    holds_n: float | None = None
    kg: float = 0.0
    height_m: float = 0.0
    depth_m: float = 0.5


@dataclass(frozen=True, slots=True, kw_only=True)
class Margin:
    """How much an anchor holds over what is pulled, and the way it would give: lifts, slides, tips,
    breaks.
    """

    margin: float
    gives_by: str

    @property
    def verdict(self) -> str:
        """Return "holds", "warn" or "refuse"."""
        if self.margin < REFUSE_BELOW:
            return "refuse"
        return "warn" if self.margin < WARN_BELOW else "holds"


def margin(hold: Hold, pull_x: Array, pull_y: Array) -> Margin | None:
    """Return the least margin over the samples of a pull on the anchor (N; x any way along the
    floor, y up).

    A loose weight W lifts when the upward pull exceeds W and slides when the level pull exceeds
    0.4·(W − upward pull) (assumed); furniture also tips about its near foot. An eye without a
    rating gives None: not known.
    """
    if not np.any(np.hypot(pull_x, pull_y) > 0):
        return Margin(margin=float("inf"), gives_by="nothing pulls")
    ways = [(_ratio(can, asked), word) for can, asked, word in _ways(hold, pull_x, pull_y)]
    if not ways:
        return None
    least = min(ways)
    return Margin(margin=least[0], gives_by=least[1])


def gives_way(hold: Hold, pull_x: Array, pull_y: Array) -> BoolArray:
    """Return which pulls (N, (set-ups, samples)) an anchor does not hold, (set-ups,): those
    `margin` refuses.
    """
    gives = np.zeros(pull_x.shape[0], dtype=bool)
    for can, asked, _ in _ways(hold, pull_x, pull_y):
        gives |= can < REFUSE_BELOW * np.max(asked, axis=-1)
    return gives


def _ways(hold: Hold, pull_x: Array, pull_y: Array) -> Iterator[tuple[float, Array, str]]:
    """Yield each way an anchor can give: what it bears there, what is asked of it at each sample,
    and the word.
    """
    if hold.kind in ("eye", "partner"):
        if hold.holds_n is not None:
            yield (
                hold.holds_n,
                np.hypot(pull_x, pull_y),
                "breaks" if hold.kind == "eye" else "lets go",
            )
        return
    up, level = np.maximum(pull_y, 0.0), np.abs(pull_x)
    weight = hold.kg * G
    yield weight, up, "lifts"
    yield GRIP * weight, level + GRIP * up, "slides"
    if hold.kind == "furniture":
        # about the near foot: the pull's height and its upward part at the near edge against half
        # the depth
        yield weight * hold.depth_m / 2.0, level * hold.height_m, "tips"


def _ratio(can: float, asked: Array) -> float:
    most = float(np.max(asked))
    return float("inf") if most <= 0 else can / most


OVERHANG_M = 0.05  # how far a couch's or table's edge stands out over its near feet (assumed)


def held_down(kg: float, up: Array) -> Margin:
    """Return the least margin of furniture that is pulled up at its near edge: it tips about its
    far feet once the pull is more than half its weight.

    kg: of the furniture, its centre of mass in the middle; up: pull, N (samples,), up positive.
    """
    pull = float(np.maximum(up, 0.0).max())
    return Margin(margin=kg * G / 2.0 / pull if pull > 1e-9 else np.inf, gives_by="lifts")


def stands(kg: float, depth_m: float, height_m: float, level: Array, down: Array) -> Margin:
    """Return the least margin of furniture with a body on its near edge: it slides, or tips about
    its near feet.

    level: push along the floor either way, down: weight on the edge, N (samples,), down positive.
    kg, depth_m: of the furniture, its centre of mass in the middle; height_m: of the edge. Friction
    with the floor as for a hold.
    """
    weight = kg * G
    across, press = np.abs(level), np.maximum(down, 0.0)
    slides = np.divide(
        GRIP * (weight + press), across, out=np.full(across.shape, np.inf), where=across > 1e-9
    )
    turning = across * height_m + press * OVERHANG_M
    standing = weight * (depth_m / 2.0 - OVERHANG_M)
    tips = np.divide(standing, turning, out=np.full(turning.shape, np.inf), where=turning > 1e-9)
    least = min((float(slides.min()), "slides"), (float(tips.min()), "tips"))
    return Margin(margin=least[0], gives_by=least[1])
