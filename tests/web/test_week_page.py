"""The Week page: the plan, its messages, what to buy."""

from __future__ import annotations

import re

from widearc import store

ASK = {
    "place": "2",
    "client": "1",
    "exercise": "leg-press-45",
    "kg": "220",
    "depth": "95",
    "sets": "3",
    "reps": "10",
}


def page(client, query):
    answer = client.get("/week/wanted/", query_string=query)
    assert answer.status_code == 200
    return answer.get_data(as_text=True)


def test_the_plan_is_shown_with_a_way_to_the_stand_ins_of_each_line(client):
    text = page(client, {"place": "1"})
    assert text.count("What instead") == 3 and "Split squat, 48\N{NO-BREAK SPACE}kg" in text
    there = (
        re.search(r'href="(/swap\?[^"]*exercise=split-squat[^"]*)"', text)
        .group(1)
        .replace("&amp;", "&")
    )
    assert "48 kg" in client.get(there).get_data(as_text=True)


def test_what_is_asked_on_swap_is_planned_taken_off_and_undone(client, con):
    swap = client.get("/swap", query_string=ASK).get_data(as_text=True)
    assert re.search(r'href="/week/wanted/\?[^"]*kg=220', swap)
    assert client.post("/week/wanted/add", data=ASK | {"times": "3"}).status_code == 302
    text = page(client, ASK)
    assert (
        "220\N{NO-BREAK SPACE}kg" in text
        and "planned 3 × this week" in text
        and 'id="undo"' in text
    )
    line = re.search(r'action="(/week/wanted/\d+/remove)"', text).group(1)
    assert client.post(line, data=ASK).status_code == 302
    assert "Nothing is planned here from 23.11.2026 on" in page(client, ASK)
    change = store.last_change(con, 1, "place:2")
    client.post(f"/undo/{change.id}", data={"back": "/week/wanted/"})
    assert "off the plan" in change.words and client.post(line, data=ASK).status_code in (302, 400)


def test_a_wrong_number_of_times_is_said_at_the_field_and_what_was_typed_stays(client):
    for typed in ("0", "15", "1.5", "often", ""):
        answer = client.post("/week/wanted/add", data=ASK | {"times": typed})
        text = answer.get_data(as_text=True)
        assert answer.status_code == 422 and 'id="p-times"' in text and "from 1 to 14" in text, (
            typed
        )
        assert f'name="times" id="times" value="{typed}"' in text and 'aria-invalid="true"' in text
    assert "Nothing is planned" in page(client, ASK)


def test_a_strange_line_or_place_is_refused_in_words(client):
    for address, data in (
        ("/week/wanted/999/remove", ASK),
        ("/week/wanted/add", ASK | {"place": "77"}),
        ("/week/wanted/add", ASK | {"client": "x"}),
    ):
        assert client.post(address, data=data).status_code in (400, 404), address
    for query in (
        "place=77",
        "client=0",
        "client=-1",
        "place=x",
        "client=99999999999999999999",
        "kg=nan",
    ):
        assert client.get(f"/week/wanted/?{query}").status_code in (400, 404), query


def test_an_intent_is_planned_by_its_words(client):
    want = "a0=knee_extension&f0=90&t0=20&s0=even&m0=60"
    query = {"place": "2", "client": "1", "want": want}
    assert "Knee extension 90° to 20°" in page(client, query)
    client.post("/week/wanted/add", data=query | {"times": "2"})
    text = page(client, {"place": "2", "client": "1"})
    assert "Knee extension 90° to 20°" in text and text.count("What instead") == 1
    there = re.search(r'href="(/swap\?[^"]*want=[^"]*)"', text).group(1).replace("&amp;", "&")
    assert "knee extension 90° to 20°" in client.get(there).get_data(as_text=True)


def computed(client, query: dict[str, str]) -> str:
    """Return the page of what to buy when all of it is computed, which a slow machine does in
    parts.
    """
    for _ in range(40):
        text = page(client, query | {"buy": "1"})
        if "data-again" not in text:
            return text
    raise AssertionError("never complete")


def test_what_to_buy_is_computed_when_asked_for(client):
    assert 'id="buys"' not in page(client, ASK)
    text = computed(client, ASK)
    assert (
        re.search(r"a pair of 24 kg dumbbells</td><td class=\"wa-num\">\+\d+", text)
        and "No gain: " in text
    )
    part = client.get(
        "/week/wanted/", query_string=ASK | {"buy": "1"}, headers={"X-Part": "answer"}
    ).get_data(as_text=True)
    assert "<html" not in part and 'id="buys"' in part
    none = computed(client, {"place": "1", "client": "1", "kg": "120"})
    assert "Over this week’s plan" in none
    assert "None of these would raise any of them" in none or re.search(r"\+(\d+|&lt;1)</td>", none)


def test_last_week_s_plan_is_offered_where_this_week_has_none(client, con):
    con.execute("UPDATE planned SET monday = '2026-11-16'")
    con.commit()
    text = page(client, {"place": "1"})
    assert "Plan the last planned week again, 3 lines" in text
    client.post("/week/wanted/add", data=ASK | {"place": "1", "action": "again"})
    assert page(client, {"place": "1"}).count("What instead") == 3
