"""Knee extension, knee flexion and calves. Facts, cues and cautions are common practice, no
source.
"""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.exercise import Exercise, way

KE, KF, PF = Action.KE, Action.KF, Action.PF


_FIRST = (
    Exercise(
        id="leg-extension-dumbbell",
        name="Dumbbell leg extension",
        family="knee rotation",
        prime=(KE,),
        ports=("ankle", "sole"),
        ways=((way("dumbbell", "ankle", most_kg=15),),),
        defaults={"knee_from_deg": 90},
        needs=("seat",),
        steadiness=4,
        fails_alone="yes",
        limits=("grip of the feet",),
        minutes=1,
        checks=("Dumbbell firm between the feet", "Seat high enough to hang free", "Thighs level"),
        cues=(
            "Start from the most bent knee.",
            "Hips stay in the seat.",
            "A brief hold straight, toes forward.",
        ),
        mistakes=("Dumbbell slides.", "Hips lift off the seat."),
        cautions=("Keep hands and head clear of the dumbbell's fall.",),
        reps=(10, 20),
        rest_s=(60, 120),
        replaces=("leg-extension",),
    ),
    Exercise(
        id="reverse-nordic",
        name="Reverse nordic",
        family="kneeling",
        prime=(KE,),
        defaults={"lean_from_deg": 45},
        ports=("goblet", "shoulders", "back-high", "hands", "hip-belt"),
        ways=((), (way("dumbbell", "goblet"),), (way("band", "shoulders", "eye-ahead"),)),
        steadiness=3,
        fails_alone="yes",
        limits=("balance",),
        minutes=1,
        checks=(
            "Padding under the knees",
            "Feet flat behind you",
            "Room to fall back on the hands",
        ),
        cues=("One line from knee to shoulder.", "Lean only as far as you can come back from."),
        mistakes=("Hips fold.", "Dropping the last part."),
        cautions=("Work up to depth over weeks; the knee is bent far under load.",),
        reps=(6, 12),
        rest_s=(60, 120),
        replaces=("leg-extension", "leg-press-45"),
    ),
)


_DUMBBELL, _NORDIC = _FIRST
_MACHINE_CHECKS = ("Pivot in line with the knee", "Pad just above the ankle", "Range stop set")


_EXTENSION = replace(
    _DUMBBELL,
    id="leg-extension",
    name="Leg extension",
    ports=("shin-pad", "ankle"),
    kinds=("stack",),
    ways=(),
    defaults={"knee_from_deg": 100, "seat_m": 0.6},
    needs=("leg extension machine",),
    steadiness=5,
    limits=(),
    checks=_MACHINE_CHECKS,
    mistakes=("Hips lift off the seat.", "The stack crashes down."),
    cautions=("Stop short of a locked knee under load.",),
    replaces=(),
)


_CURL = replace(
    _EXTENSION,
    id="seated-leg-curl",
    name="Seated leg curl",
    prime=(KF,),
    defaults={"hip_deg": 85, "knee_from_deg": 5, "knee_to_deg": 100, "seat_m": 0.6},
    needs=("seated curl machine",),
    cues=("Thighs held down.", "Pull the heels under the seat, slow way back."),
    mistakes=("Hips slide forward.", "Cutting the straight end short."),
    cautions=("Start with a knee that is not locked.",),
    reps=(10, 12),
    replaces=("lying-leg-curl", "nordic-curl"),
)


_STANDING_CALF = Exercise(
    id="calf-raise-standing",
    name="Standing calf raise",
    family="calf",
    prime=(PF,),
    ports=("shoulders", "back-high", "hands", "hip-belt"),
    ways=(),
    needs=("calf machine",),
    steadiness=5,
    fails_alone="yes",
    limits=(),
    minutes=1,
    one_leg=True,
    checks=("Balls of the feet on the edge", "Feet at the same distance and angle"),
    cues=(
        "Knees straight, settle at the lengthened end each rep.",
        "Rise over the big toe's ball.",
    ),
    mistakes=("Bouncing.", "Knees bend and take over."),
    cautions=("Hold something.",),
    reps=(15, 20),
    rest_s=(60, 90),
)


SHELF = 5  # its place in the catalogue

ENTRIES = (
    *_FIRST,
    _EXTENSION,
    replace(
        _EXTENSION,
        id="leg-extension-band",
        name="Leg extension with a band",
        needs=("seat", "anchor behind"),
        steadiness=4,
        minutes=2,
        checks=("Band from behind, off edges", "Anchor holds the pull", "No slack at the bent end"),
        cautions=("Look the band over first; keep your face out of its line of recoil.",),
        replaces=("leg-extension",),
    ),
    replace(
        _EXTENSION,
        id="leg-extension-cable",
        name="Leg extension on a cable",
        needs=("cable pulley",),
        steadiness=4,
        minutes=2,
        checks=("Strap above the ankle", "Pulley low behind the seat"),
        replaces=("leg-extension",),
    ),
    _CURL,
    replace(
        _CURL,
        id="lying-leg-curl",
        name="Lying leg curl",
        aliases=("prone leg curl",),
        variant="prone",
        defaults={"hip_deg": 0, "knee_from_deg": 5, "knee_to_deg": 100, "seat_m": 0.7},
        needs=("lying curl machine",),
        replaces=("seated-leg-curl",),
    ),
    replace(
        _CURL,
        id="standing-leg-curl",
        name="Standing leg curl",
        variant="standing",
        defaults={
            "hip_deg": 0,
            "knee_from_deg": 5,
            "knee_to_deg": 100,
            "seat_m": 1.0,
            "legs": 1,
        },
        needs=("standing curl machine",),
        one_leg=True,
        replaces=("lying-leg-curl",),
    ),
    replace(
        _CURL,
        id="leg-curl-dumbbell",
        name="Dumbbell leg curl, prone",
        ports=("ankle", "sole"),
        ways=((way("dumbbell", "ankle", most_kg=10),),),
        variant="prone",
        defaults={"hip_deg": 0, "knee_from_deg": 5, "knee_to_deg": 90, "seat_m": 0.52},
        needs=("bench",),
        steadiness=3,
        limits=("grip of the feet",),
        checks=("Dumbbell firm between the feet", "Knees just off the edge"),
        cautions=("Keep the dumbbell from passing over you.",),
        replaces=("lying-leg-curl",),
    ),
    replace(
        _CURL,
        id="leg-curl-band",
        name="Leg curl with a band, prone",
        ports=("ankle", "sole"),
        variant="prone",
        defaults={"hip_deg": 0, "knee_from_deg": 5, "knee_to_deg": 100, "seat_m": 0.2},
        needs=("anchor behind",),
        steadiness=3,
        checks=("Band flat round the ankles", "Anchor low and behind holds the pull"),
        replaces=("lying-leg-curl",),
    ),
    replace(
        _NORDIC,
        id="nordic-curl",
        name="Nordic curl",
        prime=(KF,),
        ports=("goblet", "shoulders"),
        ways=(),
        variant="forward",
        defaults={"lean_from_deg": 60},
        needs=("ankle hold",),
        limits=("hold at the ankles",),
        checks=(
            "Ankles held by more than the pull",
            "Padding under the knees",
            "Hands ready to catch",
        ),
        cues=(
            "One line from knee to shoulder.",
            "Lower slowly; push off with the hands when it breaks.",
        ),
        cautions=("Few reps at first: it is hard on long hamstrings.",),
        reps=(3, 8),
        replaces=("seated-leg-curl",),
    ),
    _STANDING_CALF,
    replace(
        _STANDING_CALF,
        id="calf-raise-bar",
        name="Calf raise with a bar",
        ports=("back-high", "shoulders"),
        ways=((way("bar", "back-high"),),),
        needs=("rack",),
        steadiness=2,
        minutes=3,
        replaces=("calf-raise-standing",),
    ),
    replace(
        _STANDING_CALF,
        id="calf-raise-step",
        name="Calf raise on a step",
        ways=((way("dumbbells", "hands"),), ()),
        needs=("step",),
        one_piece=False,
        steadiness=3,
        replaces=("calf-raise-standing",),
    ),
    replace(
        _STANDING_CALF,
        id="calf-raise-one-leg",
        name="Calf raise, one leg",
        ways=((), (way("dumbbell", "hands"),)),
        defaults={"legs": 1},
        needs=("step",),
        one_piece=False,
        steadiness=2,
        checks=("Hand on a wall", "Weak side first"),
        replaces=("calf-raise-standing",),
    ),
)
