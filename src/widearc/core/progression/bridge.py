"""Across a step that is wide: reps first and fewer after it, and what is harder without weight."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from widearc.core.dose import Tempo
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES, LIFTS, Exercise
from widearc.core.movement import Setup
from widearc.core.movement.setup import LENGTHENED_ENDS
from widearc.core.progression.rung import Ladder, Rung, efforts_of
from widearc.core.statics import curve, peak_effort
from widearc.core.words import Angle, Duration, Said, Term

RESERVE = 2
"""Reps left at the end of a set, where nothing was said (common practice, no source)."""
SLOW_S, PAUSE_S, DEEPER_DEG = 4.0, 2.0, 10.0
QUARTER = 1.25


@dataclass(frozen=True, slots=True, kw_only=True)
class Bridge:
    """The way over a wide step: reps of each set to reach first, then reps after it that leave as
    many in reserve; None where not one does.
    """

    reach: int
    after: int | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Harder:
    """A way to make a lift harder with the weight that it has. effort: by the ladder's measure;
    reps: that are as much as those of now (None: not one); lighter: the highest rung that is as
    much with the reps of now, None where none is; seconds: whether that counts effort by seconds,
    an assumption, or how near failure a set comes; rep_s: of a rep then, where time counts.
    """

    words: Said
    effort: float
    reps: int | None
    seconds: bool
    lighter: Rung | None = None
    rep_s: float = 0.0
    setup: Setup | None = None


def bridge_over(below: Rung, above: Rung, top: int, reserve: int = RESERVE) -> Bridge:
    """Return the way from a rung over a wide step: to the top of the range of reps, then as many
    after it as come as close to failure (Epley 1985). top from 1 to 100; reserve 0 or more.
    """
    return Bridge(reach=top, after=reps_after(_ratio(below, above), top, reserve))


def _ratio(below: Rung, above: Rung) -> float:
    """Return how much more what gives out first is asked of: by efforts where nothing is known."""
    if below.peak and above.peak:
        return above.peak / below.peak
    return above.effort / below.effort


def reps_after(ratio: float, reps: int, reserve: int = RESERVE) -> int | None:
    """Return how many reps at a ratio of the present effort leave as many in reserve; None where
    not one does. ratio over 0.
    """
    limit = 30.0 * ((1.0 + (reps + reserve) / 30.0) / ratio - 1.0)
    found = round(limit - reserve)
    return found if found >= 1 else None


def reps_by_seconds(reps: int, before: tuple[float, float], after: tuple[float, float]) -> int:
    """Return how many reps are as much effort by time as so many were; each: effort and seconds a
    rep, over 0. At least 1. An assumption: that effort and time weigh alike.
    """
    return max(1, round(reps * before[0] * before[1] / (after[0] * after[1])))


def harder_ways(ladder: Ladder, tempo: Tempo, reps: int) -> tuple[Harder, ...]:
    """Return what makes the present rung harder without more weight: slower, paused, one and a
    quarter, over a longer range, on one leg; each with its effort, and the reps or the rung that
    are as much.
    """
    now = ladder.now
    ways = (*_in_time(now, tempo, reps), *_longer(now, reps), *_one_leg(now, reps))
    return tuple(replace(way, lighter=_lighter(ladder, way, tempo)) for way in ways)


def _lighter(ladder: Ladder, way: Harder, tempo: Tempo) -> Rung | None:
    """Return the highest rung that a way makes as much as the present one is."""
    now, plain_s = ladder.now, tempo.lowering_s + tempo.lifting_s
    less = plain_s / way.rep_s if way.seconds else now.effort / way.effort
    most = now.effort * less
    fits = [r for r in ladder.rungs[: ladder.present] if r.effort <= most * (1.0 + 1e-9)]
    return max(fits, key=lambda r: r.effort, default=None)


def _in_time(now: Rung, tempo: Tempo, reps: int) -> Iterator[Harder]:
    plain_s = tempo.lowering_s + tempo.lifting_s
    ways = [
        (Said("pause of {time}", time=Duration(PAUSE_S)), plain_s + PAUSE_S),
        (Said("slower, {time} down", time=Duration(SLOW_S)), SLOW_S + tempo.lifting_s),
        (Said("one and a quarter reps"), QUARTER * plain_s),
    ]
    for words, seconds in ways:
        if seconds <= plain_s:
            continue
        same = reps_by_seconds(reps, (now.effort, plain_s), (now.effort, seconds))
        yield Harder(words=words, effort=now.effort, reps=same, seconds=True, rep_s=seconds)


def _longer(now: Rung, reps: int) -> Iterator[Harder]:
    """Yield the same over ten degrees more at the lengthened end."""
    setup = now.setup
    if setup.resolved.get("box") or "box_m" in setup.options:
        return  # the box says how deep
    for start in LENGTHENED_ENDS:
        name, end = f"{start}_deg", start.removesuffix("from") + "to"
        if name not in setup.exercise.options or end not in setup.resolved:
            continue
        first, last = (float(np.rad2deg(np.ravel(setup.resolved[n])[0])) for n in (start, end))
        deg = 5.0 * round((first - np.sign(last - first) * DEEPER_DEG) / 5.0)
        words = Said(
            "longer range, from {angle} instead of {angle_2}",
            angle=Angle.of_deg(deg),
            angle_2=Angle.of_deg(first),
        )
        try:
            other = replace(setup, options={**setup.options, name: deg})
        except InputError:
            return
        yield from _computed(now, other, words, reps)
        return


def _one_leg(now: Rung, reps: int) -> Iterator[Harder]:
    """Yield the entry of the same lift on one leg, with what it is loaded with."""
    own = now.setup
    if own.exercise.one_leg or own.resolved.get("legs") == 1:
        return
    for exercise in _same_lift(own.exercise):
        shared = {n: v for n, v in own.options.items() if n in exercise.options and n != "legs"}
        with contextlib.suppress(InputError):
            other = replace(own, exercise=exercise, options=shared)
            words = Said("{exercise} with the same", exercise=Term(exercise.name, lower=True))
            yield from _computed(now, other, words, reps)
            return


def _same_lift(exercise: Exercise) -> list[Exercise]:
    """Return the entries of the same lift on one leg."""
    ids = {id_ for lift in LIFTS if exercise.id in lift for id_ in lift}
    return [EXERCISES[id_] for id_ in sorted(ids) if is_on_one_leg(EXERCISES[id_])]


def is_on_one_leg(exercise: Exercise) -> bool:
    """Return whether an exercise is done on one leg by its nature."""
    return "one-leg" in exercise.id or exercise.family == "split"


def _computed(now: Rung, other: Setup, words: Said, reps: int) -> Iterator[Harder]:
    try:
        found = curve(replace(other, samples=51), lowering=False)
    except (PostureError, InputError):
        return
    effort, peak = float(efforts_of(found)[0]), peak_effort(found)
    ratio = float(peak[0]) / now.peak if peak is not None and now.peak else effort / now.effort
    if ratio <= 1.005 and effort <= 1.005 * now.effort:
        return  # no harder
    same = reps_after(ratio, reps)
    yield Harder(words=words, effort=effort, reps=same, seconds=False, setup=other)
