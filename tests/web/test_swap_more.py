"""The Swap page beyond the list: tweaks, favourites, set-asides, sorting, why not, the request for
the command line.
"""

from __future__ import annotations

import html
import json
import re

import pytest
from jinja2 import UndefinedError

from widearc import store
from widearc.usecases import ItemFacts, add_item, answer_request, mark
from widearc.web.words.words import percent_up

NOW = "2026-11-24T10:00:00+00:00"


def page(client, query=""):
    answer = client.get(f"/swap{query}")
    assert answer.status_code == 200
    return answer.get_data(as_text=True)


def rows(text):
    return re.findall(r'id="row-([a-z0-9-]+)"', text)


def test_page_and_command_line_give_the_same_answer(client):
    for query in (
        "?exercise=goblet-squat&kg=16&client=2",
        # a taped thigh, a sore knee, bands that give back less
        "?place=3&client=3&exercise=leg-press-45&kg=60&depth=80",
        "?place=3&exercise=hip-thrust&kg=100",
        "?place=3&exercise=leg-extension&kg=40",
    ):
        text = page(client, query)
        request = json.loads(client.get(f"/swap/request.json{query}").get_data(as_text=True))
        answer = answer_request(request, clock=lambda: 0.0)
        assert rows(text) == [c["exercise"] for c in answer["candidates"]], query
        numbered = [c for c in answer["candidates"] if c["variant_of"] is None]
        shown = [int(m) for m in re.findall(r'class="wa-match[^"]*">(\d+)', text)]
        assert shown == [round(100 * c["usual"]) for c in numbered]
        spread = re.findall(r'class="wa-match[^"]*">\d+<small>± (\d+)</small>', text)
        assert spread == [percent_up(c["usual_sd"]) for c in numbered]
        loads = {load["kind"] for c in answer["candidates"] for load in c["loads"]}
        assert "band" in loads and ("lever" in loads or "hip-thrust" not in query)
    again = answer_request(request, clock=lambda: 0.0)
    assert json.dumps(again) == json.dumps(answer)


def test_a_tweak_is_applied_by_one_tap_and_taken_off_again(client, con):
    text = page(client, "?pick=goblet-squat&kg=60&place=3")
    found = re.search(r'href="([^"]*tweak=[^"]*)">Apply', text)
    assert found, "no tweak offered"
    gain = int(re.search(r"<b>\+(\d+)</b>", text).group(1))
    before = int(re.search(r'class="wa-big">(\d+)', text).group(1))
    after = client.get(found.group(1).replace("&amp;", "&")).get_data(as_text=True)
    now = int(re.search(r'class="wa-big">(\d+)', after).group(1))
    assert abs(now - before - gain) <= 1
    assert "Without it" in after and "in use" in after and 'name="tweak"' in after
    key = re.search(r'name="tweak" value="([^"]*)"', after).group(1)
    client.post("/swap/use", data={"pick": "goblet-squat", "kg": "60", "place": "3", "tweak": key})
    trainer = store.local_trainer(con, now=NOW)
    kept = store.decisions(con, trainer)[0]
    assert round(100 * kept.match) == now and kept.set_up


def test_the_presses_and_machines_of_a_room_stand_in(client):
    text = page(client, "?place=3&exercise=back-squat-high&kg=60")
    found = rows(text)
    assert "leg-press-45" in found and "leg-extension" in found and "corner-bar-squat" not in found
    assert "each side" in text and "on the sled" in text
    assert re.search(r"extension machine at [\d.]+ kg", text)


def test_a_machine_can_be_asked_for_once_it_was_read(client):
    text = page(client, "?place=1&exercise=leg-extension&kg=40")
    assert rows(text), "the harbour's machine is known in the container too"
    assert "As it is in the harbour gym" in text
    unread = page(client, "?place=1&exercise=lying-leg-curl&kg=40")
    assert rows(unread) and "by usual values" in unread


def test_a_pinned_favourite_comes_first_with_its_reason_and_an_unchanged_match(client, con):
    text = page(client)
    order = rows(text)
    chosen = order[4]
    match = re.search(rf'id="row-{chosen}".*?wa-match[^>]*>(\d+)', text, re.S).group(1)
    data = {"pick": chosen, "reason": "the client likes it", "action": "keep"}
    assert client.post("/swap/favourite", data=data).status_code == 302
    text = page(client)
    assert rows(text)[0] == chosen and "pinned" in text and "the client likes it" in text
    assert re.search(rf'id="row-{chosen}".*?wa-match[^>]*>(\d+)', text, re.S).group(1) == match
    assert 'class="wa-badge">pinned' not in page(client, "?exercise=dumbbell-squat&kg=24")
    trainer = store.local_trainer(con, now=NOW)
    client.post(f"/undo/{store.last_change(con, trainer, 'place:1').id}")
    assert rows(page(client)) == order
    refused = client.post(
        "/swap/favourite", data={"pick": chosen, "reason": "z" * 201, "action": "keep"}
    )
    kept = refused.get_data(as_text=True)
    assert (
        refused.status_code == 422
        and "a reason of 1 to 200 characters" in kept
        and "z" * 201 in kept
    )
    assert 'aria-describedby="p-reason-own"' in kept and rows(kept) == order
    assert (
        client.post(
            "/swap/favourite", data={"pick": chosen, "reason": " ", "action": "keep"}
        ).status_code
        == 422
    )
    client.post("/swap/favourite", data=data)
    client.post("/swap/favourite", data=data | {"action": "drop"})
    assert rows(page(client)) == order


def test_two_clients_in_one_room_do_not_clash(client, con):
    text = page(client, "?client=1&pick=dumbbell-squat")
    assert "dumbbell-squat" in rows(text)
    item = re.search(r"dumbbells (\d+) \+", text.split('id="row-dumbbell-squat"')[1]).group(1)
    client.post("/swap/aside", data={"client": "1", "pick": "dumbbell-squat", "action": "set"})
    mine, other = page(client, "?client=1&pick=dumbbell-squat"), page(client, "?client=2")
    assert f"dumbbells {item} + {item} kg" in mine and "give back 1" in mine
    assert f"dumbbells {item} + {item} kg" not in other
    assert "for the bosun</span>" in client.get("/room/1").get_data(as_text=True)
    client.post("/swap/aside", data={"client": "1", "action": "back"})
    assert "give back" not in page(client, "?client=1&pick=dumbbell-squat")
    trainer = store.local_trainer(con, now=NOW)
    assert store.set_asides(con, trainer, 1) == {}
    assert (
        client.post("/swap/aside", data={"client": "1", "pick": "hip-thrust-machine"}).status_code
        == 400
    )


def test_the_list_is_sorted_filtered_and_weighed_without_touching_the_match(client):
    plain = page(client)
    quick = page(client, "?only-quick=1")
    assert set(rows(quick)) < set(rows(plain)) and "more do not pass the filter" in quick
    steady = page(client, "?sort=steady")
    assert sorted(rows(steady)) == sorted(rows(plain)) and rows(steady) != rows(plain)
    summed = page(client, "?sort=sum&w-steady=3&w-minutes=1")
    assert re.search(r"<small>sum \d+</small>", summed)

    def matches(text):
        return dict(re.findall(r'id="row-([a-z0-9-]+)".*?wa-match[^>]*>(\d+)', text, re.S))

    assert matches(steady) == matches(plain) == matches(summed)
    assert "a weight from 0 to 5" in page(client, "?w-steady=9")
    muscle = page(client, "?muscle=vasti")
    assert re.search(r"<small>\d+ % vasti</small>", muscle)
    assert "one of" in page(client, "?muscle=nonsense")


def test_why_not_answers_for_what_is_ranked_and_for_what_is_left_out(client):
    text = page(client, "?why=calf-raise-step")
    assert "Calf raise on a step is left out: trains plantarflexion" in text
    order = rows(page(client))
    last = page(client, f"?why={order[-1]}")
    assert re.search(r"is \d+ points under [a-z ,-]+ as computed[.:]", last)
    asked = "?exercise=goblet-squat&kg=16&client=2"
    answers = [
        page(client, f"{asked}&why={name}").split('id="why-answer"')[1].split("</p>")[0]
        for name in rows(page(client, asked))[:2]
    ]
    assert any("alike as far as can be known" in words for words in answers)
    assert 'id="why-answer"' not in page(client, "?why=nonsense")


def test_why_not_is_drawn_over_what_was_asked_for(client):
    order = rows(page(client))
    answer = page(client, f"?why={order[2]}").split('id="why-answer"')[1]
    drawn = answer.split('<p class="wa-why-not">')[1].split("</p>")[0]
    assert "<svg" in drawn and drawn.count("<path") >= 2, "the wanted curve and the other's"


def test_one_answer_reads_nothing_twice(app, monkeypatch):
    """The stock of a place, its clients, its readings: each is asked of the database once."""
    said: list[str] = []
    pool = app.extensions["connections"]
    taken = pool.take

    def heard():
        con = taken()
        con.set_trace_callback(said.append)
        return con

    monkeypatch.setattr(pool, "take", heard)
    for query in ("", "?exercise=leg-extension&kg=40", "?place=3"):
        said.clear()
        assert app.test_client().get(f"/swap{query}").status_code == 200
        asked = [" ".join(s.split()) for s in said if s.lstrip().upper().startswith("SELECT")]
        assert 10 < len(asked) <= 28, (query, len(asked))
        assert sorted(asked) == sorted(set(asked)), query


def test_a_name_that_no_page_passes_is_refused(app):
    with app.app_context(), pytest.raises(UndefinedError, match="nothing_of_the_kind"):
        app.jinja_env.from_string("{{ nothing_of_the_kind }}").render()


def test_the_question_turned_round(client):
    text = page(client, "?exercise=dumbbell-squat&kg=24&pick=romanian-deadlift&at=60&least=10")
    assert re.search(r"In work: [^<]*\d kg", text)
    band = page(client, "?place=3&kg=60&pick=band-squat&at=60")
    assert re.search(r"In work: [^<]*(loop|band)", band) and "At 60°" in band
    bad = page(client, "?pick=goblet-squat&at=170")
    assert "an angle that is wanted" in bad and 'value="170"' in bad
    bad = page(client, "?pick=goblet-squat&least=abc")
    assert "percent, from 1 to 100" in bad
    bad = page(client, "?pick=goblet-squat&least=0")
    assert "from 1 to 100 %" in bad


@pytest.mark.parametrize("query", ["?pair=1", "?pair=1&exercise=romanian-deadlift&kg=60"])
def test_a_pair_is_offered_only_where_it_comes_closer(client, query):
    text = page(client, query)
    assert "% together:" in text or "No two of what is here" in text


def test_the_set_up_checks_name_the_pull_on_an_anchor(client):
    text = page(client, "?pick=leg-extension-band")
    assert re.search(
        r"Eye \w+ holds \d+ N of pull: (rated for|what it is rated for is not known)", text
    )
    assert "What changes" in text and "Steadiness" in text
    assert "May give out before the muscle: grip (straps" in page(client, "?pick=dumbbell-squat")


def test_every_drawing_has_its_values_as_csv(client):
    rows_ = client.get("/swap/values.csv?pick=goblet-squat").get_data(as_text=True).splitlines()
    assert rows_[0] == "action,angle_deg,intended_nm,actual_nm"
    knee = [r.split(",") for r in rows_ if r.startswith("knee_extension")]
    assert float(knee[0][1]) > float(knee[-1][1]) and float(knee[5][2]) > 50
    assert client.get("/swap/values.csv?exercise=plain-path&kg=40").status_code == 400
    claim = client.get("/claims/lunge-lean.csv").get_data(as_text=True).splitlines()
    assert claim[0] == '"knee bend, degrees","A, N*m","B, N*m"'
    assert len(claim) > 5 and all(
        c.replace(".", "").replace("-", "").isdigit() or not c for c in claim[3].split(",")
    )
    assert client.get("/claims/toe-direction.csv").status_code in (400, 404)
    for address, ident in (
        ("/swap", "drawing-swap-knee"),
        ("/room/1", "drawing-wall"),
        ("/bench/band/16", "drawing-band"),
        ("/bench/machine/36", "drawing-machine"),
        ("/claims/lunge-lean", "drawing-claim"),
    ):
        text = client.get(address).get_data(as_text=True)
        assert f'id="{ident}"' in text and f'data-save="{ident}" data-as="svg"' in text, address
        assert f'data-save="{ident}" data-as="png"' in text


def test_a_depth_that_is_too_much_names_the_one_that_is_possible(client):
    text = page(client, "?client=3&place=3")
    link = re.search(r'href="(/swap\?[^"]*depth=(\d+)[^"]*)">Ask for (\d+)°', text)
    assert "cannot do this" in text and link and link[2] == link[3]
    assert rows(client.get(link[1].replace("&amp;", "&")).get_data(as_text=True))


def test_what_is_missing_is_said_with_where_it_may_be_had(client, con):
    text = page(client, "?place=1&client=1")
    out = dict(re.findall(r"<b>([^<]*)</b>: ([^<]*)</span>", text))
    assert "there is one in Harbour gym" in out["Leg extension"]
    loop = out["Squat with a loop at the thighs"]
    assert (
        "light loop in zone C" in loop
        and "too long for the thighs" in loop
        and "Harbour gym" in loop
    )
    bench = next(i for i in store.items(con, 1, 1) if i.kind == "bench")
    mark(con, 1, bench.id, store.State.TAKEN, now=NOW)
    taken = dict(re.findall(r"<b>([^<]*)</b>: ([^<]*)</span>", page(client, "?place=1&client=1")))
    assert taken["Hip thrust"].startswith("bench taken") and taken["Hip thrust"].endswith(
        "it stands in zone B"
    )


def test_a_sore_joint_and_a_weak_grip_have_their_options(client):
    sore = page(client, "?client=3&place=3&depth=80&pick=leg-press-one-leg")
    kinder = re.search(
        r"Kinder to the knee.*?<b>(\d+) % less</b> at most: ([^<;]*); match (\d+)", sore, re.S
    )
    assert kinder and int(kinder[1]) >= 5 and "on the sled" in kinder[2]
    weak = "?client=2&place=3&exercise=romanian-deadlift&kg=90&pick=deadlift"
    key = re.search(r'tweak=(relief[^"&]*)', page(client, weak))
    assert key, "the cook's grip bounds the bar"
    assert (
        "lifting straps"
        in page(client, f"{weak}&tweak={key[1].replace('%3A', ':')}").split("Closer still")[0]
    )


def test_where_nothing_trains_what_is_wanted_the_page_says_so_and_still_answers_why_not(client):
    text = page(client, "?place=1&client=2&exercise=side-lying-raise&kg=0&why=goblet-squat")
    assert "Nothing here comes close" in text and rows(text) == []
    assert "trains knee extension and hip extension, not what is wanted" in text
    assert "Goblet squat is left out" in text and "Sort, filter" not in text


def script(text):
    """Return what the scrubber was sent."""
    return json.loads(html.unescape(re.search(r'data-script="([^"]+)"', text).group(1)))


def test_each_joint_is_read_at_its_own_bend_and_a_held_one_not_at_all(client):
    """A stand-in that holds the hip passes no degree at which it could be compared: 0 would be a
    claim.
    """
    text = page(client, "?pick=sissy-squat")
    knee, hip = script(text)["joints"]
    assert set(hip["read"]["intended"]) == set(hip["read"]["actual"]) == {"–"} and set(
        hip["bend"]
    ) == {"held"}
    assert (
        knee["bend"] == knee["angle"]
        and max(int(v) for v in knee["read"]["actual"] if v != "–") > 100
    )
    assert 'data-angle="hip"' in text and 'data-angle="knee"' not in text, (
        "the first joint's bend is the heading"
    )
    knee, hip = script(page(client, "?pick=front-squat"))["joints"]
    assert hip["bend"] == hip["angle"] and hip["bend"] != knee["bend"]
    assert "–" not in hip["read"]["actual"]


def test_what_a_large_stock_leaves_untried_is_said(client, con):
    for number in range(20):
        facts = ItemFacts(
            kind="band", name=f"spare {number}", quantities={}, sources={}, shape="loop"
        )
        band = add_item(con, 1, 1, facts, now=NOW)
        rows = [
            store.Reading(length_m=0.6 + 0.2 * i, force_n=i * (20.0 + 9 * number)) for i in range(5)
        ]
        with store.transaction(con):
            store.replace_readings(con, 1, band, rows)
    text = page(client, "?place=1")
    assert re.search(r'id="untried">Of 2\d bands, 12 were tried: free ones that differ most', text)
    assert "untried" not in page(client, "?place=2")


def test_what_was_ticked_off_is_kept_with_the_decision(client, con):
    text = page(client, "?place=3&exercise=leg-press-45&kg=80&pick=goblet-squat")
    ticks = re.findall(r'name="tick" value="([^"]+)"', text)
    assert len(ticks) > 1
    data = {"pick": "goblet-squat", "exercise": "leg-press-45", "kg": "80", "place": "3"}
    client.post("/swap/use", data=data | {"tick": [html.unescape(t) for t in ticks[:2]]})
    kept = store.decisions(con, store.local_trainer(con, now=NOW))[0]
    assert kept.ticks == tuple(html.unescape(t) for t in ticks[:2])
    assert "Checked: " in client.get("/kept").text


def test_what_a_thing_is_set_to_is_shown_where_its_exercise_is(client, con):
    trainer = store.local_trainer(con, now=NOW)
    press = next(i for i in store.items(con, trainer, 3) if i.kind == "sled press")
    rows = [
        store.Setting(name="seat", words="notch 4"),
        store.Setting(name="stop", words="2", client_id=2),
    ]
    store.replace_settings(con, trainer, press.id, rows)
    con.commit()
    text = page(client, "?place=3&client=1&exercise=back-squat-high&kg=60&pick=leg-press-45")
    assert f"{press.name}: seat notch 4" in html.unescape(text) and "stop 2" not in text
