"""Fill an empty store with the demo."""

from __future__ import annotations

from widearc import store
from widearc.core.body import Body, Limits, Sex
from widearc.demo.vessel import CLIENTS, PLACES


def load_demo(con: store.Connection, *, now: str) -> None:
    """Add the demo's clients and places for the local trainer, unless there are places already."""
    trainer = store.local_trainer(con, now=now)
    if store.places(con, trainer):
        return
    with store.transaction(con):
        for name, mass_kg, stature_m, sex, dorsiflexion_deg, hip_deg, to_shoulders_kg, no_axial in CLIENTS:
            body = Body(mass_kg=mass_kg, stature_m=stature_m, sex=Sex(sex))
            limits = Limits(dorsiflexion_deg=dorsiflexion_deg, hip_flexion_deg=hip_deg, no_axial_load=no_axial)
            store.add_client(con, trainer, name=name, body=body, limits=limits, to_shoulders_kg=to_shoulders_kg)
        for name, note, items in PLACES:
            place = store.add_place(con, trainer, name=name, note=note)
            for kind, item_name, zone, details, read in items:
                item = store.add_item(con, trainer, place, kind=kind, name=item_name, zone=zone, **details)
                rows = [store.Reading(length_m=length, force_n=force) for length, force in read]
                if rows:
                    store.replace_readings(con, trainer, item, rows)
