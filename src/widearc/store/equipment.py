"""Equipment of a place: what it is, its quantities with their sources, its state, readings and
settings.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from enum import Enum
from types import MappingProxyType
from typing import Any

from widearc.core.equipment import Source
from widearc.core.words import Name, Said
from widearc.store.connection import Connection
from widearc.store.errors import MissingError


class State(Enum):
    """Whether an item can be used now."""

    FREE = "free"
    TAKEN = "taken"
    BROKEN = "broken"


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """One reading of a band as it was pulled: length m, pull N of all strands on the scale."""

    length_m: float
    force_n: float


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineReading:
    """One reading of a machine, or a check reading of anything.

    at: what the kind is read at (m of travel, degrees, kg; m of length for a band); force N; arm m
    from the pivot to the scale; direction push or return; setting: the dial or stack it was read
    at.
    """

    at: float
    force_n: float
    purpose: str = "fit"
    setting: str = ""
    arm_m: float | None = None
    direction: str | None = None
    read_on: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Setting:
    """A repeatable setting: seat, pad, dial; client_id None: for everyone."""

    name: str
    words: str
    client_id: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ItemRow:
    """One item. quantities by name in SI (degrees for angles), sources likewise; a band's columns
    last.
    """

    id: int
    place_id: int
    kind: str
    name: str
    zone: str
    state: State
    state_at: str | None
    seen_at: str | None = None
    side: str = ""
    hold: str = ""
    note: str = ""
    quantities: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    sources: Mapping[str, Source] = field(default_factory=lambda: MappingProxyType({}))
    shape: str | None = None
    strands: int | None = None
    rest_m: float | None = None
    law: str | None = None
    back_share: float | None = None
    looked_over_on: str | None = None

    @property
    def key(self) -> str:
        """Return the item's id in a kit."""
        return f"item-{self.id}"

    @property
    def kg(self) -> float | None:
        """Return the mass of one piece, kg."""
        return self.quantities.get("kg")

    @property
    def count(self) -> int:
        """Return how many there are; one where nothing is said."""
        return int(self.quantities.get("count", 1))

    @property
    def height_m(self) -> float | None:
        """Return the height over the floor, m."""
        return self.quantities.get("height_m")


BAND_COLUMNS = ("shape", "strands", "rest_m", "law", "back_share", "looked_over_on")
_ITEM_COLUMNS = (
    "id",
    "place_id",
    "kind",
    "name",
    "zone",
    "state",
    "state_at",
    "seen_at",
    "side",
    "hold",
    "note",
)
_SELECT = f"""
    SELECT {", ".join(f"e.{c}" for c in _ITEM_COLUMNS)}, {", ".join(f"b.{c}" for c in BAND_COLUMNS)}
    FROM equipment e LEFT JOIN band b ON b.equipment_id = e.id
"""


def _rows(con: Connection, where: str, values: tuple[int, ...]) -> tuple[ItemRow, ...]:
    quantities: dict[int, dict[str, float]] = {}
    sources: dict[int, dict[str, Source]] = {}
    known = {source.value: source for source in Source}
    for row in con.execute(
        f"""SELECT q.equipment_id, q.name, q.value, q.source FROM quantity q
            JOIN equipment e ON e.id = q.equipment_id WHERE {where}""",
        values,
    ):
        quantities.setdefault(row[0], {})[row[1]] = row[2]
        sources.setdefault(row[0], {})[row[1]] = known[row[3]]
    found = con.execute(f"{_SELECT} WHERE {where} ORDER BY e.id", values)
    states = {state.value: state for state in State}
    return tuple(
        ItemRow(
            **(dict(row) | {"state": states[row["state"]]}),
            quantities=MappingProxyType(quantities.get(row["id"], {})),
            sources=MappingProxyType(sources.get(row["id"], {})),
        )
        for row in found
    )


def items(con: Connection, trainer_id: int, place_id: int) -> tuple[ItemRow, ...]:
    """Return a place's equipment in the order it was added."""
    return _rows(con, "e.trainer_id = ? AND e.place_id = ?", (trainer_id, place_id))


def item(con: Connection, trainer_id: int, item_id: int) -> ItemRow:
    """Return one item of a trainer; MissingError if there is none."""
    found = _rows(con, "e.trainer_id = ? AND e.id = ?", (trainer_id, item_id))
    if not found:
        raise MissingError(Said("item {item_id} does not exist here", item_id=Name(str(item_id))))
    return found[0]


def add_item(
    con: Connection,
    trainer_id: int,
    place_id: int,
    *,
    kind: str,
    name: str,
    zone: str = "",
    side: str = "",
    hold: str = "",
    note: str = "",
    quantities: Mapping[str, float] | None = None,
    sources: Mapping[str, Source] | None = None,
    **band: Any,
) -> int:
    """Add an item; return its id. band: the columns of a band, for a band only."""
    cursor = con.execute(
        """INSERT INTO equipment (trainer_id, place_id, kind, name, zone, side, hold, note)
           VALUES (?, ?, ?, ?, ?, ?, ?, ?)""",
        (trainer_id, place_id, kind, name, zone, side, hold, note),
    )
    item_id = int(cursor.lastrowid or 0)
    set_quantities(con, trainer_id, item_id, quantities or {}, sources or {})
    if band:
        names = ", ".join(("equipment_id", "trainer_id", *band))
        marks = ", ".join("?" for _ in range(len(band) + 2))
        con.execute(
            f"INSERT INTO band ({names}) VALUES ({marks})", (item_id, trainer_id, *band.values())
        )
    return item_id


def set_item(
    con: Connection,
    trainer_id: int,
    item_id: int,
    *,
    name: str,
    zone: str,
    side: str,
    hold: str,
    note: str,
) -> None:
    """Set what an item is called, where it is, and a note."""
    changed = con.execute(
        (
            "UPDATE equipment SET name = ?, zone = ?, side = ?, hold = ?, note = ? WHERE "
            "trainer_id "
            "= ? AND id = ?"
        ),
        (name, zone, side, hold, note, trainer_id, item_id),
    )
    if changed.rowcount != 1:
        raise MissingError(Said("item {item_id} does not exist here", item_id=Name(str(item_id))))


def set_quantities(
    con: Connection,
    trainer_id: int,
    item_id: int,
    quantities: Mapping[str, float],
    sources: Mapping[str, Source],
) -> None:
    """Put new quantities in the place of an item's old ones; described where no source is given."""
    con.execute(
        "DELETE FROM quantity WHERE trainer_id = ? AND equipment_id = ?", (trainer_id, item_id)
    )
    con.executemany(
        (
            "INSERT INTO quantity (equipment_id, name, trainer_id, value, source) VALUES (?, ?, ?, "
            "?, ?)"
        ),
        [
            (item_id, name, trainer_id, value, sources.get(name, Source.DESCRIBED).value)
            for name, value in quantities.items()
        ],
    )


def remove_item(con: Connection, trainer_id: int, item_id: int) -> None:
    """Remove an item with its readings and settings."""
    con.execute("DELETE FROM equipment WHERE trainer_id = ? AND id = ?", (trainer_id, item_id))


def set_state(
    con: Connection, trainer_id: int, item_ids: Sequence[int], state: State, *, at: str | None
) -> None:
    """Set items free, taken or broken; `at` is an ISO time. MissingError when one does not
    exist.
    """
    marks = ", ".join("?" for _ in item_ids)
    changed = con.execute(
        f"UPDATE equipment SET state = ?, state_at = ? WHERE trainer_id = ? AND id IN ({marks})",
        (state.value, at, trainer_id, *item_ids),
    )
    if changed.rowcount != len(item_ids):
        raise MissingError(Said("an item does not exist here"))


def set_seen(con: Connection, trainer_id: int, item_id: int, at: str | None) -> None:
    """Set when an item was last seen on a look round, an ISO time or None."""
    con.execute(
        "UPDATE equipment SET seen_at = ? WHERE trainer_id = ? AND id = ?",
        (at, trainer_id, item_id),
    )


def readings(con: Connection, trainer_id: int, item_id: int) -> tuple[Reading, ...]:
    """Return a band's readings, shortest first."""
    rows = con.execute(
        (
            "SELECT length_m, force_n FROM reading WHERE trainer_id = ? AND equipment_id = ? ORDER "
            "BY position"
        ),
        (trainer_id, item_id),
    )
    return tuple(Reading(**dict(row)) for row in rows)


def all_readings(con: Connection, trainer_id: int, place_id: int) -> dict[int, tuple[Reading, ...]]:
    """Return every band's readings in a place by item id, in one query."""
    rows = con.execute(
        """SELECT r.equipment_id, r.length_m, r.force_n FROM reading r
           JOIN equipment e ON e.id = r.equipment_id
           WHERE r.trainer_id = ? AND e.place_id = ? ORDER BY r.equipment_id, r.position""",
        (trainer_id, place_id),
    )
    found: dict[int, tuple[Reading, ...]] = {}
    for row in rows:
        one = Reading(length_m=row["length_m"], force_n=row["force_n"])
        found[row["equipment_id"]] = (*found.get(row["equipment_id"], ()), one)
    return found


def readings_of_place(con: Connection, trainer_id: int, place_id: int) -> dict[int, int]:
    """Return how many readings each item of a place has, by item id; check readings are not
    counted.
    """
    rows = con.execute(
        """SELECT r.equipment_id, count(*) FROM (
               SELECT equipment_id, trainer_id FROM reading
               UNION ALL
               SELECT equipment_id, trainer_id FROM machine_reading WHERE purpose = 'fit') r
           JOIN equipment e ON e.id = r.equipment_id
           WHERE r.trainer_id = ? AND e.place_id = ? GROUP BY r.equipment_id""",
        (trainer_id, place_id),
    )
    return {row[0]: row[1] for row in rows}


def replace_readings(
    con: Connection, trainer_id: int, item_id: int, rows: Sequence[Reading]
) -> None:
    """Put new readings in the place of a band's old ones."""
    con.execute(
        "DELETE FROM reading WHERE trainer_id = ? AND equipment_id = ?", (trainer_id, item_id)
    )
    con.executemany(
        (
            "INSERT INTO reading (equipment_id, position, trainer_id, length_m, force_n) VALUES "
            "(?, "
            "?, ?, ?, ?)"
        ),
        [(item_id, i, trainer_id, r.length_m, r.force_n) for i, r in enumerate(rows)],
    )


_MACHINE = ("purpose", "setting", "at", "force_n", "arm_m", "direction", "read_on")


def machine_readings(con: Connection, trainer_id: int, item_id: int) -> tuple[MachineReading, ...]:
    """Return an item's readings of a machine and its check readings, in the order they were
    typed.
    """
    rows = con.execute(
        f"""SELECT {", ".join(_MACHINE)} FROM machine_reading
            WHERE trainer_id = ? AND equipment_id = ? ORDER BY position""",
        (trainer_id, item_id),
    )
    return tuple(MachineReading(**dict(row)) for row in rows)


def all_machine_readings(
    con: Connection, trainer_id: int, place_id: int
) -> dict[int, tuple[MachineReading, ...]]:
    """Return the readings of every machine in a place by item id, in one query."""
    names = ", ".join(f"r.{name}" for name in _MACHINE)
    rows = con.execute(
        f"""SELECT r.equipment_id, {names} FROM machine_reading r
            JOIN equipment e ON e.id = r.equipment_id
            WHERE r.trainer_id = ? AND e.place_id = ? ORDER BY r.equipment_id, r.position""",
        (trainer_id, place_id),
    )
    found: dict[int, tuple[MachineReading, ...]] = {}
    for row in rows:
        values = dict(row)
        item = values.pop("equipment_id")
        found[item] = (*found.get(item, ()), MachineReading(**values))
    return found


def replace_machine_readings(
    con: Connection, trainer_id: int, item_id: int, rows: Sequence[MachineReading]
) -> None:
    """Put new readings in the place of an item's old ones, check readings too."""
    con.execute(
        "DELETE FROM machine_reading WHERE trainer_id = ? AND equipment_id = ?",
        (trainer_id, item_id),
    )
    marks = ", ".join("?" for _ in range(len(_MACHINE) + 3))
    con.executemany(
        (
            "INSERT INTO machine_reading (equipment_id, position, trainer_id, "
            f"{', '.join(_MACHINE)}) VALUES ({marks})"
        ),
        [
            (item_id, i, trainer_id, *(getattr(r, name) for name in _MACHINE))
            for i, r in enumerate(rows)
        ],
    )


def settings(con: Connection, trainer_id: int, item_id: int) -> tuple[Setting, ...]:
    """Return an item's repeatable settings in the order they were kept."""
    rows = con.execute(
        (
            "SELECT name, words, client_id FROM setting WHERE trainer_id = ? AND equipment_id = ? "
            "ORDER BY id"
        ),
        (trainer_id, item_id),
    )
    return tuple(Setting(**dict(row)) for row in rows)


def settings_of_place(
    con: Connection, trainer_id: int, place_id: int
) -> Mapping[int, tuple[Setting, ...]]:
    """Return the repeatable settings of a place's items by their id, those without any left out."""
    rows = con.execute(
        """SELECT s.equipment_id, s.name, s.words, s.client_id FROM setting s
           JOIN equipment e ON e.trainer_id = s.trainer_id AND e.id = s.equipment_id
           WHERE s.trainer_id = ? AND e.place_id = ? ORDER BY s.id""",
        (trainer_id, place_id),
    )
    found: dict[int, tuple[Setting, ...]] = {}
    for item_id, *setting in rows:
        name, words, client_id = setting
        own = Setting(name=name, words=words, client_id=client_id)
        found[item_id] = (*found.get(item_id, ()), own)
    return found


def replace_settings(
    con: Connection, trainer_id: int, item_id: int, rows: Sequence[Setting]
) -> None:
    """Put new settings in the place of an item's old ones."""
    con.execute(
        "DELETE FROM setting WHERE trainer_id = ? AND equipment_id = ?", (trainer_id, item_id)
    )
    con.executemany(
        (
            "INSERT INTO setting (equipment_id, client_id, trainer_id, name, words) VALUES (?, "
            "?, ?, "
            "?, ?)"
        ),
        [(item_id, r.client_id, trainer_id, r.name, r.words) for r in rows],
    )


def set_band(
    con: Connection,
    trainer_id: int,
    item_id: int,
    *,
    rest_m: float | None,
    strands: int,
    law: str,
    shape: str,
    back_share: float | None,
    looked_over_on: str | None,
) -> None:
    """Set how a band was measured, which law is used, its share not given back, the ISO date it was
    looked over.
    """
    changed = con.execute(
        """UPDATE band SET rest_m = ?, strands = ?, law = ?, shape = ?, back_share = ?,
                looked_over_on = ?
           WHERE trainer_id = ? AND equipment_id = ?""",
        (rest_m, strands, law, shape, back_share, looked_over_on, trainer_id, item_id),
    )
    if changed.rowcount != 1:
        raise MissingError(Said("band {item_id} does not exist here", item_id=Name(str(item_id))))
