"""Everything in a place as one file: wide-arc/kit, in and out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from types import MappingProxyType
from typing import Any

from widearc.core.equipment import Source, check_quantity, kind_of
from widearc.core.errors import InputError, UnknownNameError
from widearc.core.words import Distance, Force, Said, Term
from widearc.formats.documents import check


@dataclass(frozen=True, slots=True, kw_only=True)
class KitItem:
    """One item of a kit file: plain values as in the schema, quantities in SI with their
    sources.
    """

    kind: str
    name: str
    zone: str = ""
    side: str = ""
    hold: str = ""
    note: str = ""
    quantities: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    sources: Mapping[str, Source] = field(default_factory=lambda: MappingProxyType({}))
    band: Mapping[str, Any] = field(default_factory=lambda: MappingProxyType({}))
    readings: tuple[Mapping[str, float], ...] = ()
    machine_readings: tuple[Mapping[str, Any], ...] = ()
    settings: tuple[Mapping[str, str], ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class KitFile:
    """A place by its facts, and its items."""

    place: Mapping[str, Any]
    items: tuple[KitItem, ...]


def parse_kit_file(document: Any) -> KitFile:
    """Return a kit file; InputError names the JSON pointer, the value and what is allowed."""
    check(document, "kit")
    items = tuple(_item(part, f"/items/{index}") for index, part in enumerate(document["items"]))
    names: set[str] = set()
    for index, item in enumerate(items):
        if item.name.lower() in names:
            raise InputError(
                f"/items/{index}/name", item.name, Said("a name of its own for every item")
            )
        names.add(item.name.lower())
    return KitFile(place=MappingProxyType(dict(document["place"])), items=items)


def _as_now(kind: str, quantities: Mapping[str, Any]) -> Mapping[str, Any]:
    """Return quantities by their names of today: a spring's stiffness of earlier files is told by
    its pull at full travel.
    """
    if kind != "spring" or "rate_n_per_m" not in quantities:
        return quantities
    found = {name: said for name, said in quantities.items() if name != "rate_n_per_m"}
    rate, start, travel = (
        float(quantities.get(name, {}).get("value", usual))
        for name, usual in (("rate_n_per_m", 0.0), ("start_n", 0.0), ("travel_m", 1.0))
    )
    end = {**quantities["rate_n_per_m"], "value": start + rate * travel}
    return {"end_n": end, **found}


def _item(part: Mapping[str, Any], at: str) -> KitItem:
    kind = kind_of(part["kind"], f"{at}/kind")
    quantities: dict[str, float] = {}
    sources: dict[str, Source] = {}
    known = {q.name: q for q in kind.quantities}
    for name, said in _as_now(kind.id, part.get("quantities", {})).items():
        if name not in known:
            raise UnknownNameError(f"{at}/quantities/{name}", name, known)
        value = float(said["value"])
        try:
            quantities[name] = check_quantity(known[name], value, name)
        except InputError as error:
            raise InputError(
                f"{at}/quantities/{name}/value", said["value"], error.allowed
            ) from None
        sources[name] = Source(said.get("source", "described"))
    for quantity in kind.quantities:
        if quantity.name not in quantities and quantity.usual is None and not quantity.optional:
            raise InputError(
                f"{at}/quantities/{quantity.name}",
                None,
                Said("this is needed for {words}", words=Term(kind.words)),
            )
        if quantity.name not in quantities and quantity.usual is not None:
            quantities[quantity.name], sources[quantity.name] = quantity.usual, Source.ASSUMED
    if (kind.id == "band") != ("band" in part):
        raise InputError(
            f"{at}/band", part.get("band"), Said("given for a band, and for nothing else")
        )
    if kind.id != "band" and part.get("readings"):
        raise InputError(
            f"{at}/readings", f"{len(part['readings'])} readings", Said("none: these are a band's")
        )
    _check_readings(part.get("readings", []), at)
    days = [(f"{at}/band/looked_over_on", part.get("band", {}).get("looked_over_on"))]
    days += [
        (f"{at}/machine_readings/{i}/read_on", row.get("read_on"))
        for i, row in enumerate(part.get("machine_readings", []))
    ]
    for where, day in days:
        _check_day(where, day)
    return KitItem(
        kind=kind.id,
        name=" ".join(part["name"].split()) or part["name"],
        zone=part.get("zone", ""),
        side=part.get("side", ""),
        hold=part.get("hold", "eye" if kind.id == "anchor" else ""),
        note=part.get("note", ""),
        quantities=MappingProxyType(quantities),
        sources=MappingProxyType(sources),
        band=MappingProxyType(
            {"rest_m": None, "law": "best", "back_share": None, "looked_over_on": None}
            | part["band"]
        )
        if "band" in part
        else MappingProxyType({}),
        readings=tuple(part.get("readings", ())),
        machine_readings=tuple(part.get("machine_readings", ())),
        settings=tuple(part.get("settings", ())),
    )


def _check_readings(rows: Sequence[Mapping[str, float]], at: str) -> None:
    for index in range(1, len(rows)):
        before, row = rows[index - 1], rows[index]
        if row["length_m"] <= before["length_m"]:
            allowed = Said(
                "longer than the reading before, {distance}", distance=Distance(before["length_m"])
            )
            raise InputError(f"{at}/readings/{index}/length_m", row["length_m"], allowed)
        if row["force_n"] < before["force_n"]:
            allowed = Said(
                "not less than the reading before, {force}", force=Force(before["force_n"])
            )
            raise InputError(f"{at}/readings/{index}/force_n", row["force_n"], allowed)


def _check_day(where: str, day: str | None) -> None:
    if day is None:
        return
    try:
        date.fromisoformat(day)
    except ValueError:
        raise InputError(where, day, Said("a day that exists, year-month-day")) from None


def kit_document(kit: KitFile) -> dict[str, Any]:
    """Return the wide-arc/kit document of a kit, checked by its schema."""
    document = {
        "format": "wide-arc/kit",
        "version": 1,
        "place": dict(kit.place),
        "items": [_item_document(item) for item in kit.items],
    }
    check(document, "kit")
    return document


def _item_document(item: KitItem) -> dict[str, Any]:
    part: dict[str, Any] = {"kind": item.kind, "name": item.name}
    part |= {
        name: getattr(item, name)
        for name in ("zone", "side", "hold", "note")
        if getattr(item, name)
    }
    if item.quantities:
        part["quantities"] = {
            name: {"value": value, "source": item.sources.get(name, Source.DESCRIBED).value}
            for name, value in item.quantities.items()
        }
    if item.band:
        part["band"] = dict(item.band)
    for name in ("readings", "machine_readings", "settings"):
        if getattr(item, name):
            part[name] = [dict(row) for row in getattr(item, name)]
    return part
