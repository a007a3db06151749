"""Pages: a frozen value for each, whose fields are all that its template can place."""

from __future__ import annotations

from dataclasses import fields
from typing import TYPE_CHECKING

from flask import render_template, request

if TYPE_CHECKING:
    from _typeshed import DataclassInstance


def shown(folder: str, page: DataclassInstance) -> str:
    """Return a page's HTML: the whole of it (`show.html`), or what is asked for in place."""
    template = "_answer.html" if request.headers.get("X-Part") else "show.html"
    values = {f.name: getattr(page, f.name) for f in fields(page)}
    return render_template(f"{folder}/{template}", **values)
