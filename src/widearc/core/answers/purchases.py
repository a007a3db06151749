"""What the one next thing to buy would do."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from widearc.core.exercises import Exercise
from widearc.core.kit import Anchor, BandStock, Furniture, Kit, Weight, left_out
from widearc.core.search import Memo, Question, compared_exercises
from widearc.core.words import Length, Mass, Said

_BOX = Furniture(id="+", name="New box", kind="box", height_m=0.30)
_BENCH = Furniture(id="+", name="New bench", kind="bench", height_m=0.43)
_EYE = Anchor(id="+", name="New anchor", height_m=0.08)


_IRON, _HELD = (
    ("bar", "trap bar", "sled", "hack", "rail", "plate", "corner"),
    ("dumbbell", "dumbbells", "one hand"),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Purchase:
    """One thing that may be bought: words, the kit with it, and what stock or needs of an exercise
    it can serve.
    """

    words: Said
    kit: Callable[[Kit], Kit]
    stocks: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()


PURCHASES: tuple[Purchase, ...] = (
    Purchase(
        words=Said("a pair of {mass} plates", mass=Mass(10.0)),
        kit=lambda k: _with_weight(k, "plate", 10.0),
        stocks=_IRON,
    ),
    Purchase(
        words=Said("a pair of {mass} plates", mass=Mass(20.0)),
        kit=lambda k: _with_weight(k, "plate", 20.0),
        stocks=_IRON,
    ),
    Purchase(
        words=Said("a pair of {mass} dumbbells", mass=Mass(24.0)),
        kit=lambda k: _with_weight(k, "dumbbell", 24.0),
        stocks=_HELD,
    ),
    Purchase(
        words=Said("a box of {length}", length=Length(0.3)),
        kit=lambda k: replace(k, furniture=(*k.furniture, _BOX)),
        needs=("step", "seat", "boxes"),
    ),
    Purchase(
        words=Said("a bench of {length}", length=Length(0.43)),
        kit=lambda k: replace(k, furniture=(*k.furniture, _BENCH)),
        needs=("bench", "seat"),
    ),
    Purchase(
        words=Said("an anchor at {length}", length=Length(0.08)),
        kit=lambda k: replace(k, anchors=(*k.anchors, _EYE)),
        needs=("anchor behind", "anchor ahead", "anchor under the feet"),
    ),
    Purchase(
        words=Said("another of the strongest band"),
        kit=lambda k: _with_band(k, 1.0),
        stocks=("band",),
    ),
    Purchase(
        words=Said("a band twice as strong as the strongest"),
        kit=lambda k: _with_band(k, 2.0),
        stocks=("band",),
    ),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Bought:
    """What a purchase would do for one question: the best match with it (0 to 1), by which
    exercise.
    """

    words: Said
    match: float
    exercise: str


def purchases_for(question: Question, memos: dict[str, Memo] | None = None) -> tuple[Bought, ...]:
    """Return the best match that each single purchase would make possible, the best first.

    memos: by purchase, what was computed for it before; added to, for the next question about the
    same room.
    """
    found = []
    for purchase in PURCHASES:
        kit = purchase.kit(question.free)
        if kit is question.free:
            continue  # nothing here to have another of
        memo = ({} if memos is None else memos).setdefault(purchase.words.key, Memo())
        other = replace(question, kit=kit, taken=frozenset(), memo=memo)
        best: tuple[float, str] = (0.0, "")
        changed = [
            exercise for exercise in compared_exercises() if _concerns(purchase, exercise, other)
        ]
        other.prepare(changed)
        other.score(changed)
        for exercise in changed:
            made = other.best(exercise)
            if made is not None and made[0] > best[0]:
                best = made[0], exercise.name
        found.append(Bought(words=purchase.words, match=best[0], exercise=best[1]))
    return tuple(sorted(found, key=lambda b: (-round(b.match, 4), b.words.key)))


def _concerns(purchase: Purchase, exercise: Exercise, question: Question) -> bool:
    """Return whether a purchase can change what an exercise gives, and the exercise answers the
    question at all.
    """
    stocks = {w.stock for ways in exercise.ways for w in ways}
    if stocks.isdisjoint(purchase.stocks) and set(exercise.needs).isdisjoint(purchase.needs):
        return False
    original, wanted = question.wanted.exercise, frozenset(question.target.actions)
    if (original is not None and original.id == exercise.id) or wanted.isdisjoint(exercise.prime):
        return False
    return (
        left_out(exercise, question.kit, question.limits, question.rules, question.taken, {})
        is None
    )


def _with_weight(kit: Kit, kind: str, kg: float) -> Kit:
    return replace(kit, weights=(*kit.weights, Weight(id="+", kind=kind, kg=kg, count=2)))


def _with_band(kit: Kit, share: float) -> Kit:
    if not kit.bands:
        return kit
    strongest = max(kit.bands, key=_strength)
    bought = replace(
        strongest,
        id="+",
        name=f"{strongest.name}, new",
        law=strongest.law.scaled(share),
    )
    return replace(
        kit, bands=(*kit.bands, BandStock(**{f: getattr(bought, f) for f in _BAND_FIELDS}))
    )


_BAND_FIELDS = ("id", "name", "shape", "law", "count", "assumed", "hysteresis", "error")


def _strength(band: BandStock) -> float:
    return float(np.asarray(band.law.force_n(np.asarray([1.5 * band.law.rest_m])))[0])
