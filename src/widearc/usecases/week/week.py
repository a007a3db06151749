"""A week's plan at a place: what is wanted of whom and how often, and what one purchase would do
for it.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from widearc import store
from widearc.core.answers import Bought, purchases_for
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.intent import Intent, Shape
from widearc.core.progression.weights import weight_of
from widearc.core.search import Memo, Question
from widearc.core.words import UNSAID, Count, Mass, Name, Said, Share, Term
from widearc.formats import parse_scenario
from widearc.usecases.holdings import Holdings
from widearc.usecases.intent.intents import LONGEST_NAME, intent_words
from widearc.usecases.room.room import scope
from widearc.usecases.sheet import SheetError
from widearc.usecases.swap.swap import swap_view
from widearc.usecases.swap.wanted import SwapAsk, by_kg, depths_of, set_up_from, set_up_text
from widearc.usecases.week.gaps import planned_here
from widearc.words import plain, say, tr

MOST_TIMES = 14  # a week: twice a day
WEEK_DAYS = 7
LEAST_GAIN = 0.005  # of the match: less is no gain in whole points
MOST_ASKED = 40  # wanted loadings that are computed; the others are said to be left out


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class PlanLine:
    """One thing of a plan: who, what is wanted in words, how often, and what it asks of Swap."""

    id: int
    client: str
    words: str
    times: int
    ask: SwapAsk


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WeekPlan:
    """The plan of the week of `monday` (ISO date). earlier: how many lines the last planned week
    before it had.
    """

    monday: str
    lines: tuple[PlanLine, ...]
    earlier: int


def week_plan(con: store.Connection, trainer_id: int, place_id: int, *, now: str) -> WeekPlan:
    """Return this week's plan at a place."""
    monday = store.monday_of(now)
    clients = {c.id: c.name for c in store.clients(con, trainer_id)}
    intents = {row.id: row for row in store.intents(con, trainer_id)}
    lines = []
    for row in store.planned(con, trainer_id, place_id, monday):
        if row.exercise is not None and row.exercise not in EXERCISES:
            continue  # the catalogue had it once
        ask = _ask_of(row, intents)
        name = intents[row.intent_id].name if row.intent_id is not None else ""
        words = asked_words(ask, name)
        lines.append(
            PlanLine(
                id=row.id, client=clients[row.client_id], words=words, times=row.times, ask=ask
            )
        )
    before = store.last_planned_monday(con, trainer_id, place_id, monday)
    earlier = len(store.planned(con, trainer_id, place_id, before)) if before else 0
    return WeekPlan(monday=monday, lines=tuple(lines), earlier=earlier)


def asked_words(ask: SwapAsk, name: str = "") -> str:
    """Return what is asked with its dose, as a plan says it; name: of the kept intent that it
    is.
    """
    if ask.intent is None:
        what, sets, reps = (
            ", ".join(
                part
                for part in (
                    tr(EXERCISES[ask.exercise].name),
                    say(Mass(ask.kg)).replace(" ", "\N{NO-BREAK SPACE}") if by_kg(ask) else "",
                    tr("otherwise set up") if ask.set_up.typed else "",
                )
                if part
            ),
            ask.sets,
            ask.reps,
        )
    else:
        words = name or say(intent_words(ask.intent))
        what, sets, reps = words[:1].upper() + words[1:], ask.intent.sets, ask.intent.reps
    return f"{what}, {sets}\N{NO-BREAK SPACE}×\N{NO-BREAK SPACE}{reps}"


def _ask_of(row: store.PlannedRow, intents: dict[int, store.IntentRow]) -> SwapAsk:
    common = SwapAsk(place_id=row.place_id, client_id=row.client_id, sets=row.sets, reps=row.reps)
    if row.intent_id is not None:
        return replace(common, intent=intents[row.intent_id].intent)
    assert (
        row.exercise is not None
        and row.kg is not None
        and row.depth_deg is not None
        and row.shape is not None
    )
    low, high = depths_of(EXERCISES[row.exercise])
    return replace(
        common,
        exercise=row.exercise,
        kg=row.kg,
        # rows of before depths were refused were computed at the nearest that is possible
        depth_deg=min(max(row.depth_deg, low), high),
        shape=Shape(row.shape),
        set_up=set_up_from(row.set_up),
    )


@store.at_once
def plan(con: store.Connection, trainer_id: int, ask: SwapAsk, times: int, *, now: str) -> None:
    """Put what is asked on this week's plan, so many times; planned before, only the times change.
    Undoable.

    An intent that is not kept yet is kept under its own words. SheetError at "times".
    """
    if not 1 <= times <= MOST_TIMES:
        raise SheetError(
            {
                "times": Said(
                    "{times} is not used: from 1 to {most} times a week",
                    times=Count(times),
                    most=Count(MOST_TIMES),
                )
            }
        )
    # both refuse what is not the trainer's
    store.client(con, trainer_id, ask.client_id)
    store.place(con, trainer_id, ask.place_id)
    words = Said(
        "{ask} planned {times} × this week", ask=Name(asked_words(ask)), times=Count(times)
    )
    with store.recorded(
        con, trainer_id, scope=scope(ask.place_id), kind="plan", words=words, now=now
    ):
        row = store.PlannedRow(
            place_id=ask.place_id,
            client_id=ask.client_id,
            monday=store.monday_of(now),
            times=times,
            sets=ask.sets,
            reps=ask.reps,
        )
        if ask.intent is not None:
            kept = _kept_as(con, trainer_id, ask.intent, now)
            store.put_planned(con, trainer_id, replace(row, intent_id=kept))
            return
        wanted = replace(
            row,
            exercise=ask.exercise,
            kg=ask.kg,
            depth_deg=ask.depth_deg,
            shape=ask.shape.value,
            set_up=set_up_text(ask.set_up),
        )
        store.put_planned(con, trainer_id, wanted)


def _kept_as(con: store.Connection, trainer_id: int, intent: Intent, now: str) -> int:
    """Return the id of an intent among the kept ones, kept now under its own words if it is not
    there.
    """
    rows = store.intents(con, trainer_id)
    same = next((row.id for row in rows if row.intent == intent), None)
    if same is not None:
        return same
    name, taken = plain(intent_words(intent))[:LONGEST_NAME], {row.name for row in rows}
    number = 2
    while name in taken:
        ending = f" ({number})"
        name, number = (
            plain(intent_words(intent))[: LONGEST_NAME - len(ending)] + ending,
            number + 1,
        )
    return store.put_intent(con, trainer_id, name, intent, now=now)


@store.at_once
def unplan(
    con: store.Connection, trainer_id: int, place_id: int, planned_id: int, *, now: str
) -> None:
    """Take something off this week's plan, recorded for undo. InputError if it is not there."""
    line = next(
        (x for x in week_plan(con, trainer_id, place_id, now=now).lines if x.id == planned_id), None
    )
    if line is None:
        raise InputError("planned", planned_id, Said("one of this week's plan"))
    words = Said("{words} off the plan", words=Name(line.words))
    with store.recorded(con, trainer_id, scope=scope(place_id), kind="plan", words=words, now=now):
        store.remove_planned(con, trainer_id, planned_id)


@store.at_once
def plan_again(con: store.Connection, trainer_id: int, place_id: int, *, now: str) -> None:
    """Plan again what the last planned week before this one had, recorded for undo."""
    monday = store.monday_of(now)
    before = store.last_planned_monday(con, trainer_id, place_id, monday)
    rows = store.planned(con, trainer_id, place_id, before) if before else ()
    words = Said("{rows} planned again", rows=Count(len(rows)))
    with store.recorded(con, trainer_id, scope=scope(place_id), kind="plan", words=words, now=now):
        for row in rows:
            store.put_planned(con, trainer_id, replace(row, monday=monday))


@dataclass(frozen=True, slots=True, kw_only=True)
class Buy:
    """A purchase with what it would do over everything asked: mean gain in match (share), and where
    most.
    """

    words: Said
    gain: float
    most: Said

    @property
    def helps(self) -> bool:
        """Return whether it raises anything that was asked."""
        return bool(self.most)


def _buy(words: Said, gains: list[tuple[float, int, Said]]) -> Buy:
    """Return a purchase by what it gains in each question, how often that is asked, and its
    words.
    """
    most = max(gains, key=lambda g: g[:2])
    return Buy(
        words=words,
        gain=sum(g * n for g, n, _ in gains) / sum(n for _, n, _ in gains),
        most=most[2] if most[0] >= LEAST_GAIN else UNSAID,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Buying:
    """Purchases by what they gain, best first, over the first `done` of `of` wanted loadings;
    left_out: how many more there are.
    """

    found: tuple[Buy, ...]
    done: int
    of: int
    left_out: int = 0

    @property
    def complete(self) -> bool:
        """Return whether all that is wanted was looked at."""
        return self.done == self.of


def worth_buying(
    con: store.Connection,
    trainer_id: int,
    ask: SwapAsk,
    memo: Memo,
    *,
    now: str,
    enough: Callable[[], bool] = lambda: False,
) -> Buying:
    """Return which single purchase would raise the best matches most over this week's plan at the
    place.

    Each line weighs as often as it is planned. Without a plan: over what is asked now and what was
    kept there in the last seven days. A gain of 0 is said as such. enough: asked after each wanted
    loading; what was computed is kept in the memo, and the next call goes on from there.
    """
    totals: dict[Said, list[tuple[float, int, Said]]] = {}
    every = _asked(con, trainer_id, ask, now)
    asked = every[:MOST_ASKED]
    held, done = Holdings(con, trainer_id), 0
    for one, times, words in asked:
        if done and enough():
            break
        done += 1
        try:
            view = swap_view(con, trainer_id, one, memo, held)
        except InputError:
            continue
        if view.question is None or view.ranking is None:
            continue
        best = view.ranking.candidates[0].match if view.ranking.candidates else 0.0
        for bought in _bought(view.question, memo):
            gain = max(0.0, bought.match - best), times, _gained(bought, words)
            totals.setdefault(bought.words, []).append(gain)
    found = [_buy(words, gains) for words, gains in totals.items()]
    ordered = tuple(sorted(found, key=lambda b: (-round(b.gain, 4), b.words.key)))
    left_out = len(every) - len(asked)
    return Buying(found=ordered, done=done, of=len(asked), left_out=left_out)


def _gained(bought: Bought, wanted: str) -> Said:
    return Said(
        "{wanted}: {exercise}, {share}",
        wanted=Name(wanted),
        exercise=Term(bought.exercise, lower=True),
        share=Share(bought.match),
    )


def _bought(question: Question, memo: Memo) -> tuple[Bought, ...]:
    """Return what each purchase would do for a question, kept in the memo."""
    kit, taken = question.kit.signature(), question.taken
    memos: dict[str, Memo] = memo.once(("with a purchase", kit, taken), dict)
    key = (
        "bought",
        kit,
        taken,
        question.target.key,
        question.body,
        question.limits,
        repr(question.rules),  # holds a mapping
    )
    return memo.once(key, lambda: purchases_for(question, memos))


def _asked(
    con: store.Connection, trainer_id: int, ask: SwapAsk, now: str
) -> Sequence[tuple[SwapAsk, int, str]]:
    """Return what counts, how often and in words: the plan; without one, what is asked and what was
    kept of late.
    """
    lines = week_plan(con, trainer_id, ask.place_id, now=now).lines
    wanted = [(line.ask, line.times, f"{line.client}, {_short(line.ask)}") for line in lines]
    wanted += _of_slots(con, trainer_id, ask, now)
    if wanted:
        return wanted
    return [(one, 1, _short(one)) for one in (ask, *_kept_of_late(con, trainer_id, ask, now))]


def _of_slots(
    con: store.Connection, trainer_id: int, ask: SwapAsk, now: str
) -> list[tuple[SwapAsk, int, str]]:
    """Return the lifts that are planned at the place in this week, each asked of Swap."""
    names = {c.id: c.name for c in store.clients(con, trainer_id)}
    found = []
    for week, slot in planned_here(con, trainer_id, ask.place_id, now=now):
        assert week.client_id is not None and slot.scenario is not None
        setup, _ = parse_scenario(json.loads(slot.scenario))
        one = replace(
            ask,
            exercise=slot.exercise,
            client_id=week.client_id,
            kg=weight_of(setup) or 0.0,
            intent=None,
        )
        found.append((one, 1, f"{names[week.client_id]}, {_short(one)}"))
    return found


def _short(ask: SwapAsk) -> str:
    return (
        tr(EXERCISES[ask.exercise].name).lower()
        if ask.intent is None
        else say(intent_words(ask.intent))
    )


def _kept_of_late(
    con: store.Connection, trainer_id: int, ask: SwapAsk, now: str
) -> Sequence[SwapAsk]:
    """Return what was kept here in the last seven days, each wanted exercise, load and client
    once.
    """
    since = datetime.fromisoformat(now) - timedelta(days=WEEK_DAYS)
    seen, found = {(ask.exercise, ask.kg, ask.client_id)}, []
    for row in store.decisions(con, trainer_id):
        key = (row.wanted_exercise, row.wanted_kg, row.client_id)
        recent = datetime.fromisoformat(row.decided_at) >= since
        if (
            recent
            and row.place_id == ask.place_id
            and row.wanted_exercise in EXERCISES
            and key not in seen
        ):
            seen.add(key)
            changed = replace(
                ask,
                exercise=row.wanted_exercise,
                kg=row.wanted_kg,
                client_id=row.client_id,
                intent=None,
            )
            found.append(changed)
    return found
