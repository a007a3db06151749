"""What is in a place, what is free, and its kit for the core."""

from __future__ import annotations

import functools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from widearc import store
from widearc.core.equipment import BandLaw, fit_band, fit_linear, fit_mooney_rivlin, fit_points
from widearc.core.errors import InputError
from widearc.core.substitution import Anchor, BandShape, BandStock, Furniture, Kit, SledPress, Weight
from widearc.store.equipment import all_readings

STATE_WORDS = {store.State.FREE: "free", store.State.TAKEN: "taken", store.State.BROKEN: "broken"}


@dataclass(frozen=True, slots=True, kw_only=True)
class RoomView:
    """A place with its equipment, the trainer's other places, and the last change."""

    place: store.PlaceRow
    places: tuple[store.PlaceRow, ...]
    items: tuple[store.ItemRow, ...]
    change: store.Change | None


def room(con: store.Connection, trainer_id: int, place_id: int) -> RoomView:
    """Return a place's equipment and the last change there; MissingError for a place that is not there."""
    return RoomView(
        place=store.place(con, trainer_id, place_id),
        places=store.places(con, trainer_id),
        items=store.items(con, trainer_id, place_id),
        change=store.last_change(con, trainer_id, place_id),
    )


def mark(con: store.Connection, trainer_id: int, item_id: int, state: store.State, *, now: str) -> store.ItemRow:
    """Set an item free, taken or broken, recorded for undo; return it as it is now."""
    with store.transaction(con):
        before = store.item(con, trainer_id, item_id)
        if before.state is not state:
            words = f"{before.name} {STATE_WORDS[state]}"
            store.record_state(con, trainer_id, before, words=words, now=now)
            store.set_state(con, trainer_id, item_id, state, at=now)
    return store.item(con, trainer_id, item_id)


def take_back(con: store.Connection, trainer_id: int, change_id: int, *, now: str) -> store.Change:
    """Undo a change; MissingError when it is undone already or something else changed since."""
    with store.transaction(con):
        return store.undo(con, trainer_id, change_id, now=now)


def strand_law(item: store.ItemRow, rows: Sequence[store.Reading]) -> BandLaw:
    """Return the law of one unfolded strand from readings that pulled `item.strands` strands at once.

    Raises InputError where the readings allow none.
    """
    strands = item.strands or 1
    return _law(item.law, tuple(r.length_m for r in rows), tuple(r.force_n / strands for r in rows), item.rest_m)


@functools.lru_cache(maxsize=500)
def _law(kind: str | None, lengths: tuple[float, ...], forces: tuple[float, ...], rest_m: float | None) -> BandLaw:
    # asked anew at every tap in the room: the readings hardly ever change
    if kind == "linear":
        return fit_linear(lengths, forces).law
    if kind == "mooney-rivlin":
        return fit_mooney_rivlin(lengths, forces, rest_m).law
    if kind == "points":
        return fit_points(lengths, forces, rest_m).law
    found = fit_band(lengths, forces, rest_m)
    return found.fits[found.chosen].law


def kit_of(
    con: store.Connection, trainer_id: int, items: Sequence[store.ItemRow], place_id: int
) -> tuple[Kit, frozenset[str], Mapping[str, str], tuple[str, ...]]:
    """Return a place's kit, the ids of what is taken or broken, words for those, and bands that cannot be used.

    A band without readings that fit a law cannot be used: it is named, never guessed.
    """
    read = all_readings(con, trainer_id, place_id)
    weights, bands, furniture, anchors, presses, unknown = [], [], [], [], [], []
    for item in items:
        key = item.key
        if item.kind in ("bar", "plate", "dumbbell", "kettlebell"):
            weights.append(Weight(id=key, kind=item.kind, kg=item.kg or 0.0, count=item.count or 0, name=item.name))
        elif item.kind == "band":
            try:
                law = strand_law(item, read.get(item.id, ()))
            except InputError:
                unknown.append(item.name)
                continue
            stock = BandStock(
                id=key,
                name=item.name.lower(),
                shape=BandShape(item.shape),
                law=law,
                hysteresis=item.back_share or 0.0,
            )
            bands.append(stock)
        elif item.kind == "anchor":
            anchors.append(Anchor(id=key, name=item.name, height_m=item.height_m or 0.0, holds_n=item.holds_n))
        elif item.kind == "sled press":
            presses.append(press_of(item))
        else:
            furniture.append(Furniture(id=key, name=item.name, kind=item.kind, height_m=item.height_m or 0.0))
    kit = Kit(
        weights=tuple(w for w in weights if w.count > 0),
        bands=tuple(bands),
        furniture=tuple(furniture),
        anchors=tuple(anchors),
        presses=tuple(presses),
    )
    taken = {item.key: STATE_WORDS[item.state] for item in items if item.state is not store.State.FREE}
    return kit, frozenset(taken), taken, tuple(unknown)


def press_of(item: store.ItemRow) -> SledPress:
    """Return a sled press as the core knows it."""
    return SledPress(
        id=item.key,
        name=item.name,
        rail_deg=item.rail_deg or 0.0,
        empty_kg=item.empty_kg or 0.0,
        backrest_deg=15.0 if item.backrest_deg is None else item.backrest_deg,
        plate_tilt_deg=10.0 if item.plate_tilt_deg is None else item.plate_tilt_deg,
    )
