"""A place in a minute: what a line says is there, looked at and kept all at once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from types import MappingProxyType

from widearc import store
from widearc.core.equipment.items.line import Described
from widearc.core.words import Count, Said
from widearc.usecases.room.items import ItemFacts, add_item, change_item
from widearc.usecases.room.room import scope

STOCK = ("plate", "dumbbell", "kettlebell")

STARTS: Mapping[str, tuple[str, str]] = MappingProxyType(
    {
        "hotel": (
            "Hotel room",
            "couch, box 45, table, loops light medium, dumbbells 5 to 15 by 5",
        ),
        "living": (
            "Living room with a couch",
            "couch, loops light medium heavy, kettlebell 16, box 30, eye 8",
        ),
        "home": (
            "Home rack",
            "bar 20, plates 2×1.25 2×2.5 2×5 4×10 2×20, rack, bench 43, box 30, high bar 220, "
            "loops light medium, eyes 8 110",
        ),
        "crowded": (
            "Crowded gym",
            "bar 20, plates 4×1.25 4×2.5 4×5 4×10 6×20, dumbbells 4 to 40 by 4, rack, bench 43, "
            "box 30, box 52, leg press 45 degrees sled 40, leg extension, seated leg curl, cable",
        ),
        "studio": (
            "Studio with a sprung carriage",
            "sprung carriage, box 30, loops light medium, ball",
        ),
    }
)
"""Rooms to begin with, by id: words and the line; every value is assumed."""


@store.at_once
def keep_things(
    con: store.Connection,
    trainer_id: int,
    place_id: int,
    things: Sequence[Described],
    *,
    now: str,
) -> int:
    """Keep what was understood of a line at a place: stock of a weight that is there is counted on,
    a name that is there gets a number; return how many things. SheetError keeps nothing.
    """
    store.place(con, trainer_id, place_id)
    words = Said("{n} thing from a line", "{n} things from a line", n=Count(len(things)))
    with store.recorded(con, trainer_id, scope=scope(place_id), kind="item", words=words, now=now):
        for thing in things:
            _keep(con, trainer_id, place_id, thing, now=now)
    return len(things)


def _keep(
    con: store.Connection, trainer_id: int, place_id: int, thing: Described, *, now: str
) -> None:
    items = store.items(con, trainer_id, place_id)
    facts = ItemFacts(
        kind=thing.kind,
        name=thing.name,
        side=thing.side,
        quantities=thing.quantities,
        sources=thing.sources,
        shape=thing.shape,
    )
    same = next((i for i in items if thing.kind in STOCK and _is_same(i, thing)), None)
    if same is not None:
        count = float(same.count) + thing.quantities.get("count", 1.0)
        more = replace(
            facts,
            name=same.name,
            zone=same.zone,
            note=same.note,
            quantities={**same.quantities, "count": count},
            sources=same.sources,
        )
        change_item(con, trainer_id, same.id, more, now=now)
        return
    taken = {item.name.lower() for item in items}
    name, n = facts.name, 2
    while name.lower() in taken:
        name, n = f"{facts.name} ({n})", n + 1
    add_item(con, trainer_id, place_id, replace(facts, name=name), now=now)


def _is_same(item: store.ItemRow, thing: Described) -> bool:
    return item.kind == thing.kind and abs((item.kg or 0.0) - thing.quantities["kg"]) < 1e-6
