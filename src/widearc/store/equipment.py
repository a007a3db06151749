"""Equipment of a place: what it is, its sizes and counts, its state, and a band's readings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import Enum

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
class ItemRow:
    """One item with the columns that its kind has; the others are None."""

    id: int
    place_id: int
    kind: str
    name: str
    zone: str
    state: State
    state_at: str | None
    kg: float | None = None
    count: int | None = None
    height_m: float | None = None
    holds_n: float | None = None
    rail_deg: float | None = None
    empty_kg: float | None = None
    backrest_deg: float | None = None
    plate_tilt_deg: float | None = None
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


_SELECT = """
    SELECT e.id, e.place_id, e.kind, e.name, e.zone, e.state, e.state_at, s.kg, s.count,
           coalesce(f.height_m, a.height_m) AS height_m, a.holds_n,
           p.rail_deg, p.empty_kg, p.backrest_deg, p.plate_tilt_deg,
           b.shape, b.strands, b.rest_m, b.law, b.back_share, b.looked_over_on
    FROM equipment e
    LEFT JOIN stock s ON s.equipment_id = e.id
    LEFT JOIN furniture f ON f.equipment_id = e.id
    LEFT JOIN anchor_point a ON a.equipment_id = e.id
    LEFT JOIN sled_press p ON p.equipment_id = e.id
    LEFT JOIN band b ON b.equipment_id = e.id
    WHERE e.trainer_id = ?
"""

_DETAILS = {
    "bar": ("stock", ("kg", "count")),
    "plate": ("stock", ("kg", "count")),
    "dumbbell": ("stock", ("kg", "count")),
    "kettlebell": ("stock", ("kg", "count")),
    "bench": ("furniture", ("height_m",)),
    "box": ("furniture", ("height_m",)),
    "rack": ("furniture", ("height_m",)),
    "anchor": ("anchor_point", ("height_m", "holds_n")),
    "sled press": ("sled_press", ("rail_deg", "empty_kg", "backrest_deg", "plate_tilt_deg")),
    "band": ("band", ("shape", "strands", "rest_m", "law", "back_share", "looked_over_on")),
}


def _row(row: object) -> ItemRow:
    values = dict(row)  # type: ignore[call-overload]
    values["state"] = State(values["state"])
    return ItemRow(**values)


def add_item(
    con: Connection,
    trainer_id: int,
    place_id: int,
    *,
    kind: str,
    name: str,
    zone: str = "",
    **details: float | str | None,
) -> int:
    """Add an item with the details its kind has; return its id. Raises KeyError for a detail it lacks."""
    table, columns = _DETAILS[kind]
    unknown = set(details) - set(columns)
    if unknown:
        raise KeyError(f"{kind} has no {', '.join(sorted(unknown))}")
    cursor = con.execute(
        "INSERT INTO equipment (trainer_id, place_id, kind, name, zone) VALUES (?, ?, ?, ?, ?)",
        (trainer_id, place_id, kind, name, zone),
    )
    item_id = int(cursor.lastrowid or 0)
    names = ", ".join(("equipment_id", "trainer_id", *details))
    marks = ", ".join("?" for _ in range(len(details) + 2))
    con.execute(f"INSERT INTO {table} ({names}) VALUES ({marks})", (item_id, trainer_id, *details.values()))
    return item_id


def items(con: Connection, trainer_id: int, place_id: int) -> tuple[ItemRow, ...]:
    """Return a place's equipment in the order it was added."""
    rows = con.execute(_SELECT + " AND e.place_id = ? ORDER BY e.id", (trainer_id, place_id))
    return tuple(_row(row) for row in rows)


def item(con: Connection, trainer_id: int, item_id: int) -> ItemRow:
    """Return one item of a trainer; MissingError if there is none."""
    row = con.execute(_SELECT + " AND e.id = ?", (trainer_id, item_id)).fetchone()
    if row is None:
        raise MissingError(f"item {item_id} does not exist here")
    return _row(row)


def set_state(con: Connection, trainer_id: int, item_id: int, state: State, *, at: str | None) -> None:
    """Set an item free, taken or broken; `at` is an ISO time (None for an item that was never touched)."""
    changed = con.execute(
        "UPDATE equipment SET state = ?, state_at = ? WHERE trainer_id = ? AND id = ?",
        (state.value, at, trainer_id, item_id),
    )
    if changed.rowcount != 1:
        raise MissingError(f"item {item_id} does not exist here")


def readings(con: Connection, trainer_id: int, item_id: int) -> tuple[Reading, ...]:
    """Return a band's readings, shortest first."""
    rows = con.execute(
        "SELECT length_m, force_n FROM reading WHERE trainer_id = ? AND equipment_id = ? ORDER BY position",
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


def replace_readings(con: Connection, trainer_id: int, item_id: int, rows: Sequence[Reading]) -> None:
    """Put new readings in the place of a band's old ones."""
    con.execute("DELETE FROM reading WHERE trainer_id = ? AND equipment_id = ?", (trainer_id, item_id))
    con.executemany(
        "INSERT INTO reading (equipment_id, position, trainer_id, length_m, force_n) VALUES (?, ?, ?, ?, ?)",
        [(item_id, i, trainer_id, r.length_m, r.force_n) for i, r in enumerate(rows)],
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
    """Set how a band was measured, which law is used, its share not given back, the ISO date it was looked over."""
    changed = con.execute(
        """UPDATE band SET rest_m = ?, strands = ?, law = ?, shape = ?, back_share = ?, looked_over_on = ?
           WHERE trainer_id = ? AND equipment_id = ?""",
        (rest_m, strands, law, shape, back_share, looked_over_on, trainer_id, item_id),
    )
    if changed.rowcount != 1:
        raise MissingError(f"band {item_id} does not exist here")
