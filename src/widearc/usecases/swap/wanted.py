"""The exercise that is asked for as a set-up, with its load here or on a machine elsewhere."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from widearc import store
from widearc.core.curve import Action
from widearc.core.equipment import FreeMass, Load, Sled, Stack
from widearc.core.errors import InputError, UnreadError
from widearc.core.exercises import EXERCISES, Exercise, exercise_of
from widearc.core.intent import Intent, Shape
from widearc.core.kit import MACHINES, STOCKS, Machine, SledPress
from widearc.core.movement import Setup
from widearc.core.setups.geometry import narrower_stance_m
from widearc.usecases.holdings import Holdings
from widearc.usecases.room.kit import press_of
from widearc.usecases.room.room import RoomView

HEAVIEST_KG = 500.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SwapAsk:
    """What the trainer asks: exercise, load kg, deepest knee bend in degrees, sets × reps, client,
    place.

    show_all: also what a packed place hides. sore_last: what asks more of a sore joint comes last.
    shape: how the demand is wanted over the range. intent: what is wanted by itself; then exercise,
    load and depth are not asked.
    """

    place_id: int
    client_id: int
    exercise: str = "leg-press-45"
    kg: float = 120.0
    depth_deg: float = 95.0
    sets: int = 3
    reps: int = 10
    show_all: bool = False
    sore_last: bool = True
    shape: Shape = Shape.ORIGINAL
    intent: Intent | None = None

    def __post_init__(self) -> None:
        """Check what was typed; InputError names the field."""
        if exercise_of(self.exercise, "exercise") not in wantable():
            raise InputError("exercise", self.exercise, "an exercise with a load in kg")
        for name, low, high, unit in (
            ("kg", 0, HEAVIEST_KG, "kg"),
            ("depth_deg", *depths_of(EXERCISES[self.exercise]), "degrees of knee bend"),
            ("sets", 1, 20, "sets"),
            ("reps", 1, 100, "reps"),
        ):
            value = getattr(self, name)
            if not low <= value <= high:
                raise InputError(name, value, f"from {low:g} to {high:g} {unit}")


def wantable() -> tuple[Exercise, ...]:
    """Return the exercises that can be asked for with a load in kg (bands have no single
    number).
    """
    return tuple(
        e
        for e in EXERCISES.values()
        if _mass_port(e) is not None or () in e.ways or _on_machine(e, "stack", "hack")
    )


def _mass_port(item: Exercise) -> str | None:
    return next(
        (
            way.port
            for ways in item.ways
            if len(ways) == 1
            for way in ways
            if STOCKS[way.stock].loose
        ),
        None,
    )


def _on_machine(item: Exercise, *held: str) -> bool:
    return any(way.stock in held for ways in item.ways for way in ways)


def asks_depth(item: Exercise) -> bool:
    """Return whether "down to so much knee bend" means something for an exercise: it extends the
    knee, and no box sets how far.
    """
    return Action.KE in item.prime and not {"knee_from_deg", "lean_from_deg"}.isdisjoint(
        item.options
    )


SHALLOWEST_DEG, DEEPEST_DEG = 30.0, 140.0
UPRIGHT_DEG = 90.0  # of knee bend, kneeling upright: beyond, the trunk leans back by the rest
LEANS_DEG = (5.0, 50.0)


def depths_of(item: Exercise) -> tuple[float, float]:
    """Return how far an exercise can be asked to bend the knee, degrees; any where it is not asked
    that.
    """
    if not asks_depth(item):
        return SHALLOWEST_DEG, DEEPEST_DEG
    if "knee_from_deg" in item.options:
        return SHALLOWEST_DEG, min(DEEPEST_DEG, item.options["knee_from_deg"].high)
    return UPRIGHT_DEG + LEANS_DEG[0], UPRIGHT_DEG + LEANS_DEG[1]


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
            options["knee_from_deg"] = ask.depth_deg
        else:
            options["lean_from_deg"] = ask.depth_deg - UPRIGHT_DEG
    feet = narrower_stance_m(item, client.body)
    if feet is not None:
        options["stance_m"] = feet
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
    raise UnreadError(
        "exercise", item.id, f"a {what} that was read at the Bench, here or at another place"
    )


def _machines_everywhere(seen: RoomView, held: Holdings) -> tuple[Machine, ...]:
    """Return the machines of this place, then those of the trainer's other places: that is what the
    client knows.
    """
    elsewhere = [place.id for place in seen.places if place.id != seen.place.id]
    return tuple(m for id_ in (seen.place.id, *elsewhere) for m in held.at(id_).kit.machines)


def _press_elsewhere(seen: RoomView, held: Holdings) -> SledPress | None:
    """Return the first sled press of the trainer's other places: that is the one the client
    knows.
    """
    for other in seen.places:
        items = [i for i in held.at(other.id).items if i.kind == "sled press"]
        if items:
            return press_of(items[0])
    return None


def wanted_key(ask: SwapAsk) -> str:
    """Return under what favourites are kept: the wanted exercise, or the actions of an intent."""
    if ask.intent is None:
        return ask.exercise
    return "intent " + " ".join(part.action.label for part in ask.intent.parts)
