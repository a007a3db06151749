"""Clients: body, limits, and what else drives a rule. Everything but the name may be missing: not
asked.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from types import MappingProxyType
from typing import Any

from widearc.core.body import SEGMENTS, Body, Limits, Sex
from widearc.core.words import Name, Said
from widearc.store.connection import Connection
from widearc.store.errors import MissingError


@dataclass(frozen=True, slots=True, kw_only=True)
class ClientFacts:
    """What is known of a client; None: not asked.

    to_shoulders_kg: heaviest bar brought to the shoulders without a rack; grip_kg: what one hand
    holds for a set; lengths by tape, m; sore: joint to side ("left", "right", "both"); words as in
    the SQL.
    """

    name: str
    mass_kg: float | None = None
    stature_m: float | None = None
    sex: Sex = Sex.MEAN
    dorsiflexion_deg: float | None = None
    hip_flexion_deg: float | None = None
    knee_deg: float | None = None
    no_axial_load: bool = False
    to_shoulders_kg: float | None = None
    goal: str | None = None
    experience: str | None = None
    stronger_side: str | None = None
    grip_kg: float | None = None
    trains_alone: bool | None = None
    foot_m: float | None = None
    shank_m: float | None = None
    thigh_m: float | None = None
    trunk_m: float | None = None
    upper_arm_m: float | None = None
    forearm_m: float | None = None
    note: str = ""
    sore: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))

    @property
    def body(self) -> Body:
        """Return the body, the usual one where nothing is known. Raises InputError for lengths that
        do not fit.
        """
        segments = {
            name: getattr(self, name) for name in SEGMENTS if getattr(self, name) is not None
        }
        known = {
            name: getattr(self, name)
            for name in ("mass_kg", "stature_m")
            if getattr(self, name) is not None
        }
        return Body(sex=self.sex, segments=MappingProxyType(segments), **known)

    @property
    def limits(self) -> Limits:
        """Return the limits, the usual ones where nothing is known."""
        names = ("dorsiflexion_deg", "hip_flexion_deg", "knee_deg")
        known = {name: getattr(self, name) for name in names if getattr(self, name) is not None}
        return Limits(no_axial_load=self.no_axial_load, **known)

    @property
    def assumed(self) -> tuple[str, ...]:
        """Return in words what of the body is assumed since it was not asked."""
        words = (("mass_kg", "80 kg"), ("stature_m", "180 cm"))
        return tuple(text for name, text in words if getattr(self, name) is None)


@dataclass(frozen=True, slots=True, kw_only=True)
class ClientRow(ClientFacts):
    """One client as kept."""

    id: int


_COLUMNS = tuple(f.name for f in fields(ClientFacts) if f.name != "sore")
_YES_NO = ("no_axial_load", "trains_alone")


def _values(facts: ClientFacts) -> tuple[Any, ...]:
    values = [getattr(facts, name) for name in _COLUMNS]
    return tuple(
        v.value if isinstance(v, Sex) else int(v) if isinstance(v, bool) else v for v in values
    )


def add_client(con: Connection, trainer_id: int, facts: ClientFacts) -> int:
    """Add a client; return its id."""
    marks = ", ".join("?" for _ in range(len(_COLUMNS) + 1))
    cursor = con.execute(
        f"INSERT INTO client (trainer_id, {', '.join(_COLUMNS)}) VALUES ({marks})",
        (trainer_id, *_values(facts)),
    )
    client_id = int(cursor.lastrowid or 0)
    _set_sore(con, trainer_id, client_id, facts.sore)
    return client_id


def set_client(con: Connection, trainer_id: int, client_id: int, facts: ClientFacts) -> None:
    """Put new facts in the place of a client's old ones."""
    sets = ", ".join(f"{name} = ?" for name in _COLUMNS)
    changed = con.execute(
        f"UPDATE client SET {sets} WHERE trainer_id = ? AND id = ?",
        (*_values(facts), trainer_id, client_id),
    )
    if changed.rowcount != 1:
        raise MissingError(
            Said("client {client_id} does not exist here", client_id=Name(str(client_id)))
        )
    con.execute(
        "DELETE FROM client_sore WHERE trainer_id = ? AND client_id = ?", (trainer_id, client_id)
    )
    _set_sore(con, trainer_id, client_id, facts.sore)


def _set_sore(con: Connection, trainer_id: int, client_id: int, sore: Mapping[str, str]) -> None:
    con.executemany(
        "INSERT INTO client_sore (client_id, joint, side, trainer_id) VALUES (?, ?, ?, ?)",
        [(client_id, joint, side, trainer_id) for joint, side in sore.items()],
    )


def remove_client(con: Connection, trainer_id: int, client_id: int) -> None:
    """Remove a client with everything that belongs to it."""
    con.execute("DELETE FROM client WHERE trainer_id = ? AND id = ?", (trainer_id, client_id))


def clients(con: Connection, trainer_id: int) -> tuple[ClientRow, ...]:
    """Return a trainer's clients in the order they were added."""
    sore: dict[int, dict[str, str]] = {}
    for row in con.execute(
        "SELECT client_id, joint, side FROM client_sore WHERE trainer_id = ?", (trainer_id,)
    ):
        sore.setdefault(row["client_id"], {})[row["joint"]] = row["side"]
    found = con.execute(
        f"SELECT id, {', '.join(_COLUMNS)} FROM client WHERE trainer_id = ? ORDER BY id",
        (trainer_id,),
    )
    return tuple(_row(row, sore.get(row["id"], {})) for row in found)


def _row(row: Any, sore: Mapping[str, str]) -> ClientRow:
    values = dict(row) | {"sex": Sex(row["sex"]), "sore": MappingProxyType(dict(sore))}
    for name in _YES_NO:
        values[name] = None if values[name] is None else bool(values[name])
    return ClientRow(**values)


def client(con: Connection, trainer_id: int, client_id: int) -> ClientRow:
    """Return one client of a trainer; MissingError if there is none."""
    for one in clients(con, trainer_id):
        if one.id == client_id:
            return one
    raise MissingError(
        Said("client {client_id} does not exist here", client_id=Name(str(client_id)))
    )
