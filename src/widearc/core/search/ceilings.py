"""Ceilings, so that no solved load is absurd: what is held, where it lies, and usual strength."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import PORTS, Body
from widearc.core.curve import Action
from widearc.core.equipment import FreeMass
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.matching import Target
from widearc.core.search.solved import Narrow, References
from widearc.core.setups import Batch
from widearc.core.statics import Curve
from widearc.core.strength import ACTIONS, strength_nm
from widearc.core.words import Mass, Said, Term

HAND_KG = 50.0
BAR_SHARE, HIPS_SHARE, GOBLET_SHARE, RACK_SHARE = 1.5, 2.0, 0.5, 0.5
"""Of body mass: a bar in the hands or on the back, on the hips, at the breastbone, and brought to
the shoulders without a stand. With HAND_KG common practice, no source."""
OVER_PEAK = 1.25
"""How far over the wanted lift's own peak a stand-in may go where that is over usual strength."""
BARS = ("bar", "trap bar", "rail")
BAR_PORTS = ("hands", "back-high", "back-low", "front-rack", "shoulders")
ROUNDED = 1.02  # of a demand: what was read at eleven places may be so much more in between
CHUNK = 400_000  # numbers at once


@dataclass(frozen=True, slots=True, kw_only=True)
class HeldBack:
    """The ceiling that keeps a load down: its name, or an action's label; kg is what may be borne
    there (0 for an action), where in words.
    """

    by: str
    kg: float = 0.0
    where: str = ""

    @property
    def words(self) -> Said:
        """Return which ceiling it is, in a sentence."""
        if not self.kg:
            action = Action.named(self.by)
            return Said(
                "Held back by the {place}: more would pass usual {words} strength.",
                place=Term(action.place),
                words=Term(action.words),
            )
        most = Mass(self.kg, whole=True)
        if self.by == "grip":
            return Said("Held back by the grip: {most} in one hand.", most=most)
        if self.by == "rack":
            return Said("Held back without a rack: {most} brought to the shoulders.", most=most)
        return Said(
            "Held back {where}: {most} is the most that is usual there.",
            where=Term(self.where),
            most=most,
        )


@dataclass(frozen=True, kw_only=True, eq=False)
class Ceilings:
    """What no solved load passes.

    peaks: the wanted lift's greatest demand, N·m one leg, by action. carried_kg: what it puts at
    each port. shown: by action label, the greatest demand over usual strength that a logged set of
    this client shows. grip_kg: what one hand holds for a set, to_shoulders_kg: what is brought to
    the shoulders (None: not asked). rack: one is free here.
    """

    body: Body
    wanted: frozenset[Action]
    peaks: Mapping[Action, float]
    carried_kg: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    shown: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    grip_kg: float | None = None
    to_shoulders_kg: float | None = None
    rack: bool = False

    @cached_property
    def key(self) -> tuple[object, ...]:
        """Return what is equal for ceilings alike, of one body."""
        return (
            tuple(sorted(a.label for a in self.wanted)),
            tuple(sorted((a.label, nm) for a, nm in self.peaks.items())),
            tuple(sorted(self.carried_kg.items())),
            tuple(sorted(self.shown.items())),
            self.grip_kg,
            self.to_shoulders_kg,
            self.rack,
        )

    def over_port(self, batch: Batch) -> Mapping[str, BoolArray]:
        """Return which set-ups of a batch are over each ceiling of what is held and where it lies,
        (unloaded or 1, totals), by the ceiling's name.
        """
        way = next((w for w in batch.way if w.stock == batch.stock and w.stock), None)
        if way is None:
            return {}
        kg, heavier = _borne(batch)
        held = heavier * kg if way.port == "hands" else kg
        return {
            name: over
            for name, limit in self._limits(way, batch.exercise)
            if (over := (held if name in ("grip", "hand") else kg) > limit + 1e-9).any()
        }

    def _limits(self, way: LoadWay, exercise: Exercise) -> Iterator[tuple[str, float]]:
        """Yield the name and the kg of each ceiling on a way of loading."""
        own = self.carried_kg.get(way.port, 0.0)
        if PORTS[way.port].hands:
            if self.grip_kg is not None:
                yield "grip", self.grip_kg
            if way.stock not in BARS:
                yield "hand", HAND_KG
        if way.most_kg is not None:
            yield "place", max(way.most_kg, own)
        if way.stock in BARS and way.port in BAR_PORTS:
            most = max(self.carried_kg.get(port, 0.0) for port in BAR_PORTS)
            yield "bar", max(BAR_SHARE * self.body.mass_kg, most)
        elif way.stock in BARS and way.port == "hip-crease":
            yield "bar", max(HIPS_SHARE * self.body.mass_kg, own)
        if way.port == "goblet" and way.stock == "dumbbell":
            yield "goblet", max(GOBLET_SHARE * self.body.mass_kg, own)
        if "rack or clean" in exercise.needs and not self.rack:
            brought = self.to_shoulders_kg
            yield "rack", RACK_SHARE * self.body.mass_kg if brought is None else brought

    def named(self, name: str, batch: Batch) -> HeldBack:
        """Return a ceiling that a set-up of a batch is over, with its numbers."""
        way = next((w for w in batch.way if w.stock == batch.stock and w.stock), None)
        limits = {} if way is None else dict(self._limits(way, batch.exercise))
        if way is None or name not in limits:
            return HeldBack(by=name)
        where = "in one hand" if name == "hand" else PORTS[way.port].label
        return HeldBack(by=name, kg=limits[name], where=where)

    def actions(self, exercise: Exercise) -> tuple[Action, ...]:
        """Return the actions whose demand an exercise is held to: what is wanted or prime, and knee
        and hip extension always; only those with a usual strength.
        """
        every = self.wanted | frozenset(exercise.prime) | {Action.KE, Action.HE}
        return tuple(a for a in Action if a in every and a.label in ACTIONS)

    def most_nm(self, action: Action) -> float:
        """Return the demand, N·m one leg, that may be asked where it is over usual strength."""
        return OVER_PEAK * self.peaks.get(action, 0.0)

    def factor(self, action: Action) -> float:
        """Return by how much usual strength is raised by what a logged set shows, 1 or more."""
        return max(1.0, self.shown.get(action.label, 1.0))

    def over_strength(self, curve: Curve) -> tuple[Action, ...]:
        """Return the actions of which one set-up's curve asks more than their ceiling."""
        found = []
        for action in self.actions(curve.setup.exercise):
            if action.joint in curve.demand_nm:
                demand = action.sign * curve.demand_nm[action.joint][0]
                usual = self.factor(action) * usual_nm(
                    action, curve.motion.angles[action.joint][0], self.body
                )
                most = float(np.max(np.where(demand > ROUNDED * usual, demand, 0.0)))
                if most > ROUNDED * self.most_nm(action):
                    found.append(action)
        return tuple(found)


def _borne(batch: Batch) -> tuple[Array, Array]:
    """Return the kg of a batch's set-ups and the share of the heavier hand, (unloaded or 1, totals)
    each: where set-ups have each their own total, the totals are none.
    """
    if any(row.kg for row in batch.unloaded):
        kg = np.array([[row.kg] for row in batch.unloaded])
        left = np.array(
            [[float(row.options.get("load_left_share", 0.5))] for row in batch.unloaded]
        )
    else:
        kg = np.array([[total.kg for total in batch.totals]])
        left = np.array([[0.5 if t.left_share is None else t.left_share for t in batch.totals]])
    return kg, np.maximum(left, 1.0 - left)


def has_load(batch: Batch) -> BoolArray:
    """Return which set-ups of a batch have any load, (unloaded, totals)."""
    pulled = [bool(row.kg or row.bands or row.springs) for row in batch.unloaded]
    weighs = [total.kg > 0 for total in batch.totals]
    return np.asarray(np.array(pulled)[:, None] | np.array(weighs)[None, :])


def usual_nm(action: Action, angle: Array, body: Body) -> Array:
    """Return usual strength of an action, N·m one leg, at angles (rad), shaped as these."""
    return strength_nm(
        action.label,
        angle,
        mass_kg=body.mass_kg,
        stature_m=body.stature_m,
        sex=body.sex.value,
    )


def peaks_of(asked: Curve | None, target: Target) -> Mapping[Action, float]:
    """Return the greatest demand of what is wanted, N·m one leg, by action; asked: the curve it is
    from, if any.
    """
    peaks = {
        action: float(bins.max())
        for action, bins in zip(target.actions, target.bins, strict=True)
        if target.has_level
    }
    if asked is not None:
        for action in Action:
            demand = asked.demand_nm.get(action.joint)
            if demand is not None:
                most = float(np.max(action.sign * demand[0]))
                peaks[action] = max(peaks.get(action, 0.0), most)
    return MappingProxyType(peaks)


def worst(references: References, mix: Array, action: Action, body: Body, factor: float) -> Narrow:
    """Return the greatest demand that each set-up asks of an action where it is over usual strength
    times a factor, N·m one leg, (unloaded, totals); 0 where it nowhere is.

    mix: how much of each reference makes a total, (totals, references).
    """
    points = mix.shape[1]
    found = references.at_samples(action.joint)
    if found is None:
        return np.zeros((1, 1), dtype=np.float32)
    angle, demand = found
    demand = (action.sign * demand).astype(np.float32)
    usual = (factor * usual_nm(action, angle, body)).astype(np.float32)
    rows, samples = len(demand) // points, demand.shape[1]
    result = np.zeros((rows, len(mix)), dtype=np.float32)
    # mixed strain is under 1 wherever its bound is
    strain = np.nan_to_num(demand / usual).max(axis=1).reshape(rows, points)
    some = np.flatnonzero((strain @ np.ascontiguousarray(mix.T) > 1.0).any(axis=1))
    if not some.size:
        return result
    given, allowed = (x.reshape(rows, points, samples) for x in (demand, usual))
    whole = mix.astype(np.float32)
    shares = whole / whole.sum(axis=1, keepdims=True)
    for part in np.array_split(some, max(1, some.size * len(mix) * samples // CHUNK)):
        own = np.matmul(whole, given[part])
        result[part] = np.where(own > np.matmul(shares, allowed[part]), own, 0.0).max(axis=2)
    return result


def carried_of(curve: Curve) -> Mapping[str, float]:
    """Return the kg that a curve's masses put at each port."""
    carried: dict[str, float] = {}
    for load in curve.setup.loads:
        if isinstance(load, FreeMass):
            carried[load.port] = carried.get(load.port, 0.0) + float(np.max(load.kg))
    return MappingProxyType(carried)
