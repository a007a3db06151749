"""How sure a match is: loads as their readings allow, the body, how a set-up is hit, what nobody
knows of pushes.

A match near 1 can only be spoiled by errors, so that a ± about it would be wrong. For each error k
the match one standard error up and down gives oₖ, half the difference, and eₖ, by how much their
mean falls short. As usually hit: M = match - 0.8·√Σe², SD² = Σo² + 0.36·Σe²: mean and variance of a
half-normal loss. (0.8 = √(2/π) and 0.36 = 1 - 2/π.) Checked against paired draws in the tests.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType

import numpy as np
from scipy.special import ndtr

from widearc.core.arrays import Array
from widearc.core.errors import WideArcError
from widearc.core.kit import Kit, Piece
from widearc.core.matching import Comparison, Target, compare, target_of
from widearc.core.movement import Setup
from widearc.core.statics import (
    SHARED,
    BodyUncertainty,
    Curve,
    Doubt,
    Share,
    computed_across,
    gathered,
    moved,
    sources_of,
)

LOSS_MEAN, LOSS_VARIANCE = 0.8, 0.36  # of a half-normal loss
ONE_WAY = frozenset({"mass", "thigh", "shank"})
"""What hardly bends a match: tried upwards only, the other way is taken to be its mirror."""

WANTED = "wanted "  # before the source: an error of how the wanted lift itself is hit
WANTED_LOAD = 0.01  # of the wanted lift's loads, one standard error (assumed)

Effect = tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Uncertainty:
    """How sure a match (share) and its demands are.

    nominal: the match as computed; effects: by source, half the change between one standard error
    up and down, and by how much their mean falls short. demand_nm: one standard error of each
    demand, N·m (samples), by joint name.
    """

    nominal: float
    effects: Mapping[str, Effect]
    demand_nm: Mapping[str, Array]

    @property
    def usual(self) -> float:
        """Return the match as it is usually hit, a share."""
        loss = np.sqrt(sum(e * e for _, e in self.effects.values()))
        return float(max(self.nominal - LOSS_MEAN * loss, 0.0))

    @property
    def sd(self) -> float:
        """Return one standard deviation about the usual match, a share."""
        return float(np.sqrt(sum(o * o + LOSS_VARIANCE * e * e for o, e in self.effects.values())))


def chance_better(first: Uncertainty, other: Uncertainty) -> float:
    """Return the chance (0 to 1) that the first is the better match once both are set up.

    The wanted lift's errors, the body's and those of pushes are the same for both.
    """
    variance = LOSS_VARIANCE * sum(e * e for u in (first, other) for _, e in u.effects.values())
    for source in first.effects.keys() | other.effects.keys():
        (o_a, e_a), (o_b, e_b) = (u.effects.get(source, (0.0, 0.0)) for u in (first, other))
        if is_shared(source):
            variance += (o_a - o_b) ** 2 - 2.0 * LOSS_VARIANCE * e_a * e_b
        else:
            variance += o_a**2 + o_b**2
    apart = first.usual - other.usual
    if variance <= 1e-18:
        return 0.5 if abs(apart) < 1e-12 else float(apart > 0)
    return float(ndtr(apart / np.sqrt(variance)))


def is_shared(source: str) -> bool:
    """Return whether an error is the same for all stand-ins of a question."""
    return source in SHARED or source.startswith(WANTED)


Laid = Callable[[Target], Target]
"""What a question makes of a target: its shape, its rep style."""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WantedUncertainty:
    """What is wanted, one standard error away: targets up and down by source; None where that
    cannot be done. body: how sure the client's is.
    """

    body: BodyUncertainty
    targets: Mapping[str, tuple[Target | None, Target | None]] = field(
        default_factory=lambda: MappingProxyType({})
    )


def wanted_uncertainty(wanted: Curve, body: BodyUncertainty, laid: Laid) -> WantedUncertainty:
    """Return the wanted curve's targets with each error one standard error away: what all share by
    its name, how the lift itself is hit as "wanted …".
    """
    doubt = Doubt(body=body, loads=(WANTED_LOAD,) * len(wanted.setup.loads))
    asked = [(source, way) for source in sources_of(wanted.setup, doubt) for way in _ways(source)]
    shares = _computed([moved(wanted.setup, {s: w}, doubt) for s, w in asked])
    found: dict[str, list[Target | None]] = {}
    for (source, way), share in zip(asked, shares, strict=True):
        name = source if source in SHARED else WANTED + source
        found.setdefault(name, [None, None])[0 if way > 0 else 1] = _target(share, laid)
    return WantedUncertainty(body=body, targets={n: (t[0], t[1]) for n, t in found.items()})


def _ways(source: str) -> tuple[float, ...]:
    return (1.0,) if source in ONE_WAY else (1.0, -1.0)


def _target(share: Share | None, laid: Laid) -> Target | None:
    if share is None:
        return None
    try:
        return laid(target_of(share.whole, int(share.rows[0])))
    except WideArcError:
        return None


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

    @property
    def nominal(self) -> float:
        """Return the match as computed, a share."""
        return float(self.compared.score(self.target)[0])


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class _Trial:
    """One stand-in with one error one way: the number of its set-up, whether that moves, and the
    target.
    """

    number: int
    source: str
    way: float
    at: int
    moves: bool
    target: Target


def _trials(number: int, one: Unsure, setups: list[Setup]) -> list[_Trial]:
    """Return what to try of a stand-in: each of its own errors, each of the wanted lift's, and what
    both share together. setups: where to put the set-ups that it takes.
    """
    setup, doubt = one.own.setup, Doubt(body=one.wanted.body, loads=one.errors)
    own, targets = sources_of(setup, doubt), one.wanted.targets
    still, found = len(setups), []
    setups.append(moved(setup, {}, doubt))
    for source in dict.fromkeys((*own, *targets)):
        for way in _ways(source.removeprefix(WANTED)):
            target = targets.get(source, (None, None))[0 if way > 0 else 1]
            if target is not None and target.actions != one.target.actions:
                continue
            moves = source in own
            if not moves and target is None:
                continue
            if moves:
                setups.append(moved(setup, {source: way}, doubt))
            found.append(
                _Trial(
                    number=number,
                    source=source,
                    way=way,
                    at=len(setups) - 1 if moves else still,
                    moves=moves,
                    target=target or one.target,
                )
            )
    return found


def uncertainties_of(asked: Sequence[Unsure]) -> list[Uncertainty]:
    """Return how sure the match and the demands of stand-ins are, in their order; computed
    together.
    """
    setups: list[Setup] = []
    trials = [trial for number, one in enumerate(asked) for trial in _trials(number, one, setups)]
    made = _computed(setups)
    shares = [made[trial.at] for trial in trials]
    scores = _scores(trials, shares)
    squares = [
        {name: np.zeros(v.shape[-1]) for name, v in one.own.demand_nm.items()} for one in asked
    ]
    found: list[dict[str, dict[float, float]]] = [{} for _ in asked]
    for trial, share, score in zip(trials, shares, scores, strict=True):
        if share is None:
            continue
        found[trial.number].setdefault(trial.source, {})[trial.way] = score
        if trial.moves and trial.way > 0:
            _add_squares(squares[trial.number], asked[trial.number].own, share)
    return [
        Uncertainty(
            nominal=one.nominal,
            effects={source: _effect(one.nominal, by_way) for source, by_way in ways.items()},
            demand_nm={name: np.sqrt(total) for name, total in own.items()},
        )
        for one, ways, own in zip(asked, found, squares, strict=True)
    ]


def _effect(nominal: float, by_way: Mapping[float, float]) -> Effect:
    """Return half the difference of up and down, and by how much their mean falls short.

    One way alone is mirrored; where the other cannot be done one stands where one stood.
    """
    up, down = by_way.get(1.0), by_way.get(-1.0)
    if up is None or down is None:
        only = up if up is not None else down
        assert only is not None
        return (only - nominal if up is not None else nominal - only), 0.0
    return 0.5 * (up - down), min(0.0, 0.5 * (up + down) - nominal)


def _add_squares(squares: dict[str, Array], own: Curve, share: Share) -> None:
    row = int(share.rows[0])
    for name, total in squares.items():
        there = share.whole.demand_nm.get(name)
        if there is not None:
            total += (share.whole.motion.full(there)[row] - own.demand_nm[name][0]) ** 2


def _scores(trials: Sequence[_Trial], shares: Sequence[Share | None]) -> list[float]:
    """Return each trial's score against its own target; NaN where it cannot be done."""
    scores = [float("nan")] * len(trials)
    alike: dict[bytes, list[int]] = {}
    for index, (trial, share) in enumerate(zip(trials, shares, strict=True)):
        if share is not None:
            alike.setdefault(trial.target.key, []).append(index)
    for numbers in alike.values():
        target = trials[numbers[0]].target
        there = gathered([share for share in (shares[n] for n in numbers) if share is not None])
        found = compare(target, there.angles, there.demand, there.rows).score(target)
        for number, at in zip(numbers, there.at, strict=True):
            scores[number] = float(found[int(at[0])])
    return scores


def _computed(setups: Sequence[Setup]) -> list[Share | None]:
    """Return each variant's curves, None where that posture cannot be reached: it then says
    nothing.
    """
    try:
        shares: list[Share] = computed_across(setups)
    except WideArcError:
        if len(setups) == 1:
            return [None]
        return [share for setup in setups for share in _computed([setup])]
    return [None if int(share.rows[0]) in share.whole.motion.failed else share for share in shares]
