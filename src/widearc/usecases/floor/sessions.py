"""Sessions: begun, gone on with, ended."""

from __future__ import annotations

from widearc import store
from widearc.core.words import Name, Said
from widearc.store.errors import MissingError


def scope(session_id: int) -> str:
    """Return what the changes of a session belong to."""
    return f"session:{session_id}"


@store.at_once
def begin(
    con: store.Connection,
    trainer_id: int,
    client_id: int,
    place_id: int,
    *,
    now: str,
    day_id: int | None = None,
) -> int:
    """Begin a client's session at a place, or go on with the one that is under way there; return
    its id. day_id: of the week that it answers. MissingError for a client or place that is not
    there.
    """
    for row in store.sessions(con, trainer_id, client_id=client_id, under_way=True):
        if row.place_id == place_id:
            return row.id
    client = store.client(con, trainer_id, client_id)
    store.place(con, trainer_id, place_id)
    words = Said("session of {name} begun", name=Name(client.name, lower=True))
    row = store.SessionRow(client_id=client_id, place_id=place_id, started_at=now, day_id=day_id)
    with store.recorded(con, trainer_id, scope="sessions", kind="session", words=words, now=now):
        return store.add_session(con, trainer_id, row)


@store.at_once
def end(con: store.Connection, trainer_id: int, session_id: int, *, now: str) -> None:
    """End a session; one without a set leaves nothing."""
    session = session_of(con, trainer_id, session_id)
    words = Said("session of {name} ended", name=Name(session.client, lower=True))
    with store.recorded(con, trainer_id, scope="sessions", kind="session", words=words, now=now):
        if store.sets_of(con, trainer_id, session_id):
            store.end_session(con, trainer_id, session_id, now)
        else:
            store.remove_session(con, trainer_id, session_id)


def session_of(con: store.Connection, trainer_id: int, session_id: int) -> store.SessionRow:
    """Return a session; MissingError where there is none."""
    found = store.sessions(con, trainer_id, session_id=session_id)
    if not found:
        raise MissingError(Said("that session does not exist here"))
    return found[0]


def under_way(con: store.Connection, trainer_id: int) -> tuple[store.SessionRow, ...]:
    """Return the sessions under way, newest first."""
    return store.sessions(con, trainer_id, under_way=True)
