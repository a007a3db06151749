"""Stand-ins in groups: who is alike as far as can be known stands together."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from widearc.core.exercises import is_same_lift
from widearc.core.kit import STAGES, Rules, stage_of, step_by_step
from widearc.core.search.candidate import Candidate, make_sure
from widearc.core.search.question import Question
from widearc.core.search.sore import Sore, sore_of
from widearc.core.search.uncertainty import chance_better

ALIKE = 0.25
"""The least chance of being the better one that keeps a stand-in in the group of the best."""

SAME = 0.02
"""Of the work: curves that differ by less are the same, one row with its variants."""

NEAR = 0.5
"""The least match with which the same lift with another load is offered first."""

FAIL_ORDER = {"yes": 0, "with stops": 1, "no": 2}

Groups = tuple[tuple[Candidate, ...], ...]


def grouped(candidates: Sequence[Candidate], question: Question) -> Groups:
    """Return candidates in groups, best first.

    The best left by its usual match leads; whoever has a chance of at least a quarter to be better
    than it once both are set up stands beside it. The same lift with another load comes before all
    others, where it matches half or more. Inside a group no order by match is known, so
    that kindness to a sore joint, failing safely alone, then steadiness, then set-up minutes, then
    the name decide; for someone injured or a beginner steadiness comes before failing alone. What
    asks more of a sore joint than the wanted lift stands in groups of its own, last, unless the
    rules leave that out. For a beginner a later stage of split work waits for the group of the
    earlier one. Curves that are the same follow each other.
    """
    make_sure(candidates)
    rules = question.rules
    sore = sore_of(rules, question.asked, question.target)
    harder = [c for c in candidates if rules.sore_last and sore.harder(c.curve)]
    same = [c for c in candidates if c not in harder and is_first(c, question)]
    others = [c for c in candidates if c not in harder and c not in same]
    groups = [
        *((_side_by_side(sorted(same, key=lambda c: -c.uncertainty.usual)),) if same else ()),
        *_alike(others, rules, sore),
        *_alike(harder, rules, sore),
    ]
    return _in_stages(groups, rules) if rules.beginner else tuple(groups)


def is_first(candidate: Candidate, question: Question) -> bool:
    """Return whether a stand-in is the wanted lift itself with another load, or on one leg, and
    near enough to be offered before others.
    """
    wanted = question.wanted.exercise
    same = wanted is not None and is_same_lift(wanted.id, candidate.exercise.id)
    return same and candidate.uncertainty.usual >= NEAR


def _alike(
    candidates: Sequence[Candidate], rules: Rules, sore: Sore
) -> list[tuple[Candidate, ...]]:
    def handiest(candidate: Candidate) -> tuple[float | str, ...]:
        exercise = candidate.exercise
        safe = FAIL_ORDER[exercise.fails_alone], -exercise.steadiness
        if rules.sore or rules.beginner:
            safe = safe[::-1]
        return sore.step(candidate), *safe, exercise.minutes, exercise.name

    left = sorted(candidates, key=lambda c: (-c.uncertainty.usual, c.exercise.name))
    groups = []
    while left:
        best = left[0]
        alike = [
            c for c in left if c is best or chance_better(c.uncertainty, best.uncertainty) >= ALIKE
        ]
        groups.append(_side_by_side(sorted(alike, key=handiest)))
        left = [c for c in left if c not in alike]
    return groups


def _side_by_side(group: Sequence[Candidate]) -> tuple[Candidate, ...]:
    """Return a group with the variants of each after it."""
    lead = variants_of((tuple(group),))
    place = {c.exercise.id: n for n, c in enumerate(group)}
    return tuple(
        sorted(
            group,
            key=lambda c: (place[lead.get(c.exercise.id, c.exercise.id)], place[c.exercise.id]),
        )
    )


def variants_of(groups: Groups) -> Mapping[str, str]:
    """Return for each exercise whose curve is the same as one before it in its group that one's id:
    one row with its variants.
    """
    lead: dict[str, str] = {}
    for group in groups:
        rows: list[Candidate] = []
        for candidate in group:
            first = next((row for row in rows if _is_same(row, candidate)), None)
            if first is None:
                rows.append(candidate)
            else:
                lead[candidate.exercise.id] = first.exercise.id
    return lead


def _is_same(one: Candidate, other: Candidate) -> bool:
    """Return whether two curves are the same within 2 % of the work, joint by joint, unwanted work
    too.
    """
    pairs = list(zip(one.comparison.bins, other.comparison.bins, strict=True))
    most = SAME * max(float(np.sum(a[0])) for a, _ in pairs)
    apart = (float(np.abs(a[0] - b[0]).sum()) for a, b in pairs)
    beside = abs(float(one.comparison.other[0] - other.comparison.other[0]))
    return beside <= SAME and all(nm <= most for nm in apart)


def _in_stages(groups: Sequence[tuple[Candidate, ...]], rules: Rules) -> Groups:
    found, held = [], list[Candidate]()
    for number, group in enumerate(groups):
        behind = [stage_of(c.exercise.id) for later in groups[number + 1 :] for c in later]
        first = min((stage for stage in behind if stage is not None), default=len(STAGES))
        here = [*group, *held]
        held = [c for c in here if (stage_of(c.exercise.id) or 0) > first]
        found.append(tuple(step_by_step([c for c in here if c not in held], rules)))
    return tuple(group for group in found if group)
