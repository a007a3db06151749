"""What mends a finding by what is planned already: moved, put in order or taken off, nothing added.

Each arrangement is tried on the whole week: it is a mend only where the finding shows less often
and no other comes up.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

from widearc.core.coverage.finding import Finding, Person
from widearc.core.coverage.findings import findings
from widearc.core.coverage.habits import spine_pairs, two_bar_pairs
from widearc.core.coverage.order import breaches, rank_of
from widearc.core.coverage.seen import DAYS, SlotSeen
from widearc.core.words import Said, Term

WEEKDAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Mend:
    """A week as a mend leaves it: what is done, in words; its slots, each on its day and in its
    place; day: the day that moves as a whole, from and to a weekday (None: none does).
    """

    says: Said
    slots: tuple[SlotSeen, ...]
    day: tuple[int, int] | None = None


_Tries = Callable[[Finding, Sequence[SlotSeen], Sequence[int]], Iterator[Mend]]


def mend_of(
    finding: Finding, slots: Sequence[SlotSeen], person: Person, days: Sequence[int]
) -> Mend | None:
    """Return the first arrangement of a week that mends a finding, None where none does.

    days: the weekdays that are planned, with something on them or not, 0 (Monday) to 6.
    """
    tries = TRIES.get(finding.id)
    if tries is None:
        return None
    before = {f.id for f in findings(slots, person)}
    often = _often(finding, slots, person)
    for mend in tries(finding, slots, days):
        after = {f.id for f in findings(mend.slots, person)}
        if after <= before and _often(finding, mend.slots, person) < often:
            return mend
    return None


def _often(finding: Finding, slots: Sequence[SlotSeen], person: Person) -> int:
    """Return how often a finding shows in a week."""
    counted = {
        "adjacent-spine": lambda: len(spine_pairs(slots, person)),
        "two-bars": lambda: len(two_bar_pairs(slots, person)),
        "order": lambda: len(breaches(slots)),
    }
    if finding.id in counted:
        return counted[finding.id]()
    return sum(f.id == finding.id for f in findings(slots, person))


def _placed(slots: Sequence[SlotSeen]) -> tuple[SlotSeen, ...]:
    """Return slots with the slots of every day where they belong, otherwise as they stood."""
    found: list[SlotSeen] = []
    for day in sorted({s.day for s in slots}):
        here = sorted((s for s in slots if s.day == day), key=lambda s: (rank_of(s), s.position))
        found += [replace(s, position=n) for n, s in enumerate(here)]
    return tuple(found)


def _in_order(finding: Finding, slots: Sequence[SlotSeen], days: Sequence[int]) -> Iterator[Mend]:
    yield Mend(says=Said("Put the lifts in order"), slots=_placed(slots))


def _without(finding: Finding, slots: Sequence[SlotSeen], days: Sequence[int]) -> Iterator[Mend]:
    gone = set(finding.slots)
    first = next(s for s in slots if s.id in gone)
    yield Mend(
        says=Said("Take {exercise} off", exercise=Term(first.exercise.name, lower=True)),
        slots=tuple(s for s in slots if s.id not in gone),
    )


def _elsewhere(finding: Finding, slots: Sequence[SlotSeen], days: Sequence[int]) -> Iterator[Mend]:
    """Yield weeks in which the slots of a finding are on another planned day."""
    moved = [s for s in slots if s.id in finding.slots]
    for day in days:
        if day != finding.day:
            says = Said(
                "Move {exercise} to {day}",
                exercise=Term(moved[0].exercise.name, lower=True),
                day=Term(WEEKDAYS[day]),
            )
            yield Mend(says=says, slots=_on(slots, {s.id for s in moved}, day))


def _on(slots: Sequence[SlotSeen], moved: set[int], day: int) -> tuple[SlotSeen, ...]:
    """Return slots with some of them on another day, each where it belongs there."""
    changed = [s for s in slots if s.id not in moved]
    for one in (s for s in slots if s.id in moved):
        here = sorted((s for s in changed if s.day == day), key=lambda s: s.position)
        at = next((n for n, s in enumerate(here) if rank_of(s) > rank_of(one)), len(here))
        row = [*here[:at], replace(one, day=day), *here[at:]]
        others = [s for s in changed if s.day != day]
        changed = [*others, *(replace(s, position=n) for n, s in enumerate(row))]
    return tuple(sorted(changed, key=lambda s: (s.day, s.position)))


def _apart(finding: Finding, slots: Sequence[SlotSeen], days: Sequence[int]) -> Iterator[Mend]:
    """Yield weeks in which the second of two days is on a free weekday, the nearest first."""
    assert finding.day is not None
    second = finding.day
    free = (day for day in range(DAYS) if day not in days)
    for day in sorted(free, key=lambda d: (abs(d - second), -d)):
        says = Said("Move {day} to {free}", day=Term(WEEKDAYS[second]), free=Term(WEEKDAYS[day]))
        moved = {s.id for s in slots if s.day == second}
        yield Mend(
            says=says,
            slots=tuple(replace(s, day=day) if s.id in moved else s for s in slots),
            day=(second, day),
        )


def _moved_or_apart(
    finding: Finding, slots: Sequence[SlotSeen], days: Sequence[int]
) -> Iterator[Mend]:
    if len(finding.slots) == 1:
        yield from _elsewhere(finding, slots, days)
    yield from _apart(finding, slots, days)


TRIES: Mapping[str, _Tries] = MappingProxyType(
    {
        "adjacent-spine": _moved_or_apart,
        "two-bars": _elsewhere,
        "order": _in_order,
        "isolated-sides": _without,
    }
)
