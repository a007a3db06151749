"""Pages without a browser: status, headers, refusals in our own look, nothing lost."""

from __future__ import annotations

import html
import inspect
import json
import re

import numpy as np
import pytest

from tests.conftest import NOW
from tests.looked import looked
from widearc import store
from widearc.core import errors
from widearc.core.exercises import EXERCISES
from widearc.core.statics import curve as core_curve
from widearc.formats import parse_scenario
from widearc.store import errors as store_errors
from widearc.usecases import SheetError
from widearc.usecases.room.kit import stock_of
from widearc.web import create_app
from widearc.web.screens import marks, screens

PAGES = [
    "/room/1",
    "/room/2",
    "/room/3",
    "/arc/",
    "/arc/?exercise=hamstring-stretch",
    "/swap",
    "/kept",
    "/ladder/",
    "/ladder/?exercise=leg-press-45&place=1",
    "/week/",
    "/week/wanted/?place=3&client=2",
    "/bench/",
    "/method/",
    "/method/look",
    "/formats/",
]


def text(response) -> str:
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", response.get_data(as_text=True)))


def test_every_mark_leads_to_an_address_of_a_screen(app):
    ends = {rule.endpoint for rule in app.url_map.iter_rules()}
    assert len(marks()) > 8 and {mark.endpoint for mark in marks()} <= ends
    assert len({mark.rank for mark in marks()}) == len(marks())
    served = {blueprint.name for screen in screens() for blueprint in screen.blueprints}
    assert served <= set(app.blueprints)


@pytest.mark.parametrize("address", PAGES)
def test_every_page_answers_under_the_strict_policy(client, address):
    response = client.get(address)
    assert response.status_code == 200
    policy = response.headers["Content-Security-Policy"]
    assert (
        "default-src 'none'" in policy and "script-src 'self'" in policy and "unsafe" not in policy
    )
    body = response.get_data(as_text=True)
    assert not re.search(r"\sstyle=|<style|<script(?![^>]*src=)|\son[a-z]+=", body)
    assert "nan" not in text(response).lower().split() and "None" not in text(response)
    assert "http://" not in body.replace("http://www.w3.org", "")


@pytest.mark.parametrize(
    ("address", "status"),
    [
        ("/nothing", 404),
        ("/room/99", 404),
        ("/bench/band/1", 404),
        ("/bench/band/999", 404),
        ("/formats/nope.json", 404),
        ("/swap?place=99", 404),
        ("/swap?client=99", 404),
        ("/room/item/1/state", 405),
    ],
)
def test_errors_have_our_own_look(client, address, status):
    response = client.get(address)
    assert response.status_code == status
    assert "Back to Home" in text(response)


@pytest.mark.parametrize(
    ("query", "says"),
    [
        ("kg=heavy", "“heavy” is not used: kilograms"),
        ("kg=-5", "from 0 to 500 kg"),
        ("kg=nan", "kilograms"),
        ("depth=5", "from 30 to 140 degrees"),
        ("sets=2.5", "a whole number of sets"),
        ("reps=1e99", "a whole number of reps"),
        ("exercise=unicycle", "known: "),
        ("place=first", "a place of the list"),
    ],
)
def test_a_wrong_part_of_the_job_is_marked_and_kept_as_typed(client, query, says):
    response = client.get(f"/swap?{query}")
    assert response.status_code == 200, text(response)
    assert says in text(response)
    name, value = query.split("=")
    if name in ("kg", "depth", "sets", "reps"):
        assert f'value="{value}"' in response.get_data(as_text=True)


def test_every_error_class_has_a_page(app, monkeypatch):
    samples = {
        "InputError": errors.InputError("kg", -1, "0 or more"),
        "RangeError": errors.RangeError("kg", -1, 0, 500, " kg"),
        "UnknownNameError": errors.UnknownNameError("exercise", "x", ["y"]),
        "PostureError": errors.PostureError(0.0, "cannot balance"),
        "TargetError": errors.TargetError("no work"),
        "WideArcError": errors.WideArcError("no"),
        "StoreError": store_errors.StoreError("newer"),
        "MissingError": store_errors.MissingError("gone"),
        "ConflictError": store_errors.ConflictError("changed meanwhile"),
        "UnwritableError": store_errors.UnwritableError("the disk is full"),
        "RepeatedError": store_errors.RepeatedError("sent already"),
        "SheetError": SheetError({"rows": "too few"}),
    }
    known = [c for m in (errors, store_errors) for _, c in inspect.getmembers(m, inspect.isclass)]
    assert {c.__name__ for c in known if issubclass(c, Exception)} <= set(samples)
    for error in [*samples.values(), ZeroDivisionError("boom")]:
        app = create_app(app.config["DATABASE"])
        app.add_url_rule("/raise", view_func=lambda error=error: (_ for _ in ()).throw(error))
        # the logger is the same for all applications
        monkeypatch.setattr(app.logger, "disabled", True)
        response = app.test_client().get("/raise")
        if isinstance(error, store_errors.RepeatedError):
            assert response.status_code == 302 and response.headers["Location"] == "/"
            continue
        assert response.status_code in (400, 404, 409, 500, 503)
        assert "Traceback" not in text(response) and "Back to Home" in text(response)


def test_a_form_without_its_token_changes_nothing(database, con):
    client = create_app(database, secret_key="test").test_client()
    response = client.post("/room/item/1/state", data={"state": "taken"})
    assert response.status_code == 400 and "nothing was changed" in text(response)
    assert store.item(con, 1, 1).state is store.State.FREE


def test_marking_goes_back_where_it_came_from_but_never_elsewhere(client):
    back = client.post("/room/item/1/state", data={"state": "taken", "back": "/swap?kg=100"})
    assert back.headers["Location"] == "/swap?kg=100"
    for evil in ("//elsewhere.example", "https://elsewhere.example", "/\\elsewhere.example"):
        assert (
            client.post("/room/item/1/state", data={"state": "free", "back": evil}).headers[
                "Location"
            ]
            == "/room/1"
        )
    assert client.post("/room/item/1/state", data={"state": "lost"}).status_code == 400


def band_id(con, name="Light loop"):
    return next(i.id for i in store.items(con, 1, 1) if i.name == name)


def sheet(rows, **changes):
    form = {
        "length_unit": "m",
        "force_unit": "N",
        "rest": "",
        "strands": "2",
        "shape": "loop",
        "law": "points",
    }
    return {
        **form,
        "length": [r[0] for r in rows],
        "force": [r[1] for r in rows],
        "action": "save",
        **changes,
    }


@pytest.mark.parametrize(
    ("rows", "says"),
    [
        ([("1.0", "0")], "1 reading is too few"),
        ([("1.0", "0"), ("0.9", "5")], "0.9 m is not longer than the reading before, 1 m"),
        ([("1.0", "0"), ("1.2", "-88")], "-88 N is not kept: a band pulls 0 N or more"),
        ([("1.0", "0"), ("wide", "8")], "“wide” is not a length in m"),
        ([("1.0", "9"), ("1.2", "8")], "though the band is longer"),
    ],
)
def test_bad_readings_are_refused_at_the_row_and_nothing_is_lost(client, con, rows, says):
    band = band_id(con)
    before = store.readings(con, 1, band)
    response = client.post(f"/bench/band/{band}", data=sheet(rows))
    assert response.status_code == 422
    assert says in text(response)
    body = response.get_data(as_text=True)
    assert all(f'value="{cell}"' in body for row in rows for cell in row)
    assert store.readings(con, 1, band) == before


def test_bad_choices_on_the_sheet_are_refused(client, con):
    rows = [("1.0", "0"), ("1.2", "8")]
    for change in (
        {"rest": "long"},
        {"rest": "50"},
        {"strands": "7"},
        {"law": "cubic"},
        {"length_unit": "ell"},
        {"back": "much"},
        {"back": "70"},
        {"looked": "2199-01-01"},
        {"looked": "soon"},
    ):
        response = client.post(f"/bench/band/{band_id(con)}", data=sheet(rows, **change))
        assert response.status_code == 422, change
        assert 'role="alert"' in response.get_data(as_text=True)


def test_readings_in_pounds_and_inches_are_kept_in_si_and_shown_as_typed(client, con):
    band = band_id(con)
    rows = [("40", "0"), ("48", "10"), ("60", "22")]
    saved = client.post(f"/bench/band/{band}", data=sheet(rows, length_unit="in", force_unit="lbf"))
    assert saved.status_code == 302
    kept = store.readings(con, 1, band)
    assert kept[1].length_m == pytest.approx(1.2192) and kept[1].force_n == pytest.approx(
        44.48, abs=0.01
    )
    shown = client.get(saved.headers["Location"]).get_data(as_text=True)
    assert 'value="48"' in shown and 'value="10"' in shown


def test_csv_goes_out_and_in_again(client, con):
    band = band_id(con)
    out = client.get(f"/bench/band/{band}.csv")
    assert out.mimetype == "text/csv" and "light-loop.csv" in out.headers["Content-Disposition"]
    other = band_id(con, "Heavy loop")
    client.post(
        f"/bench/band/{other}", data=sheet([], action="import", csv=out.get_data(as_text=True))
    )
    assert store.readings(con, 1, other) == store.readings(con, 1, band)
    bad = client.post(
        f"/bench/band/{other}",
        data=sheet([], action="import", csv="length_m,force_n\n1,0\n1.2,x\n"),
    )
    assert (
        bad.status_code == 422
        and "row 2, force_n" in text(bad)
        and "1.2,x" in bad.get_data(as_text=True)
    )


def test_the_way_down_is_kept_as_what_the_band_does_not_give_back(client, con):
    band = band_id(con)
    table = (
        "length_m,force_n,direction\n"
        "1,0,loading\n1.2,60,loading\n1.5,120,loading\n1.2,54,unloading\n"
    )
    client.post(
        f"/bench/band/{band}", data=sheet([], action="import", csv=table, looked="2026-11-02")
    )
    kept = store.item(con, 1, band)
    assert kept.back_share == pytest.approx(0.1) and kept.looked_over_on == "2026-11-02"
    assert len(store.readings(con, 1, band)) == 3, (
        "the reading of the way down is no reading of the way up"
    )
    kit = stock_of(con, 1, 1).kit
    assert next(b.hysteresis for b in kit.bands if b.id == f"item-{band}") == pytest.approx(0.1)
    page = client.get(f"/bench/band/{band}").get_data(as_text=True)
    assert 'value="10"' in page and 'value="2026-11-02"' in page


def test_the_readings_decide_the_law_unless_the_user_does(client, con):
    band = band_id(con)
    line = [
        ("1.0", "0"),
        ("1.1", "20.1"),
        ("1.2", "39.9"),
        ("1.3", "60.2"),
        ("1.5", "100"),
        ("1.6", "119.9"),
    ]
    for law, used in (
        ("best", "straight line with slack (dashed)"),
        ("mooney-rivlin", "rubber (dotted)"),
    ):
        rows = (
            line if law == "best" else [("1.0", "0"), ("1.2", "51"), ("1.5", "98"), ("1.8", "132")]
        )
        assert (
            client.post(f"/bench/band/{band}", data=sheet(rows, law=law, rest="1.0")).status_code
            == 302
        )
        assert f"{used} used" in " ".join(text(client.get(f"/bench/band/{band}")).split())


def test_a_reading_that_fits_no_law_is_named(client, con):
    band = band_id(con)
    rows = [
        ("1.0", "0"),
        ("1.2", "50"),
        ("1.4", "98"),
        ("1.6", "200"),
        ("1.8", "201"),
        ("2.0", "250"),
    ]
    client.post(f"/bench/band/{band}", data=sheet(rows))
    assert "Reading 4 fits neither line nor rubber" in text(client.get(f"/bench/band/{band}"))
    clean = [r if r[0] != "1.6" else ("1.6", "150") for r in rows]
    client.post(f"/bench/band/{band}", data=sheet(clean))
    assert "fits neither" not in text(client.get(f"/bench/band/{band}"))


def test_a_new_band_opens_its_sheet_and_says_what_to_do(client, con):
    added = client.post("/bench/", data={"name": "Spare loop", "shape": "loop", "place": "2"})
    assert added.status_code == 302
    assert "No readings yet" in text(client.get(added.headers["Location"]))
    assert "not weighed yet" in text(client.get("/swap?place=2"))
    again = client.post("/bench/", data={"name": "Spare loop", "shape": "loop", "place": "2"})
    assert again.status_code == 422 and "choose another name" in text(again)


def test_an_empty_store_says_what_to_do_first(tmp_path):
    store.open_store(tmp_path / "empty.db").close()
    client = create_app(tmp_path / "empty.db").test_client()
    for address in ("/", "/swap"):
        page = text(client.get(address, follow_redirects=True))
        assert "Where do you train?" in page
    assert client.get("/kept").status_code == 200 and client.get("/bench/").status_code == 200


def test_names_are_shown_as_text_never_as_markup(client, con):
    store.add_item(con, 1, 1, kind="box", name="<b>Box</b>", quantities={"height_m": 0.3})
    assert "<b>Box</b>" not in client.get("/room/1").get_data(as_text=True)


def test_what_the_client_cannot_do_is_said_in_words(client):
    shown = text(client.get("/swap?client=3&place=1"))
    assert (
        "Second engineer cannot do this leg press 40°" in shown
        and "Ankle limit 25° passed" in shown
    )
    assert "Use this" not in shown


def test_times_are_kept_as_given(database):
    app = create_app(database, now=lambda: NOW, config={"WTF_CSRF_ENABLED": False})
    client = app.test_client()
    client.post("/swap/use", data={"pick": "goblet-squat", "place": 1, "client": 1})
    con = store.open_store(database)
    assert store.decisions(con, 1)[0].decided_at == NOW
    con.close()
    assert "24.11.2026" in text(client.get("/kept"))


@pytest.mark.parametrize("family", sorted({entry.family for entry in EXERCISES.values()}))
def test_arc_shows_every_exercise_of_the_catalogue(client, family):
    for id_, entry in looked(EXERCISES.items(), 101):
        if entry.family != family:
            continue
        response = client.get(f"/arc/?exercise={id_}&client=1")
        body = response.get_data(as_text=True)
        assert response.status_code == 200 and f"<h1>{entry.name}</h1>" in body
        assert "nan" not in re.sub(r"[a-z]nan|nan[a-z]", "", text(response).lower()), id_
        if entry.has_curve:
            assert "Energy balances within" in text(response), (id_, text(response)[:900])
            assert "What is assumed" in text(response) and body.count('role="slider"') >= 1
        assert entry.cues[0] in text(response).replace("&#39;", "'"), "the card"


def test_arc_takes_options_loads_and_tempo_from_the_address(client):
    query = (
        "exercise=leg-press-45&for=leg-press-45&l0=sled&l0-kg=120&l0-empty=38&o-rail_deg=40&o-foot_height_m=20"
        "&o-knee_from_deg=90&lift=1&lower=3&client=1"
    )
    page = text(client.get(f"/arc/?{query}"))
    assert "996 N at the start" in page and "inertia asks up to" in page
    scenario = client.get(f"/arc/scenario.json?{query}").get_json()
    assert scenario["options"]["foot_height_m"] == 0.2 and scenario["loads"][0]["kg"] == 120
    curve = client.get(f"/arc/curve.json?{query}").get_json()
    setup, _ = parse_scenario(scenario)
    assert curve["demand_nm"]["knee_extension"] == pytest.approx(
        core_curve(setup).demand_nm["knee"][0].tolist(), abs=1e-5
    )
    assert "dynamic" in curve and curve["path"]["force_n"][0] == pytest.approx(996, abs=1)
    added = client.get(f"/arc/?{query}&add=band").get_data(as_text=True)
    assert 'name="l1" value="band"' in added
    dropped = client.get(f"/arc/?{query}&drop=0").get_data(as_text=True)
    assert 'name="l0"' not in dropped


@pytest.mark.parametrize(
    ("query", "field", "says"),
    [
        ("l0=mass&l0-kg=heavy", "l0-kg", "“heavy” is not used: weight"),
        ("l0=mass&l0-kg=-5", "l0-kg", "0 kg or more"),
        ("l0=mass&l0-kg=5&l0-port=nose", "l0", "nose"),
        ("o-knee_from_deg=500", "o-knee_from_deg", "from 20 to 140"),
        ("o-knee_from_deg=deep", "o-knee_from_deg", "“deep” is not used"),
        ("lower=1&lift=0", "lift", "0.1"),
        ("l0=stack&l0-cam=round", "l0-cam", "pairs of degrees"),
        ("l0=band&l0-count=1.5", "l0-count", "whole number"),
        ("l0=band&l0-band=item-999", "l0-band", "a band of the list"),
    ],
)
def test_a_wrong_field_on_arc_is_marked_and_kept(client, query, field, says):
    name = "leg-extension" if "stack" in query else "goblet-squat"
    response = client.get(f"/arc/?exercise={name}&for={name}&{query}")
    body = response.get_data(as_text=True)
    assert response.status_code == 200
    assert f'id="p-{field}"' in body and says in text(response)
    typed = query.split("=")[-1]
    if field not in ("l0", "l0-band"):
        assert f'value="{typed}"' in body
    assert client.get(f"/arc/scenario.json?exercise={name}&for={name}&{query}").status_code == 400


def test_what_cannot_be_set_up_says_why_on_arc(client):
    page = text(
        client.get(
            "/arc/?exercise=leg-press-45&for=leg-press-45&l0=sled&o-foot_height_m=-15&client=1"
        )
    )
    assert "This cannot be set up: ankle limit" in page and "possible up to" in page
    assert client.get("/arc/?exercise=unicycle").status_code == 400


def test_own_words_on_a_card_are_kept_undone_and_only_this_trainer_s(client, con):
    where = "/arc/?exercise=goblet-squat"
    client.post(
        "/arc/card/goblet-squat/cues",
        data={"words": "Sit between the heels.\n\n  Breathe   low. ", "back": where},
    )
    page = text(client.get(where))
    assert "Sit between the heels." in page and "your words" in page and "own words kept" in page
    assert store.card_edits(con, 1, "goblet-squat") == {
        "cues": "Sit between the heels.\nBreathe low."
    }
    change = store.last_change(con, 1, "card:goblet-squat")
    client.post(f"/undo/{change.id}", data={"back": where})
    assert store.card_edits(con, 1, "goblet-squat") == {} and "your words" not in text(
        client.get(where)
    )
    client.post("/arc/card/goblet-squat/cues", data={"words": "Mine."})
    client.post("/arc/card/goblet-squat/cues", data={"words": ""})
    assert store.card_edits(con, 1, "goblet-squat") == {}, "empty goes back to the usual words"
    for bad in ("/arc/card/goblet-squat/song", "/arc/card/unicycle/cues"):
        assert client.post(bad, data={"words": "x"}).status_code == 400
    assert client.post("/arc/card/goblet-squat/cues", data={"words": "x" * 3000}).status_code == 400
    away = client.post(
        "/arc/card/goblet-squat/cues", data={"words": "a", "back": "//elsewhere/arc/"}
    )
    assert away.headers["Location"].startswith("/arc/")


def raw(response):
    return response.get_data(as_text=True)


def test_arc_draws_ribbons_along_the_joints_own_arcs(client):
    """Knee of a leg extension: the ribbon spans the knee's real arc, and is widest where the demand
    is greatest.
    """
    page = raw(client.get("/arc/?exercise=leg-extension"))
    script = json.loads(html.unescape(re.search(r'data-script="([^"]+)"', page).group(1)))
    needle, dial = (
        np.array(script["frames"]["needle_knee"]),
        np.array(script["frames"]["dial_knee"]),
    )
    way = needle[:, 2:] - needle[:, :2]
    turned = np.degrees(np.ptp(np.unwrap(np.arctan2(way[:, 1], way[:, 0]))))
    assert turned == pytest.approx(95, abs=0.5), "from 100° to 5° of knee bend"
    assert np.ptp(dial[:, 2]) < 0.01, (
        "the thigh is held: the dial stands still and the shank is the needle"
    )
    wide = np.hypot(*way.T)
    angle = [int(a.rstrip("°")) for a in script["joints"][0]["angle"]]
    assert abs(angle[int(np.argmax(wide))] - 31) <= 3, "as wide as the demand, most at 31°"
    assert "ribbon lies along" in page and 'data-dial="dial_knee"' in page


def test_arc_shows_muscles_by_work_and_what_stands_out(client):
    page = raw(client.get("/arc/?exercise=romanian-deadlift&view=muscles"))
    rows = re.findall(r'<tr><td>([a-z ]+)</td><td><svg class="wa-muscle"', page)
    assert rows[0] == "long hamstrings" and "gluteus maximus" in rows[:2]
    assert "Long hamstrings: " in page and "third of the muscle’s own length" in page
    assert "Muscles over their own length" not in raw(
        client.get("/arc/?exercise=abduction-machine&view=muscles")
    )


@pytest.mark.parametrize(
    "exercise", ["leg-extension", "back-squat-high", "hip-thrust", "seated-leg-curl"]
)
def test_arc_draws_the_strength_curve_dashed_and_says_that_only_its_shape_is_known(
    client, exercise
):
    page = raw(client.get(f"/arc/?exercise={exercise}"))
    assert "wa-line-strength" in page and "needs a logged set" in page
    assert "of the peak left in the last 15°" in page
