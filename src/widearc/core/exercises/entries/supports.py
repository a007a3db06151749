"""Squats and hinges with a support: ball, rails, handle, sled and arc. Common practice, no
source.
"""

from __future__ import annotations

from dataclasses import replace

from widearc.core.curve import Action
from widearc.core.exercises.entries.hips import ENTRIES as HIPS
from widearc.core.exercises.entries.squats import ENTRIES as SQUATS
from widearc.core.exercises.exercise import Exercise
from widearc.core.exercises.families.hinge import DEADLIFT
from widearc.core.exercises.families.supported_stance import ON_A_BALL, RAIL_HINGE

KE, HE = Action.KE, Action.HE
_BY_ID = {entry.id: entry for entry in (*SQUATS, *HIPS)}


_BACK, _FREE, _HINGE = (
    _BY_ID["back-squat-high"],
    _BY_ID["bodyweight-squat"],
    _BY_ID["romanian-deadlift"],
)


_STRAIGHT_KNEE = "Stop short of a locked knee under load."
_BELT_CAUTION = "Stand up to unhook; set the load down before you step off."
_BAND_CAUTION = "Look the band over first; keep your face out of its line of recoil."


_RAIL = replace(
    _BACK,
    id="rail-squat",
    name="Squat on rails",
    aliases=("guided-bar squat",),
    family="supported stance",
    variant="rail",
    ports=("back-high", "shoulders", "hip-belt"),
    ways=(),
    defaults={"trunk_lean_deg": 20, "foot_ahead_m": 0.25, "support_m": 1.4, "knee_from_deg": 100},
    needs=("bar on rails",),
    steadiness=5,
    limits=("breath",),
    minutes=2,
    checks=(
        "Stops set below your depth",
        "Hooks within a turn of the wrist",
        "Feet where you want them before the first rep",
    ),
    cues=(
        "Feet ahead of the bar as far as set.",
        "The back comes upright as you stand up.",
        "Knees in line with the toes, heels down.",
    ),
    mistakes=("Feet creep under the bar.", "Pelvis rolls at the lengthened end."),
    cautions=(_STRAIGHT_KNEE, "Know how the hooks turn before you unrack."),
    reps=(8, 12),
    replaces=("back-squat-high", "leg-press-45", "hack-squat"),
)


_BALL = replace(
    _FREE,
    id="ball-wall-squat",
    name="Squat with a ball at the wall",
    aliases=("wall-ball-behind-back squat",),
    family="supported stance",
    variant="ball",
    prime=(KE,),
    ports=("hands", "hand-left", "hand-right", "goblet", "shoulders", "hip-belt"),
    ways=(),
    defaults={"trunk_lean_deg": 0, "foot_ahead_m": 0.4, "support_m": 1.15, "knee_from_deg": 90},
    more_options=(ON_A_BALL,),
    needs=("ball", "wall"),
    one_leg=False,
    one_piece=False,
    steadiness=4,
    minutes=2,
    checks=("Ball at the middle of the back", "Floor not slippery", "Wall free and firm"),
    cues=(
        "Dumbbells at the sides, never in front.",
        "Do not relax at the straight end.",
        "Back keeps its place on the ball.",
    ),
    mistakes=("Feet too close to the wall.", "Ball slides to the neck."),
    cautions=(_STRAIGHT_KNEE,),
    reps=(10, 20),
    replaces=("leg-press-45", "hack-squat"),
)


_BELT = replace(
    _BY_ID["belt-squat-cable"],
    id="belt-squat-lever",
    name="Belt squat, lever machine",
    aliases=(),
    family="supported stance",
    variant="handle",
    ports=("hip-belt", "hands", "shoulders"),
    defaults={"knee_travel": 0.3, "trunk_lean_deg": 20, "knee_from_deg": 105},
    needs=("belt-squat lever",),
    one_leg=False,
    steadiness=5,
    fails_alone="yes",
    checks=("Belt low on the hips", "Latch understood", "Feet so that the arm clears them"),
    replaces=("belt-squat-cable", "leg-press-45"),
)


_HACK = Exercise(
    id="hack-squat",
    name="Hack squat",
    aliases=("sled squat",),
    family="sled squat",
    prime=(KE, HE),
    ports=("sled", "pad"),
    kinds=("sled",),
    needs=("hack squat machine",),
    steadiness=5,
    fails_alone="with stops",
    limits=("breath", "pad pressure"),
    minutes=2,
    checks=(
        "You know the catch before you release it",
        "Stops above your depth",
        "Hips and low back on the pad",
    ),
    cues=(
        "Back stays on the pad.",
        "Push through mid-foot and heel.",
        "Knees in line with the toes.",
    ),
    mistakes=("Pelvis rolls at the lengthened end.", "Heels lift.", "Knees snap straight."),
    cautions=(_STRAIGHT_KNEE, "Stop where the pelvis would roll."),
    reps=(8, 12),
    replaces=("leg-press-45", "back-squat-high"),
)


SHELF = 2  # its place in the catalogue

ENTRIES = (
    _RAIL,
    _BALL,
    replace(
        _BALL,
        id="hack-squat-ball-band",
        name="Hack squat with ball and band",
        aliases=(),
        prime=(KE, HE),
        ports=("shoulders", "hands", "goblet", "hip-belt"),
        defaults={
            "trunk_lean_deg": 0,
            "foot_ahead_m": 0.35,
            "support_m": 1.15,
            "heel_wedge_m": 0.03,
            "knee_from_deg": 90,
        },
        needs=("ball", "wall", "heel wedge", "anchor behind"),
        minutes=4,
        checks=(
            "Band from a low anchor, equal over both shoulders",
            "Anchor holds the pull",
            "Wedge cannot slide",
        ),
        cautions=(_STRAIGHT_KNEE, _BAND_CAUTION, "A wedge costs balance."),
        replaces=("hack-squat", "leg-press-45"),
    ),
    _BELT,
    replace(
        _BELT,
        id="belt-squat-pin",
        name="Belt squat, loading pin between boxes",
        aliases=(),
        defaults={"knee_travel": 0.3, "trunk_lean_deg": 20, "knee_from_deg": 105, "box_m": 0.3},
        needs=("dip belt", "boxes", "post to hold"),
        steadiness=3,
        fails_alone="yes",
        minutes=4,
        checks=(
            "Boxes cannot tip or spread",
            "Pin hangs free at your depth",
            "Post or handle within reach",
        ),
        cautions=(_STRAIGHT_KNEE, _BELT_CAUTION, "No toe-off: whole foot on the box."),
    ),
    replace(
        _RAIL,
        id="rail-good-morning",
        name="Good morning on rails",
        aliases=(),
        variant="rail hinge",
        prime=(HE,),
        ports=("back-high", "shoulders"),
        defaults={"foot_ahead_m": 0.0, "support_m": 1.4},
        more_options=RAIL_HINGE,
        without_options=(
            "knee_from_deg",
            "knee_to_deg",
            "knee_travel",
            "trunk_lean_deg",
            "trunk_lean_to_deg",
        ),
        limits=("low back",),
        checks=("Stops set", "Light first", "Feet under the bar"),
        cues=("Hips back, not down.", "Lean from the hips, not the spine."),
        mistakes=("Back rounds.", "Knees bend more as the bar sinks."),
        cautions=("Stop where the back would round.",),
        replaces=("good-morning", "romanian-deadlift"),
    ),
    _HACK,
    replace(
        _HACK,
        id="arc-squat",
        name="Arc squat",
        aliases=("swinging-arm squat",),
        family="arc squat",
        ports=("pad", "shoulders"),
        kinds=(),
        defaults={"pivot_x_m": -1.1},
        needs=("arc squat machine",),
        checks=("Pads snug on the shoulders", "Catch understood", "Feet ahead of the hips"),
        replaces=("hack-squat", "leg-press-45"),
    ),
    replace(
        _HINGE,
        id="deadlift",
        name="Deadlift",
        aliases=("conventional deadlift",),
        variant="deadlift",
        prime=(HE, KE),
        ports=("hands", "hand-left", "hand-right", "hip-belt"),
        ways=(),
        defaults={},
        more_options=DEADLIFT,
        without_options=("knee_deg", "trunk_from_deg"),
        steadiness=4,
        limits=("grip", "low back"),
        minutes=3,
        checks=("Bar over mid-foot", "Collars on", "Brace before the pull"),
        cues=(
            "Push the floor away.",
            "Bar stays at the legs.",
            "Hips and shoulders rise together.",
        ),
        mistakes=("Hips shoot up first.", "Back rounds.", "Bar drifts ahead."),
        breathing="Hold and re-brace for a heavy bar, or out on effort: your choice.",
        cautions=("Stop where the back would round.",),
        reps=(3, 8),
        replaces=("romanian-deadlift", "good-morning"),
    ),
    replace(
        _HINGE,
        id="wide-deadlift",
        name="Deadlift, wide stance",
        aliases=("sumo deadlift",),
        variant="deadlift",
        prime=(HE, KE),
        ways=(),
        defaults={"stance_m": 0.8},
        more_options=DEADLIFT,
        without_options=("knee_deg", "trunk_from_deg"),
        minutes=3,
        checks=("Shins clear of the bar", "Knees over the feet", "Brace before the pull"),
        cues=("Knees out over the toes.", "Bar stays at the legs."),
        mistakes=("Knees cave in.", "Hips too far from the bar."),
        reps=(3, 8),
        replaces=("deadlift",),
    ),
    replace(
        _HINGE,
        id="belt-hinge-boxes",
        name="Hinge on boxes with belt and bands",
        ports=("hands", "hip-belt", "hand-left", "hand-right"),
        ways=(),
        defaults={"box_m": 0.3, "hold": "hang", "trunk_from_deg": 70},
        needs=("dip belt", "boxes"),
        minutes=5,
        checks=(
            "Boxes cannot tip or spread",
            "Bands equal, off edges",
            "Base heavier than the pull",
        ),
        cautions=("Stop where the back would round.", _BELT_CAUTION, _BAND_CAUTION),
        replaces=("romanian-deadlift",),
    ),
    replace(
        _FREE,
        id="loop-squat",
        name="Squat with a loop at the thighs",
        aliases=(),
        prime=(KE, HE, Action.AB),
        ports=("thigh", "shoulders", "hip-belt"),
        ways=(),
        needs=("short loop",),
        one_leg=False,
        minutes=1,
        checks=("Loop flat, just above the knees",),
        cues=("Knees in line with the toes: if the loop slides, they caved.", "Heels down."),
        cautions=(_STRAIGHT_KNEE, _BAND_CAUTION),
        replaces=("leg-press-45", "abduction-machine"),
    ),
)
