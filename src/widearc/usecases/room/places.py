"""Places: new, changed, copied, removed."""

from __future__ import annotations

from widearc import store
from widearc.core.errors import one_of
from widearc.core.words import Count, Distance, Name, Said, Term, Words
from widearc.usecases.room.items import _copy, _free_name
from widearc.usecases.room.room import CROWDING, PEOPLE, scope
from widearc.usecases.sheet import SheetError


def _check_place(
    con: store.Connection, trainer_id: int, facts: store.PlaceFacts, own: int | None
) -> None:
    messages: dict[str, Words] = {}
    if not 1 <= len(facts.name) <= 80:
        messages["name"] = Said("a name of 1 to 80 characters")
    elif any(
        p.name.lower() == facts.name.lower() and p.id != own for p in store.places(con, trainer_id)
    ):
        messages["name"] = Said(
            "“{name}” is a place already: choose another name", name=Name(facts.name)
        )
    if len(facts.note) > 300:
        messages["note"] = Said(
            "{note} characters are too many: at most 300", note=Count(len(facts.note))
        )
    if facts.people not in PEOPLE:
        messages["people"] = Said(
            "{people} is not kept: {allowed}",
            people=Name(facts.people[:20]),
            allowed=one_of(PEOPLE),
        )
    if facts.crowding not in CROWDING:
        messages["crowding"] = Said(
            "{crowding} is not kept: {allowed}",
            crowding=Name(facts.crowding[:20]),
            allowed=one_of(CROWDING),
        )
    for name, most in (("floor_width_m", 50.0), ("floor_length_m", 100.0)):
        value = getattr(facts, name)
        if value is not None and not 0.3 <= value <= most:
            messages[name] = Said(
                "{distance} is not kept: from 0.3 to {distance_2}",
                distance=Distance(value),
                distance_2=Distance(most),
            )
    if messages:
        raise SheetError(messages)


@store.at_once
def new_place(con: store.Connection, trainer_id: int, facts: store.PlaceFacts, *, now: str) -> int:
    """Add a place; return its id. SheetError with a message per field."""
    _check_place(con, trainer_id, facts, None)
    with store.recorded(
        con,
        trainer_id,
        scope="places",
        kind="place",
        words=Said("{name} added", name=Name(facts.name)),
        now=now,
    ):
        return store.add_place(con, trainer_id, facts)


@store.at_once
def change_place(
    con: store.Connection, trainer_id: int, place_id: int, facts: store.PlaceFacts, *, now: str
) -> None:
    """Change what is said of a place: name, people, space, crowding. SheetError with a message per
    field.
    """
    store.place(con, trainer_id, place_id)
    _check_place(con, trainer_id, facts, place_id)
    words = Said(
        "{name}: {crowding}, {people}",
        name=Name(facts.name),
        crowding=Term(CROWDING[facts.crowding]),
        people=Term(PEOPLE[facts.people]),
    )
    with store.recorded(con, trainer_id, scope=scope(place_id), kind="place", words=words, now=now):
        store.set_place(con, trainer_id, place_id, facts)


@store.at_once
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
    words = Said("{name} added, as {name_2}", name=Name(name), name_2=Name(place.name))
    with store.recorded(con, trainer_id, scope="places", kind="place", words=words, now=now):
        new = store.add_place(con, trainer_id, facts)
        for item in store.items(con, trainer_id, place_id):
            _copy(con, trainer_id, item, new, item.name)
    return new


@store.at_once
def remove_place(
    con: store.Connection, trainer_id: int, place_id: int, *, now: str
) -> store.PlaceRow:
    """Remove a place with everything in it and the decisions kept there; return it. Undo brings all
    of it back.
    """
    place = store.place(con, trainer_id, place_id)
    with store.recorded(
        con,
        trainer_id,
        scope="places",
        kind="place",
        words=Said("{name} removed", name=Name(place.name)),
        now=now,
    ):
        store.remove_place(con, trainer_id, place_id)
    return place
