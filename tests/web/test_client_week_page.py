"""A client's week: begun, filled, mended, moved, done, gone on with, printed, in a calendar."""

from __future__ import annotations

import re
from datetime import UTC, date, datetime

import pytest
from icalendar import Calendar
from playwright.sync_api import expect

from tests.web.test_browser import ALL_OF_AXE, AXE, OPEN_ALL, PHONE
from widearc import store
from widearc.core.coverage import Mend, SlotSeen
from widearc.core.curve import Action
from widearc.core.exercises import EXERCISES
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.core.search import Memo
from widearc.core.words import Said
from widearc.usecases.intent import intents
from widearc.usecases.swap.swap import candidate_of, swap_view
from widearc.usecases.swap.wanted import SwapAsk
from widearc.usecases.week import plans
from widearc.usecases.week.doing import proposals

MONDAY = "2026-11-23"
WHO = {"client": "1", "monday": MONDAY}


def words(page: str) -> str:
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", page))


def week_page(client, **more):
    answer = client.get("/week/", query_string=WHO | more)
    assert answer.status_code == 200
    return answer.text


@pytest.fixture
def week(client, con):
    assert client.post("/week/begin", data=WHO | {"place": "1"}).status_code == 302
    return store.week_of(con, 1, 1, MONDAY).id


def days(con, week):
    return {d.weekday: d.id for d in store.days_of(con, 1, week)}


def add(client, day, exercise):
    return client.post(f"/week/day/{day}/add", data=WHO | {"exercise": exercise})


def names(con, week):
    return [s.exercise for s in store.slots_of(con, 1, week)]


def test_an_empty_week_says_what_to_do_first(client):
    page = words(week_page(client))
    assert "Nothing is planned for the bosun in this week." in page and "Plan this week" in page


def test_a_week_begins_with_three_days_and_fills_its_map(client, con, week):
    assert sorted(days(con, week)) == [0, 2, 4]
    assert "Put something on a day first." in words(week_page(client))
    assert add(client, days(con, week)[0], "split-squat").status_code == 302
    page = week_page(client)
    assert "wa-cover-planned" in page and "Split squat" in page
    (slot,) = store.slots_of(con, 1, week)
    assert slot.scenario is not None and slot.sets_low == 3
    assert "Rectus femoris: nothing." in words(page)
    change = store.last_change(con, 1, f"week:{week}")
    client.post(f"/undo/{change.id}", data={"back": "/week/"})
    assert store.slots_of(con, 1, week) == ()


@pytest.mark.parametrize(
    "preset", ["two-days", "apart", "calves", "offset", "back-front", "bands", "carriage"]
)
def test_ready_weeks_use_what_the_place_has(client, con, preset):
    place = "3" if preset == "carriage" else "1"
    data = WHO | {"preset": preset, "place": place}
    assert client.post("/week/begin", data=data).status_code == 302
    found = store.week_of(con, 1, 1, MONDAY).id
    slots = store.slots_of(con, 1, found)
    assert len(slots) >= 2 and all(s.scenario is not None for s in slots)
    assert "min" in words(week_page(client))


def test_a_finding_is_mended_with_one_tap_and_the_map_changes(client, con, week):
    add(client, days(con, week)[0], "goblet-squat")
    for _ in range(12):
        page = week_page(client)
        form = re.search(r'<form[^>]*action="/week/\d+/remedy">.*?</form>', page, re.S)
        if form is None:
            break
        part = form.group(0)
        data = dict(re.findall(r'name="(exercise|day)" value="([^"]+)"', part))
        finding = re.search(r'name="finding" value="([^"]+)"', part).group(1)
        answer = client.post(f"/week/{week}/remedy", data=WHO | data | {"finding": finding})
        assert answer.status_code == 302
        assert f'id="finding-{finding}"' not in week_page(client), finding
    assert len(names(con, week)) >= 4


def test_what_the_place_cannot_set_up_and_what_has_no_load_are_slots_too(client, con, week):
    """A stretch has minutes; a lift that nothing here loads waits for another place, and says so.

    Neither has a set-up: to SQLite before 3.45 that is no JSON, and the slot was refused.
    """
    monday = days(con, week)[0]
    for exercise in ("hip-flexor-stretch", "hack-squat", "goblet-squat"):
        assert add(client, monday, exercise).status_code == 302, exercise
    stretch, hack, goblet = store.slots_of(con, 1, week)
    assert (stretch.kind, stretch.minutes, stretch.scenario) == ("mobility", 6.0, None)
    assert hack.scenario is None and goblet.scenario is not None
    page = week_page(client)
    assert "Hip flexor stretch, 6 min" in words(page) and "not set up here" in words(page)
    started = client.post(f"/week/day/{monday}/start")
    assert started.status_code == 302
    session = int(started.headers["Location"].rstrip("/").split("/")[-1])
    assert [lift.exercise for lift in store.lifts(con, 1, session)] == ["goblet-squat"]
    for address in (f"/week/{week}/sheet", f"/week/{week}.ics", f"/week/{week}/next", "/"):
        assert client.get(address).status_code == 200, address


def undo(client):
    page = week_page(client)
    form = re.search(r'<form[^>]*action="(/changes/[^"]+|[^"]*undo[^"]*)".*?</form>', page, re.S)
    data = dict(re.findall(r'name="([^"]+)" value="([^"]*)"', form.group(0)))
    assert client.post(form.group(1), data=data).status_code == 302


def test_a_finding_is_mended_by_what_is_there_and_undone(client, con, week):
    """Calves before the squat: one tap puts them in order, and one takes that back."""
    monday = days(con, week)[0]
    for exercise in ("calf-raise-step", "goblet-squat"):
        add(client, monday, exercise)
    assert 'id="finding-order"' in week_page(client)
    mend = WHO | {"finding": "order"}
    assert "Put the lifts in order" in week_page(client)
    assert client.post(f"/week/{week}/remedy", data=mend).status_code == 302
    assert names(con, week) == ["goblet-squat", "calf-raise-step"]
    assert 'id="finding-order"' not in week_page(client)
    assert client.post(f"/week/{week}/remedy", data=mend).status_code == 400
    undo(client)
    assert names(con, week) == ["calf-raise-step", "goblet-squat"]


def test_a_whole_day_moves_to_a_free_one_with_what_is_on_it(con, client):
    """Tuesday to Wednesday as one change: the day keeps its id, so that its session stays."""
    client.post("/week/begin", data=WHO | {"place": "1"})
    week = store.week_of(con, 1, 1, MONDAY).id
    add(client, days(con, week)[2], "goblet-squat")
    old = days(con, week)[2]
    (row,) = store.slots_of(con, 1, week)
    seen = SlotSeen(id=row.id, day=3, position=0, exercise=EXERCISES[row.exercise])
    mend = Mend(says=Said("a day moved"), slots=(seen,), day=(2, 3))
    plans.take_mend(con, 1, week, mend, now="2026-11-23T09:00")
    assert days(con, week)[3] == old and 2 not in days(con, week)
    assert [s.day_id for s in store.slots_of(con, 1, week)] == [old]


LONG_KNEE = WantedAction(
    action=Action.KE, from_deg=95.0, to_deg=10.0, shape=Shape.STRETCH, mean_nm=60.0
)
INTENT = Intent(parts=(LONG_KNEE,), sets=4, reps=9)


def keep_intent(con, name="Long knee work"):
    return intents.keep_intent(con, 1, name, INTENT, now="2026-11-23T09:00")


def test_an_intent_is_a_slot_that_the_day_s_place_answers(client, con, week):
    monday = days(con, week)[0]
    id_ = keep_intent(con)
    assert f'value="intent-{id_}"' in week_page(client)
    assert add(client, monday, f"intent-{id_}").status_code == 302
    (row,) = store.slots_of(con, 1, week)
    assert (row.sets_low, row.sets_high, row.reps_high) == (4, 4, 9)
    assert "for Long knee work" in words(week_page(client))
    # it is what Swap itself puts first for that intent there
    ask = SwapAsk(place_id=1, client_id=1, intent=INTENT)
    view = swap_view(con, 1, ask, Memo())
    assert row.exercise == candidate_of(view, None).exercise.id
    # what it uses is taken: chosen again it is another, with the dose as it was changed
    form = WHO | {"sets_low": "2", "sets_high": "3", "rule": "reps", "action": "keep"}
    assert client.post(f"/week/slot/{row.id}", data=form).status_code == 302
    con.execute("UPDATE equipment SET state = 'taken' WHERE place_id = 1")
    con.commit()
    again = WHO | {"action": "again"}
    assert client.post(f"/week/slot/{row.id}", data=again).status_code == 302
    (then,) = store.slots_of(con, 1, week)
    assert then.exercise != row.exercise and then.items == ()
    assert (then.sets_low, then.sets_high, then.rule, then.id) == (2, 3, "reps", row.id)
    assert "for Long knee work" in words(week_page(client))


def test_a_slot_s_rule_is_the_one_that_proposes_the_next_week(client, con, week):
    add(client, days(con, week)[0], "goblet-squat")
    (row,) = store.slots_of(con, 1, week)
    refused = client.post(f"/week/slot/{row.id}", data=WHO | {"rule": "luck", "action": "keep"})
    assert refused.status_code == 422 and 'id="p-rule"' in refused.text
    for rule in ("all", "minute"):
        client.post(f"/week/slot/{row.id}", data=WHO | {"rule": rule, "action": "keep"})
        found = proposals(con, 1, plans.week_row(con, 1, week), Memo(), today=date(2026, 11, 23))
        assert [p.view.question.aim.rule for p in found] == [rule]


def test_a_finding_is_set_aside_because_and_taken_up_again(client, con, week):
    add(client, days(con, week)[0], "goblet-squat")
    data = WHO | {"finding": "rectus-femoris"}
    refused = client.post(f"/week/{week}/aside", data=data | {"reason": " "})
    assert refused.status_code == 422 and "p-reason" in refused.text
    client.post(f"/week/{week}/aside", data=data | {"reason": "no machine on board"})
    page = week_page(client)
    assert "“no machine on board”" in page and 'id="finding-rectus-femoris"' not in page
    client.post(f"/week/{week}/take-up", data=data)
    assert 'id="finding-rectus-femoris"' in week_page(client)


def test_slots_are_changed_moved_copied_and_taken_off(client, con, week):
    monday, wednesday = days(con, week)[0], days(con, week)[2]
    add(client, monday, "goblet-squat")
    add(client, monday, "split-squat")
    first, second = store.slots_of(con, 1, week)
    sets = WHO | {"action": "keep", "sets_low": "2", "sets_high": "4", "reps_low": "6"}
    sets |= {"reps_high": "10", "rest_s": "90", "kind": "lift", "note": "slow"}
    assert client.post(f"/week/slot/{first.id}", data=sets).status_code == 302
    kept = store.slot(con, 1, first.id)
    assert (kept.sets_low, kept.sets_high, kept.rest_s, kept.note) == (2, 4, 90, "slow")
    client.post(f"/week/slot/{first.id}", data=sets | {"lowering_s": "4", "hold_s": "1"})
    assert (store.slot(con, 1, first.id).lowering_s, store.slot(con, 1, first.id).hold_s) == (4, 1)
    wrong = [("sets_low", "9"), ("reps_high", "0"), ("rest_s", "x"), ("kind", "rest")]
    for field, value in (*wrong, ("lifting_s", "0"), ("hold_s", "long")):
        refused = client.post(f"/week/slot/{first.id}", data=sets | {field: value})
        assert refused.status_code == 422 and f'id="p-{field}"' in refused.text, field
    client.post(f"/week/slot/{second.id}", data=WHO | {"action": "earlier"})
    assert names(con, week) == ["split-squat", "goblet-squat"]
    client.post(f"/week/slot/{second.id}", data=WHO | {"action": f"to-{wednesday}"})
    assert names(con, week) == ["goblet-squat", "split-squat"]
    client.post(f"/week/slot/{first.id}", data=WHO | {"action": "copy"})
    assert names(con, week) == ["goblet-squat", "goblet-squat", "split-squat"]
    dropped = WHO | {"day": str(monday), "position": "0"}
    assert client.post(f"/week/slot/{second.id}/move", data=dropped).status_code == 302
    assert names(con, week) == ["split-squat", "goblet-squat", "goblet-squat"]
    client.post(f"/week/slot/{second.id}", data=WHO | {"action": "remove"})
    assert names(con, week) == ["goblet-squat", "goblet-squat"]


def test_days_and_weeks_are_copied_and_kept_as_templates(client, con, week):
    monday = days(con, week)[0]
    add(client, monday, "goblet-squat")
    answer = client.post(f"/week/day/{monday}", data=WHO | {"action": "copy", "weekday": "2"})
    assert answer.status_code == 422 and "a free day" in answer.text
    client.post(f"/week/day/{monday}", data=WHO | {"action": "copy", "weekday": "5"})
    assert names(con, week) == ["goblet-squat"] * 2
    copy = WHO | {"action": "week", "to_client": "2", "to": "2026-11-30"}
    assert client.post(f"/week/{week}/copy", data=copy).status_code == 302
    other = store.week_of(con, 1, 2, "2026-11-30")
    assert names(con, other.id) == ["goblet-squat"] * 2
    assert client.post(f"/week/{week}/copy", data=copy).status_code == 422
    kept = client.post(f"/week/{week}/copy", data=WHO | {"action": "template", "name": "Deck"})
    template = int(re.search(r"template=(\d+)", kept.headers["Location"]).group(1))
    assert "Deck" in week_page(client, template=str(template))
    data = {"client": "3", "monday": MONDAY, "preset": f"template-{template}", "place": "1"}
    assert client.post("/week/begin", data=data).status_code == 302
    assert names(con, store.week_of(con, 1, 3, MONDAY).id) == ["goblet-squat"] * 2
    bad = client.post(
        f"/week/{week}/day", data=WHO | {"weekday": "1", "place": "1", "starts_at": "25:00"}
    )
    assert bad.status_code == 422 and 'id="p-starts_at"' in bad.text
    client.post(f"/week/{week}/remove", data=WHO)
    assert store.week_of(con, 1, 1, MONDAY) is None


def test_a_day_is_done_on_the_floor_and_shows_on_the_map(client, con, week):
    day = days(con, week)[0]
    add(client, day, "goblet-squat")
    add(client, day, "split-squat")
    there = client.post(f"/week/day/{day}/start").headers["Location"]
    assert re.fullmatch(r"/floor/\d+", there)
    lifts = store.lifts(con, 1, int(there.rsplit("/", 1)[1]))
    assert [x.exercise for x in lifts] == ["goblet-squat", "split-squat"]
    assert client.post(f"/week/day/{day}/start").headers["Location"] == there, "it goes on"
    assert len(store.lifts(con, 1, lifts[0].session_id)) == 2
    for n in range(3):
        data = {"uid": f"week-set-{n}", "side": "both", "reps": "10"}
        client.post(f"/floor/lift/{lifts[0].id}/set", data=data)
    page = week_page(client)
    assert "wa-cover-done" in page and "3 done" in words(page)
    # what was not done of a day that is over is hatched
    assert "wa-cover-missed" in page


def test_the_next_week_takes_what_is_agreed_to(client, con, week):
    day = days(con, week)[0]
    add(client, day, "split-squat")
    client.post(f"/week/day/{day}/start")
    (lift,) = store.lifts(con, 1, 1)
    for n in range(6):
        side = ("left", "right")[n % 2]
        data = {"uid": f"next-set-{n}", "side": side, "reps": str(lift.reps)}
        client.post(f"/floor/lift/{lift.id}/set", data=data | {"number": str(n // 2 + 1)})
    page = client.get(f"/week/{week}/next").text
    assert "Every set reached" in words(page)
    agreed = re.findall(r'name="agreed" value="(\d+)" checked', page)
    assert len(agreed) == 1
    made = client.post(f"/week/{week}/next", data={"agreed": agreed})
    assert made.status_code == 302 and "2026-11-30" in made.headers["Location"]
    before = store.slots_of(con, 1, week)
    after = store.slots_of(con, 1, store.week_of(con, 1, 1, "2026-11-30").id)
    assert before[0].scenario != after[0].scenario
    assert client.post(f"/week/{week}/next", data={"agreed": agreed}).status_code == 422


def test_the_calendar_is_read_by_a_general_parser(client, con, week):
    day = days(con, week)[2]
    add(client, day, "goblet-squat")
    answer = client.get(f"/week/{week}.ics")
    assert answer.mimetype == "text/calendar"
    events = Calendar.from_ical(answer.data).walk("VEVENT")
    assert len(events) == 3
    wednesday = sorted(events, key=lambda e: e["DTSTART"].dt)[1]
    assert wednesday["DTSTART"].dt == datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
    assert wednesday["DTEND"].dt > wednesday["DTSTART"].dt
    assert "Goblet squat, 3 × " in str(wednesday["DESCRIPTION"])
    assert str(wednesday["LOCATION"]) == "Deck container"
    assert f"/week/{week}/sheet?day={day}" in str(wednesday["URL"])
    again = Calendar.from_ical(client.get(f"/week/{week}.ics").data).walk("VEVENT")
    assert {str(e["UID"]) for e in again} == {str(e["UID"]) for e in events}


def test_the_sheet_has_a_page_a_day_and_goes_along_as_a_file(client, con, week):
    for weekday in (0, 2):
        add(client, days(con, week)[weekday], "goblet-squat")
    page = client.get(f"/week/{week}/sheet").text
    assert page.count('<section class="wa-sheet">') == 2
    assert page.count("wa-pose-long") == 2 and page.count('class="wa-sheet-code"') == 2
    assert "Instead:" in page and "Stop where it hurts" in page
    one = client.get(f"/week/{week}/sheet?day={days(con, week)[2]}&paper=letter").text
    assert one.count('<section class="wa-sheet">') == 1 and "wa-paper-letter" in one
    whole = client.get(f"/week/{week}/sheet?file=1")
    assert "attachment" in whole.headers["Content-Disposition"]
    assert "<style>" in whole.text and "<script" not in whole.text and "/static/" not in whole.text
    assert "url(data:font/woff2;base64,d09GMg" in whole.text and 'url("vendor' not in whole.text


@pytest.mark.parametrize(
    ("address", "data", "status"),
    [
        ("/week/day/999/add", {"exercise": "goblet-squat"}, 404),
        ("/week/slot/999", {"action": "copy"}, 404),
        ("/week/999/remedy", {"exercise": "goblet-squat", "day": "1"}, 404),
        ("/week/day/999/add", {"exercise": "intent-1"}, 404),
        ("/week/begin", {"preset": "nothing"}, 400),
        ("/week/begin", {"preset": "before"}, 400),
        ("/week/begin", {"monday": "soon"}, 400),
    ],
)
def test_what_is_not_there_is_refused(client, address, data, status):
    assert client.post(address, data=WHO | data).status_code == status
    assert client.get("/week/", query_string={"template": "999"}).status_code == 404


def test_another_trainer_s_week_is_not_seen(client, con, week):
    con.execute("INSERT INTO trainer (id, name, created_at) VALUES (2, 'x', '2026-01-01')")
    con.execute("PRAGMA foreign_keys = OFF")
    con.execute("UPDATE week SET trainer_id = 2")
    con.commit()
    assert "Nothing is planned" in week_page(client)
    assert client.get(f"/week/{week}/sheet").status_code == 404


def test_a_week_lived_on_a_phone(browser, served, con):
    """Planned by a ready week, mended, moved by the keyboard, started, a set done, seen as done."""
    page = browser.new_context(viewport=PHONE).new_page()
    errors: list[str] = []
    page.on("console", lambda m: errors.append(m.text) if m.type == "error" else None)
    page.goto(f"{served}/week/?client=1")
    page.get_by_label("begin with").select_option(label="Two different leg days")
    page.get_by_role("button", name="Plan this week").click()
    expect(page.locator(".wa-cover-planned").first).to_be_visible()
    remedied = page.locator(".wa-finding", has=page.locator("button[name=finding]")).first
    finding = remedied.get_attribute("id")
    remedied.get_by_role("button", name=re.compile("^Add .* min$")).click()
    expect(page.locator(f"#{finding}")).to_have_count(0)
    slots = page.locator(".wa-day").first.locator("[data-slot]")
    second = slots.nth(1).locator("summary").inner_text()
    slots.nth(1).locator("summary").press("Enter")
    slots.nth(1).get_by_role("button", name=re.compile("^Earlier")).press("Enter")
    expect(page.locator(".wa-day").first.locator("summary").first).to_have_text(
        re.compile(re.escape(second.split(",")[0]))
    )
    page.evaluate(AXE)
    page.evaluate(OPEN_ALL)
    assert page.evaluate(ALL_OF_AXE)["violations"] == []
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    page.locator(".wa-day").first.get_by_role("button", name="Do it on the floor").click()
    page.get_by_role("button", name=re.compile("^Done")).click()
    expect(page.locator("[data-now=of]")).to_have_text(re.compile("set 2 of"))
    expect(page.locator("#kept")).to_have_text("all kept")
    page.goto(f"{served}/week/?client=1")
    expect(page.locator(".wa-cover-done").first).to_be_visible()
    page.get_by_role("link", name="Print the week").click()
    expect(page.locator(".wa-sheet").first).to_be_visible()
    page.evaluate(AXE)
    assert page.evaluate(ALL_OF_AXE)["violations"] == []
    assert errors == []


def test_a_slot_is_dragged_to_another_day(browser, served, con):
    page = browser.new_page()
    page.goto(f"{served}/week/?client=2")
    page.get_by_label("begin with").select_option(label="Two different leg days")
    page.get_by_role("button", name="Plan this week").click()
    page.wait_for_load_state("load")  # what drags is a script of its own
    first, second = page.locator(".wa-day").nth(0), page.locator(".wa-day").nth(1)
    moved = first.locator("summary").first.inner_text().split(",")[0]
    before = second.locator("[data-slot]").count()
    first.locator("[data-slot]").first.drag_to(second.locator("h2"))
    expect(page.locator(".wa-day").nth(1).locator("[data-slot]")).to_have_count(before + 1)
    expect(page.locator(".wa-day").nth(1).locator("summary").last).to_contain_text(moved)
