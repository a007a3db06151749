"""What to do next time, by a rule that the trainer chose: pure functions of the last sets.

A proposal has its reason and never acts. What practice leaves open (after a failure, a missed
session, pain, a light week) is asked of the trainer, and what was answered is offered again.
Common practice, no source, throughout.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from itertools import pairwise
from types import MappingProxyType

from widearc.core.progression.arithmetic import compounded
from widearc.core.words import UNSAID, Count, Duration, Said, Share, Term, Times

MINUTE_S = 60.0
MISSED_DAYS = 10
"""A longer time without the lift is a missed session."""
LIGHT = 0.93
"""Of the effort before: a session below was a light one."""
TOP, LOW = 12, 8

EVENTS = ("pain", "failure", "missed", "light")
ACTS = ("same", "below", "share", "back")
EVENT_WORDS: Mapping[str, str] = MappingProxyType(
    {
        "pain": "After pain",
        "failure": "After a failed set",
        "missed": "After a missed session",
        "light": "After a light week",
    }
)


@dataclass(frozen=True, slots=True, kw_only=True)
class SetSeen:
    """A set as a rule sees it. side: both, left or right; reserve: reps left (None: not said);
    form: how it broke, "" where it did not; pain: 0 to 10; seconds: under load.
    """

    reps: int
    side: str = "both"
    reserve: int | None = None
    form: str = ""
    pain: int = 0
    seconds: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Occasion:
    """The sets of a lift on one day; effort: its place on the ladder, over 0."""

    day: date
    sets: tuple[SetSeen, ...]
    effort: float


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnRule:
    """What a trainer does after an event: the same again, the rung below, a share of the load, or
    back to what was done before a light week; with the reason that was given.
    """

    act: str
    share: float = 0.9
    reason: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Aim:
    """What a lift is done for: sets, the range of reps, the rule by its name; percent: share a week
    of the rule that counts weeks; after weeks comes a light one at deload (share); own: the
    trainer's rules by event.
    """

    sets: int = 3
    low: int = LOW
    high: int = TOP
    rule: str = "all"
    percent: float = 0.025
    weeks: int = 4
    deload: float = 0.6
    own: Mapping[str, OwnRule] = field(default_factory=lambda: MappingProxyType({}))


@dataclass(frozen=True, slots=True, kw_only=True)
class Proposal:
    """What is proposed. step: rungs up (1), none (0) or down (-1); share: of the present load or
    effort to go down to, where a rung is not counted; most: how much more the next rung may be,
    share; reps: of each set; asks: an event of which the trainer's own rule is not known.
    """

    step: int = 0
    sets: int
    reps: int
    reason: Said
    share: float | None = None
    most: float | None = None
    warns: Said = UNSAID
    asks: str = ""


def propose(aim: Aim, seen: Sequence[Occasion], today: date) -> Proposal:
    """Return what a rule proposes after what was done, oldest first; nothing done: the start."""
    if not seen:
        words = Said("No set of it is kept yet: the first is to see how it goes.")
        return Proposal(sets=aim.sets, reps=aim.low, reason=words)
    event = event_of(aim, seen, today)
    if event:
        return _after(aim, event, seen)
    return RULES[aim.rule](aim, seen, today)


def event_of(aim: Aim, seen: Sequence[Occasion], today: date) -> str:
    """Return what practice leaves open after what was done: "pain", "failure", "missed", "light",
    or "" for none.
    """
    last = seen[-1]
    if any(s.pain for s in last.sets):
        return "pain"
    if any(s.reps < aim.low and s.reserve in (None, 0) for s in last.sets) and _is_counted(aim):
        return "failure"
    if (today - last.day).days > MISSED_DAYS:
        return "missed"
    if len(seen) > 1 and last.effort < LIGHT * seen[-2].effort:
        return "light"
    return ""


def _is_counted(aim: Aim) -> bool:
    return aim.rule != "minute"


def _after(aim: Aim, event: str, seen: Sequence[Occasion]) -> Proposal:
    own = aim.own.get(event)
    words = Term(EVENT_WORDS[event])
    if own is None:
        asked = Said("{event}: practice differs. Say once what you do then.", event=words)
        return Proposal(sets=aim.sets, reps=aim.low, reason=asked, asks=event)
    said = Said("{event}, as you do then.", event=words)
    kept = Proposal(sets=aim.sets, reps=aim.low, reason=said)
    if own.act == "below":
        return replace(kept, step=-1)
    if own.act == "back":
        most = max(one.effort for one in seen[-2:])
        return replace(kept, share=most / seen[-1].effort)
    return replace(kept, share=own.share) if own.act == "share" else kept


def _short(sets: Sequence[SetSeen], reps: int) -> SetSeen | None:
    """Return the set that stopped shortest of so many reps, None where none did."""
    short = [s for s in sets if s.reps < reps]
    return min(short, key=lambda s: s.reps, default=None)


def _broken(sets: Sequence[SetSeen]) -> SetSeen | None:
    return next((s for s in sets if s.form), None)


def _by_side(sets: Sequence[SetSeen]) -> list[list[SetSeen]]:
    return [found for side in ("both", "left", "right") if (found := _of(sets, side))]


def _of(sets: Sequence[SetSeen], side: str) -> list[SetSeen]:
    return [s for s in sets if s.side == side]


def _missing(aim: Aim, sets: Sequence[SetSeen]) -> int:
    """Return how many sets fewer than planned were done, by the side with fewest."""
    return max(0, aim.sets - min(len(side) for side in _by_side(sets)))


def _stay(aim: Aim, reason: Said, *, reps: int | None = None) -> Proposal:
    return Proposal(sets=aim.sets, reps=aim.high if reps is None else reps, reason=reason)


def _form_first(aim: Aim, sets: Sequence[SetSeen]) -> Proposal | None:
    broken = _broken(sets)
    if broken is None:
        return None
    words = Said("Form broke ({form}): earn it with form kept.", form=Term(broken.form))
    return _stay(aim, words, reps=min(aim.high, max(aim.low, broken.reps)))


def _not_yet(aim: Aim, sets: Sequence[SetSeen], reps: int) -> Said | None:
    """Return why not all sets reached so many reps; None where they did."""
    missing = _missing(aim, sets)
    if missing:
        return Said(
            "{missing} set fewer than planned.",
            "{missing} sets fewer than planned.",
            missing=Count(missing),
        )
    short = _short(sets, reps)
    if short is None:
        return None
    met, total = sum(s.reps >= reps for s in sets), len(sets)
    part = {
        "both": "{met} of {total} sets reached {goal}; one stopped at {reps}.",
        "left": "{met} of {total} sets reached {goal}; the left side stopped at {reps}.",
        "right": "{met} of {total} sets reached {goal}; the right side stopped at {reps}.",
    }[short.side]
    return Said(
        part,
        met=Count(met),
        total=Count(total),
        goal=Count(reps),
        reps=Count(short.reps),
    )


def all_sets_met(aim: Aim, seen: Sequence[Occasion], today: date) -> Proposal:
    """Return the next rung once every set reached the top of the range with form kept."""
    sets = seen[-1].sets
    kept = _form_first(aim, sets)
    if kept is not None:
        return kept
    why = _not_yet(aim, sets, aim.high)
    if why is not None:
        return _stay(aim, why)
    met = Said("Every set reached {reps} with form kept.", reps=Count(aim.high))
    return Proposal(step=1, sets=aim.sets, reps=aim.high, reason=met)


def first_set_at_top(aim: Aim, seen: Sequence[Occasion], today: date) -> Proposal:
    """Return the next rung once the first set, of each side, reached the top of the range."""
    sets = [side[0] for side in _by_side(seen[-1].sets)]
    kept = _form_first(aim, sets)
    if kept is not None:
        return kept
    short = _short(sets, aim.high)
    if short is not None:
        words = Said(
            "The first set stopped at {reps} of {goal}.",
            reps=Count(short.reps),
            goal=Count(aim.high),
        )
        return _stay(aim, words)
    met = Said("The first set reached {reps}, the top of the range.", reps=Count(aim.high))
    return Proposal(step=1, sets=aim.sets, reps=aim.low, reason=met)


def reps_then_load(aim: Aim, seen: Sequence[Occasion], today: date) -> Proposal:
    """Return one rep more up to the top of the range, then the next rung at its bottom."""
    sets = seen[-1].sets
    kept = _form_first(aim, sets)
    if kept is not None:
        return kept
    why = _not_yet(aim, sets, aim.high)
    if why is None:
        met = Said("Every set reached {reps} with form kept.", reps=Count(aim.high))
        return Proposal(step=1, sets=aim.sets, reps=aim.low, reason=met)
    least = min(s.reps for s in sets)
    goal = max(aim.low, least + (0 if _missing(aim, sets) else 1))
    return _stay(aim, why, reps=min(aim.high, goal))


def one_minute(aim: Aim, seen: Sequence[Occasion], today: date) -> Proposal:
    """Return the next rung once a minute of slow control was done with form, range and tempo
    kept.
    """
    sets = seen[-1].sets
    kept = _form_first(aim, sets)
    if kept is not None:
        return kept
    sides = _by_side(sets)
    least = min(max(s.seconds for s in side) for side in sides)
    if least < MINUTE_S:
        words = Said("{time} so far: a minute of slow control comes first.", time=Duration(least))
        return _stay(aim, words)
    met = Said("A minute of slow control, with form, range and tempo kept.")
    return Proposal(step=1, sets=aim.sets, reps=aim.low, reason=met)


def percent_a_week(aim: Aim, seen: Sequence[Occasion], today: date) -> Proposal:
    """Return the next rung where it is no more than a share for every week on this one allows."""
    kept = all_sets_met(aim, seen, today)
    warns = Said(
        "{share} a week makes {times} in twelve weeks: it cannot go on for months.",
        share=Share(aim.percent),
        times=Times(compounded(aim.percent, 12), 2),
    )
    if not kept.step:
        return replace(kept, warns=warns)
    since = _since(seen)
    weeks = max(1, round((today - since).days / 7))
    words = Said(
        "{weeks} week on this rung: at {share} a week the next may be {more} more.",
        "{weeks} weeks on this rung: at {share} a week the next may be {more} more.",
        weeks=Count(weeks),
        share=Share(aim.percent),
        more=Share(compounded(aim.percent, weeks) - 1.0),
    )
    most = compounded(aim.percent, weeks) - 1.0
    return replace(kept, reason=words, most=most, warns=warns, reps=aim.low)


def _since(seen: Sequence[Occasion]) -> date:
    """Return when the present effort was first done, without a break."""
    since = seen[-1]
    for one in reversed(seen):
        if abs(one.effort / seen[-1].effort - 1.0) > 0.01:
            break
        since = one
    return since.day


def deload(aim: Aim, seen: Sequence[Occasion], today: date) -> Proposal:
    """Return a light week after so many, by the trainer's own numbers; between them all sets
    met.
    """
    start = seen[0].day
    for before, one in pairwise(seen):
        if one.effort < LIGHT * before.effort:
            start = one.day
    weeks = (today - start).days // 7
    if weeks < aim.weeks:
        return all_sets_met(aim, seen, today)
    words = Said(
        "{weeks} week since a light one: a light week at {share}.",
        "{weeks} weeks since a light one: a light week at {share}.",
        weeks=Count(weeks),
        share=Share(aim.deload),
    )
    return Proposal(sets=aim.sets, reps=aim.low, reason=words, share=aim.deload)


RULES: Mapping[str, Callable[[Aim, Sequence[Occasion], date], Proposal]] = MappingProxyType(
    {
        "all": all_sets_met,
        "first": first_set_at_top,
        "reps": reps_then_load,
        "minute": one_minute,
        "percent": percent_a_week,
        "deload": deload,
    }
)

RULE_WORDS: Mapping[str, str] = MappingProxyType(
    {
        "all": "All sets met, then the next rung",
        "first": "First set at the top of its range, then the next rung",
        "reps": "Reps to the top of their range, then load",
        "minute": "A minute of slow control, then the next rung",
        "percent": "A percent a week",
        "deload": "All sets met, and a light week after some",
    }
)

STAGES: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("range", ("depth lost", "heels lift", "hips lift")),
    ("tempo", ("swing", "breath")),
)
"""Which breaks of form are of the range and of the tempo; others are of form itself."""


def by_feel(aim: Aim, seen: Sequence[Occasion]) -> Proposal:
    """Return the next step without a number: form, range, tempo and duration are earned in that
    order, a harder set-up last.
    """
    if not seen:
        words = Said("The easiest that feels like work, to see how it moves.")
        return Proposal(sets=aim.sets, reps=aim.low, reason=words)
    sets = seen[-1].sets
    if any(s.pain for s in sets):
        words = Said("It hurt: an easier set-up, or another lift.")
        return Proposal(step=-1, sets=aim.sets, reps=aim.low, reason=words)
    broken = [s.form for s in sets if s.form]
    later = {form for _, forms in STAGES for form in forms}
    if any(form not in later for form in broken):
        return _stay(aim, Said("First form: the same again until every rep looks alike."))
    if any(form in STAGES[0][1] for form in broken):
        return _stay(aim, Said("Then range: the same again, all the way each time."))
    if broken:
        return _stay(aim, Said("Then tempo: the same again, slow and steady."))
    if _short(sets, aim.high) is not None and min(s.seconds for s in sets) < MINUTE_S:
        return _stay(aim, Said("Then duration: the same again, a little longer."))
    words = Said("Form, range, tempo and duration are there: a step harder.")
    return Proposal(step=1, sets=aim.sets, reps=aim.low, reason=words)
