"""What to do instead: the wanted exercise against what is free, and keeping the decision."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from widearc import store
from widearc.core.answers import applied, notes_for, ready_for_tweaks, tweaks
from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.equipment import FreeMass, Load, Sled, Stack
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES, Exercise, exercise
from widearc.core.intent import Intent, Shape
from widearc.core.kit import MACHINES, Kit, Machine, SledPress, presses_for
from widearc.core.movement import Setup
from widearc.core.search import Candidate, Memo, Question, Ranking, make_sure, ranked
from widearc.core.statics import Curve, curve
from widearc.formats import parse_swap_request, swap_document
from widearc.usecases.intents import intent_words
from widearc.usecases.kit import doubt_of_client, kit_of, press_of, rules_of
from widearc.usecases.room import RoomView, room, scope
from widearc.usecases.strength import equal_reps_scaled

HEAVIEST_KG = 500.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SwapAsk:
    """What the trainer asks: exercise, load kg, deepest knee bend in degrees, sets × reps, client,
    place.

    show_all: also what a packed place hides. shape: how the demand is wanted over the range.
    intent: what is wanted by itself; then exercise, load and depth are not asked.
    """

    place_id: int
    client_id: int
    exercise: str = "leg-press-45"
    kg: float = 120.0
    depth_deg: float = 95.0
    sets: int = 3
    reps: int = 10
    show_all: bool = False
    shape: Shape = Shape.ORIGINAL
    intent: Intent | None = None

    def __post_init__(self) -> None:
        """Check what was typed; InputError names the field."""
        if exercise(self.exercise, "exercise") not in wantable():
            raise InputError("exercise", self.exercise, "an exercise with a load in kg")
        for name, low, high, unit in (
            ("kg", 0, HEAVIEST_KG, "kg"),
            ("depth_deg", 30, 140, "degrees of knee bend"),
            ("sets", 1, 20, "sets"),
            ("reps", 1, 100, "reps"),
        ):
            value = getattr(self, name)
            if not low <= value <= high:
                raise InputError(name, value, f"from {low:g} to {high:g} {unit}")


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
    still_deg: float | None = None


def wantable() -> tuple[Exercise, ...]:
    """Return the exercises that can be asked for with a load in kg (bands have no single
    number).
    """
    return tuple(
        e
        for e in EXERCISES.values()
        if _mass_port(e) is not None or () in e.ways or _on_machine(e, "stack", "hack")
    )


LOOSE = ("bar", "dumbbell", "dumbbells", "one hand", "plate", "sled")


def _mass_port(item: Exercise) -> str | None:
    return next(
        (way.port for ways in item.ways if len(ways) == 1 for way in ways if way.stock in LOOSE),
        None,
    )


def _on_machine(item: Exercise, *stocks: str) -> bool:
    return any(way.stock in stocks for ways in item.ways for way in ways)


def asks_depth(item: Exercise) -> bool:
    """Return whether "down to so much knee bend" means something for an exercise: it extends the
    knee.
    """
    return Action.KE in item.prime


def wanted_setup(
    ask: SwapAsk,
    client: store.ClientRow,
    press: SledPress | None,
    machines: tuple[Machine, ...] = (),
) -> Setup:
    """Return the wanted exercise as a set-up for a client, on the place's own press or machine
    where it is one.

    Raises InputError for an exercise on a machine that is nowhere read or described.
    """
    item = EXERCISES[ask.exercise]
    options: dict[str, Any] = {}
    if asks_depth(item):
        if "knee_from_deg" in item.options:
            options["knee_from_deg"] = min(ask.depth_deg, item.options["knee_from_deg"].high)
        else:
            options["lean_from_deg"] = min(max(ask.depth_deg - 90.0, 5.0), 50.0)
    loads: tuple[Load, ...] = ()
    if _on_machine(item, "hack") and (rails := _rails(item, machines)) is not None:
        options["rail_deg"] = rails
    if _on_machine(item, "sled"):
        empty = press.empty_kg if press else 0.0
        if press:
            options |= {
                name: value
                for name, value in (
                    ("rail_deg", press.rail_deg),
                    ("backrest_deg", press.backrest_deg),
                    ("plate_tilt_deg", press.plate_tilt_deg),
                )
                if name in item.options
            }
        friction = press.friction if press else 0.0
        loads = (Sled(kg=ask.kg, empty_kg=empty, friction=friction),)
    elif _on_machine(item, "stack", "hack"):
        loads = (_machine_load(item, ask.kg, machines),)
    elif ask.kg > 0 and (port := _mass_port(item)) is not None:
        loads = (FreeMass(kg=ask.kg, port=port),)
    if item.id == "leg-extension-dumbbell":
        options["seat_m"] = 0.60  # high enough to hang free; it changes no demand
    return Setup(
        exercise=item, body=client.body, limits=client.limits, options=options, loads=loads
    )


def _rails(item: Exercise, machines: tuple[Machine, ...]) -> float | None:
    """Return the angle of the rails of the machine that an exercise is done on, degrees; None where
    none says it.
    """
    kinds = [MACHINES[need] for need in item.needs if need in MACHINES]
    return next((m.quantities.get("rail_deg") for m in machines if m.kind in kinds), None)


def _machine_load(item: Exercise, kg: float, machines: tuple[Machine, ...]) -> Load:
    kinds = [MACHINES[need] for need in item.needs if need in MACHINES]
    for machine in machines:
        if machine.kind in kinds and machine.kind == "hack squat":
            q = machine.quantities
            return Sled(kg=kg, empty_kg=q.get("empty_kg", 0.0), friction=q.get("friction", 0.0))
        if machine.kind in kinds and machine.dials:
            angles, radii = machine.dials[0][1]
            ratio = machine.quantities.get("ratio", 1.0)
            return Stack(kg=kg, angle_deg=angles, radius_m=radii, ratio=ratio)
    what = " or ".join(kinds)
    raise InputError(
        "exercise", item.id, f"a {what} that was read at the Bench, here or at another place"
    )


def _machines_everywhere(
    con: store.Connection, trainer_id: int, seen: RoomView, kit: Kit
) -> tuple[Machine, ...]:
    """Return the machines of this place, then those of the trainer's other places: that is what the
    client knows.
    """
    found = list(kit.machines)
    for other in seen.places:
        if other.id != seen.place.id:
            found += kit_of(con, trainer_id, store.items(con, trainer_id, other.id), other.id)[
                0
            ].machines
    return tuple(found)


def _press_elsewhere(con: store.Connection, trainer_id: int, seen: RoomView) -> SledPress | None:
    """Return the first sled press of the trainer's other places: that is the one the client
    knows.
    """
    for other in seen.places:
        items = [i for i in store.items(con, trainer_id, other.id) if i.kind == "sled press"]
        if items:
            return press_of(items[0])
    return None


def swap_view(con: store.Connection, trainer_id: int, ask: SwapAsk, memo: Memo) -> SwapView:
    """Return the ranked stand-ins for what is asked, in what is free at the place."""
    who = store.client(con, trainer_id, ask.client_id)
    seen = room(con, trainer_id, ask.place_id, who)
    kit, taken, names, unread = kit_of(con, trainer_id, seen.items, ask.place_id)
    aside = store.set_asides(con, trainer_id, ask.place_id)
    clients = {c.id: c for c in store.clients(con, trainer_id)}
    others = {
        item.key: f"set aside for the {clients[aside[item.id]].name.lower()}"
        for item in seen.items
        if item.id in aside and aside[item.id] != ask.client_id and aside[item.id] in clients
    }
    taken, names = taken | others.keys(), {**others, **names}
    suited = presses_for(EXERCISES[ask.exercise], kit)
    press = suited[0] if suited else _press_elsewhere(con, trainer_id, seen)
    wanted, ranking, question, problem = None, None, None, ""
    still: float | None = None
    machines: tuple[Machine, ...] = ()
    try:
        if ask.intent is None and _on_machine(EXERCISES[ask.exercise], "stack", "hack"):
            machines = _machines_everywhere(con, trainer_id, seen, kit)
        wanted = (
            None
            if ask.intent is not None
            else curve(wanted_setup(ask, who, press, machines), lowering=False)
        )
        asked = wanted if wanted is not None else ask.intent
        assert asked is not None
        rules = rules_of(seen.place, who, show_all=ask.show_all)
        question = Question(
            asked=asked,
            kit=kit,
            body=who.body,
            limits=who.limits,
            rules=rules,
            taken=frozenset(taken),
            names=names,
            memo=memo,
            body_doubt=doubt_of_client(who),
            shape=ask.shape,
        )
        ranking = ranked(question)
    except (PostureError, ValueError) as error:
        if isinstance(error, InputError) and "at the Bench" not in error.allowed:
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
        clients=store.clients(con, trainer_id),
        client=who,
        press=press,
        wanted=wanted,
        ranking=ranking,
        unread_bands=unread,
        problem=problem,
        question=question,
        favourites=store.favourites(con, trainer_id, wanted_key(ask)),
        aside=aside,
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


def wanted_key(ask: SwapAsk) -> str:
    """Return under what favourites are kept: the wanted exercise, or the actions of an intent."""
    if ask.intent is None:
        return ask.exercise
    return "intent " + " ".join(part.action.label for part in ask.intent.parts)


def candidate_of(view: SwapView, exercise_id: str | None, tweak: str = "") -> Candidate | None:
    """Return the chosen candidate, the best where none is named or it is gone; with a tweak, if it
    has it.

    A stand-in that the trainer asked about is given even where it is not ranked.
    """
    if view.ranking is None or not view.ranking.candidates:
        return None
    found = next(
        (c for c in view.ranking.candidates if c.exercise.id == exercise_id),
        view.ranking.candidates[0],
    )
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
        set_up=", ".join(w for w in (found.row.place, _style_words(found)) if w),
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
    main = int(np.argmax([b.sum() for b in target.bins]))
    long_end, short_end = target.range_deg(main)
    inward = 1.0 if short_end > long_end else -1.0  # the outer degrees may be covered in part
    angle = np.linspace(long_end + inward, short_end - inward, STRIP_POINTS)
    both = (
        np.interp(angle, CENTRES_DEG, bins)
        for bins in (target.bins[main], found.comparison.bins[main][0])
    )
    return tuple((round(float(t), 2), round(float(c), 2)) for t, c in zip(*both, strict=True))


def answer_request(document: Any, *, clock: Callable[[], float]) -> dict[str, Any]:
    """Return the wide-arc/swap document for a wide-arc/swap-request; `clock` gives seconds for
    elapsed_ms.
    """
    request = parse_swap_request(document)
    start = clock()
    asked = (
        request.wanted
        if isinstance(request.wanted, Intent)
        else curve(request.wanted, lowering=False)
    )
    question = Question(
        asked=asked,
        kit=request.kit,
        body=request.body,
        limits=request.limits,
        rules=request.rules,
        taken=request.taken,
        style=request.style,
        tempo=request.tempo,
    )
    ranking = ranked(question, limit=request.limit)
    elapsed = clock() - start
    make_sure(ranking.candidates)
    ready_for_tweaks(ranking.candidates, question)
    closer = {c.exercise.id: tweaks(c, question) for c in ranking.candidates}
    reps: dict[str, int | None] = {}
    if not isinstance(asked, Intent):
        reps = {
            c.exercise.id: equal_reps_scaled(asked, c.curve, request.strength_scale, request.reps)
            for c in ranking.candidates
        }
    return swap_document(ranking, 1000.0 * elapsed, closer, reps)
