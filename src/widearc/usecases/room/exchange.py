"""A place's kit out to a file and in from one: previewed, all or nothing, undone as one change."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from types import MappingProxyType
from typing import Any

from widearc import store
from widearc.core.errors import InputError
from widearc.core.words import Count, Name, Said
from widearc.formats import KitFile, KitItem, kit_document, parse_kit_file
from widearc.usecases.room.items import MOST_ITEMS
from widearc.usecases.room.room import scope


def export_kit(con: store.Connection, trainer_id: int, place_id: int) -> dict[str, Any]:
    """Return a place's kit as a wide-arc/kit document; what is free or taken, and clients'
    settings, stay here.
    """
    place = store.place(con, trainer_id, place_id)
    facts = {k: v for k, v in asdict(place).items() if k != "id"}
    items = tuple(
        _as_item(con, trainer_id, item) for item in store.items(con, trainer_id, place_id)
    )
    return kit_document(KitFile(place=facts, items=items))


def _as_item(con: store.Connection, trainer_id: int, item: store.ItemRow) -> KitItem:
    band = {c: getattr(item, c) for c in store.BAND_COLUMNS} if item.kind == "band" else {}
    return KitItem(
        kind=item.kind,
        name=item.name,
        zone=item.zone,
        side=item.side,
        hold=item.hold,
        note=item.note,
        quantities=item.quantities,
        sources=item.sources,
        band=MappingProxyType(band),
        readings=tuple(
            {"length_m": r.length_m, "force_n": r.force_n}
            for r in store.readings(con, trainer_id, item.id)
        ),
        machine_readings=tuple(asdict(r) for r in store.machine_readings(con, trainer_id, item.id)),
        settings=tuple(
            {"name": s.name, "words": s.words}
            for s in store.settings(con, trainer_id, item.id)
            if s.client_id is None
        ),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class ImportPlan:
    """What an import would do: items that are new, that change (with what differs), and that are
    here already.
    """

    kit: KitFile
    new: tuple[KitItem, ...]
    changed: tuple[tuple[KitItem, int, tuple[str, ...]], ...]
    same: tuple[KitItem, ...]


_WORDS: Mapping[str, str] = MappingProxyType(
    {
        "zone": "zone",
        "side": "side",
        "hold": "what holds it",
        "note": "note",
        "quantities": "numbers",
        "sources": "where numbers are from",
        "band": "how it was measured",
        "readings": "readings",
        "machine_readings": "readings",
        "settings": "settings",
    }
)


def plan_import(con: store.Connection, trainer_id: int, place_id: int, document: Any) -> ImportPlan:
    """Return what an import of a wide-arc/kit document would change; nothing is kept.

    An item of the same kind and name is recognised; one of the same name and another kind is
    refused. Raises InputError with the JSON pointer.
    """
    kit = parse_kit_file(document)
    here = {item.name.lower(): item for item in store.items(con, trainer_id, place_id)}
    new: list[KitItem] = []
    changed: list[tuple[KitItem, int, tuple[str, ...]]] = []
    same: list[KitItem] = []
    for index, item in enumerate(kit.items):
        known = here.get(item.name.lower())
        if known is None:
            new.append(item)
            continue
        if known.kind != item.kind:
            raise InputError(
                f"/items/{index}/kind",
                item.kind,
                Said("{kind}, as {name} is here", kind=Name(known.kind), name=Name(known.name)),
            )
        differs = _differences(item, _as_item(con, trainer_id, known))
        if differs:
            changed.append((item, known.id, differs))
        else:
            same.append(item)
    if len(here) + len(new) > MOST_ITEMS:
        raise InputError(
            "/items",
            f"{len(new)} new items",
            Said(
                "at most {most} in a place, {here} are here",
                most=Count(MOST_ITEMS),
                here=Count(len(here)),
            ),
        )
    return ImportPlan(kit=kit, new=tuple(new), changed=tuple(changed), same=tuple(same))


def _comparable(name: str, value: Any) -> Any:
    if isinstance(value, Mapping):
        return dict(value)
    if not isinstance(value, tuple):
        return value
    return [_full(row) if name == "machine_readings" else dict(row) for row in value]


def _differences(new: KitItem, old: KitItem) -> tuple[str, ...]:
    found = []
    for name, words in _WORDS.items():
        first, second = (_comparable(name, getattr(item, name)) for item in (new, old))
        if first != second and words not in found:
            found.append(words)
    return tuple(found)


def _full(row: Mapping[str, Any]) -> dict[str, Any]:
    return asdict(store.MachineReading(**row))


@store.at_once
def import_kit(
    con: store.Connection, trainer_id: int, place_id: int, document: Any, *, now: str
) -> ImportPlan:
    """Bring a kit file into a place: new items added, known ones made as in the file; return what
    was done.

    All of it or nothing, one change to undo. Settings of single clients and what is in use stay as
    they are.
    """
    plan = plan_import(con, trainer_id, place_id, document)
    words = Said(
        "{new} added and {changed} changed from a file",
        new=Count(len(plan.new)),
        changed=Count(len(plan.changed)),
    )
    with store.recorded(
        con, trainer_id, scope=scope(place_id), kind="import", words=words, now=now
    ):
        for item in plan.new:
            _fill(con, trainer_id, _add(con, trainer_id, place_id, item), item)
        for item, item_id, _ in plan.changed:
            store.set_item(
                con,
                trainer_id,
                item_id,
                name=item.name,
                zone=item.zone,
                side=item.side,
                hold=item.hold,
                note=item.note,
            )
            store.set_quantities(con, trainer_id, item_id, item.quantities, item.sources)
            if item.band:
                store.set_band(con, trainer_id, item_id, **item.band)
            _fill(con, trainer_id, item_id, item)
    return plan


def _add(con: store.Connection, trainer_id: int, place_id: int, item: KitItem) -> int:
    return store.add_item(
        con,
        trainer_id,
        place_id,
        kind=item.kind,
        name=item.name,
        zone=item.zone,
        side=item.side,
        hold=item.hold,
        note=item.note,
        quantities=item.quantities,
        sources=item.sources,
        **item.band,
    )


def _fill(con: store.Connection, trainer_id: int, item_id: int, item: KitItem) -> None:
    rows = [store.Reading(length_m=r["length_m"], force_n=r["force_n"]) for r in item.readings]
    store.replace_readings(con, trainer_id, item_id, rows)
    store.replace_machine_readings(
        con, trainer_id, item_id, [store.MachineReading(**r) for r in item.machine_readings]
    )
    own = [s for s in store.settings(con, trainer_id, item_id) if s.client_id is not None]
    everyone = [store.Setting(name=s["name"], words=s["words"]) for s in item.settings]
    store.replace_settings(con, trainer_id, item_id, [*everyone, *own])
