"""The self-check as a document."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from widearc.core.errors import WideArcError
from widearc.formats import check as follow_schema
from widearc.usecases.selfcheck.check import Check
from widearc.words import plain


def document_of(checks: Iterable[Check]) -> dict[str, Any]:
    """Return the wide-arc/check document: per check expected, got, tolerance, source and whether it
    passes.

    A check whose computation is refused fails with the reason.
    """
    parts = []
    for item in checks:
        part: dict[str, Any] = {
            "group": item.group.value,
            "name": item.name,
            "unit": item.unit,
            "expected": list(item.expected),
            "tolerance": item.tolerance,
            "source": item.source,
        }
        try:
            got = item.got()
            part |= {"got": [round(v, 6) for v in got], "passes": item.passes(got)}
        except WideArcError as error:
            part |= {"got": [], "passes": False, "error": plain(error.said)}
        parts.append(part)
    failed = sum(not part["passes"] for part in parts)
    document = {
        "format": "wide-arc/check",
        "version": 1,
        "passed": len(parts) - failed,
        "failed": failed,
        "checks": parts,
    }
    follow_schema(document, "check")
    return document
