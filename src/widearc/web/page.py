"""Pages: a frozen value for each, whose fields are all that its template can place."""

from __future__ import annotations

from dataclasses import fields
from typing import TYPE_CHECKING, Any

from flask import current_app, request

from widearc.words import spoken

if TYPE_CHECKING:
    from _typeshed import DataclassInstance


def rendered(template: str, **values: Any) -> str:
    """Return a template's HTML in the language that is spoken."""
    env = current_app.extensions["languages"][spoken().language]
    current_app.update_template_context(values)
    text: str = env.get_template(template).render(values)
    return text


def shown(folder: str, page: DataclassInstance) -> str:
    """Return a page's HTML: the whole of it (`show.html`), or what is asked for in place."""
    template = "_answer.html" if request.headers.get("X-Part") else "show.html"
    values = {f.name: getattr(page, f.name) for f in fields(page)}
    return rendered(f"{folder}/{template}", **values)
