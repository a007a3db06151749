"""What is in a place, what is free, what it can train; adding, changing, copying, with undo for all
of it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from widearc import store
from widearc.core.equipment import Source, check_quantity, kind_of
from widearc.core.errors import InputError, one_of, said_of
from widearc.core.words import Count, Force, Name, Said, Term, Words
from widearc.usecases.room.room import scope
from widearc.usecases.sheet import SheetError
from widearc.words import sign_of

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
    messages: dict[str, Words] = {}
    kind = kind_of(facts.kind)
    name = " ".join(facts.name.split())
    if not 1 <= len(name) <= 80:
        messages["name"] = Said("a name of 1 to 80 characters")
    others = store.items(con, trainer_id, place_id)
    if any(item.name.lower() == name.lower() and item.id != own for item in others):
        messages["name"] = Said("“{name}” is here already: choose another name", name=Name(name))
    if own is None and len(others) >= MOST_ITEMS:
        messages["name"] = Said(
            "{most} things are here already: that is as many as a place holds",
            most=Count(MOST_ITEMS),
        )
    zone = " ".join(facts.zone.split())
    if len(zone) > 20:
        messages["zone"] = Said("{zone} characters are too many: at most 20", zone=Count(len(zone)))
    if facts.side not in SIDES:
        messages["side"] = Said(
            "{side} is not kept: {allowed}",
            side=Name(facts.side[:20]),
            allowed=one_of(s for s in SIDES if s),
        )
    hold = facts.hold or ("eye" if kind.id == "anchor" else "")
    if hold and hold not in HOLDS:
        messages["hold"] = Said(
            "{hold} is not kept: {allowed}", hold=Name(hold[:20]), allowed=one_of(HOLDS)
        )
    if len(facts.note) > 500:
        messages["note"] = Said(
            "{note} characters are too many: at most 500", note=Count(len(facts.note))
        )
    if kind.id == "band" and facts.shape not in ("loop", "long"):
        messages["shape"] = Said("{shape} is not kept: loop or long", shape=Name(facts.shape[:20]))
    start, end = (facts.quantities.get(name) for name in ("start_n", "end_n"))
    if kind.id == "spring" and start is not None and end is not None and end < start:
        messages["end_n"] = Said(
            "less than at the first mark, {force}: a spring pulls more, further out",
            force=Force(start),
        )
    quantities, sources = dict(facts.quantities), dict(facts.sources)
    for quantity in kind.quantities:
        value = quantities.get(quantity.name)
        if value is None:
            if quantity.usual is not None:
                quantities[quantity.name], sources[quantity.name] = quantity.usual, Source.ASSUMED
            elif not quantity.optional:
                messages.setdefault(
                    quantity.name,
                    Said(
                        "empty: type {quantity} in {unit}",
                        quantity=Term(quantity.words),
                        unit=Term(sign_of(quantity.unit) or "pieces"),
                    ),
                )
            continue
        try:
            check_quantity(quantity, value, quantity.name)
        except InputError as error:
            messages[quantity.name] = Said(
                "{value} is not kept: {allowed}", value=said_of(error.value), allowed=error.allowed
            )
    if "smallest_kg" in quantities and quantities["smallest_kg"] > quantities.get(
        "largest_kg", 400.0
    ):
        messages["smallest_kg"] = Said("more than the whole stack")
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


@store.at_once
def add_item(
    con: store.Connection, trainer_id: int, place_id: int, facts: ItemFacts, *, now: str
) -> int:
    """Add an item to a place; return its id. SheetError with a message per field, and nothing is
    kept.
    """
    place = store.place(con, trainer_id, place_id)
    clean = _check(con, trainer_id, place_id, facts, None)
    words = Said("{name} added", name=Name(clean.name))
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


@store.at_once
def change_item(
    con: store.Connection, trainer_id: int, item_id: int, facts: ItemFacts, *, now: str
) -> store.ItemRow:
    """Change an item; return it as it is now. SheetError with a message per field, and nothing is
    kept.
    """
    before = store.item(con, trainer_id, item_id)
    clean = _check(con, trainer_id, before.place_id, facts, item_id)
    words = Said("{name} changed", name=Name(clean.name))
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
    numbered = stem != "" and tail.isdecimal() and len(tail) < 4
    number = int(tail) if numbered else 1
    stem = stem if numbered else name
    used = {t.lower() for t in taken}
    while f"{stem} {number}".lower() in used or number == 1:
        number += 1
    return f"{stem[:70]} {number}"


@store.at_once
def duplicate_item(con: store.Connection, trainer_id: int, item_id: int, *, now: str) -> int:
    """Add the same item once more under the next name, with its readings and settings; return its
    id.
    """
    item = store.item(con, trainer_id, item_id)
    name = _free_name(item.name, [i.name for i in store.items(con, trainer_id, item.place_id)])
    words = Said("{name} added, as {name_2}", name=Name(name), name_2=Name(item.name))
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


@store.at_once
def remove_item(con: store.Connection, trainer_id: int, item_id: int, *, now: str) -> store.ItemRow:
    """Remove an item with its readings and settings; return it as it was. Undo brings all of it
    back.
    """
    item = store.item(con, trainer_id, item_id)
    words = Said("{name} removed", name=Name(item.name))
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="item", words=words, now=now
    ):
        store.remove_item(con, trainer_id, item_id)
    return item


@store.at_once
def keep_settings(
    con: store.Connection, trainer_id: int, item_id: int, rows: Sequence[store.Setting], *, now: str
) -> store.ItemRow:
    """Keep an item's repeatable settings. SheetError names the row."""
    item = store.item(con, trainer_id, item_id)
    known = {client.id for client in store.clients(con, trainer_id)}
    messages: dict[str, Words] = {}
    for index, row in enumerate(rows):
        if not 1 <= len(row.name) <= 40:
            messages[f"setting-{index}"] = Said("a name of 1 to 40 characters, as “seat”")
        elif not 1 <= len(row.words) <= 80:
            messages[f"setting-{index}"] = Said("a value of 1 to 80 characters, as “hole 4”")
        elif row.client_id is not None and row.client_id not in known:
            messages[f"setting-{index}"] = Said("not a client of the list")
    if len(rows) > 60:
        messages["setting-0"] = Said(
            "{rows} settings are too many: at most 60", rows=Count(len(rows))
        )
    if messages:
        raise SheetError(messages)
    words = Said("{name}: settings kept", name=Name(item.name))
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="item", words=words, now=now
    ):
        store.replace_settings(con, trainer_id, item_id, rows)
    return item
