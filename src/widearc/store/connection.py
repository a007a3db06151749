"""One way to open the database, and one way to change it."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from widearc.store.errors import StoreError
from widearc.store.schema import migrate

Connection = sqlite3.Connection
"""A connection to the store; only this package writes SQL on it."""

BUSY_MS = 5000


def open_store(path: Path | str) -> Connection:
    """Return a connection to the database at `path`, made or brought up to date.

    WAL, foreign keys on, explicit transactions. Raises StoreError for a file that is not a
    database, is not ours, or was written by a newer program.
    """
    try:
        # isolation_level None: BEGIN and COMMIT are said by transaction(), never by the driver
        con = sqlite3.connect(str(path), isolation_level=None, timeout=BUSY_MS / 1000)
    except sqlite3.OperationalError as error:
        raise StoreError(
            f"{path}: cannot be opened ({error}); choose a folder that can be written"
        ) from None
    con.row_factory = sqlite3.Row
    try:
        con.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
        migrate(con, str(path))
        con.execute("PRAGMA journal_mode = WAL")
        con.execute("PRAGMA foreign_keys = ON")
    except sqlite3.DatabaseError as error:
        con.close()
        raise StoreError(
            f"{path}: not a database that can be read ({error}); choose another file"
        ) from None
    except StoreError:
        con.close()
        raise
    return con


@contextmanager
def transaction(con: Connection) -> Iterator[None]:
    """Run a block in one transaction: all of it is kept, or none."""
    con.execute("BEGIN IMMEDIATE")
    try:
        yield
        con.execute("COMMIT")  # may fail too: deferred foreign keys are looked at here
    except BaseException:
        con.execute("ROLLBACK")
        raise
