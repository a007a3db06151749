"""Backups: whole copies made while the program serves, verified by hash and a full reading."""

from __future__ import annotations

import contextlib
import hashlib
import os
import re
import sqlite3
from dataclasses import dataclass
from pathlib import Path

from widearc.core.words import Name, Said
from widearc.store.connection import open_store
from widearc.store.errors import StoreError, refusal
from widearc.store.schema import APPLICATION_ID, migrations

PAGES = 512  # copied at once: others may write between
KEPT_DAYS = 14
FOLDER = "backups"
DAILY = re.compile(r"(?P<stem>.+)-(?P<day>\d{4}-\d{2}-\d{2})\.db")


@dataclass(frozen=True, slots=True, kw_only=True)
class Backup:
    """A copy that was read back whole: where, its size, its SHA-256, the schema's version."""

    path: Path
    size: int
    sha256: str
    version: int


def back_up(database: Path, target: Path) -> Backup:
    """Copy a database to a new file, read the copy back whole and write its hash beside it.

    Others may write meanwhile: the copy is of one moment. Raises StoreError where the file is there
    already, cannot be written, or the copy is not whole; nothing is left then.
    """
    if target.exists():
        raise StoreError(
            Said("{target}: is there already; choose another name", target=Name(str(target)))
        )
    part = target.with_name(target.name + ".part")
    try:
        with (
            contextlib.closing(_reading(database)) as source,
            contextlib.closing(sqlite3.connect(part)) as copy,
        ):
            source.backup(copy, pages=PAGES)
            # one file, without a log beside it
            copy.execute("PRAGMA journal_mode = DELETE")
        found = _read_whole(part)
        _flush(part)
        beside = f"{found.sha256}  {target.name}\n"
        _hash_file(target).write_bytes(beside.encode("utf-8", "surrogateescape"))
        part.rename(target)
    except (OSError, sqlite3.Error) as error:
        part.unlink(missing_ok=True)
        if isinstance(error, sqlite3.OperationalError) and "unable to open" in str(error):
            raise StoreError(
                Said("{target}: cannot be written; choose another folder", target=Name(str(target)))
            ) from None
        raise (
            refusal(error) if isinstance(error, sqlite3.Error) else _unwritten(target, error)
        ) from error
    except StoreError:
        part.unlink(missing_ok=True)
        raise
    return Backup(path=target, size=found.size, sha256=found.sha256, version=found.version)


def _unwritten(target: Path, error: OSError) -> StoreError:
    return StoreError(
        Said(
            "{target}: cannot be written ({strerror})",
            target=Name(str(target)),
            strerror=Name(str(error.strerror)),
        )
    )


def _reading(path: Path) -> sqlite3.Connection:
    """Return a connection that cannot write. Raises StoreError where there is no file."""
    if not path.is_file():
        raise StoreError(Said("{path}: there is no such file", path=Name(str(path))))
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)


def _flush(path: Path) -> None:
    with path.open("rb") as file:
        os.fsync(file.fileno())


def _hash_file(path: Path) -> Path:
    return path.with_name(path.name + ".sha256")


def verified(path: Path) -> Backup:
    """Return a backup that is whole: its hash is the one kept beside it, and all of it can be read.

    Raises StoreError that says what is wrong.
    """
    found = _read_whole(path)
    beside = _hash_file(path)
    if beside.exists():
        kept = beside.read_text(encoding="utf-8", errors="replace").split(" ")[0].strip()
        if kept != found.sha256:
            raise StoreError(
                Said("{path}: is not as it was made (its SHA-256 is another)", path=Name(str(path)))
            )
    return found


def _read_whole(path: Path) -> Backup:
    """Return what a file is, after reading all of it: pages, indexes, references."""
    try:
        with contextlib.closing(_reading(path)) as con:
            ours = int(con.execute("PRAGMA application_id").fetchone()[0]) == APPLICATION_ID
            version = int(con.execute("PRAGMA user_version").fetchone()[0])
            said = [str(row[0]) for row in con.execute("PRAGMA integrity_check(5)")]
            loose = con.execute("PRAGMA foreign_key_check").fetchall()
    except (sqlite3.Error, UnicodeDecodeError) as error:
        raise StoreError(
            Said("{path}: cannot be read ({error})", path=Name(str(path)), error=Name(str(error)))
        ) from None
    if not ours:
        raise StoreError(Said("{path}: is not a database of this program", path=Name(str(path))))
    if version > migrations()[-1][0]:
        raise StoreError(
            Said(
                "{path}: was written by a newer Wide Arc; update the program", path=Name(str(path))
            )
        )
    if said != ["ok"] or loose:
        what = said[0] if said != ["ok"] else f"{len(loose)} broken references"
        raise StoreError(
            Said("{path}: is damaged ({what})", path=Name(str(path)), what=Name(str(what[:120])))
        )
    with path.open("rb") as file:
        digest = hashlib.file_digest(file, "sha256").hexdigest()
    return Backup(path=path, size=path.stat().st_size, sha256=digest, version=version)


def damage(database: Path) -> str:
    """Return what is wrong with a database's file in words, empty where it is sound or not there
    yet.
    """
    if not database.exists() or database.stat().st_size == 0:
        return ""
    try:
        with contextlib.closing(_reading(database)) as con:
            said = str(con.execute("PRAGMA quick_check(1)").fetchone()[0])
    except (sqlite3.Error, UnicodeDecodeError) as error:
        return str(error)
    return "" if said == "ok" else said[:200]


def restore(source: Path, database: Path, *, stamp: str) -> Backup | None:
    """Put a verified backup in the place of a database, also while it is served; return the backup
    that was made of what it was before, None where there was nothing sound.

    stamp: of the present, in file names. A damaged database is kept beside. Raises StoreError, and
    everything is as before.
    """
    verified(source)
    before: Backup | None = None
    if damage(database):
        for name in (database.name, f"{database.name}-wal", f"{database.name}-shm"):
            beside = database.with_name(name)
            if beside.exists():
                beside.rename(database.with_name(f"{name}.damaged-{stamp}"))
    elif database.exists():
        folder = database.parent / FOLDER
        folder.mkdir(mode=0o700, exist_ok=True)
        before = back_up(database, folder / f"{database.stem}-before-restore-{stamp}.db")
    try:
        # page by page into the open file, all or nothing: who reads it sees the one or the other
        with (
            contextlib.closing(_reading(source)) as con,
            contextlib.closing(sqlite3.connect(database, timeout=30.0)) as target,
        ):
            con.backup(target)
        open_store(database).close()
    except sqlite3.Error as error:
        raise refusal(error) from error
    return before


def daily(database: Path, day: str) -> Backup | None:
    """Make the day's backup beside the data, if there is none yet; forget those before the newest
    KEPT_DAYS. Return it, None where it was there.
    """
    folder = database.parent / FOLDER
    folder.mkdir(mode=0o700, exist_ok=True)
    target = folder / f"{database.stem}-{day}.db"
    made = None if target.exists() else back_up(database, target)
    for old in daily_backups(database)[KEPT_DAYS:]:
        old.unlink(missing_ok=True)
        _hash_file(old).unlink(missing_ok=True)
    return made


def daily_backups(database: Path) -> list[Path]:
    """Return the daily backups of a database, newest first."""
    folder = database.parent / FOLDER
    found = [(m["day"], p) for p in folder.glob("*.db") if (m := DAILY.fullmatch(p.name))]
    ours = [(day, p) for day, p in found if p.name.startswith(f"{database.stem}-{day}")]
    return [path for _, path in sorted(ours, reverse=True)]


def last_good(database: Path) -> Path | None:
    """Return the newest daily backup that is whole, None where there is none."""
    for path in daily_backups(database):
        with contextlib.suppress(StoreError):
            return verified(path).path
    return None
