"""The question turned round: which load here equals that there; which anchor, box or band a match
would need.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from widearc.core.catalogue import Exercise
from widearc.core.curve import CENTRES_DEG
from widearc.core.equipment import BandLaw, LinearLaw, MooneyRivlinLaw, PointsLaw
from widearc.core.errors import InputError
from widearc.core.matching import compare
from widearc.core.statics import curve
from widearc.core.substitution.admission import left_out
from widearc.core.substitution.kit import Anchor, BandStock, Furniture, Kit, Weight
from widearc.core.substitution.prepared import Memo, PreparedBatch
from widearc.core.substitution.question import Candidate, Question
from widearc.core.substitution.search import compared_exercises
from widearc.core.substitution.setups import extras_here

ANCHORS_M = tuple(round(0.05 * i, 2) for i in range(47))
BOXES_M = tuple(round(0.05 * i, 2) for i in range(1, 21))
BAND_SHARES = (0.25, 0.35, 0.5, 0.7, 0.85, 1.0, 1.2, 1.4, 1.7, 2.0, 2.5, 3.0)
MOST_LOADS = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class EqualLoad:
    """A load of the stock that equals what is wanted in one respect; off: how much more it gives, a
    share of it.
    """

    by: str
    kg: float
    off: float


def equal_loads(
    chosen: Candidate, question: Question, at_deg: float | None = None
) -> tuple[EqualLoad, ...]:
    """Return the total here, of the chosen geometry, that comes closest in work, in peak and at an
    angle (degrees).

    By the target's joint with the most work. Empty where no weight is picked. Raises InputError for
    an angle that the wanted range does not have.
    """
    target = question.target
    main = int(np.argmax([b.sum() for b in target.bins]))
    found = _frame_of(chosen, question)
    if found is None:
        return ()
    part, frame, picks = found
    rows = tuple(part.batch.row(frame, k) for k in picks)
    made = curve(
        part.batch.setup(question.body, question.limits, rows), strict=False, lowering=False
    )
    bins = compare(target, made.motion.angles, made.demand_nm, len(rows)).bins[main]
    kg = np.array([part.batch.picks[k].kg for k in picks])
    wanted = target.bins[main]
    asked: list[tuple[str, float, np.ndarray]] = [
        ("in work", float(wanted.sum()), bins.sum(axis=1)),
        ("in peak", float(wanted.max()), bins.max(axis=1)),
    ]
    if at_deg is not None:
        place = int(np.argmin(np.abs(CENTRES_DEG - at_deg)))
        if wanted[place] <= 0:
            low, high = sorted(target.range_deg(main))
            raise InputError(
                "at", f"{at_deg:g}°", f"an angle that is wanted, from {low:.0f}° to {high:.0f}°"
            )
        asked.append((f"at {at_deg:.0f}°", float(wanted[place]), bins[:, place]))
    answers = []
    for by, want, gives in asked:
        best = int(np.argmin(np.abs(gives - want)))
        answers.append(EqualLoad(by=by, kg=float(kg[best]), off=float(gives[best] / want - 1.0)))
    return tuple(answers)


def _frame_of(
    chosen: Candidate, question: Question
) -> tuple[PreparedBatch, int, tuple[int, ...]] | None:
    """Return the batch, the frame of a stand-in's geometry in it, and the totals that are free;
    None without any.
    """
    extras = extras_here(chosen.exercise, question.kit, question.body, question.wanted.knee)
    for part in question.prepared(
        chosen.exercise, chosen.extra if chosen.extra in extras else ""
    ).parts:
        if len(part.batch.picks) < 2:
            continue
        mask = part.allowed(question.taken, question.free, question.rules.grip_kg)
        for index, frame in enumerate(part.batch.frames):
            same = frame.options == chosen.row.options and frame.bands == chosen.row.bands
            if same and frame.place == chosen.row.place and mask[index].any():
                picks = np.flatnonzero(mask[index])
                return (
                    part,
                    index,
                    tuple(int(k) for k in picks[:: max(1, len(picks) // MOST_LOADS)]),
                )
    return None


@dataclass(frozen=True, slots=True, kw_only=True)
class Needed:
    """What one thing must be for a match of at least so much: words for the thing, from and to, the
    best, its match.
    """

    thing: str
    unit: str
    low: float
    high: float
    best: float
    match: float


def needed(chosen: Candidate, question: Question, least: float) -> tuple[Needed, ...]:
    """Return where an anchor, box or band would have to be for the chosen exercise to match at
    least so much (share).

    Each thing by itself, the others as they are here. Empty where the exercise uses none.
    """
    if not 0.0 < least <= 1.0:
        raise InputError("least", f"{100 * least:.0f} %", "from 1 to 100 %")
    found = []
    for thing, unit, values, kit in _variations(chosen, question):
        matches = [_match(chosen, question, kit(v)) for v in values]
        best = int(np.argmax(matches))
        fine = [v for v, m in zip(values, matches, strict=True) if m >= least]
        if fine:
            found.append(
                Needed(
                    thing=thing,
                    unit=unit,
                    low=min(fine),
                    high=max(fine),
                    best=values[best],
                    match=matches[best],
                )
            )
        elif matches[best] > 0:
            found.append(
                Needed(
                    thing=thing,
                    unit=unit,
                    low=np.nan,
                    high=np.nan,
                    best=values[best],
                    match=matches[best],
                )
            )
    return tuple(found)


Variation = tuple[str, str, tuple[float, ...], Callable[[float], Kit]]


def _variations(chosen: Candidate, question: Question) -> Iterator[Variation]:
    kit, row = question.free, chosen.row
    if row.anchor is not None:
        anchor = row.anchor[0]

        def moved(height: float) -> Kit:
            """Return the kit with its anchors at one height (m)."""
            return replace(kit, anchors=(Anchor(id=anchor.id, name=anchor.name, height_m=height),))

        yield "anchor height", "m", ANCHORS_M, moved
    boxes = [f for f in row.furniture if f.kind in ("box", "bench", "couch", "table")]
    if boxes:
        box = boxes[0]

        def raised(height: float) -> Kit:
            """Return the kit with what is stood or sat on at one height (m)."""
            rest = tuple(f for f in kit.furniture if f.kind != box.kind)
            return replace(
                kit,
                furniture=(
                    *rest,
                    Furniture(id=box.id, name=box.name, kind=box.kind, height_m=height),
                ),
            )

        yield f"{box.kind} height", "m", BOXES_M, raised
    if row.bands:
        band = row.bands[0][0]

        def stronger(share: float) -> Kit:
            """Return the kit with one band, its pull times a share."""
            return replace(kit, bands=(replace(band, law=scaled(band.law, share), count=1),))

        yield f"{band.name}, times its pull", "", BAND_SHARES, stronger


def scaled(law: BandLaw, share: float) -> BandLaw:
    """Return a band's law with its pull times a share, its lengths kept."""
    if isinstance(law, LinearLaw):
        return LinearLaw(rest_m=law.rest_m, rate_n_per_m=law.rate_n_per_m * share)
    if isinstance(law, MooneyRivlinLaw):
        return replace(law, area_m2=law.area_m2 * share)
    return PointsLaw(
        rest_m=law.rest_m,
        length_m=law.length_m,
        force_n_at=tuple(f * share for f in law.force_n_at),
    )


def _match(chosen: Candidate, question: Question, kit: Kit) -> float:
    """Return the best match of the chosen exercise with another kit, 0 where none can be made."""
    other = replace(question, kit=kit, taken=frozenset(), memo=type(question.memo)())
    best = other.best(chosen.exercise)
    return 0.0 if best is None else best[0]


_BOX = Furniture(id="+", name="New box", kind="box", height_m=0.30)
_BENCH = Furniture(id="+", name="New bench", kind="bench", height_m=0.43)
_EYE = Anchor(id="+", name="New anchor", height_m=0.08)
_IRON, _HELD = (
    ("bar", "sled", "hack", "rail", "plate", "corner"),
    ("dumbbell", "dumbbells", "one hand"),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Purchase:
    """One thing that may be bought: words, the kit with it, and what stock or needs of an exercise
    it can serve.
    """

    words: str
    kit: Callable[[Kit], Kit]
    stocks: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()


PURCHASES: tuple[Purchase, ...] = (
    Purchase(
        words="a pair of 10 kg plates", kit=lambda k: _with_weight(k, "plate", 10.0), stocks=_IRON
    ),
    Purchase(
        words="a pair of 20 kg plates", kit=lambda k: _with_weight(k, "plate", 20.0), stocks=_IRON
    ),
    Purchase(
        words="a pair of 24 kg dumbbells",
        kit=lambda k: _with_weight(k, "dumbbell", 24.0),
        stocks=_HELD,
    ),
    Purchase(
        words="a box of 30 cm",
        kit=lambda k: replace(k, furniture=(*k.furniture, _BOX)),
        needs=("step", "seat", "boxes"),
    ),
    Purchase(
        words="a bench of 43 cm",
        kit=lambda k: replace(k, furniture=(*k.furniture, _BENCH)),
        needs=("bench", "seat"),
    ),
    Purchase(
        words="an anchor at 8 cm",
        kit=lambda k: replace(k, anchors=(*k.anchors, _EYE)),
        needs=("anchor behind", "anchor ahead", "anchor under the feet"),
    ),
    Purchase(
        words="another of the strongest band", kit=lambda k: _with_band(k, 1.0), stocks=("band",)
    ),
    Purchase(
        words="a band twice as strong as the strongest",
        kit=lambda k: _with_band(k, 2.0),
        stocks=("band",),
    ),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Bought:
    """What a purchase would do for one question: the best match with it (0 to 1), by which
    exercise.
    """

    words: str
    match: float
    exercise: str


def purchases(question: Question, memos: dict[str, Memo] | None = None) -> tuple[Bought, ...]:
    """Return the best match that each single purchase would make possible, the best first.

    memos: by purchase, what was computed for it before; added to, for the next question about the
    same room.
    """
    found = []
    for purchase in PURCHASES:
        kit = purchase.kit(question.free)
        if kit is question.free:
            continue  # nothing here to have another of
        memo = ({} if memos is None else memos).setdefault(purchase.words, Memo())
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
    return tuple(sorted(found, key=lambda b: (-round(b.match, 4), b.words)))


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
        name=f"new band, {share:g} × {strongest.name}",
        law=scaled(strongest.law, share),
    )
    return replace(
        kit, bands=(*kit.bands, BandStock(**{f: getattr(bought, f) for f in _BAND_FIELDS}))
    )


_BAND_FIELDS = ("id", "name", "shape", "law", "count", "assumed", "hysteresis", "error")


def _strength(band: BandStock) -> float:
    return float(np.asarray(band.law.force_n(np.asarray([1.5 * band.law.rest_m])))[0])
