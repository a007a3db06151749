"""The glossary."""

from __future__ import annotations

from flask import Blueprint, render_template
from flask.typing import ResponseReturnValue

from widearc.web.screens.terms.terms import TERMS

blueprint = Blueprint("terms", __name__, url_prefix="/terms")


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """List every term in the order of the alphabet."""
    return render_template("terms/show.html", terms=TERMS)
