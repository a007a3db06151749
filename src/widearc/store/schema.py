"""Numbered migrations, each in one transaction together with the version it sets."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from importlib.resources import files

from widearc.core.words import Name, Said
from widearc.store.errors import StoreError

APPLICATION_ID = 0x57415243  # "WARC": tells our database from any other


def migrations() -> list[tuple[int, str]]:
    """Return (number, SQL) of every migration that ships, in order."""
    found = []
    for entry in files("widearc.store").joinpath("migrations").iterdir():
        if entry.name.endswith(".sql"):
            found.append((int(entry.name[:4]), entry.read_text(encoding="utf-8")))
    return sorted(found)


def migrate(con: sqlite3.Connection, name: str, steps: list[tuple[int, str]] | None = None) -> None:
    """Bring a database to the newest version; refuse a newer or a foreign one with a clear
    message.
    """
    steps = migrations() if steps is None else steps
    version = int(con.execute("PRAGMA user_version").fetchone()[0])
    ours = int(con.execute("PRAGMA application_id").fetchone()[0]) == APPLICATION_ID
    tables = int(con.execute("SELECT count(*) FROM sqlite_master").fetchone()[0])
    if not ours and (tables or version):
        raise StoreError(
            Said("{name}: a database of another program; choose another file", name=Name(str(name)))
        )
    newest = steps[-1][0]
    if version > newest:
        raise StoreError(
            Said(
                "{name}: written by a newer Wide Arc (version {version}, this one knows "
                "{newest}); update the program",
                name=Name(str(name)),
                version=Name(str(version)),
                newest=Name(str(newest)),
            )
        )
    # a parent table can only be rebuilt safely with foreign keys off, and only outside a
    # transaction
    con.execute("PRAGMA foreign_keys = OFF")
    for number, sql in steps:
        if number > version:
            _step(con, number, sql)


def _step(con: sqlite3.Connection, number: int, sql: str) -> None:
    con.execute("BEGIN IMMEDIATE")
    try:
        # another process may have done it while we waited for the lock
        if int(con.execute("PRAGMA user_version").fetchone()[0]) < number:
            for statement in _statements(sql):
                con.execute(statement)
            broken = con.execute("PRAGMA foreign_key_check").fetchall()
            if broken:
                raise StoreError(
                    Said(
                        "migration {number} leaves {broken} broken references",
                        number=Name(str(number)),
                        broken=Name(str(len(broken))),
                    )
                )
            con.execute(f"PRAGMA application_id = {APPLICATION_ID}")
            con.execute(f"PRAGMA user_version = {number}")
    except BaseException:
        con.execute("ROLLBACK")
        raise
    con.execute("COMMIT")


def _statements(sql: str) -> Iterator[str]:
    """Yield single statements: executescript would commit first."""
    part = ""
    for line in sql.splitlines(keepends=True):
        part += line
        if sqlite3.complete_statement(part):
            yield part
            part = ""
    if part.strip():
        yield part
