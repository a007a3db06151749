"""Stand-ins in groups: who is alike as far as can be known stands together."""

from __future__ import annotations

from collections.abc import Sequence

from widearc.core.kit import STAGES, Rules, stage_of, step_by_step
from widearc.core.search.candidate import Candidate, make_sure
from widearc.core.search.uncertainty import chance_better

ALIKE = 0.25
"""The least chance of being the better one that keeps a stand-in in the group of the best."""

FAIL_ORDER = {"yes": 0, "with stops": 1, "no": 2}

Groups = tuple[tuple[Candidate, ...], ...]


def grouped(candidates: Sequence[Candidate], rules: Rules) -> Groups:
    """Return candidates in groups, best first.

    The best left by its usual match leads; whoever has a chance of at least a quarter to be better
    than it once both are set up stands beside it. Inside a group no order by match is known, so
    that failing safely alone, then steadiness, then set-up minutes, then the name decide. For a
    beginner a later stage of split work waits for the group of the earlier one.
    """
    make_sure(candidates)
    left = sorted(candidates, key=lambda c: (-c.uncertainty.usual, c.exercise.name))
    groups = []
    while left:
        best = left[0]
        alike = [
            c for c in left if c is best or chance_better(c.uncertainty, best.uncertainty) >= ALIKE
        ]
        groups.append(tuple(sorted(alike, key=_handiest_first)))
        left = [c for c in left if c not in alike]
    return _in_stages(groups, rules) if rules.beginner else tuple(groups)


def _in_stages(groups: Sequence[tuple[Candidate, ...]], rules: Rules) -> Groups:
    found, held = [], list[Candidate]()
    for number, group in enumerate(groups):
        behind = [stage_of(c.exercise.id) for later in groups[number + 1 :] for c in later]
        first = min((stage for stage in behind if stage is not None), default=len(STAGES))
        here = [*group, *held]
        held = [c for c in here if (stage_of(c.exercise.id) or 0) > first]
        found.append(tuple(step_by_step([c for c in here if c not in held], rules)))
    return tuple(group for group in found if group)


def _handiest_first(candidate: Candidate) -> tuple[int, float, float, str]:
    exercise = candidate.exercise
    fails = FAIL_ORDER[exercise.fails_alone]
    return fails, -exercise.steadiness, exercise.minutes, exercise.name
