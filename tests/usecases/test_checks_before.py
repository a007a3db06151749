"""What Swap says to look at before the first rep: what is pulled on, stood on and sat on, by simple
statics.
"""

from __future__ import annotations

import re

import numpy as np
import pytest

from tests.looked import looked
from widearc import store, usecases
from widearc.core.body import Limits
from widearc.core.curve import Action
from widearc.core.equipment import Source
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.core.kit import Kit, Machine, Rules, Weight, trainable_here
from widearc.core.kit.admission import left_out
from widearc.core.search import Candidate, Memo, compared_exercises
from widearc.usecases.swap.swap import SwapView
from widearc.usecases.swap.wanted import SwapAsk
from widearc.words import plain

G = 9.80665
CABIN = SwapAsk(place_id=2, client_id=1, exercise="leg-extension-dumbbell", kg=10.0)
MEMO = Memo()


def item(con: store.Connection, name: str) -> store.ItemRow:
    return next(i for i in store.items(con, 1, 2) if i.name == name)


def asked(con: store.Connection, exercise: str, ask: SwapAsk = CABIN) -> tuple[Candidate, SwapView]:
    """Return a stand-in of the cabin and the view it is in."""
    view = usecases.swap_view(con, 1, ask, Memo())
    assert view.ranking is not None
    return next(c for c in view.ranking.candidates if c.exercise.id == exercise), view


def measured(con: store.Connection, name: str, **quantities: float) -> None:
    """Give an item other numbers, as if measured anew."""
    row = item(con, name)
    found = {**row.quantities, **quantities}
    kept = {key: value for key, value in found.items() if value == value}
    store.set_quantities(con, 1, row.id, kept, dict.fromkeys(kept, Source.MEASURED))


def check_about(chosen: Candidate, view: SwapView, name: str) -> str:
    """Return the one check that speaks of an item."""
    (found,) = [
        text
        for text in tuple(map(plain, usecases.set_up_checks(chosen, view)))
        if text.startswith(name)
    ]
    return found


def test_a_couch_tips_at_as_many_times_the_push_on_its_edge_as_levers_say(demo):
    """Own weight about the near feet, 5 cm inside the edge, against push times height and weight
    times 5 cm.
    """
    chosen, view = asked(demo, "couch-knee-press")
    edge = next(f for f in chosen.curve.motion.forces if f.source == "contact instep")
    force = -chosen.curve.motion.full(edge.force)[:, 0]
    couch = item(demo, "Cabin couch").quantities
    turning = np.abs(force[0]) * couch["height_m"] + np.maximum(-force[1], 0.0) * 0.05
    times = couch["own_kg"] * G * (couch["depth_m"] / 2 - 0.05) / turning.max()
    said = check_about(chosen, view, "Cabin couch")
    assert said.startswith("Cabin couch, 38 kg, tips only at ")
    assert float(re.search(r"at ([\d.]+) times the (\d+) N", said).group(1)) == pytest.approx(
        times, abs=0.06
    )
    assert int(re.search(r"the (\d+) N", said).group(1)) == round(np.hypot(*force).max())


def test_a_light_couch_is_not_to_be_used_and_a_heavy_one_does_nothing(demo):
    measured(demo, "Cabin couch", own_kg=4.0)
    said = check_about(*asked(demo, "couch-knee-press"), "Cabin couch")
    assert re.fullmatch(
        r"Cabin couch, 4 kg, tips with \d+ N on its edge\. Weigh it down or leave it", said
    )
    measured(demo, "Cabin couch", own_kg=290.0, depth_m=1.9)
    assert "neither tips nor slides" in check_about(*asked(demo, "couch-knee-press"), "Cabin couch")


def test_a_couch_that_nobody_weighed_is_only_to_be_looked_at(demo):
    measured(demo, "Cabin couch", own_kg=float("nan"))
    assert check_about(*asked(demo, "couch-knee-press"), "Cabin couch") == (
        "Cabin couch stands fast: its weight is not known"
    )


def test_the_couch_one_lies_on_stands_fast(demo):
    chosen, view = asked(
        demo,
        "pendulum-hip-extension-couch",
        SwapAsk(place_id=2, client_id=1, exercise="romanian-deadlift", kg=30.0),
    )
    assert "Cabin couch stands fast" in tuple(map(plain, usecases.set_up_checks(chosen, view)))


@pytest.mark.parametrize(
    ("holds_n", "says"), [(1500.0, "rated for "), (20000.0, "rated for many times that")]
)
def test_an_eye_is_said_to_hold_the_greatest_pull_of_its_band(demo, holds_n, says):
    measured(demo, "Door eye", holds_n=holds_n)
    chosen, view = asked(demo, "leg-extension-band")
    pull = next(f for f in chosen.curve.motion.forces if f.source == "load 0")
    most = np.hypot(*chosen.curve.motion.full(pull.force)[:, 0]).max()
    said = check_about(chosen, view, "Door eye")
    assert f"Door eye holds {most:.0f} N of pull: {says}" in said
    if holds_n < 2000:
        assert float(re.search(r"for ([\d.]+) times", said).group(1)) == pytest.approx(
            holds_n / most, abs=0.06
        )


def test_an_eye_of_unknown_strength_says_so_and_one_too_weak_is_not_offered(demo):
    measured(demo, "Door eye", holds_n=float("nan"))
    assert "what it is rated for is not known" in check_about(
        *asked(demo, "leg-extension-band"), "Door eye"
    )
    measured(demo, "Door eye", holds_n=30.0)
    view = usecases.swap_view(demo, 1, CABIN, Memo())
    assert all(c.row.anchor is None for c in view.ranking.candidates)
    # what is left is tied to nothing that gives way
    assert any(e.exercise.id == "leg-extension-band" for e in view.ranking.excluded)


def test_what_changes_is_said_by_muscle_back_grip_and_steadiness(demo):
    view = usecases.swap_view(
        demo, 1, SwapAsk(place_id=1, client_id=1, exercise="leg-extension", kg=40.0), MEMO
    )
    columns = usecases.columns_of(view)
    for candidate in looked(view.ranking.candidates, 22):
        said = [
            plain(s)
            for s in usecases.changes(candidate, view.wanted, columns[candidate.exercise.id])
        ]
        assert said[-1].startswith(f"Steadiness {candidate.exercise.steadiness} of 5")
        assert ("hardest here" in said[-1]) == (candidate.step is None)
        assert any("Grip" in s for s in said) == (
            columns[candidate.exercise.id]["hand_kg"] is not None
        )


def test_an_intent_has_no_muscles_to_compare_and_only_the_rest_is_said(demo):
    knee = Intent(
        parts=(
            WantedAction(action=Action.KE, from_deg=90, to_deg=20, shape=Shape.EVEN, mean_nm=60.0),
        )
    )
    view = usecases.swap_view(demo, 1, SwapAsk(place_id=1, client_id=1, intent=knee), MEMO)
    columns = usecases.columns_of(view)
    first = view.ranking.candidates[0]
    said = [*map(plain, usecases.changes(first, view.wanted, columns[first.exercise.id]))]
    assert view.wanted is None and not any(s.startswith(("Gains", "Loses")) for s in said) and said


@pytest.mark.parametrize("place", [1, 2, 3])
def test_what_swap_can_make_here_is_what_the_room_says_can_be_trained_here(demo, place):
    """Every exercise of which the search makes a set-up is among those the Room names for its
    actions.
    """
    for client in (1, 3):
        view = usecases.swap_view(
            demo, 1, SwapAsk(place_id=place, client_id=client, depth_deg=80.0), MEMO
        )
        question = view.question
        assert question is not None
        named = {
            e.id
            for t in trainable_here(
                question.kit, taken=question.taken, limits=question.limits, rules=question.rules
            )
            for e in t.now
        }
        admitted = [
            e
            for e in compared_exercises()
            if left_out(e, question.kit, question.limits, question.rules, question.taken, {})
            is None
        ]
        made = {
            e.id
            for e, found in zip(admitted, question.prepare(admitted), strict=True)
            if found.parts
        }
        assert len(made) > 8 and made <= named, made - named
        if place == 3 and client == 1:
            assert {"hip-thrust-machine", "offset-lunge", "leg-press-banded"} <= made


def test_a_lever_a_pendulum_and_an_unequal_pair_are_ways_to_train():
    lever = {"arm_m": 1.0, "arm_kg": 8.0, "user_arm_m": 0.5}
    kit = Kit(
        machines=(
            Machine(id="t", name="Thrust", kind="hip thrust machine", quantities=lever),
            Machine(
                id="p", name="Swing", kind="pendulum", quantities={"arm_m": 0.8, "arm_kg": 5.0}
            ),
        ),
        weights=(Weight(id="a", kind="kettlebell", kg=8), Weight(id="b", kind="kettlebell", kg=16)),
    )
    named = {
        e.id
        for t in trainable_here(kit, taken=frozenset(), limits=Limits(), rules=Rules())
        for e in t.now
    }
    assert {"hip-thrust-machine", "offset-lunge"} <= named and "hip-thrust" not in named
