"""Hinges, bridges and back extensions. Facts, cues and cautions are common practice, no source."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.exercise import Exercise, way

HE, AB = Action.HE, Action.AB


_HINGE = Exercise(
    id="romanian-deadlift",
    name="Romanian deadlift",
    family="hinge",
    prime=(HE,),
    ports=("hands", "hand-left", "hand-right", "hip-belt"),
    ways=((way("bar", "hands"),), (way("dumbbells", "hands"),), (way("dumbbell", "hands"),)),
    steadiness=4,
    fails_alone="yes",
    limits=("grip", "low back"),
    minutes=2,
    checks=("Bar close to the legs", "Brace before the hips go back"),
    cues=("Hips back, not down.", "Lean from the hips, not the spine.", "Knees keep their bend."),
    mistakes=("Back rounds.", "Turning it into a squat."),
    cautions=("Stop where the back would round.",),
    reps=(8, 12),
    replaces=("good-morning", "back-extension-45"),
)


_BRIDGE = Exercise(
    id="hip-thrust",
    name="Hip thrust",
    family="bridge",
    prime=(HE,),
    ports=("hip-crease", "sole"),
    ways=(
        (way("bar", "hip-crease"),),
        (way("plate", "hip-crease"),),
        (way("dumbbell", "hip-crease"),),
        (),
    ),
    needs=("bench",),
    steadiness=4,
    fails_alone="yes",
    limits=("pad pressure",),
    minutes=3,
    checks=("Bench against a wall", "Pad on the bar", "Shins vertical at the end"),
    cues=("Pelvis tucked, ribs down.", "Shins vertical at the end.", "First without load."),
    mistakes=("Arching the back to finish.", "Pushing through the toes."),
    cautions=("No back arch.", "Pad hips and edges."),
    reps=(12, 15),
)


_BACK_EXTENSION = Exercise(
    id="back-extension-45",
    name="Back extension, 45° bench",
    family="hip rotation trunk",
    prime=(HE,),
    ports=("goblet", "shoulders", "back-high", "hands"),
    ways=(),
    defaults={"leg_deg": 45},
    needs=("45° bench",),
    steadiness=5,
    fails_alone="yes",
    limits=("low back",),
    minutes=1,
    checks=("Pad below the hip crease", "Ankles held"),
    cues=("Lean from the hips, not the spine.", "Stop in one line."),
    mistakes=("Swinging.", "Arching past the line."),
    cautions=("Stop where the back would round.",),
    reps=(10, 15),
    replaces=("romanian-deadlift",),
)


SHELF = 6  # its place in the catalogue

ENTRIES = (
    _HINGE,
    replace(
        _HINGE,
        id="deficit-romanian-deadlift",
        name="Romanian deadlift from a box",
        defaults={"box_m": 0.1, "trunk_from_deg": 85},
        needs=("step",),
        checks=(*_HINGE.checks, "Box cannot tip"),
        replaces=("romanian-deadlift",),
    ),
    replace(
        _HINGE,
        id="stiff-leg-deadlift",
        name="Stiff-leg deadlift",
        defaults={"knee_deg": 5, "trunk_from_deg": 75},
        cues=("Knees almost straight.", "Hips back, not down."),
        replaces=("romanian-deadlift",),
    ),
    replace(
        _HINGE,
        id="one-leg-romanian-deadlift",
        name="Romanian deadlift, one leg",
        prime=(HE, AB),
        ways=((way("dumbbell", "hands"),),),
        defaults={"legs": 1, "hold": "hang", "free_leg_deg": 0, "trunk_from_deg": 75},
        steadiness=1,
        limits=("balance", "grip"),
        checks=("Something to hold within reach", "Weak side first"),
        replaces=("romanian-deadlift",),
    ),
    replace(
        _HINGE,
        id="good-morning",
        name="Good morning",
        ports=("back-high", "back-low", "shoulders"),
        ways=((way("bar", "back-high"),),),
        defaults={"hold": "hang", "trunk_from_deg": 70},
        needs=("rack",),
        limits=("low back",),
        fails_alone="with stops",
        checks=("Stops set", "Light first"),
        replaces=("romanian-deadlift",),
    ),
    _BRIDGE,
    replace(
        _BRIDGE,
        id="hip-thrust-raised-feet",
        name="Hip thrust, feet raised",
        defaults={"foot_m": 0.2},
        needs=("bench", "step"),
        checks=(*_BRIDGE.checks, "Step cannot slide"),
        replaces=("hip-thrust",),
    ),
    replace(
        _BRIDGE,
        id="hip-thrust-band",
        name="Hip thrust with a band",
        ways=(),
        needs=("bench", "peg rail"),
        checks=(*_BRIDGE.checks, "Band flat across the hips, equal both sides"),
        cautions=(*_BRIDGE.cautions, "Look the band over first."),
        replaces=("hip-thrust",),
    ),
    _BACK_EXTENSION,
    replace(
        _BACK_EXTENSION,
        id="back-extension-flat",
        name="Back extension, level bench",
        defaults={"leg_deg": 0, "seat_m": 0.9},
        needs=("level extension bench",),
        replaces=("back-extension-45",),
    ),
    replace(
        _BACK_EXTENSION,
        id="back-extension-couch",
        name="Back extension over a couch edge",
        defaults={"leg_deg": 0, "seat_m": 0.6, "hip_from_deg": 60},
        needs=("couch", "partner"),
        steadiness=3,
        minutes=3,
        checks=(
            "Couch cannot tip",
            "Partner on the ankles, stop word agreed",
            "Head clears the floor",
        ),
        cautions=(*_BACK_EXTENSION.cautions, "Partner: never let go under load."),
        replaces=("back-extension-45",),
    ),
)
