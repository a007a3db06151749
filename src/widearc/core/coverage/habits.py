"""Findings on the spine, the order of a day, and habits."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from widearc.core.coverage.finding import HEAVY, SAME_WEEKS, SIDES, Finding, Person
from widearc.core.coverage.order import breaches
from widearc.core.coverage.seen import SlotSeen
from widearc.core.words import Count, Said, Term


def _is_heavy(slot: SlotSeen, person: Person) -> bool:
    return slot.traits.spine_kg >= HEAVY * person.mass_kg


def spine_pairs(slots: Sequence[SlotSeen], person: Person) -> tuple[tuple[int, int], ...]:
    """Return the pairs of days in a row (0: Monday) that both load the spine heavily."""
    days = sorted({s.day for s in slots if _is_heavy(s, person)})
    return tuple((a, b) for a, b in pairwise(days) if b - a == 1)


def two_bar_pairs(
    slots: Sequence[SlotSeen], person: Person
) -> tuple[tuple[SlotSeen, SlotSeen], ...]:
    """Return the pairs of heavy free-bar lifts on one day, one after the other."""
    heavy = [s for s in slots if s.traits.free_bar and _is_heavy(s, person)]
    ordered = sorted(heavy, key=lambda s: (s.day, s.position))
    return tuple((a, b) for a, b in pairwise(ordered) if a.day == b.day)


def adjacent_spine(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return two days in a row that load the spine heavily."""
    pairs = spine_pairs(slots, person)
    if not pairs:
        return None
    second = pairs[0][1]
    heavy = [s for s in slots if _is_heavy(s, person)]
    return Finding(
        id="adjacent-spine",
        says=Said("Two days in a row load the spine heavily."),
        why=Said("A day between them lets it rest: a belt, a sled or one leg spares it."),
        slots=tuple(s.id for s in heavy if s.day == second),
        day=second,
    )


def two_bars(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return two heavy free-bar lifts that load the spine on one day."""
    pairs = two_bar_pairs(slots, person)
    if not pairs:
        return None
    pair = pairs[0]
    return Finding(
        id="two-bars",
        says=Said(
            "{first} and {second} load the spine on one day.",
            first=Term(pair[0].exercise.name),
            second=Term(pair[1].exercise.name, lower=True),
            begins=True,
        ),
        why=Said("One heavy free bar a day is common practice."),
        slots=(pair[1].id,),
        day=pair[0].day,
    )


def isolated_sides(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return isolated abduction or adduction without an imbalance or a goal."""
    sides = [s for s in slots if s.exercise.id in _SIDE_IDS]
    if person.wants_sides or not sides:
        return None
    return Finding(
        id="isolated-sides",
        says=Said("{exercise} by itself.", exercise=Term(sides[0].exercise.name), begins=True),
        why=Said("Without an imbalance or a goal, one-leg work does as much in less time."),
        slots=tuple(s.id for s in sides),
    )


_SIDE_IDS = frozenset(
    {
        *SIDES,
        *("side-lying-raise-edge", "abduction-machine", "adduction-machine"),
        *("adduction-cable", "adduction-band"),
    }
)


def same_profile(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that the sets have lain alike for eight weeks and more."""
    if person.weeks_alike < SAME_WEEKS:
        return None
    return Finding(
        id="same-profile",
        says=Said(
            "{weeks} week of nearly one profile.",
            "{weeks} weeks of nearly one profile.",
            weeks=Count(person.weeks_alike),
        ),
        why=Said(
            "Some change where the lift is hardest after eight; whether it helps is disputed."
        ),
    )


def order(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return the first slot that stands before one that belongs earlier."""
    found = breaches(slots)
    if not found:
        return None
    first, then = found[0]
    return Finding(
        id="order",
        says=Said(
            "{first} stands before {then}.",
            first=Term(first.exercise.name),
            then=Term(then.exercise.name, lower=True),
            begins=True,
        ),
        why=Said("Large lifts first, then one leg or isolation, calves, a finisher, mobility."),
        slots=(then.id,),
        day=first.day,
    )
