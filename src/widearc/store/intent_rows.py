"""Named intents: what is wanted, kept and used again."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.core.curve import Action
from widearc.core.dose import RepStyle, StyleKind, Tempo
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class IntentRow:
    """A kept intent."""

    id: int
    name: str
    kept_at: str
    intent: Intent


def intents(con: Connection, trainer_id: int) -> tuple[IntentRow, ...]:
    """Return a trainer's intents by name."""
    handles: dict[tuple[int, int], list[tuple[float, float]]] = {}
    for r in con.execute(
        (
            "SELECT intent_id, position, fraction, nm FROM intent_handle WHERE trainer_id = ? "
            "ORDER "
            "BY fraction"
        ),
        (trainer_id,),
    ):
        handles.setdefault((r["intent_id"], r["position"]), []).append((r["fraction"], r["nm"]))
    parts: dict[int, list[WantedAction]] = {}
    for r in con.execute(
        """SELECT intent_id, position, action, from_deg, to_deg, shape, mean_nm FROM intent_action
           WHERE trainer_id = ? ORDER BY intent_id, position""",
        (trainer_id,),
    ):
        own = handles.get((r["intent_id"], r["position"]))
        parts.setdefault(r["intent_id"], []).append(
            WantedAction(
                action=Action.named(r["action"]),
                from_deg=r["from_deg"],
                to_deg=r["to_deg"],
                handles=tuple(own) if own else None,
                shape=Shape(r["shape"]) if r["shape"] else None,
                mean_nm=r["mean_nm"],
            )
        )
    rows = con.execute(
        "SELECT * FROM intent WHERE trainer_id = ? ORDER BY name COLLATE NOCASE, id", (trainer_id,)
    )
    return tuple(
        IntentRow(
            id=r["id"],
            name=r["name"],
            kept_at=r["kept_at"],
            intent=Intent(
                parts=tuple(parts[r["id"]]),
                sets=r["sets"],
                reps=r["reps"],
                tempo=Tempo(lowering_s=r["lowering_s"], lifting_s=r["lifting_s"]),
                style=RepStyle(
                    kind=StyleKind(r["style"]),
                    at_deg=r["style_at_deg"],
                    seconds=r["style_seconds"],
                    end=r["style_end"],
                    from_deg=r["style_from_deg"],
                    to_deg=r["style_to_deg"],
                ),
                by_feel=bool(r["by_feel"]),
            ),
        )
        for r in rows
    )


def put_intent(con: Connection, trainer_id: int, name: str, intent: Intent, *, now: str) -> int:
    """Keep an intent under a name, in the place of one of that name; return its id."""
    con.execute("DELETE FROM intent WHERE trainer_id = ? AND name = ?", (trainer_id, name))
    style, tempo = intent.style, intent.tempo
    cursor = con.execute(
        """INSERT INTO intent (trainer_id, name, kept_at, sets, reps, lowering_s, lifting_s,
                               style, style_at_deg, style_seconds, style_end, style_from_deg,
                               style_to_deg, by_feel)
           VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)""",
        (
            trainer_id,
            name,
            now,
            intent.sets,
            intent.reps,
            tempo.lowering_s,
            tempo.lifting_s,
            style.kind.value,
            style.at_deg,
            style.seconds,
            style.end,
            style.from_deg,
            style.to_deg,
            int(intent.by_feel),
        ),
    )
    intent_id = int(cursor.lastrowid or 0)
    for position, part in enumerate(intent.parts):
        con.execute(
            """INSERT INTO intent_action
               (intent_id, trainer_id, position, action, from_deg, to_deg, shape, mean_nm)
               VALUES (?, ?, ?, ?, ?, ?, ?, ?)""",
            (
                intent_id,
                trainer_id,
                position,
                part.action.label,
                part.from_deg,
                part.to_deg,
                part.shape.value if part.shape else None,
                part.mean_nm,
            ),
        )
        con.executemany(
            (
                "INSERT INTO intent_handle (intent_id, position, trainer_id, fraction, nm) VALUES "
                "(?, ?, ?, ?, ?)"
            ),
            [
                (intent_id, position, trainer_id, fraction, nm)
                for fraction, nm in part.handles or ()
            ],
        )
    return intent_id


def remove_intent(con: Connection, trainer_id: int, intent_id: int) -> None:
    """Remove an intent; nothing happens if it is not there."""
    con.execute("DELETE FROM intent WHERE trainer_id = ? AND id = ?", (trainer_id, intent_id))
