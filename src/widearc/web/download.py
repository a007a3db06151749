"""What is downloaded: rows as CSV."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from flask import Response, send_file

from widearc.web.words.words import MINUS


def csv_response(name: str, rows: list[Sequence[str]]) -> Response:
    """Return rows of text as a CSV file: plain numbers, an empty cell where there is none."""
    out = io.StringIO()
    plain = (
        [cell.replace(MINUS, "-").rstrip("°").replace("–", "") for cell in row] for row in rows
    )
    csv.writer(out, lineterminator="\n").writerows(plain)
    return sent(out.getvalue(), name, "csv")


KINDS = {"csv": "text/csv", "json": "application/json", "zip": "application/zip"}


def sent(content: str | bytes, name: str, kind: str) -> Response:
    """Return content as a file to keep, under a name of any script; kind: one of KINDS."""
    # a header knows Latin letters only: send_file also gives the name as it is
    plain = "".join(c if c.isalnum() or c in "-_" else "-" for c in name.lower())[:80]
    body = content.encode() if isinstance(content, str) else content
    return send_file(
        io.BytesIO(body),
        mimetype=KINDS[kind],
        as_attachment=True,
        download_name=f"{plain or 'wide-arc'}.{kind}",
    )
