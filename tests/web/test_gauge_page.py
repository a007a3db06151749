"""The gauge at the Bench: live trace, readings that enter themselves, streams that do not stop
other pages.
"""

from __future__ import annotations

import contextlib
import json
import re
import threading
import time
import urllib.request

import pytest
from playwright.sync_api import expect
from waitress.server import create_server

from tools.soak import soak
from widearc import store
from widearc.gauge import SCRIPTS, Simulator
from widearc.usecases.bench.bands import gives_back
from widearc.web import create_app


@pytest.fixture
def listening(database):
    """Serve with the real server, as many threads as `wide-arc serve` has; yields application and
    address.
    """
    app = create_app(database, secret_key="test", config={"WTF_CSRF_ENABLED": False})
    server = create_server(app, host="127.0.0.1", port=0, threads=32)

    def run():
        with contextlib.suppress(OSError):  # closing pulls the sockets from under the loop
            server.run()

    thread = threading.Thread(target=run, daemon=True)
    thread.start()
    yield app, f"http://127.0.0.1:{server.effective_port}"
    app.extensions["gauge"].stop()
    server.close()


def events(response, seconds):
    """Yield the events of a stream for some seconds."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        line = response.readline().decode()
        if line.startswith("data: "):
            yield json.loads(line[6:])


def test_a_band_weighs_itself_on_the_bench(watched, served, gauge, con):
    page = watched
    page.goto(f"{served}/bench/")
    page.get_by_label("Name").fill("Gauge loop")
    page.keyboard.press("Enter")
    page.locator('input[name="address"]').fill(gauge.address)
    page.get_by_role("button", name="Connect").click()
    expect(page.locator(".wa-gauge-now")).to_contain_text(re.compile(r"N at [\d.]+ cm"))
    expect(page.get_by_label("length, reading 5")).not_to_have_value("", timeout=20_000)
    assert page.locator("[data-trace]").get_attribute("d").count("L") > 50
    lengths = [float(page.get_by_label(f"length, reading {i}").input_value()) for i in range(1, 6)]
    assert lengths == pytest.approx([100, 110, 125, 145, 170], abs=0.2)
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Connect")).to_be_visible()
    page.get_by_role("button", name="Keep the readings").click()
    expect(page.get_by_text("measured", exact=True)).to_be_visible()


def test_the_stream_is_fast_enough_and_names_units(listening, gauge):
    app, address = listening
    client = app.test_client()
    assert client.post("/bench/gauge/connect", data={"address": gauge.address}).status_code == 200
    with urllib.request.urlopen(
        f"{address}/bench/gauge/stream?length_unit=cm&force_unit=kgf", timeout=10
    ) as response:
        assert response.headers["Content-Type"].startswith("text/event-stream")
        got = list(events(response, 2.0))
    assert len(got) >= 20, "ten a second"
    points = [p for e in got for p in e["points"]]
    assert len(points) > 100 and 95 < points[0][1] < 210, "centimetres"
    assert any("kgf at" in e.get("now", "") for e in got)


def test_five_open_streams_do_not_stop_other_pages(listening, gauge):
    app, address = listening
    app.test_client().post("/bench/gauge/connect", data={"address": gauge.address})
    watching = [
        urllib.request.urlopen(f"{address}/bench/gauge/stream", timeout=10) for _ in range(5)
    ]
    try:
        for response in watching:
            assert response.readline()
        with urllib.request.urlopen(f"{address}/room/1", timeout=5) as page:
            assert page.status == 200
        more = [
            urllib.request.urlopen(f"{address}/bench/gauge/stream", timeout=10) for _ in range(3)
        ]
        with pytest.raises(urllib.error.HTTPError) as refused:
            urllib.request.urlopen(f"{address}/bench/gauge/stream", timeout=10)
        assert refused.value.code == 503
        refused.value.close()
        for response in more:
            response.close()
    finally:
        for response in watching:
            response.close()


def test_an_address_that_is_no_gauge_is_refused_and_a_missing_one_waited_for(listening):
    app, _ = listening
    client = app.test_client()
    answer = client.post("/bench/gauge/connect", data={"address": "http://elsewhere"})
    assert answer.status_code == 422 and "is no gauge" in answer.get_json()["problem"]
    assert client.get("/bench/gauge/stream").status_code == 409
    assert (
        client.post("/bench/gauge/connect", data={"address": "socket://127.0.0.1:9"}).status_code
        == 200
    )
    assert app.extensions["gauge"].reader.snapshot().state == "connecting"


def test_what_a_pull_gives_back_is_read_from_both_ways(listening):
    app, _ = listening
    simulator = Simulator(SCRIPTS["band-light"], port=0, speed=8.0).start()
    reader = app.extensions["gauge"].connect(simulator.address)
    end = time.monotonic() + 15
    while len(reader.snapshot().captures) < 10 and time.monotonic() < end:
        time.sleep(0.05)
    both = [(c.position_m, c.force_n, c.direction) for c in reader.snapshot().captures]
    assert gives_back(both) == pytest.approx(0.08, abs=0.02)
    assert gives_back(both[:1]) is None
    simulator.stop()


def test_the_live_trace_keeps_up_without_growth():
    """The short version of `make soak`: played fast, so that the kept trace is full well before the
    end.
    """
    seen = soak(9.0, speed=30.0)
    # how many a second `make soak` says: here a busy machine must not decide
    assert seen["events_per_s"] >= 2 and seen["longest_gap_s"] < 6.0, seen
    assert seen["samples_per_s"] > 100, seen
    assert seen["growth_kb"] < 400, seen


def test_a_spring_weighs_itself_and_leads_to_its_ladder(watched, served, con):
    """Travel and pull go into the spring's own sheet; nothing is typed but the gauge's address."""
    gauge = Simulator(SCRIPTS["spring"], port=0, speed=4.0).start()
    item = next(i.id for i in store.items(con, 1, 3) if i.kind == "spring")
    page = watched
    page.goto(f"{served}/bench/machine/{item}")
    page.locator('input[name="address"]').fill(gauge.address)
    page.get_by_role("button", name="Connect").click()
    last = page.get_by_label("travel past the first mark, reading 4")
    expect(last).not_to_have_value("", timeout=20_000)
    travels = [
        float(page.get_by_label(f"travel past the first mark, reading {i}").input_value())
        for i in range(1, 5)
    ]
    assert travels == sorted(travels) and travels[-1] - travels[0] > 20, "cm"
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Connect")).to_be_visible()
    page.get_by_role("button", name="Keep the readings").click()
    expect(page.get_by_role("cell", name="measured").first).to_be_visible()
    page.get_by_role("link", name="carriage lunge, front").click()
    expect(page.get_by_role("heading", name=re.compile("^Start: "))).to_be_visible()
    gauge.stop()


def test_a_sled_s_sheet_takes_pushes_and_returns_each_in_its_row(watched, served, con, gauge):
    item = next(i.id for i in store.items(con, 1, 1) if i.kind == "sled press")
    page = watched
    page.goto(f"{served}/bench/machine/{item}")
    ways = page.locator('select[name="direction"]')
    forces = page.locator('input[name="force"]')
    empty = [n for n in range(forces.count()) if not forces.nth(n).input_value()]
    page.locator('input[name="address"]').fill(gauge.address)
    page.get_by_role("button", name="Connect").click()
    expect(forces.nth(empty[-1])).not_to_have_value("", timeout=30_000)
    assert {ways.nth(n).input_value() for n in empty} == {"push", "return"}
    assert all(float(forces.nth(n).input_value()) >= 0.0 for n in empty)
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Connect")).to_be_visible()
