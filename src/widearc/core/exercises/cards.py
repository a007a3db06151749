"""The texts of cards that an entry does not share with those of its family: how to get into
position, cues, mistakes with what they look like, cautions, breathing. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

_STRAIGHT_KNEE = "Stop short of a locked knee under load."
_BAND = "Look the band over first; keep your face out of its line of recoil."
_BELT = "Stand up to unhook; set the load down before you step off."
_BOXES = "Heels wholly on the boxes; the boxes stand flat and do not rock."


@dataclass(frozen=True, slots=True, kw_only=True)
class Card:
    """An entry's own texts; an empty one leaves what its entry says."""

    checks: tuple[str, ...] = ()
    cues: tuple[str, ...] = ()
    mistakes: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    breathing: str = ""


CARDS: Mapping[str, Card] = MappingProxyType(
    {
        "goblet-squat": Card(
            checks=(
                "Cup the head of the weight in both hands",
                "Lift it to the breastbone, elbows under it",
                "Feet shoulder width, heels can stay down",
            ),
            mistakes=(
                "The weight drifts away from the chest: the back rounds.",
                "Knees cave in.",
                "Heels lift at the lengthened end.",
            ),
            cautions=(_STRAIGHT_KNEE, "Set it down in front of you when the arms tire."),
        ),
        "bodyweight-squat": Card(
            checks=(
                "Feet shoulder width",
                "Arms out ahead as a counterweight",
                "Heels can stay down",
            ),
            mistakes=(
                "Knees cave in.",
                "Heels lift at the lengthened end.",
                "Half the depth as the set goes on.",
            ),
            breathing="In while lowering, out on the way up.",
        ),
        "dumbbell-squat": Card(
            checks=(
                "Dumbbells beside the feet, same weight both sides",
                "Squat down to them, stand up with a straight back",
                "Heels can stay down",
            ),
            mistakes=(
                "Shoulders are pulled round.",
                "The weights swing ahead and pull you on the toes.",
                "Knees cave in.",
            ),
            cautions=(_STRAIGHT_KNEE, "Grip gives out first: straps, or set down in time."),
        ),
        "back-squat-low": Card(
            mistakes=(
                "The bar slides down the back: squeeze the shoulder blades.",
                "Hips rise first and the lift becomes a bow.",
                "Knees cave in.",
            ),
        ),
        "front-squat": Card(
            mistakes=(
                "Elbows drop and the bar rolls.",
                "The upper back rounds.",
                "Heels lift at the lengthened end.",
            ),
            cautions=(
                _STRAIGHT_KNEE,
                "Free bar: no burn-out sets; let it fall ahead and step back.",
            ),
        ),
        "wide-squat": Card(
            cues=(
                "Knees out over the toes all the way.",
                "Trunk upright, the weight straight down between the knees.",
                "Heels down.",
            ),
            mistakes=("Knees fall inward.", "The trunk tips forward to reach the floor."),
            cautions=(_STRAIGHT_KNEE, "Only as wide as the groin allows without a pull."),
        ),
        "heel-raised-squat": Card(
            checks=(
                "Wedge flat, it cannot slide",
                "Both heels at the same height on it",
                "Feet shoulder width, weight mid-foot",
            ),
            cues=(
                "Knees travel forward over the toes.",
                "Trunk upright.",
                "Weight mid-foot, not on the toes.",
            ),
            mistakes=("Rocking on to the toes.", "Knees cave in.", "Sitting back instead of down."),
        ),
        "one-leg-squat": Card(
            checks=(
                "Something to hold within reach",
                "Stand on the weak side first",
                "Free leg straight ahead, off the floor",
            ),
            cues=(
                "Sit down over the standing foot, free leg ahead.",
                "Knee in line with the toes, heel down.",
                "The hand only steadies.",
            ),
            mistakes=("Pulling up with the hand.", "The knee caves in.", "Dropping the last part."),
        ),
        "corner-bar-squat": Card(
            checks=(
                "Bar end in its corner, it cannot leave it",
                "Collar on, end of the bar at the breastbone in both hands",
                "Step back until you lean a little into the bar",
            ),
            cues=(
                "Follow the bar's arc.",
                "Elbows close, heels down.",
                "Knees in line with the toes.",
            ),
            mistakes=("Standing too close: the bar pushes you back.", "Knees cave in."),
        ),
        "corner-bar-wide-squat": Card(
            checks=(
                "Bar end in its corner, it cannot leave it",
                "Straddle the bar, feet wide, toes out",
                "Both hands round the sleeve, arms long",
            ),
            cues=("Knees out over the toes.", "Arms stay long, the bar rises between the legs."),
            mistakes=(
                "Bending the arms.",
                "The back rounds to reach the bar.",
                "Knees fall inward.",
            ),
            cautions=(_STRAIGHT_KNEE, "Room between the plates and the legs."),
        ),
        "belt-squat-cable": Card(
            mistakes=(
                "Standing behind the pulley: it draws you forward.",
                "The belt rides up to the waist.",
                "Knees cave in.",
            ),
        ),
        "belt-squat-home": Card(
            checks=(
                "Base under mid-foot, heavier than the bands pull",
                "Bands equal, off edges",
                "Boxes flat, cannot tip",
                "Clip the belt sitting down, then stand",
            ),
            mistakes=("The base lifts at the top.", "Standing on the toes.", "Knees cave in."),
            cautions=(_STRAIGHT_KNEE, _BELT, _BAND, _BOXES),
        ),
        "belt-squat-lever": Card(
            mistakes=("Hanging on the handle.", "Hips drift away from the arm.", "Knees cave in."),
        ),
        "belt-squat-pin": Card(
            cues=(
                "Straight down between the boxes.",
                "The hand only steadies.",
                "Whole foot on the box.",
            ),
            mistakes=("The pin swings.", "Pulling on the post.", "Heels over the edge."),
            cautions=(_STRAIGHT_KNEE, _BELT, _BOXES),
        ),
        "banded-bar-squat": Card(
            cautions=(
                _STRAIGHT_KNEE,
                "Free bar: no burn-out sets; fail onto stops only.",
                "Bands throw a bar that is dropped: walk it back in.",
                _BAND,
            ),
            mistakes=(
                "The bands pull the bar sideways.",
                "Dropping fast into the bands.",
                "Knees cave in.",
            ),
        ),
        "ball-squeeze-squat": Card(
            checks=(
                "A soft ball between the knees",
                "Feet hip width, toes ahead",
                "Heels can stay down",
            ),
            mistakes=(
                "Squeezing so hard that the knees roll in.",
                "Heels lift at the lengthened end.",
            ),
        ),
        "loop-squat": Card(
            checks=(
                "Loop flat, just above the knees",
                "Feet shoulder width, knees out until it is taut",
                "Heels can stay down",
            ),
            mistakes=(
                "The loop slides down: the knees caved.",
                "Heels lift at the lengthened end.",
            ),
        ),
        "hack-squat-doubled-band": Card(
            checks=(
                "Anchor low and close under you, it holds the pull",
                "Band doubled through it, its ends over the shoulders",
                "Squat down to hook in, no slack before the first rep",
            ),
            cues=("Heels down, trunk upright.", "Both ends level on the shoulders."),
            mistakes=(
                "The band slips towards the neck.",
                "Leaning into the band.",
                "Knees cave in.",
            ),
        ),
        "hack-squat-ball-band": Card(
            cues=(
                "Back keeps its place on the ball.",
                "Heels on the wedge, knees over the toes.",
                "Keep the band's ends level.",
            ),
            mistakes=(
                "Ball slides to the neck.",
                "The band slips off a shoulder.",
                "Feet too close to the wall.",
            ),
        ),
        "rear-raised-split-squat": Card(
            checks=(
                "Sit on the bench, stretch one leg ahead: there the front foot stands",
                "Rear foot light on the bench, laces down",
                "Weak side first",
            ),
            cues=(
                "Weight into the front leg.",
                "Rear knee straight down.",
                "Lean from the hip, do not round.",
            ),
            mistakes=(
                "Pushing off the rear foot.",
                "Front heel lifts: the foot stands too close.",
                "Hips turn to the rear leg's side.",
            ),
        ),
        "reverse-lunge": Card(
            checks=(
                "Room behind for a long step",
                "Stand tall, feet hip width",
                "Weak side first",
            ),
            mistakes=(
                "Stepping on a tightrope.",
                "Pushing off the rear foot.",
                "The front heel lifts.",
            ),
        ),
        "lean-lunge": Card(
            checks=(
                "Room for the step and the rear knee",
                "Step, then fold the trunk over the front thigh",
                "Hands along the shin",
            ),
            cues=(
                "Lean from the hip until the chest is over the thigh.",
                "Hands along the shin, back long.",
                "Stand up by pushing the floor back.",
            ),
            mistakes=(
                "The back rounds.",
                "The knee runs ahead of the foot.",
                "Pushing off the rear foot.",
            ),
            cautions=(
                _STRAIGHT_KNEE,
                "Stop where the back would round.",
                "You walk with the load: clear the way first.",
            ),
        ),
        "arc-squat": Card(
            cues=(
                "Back stays on the pad along its arc.",
                "Push through mid-foot and heel.",
                "Knees in line with the toes.",
            ),
            mistakes=(
                "Feet too close under the hips.",
                "Pelvis rolls at the lengthened end.",
                "Knees snap straight.",
            ),
        ),
        "hack-squat": Card(
            mistakes=("Hips leave the pad at the bottom.", "Heels lift.", "Knees snap straight."),
        ),
        "leg-press-one-leg": Card(
            cues=(
                "Hips level on the pad.",
                "Push through mid-foot and heel.",
                "Other foot on the floor or the frame.",
            ),
            mistakes=(
                "The hip lifts off the pad on the working side.",
                "The knee falls in.",
                "Knee snaps straight.",
            ),
        ),
        "leg-press-banded": Card(
            cautions=(
                _STRAIGHT_KNEE,
                "Stop where the pelvis would roll.",
                "For those already strong, lightest band first.",
                _BAND,
            ),
            mistakes=(
                "The bands pull the sled home fast: lower it.",
                "Knees snap straight.",
                "Bands of unequal length.",
            ),
        ),
        "leg-press-flat": Card(
            checks=(
                "Seat set so that the start is your depth",
                "Hips and low back on the pad",
                "Feet flat on the plate, shoulder width",
            ),
            mistakes=(
                "Pelvis rolls up at the lengthened end.",
                "The seat too far: half the range.",
                "Knees snap straight.",
            ),
        ),
        "leg-press-vertical": Card(
            mistakes=(
                "The low back leaves the pad.",
                "Feet off centre of the plate.",
                "Knees snap straight.",
            ),
            cautions=(
                _STRAIGHT_KNEE,
                "Stops set: the sled is straight above you.",
                "Stop where the pelvis would roll.",
            ),
        ),
        "leg-extension-band": Card(
            mistakes=(
                "Hips lift off the seat.",
                "The band snatches the foot home: lower it.",
                "The band rubs on an edge.",
            ),
        ),
        "leg-extension-cable": Card(
            checks=(
                "Pulley low behind the seat",
                "Cuff above the ankle, sit with the knee over the edge",
                "Hold the seat, cable taut at the bent end",
            ),
            mistakes=(
                "Hips lift off the seat.",
                "The thigh rolls outward.",
                "Letting the cable go slack.",
            ),
        ),
        "lying-leg-curl": Card(
            checks=(
                "Pivot in line with the knee",
                "Pad just above the heel cord",
                "Hips flat, hands on the handles",
            ),
            cues=("Hips stay down.", "Draw the heels to the seat, slow way back."),
            mistakes=("Hips lift to help.", "Cutting the straight end short."),
        ),
        "standing-leg-curl": Card(
            checks=(
                "Pivot in line with the knee",
                "Pad just above the heel cord",
                "Thigh on its pad, trunk held",
            ),
            cues=("Thigh stays on its pad.", "Draw the heel up, slow way back."),
            mistakes=("The hip bends to help.", "Swinging the foot up."),
        ),
        "leg-curl-dumbbell": Card(
            checks=(
                "Stand the dumbbell on its head at the bench’s end",
                "Lie down, knees just off the edge",
                "Take the handle between the feet, shins level",
            ),
            cues=(
                "Hips stay down.",
                "Draw the heels up until the shins stand, no further.",
                "Feet squeeze the handle.",
            ),
            mistakes=("Passing the upright shin: the weight tips over you.", "Hips lift."),
        ),
        "leg-curl-band": Card(
            checks=(
                "Anchor low behind the feet, it holds the pull",
                "Band flat round the ankles",
                "Lie face down, far enough away that it is taut",
            ),
            cues=("Hips stay down.", "Draw the heels to the seat, slow way back."),
            mistakes=("Hips lift to help.", "The band snatches the feet home."),
            cautions=("Start with a knee that is not locked.", _BAND),
        ),
        "lying-curl-cable": Card(
            cues=("Hips stay down.", "Draw the heels to the seat, slow way back."),
            mistakes=("Hips lift to help.", "Lying so close that the cable goes slack."),
        ),
        "lying-curl-band-couch": Card(
            cues=("Hips stay down.", "Draw the heels to the seat, slow way back."),
            mistakes=("Hips lift to help.", "The couch creeps towards the anchor."),
        ),
        "calf-raise-standing": Card(
            checks=(
                "Pads snug on the shoulders",
                "Balls of the feet on the edge",
                "Feet alike on both sides",
            ),
        ),
        "calf-raise-bar": Card(
            checks=(
                "Bar on the traps in the rack, stops just below",
                "Balls of the feet on a low edge",
                "Hands on the rack",
            ),
            mistakes=("Bouncing.", "Knees bend and take over.", "Leaning ahead with the bar."),
            cautions=(
                "A bar on the back costs balance on the toes: stay inside the rack, stops set.",
            ),
        ),
        "calf-raise-one-leg": Card(
            checks=(
                "Ball of the foot on the edge",
                "Other foot behind the ankle",
                "Hand on a wall, weak side first",
            ),
        ),
        "calf-raise-seated": Card(
            checks=(
                "Balls of the feet on the edge",
                "Pad on the thighs, close to the knees",
                "Take the load off its catch with the heels up",
            ),
            mistakes=("Bouncing.", "The knees swing to help."),
            cautions=(
                "It does not replace raises with a straight knee: there the long calf works too.",
            ),
        ),
        "calf-raise-press": Card(
            checks=(
                "Stops set above your depth",
                "Press to almost straight knees",
                "Slide down until the balls of the feet are on the plate’s lower edge",
            ),
            mistakes=("Bouncing.", "Knees bend and take over.", "Feet slide down the plate."),
        ),
        "romanian-deadlift": Card(
            checks=(
                "Stand with the weight at the thighs",
                "Knees soft, feet hip width",
                "Brace before the hips go back",
            ),
        ),
        "deficit-romanian-deadlift": Card(
            checks=(
                "Box flat, cannot tip",
                "Stand with the weight at the thighs",
                "Brace before the hips go back",
            ),
            mistakes=("Chasing the floor with a round back.", "Turning it into a squat."),
        ),
        "stiff-leg-deadlift": Card(
            checks=(
                "Stand with the weight at the thighs",
                "Knees almost straight, feet hip width",
                "Brace before the hips go back",
            ),
            mistakes=("Knees locked back.", "Back rounds at the lengthened end."),
        ),
        "one-leg-romanian-deadlift": Card(
            checks=(
                "Something to hold within reach",
                "Stand on the weak side first, weight in the other hand",
                "Knee soft, free leg in line with the trunk",
            ),
            cues=(
                "Hips square to the floor.",
                "Free leg and trunk move as one.",
                "Hips back, not down.",
            ),
            mistakes=("The hip of the free leg opens.", "The back rounds.", "Hopping to balance."),
            cautions=(
                "Stop where the back would round.",
                "Hold something: balance gives out before the hip.",
            ),
        ),
        "good-morning": Card(
            checks=(
                "Rack at armpit height, stops set",
                "Bar low on the traps, hands tight",
                "Light first",
            ),
            mistakes=(
                "The bar rolls towards the neck.",
                "Back rounds.",
                "Turning it into a squat.",
            ),
        ),
        "wide-deadlift": Card(
            mistakes=(
                "Knees cave in.",
                "Hips too far from the bar.",
                "Jerking the bar off the floor.",
            ),
        ),
        "belt-hinge-boxes": Card(
            mistakes=("Squatting down to the load.", "The base lifts.", "Back rounds."),
            cautions=("Stop where the back would round.", _BELT, _BAND, _BOXES),
        ),
        "hip-thrust": Card(
            checks=(
                "Bench against a wall, its edge under the shoulder blades",
                "Load padded in the crease of the hip, held by the hands",
                "Feet so that the shins stand at the end",
            ),
        ),
        "hip-thrust-raised-feet": Card(
            checks=(
                "Bench against a wall, step against the wall ahead",
                "Load padded in the crease of the hip, held by the hands",
                "Heels on the step, shins upright at the end",
            ),
            mistakes=("The step slides away.", "Arching the back to finish."),
        ),
        "hip-thrust-band": Card(
            checks=(
                "Bench against a wall",
                "Band under both feet, or on pegs beside you, flat across the hips",
                "Equal on both sides, no slack at the lengthened end",
            ),
            mistakes=("The band rides up to the belly.", "Arching the back to finish."),
            cautions=("No back arch.", _BAND),
        ),
        "hip-thrust-one-leg": Card(
            checks=(
                "Bench against a wall",
                "One foot under the knee, the other leg straight",
                "Weak side first",
            ),
            mistakes=("Hips turn towards the free leg.", "Arching the back to finish."),
        ),
        "hip-thrust-machine": Card(
            mistakes=("Arching the back to finish.", "Feet too far ahead: the hamstrings cramp."),
            cautions=("No back arch.", "Know the catch before you take the load."),
        ),
        "back-extension-flat": Card(
            checks=(
                "Pad below the hip crease",
                "Ankles held by the rollers",
                "Hang down from the hip, back long",
            ),
            cues=("Fold over the edge from the hip.", "Stop level, in one line."),
            mistakes=("Swinging up.", "Arching past level."),
        ),
        "back-extension-couch": Card(
            cues=("Fold over the edge from the hip.", "Stop in one line."),
            mistakes=("The couch tips.", "Arching past the line."),
        ),
        "hanging-leg-raise": Card(
            checks=(
                "The bar holds you; a box to step down on",
                "Hang with the arms long",
                "Be still before the first rep",
            ),
            mistakes=("Swinging.", "Curling the trunk instead of bending the hip."),
        ),
        "multi-hip": Card(
            mistakes=("Arching the back to finish.", "The standing knee bends to help.")
        ),
        "kickback": Card(
            cues=("Hold on, trunk still.", "Draw the heel back and up, slow way forward."),
            mistakes=("Arching the back to finish.", "Swinging the leg."),
        ),
        "pendulum-hip-extension-couch": Card(
            cues=(
                "Trunk still on the couch, hands hold it.",
                "Raise the legs to one line, slow way down.",
            ),
            mistakes=("Swinging.", "Arching past the line.", "The couch tips."),
            cautions=("Stop in one line; no arch.", "A light couch tips: someone sits on it."),
        ),
        "side-lying-raise": Card(
            checks=(
                "Lie on the side in one line",
                "Lower leg bent, head on the arm",
                "Upper leg straight, toe in and down",
            ),
            cautions=("Pain at the side of the hip: less far up, or stop.",),
        ),
        "side-lying-raise-edge": Card(
            cues=(
                "Let the leg sink below the edge, then raise.",
                "Toe in and down, body in one line.",
            ),
            cautions=("A light couch tips: lie well on it.",),
        ),
        "pendulum-abduction": Card(
            checks=(
                "Lie on the side, hips at the table’s edge",
                "Strap above the upper ankle",
                "Hold the table, body in one line",
            ),
            mistakes=("Rolling back.", "Riding the swing."),
        ),
        "abduction-loop": Card(
            checks=(
                "Sit tall on the edge of a seat, feet flat",
                "Loop flat above the knees, taut with the knees together",
                "Trunk upright or leaning: note which",
            ),
            cues=("Open slowly, hold, slow way back.", "Feet flat, the knees lead."),
            mistakes=("The loop slides to the knees.", "Rocking the trunk."),
        ),
        "sissy-squat": Card(
            checks=(
                "Something to hold beside you",
                "Feet hip width, heels up first",
                "Hips straight before the knees travel",
            ),
            mistakes=("Hips fold: the load leaves the thighs.", "Bouncing at the lengthened end."),
        ),
        "reverse-nordic": Card(
            mistakes=("Hips fold: the load leaves the thighs.", "Dropping the last part."),
        ),
        "glute-ham-raise": Card(
            checks=(
                "Feet set so that the knees are just behind the pad",
                "Ankles held by the rollers",
                "Start upright, arms crossed",
            ),
            mistakes=(
                "Hips fold.",
                "Swinging up with the arms.",
                "Feet set so that the knees slip off the pad.",
            ),
        ),
        "glute-ham-ball": Card(
            checks=(
                "Half ball against the wall where the chest arrives",
                "Kneel on padding, ankles held by more than the pull",
                "Hands ready in front of the chest",
            ),
            mistakes=(
                "Hips fold.",
                "Falling on to the ball.",
            ),
            cautions=(
                "Few reps at first: it is hard on long hamstrings.",
                "The ball cannot roll from the wall.",
            ),
        ),
        "carriage-lunge-front": Card(
            mistakes=("The carriage bangs home.", "Weight shifts on to the carriage foot."),
        ),
        "carriage-pull-back": Card(
            mistakes=("The back arches to draw.", "The carriage bangs home."),
            cautions=(
                "Always the lightest spring the first time.",
                "Hold the rail: the carriage moves under you.",
            ),
        ),
        "carriage-side-push": Card(
            mistakes=("The pelvis tips.", "The knee rolls in.", "The carriage bangs home."),
        ),
        "carriage-kick": Card(mistakes=("The back arches.", "The carriage bangs home.")),
        "carriage-knee-drive": Card(mistakes=("Hips rise and fall.", "Shoulders drift back.")),
        "offset-lunge": Card(
            checks=(
                "Weight in the hand opposite the leg that works",
                "Stand tall, shoulders level",
                "Same leg every step, then turn round and change hands",
            ),
        ),
        "b-stance-squat": Card(
            checks=(
                "Feet hip width, then one back: its toes by the front heel",
                "Rear heel up, weight on the front foot",
                "Weak side first",
            ),
        ),
        "calf-raise-step": Card(
            checks=(
                "Balls of both feet on the edge",
                "Feet at the same distance and angle",
                "One hand on a wall",
            ),
        ),
        "back-extension-45": Card(
            checks=(
                "Pad below the hip crease",
                "Heels held, feet flat on the plate",
                "Arms crossed, or the weight at the breastbone",
            ),
        ),
        "lying-leg-raise": Card(
            checks=(
                "Lie with the hips at the bench’s edge",
                "Hands hold the bench behind the head",
                "Legs straight, low back down",
            ),
        ),
        "couch-knee-press": Card(
            checks=(
                "Couch against a wall, it cannot slide",
                "Shins on the couch, insteps over its edge",
                "Hands under the shoulders when the knees are straight",
            ),
        ),
    }
)
"""By exercise."""
