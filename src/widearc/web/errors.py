"""Every error in our own look: what happened, and what to do."""

from __future__ import annotations

import traceback
from collections.abc import Callable

from flask import Flask, request
from flask.typing import ResponseReturnValue
from flask_wtf.csrf import CSRFError
from werkzeug.exceptions import HTTPException

from widearc.core.errors import InputError, WideArcError
from widearc.store.errors import ConflictError, MissingError, StoreError, UnwritableError, cause_of
from widearc.web.page import rendered
from widearc.web.words.refused import sentence
from widearc.words import say, tell, tr

WORDS = {
    400: ("That request is not complete", "Go back, load the page again and try once more."),
    404: ("There is nothing at this address", "Choose a screen above, or go back."),
    405: ("That cannot be done at this address", "Go back and use the buttons of the page."),
    413: ("That is too much at once", "A form may have up to 1 MB, a file of a place up to 16 MB."),
    500: ("Something went wrong in the program", "What was kept before is still kept. Try again."),
}


def _typed(error: WideArcError) -> str:
    assert isinstance(error, InputError)
    return sentence(
        tell(
            "{where} {value}: {allowed}",
            where=error.where,
            value=str(error.value),
            allowed=error.allowed,
        )
    )


def _said(error: WideArcError) -> str:
    return sentence(say(error.said))


REFUSED: tuple[tuple[type[WideArcError], int, str, Callable[[WideArcError], str]], ...] = (
    (
        MissingError,
        404,
        "That is not here any more",
        lambda error: tell("{said} Choose a screen above, or go back.", said=_said(error)),
    ),
    (ConflictError, 409, "Something was changed meanwhile", _said),
    (UnwritableError, 503, "The data cannot be used now", _said),
    (StoreError, 500, "The data cannot be read", _said),
    (InputError, 400, "A value is not allowed", _typed),
    (WideArcError, 400, "That cannot be computed", _said),
)
"""Every refusal by its class, narrow ones first: status, title, words."""


def error_page(code: int, title: str = "", advice: str = "") -> ResponseReturnValue:
    """Return the error page of a status code."""
    usual = WORDS.get(code, WORDS[400] if code < 500 else WORDS[500])
    return rendered(
        "shared/error.html", code=code, title=tr(title or usual[0]), advice=advice or tr(usual[1])
    ), code


def init_app(app: Flask) -> None:
    """Turn each class of error into its status and page."""

    @app.errorhandler(CSRFError)
    def forged(_: CSRFError) -> ResponseReturnValue:
        return error_page(
            400,
            "This page is too old to send",
            tr("Load it again and repeat the last step; nothing was changed."),
        )

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> ResponseReturnValue:
        return error_page(error.code or 500)

    @app.errorhandler(WideArcError)
    def refused(error: WideArcError) -> ResponseReturnValue:
        code, title, words = next(
            (code, title, words) for kind, code, title, words in REFUSED if isinstance(error, kind)
        )
        if code >= 500:
            app.logger.error(event("data cannot be used", error))
        return error_page(code, title, words(error))

    @app.errorhandler(Exception)
    def unexpected(error: Exception) -> ResponseReturnValue:
        cause = cause_of(error)
        app.logger.error(event("data cannot be used" if cause else "unexpected error", error))
        if cause:
            return error_page(503, "The data cannot be used now", cause)
        return error_page(500)


def event(what: str, error: BaseException) -> str:
    """Return an error as one line: where it happened, never what was typed or kept."""
    driver = error.__cause__ or error.__context__ or error
    frames = traceback.extract_tb((error.__cause__ or error).__traceback__)
    where = " > ".join(f"{_short(f.filename)}:{f.lineno}" for f in frames[-8:])
    asked = f"{request.method} {request.url_rule or 'unknown address'}"
    code = getattr(driver, "sqlite_errorname", "")
    cause = str(driver) if cause_of(driver) else f"{type(error).__name__} {code}".rstrip()
    return f"{what}: {cause} at {asked}: {where}"


def _short(path: str) -> str:
    return "/".join(path.replace("\\", "/").split("/")[-2:])
