"""A place's kit and rules as the core knows them."""

from __future__ import annotations

import functools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import TypeVar

from widearc import store
from widearc.core.equipment import (
    BandLaw,
    Source,
    Spring,
    fit_band,
    fit_linear,
    fit_mooney_rivlin,
    kind_of,
    law_error_share,
    points_law,
    weakest,
)
from widearc.core.errors import InputError
from widearc.core.kit import (
    MACHINES,
    READ,
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    Rules,
    SledPress,
    SpringStock,
    Thing,
    Weight,
)
from widearc.core.statics import BodyUncertainty, uncertainty_of
from widearc.store.equipment import all_machine_readings, all_readings
from widearc.usecases.bench.columns import fit_of

STATE_WORDS = {store.State.FREE: "free", store.State.TAKEN: "taken", store.State.BROKEN: "broken"}
WEIGHTS = ("bar", "trap bar", "plate", "dumbbell", "kettlebell")


_NOT_IN_A_CURVE = (
    "count",
    "own_kg",
    "depth_m",
    "smallest_kg",
    "largest_kg",
    "step_kg",
    "read_kg",
)  # counted, or only for what holds


FURNITURE = ("bench", "box", "rack", "couch", "table")


def strand_law(item: store.ItemRow, rows: Sequence[store.Reading]) -> BandLaw:
    """Return the law of one unfolded strand from readings that pulled `item.strands` strands at
    once.

    Raises InputError where the readings allow none.
    """
    strands = item.strands or 1
    return _law(
        item.law,
        tuple(r.length_m for r in rows),
        tuple(r.force_n / strands for r in rows),
        item.rest_m,
    )


@functools.lru_cache(maxsize=500)
def _law(
    kind: str | None, lengths: tuple[float, ...], forces: tuple[float, ...], rest_m: float | None
) -> BandLaw:
    # asked anew at every tap in the room: the readings hardly ever change
    if kind == "linear":
        return fit_linear(lengths, forces).law
    if kind == "mooney-rivlin":
        return fit_mooney_rivlin(lengths, forces, rest_m).law
    if kind == "points":
        return points_law(lengths, forces, rest_m)[0]
    found = fit_band(lengths, forces, rest_m)
    return found.fits[found.chosen].law


@functools.lru_cache(maxsize=500)
def _law_error(lengths: tuple[float, ...], forces: tuple[float, ...]) -> float:
    return law_error_share(lengths, forces)


ERRORS: Mapping[Source, float] = {
    Source.MEASURED: 0.005,
    Source.DESCRIBED: 0.02,
    Source.ASSUMED: 0.10,
}
"""One standard error of a mass as a share, by where it is from (cast plates vary: common practice,
no source).
"""


def uncertainty_of_client(client: store.ClientFacts) -> BodyUncertainty:
    """Return how sure a client's body is, from what was asked and taped."""
    return uncertainty_of(
        mass_known=client.mass_kg is not None,
        stature_known=client.stature_m is not None,
        thigh_taped=client.thigh_m is not None,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Stock:
    """What a place has, read once: its items, the kit they make, the ids of what is taken or
    broken, words for those, and what cannot be used.
    """

    items: tuple[store.ItemRow, ...]
    kit: Kit
    taken: frozenset[str]
    words: Mapping[str, str]
    unread: tuple[str, ...]


def stock_of(
    con: store.Connection, trainer_id: int, place_id: int, *, errors: bool = True
) -> Stock:
    """Return what a place has; without `errors` nothing is said of how sure a band's law is, which
    takes a second the first time.

    A band without readings that fit a law cannot be used: it is named, never guessed.
    """
    items = store.items(con, trainer_id, place_id)
    read = all_readings(con, trainer_id, place_id)
    gauged = all_machine_readings(con, trainer_id, place_id)
    parts: list[Part] = []
    unread = []
    for item in items:
        try:
            rows = read.get(item.id, ())
            parts.append(_part(item, rows, gauged.get(item.id, ()), errors=errors))
            parts += _parts_of_couch(item)
        except InputError:
            unread.append(item.name)
    states = {i.key: STATE_WORDS[i.state] for i in items if i.state is not store.State.FREE}
    return Stock(
        items=items,
        kit=_kit(parts),
        taken=frozenset(states),
        words=states,
        unread=tuple(unread),
    )


P = TypeVar("P")
Cam = tuple[tuple[float, ...], tuple[float, ...]]
"""Angles, degrees, and radii, m, of a cam."""


def _kit(parts: Sequence[Part]) -> Kit:
    return Kit(
        weights=tuple(w for w in _of(parts, Weight) if w.count > 0 and w.kg > 0),
        bands=_of(parts, BandStock),
        furniture=_of(parts, Furniture),
        anchors=_of(parts, Anchor),
        presses=_of(parts, SledPress),
        things=_of(parts, Thing),
        machines=_of(parts, Machine),
        springs=tuple(s for s in _of(parts, SpringStock) if s.count > 0),
    )


def _of(parts: Sequence[Part], kind: type[P]) -> tuple[P, ...]:
    return tuple(p for p in parts if isinstance(p, kind))


Part = Weight | BandStock | Furniture | Anchor | SledPress | Thing | Machine | SpringStock


LEAST_GAP_M = 0.06
"""Under this nobody's ankles go (assumed)."""


def _parts_of_couch(item: store.ItemRow) -> list[Part]:
    """Return what else a couch is: an anchor where a band goes round its foot, a hold where the
    ankles go under it; both are in use when it is.
    """
    q = item.quantities
    if item.kind != "couch":
        return []
    found: list[Part] = []
    if "foot_m" in q:
        found.append(
            Anchor(
                id=item.key,
                name=item.name,
                height_m=q["foot_m"],
                own_kg=q.get("own_kg"),
                depth_m=q.get("depth_m"),
            )
        )
    if q.get("gap_m", 0.0) >= LEAST_GAP_M:
        found.append(Thing(id=item.key, name=item.name, kind="ankle hold"))
    return found


def _part(
    item: store.ItemRow,
    rows: Sequence[store.Reading],
    gauged: Sequence[store.MachineReading],
    *,
    errors: bool,
) -> Part:
    """Return an item as the search knows it; rows: a band's readings, gauged: a machine's.

    Raises InputError where nothing sure can be said of what it pulls.
    """
    key, q = item.key, item.quantities
    if item.kind in WEIGHTS:
        error = ERRORS[item.sources.get("kg", Source.DESCRIBED)]
        return Weight(
            id=key, kind=item.kind, kg=item.kg or 0.0, count=item.count, name=item.name, error=error
        )
    if item.kind == "band":
        return BandStock(
            id=key,
            name=item.name.lower(),
            shape=BandShape(item.shape),
            law=strand_law(item, tuple(rows)),
            hysteresis=item.back_share or 0.0,
            error=_law_error(tuple(r.length_m for r in rows), tuple(r.force_n for r in rows))
            if errors
            else 0.0,
        )
    if item.kind == "anchor":
        return Anchor(
            id=key,
            name=item.name,
            height_m=item.height_m or 0.0,
            holds_n=q.get("holds_n"),
            own_kg=q.get("own_kg"),
            depth_m=q.get("depth_m"),
        )
    if item.kind in FURNITURE:
        return Furniture(
            id=key,
            name=item.name,
            kind=item.kind,
            height_m=item.height_m or 0.0,
            own_kg=q.get("own_kg"),
            depth_m=q.get("depth_m"),
        )
    if item.kind == "sled press":
        return press_of(item)
    if item.kind == "spring":
        return _spring(item)
    if item.kind in SEARCHED:
        return machine_of(item, tuple(gauged))
    return Thing(id=key, name=item.name, kind=item.kind, thick_m=q.get("thick_m", 0.0))


SEARCHED = frozenset(MACHINES.values())
"""Kinds of machine whose load the search knows."""


def _dials(item: store.ItemRow, read: Sequence[store.MachineReading]) -> list[tuple[str, Cam]]:
    """Return the cam of each dial setting of a stack that is read well enough for one."""
    own: dict[str, list[store.MachineReading]] = {}
    for reading in read:
        own.setdefault(reading.setting, []).append(reading)
    known = tuple(sorted(item.quantities.items()))
    cams = [(setting, _cam(tuple(rows), known)) for setting, rows in own.items()]
    return [(setting, cam) for setting, cam in cams if cam is not None]


def machine_of(item: store.ItemRow, rows: Sequence[store.MachineReading]) -> Machine:
    """Return a machine as the core knows it, with the cam of each dial setting that is read."""
    read = [r for r in rows if r.purpose == "fit"]
    dials = _dials(item, read) if kind_of(item.kind).fit == "stack" else []
    source = Source.MEASURED if read else item.sources.get("kg", Source.DESCRIBED)
    return Machine(
        id=item.key,
        name=item.name,
        kind=item.kind,
        quantities=MappingProxyType(dict(item.quantities)),
        dials=tuple(dials),
        error=READ if source is Source.MEASURED else ERRORS[Source.ASSUMED],
    )


@functools.lru_cache(maxsize=200)
def _cam(
    rows: tuple[store.MachineReading, ...], quantities: tuple[tuple[str, float], ...]
) -> Cam | None:
    try:
        tables = fit_of("stack", rows, dict(quantities)).tables
    except InputError:
        return None
    return (tables["angle_deg"], tables["radius_m"]) if "radius_m" in tables else None


def _spring(item: store.ItemRow) -> SpringStock:
    q = item.quantities
    travel, start = q.get("travel_m", 1.0), q.get("start_n", 0.0)
    spring = Spring(start_n=start, end_n=max(start, q.get("end_n", start)), travel_m=travel)
    source = item.sources.get("end_n", Source.DESCRIBED)
    return SpringStock(
        id=item.key,
        name=item.name.lower(),
        spring=spring,
        count=item.count,
        error=READ if source is Source.MEASURED else ERRORS[Source.ASSUMED],
    )


def press_of(item: store.ItemRow) -> SledPress:
    """Return a sled press as the core knows it."""
    q = item.quantities
    return SledPress(
        id=item.key,
        name=item.name,
        rail_deg=q.get("rail_deg", 0.0),
        empty_kg=q.get("empty_kg", 0.0),
        backrest_deg=q.get("backrest_deg", 15.0),
        plate_tilt_deg=q.get("plate_tilt_deg", 10.0),
        error=ERRORS[item.sources.get("empty_kg", Source.DESCRIBED)],
        friction=q.get("friction", 0.0),
        peg_m=q.get("peg_m"),
    )


def rules_of(place: store.PlaceRow, client: store.ClientFacts, *, show_all: bool = False) -> Rules:
    """Return what a place and a client allow; show_all: the trainer asked for what a packed place
    hides.
    """
    alone = place.people == "alone" if client.trains_alone is None else client.trains_alone
    return Rules(
        to_shoulders_kg=client.to_shoulders_kg,
        alone=alone and place.people != "partner",
        partner=place.people == "partner",
        wall=place.wall,
        floor_length_m=place.floor_length_m,
        packed=place.crowding == "packed" and not show_all,
        beginner=client.experience == "beginner",
        grip_kg=client.grip_kg,
        sore=client.sore,
        stronger_side=client.stronger_side,
    )


def badge_of(item: store.ItemRow, readings: int) -> str:
    """Return measured, described, assumed, or "not weighed" for a band without readings."""
    if item.kind == "band":
        return Source.MEASURED.value if readings else "not weighed"
    # where the cam was read at the pad, its ratio is in the readings
    read = ("ratio",) if readings and kind_of(item.kind).fit == "stack" else ()
    said = [
        source for name, source in item.sources.items() if name not in (*_NOT_IN_A_CURVE, *read)
    ]
    return weakest(said).value
