"""The first five minutes: from an empty database to a kept stand-in for a press that is taken, by
thumb and by keyboard alone.
"""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from tests.web.test_browser import DESK
from widearc import store

LINE = (
    "bar 20, plates 2×5 4×10 4×20, dumbbells 8 to 24 by 4, bench 43, leg press 45 degrees sled 38"
)
MOST_TAPS, MOST_TYPED = 25, 120
pytestmark = pytest.mark.browser


class Thumb:
    """What a thumb does on a page, counted; it taps only what can be seen."""

    def __init__(self, page):
        self.page, self.taps, self.typed = page, 0, 0

    def tap(self, what):
        expect(what).to_be_visible()
        what.tap()
        self.taps += 1

    def type(self, what, text):
        self.tap(what)
        self.page.keyboard.insert_text(text)
        self.typed += len(text)


@pytest.fixture
def phone(browser, served_empty):
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True
    )
    page = context.new_page()
    troubles = []
    page.on("console", lambda m: troubles.append(m.text) if m.type == "error" else None)
    page.on("pageerror", lambda e: troubles.append(str(e)))
    page.goto(served_empty)
    yield page
    context.close()
    assert troubles == []


def kept(tmp_path):
    con = store.open_store(tmp_path / "web.db")
    rows = store.decisions(con, 1)
    con.close()
    return rows


def test_a_newcomer_s_thumb_gets_to_a_kept_stand_in(phone, tmp_path):
    thumb, page = Thumb(phone), phone
    thumb.type(page.get_by_label("the place"), "Gym")
    thumb.type(page.get_by_label("what is there"), LINE)
    thumb.tap(page.get_by_role("button", name="Go on"))
    expect(page.get_by_text("Not understood")).to_have_count(0)
    thumb.tap(page.get_by_role("button", name="Keep what is ticked"))
    thumb.type(page.get_by_label("a name"), "Cook")
    thumb.tap(page.get_by_role("button", name="Go on to Swap"))
    thumb.tap(page.get_by_role("link", name="Room", exact=True))
    thumb.tap(page.get_by_role("button", name="Leg press", exact=False).first)
    thumb.tap(page.get_by_role("link", name="What to do instead of the leg press"))
    # the list, and nothing else: its drawing is a view of its own
    expect(page.locator("section[x-data]")).to_be_hidden()
    thumb.tap(page.locator(".wa-rows a.wa-row").first)
    expect(page.locator(".wa-rows").first).to_be_hidden()
    use = page.get_by_role("button", name="Use this")
    box = use.bounding_box()
    assert box["y"] + box["height"] <= 844, "under the thumb, without a scroll"
    assert box["height"] >= 44
    thumb.tap(use)
    page.wait_for_url("**/kept")
    (row,) = kept(tmp_path)
    assert row.wanted_exercise == "leg-press-45" and row.scenario
    assert thumb.taps <= MOST_TAPS and thumb.typed <= MOST_TYPED, (thumb.taps, thumb.typed)


def test_a_room_like_theirs_needs_a_name_and_seven_taps(phone, tmp_path):
    thumb, page = Thumb(phone), phone
    thumb.tap(page.get_by_role("button", name="Crowded gym"))
    thumb.tap(page.get_by_role("button", name="Keep what is ticked"))
    thumb.type(page.get_by_label("a name"), "Cook")
    thumb.tap(page.get_by_role("button", name="Go on to Swap"))
    thumb.tap(page.locator(".wa-rows a.wa-row").first)
    thumb.tap(page.get_by_role("button", name="Use this"))
    page.wait_for_url("**/kept")
    assert len(kept(tmp_path)) == 1 and thumb.taps == 6 and thumb.typed == 4


def test_a_stand_in_goes_to_the_next_by_swipe_and_back_to_the_list(phone):
    thumb, page = Thumb(phone), phone
    thumb.tap(page.get_by_role("button", name="Crowded gym"))
    thumb.tap(page.get_by_role("button", name="Keep what is ticked"))
    thumb.type(page.get_by_label("a name"), "Cook")
    thumb.tap(page.get_by_role("button", name="Go on to Swap"))
    rows = page.locator(".wa-rows a.wa-row:visible")
    first, second = (rows.nth(n).locator(".wa-name").inner_text() for n in (0, 1))
    thumb.tap(rows.first)
    expect(page.get_by_role("heading", level=1)).to_have_text(first)
    swipe(page, -140)
    expect(page.get_by_role("heading", level=1)).to_have_text(second)
    swipe(page, 30)  # too short to mean anything
    swipe(page, 140)
    expect(page.get_by_role("heading", level=1)).to_have_text(first)
    page.keyboard.press("j")
    expect(page.get_by_role("heading", level=1)).to_have_text(second)
    thumb.tap(page.get_by_role("link", name="the list"))
    expect(rows.nth(1)).to_be_focused()
    thumb.tap(rows.nth(1))
    expect(page.get_by_role("heading", level=1)).to_have_text(second)
    page.go_back()
    expect(rows.first).to_be_visible()


def swipe(page, by):
    page.evaluate(
        """by => {
          const on = document.querySelector(".wa-title-row");
          const touch = x => new Touch({identifier: 1, target: on, clientX: x, clientY: 300});
          const one = (x, kind, held) => on.dispatchEvent(new TouchEvent(kind,
            {bubbles: true, touches: held ? [touch(x)] : [], changedTouches: [touch(x)]}));
          one(200, "touchstart", true);
          one(200 + by, "touchend", false);
        }""",
        by,
    )


MOST_TABS = 90


class Keyboard:
    """Somebody without a mouse: Tab to what has the words, then Enter."""

    def __init__(self, page):
        self.page = page

    def go(self, words):
        for _ in range(MOST_TABS):
            here = self.page.evaluate(
                """() => { const e = document.activeElement;
                  if (e === document.body) return "";
                  const label = e.labels && e.labels[0] ? e.labels[0].textContent : "";
                  return [e.getAttribute("aria-label") || "", label, e.textContent].join(" "); }"""
            )
            if words in " ".join(here.split()):
                return
            self.page.keyboard.press("Tab")
        raise AssertionError(f"{words} is not reached by Tab")

    def press(self, words):
        self.go(words)
        self.page.keyboard.press("Enter")
        self.page.wait_for_load_state()


def test_a_newcomer_at_the_desk_needs_no_mouse(browser, served_empty, tmp_path):
    page = browser.new_page(viewport=DESK)
    page.goto(served_empty)
    keys = Keyboard(page)
    keys.go("the place")
    page.keyboard.type("Gym")
    keys.go("what is there")
    page.keyboard.insert_text(LINE)
    keys.press("Go on")
    page.wait_for_url("**/line?*")
    keys.press("Keep what is ticked")
    page.wait_for_url(served_empty + "/")
    keys.go("a name")
    page.keyboard.type("Cook")
    page.keyboard.press("Enter")
    page.wait_for_url("**/swap")
    keys.press("Room")
    page.wait_for_url("**/room/1")
    page.keyboard.press("j")  # the first thing; then on to the press
    for _ in range(30):
        if "Leg press" in page.evaluate("document.activeElement.textContent"):
            break
        page.keyboard.press("j")
    page.keyboard.press("t")
    expect(page.locator("#instead")).to_contain_text("of the leg press")
    keys.press("What to do instead of the leg press")
    page.wait_for_url("**/swap?*")
    page.keyboard.press("j")
    expect(page.locator(".wa-rows a[aria-current]").first).to_be_focused()
    keys.press("Use this")
    page.wait_for_url("**/kept")
    assert len(kept(tmp_path)) == 1
    page.close()
