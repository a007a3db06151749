"""Pounds and inches: what is read, what is typed, and that neither slips into the other."""

from __future__ import annotations

import html
import json
import re
from collections import Counter

import pytest

from tests.looked import looked
from widearc import store
from widearc.core.units import IN_M, LB_KG
from widearc.web import create_app

GYM = (
    {"kind": "bar", "name": "Bar", "kg": "45 lb"},
    {"kind": "plate", "name": "Plate A", "kg": "45lb", "count": "4"},
    {"kind": "plate", "name": "Plate B", "kg": "25 lbs", "count": "2"},
    {"kind": "plate", "name": "Plate C", "kg": "10 lb", "count": "2"},
    {"kind": "plate", "name": "Plate D", "kg": "2.5 lb", "count": "2"},
    {"kind": "dumbbell", "name": "Dumbbells", "kg": "50 lb", "count": "2"},
    {"kind": "rack", "name": "Rack", "height_m": "48 in"},
    {"kind": "box", "name": "Box", "height_m": "17.5in", "own_kg": "22 lb"},
    {"kind": "anchor", "name": "Eye", "height_m": "3 in", "hold": "eye", "holds_n": "900 lbf"},
    {
        "kind": "sled press",
        "name": "Press",
        "rail_deg": "45",
        "empty_kg": "85 lb",
        "backrest_deg": "20",
    },
)
METRIC = re.compile(
    r"(?<![\w/·])(kg|cm|mm|N|N/cm|m)(?![\w·/(’])"
    r"|kilogram|metres?\b(?<!newton metre)(?<!newton metres)"
)
IMPERIAL = re.compile(r"(?<![\w/])(lb|lbs|ft|lbf|lbf/in|in(?=[ ,.;)]))(?![\w’])")


@pytest.fixture
def gym(tmp_path):
    """An application whose only place has nothing in kilograms or centimetres."""
    app = create_app(tmp_path / "lb.db", secret_key="test", config={"WTF_CSRF_ENABLED": False})
    client = app.test_client()
    choose(client, "imperial")
    assert (
        client.post("/room/new", data={"name": "Garage", "read_in": "imperial"}).status_code == 302
    )
    for item in GYM:
        done = client.post("/room/1/add", data={**item, "read_in": "imperial"})
        assert done.status_code == 302, (item, re.findall(r'wa-problem"[^>]*>([^<]*)', done.text))
    facts = {"name": "Cook", "mass_kg": "180", "stature_m": "70", "read_in": "imperial"}
    assert client.post("/clients/", data=facts).status_code == 302
    return app


def choose(client, units):
    assert client.post("/settings/units", data={"choose": units, "back": "/"}).status_code == 302


def words(page):
    """What a page says, with its labels and hints; not the switch itself, nor lists of units."""
    text = re.sub(
        r"<script.*?</script>|<style.*?</style>|<footer.*?</footer>|<option[^>]*>[^<]*",
        "",
        page.text,
        flags=re.S,
    )
    labels = " ".join(re.findall(r'(?:aria-label|title|placeholder|data-label)="([^"]*)"', text))
    return re.sub(r"\s+", " ", re.sub(r"<[^>]*>", " ", text) + " " + labels)


def walked(client, starts, most):
    """Every page that is reached from some, two of each sort."""
    todo, done, sorts = list(starts), {}, Counter()
    while todo and len(done) < most:
        address = todo.pop(0)
        if (
            address in done
            or address.startswith(("/static", "/method", "/settings"))
            or ".csv" in address
        ):
            continue
        page = client.get(address, follow_redirects=True)
        assert page.status_code < 500, address
        done[address] = page
        if "html" not in (page.content_type or ""):
            continue
        for link in re.findall(r'href="(/[^"#]*)', page.text):
            sort = re.sub(r"\d+", "#", link.split("?")[0])
            sorts[sort] += 1
            if sorts[sort] <= 3:
                todo.append(link.replace("&amp;", "&"))
    return {address: page for address, page in done.items() if "html" in page.content_type}


STARTS = (
    "/",
    "/room/1",
    "/swap",
    "/swap?exercise=goblet-squat",
    "/swap?exercise=back-squat-high",
    "/arc/",
    "/arc/?exercise=leg-press-45",
    "/arc/?exercise=carriage-push",
    "/claims/",
    "/bench/",
    "/week/",
    "/kept",
    "/intent/",
    "/clients",
    "/clients/1",
)


def test_no_page_of_a_gym_in_pounds_says_a_metric_unit(gym):
    pages = walked(gym.test_client(), STARTS, 110)
    assert len(pages) > 70
    wrong = {}
    for address, page in pages.items():
        said = words(page)
        found = [said[max(0, m.start() - 40) : m.end() + 15] for m in METRIC.finditer(said)]
        if found:
            wrong[address] = found[:3]
    assert wrong == {}


def test_no_page_of_the_demo_says_a_unit_of_the_other(client):
    pages = walked(client, STARTS, 110)
    assert len(pages) > 70
    wrong = {
        address: IMPERIAL.findall(words(page))
        for address, page in pages.items()
        if re.search(r"\d\s(lb|ft|lbf|in)\b(?! \w)", words(page))
    }
    assert wrong == {}


def test_a_gym_in_pounds_is_solved_in_its_own_plates(gym):
    client = gym.test_client()
    page = words(client.get("/swap?exercise=leg-press-45&kg=90&pick=back-squat-high"))
    totals = re.findall(r"bar 45, ([\d. +]+) each side: ([\d.]+) lb", page)
    assert totals
    for side, total in looked(totals, 1):
        assert 45 + 2 * sum(map(float, side.split(" + "))) == float(total)


def test_a_thing_keeps_the_unit_it_was_entered_in(gym):
    client = gym.test_client()
    choose(client, "metric")
    room, sheet = client.get("/room/1"), client.get("/room/item/1")
    assert "45 lb" in words(room)
    assert 'value="45 lb"' in sheet.text, "and its own sheet shows it so"
    kept = re.search(r'value="(45 lb)"', sheet.text)
    form = {"name": "Bar", "kg": kept[1], "kg-source": "described", "read_in": "metric"}
    assert client.post("/room/item/1", data=form).status_code == 302
    con = store.open_store(gym.config["DATABASE"])
    assert store.item(con, 1, 1).quantities["kg"] == 45 * LB_KG, "to the last bit"
    con.close()


@pytest.mark.parametrize(
    ("typed", "read_in", "metres"),
    [
        ("17.5in", "metric", 17.5 * IN_M),
        ("17.5 in", "imperial", 17.5 * IN_M),
        ("17.5", "imperial", 17.5 * IN_M),
        ('17.5"', "metric", 17.5 * IN_M),
        ("44,5", "metric", 0.445),
        ("44,5 cm", "imperial", 0.445),
        ("445 mm", "imperial", 0.445),
        ("0.445 m", "metric", 0.445),
        ("44.5", "", 0.445),
    ],
)
def test_a_length_is_typed_in_any_unit(client, con, typed, read_in, metres):
    form = {"kind": "box", "name": "Typed box", "height_m": typed, "read_in": read_in}
    choose(client, "imperial")  # what the trainer reads says nothing of what a form was typed in
    assert client.post("/room/2/add", data=form).status_code == 302
    found = next(i for i in store.items(con, 1, 2) if i.name == "Typed box")
    assert found.height_m == pytest.approx(metres, abs=1e-12)


@pytest.mark.parametrize("typed", ["45 kg", "45 lbs", "45 in lb", "in", "4 5", "45 N", "45 °"])
def test_a_unit_of_another_kind_is_refused_and_kept_as_typed(client, typed):
    form = {"kind": "box", "name": "Typed box", "height_m": typed, "read_in": "imperial"}
    page = client.post("/room/2/add", data=form)
    assert page.status_code == 422
    assert f"“{typed}” is not a number of in" in words(page)
    assert f'value="{typed}"' in page.text


def test_what_is_out_of_range_is_said_in_what_was_typed(client):
    form = {"kind": "box", "name": "Typed box", "height_m": "900", "read_in": "imperial"}
    page = words(client.post("/room/2/add", data=form))
    assert "900 in is not kept: from 0.75 in to 118 in" in page


def test_a_question_is_typed_in_pounds_and_its_links_are_read_alike_by_everybody(client):
    asked = "/swap?exercise=leg-press-45&kg=265&depth=95&sets=3&reps=10&client=1&place=1"
    page = client.get(asked + "&units=imperial")
    assert 'name="kg" value="265"' in page.text and "265 lb" in words(page)
    document = client.get(asked.replace("/swap?", "/swap/request.json?") + "&units=imperial")
    load = json.loads(document.text)["target"]["loads"][0]
    assert load["kg"] == pytest.approx(265 * LB_KG, abs=1e-3), "documents stay SI"
    links = [m for m in re.findall(r'href="(/swap\?[^"]*kg=[^"]*)"', page.text) if "pick=" in m]
    for link in looked(links, 5):
        assert "units=" not in link and "kg=120.2" in link, "a bare number of a link is SI"


def typed_form(page, name):
    """The fields of a page's form as a browser would send them."""
    form = re.search(rf'<form[^>]*id="{name}".*?</form>', page.text, re.S)[0]
    fields = {}
    for tag in re.findall(r"<input[^>]*>", form):
        key, value = (re.search(rf'{a}="([^"]*)"', tag) for a in ("name", "value"))
        if key is None or ('type="radio"' in tag and " checked" not in tag):
            continue
        fields[key[1]] = html.unescape(value[1]) if value else ""
    return fields


@pytest.mark.parametrize("exercise", ["leg-press-45", "goblet-squat", "leg-curl-band"])
def test_a_question_sent_again_untouched_asks_the_same(client, exercise):
    """Every field goes out in what is spoken and comes back: none is counted as typed."""
    first = client.get(f"/swap?exercise={exercise}&units=imperial&client=1&place=1")
    sent = typed_form(first, "ask")
    assert sent["units"] == "imperial"
    again = client.get("/swap", query_string=sent)
    for mark in ('id="pick-kg">', 'id="pick-set-up">'):
        was, now = (page.text.split(mark)[1].split("<")[0] for page in (first, again))
        assert now == was
    assert typed_form(again, "ask") == sent
    more = client.get(
        "/swap", query_string=sent | ({"kg": "300"} if exercise == "leg-press-45" else {})
    )
    if exercise == "leg-press-45":
        assert "300 lb on the sled" in words(more)


def test_fields_of_arc_are_in_what_is_spoken_and_come_back_alike(client):
    metric = client.get("/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=24")
    there = client.get(
        "/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=52.91&units=imperial"
    )
    assert 'name="l0-kg" value="24"' in metric.text
    assert 'name="l0-kg" value="52.91"' in there.text
    # 24 kg are 52.91 lb: the same curve
    most = [re.search(r"most (\d+) N·m", words(page))[1] for page in (metric, there)]
    assert most[0] == most[1]


def test_a_drawing_that_is_kept_is_not_another_readers(client):
    """The figure's weights, drawn once a stand-in, in both units by turns."""
    weights = []
    for units in ("metric", "imperial", "metric"):
        page = client.get(f"/swap?exercise=leg-press-45&client=1&place=1&units={units}")
        figure = re.search(r'data-dot="load0">.*?<text y="4">([^<]*)<', page.text, re.S)
        weights.append(float(figure[1]))
    assert weights[0] == weights[2]
    assert weights[1] == pytest.approx(weights[0] / LB_KG, abs=0.5)


def test_values_stay_si_whatever_is_spoken(client):
    ask = "exercise=leg-press-45&kg=120&client=1&place=1"
    before = client.get(f"/swap/values.csv?{ask}").text
    choose(client, "imperial")
    assert client.get(f"/swap/values.csv?{ask}").text == before
    assert "actual_nm" in before


@pytest.mark.parametrize("units", ["", "stone", "metric\0"])
def test_other_units_are_refused(client, units):
    answer = client.post("/settings/units", data={"choose": units})
    assert answer.status_code in (302, 400)
    assert "lb, in" in client.get("/method/").text


def test_the_switch_goes_back_to_the_page_and_not_elsewhere(client):
    for back, there in (
        ("/swap?exercise=hip-thrust", "/swap?exercise=hip-thrust"),
        ("//other.example/", "/settings/"),
        ("", "/settings/"),
    ):
        answer = client.post("/settings/units", data={"choose": "imperial", "back": back})
        assert answer.headers["Location"] == there


def test_the_units_of_one_request_are_not_those_of_the_next(client):
    assert "lb" in words(client.get("/clients/?units=imperial"))
    assert IMPERIAL.search(words(client.get("/clients/"))) is None


def test_a_decision_kept_in_one_unit_is_read_in_the_other(client, con):
    client.post("/room/item/1/state", data={"state": "taken"})
    ask = {"exercise": "leg-press-45", "kg": "120", "client": "1", "place": "1"}
    page = client.get("/swap", query_string=ask)
    pick = next(
        p
        for p in re.findall(r'id="row-([a-z-]+)"', page.text)
        if "lunge" in p or p == "split-squat"
    )
    assert client.post("/swap/use", data={**ask, "pick": pick}).status_code == 302
    first = words(client.get("/kept"))
    assert re.search(r"step \d+ cm", first)
    choose(client, "imperial")
    then = words(client.get("/kept"))
    assert re.search(r"step [\d.]+ in", then) and not re.search(r"step \d+ cm", then)
    # one that was kept before sentences could be said again stays as it was
    with store.transaction(con):
        con.execute("UPDATE decision SET set_up_said = NULL, sentence_said = NULL")
    assert re.search(r"step \d+ cm", words(client.get("/kept")))


def test_readings_of_a_spring_are_typed_drawn_and_kept_in_inches(client, con):
    form = {"kind": "spring", "name": "Typed spring", "read_in": "imperial", "count": "1"}
    form |= {"start_n": "5", "end_n": "40", "travel_m": "30"}
    assert client.post("/room/3/add", data=form).status_code == 302
    item = next(i for i in store.items(con, 1, 3) if i.name == "Typed spring")
    choose(client, "imperial")
    rows = {"at": ["0", "10", "20"], "force": ["5", "25", "46"], "force_unit": "lbf"}
    address = f"/bench/machine/{item.id}"
    kept = client.post(address, data=rows | {"action": "save", "read_in": "imperial"})
    assert kept.status_code == 302
    at = [r.at for r in store.machine_readings(con, 1, item.id)]
    assert at == pytest.approx([0.0, 10 * IN_M, 20 * IN_M])
    page = client.get(address)
    assert "travel past the first mark, in" in words(page)
    assert re.findall(r'name="at"[^>]*value="([^"]*)"', page.text)[:3] == ["0", "10", "20"]
    # the axis counts inches: to twenty, not to fifty
    ticks = re.findall(r'<text x="[^"]*" y="269"[^>]*>([^<]*)<', page.text)
    assert max(float(t) for t in ticks) <= 25


def test_a_body_is_weighed_in_what_is_spoken_and_kept_to_the_last_bit(client, con):
    """A body has no stamp: no field reads "93 kg lb"."""
    page = client.get("/clients/3?units=imperial")
    shown = re.search(r'name="mass_kg" value="([^"]*)"', page.text)[1]
    assert shown == "205", "93 kg"
    form = {"name": "Second engineer", "mass_kg": shown, "stature_m": "74.8"}
    assert client.post("/clients/3", data=form | {"read_in": "imperial"}).status_code == 302
    assert store.client(con, 1, 3).mass_kg == 93.0
