"""The glossary."""

from __future__ import annotations

from flask import Blueprint
from flask.typing import ResponseReturnValue

from widearc.web.page import rendered
from widearc.web.screens.terms.terms import TERMS

blueprint = Blueprint("terms", __name__, url_prefix="/terms")


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """List every term in the order of the alphabet."""
    return rendered("terms/show.html", terms=TERMS)
