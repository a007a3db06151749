"""The search: every admissible set-up against the target, the best of each exercise, and what is left out."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from functools import partial

import numpy as np

from widearc.core.body import Body, Limits
from widearc.core.catalogue import EXERCISES, Exercise
from widearc.core.dose import RepStyle, Tempo
from widearc.core.intent import Intent, Shape
from widearc.core.matching import Comparison, Target, compare
from widearc.core.statics import BodyDoubt, Curve
from widearc.core.substitution.admission import Excluded, Rules, left_out, step_by_step, taken_words
from widearc.core.substitution.doubt import Doubt, WantedDoubt, doubt_about, load_errors
from widearc.core.substitution.kit import BandStock, Kit, Piece, Weight
from widearc.core.substitution.prepared import CLOSE, Memo, Prepared, PreparedBatch
from widearc.core.substitution.reasons import sentence
from widearc.core.substitution.setups import MACHINES, Row
from widearc.core.substitution.wanted import wanted_of

LEAST_MATCH = 0.05  # less is named among what is left out, not ranked
NO_RULES = Rules()
USUAL_DOUBT = BodyDoubt()
PLAIN, USUAL_TEMPO = RepStyle(), Tempo()
KEPT_CANDIDATES = 20  # a batch: enough for a room that changes back and forth
_FAIL_ORDER = {"yes": 0, "with stops": 1, "no": 2}


@dataclass(frozen=True, slots=True, kw_only=True, eq=False, weakref_slot=True)
class Candidate:
    """The best set-up found for one exercise, with its numbers; shares 0 to 1.

    match: the shape where the target has no level. comparison holds one row; step is the next heavier set-up's mean
    demand over this one's, less 1 (None: nothing heavier here). bins: the
    target's and its own are in `comparison.bins`.
    """

    exercise: Exercise
    row: Row
    pieces: tuple[Piece, ...]
    curve: Curve
    comparison: Comparison
    match: float
    shape: float
    reach: float
    level: float
    step: float | None
    sentence: str
    _sure: Callable[[], Doubt]
    _kept: list[Doubt] = field(default_factory=list)

    @property
    def doubt(self) -> Doubt:
        """Return how sure match and demands are: computed when it is first asked for."""
        if not self._kept:
            self._kept.append(self._sure())
        return self._kept[0]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Ranking:
    """Candidates best first, what is excluded and why, and how many set-ups were computed."""

    target: Target
    candidates: tuple[Candidate, ...]
    excluded: tuple[Excluded, ...]
    tried: int


def search(
    asked: Curve | Intent,
    kit: Kit,
    *,
    body: Body,
    limits: Limits,
    rules: Rules = NO_RULES,
    taken: frozenset[str] = frozenset(),
    limit: int | None = None,
    names: Mapping[str, str] | None = None,
    memo: Memo | None = None,
    body_doubt: BodyDoubt = USUAL_DOUBT,
    shape: Shape = Shape.ORIGINAL,
    style: RepStyle = PLAIN,
    tempo: Tempo = USUAL_TEMPO,
) -> Ranking:
    """Return every catalogue exercise ranked against a wanted curve or intent, in what is free of a kit.

    asked: one set-up with its load, or an intent; where an intent has no level, candidates are ranked by shape.
    taken: ids of items in use or broken. limit: how many candidates at most. names: a word for the state of a taken
    item ("taken", "broken"). memo keeps what was computed for the next request. body_doubt: how sure the client's body
    is. shape: how the wanted demand is laid out, with its ranges and means kept. style and tempo: how the wanted
    exercise is done (an intent has its own). The order is the same for the same request: by match in whole percents,
    and where those are equal, by failing safely alone, then steadiness, then name.
    """
    memo = memo or Memo()
    wanted = wanted_of(asked, body, shape, style, tempo)
    target = wanted.target
    doubt = memo.once(("wanted", target.key, body, limits, body_doubt, shape), lambda: wanted.doubt(body_doubt))
    free = kit.without(taken)
    scope = memo.scope(kit.signature(), body, limits, rules.to_shoulders_kg, wanted.knee)
    found: list[Candidate] = []
    excluded: list[Excluded] = []
    tried = 0
    for exercise in EXERCISES.values():
        if not exercise.has_curve or exercise.family == "plain path":
            continue  # nothing of the body's to compare
        out: Excluded | None
        if wanted.exercise is not None and exercise.id == wanted.exercise.id:
            out = _excluded_original(exercise, kit, taken, names or {})
        else:
            out = left_out(exercise, kit, limits, rules, taken, names or {})
        if out is not None:
            excluded.append(out)
            continue
        prepared = memo.prepared(exercise, kit, body, limits, rules.to_shoulders_kg, wanted.knee, scope)
        tried += prepared.tried
        best = _best_of(prepared, target, taken, free, rules, body, limits)
        if best is None:
            excluded.append(_nothing_made(exercise, kit, taken, prepared, names or {}))
        else:
            if best[0] < LEAST_MATCH:
                reason = f"under {100 * LEAST_MATCH:.0f} % of the work in common with what is wanted"
                excluded.append(Excluded(exercise=exercise, reason=reason))
            else:
                found.append(_candidate(best, body, limits, target, taken, free, doubt, kit, rules))
    ordered = step_by_step(_ordered(found), rules)
    return Ranking(target=target, candidates=tuple(ordered[:limit]), excluded=tuple(excluded), tried=tried)


Found = tuple[float, PreparedBatch, tuple[int, int]]
"""Match, batch, and (frame, pick) in it."""


def _best_of(
    prepared: Prepared, target: Target, taken: frozenset[str], free: Kit, rules: Rules, body: Body, limits: Limits,
    extra: str = "",
) -> Found | None:  # fmt: skip
    """Return the best set-up that uses nothing taken, or None; extra: of those with that one, "" for the plain ones."""
    guesses = []
    for order, part in enumerate(prepared.parts):
        frames = part.plain if not extra else np.array([f.extra == extra for f in part.batch.frames], dtype=bool)
        mask = part.allowed(taken, free, rules.grip_kg) & frames[:, None]
        if mask.any():
            guesses.append((float(np.where(mask, part.match(target), -1.0).max()), -order, part, mask))
    best: Found | None = None
    for guess, _, part, mask in sorted(guesses, key=lambda g: (-g[0], -g[1])):
        if best is not None and guess < best[0] - CLOSE:
            break
        found = part.best(target, mask, body, limits)
        if found is not None and (best is None or found[0] > best[0] + 1e-9):
            best = found[0], part, found[1]
    return best


def _candidate(
    found: Found, body: Body, limits: Limits, target: Target, taken: frozenset[str], free: Kit, asked: WantedDoubt,
    kit: Kit, rules: Rules,
) -> Candidate:  # fmt: skip
    """Return the chosen set-up computed exactly, with its numbers and sentence; the same object when asked again."""
    _, part, row = found
    pieces = part.pieces_of(row, taken, free)
    step = part.step(row, target, part.allowed(taken, free, rules.grip_kg))
    key = (target.key, row, pieces, asked.body, step)
    if key not in part.kept:
        part.kept[key] = _made(part, row, body, limits, target, pieces, asked, kit, step)
        while len(part.kept) > KEPT_CANDIDATES:
            part.kept.popitem(last=False)
    kept: Candidate = part.kept[key]
    return kept


def _made(
    part: PreparedBatch, row: tuple[int, int], body: Body, limits: Limits, target: Target, pieces: tuple[Piece, ...],
    asked: WantedDoubt, kit: Kit, step: float | None,
) -> Candidate:  # fmt: skip
    exact = part.exact(row, body, limits)
    errors = load_errors(exact, pieces, kit, part.batch.frames[row[0]].machine)
    compared = compare(target, exact.motion.angles, exact.demand_nm, 1)
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
        sentence=sentence(target.at_level_of(compared), compared, exact),
        _sure=partial(doubt_about, exact, compared, target, asked, errors),
    )


def _ordered(found: Iterable[Candidate]) -> list[Candidate]:
    """Return candidates best first; equal percents by failing safely alone, then steadiness, then name."""
    return sorted(
        found,
        key=lambda c: (
            -round(100 * c.match),
            _FAIL_ORDER[c.exercise.fails_alone],
            -c.exercise.steadiness,
            c.exercise.name,
        ),
    )


def _excluded_original(exercise: Exercise, kit: Kit, taken: frozenset[str], names: Mapping[str, str]) -> Excluded:
    users = [p for p in kit.presses if p.id in taken] if exercise.family == "sled press" else []
    if users:
        return Excluded(
            exercise=exercise,
            reason=taken_words(users[0].name, names.get(users[0].id, "taken")),
            taken=(users[0].id,),
        )
    return Excluded(exercise=exercise, reason="this is the exercise to replace")


NO_LAW = "how its load pulls is not known to the search yet"
NOT_MADE = {
    "stance": "its loop is not weighed: its pull is not in the numbers",
    "thigh spread": "its loop is not weighed: its pull is not in the numbers",
    "sled press": "bands on a sled are set up on Arc, not searched for",
}
"""Why an exercise without a way of loading is left out, by family."""


def _nothing_made(
    exercise: Exercise, kit: Kit, taken: frozenset[str], prepared: Prepared, names: Mapping[str, str]
) -> Excluded:
    """Return the reason why an admitted exercise has no set-up."""
    if prepared.reasons and not any(part.usable.any() for part in prepared.parts):
        return Excluded(exercise=exercise, reason=max(prepared.reasons, key=lambda r: prepared.reasons[r]))
    stocked: tuple[Weight | BandStock, ...] = kit.weights + kit.bands
    lost = [item for item in stocked if item.id in taken]
    if not exercise.ways:
        return Excluded(exercise=exercise, reason=NOT_MADE.get(exercise.family, NO_LAW))
    unread = [m for m in kit.machines if MACHINES.get(next(iter(exercise.needs), "")) == m.kind and not m.dials]
    if unread and any(way.stock == "stack" for ways in exercise.ways for way in ways):
        reason = f"{unread[0].name.lower()} is not read at the pad yet"
        return Excluded(exercise=exercise, reason=reason, admits="its pull at three angles, with the weight on the pin")
    if "step" in exercise.needs and not prepared.tried:
        return Excluded(exercise=exercise, reason="needs a step of a fitting height: none here", admits="a lower step")
    stock = sorted({way.stock for ways in exercise.ways for way in ways})
    kinds = {"bar": ("bar",), "dumbbell": ("dumbbell", "kettlebell"), "dumbbells": ("dumbbell", "kettlebell")}
    for item in lost:
        kind = getattr(item, "kind", "band")
        if any(kind in kinds.get(s, (s,)) for s in stock):
            state = names.get(item.id, "taken")
            return Excluded(exercise=exercise, reason=taken_words(item.name or kind, state), taken=(item.id,))
    words = {
        "bar": "a bar",
        "dumbbell": "a dumbbell or kettlebell",
        "dumbbells": "a pair of equal dumbbells",
        "band": "a band",
        "one hand": "a dumbbell or kettlebell",
        "plate": "plates",
        "sled": "plates",
        "hack": "plates",
        "corner": "plates",
        "spring": "springs, weighed or described",
    }
    needs = " or ".join(words.get(s, s) for s in stock)
    return Excluded(exercise=exercise, reason=f"needs {needs}: none here", admits=needs)
