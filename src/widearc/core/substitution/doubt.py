"""How sure a match is: loads as their readings allow, the client's body on both sides."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import Band, SpringLoad
from widearc.core.intent import Shape
from widearc.core.matching import Comparison, Target, compare, reshaped, target_of
from widearc.core.statics import BodyDoubt, Curve, body_variants, load_variants, variant_curve
from widearc.core.substitution.kit import Kit, Piece


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Doubt:
    """One standard error of the match (share), and of each demand, N·m (samples), by joint name."""

    match: float
    demand_nm: Mapping[str, Array]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WantedDoubt:
    """What is wanted, one standard error of the client's body away: targets by source ("mass", "thigh")."""

    body: BodyDoubt
    targets: Mapping[str, Target]


def wanted_doubt(wanted: Curve, body: BodyDoubt, shape: Shape = Shape.ORIGINAL) -> WantedDoubt:
    """Return the wanted curve's targets for the body one standard error away; a source that fails is left out."""
    found = {}
    for source, setup in body_variants(wanted.setup, body).items():
        moved = variant_curve(setup)
        if moved is not None:
            found[source] = reshaped(target_of(moved), shape, wanted.setup.body)
    return WantedDoubt(body=body, targets=found)


def load_errors(own: Curve, pieces: tuple[Piece, ...], kit: Kit, machine: str = "") -> tuple[float, ...]:
    """Return one standard error of each load of a set-up as a share of it, from what the kit knows of its pieces.

    machine: the id of what it is done on: its own error counts where its load is not loose iron.
    """
    weights = {w.id: w for w in kit.weights}
    elastic_of = {b.id: b.error for b in kit.bands} | {s.id: s.error for s in kit.springs}
    made_on = ({m.id: m.error for m in kit.machines} | {p.id: p.error for p in kit.presses}).get(machine, 0.0)
    iron = [(p.number * p.kg, weights[p.item].error) for p in pieces if p.item in weights]
    total = sum(kg for kg, _ in iron)
    # pieces of one size err together, sizes err apart
    mass = float(np.sqrt(sum((kg * error) ** 2 for kg, error in iron))) / total if total > 0 else 0.0
    pull = max((elastic_of[p.item] for p in pieces if p.item in elastic_of), default=0.0)
    return tuple(
        pull if isinstance(load, Band | SpringLoad) else max(mass, made_on) if load.kind != "mass" else mass
        for load in own.setup.loads
    )


def doubt_about(
    own: Curve, compared: Comparison, target: Target, wanted: WantedDoubt, errors: tuple[float, ...]
) -> Doubt:
    """Return how sure a stand-in's match and demands are.

    Each load moves the stand-in; the body moves stand-in and target together, so that what both share cancels.
    """
    here = float(compared.score(target)[0])
    squares = {name: np.zeros(values.shape[-1]) for name, values in own.demand_nm.items()}
    spread = 0.0
    variants = {**load_variants(own.setup, errors), **body_variants(own.setup, wanted.body)}
    for source, setup in variants.items():
        moved = variant_curve(setup)
        asked = wanted.targets.get(source, target)
        if moved is None or asked.actions != target.actions:
            continue
        there = compare(asked, moved.motion.angles, moved.demand_nm, 1)
        spread += (float(there.score(asked)[0]) - here) ** 2
        for name in squares:
            squares[name] += (moved.demand_nm[name][0] - own.demand_nm[name][0]) ** 2
    return Doubt(match=float(np.sqrt(spread)), demand_nm={name: np.sqrt(total) for name, total in squares.items()})
