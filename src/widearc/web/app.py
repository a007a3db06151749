"""The application: one factory, configuration passed in."""

from __future__ import annotations

import secrets
from collections.abc import Callable, Mapping
from datetime import UTC, datetime
from functools import partial
from pathlib import Path
from typing import Any

from flask import Flask
from flask_compress import Compress
from flask_talisman import Talisman
from flask_wtf.csrf import CSRFProtect
from jinja2 import Environment, StrictUndefined, pass_context
from jinja2.runtime import Context
from markupsafe import escape

from widearc.core.search import Memo
from widearc.core.words import Unspoken
from widearc.web import db, errors, limits, once, units
from widearc.web.forms.fields import field_id
from widearc.web.gate import Gate
from widearc.web.messages import Translated
from widearc.web.screens import marks, screens
from widearc.web.screens.bench.gaugedesk import GaugeDesk
from widearc.web.trust import Trust
from widearc.web.trust import init_app as init_trust
from widearc.web.words import feel, how, words
from widearc.words import LANGUAGES, say, sign_of, size_of, spoken, tr, translated

LOOPBACK_ONLY = Trust()

CSP = {
    "default-src": "'none'",
    "script-src": "'self'",
    "style-src": "'self'",
    "img-src": ["'self'", "data:"],
    "font-src": "'self'",
    "connect-src": "'self'",
    "form-action": "'self'",
    "base-uri": "'none'",
    "frame-ancestors": "'none'",
    "manifest-src": "'self'",
    "worker-src": "'self'",
}


def _asked_each_time(words: Callable[[Any], str]) -> Callable[[Context, Any], str]:
    """Return a filter whose answer is never worked out beforehand: of a constant Jinja would keep
    that of whoever asked first, in their units.
    """

    @pass_context
    def asked(_: Context, value: Any) -> str:
        return words(value)

    return asked


def _as_html(self: Unspoken) -> str:
    """Return a sentence of the core as a template prints it."""
    return escape(say(self))


# templates print a sentence like any text; asking each printed value costs a twentieth of a page
Unspoken.__html__ = _as_html  # type: ignore[attr-defined]


def utc_now() -> str:
    """Return the present time as ISO text in UTC."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def create_app(
    database: Path | str,
    *,
    secret_key: str | None = None,
    demo: bool = False,
    now: Callable[[], str] = utc_now,
    config: Mapping[str, Any] | None = None,
    trust: Trust = LOOPBACK_ONLY,
    gauge_hosts: frozenset[str] = frozenset(),
) -> Flask:
    """Return the application on a database file; `now` gives ISO times, `config` overrides
    Flask's.

    trust: whom it answers. gauge_hosts: where a gauge may be besides this machine.
    """
    app = Flask(__name__)
    init_trust(app, trust)
    limits.init_app(app)
    app.config.update(
        DATABASE=str(database),
        SECRET_KEY=secret_key or secrets.token_hex(32),
        DEMO=demo,
        GAUGE_ADDRESS="",
        NOW=now,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_HTTPONLY=True,
        COMPRESS_STREAMS=False,  # Flask-Compress leaves streamed static files open
        WTF_CSRF_TIME_LIMIT=None,  # a page may stay open through a whole session
    )
    app.config.update(config or {})
    app.extensions["memo"] = Memo()
    app.extensions["gate"] = Gate()
    app.extensions["gauge"] = GaugeDesk(gauge_hosts)
    CSRFProtect(app)
    Compress(app)
    # served on loopback over plain HTTP by default: no redirect and no secure-only cookie
    Talisman(
        app,
        content_security_policy=CSP,
        force_https=False,
        strict_transport_security=False,
        session_cookie_secure=False,
        frame_options="DENY",
        referrer_policy="same-origin",
    )
    db.init_app(app)
    errors.init_app(app)
    limits.refuse_odd_characters(app)
    limits.keep_nothing(app)
    once.init_app(app)
    units.init_app(app)
    for screen in screens():
        for blueprint in screen.blueprints:
            app.register_blueprint(blueprint)
    app.jinja_env.globals["marks"] = marks()
    app.jinja_env.undefined = StrictUndefined
    for name in (
        "begins",
        "whole",
        "short",
        "kg",
        "percent",
        "percent_up",
        "kgf",
        "mass",
        "thing",
        "stamp",
        "tape",
        "metres",
        "force",
        "newtons",
        "centimetres",
        "clock",
        "date",
        "day",
        "item_words",
        "joint_name",
        "joint_bend",
    ):
        app.template_filter(name)(_asked_each_time(getattr(words, name)))
    app.jinja_env.globals |= {
        "near_words": feel.near_words,
        "feel_pieces": feel.feel_pieces,
        "said_again": words.said_again,
        "sign_of": sign_of,
        "size_of": size_of,
        "spoken": spoken,
        "how_to": how.HOW,
        "keys_of": how.keys_of,
    }
    app.template_filter("field_id")(field_id)
    app.template_filter("say")(_asked_each_time(say))
    app.template_filter("tr")(_asked_each_time(_said_or_translated))
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    app.extensions["languages"] = {name: _environment(app, name) for name in LANGUAGES}
    return app


def _said_or_translated(words: Unspoken | str) -> str:
    """Return a text of the program in the language that is spoken; a sentence is said."""
    return tr(words) if isinstance(words, str) else say(words)


def _environment(app: Flask, language: str) -> Environment:
    """Return the templates of one language: their texts are translated when they are compiled."""
    made = app.jinja_env.overlay(extensions=[Translated])
    made.say_message = partial(translated, language=language)  # type: ignore[attr-defined]
    return made
