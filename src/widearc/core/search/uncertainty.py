"""How sure a match is: loads as their readings allow, the client's body on both sides."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import WideArcError
from widearc.core.intent import Shape
from widearc.core.kit import Kit, Piece
from widearc.core.matching import Comparison, Target, compare, reshaped, target_of
from widearc.core.movement import Setup
from widearc.core.statics import (
    BodyUncertainty,
    Curve,
    Share,
    body_variants,
    computed,
    gathered,
    load_variants,
    variant_curve,
)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Uncertainty:
    """One standard error of the match (share), and of each demand, N·m (samples), by joint name."""

    match: float
    demand_nm: Mapping[str, Array]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WantedUncertainty:
    """What is wanted, one standard error of the client's body away: targets by source ("mass",
    "thigh").
    """

    body: BodyUncertainty
    targets: Mapping[str, Target]


def wanted_uncertainty(
    wanted: Curve, body: BodyUncertainty, shape: Shape = Shape.ORIGINAL
) -> WantedUncertainty:
    """Return the wanted curve's targets for the body one standard error away; a source that fails
    is left out.
    """
    found = {}
    for source, setup in body_variants(wanted.setup, body).items():
        moved = variant_curve(setup)
        if moved is not None:
            found[source] = reshaped(target_of(moved), shape, wanted.setup.body)
    return WantedUncertainty(body=body, targets=found)


def load_errors(
    own: Curve, pieces: tuple[Piece, ...], kit: Kit, machine: str = ""
) -> tuple[float, ...]:
    """Return one standard error of each load of a set-up as a share of it, from what the kit knows
    of its pieces.

    machine: the id of what it is done on: its own error counts where its load is not loose iron.
    """
    weights = {w.id: w for w in kit.weights}
    elastic_of = {b.id: b.error for b in kit.bands} | {s.id: s.error for s in kit.springs}
    made_on = ({m.id: m.error for m in kit.machines} | {p.id: p.error for p in kit.presses}).get(
        machine, 0.0
    )
    iron = [(p.number * p.kg, weights[p.item].error) for p in pieces if p.item in weights]
    total = sum(kg for kg, _ in iron)
    # pieces of one size err together, sizes err apart
    mass = (
        float(np.sqrt(sum((kg * error) ** 2 for kg, error in iron))) / total if total > 0 else 0.0
    )
    pull = max((elastic_of[p.item] for p in pieces if p.item in elastic_of), default=0.0)
    return tuple(
        {"elastic": pull, "iron": mass, "machine": max(mass, made_on)}[load.made_of]
        for load in own.setup.loads
    )


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Unsure:
    """A stand-in's curve and comparison with a target, what is wanted, and one standard error of
    each of its loads.
    """

    own: Curve
    compared: Comparison
    target: Target
    wanted: WantedUncertainty
    errors: tuple[float, ...]


def uncertainties_of(asked: Sequence[Unsure]) -> list[Uncertainty]:
    """Return how sure the match and the demands of stand-ins are, in their order; computed
    together.

    Each load moves the stand-in; the body moves stand-in and target together, so that what both
    share cancels.
    """
    tried: list[tuple[int, Target, Setup]] = []
    for number, one in enumerate(asked):
        variants = {
            **load_variants(one.own.setup, one.errors),
            **body_variants(one.own.setup, one.wanted.body),
        }
        wanted = {source: one.wanted.targets.get(source, one.target) for source in variants}
        tried += [
            (number, wanted[source], setup)
            for source, setup in variants.items()
            if wanted[source].actions == one.target.actions
        ]
    spread = np.zeros(len(asked))
    squares = [
        {name: np.zeros(v.shape[-1]) for name, v in one.own.demand_nm.items()} for one in asked
    ]
    moved = _moved([setup for _, _, setup in tried])
    alike: dict[bytes, list[int]] = {}
    for index, ((_, target, _), share) in enumerate(zip(tried, moved, strict=True)):
        if share is not None:
            alike.setdefault(target.key, []).append(index)
    for numbers in alike.values():
        target = tried[numbers[0]][1]
        there = gathered([share for share in (moved[p] for p in numbers) if share is not None])
        scores = compare(target, there.angles, there.demand, there.rows).score(target)
        for index, at in zip(numbers, there.at, strict=True):
            number = tried[index][0]
            one, row = asked[number], int(at[0])
            spread[number] += (float(scores[row]) - float(one.compared.score(one.target)[0])) ** 2
            for name, total in squares[number].items():
                total += (there.demand[name][row] - one.own.demand_nm[name][0]) ** 2
    return [
        Uncertainty(
            match=float(np.sqrt(s)), demand_nm={name: np.sqrt(total) for name, total in own.items()}
        )
        for s, own in zip(spread, squares, strict=True)
    ]


def _moved(setups: Sequence[Setup]) -> list[Share | None]:
    """Return each variant's curves, None where that posture cannot be reached: it then says
    nothing.
    """
    try:
        shares: list[Share] = computed(setups)
    except WideArcError:
        if len(setups) == 1:
            return [None]
        return [share for setup in setups for share in _moved([setup])]
    return [None if int(share.rows[0]) in share.whole.motion.failed else share for share in shares]
