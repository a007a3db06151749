"""Every total that a stock can make, with the pieces to pick up."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from widearc.core.kit.stock import Kit, Machine

MOST_TOTALS = 300  # of one stock: more differ by less than a scale tells
OWN_KG = 40.0  # of the body, lifted with any weight


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """So many of one thing to pick up: kind as in the kit (or band), its label, kg each (0 for a
    band).
    """

    item: str
    kind: str
    label: str
    number: int
    kg: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Total:
    """A load the stock can make: kg in all, the pieces to pick up, and an unequal pair's share in
    the left hand.
    """

    kg: float
    pieces: tuple[Piece, ...] = field(default=())
    left_share: float | None = None


def bar_totals(kit: Kit, kind: str = "bar") -> tuple[Total, ...]:
    """Return every total of a bar (or trap bar) and plates loaded in pairs, lightest first, with
    the fewest plates.
    """
    totals: dict[float, Total] = {}
    for bar in kit.of(kind):
        base = Piece(item=bar.id, kind=kind, label=bar.name or kind, number=1, kg=bar.kg)
        for chosen in _plate_pairs(kit):
            total = round(bar.kg + chosen.kg, 6)
            found = Total(kg=total, pieces=(base, *chosen.pieces))
            if total not in totals or _plates(found) < _plates(totals[total]):
                totals[total] = found
    pieces = {kg: totals[kg].pieces for kg in sorted(totals)}
    return tuple(totals[kg] for kg in _thinned(pieces))


def _plates(chosen: Total) -> int:
    return sum(piece.number for piece in chosen.pieces)


def _plate_pairs(kit: Kit) -> tuple[Total, ...]:
    """Return every total of plates in pairs, from none, each with the fewest plates."""
    best: dict[float, tuple[Piece, ...]] = {0.0: ()}
    # heaviest first, so that equal totals are met with few large plates before many small ones
    for plate in reversed(kit.of("plate")):
        grown = dict(best)
        for pairs in range(1, plate.count // 2 + 1):
            piece = Piece(
                item=plate.id, kind="plate", label=f"{plate.kg:g}", number=2 * pairs, kg=plate.kg
            )
            for total, pieces in best.items():
                heavier = round(total + 2 * pairs * plate.kg, 6)
                more = (*pieces, piece)
                if heavier not in grown or sum(p.number for p in more) < sum(
                    p.number for p in grown[heavier]
                ):
                    grown[heavier] = more
        best = _thinned(grown)
    return tuple(Total(kg=total, pieces=best[total]) for total in sorted(best))


def _thinned(best: dict[float, tuple[Piece, ...]]) -> dict[float, tuple[Piece, ...]]:
    """Return totals as they are, or, of more than MOST_TOTALS, in even steps (shares of what is
    lifted) those with the fewest pieces, lightest first.
    """
    if len(best) <= MOST_TOTALS:
        return best
    kg = np.array(sorted(best))
    lifted = np.log(kg + OWN_KG)
    steps = ((lifted - lifted[0]) / (lifted[-1] - lifted[0]) * (MOST_TOTALS - 1)).astype(int)
    kept: dict[int, float] = {}
    for step, total in zip(steps.tolist(), kg.tolist(), strict=True):
        known = kept.setdefault(step, total)
        if sum(p.number for p in best[total]) < sum(p.number for p in best[known]):
            kept[step] = total
    return {total: best[total] for total in sorted({float(kg[0]), *kept.values()})}


def sled_totals(kit: Kit) -> tuple[Total, ...]:
    """Return every load of plates in pairs on a sled, from none, lightest first."""
    return _plate_pairs(kit)


def pair_totals(kit: Kit) -> tuple[Total, ...]:
    """Return one equal pair in the hands, for each size that is there twice; kg in all."""
    return tuple(
        Total(
            kg=2 * w.kg,
            pieces=(Piece(item=w.id, kind=w.kind, label=f"{w.kg:g}", number=2, kg=w.kg),),
        )
        for kind in ("dumbbell", "kettlebell")
        for w in kit.of(kind)
        if w.count >= 2
    )


def unequal_totals(kit: Kit) -> tuple[Total, ...]:
    """Return every pair of two sizes, one for each total: that whose heavier one has nearest 70 %
    (common practice).
    """
    best: dict[float, tuple[float, Total]] = {}
    for kind in ("dumbbell", "kettlebell"):
        sizes = kit.of(kind)
        for i, light in enumerate(sizes):
            for heavy in sizes[i + 1 :]:
                if heavy.kg <= light.kg:
                    continue
                total = round(light.kg + heavy.kg, 6)
                pieces = tuple(
                    Piece(item=w.id, kind=kind, label=f"{w.kg:g}", number=1, kg=w.kg)
                    for w in (heavy, light)
                )
                off = abs(heavy.kg / total - USUAL_HEAVY)
                if total not in best or off < best[total][0] - 1e-9:
                    best[total] = (
                        off,
                        Total(kg=total, pieces=pieces, left_share=round(heavy.kg / total, 4)),
                    )
    return tuple(best[kg][1] for kg in sorted(best))


def single_totals(kit: Kit, *, kettlebells: bool) -> tuple[Total, ...]:
    """Return one dumbbell (or kettlebell where it can be held), lightest first."""
    kinds = ("dumbbell", "kettlebell") if kettlebells else ("dumbbell",)
    totals = [
        Total(
            kg=w.kg, pieces=(Piece(item=w.id, kind=w.kind, label=f"{w.kg:g}", number=1, kg=w.kg),)
        )
        for kind in kinds
        for w in kit.of(kind)
    ]
    return tuple(sorted(totals, key=lambda p: p.kg))


def stack_totals(machine: Machine) -> tuple[Total, ...]:
    """Return every weight that a stack's pin can choose, lightest first."""
    q = machine.quantities
    low, high, step = q.get("smallest_kg", 5.0), q.get("largest_kg", 100.0), q.get("step_kg", 5.0)
    totals = np.arange(max(low, 0.1), high + 1e-6, step)
    return tuple(
        Total(
            kg=round(float(kg), 6),
            pieces=(
                Piece(
                    item=machine.id,
                    kind="stack",
                    label=machine.name.lower(),
                    number=1,
                    kg=float(kg),
                ),
            ),
        )
        for kg in totals
    )


def rail_totals(kit: Kit, machine: Machine) -> tuple[Total, ...]:
    """Return every total of a bar on rails (as it hangs) with plates in pairs, lightest first; kg
    in all.
    """
    own = machine.quantities.get("empty_kg", 0.0)
    base = Piece(item=machine.id, kind="rail bar", label=machine.name.lower(), number=1, kg=own)
    return tuple(
        Total(kg=round(own + p.kg, 6), pieces=(base, *p.pieces)) for p in _plate_pairs(kit)
    )


MOST_PLATES = 4


USUAL_HEAVY = (
    0.7  # of an unequal pair's weight, opposite the working leg (common practice, no source)
)


def plate_totals(kit: Kit) -> tuple[Total, ...]:
    """Return every total of up to four single plates (one side of a machine, a pin, a bar end),
    with the fewest.
    """
    best: dict[float, tuple[Piece, ...]] = {0.0: ()}
    for plate in reversed(kit.of("plate")):
        grown = dict(best)
        for total, pieces in best.items():
            used = sum(p.number for p in pieces)
            for number in range(1, min(plate.count, MOST_PLATES - used) + 1):
                heavier = round(total + number * plate.kg, 6)
                more = (
                    *pieces,
                    Piece(
                        item=plate.id,
                        kind="plate",
                        label=f"{plate.kg:g}",
                        number=number,
                        kg=plate.kg,
                    ),
                )
                if heavier not in grown or used + number < sum(p.number for p in grown[heavier]):
                    grown[heavier] = more
        best = _thinned(grown)
    return tuple(Total(kg=total, pieces=best[total]) for total in sorted(best))


def one_hand_totals(kit: Kit) -> tuple[Total, ...]:
    """Return one dumbbell or kettlebell in one hand, lightest first."""
    return single_totals(kit, kettlebells=True)
