"""The units and the language in which a page is read and typed: units as its address says, else as
the trainer chose.
"""

from __future__ import annotations

from urllib.parse import urlencode

from flask import Flask, g, has_request_context, request

from widearc import usecases
from widearc.store import Reads
from widearc.words import PLAIN, UNITS, How, begin, end

FIELD = "units"
"""In an address: its bare numbers are in these."""

NATIVE = {"en": "English", "id": "Bahasa Indonesia"}
"""Each language by its own name."""

FORM_FIELD = "read_in"
"""In a form that writes: its fields were shown in these."""


def typed_in() -> How:
    """Return in which units a bare number of this request's form is typed: as the form says; SI
    where it says nothing, whatever the trainer reads.
    """
    sent = request.form.get(FORM_FIELD, "") if has_request_context() else ""
    return How(units=sent) if sent in UNITS else PLAIN


def _sent() -> str:
    sent = request.form.get(FORM_FIELD, "") or request.args.get(FIELD, "")
    return sent if sent in UNITS else ""


def _reading() -> Reads:
    # here, not at the top: the connection is told the day by who reads a setting, too
    from widearc.web.db import connection, trainer

    return usecases.reading_of(connection(), trainer())


FILES = (".csv", ".json", ".zip")
"""What is sent as a file is English, whoever asks."""


def by_feel() -> bool:
    """Return whether the page that is answered is read without a number."""
    return bool(g.get("by_feel", False))


def how_gone() -> frozenset[str]:
    """Return the screens whose short how-to is put away."""
    gone: frozenset[str] = g.get("how_gone", frozenset())
    return gone


def here_without_units() -> str:
    """Return the address of this page without its units, to come back to in others; empty where it
    cannot be loaded again.
    """
    if request.method != "GET":
        return ""
    pairs = [pair for pair in request.args.items(multi=True) if pair[0] != FIELD]
    return request.path + ("?" + urlencode(pairs) if pairs else "")


def here_as_it_is() -> str:
    """Return the address of this page, to come back to in another language; empty where it cannot
    be loaded again.
    """
    query = request.query_string.decode("ascii", "ignore")
    return "" if request.method != "GET" else request.path + ("?" + query if query else "")


def init_app(app: Flask) -> None:
    """Speak in each request's units and language while it is answered."""

    app.jinja_env.globals["here_without_units"] = here_without_units
    app.jinja_env.globals["here_as_it_is"] = here_as_it_is
    app.jinja_env.globals["by_feel"] = by_feel
    app.jinja_env.globals["how_gone"] = how_gone
    app.jinja_env.globals["languages"] = tuple(NATIVE.items())

    @app.before_request
    def start() -> None:
        if request.endpoint != "static":
            reads = _reading()
            g.by_feel = reads.by_feel
            g.how_gone = reads.how_gone
            language = PLAIN.language if request.path.endswith(FILES) else reads.language
            g.spoken = begin(How(units=_sent() or reads.units, language=language))

    @app.teardown_request
    def stop(_: BaseException | None) -> None:
        token = g.pop("spoken", None)
        if token is not None:
            end(token)
