"""Everything that a trainer has, table by table, and back again."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from widearc.core.errors import InputError
from widearc.core.words import Name, Said
from widearc.store.changes import TRACKED
from widearc.store.connection import Connection, at_once
from widearc.store.schema import migrations

Cell = int | float | str | None
NUMBERS = (int, float, str, type(None))


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """The rows of a table, less whose they are; columns in the order of the rows."""

    name: str
    columns: tuple[str, ...]
    rows: tuple[tuple[Cell, ...], ...]


def schema_version() -> int:
    """Return the version of the schema that this program writes."""
    return migrations()[-1][0]


def _columns(con: Connection, table: str) -> tuple[str, ...]:
    names = (str(row["name"]) for row in con.execute(f"PRAGMA table_info({table})"))
    return tuple(name for name in names if name != "trainer_id")


def _parents_first(con: Connection) -> tuple[str, ...]:
    """Return the tables of a trainer so that each comes after those it refers to."""
    refers = {
        table: {str(r["table"]) for r in con.execute(f"PRAGMA foreign_key_list({table})")}
        & set(TRACKED) - {table}
        for table in TRACKED
    }
    ordered: list[str] = []
    while len(ordered) < len(refers):
        ordered += [
            table for table in TRACKED if table not in ordered and refers[table] <= set(ordered)
        ]
    return tuple(ordered)


def everything(con: Connection, trainer_id: int) -> tuple[Table, ...]:
    """Return every row that a trainer has, parents before what belongs to them."""
    found = []
    for table in _parents_first(con):
        columns = _columns(con, table)
        rows = con.execute(
            f"SELECT {', '.join(columns)} FROM {table} WHERE trainer_id = ? ORDER BY rowid",
            (trainer_id,),
        )
        found.append(Table(name=table, columns=columns, rows=tuple(map(tuple, rows))))
    return tuple(found)


@at_once
def replace_everything(con: Connection, trainer_id: int, tables: Sequence[Table]) -> None:
    """Put what was sent out in the place of all that a trainer has. Raises InputError with table
    and row for what does not fit; everything is as before then.

    Rows get numbers of their own here: others may have theirs.
    """
    given = {table.name: table for table in tables}
    unknown = set(given) - set(TRACKED)
    if unknown:
        raise InputError("/tables", sorted(unknown)[0], Said("a table of this program"))
    ordered = _parents_first(con)
    con.execute("PRAGMA defer_foreign_keys = ON")
    for table in reversed(ordered):
        con.execute(f"DELETE FROM {table} WHERE trainer_id = ?", (trainer_id,))
    ids: dict[str, dict[Cell, int]] = {}
    for name in ordered:
        if name in given:
            _fill(con, trainer_id, given[name], ids)


def _fill(con: Connection, trainer_id: int, table: Table, ids: dict[str, dict[Cell, int]]) -> None:
    known = _columns(con, table.name)
    odd = [column for column in table.columns if column not in known]
    if odd:
        raise InputError(
            f"/{table.name}/columns",
            odd[0],
            Said("one of {known}", known=Name(str(", ".join(known)))),
        )
    parents = _parents(con, table.name)
    free = int(con.execute(f"SELECT coalesce(max(rowid), 0) FROM {table.name}").fetchone()[0])
    own = ids.setdefault(table.name, {})
    names = ", ".join(("trainer_id", *table.columns))
    marks = ", ".join("?" * (1 + len(table.columns)))
    for index, row in enumerate(table.rows):
        where = f"/{table.name}/{index}"
        cells = _checked(where, table, row)
        if "id" in cells:
            free += 1
            own[cells["id"]] = free
            cells["id"] = free
        for column, parent in parents.items():
            if cells.get(column) is not None:
                cells[column] = _mapped(where, column, cells[column], ids.get(parent, {}))
        for column in cells.keys() & LISTS.get(table.name, ()):
            cells[column] = _mapped_list(cells.get(column), ids.get("equipment", {}))
        try:
            con.execute(
                f"INSERT INTO {table.name} ({names}) VALUES ({marks})",
                (trainer_id, *cells.values()),
            )
        except (sqlite3.Error, OverflowError) as error:
            raise InputError(
                where, str(error)[:80], Said("a row as this program sends it out")
            ) from None


LISTS: Mapping[str, tuple[str, ...]] = MappingProxyType({"decision": ("uses",), "lift": ("items",)})
"""Columns that hold the numbers of things as JSON."""


def _mapped_list(cell: Cell, ids: Mapping[Cell, int]) -> Cell:
    """Return a list of numbers as they are here; what is not in the file is left out."""
    if not isinstance(cell, str):
        return cell
    try:
        numbers = json.loads(cell)
    except ValueError:
        return cell
    listed = numbers if isinstance(numbers, list) else []
    return json.dumps([ids[n] for n in listed if isinstance(n, int) and n in ids])


def _checked(where: str, table: Table, row: Sequence[Cell]) -> dict[str, Cell]:
    if len(row) != len(table.columns):
        raise InputError(
            where,
            f"{len(row)} cells",
            Said("{columns} cells", columns=Name(str(len(table.columns)))),
        )
    for column, cell in zip(table.columns, row, strict=True):
        if not isinstance(cell, NUMBERS) or isinstance(cell, bool):
            raise InputError(f"{where}/{column}", str(cell)[:40], Said("a number, a text or null"))
    return dict(zip(table.columns, row, strict=True))


def _mapped(where: str, column: str, cell: Cell, ids: Mapping[Cell, int]) -> int:
    if cell not in ids:
        raise InputError(f"{where}/{column}", cell, Said("the number of something in this file"))
    return ids[cell]


def _parents(con: Connection, table: str) -> dict[str, str]:
    """Return which columns name a row of which other table of the trainer."""
    return dict(_references(con, table))


def _references(con: Connection, table: str) -> Iterator[tuple[str, str]]:
    for row in con.execute(f"PRAGMA foreign_key_list({table})"):
        parent = str(row["table"])
        if parent not in TRACKED:
            continue
        if row["to"] == "id":
            yield str(row["from"]), parent
        elif parent != table and (further := _parents(con, parent).get(str(row["to"]))) is not None:
            # a part of what belongs to something: whose number it carries too
            yield str(row["from"]), further
