"""The one thing to buy that closes the widest gap of a ladder."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import TypeVar

from widearc.core.kit import BandStock, Kit, Machine, SpringStock, Weight
from widearc.core.progression.ladder import ladder_of
from widearc.core.progression.rung import Ladder, Rung
from widearc.core.progression.steps import share_of
from widearc.core.progression.stock import SAME
from widearc.core.progression.weights import other_weights
from widearc.core.words import Mass, Name, Said

T = TypeVar("T", BandStock, SpringStock)

PLATES_KG = (0.5, 1.25, 2.5, 5.0)
"""Pairs of plates that are sold (common practice, no source)."""
STEP_KG = 0.5
"""Dumbbells are sold in such steps."""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class ForLadder:
    """What a purchase does: words; the gap from which rung, share; what it becomes, shares."""

    words: Said
    below: Rung
    gap: float
    becomes: tuple[float, ...]


def purchase_for(ladder: Ladder, kit: Kit, machine: Machine | None = None) -> ForLadder | None:
    """Return the plate pair, dumbbell, band or spring that brings the widest gap about the present
    rung or above it down most; None where no gap is wide or nothing here closes it.
    """
    found = widest(ladder.rungs[max(0, ladder.present - 1) :])
    if found is None:
        return None
    below, above, gap = found
    best: ForLadder | None = None
    for words, bought in _things(kit, below, above):
        steps = _steps(below, above, bought, machine)
        better = best is None or max(steps) < max(best.becomes) - 1e-9
        if len(steps) > 1 and max(steps) < gap - SAME and better:
            best = ForLadder(words=words, below=below, gap=gap, becomes=steps)
    return best


def widest(rungs: Sequence[Rung]) -> tuple[Rung, Rung, float] | None:
    """Return the rungs about the widest of the wide gaps and its step, None where none is wide."""
    wide = [(b, a, float(a.step or 0.0)) for b, a in pairwise(rungs) if a.wide]
    return max(wide, key=lambda w: w[2], default=None)


def _steps(below: Rung, above: Rung, kit: Kit, machine: Machine | None) -> tuple[float, ...]:
    """Return the steps that lead from one rung to another with a kit, shares: of the load where one
    weight changes, as its totals tell; of effort else.
    """
    if above.of_load and below.kg and above.kg:
        totals = [w.kg for w in other_weights(below.setup, below.pieces, kit, machine)]
        inside = [below.kg, *(kg for kg in totals if below.kg < kg < above.kg), above.kg]
        return tuple(b / a - 1.0 for a, b in pairwise(inside))
    return steps_between(ladder_of(above.setup, above.pieces, kit).rungs, below, above)


def steps_between(rungs: Sequence[Rung], below: Rung, above: Rung) -> tuple[float, ...]:
    """Return the steps that lead from one rung's effort to another's, shares."""
    low, high = below.effort * (1.0 - SAME / 2), above.effort * (1.0 + SAME / 2)
    inside = [r for r in rungs if low <= r.effort <= high]
    return tuple(share_of(b, a)[0] for b, a in pairwise(inside))


def _things(kit: Kit, below: Rung, above: Rung) -> Iterator[tuple[Said, Kit]]:
    """Yield what may be bought, the likeliest first, with the kit that has it."""
    if below.kg is not None and above.kg is not None:
        yield from _weights(kit, below, above)
    yield from _elastic(kit, {*below.bands, *above.bands})


def _elastic(kit: Kit, used: set[str]) -> Iterator[tuple[Said, Kit]]:
    for band in [b for b in kit.bands if b.name in used][:1]:
        bands = tuple(_one_more(b) if b is band else b for b in kit.bands)
        yield Said("another {name}", name=Name(band.name)), replace(kit, bands=bands)
    for spring in [s for s in kit.springs if s.name in used][:1]:
        springs = tuple(_one_more(s) if s is spring else s for s in kit.springs)
        yield Said("another {name}", name=Name(spring.name)), replace(kit, springs=springs)


def _weights(kit: Kit, below: Rung, above: Rung) -> Iterator[tuple[Said, Kit]]:
    kinds = {p.kind for p in (*below.pieces, *above.pieces)}
    if kinds & {"dumbbell", "kettlebell"}:
        number = max((p.number for p in above.pieces if p.kg > 0.0), default=1)
        middle = ((below.kg or 0.0) + (above.kg or 0.0)) / 2.0
        each = STEP_KG * round(middle / number / STEP_KG)
        yield Said("a pair of {mass} dumbbells", mass=Mass(each)), _with(kit, "dumbbell", each)
    if kinds & {"plate", "bar"}:
        for kg in PLATES_KG:
            yield Said("a pair of {mass} plates", mass=Mass(kg)), _with(kit, "plate", kg)


def _one_more(stock: T) -> T:
    return replace(stock, count=stock.count + 1)


def _with(kit: Kit, kind: str, kg: float) -> Kit:
    bought = Weight(id="+", kind=kind, kg=kg, count=2)
    return replace(kit, weights=(*kit.weights, bought))
