"""What is in a place, what is free, what it can train; adding, changing, copying, with undo for all
of it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from widearc import store
from widearc.core.equipment import Source, check_quantity, kind_of
from widearc.core.errors import InputError
from widearc.core.kit import Trainable, trainable
from widearc.usecases.kit import STATE_WORDS, badge_of, kit_of, rules_of
from widearc.usecases.sheet import SheetError

PEOPLE = {"alone": "alone", "others": "others here, nobody helps", "partner": "a partner helps"}
CROWDING = {"empty": "empty", "some": "some people", "packed": "packed"}
SIDES = {
    "": "",
    "left": "left",
    "right": "right",
    "ahead": "ahead",
    "behind": "behind",
    "floor": "floor",
    "overhead": "overhead",
}
HOLDS = {
    "eye": "a rated eye",
    "weight": "a loose weight",
    "furniture": "furniture",
    "feet": "somebody's feet",
    "partner": "a partner",
}
MOST_ITEMS = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class RoomView:
    """A place with its equipment and badges, the trainer's other places, what it trains, and the
    last change.

    aside: for whom an item is set aside, by its id: the client's name.
    """

    place: store.PlaceRow
    places: tuple[store.PlaceRow, ...]
    items: tuple[store.ItemRow, ...]
    badges: Mapping[int, str]
    actions: tuple[Trainable, ...]
    change: store.Change | None
    aside: Mapping[int, str] = field(default_factory=dict)


def scope(place_id: int) -> str:
    """Return the undo scope of a place."""
    return f"place:{place_id}"


def room(
    con: store.Connection, trainer_id: int, place_id: int, client: store.ClientFacts | None = None
) -> RoomView:
    """Return a place's equipment, what it trains for a client, the last change; MissingError if it
    is not there.
    """
    place = store.place(con, trainer_id, place_id)
    items = store.items(con, trainer_id, place_id)
    kit, taken, _, _ = kit_of(con, trainer_id, items, place_id)
    who = client or store.ClientFacts(name="anyone")
    read = store.readings_of_place(con, trainer_id, place_id)
    return RoomView(
        place=place,
        places=store.places(con, trainer_id),
        items=items,
        badges={item.id: badge_of(item, read.get(item.id, 0)) for item in items},
        actions=trainable(kit, taken=taken, limits=who.limits, rules=rules_of(place, who)),
        change=store.last_change(con, trainer_id, scope(place_id)),
        aside=_aside(con, trainer_id, place_id),
    )


def _aside(con: store.Connection, trainer_id: int, place_id: int) -> Mapping[int, str]:
    kept = store.set_asides(con, trainer_id, place_id)
    if not kept:
        return {}
    names = {c.id: c.name for c in store.clients(con, trainer_id)}
    return {item: names[client] for item, client in kept.items()}


def mark(
    con: store.Connection, trainer_id: int, item_id: int, state: store.State, *, now: str
) -> store.ItemRow:
    """Set an item free, taken or broken, recorded for undo; return it as it is now."""
    before = store.item(con, trainer_id, item_id)
    if before.state is not state:
        words = f"{before.name} {STATE_WORDS[state]}"
        with store.recorded(
            con, trainer_id, scope=scope(before.place_id), kind="state", words=words, now=now
        ):
            store.set_state(con, trainer_id, [item_id], state, at=now)
    return store.item(con, trainer_id, item_id)


def mark_zone(
    con: store.Connection,
    trainer_id: int,
    place_id: int,
    zone: str,
    state: store.State,
    *,
    now: str,
) -> None:
    """Set everything in a zone free or taken; what is broken stays so."""
    items = [
        item.id
        for item in store.items(con, trainer_id, place_id)
        if item.zone == zone and item.state is not store.State.BROKEN and item.state is not state
    ]
    if not items:
        return
    words = f"{f'zone {zone}' if zone else 'everything'} {STATE_WORDS[state]}"
    with store.recorded(con, trainer_id, scope=scope(place_id), kind="state", words=words, now=now):
        store.set_state(con, trainer_id, items, state, at=now)


def see(
    con: store.Connection, trainer_id: int, item_id: int, *, seen: bool, now: str
) -> store.ItemRow:
    """Tick an item on the look-round list, or take the tick away; return it as it was."""
    item = store.item(con, trainer_id, item_id)
    words = f"{item.name} {'seen' if seen else 'not seen'}"
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="seen", words=words, now=now
    ):
        store.set_seen(con, trainer_id, item_id, now if seen else None)
    return item


def take_back(con: store.Connection, trainer_id: int, change_id: int, *, now: str) -> store.Change:
    """Undo a change; MissingError when it is undone already or something else changed since."""
    return store.undo(con, trainer_id, change_id, now=now)


@dataclass(frozen=True, slots=True, kw_only=True)
class ItemFacts:
    """An item as typed, checked: quantities in SI with their sources."""

    kind: str
    name: str
    zone: str = ""
    side: str = ""
    hold: str = ""
    note: str = ""
    quantities: Mapping[str, float]
    sources: Mapping[str, Source]
    shape: str = "loop"


def _check(
    con: store.Connection, trainer_id: int, place_id: int, facts: ItemFacts, own: int | None
) -> ItemFacts:
    """Return facts with every rule checked; SheetError with a message per field."""
    messages: dict[str, str] = {}
    kind = kind_of(facts.kind)
    name = " ".join(facts.name.split())
    if not 1 <= len(name) <= 80:
        messages["name"] = "a name of 1 to 80 characters"
    others = store.items(con, trainer_id, place_id)
    if any(item.name.lower() == name.lower() and item.id != own for item in others):
        messages["name"] = f"“{name}” is here already: choose another name"
    if own is None and len(others) >= MOST_ITEMS:
        messages["name"] = f"{MOST_ITEMS} things are here already: that is as many as a place holds"
    zone = " ".join(facts.zone.split())
    if len(zone) > 20:
        messages["zone"] = f"{len(zone)} characters are too many: at most 20"
    if facts.side not in SIDES:
        messages["side"] = (
            f"{facts.side[:20]} is not kept: one of {', '.join(s for s in SIDES if s)}"
        )
    hold = facts.hold or ("eye" if kind.id == "anchor" else "")
    if hold and hold not in HOLDS:
        messages["hold"] = f"{hold[:20]} is not kept: one of {', '.join(HOLDS)}"
    if len(facts.note) > 500:
        messages["note"] = f"{len(facts.note)} characters are too many: at most 500"
    if kind.id == "band" and facts.shape not in ("loop", "long"):
        messages["shape"] = f"{facts.shape[:20]} is not kept: loop or long"
    quantities, sources = dict(facts.quantities), dict(facts.sources)
    for quantity in kind.quantities:
        value = quantities.get(quantity.name)
        if value is None:
            if quantity.usual is not None:
                quantities[quantity.name], sources[quantity.name] = quantity.usual, Source.ASSUMED
            elif not quantity.optional:
                messages.setdefault(
                    quantity.name, f"empty: type {quantity.words} in {quantity.unit or 'pieces'}"
                )
            continue
        try:
            check_quantity(quantity, value, quantity.name)
        except InputError as error:
            messages[quantity.name] = f"{error.value} is not kept: {error.allowed}"
    if "smallest_kg" in quantities and quantities["smallest_kg"] > quantities.get(
        "largest_kg", 400.0
    ):
        messages["smallest_kg"] = "more than the whole stack"
    if messages:
        raise SheetError(messages)
    return ItemFacts(
        kind=kind.id,
        name=name,
        zone=zone,
        side=facts.side,
        hold=hold,
        note=facts.note.strip(),
        quantities=quantities,
        sources=sources,
        shape=facts.shape,
    )


def add_item(
    con: store.Connection, trainer_id: int, place_id: int, facts: ItemFacts, *, now: str
) -> int:
    """Add an item to a place; return its id. SheetError with a message per field, and nothing is
    kept.
    """
    place = store.place(con, trainer_id, place_id)
    clean = _check(con, trainer_id, place_id, facts, None)
    words = f"{clean.name} added"
    with store.recorded(con, trainer_id, scope=scope(place.id), kind="item", words=words, now=now):
        return _insert(con, trainer_id, place_id, clean)


def _insert(con: store.Connection, trainer_id: int, place_id: int, clean: ItemFacts) -> int:
    band = (
        {"shape": clean.shape, "strands": 2 if clean.shape == "loop" else 1}
        if clean.kind == "band"
        else {}
    )
    return store.add_item(
        con,
        trainer_id,
        place_id,
        kind=clean.kind,
        name=clean.name,
        zone=clean.zone,
        side=clean.side,
        hold=clean.hold,
        note=clean.note,
        quantities=clean.quantities,
        sources=clean.sources,
        **band,
    )


def change_item(
    con: store.Connection, trainer_id: int, item_id: int, facts: ItemFacts, *, now: str
) -> store.ItemRow:
    """Change an item; return it as it is now. SheetError with a message per field, and nothing is
    kept.
    """
    before = store.item(con, trainer_id, item_id)
    clean = _check(con, trainer_id, before.place_id, facts, item_id)
    words = f"{clean.name} changed"
    with store.recorded(
        con, trainer_id, scope=scope(before.place_id), kind="item", words=words, now=now
    ):
        store.set_item(
            con,
            trainer_id,
            item_id,
            name=clean.name,
            zone=clean.zone,
            side=clean.side,
            hold=clean.hold,
            note=clean.note,
        )
        if dict(before.quantities) != dict(clean.quantities) or dict(before.sources) != dict(
            clean.sources
        ):
            store.set_quantities(con, trainer_id, item_id, clean.quantities, clean.sources)
    return store.item(con, trainer_id, item_id)


def _free_name(name: str, taken: Sequence[str]) -> str:
    """Return a name that is not taken: the same with the next number."""
    stem, _, tail = name.rpartition(" ")
    number = int(tail) if stem and tail.isdecimal() and len(tail) < 4 else 1
    stem = stem if stem and tail.isdecimal() and len(tail) < 4 else name
    used = {t.lower() for t in taken}
    while f"{stem} {number}".lower() in used or number == 1:
        number += 1
    return f"{stem[:70]} {number}"


def duplicate_item(con: store.Connection, trainer_id: int, item_id: int, *, now: str) -> int:
    """Add the same item once more under the next name, with its readings and settings; return its
    id.
    """
    item = store.item(con, trainer_id, item_id)
    name = _free_name(item.name, [i.name for i in store.items(con, trainer_id, item.place_id)])
    words = f"{name} added, as {item.name}"
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="item", words=words, now=now
    ):
        return _copy(con, trainer_id, item, item.place_id, name)


def _copy(
    con: store.Connection, trainer_id: int, item: store.ItemRow, place_id: int, name: str
) -> int:
    band = {c: getattr(item, c) for c in store.BAND_COLUMNS} if item.kind == "band" else {}
    new = store.add_item(
        con,
        trainer_id,
        place_id,
        kind=item.kind,
        name=name,
        zone=item.zone,
        side=item.side,
        hold=item.hold,
        note=item.note,
        quantities=item.quantities,
        sources=item.sources,
        **band,
    )
    store.replace_readings(con, trainer_id, new, store.readings(con, trainer_id, item.id))
    store.replace_machine_readings(
        con, trainer_id, new, store.machine_readings(con, trainer_id, item.id)
    )
    store.replace_settings(con, trainer_id, new, store.settings(con, trainer_id, item.id))
    return new


def remove_item(con: store.Connection, trainer_id: int, item_id: int, *, now: str) -> store.ItemRow:
    """Remove an item with its readings and settings; return it as it was. Undo brings all of it
    back.
    """
    item = store.item(con, trainer_id, item_id)
    words = f"{item.name} removed"
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="item", words=words, now=now
    ):
        store.remove_item(con, trainer_id, item_id)
    return item


def keep_settings(
    con: store.Connection, trainer_id: int, item_id: int, rows: Sequence[store.Setting], *, now: str
) -> store.ItemRow:
    """Keep an item's repeatable settings. SheetError names the row."""
    item = store.item(con, trainer_id, item_id)
    known = {client.id for client in store.clients(con, trainer_id)}
    messages: dict[str, str] = {}
    for index, row in enumerate(rows):
        if not 1 <= len(row.name) <= 40:
            messages[f"setting-{index}"] = "a name of 1 to 40 characters, as “seat”"
        elif not 1 <= len(row.words) <= 80:
            messages[f"setting-{index}"] = "a value of 1 to 80 characters, as “hole 4”"
        elif row.client_id is not None and row.client_id not in known:
            messages[f"setting-{index}"] = "not a client of the list"
    if len(rows) > 60:
        messages["setting-0"] = f"{len(rows)} settings are too many: at most 60"
    if messages:
        raise SheetError(messages)
    words = f"{item.name}: settings kept"
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="item", words=words, now=now
    ):
        store.replace_settings(con, trainer_id, item_id, rows)
    return item


def _check_place(
    con: store.Connection, trainer_id: int, facts: store.PlaceFacts, own: int | None
) -> None:
    messages: dict[str, str] = {}
    if not 1 <= len(facts.name) <= 80:
        messages["name"] = "a name of 1 to 80 characters"
    elif any(
        p.name.lower() == facts.name.lower() and p.id != own for p in store.places(con, trainer_id)
    ):
        messages["name"] = f"“{facts.name}” is a place already: choose another name"
    if len(facts.note) > 300:
        messages["note"] = f"{len(facts.note)} characters are too many: at most 300"
    if facts.people not in PEOPLE:
        messages["people"] = f"{facts.people[:20]} is not kept: one of {', '.join(PEOPLE)}"
    if facts.crowding not in CROWDING:
        messages["crowding"] = f"{facts.crowding[:20]} is not kept: one of {', '.join(CROWDING)}"
    for name, most in (("floor_width_m", 50.0), ("floor_length_m", 100.0)):
        value = getattr(facts, name)
        if value is not None and not 0.3 <= value <= most:
            messages[name] = f"{value:g} m is not kept: from 0.3 to {most:g} m"
    if messages:
        raise SheetError(messages)


def new_place(con: store.Connection, trainer_id: int, facts: store.PlaceFacts, *, now: str) -> int:
    """Add a place; return its id. SheetError with a message per field."""
    _check_place(con, trainer_id, facts, None)
    with store.recorded(
        con, trainer_id, scope="places", kind="place", words=f"{facts.name} added", now=now
    ):
        return store.add_place(con, trainer_id, facts)


def change_place(
    con: store.Connection, trainer_id: int, place_id: int, facts: store.PlaceFacts, *, now: str
) -> None:
    """Change what is said of a place: name, people, space, crowding. SheetError with a message per
    field.
    """
    store.place(con, trainer_id, place_id)
    _check_place(con, trainer_id, facts, place_id)
    words = f"{facts.name}: {CROWDING[facts.crowding]}, {PEOPLE[facts.people]}"
    with store.recorded(con, trainer_id, scope=scope(place_id), kind="place", words=words, now=now):
        store.set_place(con, trainer_id, place_id, facts)


def copy_place(con: store.Connection, trainer_id: int, place_id: int, *, now: str) -> int:
    """Add the same place once more with all its equipment, everything free; return its id."""
    place = store.place(con, trainer_id, place_id)
    name = _free_name(place.name, [p.name for p in store.places(con, trainer_id)])
    facts = store.PlaceFacts(
        name=name,
        note=place.note,
        people=place.people,
        crowding=place.crowding,
        wall=place.wall,
        floor_width_m=place.floor_width_m,
        floor_length_m=place.floor_length_m,
    )
    words = f"{name} added, as {place.name}"
    with store.recorded(con, trainer_id, scope="places", kind="place", words=words, now=now):
        new = store.add_place(con, trainer_id, facts)
        for item in store.items(con, trainer_id, place_id):
            _copy(con, trainer_id, item, new, item.name)
    return new


def remove_place(
    con: store.Connection, trainer_id: int, place_id: int, *, now: str
) -> store.PlaceRow:
    """Remove a place with everything in it and the decisions kept there; return it. Undo brings all
    of it back.
    """
    place = store.place(con, trainer_id, place_id)
    with store.recorded(
        con, trainer_id, scope="places", kind="place", words=f"{place.name} removed", now=now
    ):
        store.remove_place(con, trainer_id, place_id)
    return place
