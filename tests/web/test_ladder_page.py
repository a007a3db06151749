"""Ladder: from sets that were done to the next step, own rules, by feel, as the command line."""

from __future__ import annotations

import re
from datetime import date

import pytest
from playwright.sync_api import expect

from tests.web.test_browser import ALL_OF_AXE, AXE, OPEN_ALL, PHONE
from tests.web.test_floor_page import do, keep_stand_in
from widearc import store
from widearc.usecases.ladder import answer_ladder


def sets_of(client, lift, *reps, pain=None, day="2026-11-24"):
    """Do sets of a lift, both sides of a one-sided one, on a day."""
    for n, count in enumerate(reps):
        for side in ("left", "right"):
            more = {"pain": pain, "pain_joint": "knee"} if pain else {}
            data = {
                "uid": f"set-{lift}-{n}-{side}",
                "side": side,
                "reps": str(count),
                "done_at": f"{day}T09:{10 + n:02d}:00+00:00",
            }
            assert client.post(f"/floor/lift/{lift}/set", data=data | more).status_code == 302


def words(page: str) -> str:
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", page))


def form_of(page: str, action: str) -> dict[str, str]:
    """Return the hidden fields of the form that goes to an address."""
    form = re.search(rf'<form[^>]*action="{action}"[^>]*>.*?</form>', page, re.S).group(0)
    fields = dict(re.findall(r'<input type="hidden" name="([^"]+)" value="([^"]*)"', form))
    return {n: v for n, v in fields.items() if n not in ("csrf_token", "once")}


@pytest.fixture
def lift(client):
    _, made = do(client, keep_stand_in(client))
    return made


def test_without_a_set_practice_says_where_to_start(client):
    page = client.get("/ladder/?client=1&place=1&exercise=goblet-squat").text
    assert "Start: " in page and "No set of it is kept yet" in page
    none = client.get("/ladder/?client=1&place=1").text
    assert "no set is kept of this client yet" in none.lower()


def test_a_carriage_starts_as_practice_does_and_says_where_it_turns(client):
    front = words(client.get("/ladder/?client=1&place=3&exercise=carriage-lunge-front").text)
    assert "one in the middle, then less help" in front
    back = words(client.get("/ladder/?client=1&place=3&exercise=carriage-pull-back").text)
    assert "always the lightest" in back and "it turns" not in back
    # the springs that were weighed at the Bench lead there, nothing typed
    springs = [i.id for i in store.items(store_of(client), 1, 3) if i.kind == "spring"]
    sheet = client.get(f"/bench/machine/{springs[0]}").text
    assert "Straight to the" in sheet and "/ladder/?exercise=carriage-push&amp;place=3" in sheet


def test_a_weighed_spring_is_named_on_arc_and_not_typed_again(client):
    con = store_of(client)
    spring = next(i for i in store.items(con, 1, 3) if i.kind == "spring")
    arc = "/arc/?exercise=carriage-push&for=carriage-push&client=1&l0=spring&l0-port=carriage"
    page = client.get(f"{arc}&l0-band={spring.key}").text
    assert f'value="{spring.key}" selected' in page
    assert 'name="l0-start"' not in page and "pulls nothing" not in page
    q = spring.quantities
    typed = f"&l0-start={q['start_n']:g}&l0-end={q['end_n']:g}&l0-travel={100 * q['travel_m']:g}"
    there = client.get(arc + typed).text
    assert 'name="l0-start"' in there
    table = re.compile(r'<table class="wa-readings".*?</table>', re.S)
    drawn = re.compile(r'data-script="([^"]+)"')
    assert drawn.search(page).group(1) == drawn.search(there).group(1)
    assert table.search(page)
    wrong = client.get(f"{arc}&l0-band=item-1")
    assert wrong.status_code == 200 and "a spring of the list" in wrong.text
    # and a ladder of what is set up so
    address = arc.removeprefix("/arc/?") + f"&l0-band={spring.key}"
    query = {"client": "1", "place": "3", "arc": address}
    ladder = words(client.get("/ladder/", query_string=query).text)
    assert spring.name.lower() in ladder


def store_of(client):
    return store.open_store(client.application.config["DATABASE"])


def test_sets_lead_to_the_next_step_and_it_goes_to_the_floor(client, con, lift):
    sets_of(client, lift, 10, 10, 10)
    page = client.get(f"/ladder/?client=1&place=1&lift={lift}").text
    said = words(page)
    assert "Every set reached 10 with form kept." in said and "Next: " in said
    found = form_of(page, "/ladder/agree")
    assert client.post("/ladder/agree", data=found).status_code == 302
    rows = con.execute("SELECT exercise, reps, pieces FROM lift ORDER BY id").fetchall()
    assert len(rows) == 2 and rows[0]["exercise"] == rows[1]["exercise"]
    assert str(rows[1]["reps"]) == found["reps"] and rows[0]["pieces"] != rows[1]["pieces"]
    # what goes to the floor is what the page said
    short = re.search(r"Next: ([^<]+)<", page).group(1).strip()
    assert short.split(",")[0].split(" ")[0] in rows[1]["pieces"]
    refused = client.post("/ladder/agree", data=found | {"rung": "999"})
    assert refused.status_code == 400 and "rung of this ladder" in words(refused.text)


def test_sets_short_of_the_range_stay_and_say_which_side(client, lift):
    sets_of(client, lift, 10, 9, 10)
    said = words(client.get(f"/ladder/?client=1&place=1&lift={lift}").text)
    assert "4 of 6 sets reached 10; the left side stopped at 9." in said and "Stay at " in said


def test_after_pain_the_trainers_rule_is_asked_once_kept_and_undone(client, con, lift):
    sets_of(client, lift, 10, pain="2")
    address = f"/ladder/?client=1&place=1&lift={lift}"
    page = client.get(address).text
    assert "After pain, what do you do?" in page
    data = form_of(page, "/ladder/own") | {"act": "share", "share": "400", "reason": "as agreed"}
    refused = client.post("/ladder/own", data=data)
    assert refused.status_code == 422 and "from 10 to 100 percent" in refused.text
    assert 'value="as agreed"' in refused.text, "what was typed is kept"
    assert client.post("/ladder/own", data=data | {"share": "50"}).status_code == 302
    again = client.get(address).text
    assert "what do you do?" not in again and "After pain, as you do then." in words(again)
    assert "50 % of the load, “as agreed”" in words(again)
    change = store.last_change(con, 1, "ladder:1")
    client.post(f"/undo/{change.id}", data={"back": address})
    assert "After pain, what do you do?" in client.get(address).text


def test_a_rule_is_chosen_for_the_lift_of_a_client_and_refused_at_its_field(client, lift):
    address = f"/ladder/?client=1&place=1&lift={lift}"
    data = form_of(client.get(address).text, "/ladder/rule")
    data |= {"rule": "percent", "sets": "3", "low": "6", "high": "8", "percent": "2"}
    data |= {"weeks": "4", "deload": "60"}
    for field, value, allowed in (
        ("percent", "40", "from 0.001 to 0.2"),
        ("low", "9", "no more than the top"),
        ("weeks", "x", "a number"),
        ("sets", "0", "from 1 to 20"),
    ):
        refused = client.post("/ladder/rule", data=data | {field: value})
        assert refused.status_code == 422, field
        assert f'id="p-{field}"' in refused.text and allowed in words(refused.text), field
        assert f'name="{field}" value="{value}"' in refused.text
    assert client.post("/ladder/rule", data=data | {"rule": "hope"}).status_code == 422
    assert client.post("/ladder/rule", data=data).status_code == 302
    sets_of(client, lift, 8, 8, 8)
    page = words(client.get(address).text)
    assert "Rule: A percent a week" in page and "cannot go on for months" in page


def test_a_set_up_of_arc_has_its_ladder(client):
    arc = "exercise=goblet-squat&client=2&l0=free-mass&l0-kg=16&l0-port=goblet"
    page = client.get("/ladder/", query_string={"client": "2", "place": "1", "arc": arc})
    assert page.status_code == 200 and "goblet squat" in page.text.lower()
    long = client.get("/ladder/", query_string={"arc": "x" * 5000})
    assert long.status_code == 400


@pytest.mark.parametrize("query", ["lift=999", "decision=999", "exercise=nothing", "client=99"])
def test_what_is_not_there_is_said(client, query):
    page = client.get(f"/ladder/?{query}")
    assert page.status_code == 200 and "Ladder" in page.text


def test_another_trainers_lift_is_not_looked_at(client, con, lift):
    con.execute("INSERT INTO trainer (id, name, created_at) VALUES (2, 'x', '2026-01-01')")
    con.execute("PRAGMA foreign_keys = OFF")
    con.execute("UPDATE lift SET trainer_id = 2 WHERE id = ?", (lift,))
    con.commit()
    page = client.get(f"/ladder/?client=1&place=1&lift={lift}")
    assert "Split squat" not in page.text.split("<main")[1].split("</main>")[0]


def test_page_and_command_line_say_the_same(client, lift):
    sets_of(client, lift, 10, 10, 10)
    query = {"client": "1", "place": "1", "lift": str(lift)}
    sent = client.get("/ladder/request.json", query_string=query)
    assert sent.status_code == 200, words(sent.text)
    request = sent.json
    page = client.get("/ladder/answer.json", query_string=query).json
    line = answer_ladder(request, today=date(2020, 1, 1), clock=lambda: 0.0)
    assert line == page
    shown = words(client.get("/ladder/", query_string=query).text)
    assert page["proposal"]["reason"] in shown
    assert f"All {len(page['rungs'])} rungs" in shown
    none = client.get("/ladder/request.json?client=2&place=1")
    assert none.status_code == 400


def seen(page) -> list[str]:
    """Return the lines of a page that hold a digit, names that were typed aside."""
    lines = page.locator("main").inner_text().splitlines()
    return [line for line in lines if re.search(r"\d", line) and "cabin" not in line]


def test_by_feel_no_number_is_on_the_screen(browser, served, con):
    """Ladder, Floor and Swap, on a phone: a step is agreed to and done without a number."""
    page = browser.new_context(viewport=PHONE).new_page()
    errors: list[str] = []
    page.on("console", lambda m: errors.append(m.text) if m.type == "error" else None)
    page.goto(f"{served}/ladder/?client=1&place=1&exercise=split-squat")
    assert seen(page), "numbers, until it is wished otherwise"
    page.get_by_role("button", name="by feel", exact=True).click()
    expect(page.get_by_role("button", name="by feel", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    assert seen(page) == []
    expect(page.get_by_text("one step harder", exact=True)).to_be_visible()
    page.get_by_role("button", name="Agree, do it on the floor").click()
    expect(page.get_by_role("heading", name="Split squat")).to_be_visible()
    # what the last change was has its time of day: a name, not a number of the lift
    page.evaluate("document.querySelectorAll('.wa-change, [data-undo]').forEach((e) => e.remove())")
    assert [line for line in seen(page) if not re.search(r"\d\d:\d\d", line)] == []
    page.get_by_role("button", name=re.compile("^Done")).click()
    expect(page.locator("[data-now=side]")).to_have_text("Right")
    assert [line for line in seen(page) if not re.search(r"\d\d:\d\d", line)] == []
    page.evaluate(AXE)
    page.evaluate(OPEN_ALL)
    assert page.evaluate(ALL_OF_AXE)["violations"] == []
    page.goto(f"{served}/swap?client=1&place=1")
    expect(page.locator(".wa-feel-rows li").first).to_be_visible()
    assert seen(page) == []
    page.evaluate(AXE)
    assert page.evaluate(ALL_OF_AXE)["violations"] == []
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    page.get_by_role("button", name="numbers", exact=True).click()
    expect(page.locator(".wa-rows").first).to_be_visible()
    assert errors == []
    # a set by feel says nothing of strength: nobody counted
    assert con.execute("SELECT reserve FROM set_done").fetchone()[0] is None
