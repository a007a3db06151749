"""`make screenshots`: one current picture of each main view from the demo data."""

from __future__ import annotations

import logging
import sys
import tempfile
import threading
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from waitress.server import create_server

from widearc import store
from widearc.demo import load_demo
from widearc.web import create_app

NOW = "2026-11-24T14:06:00+00:00"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
DESK, PHONE = (1280, 800), (390, 844)
COMPARED = "/arc/compare?joint=hip" + "".join(
    f"&pin=exercise%3D{id_}" for id_ in ("back-squat-high", "romanian-deadlift", "hip-thrust")
)
VIEWS = (
    ("room", "/room/1", DESK, "light"),
    ("room-phone", "/room/1?units=imperial", PHONE, "light"),
    ("bench", "/bench/band/16", DESK, "light"),
    ("machine", "/bench/machine/36", DESK, "light"),
    ("client", "/clients/3", DESK, "light"),
    ("look-round-phone", "/room/1/look", PHONE, "light"),
    ("bench-phone", "/bench/band/16", PHONE, "light"),
    (
        "arc",
        "/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=24&l0-port=goblet&client=1",
        DESK,
        "light",
    ),
    ("arc-dark", "/arc/?exercise=hack-squat&client=1", DESK, "dark"),
    ("arc-phone", "/arc/?exercise=hip-thrust&client=1", PHONE, "light"),
    ("intent", "/intent/", DESK, "light"),
    ("compare", COMPARED, DESK, "light"),
    ("claims", "/claims/thrust-or-squat", DESK, "light"),
    ("swap", "/swap", DESK, "light"),
    ("swap-dark", "/swap?pick=split-squat", DESK, "dark"),
    ("swap-phone", "/swap?pick=goblet-squat", PHONE, "light"),
    ("kept", "/kept", DESK, "light"),
    ("look", "/method/look", DESK, "light"),
    ("look-dark", "/method/look", DESK, "dark"),
)


def main(folder: Path) -> None:
    """Write every view's PNG into a folder."""
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data:
        database = Path(data) / "demo.db"
        con = store.open_store(database)
        load_demo(con, now=NOW)
        con.close()
        app = create_app(database, secret_key="screenshots", now=lambda: NOW)
        server = create_server(app, host="127.0.0.1", port=0)
        threading.Thread(target=server.run, daemon=True).start()
        address = f"http://127.0.0.1:{server.effective_port}"
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
            _prepare(browser.new_page(), address)
            for name, path, (width, height), scheme in VIEWS:
                context = browser.new_context(
                    viewport={"width": width, "height": height}, color_scheme=scheme
                )
                page = context.new_page()
                page.goto(address + path, wait_until="networkidle")
                page.screenshot(path=folder / f"{name}.png")
                context.close()
            browser.close()
        server.close()


def _prepare(page: Page, address: str) -> None:
    """Take the press and keep two decisions, so that no view is empty."""
    page.goto(f"{address}/swap?pick=goblet-squat")
    page.get_by_role("button", name="Use this").click()
    page.goto(f"{address}/swap?pick=band-squat&kg=100")
    page.get_by_role("button", name="Use this").click()
    page.goto(f"{address}/room/1")
    page.locator("#item-1").click()
    page.wait_for_selector("#undo")


if __name__ == "__main__":
    main(Path(sys.argv[1] if len(sys.argv) > 1 else "docs/screenshots"))
