"""What the store refuses."""

from __future__ import annotations

from widearc.core.errors import WideArcError


class StoreError(WideArcError):
    """A database that cannot be used, or a row that does not exist; the text says what to do."""


class MissingError(StoreError, LookupError):
    """A row that does not exist, or belongs to someone else."""
