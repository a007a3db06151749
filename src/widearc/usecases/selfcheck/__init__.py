"""The self-check: every value that the program can be checked by, recomputed.

Each check names what is expected, its tolerance and its source. "common practice, no source" marks
a fact of the trade; "from memory" a published value recalled without a copy at hand.
"""

from typing import Any

from widearc.usecases.selfcheck.check import Check, Group
from widearc.usecases.selfcheck.document import document_of
from widearc.usecases.selfcheck.laws import LAWS
from widearc.usecases.selfcheck.published import PUBLISHED
from widearc.usecases.selfcheck.statics import STATICS
from widearc.usecases.selfcheck.trade import TRADE
from widearc.usecases.selfcheck.worked import WORKED

CHECKS: tuple[Check, ...] = (*PUBLISHED, *WORKED, *STATICS, *LAWS, *TRADE)
"""Every check, computed when its `got` is asked for."""


def check_document() -> dict[str, Any]:
    """Return the wide-arc/check document of every check."""
    return document_of(CHECKS)


__all__ = ["CHECKS", "Check", "Group", "check_document", "document_of"]
