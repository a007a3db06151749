"""A client over time: how strong each action is, by every set on any exercise, place and machine;
and what the sets counted for each muscle.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from types import MappingProxyType

from widearc import store
from widearc.core.record import Estimate, Point, estimate_of
from widearc.core.record.estimate import WEEKS
from widearc.core.strength import MOST_REPS, Scale, effort_of_reps
from widearc.core.strength.scale import MISJUDGED

SIDES = ("left", "right")
DAYS = 7 * WEEKS


@dataclass(frozen=True, slots=True, kw_only=True)
class Said:
    """What one set says of an action and side: see Point; when (ISO), on which exercise."""

    point: Point
    done_at: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Trend:
    """An action's strength: the estimate of each side, and the sets that it rests on."""

    action: str
    sides: Mapping[str, Estimate]
    said: Mapping[str, tuple[Said, ...]]

    @property
    def gap(self) -> float | None:
        """Return how much stronger the right is than the left, as a share; None where one of them
        is known as a lower bound alone.
        """
        left, right = (self.sides.get(side) for side in SIDES)
        if left is None or right is None or left.at_least or right.at_least:
            return None
        return right.kappa / left.kappa - 1.0

    @property
    def gap_sd(self) -> float:
        """Return the gap's standard error."""
        both = [self.sides[side].sd or 0.0 for side in SIDES if side in self.sides]
        return math.hypot(*both)


def scales_of_floor(rows: Sequence[store.SetSays]) -> tuple[tuple[store.SetSays, Scale], ...]:
    """Return what sets of the floor say, as a logged set does."""
    found = []
    for row in rows:
        reps = row.reps + row.reserve
        if not 0 < reps <= MOST_REPS["epley"]:
            continue
        effort = effort_of_reps(reps)
        low = effort_of_reps(max(reps - MISJUDGED, 0.5))
        scale = Scale(
            action=row.action,
            kappa=row.ratio / effort,
            error_share=abs(low - effort) / effort,
            demand_nm=row.demand_nm,
            at_least=not row.first,
        )
        found.append((row, scale))
    return tuple(found)


def trends(
    con: store.Connection, trainer_id: int, client_id: int, *, now: str
) -> tuple[Trend, ...]:
    """Return each action's strength now, by the sets of the last ten weeks; those with most sets
    first.
    """
    since = (datetime.fromisoformat(now) - timedelta(days=DAYS)).isoformat()
    said: dict[str, dict[str, list[Said]]] = {}

    def note(scale: Scale, done_at: str, exercise: str, side: str) -> None:
        ago = datetime.fromisoformat(now) - datetime.fromisoformat(done_at)
        point = Point(
            exercise=exercise,
            kappa=scale.kappa,
            error_share=scale.error_share,
            weeks=max(0.0, ago.total_seconds() / 604800.0),
            at_least=scale.at_least,
        )
        for one in SIDES if side == "both" else (side,):
            sides = said.setdefault(scale.action, {})
            sides.setdefault(one, []).append(Said(point=point, done_at=done_at))

    floor = store.set_says(con, trainer_id, client_id, since)
    for row, scale in scales_of_floor(floor):
        note(scale, row.done_at, row.exercise, row.side)
    for logged in store.strength_sets(con, trainer_id, client_id):
        if logged.logged_at >= since:
            for scale in logged.scales:
                note(scale, logged.logged_at, logged.exercise, logged.side)
    found = []
    for action, sides in said.items():
        made = {side: estimate_of([s.point for s in rows]) for side, rows in sides.items()}
        known = {side: estimate for side, estimate in made.items() if estimate is not None}
        if known:
            found.append(
                Trend(
                    action=action,
                    sides=MappingProxyType(known),
                    said=MappingProxyType({s: tuple(rows) for s, rows in sides.items()}),
                )
            )
    return tuple(sorted(found, key=lambda t: -sum(e.sets for e in t.sides.values())))


@dataclass(frozen=True, slots=True, kw_only=True)
class Volume:
    """A muscle group's sets in the last seven days and in the seven before; long: the share of its
    work that was done where it is long, last seven days.
    """

    grp: str
    sets: float
    before: float
    long: float


def volumes(
    con: store.Connection, trainer_id: int, client_id: int, *, now: str
) -> tuple[Volume, ...]:
    """Return what the sets of the last two weeks counted for each muscle group, most first."""
    today = datetime.fromisoformat(now)
    since, week = (today - timedelta(days=14)).isoformat(), (today - timedelta(days=7)).isoformat()
    sets: dict[str, float] = {}
    before: dict[str, float] = {}
    work: dict[str, list[float]] = {}
    for row in store.volume(con, trainer_id, client_id, since):
        late = row.day >= week[:10]
        part = sets if late else before
        part[row.grp] = part.get(row.grp, 0.0) + row.counts
        if late:
            thirds = work.setdefault(row.grp, [0.0, 0.0])
            thirds[0] += max(0.0, row.long_j)
            thirds[1] += sum(max(0.0, j) for j in (row.long_j, row.middle_j, row.short_j))
    return tuple(
        sorted(
            (
                Volume(
                    grp=grp,
                    sets=sets.get(grp, 0.0),
                    before=before.get(grp, 0.0),
                    long=work[grp][0] / work[grp][1] if work.get(grp, [0, 0])[1] > 0 else 0.0,
                )
                for grp in {*sets, *before}
            ),
            key=lambda v: (-v.sets, -v.before, v.grp),
        )
    )


def all_sets(
    con: store.Connection, trainer_id: int, client_id: int
) -> tuple[store.StrengthSet, ...]:
    """Return every set that tells of a client's strength, oldest first: those logged at Arc, and
    those of the floor.
    """
    logged = store.strength_sets(con, trainer_id, client_id)
    grouped: dict[tuple[str, str, str], list[tuple[store.SetSays, Scale]]] = {}
    for row, scale in scales_of_floor(store.set_says(con, trainer_id, client_id, "")):
        grouped.setdefault((row.done_at, row.exercise, row.side), []).append((row, scale))
    done = tuple(
        store.StrengthSet(
            client_id=client_id,
            logged_at=at,
            exercise=exercise,
            words="",
            side=side,
            reps=rows[0][0].reps,
            reserve=rows[0][0].reserve,
            formula="epley",
            scales=tuple(scale for _, scale in rows),
        )
        for (at, exercise, side), rows in grouped.items()
    )
    return tuple(sorted((*logged, *done), key=lambda s: s.logged_at))
