"""Pinned exercises compared: the address holds them, differences in words, who does the work."""

from __future__ import annotations

import re
from urllib.parse import urlencode

import pytest

SQUAT = "exercise=back-squat-high&for=back-squat-high&l0=mass&l0-kg=60&l0-port=back-high"
PRESS = "exercise=leg-press-45&for=leg-press-45&l0=sled&l0-kg=120"


def raw(response):
    return response.get_data(as_text=True)


def compare(client, *pins, **more):
    return client.get("/arc/compare?" + urlencode([("pin", p) for p in pins] + list(more.items())))


def test_pins_are_kept_compared_and_taken_away(client):
    assert "Nothing is pinned yet" in raw(client.get("/arc/compare"))
    for query in (SQUAT, PRESS, PRESS):
        client.post("/arc/pin", data={"action": "pin", "query": query, "back": "/arc/?" + query})
    assert "Compare 2 pinned" in raw(client.get("/arc/")), "the same set-up is pinned once"
    assert "Against A, Back squat, high bar, 60 kg on the traps: " in raw(
        client.get("/arc/?" + PRESS)
    )
    page = raw(client.get("/arc/compare"))
    assert "Back squat, high bar, 60 kg on the traps" in page and "120 kg on the sled" in page
    client.post("/arc/pin", data={"action": "clear"})
    assert "Nothing is pinned yet" in raw(client.get("/arc/compare"))
    away = client.post(
        "/arc/pin", data={"action": "pin", "query": SQUAT, "back": "//elsewhere/arc/"}
    )
    assert away.headers["Location"].startswith("/arc/")


def test_a_pin_against_itself_is_alike_and_a_heavier_one_says_by_how_much(client):
    heavier = SQUAT.replace("l0-kg=60", "l0-kg=120")
    page = raw(compare(client, SQUAT, SQUAT.replace("for=", "x=1&for="), heavier))
    assert "Against A: Alike all the way. Hip 100 % covered." in page
    over = [int(v) for v in re.findall(r"(\d+) % over", page)]
    assert over and all(15 < v < 60 for v in over), (
        "60 kg more on a body that carries itself too is not double"
    )
    assert page.count('class="wa-pin-line') == 3


def test_the_compared_values_go_out_as_csv(client):
    sent = client.get(
        "/arc/compare.csv?" + urlencode([("pin", SQUAT), ("pin", PRESS), ("joint", "knee")])
    )
    lines = raw(sent).splitlines()
    assert sent.mimetype == "text/csv" and lines[0] == '"knee bend, degrees","A, N*m","B, N*m"'
    assert re.fullmatch(r"110,\d+,", lines[1]), "the press does not go so deep: an empty cell"


def test_each_to_its_own_peak_reaches_a_hundred(client):
    page = raw(compare(client, SQUAT, PRESS, scale="own"))
    values = [
        int(v)
        for v in re.findall(
            r'<td class="wa-num">(\d+)</td>',
            page.split("Table of values")[1].split("</details>")[0],
        )
    ]
    assert max(values) in (99, 100) and "% of its peak" in page


@pytest.mark.parametrize("joint", ["hip", "knee", "ankle"])
def test_each_joint_can_be_looked_at(client, joint):
    page = raw(compare(client, SQUAT, PRESS, joint=joint))
    assert f"<b>{joint}</b>" in page and f"{joint} bend" in page


def test_what_cannot_be_computed_is_said_with_its_letter(client):
    page = compare(
        client,
        SQUAT,
        "exercise=unicycle",
        "exercise=hamstring-stretch",
        PRESS + "&o-knee_from_deg=999",
        "exercise=leg-extension",
    )
    text = raw(page)
    assert page.status_code == 200
    assert "<b>B</b> an address" in text and "<b>C</b> Hamstring stretch" in text.replace(
        "stretch, ", "stretch"
    )
    assert "<b>D</b>" in text and "999" in text
    assert text.count('class="wa-pin-line') == 2 and 'class="wa-pin-line wa-pin-E"' in text
    only = raw(compare(client, "exercise=unicycle"))
    assert "<b>A</b> an address" in only


def test_who_works_is_said(client):
    hinge = "exercise=romanian-deadlift&for=romanian-deadlift&l0=mass&l0-kg=60&l0-port=hands"
    page = raw(compare(client, SQUAT, hinge))
    assert re.search(
        r"B against A, one leg and rep: long hamstrings \d+ J more, vasti \d+ J less", page
    )
    shares = dict(
        re.findall(
            r"<tr><td>([a-z ]+)</td><td class=\"wa-num\">\d+</td><td class=\"wa-num\">(\d+)</td>",
            page,
        )
    )
    assert int(shares["long hamstrings"]) > 40


def test_each_claim_has_its_page_and_keeps_what_is_typed(client):
    listed = raw(client.get("/claims/"))
    from widearc.usecases.claims.claims import CLAIMS

    for found in CLAIMS.values():
        assert f'href="/claims/{found.id}"' in listed
        page = client.get(f"/claims/{found.id}")
        assert page.status_code == 200 and found.title in raw(page).replace("&#39;", "'")
    bad = raw(client.get("/claims/squat-hamstrings?kg=heavy&deep=999"))
    assert "“heavy” is not used" in bad and 'value="heavy"' in bad and "999° is not used" in bad
    changed = raw(client.get("/claims/squat-hamstrings?kg=120&joint=knee"))
    assert 'value="120"' in changed and "<b>knee</b>" in changed
    assert client.get("/claims/flat-earth").status_code == 400


def test_a_set_is_logged_on_arc_and_tells_the_effort_there(client):
    query = "exercise=leg-extension&client=1"
    assert "sticking point" not in raw(client.get("/arc/?" + query))
    form = {"query": query, "reps": "8", "reserve": "2", "side": "both", "formula": "epley"}
    for change, says in (
        ({"reps": "many"}, "“many” is not used"),
        ({"reserve": "99"}, "99 is not kept"),
        ({"side": "x"}, "x is not kept"),
    ):
        bad = client.post("/arc/set", data=form | change)
        assert (
            bad.status_code == 422 and says in raw(bad) and next(iter(change.values())) in raw(bad)
        )
    assert client.post("/arc/set", data=form).status_code == 302
    page = raw(client.get("/arc/?" + query))
    assert "sticking point at" in page and "75 ±" in page and "effort, % of the limit" in page
    sheet = raw(client.get("/clients/1"))
    assert "8 reps with 2 in reserve" in sheet and "knee extension" in sheet
    client.post("/clients/set/1/remove")
    assert "No set is logged" in raw(client.get("/clients/1"))
    assert client.post("/clients/set/1/remove").status_code == 404
    assert (
        client.post("/arc/set", data=form | {"query": "exercise=hamstring-stretch"}).status_code
        == 400
    )


def test_a_machine_that_was_read_stands_on_the_page_of_its_dispute(client):
    text = client.get("/claims/extension-hardest").text
    assert "Extension machine" in text and "against the usual strength curve it is hardest" in text
    assert client.get("/claims/extension-hardest.csv").text.count("N*m") >= 3
