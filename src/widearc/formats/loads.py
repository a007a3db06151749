"""Loads of every kind as documents: read, written and their schema, side by side, from the kind's
own fields. A new kind needs nothing here; a new sort of field needs a line in each table.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.body import PORTS
from widearc.core.equipment import LOADS, Choice, Law, Load, Number, Point, Port, Table, Tie
from widearc.core.errors import InputError
from widearc.core.words import Name, Said
from widearc.formats.laws import law_part, parse_law

Part = Mapping[str, Any]
MOST_ROWS = 200  # of a table


def parse_load(part: Part, where: str, ports: tuple[str, ...]) -> Load:
    """Return the load of a checked document part; ports: the exercise's. Errors under `where`."""
    kind = LOADS[part["kind"]]
    values: dict[str, Any] = {}
    try:
        for item in kind.FIELDS:
            values |= _READ[type(item)](item, part, ports)
        return kind.of(**values)
    except InputError as error:
        raise error.at(f"{where}/{error.where.lstrip('/')}") from None


def load_part(load: Load) -> dict[str, Any]:
    """Return one load of a single set-up as its document part."""
    part: dict[str, Any] = {"kind": load.kind}
    for item in load.FIELDS:
        part |= _WRITE[type(item)](item, load)
    return part


def load_schema() -> dict[str, Any]:
    """Return the schema of a load: a branch for each kind."""
    branches = []
    for name, kind in LOADS.items():
        properties: dict[str, Any] = {"kind": {"const": name}}
        required = ["kind"]
        for item in kind.FIELDS:
            more, needed = _SCHEMA[type(item)](item)
            properties |= more
            required += needed
        branches.append(
            {
                "if": {"properties": {"kind": {"const": name}}, "required": ["kind"]},
                "then": {
                    "type": "object",
                    "properties": properties,
                    "required": required,
                    "additionalProperties": False,
                },
            }
        )
    kinds = {"kind": {"enum": list(LOADS)}}
    return {"type": "object", "required": ["kind"], "properties": kinds, "allOf": branches}


def one(value: Any) -> float:
    """Return the one number of a single set-up, with six digits."""
    return round(float(np.asarray(value, dtype=float).ravel()[0]), 6)


def _read_number(item: Number, part: Part, _: tuple[str, ...]) -> dict[str, Any]:
    if item.name in part:
        return {item.name: float(part[item.name])}
    return {item.name: None if item.optional else item.default}


def _write_number(item: Number, load: Load) -> dict[str, Any]:
    value = load.value(item.name)
    if value is None or (item.quiet and np.all(np.asarray(value) == item.default)):
        return {}
    return {item.name: int(one(value)) if item.whole else one(value)}


def _number_schema(item: Number) -> tuple[dict[str, Any], list[str]]:
    least = max(item.low, 1) if item.whole else item.low
    own: dict[str, Any] = {"type": "integer" if item.whole else "number"}
    own |= {"minimum": least, "maximum": item.high} | _said(item.said)
    return {item.name: own}, [] if item.optional or item.default is not None else [item.name]


def _read_port(item: Port, part: Part, ports: tuple[str, ...]) -> dict[str, Any]:
    port, other = part.get(item.name), part.get(item.alias)
    if port is not None and other is not None and port != other:
        allowed = Said(
            "the same as {alias}, {other}, or only one of them",
            alias=Name(str(item.alias)),
            other=Name(str(other)),
        )
        raise InputError(item.name, port, allowed)
    return {item.name: port or other or item.default or (ports or ("",))[0]}


def _port_schema(item: Port) -> tuple[dict[str, Any], list[str]]:
    ports: dict[str, Any] = {"enum": list(PORTS)}
    own = {item.name: ports | _said(item.said)}
    if item.alias:
        own[item.alias] = {**ports, "description": f"the same as {item.name}"}
    return own, [] if item.optional else [item.name]


def _read_point(item: Point, part: Part, _: tuple[str, ...]) -> dict[str, Any]:
    there = part.get(item.name)
    return {item.name: None if there is None else (float(there["x_m"]), float(there["y_m"]))}


def _write_point(item: Point, load: Load) -> dict[str, Any]:
    there = load.value(item.name)
    return {} if there is None else {item.name: {"x_m": one(there[0]), "y_m": one(there[1])}}


def _point_schema(item: Point) -> tuple[dict[str, Any], list[str]]:
    axes = {axis.name: _number_schema(axis)[0][axis.name] for axis in (item.x, item.y)}
    own = {
        "type": "object",
        "properties": axes,
        "required": list(axes),
        "additionalProperties": False,
    }
    return {item.name: own}, [] if item.optional else [item.name]


def _read_tie(item: Tie, part: Part, _: tuple[str, ...]) -> dict[str, Any]:
    there = part[item.name]
    if "port" in there:
        return {item.name: None, f"{item.name}_port": there["port"]}
    return {item.name: (there["x_m"], there["y_m"], there.get("z_m", 0.0))}


def _write_tie(item: Tie, load: Load) -> dict[str, Any]:
    there = load.fixed_at
    if there is None:
        return {item.name: {"port": load.other_port}}
    x, y, z = map(one, there)
    return {item.name: {"x_m": x, "y_m": y, "z_m": z}}


def _read_choice(item: Choice, part: Part, _: tuple[str, ...]) -> dict[str, Any]:
    return {item.name: part.get(item.name, item.default)}


def _write_choice(item: Choice, load: Load) -> dict[str, Any]:
    value = load.value(item.name)
    return {} if not item.key and value == item.default else {item.name: value}


def _read_table(item: Table, part: Part, _: tuple[str, ...]) -> dict[str, Any]:
    return {c.name: tuple(float(v) for v in part[item.name][c.name]) for c in item.columns}


def _write_table(item: Table, load: Load) -> dict[str, Any]:
    return {item.name: {c.name: list(load.value(c.name)) for c in item.columns}}


def _table_schema(item: Table) -> tuple[dict[str, Any], list[str]]:
    columns = {
        c.name: {
            "type": "array",
            "items": {"type": "number", "minimum": c.low, "maximum": c.high},
            "minItems": 1,
            "maxItems": MOST_ROWS,
        }
        for c in item.columns
    }
    own = {
        "type": "object",
        "properties": columns,
        "required": list(columns),
        "additionalProperties": False,
    }
    return {item.name: own}, [item.name]


def _shared(name: str, definition: str) -> tuple[dict[str, Any], list[str]]:
    return {name: {"$ref": f"urn:wide-arc:common:1#/$defs/{definition}"}}, [name]


def _said(words: str) -> dict[str, str]:
    return {"description": words} if words else {}


_READ: Mapping[type, Callable[[Any, Part, tuple[str, ...]], dict[str, Any]]] = MappingProxyType(
    {
        Number: _read_number,
        Port: _read_port,
        Point: _read_point,
        Tie: _read_tie,
        Choice: _read_choice,
        Table: _read_table,
        Law: lambda item, part, _: {item.name: parse_law(part[item.name], item.name)},
    }
)
_WRITE: Mapping[type, Callable[[Any, Load], dict[str, Any]]] = MappingProxyType(
    {
        Number: _write_number,
        Port: lambda item, load: {item.name: load.value(item.name)},
        Point: _write_point,
        Tie: _write_tie,
        Choice: _write_choice,
        Table: _write_table,
        Law: lambda item, load: {item.name: law_part(load.value(item.name))},
    }
)
_SCHEMA: Mapping[type, Callable[[Any], tuple[dict[str, Any], list[str]]]] = MappingProxyType(
    {
        Number: _number_schema,
        Port: _port_schema,
        Point: _point_schema,
        Tie: lambda item: _shared(item.name, "anchor"),
        Choice: lambda item: ({item.name: {"enum": [v for v, _ in item.choices]}}, []),
        Table: _table_schema,
        Law: lambda item: _shared(item.name, "band_law"),
    }
)
