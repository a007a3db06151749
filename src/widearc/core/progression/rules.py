"""What to do next time, by a rule that the trainer chose: pure functions of the last sets.

A proposal has its reason and never acts. What practice leaves open (after a failure, a missed
session, pain, a light week) is asked of the trainer, and what was answered is offered again.
Common practice, no source, throughout.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from itertools import pairwise
from types import MappingProxyType

from widearc.core.progression.aims import EVENT_WORDS, EVENTS, Aim, Occasion, Proposal, SetSeen
from widearc.core.progression.arithmetic import compounded
from widearc.core.words import Count, Duration, Said, Share, Term, Times

MINUTE_S = 60.0
MISSED_DAYS = 10
"""A longer time without the lift is a missed session."""
LIGHT = 0.93
"""Of the effort before: a session below was a light one."""


def propose(aim: Aim, seen: Sequence[Occasion], today: int) -> Proposal:
    """Return what a rule proposes after what was done, oldest first; nothing done: the start.

    today: the day, counted as those of what was done.
    """
    if not seen:
        words = Said("No set of it is kept yet: the first is to see how it goes.")
        return Proposal(sets=aim.sets, reps=aim.low, reason=words)
    event = event_of(aim, seen, today)
    if event:
        return _after(aim, event, seen)
    return RULES[aim.rule](aim, seen, today)


def event_of(aim: Aim, seen: Sequence[Occasion], today: int) -> str:
    """Return what practice leaves open after what was done: "pain", "failure", "missed", "light",
    or "" for none.
    """
    last = seen[-1]
    happened = {
        "pain": any(s.pain for s in last.sets),
        "failure": _is_counted(aim) and any(_failed(s, aim.low) for s in last.sets),
        "missed": today - last.day > MISSED_DAYS,
        "light": len(seen) > 1 and last.effort < LIGHT * seen[-2].effort,
    }
    return next((event for event in EVENTS if happened[event]), "")


def _failed(one: SetSeen, least: int) -> bool:
    return one.reps < least and one.reserve in (None, 0)


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


def short_of(sets: Sequence[SetSeen], reps: int) -> SetSeen | None:
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


def stay(aim: Aim, reason: Said, *, reps: int | None = None) -> Proposal:
    """Return a proposal to do the same again; reps: the top of the range where none are said."""
    return Proposal(sets=aim.sets, reps=aim.high if reps is None else reps, reason=reason)


def _form_first(aim: Aim, sets: Sequence[SetSeen]) -> Proposal | None:
    broken = _broken(sets)
    if broken is None:
        return None
    words = Said("Form broke ({form}): earn it with form kept.", form=Term(broken.form))
    return stay(aim, words, reps=min(aim.high, max(aim.low, broken.reps)))


def _not_yet(aim: Aim, sets: Sequence[SetSeen], reps: int) -> Said | None:
    """Return why not all sets reached so many reps; None where they did."""
    missing = _missing(aim, sets)
    if missing:
        return Said(
            "{missing} set fewer than planned.",
            "{missing} sets fewer than planned.",
            missing=Count(missing),
        )
    short = short_of(sets, reps)
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


def all_sets_met(aim: Aim, seen: Sequence[Occasion], today: int) -> Proposal:
    """Return the next rung once every set reached the top of the range with form kept."""
    sets = seen[-1].sets
    kept = _form_first(aim, sets)
    if kept is not None:
        return kept
    why = _not_yet(aim, sets, aim.high)
    if why is not None:
        return stay(aim, why)
    met = Said("Every set reached {reps} with form kept.", reps=Count(aim.high))
    return Proposal(step=1, sets=aim.sets, reps=aim.high, reason=met)


def first_set_at_top(aim: Aim, seen: Sequence[Occasion], today: int) -> Proposal:
    """Return the next rung once the first set, of each side, reached the top of the range."""
    sets = [side[0] for side in _by_side(seen[-1].sets)]
    kept = _form_first(aim, sets)
    if kept is not None:
        return kept
    short = short_of(sets, aim.high)
    if short is not None:
        words = Said(
            "The first set stopped at {reps} of {goal}.",
            reps=Count(short.reps),
            goal=Count(aim.high),
        )
        return stay(aim, words)
    met = Said("The first set reached {reps}, the top of the range.", reps=Count(aim.high))
    return Proposal(step=1, sets=aim.sets, reps=aim.low, reason=met)


def reps_then_load(aim: Aim, seen: Sequence[Occasion], today: int) -> Proposal:
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
    return stay(aim, why, reps=min(aim.high, goal))


def one_minute(aim: Aim, seen: Sequence[Occasion], today: int) -> Proposal:
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
        return stay(aim, words)
    met = Said("A minute of slow control, with form, range and tempo kept.")
    return Proposal(step=1, sets=aim.sets, reps=aim.low, reason=met)


def percent_a_week(aim: Aim, seen: Sequence[Occasion], today: int) -> Proposal:
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
    weeks = max(1, round((today - since) / 7))
    words = Said(
        "{weeks} week on this rung: at {share} a week the next may be {more} more.",
        "{weeks} weeks on this rung: at {share} a week the next may be {more} more.",
        weeks=Count(weeks),
        share=Share(aim.percent),
        more=Share(compounded(aim.percent, weeks) - 1.0),
    )
    most = compounded(aim.percent, weeks) - 1.0
    return replace(kept, reason=words, most=most, warns=warns, reps=aim.low)


def _since(seen: Sequence[Occasion]) -> int:
    """Return when the present effort was first done, without a break."""
    since = seen[-1]
    for one in reversed(seen):
        if abs(one.effort / seen[-1].effort - 1.0) > 0.01:
            break
        since = one
    return since.day


def deload(aim: Aim, seen: Sequence[Occasion], today: int) -> Proposal:
    """Return a light week after so many, by the trainer's own numbers; between them all sets
    met.
    """
    start = seen[0].day
    for before, one in pairwise(seen):
        if one.effort < LIGHT * before.effort:
            start = one.day
    weeks = (today - start) // 7
    if weeks < aim.weeks:
        return all_sets_met(aim, seen, today)
    words = Said(
        "{weeks} week since a light one: a light week at {share}.",
        "{weeks} weeks since a light one: a light week at {share}.",
        weeks=Count(weeks),
        share=Share(aim.deload),
    )
    return Proposal(sets=aim.sets, reps=aim.low, reason=words, share=aim.deload)


RULES: Mapping[str, Callable[[Aim, Sequence[Occasion], int], Proposal]] = MappingProxyType(
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
