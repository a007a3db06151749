"""A place in a minute, on the page."""

from __future__ import annotations

import re

from tests.core.test_line import LINE
from widearc import store
from widearc.web import create_app


def test_a_line_is_looked_at_before_anything_is_kept(client, con):
    made = client.post("/room/new", data={"name": "Store room"})
    place = int(re.search(r"/room/(\d+)", made.headers["Location"]).group(1))
    offered = client.get(f"/room/{place}/line").text
    assert "Say it as you would write it down" in offered and "hotel room" in offered
    data = {"text": LINE + ", a flux capacitor", "action": "look"}
    looked = client.post(f"/room/{place}/line", data=data).text
    assert "Not understood: a flux capacitor" in looked and "Plate 1.25" in looked
    assert store.items(con, 1, place) == ()
    ticks = re.findall(r'name="thing" value="(\d+)"', looked)
    kept = client.post(f"/room/{place}/line", data=data | {"action": "keep", "thing": ticks[:-1]})
    assert "a flux capacitor" in kept.text, "what is left stays to be changed"
    items = store.items(con, 1, place)
    assert len(items) == len(ticks) - 1 and not any(i.kind == "couch" for i in items)
    # said once more, plates are counted on and a bench gets a number
    again = {"text": "plates 2×5, bench 43", "action": "keep", "thing": ["0", "1"]}
    assert client.post(f"/room/{place}/line", data=again).status_code == 302
    after = store.items(con, 1, place)
    assert next(i.count for i in after if i.kind == "plate" and i.kg == 5.0) == 6
    assert {i.name for i in after if i.kind == "bench"} == {"Bench", "Bench (2)"}
    change = store.last_change(con, 1, f"place:{place}")
    client.post(f"/undo/{change.id}", data={"back": "/"})
    assert len(store.items(con, 1, place)) == len(items)
    assert client.get(f"/swap?place={place}&client=1").status_code == 200


def test_a_room_to_begin_with_is_assumed_and_badged(client, con):
    made = client.post("/room/new", data={"name": "Away"})
    place = int(re.search(r"/room/(\d+)", made.headers["Location"]).group(1))
    page = client.get(f"/room/{place}/line?start=hotel").text
    ticks = re.findall(r'name="thing" value="(\d+)"', page)
    text = re.search(r"<textarea[^>]*>(.*?)</textarea>", page, re.S).group(1)
    assert page.count(">assumed<") >= 4
    data = {"text": text, "assumed": "1", "action": "keep", "thing": ticks}
    assert client.post(f"/room/{place}/line", data=data).status_code == 302
    sources = {s.value for i in store.items(con, 1, place) for s in i.sources.values()}
    assert sources == {"assumed"}
    assert client.get("/room/999/line").status_code == 404


def test_an_empty_start_is_filled_with_the_demo_from_the_page_and_nothing_else_is(tmp_path):
    app = create_app(tmp_path / "new.db", secret_key="t", config={"WTF_CSRF_ENABLED": False})
    client = app.test_client()
    assert "Fill it with the demo" in client.get("/").text
    assert client.post("/demo").status_code == 302
    page = client.get("/", follow_redirects=True).text
    assert "Cabin 14" in page or "cabin 14" in page.lower()
    con = store.open_store(tmp_path / "new.db")
    assert len(store.clients(con, 1)) == 3 and len(store.weeks(con, 1)) >= 1
    con.close()
    assert client.post("/demo").status_code == 400, "never over what is there"
