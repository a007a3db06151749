"""The application in process, and served for a real browser."""

from __future__ import annotations

import shutil
import threading
import time
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from playwright.sync_api import expect
from werkzeug.serving import make_server

from tests.conftest import NOW
from widearc import store
from widearc.core.search import Memo
from widearc.gauge import SCRIPTS, Simulator
from widearc.web import create_app

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


# On a busy machine a page may take seconds: what is right comes, what is wrong still fails.
expect.set_options(timeout=20_000)


@pytest.fixture
def database(demo_file, tmp_path) -> Path:
    return Path(shutil.copy(demo_file, tmp_path / "web.db"))


@pytest.fixture(scope="session")
def memo():
    """What the search computed once is kept over the tests: its keys say all that it depends on."""
    return Memo()


BEGAN = time.monotonic()


def clock() -> str:
    """Return the time of a clock that started at the demo's own day: a test is the same on any
    day.
    """
    since = timedelta(seconds=time.monotonic() - BEGAN)
    return (datetime.fromisoformat(NOW) + since).isoformat(timespec="seconds")


@pytest.fixture
def app(database, memo):
    made = create_app(database, secret_key="test", now=clock, config={"WTF_CSRF_ENABLED": False})
    made.extensions["memo"] = memo
    return made


@pytest.fixture
def client(app):
    return app.test_client()


@pytest.fixture
def con(database):
    """The served database, to look at what was kept."""
    connection = store.open_store(database)
    yield connection
    connection.close()


@pytest.fixture(scope="session")
def browser_type_launch_args():
    if not Path(CHROMIUM).exists():
        pytest.fail(
            "Debian's chromium is missing: run apt-get install chromium (make test does it as root)"
        )
    return {"executable_path": CHROMIUM, "args": FLAGS}


def whole(app):
    """Return an application that sends each answer whole, but for streams of events.

    Werkzeug's server, which only tests use, leaves a file open when the browser resets a connection
    while it is sent: a page that was left is a warning in some later test.
    """

    def answer(environ, start_response):
        said: dict[str, str] = {}

        def begin(status, headers, exc_info=None):
            said.update(headers)
            return start_response(status, headers, exc_info)

        parts = app(environ, begin)
        if said.get("Content-Type", "").startswith("text/event-stream"):
            return parts
        try:
            return [b"".join(parts)]
        finally:
            if hasattr(parts, "close"):
                parts.close()

    return answer


@pytest.fixture
def served(database, memo):
    """Serve the demo with CSRF on and yield its address."""
    yield from serving(database, memo)


@pytest.fixture
def served_empty(tmp_path, memo):
    """Serve a database that nothing is in, and yield its address."""
    yield from serving(tmp_path / "web.db", memo)


def serving(path, memo):
    app = create_app(path, secret_key="test", now=clock)
    app.extensions["memo"] = memo
    server = make_server("127.0.0.1", 0, whole(app), threaded=True)
    thread = threading.Thread(target=server.serve_forever)
    thread.start()
    yield f"http://127.0.0.1:{server.server_port}"
    server.shutdown()
    thread.join()
    server.server_close()


@pytest.fixture
def watched(page):
    """A page on which any console error, policy violation or script error fails the test."""
    troubles: list[str] = []
    page.on(
        "console", lambda m: troubles.append(m.text) if m.type in ("error", "warning") else None
    )
    page.on("pageerror", lambda e: troubles.append(str(e)))
    page.on(
        "requestfailed",
        lambda r: troubles.append(f"failed: {r.url}") if "ERR_ABORTED" not in r.failure else None,
    )
    yield page
    assert troubles == []


@pytest.fixture
def gauge():
    """A simulated gauge that plays faster than life; yields it, with its address."""
    simulator = Simulator(SCRIPTS["band-light"], port=0, speed=4.0).start()
    yield simulator
    simulator.stop()
