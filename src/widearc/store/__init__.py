"""Everything that is kept, and all the SQL. May import core only; others never write SQL.

Functions take a connection and return core values or small frozen rows; they never commit inside a
caller's transaction. Every row belongs to a trainer.
"""

from widearc.store.cards import SECTIONS, card_edits, set_card_edit
from widearc.store.changes import (
    Change,
    last_card_change,
    last_change,
    record_card,
    record_decision,
    record_readings,
    record_state,
    undo,
)
from widearc.store.clients import ClientRow, add_client, client, clients
from widearc.store.connection import Connection, open_store, transaction
from widearc.store.decisions import DecisionRow, add_decision, decisions
from widearc.store.equipment import (
    ItemRow,
    Reading,
    State,
    add_item,
    item,
    items,
    readings,
    replace_readings,
    set_band,
    set_state,
)
from widearc.store.errors import StoreError
from widearc.store.places import PlaceRow, add_place, place, places
from widearc.store.trainers import local_trainer

__all__ = [
    "SECTIONS",
    "Change",
    "ClientRow",
    "Connection",
    "DecisionRow",
    "ItemRow",
    "PlaceRow",
    "Reading",
    "State",
    "StoreError",
    "add_client",
    "add_decision",
    "add_item",
    "add_place",
    "card_edits",
    "client",
    "clients",
    "decisions",
    "item",
    "items",
    "last_card_change",
    "last_change",
    "local_trainer",
    "open_store",
    "place",
    "places",
    "readings",
    "record_card",
    "record_decision",
    "record_readings",
    "record_state",
    "replace_readings",
    "set_band",
    "set_card_edit",
    "set_state",
    "transaction",
    "undo",
]
