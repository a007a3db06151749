"""One connection per request, given back at its end, and who asks."""

from __future__ import annotations

from flask import Flask, current_app, g

from widearc import store
from widearc.usecases import Holdings
from widearc.web.zone import local


def connection() -> store.Connection:
    """Return this request's connection, opened at first use."""
    if "connection" not in g:
        g.connection = current_app.extensions["connections"].take()
    connected: store.Connection = g.connection
    return connected


def trainer() -> int:
    """Return the trainer who asks: the local one, until accounts come."""
    if "trainer" not in g:
        g.trainer = store.local_trainer(connection(), now=current_app.config["NOW"]())
    known: int = g.trainer
    return known


def held() -> Holdings:
    """Return what is kept of the trainer, read anew at each call: a page may have written."""
    return Holdings(connection(), trainer())


def now() -> str:
    """Return the present time as ISO text by the trainer's clock: its first ten characters are
    their day.
    """
    return local(current_app.config["NOW"]()).isoformat(timespec="seconds")


def init_app(app: Flask) -> None:
    """Give the connection back after each request."""
    pool = store.Pool(app.config["DATABASE"])
    app.extensions["connections"] = pool

    @app.teardown_appcontext
    def close(_: BaseException | None) -> None:
        connected = g.pop("connection", None)
        if connected is not None:
            pool.give(connected)
