"""Method: formulas, sources, assumptions, cautions, and the look."""

from __future__ import annotations

import functools
from pathlib import Path
from typing import Any

from flask import Blueprint, current_app
from flask.typing import ResponseReturnValue

from widearc.usecases import check_document
from widearc.usecases.safe.safe import backup_age
from widearc.web.db import now
from widearc.web.page import rendered

blueprint = Blueprint("method", __name__, url_prefix="/method")


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show what the numbers rest on, with every check value recomputed."""
    return rendered(
        "method/show.html",
        check=_checked(),
        backup=backup_age(Path(current_app.config["DATABASE"]), now()[:10]),
    )


@functools.cache
def _checked() -> dict[str, Any]:
    """Return the self-check: it depends on the program alone, so once a run is enough."""
    return check_document()


@blueprint.get("/look")
def look() -> ResponseReturnValue:
    """Show every token of the look, in light and dark."""
    return rendered("method/look.html")
