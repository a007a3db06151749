"""More disputes: where in the range, on what, with which exercise, one leg or two."""

from __future__ import annotations

from typing import Any

import numpy as np

from widearc.core.equipment import Band, LinearLaw, Sled, Spring, SpringLoad
from widearc.core.movement import Setup
from widearc.core.statics import Curve, joint_peak_nm
from widearc.core.units import to_deg
from widearc.core.words import Figure, Length, Mass, Moment, Name, Said, Share, Work
from widearc.usecases.arc.whole import whole_of
from widearc.usecases.claims.parts import (
    KG,
    LIGHT,
    PAIR,
    PUSHED,
    Claim,
    Param,
    Values,
    _at,
    _each,
    _frontal,
    _long,
    _mass,
    _more,
    _peak,
    _round_stack,
    _setup,
    _share,
    _split,
    _work,
)


def _within(c: Curve, joint: str, low: float, high: float) -> float:
    """Return the share of a joint's positive work done between two bends, %."""
    angle, demand = to_deg(c.motion.angles[joint][0]), np.maximum(c.demand_nm[joint][0], 0.0)
    step = np.abs(np.diff(angle))
    middle, force = 0.5 * (angle[1:] + angle[:-1]), 0.5 * (demand[1:] + demand[:-1])
    inside = (middle >= low) & (middle <= high)
    total = float((force * step).sum())
    return 100.0 * float((force * step)[inside].sum()) / total if total > 0 else 0.0


def _back_squat(v: Values, **more: Any) -> Setup:
    return _setup("back-squat-high", *_mass(v["kg"], "back-high"), **more)


def _band_squat(v: Values) -> Setup:
    law = LinearLaw(rest_m=0.8, rate_n_per_m=10 * v["rate"])
    band = Band(law=law, port="shoulders", anchor_port="sole", strands=2)
    return _setup("band-squat", band, knee_from_deg=95.0)


def _sprung(exercise: str, v: Values, more: int = 0) -> Setup:
    spring = Spring(start_n=0.2 * v["pull"], end_n=v["pull"], travel_m=0.9)
    return _setup(exercise, SpringLoad(spring=spring, count=round(v["count"]) + more))


def _effort(c: Curve) -> float:
    found = whole_of(c)
    return 0.0 if found is None else found.effort


MORE: tuple[Claim, ...] = (
    Claim(
        id="squeeze-or-stretch",
        title="Peak squeeze or deep stretch?",
        one_side="The hard place should be where the muscle is short: there it is squeezed.",
        other_side="The hard place should be where it is long: there it grows.",
        open="Which of the two makes more muscle: studies point both ways, more of them to long.",
        label="disputed",
        params=(KG,),
        joint="hip",
        cases=lambda v: (
            (Said("Hip thrust"), _setup("hip-thrust", *_mass(v["kg"], "hip-crease"))),
            (Said("Romanian deadlift"), _setup("romanian-deadlift", *_mass(v["kg"], "hands"))),
        ),
        says=lambda c, v: Said(
            "The thrust does {share} of its hip work in the last 30°, the hinge {share_2}; of "
            "gluteus maximus’ work {number} against {share_3} is in its long third.",
            share=Share(_within(c[0], "hip", -20, 30) / 100),
            share_2=Share(_within(c[1], "hip", -20, 30) / 100),
            number=Figure(round(_long(c[0], "gluteus_maximus"))),
            share_3=Share(_long(c[1], "gluteus_maximus") / 100),
        ),
        act="Take one of each in a week: a hinge or squat for long, a thrust for short.",
    ),
    Claim(
        id="full-or-partial",
        title="Full range or partials?",
        one_side="The full range trains the whole muscle.",
        other_side="Half reps where it is long do as much with less.",
        open="What grows from the half that is left out.",
        label="computed",
        params=(KG,),
        cases=lambda v: (
            (Said("Full, 110 to 5°"), _back_squat(v, knee_from_deg=110.0)),
            (Said("Lower half, 110 to 60°"), _back_squat(v, knee_from_deg=110.0, knee_to_deg=60.0)),
            (Said("Upper half, 60 to 5°"), _back_squat(v, knee_from_deg=60.0)),
        ),
        says=lambda c, v: Said(
            "The vasti do {work} a rep in full, {number} in the lower and {number_2} in the "
            "upper half: most of the work is below.",
            work=Work(_work(c[0], "vasti")),
            number=Figure(round(_work(c[1], "vasti"))),
            number_2=Figure(round(_work(c[2], "vasti"))),
        ),
        act="Squat full; if you cut something, cut the top, never the bottom.",
    ),
    Claim(
        id="heel-or-foot",
        title="Push through the heel or the whole foot?",
        one_side="Through the heel it goes to the glutes.",
        other_side="The whole foot carries; the heel alone only costs balance.",
        open="How far a person can shift the pressure and stay on the feet.",
        label="computed",
        params=(KG,),
        cases=lambda v: (
            (Said("Mid-foot"), _back_squat(v, pressure="mid", knee_from_deg=95.0)),
            (Said("Heel, knees as far ahead"), _back_squat(v, pressure="heel", knee_from_deg=95.0)),
            (
                Said("Mid-foot, sitting back"),
                _back_squat(v, pressure="mid", knee_from_deg=95.0, knee_travel=0.2),
            ),
        ),
        says=lambda c, v: Said(
            "Under the heel, knees as far ahead, the hip is asked {change} at most; sitting back "
            "over the whole foot {change_2}: what moves work to the hip is where hips and knees "
            "go, not the heel.",
            change=_more(_peak(c[1], "hip"), _peak(c[0], "hip")),
            change_2=_more(_peak(c[2], "hip"), _peak(c[0], "hip")),
        ),
        act="Keep the whole foot on the floor; to move work to the hip, lean or sit back instead.",
    ),
    Claim(
        id="free-or-rails",
        title="Free bar or rails?",
        one_side="Free is real: it trains what a bar on rails does for you.",
        other_side="Rails let the feet stand where the work is wanted.",
        open="What the small muscles gain from keeping a bar in place.",
        label="computed",
        params=(
            KG,
            Param(
                name="ahead",
                words="feet ahead on rails",
                unit="cm",
                default=25.0,
                low=0.0,
                high=45.0,
            ),
        ),
        cases=lambda v: (
            (Said("Free"), _back_squat(v, knee_from_deg=95.0)),
            (
                Said("On rails, feet {length} ahead", length=Length(v["ahead"] / 100)),
                _setup(
                    "rail-squat",
                    *_mass(v["kg"], "back-high"),
                    knee_from_deg=95.0,
                    foot_ahead_m=v["ahead"] / 100,
                ),
            ),
        ),
        says=lambda c, v: Said(
            "Hip : knee : ankle goes from {split} free to {split_2} on rails; the knee’s peak is "
            "{change}.",
            split=Name(_split(c[0])),
            split_2=Name(_split(c[1])),
            change=_more(_peak(c[1], "knee"), _peak(c[0], "knee")),
        ),
        act="Rails when alone, tired or for a chosen foot place; free when balance is the aim.",
    ),
    Claim(
        id="steady-or-not",
        title="Steady or wobbly?",
        one_side="Wobble wakes up more muscle.",
        other_side="Who wobbles lifts less, so the big muscles get less.",
        open="How much less each person lifts on one leg or on a ball: it is not computed.",
        label="computed",
        params=(LIGHT, PAIR),
        cases=lambda v: (
            (
                Said("Goblet squat"),
                _setup("goblet-squat", *_mass(v["kg"], "goblet"), knee_from_deg=90.0),
            ),
            (
                Said("Split squat, same weight"),
                _setup(
                    "split-squat",
                    *_mass(v["kg"], "goblet"),
                    knee_from_deg=90.0,
                    pair_share=v["pair"] / 100,
                ),
            ),
        ),
        says=lambda c, v: Said(
            "With the same weight one leg’s knee is asked {change} on the less steady of the "
            "two: what is lost by wobbling is lost from that.",
            change=_more(_peak(c[1], "knee"), _peak(c[0], "knee")),
        ),
        act="For strength take the steadiest set-up that fits, and hold on to something.",
    ),
    Claim(
        id="which-hamstrings",
        title="Which hamstring exercise?",
        one_side="Curls: the hamstrings bend the knee.",
        other_side="Hinges: there they work long and heavy.",
        open="Which length makes them grow more; the short head works in curls alone.",
        label="computed",
        params=(KG,),
        joint="hip",
        cases=lambda v: (
            (Said("Romanian deadlift"), _setup("romanian-deadlift", *_mass(v["kg"], "hands"))),
            (
                Said("Seated curl, {mass}", mass=Mass(40.0)),
                _setup("seated-leg-curl", _round_stack(40.0)),
            ),
            (
                Said("Lying curl, {mass}", mass=Mass(40.0)),
                _setup("lying-leg-curl", _round_stack(40.0)),
            ),
        ),
        says=lambda c, v: Said(
            "The long hamstrings do {shares} % of the work in this order, {parts} % of it in "
            "their long third.",
            shares=_each(_share(x, "long_hamstrings") for x in c),
            parts=_each(_long(x, "long_hamstrings") for x in c),
        ),
        act="Take a hinge and a curl, the seated one where there is one.",
    ),
    Claim(
        id="rectus-without-machine",
        title="Rectus femoris without a machine?",
        one_side="Squats are enough for the whole quadriceps.",
        other_side="It needs a straight hip while the knee works.",
        open="How much of it a person needs.",
        label="computed",
        params=(KG,),
        cases=lambda v: (
            (Said("Back squat"), _back_squat(v, knee_from_deg=95.0)),
            (Said("Reverse nordic"), _setup("reverse-nordic")),
            (Said("Sissy squat"), _setup("sissy-squat")),
        ),
        says=lambda c, v: Said(
            "Rectus femoris does {shares} % of the work in this order.",
            shares=_each(_share(x, "rectus_femoris") for x in c),
        ),
        act="Without a machine take reverse nordics, hips straight, few and slow.",
    ),
    Claim(
        id="springs-help-or-resist",
        title="Do the springs help or resist?",
        one_side="More springs are always harder.",
        other_side="Where they draw the carriage home under you, fewer are harder.",
        open="How much of the body stands on the carriage: half is taken.",
        label="computed",
        params=(
            Param(name="count", words="springs", unit="", default=2.0, low=1.0, high=4.0),
            Param(
                name="pull",
                words="pull of each at full travel",
                unit="N",
                default=45.0,
                low=10.0,
                high=250.0,
            ),
        ),
        cases=lambda v: (
            (Said("Push-out"), _sprung("carriage-push", v)),
            (Said("Push-out, one more"), _sprung("carriage-push", v, 1)),
            (Said("Front lunge"), _sprung("carriage-lunge-front", v)),
            (Said("Front lunge, one more"), _sprung("carriage-lunge-front", v, 1)),
        ),
        says=lambda c, v: Said(
            "With one spring more the push-out asks {change} effort of both legs, the front "
            "lunge {change_2}: light springs help, and from some pull on they resist.",
            change=_more(_effort(c[1]), _effort(c[0])),
            change_2=_more(_effort(c[3]), _effort(c[2])),
        ),
        act="Before you change a spring, look on Arc which way it gets harder.",
    ),
    Claim(
        id="one-leg-or-two",
        title="One leg or two?",
        one_side="Two legs lift more, so they do more.",
        other_side="One leg at a time finds the weak side and needs half the weight.",
        open="Whether a weak side catches up faster alone." + PUSHED,
        label="computed",
        params=(KG, PAIR),
        cases=lambda v: (
            (Said("Back squat"), _back_squat(v, knee_from_deg=95.0)),
            (
                Said("Split squat, half of it"),
                _setup(
                    "split-squat",
                    *_mass(v["kg"] / 2, "hands"),
                    knee_from_deg=95.0,
                    pair_share=v["pair"] / 100,
                ),
            ),
        ),
        says=lambda c, v: Said(
            "With half the load the front leg’s knee is asked {change} and its hip {change_2} "
            "than each leg of the squat.",
            change=_more(_peak(c[1], "knee"), _peak(c[0], "knee")),
            change_2=_more(_peak(c[1], "hip"), _peak(c[0], "hip")),
        ),
        act="Where heavy weights lack or one side is weaker, go to one leg, weak side first.",
    ),
    Claim(
        id="sore-knee-choice",
        title="Sore knee: press, band, lean or front squat?",
        one_side="The press spares the knee: the back lies.",
        other_side="What counts is the knee’s own peak, on either leg.",
        open="What hurts and why: a licensed professional’s question." + PUSHED,
        label="computed",
        params=(
            Param(name="kg", words="load", unit="kg", default=60.0, low=10.0, high=150.0),
            Param(
                name="rate",
                words="band’s stiffness, each strand",
                unit="N/10 cm",
                default=25.0,
                low=5.0,
                high=60.0,
            ),
        ),
        cases=lambda v: (
            (Said("Back squat"), _back_squat(v, knee_from_deg=95.0)),
            (
                Said("Front squat"),
                _setup("front-squat", *_mass(v["kg"], "front-rack"), knee_from_deg=95.0),
            ),
            (
                Said("Leg press, plates twice as much"),
                _setup(
                    "leg-press-45",
                    Sled(kg=2 * v["kg"], empty_kg=40.0),
                    knee_from_deg=85.0,
                ),
            ),
            (Said("Band squat"), _band_squat(v)),
            (
                Said("Split squat, leaning, half"),
                _setup(
                    "split-squat",
                    *_mass(v["kg"] / 2, "hands"),
                    trunk_lean_deg=35.0,
                    knee_from_deg=95.0,
                ),
            ),
        ),
        says=lambda c, v: Said(
            "The knee’s peak, either leg: {peaks} N·m in this order. Options to try, not "
            "treatment.",
            peaks=_each(joint_peak_nm(x, "knee") for x in c),
        ),
        act="Start with the one that asks least here, less deep and light; stop at pain.",
    ),
    Claim(
        id="offset-lunge",
        title="An offset load on a lunge?",
        one_side="One weight opposite the front leg wakes the side of the hip.",
        other_side="It is the same weight, so the same work.",
        open="How far each person sways." + PUSHED,
        label="computed",
        params=(LIGHT,),
        joint="hip",
        cases=lambda v: (
            (
                Said("Shared by both hands"),
                _setup("offset-lunge", *_mass(v["kg"], "hands"), load_left_share=0.5),
            ),
            (
                Said("All opposite the working leg"),
                _setup("offset-lunge", *_mass(v["kg"], "hands"), load_left_share=1.0),
            ),
        ),
        says=lambda c, v: Said(
            "At the side of the front hip {number} against {moment}; in the side view hip and "
            "knee are asked the same ({number_2} and {moment_2} at 80°).",
            number=Figure(round(_frontal(c[1]))),
            moment=Moment(_frontal(c[0])),
            number_2=Figure(round(_at(c[0], "knee", 80))),
            moment_2=Moment(_at(c[1], "knee", 80)),
        ),
        act="With one heavy weight, hold it opposite the front leg; change hands at the turn.",
    ),
)
"""In the order in which they are listed."""

ACTS = {
    "squat-hamstrings": "Give the hamstrings a hinge or a curl of their own.",
    "squat-rectus": "Add a leg extension, or a reverse nordic where there is no machine.",
    "seat-recline": "Lean back where the seat allows it and the rest feels alike.",
    "press-foot-height": "Choose the height at which hips stay down and the knee is well.",
    "lunge-lean": "Lean for the hip, stay upright for the knee.",
    "opposite-hand": "Hold the weight opposite the working leg.",
    "band-constant": "Hook the band in so that it is just straight at the lengthened end.",
    "thrust-or-squat": "Take both: the squat long, the thrust short.",
    "couch-or-45": "Choose the bench by where it shall be hard.",
    "belt-band-hip": "Use the belt for the knee; give the hip another exercise.",
    "half-load": "Start with the load that Swap gives for one leg, not with half.",
    "springs-by-rule": "Add the pulls at the mark and at the stop before you call one heavier.",
    "extension-hardest": "Read the pull at three angles at the Bench before you trust a machine.",
    "depth": "As deep as hips, ankles and back stay well, then heavier.",
    "lock-out": "Stop just short of a locked knee.",
    "sore-knee": "Offer what asks the knee less, and send pain to a professional.",
    "split-hip-or-knee": "Long and leaning for the hip, short and upright for the knee.",
    "stepping-or-static": "Static first; step when that is steady.",
    "front-load-back": "Where the back tires first, load in front or on a belt.",
    "foot-width": "Let hips and knees choose the width.",
    "breathing": "Out on effort; hold only for a heavy bar and a healthy heart.",
    "calves-daily": "Begin with two days a week, and add while they recover.",
}
"""What to do about each dispute, in one sentence."""
