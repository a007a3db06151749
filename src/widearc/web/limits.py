"""How much may be sent at once: files of one's own data more than forms."""

from __future__ import annotations

from typing import Any

from flask import Flask, Response, request
from werkzeug.routing import IntegerConverter, Map

from widearc.core.errors import InputError
from widearc.core.words import Said

LARGEST_FORM = 1_000_000  # bytes
LARGEST_FILE = 16_000_000  # a place of 500 things with 500 readings each
TAKES_FILES = ("/exchange/", "/exchange/all")


LINES = ("note", "words", "csv", "text", "reason")  # fields of several lines
LARGEST_ID = 2**53


class IdConverter(IntegerConverter):
    """A number in an address that a row may have."""

    def __init__(self, map: Map, *args: Any, **kwargs: Any) -> None:
        super().__init__(map, *args, **kwargs)
        self.max = LARGEST_ID


def odd_character(name: str, text: str) -> str:
    """Return a character of a field's text that cannot be kept, as its code; empty for none: none
    may be half a character or a control, and line ends only where there are lines.
    """
    for c in text:
        if c in "\n\r\t" and name in LINES:
            continue
        if c < " " or "\x7f" <= c < "\xa0" or "\ud800" <= c <= "\udfff":
            return f"U+{ord(c):04X}"
    return ""


def init_app(app: Flask) -> None:
    """Set the limit of each request; to be called before what reads forms."""
    app.url_map.converters["int"] = IdConverter
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_FORM
    app.config["MAX_FORM_MEMORY_SIZE"] = LARGEST_FORM

    @app.before_request
    def allow() -> None:
        if request.path in TAKES_FILES:
            # a file looked at before it is taken comes back as text
            request.max_content_length = LARGEST_FILE
            request.max_form_memory_size = LARGEST_FILE


PERSONAL = ("clients", "record", "floor", "swap", "week", "arc", "exchange", "intent")


def keep_nothing(app: Flask) -> None:
    """Tell browsers and proxies to keep no page that names a client."""

    @app.after_request
    def personal(response: Response) -> Response:
        if (request.blueprint or "") in PERSONAL:
            response.headers["Cache-Control"] = "no-store"
        return response


def refuse_odd_characters(app: Flask) -> None:
    """Refuse texts that cannot be kept, by the field's name; to be called after what checks
    tokens.
    """

    @app.before_request
    def plain() -> None:
        for source in (request.args, request.form):
            for name, text in source.items(multi=True):
                odd = odd_character(name, text) or odd_character("", name)
                if odd:
                    shown = "".join(c if c.isprintable() else "?" for c in name[:40])
                    raise InputError(shown, odd, Said("text without control characters"))
