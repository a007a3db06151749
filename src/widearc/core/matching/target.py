"""The wanted loading on the 1° grid: from a lift, from an intent, laid out anew."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from types import MappingProxyType
from typing import TYPE_CHECKING

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.curve import CENTRES_DEG, STILL, Action, on_grid
from widearc.core.dose import RepStyle, StyleKind, Tempo, style_weight
from widearc.core.errors import TargetError
from widearc.core.intent import Intent, Shape, shaped
from widearc.core.matching.measure import BESIDE
from widearc.core.statics import Curve
from widearc.core.strength import ACTIONS, strength_nm
from widearc.core.units import DEG
from widearc.core.words import Name, Said, Term

if TYPE_CHECKING:
    from widearc.core.matching.match import Comparison


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Target:
    """The loading that is wanted: per prime action its bins on the 1° grid (N·m over each degree,
    (220,)).

    shape: how it was laid out, if not as the curve it came from. has_level: whether it says how
    much, or only where; without a level only the shape of a candidate counts. weights: time at each
    degree over a plain rep's, (220,) each, where a rep style is wanted: the bins hold demand times
    these. tempo: of a rep. works: of the lift it came from, N·m·° in each hip and knee action: only
    what a stand-in asks beyond that is asked beside what is wanted.
    """

    actions: tuple[Action, ...]
    bins: tuple[Array, ...]
    shape: Shape = Shape.ORIGINAL
    has_level: bool = True
    weights: tuple[Array, ...] = ()
    tempo: Tempo = field(default_factory=Tempo)
    works: Mapping[Action, float] = field(default_factory=lambda: MappingProxyType({}))
    key: bytes = field(init=False, repr=False)

    def __post_init__(self) -> None:
        """Make a key that is equal for equal targets, to keep answers by."""
        parts = (
            a.label.encode() + b.tobytes() for a, b in zip(self.actions, self.bins, strict=True)
        )
        beside = repr(sorted((a.label, round(w, 6)) for a, w in self.works.items())).encode()
        object.__setattr__(self, "key", b"".join(parts) + bytes([self.has_level]) + beside)

    @property
    def work_j(self) -> float:
        """Return the positive work of all prime joints together, J, one leg."""
        return float(sum(b.sum() for b in self.bins) * DEG)

    def range_deg(self, index: int) -> tuple[float, float]:
        """Return the lengthened and the shortened end (degrees) of a prime joint's loaded range."""
        used = CENTRES_DEG[self.bins[index] > 0]
        ends = float(used.min() - 0.5), float(used.max() + 0.5)
        return ends[::-1] if self.actions[index].direction < 0 else ends

    @property
    def main(self) -> int:
        """Return the index of the prime joint with the most wanted work."""
        return int(np.argmax([b.sum() for b in self.bins]))

    def load_centre_deg(self, index: int) -> float:
        """Return where the middle of a prime joint's wanted work lies, degrees."""
        return float(centroid(self.bins[index][None, :])[0])

    def at_level_of(self, compared: Comparison) -> Target:
        """Return the target brought to the work of a candidate (one row) where it has no level of
        its own.
        """
        level = float(compared.level[0])
        if self.has_level or level <= 0:
            return self
        works = MappingProxyType({a: w * level for a, w in self.works.items()})
        return replace(self, bins=tuple(b * level for b in self.bins), works=works)

    def long_third_share(self, index: int) -> float:
        """Return the share of the work done in the lengthened third of the range."""
        return float(long_third_share(self.bins[index][None, :], self.range_deg(index))[0])


def target_of(curve: Curve, row: int = 0) -> Target:
    """Return the target that asks for a curve's own loading on its exercise's prime actions.

    A prime joint that travels under 5°, or has no computed demand, is dropped. Raises TargetError
    when no positive work is left.
    """
    actions, bins = [], []
    for action in curve.setup.exercise.prime:
        demand = curve.demand_nm.get(action.joint)
        if demand is None or np.ptp(curve.motion.angles[action.joint][row]) < STILL:
            continue
        grid = on_grid(curve.motion.angles[action.joint][row], demand[row], action)[0]
        if grid.sum() > 0:
            actions.append(action)
            bins.append(grid)
    if not actions:
        raise TargetError(
            Said(
                "{name} asks for no work of its prime joints here: nothing to match",
                name=Name(curve.setup.exercise.name),
            )
        )
    return Target(actions=tuple(actions), bins=tuple(bins), works=works_of(curve, row))


def works_of(curve: Curve, row: int = 0) -> Mapping[Action, float]:
    """Return a curve's positive work in each hip and knee action, N·m·°."""
    angles, demand = curve.motion.angles, curve.demand_nm
    return MappingProxyType(
        {
            action: float(
                on_grid(angles[action.joint][row], demand[action.joint][row], action).sum()
            )
            for action in BESIDE
            if action.joint in demand
        }
    )


def target_of_intent(intent: Intent, body: Body, *, by_dose: bool = True) -> Target:
    """Return the target of a wanted loading for a body; by_dose: demand times how long its rep
    style holds each degree, else demand, and of a style only partials count: they cut the range.

    Without a level both joints weigh the same per degree.
    """
    if not by_dose:
        intent = replace(intent, style=compared_style(intent.style))
    weights = tuple(intent.weights(part) for part in intent.parts)
    bins = tuple(part.demand_nm(body) * w for part, w in zip(intent.parts, weights, strict=True))
    for part, b in zip(intent.parts, bins, strict=True):
        if b.sum() <= 0:
            raise TargetError(
                Said(
                    "nothing is left of the wanted {words}: its partials lie outside its range",
                    words=Term(part.action.words),
                )
            )
    return Target(
        actions=tuple(part.action for part in intent.parts),
        bins=bins,
        has_level=intent.has_level,
        weights=weights,
        tempo=intent.tempo,
    )


def compared_style(style: RepStyle) -> RepStyle:
    """Return what of a rep style counts where demand is compared: partials cut the range, all else
    is a matter of time.
    """
    return style if style.kind is StyleKind.PARTIALS else RepStyle()


def styled(target: Target, style: RepStyle, tempo: Tempo) -> Target:
    """Return a target with its demand weighted by how long a rep style holds each degree, in the
    plain rep's unit.

    Angles of the style are those of the first prime joint; the other passes its own range with it.
    """
    if style == RepStyle():
        return target if tempo == target.tempo else replace(target, tempo=tempo)
    ends = [target.range_deg(i) for i in range(len(target.actions))]
    weights = tuple(
        style_weight(style if i == 0 else style.moved(ends[0], e), tempo, e)
        for i, e in enumerate(ends)
    )
    bins = tuple(b * w for b, w in zip(target.bins, weights, strict=True))
    if not all(b.sum() > 0 for b in bins):
        raise TargetError(
            Said("nothing is left of what is wanted: the partials lie outside its range")
        )
    return replace(target, bins=bins, weights=weights, tempo=tempo)


def reshaped(target: Target, shape: Shape, body: Body) -> Target:
    """Return a target with the same ranges and mean demands in another shape; body: for the usual
    strength curves.

    Raises InputError for a shape along a strength that is not known (abduction, adduction).
    """
    if shape is Shape.ORIGINAL:
        return target
    return Target(
        actions=target.actions,
        works=target.works,
        shape=shape,
        bins=tuple(
            shaped(b, a.direction, shape, _usual_strength(a, body))
            for a, b in zip(target.actions, target.bins, strict=True)
        ),
    )


def _usual_strength(action: Action, body: Body) -> Array | None:
    if action.label not in ACTIONS:
        return None
    return strength_nm(
        action.label,
        CENTRES_DEG * DEG,
        mass_kg=body.mass_kg,
        stature_m=body.stature_m,
        sex=body.sex.value,
    )


def centroid(bins: Array) -> Array:
    """Return the angle in degrees, one per row of `bins` (work in J, 0 or more, one column per
    angle of the grid), about which its work balances; nan for a row without work.
    """
    total = bins.sum(axis=1)
    return np.asarray(
        np.divide(
            (bins * CENTRES_DEG).sum(axis=1), total, out=np.full(len(bins), np.nan), where=total > 0
        )
    )


def long_third_share(bins: Array, ends_deg: tuple[float, float]) -> Array:
    """Return the share of the work (set-ups,) within the lengthened third of a range (degrees), 0
    without work.
    """
    long_end, short_end = ends_deg
    third = long_end + (short_end - long_end) / 3.0
    inside = (min(long_end, third) <= CENTRES_DEG) & (max(long_end, third) >= CENTRES_DEG)
    total = bins.sum(axis=1)
    return np.asarray(
        np.divide(bins[:, inside].sum(axis=1), total, out=np.zeros(len(bins)), where=total > 0)
    )
