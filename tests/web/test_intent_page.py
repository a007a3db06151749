"""The Intent screen, what it lays over Arc and hands to Swap, and the handles as a hand uses
them.
"""

from __future__ import annotations

import re
from urllib.parse import parse_qsl, quote, urlencode

import pytest

from widearc import store
from widearc.core.body import Body
from widearc.core.intent import Shape
from widearc.usecases.intent.intents import start_intent
from widearc.web.screens.intent.query import address, intent_of, read

BODY = Body()
HANDS = {
    "a0": "knee_extension",
    "f0": "95",
    "t0": "10",
    "s0": "",
    "h0-0": "120",
    "h0-1": "150",
    "h0-2": "130",
    "h0-3": "90",
    "h0-4": "40",
}


def test_an_address_says_the_whole_intent_and_reads_back_the_same():
    source = HANDS | {
        "a1": "hip_extension",
        "f1": "90",
        "t1": "5",
        "s1": "",
        "sets": "4",
        "reps": "6",
        "lower": "3",
        "lift": "2",
        "style": "pause",
        "at": "90",
        "secs": "2",
        "feel": "1",
    }
    source |= {f"h1-{k}": "80" for k in range(5)}
    first = read(source, BODY)
    assert first.intent is not None and not first.problems
    again = read(dict(parse_qsl(address(first.intent, BODY))), BODY)
    assert again.intent == first.intent and again.query == first.query
    assert intent_of(first.query, BODY) == first.intent


def test_the_start_is_a_shape_with_its_handles_shown():
    found = read({}, BODY)
    assert found.intent == start_intent() and found.intent.parts[0].shape is Shape.STRETCH
    assert float(found.typed["h0-0"]) > float(found.typed["h0-4"]) > 0


@pytest.mark.parametrize(
    ("change", "field", "says"),
    [
        ({"f0": "abc"}, "f0", "degrees"),
        ({"t0": "120"}, "t0", "less than the lengthened end"),
        ({"h0-2": "-4"}, "h0-2", "0 to 2000"),
        ({"h0-2": "1e400"}, "h0-2", "0 to 2000"),
        ({"s0": "wild"}, "s0", "shapes"),
        ({"s0": "stretch", "m0": "0"}, "m0", "1 to 2000"),
        ({"sets": "99"}, "sets", "1 to 20"),
        ({"lower": "0"}, "lower", "0.1 to 120"),
        ({"style": "pause", "secs": "0"}, "secs", "0.1 to 600"),
        ({"style": "bounce"}, "style", "one of the list"),
        ({"a1": "knee_flexion", "f1": "5", "t1": "90"}, "a1", "another joint"),
        ({"a0": "flying"}, "a0", "known: "),
    ],
)
def test_what_is_wrong_is_marked_at_its_field_and_kept(client, change, field, says):
    found = read(HANDS | change, BODY)
    assert found.intent is None and list(found.problems) == [field]
    assert says in found.problems[field]
    page = client.get("/intent/?" + urlencode(HANDS | change)).get_data(as_text=True)
    assert f'id="p-{field}"' in page
    for name, value in change.items():
        if name not in ("style", "s0", "a0", "a1"):
            assert f'value="{value}"' in page


def test_the_page_draws_a_ribbon_with_five_handles_for_each_action(client):
    source = HANDS | {"a1": "hip_extension", "f1": "90", "t1": "5", "s1": "even", "m1": "60"}
    page = client.get("/intent/?" + urlencode(source)).get_data(as_text=True)
    assert page.count('role="slider"') == 10
    assert 'aria-valuetext="150 N·m"' in page and page.count("wa-line-intended") >= 4
    assert "dose by quarters" in page


def test_another_action_starts_with_its_own_usual_range(client):
    page = client.get(
        "/intent/?" + urlencode(HANDS | {"a0": "plantarflexion", "was0": "knee_extension"})
    )
    text = page.get_data(as_text=True)
    assert 'name="f0" value="15"' in text and 'name="t0" value="-25"' in text


def test_by_feel_shows_no_newton_metres(client):
    page = client.get("/intent/?" + urlencode(HANDS | {"feel": "1"})).get_data(as_text=True)
    assert "N·m" not in re.sub(r"<title>.*?</title>", "", page)
    assert "resistance last" in page
    swap = client.get("/swap?want=" + quote(urlencode(HANDS | {"feel": "1"}))).get_data(
        as_text=True
    )
    assert "N·m" not in swap.split('aria-label="Side view')[1].split("wa-foot")[0]


def test_an_intent_is_kept_named_reused_replaced_removed_and_undone(client, con):
    query = urlencode(HANDS)
    client.post("/intent/keep", data={"name": "  Deep   press ", "query": query})
    trainer = store.local_trainer(con, now="2026-11-24T10:00:00+00:00")
    (row,) = [r for r in store.intents(con, trainer) if r.name == "Deep press"]
    assert row.intent == read(HANDS, BODY).intent
    client.post(
        "/intent/keep", data={"name": "Deep press", "query": urlencode(HANDS | {"h0-0": "10"})}
    )
    (row,) = [r for r in store.intents(con, trainer) if r.name == "Deep press"]
    assert row.intent.parts[0].handles[0] == (0.0, 10.0)
    page = client.get("/intent/").get_data(as_text=True)
    assert "Deep press" in page and 'class="wa-strip"' in page
    change = store.last_change(con, trainer, "intents")
    client.post(f"/undo/{change.id}")
    (row,) = [r for r in store.intents(con, trainer) if r.name == "Deep press"]
    assert row.intent.parts[0].handles[0] == (0.0, 120.0)
    client.post("/intent/remove", data={"intent": str(row.id)})
    assert not [r for r in store.intents(con, trainer) if r.name == "Deep press"]
    assert client.post("/intent/remove", data={"intent": "99"}).status_code == 400
    client.post(f"/undo/{store.last_change(con, trainer, 'intents').id}")
    assert [r for r in store.intents(con, trainer) if r.name == "Deep press"]


def test_a_name_that_is_not_kept_says_so_and_keeps_what_was_typed(client, con):
    answer = client.post("/intent/keep", data={"name": "x" * 70, "query": urlencode(HANDS)})
    assert answer.status_code == 422
    page = answer.get_data(as_text=True)
    assert "a name of 1 to 60 characters" in page and "x" * 70 in page and 'value="150"' in page
    trainer = store.local_trainer(con, now="2026-11-24T10:00:00+00:00")
    assert not [r for r in store.intents(con, trainer) if r.name.startswith("xx")]


def test_want_this_turns_an_exercise_into_handles(client):
    answer = client.get(
        "/intent/from?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=24&l0-port=goblet"
    )
    assert answer.status_code == 302
    found = read(dict(parse_qsl(answer.location.split("?")[1])), BODY)
    assert [p.action.label for p in found.intent.parts] == ["knee_extension", "hip_extension"]
    page = client.get(answer.location).get_data(as_text=True)
    assert re.search(r"Five handles hold 9\d % of it", page)
    assert client.get("/intent/from?exercise=hamstring-stretch").status_code == 400


def test_swap_takes_an_intent_and_keeps_the_decision(client, con):
    want = urlencode(HANDS | {"sets": "5", "reps": "5"})
    page = client.get("/swap?want=" + quote(want)).get_data(as_text=True)
    assert "To make" in page and "knee extension 95° to 10°" in page and "Use this, 5 × 5" in page
    pick = re.search(r'id="row-([a-z0-9-]+)"', page).group(1)
    assert client.post("/swap/use", data={"want": want, "pick": pick}).status_code == 302
    kept = client.get("/kept").get_data(as_text=True)
    assert "an intent, 5 × 5" in kept


def test_without_a_level_swap_speaks_of_shape(client):
    page = client.get(
        "/swap?want=" + quote(urlencode(HANDS | {"s0": "squeeze", "m0": ""}))
    ).get_data(as_text=True)
    head = page.split('class="wa-numbers"')[1].split("</div>")[0]
    assert "% shape" in head and "level" not in head and "% match" not in head


def test_a_broken_want_is_said_in_words(client):
    answer = client.get("/swap?want=" + quote("a0=knee_extension&f0=x"))
    assert answer.status_code in (200, 400) and "degrees" in answer.get_data(as_text=True)


ARC = "/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=24&l0-port=goblet&client=1"


def test_arc_lays_the_intended_over_the_actual(client):
    plain = client.get(ARC).get_data(as_text=True)
    assert "wa-line-intended" not in plain
    page = client.get(f"{ARC}&want={quote(urlencode(HANDS))}").get_data(as_text=True)
    knee = page.split('id="drawing-knee"')[1].split("</svg>")[0]
    assert "wa-line-intended" in knee and "wa-short" in knee and "wa-comb" in knee
    figure = page.split('id="drawing-figure"')[1].split("</svg>")[0]
    assert "wa-line-intended" in figure
    hip = page.split('id="drawing-hip"')[1].split("</svg>")[0]
    assert "wa-line-intended" not in hip
    none = client.get(f"{ARC}&want={quote(urlencode(HANDS))}&over=none").get_data(as_text=True)
    assert "wa-line-intended" not in none


def test_arc_lays_a_pin_and_a_kept_intent_over_it(client):
    client.post("/arc/pin", data={"query": "exercise=back-squat-high", "action": "pin"})
    page = client.get(f"{ARC}&over=pin").get_data(as_text=True)
    assert "wa-line-intended" in page.split('id="drawing-hip"')[1].split("</svg>")[0]
    client.post("/intent/keep", data={"name": "Kept one", "query": urlencode(HANDS)})
    chooser = client.get(ARC).get_data(as_text=True)
    value = re.search(r'<option value="(i\d+)">Kept one', chooser).group(1)
    assert "wa-line-intended" in client.get(f"{ARC}&over={value}").get_data(as_text=True)


def test_a_curl_s_intent_lies_below_the_line(client):
    want = urlencode({"a0": "knee_flexion", "f0": "10", "t0": "90", "s0": "even", "m0": "30"})
    page = client.get(f"/arc/?exercise=seated-leg-curl&client=1&want={quote(want)}").get_data(
        as_text=True
    )
    assert "wa-line-intended" in page.split('id="drawing-knee"')[1].split("</svg>")[0]


@pytest.mark.parametrize(
    ("view", "has", "lacks"),
    [
        ("joints", 'id="drawing-knee"', "Muscles over"),
        ("muscles", "Muscles over their own length", 'id="drawing-knee"'),
        ("forces", 'id="drawing-load-0"', 'id="drawing-knee"'),
        ("spine", 'id="drawing-lumbar"', 'id="drawing-knee"'),
        ("nonsense", 'id="drawing-knee"', "Muscles over"),
    ],
)
def test_arc_has_four_views_of_one_lift(client, view, has, lacks):
    page = client.get(f"{ARC}&view={view}").get_data(as_text=True)
    assert has in page and lacks not in page
    assert 'data-cursor="rule"' in page


def test_compression_is_only_said_beside_a_reference(client):
    assert "× A" not in client.get(f"{ARC}&view=spine").get_data(as_text=True)
    client.post("/arc/pin", data={"query": "exercise=back-squat-high", "action": "pin"})
    page = client.get(f"{ARC}&view=spine").get_data(as_text=True)
    assert "× A" in page and "3.4 kN" in page and "NIOSH 1981" in page
    assert "carries the trunk" in client.get("/arc/?exercise=leg-press-45&view=spine").get_data(
        as_text=True
    )


@pytest.mark.parametrize(
    "exercise",
    [
        "leg-press-45",
        "bodyweight-squat",
        "leg-extension",
        "hip-thrust",
        "split-squat",
        "calf-raise-step",
        "hack-squat",
        "couch-knee-press",
        "ball-wall-squat",
        "rear-raised-split-squat",
    ],
)
def test_every_handle_has_a_field_and_stands_within_its_limits(client, exercise):
    page = client.get(f"/arc/?exercise={exercise}&client=1").get_data(as_text=True)
    found = re.findall(
        r'data-handle="([^"]+)"[^>]*data-px="([^"]+)"[^>]*aria-valuemin="([^"]+)" '
        r'aria-valuemax="([^"]+)" '
        r'aria-valuenow="([^"]+)"',
        page,
    )
    assert found, exercise
    for names, px, least, most, now in found:
        for name in names.split():
            assert f'id="{name}"' in page
        assert all(float(p) > 0 for p in px.split())
        assert float(least) <= float(now) <= float(most)


def test_a_drag_answers_with_the_curve_before_as_a_ghost(client):
    headers = {
        "X-Part": "answer",
        "X-Drag": "1",
        "X-Was": "exercise=leg-press-45&for=leg-press-45&client=1&l0=sled",
    }
    page = client.get(
        "/arc/?exercise=leg-press-45&for=leg-press-45&client=1&l0=sled&o-foot_height_m=20",
        headers=headers,
    ).get_data(as_text=True)
    assert "wa-line-ghost" in page
    headers["X-Was"] = "exercise=nothing-like-it"
    assert "wa-line-ghost" not in client.get(
        "/arc/?exercise=leg-press-45&client=1", headers=headers
    ).get_data(as_text=True)


def test_felt_and_computed_apart_twice_suggest_a_measurement(client, con):
    query = ARC.split("?")[1]
    page = client.get(ARC).get_data(as_text=True)
    computed = re.search(r"Computed: (\w+)", page).group(1)
    other = "shortened" if computed != "shortened" else "lengthened"
    client.post("/arc/felt", data={"query": query, "felt": other})
    assert "differ" not in client.get(ARC).get_data(as_text=True)
    client.post("/arc/felt", data={"query": query, "felt": other})
    page = client.get(ARC).get_data(as_text=True)
    assert "differ 2 times in a row: tape the thigh" in page
    client.post("/arc/felt", data={"query": query, "felt": computed})
    assert "differ" not in client.get(ARC).get_data(as_text=True)
    assert client.post("/arc/felt", data={"query": query, "felt": "everywhere"}).status_code == 400
    trainer = store.local_trainer(con, now="2026-11-24T10:00:00+00:00")
    assert len(store.felt_rows(con, trainer, 1)) == 3


def test_with_a_band_it_is_the_band_that_is_weighed_again(client):
    query = "exercise=leg-extension-band&for=leg-extension-band&client=1&l0=band"
    page = client.get(f"/arc/?{query}").get_data(as_text=True)
    computed = re.search(r"Computed: (\w+)", page).group(1)
    other = "shortened" if computed != "shortened" else "lengthened"
    for _ in range(2):
        client.post("/arc/felt", data={"query": query, "felt": other})
    assert re.search(
        r"weigh the band again at \d+ cm", client.get(f"/arc/?{query}").get_data(as_text=True)
    )


def test_against_a_pin_effort_is_a_ratio_until_a_set_is_logged(client):
    client.post("/arc/pin", data={"query": ARC.split("?")[1], "action": "pin"})
    heavier = ARC.replace("l0-kg=24", "l0-kg=28")
    page = client.get(heavier).get_data(as_text=True)
    assert "of this client’s strength there" in page and "close to failure" not in page
    client.post(
        "/arc/set",
        data={
            "query": ARC.split("?")[1],
            "reps": "10",
            "reserve": "2",
            "side": "both",
            "formula": "epley",
        },
    )
    page = client.get(heavier).get_data(as_text=True)
    assert re.search(r"\d+ reps come as close to failure as \d+ of A|above what|more than", page)


def test_a_kept_decision_has_its_strip_and_compare_one_for_each(client):
    page = client.get("/swap").get_data(as_text=True)
    pick = re.search(r'id="row-([a-z0-9-]+)"', page).group(1)
    client.post("/swap/use", data={"pick": pick})
    assert 'class="wa-strip"' in client.get("/kept").get_data(as_text=True)
    pins = "pin=exercise%3Dback-squat-high%26client%3D1&pin=exercise%3Dleg-extension%26client%3D1"
    page = client.get(f"/arc/compare?{pins}").get_data(as_text=True)
    assert page.count('class="wa-strip"') == 2 and page.count("not rated yet by the") == 2
    client.post("/arc/felt", data={"query": "exercise=leg-extension&client=1", "felt": "middle"})
    page = client.get(f"/arc/compare?{pins}").get_data(as_text=True)
    assert "felt hardest in the middle by the" in page


def test_every_figure_has_its_values_as_a_table_and_as_csv(client):
    rows = client.get("/intent/values.csv?" + urlencode(HANDS)).get_data(as_text=True).splitlines()
    assert rows[0] == "action,angle_deg,wanted_nm" and rows[1] == "knee extension,95,120"
    assert rows[-1] == "knee extension,10,40" and len(rows) == 87
    assert client.get("/intent/values.csv?" + urlencode(HANDS | {"f0": "x"})).status_code == 400
    csv = client.get(f"/arc/values.csv?{ARC.split('?')[1]}&view=forces").get_data(as_text=True)
    assert csv.splitlines()[0].startswith('knee bend,"weight, N"') and "235" in csv
    spine = client.get(f"/arc/values.csv?{ARC.split('?')[1]}&view=spine").get_data(as_text=True)
    assert "low back, N·m" in spine.splitlines()[0]
    muscles = (
        client.get(f"/arc/values.csv?{ARC.split('?')[1]}&view=muscles")
        .get_data(as_text=True)
        .splitlines()
    )
    assert muscles[0].startswith('muscle,"work, J"') and muscles[1].startswith("vasti,")
    assert 'data-save="drawing-muscle-1"' in client.get(f"{ARC}&view=muscles").get_data(
        as_text=True
    )
    page = client.get(f"{ARC}&view=forces").get_data(as_text=True)
    assert "weight, N</th>" in page


def test_a_logged_set_has_its_strip_on_the_client_s_sheet_and_undo_takes_both(client, con):
    assert 'class="wa-strip"' not in client.get("/clients/1").get_data(as_text=True)
    client.post(
        "/arc/set",
        data={
            "query": ARC.split("?")[1],
            "reps": "8",
            "reserve": "2",
            "side": "both",
            "formula": "epley",
        },
    )
    assert client.get("/clients/1").get_data(as_text=True).count('class="wa-strip"') == 1
    trainer = store.local_trainer(con, now="2026-11-24T10:00:00+00:00")
    (row,) = store.strength_sets(con, trainer, 1)
    assert len(row.strip) == 33 and row.strip[0] == max(row.strip) > 50 > row.strip[-1]
    rows = client.get(f"/arc/values.csv?{ARC.split('?')[1]}").get_data(as_text=True).splitlines()
    assert "% of the limit" in rows[0] and "% of the limit</th>" in client.get(ARC).get_data(
        as_text=True
    )
    client.post(f"/undo/{store.last_change(con, trainer, 'clients').id}")
    assert "% of the limit" not in client.get(f"/arc/values.csv?{ARC.split('?')[1]}").get_data(
        as_text=True
    )
    assert store.strength_sets(con, trainer, 1) == ()
    assert con.execute("SELECT count(*) FROM strength_strip").fetchone()[0] == 0
