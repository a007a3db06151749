"""Disputes of practice, one at a time: both sides in a sentence, what can be computed of it, what
cannot.

Every number is computed anew from set-ups that the visitor may change; only the sentences of the
two sides, what stays open and what to do are written down. Body: 80 kg and 1.80 m unless said.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from widearc.core.errors import PostureError, UnknownNameError
from widearc.core.statics import curve, joint_work_j, low_back_ratio
from widearc.core.words import (
    UNSAID,
    Angle,
    Figure,
    Length,
    Mass,
    Moment,
    Name,
    Said,
    Share,
    Work,
    sentences,
)
from widearc.usecases.claims.more import ACTS, MORE
from widearc.usecases.claims.parts import (
    DEPTH,
    KG,
    LIGHT,
    PAIR,
    PUSH,
    PUSHED,
    SLED,
    STACK,
    Cam,
    Claim,
    ClaimView,
    Param,
    Values,
    _at,
    _band,
    _band_words,
    _cam_words,
    _each,
    _end,
    _front,
    _frontal,
    _hand,
    _long,
    _longer,
    _mass,
    _more,
    _on_cam,
    _one_leg_start,
    _peak,
    _peak_at,
    _press,
    _round_stack,
    _setup,
    _share,
    _split,
    _split_squat,
    _spring_words,
    _squat,
    _work,
)

_CLAIMS: tuple[Claim, ...] = (
    Claim(
        id="squat-hamstrings",
        title="Do squats train the hamstrings?",
        one_side="Hip extension in a deep squat works the hamstrings too.",
        other_side="They shorten at the hip and lengthen at the knee, so they hardly do anything.",
        open="How much tension at nearly one length makes a muscle grow.",
        label="computed",
        params=(KG, DEPTH),
        joint="hip",
        cases=lambda v: (
            (Said("Back squat"), _squat(v)),
            (Said("Romanian deadlift"), _setup("romanian-deadlift", *_mass(v["kg"], "hands"))),
        ),
        says=lambda c, v: Said(
            "The long hamstrings do {share} of the squat’s work and {share_2} of the hinge’s: "
            "under tension in both, but in the squat they hardly shorten.",
            share=Share(_share(c[0], "long_hamstrings") / 100),
            share_2=Share(_share(c[1], "long_hamstrings") / 100),
        ),
    ),
    Claim(
        id="squat-rectus",
        title="Do squats train rectus femoris?",
        one_side="It is a quadriceps, and squats are for the quadriceps.",
        other_side="It bends the hip, which a squat has to straighten, so it stays out.",
        open="Whether a trained person’s nerves share as this model does.",
        label="computed",
        params=(
            KG,
            Param(
                name="stack",
                words="weight on the stack",
                unit="kg",
                default=40.0,
                low=5.0,
                high=150.0,
            ),
        ),
        cases=lambda v: (
            (Said("Back squat"), _squat(v)),
            (Said("Leg extension"), _setup("leg-extension", _round_stack(v["stack"]))),
        ),
        says=lambda c, v: Said(
            "Rectus femoris does {share} of the squat’s work and {share_2} of the leg extension’s.",
            share=Share(_share(c[0], "rectus_femoris") / 100),
            share_2=Share(_share(c[1], "rectus_femoris") / 100),
        ),
    ),
    Claim(
        id="seat-recline",
        title="Does leaning back in a leg extension change anything?",
        one_side="The knee moves alike, so the seat does not matter.",
        other_side="An open hip stretches rectus femoris.",
        open="Whether the longer length makes it grow more.",
        label="computed",
        params=(
            STACK,
            Param(
                name="hip",
                words="hip bend, leant back",
                unit="°",
                default=40.0,
                low=10.0,
                high=85.0,
            ),
        ),
        cases=lambda v: (
            (
                Said("Upright, hip 90°"),
                _setup("leg-extension", _round_stack(v["kg"]), hip_deg=90.0),
            ),
            (
                Said("Leant back, hip {angle}", angle=Angle.of_deg(v["hip"])),
                _setup("leg-extension", _round_stack(v["kg"]), hip_deg=v["hip"]),
            ),
        ),
        says=lambda c, v: Said(
            "Leant back, rectus femoris is {longer} longer at every knee angle; the demand at "
            "the knee is the same.",
            longer=_longer(90.0, v["hip"]),
        ),
    ),
    Claim(
        id="press-foot-height",
        title="Feet high or low on the leg press?",
        one_side="Higher feet move the work to the hip.",
        other_side="The sled is the same: no difference.",
        open="Where the feet feel right on a given plate, and how much a foot pushes across "
        "it: half of the push that costs least is taken; with all of it foot height hardly "
        "matters, with none of it nearly all.",
        label="computed",
        params=(
            SLED,
            PUSH,
            Param(name="high", words="feet higher by", unit="cm", default=15.0, low=1.0, high=19.0),
        ),
        cases=lambda v: (
            (Said("Feet at {length}", length=Length(0.1)), _press(v, 0.10)),
            (
                Said("Feet at {length}", length=Length(0.1 + v["high"] / 100)),
                _press(v, 0.10 + v["high"] / 100),
            ),
        ),
        says=lambda c, v: Said(
            "Higher feet ask {change} of the hip at most and {change_2} of the knee.",
            change=_more(_peak(c[1], "hip"), _peak(c[0], "hip")),
            change_2=_more(_peak(c[1], "knee"), _peak(c[0], "knee")),
        ),
    ),
    Claim(
        id="lunge-lean",
        title="Lunge upright or leaning?",
        one_side="Leaning takes load off the knee and gives it to the hip.",
        other_side="Upright is the only right way.",
        open="What a sore knee or back makes of it." + PUSHED,
        label="computed",
        params=(
            LIGHT,
            PAIR,
            Param(name="lean", words="trunk lean", unit="°", default=35.0, low=5.0, high=45.0),
        ),
        cases=lambda v: (
            (Said("Upright"), _split_squat(v, 0.0)),
            (Said("Leaning {angle}", angle=Angle.of_deg(v["lean"])), _split_squat(v, v["lean"])),
        ),
        says=lambda c, v: Said(
            "Hip : knee : ankle goes from {split} to {split_2}; the front foot carries up to "
            "{number} instead of {share} of all. The knee’s peak is {change} and the hip’s "
            "{change_2}.",
            split=Name(_split(c[0])),
            split_2=Name(_split(c[1])),
            number=Figure(round(_front(c[1]))),
            share=Share(_front(c[0]) / 100),
            change=_more(_peak(c[1], "knee"), _peak(c[0], "knee")),
            change_2=_more(_peak(c[1], "hip"), _peak(c[0], "hip")),
        ),
    ),
    Claim(
        id="opposite-hand",
        title="Weight in the opposite hand?",
        one_side="A weight opposite the working leg makes the side of the hip work.",
        other_side="It only unbalances.",
        open="How wide each person sways.",
        label="computed",
        params=(LIGHT,),
        joint="hip",
        cases=lambda v: (
            (
                Said("Same side as the working leg"),
                _setup("one-leg-romanian-deadlift", *_mass(v["kg"], _hand(same=True))),
            ),
            (
                Said("Opposite side"),
                _setup("one-leg-romanian-deadlift", *_mass(v["kg"], _hand(same=False))),
            ),
        ),
        says=lambda c, v: Said(
            "At the side of the working hip {number} against {moment}: the opposite hand asks "
            "{change} of gluteus medius. In the side view both are alike.",
            number=Figure(round(_frontal(c[1]))),
            moment=Moment(_frontal(c[0])),
            change=_more(_frontal(c[1]), _frontal(c[0])),
        ),
    ),
    Claim(
        id="band-constant",
        title="Is a band constant tension?",
        one_side="A band keeps tension on the muscle all the way.",
        other_side="Its pull grows, and is slack first.",
        open="Which curve a muscle likes.",
        label="computed",
        params=(
            Param(
                name="rest",
                words="rest length of each strand",
                unit="cm",
                default=80.0,
                low=40.0,
                high=140.0,
            ),
            Param(
                name="rate",
                words="stiffness, each strand",
                unit="N/10 cm",
                default=25.0,
                low=5.0,
                high=80.0,
            ),
        ),
        cases=lambda v: (
            (Said("Band squat"), _setup("band-squat", _band(v))),
            (Said("Body weight alone"), _setup("bodyweight-squat")),
        ),
        says=lambda c, v: _band_words(c[0], v),
    ),
    Claim(
        id="thrust-or-squat",
        title="Hip thrust or squat for the glutes?",
        one_side="The thrust is hardest with the glutes short, so it is the better one.",
        other_side="The squat works them long, which is what counts.",
        open="Which length makes them grow more: studies point both ways.",
        label="disputed",
        params=(KG,),
        joint="hip",
        cases=lambda v: (
            (Said("Back squat"), _squat(v)),
            (Said("Hip thrust"), _setup("hip-thrust", *_mass(v["kg"], "hip-crease"))),
        ),
        says=lambda c, v: Said(
            "Gluteus maximus does {work} a rep in the squat, {share} of it in its long third, "
            "and {work_2} in the thrust, {share_2} long.",
            work=Work(_work(c[0], "gluteus_maximus")),
            share=Share(_long(c[0], "gluteus_maximus") / 100),
            work_2=Work(_work(c[1], "gluteus_maximus")),
            share_2=Share(_long(c[1], "gluteus_maximus") / 100),
        ),
    ),
    Claim(
        id="couch-or-45",
        title="Back extension level or at 45°?",
        one_side="It is the same movement.",
        other_side="They are hard at different places.",
        open="Which place is wanted.",
        label="computed",
        params=(LIGHT,),
        joint="hip",
        cases=lambda v: (
            (Said("Level bench"), _setup("back-extension-flat", *_mass(v["kg"], "goblet"))),
            (Said("45° bench"), _setup("back-extension-45", *_mass(v["kg"], "goblet"))),
        ),
        says=lambda c, v: Said(
            "The level bench is hardest at {angle} of hip bend, the 45° bench at {angle_2}; at "
            "90° the level one asks {moment}, the other {number}.",
            angle=Angle.of_deg(_peak_at(c[0], "hip")),
            angle_2=Angle.of_deg(_peak_at(c[1], "hip")),
            moment=Moment(_at(c[0], "hip", 88)),
            number=Figure(round(_at(c[1], "hip", 88))),
        ),
    ),
    Claim(
        id="belt-band-hip",
        title="Does a band on a belt load the hip?",
        one_side="A belt squat is a squat, so it loads the hip.",
        other_side="The pull goes through the hip and hardly loads it.",
        open="Nothing here: it is statics.",
        label="computed",
        joint="hip",
        params=(
            Param(
                name="rest",
                words="rest length of each strand",
                unit="cm",
                default=40.0,
                low=20.0,
                high=80.0,
            ),
            Param(
                name="rate",
                words="stiffness, each strand",
                unit="N/10 cm",
                default=60.0,
                low=5.0,
                high=120.0,
            ),
        ),
        cases=lambda v: (
            (Said("Body weight"), _setup("belt-squat-home")),
            (Said("With the band on the belt"), _setup("belt-squat-home", _band(v, "hip-belt"))),
        ),
        says=lambda c, v: Said(
            "The band adds {moment} at the knee and {moment_2} at the hip at most.",
            moment=Moment(_peak(c[1], "knee") - _peak(c[0], "knee")),
            moment_2=Moment(_peak(c[1], "hip") - _peak(c[0], "hip")),
        ),
    ),
    Claim(
        id="half-load",
        title="Half the load for one leg?",
        one_side="One leg takes half of what two take.",
        other_side="The body’s own weight counts too.",
        open="Balance, which no load settles." + PUSHED,
        label="computed",
        params=(KG, PAIR),
        cases=lambda v: (
            (
                Said("Goblet squat on two legs"),
                _setup("goblet-squat", *_mass(v["kg"], "goblet"), knee_from_deg=95.0),
            ),
            (
                Said("Split squat with half of it"),
                _setup(
                    "split-squat",
                    *_mass(v["kg"] / 2, "goblet"),
                    knee_from_deg=95.0,
                    pair_share=v["pair"] / 100,
                ),
            ),
        ),
        says=lambda c, v: Said(
            "With half the load the front knee is asked {change} than each knee of two, and the "
            "hip {change_2}: half is no rule for both. {words}",
            change=_more(_peak(c[1], "knee"), _peak(c[0], "knee")),
            change_2=_more(_peak(c[1], "hip"), _peak(c[0], "hip")),
            words=_one_leg_start(v, c[0]),
        ),
    ),
    Claim(
        id="springs-by-rule",
        title="Is one heavy spring more than three lighter ones?",
        one_side="Go by the order of the springs.",
        other_side="Add pulls at the mark and at the stop.",
        open="Nothing here: springs add.",
        label="computed",
        params=(
            Param(
                name="three",
                words="three lighter ones together, at the first mark",
                unit="N",
                default=50.0,
                low=0.0,
                high=300.0,
            ),
            Param(
                name="three_end",
                words="the same at full travel",
                unit="N",
                default=240.0,
                low=1.0,
                high=900.0,
            ),
            Param(
                name="one",
                words="the heavy one at the first mark",
                unit="N",
                default=42.0,
                low=0.0,
                high=300.0,
            ),
            Param(
                name="one_end",
                words="the same at full travel",
                unit="N",
                default=300.0,
                low=1.0,
                high=900.0,
            ),
        ),
        cases=lambda v: (),
        says=lambda c, v: _spring_words(v),
    ),
    Claim(
        id="extension-hardest",
        title="Where is a leg extension hardest?",
        own=_on_cam,
        own_says=_cam_words,
        own_kind="leg extension",
        one_side="At the straight knee.",
        other_side="It depends on what makes the load.",
        open="What a given cam does: read it at the Bench.",
        label="computed",
        params=(
            STACK,
            Param(
                name="foot",
                words="dumbbell on the foot",
                unit="kg",
                default=15.0,
                low=1.0,
                high=60.0,
            ),
        ),
        cases=lambda v: (
            (Said("Machine with a round pulley"), _setup("leg-extension", _round_stack(v["kg"]))),
            (
                Said("Dumbbell held by the feet"),
                _setup("leg-extension-dumbbell", *_mass(v["foot"], "ankle"), seat_m=0.6),
            ),
        ),
        says=lambda c, v: Said(
            "Under a round pulley only the shank’s own weight makes a difference: {moment} at "
            "85°, {number} at 10°. The dumbbell asks {number_2} at 85°, {number_3} at 10°.",
            moment=Moment(_at(c[0], "knee", 85)),
            number=Figure(round(_at(c[0], "knee", 10))),
            number_2=Figure(round(_at(c[1], "knee", 85))),
            number_3=Figure(round(_at(c[1], "knee", 10))),
        ),
    ),
    Claim(
        id="depth",
        title="How deep?",
        one_side="Deeper asks more of everything.",
        other_side="Beyond level thighs nothing is gained.",
        open="What a hip, an ankle or a back allows, and what grows.",
        label="computed",
        params=(KG, DEPTH),
        cases=lambda v: (
            (Said("To 90°"), _squat({**v, "deep": 90.0})),
            (Said("To {angle}", angle=Angle.of_deg(v["deep"])), _squat(v)),
        ),
        says=lambda c, v: Said(
            "Vasti do {number} against {work} a rep, gluteus maximus {number_2} against "
            "{number_3}; the knee’s peak is {change}.",
            number=Figure(round(_work(c[1], "vasti"))),
            work=Work(_work(c[0], "vasti")),
            number_2=Figure(round(_work(c[1], "gluteus_maximus"))),
            number_3=Figure(round(_work(c[0], "gluteus_maximus"))),
            change=_more(_peak(c[1], "knee"), _peak(c[0], "knee")),
        ),
    ),
    Claim(
        id="lock-out",
        title="Lock out or stop short?",
        one_side="Stopping short keeps the tension on.",
        other_side="Only a full lift counts.",
        open="How a rest in the lift changes a set.",
        label="computed",
        params=(KG,),
        cases=lambda v: (
            (Said("Back squat"), _squat(v)),
            (
                Said("Leg extension, {mass}", mass=Mass(40.0)),
                _setup("leg-extension", _round_stack(40.0)),
            ),
        ),
        says=lambda c, v: Said(
            "In the last 15° before straight the squat has {share} of its peak left at the knee, "
            "the leg extension {share_2}: stopping short skips little in the one and much in the "
            "other. Under load stop short of a locked knee.",
            share=Share(_end(c[0]) / 100),
            share_2=Share(_end(c[1]) / 100),
        ),
    ),
    Claim(
        id="sore-knee",
        title="Options for a sore knee",
        one_side="Leave the knee alone.",
        other_side="There is always something that asks it less.",
        open="What hurts and why: a licensed professional’s question.",
        label="computed",
        params=(KG,),
        cases=lambda v: (
            (Said("Back squat"), _squat(v)),
            (Said("Back squat to 70°"), _squat({**v, "deep": 70.0})),
            (Said("Hip thrust"), _setup("hip-thrust", *_mass(v["kg"], "hip-crease"))),
            (Said("Romanian deadlift"), _setup("romanian-deadlift", *_mass(v["kg"], "hands"))),
        ),
        says=lambda c, v: Said(
            "The knee’s peak: {peaks} N·m in this order. Options to try, not treatment.",
            peaks=_each(_peak(x, "knee") for x in c),
        ),
    ),
    Claim(
        id="split-hip-or-knee",
        title="Is a split squat for the hip or the knee?",
        one_side="It is a knee exercise.",
        other_side="It is a glute exercise.",
        open="Nothing: it is both, by step and lean." + PUSHED,
        label="computed",
        params=(LIGHT, PAIR),
        joint="hip",
        cases=lambda v: (
            (Said("Short step, upright"), _split_squat(v, 0.0, step_m=0.55)),
            (Said("Long step, leaning 30°"), _split_squat(v, 30.0, step_m=0.9)),
        ),
        says=lambda c, v: Said(
            "Hip : knee : ankle {split} short and upright, {split_2} long and leaning.",
            split=Name(_split(c[0])),
            split_2=Name(_split(c[1])),
        ),
    ),
    Claim(
        id="stepping-or-static",
        title="Stepping lunge or static split squat?",
        one_side="They are the same.",
        other_side="In a step the front leg carries it all.",
        open="The push at landing, which is not computed." + PUSHED,
        label="computed",
        params=(
            LIGHT,
            PAIR,
            Param(
                name="leaves",
                words="rear foot off the floor after",
                unit="% of the lift",
                default=30.0,
                low=10.0,
                high=60.0,
            ),
        ),
        cases=lambda v: (
            (
                Said("Static"),
                _setup(
                    "split-squat",
                    *_mass(v["kg"], "hands"),
                    knee_from_deg=90.0,
                    trunk_lean_deg=20.0,
                    pair_share=v["pair"] / 100,
                ),
            ),
            (
                Said("Reverse lunge"),
                _setup(
                    "reverse-lunge",
                    *_mass(v["kg"], "hands"),
                    pair_share=v["pair"] / 100,
                    leaves_at=v["leaves"] / 100,
                ),
            ),
        ),
        says=lambda c, v: Said(
            "The front leg does {work} a rep in the lunge and {work_2} in the static one, where "
            "the rear leg keeps a share. Hip : knee : ankle {split} against {split_2}.",
            work=Work(joint_work_j(c[1])),
            work_2=Work(joint_work_j(c[0])),
            split=Name(_split(c[1])),
            split_2=Name(_split(c[0])),
        ),
    ),
    Claim(
        id="front-load-back",
        title="Does a front load spare the back?",
        one_side="The trunk stays more upright, so the back has less to do.",
        other_side="The same weight is the same weight.",
        open="What a back bears: a professional’s question.",
        label="computed",
        params=(Param(name="kg", words="load", unit="kg", default=60.0, low=0.0, high=200.0),),
        joint="hip",
        cases=lambda v: (
            (Said("Back squat, low bar"), _squat(v, "back-squat-low", "back-low")),
            (Said("Front squat"), _squat(v, "front-squat", "front-rack")),
        ),
        says=lambda c, v: Said(
            "At the lowest lumbar joint the front squat asks {change} than the low bar, by a "
            "single-muscle estimate; only the ratio means anything.",
            change=_more(low_back_ratio(c[0], c[1]) or 1.0, 1.0),
        ),
    ),
    Claim(
        id="foot-width",
        title="Foot width and toe direction for the inner or outer quadriceps",
        one_side="Narrow for the outer, wide for the inner part.",
        other_side="One tendon, one curve.",
        open=(
            "All of it: no mechanics of this program tells parts of the quadriceps apart, "
            "and no "
            "number is given."
        ),
        label="practice",
    ),
    Claim(
        id="breathing",
        title="Breathe out on effort or hold?",
        one_side="Breathing out keeps the pressure down.",
        other_side="Holding keeps the trunk firm under a heavy bar.",
        open="All of it. With a heart or blood-pressure condition ask a licensed professional.",
        label="practice",
    ),
    Claim(
        id="calves-daily",
        title="Calves daily or with the legs?",
        one_side="They are used to it and bear it daily.",
        other_side="They need rest like any other muscle.",
        open="All of it: recovery is not computed.",
        label="practice",
    ),
)

CLAIMS: Mapping[str, Claim] = {
    found.id: replace(found, act=found.act or ACTS[found.id]) for found in (*_CLAIMS, *MORE)
}
"""Every dispute by its id, in the order of the list."""


def claim(claim_id: str) -> Claim:
    """Return a claim by its id; UnknownNameError lists the others."""
    if claim_id not in CLAIMS:
        raise UnknownNameError("claim", claim_id, CLAIMS)
    return CLAIMS[claim_id]


MOST_OWN = 2  # machines of the trainer's beside the cases


def worked_out(found: Claim, values: Values, cams: Sequence[tuple[str, Cam]] = ()) -> ClaimView:
    """Return a claim worked out for values by name, the usual ones where missing. InputError names
    the value. cams: the trainer's own machines of the claim's kind, by name, as they were read.
    """
    full = {p.name: float(values.get(p.name, p.default)) for p in found.params}
    for p in found.params:
        p.check(full[p.name])
    if found.cases is None or found.says is None:
        return ClaimView(claim=found, values=full, curves=(), answer=UNSAID)
    own = [found.own(full, *cam) for cam in cams[:MOST_OWN]] if found.own is not None else []
    try:
        cases = (*found.cases(full), *own)
        curves = tuple((words, curve(setup, lowering=False)) for words, setup in cases)
    except PostureError as error:
        return ClaimView(claim=found, values=full, curves=(), answer=UNSAID, problem=error.reason)
    answer = [found.says(tuple(c for _, c in curves), full)]
    if found.own_says is not None and own:
        answer += [found.own_says(words, c) for words, c in curves[-len(own) :]]
    return ClaimView(claim=found, values=full, curves=curves, answer=sentences(answer))
