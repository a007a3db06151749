"""Indonesian: every page, every refusal and every name in it; files stay English."""

from __future__ import annotations

import html.parser
import json
import re

import pytest
from playwright.sync_api import expect

from tests.looked import looked
from tests.web.test_browser import PAGES, PHONE
from widearc.core.exercises import EXERCISES
from widearc.words import How, catalogue, speaking, tr

VOID = {"br", "input", "img", "line", "path", "circle", "meta", "link", "rect", "hr", "use"}
READ_OUT = {"alt", "aria-label", "title", "placeholder", "aria-valuetext", "aria-description"}
ENGLISH = re.compile(
    r"\b(the|of|and|with|is|are|not|from|each|by|what|this|that|where|which|more|less|than|"
    r"your|you|here|none|both|knee|ankle|free|taken)\b",
    re.I,
)
POINT = re.compile(r"(?<![\d.])\d+\.\d{1,2}(?![\d.])")


class Seen(html.parser.HTMLParser):
    """What a person reads or hears of a page, but for what is marked as English."""

    def __init__(self) -> None:
        super().__init__()
        self.texts: list[str] = []
        self.hidden = 0

    def handle_starttag(self, tag, attrs):
        own = dict(attrs)
        if self.hidden:
            self.hidden += tag not in VOID
        elif tag in ("script", "style", "code", "textarea") or own.get("lang") == "en":
            self.hidden = 1
        for name, value in attrs:
            if (name in READ_OUT or name.startswith("data-say")) and value and not self.hidden:
                self.texts.append(value)

    def handle_endtag(self, tag):
        if self.hidden and tag not in VOID:
            self.hidden -= 1

    def handle_data(self, data):
        if not self.hidden and data.strip():
            self.texts.append(" ".join(data.split()))


@pytest.fixture
def typed(con):
    """Whatever somebody typed in the demo."""
    found = set()
    tables = con.execute("SELECT name FROM sqlite_master WHERE type = 'table'").fetchall()
    for (table,) in tables:
        for row in con.execute(f"SELECT * FROM {table}"):
            found |= {v for v in tuple(row) if isinstance(v, str) and 2 < len(v) < 300}
    # words that are typed in a field are the format's own
    options = [spec for entry in EXERCISES.values() for spec in entry.options.values()]
    found |= {str(word) for spec in options if spec.also_number for word in spec.choices}
    longest = sorted(found, key=len, reverse=True)
    return re.compile(r"(?<!\w)(" + "|".join(map(re.escape, longest)) + r")(?!\w)", re.I)


@pytest.fixture
def indonesian(client):
    sent = client.post("/settings/language", data={"choose": "id", "back": "/swap"})
    assert sent.status_code == 302 and sent.headers["Location"] == "/swap"
    catalogue.MISSED.clear()
    return client


def read(response) -> list[str]:
    seen = Seen()
    seen.feed(response.get_data(as_text=True))
    return seen.texts


def without(text: str, typed: re.Pattern[str]) -> str:
    """A text without what somebody typed."""
    return typed.sub(" ", text)


def test_no_page_says_an_english_sentence_or_a_decimal_point(indonesian, typed):
    for address in looked(PAGES, 40):
        answer = indonesian.get(address)
        assert '<html lang="id">' in answer.text, address
        for text in read(answer):
            left = without(text, typed)
            assert not ENGLISH.search(left), f"{address}: {text[:120]}"
            if "tabel 4.1" not in text:  # the number of a published table
                assert not POINT.search(left), f"{address}: {text[:120]}"
    assert set() == catalogue.MISSED


def test_every_card_is_read_in_the_language(indonesian, typed):
    for exercise in looked(list(EXERCISES)[::9], 10):
        for text in read(indonesian.get(f"/arc/?exercise={exercise}")):
            assert not ENGLISH.search(without(text, typed)), f"{exercise}: {text[:120]}"
    assert set() == catalogue.MISSED


def test_what_is_refused_is_said_in_the_language(indonesian, typed):
    for address, data in looked(
        (
            ("/clients/1", {"name": "Cook", "mass_kg": "heavy"}),
            ("/clients/1", {"name": "Cook", "mass_kg": "900"}),
            ("/room/item/1", {"name": "Press", "rail_deg": "400", "empty_kg": "20"}),
            ("/room/1/edit", {"name": "", "floor_width_m": "900"}),
            ("/bench/band/15", {"length": ["10", "x"], "force": ["5", ""], "strands": "2"}),
            ("/bench/scale", {"known": "0", "reads": "x"}),
            ("/bench/angles", {"action": "tape", "upper_m": "40", "lower_m": "1"}),
        ),
        7,
    ):
        answer = indonesian.post(address, data=data)
        assert answer.status_code == 422, address
        said = re.findall(r'role="alert">([^<]+)<', answer.text)
        assert said, address
        for text in said:
            assert not ENGLISH.search(without(text, typed)), f"{address}: {text}"
    assert set() == catalogue.MISSED


def test_an_exercise_is_found_by_its_names_in_either_language(indonesian):
    page = indonesian.get("/swap").text
    labels = dict(re.findall(r'data-also="([^"]*)"><input[^>]*value="([^"]+)"', page))
    also = {exercise: words for words, exercise in labels.items()}
    for exercise in ("step-up", "leg-curl-band", "back-extension-45"):
        entry = EXERCISES[exercise]
        with speaking(How(language="id")):
            own = [tr(alias) for alias in entry.aliases]
        assert entry.name in also[exercise]
        assert all(name in also[exercise] for name in (*entry.aliases, *own))


def test_files_and_documents_are_english(indonesian):
    assert (
        "extension"
        in indonesian.get("/intent/values.csv?a0=knee_extension&f0=95&t0=10&m0=100").text
    )
    request = json.loads(indonesian.get("/swap/request.json").text)
    assert request["format"] == "wide-arc/swap-request"
    table = indonesian.get("/arc/values.csv?exercise=back-squat-high").text
    assert table.splitlines()[0].startswith("lift") and "lutut" not in table


def test_a_language_that_is_not_shipped_is_refused(client):
    answer = client.post("/settings/language", data={"choose": "xx", "back": "/"})
    assert answer.status_code == 400 and "en" in answer.text
    assert '<html lang="en">' in client.get("/clients/").text


def test_a_kept_decision_and_a_change_are_said_anew(indonesian):
    asked = indonesian.get("/swap").text
    form = re.search(r'<form class="wa-use wa-thumb" id="use".*?</form>', asked, re.S)
    data = dict(re.findall(r'<input[^>]*name="([^"]+)"[^>]*value="([^"]*)"', form.group(0)))
    for name in [n for n in data if n.startswith(("csrf", "once", "tick"))]:
        del data[name]
    assert indonesian.post("/swap/use", data=data).status_code == 302
    there = indonesian.get("/kept").text
    assert "disimpan untuk" in there
    indonesian.post("/settings/language", data={"choose": "en", "back": "/"})
    here = indonesian.get("/kept").text
    assert "kept for" in here and "disimpan untuk" not in here


def test_the_language_is_switched_on_any_page_and_nothing_overflows(watched, served):
    """On a phone: the foot's button, the same page again, and no word cut."""
    page = watched
    page.set_viewport_size(PHONE)
    page.goto(f"{served}/swap?kg=100")
    page.get_by_role("button", name="Bahasa Indonesia").click()
    expect(page.locator("html")).to_have_attribute("lang", "id")
    assert page.url.endswith("/swap?kg=100")
    expect(page.get_by_role("region", name="Pengganti", exact=True)).to_be_visible()
    for address in looked(
        ("/room/1", "/swap", "/arc/", "/bench/band/15", "/clients/3", "/week/"), 6
    ):
        page.goto(served + address)
        wide = page.evaluate(
            "document.documentElement.scrollWidth - document.documentElement.clientWidth"
        )
        assert wide <= 0, f"{address} is {wide} px too wide"
    page.goto(f"{served}/bench/angles")
    page.get_by_role("button", name="English").click()
    expect(page.locator("html")).to_have_attribute("lang", "en")
