"""What to do instead: the wanted exercise against what is free, and keeping the decision."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np

from widearc import store
from widearc.core.answers import applied, notes_for
from widearc.core.curve import CENTRES_DEG
from widearc.core.errors import InputError, PostureError, UnreadError
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Machine, SledPress, presses_for
from widearc.core.search import (
    Candidate,
    Groups,
    Memo,
    Question,
    Ranking,
    grouped,
    ranked,
    sore_of,
)
from widearc.core.statics import Curve, curve
from widearc.usecases.client.strength import shown_effort
from widearc.usecases.holdings import Holdings
from widearc.usecases.intent.intents import intent_words
from widearc.usecases.room.kit import rules_of, uncertainty_of_client
from widearc.usecases.room.room import RoomView, room_view, scope
from widearc.usecases.swap.wanted import (
    SwapAsk,
    _machines_everywhere,
    _on_machine,
    _press_elsewhere,
    asks_depth,
    wanted_key,
    wanted_setup,
)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SwapView:
    """The answer with everything the page shows beside it.

    problem: why the wanted exercise cannot be computed, in words; then ranking and wanted are None.
    question: what was asked of the core. favourites: stand-ins the trainer prefers for this
    exercise. aside: the client for whom an item is set aside, by item id. still_deg: the deepest
    knee bend (degrees) at which it can be had, where the asked one is too deep.
    """

    ask: SwapAsk
    room: RoomView
    clients: tuple[store.ClientRow, ...]
    client: store.ClientRow
    press: SledPress | None
    wanted: Curve | None
    ranking: Ranking | None
    unread_bands: tuple[str, ...]
    problem: str = ""
    question: Question | None = None
    favourites: Mapping[str, store.Favourite] = field(default_factory=dict)
    aside: Mapping[int, int] = field(default_factory=dict)
    held: Holdings | None = None
    still_deg: float | None = None


def swap_view(
    con: store.Connection,
    trainer_id: int,
    ask: SwapAsk,
    memo: Memo,
    held: Holdings | None = None,
) -> SwapView:
    """Return the ranked stand-ins for what is asked, in what is free at the place. held: what has
    been read already.
    """
    held = held or Holdings(con, trainer_id)
    who = held.client(ask.client_id)
    seen = room_view(con, trainer_id, ask.place_id, who, held)
    stock = held.at(ask.place_id)
    kit = stock.kit
    others = {
        item.key: f"set aside for the {seen.aside[item.id].lower()}"
        for item in seen.items
        if seen.set_aside.get(item.id, ask.client_id) != ask.client_id
    }
    taken, names = stock.taken | others.keys(), {**others, **stock.words}
    suited = presses_for(EXERCISES[ask.exercise], kit)
    press = suited[0] if suited else _press_elsewhere(seen, held)
    wanted, ranking, question, problem = None, None, None, ""
    still: float | None = None
    machines: tuple[Machine, ...] = ()
    try:
        if ask.intent is None and _on_machine(EXERCISES[ask.exercise], "stack", "hack"):
            machines = _machines_everywhere(seen, held)
        wanted = (
            None
            if ask.intent is not None
            else curve(wanted_setup(ask, who, press, machines), lowering=False)
        )
        asked = wanted if wanted is not None else ask.intent
        assert asked is not None
        rules = replace(rules_of(seen.place, who, show_all=ask.show_all), sore_last=ask.sore_last)
        question = Question(
            asked=asked,
            kit=kit,
            body=who.body,
            limits=who.limits,
            rules=rules,
            taken=frozenset(taken),
            names=names,
            memo=memo,
            body_uncertainty=uncertainty_of_client(who),
            shape=ask.shape,
            shown_effort=shown_effort(held.strength_sets(who.id)),
        )
        ranking = ranked(question)
    except (PostureError, ValueError) as error:
        if isinstance(error, InputError) and not isinstance(error, UnreadError):
            raise
        problem = (
            error.allowed
            if isinstance(error, InputError)
            else error.reason
            if isinstance(error, PostureError)
            else str(error)
        )
        if isinstance(error, PostureError) and asks_depth(EXERCISES[ask.exercise]):
            still = _deepest(ask, who, press, machines)
    return SwapView(
        ask=ask,
        room=seen,
        clients=seen.clients,
        client=who,
        press=press,
        wanted=wanted,
        ranking=ranking,
        unread_bands=stock.unread,
        problem=problem,
        question=question,
        favourites=store.favourites(con, trainer_id, wanted_key(ask)),
        aside=seen.set_aside,
        held=held,
        still_deg=still,
    )


DEPTH_STEP_DEG, LEAST_DEPTH_DEG = 5.0, 40.0


def _deepest(
    ask: SwapAsk, who: store.ClientRow, press: SledPress | None, machines: tuple[Machine, ...]
) -> float | None:
    """Return the deepest knee bend under the asked one at which the wanted exercise can be had, to
    5 degrees.
    """
    deg = DEPTH_STEP_DEG * ((ask.depth_deg - 0.1) // DEPTH_STEP_DEG)
    while deg >= LEAST_DEPTH_DEG:
        try:
            curve(wanted_setup(replace(ask, depth_deg=deg), who, press, machines), lowering=False)
        except PostureError:
            deg -= DEPTH_STEP_DEG
        else:
            return deg
    return None


def groups_of(view: SwapView) -> Groups:
    """Return the stand-ins in groups of those that are alike as far as can be known."""
    if view.ranking is None or view.question is None:
        return ()
    return grouped(view.ranking.candidates, view.question)


def harder_of(view: SwapView) -> dict[str, tuple[str, ...]]:
    """Return by exercise id the client's sore joints of which a stand-in asks more than the wanted
    lift; without those that ask more of none.
    """
    if view.ranking is None or view.question is None or not view.question.rules.sore:
        return {}
    question = view.question
    sore = sore_of(question.rules, question.asked, question.target)
    found = {c.exercise.id: sore.harder(c.curve) for c in view.ranking.candidates}
    return {id_: joints for id_, joints in found.items() if joints}


def candidate_of(view: SwapView, exercise_id: str | None, tweak: str = "") -> Candidate | None:
    """Return the chosen candidate, the best where none is named or it is gone; with a tweak, if it
    has it.

    A stand-in that the trainer asked about is given even where it is not ranked.
    """
    if view.ranking is None or not view.ranking.candidates:
        return None
    named = (c for c in view.ranking.candidates if c.exercise.id == exercise_id)
    found = next(named, None) or groups_of(view)[0][0]
    if tweak and view.question is not None and found.exercise.id == exercise_id:
        return applied(found, view.question, tweak) or found
    return found


def client_notes(view: SwapView, chosen: Candidate) -> tuple[str, ...]:
    """Return what the chosen stand-in means for the client, in sentences."""
    return notes_for(chosen.curve, view.wanted, rules_of(view.room.place, view.client))


def decide(
    con: store.Connection,
    trainer_id: int,
    ask: SwapAsk,
    chosen: str,
    memo: Memo,
    *,
    now: str,
    tweak: str = "",
) -> int:
    """Keep the decision to do `chosen` instead (with a tweak), with its numbers as computed now;
    return its id.

    Raises InputError when that exercise is not among the candidates any more (an item was just
    taken).
    """
    view = swap_view(con, trainer_id, ask, memo)
    found = candidate_of(view, chosen, tweak)
    if found is None or found.exercise.id != chosen:
        raise InputError(
            "exercise", chosen, "one of the stand-ins listed now; the room changed since"
        )
    row = store.DecisionRow(
        place_id=ask.place_id,
        client_id=ask.client_id,
        decided_at=now,
        wanted_exercise=ask.exercise if ask.intent is None else intent_words(ask.intent),
        wanted_kg=ask.kg if ask.intent is None else 0.0,
        sets=ask.sets,
        reps=ask.reps,
        exercise=chosen,
        set_up=", ".join(w for w in (found.row.words, _style_words(found)) if w),
        sentence=found.sentence,
        match=found.match,
        shape=found.shape,
        reach=found.reach,
        level=found.level,
        pieces=found.pieces,
        options={n: float(v) for n, v in found.row.options.items() if not isinstance(v, str)},
        strip=_strip(view, found),
    )
    words = f"{found.exercise.name} kept for {view.client.name}"
    with store.recorded(
        con, trainer_id, scope=scope(ask.place_id), kind="decision", words=words, now=now
    ):
        return store.add_decision(con, trainer_id, row)


def _style_words(found: Candidate) -> str:
    return "" if found.style.kind.value == "plain" else found.style.sentence


STRIP_POINTS = 33


def _strip(view: SwapView, found: Candidate) -> tuple[tuple[float, float], ...]:
    """Return intended and actual demand on the main joint, N·m, in even steps over the wanted
    range.
    """
    assert view.ranking is not None
    target = view.ranking.target.at_level_of(found.comparison)
    main = target.main
    long_end, short_end = target.range_deg(main)
    inward = 1.0 if short_end > long_end else -1.0  # the outer degrees may be covered in part
    angle = np.linspace(long_end + inward, short_end - inward, STRIP_POINTS)
    both = (
        np.interp(angle, CENTRES_DEG, bins)
        for bins in (target.bins[main], found.comparison.bins[main][0])
    )
    return tuple((round(float(t), 2), round(float(c), 2)) for t, c in zip(*both, strict=True))
