"""Everything that is kept, and all the SQL. May import core only; others never write SQL.

Functions take a connection and return core values or small frozen rows; they never commit inside a
caller's transaction. Every row belongs to a trainer.
"""

from widearc.store.cards import SECTIONS, card_edits, set_card_edit
from widearc.store.changes import Change, last_change, recorded, undo
from widearc.store.clients import ClientFacts, ClientRow, add_client, client, clients, remove_client, set_client
from widearc.store.connection import Connection, open_store, transaction
from widearc.store.decisions import DecisionRow, add_decision, decisions
from widearc.store.equipment import (
    BAND_COLUMNS,
    ItemRow,
    MachineReading,
    Reading,
    Setting,
    State,
    add_item,
    item,
    items,
    machine_readings,
    readings,
    readings_of_place,
    remove_item,
    replace_machine_readings,
    replace_readings,
    replace_settings,
    set_band,
    set_item,
    set_quantities,
    set_seen,
    set_state,
    settings,
)
from widearc.store.errors import StoreError
from widearc.store.favourites import (
    Favourite,
    drop_favourite,
    favourites,
    give_back,
    put_favourite,
    set_aside,
    set_asides,
)
from widearc.store.felt import FeltRow, add_felt, felt_rows
from widearc.store.intents import IntentRow, intents, put_intent, remove_intent
from widearc.store.places import PlaceFacts, PlaceRow, add_place, place, places, remove_place, set_place
from widearc.store.strength import (
    StrengthSet,
    add_strength_set,
    remove_strength_set,
    strength_set_client,
    strength_sets,
)
from widearc.store.trainers import local_trainer

__all__ = [
    "BAND_COLUMNS",
    "SECTIONS",
    "Change",
    "ClientFacts",
    "ClientRow",
    "Connection",
    "DecisionRow",
    "Favourite",
    "FeltRow",
    "IntentRow",
    "ItemRow",
    "MachineReading",
    "PlaceFacts",
    "PlaceRow",
    "Reading",
    "Setting",
    "State",
    "StoreError",
    "StrengthSet",
    "add_client",
    "add_decision",
    "add_felt",
    "add_item",
    "add_place",
    "add_strength_set",
    "card_edits",
    "client",
    "clients",
    "decisions",
    "drop_favourite",
    "favourites",
    "felt_rows",
    "give_back",
    "intents",
    "item",
    "items",
    "last_change",
    "local_trainer",
    "machine_readings",
    "open_store",
    "place",
    "places",
    "put_favourite",
    "put_intent",
    "readings",
    "readings_of_place",
    "recorded",
    "remove_client",
    "remove_intent",
    "remove_item",
    "remove_place",
    "remove_strength_set",
    "replace_machine_readings",
    "replace_readings",
    "replace_settings",
    "set_aside",
    "set_asides",
    "set_band",
    "set_card_edit",
    "set_client",
    "set_item",
    "set_place",
    "set_quantities",
    "set_seen",
    "set_state",
    "settings",
    "strength_set_client",
    "strength_sets",
    "transaction",
    "undo",
]
