"""What is known of a client, each fact with the rule it drives."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from widearc import store
from widearc.core.errors import RangeError, one_of
from widearc.core.words import Count, Figure, Name, Said, Words
from widearc.usecases.sheet import SheetError
from widearc.words import plain

GOALS = MappingProxyType(
    {
        "strength": "strength",
        "muscle": "muscle",
        "endurance": "endurance",
        "return": "coming back to training",
    }
)


GOAL_SETS: Mapping[str, tuple[int, int]] = MappingProxyType(
    {"strength": (5, 5), "muscle": (3, 10), "endurance": (2, 15), "return": (2, 12)}
)
"""Sets and reps that Swap starts with for a goal (common practice, no source)."""


EXPERIENCE = MappingProxyType(
    {"beginner": "beginner", "used": "used to training", "experienced": "experienced"}
)


STRONGER = MappingProxyType({"left": "left", "right": "right", "equal": "no difference"})
SORE_JOINTS = ("ankle", "knee", "hip", "low back")
SORE_SIDES = ("left", "right", "both")


TAPES = MappingProxyType(
    {
        "foot_m": "foot, heel to toe",
        "shank_m": "shank, knee to ankle",
        "thigh_m": "thigh, hip to knee",
        "trunk_m": "trunk, hip to shoulder",
        "upper_arm_m": "upper arm",
        "forearm_m": "forearm",
    }
)


RANGES: Mapping[str, tuple[float, float, str]] = MappingProxyType(
    {
        "mass_kg": (25, 300, "kg"),
        "stature_m": (1.0, 2.4, "m"),
        "dorsiflexion_deg": (0, 60, "°"),
        "hip_flexion_deg": (60, 160, "°"),
        "knee_deg": (30, 160, "°"),
        "to_shoulders_kg": (0, 500, "kg"),
        "grip_kg": (1, 300, "kg"),
    }
)


def _check(
    con: store.Connection, trainer_id: int, facts: store.ClientFacts, own: int | None
) -> None:
    messages: dict[str, Words] = {}
    if not 1 <= len(facts.name) <= 80:
        messages["name"] = Said("a name of 1 to 80 characters")
    elif any(
        c.name.lower() == facts.name.lower() and c.id != own for c in store.clients(con, trainer_id)
    ):
        messages["name"] = Said(
            "“{name}” is a client already: choose another name", name=Name(facts.name)
        )
    for name, (low, high, unit) in RANGES.items():
        value = getattr(facts, name)
        if value is not None and not low <= value <= high:
            factor, shown = (100.0, "cm") if unit == "m" else (1.0, unit)
            space = "" if shown == "°" else " "
            allowed = Said(
                "from {factor} to {factor_2}{space}{shown}",
                factor=Figure(low * factor),
                factor_2=Figure(high * factor),
                space=Name(space),
                shown=Name(shown),
            )
            messages[name] = Said(
                "{factor}{space}{shown} is not kept: {allowed}",
                factor=Figure(value * factor),
                space=Name(space),
                shown=Name(shown),
                allowed=allowed,
            )
    for name, known in (("goal", GOALS), ("experience", EXPERIENCE), ("stronger_side", STRONGER)):
        value = getattr(facts, name)
        if value is not None and value not in known:
            messages[name] = Said(
                "{value} is not kept: {allowed}", value=Name(value[:20]), allowed=one_of(known)
            )
    for joint, side in facts.sore.items():
        if joint not in SORE_JOINTS or side not in SORE_SIDES:
            messages["sore"] = Said(
                "{joint}, {side} is not kept", joint=Name(joint[:20]), side=Name(side[:20])
            )
    if len(facts.note) > 500:
        messages["note"] = Said(
            "{note} characters are too many: at most 500", note=Count(len(facts.note))
        )
    if not messages:
        try:
            facts.body  # noqa: B018 - lengths by tape are checked against the stature
        except RangeError as error:
            name = error.where.rpartition("/")[2]
            within = plain(error.between(lambda end: round(100 * end), " cm"))
            tape_cm = 100 * getattr(facts, name)
            messages[name] = Said(
                "{tape_cm} cm is not kept: {within} for this stature",
                tape_cm=Figure(tape_cm),
                within=Name(within),
            )
    if messages:
        raise SheetError(messages)


@store.at_once
def new_client(
    con: store.Connection, trainer_id: int, facts: store.ClientFacts, *, now: str
) -> int:
    """Add a client; return its id. SheetError with a message per field, and nothing is kept."""
    _check(con, trainer_id, facts, None)
    with store.recorded(
        con,
        trainer_id,
        scope="clients",
        kind="client",
        words=Said("{name} added", name=Name(facts.name)),
        now=now,
    ):
        return store.add_client(con, trainer_id, facts)


@store.at_once
def change_client(
    con: store.Connection, trainer_id: int, client_id: int, facts: store.ClientFacts, *, now: str
) -> None:
    """Change what is known of a client. SheetError with a message per field, and nothing is
    kept.
    """
    store.client(con, trainer_id, client_id)
    _check(con, trainer_id, facts, client_id)
    with store.recorded(
        con,
        trainer_id,
        scope="clients",
        kind="client",
        words=Said("{name} changed", name=Name(facts.name)),
        now=now,
    ):
        store.set_client(con, trainer_id, client_id, facts)


@store.at_once
def remove_client(
    con: store.Connection, trainer_id: int, client_id: int, *, now: str
) -> store.ClientRow:
    """Remove a client with the decisions kept for it; return it. Undo brings all of it back."""
    client = store.client(con, trainer_id, client_id)
    with store.recorded(
        con,
        trainer_id,
        scope="clients",
        kind="client",
        words=Said("{name} removed", name=Name(client.name)),
        now=now,
    ):
        store.remove_client(con, trainer_id, client_id)
    return client
