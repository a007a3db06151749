"""Clients: body and limits."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.core.body import Body, Limits, Sex
from widearc.store.connection import Connection
from widearc.store.errors import MissingError


@dataclass(frozen=True, slots=True, kw_only=True)
class ClientRow:
    """One client; to_shoulders_kg: heaviest bar brought to the shoulders without a rack, None if not asked."""

    id: int
    name: str
    body: Body
    limits: Limits
    to_shoulders_kg: float | None


_COLUMNS = """id, name, mass_kg, stature_m, sex, dorsiflexion_deg, hip_flexion_deg, knee_deg,
    no_axial_load, to_shoulders_kg"""


def _row(row: object) -> ClientRow:
    r: dict[str, object] = dict(row)  # type: ignore[call-overload]
    return ClientRow(
        id=int(str(r["id"])),
        name=str(r["name"]),
        body=Body(mass_kg=r["mass_kg"], stature_m=r["stature_m"], sex=Sex(r["sex"])),  # type: ignore[arg-type]
        limits=Limits(
            dorsiflexion_deg=r["dorsiflexion_deg"],  # type: ignore[arg-type]
            hip_flexion_deg=r["hip_flexion_deg"],  # type: ignore[arg-type]
            knee_deg=r["knee_deg"],  # type: ignore[arg-type]
            no_axial_load=bool(r["no_axial_load"]),
        ),
        to_shoulders_kg=r["to_shoulders_kg"],  # type: ignore[arg-type]
    )


def add_client(
    con: Connection,
    trainer_id: int,
    *,
    name: str,
    body: Body,
    limits: Limits,
    to_shoulders_kg: float | None = None,
) -> int:
    """Add a client; return its id."""
    cursor = con.execute(
        """INSERT INTO client (trainer_id, name, mass_kg, stature_m, sex, dorsiflexion_deg, hip_flexion_deg,
               knee_deg, no_axial_load, to_shoulders_kg)
           VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)""",
        (
            trainer_id,
            name,
            body.mass_kg,
            body.stature_m,
            body.sex.value,
            limits.dorsiflexion_deg,
            limits.hip_flexion_deg,
            limits.knee_deg,
            int(limits.no_axial_load),
            to_shoulders_kg,
        ),
    )
    return int(cursor.lastrowid or 0)


def clients(con: Connection, trainer_id: int) -> tuple[ClientRow, ...]:
    """Return a trainer's clients in the order they were added."""
    found = con.execute(f"SELECT {_COLUMNS} FROM client WHERE trainer_id = ? ORDER BY id", (trainer_id,))
    return tuple(_row(row) for row in found)


def client(con: Connection, trainer_id: int, client_id: int) -> ClientRow:
    """Return one client of a trainer; MissingError if there is none."""
    found = con.execute(
        f"SELECT {_COLUMNS} FROM client WHERE trainer_id = ? AND id = ?", (trainer_id, client_id)
    ).fetchone()
    if found is None:
        raise MissingError(f"client {client_id} does not exist here")
    return _row(found)
