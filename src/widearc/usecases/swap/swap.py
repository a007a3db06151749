"""What to do instead: the wanted exercise against what is free, and keeping the decision."""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from widearc import store
from widearc.core.answers import applied, notes_for
from widearc.core.curve import CENTRES_DEG
from widearc.core.errors import InputError, PostureError, WideArcError
from widearc.core.exercises import EXERCISES
from widearc.core.search import (
    Candidate,
    Groups,
    Memo,
    Question,
    Ranking,
    grouped,
    is_first,
    ranked,
    sore_of,
)
from widearc.core.statics import Curve, curve
from widearc.core.words import UNSAID, Name, Said, Words, joined
from widearc.formats import scenario_document, style_part
from widearc.usecases.client.strength import shown_effort
from widearc.usecases.holdings import Holdings
from widearc.usecases.intent.intents import intent_words
from widearc.usecases.room.kit import rules_of, uncertainty_of_client
from widearc.usecases.room.room import RoomView, room_view, scope
from widearc.usecases.swap.wanted import (
    Stocked,
    SwapAsk,
    WantedSetup,
    asks_depth,
    by_kg,
    kits_for,
    wanted_key,
    wanted_setup,
)
from widearc.words import kept, plain


@dataclass(frozen=True, slots=True, kw_only=True)
class Still:
    """An option nearest to what was asked with which the wanted exercise can be had: degrees,
    metres.
    """

    option: str
    value: float


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SwapView:
    """The answer with everything the page shows beside it.

    problem: why the wanted exercise cannot be computed, in words; then ranking and wanted are None.
    question: what was asked of the core. favourites: stand-ins the trainer prefers for this
    exercise. aside: the client for whom an item is set aside, by item id. set_up: the wanted
    exercise as a set-up (None: an intent). still: the nearest that can be had where what is asked
    cannot.
    """

    ask: SwapAsk
    room: RoomView
    clients: tuple[store.ClientRow, ...]
    client: store.ClientRow
    set_up: WantedSetup | None
    wanted: Curve | None
    ranking: Ranking | None
    unread_bands: tuple[str, ...]
    problem: Said = UNSAID
    question: Question | None = None
    favourites: Mapping[str, store.Favourite] = field(default_factory=dict)
    aside: Mapping[int, int] = field(default_factory=dict)
    held: Holdings | None = None
    still: Still | None = None
    _groups: list[Groups] = field(default_factory=list)


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
    used = store.in_use(con, trainer_id, ask.place_id, ask.client_id)
    others = {
        item.key: Said("in use: {name}", name=Name(used[item.id], lower=True))
        for item in seen.items
        if item.id in used
    } | {
        item.key: Said("set aside for the {name}", name=Name(seen.aside[item.id], lower=True))
        for item in seen.items
        if seen.set_aside.get(item.id, ask.client_id) != ask.client_id
    }
    taken = stock.taken | others.keys()
    names: dict[str, str | Said] = {**others, **stock.words}
    wanted, ranking, question, problem = None, None, None, UNSAID
    still: Still | None = None
    kits = () if ask.intent is not None else kits_for(seen, held)
    set_up = None if ask.intent is not None else wanted_setup(ask, who, kits)
    try:
        wanted = None if set_up is None else curve(set_up.setup, lowering=False)
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
            by_dose=ask.by_dose,
            shown_effort=shown_effort(held.strength_sets(who.id)),
        )
        ranking = ranked(question)
    except (PostureError, ValueError) as error:
        if isinstance(error, InputError):
            raise
        problem = error.reason if isinstance(error, PostureError) else _why(error)
        if isinstance(error, PostureError) and set_up is not None:
            still = _nearest(ask, set_up, who, kits)
    return SwapView(
        ask=ask,
        room=seen,
        clients=seen.clients,
        client=who,
        set_up=set_up,
        wanted=wanted,
        ranking=ranking,
        unread_bands=stock.unread,
        problem=problem,
        question=question,
        favourites=store.favourites(con, trainer_id, wanted_key(ask)),
        aside=seen.set_aside,
        held=held,
        still=still,
    )


DEPTH_STEP_DEG, LEAST_DEPTH_DEG = 5.0, 40.0
STEPS_BACK = 10


def _nearest(
    ask: SwapAsk, set_up: WantedSetup, who: store.ClientRow, kits: Sequence[Stocked]
) -> Still | None:
    """Return the nearest at which the wanted exercise can be had: an option that was typed, on its
    way to the usual value; else the deepest bend under the asked one, to 5 degrees.
    """
    for still in _on_the_way(ask, set_up, who):
        options = {**ask.set_up.options, still.option: still.value}
        if _can_be(replace(ask, set_up=replace(ask.set_up, options=options)), who, kits):
            return still
    if not asks_depth(EXERCISES[ask.exercise]):
        return None
    deg = DEPTH_STEP_DEG * ((ask.depth_deg - 0.1) // DEPTH_STEP_DEG)
    while deg >= LEAST_DEPTH_DEG:
        if _can_be(replace(ask, depth_deg=deg), who, kits):
            return Still(option="", value=deg)
        deg -= DEPTH_STEP_DEG
    return None


def _on_the_way(ask: SwapAsk, set_up: WantedSetup, who: store.ClientRow) -> Iterator[Still]:
    """Yield values of each typed option between it and the usual one, the nearest first."""
    specs = set_up.setup.exercise.options
    for name, asked in ask.set_up.options.items():
        usual = set_up.usual.options.get(name, specs[name].usual(who.body.stature_m))
        if isinstance(asked, str) or isinstance(usual, str):
            continue
        digits = 0 if specs[name].unit == "deg" else 2
        for step in range(1, STEPS_BACK + 1):
            value = asked + (float(usual) - asked) * step / STEPS_BACK
            yield Still(option=name, value=round(value, digits))


def _can_be(ask: SwapAsk, who: store.ClientRow, kits: Sequence[Stocked]) -> bool:
    try:
        curve(wanted_setup(ask, who, kits).setup, lowering=False)
    except (PostureError, InputError):
        return False
    return True


def groups_of(view: SwapView) -> Groups:
    """Return the stand-ins in groups of those that are alike as far as can be known."""
    if view.ranking is None or view.question is None:
        return ()
    if not view._groups:  # a page asks for them more than once
        view._groups.append(grouped(view.ranking.candidates, view.question))
    return view._groups[0]


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


def first_of(view: SwapView) -> frozenset[str]:
    """Return the ids of stand-ins that are the wanted lift itself with another load, offered
    first.
    """
    if view.ranking is None or view.question is None:
        return frozenset()
    question = view.question
    return frozenset(c.exercise.id for c in view.ranking.candidates if is_first(c, question))


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


def client_notes(view: SwapView, chosen: Candidate) -> tuple[Words, ...]:
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
    ticks: Sequence[str] = (),
    asked: str = "",
) -> int:
    """Keep the decision to do `chosen` instead (with a tweak), with its numbers as computed now and
    what was ticked off before the first rep; return its id. asked: the address of what is wanted.

    Raises InputError when that exercise is not among the candidates any more (an item was just
    taken).
    """
    view = swap_view(con, trainer_id, ask, memo)
    found = candidate_of(view, chosen, tweak)
    if found is None or found.exercise.id != chosen:
        raise InputError(
            "exercise", chosen, Said("one of the stand-ins listed now; the room changed since")
        )
    row = store.DecisionRow(
        place_id=ask.place_id,
        client_id=ask.client_id,
        decided_at=now,
        wanted_exercise=ask.exercise if ask.intent is None else plain(intent_words(ask.intent)),
        wanted_kg=ask.kg if ask.intent is None and by_kg(ask) else 0.0,
        sets=ask.sets,
        reps=ask.reps,
        exercise=chosen,
        set_up=plain(set_up_words(found)),
        sentence=plain(found.sentence),
        set_up_said=kept(set_up_words(found)),
        sentence_said=kept(found.sentence),
        scenario=json.dumps(_done_as(found), separators=(",", ":")),
        asked=asked[:LONGEST_ASKED],
        uses=json.dumps(items_of(view, found)),
        match=found.match,
        shape=found.shape,
        reach=found.reach,
        level=found.level,
        pieces=found.pieces,
        ticks=tuple(dict.fromkeys(t[:LONGEST_TICK] for t in ticks))[:MOST_TICKS],
        options={n: float(v) for n, v in found.row.options.items() if not isinstance(v, str)},
        strip=_strip(view, found),
    )
    words = Said(
        "{name} kept for {name_2}", name=Name(found.exercise.name), name_2=Name(view.client.name)
    )
    with store.recorded(
        con, trainer_id, scope=scope(ask.place_id), kind="decision", words=words, now=now
    ):
        return store.add_decision(con, trainer_id, row)


def _why(error: ValueError) -> Said:
    """Return why a wanted loading cannot be compared."""
    return error.said if isinstance(error, WideArcError) else Said("{why}", why=Name(str(error)))


def items_of(view: SwapView, found: Candidate) -> tuple[int, ...]:
    """Return the ids of everything at the place that a stand-in uses."""
    used = {*found.row.items(), *(piece.item for piece in found.pieces)}
    return tuple(i.id for i in view.room.items if i.key in used)


def set_up_words(found: Candidate) -> Words:
    """Return how a stand-in is set up and done, in words."""
    return joined(found.row.words, _style_words(found))


def _done_as(found: Candidate) -> dict[str, object]:
    """Return the scenario of a stand-in, with the style of its reps where that is not plain."""
    document = scenario_document(found.curve.setup)
    plain_one = found.style.kind.value == "plain"
    return document if plain_one else {**document, "style": style_part(found.style)}


def _style_words(found: Candidate) -> Said:
    return UNSAID if found.style.kind.value == "plain" else found.style.sentence


LONGEST_TICK, MOST_TICKS, LONGEST_ASKED = 200, 30, 4000
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
