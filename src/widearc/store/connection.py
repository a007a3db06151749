"""One way to open the database, and one way to change it."""

from __future__ import annotations

import os
import sqlite3
import threading
from collections import defaultdict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import wraps
from pathlib import Path
from typing import Concatenate, ParamSpec, TypeVar

from widearc.core.words import Name, Said
from widearc.store.errors import StoreError, cause_of, refusal
from widearc.store.once import Once, claim
from widearc.store.schema import migrate

MOST_IDLE = 8
BUSY_MS = 5000  # for another process that writes; this one's writers queue
_queues: defaultdict[str, threading.Lock] = defaultdict(threading.Lock)


class Connection(sqlite3.Connection):
    """A connection to the store; only this package writes SQL on it.

    turn: held while this process writes to the file: SQLite lets its own waiters starve.
    recording: whether this connection has the triggers of the undo history. once: the form that
    this request answers, to be kept with what it writes.
    """

    turn: threading.Lock
    recording: bool = False
    once: Once | None = None


MEMORY = ":memory:"
"""The path of a database that no file holds."""


def open_store(path: Path | str) -> Connection:
    """Return a connection to the database at `path`, made or brought up to date.

    WAL, foreign keys on, explicit transactions. Raises StoreError for a file that is not a
    database, is not ours, or was written by a newer program.
    """
    try:
        if path != MEMORY:
            _private(Path(path))
        # isolation_level None: BEGIN and COMMIT are said by transaction(), never by the driver
        con = sqlite3.connect(
            str(path),
            isolation_level=None,
            timeout=BUSY_MS / 1000,
            factory=Connection,
            check_same_thread=False,  # one thread at a time: a request takes it and gives it back
        )
    except (sqlite3.OperationalError, OSError) as error:
        raise StoreError(
            Said(
                "{path}: cannot be opened ({error}); choose a folder that can be written",
                path=Name(str(path)),
                error=Name(str(error)),
            )
        ) from None
    con.row_factory = sqlite3.Row
    con.turn = _queues[str(Path(path).resolve())]
    try:
        con.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
        migrate(con, str(path))
        con.execute("PRAGMA journal_mode = WAL")
        con.execute("PRAGMA foreign_keys = ON")
        # a set that the page calls kept is on the disk
        con.execute("PRAGMA synchronous = FULL")
    except sqlite3.DatabaseError as error:
        con.close()
        cause = "" if isinstance(error, sqlite3.IntegrityError) else cause_of(error)
        told = cause or f"not a database that can be read ({error}); choose another file"
        raise StoreError(
            Said("{path}: {told}", path=Name(str(path)), told=Name(str(told)))
        ) from None
    except StoreError:
        con.close()
        raise
    return con


def _private(path: Path) -> None:
    """Make a new database file that only its owner reads; the log beside it follows it."""
    if not path.exists() and path.parent.is_dir():
        os.close(os.open(path, os.O_RDWR | os.O_CREAT, 0o600))


@contextmanager
def transaction(con: Connection) -> Iterator[None]:
    """Run a block in one transaction: all of it is kept, or none; within another it is part of
    that. Others of this process wait for their turn.

    Raises RepeatedError where the connection writes for a form that was sent and kept already,
    ConflictError for what does not fit what others wrote, StoreError for a disk that is full or
    cannot be written, each with nothing kept.
    """
    if con.in_transaction:
        yield
        return
    with con.turn:
        try:
            con.execute("BEGIN IMMEDIATE")
            if con.once is not None:
                claim(con, con.once)
            yield
            con.execute("COMMIT")  # may fail too: deferred foreign keys are looked at here
        except BaseException as error:
            _end(con)
            if isinstance(error, sqlite3.Error):
                raise refusal(error) from error
            raise


def _end(con: Connection) -> None:
    """Take back what an unfinished transaction did; a full disk has ended it already."""
    if con.in_transaction:
        con.rollback()


P = ParamSpec("P")
R = TypeVar("R")


def at_once(
    write: Callable[Concatenate[Connection, P], R],
) -> Callable[Concatenate[Connection, P], R]:
    """Return a function that looks and writes in one transaction: what it has looked at is still
    so when it writes.
    """

    @wraps(write)
    def whole(con: Connection, /, *args: P.args, **kwargs: P.kwargs) -> R:
        with transaction(con):
            return write(con, *args, **kwargs)

    return whole


class Pool:
    """Connections to one database that are taken by a request and given back: what stands on one,
    as the triggers of the undo history, is made once.
    """

    def __init__(self, path: Path | str) -> None:
        self._path = path
        self._lock = threading.Lock()
        self._idle: list[Connection] = []

    def take(self) -> Connection:
        """Return a connection that nobody else has. Raises StoreError as `open_store` does."""
        with self._lock:
            if self._idle:
                return self._idle.pop()
        return open_store(self._path)

    def give(self, con: Connection) -> None:
        """Take a connection back; nothing of an unfinished transaction stays."""
        _end(con)
        con.once = None
        with self._lock:
            if len(self._idle) < MOST_IDLE:
                self._idle.append(con)
                return
        con.close()

    def close(self) -> None:
        """Close what is idle."""
        with self._lock:
            for con in self._idle:
                con.close()
            self._idle.clear()
