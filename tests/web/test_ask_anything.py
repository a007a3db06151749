"""Anything with a curve can be asked for on Swap, with any load and set-up; what cannot be had says
what can.
"""

from __future__ import annotations

import html
import json
import re
from urllib.parse import parse_qsl

import pytest

from tests.looked import looked
from widearc.core.exercises import EXERCISES
from widearc.usecases import answer_request


def page(client, query="", code=200):
    answer = client.get(f"/swap{query}")
    assert answer.status_code == code, query
    return html.unescape(answer.get_data(as_text=True))


def rows(text):
    return re.findall(r'id="row-([a-z0-9-]+)"', text)


def asked(client, query):
    return json.loads(client.get(f"/swap/request.json{query}").get_data(as_text=True))["target"]


def fields(text):
    """What the question line's form would send, by name."""
    form = re.search(r'<form[^>]* id="ask">(.*?)</form>', text, re.S).group(1)
    inputs = re.findall(r'<input[^>]*name="([^"]+)"[^>]*value="([^"]*)"([^>]*)>', form)
    found = {n: html.unescape(v) for n, v, more in inputs if "radio" not in more}
    inputs = re.findall(r'<input type="hidden" name="([^"]+)" value="([^"]*)">', form)
    radios = ("exercise", "client", "place", "shape")
    found |= {n: html.unescape(v) for n, v in inputs}
    return {n: v for n, v in found.items() if n not in radios}


WANTABLE = [e.id for e in EXERCISES.values() if e.compared]


@pytest.mark.parametrize("place", [1, 3])
def test_every_exercise_with_a_curve_can_be_asked_for(client, place):
    """Of each: stand-ins, or why this client cannot do it and what is possible; by its own usual
    load, on what is here, elsewhere, or as it usually is.
    """
    answered = 0
    for exercise in looked(WANTABLE[place::4], 20):
        text = page(client, f"?place={place}&client=1&exercise={exercise}")
        target = asked(client, f"?place={place}&client=1&exercise={exercise}") if rows(text) else {}
        if rows(text):
            answered += 1
            assert target["loads"] or () in EXERCISES[exercise].ways, exercise
        else:
            assert "cannot do this" in text or "Nothing here comes close" in text, exercise
    assert answered > 0.9 * len(WANTABLE[place::4])


def test_what_cannot_be_asked_for_is_listed_with_the_reason(client):
    text = page(client)
    assert (
        "Not to be asked for, a path of the hands alone" in text and "Push-up with a band" in text
    )
    assert "no load to compare" in text and 'value="plain-path"' not in text


@pytest.mark.parametrize(
    ("query", "kind", "words"),
    [
        ("exercise=band-squat", "band", "loop"),
        ("exercise=leg-extension-cable&kg=25", "cable", "25"),
        ("exercise=arc-squat&kg=50&depth=80", "lever", "50"),
        ("exercise=carriage-push", "spring", "spring"),
        ("exercise=rail-squat&kg=55", "mass", "55"),
        ("exercise=corner-bar-squat&kg=15", "corner-bar", "15"),
        ("exercise=pendulum-hip-extension&kg=20", "pendulum", "20"),
    ],
)
def test_a_load_of_every_kind_is_asked_for_and_said(client, query, kind, words):
    text = page(client, f"?place=3&client=1&{query}")
    assert rows(text)
    assert kind in [load["kind"] for load in asked(client, f"?place=3&client=1&{query}")["loads"]]
    assert words in re.search(r'id="pick-kg">([^<]+)<', text).group(1)


def test_a_machine_that_is_nowhere_is_taken_as_usual_and_marked_assumed(client):
    text = page(client, "?place=2&client=1&exercise=multi-hip")
    assert rows(text) and "by usual values" in text and 'wa-badge">assumed' in text
    here = page(client, "?place=3&client=1&exercise=leg-extension")
    assert 'id="asked-of"' not in here
    elsewhere = page(client, "?place=2&client=1&exercise=leg-extension")
    assert "As it is in the harbour gym" in elsewhere


def test_an_option_of_the_wanted_set_up_changes_what_is_asked_and_stays(client):
    base = "?place=3&client=1&exercise=leg-press-45&kg=80&for=leg-press-45"
    high = page(client, f"{base}&o-foot_height_m=20")
    assert asked(client, f"{base}&o-foot_height_m=20")["options"]["foot_height_m"] == 0.2
    assert "20" in re.search(r'id="pick-set-up">([^<]+)<', high).group(1)
    # a stand-in's link asks the same again
    link = re.search(r'id="row-split-squat" href="/swap\?([^"]+)"', high).group(1)
    assert dict(parse_qsl(link))["o-foot_height_m"] == "20"
    plain = page(client, base)
    assert "set up as usual" in plain and rows(plain) and high != plain


def test_what_the_form_shows_and_nobody_changed_is_not_typed(client):
    """The form sends all its fields; only what differs from what it showed counts."""
    text = client.get("/swap?place=3&client=1&exercise=leg-press-45&kg=80").text
    sent = fields(text) | {"place": "3", "client": "1", "exercise": "leg-press-45"}
    assert "o-rail_deg" in sent and "was" in sent
    again = client.get("/swap", query_string=sent).get_data(as_text=True)
    assert "set up as usual" in again
    # another client's lengths come by themselves
    other = client.get("/swap", query_string=sent | {"client": "2"}).get_data(as_text=True)
    assert "set up as usual" in other
    moved = client.get("/swap", query_string=sent | {"o-foot_height_m": "15"})
    assert "15" in re.search(r'id="pick-set-up">([^<]+)<', moved.get_data(as_text=True)).group(1)


def test_another_exercise_does_not_take_over_the_load_of_the_one_before(client):
    sent = {"place": "3", "client": "1", "kg": "120", "for": "leg-press-45"}
    text = client.get("/swap", query_string=sent | {"exercise": "side-lying-raise"}).text
    assert re.search(r'id="pick-kg">5', text)
    kept = client.get("/swap", query_string=sent | {"exercise": "leg-press-45"}).text
    assert re.search(r'id="pick-kg">120', kept)


def test_a_load_is_added_changed_and_taken_off(client):
    base = "?place=3&client=1&exercise=back-squat-high&kg=60&for=back-squat-high"
    mass = "&l0=mass&l0-kg=60&l0-port=back-high"
    banded = page(client, f"{base}{mass}&add=band")
    assert [x["kind"] for x in asked(client, f"{base}{mass}&add=band")["loads"]] == ["mass", "band"]
    assert rows(banded)
    none = asked(client, f"{base}{mass}&drop=0")
    assert none["loads"] == []
    assert "body weight" in re.search(
        r'id="pick-kg">([^<]+)<', page(client, f"{base}{mass}&drop=0")
    ).group(1)
    usual = asked(client, f"{base}&l0=mass&l0-kg=75&l0-port=back-high&usual=1")
    assert usual["loads"][0]["kg"] == 60


@pytest.mark.parametrize(
    ("part", "field", "allowed"),
    [
        ("o-foot_height_m=90", "o-foot_height_m", "-15 to 30"),
        ("o-foot_height_m=high", "o-foot_height_m", "a number"),
        ("l0=sled&l0-kg=-4&l0-empty=20", "l0-kg", "from 0"),
        ("l0=sled&l0-kg=abc", "l0-kg", "a number"),
    ],
)
def test_what_is_typed_wrongly_is_said_at_its_field_and_kept(client, part, field, allowed):
    text = page(client, f"?place=3&client=1&exercise=leg-press-45&for=leg-press-45&{part}")
    said = re.search(rf'id="p-{field}" role="alert">([^<]+)<', text).group(1)
    assert "is not used" in said and allowed.split(" ")[0] in said.replace("−", "-")
    typed = dict(parse_qsl(part))[field]
    assert f'name="{field}" value="{typed}"' in text
    assert rows(text)


@pytest.mark.parametrize(
    ("query", "link"),
    [
        ("exercise=leg-press-45&depth=135", "depth=85"),
        ("exercise=leg-press-45&for=leg-press-45&depth=80&o-backrest_deg=80", "o-backrest_deg=54"),
        ("exercise=leg-press-45&for=leg-press-45&depth=80&o-foot_height_m=-15", "o-foot_height_m="),
        ("exercise=romanian-deadlift&for=romanian-deadlift&o-knee_deg=60", "o-knee_deg="),
        ("exercise=reverse-lunge&for=reverse-lunge&o-step_m=120", "o-step_m="),
    ],
)
def test_what_cannot_be_done_names_the_nearest_that_can_and_one_tap_asks_for_it(
    client, query, link
):
    text = page(client, f"?place=3&client=3&{query}")
    found = re.search(r'href="/swap\?([^"]+)">Ask for ([^<]+)<', text)
    assert found and link in found.group(1)
    assert rows(page(client, f"?{found.group(1)}"))


def test_page_and_command_line_agree_on_what_was_typed(client):
    query = (
        "?place=3&client=1&exercise=leg-press-45&kg=80&for=leg-press-45&o-foot_height_m=20"
        "&l0=sled&l0-kg=70&l0-empty=30&l1=band&l1-port=sled&l1-rest=100&l1-rate=80&l1-x=20&l1-y=0"
    )
    text = page(client, query)
    request = json.loads(client.get(f"/swap/request.json{query}").get_data(as_text=True))
    answer = answer_request(request, clock=lambda: 0.0)
    assert rows(text) == [c["exercise"] for c in answer["candidates"]]
    assert [load["kind"] for load in request["target"]["loads"]] == ["sled", "band"]


def test_what_is_planned_keeps_how_it_is_set_up(client, con):
    typed = {"for": "band-squat", "l0": "band", "l0-rest": "100", "l0-rate": "90"}
    typed |= {"l0-port": "shoulders", "l0-tie": "feet", "o-knee_to_deg": "12"}
    query = {"place": "3", "client": "1", "exercise": "band-squat", "sets": "3", "reps": "12"}
    sent = query | typed | {"times": "2"}
    assert client.post("/week/wanted/add", data=sent).status_code in (200, 302)
    week = html.unescape(client.get("/week/wanted/?place=3").text)
    assert "Band squat, otherwise set up" in week
    link = re.search(r'href="/swap\?([^"]+)">What instead', week).group(1)
    again = dict(parse_qsl(link))
    assert {k: again.get(k) for k in typed} == typed
    target = asked(client, f"?{link}")
    assert (
        target["options"]["knee_to_deg"] == 12 and target["loads"][0]["law"]["rate_n_per_m"] == 900
    )
