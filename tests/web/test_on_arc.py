"""The link from a stand-in to Arc: the same curve comes out of the form's fields."""

from __future__ import annotations

import re
from urllib.parse import urlencode

import numpy as np
import pytest

from widearc.core.equipment import LOADS
from widearc.usecases import SwapAsk, swap_view
from widearc.web.forms.loads import inputs
from widearc.web.screens.arc.link import arc_query

LABELS = {"knee": "knee_extension", "hip": "hip_extension", "ankle": "plantarflexion"}
COARSE = 0.01  # of the peak: the form's numbers have six digits


@pytest.mark.parametrize(
    ("place", "exercise", "kg"),
    [(1, "leg-press-45", 120), (3, "hip-thrust", 100), (3, "leg-press-45", 80)],
)
def test_every_stand_in_is_on_arc_what_it_was_in_the_ranking(
    client, con, memo, place, exercise, kg
):
    view = swap_view(con, 1, SwapAsk(place_id=place, client_id=1, exercise=exercise, kg=kg), memo)
    linked = 0
    for candidate in view.ranking.candidates:
        query = arc_query(candidate, 1)
        if query is None:
            continue
        linked += 1
        answer = client.get(f"/arc/curve.json?{urlencode(query)}")
        assert answer.status_code == 200, (
            candidate.exercise.id,
            answer.get_data(as_text=True)[:300],
        )
        curve = answer.get_json()
        for joint, demand in candidate.curve.demand_nm.items():
            there = np.array(curve["demand_nm"][LABELS[joint]])
            most = max(np.abs(demand).max(), 5.0)
            assert np.abs(there - demand[0]).max() < COARSE * most, (
                candidate.exercise.id,
                joint,
                query,
            )
    assert linked >= 0.75 * len(view.ranking.candidates)


def test_the_chosen_stand_in_has_its_link(client):
    text = client.get("/swap?place=1&client=1&pick=goblet-squat").get_data(as_text=True)
    assert "See it on Arc</a>" in text and "l0-port=goblet" in text


@pytest.mark.parametrize(("typed", "allowed"), [("-5", "0 cm or more"), ("300", "200 cm or less")])
def test_a_chain_out_of_range_is_refused_at_its_field_in_the_unit_it_is_typed_in(
    client, typed, allowed
):
    text = client.get(
        f"/arc/?exercise=belt-squat-home&for=belt-squat-home&l0=band&l0-lead={typed}"
    ).get_data(as_text=True)
    assert f"“{typed} cm” is not used: {allowed}" in text and f'value="{typed}"' in text


REFUSED = [
    ("hip-thrust-machine", "lever", "arm", "900", "“900 cm” is not used: 500 cm or less."),
    ("leg-extension", "stack", "kg", "2000", "“2000 kg” is not used: 1000 kg or less."),
    ("goblet-squat", "mass", "kg", "-5", "“-5 kg” is not used: 0 kg or more."),
    ("belt-squat-cable", "cable", "y", "90000", "“90000 cm” is not used: 1000 cm or less."),
    ("carriage-push", "spring", "travel", "0.1", "“0.1 cm” is not used: 2 cm or more."),
    ("leg-extension-band", "band", "back", "80", "“80 %” is not used: 50 % or less."),
    ("leg-extension-band", "band", "rest", "1", "“1 cm” is not used: 2 cm or more."),
    ("hack-squat", "sled", "friction", "2", "“2” is not used: 0.5 or less."),
    ("corner-bar-squat", "corner-bar", "hand", "400", "“400 cm” is not used: 300 cm or less."),
]


@pytest.mark.parametrize(
    ("exercise", "kind", "key", "typed", "words"), REFUSED, ids=lambda v: str(v)[:12]
)
def test_a_load_s_number_is_refused_at_its_field_in_the_unit_it_is_typed_in(
    client, exercise, kind, key, typed, words
):
    query = f"/arc/?exercise={exercise}&for={exercise}&l0={kind}&l0-{key}={typed}"
    text = client.get(query).get_data(as_text=True)
    assert re.findall(r'class="wa-problem" id="([^"]*)" role="alert">(.*?)</p>', text) == [
        (f"p-l0-{key}", words)
    ]
    assert f'name="l0-{key}" value="{typed}"' in text, "what was typed is kept"
    assert f'aria-describedby="p-l0-{key}"' in text


def test_every_number_of_every_load_s_form_has_its_name_in_a_scenario():
    looked_at = 0
    for kind, law in LOADS.items():
        for shown in inputs(kind):
            if shown.number is None:
                continue
            looked_at += 1
            head = shown.pointer.partition("/")[0]
            assert head in {item.name for item in law.FIELDS}, (kind, shown.key)
    assert looked_at > 30


def text(response) -> str:
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", response.get_data(as_text=True)))


@pytest.mark.parametrize(
    ("pull", "says"),
    [
        (20, "less spring is harder here"),
        (70, "less and more are both harder"),
        (150, "more spring is harder"),
    ],
)
def test_a_carriage_s_page_says_which_way_its_springs_are_harder(client, pull, says):
    query = (
        "exercise=carriage-lunge-front&for=carriage-lunge-front&client=1"
        f"&l0=spring&l0-start={pull}&l0-end={pull + 0.01}&l0-travel=90"
    )
    page = text(client.get(f"/arc/?{query}"))
    assert "Whole effort" in page and says in page
    assert "Whole effort" not in text(client.get("/arc/?exercise=side-lying-raise&client=1"))


def test_a_press_says_that_a_foot_can_push_across_the_plate(client):
    page = text(client.get("/arc/?exercise=leg-press-45&client=1"))
    assert "a foot can also push across the plate" in page
    assert "half of the push square to the rails" in page


def test_lengths_of_the_body_go_with_the_client_until_they_are_typed(client):
    """What was usual for one client is not kept as typed for another; what was typed is."""
    first = client.get("/arc/?exercise=split-squat&client=1").get_data(as_text=True)
    step = re.search(r'id="o-step_m" name="o-step_m" value="([\d.]+)"', first).group(1)
    tall = re.search(r'name="tall" value="([\d.]+)"', first).group(1)
    asked = f"exercise=split-squat&for=split-squat&client=2&o-step_m={step}&tall={tall}"
    other = client.get(f"/arc/?{asked}").get_data(as_text=True)
    own = re.search(r'name="o-step_m" value="([\d.]+)"', other).group(1)
    assert float(own) == pytest.approx(0.75 / 1.8 * 100 * _stature(other), abs=0.06)
    assert own != step
    typed = client.get(f"/arc/?{asked.replace(f'={step}', '=66')}").get_data(as_text=True)
    assert 'name="o-step_m" value="66"' in typed


def _stature(page):
    return float(re.search(r'name="tall" value="([\d.]+)"', page).group(1))
