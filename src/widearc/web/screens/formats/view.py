"""Formats: the JSON Schemas, served as they ship."""

from __future__ import annotations

import json

from flask import Blueprint, Response, abort
from flask.typing import ResponseReturnValue

from widearc.formats import FORMATS, schema
from widearc.web.page import rendered

blueprint = Blueprint("formats", __name__, url_prefix="/formats")


@blueprint.get("/")
def index() -> ResponseReturnValue:
    """List the formats."""
    return rendered(
        "method/formats.html", formats=[(name, schema(name)) for name in ("common", *FORMATS)]
    )


@blueprint.get("/<name>.json")
def one(name: str) -> ResponseReturnValue:
    """Send one schema."""
    if name not in ("common", *FORMATS):
        abort(404)
    return Response(
        json.dumps(schema(name), ensure_ascii=False, indent=1), mimetype="application/schema+json"
    )
