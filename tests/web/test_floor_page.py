"""The Floor: a whole session on a phone, with a taken thing, pain, and the line cut in a set."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.web.test_browser import ALL_OF_AXE, AXE, OPEN_ALL, PHONE
from widearc import store


def keep_stand_in(client, pick="split-squat", who=1):
    """Keep a stand-in at Swap; return its id."""
    asked = client.get(f"/swap?place=1&client={who}&pick={pick}").text
    form = re.search(r'<form class="wa-use wa-thumb" id="use".*?</form>', asked, re.S).group(0)
    data = dict(re.findall(r'<input[^>]*name="([^"]+)"[^>]*value="([^"]*)"', form))
    data = {n: v for n, v in data.items() if n not in ("csrf_token", "once")}
    assert client.post("/swap/use", data=data).status_code == 302
    return int(re.findall(r"/floor/decision/(\d+)", client.get("/kept").text)[0])


def do(client, decision):
    """Put a kept stand-in on the floor; return the address of its session, and the lift."""
    answer = client.post(f"/floor/decision/{decision}")
    assert answer.status_code == 302, answer.text
    address = answer.headers["Location"]
    return address, int(re.search(r"lift=(\d+)", address).group(1))


def test_a_session_begins_with_who_and_where(client):
    assert "Begin a session" in client.get("/floor/").text
    begun = client.post("/floor/", data={"client": 2, "place": 1})
    assert begun.headers["Location"] == "/floor/1"
    page = client.get("/floor/1").text
    assert "Nothing on it yet" in page and "End the session" in page
    assert client.get("/floor/").headers["Location"] == "/floor/1", "it goes on"
    client.post("/floor/1/end")
    assert client.get("/floor/1").status_code == 404, "a session without a set leaves nothing"


def test_sets_are_kept_once_edited_and_undone(client, con):
    address, lift = do(client, keep_stand_in(client))
    data = {"uid": "made-on-phone", "side": "left", "reps": "9"}
    for _ in range(5):
        assert client.post(f"/floor/lift/{lift}/set", data=data).status_code == 302
    rows = con.execute("SELECT id, reps, side FROM set_done").fetchall()
    assert [tuple(r)[1:] for r in rows] == [(9, "left")]
    page = client.get(address).text
    assert "How many were left?" in page and "Right" in page and "Done, 9 reps" in page
    client.post(f"/floor/set/{rows[0]['id']}", data={"reserve": "2"})
    assert con.execute("SELECT reserve FROM set_done").fetchone()[0] == 2
    client.post(f"/floor/set/{rows[0]['id']}", data={"reps": "8", "reserve": "1"})
    assert con.execute("SELECT count(*) FROM set_was").fetchone()[0] == 2
    client.post(f"/floor/set/{rows[0]['id']}", data={"action": "remove"})
    assert con.execute("SELECT count(*) FROM set_done").fetchone()[0] == 0
    change = store.last_change(con, 1, "session:1")
    undone = client.post(f"/undo/{change.id}", data={"back": address})
    assert undone.status_code == 302, undone.text
    assert con.execute("SELECT reps FROM set_done").fetchone()[0] == 8


def test_taken_marks_the_thing_and_another_lift_stands_in_its_place(client, con):
    _, lift = do(client, keep_stand_in(client))
    offered = client.get(f"/floor/lift/{lift}/instead?why=taken").text
    item = re.search(r'name="item" value="(\d+)">([^<]+)<', offered)
    assert item, "what it uses is named"
    there = client.post(f"/floor/lift/{lift}/taken", data={"item": item[1]}).headers["Location"]
    assert store.item(con, 1, int(item[1])).state is store.State.TAKEN
    page = client.get(there).text
    picks = re.findall(r'name="pick" value="([^"]+)"', page)
    assert len(picks) == 3 and f"{item[2]} taken" in page and "Undo" in page
    used = client.post(f"/floor/lift/{lift}/instead", data={"pick": picks[1], "why": "taken"})
    assert used.status_code == 302
    now = client.get(used.headers["Location"]).text
    assert "instead, taken" in now
    row = con.execute("SELECT exercise, instead_of, why FROM lift ORDER BY id DESC").fetchone()
    assert tuple(row) == (picks[1], lift, "taken")
    assert client.post(f"/floor/lift/{lift}/taken", data={"item": "9999"}).status_code == 400


def test_what_hurts_is_asked_less_by_what_is_offered(client):
    _, lift = do(client, keep_stand_in(client, "rear-raised-split-squat"))
    data = {"uid": "hurt-00001", "side": "left", "reps": "6", "pain": "5", "pain_joint": "knee"}
    there = client.post(f"/floor/lift/{lift}/set", data=data).headers["Location"]
    page = client.get(there).text
    assert "Hurts: knee" in page and "licensed professional" in page
    less = [int(n) for n in re.findall(r"Knee: (\d+) % less at most", page)]
    assert less and all(n >= 10 for n in less)


def test_a_set_up_of_arc_is_done_by_its_client(client, con):
    query = "exercise=leg-extension&client=2&l0=stack&l0-kg=40"
    answer = client.post("/floor/do", data={"query": query})
    assert answer.status_code == 302
    page = client.get(answer.headers["Location"]).text
    assert "Leg extension" in page and "Done," in page
    assert con.execute("SELECT client_id FROM session").fetchone()[0] == 2


@pytest.mark.parametrize(
    ("data", "words"),
    [
        ({"reps": "ten"}, "whole number of reps"),
        ({"reps": "101"}, "from 0 to 100"),
        ({"uid": "x"}, "letters and digits"),
        ({"side": "up"}, "both, left, right"),
        ({"pain": "11"}, "from 0 to 10"),
    ],
)
def test_what_is_no_set_is_refused_in_words(client, con, data, words):
    _, lift = do(client, keep_stand_in(client))
    sent = {"uid": "good-enough", "side": "left", "reps": "8"} | data
    answer = client.post(f"/floor/lift/{lift}/set", data=sent)
    assert answer.status_code == 400 and words in answer.text
    assert con.execute("SELECT count(*) FROM set_done").fetchone()[0] == 0


KEPT_ON_THE_DEVICE = """async () => {
    const all = await (await caches.open("wide-arc-floor-1")).keys();
    const has = (part) => all.some((request) => request.url.includes(part));
    return has("why=taken") && has("on=") && has("floor-store.js");
}"""


def done(page):
    page.get_by_role("button", name=re.compile("^Done")).click()


def set_of(page):
    side, of = page.locator("[data-now=side]"), page.locator("[data-now=of]")
    return f"{side.inner_text()} {of.inner_text()}"


def kept(page, words):
    expect(page.locator("#kept")).to_have_text(words)


def nothing_found(page):
    """Fail on anything that axe finds with everything open, and on what reaches past the edge."""
    page.evaluate(OPEN_ALL)
    page.evaluate(AXE)
    for scheme in ("light", "dark"):
        page.emulate_media(color_scheme=scheme)
        found = page.evaluate(ALL_OF_AXE)["violations"]
        assert [(v["id"], [n["html"][:120] for n in v["nodes"]][:3]) for v in found] == []
    page.emulate_media(color_scheme="light")
    page.evaluate("document.querySelectorAll('details').forEach((d) => { d.open = false; })")
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]


def test_a_session_on_a_phone_with_the_line_cut(browser, served, con):
    """From a kept stand-in: a set, the line cut, two more, the page loaded again, another; all are
    sent once, in order, when the line is back.
    """
    context = browser.new_context(viewport=PHONE)
    page = context.new_page()
    page.goto(f"{served}/swap?place=1&client=1&pick=split-squat")
    page.get_by_role("button", name=re.compile("^Use this")).click()
    page.get_by_role("button", name="Do it on the floor").first.click()
    expect(page.locator("[data-now=side]")).to_have_text("Left")
    done(page)
    expect(page.locator("[data-now=side]")).to_have_text("Right")
    kept(page, "all kept")
    # the stand-ins for it are computed ahead, and kept on the device with the page
    for _ in range(100):
        if page.evaluate(KEPT_ON_THE_DEVICE):
            break
        page.wait_for_timeout(200)
    assert page.evaluate(KEPT_ON_THE_DEVICE)
    context.set_offline(True)
    done(page)
    kept(page, "1 set waiting")
    assert set_of(page) == "Left set 2 of 3, then right"
    expect(page.locator("[data-rest]")).to_be_visible()
    done(page)
    kept(page, "2 sets waiting")
    page.goto(page.url)
    kept(page, "2 sets waiting")
    assert set_of(page) == "Right set 2 of 3"
    done(page)
    kept(page, "3 sets waiting")
    assert con.execute("SELECT count(*) FROM set_done").fetchone()[0] == 1
    # taken without the line: what was computed ahead, used at once
    page.get_by_role("link", name="Taken").click()
    page.get_by_role("button", name=re.compile("^Use")).first.click()
    kept(page, "3 sets waiting")
    instead = page.locator("h1").inner_text()
    assert instead != "Split squat" and "set 1 of" in set_of(page)
    done(page)
    kept(page, "4 sets waiting")
    context.set_offline(False)
    kept(page, "all kept")
    rows = con.execute(
        """SELECT d.uid, d.done_at, d.side, l.exercise, l.why FROM set_done d
           JOIN lift l ON l.id = d.lift_id ORDER BY d.id"""
    ).fetchall()
    assert len(rows) == 5 == len({r["uid"] for r in rows})
    assert [r["done_at"] for r in rows] == sorted(r["done_at"] for r in rows)
    assert [r["side"] for r in rows][:4] == ["left", "right", "left", "right"]
    assert rows[4]["exercise"] != "split-squat" and rows[4]["why"] == "taken"
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= PHONE["width"]
    # the page is made anew from the server just now
    for _ in range(100):
        box = page.get_by_role("button", name=re.compile("^Done")).bounding_box()
        if box is not None:
            break
        page.wait_for_timeout(50)
    assert box["height"] >= 60 and box["y"] + box["height"] <= PHONE["height"]
    context.close()


def test_a_whole_session_with_two_clients_and_two_devices(browser, served, con):
    """Form breaks, something hurts, a second client, and what the other device did is seen."""
    context = browser.new_context(viewport=PHONE)
    page = context.new_page()
    page.goto(f"{served}/swap?place=1&client=1&pick=goblet-squat")
    page.get_by_role("button", name=re.compile("^Use this")).click()
    page.get_by_role("button", name="Do it on the floor").first.click()
    page.get_by_text("Form broke").click()
    page.get_by_role("button", name="knees cave").click()
    broke = page.locator(".wa-floor-broke")
    expect(broke).to_contain_text("Knees cave: ")
    nothing_found(page)
    before = page.locator(".wa-floor-load").inner_text()
    broke.get_by_role("button", name="Take it for the next set").click()
    expect(page.locator(".wa-floor-lifts")).to_contain_text("instead")
    assert page.locator(".wa-floor-load").inner_text() != before
    # a second device
    other = context.new_page()
    other.goto(page.url)
    done(other)
    expect(page.locator("[data-now=of]")).to_have_text("set 2 of 2", timeout=9_000)
    # a second client, and back
    page.get_by_label("Another client").click()
    page.get_by_label("who").select_option(label="Cook")
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_text("Nothing on it yet")).to_be_visible()
    page.get_by_role("link", name="Bosun").click()
    page.get_by_text("Hurts", exact=True).click()
    page.get_by_label("joint").select_option("knee")
    page.locator("[name=pain][value='5']").click()
    expect(page.get_by_role("heading", name="Hurts: knee")).to_be_visible()
    expect(page.locator(".wa-floor-card").first).to_be_visible(timeout=40_000)
    nothing_found(page)
    page.get_by_role("button", name=re.compile("^Use")).first.click()
    expect(page.locator(".wa-floor-lifts")).to_contain_text("hurts")
    assert con.execute("SELECT count(*) FROM set_done").fetchone()[0] == 3
    assert [r[0] for r in con.execute("SELECT why FROM lift ORDER BY id")] == ["", "form", "hurts"]
    context.close()


def test_a_client_over_time_shows_strength_volume_and_sessions(client):
    assert "Nothing yet" in client.get("/clients/1/time").text
    _, lift = do(client, keep_stand_in(client, "goblet-squat"))
    for n in range(3):
        data = {"uid": f"time-{n:05d}", "side": "both", "reps": "10"}
        client.post(f"/floor/lift/{lift}/set", data=data)
        client.post(f"/floor/set/{n + 1}", data={"reserve": "2"})
    page = client.get("/clients/1/time").text
    assert "Knee extension" in page and "Sets for each muscle, by week" in page
    assert page.count("<circle") > 5 and "vasti" in page
    assert "Over time" in client.get("/clients/1").text
    log = client.get("/clients/1/log.csv").text.splitlines()
    assert len(log) == 4 and log[0].startswith("date,client,place,exercise")
