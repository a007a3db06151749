"""The exercise that is asked for as a set-up, with its load here or on a machine elsewhere."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Any

import numpy as np

from widearc import store
from widearc.core.curve import Action
from widearc.core.equipment import FreeMass, Load, Sled, Stack
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES, Exercise, exercise_of
from widearc.core.intent import Intent, Shape
from widearc.core.kit import MACHINES, STOCKS, BandStock, Kit, Machine, presses_for
from widearc.core.movement import Setup
from widearc.core.setups import ELASTIC, Batch, LoadedSetup, Range, batches_of
from widearc.core.setups.geometry import narrower_stance_m
from widearc.core.statics import curve
from widearc.core.words import Figure, Name, Said, Term
from widearc.formats import parse_load
from widearc.usecases.holdings import Holdings
from widearc.usecases.room.room import RoomView
from widearc.usecases.swap.usual import USUAL_KIT

HEAVIEST_KG = 500.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SetUp:
    """What of a set-up is asked for otherwise than it usually is.

    options: as in a scenario; loads: documents of a scenario's loads in place of the usual one
    (None: the usual). typed: as the form has it, to be shown again.
    """

    options: Mapping[str, float | str] = field(default_factory=dict)
    loads: tuple[Mapping[str, Any], ...] | None = None
    typed: Mapping[str, str] = field(default_factory=dict)

    def __hash__(self) -> int:
        """Return a number that is equal for what is typed alike."""
        return hash(tuple(sorted(self.typed.items())))


AS_USUAL = SetUp()


def set_up_text(set_up: SetUp) -> str | None:
    """Return a set-up as JSON to be kept, None for the usual one."""
    if set_up == AS_USUAL:
        return None
    loads = None if set_up.loads is None else [dict(load) for load in set_up.loads]
    kept = {"options": dict(set_up.options), "loads": loads, "typed": dict(set_up.typed)}
    return json.dumps(kept)


def set_up_from(text: str | None) -> SetUp:
    """Return a set-up that was kept as JSON."""
    if text is None:
        return AS_USUAL
    kept = json.loads(text)
    loads = None if kept["loads"] is None else tuple(kept["loads"])
    return SetUp(options=kept["options"], loads=loads, typed=kept["typed"])


@dataclass(frozen=True, slots=True, kw_only=True)
class SwapAsk:
    """What the trainer asks: exercise, load kg, deepest knee bend in degrees, sets × reps, client,
    place.

    show_all: also what a packed place hides. sore_last: what asks more of a sore joint comes last.
    by_dose: time under load is compared, not demand alone.
    set_up: what of it is otherwise than usual. shape: how the demand is wanted over the range.
    intent: what is wanted by itself; then exercise,
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
    by_dose: bool = False
    set_up: SetUp = AS_USUAL
    shape: Shape = Shape.ORIGINAL
    intent: Intent | None = None

    def __post_init__(self) -> None:
        """Check what was typed; InputError names the field."""
        if exercise_of(self.exercise, "exercise") not in wantable():
            raise InputError("exercise", self.exercise, Said("an exercise with a curve to compare"))
        for name, low, high, unit in (
            ("kg", 0, HEAVIEST_KG, Name("kg")),
            ("depth_deg", *depths_of(EXERCISES[self.exercise]), Term("degrees of knee bend")),
            ("sets", 1, 20, Term("sets")),
            ("reps", 1, 100, Term("reps")),
        ):
            value = getattr(self, name)
            if not low <= value <= high:
                raise InputError(
                    name,
                    value,
                    Said(
                        "from {low} to {high} {unit}",
                        low=Figure(low),
                        high=Figure(high),
                        unit=unit,
                    ),
                )


def wantable() -> tuple[Exercise, ...]:
    """Return the exercises that can be asked for: all with a curve whose work can be compared."""
    return tuple(e for e in EXERCISES.values() if e.compared)


NOT_WANTED = (
    "a path of the hands alone: nothing is known of a joint",
    "no load to compare: time and reach only",
)


def not_wantable() -> tuple[tuple[str, str], ...]:
    """Return the names of the exercises that cannot be asked for, each with the reason."""
    return tuple(
        (
            e.name,
            NOT_WANTED[0] if e.has_curve else NOT_WANTED[1],
        )
        for e in EXERCISES.values()
        if not e.compared
    )


def takes_kg(item: Exercise) -> bool:
    """Return whether an exercise is asked for with a load in kg: not where bands or springs alone
    load it.
    """
    return any(part.stock not in ELASTIC for ways in item.ways[:2] for part in ways)


def by_kg(ask: SwapAsk) -> bool:
    """Return whether what is asked is said by its load in kg."""
    return takes_kg(EXERCISES[ask.exercise]) and ask.set_up.loads is None


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


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WantedSetup:
    """What is asked for as a set-up, and as it would be had nothing been typed of it.

    where: from which place its machine or band is, "" for here or none. assumed: usual values stand
    in for what is nowhere described. bands: the stock that its bands are.
    """

    setup: Setup
    usual: Setup
    where: str = ""
    assumed: bool = False
    bands: tuple[BandStock, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Stocked:
    """A kit that what is asked for may be set up with: where in words."""

    read: Callable[[], Kit]
    where: str = ""
    assumed: bool = False

    @property
    def kit(self) -> Kit:
        """Return the kit: read when it is first looked at."""
        return self.read()


def kits_for(seen: RoomView, held: Holdings) -> tuple[Stocked, ...]:
    """Return the kits in which what is asked for is looked up: this place's, those of the trainer's
    other places, then what is usual.
    """
    elsewhere = (place for place in seen.places if place.id != seen.place.id)
    return (
        Stocked(read=lambda: held.at(seen.place.id).kit),
        *(Stocked(read=partial(_kit_at, held, p.id), where=p.name) for p in elsewhere),
        Stocked(read=lambda: USUAL_KIT, assumed=True),
    )


def _kit_at(held: Holdings, place_id: int) -> Kit:
    return held.at(place_id).kit


def wanted_setup(ask: SwapAsk, client: store.ClientRow, kits: Sequence[Stocked]) -> WantedSetup:
    """Return the wanted exercise as a set-up for a client, on this place's own machine or with its
    own bands where it needs any, else on another place's, else as it usually is.

    Raises InputError at "/options/…" or "/loads/…" for what was typed and cannot be.
    """
    item = EXERCISES[ask.exercise]
    found = _plain(item, ask, client, kits) or _made(item, ask, client, kits)
    options = {**found.usual.options, **ask.set_up.options}
    loads = found.usual.loads
    if ask.set_up.loads is not None:
        loads = tuple(
            parse_load(part, f"/loads/{i}", item.ports) for i, part in enumerate(ask.set_up.loads)
        )
    return replace(found, setup=replace(found.usual, options=options, loads=loads))


def _asked_options(item: Exercise, ask: SwapAsk, client: store.ClientRow) -> dict[str, Any]:
    """Return the options that the question itself sets: how deep, and feet no wider than legs."""
    options: dict[str, Any] = {}
    if asks_depth(item):
        if "knee_from_deg" in item.options:
            options["knee_from_deg"] = ask.depth_deg
        else:
            options["lean_from_deg"] = ask.depth_deg - UPRIGHT_DEG
    feet = narrower_stance_m(item, client.body)
    if feet is not None:
        options["stance_m"] = feet
    return options


def _plain(
    item: Exercise, ask: SwapAsk, client: store.ClientRow, kits: Sequence[Stocked]
) -> WantedSetup | None:
    """Return a lift with a weight, or on a sled or stack, by its usual options; None for what
    bands, springs and other machines load.
    """
    options = _asked_options(item, ask, client)
    machine = _pressed(item, ask.kg, kits) or _stacked(item, ask.kg, kits)
    if machine is not None:
        found, own, load = machine
        options |= {name: value for name, value in own.items() if name in item.options}
        usual = _with(item, client, options, (load,))
        return WantedSetup(setup=usual, usual=usual, where=found.where, assumed=found.assumed)
    port = _mass_port(item)
    if port is None and () not in item.ways:
        return None
    if item.id == "leg-extension-dumbbell":
        options["seat_m"] = 0.60  # high enough to hang free; it changes no demand
    held = (FreeMass(kg=ask.kg, port=port),) if port is not None and ask.kg > 0 else ()
    usual = _with(item, client, options, held)
    return WantedSetup(setup=usual, usual=usual)


def _with(
    item: Exercise, client: store.ClientRow, options: Mapping[str, Any], loads: tuple[Load, ...]
) -> Setup:
    return Setup(
        exercise=item, body=client.body, limits=client.limits, options=options, loads=loads
    )


_OnMachine = tuple[Stocked, Mapping[str, float], Load]
"""Whose machine it is, the options that it sets, and its load."""


def _pressed(item: Exercise, kg: float, kits: Sequence[Stocked]) -> _OnMachine | None:
    if not _on_machine(item, "sled") or _on_machine(item, "band"):
        return None
    found = next(k for k in kits if presses_for(item, k.kit))
    press = presses_for(item, found.kit)[0]
    own = {
        "rail_deg": press.rail_deg,
        "backrest_deg": press.backrest_deg,
        "plate_tilt_deg": press.plate_tilt_deg,
    }
    return found, own, Sled(kg=kg, empty_kg=press.empty_kg, friction=press.friction)


def _stacked(item: Exercise, kg: float, kits: Sequence[Stocked]) -> _OnMachine | None:
    if not _on_machine(item, "stack", "hack"):
        return None
    found, machine = next(_machines_for(item, kits))
    own = {n: v for n, v in machine.quantities.items() if n == "rail_deg"}
    return found, own, _machine_load(machine, kg)


def _made(
    item: Exercise, ask: SwapAsk, client: store.ClientRow, kits: Sequence[Stocked]
) -> WantedSetup:
    """Return the first set-up that any of the kits makes of an exercise, with the load that is
    asked.
    """
    limits = replace(client.limits, no_axial_load=False)
    spec = item.options.get("knee_to_deg")
    end = float(spec.usual(client.body.stature_m)) if spec is not None else 0.0
    wanted = Range(from_deg=ask.depth_deg, to_deg=end) if asks_depth(item) else None
    for stocked in kits:
        kit = replace(stocked.kit, weights=USUAL_KIT.weights)
        batch = next(
            (b for b in batches_of(item, kit, client.body, limits, wanted) if b.size), None
        )
        if batch is None:
            continue
        row = _first_that_can(batch, client, ask.kg)
        made = batch.setup(client.body, client.limits, (row,), kg=np.array([ask.kg]))
        usual = replace(made, options={**row.options, **_asked_options(item, ask, client)})
        bands = tuple(band for band, _ in row.bands)
        return WantedSetup(
            setup=usual, usual=usual, where=stocked.where, assumed=stocked.assumed, bands=bands
        )
    raise AssertionError(f"{item.id} cannot be set up with one of everything")


MOST_LOOKED_AT = 60  # places of a machine or anchor: one of them fits, or none will


def _first_that_can(batch: Batch, client: store.ClientRow, kg: float) -> LoadedSetup:
    """Return the first set-up of a batch that this client can take up, the first where none is."""
    rows = tuple(batch.unloaded[i] for i in range(min(len(batch.unloaded), MOST_LOOKED_AT)))
    setup = batch.setup(client.body, client.limits, rows, samples=11, kg=np.array([kg]))
    failed = curve(setup, strict=False, lowering=False, others=False).motion.failed
    return next((row for i, row in enumerate(rows) if i not in failed), rows[0])


def _machines_for(item: Exercise, kits: Sequence[Stocked]) -> Iterator[tuple[Stocked, Machine]]:
    kinds = [MACHINES[need] for need in item.needs if need in MACHINES]
    for stocked in kits:
        for machine in stocked.kit.machines:
            if machine.kind in kinds and (machine.kind == "hack squat" or machine.dials):
                yield stocked, machine


def _machine_load(machine: Machine, kg: float) -> Load:
    q = machine.quantities
    if machine.kind == "hack squat":
        return Sled(kg=kg, empty_kg=q.get("empty_kg", 0.0), friction=q.get("friction", 0.0))
    angles, radii = machine.dials[0][1]
    return Stack(kg=kg, angle_deg=angles, radius_m=radii, ratio=q.get("ratio", 1.0))


def wanted_key(ask: SwapAsk) -> str:
    """Return under what favourites are kept: the wanted exercise, or the actions of an intent."""
    if ask.intent is None:
        return ask.exercise
    return "intent " + " ".join(part.action.label for part in ask.intent.parts)
