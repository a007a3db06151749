"""A place as its page shows it, and what is free, taken, seen and set aside there."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from widearc import store
from widearc.core.kit import Trainable, trainable_here
from widearc.core.words import Name, Said, Term
from widearc.usecases.holdings import Holdings
from widearc.usecases.room.kit import STATE_WORDS, badge_of, rules_of

PEOPLE = {"alone": "alone", "others": "others here, nobody helps", "partner": "a partner helps"}
CROWDING = {"empty": "empty", "some": "some people", "packed": "packed"}


@dataclass(frozen=True, slots=True, kw_only=True)
class RoomView:
    """A place with its equipment and badges, the trainer's other places, what it trains, and the
    last change.

    clients: the trainer's. set_aside: whom an item is set aside for, by its id.
    """

    place: store.PlaceRow
    places: tuple[store.PlaceRow, ...]
    clients: tuple[store.ClientRow, ...]
    items: tuple[store.ItemRow, ...]
    badges: Mapping[int, str]
    actions: tuple[Trainable, ...]
    change: store.Change | None
    set_aside: Mapping[int, int] = field(default_factory=dict)

    @property
    def aside(self) -> Mapping[int, str]:
        """Return for whom an item is set aside, by its id: the client's name."""
        names = {c.id: c.name for c in self.clients}
        return {item: names[client] for item, client in self.set_aside.items()}


def scope(place_id: int) -> str:
    """Return the undo scope of a place."""
    return f"place:{place_id}"


def room_view(
    con: store.Connection,
    trainer_id: int,
    place_id: int,
    client: store.ClientFacts | None = None,
    held: Holdings | None = None,
) -> RoomView:
    """Return a place's equipment, what it trains for a client, the last change; MissingError if it
    is not there. held: what has been read already.
    """
    if held is None:
        held = Holdings(con, trainer_id, errors=False)
    place, stock = held.place(place_id), held.at(place_id)
    who = client or store.ClientFacts(name="anyone")
    read = store.readings_of_place(con, trainer_id, place_id)
    return RoomView(
        place=place,
        places=held.places,
        clients=held.clients,
        items=stock.items,
        badges={item.id: badge_of(item, read.get(item.id, 0)) for item in stock.items},
        actions=trainable_here(
            stock.kit, taken=stock.taken, limits=who.limits, rules=rules_of(place, who)
        ),
        change=store.last_change(con, trainer_id, scope(place_id)),
        set_aside=store.set_asides(con, trainer_id, place_id),
    )


@store.at_once
def mark(
    con: store.Connection, trainer_id: int, item_id: int, state: store.State, *, now: str
) -> store.ItemRow:
    """Set an item free, taken or broken, recorded for undo; return it as it is now."""
    before = store.item(con, trainer_id, item_id)
    if before.state is not state:
        words = Said("{name} {state}", name=Name(before.name), state=Term(STATE_WORDS[state]))
        with store.recorded(
            con, trainer_id, scope=scope(before.place_id), kind="state", words=words, now=now
        ):
            store.set_state(con, trainer_id, [item_id], state, at=now)
    return store.item(con, trainer_id, item_id)


@store.at_once
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
    words = Said(
        "{everything} {state}",
        everything=Said("zone {zone}", zone=Name(zone)) if zone else Said("everything"),
        state=Term(STATE_WORDS[state]),
    )
    with store.recorded(con, trainer_id, scope=scope(place_id), kind="state", words=words, now=now):
        store.set_state(con, trainer_id, items, state, at=now)


@store.at_once
def see(
    con: store.Connection, trainer_id: int, item_id: int, *, seen: bool, now: str
) -> store.ItemRow:
    """Tick an item on the look-round list, or take the tick away; return it as it was."""
    item = store.item(con, trainer_id, item_id)
    words = Said("{name} seen" if seen else "{name} not seen", name=Name(item.name))
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="seen", words=words, now=now
    ):
        store.set_seen(con, trainer_id, item_id, now if seen else None)
    return item


def take_back(con: store.Connection, trainer_id: int, change_id: int, *, now: str) -> store.Change:
    """Undo a change; MissingError when it is undone already or something else changed since."""
    return store.undo(con, trainer_id, change_id, now=now)
