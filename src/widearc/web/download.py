"""What is downloaded: rows as CSV."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from flask import Response

from widearc.web.words.words import MINUS


def csv_response(name: str, rows: list[Sequence[str]]) -> Response:
    """Return rows of text as a CSV file: plain numbers, an empty cell where there is none."""
    out = io.StringIO()
    plain = (
        [cell.replace(MINUS, "-").rstrip("°").replace("–", "") for cell in row] for row in rows
    )
    csv.writer(out, lineterminator="\n").writerows(plain)
    headers = {"Content-Disposition": f'attachment; filename="{name}.csv"'}
    return Response(out.getvalue(), mimetype="text/csv", headers=headers)
