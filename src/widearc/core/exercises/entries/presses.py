"""Sled presses. Set-up facts, cues and cautions are common practice, no source."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.exercise import Exercise, way

KE, HE = Action.KE, Action.HE
_STRAIGHT_KNEE = "Stop short of a locked knee under load."


_PRESS = Exercise(
    id="leg-press-45",
    name="Leg press",
    aliases=("sled press", "45° leg press"),
    family="sled press",
    prime=(KE, HE),
    ports=("sled",),
    kinds=("sled",),
    ways=((way("sled", "sled"),),),
    needs=("sled press",),
    steadiness=5,
    fails_alone="with stops",
    limits=("breath",),
    minutes=2,
    one_leg=True,
    checks=(
        "You know the catch before you release it",
        "Stops above your depth",
        "Hips and low back on the pad",
    ),
    cues=(
        "Hips and low back stay on the pad.",
        "Push through mid-foot and heel.",
        "Hold the handles.",
    ),
    mistakes=(
        "Pelvis rolls up at the lengthened end.",
        "Feet so low that the knees complain.",
        "Knees snap straight.",
    ),
    cautions=(_STRAIGHT_KNEE, "Stop where the pelvis would roll."),
    reps=(8, 12),
    replaces=("back-squat-high", "front-squat"),
)


SHELF = 4  # its place in the catalogue

ENTRIES = (
    _PRESS,
    replace(
        _PRESS,
        id="leg-press-flat",
        name="Leg press, level",
        aliases=("horizontal leg press",),
        defaults={"rail_deg": 0, "backrest_deg": 60},
        needs=("level press",),
        ways=(),
        checks=("Seat set so that the start is your depth", "Hips and low back on the pad"),
    ),
    replace(
        _PRESS,
        id="leg-press-vertical",
        name="Leg press, upright rails",
        aliases=("vertical leg press",),
        defaults={
            "rail_deg": 90,
            "backrest_deg": 0,
            "foot_height_m": -0.12,
            "plate_tilt_deg": 28,
            "knee_from_deg": 80,
        },
        needs=("vertical press",),
        ways=(),
        fails_alone="with stops",
    ),
    replace(
        _PRESS,
        id="leg-press-one-leg",
        name="Leg press, one leg",
        aliases=(),
        defaults={"legs": 1},
        ways=(),
        reps=(10, 15),
        checks=(*_PRESS.checks, "Weak side first"),
        replaces=("split-squat", "leg-press-45"),
    ),
    replace(
        _PRESS,
        id="leg-press-banded",
        name="Leg press with bands",
        aliases=(),
        ways=(),
        minutes=4,
        checks=(*_PRESS.checks, "Bands equal, from frame to sled", "Lightest band first"),
        cautions=(*_PRESS.cautions, "For those already strong; look the bands over first."),
    ),
)
