"""Curls lying down, thrusts on furniture, seated work with loose weights. Common practice, no
source.
"""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.entries.hips import ENTRIES as HIPS
from widearc.core.exercises.entries.isolation import ENTRIES as ISOLATION
from widearc.core.exercises.entries.swings import ENTRIES as SWINGS
from widearc.core.exercises.exercise import Exercise
from widearc.core.exercises.families.common import number, of_body

KE, HE, KF, AD = Action.KE, Action.HE, Action.KF, Action.AD
_BY_ID = {entry.id: entry for entry in (*HIPS, *ISOLATION, *SWINGS)}
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
)
