"""Curls lying down, thrusts on furniture, seated work with loose weights. Common practice, no
source.
"""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.entries.hips import ENTRIES as HIPS
from widearc.core.exercises.entries.isolation import ENTRIES as ISOLATION
from widearc.core.exercises.entries.supports import ENTRIES as SUPPORTS
from widearc.core.exercises.entries.swings import ENTRIES as SWINGS
from widearc.core.exercises.entries.swings import STANDING
from widearc.core.exercises.exercise import Exercise
from widearc.core.exercises.families.common import choice, number, of_body

HE, KF, AB, AD = Action.HE, Action.KF, Action.AB, Action.AD
_BY_ID = {entry.id: entry for entry in (*HIPS, *ISOLATION, *SUPPORTS, *SWINGS)}
_BAND_CAUTION = "Look the band over first; keep your face out of its line of recoil."
_STRAIGHT_CALF = "It does not replace raises with a straight knee: there the long calf works too."

_SLIDE = Exercise(
    id="slider-curl",
    name="Slider curl",
    aliases=("heel slide curl", "towel curl"),
    family="plank knee bend",
    variant="supine",
    prime=(KF, HE),
    ports=("hip-crease", "ankle"),
    defaults={"couch_m": 0.0, "knee_from_deg": 10, "knee_to_deg": 100},
    more_options=(
        number("couch_m", "heels over the floor", 0.0, 0.0, 0.8),
        number("knee_from_deg", "knee bend, lengthened end", 10, 0, 60),
        number("knee_to_deg", "knee bend, shortened end", 100, 40, 120),
        number("hip_deg", "hip bend kept", 0, -10, 60),
    ),
    one_leg=True,
    steadiness=3,
    fails_alone="yes",
    limits=("hamstring cramp",),
    minutes=1,
    checks=(
        "Lie on the back, heels on sliders or a towel on a smooth floor",
        "Arms flat beside you",
        "Lift the hips before the heels move",
    ),
    cues=(
        "Hips stay up, one line from shoulder to knee.",
        "Heels slide out slowly, pull them back under the knees.",
    ),
    mistakes=("Hips drop as the heels go out.", "The low back arches to keep the hips up."),
    breathing="In as the heels go out, out as they come in.",
    cautions=(
        "Start with lowering only: hips down for the way back.",
        "Stop at a cramp, stretch, and go less far out.",
    ),
    reps=(6, 12),
    rest_s=(90, 150),
    replaces=("lying-leg-curl", "nordic-curl"),
)

SHELF = 9  # its place in the catalogue

ENTRIES = (
    _SLIDE,
    replace(
        _SLIDE,
        id="ball-curl",
        name="Ball curl",
        aliases=("leg curl on a ball",),
        defaults={"couch_m": 0.55, "knee_from_deg": 10, "knee_to_deg": 100},
        needs=("ball",),
        steadiness=2,
        limits=("balance", "hamstring cramp"),
        checks=(
            "Heels on top of the ball, ball on a floor that grips",
            "Arms flat and wide beside you",
            "Lift the hips before the ball moves",
        ),
        cues=(
            "Hips stay up, one line from shoulder to knee.",
            "Roll the ball in with the heels, let it out slowly.",
        ),
        mistakes=("Hips drop as the ball rolls out.", "The ball runs off to one side."),
        breathing="In as the ball rolls out, out as it comes in.",
        cautions=("Nothing hard beside you: the ball may roll away.", "Stop at a cramp."),
        replaces=("lying-leg-curl", "slider-curl"),
    ),
    replace(
        _BY_ID["leg-curl-band"],
        id="lying-curl-cable",
        name="Leg curl on a cable, prone",
        aliases=(),
        defaults={"hip_deg": 0, "knee_from_deg": 5, "knee_to_deg": 100, "seat_m": 0.2},
        kinds=("cable",),
        needs=("cable pulley",),
        steadiness=4,
        checks=(
            "Lie face down, head away from the pulley",
            "Cuff at the ankles, the cable straight behind the feet",
            "A mat under the hips",
        ),
        cautions=("Hips stay on the mat; no back arch.",),
        replaces=("lying-leg-curl", "leg-curl-band"),
    ),
    replace(
        _BY_ID["leg-curl-band"],
        id="lying-curl-band-couch",
        name="Leg curl with a band, prone on a couch",
        defaults={"hip_deg": 0, "knee_from_deg": 5, "knee_to_deg": 100, "seat_m": 0.45},
        needs=("couch", "anchor behind"),
        checks=(
            "Lie face down along the couch, knees at its end",
            "Band flat round the ankles, tied low behind the feet",
            "The couch cannot slide towards the anchor",
        ),
        cautions=(_BAND_CAUTION, "Hips stay down; no back arch."),
        replaces=("lying-leg-curl", "leg-curl-dumbbell"),
    ),
    replace(
        _BY_ID["hip-thrust-one-leg"],
        id="hip-thrust-couch-table",
        name="Hip thrust, couch and table, one leg",
        aliases=("double raised thrust",),
        defaults={"legs": 1, "bench_m": 0.45, "foot_m": 0.45},
        more_options=(of_body("foot_ahead_m", "feet ahead of the couch", 0.9, 0.3, 1.4),),
        needs=("couch", "table"),
        steadiness=2,
        checks=(
            "Shoulder blades on the couch's edge, couch against a wall",
            "Heel on the table, the table cannot slide away",
            "Weak side first",
        ),
        cues=("Push the heel down into the table.", "Pelvis tucked at the top, no back arch."),
        mistakes=("The table moves away.", "Hips turn towards the free leg."),
        cautions=("First without a load.", "A light table slides: wedge it against a wall."),
        replaces=("hip-thrust-raised-feet", "hip-thrust-one-leg"),
    ),
    replace(
        _BY_ID["calf-raise-seated"],
        id="calf-raise-seated-weights",
        name="Seated calf raise with weights",
        aliases=(),
        kinds=(),
        needs=("seat", "step"),
        steadiness=4,
        checks=(
            "Seat as high as the knees, balls of the feet on the edge",
            "Weights upright on the thighs, close to the knees, held by the hands",
            "A towel under the weights",
        ),
        cues=("Heels as deep as they go, settle, then rise.", "The hands only steady the weights."),
        mistakes=("The arms lift.", "Bouncing at the lengthened end."),
        cautions=(_STRAIGHT_CALF,),
        replaces=("calf-raise-seated",),
    ),
    replace(
        _BY_ID["abduction-machine"],
        id="adduction-machine",
        name="Adduction machine",
        prime=(AD,),
        more_options=(
            choice(
                "readings_for", "the stack’s readings are for", "one thigh", ("one thigh", "both")
            ),
            number("abduction_from_deg", "thighs apart, start", 35, 0, 60),
            number("abduction_to_deg", "thighs apart, end", 0, 0, 60),
        ),
        needs=("adduction machine",),
        checks=(
            "Pads at the inner knees, hips back in the seat",
            "Start width set so that nothing pulls in the groin",
            "Readings taken at one pad, the other tied: for one thigh; at both pads: for both",
        ),
        cues=("Close slowly, a short hold, slower open.",),
        mistakes=("Letting the pads fly open.", "Rocking the trunk."),
        cautions=("Start narrow and light: the groin strains easily.",),
    ),
    replace(
        _BY_ID["kickback"],
        id="abduction-cable",
        name="Standing abduction on a cable",
        variant="upright",
        prime=(AB,),
        ports=("ankle", "thigh"),
        kinds=("cable",),
        defaults={"legs": 1, "abduction_from_deg": -5, "abduction_to_deg": 30},
        without_options=("hip_from_deg", "hip_to_deg", "knee_deg"),
        needs=("cable pulley",),
        checks=(
            "Cuff at the outer ankle, pulley low on the other side",
            "Stand on the inner leg, hold on",
            "Weak side first",
        ),
        cues=("Leg straight out to the side, toe ahead.", "Pelvis level, slow way back."),
        mistakes=("Leaning away to lift the leg.", "Turning the toe up."),
        cautions=("Pain at the side of the hip: less far, or stop.",),
        replaces=("abduction-machine", "side-lying-raise"),
    ),
    replace(
        _BY_ID["kickback"],
        id="adduction-cable",
        name="Standing adduction on a cable",
        variant="upright",
        prime=(AD,),
        ports=("ankle", "thigh"),
        kinds=("cable",),
        defaults={"legs": 1},
        more_options=(
            STANDING,
            number("abduction_from_deg", "leg opened, start", 30, 0, 50),
            number("abduction_to_deg", "leg opened, end", -5, -20, 30),
        ),
        without_options=("hip_from_deg", "hip_to_deg", "knee_deg"),
        needs=("cable pulley",),
        checks=(
            "Cuff at the inner ankle, pulley low on the same side",
            "Stand on the other leg, hold on",
            "Step away until the cable is taut with the leg apart",
        ),
        cues=("Draw the straight leg in to the other.", "Pelvis level, slow way out."),
        mistakes=("The trunk leans to the pulley.", "The leg snaps out."),
        cautions=("Start narrow and light: the groin strains easily.",),
        replaces=("adduction-machine",),
    ),
    replace(
        _BY_ID["kickback"],
        id="adduction-band",
        name="Standing adduction with a band",
        variant="upright",
        prime=(AD,),
        ports=("ankle", "thigh"),
        defaults={"legs": 1},
        more_options=(
            STANDING,
            number("abduction_from_deg", "leg opened, start", 30, 0, 50),
            number("abduction_to_deg", "leg opened, end", -5, -20, 30),
        ),
        without_options=("hip_from_deg", "hip_to_deg", "knee_deg"),
        needs=("anchor behind",),
        checks=(
            "Band round the inner ankle, tied low on the same side",
            "Stand on the other leg, hold on",
            "Step away until the band is taut with the leg apart",
        ),
        cues=("Draw the straight leg in to the other.", "Pelvis level, slow way out."),
        mistakes=("The trunk leans to the anchor.", "The band snatches the leg out."),
        cautions=("Start narrow and light: the groin strains easily.", _BAND_CAUTION),
        replaces=("adduction-machine", "adduction-cable"),
    ),
    replace(
        _BY_ID["deadlift"],
        id="deficit-trap-bar-deadlift",
        name="Trap-bar deadlift, feet raised",
        aliases=("trap-bar deadlift",),
        ways=(),
        defaults={"hold": "hang", "deficit_m": 0.1, "knee_from_deg": 90, "bar_m": 0.3},
        needs=("step",),
        limits=("grip",),
        checks=(
            "A flat, wide box inside the trap bar, it cannot tip",
            "Stand in the middle, handles beside the hips",
            "Chest up, brace before the pull",
        ),
        cues=("Push the floor away.", "Hips and shoulders rise together.", "Knees over the toes."),
        mistakes=("Standing off centre: it tips.", "Back rounds.", "Knees cave in."),
        cautions=("Stop where the back would round.", "Feet wholly on the box."),
        reps=(5, 10),
        replaces=("deadlift", "leg-press-45", "back-squat-high"),
    ),
)
