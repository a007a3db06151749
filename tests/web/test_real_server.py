"""What only the real server shows: header bytes, names of any script, closed connections."""

from __future__ import annotations

import json
import socket
import threading
import time
import urllib.error
import urllib.request
from contextlib import suppress
from email.message import Message
from urllib.parse import quote

import pytest

from tests.looked import looked
from widearc import store
from widearc.core.exercises import EXERCISES
from widearc.usecases import ItemFacts, add_item, export_kit, import_kit, new_place
from widearc.usecases.bench.bands import parse_rows, save_band
from widearc.web import create_app
from widearc.web.server import listening_server

NOW = "2026-11-24T09:00:00+00:00"
NAMES = ("Żółta guma", "離", "Ångström", "גומי", "💪 band", 'a"b\\c;d', "..", "line")


@pytest.fixture
def real(database):
    """Serve with waitress, as users have it, and yield its address."""
    app = create_app(database, secret_key="test")
    server = listening_server(app, "127.0.0.1", 0)
    thread = threading.Thread(target=lambda: _run(server), daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.effective_port}"
    server.close()
    app.extensions["connections"].close()


def _run(server) -> None:
    with suppress(OSError):  # closing pulls the sockets from under the loop
        server.run()


def got(url: str) -> tuple[int, Message, bytes]:
    try:
        with urllib.request.urlopen(url, timeout=20) as answer:
            return answer.status, answer.headers, answer.read()
    except urllib.error.HTTPError as error:
        return error.code, error.headers, error.read()


@pytest.mark.parametrize("name", NAMES)
def test_names_of_any_script_are_exported_under_their_name(real, con, name):
    trainer = store.local_trainer(con, now=NOW)
    place = new_place(con, trainer, store.PlaceFacts(name=name), now=NOW)
    facts = ItemFacts(kind="band", name=name, quantities={}, sources={}, shape="loop")
    band = add_item(con, trainer, place, facts, now=NOW)
    rows = parse_rows([("0.6", "40"), ("0.8", "90"), ("1.0", "130")], "m", "N")
    save_band(
        con, trainer, band, rows=rows, rest_m=0.5, strands=2, shape="loop", law="best",
        back_share=None, looked_over_on=None, now=NOW,
    )  # fmt: skip
    for path, kind in looked(
        ((f"/exchange/{place}.json", "json"), (f"/bench/band/{band}.csv", "csv")), 2
    ):
        status, headers, body = got(real + path)
        assert status == 200 and body, path
        said = headers["Content-Disposition"]
        said.encode("latin-1")
        assert said.startswith("attachment;") and f".{kind}" in said
        assert "\r" not in said and '"' not in said.replace('"', "", 2)
        if name.isalpha() and not name.isascii():
            assert quote(name.lower()) in said
    status, _, _ = got(f"{real}/room/{place}")
    assert status == 200
    document = export_kit(con, trainer, place)
    other = new_place(con, trainer, store.PlaceFacts(name="another"), now=NOW)
    import_kit(con, trainer, other, json.loads(json.dumps(document)), now=NOW)
    assert [i.name for i in store.items(con, trainer, other)] == [name]


def test_exercises_of_every_shelf_can_be_compared_with_abductions(client):
    sideways = [
        e.id for e in EXERCISES.values() if any(a.joint == "hip_abduction" for a in e.prime)
    ]
    for other in looked([e.id for e in EXERCISES.values() if e.compared][::4], 20):
        pins = "&".join(f"pin=exercise%3D{id_}" for id_ in (other, sideways[0], sideways[-1]))
        for joint in ("", "&joint=hip_abduction"):
            answer = client.get(f"/arc/compare?{pins}{joint}")
            assert answer.status_code == 200, (other, joint)
        assert "0 : 0 : 0" not in answer.text
        assert "hip to the side" in answer.text and "hip_abduction bend" not in answer.text


def test_what_left_the_catalogue_is_still_shown_where_it_was_kept(client, con):
    page = client.get("/swap?place=1&client=1").text
    start = page.index('name="pick" value="') + len('name="pick" value="')
    pick = page[start : page.index('"', start)]
    client.post("/swap/use", data={"place": "1", "client": "1", "pick": pick})
    query = "exercise=back-squat-high&client=1&load-kind=free-mass&kg=80"
    client.post("/arc/set", data={"query": query, "reps": "5", "reserve": "2", "side": "both",
                                  "formula": "epley"})  # fmt: skip
    client.post("/week/wanted/add", data={"place": "1", "client": "1", "times": "2"})
    for table in ("decision", "strength_set", "planned", "felt", "favourite", "card_edit"):
        con.execute(f"UPDATE {table} SET exercise = 'gone-from-here'")
    con.execute("UPDATE decision SET wanted_exercise = 'gone-too'")
    for path in looked(
        ("/kept", "/clients/1", "/week/", "/week/wanted/?buy=1", "/swap", "/arc/", "/room/1")
    ):
        assert client.get(path).status_code == 200, path
    assert "gone-from-here (no longer known)" in client.get("/kept").text


def test_a_long_body_is_refused_before_it_is_read(real):
    host, port = real.removeprefix("http://").split(":")
    with socket.create_connection((host, int(port)), timeout=10) as raw:
        raw.sendall(
            b"POST /clients/ HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 1000000000\r\n\r\n"
        )
        start = time.monotonic()
        answer = raw.recv(200)
        assert b" 413 " in answer and time.monotonic() - start < 5.0


def test_slow_connections_do_not_lock_others_out(real):
    host, port = real.removeprefix("http://").split(":")
    slow = [socket.create_connection((host, int(port)), timeout=10) for _ in range(130)]
    try:
        for raw in slow:
            with suppress(OSError):
                raw.sendall(b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ")
        start = time.monotonic()
        assert got(f"{real}/method/")[0] == 200
        assert time.monotonic() - start < 5.0
    finally:
        for raw in slow:
            raw.close()
