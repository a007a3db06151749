"""The sheets of a place and of an item: their fields, and what they say."""

from __future__ import annotations

from typing import Any

from werkzeug.datastructures import MultiDict
from wtforms.fields.core import UnboundField

from widearc import store, usecases
from widearc.core.equipment import ItemKind, Quantity, Source
from widearc.usecases.room.items import HOLDS, SIDES
from widearc.usecases.room.room import CROWDING, PEOPLE
from widearc.web.forms.fields import ChoiceField, QuantityField, Sheet, TextField, TickField

PLACE: dict[str, UnboundField] = {
    "name": TextField("Name"),
    "note": TextField("What it is"),
    "people": ChoiceField("People", choices=PEOPLE, usual="alone"),
    "crowding": ChoiceField("Crowding", choices=CROWDING, usual="some"),
    "wall": TickField("A free wall"),
    "floor_width_m": QuantityField("Free floor, width", unit="m"),
    "floor_length_m": QuantityField("Free floor, length", unit="m"),
}
SOURCES = {source: source for source in ("measured", "described", "assumed")}
SHAPES = {"loop": "loop (two strands)", "long": "long band (one strand)"}
ITEM: dict[str, UnboundField] = {
    "name": TextField("Name"),
    "zone": TextField("Zone"),
    "shape": ChoiceField("Made as", choices=SHAPES, usual="loop"),
    "side": ChoiceField("Side", choices=SIDES | {"": "not said"}),
    "hold": ChoiceField("Held by", choices=HOLDS),
    "note": TextField("Note"),
}


def place_sheet(row: store.PlaceRow | None, typed: MultiDict[str, str] | None = None) -> Sheet:
    """Return the sheet of a place: what was typed, else what is kept, else an empty one."""
    if row is None:
        return Sheet(PLACE, typed, {"wall": True, "people": "alone", "crowding": "some"})
    return Sheet(PLACE, typed, {name: getattr(row, name) for name in PLACE})


def place_facts(sheet: Sheet) -> store.PlaceFacts:
    """Return a place as its sheet says. Raises SheetError where a field was refused."""
    sheet.settled()
    return store.PlaceFacts(
        name=" ".join(sheet.value("name").split()),
        note=sheet.value("note").strip(),
        people=sheet.value("people"),
        crowding=sheet.value("crowding"),
        wall=sheet.value("wall"),
        floor_width_m=sheet.value("floor_width_m"),
        floor_length_m=sheet.value("floor_length_m"),
    )


def _number(quantity: Quantity) -> UnboundField:
    """Return the field that a kind's number is typed in; its range is refused by who keeps it."""
    return QuantityField(quantity.words, unit=quantity.unit, per=quantity.per, stamped=True)


class SourceField(ChoiceField):
    """Where a number is from: as it is kept where it is not asked."""

    def process_formdata(self, valuelist: list[str]) -> None:
        """Take the value that was sent, else leave what is kept."""
        if valuelist:
            self.data = valuelist[0]


def item_sheet(
    kind: ItemKind, typed: MultiDict[str, str] | None, kept: dict[str, Any] | None = None
) -> Sheet:
    """Return the sheet of an item of a kind: what was typed, else what is kept."""
    numbers = {q.name: _number(q) for q in kind.quantities}
    sources = {
        f"{q.name}-source": SourceField(f"{q.words}: where it is from", choices=SOURCES)
        for q in kind.quantities
    }
    return Sheet(ITEM | numbers | sources, typed, kept)


def kept_item(
    row: store.ItemRow, kind: ItemKind, typed: MultiDict[str, str] | None = None
) -> Sheet:
    """Return the sheet of an item: what was typed, else what is kept."""
    kept = {name: getattr(row, name) for name in ("name", "zone", "side", "hold", "note")}
    sources = {
        f"{q.name}-source": row.sources.get(q.name, Source.DESCRIBED).value for q in kind.quantities
    }
    return item_sheet(kind, typed, kept | dict(row.quantities) | sources)


def item_facts(kind: ItemKind, sheet: Sheet) -> usecases.ItemFacts:
    """Return an item as its sheet says; a source that is none of them counts as described."""
    quantities = sheet.quantities(q.name for q in kind.quantities)
    said = {name: sheet.value(f"{name}-source") for name in quantities}
    known = {source.value for source in Source}
    return usecases.ItemFacts(
        kind=kind.id,
        name=sheet.value("name"),
        zone=sheet.value("zone"),
        side=sheet.value("side"),
        hold=sheet.value("hold"),
        note=sheet.value("note"),
        quantities=quantities,
        sources={
            name: Source(source) if source in known else Source.DESCRIBED
            for name, source in said.items()
        },
        shape=sheet.value("shape"),
    )
