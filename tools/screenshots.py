"""`make screenshots`: one current picture of each main view from the demo data."""

from __future__ import annotations

import logging
import re
import sys
import tempfile
import threading
from base64 import b64encode
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright
from waitress.server import create_server

from widearc import store
from widearc.demo import load_demo, load_record, load_weeks
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
    ("home", "/", DESK, "light"),
    ("room", "/room/1", DESK, "light"),
    ("bench", "/bench/band/16", DESK, "light"),
    ("machine", "/bench/machine/36", DESK, "light"),
    ("client", "/clients/3", DESK, "light"),
    ("client-over-time", "/clients/1/time", (1280, 1180), "light"),
    ("sets-typed", "/clients/1/sets", DESK, "light"),
    ("week", "/week/?client=1", (1280, 1000), "light"),
    ("ladder", "/ladder/?client=1&exercise=split-squat", (1280, 960), "light"),
    (
        "arc",
        "/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=24&l0-port=goblet&client=1",
        DESK,
        "light",
    ),
    ("intent", "/intent/", DESK, "light"),
    ("compare", COMPARED, DESK, "light"),
    ("claims", "/claims/thrust-or-squat", DESK, "light"),
    ("swap", "/swap", DESK, "light"),
    ("swap-dark", "/swap?pick=split-squat", DESK, "dark"),
    ("kept", "/kept", DESK, "light"),
    ("look", "/method/look", DESK, "light"),
)
PHONES = (
    "/",
    "/room/1?units=imperial",
    "/swap",
    "/swap?pick=goblet-squat",
    "/arc/?exercise=hip-thrust&client=1",
    "/ladder/?client=1&exercise=reverse-lunge",
)
GAP = 24


def main(folder: Path) -> None:
    """Write every view's PNG into a folder."""
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data:
        database = Path(data) / "demo.db"
        con = store.open_store(database)
        load_demo(con, now=NOW)
        load_record(con, now=NOW)
        load_weeks(con, now=NOW)
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
            _row(browser, folder / "phones.png", [_phone(browser, address + p) for p in PHONES])
            _row(browser, folder / "floor.png", _floor(browser, address))
            browser.close()
        server.close()


def _phone(browser: Browser, address: str) -> bytes:
    """Return the picture of a page on a phone."""
    page = browser.new_page(viewport={"width": PHONE[0], "height": PHONE[1]})
    page.goto(address, wait_until="networkidle")
    shot = page.screenshot()
    page.close()
    return shot


def _row(browser: Browser, path: Path, shots: list[bytes]) -> None:
    """Write pictures of phones side by side as one."""
    wide = len(shots) * (PHONE[0] + GAP) + GAP
    page = browser.new_page(viewport={"width": wide, "height": PHONE[1] + 2 * GAP})
    images = "".join(
        f'<img width="{PHONE[0]}" src="data:image/png;base64,{b64encode(shot).decode()}">'
        for shot in shots
    )
    style = f"margin:0;padding:{GAP}px;display:flex;gap:{GAP}px;background:#8a8f90"
    page.set_content(f'<body style="{style}">{images}</body>')
    page.screenshot(path=path)
    page.close()


def _floor(browser: Browser, address: str) -> list[bytes]:
    """Return the Floor with a set done, without the line, and with something taken."""
    context = browser.new_context(viewport={"width": PHONE[0], "height": PHONE[1]})
    context.clock.install(time=NOW)
    page, shots = context.new_page(), []
    page.goto(f"{address}/swap?place=1&client=1&pick=split-squat")
    page.get_by_role("button", name=re.compile("^Use this")).click()
    page.get_by_role("button", name="Do it on the floor").first.click()
    done = page.get_by_role("button", name=re.compile("^Done"))
    for number, side in enumerate(("Right", "Left")):
        done.click()
        page.locator("[data-now=side]").get_by_text(side).wait_for()
        page.get_by_text("How many were left?").wait_for()
        if not number:
            page.locator("[name=reserve]").nth(2).click()
            page.get_by_text("Hardest where?").wait_for()
    page.clock.run_for(42_000)
    shots.append(page.screenshot())
    context.set_offline(True)
    done.click()
    page.locator("#kept").get_by_text("1 set waiting").wait_for()
    shots.append(page.screenshot())
    context.set_offline(False)
    page.reload(wait_until="networkidle")
    page.get_by_role("link", name="Taken").click()
    page.locator(".wa-floor-card").nth(2).wait_for()
    page.evaluate("document.fonts.ready")
    page.wait_for_load_state("networkidle")
    shots.append(page.screenshot())
    context.close()
    return shots


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
