"""A client over time: how strong each action is, by every set on any exercise, at any place."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from types import MappingProxyType

from widearc import store
from widearc.core.record import Estimate, Gap, Point, estimate_of, gap_of
from widearc.core.record.estimate import WEEKS
from widearc.core.strength import MOST_REPS, Scale, effort_of_reps
from widearc.core.strength.scale import MISJUDGED

SIDES = ("left", "right")
DAYS = 7 * WEEKS
NEWEST = 40  # sessions: older sets say nothing of today's strength


@dataclass(frozen=True, slots=True, kw_only=True)
class Said:
    """What one set says of an action and side: see Point; when (ISO); alone: it was done on that
    side alone.
    """

    point: Point
    done_at: str
    alone: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class Trend:
    """An action's strength: the estimate of each side, the sets that it rests on, and how much
    stronger the right is than the left (None: too few sets of one side each).
    """

    action: str
    sides: Mapping[str, Estimate]
    said: Mapping[str, tuple[Said, ...]]
    gap: Gap | None = None


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
    said: dict[str, dict[str, list[Said]]] = {}
    for scale, done_at, exercise, side in _scales(con, trainer_id, client_id, now):
        ago = datetime.fromisoformat(now) - datetime.fromisoformat(done_at)
        point = Point(
            exercise=exercise,
            kappa=scale.kappa,
            error_share=scale.error_share,
            weeks=max(0.0, ago.total_seconds() / 604800.0),
            at_least=scale.at_least,
        )
        one = Said(point=point, done_at=done_at, alone=side != "both")
        for each in SIDES if side == "both" else (side,):
            said.setdefault(scale.action, {}).setdefault(each, []).append(one)
    found = (_trend(action, sides) for action, sides in said.items())
    known = (trend for trend in found if trend.sides)
    return tuple(sorted(known, key=lambda t: -sum(e.sets for e in t.sides.values())))


def _scales(
    con: store.Connection, trainer_id: int, client_id: int, now: str
) -> Iterator[tuple[Scale, str, str, str]]:
    """Yield (what it says, when, exercise, side) of every set of the last ten weeks."""
    since = (datetime.fromisoformat(now) - timedelta(days=DAYS)).isoformat()
    for row, scale in scales_of_floor(store.set_says(con, trainer_id, client_id, since)):
        yield scale, row.done_at, row.exercise, row.side
    for logged in store.strength_sets(con, trainer_id, client_id):
        for scale in logged.scales if logged.logged_at >= since else ():
            yield scale, logged.logged_at, logged.exercise, logged.side


def _trend(action: str, sides: Mapping[str, Sequence[Said]]) -> Trend:
    gap = gap_of(*([s.point for s in sides.get(side, ()) if s.alone] for side in SIDES))
    made = {side: estimate_of(_points(rows, side, gap)) for side, rows in sides.items()}
    return Trend(
        action=action,
        sides=MappingProxyType({s: e for s, e in made.items() if e is not None}),
        said=MappingProxyType({s: tuple(rows) for s, rows in sides.items()}),
        gap=gap,
    )


def _points(rows: Sequence[Said], side: str, gap: Gap | None) -> list[Point]:
    """Return what the sets of a side say. With both legs the weaker gives out: of the stronger
    side, where it is known, such a set says "at least".
    """
    stronger = None if gap is None or not gap.known else SIDES[gap.share > 0]
    return [
        replace(s.point, at_least=True) if side == stronger and not s.alone else s.point
        for s in rows
    ]


def all_sets(
    con: store.Connection, trainer_id: int, client_id: int
) -> tuple[store.StrengthSet, ...]:
    """Return every set that tells of a client's strength, oldest first: those logged at Arc, and
    those of the newest forty sessions of the floor.
    """
    logged = store.strength_sets(con, trainer_id, client_id)
    grouped: dict[tuple[str, str, str], list[tuple[store.SetSays, Scale]]] = {}
    for row, scale in scales_of_floor(
        store.set_says(con, trainer_id, client_id, "", sessions=NEWEST)
    ):
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
