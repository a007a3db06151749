"""The journey in a real browser, on a desk and on a phone; every page clean for axe, in light and
dark.
"""

from __future__ import annotations

import re
import struct
import zlib
from pathlib import Path
from xml.etree import ElementTree

import pytest
from playwright.sync_api import expect

from tests.looked import looked
from widearc import store

pytestmark = pytest.mark.browser

AXE = (Path(__file__).parents[1] / "vendor" / "axe.min.js").read_text(encoding="utf-8")
DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
HALF = {"width": 640, "height": 900}
PAGES = [
    "/",
    "/room/1",
    "/settings/",
    "/intent/",
    "/swap?want=a0%3Dknee_extension%26f0%3D95%26t0%3D10%26s0%3Dstretch%26m0%3D100",
    "/arc/?exercise=leg-press-45&view=muscles",
    "/arc/?exercise=leg-press-45&view=forces&want=a0%3Dknee_extension%26f0%3D95%26t0%3D10%26s0%3Deven%26m0%3D90",
    "/arc/",
    "/arc/?exercise=hip-thrust-one-leg",
    "/arc/?exercise=hip-thrust-machine",
    "/arc/?exercise=calf-raise-press",
    "/arc/?exercise=carriage-pull-back",
    "/arc/compare?pin=exercise%3Dback-squat-high&pin=exercise%3Dleg-extension",
    "/swap",
    "/swap?client=3",
    "/swap?place=3&client=1&exercise=side-lying-raise&kg=5",
    "/kept",
    "/bench/",
    "/bench/band/15",
    "/bench/machine/36",
    "/bench/machine/1",
    "/bench/angles",
    "/bench/scale",
    "/room/3",
    "/room/1/look",
    "/room/1/edit",
    "/room/1/add",
    "/room/item/1",
    "/room/1/add?kind=anchor",
    "/clients/",
    "/clients/1/time",
    "/floor/",
    "/ladder/?client=1&place=1&exercise=split-squat",
    "/ladder/?client=1&place=3&exercise=carriage-lunge-front",
    "/week/",
    "/week/wanted/?buy=1&place=2&kg=220",
    "/clients/3",
    "/exchange/",
    "/claims/",
    "/claims/lunge-lean",
    "/method/",
    "/terms/",
    "/method/look",
    "/formats/",
    "/exchange/changes",
    "/clients/new",
    "/room/new",
    # refused at a field
    "/swap?kg=abc",
    "/swap?exercise=leg-extension&kg=40&depth=139",
    "/arc/?exercise=back-squat-high&load-kind=free-mass&kg=abc",
    "/intent/?m0=abc",
    "/nothing",
]
ALL_OF_AXE = """axe.run({runOnly: {type: 'tag', values: [
    'wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']},
    resultTypes: ['violations']})"""
COLOURS = "axe.run({runOnly: ['color-contrast'], resultTypes: ['violations']})"
# but for the marks under More, which lie over the page while they are open
OPEN_ALL = (
    "document.querySelectorAll('details:not(.wa-further)').forEach((d) => { d.open = true; })"
)
# a form, what is typed wrong in it, and the button that sends it
REFUSED = [
    ("/clients/1", "#mass_kg", "heavy", "text=Keep this client"),
    ("/room/item/1", "#rail_deg", "400", "text=Keep it"),
    ("/room/1/edit", "#floor_width_m", "900", "text=Keep it"),
    ("/bench/band/15", "input[name=rest]", "long", "text=Keep the readings"),
    ("/bench/machine/1", "input[name=rise]", "3", "text=Keep the readings"),
    ("/bench/angles", "#upper_deg", "x", "section:nth-of-type(2) button"),
    ("/bench/scale", "#known", "-4", "text=Compare"),
    ("/exchange/", "#archive", "", "text=Put it in the place"),
]

CUT_WORDS = """() => {
  const cut = [];
  for (const drawing of document.querySelectorAll("svg")) {
    const edge = drawing.getBoundingClientRect();
    for (const text of drawing.querySelectorAll("text")) {
      const box = text.getBoundingClientRect();
      const over = Math.max(box.right - edge.right, edge.left - box.left);
      if (box.width && over > 3) cut.push([text.textContent.trim(), Math.round(over)]);
    }
  }
  return cut;
}"""
"""Words in a drawing that reach past its edge by more than 3 px."""


def number(text: str) -> int:
    return int(text.split()[0].replace("\N{MINUS SIGN}", "-"))


def to_list(page):
    """Where list and stand-in are two views, go back to the list."""
    back = page.get_by_role("link", name="the list")
    if back.is_visible():
        back.click()
        expect(page.locator(".wa-rows").first).to_be_visible()


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_from_a_taken_press_to_a_kept_decision(watched, served, con, size):
    page = watched
    page.set_viewport_size(size)
    page.goto(f"{served}/room/1")
    page.get_by_role("button", name=re.compile("Sled press.*, free: mark taken")).click()
    expect(page.get_by_text("Sled press taken,")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(
        page.get_by_role("button", name=re.compile("Sled press.*, free: mark taken"))
    ).to_be_visible()
    page.get_by_role("button", name=re.compile("Sled press.*, free: mark taken")).click()
    expect(
        page.get_by_role("button", name=re.compile("Sled press.*, taken: mark free"))
    ).to_be_visible()

    page.get_by_role("link", name="What to do instead").click()
    expect(page.locator(".wa-out").first).to_contain_text("sled press taken")
    rows = page.locator(".wa-rows > li")
    assert rows.count() >= 6
    before = page.locator("#row-goblet-squat .wa-match").inner_text()
    page.locator("#row-goblet-squat").click()
    expect(page.get_by_role("heading", name="Goblet squat", level=1)).to_be_visible()
    assert "pick=goblet-squat" in page.url

    # a scrubber moves figure, curve and numbers together, by keys and by dragging
    slider = page.get_by_role("slider", name="knee bend, degrees")
    angle = page.locator("[data-at]")
    shank = page.locator('[data-line="shank"]').first
    slider.focus()
    was = (
        angle.inner_text(),
        shank.get_attribute("x1"),
        page.locator('[data-reading="knee-actual"]').inner_text(),
    )
    page.keyboard.press("Shift+ArrowRight")
    now = (
        angle.inner_text(),
        shank.get_attribute("x1"),
        page.locator('[data-reading="knee-actual"]').inner_text(),
    )
    assert all(a != b for a, b in zip(was, now, strict=True))
    assert int(re.search(r"\d+", was[0]).group()) - int(
        re.search(r"\d+", now[0]).group()
    ) == pytest.approx(10, abs=1)
    page.keyboard.press("Home")
    assert angle.inner_text() == "At 95°"
    assert "newton metres" in slider.get_attribute("aria-valuetext")
    plot = page.locator('svg[data-joint="knee"]')
    plot.scroll_into_view_if_needed()
    box = plot.bounding_box()
    page.mouse.move(box["x"] + box["width"] * 0.3, box["y"] + box["height"] * 0.5)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.5, box["y"] + box["height"] * 0.5)
    page.mouse.up()
    assert angle.inner_text() != "At 95°"

    # a changed load shows the new ranking at once; a phone has the question with the list
    to_list(page)
    page.locator("#pick-kg").click()
    page.locator("#f-kg").fill("60")
    page.locator("#f-kg").press("Enter")
    expect(page.locator("#pick-kg")).to_contain_text("60 kg")
    expect(page.locator("#row-goblet-squat .wa-match")).not_to_have_text(before)
    assert "kg=60" in page.url

    # an item marked taken on the same page re-ranks, and the chosen drawing stays
    page.locator("#row-goblet-squat").click()
    expect(page.get_by_role("heading", name="Goblet squat", level=1)).to_be_visible()
    to_list(page)
    page.locator("#room-here > summary").click()
    page.get_by_role("button", name=re.compile("Kettlebell 24.*, free: mark taken")).click()
    expect(page.locator("#row-goblet-squat .wa-load")).not_to_contain_text("24 kg")
    assert page.locator("#room-here").get_attribute("open") is not None
    if size is PHONE:
        page.locator("#row-goblet-squat").click()
    expect(page.get_by_role("heading", name="Goblet squat", level=1)).to_be_visible()

    page.get_by_role("button", name="Use this, 3 × 10").click()
    expect(page.get_by_role("heading", name="Decisions kept")).to_be_visible()
    expect(page.locator("tbody tr").first).to_contain_text("Goblet squat")
    expect(page.locator("tbody tr").first).to_contain_text("60 kg, 3 × 10")
    assert store.decisions(con, 1)[0].exercise == "goblet-squat"
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("Nothing kept yet.")).to_be_visible()


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_an_exercise_is_found_by_any_of_its_names(watched, served, size):
    page = watched
    page.set_viewport_size(size)
    page.goto(f"{served}/swap")
    before = page.url
    page.locator("#pick-exercise").click()
    shown = page.locator("details[open] label[data-also]:visible")
    assert shown.count() > 90
    finder = page.get_by_role("searchbox", name="find")
    finder.fill("no such lift")
    expect(page.get_by_text("No exercise of that name")).to_be_visible()
    assert shown.count() == 0 and page.url == before
    finder.fill("FREE  squat")  # an alias: its own name has no such word
    expect(shown.first).to_have_text("Body-weight squat")
    expect(page.get_by_text("No exercise of that name")).to_be_hidden()
    assert shown.count() < 5
    finder.fill("hack squat")  # one of that name, and one more that begins so and stands before it
    finder.press("Enter")
    expect(page.locator("#pick-exercise")).to_have_text("hack squat")
    page.locator("#pick-exercise").click()
    finder.fill("free squat")
    finder.press("Enter")
    expect(page.locator("#pick-exercise")).to_have_text("body-weight squat")
    assert "exercise=bodyweight-squat" in page.url


def test_a_band_is_weighed_by_keyboard_alone_in_few_keys(watched, served, con):
    """From the Bench to a fitted band: at two keys a second, as a slow typist does, 40 s are 80
    keys.
    """
    page = watched
    page.goto(f"{served}/bench/")
    keys = 0

    def typed(text, after):
        nonlocal keys
        page.keyboard.type(text)
        page.keyboard.press(after)
        keys += len(text) + 1

    typed("n", "Shift")
    typed("Blue-crate loop", "Enter")
    expect(page.get_by_label("length, reading 1")).to_be_focused()
    readings = (("100", "0"), ("120", "60"), ("150", "110"), ("180", "150"), ("210", "190"))
    for length, force in readings:
        typed(length, "Tab")
        typed(force, "Enter" if length == "210" else "Tab")
    assert keys < 80, keys
    expect(page.get_by_text("measured", exact=True)).to_be_visible()
    item = next(i for i in store.items(con, 1, 1) if i.name == "Blue-crate loop")
    assert len(store.readings(con, 1, item.id)) == 5
    expect(page.locator("circle.wa-read")).to_have_count(5)


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_an_exercise_is_set_up_scrubbed_and_its_card_edited(watched, served, con, size):
    page = watched
    page.set_viewport_size(size)
    page.goto(f"{served}/arc/")
    page.get_by_label("Exercise").select_option("leg-extension")
    expect(page.get_by_role("heading", name="Leg extension", level=1)).to_be_visible()
    page.get_by_label("add").select_option("mass")
    expect(page.get_by_role("button", name="take off the weight", exact=True)).to_be_visible()
    page.locator("#l1-kg").fill("5")
    page.locator("#l1-kg").press("Enter")
    expect(page).to_have_url(re.compile("exercise=leg-extension.*l1-kg=5"))
    page.get_by_role("button", name="take off the weight stack").click()
    expect(page.locator("#l1-kg")).to_have_count(0)
    slider = page.locator('[data-cursor="knee"]')
    slider.focus()
    angle, arm = page.locator('[data-angle="knee"]'), page.locator('[data-line="arm_knee"]')
    was = (
        angle.inner_text(),
        arm.get_attribute("x2"),
        page.locator('[data-reading="knee-demand"]').inner_text(),
    )
    page.keyboard.press("End")
    now = (
        angle.inner_text(),
        arm.get_attribute("x2"),
        page.locator('[data-reading="knee-demand"]').inner_text(),
    )
    assert all(a != b for a, b in zip(was, now, strict=True)) and now[0] == "5°"
    page.reload()
    expect(page.locator("#l0-kg")).to_have_value("5")
    page.locator("#edit-cues > summary").click()
    page.get_by_label("cues, one line each").fill("Toes to the ceiling.")
    page.locator("#edit-cues button").click()
    expect(page.get_by_text("your words")).to_be_visible()
    assert store.card_edits(con, 1, "leg-extension")["cues"] == "Toes to the ceiling."
    page.locator("#undo").click()
    expect(page.get_by_text("your words")).to_have_count(0)


def test_the_pages_work_without_scripts(browser, served):
    context = browser.new_context(java_script_enabled=False)
    page = context.new_page()
    page.goto(f"{served}/swap")
    page.locator("#row-split-squat").click()
    assert "pick=split-squat" in page.url
    page.goto(f"{served}/room/1")
    page.get_by_role("button", name=re.compile("Sled press.*, free: mark taken")).click()
    expect(
        page.get_by_role("button", name=re.compile("Sled press.*, taken: mark free"))
    ).to_be_visible()
    context.close()


# other things on a page that is looked at already: their drawings are looked at, not their marks
SAME_MARKS = (
    *("/arc/?exercise=hip-thrust", "/arc/?exercise=calf-raise-press", "/arc/?exercise=carriage"),
    *("/arc/?exercise=leg-press-45&view=forces", "/swap?client=3", "/swap?place=3"),
    *("/bench/machine/1", "/clients/3", "/room/1/add?kind=anchor", "/room/3"),
    *("/ladder/?client=1&place=3", "/swap?exercise=leg-extension", "/claims/lunge-lean"),
)


@pytest.mark.parametrize(
    ("size", "pages"),
    [
        (DESK, PAGES[::2]),
        (DESK, PAGES[1::2]),
        # between a phone and a desk the layout is one or the other's: some are enough there
        (HALF, PAGES[::7]),
        (PHONE, PAGES),
    ],
    ids=["desk", "desk too", "half", "phone"],
)
def test_no_page_complains_overflows_or_shuts_anyone_out(browser, served, size, pages):
    """Every page: no console error or policy violation, nothing for axe to find in light or dark,
    nothing too wide; everything that opens is open.
    """
    context = browser.new_context(viewport=size)
    page = context.new_page()
    troubles = []
    page.on(
        "console", lambda m: troubles.append(m.text) if m.type in ("error", "warning") else None
    )
    page.on("pageerror", lambda e: troubles.append(str(e)))
    for number, address in enumerate(looked(pages, 7)):
        page.emulate_media(color_scheme="light")
        page.goto(served + address)
        page.evaluate(OPEN_ALL)
        axed = not address.startswith(SAME_MARKS) and (size is DESK or number % 6 == 0)
        if axed:
            page.evaluate(AXE)
            found = page.evaluate(ALL_OF_AXE)["violations"]
            said = [(v["id"], [n["html"][:120] for n in v["nodes"]][:3]) for v in found]
            assert said == [], address
        wide = page.evaluate(
            "document.documentElement.scrollWidth - document.documentElement.clientWidth"
        )
        assert wide <= 0, f"{address} is {wide} px too wide"
        assert page.evaluate(CUT_WORDS) == [], address
        # colours are the same at every width, and tokens the same on every page
        if size is DESK and axed and number % 4 == 1:
            page.emulate_media(color_scheme="dark")
            found = page.evaluate(COLOURS)["violations"]
            assert [[n["html"][:120] for n in v["nodes"]][:3] for v in found] == [], (
                f"{address} in the dark"
            )
        if address != "/nothing":  # the browser itself writes its 404 to the console
            assert troubles == [], address
    context.close()


NARROW = {"width": 360, "height": 640}


@pytest.mark.parametrize("size", [DESK, NARROW], ids=["desk", "narrow"])
def test_every_screen_is_a_mark_or_under_more(browser, served, size):
    context = browser.new_context(viewport=size)
    page = context.new_page()
    page.goto(f"{served}/week/")
    marks = page.get_by_role("navigation", name="Screens").get_by_role("link")
    beside = marks.count()
    assert beside == (9 if size is DESK else 4)
    right = page.locator("#more-marks").bounding_box()
    assert right["x"] + right["width"] <= size["width"]
    page.locator("#more-marks").press("Enter")
    assert marks.count() == 15
    for mark in marks.all():
        box = mark.bounding_box()
        assert box["height"] >= 44 and 0 <= box["x"] <= size["width"] - box["width"]
    page.evaluate(AXE)
    found = page.evaluate(ALL_OF_AXE)["violations"]
    assert [v["id"] for v in found if v["id"] != "target-size"] == []
    page.get_by_role("navigation").get_by_role("link", name="Terms").press("Enter")
    expect(page).to_have_url(f"{served}/terms/")
    # the present screen is marked where it stands
    assert page.locator(".wa-here summary").inner_text() == "More"
    page.locator("#more-marks").click()
    expect(page.locator(".wa-further a[aria-current=page]")).to_have_text("Terms")
    context.close()


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_what_is_refused_is_shown_so_that_everyone_finds_it(browser, served, size):
    context = browser.new_context(viewport=size)
    page = context.new_page()
    # what is said is the same at every width: a third of it is looked at on a desk, too
    for address, field, typed, button in looked(REFUSED[:: 3 if size is DESK else 1], 2):
        page.goto(served + address)
        page.evaluate(OPEN_ALL)
        if typed:
            page.locator(field).first.fill(typed)
        page.locator(button).last.click()
        expect(page.locator("[role=alert]:visible").first).to_be_visible()
        described = page.locator("[aria-invalid=true]").first.get_attribute("aria-describedby")
        assert page.locator(f"#{described}").inner_text(), address
        # the link to the content lies over the others while it has the focus
        page.evaluate("document.activeElement && document.activeElement.blur()")
        page.evaluate(AXE)
        found = page.evaluate(ALL_OF_AXE)["violations"]
        assert [(v["id"], [n["html"][:120] for n in v["nodes"]][:3]) for v in found] == [], address
    context.close()


def test_focus_comes_back_to_what_was_acted_on(watched, served):
    """After each partial answer the focus is where it was; where that is gone, on the answer."""
    page = watched
    where = "document.activeElement.outerHTML.slice(0, 90)"

    def act(locator, key: str = "Enter") -> str:
        locator.focus()
        before = page.evaluate(where)
        page.evaluate(
            """() => { window.answered = new Promise((done) => new MutationObserver(
                (_, seen) => { seen.disconnect(); done(); }).observe(
                document.getElementById("answer"), { childList: true })); }"""
        )
        page.keyboard.press(key)
        page.evaluate("() => window.answered")
        page.wait_for_timeout(30)
        assert page.evaluate("document.activeElement !== document.body"), before
        return before

    page.goto(f"{served}/room/1")
    act(page.locator(".wa-mark-button").nth(3))
    assert "wa-mark-button" in page.evaluate(where)
    page.goto(f"{served}/swap")
    before = act(page.locator(".wa-rows a.wa-row").nth(2))
    assert before.split(" ")[0] == page.evaluate(where).split(" ")[0]
    page.locator("#room-here > summary").click()
    act(page.locator("#room-here button").nth(1))
    assert "button" in page.evaluate(where)
    page.goto(f"{served}/arc/?exercise=back-squat-high")
    act(page.locator("#pin"))
    assert "pin" in page.evaluate(where)


def test_the_answer_shows_within_200_ms(watched, served):
    """Changing a load or marking an item: from the tap to the new ranking in the page, the better
    of three.
    """
    page = watched
    page.goto(f"{served}/swap")
    page.locator("#room-here > summary").click()
    # timed inside the page by its own clock, so that the driver's round trips do not count
    times = page.evaluate(
        """async () => {
            const times = [];
            for (const id of ["item-12", "item-13", "item-14"]) {
                const start = performance.now();
                document.getElementById(id).click();
                await new Promise((done) =>
                    new MutationObserver((_, seen) => { seen.disconnect(); done(); })
                    .observe(document.getElementById("answer"), { childList: true }));
                await new Promise(requestAnimationFrame);
                times.push(performance.now() - start);
                await new Promise((done) => setTimeout(done, 50));
            }
            return times;
        }"""
    )
    assert min(times) <= 1000, times  # a guard; make bench shows the figure, 200 ms is wanted


def test_the_room_by_keys_alone(watched, served, con):
    """j and k move, t marks taken or free, b broken, u undoes."""
    page = watched
    page.goto(f"{served}/room/1")
    page.keyboard.press("j")
    expect(page.locator("#item-1")).to_be_focused()
    page.keyboard.press("t")
    expect(page.get_by_text("Sled press taken,")).to_be_visible()
    expect(page.locator("#item-1")).to_be_focused()
    page.keyboard.press("j")
    page.keyboard.press("b")
    expect(page.get_by_text(re.compile("broken, \\d"))).to_be_visible()
    page.keyboard.press("u")
    expect(page.get_by_text("Sled press taken,")).to_be_visible()
    page.keyboard.press("u")
    expect(page.get_by_text("27 of 27 things are free")).to_be_visible()


def test_three_taps_on_a_photo_that_stays_here(watched, served, tmp_path):
    page = watched
    sent = []
    page.on(
        "request",
        lambda r: (
            sent.append((r.method, r.post_data_buffer or b"")) if r.method == "POST" else None
        ),
    )
    page.goto(f"{served}/bench/angles")
    picture = tmp_path / "leg.png"
    picture.write_bytes(PNG)
    page.locator("#photo").set_input_files(picture)
    image = page.get_by_role("img", name="The chosen photo")
    expect(image).to_be_visible()
    box = image.bounding_box()
    for x, y in ((0.1, 0.1), (0.8, 0.1), (0.8, 0.9)):
        image.click(position={"x": x * box["width"], "y": y * box["height"]})
    expect(page.get_by_text("Three places are marked.")).to_be_visible()
    page.locator('#taps button[value="photo"]').click()
    expect(page.get_by_text("90°, give or take")).to_be_visible()
    assert len(sent) == 1 and PNG[:20] not in sent[0][1] and len(sent[0][1]) < 600, (
        "only the places are sent"
    )


def _png() -> bytes:
    """A grey picture, 200 by 200, as a PNG file."""

    def chunk(kind, data):
        body = kind + data
        return struct.pack(">I", len(data)) + body + struct.pack(">I", zlib.crc32(body))

    rows = zlib.compress(b"".join(b"\0" + bytes([200]) * 200 for _ in range(200)))
    header = struct.pack(">IIBBBBB", 200, 200, 8, 0, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", header) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")
    )


PNG = _png()


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_a_place_from_nothing_to_a_ranking(watched, served, con, size):
    """A trainer sets up a room on the spot: place, box, kettlebell, client, and asks what to do
    instead.
    """
    page = watched
    page.set_viewport_size(size)
    page.goto(f"{served}/room/new")
    page.get_by_label("Name").fill("Paint store")
    page.get_by_role("button", name="Add the place").click()
    for kind, name, fields in (
        ("Kettlebells", "Kettlebell 20", {"Weight": "20"}),
        ("Box or step", "Crate 40", {"Height": "40"}),
    ):
        page.get_by_role("link", name="Add equipment").click()
        page.get_by_role("link", name=kind, exact=True).click()
        page.get_by_label("Name").fill(name)
        for label, value in fields.items():
            page.get_by_label(label, exact=True).fill(value)
        page.keyboard.press("Enter")
        expect(
            page.get_by_role("button", name=re.compile(f"{name}.*, free: mark taken"))
        ).to_be_visible()
    page.goto(f"{served}/clients/new")
    page.get_by_label("Name or role").fill("Cadet")
    page.keyboard.press("Enter")
    page.get_by_role("link", name="Cadet").click()
    page.get_by_label("Experience").select_option("beginner")
    page.get_by_role("button", name="Keep this client").click()
    page.goto(f"{served}/swap?exercise=back-squat-high&kg=40&depth=85")
    expect(page.locator("#row-goblet-squat")).to_contain_text("kettlebell 20 kg")
    assert [i.name for i in store.items(con, 1, 4)] == ["Kettlebell 20", "Crate 40"]


def test_drawings_are_saved_as_svg_and_png_and_values_as_csv(watched, served):
    page = watched
    page.goto(f"{served}/arc/?exercise=goblet-squat")
    page.locator("#saves > summary").click()
    with page.expect_download() as saved:
        page.get_by_role("button", name="Knee as SVG").click()
    text = Path(saved.value.path()).read_text(encoding="utf-8")
    assert saved.value.suggested_filename == "goblet-squat-knee.svg"
    root = ElementTree.fromstring(text)
    assert root.tag.endswith("svg") and "class=" not in text and "style=" not in text
    filled = [
        e
        for e in root.iter()
        if e.tag.endswith("path") and e.get("fill", "").startswith("rgb(11, 89, 92")
    ]
    assert filled, "the actual's teal is in the file itself"
    for name in ("Figure", "Knee"):
        with page.expect_download() as saved:
            page.get_by_role("button", name=f"{name} as PNG").click()
        data = Path(saved.value.path()).read_bytes()
        assert data[:8] == PNG[:8] and len(data) > 4000
    with page.expect_download() as saved:
        page.get_by_role("link", name="Values as CSV").click()
    lines = Path(saved.value.path()).read_text(encoding="utf-8").splitlines()
    assert "knee" in lines[0] and len(lines) > 5


def test_space_plays_the_rep_and_stops_it(watched, served):
    page = watched
    page.goto(
        f"{served}/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=16&l0-port=goblet&lift=1.2&lower=1.2"
    )
    slider = page.locator('[data-cursor="knee"]')
    slider.focus()
    page.keyboard.press("Home")
    page.keyboard.press(" ")
    seen = set()
    for _ in range(80):
        at = int(slider.get_attribute("aria-valuenow"))
        if len(seen) >= 3 and at == max(seen):
            break
        seen.add(at)
        page.wait_for_timeout(60)
    assert len(seen) >= 3, "the rep is seen on its way"
    assert at == max(seen), "and comes back to where it began"
    page.keyboard.press(" ")
    page.wait_for_timeout(300)
    page.keyboard.press("ArrowRight")
    here = slider.get_attribute("aria-valuenow")
    page.wait_for_timeout(300)
    assert slider.get_attribute("aria-valuenow") == here, "any other key stops it"


def test_a_long_computation_goes_on_by_itself_and_a_wait_is_said(watched, served):
    page = watched
    page.goto(f"{served}/week/wanted/?buy=1&place=1")
    expect(page.get_by_text("Over this week’s plan")).to_be_visible()
    expect(page.locator("[data-again]")).to_have_count(0, timeout=60_000)
    # held up until the wait was seen: a fixed delay may end before a busy machine looks
    held = []
    page.route("**/swap?*", lambda route: held.append(route))
    page.goto(f"{served}/swap")
    page.locator(".wa-rows a.wa-row").nth(1).click()
    expect(page.locator("#computing")).to_have_text("Computing…")
    for route in held:
        route.continue_()
    expect(page.locator("#computing")).to_have_text("", timeout=20_000)


def test_an_answer_that_comes_late_does_not_close_what_was_opened_meanwhile(watched, served):
    page = watched
    page.goto(f"{served}/swap")
    held = []
    page.route("**/swap?*", lambda route: held.append(route))
    page.locator("#pick-place").click()
    page.locator("details[open] label", has_text="Harbour gym").click()
    expect(page.locator("details.wa-pick[open]")).to_have_count(0)  # the choice closes its chooser
    page.locator("#pick-exercise").click()
    finder = page.get_by_role("searchbox", name="find")
    finder.fill("free squat")
    for route in held:
        route.continue_()
    page.unroute("**/swap?*")
    expect(page.locator("#pick-place")).to_have_text("harbour gym")
    expect(finder).to_be_focused()
    expect(finder).to_have_value("free squat")
    assert page.locator("details[open] label[data-also]:visible").count() < 5
    finder.press("Enter")
    expect(page.locator("#pick-exercise")).to_have_text("body-weight squat")
    assert "place=3" in page.url
