"""Sprung sliding carriages, plain paths, and mobility work without curves. Common practice, no
source.
"""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.exercise import Exercise

KE, HE, HF, AB = Action.KE, Action.HE, Action.HF, Action.AB


_PUSH = Exercise(
    id="carriage-push",
    name="Carriage push-out, standing",
    family="carriage",
    variant="out",
    prime=(KE, HE),
    ports=("carriage", "hands", "goblet", "hip-belt"),
    kinds=("sled",),
    needs=("sprung carriage",),
    steadiness=3,
    fails_alone="yes",
    limits=("balance",),
    minutes=2,
    checks=("Springs hooked, latch understood", "Hand near a rail", "Stopper set"),
    cues=(
        "Slow and long before heavier.",
        "Stand tall as the carriage goes out.",
        "Control the way home.",
    ),
    mistakes=("Letting the carriage bang home.", "Hips swing."),
    cautions=(
        "Fewest springs only when the machine is new to you.",
        "Keep fingers and toes off the rails.",
    ),
    reps=(8, 15),
    rest_s=(60, 120),
    replaces=("reverse-lunge",),
)


_PATH = Exercise(
    id="plain-path",
    name="Plain path",
    family="plain path",
    defaults={"start_y_m": 0.6},
    prime=(),
    ports=("hands",),
    steadiness=3,
    fails_alone="yes",
    limits=(),
    minutes=1,
    checks=("Way clear",),
    cues=("Same line both ways.",),
    mistakes=("Jerking.",),
    reps=(8, 15),
)


_MOBILITY = Exercise(
    id="bodyweight-warm-up",
    name="Warm-up without load",
    family="mobility",
    prime=(),
    ports=(),
    steadiness=4,
    fails_alone="yes",
    limits=(),
    minutes=5,
    checks=("Floor clear",),
    cues=("Easy range first, larger as it loosens.",),
    mistakes=("Forcing the end of the range.",),
    breathing="Calm and even.",
    cautions=("Stop at pain.",),
    reps=(1, 2),
    rest_s=(0, 30),
)


SHELF = 8  # its place in the catalogue

ENTRIES = (
    _PUSH,
    replace(
        _PUSH,
        id="carriage-lunge-front",
        name="Carriage lunge, front",
        variant="home",
        defaults={
            "start_m": 0.65,
            "spring_side": "help",
            "other_knee_from_deg": 90,
            "other_knee_to_deg": 15,
        },
        cues=(
            "The springs help the moving leg home: less spring is harder, as far down as they "
            "still push less than the feet do by themselves.",
            "Slow both ways.",
        ),
        cautions=(
            "Start with a middle rung, then less help.",
            "No springs only where the machine's maker allows it.",
        ),
        replaces=("walking-lunge", "split-squat"),
    ),
    replace(
        _PUSH,
        id="carriage-pull-back",
        name="Carriage pull-back",
        variant="back",
        prime=(HE,),
        defaults={
            "start_m": 0.45,
            "other_knee_from_deg": 40,
            "other_knee_to_deg": 15,
            "weight_share": 0.3,
        },
        cues=("Facing back; draw the carriage under you from the hip.",),
        cautions=("Always the lightest spring the first time.",),
        replaces=("kickback", "romanian-deadlift"),
    ),
    replace(
        _PUSH,
        id="carriage-side-push",
        name="Carriage side push",
        variant="side",
        prime=(AB,),
        ports=("carriage",),
        defaults={"start_m": 0.25, "travel_m": 0.5},
        without_options=("other_knee_from_deg", "other_knee_to_deg", "trunk_lean_deg"),
        cues=("Push out sideways from the hip.", "Pelvis stays level."),
        replaces=("abduction-machine",),
    ),
    replace(
        _PUSH,
        id="carriage-kick",
        name="Carriage kick, kneeling",
        variant="kick",
        prime=(HE, KE),
        ports=("carriage",),
        defaults={"start_m": -0.3, "travel_m": 0.45, "weight_share": 0.3},
        without_options=("other_knee_from_deg", "other_knee_to_deg", "trunk_lean_deg"),
        limits=("wrists",),
        cues=("Trunk still on hands and knee.", "Drive the heel back."),
        replaces=("kickback",),
    ),
    replace(
        _PUSH,
        id="carriage-knee-drive",
        name="Carriage knee drive",
        variant="knees",
        prime=(HF,),
        ports=("carriage",),
        defaults={"start_m": -0.62, "travel_m": 0.42, "weight_share": 0.5},
        without_options=("other_knee_from_deg", "other_knee_to_deg", "trunk_lean_deg"),
        limits=("wrists", "trunk"),
        cues=("Hands down, hips level, draw the knees in.",),
        replaces=("lying-leg-raise",),
    ),
    _PATH,
    replace(
        _PATH,
        id="banded-push-up",
        name="Push-up with a band",
        defaults={"travel_m": 0.35, "start_y_m": 0.6},
        checks=("Band flat across the upper back", "Both ends under the hands"),
        cautions=("Look the band over first; keep your face out of its line of recoil.",),
        reps=(8, 20),
    ),
    replace(
        _PATH,
        id="kneeling-push-up",
        name="Kneeling push-up",
        defaults={"travel_m": 0.3, "start_y_m": 0.6},
        checks=("Padding under the knees",),
        reps=(8, 20),
    ),
    _MOBILITY,
    *(
        replace(_MOBILITY, id=id_, name=name, minutes=2, checks=checks, cues=cues)
        for id_, name, checks, cues in (
            (
                "hip-flexor-stretch",
                "Hip flexor stretch",
                ("Padding under the knee",),
                ("Pelvis tucked, 30 s a side.",),
            ),
            (
                "inner-thigh-stretch",
                "Inner thigh stretch",
                ("Floor not slippery",),
                ("Ease out, 30 s.",),
            ),
            (
                "hamstring-stretch",
                "Hamstring stretch, one leg at a time",
                ("Heel on a low box",),
                ("Back long, 30 s a side.",),
            ),
            (
                "glute-stretch",
                "Glute stretch",
                ("Lie on a mat",),
                ("Ankle over the other knee, 30 s a side.",),
            ),
        )
    ),
)
