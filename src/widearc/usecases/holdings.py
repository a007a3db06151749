"""What a page or a use case reads of a trainer."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cached_property
from typing import TypeVar

from widearc import store
from widearc.core.words import Count, Name, Said
from widearc.store.errors import MissingError
from widearc.usecases.client.over_time import all_sets
from widearc.usecases.room.kit import Stock, stock_of


class Holdings:
    """What is kept of a trainer, for pages and use cases to read.

    Places, clients and the stock of each place are read when first asked for and not again: one of
    these is for one answer, between two writes.
    """

    def __init__(self, con: store.Connection, trainer_id: int, *, errors: bool = True) -> None:
        self._con, self._trainer_id, self._errors = con, trainer_id, errors
        self._kept: dict[int, Stock] = {}
        self._sets: dict[int, tuple[store.StrengthSet, ...]] = {}

    @cached_property
    def places(self) -> tuple[store.PlaceRow, ...]:
        """Return every place."""
        return store.places(self._con, self._trainer_id)

    @cached_property
    def clients(self) -> tuple[store.ClientRow, ...]:
        """Return every client."""
        return store.clients(self._con, self._trainer_id)

    def place(self, place_id: int) -> store.PlaceRow:
        """Return a place; MissingError if it is not there."""
        return _one("place", place_id, self.places)

    def client(self, client_id: int) -> store.ClientRow:
        """Return a client; MissingError if there is none."""
        return _one("client", client_id, self.clients)

    def at(self, place_id: int) -> Stock:
        """Return the stock of a place."""
        if place_id not in self._kept:
            self._kept[place_id] = stock_of(
                self._con, self._trainer_id, place_id, errors=self._errors
            )
        return self._kept[place_id]

    def items(self, place_id: int) -> tuple[store.ItemRow, ...]:
        """Return a place's items, without the kit they make."""
        return store.items(self._con, self._trainer_id, place_id)

    def item(self, item_id: int) -> store.ItemRow:
        """Return an item; MissingError if there is none."""
        return store.item(self._con, self._trainer_id, item_id)

    def settings(self, item_id: int) -> tuple[store.Setting, ...]:
        """Return what to set an item to, for whom."""
        return store.settings(self._con, self._trainer_id, item_id)

    def settings_at(self, place_id: int) -> Mapping[int, tuple[store.Setting, ...]]:
        """Return what the items of a place are set to, by their id."""
        return store.settings_of_place(self._con, self._trainer_id, place_id)

    def readings_of(self, place_id: int) -> dict[int, int]:
        """Return how many readings each item of a place has, by its id."""
        return store.readings_of_place(self._con, self._trainer_id, place_id)

    def strength_sets(self, client_id: int) -> tuple[store.StrengthSet, ...]:
        """Return a client's sets that were done."""
        if client_id not in self._sets:
            self._sets[client_id] = all_sets(self._con, self._trainer_id, client_id)
        return self._sets[client_id]

    @property
    def intents(self) -> tuple[store.IntentRow, ...]:
        """Return the intents that are kept."""
        return store.intents(self._con, self._trainer_id)

    @property
    def decisions(self) -> tuple[store.DecisionRow, ...]:
        """Return the last decisions."""
        return store.decisions(self._con, self._trainer_id)

    def changes(self, most: int) -> tuple[store.Told, ...]:
        """Return what was changed, newest first, at most so many."""
        return store.told_changes(self._con, self._trainer_id, most)

    def last_change(self, scope: str) -> store.Change | None:
        """Return the last change of a scope that can be taken back."""
        return store.last_change(self._con, self._trainer_id, scope)


Row = TypeVar("Row", store.PlaceRow, store.ClientRow)


def _one(what: str, id_: int, rows: Sequence[Row]) -> Row:
    found = next((row for row in rows if row.id == id_), None)
    if found is None:
        raise MissingError(
            Said("{what} {id_} does not exist here", what=Name(what), id_=Count(id_))
        )
    return found
