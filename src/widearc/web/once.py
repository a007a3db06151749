"""A second tap gets the first one's answer: every form carries a key that is used once."""

from __future__ import annotations

import hashlib
import secrets
import threading

from flask import Flask, Response, g, redirect, request, url_for
from flask_wtf.csrf import generate_csrf
from markupsafe import Markup, escape
from werkzeug.datastructures import FileStorage

from widearc import store
from widearc.store.errors import RepeatedError
from widearc.web.db import connection, now, trainer
from widearc.web.forms.typed import back_or
from widearc.words import spoken

FIELD = "once"
LONGEST = 64
SHORTEST = 8
WAITS = [threading.Lock() for _ in range(64)]  # two of one form wait for each other
LONGEST_WAIT_S = 30.0


def form_keys() -> Markup:
    """Return the hidden fields of a form that writes: whose it is, and which one."""
    # put together by hand: a page of many things has as many forms
    return Markup(
        f'<input type="hidden" name="csrf_token" value="{escape(generate_csrf())}">'
        f'<input type="hidden" name="{FIELD}" value="{secrets.token_urlsafe(9)}">'
        f'<input type="hidden" name="read_in" value="{spoken().units}">'
    )


def _key() -> str | None:
    """Return what tells this form as it was filled in from any other, None for one without."""
    sent = request.form.get(FIELD, "")
    if not SHORTEST <= len(sent) <= LONGEST:
        return None
    # the page that is gone back to and changed is another form
    filled = sorted((k, v) for k, v in request.form.items(multi=True) if k != "csrf_token")
    text = repr((request.path, filled, [*map(_content, request.files.values())]))
    return hashlib.sha256(text.encode("utf-8", "surrogatepass")).hexdigest()


def _content(upload: FileStorage) -> str:
    """Return what a file that was sent is told apart by; it can still be read."""
    digest = hashlib.sha256(upload.read()).hexdigest()
    upload.stream.seek(0)
    return digest


def init_app(app: Flask) -> None:
    """Answer each form once; to be called after the protection against forged ones."""
    app.jinja_env.globals["form_keys"] = form_keys

    @app.before_request
    def begin() -> Response | None:
        key = _key() if request.method == "POST" else None
        if key is None:
            return None
        wait = WAITS[int(key[:8], 16) % len(WAITS)]
        if wait.acquire(timeout=LONGEST_WAIT_S):
            g.once_wait = wait
        answered = store.answer_of(connection(), trainer(), key)
        if answered is not None:
            return _again(answered)
        g.once = connection().once = store.Once(trainer_id=trainer(), key=key, at=now())
        return None

    @app.after_request
    def keep(response: Response) -> Response:
        once = g.get("once")
        if once is not None and 300 <= response.status_code < 400:
            store.keep_answer(connection(), once, response.headers.get("Location", ""))
        return response

    @app.teardown_request
    def end(_: BaseException | None) -> None:
        wait = g.pop("once_wait", None)
        if wait is not None:
            wait.release()

    @app.errorhandler(RepeatedError)
    def repeated(_: RepeatedError) -> Response:
        return _again("")


def _again(location: str) -> Response:
    """Lead to where the first answer led, else back to where the form was."""
    otherwise = back_or(request.form.get("back", ""), url_for("home.show"))
    answer = redirect(location or otherwise)
    assert isinstance(answer, Response)
    return answer
