"""Which rule a client's lift goes on by, and what a trainer does where practice leaves it open."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from widearc import store
from widearc.core.errors import InputError, one_of
from widearc.core.exercises import EXERCISES
from widearc.core.progression.aims import ACTS, EVENTS, Aim, OwnRule
from widearc.core.progression.rules import RULES
from widearc.core.words import Figure, Said, Term

RANGES: Mapping[str, tuple[float, float]] = MappingProxyType(
    {
        "sets": (1, 20),
        "low": (1, 100),
        "high": (1, 100),
        "percent": (0.001, 0.2),
        "weeks": (1, 52),
        "deload": (0.1, 0.95),
    }
)


def scope(client_id: int) -> str:
    """Return what changes of a client's rules belong to."""
    return f"ladder:{client_id}"


def aim_of(
    con: store.Connection, trainer_id: int, client_id: int, exercise: str, sets: int, reps: int
) -> Aim:
    """Return the rule of a client's lift as it was chosen, else all sets met in the range of
    practice up to the reps that were planned; with the trainer's own rules.
    """
    own = {
        event: OwnRule(act=row.act, share=row.share, reason=row.reason)
        for event, row in store.own_rules(con, trainer_id).items()
    }
    row = store.rule_of(con, trainer_id, client_id, exercise)
    if row is None:
        low = min(EXERCISES[exercise].reps[0], reps)
        return Aim(sets=sets, low=low, high=reps, own=MappingProxyType(own))
    return Aim(
        sets=row.sets,
        low=row.low,
        high=row.high,
        rule=row.rule,
        percent=row.percent,
        weeks=row.weeks,
        deload=row.deload,
        own=MappingProxyType(own),
    )


@store.at_once
def choose_rule(con: store.Connection, trainer_id: int, row: store.RuleRow, *, now: str) -> None:
    """Keep by which rule a client's lift goes on. InputError at the field that is out of range."""
    store.client(con, trainer_id, row.client_id)
    if row.exercise not in EXERCISES:
        raise InputError("exercise", row.exercise[:40], Said("an exercise of the catalogue"))
    if row.rule not in RULES:
        raise InputError("rule", row.rule[:20], one_of(tuple(RULES)))
    for name, (low, high) in RANGES.items():
        value = getattr(row, name)
        if not low <= value <= high:
            raise InputError(
                name, value, Said("from {low} to {high}", low=Figure(low), high=Figure(high))
            )
    if row.low > row.high:
        raise InputError("low", row.low, Said("no more than the top of the range"))
    words = Said("rule of the {exercise}", exercise=Term(EXERCISES[row.exercise].name, lower=True))
    with store.recorded(
        con, trainer_id, scope=scope(row.client_id), kind="rule", words=words, now=now
    ):
        store.set_rule(con, trainer_id, row)


@store.at_once
def keep_own_rule(
    con: store.Connection, trainer_id: int, client_id: int, row: store.OwnRuleRow, *, now: str
) -> None:
    """Keep what a trainer does after an event, with the reason. InputError for what is none."""
    if row.event not in EVENTS:
        raise InputError("event", row.event[:20], one_of(EVENTS))
    if row.act not in ACTS:
        raise InputError("act", row.act[:20], one_of(ACTS))
    if not 0.1 <= row.share <= 1.0:
        raise InputError("share", row.share, Said("from 10 to 100 percent"))
    if len(row.reason) > 300:
        raise InputError("reason", row.reason[:40], Said("at most 300 characters"))
    with store.recorded(
        con,
        trainer_id,
        scope=scope(client_id),
        kind="rule",
        words=Said("what you do where practice differs"),
        now=now,
    ):
        store.set_own_rule(con, trainer_id, row)
