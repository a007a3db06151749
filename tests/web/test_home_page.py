"""Home, the settings, the short how-to and the keys."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from widearc import store
from widearc.core.exercises import EXERCISES
from widearc.usecases.holdings import Holdings
from widearc.usecases.home.home import held_up, home_view
from widearc.usecases.room.line import STARTS
from widearc.usecases.week import plans
from widearc.web import create_app
from widearc.web.screens import marks
from widearc.web.words.how import HOW, KEYS

MONDAY = "2026-11-23"
NOW = "2026-11-24T09:00:00+00:00"  # the Tuesday of the test application's clock
STATIC = Path(__file__).parents[2] / "src" / "widearc" / "web" / "static"
TEMPLATES = STATIC.parent / "templates"


def words(page):
    page = re.sub(r"<(script|style|dialog|aside).*?</\1>", " ", page, flags=re.S)
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", page))


def home(client):
    answer = client.get("/")
    assert answer.status_code == 200
    return answer.text


@pytest.fixture
def empty(tmp_path):
    app = create_app(tmp_path / "new.db", secret_key="t", config={"WTF_CSRF_ENABLED": False})
    return app.test_client()


def planned(con, weekday, client_id=1, exercise="goblet-squat"):
    week = plans.begin_week(con, 1, client_id, MONDAY, now=NOW)
    day = plans.add_day(con, 1, week, weekday, 1, now=NOW)
    plans.add_exercise(con, 1, day, exercise, now=NOW)
    return day


def next_thing(page):
    return re.search(r'id="next"[^>]*>([^<]*)', page).group(1)


def test_home_says_the_one_next_thing_in_order(client, con):
    """Nothing: Swap. Something taken: what instead of it. A day of today: that. A session: it."""
    assert next_thing(home(client)) == "What to do instead"
    press = next(i for i in store.items(con, 1, 1) if i.kind == "sled press")
    client.post(f"/room/item/{press.id}/state", data={"state": "taken"})
    page = home(client)
    assert f"{press.name} is taken." in words(page) and "leg press: instead" in words(page)
    link = re.search(r'id="next" href="([^"]+)"', page).group(1).replace("&amp;", "&")
    assert "exercise=leg-press-45" in link and client.get(link).status_code == 200
    day = planned(con, 1)
    page = home(client)
    assert "Today: Bosun, 1 lift in the deck container." in words(page)
    assert f'action="/week/day/{day}/start"' in page and next_thing(page) == "Do it on the floor"
    client.post(f"/week/day/{day}/start")
    page = home(client)
    assert "The bosun is on the floor: goblet squat, set 1 of 3." in words(page)
    assert next_thing(page) == "Go on"
    assert "do it now" not in page, "it is being done"


def test_what_is_taken_is_free_again_from_home(client, con):
    press = next(i for i in store.items(con, 1, 1) if i.kind == "sled press")
    client.post(f"/room/item/{press.id}/state", data={"state": "taken"})
    back = client.post(f"/room/item/{press.id}/state", data={"state": "free", "back": "/"})
    assert back.headers["Location"] == "/" and "is taken" not in words(home(client))


def test_the_week_of_everyone_says_planned_done_and_missed(client, con):
    """The clock stands on Tuesday: Monday's day without a set is missed, Thursday's is planned."""
    planned(con, 0)
    planned(con, 3)
    done = planned(con, 1, client_id=2)
    session = int(
        client.post(f"/week/day/{done}/start").headers["Location"].rstrip("/").split("/")[-1]
    )
    (lift,) = store.lifts(con, 1, session)
    form = {"uid": "set-of-today-1", "reps": "10", "side": "both"}
    assert client.post(f"/floor/lift/{lift.id}/set", data=form).status_code in (200, 302)
    view = home_view(con, 1, None, None, today=plans.date.fromisoformat(NOW[:10]))
    states = {(w.client.name, d.weekday): d.state for w in view.weeks for d in w.days}
    assert states == {
        ("Bosun", 0): "missed",
        ("Bosun", 3): "planned",
        ("Cook", 1): "done",
    }
    assert [(w.client.name, d.weekday) for w, d in view.due] == [("Bosun", 0)]
    page = home(client)
    assert "missed on Mon" in words(page)
    assert page.count("wa-cover-missed") == 1 and page.count("wa-cover-done") == 1


def test_what_is_due_today_comes_first_the_present_client_s_before_another_s(client, con):
    for weekday, who in ((0, 1), (1, 1), (1, 3)):
        planned(con, weekday, client_id=who)
    today = plans.date.fromisoformat(NOW[:10])
    for present, first in ((3, [(3, 1), (1, 1), (1, 0)]), (1, [(1, 1), (3, 1), (1, 0)])):
        due = home_view(con, 1, None, present, today=today).due
        assert [(w.client.id, d.weekday) for w, d in due] == first


def test_place_and_client_are_chosen_once(client, con):
    cook = next(c.id for c in store.clients(con, 1) if c.name == "Cook")
    client.get("/", query_string={"place": "3", "client": cook})
    page = client.get("/swap").text
    assert "harbour gym" in words(page).lower() and re.search(r'id="pick-client">Cook<', page)
    assert client.get("/?place=99&client=x").status_code == 200


def test_what_is_taken_holds_up_what_needs_it(con, client):
    held = Holdings(con, 1)
    press = next(i for i in store.items(con, 1, 1) if i.kind == "sled press")
    client.post(f"/room/item/{press.id}/state", data={"state": "taken"})
    stock = Holdings(con, 1).at(1)
    assert held_up(held.place(1), held.client(1), stock) == {press.key: EXERCISES["leg-press-45"]}


def test_an_empty_home_leads_to_a_place_its_things_and_a_client(empty):
    assert "Where do you train?" in words(home(empty))
    refused = empty.post("/begin", data={"name": " ", "text": "bar 20"})
    assert refused.status_code == 422 and "p-name" in refused.text and "bar 20" in refused.text
    made = empty.post("/begin", data={"name": "Gym", "text": "bar 20, plates 4×10"})
    rows = empty.get(made.headers["Location"]).text
    assert "Bar 20" in rows and "Plate 10" in rows
    assert "What is in the gym?" in words(home(empty)), "nothing was kept yet"
    data = {"text": "bar 20, plates 4×10", "action": "keep", "thing": ["0", "1"]}
    assert empty.post("/room/1/line", data=data).headers["Location"] == "/"
    assert "Whom do you train?" in words(home(empty))
    refused = empty.post("/begin", data={"what": "client", "name": ""})
    assert refused.status_code == 422 and "p-name" in refused.text
    assert (
        empty.post("/begin", data={"what": "client", "name": "Cook"}).headers["Location"] == "/swap"
    )
    assert next_thing(home(empty)) == "What to do instead"


@pytest.mark.parametrize("start", sorted(STARTS))
def test_every_room_to_begin_with_can_be_kept_whole(empty, start):
    made = empty.post("/begin", data={"start": start}).headers["Location"]
    page = empty.get(made).text
    assert "Not understood" not in page
    ticks = re.findall(r'name="thing" value="(\d+)"', page)
    text = re.search(r"<textarea[^>]*>(.*?)</textarea>", page, re.S).group(1)
    data = {"text": text, "assumed": "1", "action": "keep", "thing": ticks}
    assert empty.post("/room/1/line", data=data).headers["Location"] == "/"
    empty.post("/begin", data={"what": "client", "name": "Cook"})
    assert 'id="row-' in empty.get("/swap?exercise=bodyweight-squat").text


def test_a_couch_of_a_line_is_tied_to_and_holds_the_ankles(empty, tmp_path):
    made = empty.post("/begin", data={"name": "Cabin", "text": "couch"}).headers["Location"]
    empty.post(made.split("?")[0], data={"text": "couch", "action": "keep", "thing": "0"})
    con = store.open_store(tmp_path / "new.db")
    (item,) = store.items(con, 1, 1)
    kit = Holdings(con, 1).at(1).kit
    assert [a.height_m for a in kit.anchors] == [0.05] and kit.anchors[0].own_kg == 40.0
    assert [t.kind for t in kit.things] == ["ankle hold"]
    assert {i.id for i in kit.items()} == {item.key}, "one thing: in use as one"
    assert kit.without(frozenset({item.key})).items() == ()
    # 80 kg leaning out pull with some 815 N at the ankles: half of 40 kg is 196 N
    empty.post("/begin", data={"what": "client", "name": "Cook"})
    page = words(empty.get("/swap?exercise=lying-leg-curl&kg=30&pick=nordic-curl").text)
    assert "Couch, 40 kg, lifts at" in page and "Weigh it down or leave it" in page
    con.execute("UPDATE quantity SET value = 400 WHERE name = 'own_kg'")
    con.commit()
    page = words(empty.get("/swap?exercise=lying-leg-curl&kg=30&pick=nordic-curl").text)
    assert "lifts only at 2.4 times the" in page
    con.close()


def test_the_how_to_of_a_screen_is_put_away_for_good_and_comes_again(client):
    def there(address):
        return 'id="how"' in client.get(address).text

    assert there("/swap") and there("/room/1") and not there("/method/")
    sent = client.post("/settings/how/away", data={"screen": "swap", "back": "/swap"})
    assert sent.headers["Location"] == "/swap" and not there("/swap") and there("/room/1")
    bad = client.post("/settings/how/away", data={"screen": "../x", "back": "/swap"})
    assert bad.status_code == 400
    assert "Show it on every screen again" in client.get("/settings/").text
    client.post("/settings/how/again")
    assert there("/swap")


def test_every_screen_of_the_edge_has_three_drawings_and_its_keys(client):
    screens = {mark.task for mark in marks() if mark.where != "more"} | {"intent"}
    assert screens == set(HOW) and KEYS.keys() <= screens
    drawn = (TEMPLATES / "shared" / "how.html").read_text(encoding="utf-8")
    for three in HOW.values():
        assert len(three) == 3
        for name, _ in three:
            assert f"name == '{name}'" in drawn, name


def test_settings_are_kept_and_refused_in_words(client):
    assert client.post("/settings/zone", data={"zone": "Moon/Base"}).status_code == 422
    client.post("/settings/units", data={"choose": "imperial"})
    client.post("/settings/by-feel", data={"choose": "feel"})
    page = client.get("/settings/").text
    pressed = re.findall(r'value="(\w+)"[^>]*aria-pressed="true"', page)
    assert {"imperial", "feel", "en"} <= set(pressed)
    assert client.post("/settings/units", data={"choose": "stone"}).status_code == 400


def test_every_pattern_that_fills_is_drawn():
    """A fill by an id that no page has is no fill at all: a missed day would look like none."""
    patterns = (TEMPLATES / "shared" / "patterns.html").read_text(encoding="utf-8")
    known = set(re.findall(r'id="([\w-]+)"', patterns))
    sources = [STATIC / "wide-arc.css", *TEMPLATES.rglob("*.html")]
    used = {n for p in sources for n in re.findall(r"url\(#([\w-]+)\)", p.read_text("utf-8"))}
    assert used and used <= known


def test_the_keys_are_listed_and_find_is_one_of_them(watched, served):
    page = watched
    page.goto(f"{served}/swap")
    page.locator("body").press("?")
    listed = page.get_by_role("dialog", name="Keys here")
    expect(listed).to_be_visible()
    expect(listed).to_contain_text("next and previous stand-in")
    page.keyboard.press("Escape")
    expect(listed).to_be_hidden()
    page.locator("body").press("/")
    finder = page.locator("[data-finds]").first
    expect(finder).to_be_focused()
    page.keyboard.type("?")
    expect(finder).to_have_value("?")
    expect(listed).to_be_hidden()


def test_the_drawing_stays_in_sight_while_the_list_scrolls(watched, served):
    page = watched
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{served}/swap")
    page.mouse.move(1100, 500)
    page.mouse.wheel(0, 900)
    page.wait_for_function("window.scrollY > 300")
    box = page.locator(".wa-plot").first.bounding_box()
    assert 0 <= box["y"] < 500
