"""Method: formulas, sources, assumptions, cautions, and the look."""

from __future__ import annotations

from flask import Blueprint, render_template
from flask.typing import ResponseReturnValue

blueprint = Blueprint("method", __name__, url_prefix="/method")


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show what the numbers rest on."""
    return render_template("method/show.html")


@blueprint.get("/look")
def look() -> ResponseReturnValue:
    """Show every token of the look, in light and dark."""
    return render_template("method/look.html")
