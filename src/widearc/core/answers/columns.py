"""What stands beside the match and is never folded into it: columns to sort by and to weigh."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.equipment import Line
from widearc.core.kit import presses_on_spine
from widearc.core.muscle import muscle_use
from widearc.core.search import Candidate, Question, sore_of
from widearc.core.search.sore import HARDER
from widearc.core.statics import Curve, asked_of_muscles, grip_n, lumbar
from widearc.core.units import G
from widearc.core.words import UNSAID, Count, Duration, Mass, Said, Share, Times

MOST_WEIGHT = 5.0
QUICK_MINUTES = 2.0
SOME_SLACK = 0.05  # of the way: less is not worth a word
ALONE = {"yes": 1.0, "with stops": 0.5, "no": 0.0}

Value = Any
"""A column's value: a number, a word, or None where there is none."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """A column of Swap: its value for a stand-in beside what is asked.

    good: the value as 0 to 1, 1 being what a trainer would rather have. weighed: its place among
    the columns that can be weighed, 0 where it cannot. only: the words of its filter ("" for none);
    filter: the filter's name in an address; passes: what the filter lets through. cell: what is
    said of it under "what changes"; the rank is its place there.
    """

    name: str
    words: str
    rank: int
    value: Callable[[Candidate, Question], Value]
    good: Callable[[Value], float] = lambda _: 0.0
    sorts: bool = True
    weighed: int = 0
    only: str = ""
    filter: str = ""
    passes: Callable[[Value], bool] = lambda _: True
    cell: Callable[[Value], Said] = lambda _: UNSAID


def _main_long(candidate: Candidate, _: Question) -> float:
    return float(candidate.comparison.long_third_share[candidate.target.main][0])


def _spine(candidate: Candidate, question: Question) -> float | None:
    own, wanted = candidate.curve, question.wanted.curve
    here = lumbar(own.setup, own.motion)
    there = None if wanted is None else lumbar(wanted.setup, wanted.motion)
    if here is None or there is None or float(np.abs(there.moment_nm[0]).max()) <= 1.0:
        return None
    return float(np.abs(here.moment_nm[0]).max() / np.abs(there.moment_nm[0]).max())


def _axial(candidate: Candidate, _: Question) -> bool:
    return presses_on_spine(candidate.curve.setup.loads)


def _hand(candidate: Candidate, _: Question) -> float | None:
    grip = grip_n(candidate.curve.setup, candidate.curve.motion)
    return None if grip is None else float(np.nanmax(grip[0])) / G


def _slack(candidate: Candidate, _: Question) -> float | None:
    setup, lengths = candidate.curve.setup, candidate.curve.motion.load_lengths
    pulls = [
        load.pull_n(lengths[index][:1], lowering=False)
        for index, load in enumerate(setup.loads)
        if isinstance(load, Line) and load.made_of == "elastic" and index in lengths
    ]
    return max((float(np.mean(pull <= 0.0)) for pull in pulls), default=None)


def _sore(candidate: Candidate, question: Question) -> float | None:
    sore = sore_of(question.rules, question.asked, question.target)
    return max(sore.shares(candidate.curve).values(), default=None)


def _spine_words(ratio: float | None) -> Said:
    if ratio is None or abs(ratio - 1.0) <= 0.1:
        return UNSAID
    if ratio >= 2:
        return Said(
            "Low back: {times} times as much at most, by a single-muscle estimate.",
            times=Times(ratio),
        )
    words = "Low back: {share} less at most, by a single-muscle estimate."
    if ratio > 1:
        words = "Low back: {share} more at most, by a single-muscle estimate."
    return Said(words, share=Share(abs(ratio - 1)))


def _slack_words(share: float | None) -> Said:
    if share is None or share < SOME_SLACK:
        return UNSAID
    return Said("Its band or spring hangs slack for {share} of the way.", share=Share(share))


def _step_words(step: float | None) -> Said:
    if step is None:
        return Said("hardest here")
    return Said("next step {share} more", share=Share(step))


def _grip_words(kg: float | None) -> Said:
    if kg is None:
        return UNSAID
    return Said("Grip: up to {mass} in one hand.", mass=Mass(kg, whole=True))


FAILING: Mapping[str, Said] = MappingProxyType(
    {
        "yes": Said("safe to fail alone: yes"),
        "with stops": Said("safe to fail alone: with stops"),
        "no": Said("safe to fail alone: no"),
    }
)


COLUMNS: Mapping[str, Column] = MappingProxyType(
    {
        column.name: column
        for column in (
            Column(
                name="match",
                words="match",
                rank=1,
                value=lambda c, _: c.match,
                # the order that the ranking has
                good=lambda _: 0.0,
            ),
            Column(
                name="shape", words="shape", rank=2, value=lambda c, _: c.shape, good=lambda v: v
            ),
            Column(
                name="long",
                words="share of the work where lengthened",
                rank=3,
                value=_main_long,
                good=lambda v: v,
                weighed=1,
            ),
            Column(
                name="steady",
                words="steadiness",
                rank=4,
                value=lambda c, _: c.exercise.steadiness,
                good=lambda v: (v - 1) / 4.0,
                weighed=2,
                cell=lambda v: Said("Steadiness {steps} of 5", steps=Count(v)),
            ),
            Column(
                name="alone",
                words="safe to fail alone",
                rank=5,
                value=lambda c, _: c.exercise.fails_alone,
                good=lambda v: ALONE[v],
                weighed=3,
                filter="alone",
                only="safe to fail alone",
                passes=lambda v: v == "yes",
                cell=lambda v: FAILING[v],
            ),
            Column(
                name="minutes",
                words="set-up minutes",
                rank=6,
                value=lambda c, _: c.exercise.minutes,
                good=lambda v: max(0.0, 1.0 - v / 10.0),
                weighed=4,
                filter="quick",
                only="set up in 2 min",
                passes=lambda v: v <= QUICK_MINUTES,
                cell=lambda v: Said("{time} to set up", time=Duration(60.0 * v, minutes=True)),
            ),
            Column(
                name="step",
                words="smallest step",
                rank=7,
                value=lambda c, _: c.step,
                good=lambda v: 0.0 if v is None else max(0.0, 1.0 - v / 0.3),
                weighed=5,
                filter="step",
                only="something harder left",
                passes=lambda v: v is not None,
                cell=_step_words,
            ),
            Column(
                name="sore",
                words="kindness to a sore joint",
                rank=8,
                value=_sore,
                good=lambda v: 1.0 if v is None else max(0.0, 1.0 - 0.5 * v),
                weighed=7,
                filter="kind",
                only="no harder on a sore joint",
                passes=lambda v: v is None or v <= HARDER,
            ),
            Column(
                name="spine",
                words="low back",
                rank=9,
                value=_spine,
                good=lambda v: 1.0 if v is None else max(0.0, 1.0 - 0.5 * v),
                weighed=6,
                cell=_spine_words,
            ),
            Column(
                name="slack",
                words="little slack",
                rank=10,
                value=_slack,
                good=lambda v: 1.0 if v is None else 1.0 - v,
                weighed=8,
                filter="taut",
                only="never slack",
                passes=lambda v: v is None or v < SOME_SLACK,
                cell=_slack_words,
            ),
            Column(
                name="axial",
                words="presses on the spine",
                rank=11,
                value=_axial,
                sorts=False,
                filter="spine",
                only="nothing on the spine",
                passes=lambda v: not v,
                cell=lambda v: Said("Low back: the load presses on the spine.") if v else UNSAID,
            ),
            Column(
                name="hand_kg",
                words="in one hand",
                rank=12,
                value=_hand,
                sorts=False,
                cell=_grip_words,
            ),
        )
    }
)
"""Every column by its name."""

SORTED = tuple(c for c in COLUMNS.values() if c.sorts)
"""What can be sorted by."""

WEIGHED = tuple(sorted((c for c in COLUMNS.values() if c.weighed), key=lambda c: c.weighed))
"""What can be weighed against the match."""

FILTERS = tuple(c for c in COLUMNS.values() if c.filter)
"""What can be filtered by."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Beside:
    """A stand-in's columns: its values by the names of `COLUMNS`."""

    values: Mapping[str, Value]

    def __getitem__(self, name: str) -> Value:
        """Return a column's value."""
        return self.values[name]

    def passes(self, only: Collection[str]) -> bool:
        """Return whether it passes every filter that is named; none of them changes a match."""
        return all(c.passes(self[c.name]) for c in FILTERS if c.filter in only)

    def good(self, name: str) -> float:
        """Return a column as 0 to 1, 1 being what a trainer would rather have."""
        return COLUMNS[name].good(self[name])

    def cell(self, name: str) -> Said:
        """Return what is said of a column, nothing where there is nothing to say."""
        return COLUMNS[name].cell(self[name])


def beside(candidate: Candidate, question: Question) -> Beside:
    """Return a stand-in's columns beside what is asked."""
    values = {name: column.value(candidate, question) for name, column in COLUMNS.items()}
    return Beside(values=MappingProxyType(values))


def weighted(match: float, columns: Beside, weights: Mapping[str, float]) -> float:
    """Return the match with the weighted columns, 0 to 1: (match + sum of weight x column) / (1 +
    sum of weights).
    """
    total = 1.0 + sum(weights.values())
    return (match + sum(w * columns.good(name) for name, w in weights.items())) / total


def sorted_by(
    candidates: Sequence[Candidate],
    columns: Mapping[str, Beside],
    by: str,
    weights: Mapping[str, float],
) -> list[Candidate]:
    """Return candidates sorted by a column, the better first; equal ones keep the order of the
    match.

    columns: by exercise id. by: one of COLUMNS, or "sum" for the weighted sum.
    """

    def key(candidate: Candidate) -> float:
        """Return what a candidate is sorted by."""
        own = columns[candidate.exercise.id]
        return -weighted(candidate.match, own, weights) if by == "sum" else -own.good(by)

    return sorted(candidates, key=key)


def muscle_thirds(curve: Curve, group: str) -> tuple[float, float, float] | None:
    """Return a muscle group's work over its own length (J of one leg; long, middle, short third);
    None without any.
    """
    angles, demand = asked_of_muscles(curve)
    if not demand or max(float(np.abs(d).max()) for d in demand.values()) < 1.0:
        return None
    thirds = muscle_use(angles, demand, curve.setup.body).of(group).thirds_j
    return (max(thirds[0], 0.0), max(thirds[1], 0.0), max(thirds[2], 0.0))


def muscle_match(
    wanted: tuple[float, float, float], own: tuple[float, float, float] | None
) -> float:
    """Return work in common over work in either, by thirds of a muscle's own length, 0 to 1."""
    if own is None:
        return 0.0
    common = sum(min(a, b) for a, b in zip(wanted, own, strict=True))
    either = sum(wanted) + sum(own) - common
    return float(common / either) if either > 0 else 0.0
