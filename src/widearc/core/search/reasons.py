"""One sentence on where a stand-in falls short and where it exceeds, with angles."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.matching import Comparison, Target
from widearc.core.search.ceilings import HeldBack
from widearc.core.statics import Curve
from widearc.core.units import to_deg
from widearc.core.words import UNSAID, Angle, Listed, Said, Share, Term, Value, sentences

NOTHING = 0.03  # of the target's greatest demand: less counts as nothing
LIKE = 0.08  # a ratio this close to 1 is called alike
SPREAD = 0.12  # a ratio that varies less than this is "all the way"
BEYOND = 0.08  # of the wanted work: more outside the wanted range is said
ALIKE = 0.12  # of another joint's work: less is not spoken of
SHIFTED_DEG = 8.0  # of its middle: less is not spoken of
CALF_DEG = 45.0  # of knee bend: so much apart another calf muscle does most of the work
BESIDE = 0.30  # of what is wanted: less other work is not spoken of
BLOCK = 10  # degrees over which a ratio is read: single degrees are too fine to speak of


def sentence(
    target: Target,
    compared: Comparison,
    curve: Curve,
    held_back: HeldBack | None = None,
    wanted: Curve | None = None,
) -> Listed:
    """Return where the candidate differs from the target: the main joint first, then the other in
    short, then what held its load back, of whatever joint. wanted: the curve that is asked for.
    """
    main = target.main
    words: list[Value] = [_main_joint(target, main, compared.bins[main][0], curve)]
    for index in range(len(target.actions)):
        if index != main:
            words.append(_other_joint(target, compared, index))
    words.append(_beside(compared))
    if held_back is not None:
        words.append(held_back.words)
    if wanted is not None and target.actions == (Action.PF,):
        words.append(_calf(wanted, curve))
    return sentences(words)


def _calf(wanted: Curve, own: Curve) -> Said:
    """Return words where a calf raise bends the knee otherwise than what is wanted: then another
    calf muscle does most of it.
    """
    there, here = (float(to_deg(c.motion.angles["knee"][0]).mean()) for c in (wanted, own))
    if there - here > CALF_DEG:
        return Said("The knee is straight here: it does not replace raises with a bent knee.")
    if here - there > CALF_DEG:
        return Said("The knee is bent here: it does not replace raises with a straight knee.")
    return UNSAID


def _main_joint(target: Target, index: int, own: Array, curve: Curve) -> Said:
    wanted, action = target.bins[index], target.actions[index]
    name = Term(action.place)
    if own.sum() <= 0.01 * wanted.sum():
        return Said("{joint} not loaded.", joint=name, begins=True)
    # from lengthened to shortened
    order = np.arange(len(CENTRES_DEG))[:: action.direction]
    angle, t, c = CENTRES_DEG[order], wanted[order], own[order]
    floor = NOTHING * t.max()
    asked = t > floor
    gives = c > floor
    parts: list[Said] = []
    first = int(np.argmax(asked))
    begins = int(np.argmax(gives))
    if begins > first + 2:
        parts.append(_late(angle[begins], curve, action))
    last_asked, last_given = (
        len(t) - 1 - int(np.argmax(asked[::-1])),
        len(t) - 1 - int(np.argmax(gives[::-1])),
    )
    parts += _ratios(angle, t, c, max(first, begins), min(last_asked, last_given))
    if last_given < last_asked - 5:
        parts.append(Said("nothing below {angle}", angle=Angle.of_deg(angle[last_given])))
    parts += _beyond(angle, t, c, action)
    if not parts:
        return Said("{joint} alike all the way.", joint=name, begins=True)
    return Said("{differs}.", differs=Listed(tuple(parts)), begins=True)


def _beyond(angle: Array, t: Array, c: Array, action: Action) -> list[Said]:
    """Return words for what a stand-in asks outside the wanted range, where that is a real share of
    the work.
    """
    used = np.flatnonzero(t > 0)
    if not len(used):
        return []
    said = []
    half = 0.5 * action.direction  # from the middle of a degree to its outer side
    for part, edge in (
        (slice(None, int(used[0])), angle[used[0]] - half),
        (slice(int(used[-1]) + 1, None), angle[used[-1]] + half),
    ):
        extra = c[part]
        if extra.sum() > BEYOND * t.sum():
            reach = angle[part][extra > 0]
            end = reach[0] if part.start is None else reach[-1]
            said.append(
                Said(
                    "goes on past {edge}, to {end}",
                    edge=Angle.of_deg(edge),
                    end=Angle.of_deg(end),
                )
            )
    return said


def _late(angle: float, curve: Curve, action: Action) -> Said:
    """Return words for demand that begins late, with the reason where the motion knows it."""
    codes = {notice.code: notice.text for notice in curve.motion.notices if notice.where[0]}
    start = float(np.rad2deg(curve.motion.angles[action.joint][0, 0]))
    bend = Term("knee bend" if action.joint == "knee" else "hip bend")
    at = Angle.of_deg(angle)
    if start > angle + 4:
        if "band-slack" in codes:
            return Said("no load before {angle} of {bend}: band slack", angle=at, bend=bend)
        return Said("no load before {angle} of {bend}: no lever", angle=at, bend=bend)
    if "range-cut" in codes and action.joint == "knee":
        return Said("nothing past {angle}: {why}", angle=at, why=codes["range-cut"].value("why"))
    return Said("nothing past {angle}", angle=at)


def _ratios(angle: Array, t: Array, c: Array, start: int, end: int) -> list[Said]:
    """Return words for how the shared range compares, read over 10° blocks."""
    if end - start < 2:
        return []
    blocks = [(a, min(a + BLOCK, end + 1)) for a in range(start, end - 2, BLOCK)]
    if not blocks:
        return []
    starts, lengths = np.array([a for a, _ in blocks]), np.array([b - a for a, b in blocks])
    asked, given = (np.add.reduceat(x[: blocks[-1][1]], starts) for x in (t, c))
    # small demands at the light end make wild ratios: speak only of what the target really asks
    loaded = np.flatnonzero(asked / lengths > 0.12 * t.max())
    loaded = loaded if len(loaded) else np.zeros(1, dtype=np.intp)
    heavy = [blocks[i] for i in loaded]
    ratio = given[loaded] / np.maximum(asked[loaded], 1e-9)
    if ratio.max() - ratio.min() < SPREAD:
        return [_amount(float(np.average(ratio)), Said("all the way"))]
    parts: list[tuple[int, Said]] = []
    middle = [float(angle[(a + b - 1) // 2]) for a, b in heavy]
    low, high = int(np.argmin(ratio)), int(np.argmax(ratio))
    if ratio[low] < 1 - LIKE:
        parts.append((low, _amount(float(ratio[low]), _at(middle[low]))))
    if ratio[high] > 1 + LIKE:
        parts.append((high, _amount(float(ratio[high]), _at(middle[high]))))
    return [text for _, text in sorted(parts, key=lambda part: part[0])]


def _at(degrees: float) -> Said:
    """Return where it is, to 5°."""
    return Said("at {angle}", angle=Angle.of_deg(round(degrees / 5) * 5))


def _amount(ratio: float, where: Said) -> Said:
    if abs(ratio - 1) <= LIKE:
        return Said("alike {where}", where=where)
    if ratio < 1:
        return Said("{share} short {where}", share=Share(1 - ratio), where=where)
    if ratio < 1.95:
        return Said("{share} over {where}", share=Share(ratio - 1), where=where)
    words = {
        2: "twice as much {where}",
        3: "three times as much {where}",
        4: "four times as much {where}",
    }.get(round(ratio), "more than four times as much {where}")
    return Said(words, where=where)


def _other_joint(target: Target, compared: Comparison, index: int) -> Said:
    """Return how much of a joint's wanted work is covered, and how its own work differs."""
    wanted, own = target.bins[index], compared.bins[index][0]
    name, ratio = Term(target.actions[index].place), own.sum() / wanted.sum()
    if ratio < 0.05:
        return Said("{joint} not loaded.", joint=name, begins=True)
    shift = float(compared.shift_deg(target, index)[0])
    differs: list[Said] = []
    if abs(ratio - 1) > ALIKE:
        differs.append(_work(float(ratio)))
    if abs(shift) >= SHIFTED_DEG:
        way = "{angle} more bent" if shift > 0 else "{angle} straighter"
        differs.append(Said(way, angle=Angle.of_deg(abs(shift))))
    share = Share(float(compared.covered[index][0]))
    if not differs:
        return Said("{joint} {share} covered.", joint=name, share=share, begins=True)
    return Said(
        "{joint} {share} covered: {differs}.",
        joint=name,
        share=share,
        differs=Listed(tuple(differs)),
        begins=True,
    )


def _work(ratio: float) -> Said:
    if ratio < 1:
        return Said("{share} less work", share=Share(1 - ratio))
    if ratio < 1.95:
        return Said("{share} more work", share=Share(ratio - 1))
    return _TIMES_THE_WORK.get(round(ratio), Said("more than four times the work"))


_TIMES_THE_WORK: Mapping[int, Said] = MappingProxyType(
    {
        2: Said("twice the work"),
        3: Said("three times the work"),
        4: Said("four times the work"),
    }
)


def _beside(compared: Comparison) -> Said:
    """Return words for what is asked of hip or knee that nobody wanted, where that is much."""
    other = float(compared.other[0])
    if other < BESIDE:
        return UNSAID
    return Said(
        "Asks other hip or knee work besides, {share} of what is wanted.", share=Share(other)
    )
