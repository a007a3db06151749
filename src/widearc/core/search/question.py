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
from widearc.core.search.candidate import PLAIN, Candidate
from widearc.core.search.ceilings import Ceilings, HeldBack, carried_of, peaks_of
from widearc.core.search.memo import Memo, Prepared
from widearc.core.search.near import CLOSE
from widearc.core.search.prepared import PreparedBatch, score_together
from widearc.core.search.reasons import sentence
from widearc.core.search.repeats import repeats
from widearc.core.search.styles import style_weights
from widearc.core.search.uncertainty import (
    Unsure,
    WantedUncertainty,
    load_errors,
)
from widearc.core.search.wanted import Wanted, wanted_of
from widearc.core.statics import BodyUncertainty, Curve
from widearc.core.words import UNSAID, Listed, Said

WORTH = 0.005  # of match: a load that is so little better is not missed

_Guess = tuple[float, int, PreparedBatch, BoolArray]


Found = tuple[float, PreparedBatch, tuple[int, int]]
"""Match, batch, and (unloaded, total) in it."""


@dataclass(frozen=True, kw_only=True, eq=False)
class Question:
    """A wanted loading, a kit, a client and what is free now: everything an answer depends on.

    asked: one set-up with its load, or an intent. taken: ids of items in use or broken; names: a
    word for the state of each. memo keeps what was computed for the next question.
    body_uncertainty: how sure the client's body is. shape: how the wanted demand is laid out; style
    and tempo: how the wanted exercise is done (an intent has its own). shown_effort: by action
    label, the greatest demand over usual strength that a logged set of the client shows. by_dose:
    time under load is compared, not demand alone.
    """

    asked: Curve | Intent
    kit: Kit
    body: Body
    limits: Limits
    rules: Rules = field(default_factory=Rules)
    taken: frozenset[str] = frozenset()
    names: Mapping[str, str | Said] = field(default_factory=dict)
    memo: Memo = field(default_factory=Memo)
    body_uncertainty: BodyUncertainty = field(default_factory=BodyUncertainty)
    shape: Shape = Shape.ORIGINAL
    style: RepStyle = PLAIN
    tempo: Tempo = field(default_factory=Tempo)
    shown_effort: Mapping[str, float] = field(default_factory=dict)
    by_dose: bool = False

    @cached_property
    def wanted(self) -> Wanted:
        """Return what is wanted; TargetError where no positive work is."""
        return wanted_of(
            self.asked, self.body, self.shape, self.style, self.tempo, by_dose=self.by_dose
        )

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
    def _guessed(self) -> dict[tuple[str, Said, bytes], list[_Guess]]:
        return {}

    def prepared(self, exercise: Exercise, extra: Said = UNSAID) -> Prepared:
        """Return an exercise's plain set-ups for the whole kit, or those with an extra."""
        return self.prepare([exercise], extra)[0]

    def prepare(self, exercises: Sequence[Exercise], extra: Said = UNSAID) -> list[Prepared]:
        """Return exercises' set-ups as `prepared` does, computed together: of many in little more
        time than of one.
        """
        return self.memo.prepared(
            exercises,
            self.tried,
            self.body,
            self.limits,
            self.wanted.knee,
            self._scope,
            extra,
        )

    def score(self, exercises: Iterable[Exercise], extra: Said = UNSAID) -> None:
        """Compute exactly what comes close to the best of each exercise: of many in little more
        time than of one.

        extra: of those with that one, none for the plain ones.
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

    @cached_property
    def ceilings(self) -> Ceilings:
        """Return what no solved load passes."""
        curve = None if isinstance(self.asked, Intent) else self.asked
        return Ceilings(
            body=self.body,
            wanted=frozenset(self.target.actions),
            peaks=peaks_of(curve, self.target),
            carried_kg={} if curve is None else carried_of(curve),
            shown=self.shown_effort,
            grip_kg=self.rules.grip_kg,
            to_shoulders_kg=self.rules.to_shoulders_kg,
            rack=any(thing.kind == "rack" for thing in self.free.furniture),
        )

    def allowed(self, part: PreparedBatch) -> BoolArray:
        """Return which set-ups of a batch are free and under every ceiling, (unloaded, totals)."""
        if part not in self._masks:
            mask, under = self._offered(part), part.under(self.ceilings)
            self._masks[part] = mask if under is None else mask & under
        return self._masks[part]

    def _offered(self, part: PreparedBatch) -> BoolArray:
        """Return which set-ups of a batch are free and no mere repeat of what is asked, (unloaded,
        totals), whatever they ask.
        """
        mask = part.allowed(self.taken, self.free)
        if part.batch.exercise is self.wanted.exercise and self.is_here:
            mask = np.zeros_like(mask)
        return mask

    @cached_property
    def is_here(self) -> bool:
        """Return whether the wanted lift can be done here and now, loaded as it is asked for: then
        no set-up of it is a stand-in.
        """
        exercise = self.wanted.exercise
        if exercise is None or isinstance(self.asked, Intent):
            return False
        parts = self.prepared(exercise).parts
        return any(repeats(p, self.asked, p.allowed(self.taken, self.free)) for p in parts)

    def held_back(self, found: Found) -> HeldBack | None:
        """Return the ceiling that keeps an exercise from a set-up that would match better than what
        was found, None where none does.
        """
        _, own, row = found
        best, where = float(own.match(self.target)[row]) + WORTH, None
        for part in self.prepared(own.batch.exercise, own.batch.row(*row).extra).parts:
            guess = np.where(self._offered(part), part.match(self.target), -1.0)
            if float(guess.max()) > best:
                best, where = (
                    float(guess.max()),
                    (part, np.unravel_index(guess.argmax(), guess.shape)),
                )
        if where is None:
            return None
        part, at = where
        for name, over in part.over(self.ceilings).items():
            if np.broadcast_to(over, part.usable.shape)[at]:
                return self.ceilings.named(name, part.batch)
        return None

    def _guesses(self, exercise: Exercise, extra: Said, target: Target) -> list[_Guess]:
        """Return for each batch that has anything free its best guess, its order, itself and what
        is free of it.
        """
        key = (exercise.id, extra, target.key)
        if key not in self._guessed:
            self._guessed[key] = self._guessed_of(exercise, extra, target)
        return self._guessed[key]

    def _guessed_of(self, exercise: Exercise, extra: Said, target: Target) -> list[_Guess]:
        found = []
        for order, part in enumerate(self.prepared(exercise, extra).parts):
            mask = self.allowed(part)
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
        found = self._guesses(exercise, UNSAID, self.target)
        return (
            bool(found)
            and max(guess + max(CLOSE, part.close) for guess, _, part, _ in found) < least
        )

    def best(
        self, exercise: Exercise, *, extra: Said = UNSAID, target: Target | None = None
    ) -> Found | None:
        """Return the best set-up that uses nothing taken, or None.

        extra: of those with that one, none for the plain ones. target: another than the wanted one.
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
        step = part.step(row, target, self.allowed(part))
        key = (target.key, row, pieces, self.wanted_uncertainty.body, step, self.ceilings.key)
        return part.once(key, lambda: self._made(found, target, pieces, step))

    def _made(
        self,
        found: Found,
        target: Target,
        pieces: tuple[Piece, ...],
        step: float | None,
    ) -> Candidate:
        _, part, row = found
        held_back = self.held_back(found)
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
            held_back=held_back,
            over_strength=self.ceilings.over_strength(exact),
            target=target,
            sentence=self._said(target, compared, exact, held_back),
            _unsure=Unsure(
                own=exact,
                compared=compared,
                target=target,
                wanted=self.wanted_uncertainty,
                errors=errors,
            ),
        )

    def _said(self, target: Target, given: Comparison, own: Curve, held: HeldBack | None) -> Listed:
        return sentence(target.at_level_of(given), given, own, held, self.wanted.curve)

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
            sentence=self._said(target, compared, chosen.curve, chosen.held_back),
        )
