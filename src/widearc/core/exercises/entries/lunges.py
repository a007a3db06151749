"""Stepping and one-sided split work. Set-up facts, cues and cautions are common practice, no
source.
"""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.entries.squats import ENTRIES as SQUATS
from widearc.core.exercises.families.common import GIVEN_PAIR

KE, HE, AB = Action.KE, Action.HE, Action.AB
_SPLIT = next(entry for entry in SQUATS if entry.id == "split-squat")
_STRAIGHT_KNEE = "Stop short of a locked knee under load."


_LUNGE = replace(
    _SPLIT,
    id="walking-lunge",
    name="Walking lunge",
    aliases=(),
    variant="lunge",
    prime=(KE, HE, AB),
    ways=(),
    ports=("hands", "hand-left", "hand-right", "goblet", "shoulders", "back-high", "hip-belt"),
    defaults={"step_m": 0.75, "knee_from_deg": 90, "trunk_lean_deg": 20},
    without_options=("hip_back", "rear_share"),
    needs=("floor to walk",),
    steadiness=2,
    minutes=1,
    checks=("Way clear ahead", "Room for the rear knee", "Weak side first"),
    cues=(
        "Long enough a step that the heel stays down.",
        "Weight into the front leg.",
        "Stand up over the front foot.",
    ),
    mistakes=("Pushing off the rear foot.", "Front knee caves in.", "Trunk topples."),
    cautions=(_STRAIGHT_KNEE, "You walk with the load: clear the way first."),
    reps=(8, 15),
    replaces=("split-squat", "leg-press-one-leg"),
)


SHELF = 3  # its place in the catalogue

ENTRIES = (
    _LUNGE,
    replace(
        _LUNGE,
        id="reverse-lunge",
        name="Reverse lunge",
        aliases=("step-back lunge",),
        needs=(),
        steadiness=3,
        checks=("Room behind", "Weak side first"),
        cues=("Step back on one line per foot.", "Weight stays on the front leg."),
        cautions=(_STRAIGHT_KNEE,),
        replaces=("walking-lunge", "split-squat"),
    ),
    replace(
        _LUNGE,
        id="offset-lunge",
        name="Lunge with an offset load",
        aliases=(),
        ports=("hand-left", "hand-right", "hands"),
        defaults={
            "step_m": 0.75,
            "knee_from_deg": 90,
            "trunk_lean_deg": 20,
            "load_left_share": 1.0,
        },
        needs=(),
        steadiness=2,
        limits=("grip", "balance"),
        checks=("Heavy hand opposite the working leg", "Same leg every step, then turn round"),
        cues=("Shoulders stay level.", "Hips stay square."),
        mistakes=("Leaning to the heavy side.",),
        replaces=("walking-lunge", "side-lying-raise"),
    ),
    replace(
        _LUNGE,
        id="lean-lunge",
        name="Leaning lunge",
        aliases=(),
        prime=(HE, KE),
        defaults={"step_m": 0.7, "knee_from_deg": 90, "trunk_lean_deg": 35, "knee_travel": 0.27},
        needs=(),
        checks=("Hands along the shin", "Room for the rear knee"),
        cues=("Lean from the hip, do not round.", "Hands along the shin."),
        replaces=("split-squat", "one-leg-romanian-deadlift"),
    ),
    replace(
        _LUNGE,
        id="b-stance-squat",
        name="B-stance squat",
        aliases=("staggered squat",),
        variant="b-stance",
        prime=(KE, HE),
        ports=("hands", "hand-left", "hand-right", "goblet", "shoulders", "back-high", "hip-belt"),
        defaults={"step_m": 0.25, "knee_from_deg": 100},
        more_options=(GIVEN_PAIR,),
        without_options=("hip_back", "trunk_lean_deg", "leaves_at", "pair_share"),
        needs=(),
        steadiness=3,
        checks=("Rear toes by the front heel, rear heel up", "Weak side first"),
        cues=("The rear foot only steadies.", "Front heel stays down."),
        mistakes=("Sharing the weight evenly.",),
        cautions=(_STRAIGHT_KNEE,),
        replaces=("one-leg-squat", "split-squat"),
    ),
    replace(
        _LUNGE,
        id="step-up",
        name="Step-up",
        aliases=(),
        variant="step-up",
        prime=(KE, HE),
        defaults={
            "step_m": 0.25,
            "box_m": 0.4,
            "trunk_lean_deg": 20,
        },
        more_options=(GIVEN_PAIR,),
        without_options=("hip_back", "rear_share", "knee_from_deg", "pair_share"),
        needs=("step",),
        steadiness=2,
        minutes=1,
        checks=(
            "Box cannot tip",
            "Whole foot on the box",
            "Height so that the thigh is at most level",
        ),
        cues=("Whole foot on the box.", "Stand up without a jump from the floor."),
        mistakes=("Pushing off the floor foot.", "Dropping down."),
        cautions=(_STRAIGHT_KNEE, "Hold something if balance is short."),
        replaces=("split-squat", "leg-press-one-leg"),
    ),
)
