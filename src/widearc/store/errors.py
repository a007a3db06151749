"""What the store refuses."""

from __future__ import annotations

import sqlite3

from widearc.core.errors import WideArcError
from widearc.core.words import Name, Said, Term


class StoreError(WideArcError):
    """A database that cannot be used, or a row that does not exist; the text says what to do."""


class MissingError(StoreError, LookupError):
    """A row that does not exist, or belongs to someone else."""


class ConflictError(StoreError):
    """Something that does not fit what was written meanwhile."""


class RepeatedError(StoreError):
    """A form that was sent and kept already."""


class UnwritableError(StoreError):
    """A database that cannot be written or read now: full, read only, locked, damaged."""


CAUSES = {
    "full": "The disk is full. What was kept is safe; make room and send it again.",
    "readonly": "The data cannot be written: the folder or the file is read only. What was kept "
    "is safe; give the program the right to write there.",
    "locked": "Another program holds the data. What was kept is safe; close it and send it again.",
    "disk i/o": "The disk does not answer. What was kept before may be safe; look at the disk, "
    "then start the program again.",
    "unable to open": "The data file cannot be opened: the folder is gone, read only or full. What "
    "was kept is safe; look at the folder.",
    "not a database": "The data file is not a database, or its beginning is damaged. Stop the "
    "program and start it again: it offers "
    "the last good backup.",
    "malformed": "The data file is damaged. Stop the program and start it again: it offers the "
    "last good backup.",
}


def refusal(error: sqlite3.Error) -> StoreError:
    """Return what the driver's error means: its cause, what is safe, what to do."""
    if isinstance(error, sqlite3.IntegrityError):
        return ConflictError(
            Said(
                "That does not fit what was changed meanwhile. Load the page again; nothing was "
                "changed."
            )
        )
    cause = cause_of(error)
    if cause:
        return UnwritableError(Said("{cause}", cause=Term(cause)))
    return UnwritableError(Said("The data cannot be used now ({error}).", error=Name(str(error))))


def cause_of(error: BaseException) -> str:
    """Return why the driver failed in words: the cause, what is safe, what to do; empty where it is
    another error or of another cause.
    """
    if not isinstance(error, sqlite3.Error):
        return ""
    text = str(error).lower().replace("read-only", "readonly").replace("read only", "readonly")
    return next((words for sign, words in CAUSES.items() if sign in text), "")
