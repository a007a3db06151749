"""Keeping what one has: the backup's age, everything out as one file and in again."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date
from pathlib import Path
from zoneinfo import available_timezones

from widearc import store
from widearc.core.errors import InputError, one_of
from widearc.core.words import Count, Name, Said, Term
from widearc.formats import Archive, read_archive, write_archive
from widearc.store.archive import Table, everything, replace_everything, schema_version
from widearc.store.backup import DAILY, FOLDER, daily_backups
from widearc.usecases.sheet import SheetError
from widearc.words import LANGUAGES, UNITS


def time_zone(con: store.Connection, trainer_id: int) -> str:
    """Return the name of the zone that the trainer's days are counted in, empty for the
    browser's.
    """
    return store.time_zone(con, trainer_id)


def set_time_zone(con: store.Connection, trainer_id: int, name: str) -> None:
    """Set the zone that the trainer's days are counted in; empty for the browser's. SheetError at
    "zone".
    """
    clean = name.strip()
    if clean and clean not in available_timezones():
        raise SheetError(
            {
                "zone": Said(
                    "“{clean}” is no time zone: as Europe/Oslo, or empty", clean=Name(clean[:30])
                )
            }
        )
    with store.transaction(con):
        store.set_time_zone(con, trainer_id, clean)


def units_of(con: store.Connection, trainer_id: int) -> str:
    """Return the units that the trainer reads and types: "metric" or "imperial"."""
    return store.units(con, trainer_id)


def language_of(con: store.Connection, trainer_id: int) -> str:
    """Return the language that the trainer reads, by its two letters; English where what is set is
    not shipped (any more).
    """
    name = store.language(con, trainer_id)
    return name if name in LANGUAGES else LANGUAGES[0]


def set_language(con: store.Connection, trainer_id: int, name: str) -> None:
    """Set the language that the trainer reads. InputError for one that is not shipped."""
    if name not in LANGUAGES:
        raise InputError("language", name[:20], one_of(LANGUAGES))
    with store.transaction(con):
        store.set_language(con, trainer_id, name)


def set_units(con: store.Connection, trainer_id: int, name: str) -> None:
    """Set the units that the trainer reads and types. InputError for others."""
    if name not in UNITS:
        raise InputError("units", name[:20], one_of(UNITS))
    with store.transaction(con):
        store.set_units(con, trainer_id, name)


MOST_PUT_AWAY = 40


def put_how_away(con: store.Connection, trainer_id: int, screen: str) -> None:
    """Put the short how-to of a screen away, for good. InputError for what names no screen."""
    if not screen.isalpha() or len(screen) > 20:
        raise InputError("screen", screen[:20], Said("the name of a screen"))
    with store.transaction(con):
        gone = store.reading(con, trainer_id).how_gone
        if len(gone) < MOST_PUT_AWAY:
            store.set_how_gone(con, trainer_id, gone | {screen})


def show_how_again(con: store.Connection, trainer_id: int) -> None:
    """Show the short how-to of every screen again."""
    with store.transaction(con):
        store.set_how_gone(con, trainer_id, frozenset())


YESTERDAY = "Last backup yesterday, {number} kept in {folder}."


@dataclass(frozen=True, slots=True, kw_only=True)
class BackupAge:
    """The newest daily backup: its day (ISO; empty: none yet), how many days ago, how many are
    kept, where.
    """

    day: str
    days: int
    number: int
    folder: str

    @property
    def words(self) -> Said:
        """Return its age as it is said."""
        if not self.day:
            return Said("No backup yet: one a day is made while the program runs.")
        words = "Last backup {days} days ago, {number} kept in {folder}."
        if self.days < 2:
            words = ("Last backup today, {number} kept in {folder}.", YESTERDAY)[self.days]
        return Said(
            words, days=Count(self.days), number=Count(self.number), folder=Name(self.folder)
        )


def backup_age(database: Path, today: str) -> BackupAge:
    """Return how old the newest daily backup is on a day."""
    found = daily_backups(database)
    match = DAILY.fullmatch(found[0].name) if found else None
    day = match["day"] if match else ""
    days = (date.fromisoformat(today) - date.fromisoformat(day)).days if day else 0
    return BackupAge(
        day=day,
        days=max(0, days),
        number=len(found),
        folder=str(Path(database.parent.name) / FOLDER),
    )


def export_all(con: store.Connection, trainer_id: int, *, now: str) -> bytes:
    """Return everything that a trainer has as one ZIP."""
    tables = {t.name: (t.columns, t.rows) for t in everything(con, trainer_id)}
    return write_archive(Archive(made_at=now, schema=schema_version(), tables=tables))


def import_all(con: store.Connection, trainer_id: int, content: bytes, *, now: str) -> Archive:
    """Put an archive in the place of all that a trainer has, as one change to undo; return it.

    Raises InputError that says where the file is wrong; everything is as before then.
    """
    archive = read_archive(content)
    if archive.schema > schema_version():
        raise InputError("/schema", archive.schema, Said("made by this program or an older one"))
    words = Said(
        "everything replaced by the archive of {day}",
        day=Name(archive.made_at[:10]) if archive.made_at else Term("an unknown day"),
    )
    with store.recorded(con, trainer_id, scope="places", kind="archive", words=words, now=now):
        replace_everything(
            con,
            trainer_id,
            [
                Table(name=name, columns=tuple(columns), rows=tuple(map(tuple, rows)))
                for name, (columns, rows) in archive.tables.items()
            ],
        )
    return archive


def reading_of(con: store.Connection, trainer_id: int) -> store.Reads:
    """Return in which units and language a trainer reads, and whether by feel; English where the
    language that is set is not shipped (any more).
    """
    found = store.reading(con, trainer_id)
    return found if found.language in LANGUAGES else replace(found, language=LANGUAGES[0])


def set_by_feel(con: store.Connection, trainer_id: int, *, on: bool) -> None:
    """Set whether they are read without a number."""
    with store.transaction(con):
        store.set_by_feel(con, trainer_id, on=on)
