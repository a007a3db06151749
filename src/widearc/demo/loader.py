"""Fill an empty store with the demo."""

from __future__ import annotations

from dataclasses import replace

from widearc import store
from widearc.demo.vessel import CLIENTS, INTENTS, PLACES, PLANNED


def load_demo(con: store.Connection, *, now: str) -> None:
    """Add the demo's clients and places for the local trainer, unless there are places already."""
    trainer = store.local_trainer(con, now=now)
    if store.places(con, trainer):
        return
    with store.transaction(con):
        clients = [store.add_client(con, trainer, facts) for facts in CLIENTS]
        for name, intent in INTENTS:
            store.put_intent(con, trainer, name, intent, now=now)
        places = []
        for place_facts, items in PLACES:
            place = store.add_place(con, trainer, place_facts)
            places.append(place)
            for made in items:
                item = store.add_item(
                    con,
                    trainer,
                    place,
                    kind=made.kind,
                    name=made.name,
                    zone=made.zone,
                    side=made.side,
                    hold=made.hold,
                    quantities=made.quantities,
                    sources=made.sources,
                    **made.band,
                )
                if made.read:
                    rows = [
                        store.Reading(length_m=length, force_n=force) for length, force in made.read
                    ]
                    store.replace_readings(con, trainer, item, rows)
                if made.machine_read:
                    store.replace_machine_readings(con, trainer, item, made.machine_read)
                if made.settings:
                    rows_set = [
                        store.Setting(name=name, words=words) for name, words in made.settings
                    ]
                    store.replace_settings(con, trainer, item, rows_set)
        for row in PLANNED:
            place, client = places[row.place_id], clients[row.client_id]
            monday = store.monday_of(now)
            store.put_planned(
                con, trainer, replace(row, place_id=place, client_id=client, monday=monday)
            )
