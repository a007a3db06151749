"""Eleven requests of our own, with what an experienced trainer expects and why (common practice,
no source): which family leads, and what must stand clearly behind. Nominal, by match.
"""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path

import pytest

from tests.looked import looked
from tests.swapped import swapped

REQUESTS = Path(__file__).parent / "data" / "swap_requests"
KITS = {"gym": "press120_gym", "home": "bss30_home"}

LUNGES = {
    *("split-squat", "rear-raised-split-squat", "reverse-lunge", "offset-lunge", "walking-lunge"),
    *("lean-lunge", "b-stance-squat", "step-up"),
}
HINGES = {
    *("deadlift", "wide-deadlift", "romanian-deadlift", "stiff-leg-deadlift", "good-morning"),
    *("deficit-romanian-deadlift", "one-leg-romanian-deadlift", "belt-hinge-boxes"),
}
BRIDGES = {"hip-thrust", "hip-thrust-raised-feet", "hip-thrust-one-leg", "hip-thrust-band"}
SQUATS = {
    *("back-squat-high", "front-squat", "goblet-squat", "dumbbell-squat", "wide-squat"),
    *("heel-raised-squat", "band-squat", "banded-bar-squat", "bodyweight-squat", "loop-squat"),
    *("ball-squeeze-squat", "corner-bar-squat", "corner-bar-wide-squat", "belt-squat-pin"),
    *("rail-squat", "ball-wall-squat", "belt-squat-home", "belt-squat-cable"),
}
CALVES = {
    *("calf-raise-standing", "calf-raise-bar", "calf-raise-step", "calf-raise-one-leg"),
    "calf-raise-seated-weights",
}
STACK = {
    "kind": "stack",
    "kg": 30,
    "radius": {"angle_deg": [0, 30, 60, 90, 110], "radius_m": [0.14, 0.16, 0.17, 0.15, 0.13]},
}


def held(kg, port):
    return {"kind": "mass", "kg": kg, "port": port}


@cache
def matches(place, exercise):
    """Match in per cent of each stand-in, best first."""
    shared = json.loads((REQUESTS / f"{KITS[place]}.json").read_text())
    asked = {"exercise": exercise, "loads": [LOADS[exercise]]}
    answer = swapped(shared | {"target": asked})
    for own in looked(answer["candidates"], 1):
        weights = [load for load in own["loads"] if load["kind"] == "mass"]
        for load in weights:
            most = 15 if load["port"] == "ankle" else 40 if load["port"] == "goblet" else 120
            assert load["kg"] <= most, (own["exercise"], load)
    by_match = sorted(answer["candidates"], key=lambda c: -c["match"])
    return {c["exercise"]: 100 * c["match"] for c in by_match}


LOADS = {
    "front-squat": held(50, "front-rack"),
    "romanian-deadlift": held(60, "hands"),
    "deadlift": held(60, "hands"),
    "step-up": held(20, "hands"),
    "walking-lunge": held(40, "hands"),
    "back-extension-45": held(20, "goblet"),
    "calf-raise-seated": held(40, "thigh"),
    "hack-squat": {"kind": "sled", "kg": 60, "empty_kg": 30},
    "leg-extension": STACK,
    "lying-leg-curl": STACK,
    "abduction-machine": STACK,
}


@pytest.mark.parametrize(
    ("place", "exercise", "count", "lead"),
    [
        # One weight in another place on the body, or the same depth on one leg.
        ("home", "front-squat", 6, SQUATS | LUNGES),
        # A hinge is replaced by a hinge; one leg halves what must be held.
        ("home", "romanian-deadlift", 4, HINGES),
        # With a straight knee the hip lacks the bent knee's help: wide keeps it, so it is first.
        ("home", "deadlift", 1, {"wide-deadlift"}),
        # One leg carries most of it, the other helps at the bottom.
        ("home", "step-up", 5, LUNGES),
        # The step back is the step forward again.
        ("gym", "walking-lunge", 2, {"reverse-lunge", "offset-lunge"}),
        # Hip alone with a straight knee; heaviest where the trunk lies level.
        ("gym", "back-extension-45", 4, HINGES | BRIDGES),
        # Nothing but an ankle replaces an ankle (and a straight knee only in part).
        ("gym", "calf-raise-seated", 3, CALVES),
        # Upright behind the load, most at the knee: a leg in front, a ball, a lean back.
        (
            "home",
            "hack-squat",
            6,
            LUNGES | {"sissy-squat", "hack-squat-ball-band", "ball-wall-squat"},
        ),
        # Open chain first: a squat brings hip work nobody asked for.
        (
            "home",
            "leg-extension",
            4,
            {"couch-knee-press", "leg-extension-band", "leg-extension-dumbbell", "sissy-squat"},
        ),
        # Only what bends the knee against a load: no hinge trains it.
        ("home", "lying-leg-curl", 2, {"leg-curl-band", "ball-curl", "slider-curl"}),
        # Sideways work only.
        (
            "home",
            "abduction-machine",
            3,
            {"side-lying-raise", "side-lying-raise-edge", "abduction-loop"},
        ),
    ],
)
def test_the_family_a_trainer_expects_leads(place, exercise, count, lead):
    found = list(matches(place, exercise))
    assert len(found) >= count
    assert set(found[:count]) <= lead


@pytest.mark.parametrize(
    ("place", "exercise", "better", "worse", "by"),
    [
        # A hinge by its own depth, not the couch pendulum that only swings a leg.
        ("home", "romanian-deadlift", "stiff-leg-deadlift", "pendulum-hip-extension-couch", 20),
        # A deadlift's knee works too: a bent-knee pull before the straight-kneed.
        ("home", "deadlift", "wide-deadlift", "stiff-leg-deadlift", 10),
        ("home", "step-up", "reverse-lunge", "goblet-squat", 20),
        ("gym", "walking-lunge", "split-squat", "dumbbell-squat", 5),
        # Where the trunk lies level is where a thrust has its full weight, a pull from the
        # floor not.
        ("gym", "back-extension-45", "hip-thrust", "deadlift", 10),
        ("gym", "back-extension-45", "romanian-deadlift", "rear-raised-split-squat", 20),
        # Against the ball the trunk stays upright, as on the sled.
        ("home", "hack-squat", "ball-wall-squat", "dumbbell-squat", 5),
        ("home", "leg-extension", "leg-extension-band", "bodyweight-squat", 20),
        ("home", "leg-extension", "sissy-squat", "goblet-squat", 5),
        # A pull from the floor is no squat, however wide.
        ("home", "front-squat", "band-squat", "wide-deadlift", 20),
    ],
)
def test_what_a_trainer_would_not_take_stands_clearly_behind(place, exercise, better, worse, by):
    found = matches(place, exercise)
    assert found[better] > found.get(worse, 0.0) + by
