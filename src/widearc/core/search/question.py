"""What is asked of a room, and the best set-up of one exercise for it, computed exactly."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from widearc.core.arrays import BoolArray
from widearc.core.body import Body, Limits
from widearc.core.dose import RepStyle, Tempo
from widearc.core.exercises import Exercise
from widearc.core.intent import Intent, Shape
from widearc.core.kit import Kit, Piece, Rules
from widearc.core.kit.differing import tried_of
from widearc.core.matching import Comparison, Target, compare, covered, of_work
from widearc.core.search.memo import Memo, Prepared
from widearc.core.search.near import CLOSE
from widearc.core.search.prepared import PreparedBatch, score_together
from widearc.core.search.reasons import sentence
from widearc.core.search.styles import style_weights
from widearc.core.search.uncertainty import (
    Uncertainty,
    Unsure,
    WantedUncertainty,
    load_errors,
    uncertainties_of,
)
from widearc.core.search.wanted import Wanted, wanted_of
from widearc.core.setups import LoadedSetup
from widearc.core.statics import BodyUncertainty, Curve

PLAIN = RepStyle()


_Guess = tuple[float, int, PreparedBatch, BoolArray]


Found = tuple[float, PreparedBatch, tuple[int, int]]
"""Match, batch, and (unloaded, total) in it."""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False, weakref_slot=True)
class Candidate:
    """The best set-up found for one exercise, with its numbers; shares 0 to 1.

    match: the shape where the target has no level. comparison holds one row; step is the next
    heavier set-up's mean demand over this one's, less 1 (None: nothing heavier here). bins: the
    target's and its own are in `comparison.bins`. style: how its reps are done; its bins are
    weighted by it.
    """

    exercise: Exercise
    row: LoadedSetup
    pieces: tuple[Piece, ...]
    curve: Curve
    comparison: Comparison
    match: float
    shape: float
    reach: float
    level: float
    step: float | None
    sentence: str
    style: RepStyle = PLAIN
    target: Target
    _unsure: Unsure
    _kept: list[Uncertainty] = field(default_factory=list)

    @property
    def extra(self) -> str:
        """Return what it has beyond the plain set-up, "" for nothing."""
        return self.row.extra

    @property
    def uncertainty(self) -> Uncertainty:
        """Return how sure match and demands are: computed when it is first asked for."""
        make_sure([self])
        return self._kept[0]


@dataclass(frozen=True, kw_only=True, eq=False)
class Question:
    """A wanted loading, a kit, a client and what is free now: everything an answer depends on.

    asked: one set-up with its load, or an intent. taken: ids of items in use or broken; names: a
    word for the state of each. memo keeps what was computed for the next question.
    body_uncertainty: how sure the client's body is. shape: how the wanted demand is laid out; style
    and tempo: how the wanted exercise is done (an intent has its own).
    """

    asked: Curve | Intent
    kit: Kit
    body: Body
    limits: Limits
    rules: Rules = field(default_factory=Rules)
    taken: frozenset[str] = frozenset()
    names: Mapping[str, str] = field(default_factory=dict)
    memo: Memo = field(default_factory=Memo)
    body_uncertainty: BodyUncertainty = field(default_factory=BodyUncertainty)
    shape: Shape = Shape.ORIGINAL
    style: RepStyle = PLAIN
    tempo: Tempo = field(default_factory=Tempo)

    @cached_property
    def wanted(self) -> Wanted:
        """Return what is wanted; TargetError where no positive work is."""
        return wanted_of(self.asked, self.body, self.shape, self.style, self.tempo)

    @property
    def target(self) -> Target:
        """Return the wanted loading."""
        return self.wanted.target

    @cached_property
    def free(self) -> Kit:
        """Return what is not taken."""
        return self.kit.without(self.taken)

    @cached_property
    def tried(self) -> Kit:
        """Return the kit whose set-ups are tried: of a large one what differs."""
        return tried_of(self.kit, self.taken)

    @cached_property
    def _scope(self) -> int:
        return self.memo.scope(
            self.tried.signature(),
            self.body,
            self.limits,
            self.rules.to_shoulders_kg,
            self.wanted.knee,
        )

    @cached_property
    def wanted_uncertainty(self) -> WantedUncertainty:
        """Return the target with each error one standard error away."""
        key = ("wanted", self.target.key, self.body, self.limits, self.body_uncertainty, self.shape)
        return self.memo.once(key, lambda: self.wanted.uncertainty(self.body_uncertainty))

    @cached_property
    def _masks(self) -> dict[PreparedBatch, BoolArray]:
        return {}

    @cached_property
    def _guessed(self) -> dict[tuple[str, str, bytes], list[_Guess]]:
        return {}

    def prepared(self, exercise: Exercise, extra: str = "") -> Prepared:
        """Return an exercise's plain set-ups for the whole kit, or those with an extra."""
        return self.prepare([exercise], extra)[0]

    def prepare(self, exercises: Sequence[Exercise], extra: str = "") -> list[Prepared]:
        """Return exercises' set-ups as `prepared` does, computed together: of many in little more
        time than of one.
        """
        return self.memo.prepared(
            exercises,
            self.tried,
            self.body,
            self.limits,
            self.rules.to_shoulders_kg,
            self.wanted.knee,
            self._scope,
            extra,
        )

    def score(self, exercises: Iterable[Exercise], extra: str = "") -> None:
        """Compute exactly what comes close to the best of each exercise: of many in little more
        time than of one.

        extra: of those with that one, "" for the plain ones.
        """
        asked = []
        for exercise in exercises:
            guesses = self._guesses(exercise, extra, self.target)
            top = max((guess for guess, *_ in guesses), default=0.0)
            asked += [
                (part, part.close_rows(self.target, mask))
                for guess, _, part, mask in guesses
                if guess >= top - max(CLOSE, part.close)
            ]
        score_together(asked, self.target, self.body, self.limits)

    def _allowed(self, part: PreparedBatch) -> BoolArray:
        """Return which set-ups of a batch are free and can be held, (unloaded, totals)."""
        if part not in self._masks:
            self._masks[part] = part.allowed(self.taken, self.free, self.rules.grip_kg)
        return self._masks[part]

    def _guesses(self, exercise: Exercise, extra: str, target: Target) -> list[_Guess]:
        """Return for each batch that has anything free its best guess, its order, itself and what
        is free of it.
        """
        key = (exercise.id, extra, target.key)
        if key not in self._guessed:
            self._guessed[key] = self._guessed_of(exercise, extra, target)
        return self._guessed[key]

    def _guessed_of(self, exercise: Exercise, extra: str, target: Target) -> list[_Guess]:
        found = []
        for order, part in enumerate(self.prepared(exercise, extra).parts):
            mask = self._allowed(part)
            if mask.any():
                found.append(
                    (float(np.where(mask, part.match(target), -1.0).max()), -order, part, mask)
                )
        return found

    def hopeless(self, exercise: Exercise, least: float) -> bool:
        """Return whether nothing of an exercise can match as much as `least` (share), as far off as
        guesses may be.

        False where nothing of it can be made at all.
        """
        found = self._guesses(exercise, "", self.target)
        return (
            bool(found)
            and max(guess + max(CLOSE, part.close) for guess, _, part, _ in found) < least
        )

    def best(
        self, exercise: Exercise, *, extra: str = "", target: Target | None = None
    ) -> Found | None:
        """Return the best set-up that uses nothing taken, or None.

        extra: of those with that one, "" for the plain ones. target: another than the wanted one.
        """
        target = target or self.target
        guesses = self._guesses(exercise, extra, target)
        best: Found | None = None
        for guess, _, part, mask in sorted(guesses, key=lambda g: (-g[0], -g[1])):
            if best is not None and guess < best[0] - max(CLOSE, part.close):
                continue
            found = part.best(target, mask, self.body, self.limits)
            if found is not None and (best is None or found[0] > best[0] + 1e-9):
                best = found[0], part, found[1]
        return best

    def candidate(self, found: Found, *, target: Target | None = None) -> Candidate:
        """Return a set-up computed exactly, with its numbers and sentence; the same object when
        asked again.
        """
        target = target or self.target
        _, part, row = found
        pieces = part.pieces_of(row, self.taken, self.free)
        step = part.step(row, target, self._allowed(part))
        key = (target.key, row, pieces, self.wanted_uncertainty.body, step)
        return part.once(key, lambda: self._made(part, row, target, pieces, step))

    def _made(
        self,
        part: PreparedBatch,
        row: tuple[int, int],
        target: Target,
        pieces: tuple[Piece, ...],
        step: float | None,
    ) -> Candidate:
        exact = part.exact(row, self.body, self.limits)
        errors = load_errors(exact, pieces, self.kit, part.batch.unloaded[row[0]].machine)
        compared = part.compared(target, row, exact)
        return Candidate(
            exercise=part.batch.exercise,
            row=part.batch.row(*row),
            pieces=pieces,
            curve=exact,
            comparison=compared,
            match=float(compared.score(target)[0]),
            shape=float(compared.shape[0]),
            reach=float(compared.reach[0]),
            level=float(compared.level[0]),
            step=step,
            target=target,
            sentence=sentence(target.at_level_of(compared), compared, exact),
            _unsure=Unsure(
                own=exact,
                compared=compared,
                target=target,
                wanted=self.wanted_uncertainty,
                errors=errors,
            ),
        )

    def score_in_style(self, chosen: Candidate, style: RepStyle) -> float:
        """Return what a plain candidate would match in a rep style, 0 to 1: only the score, from
        its own bins.
        """
        target = self.target
        weights = style_weights(chosen.curve, target, style)
        own = [b[0] * w for b, w in zip(chosen.comparison.bins, weights, strict=True)]
        if not target.has_level:
            factor = sum(b.sum() for b in target.bins) / max(float(sum(b.sum() for b in own)), 1e-9)
            own = [b * factor for b in own]
        covers = sum(float(covered(t, c)) for t, c in zip(target.bins, own, strict=True))
        wanted, given = (sum(float(b.sum()) for b in bins) for bins in (target.bins, own))
        other = wanted * float(chosen.comparison.other[0])
        return float(of_work(covers, wanted, given, other))

    def in_style(self, chosen: Candidate, style: RepStyle) -> Candidate:
        """Return a candidate done in a rep style: its dose against the wanted one, in the plain
        rep's unit.
        """
        target = self.target
        weights = style_weights(chosen.curve, target, style)
        compared = compare(
            target, chosen.curve.motion.angles, chosen.curve.demand_nm, 1, weights=weights
        )
        return replace(
            chosen,
            comparison=compared,
            match=float(compared.score(target)[0]),
            shape=float(compared.shape[0]),
            reach=float(compared.reach[0]),
            level=float(compared.level[0]),
            style=style,
            _kept=[],
            sentence=sentence(target.at_level_of(compared), compared, chosen.curve),
        )


def make_sure(candidates: Sequence[Candidate]) -> None:
    """Compute how sure many candidates are: together, in a fraction of the time of one after the
    other.
    """
    new = [c for c in candidates if not c._kept]
    for candidate, uncertainty in zip(new, uncertainties_of([c._unsure for c in new]), strict=True):
        candidate._kept.append(uncertainty)
