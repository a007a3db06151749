"""Disputes of practice, one at a time: both sides in a sentence, what can be computed of it, what
cannot.

Every number is computed anew from set-ups that the visitor may change; only the sentences of the
two sides and what stays open are written down. Body: 80 kg and 1.80 m unless said.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.body import Body, Limits
from widearc.core.equipment import (
    Band,
    FreeMass,
    LinearLaw,
    Sled,
    Spring,
    Stack,
    lighter_until_m,
    parallel,
)
from widearc.core.errors import InputError, PostureError, UnknownNameError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.muscle import MUSCLES, paths_of, positive_work_j
from widearc.core.statics import (
    Curve,
    curve,
    frontal_nm,
    joint_work_j,
    low_back_ratio,
    mean_split,
    share_near_straight,
)
from widearc.core.units import DEG, to_deg
from widearc.usecases.arc.arc import muscles

Values = Mapping[str, float]
Case = tuple[str, Setup]
BODY, LIMITS = Body(), Limits(hip_flexion_deg=155.0)
DATED = "2026-11-29"


@dataclass(frozen=True, slots=True, kw_only=True)
class Param:
    """A value that a visitor may change: range and unit."""

    name: str
    words: str
    unit: str
    default: float
    low: float
    high: float

    def check(self, value: float) -> None:
        """Refuse a value out of the range."""
        if not self.low <= value <= self.high:
            unit = self.unit if self.unit == "°" else f" {self.unit}"
            allowed = f"from {self.low:g} to {self.high:g}{unit}"
            raise InputError(self.name, f"{value:g}{unit}", allowed)


@dataclass(frozen=True, slots=True, kw_only=True)
class Claim:
    """One dispute. label: computed, published, practice or disputed; cases None: nothing to
    compute.

    says: the answer in a sentence with its numbers, from the curves in the order of the cases.
    """

    id: str
    title: str
    one_side: str
    other_side: str
    open: str
    label: str
    params: tuple[Param, ...] = ()
    joint: str = "knee"
    cases: Callable[[Values], tuple[Case, ...]] | None = None
    says: Callable[[tuple[Curve, ...], Values], str] | None = None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class ClaimView:
    """A claim worked out: words and curve of each case, the answer; problem: why it cannot be
    worked out.
    """

    claim: Claim
    values: Values
    curves: tuple[tuple[str, Curve], ...]
    answer: str
    problem: str = ""


def _setup(exercise: str, *loads: Any, **options: Any) -> Setup:
    return Setup(
        exercise=EXERCISES[exercise], body=BODY, limits=LIMITS, options=options, loads=tuple(loads)
    )


def _mass(kg: float, port: str) -> tuple[FreeMass, ...]:
    return (FreeMass(kg=kg, port=port),) if kg > 0 else ()


def _round_stack(kg: float) -> Stack:
    return Stack(kg=kg, angle_deg=(-20.0, 130.0), radius_m=(0.12, 0.12))


def _peak(c: Curve, joint: str) -> float:
    """Return the greatest demand for extension, N·m: what asks for bending is another matter."""
    return float(np.maximum(c.demand_nm[joint][0], 0.0).max()) if joint in c.demand_nm else 0.0


def _peak_at(c: Curve, joint: str) -> float:
    most = int(np.argmax(np.abs(c.demand_nm[joint][0])))
    return float(to_deg(c.motion.angles[joint][0])[most])


def _share(c: Curve, group: str) -> float:
    use = muscles(c)
    return (
        0.0
        if use is None
        else 100.0 * max(0.0, use.of(group).work_j) / max(positive_work_j(use), 1e-9)
    )


def _work(c: Curve, group: str) -> float:
    use = muscles(c)
    return 0.0 if use is None else use.of(group).work_j


def _split(c: Curve) -> str:
    return " : ".join(f"{100 * share:.0f}" for share in mean_split(c, extension=True).values())


def _more(there: float, here: float) -> str:
    change = 100 * (there / here - 1)
    return f"{abs(change):.0f} % {'more' if change >= 0 else 'less'}"


KG = Param(name="kg", words="load", unit="kg", default=80.0, low=0.0, high=300.0)
LIGHT = Param(name="kg", words="load", unit="kg", default=20.0, low=1.0, high=100.0)
STACK = Param(name="kg", words="weight on the stack", unit="kg", default=40.0, low=5.0, high=150.0)
SLED = Param(name="kg", words="plates on the sled", unit="kg", default=120.0, low=0.0, high=400.0)


PUSH = Param(
    name="push", words="push across the plate", unit="%", default=50.0, low=0.0, high=100.0
)
PAIR = Param(
    name="pair", words="push between the feet", unit="%", default=100.0, low=0.0, high=130.0
)
PUSHED = (
    " How much feet push apart nobody knows: as costs least unless changed here, and with less of "
    "it the hip is asked more and the knee less."
)
DEPTH = Param(
    name="deep",
    words="knee bend at the lengthened end",
    unit="°",
    default=110.0,
    low=60.0,
    high=130.0,
)


def _squat(
    v: Values, exercise: str = "back-squat-high", port: str = "back-high", **more: Any
) -> Setup:
    return _setup(exercise, *_mass(v["kg"], port), knee_from_deg=v.get("deep", 110.0), **more)


CLAIMS: Mapping[str, Claim] = {
    claim.id: claim
    for claim in (
        Claim(
            id="squat-hamstrings",
            title="Do squats train the hamstrings?",
            one_side="Hip extension in a deep squat works the hamstrings too.",
            other_side="They shorten at the hip and lengthen at the knee, "
            "so they hardly do anything.",
            open="How much tension at nearly one length makes a muscle grow.",
            label="computed",
            params=(KG, DEPTH),
            joint="hip",
            cases=lambda v: (
                ("Back squat", _squat(v)),
                ("Romanian deadlift", _setup("romanian-deadlift", *_mass(v["kg"], "hands"))),
            ),
            says=lambda c, v: (
                f"The long hamstrings do {_share(c[0], 'long_hamstrings'):.0f} % of the squat’s "
                "work and "
                f"{_share(c[1], 'long_hamstrings'):.0f} % of the hinge’s: under tension in both, "
                "but in the squat they "
                "hardly shorten."
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
                ("Back squat", _squat(v)),
                ("Leg extension", _setup("leg-extension", _round_stack(v["stack"]))),
            ),
            says=lambda c, v: (
                f"Rectus femoris does {_share(c[0], 'rectus_femoris'):.0f} % of the squat’s work "
                "and "
                f"{_share(c[1], 'rectus_femoris'):.0f} % of the leg extension’s."
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
                ("Upright, hip 90°", _setup("leg-extension", _round_stack(v["kg"]), hip_deg=90.0)),
                (
                    f"Leant back, hip {v['hip']:.0f}°",
                    _setup("leg-extension", _round_stack(v["kg"]), hip_deg=v["hip"]),
                ),
            ),
            says=lambda c, v: (
                f"Leant back, rectus femoris is {_longer(90.0, v['hip']):.0f} mm longer at every "
                "knee angle; "
                "the demand at the knee is the same."
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
                Param(
                    name="high", words="feet higher by", unit="cm", default=15.0, low=1.0, high=19.0
                ),
            ),
            cases=lambda v: (
                ("Feet at 10 cm", _press(v, 0.10)),
                (f"Feet at {10 + v['high']:.0f} cm", _press(v, 0.10 + v["high"] / 100)),
            ),
            says=lambda c, v: (
                f"Higher feet ask {_more(_peak(c[1], 'hip'), _peak(c[0], 'hip'))} of the hip at "
                "most and "
                f"{_more(_peak(c[1], 'knee'), _peak(c[0], 'knee'))} of the knee."
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
                ("Upright", _split_squat(v, 0.0)),
                (f"Leaning {v['lean']:.0f}°", _split_squat(v, v["lean"])),
            ),
            says=lambda c, v: (
                f"Hip : knee : ankle goes from {_split(c[0])} to {_split(c[1])}; the front foot "
                "carries up to "
                f"{_front(c[1]):.0f} instead of {_front(c[0]):.0f} % of all. The knee’s peak is "
                f"{_more(_peak(c[1], 'knee'), _peak(c[0], 'knee'))} and the hip’s "
                f"{_more(_peak(c[1], 'hip'), _peak(c[0], 'hip'))}."
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
                    "Same side as the working leg",
                    _setup("one-leg-romanian-deadlift", *_mass(v["kg"], _hand(same=True))),
                ),
                (
                    "Opposite side",
                    _setup("one-leg-romanian-deadlift", *_mass(v["kg"], _hand(same=False))),
                ),
            ),
            says=lambda c, v: (
                f"At the side of the working hip {_frontal(c[1]):.0f} against "
                f"{_frontal(c[0]):.0f} N·m: the opposite "
                f"hand asks {_more(_frontal(c[1]), _frontal(c[0]))} of gluteus medius. In the "
                "side view both are alike."
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
                    words="pull per 10 cm, each strand",
                    unit="N",
                    default=25.0,
                    low=5.0,
                    high=80.0,
                ),
            ),
            cases=lambda v: (
                ("Band squat", _setup("band-squat", _band(v))),
                ("Body weight alone", _setup("bodyweight-squat")),
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
                ("Back squat", _squat(v)),
                ("Hip thrust", _setup("hip-thrust", *_mass(v["kg"], "hip-crease"))),
            ),
            says=lambda c, v: (
                f"Gluteus maximus does {_work(c[0], 'gluteus_maximus'):.0f} J a rep in the squat, "
                f"{_long(c[0], 'gluteus_maximus'):.0f} % of it in its long third, and "
                f"{_work(c[1], 'gluteus_maximus'):.0f} J in the thrust, "
                f"{_long(c[1], 'gluteus_maximus'):.0f} % long."
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
                ("Level bench", _setup("back-extension-flat", *_mass(v["kg"], "goblet"))),
                ("45° bench", _setup("back-extension-45", *_mass(v["kg"], "goblet"))),
            ),
            says=lambda c, v: (
                f"The level bench is hardest at {_peak_at(c[0], 'hip'):.0f}° of hip bend, the "
                "45° bench at "
                f"{_peak_at(c[1], 'hip'):.0f}°; at 90° the level one asks "
                f"{_at(c[0], 'hip', 88):.0f} N·m, the other "
                f"{_at(c[1], 'hip', 88):.0f}."
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
                    words="pull per 10 cm, each strand",
                    unit="N",
                    default=60.0,
                    low=5.0,
                    high=120.0,
                ),
            ),
            cases=lambda v: (
                ("Body weight", _setup("belt-squat-home")),
                ("With the band on the belt", _setup("belt-squat-home", _band(v, "hip-belt"))),
            ),
            says=lambda c, v: (
                f"The band adds {_peak(c[1], 'knee') - _peak(c[0], 'knee'):.0f} N·m at the knee "
                "and "
                f"{_peak(c[1], 'hip') - _peak(c[0], 'hip'):.0f} N·m at the hip at most."
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
                    "Goblet squat on two legs",
                    _setup("goblet-squat", *_mass(v["kg"], "goblet"), knee_from_deg=95.0),
                ),
                (
                    "Split squat with half of it",
                    _setup(
                        "split-squat",
                        *_mass(v["kg"] / 2, "goblet"),
                        knee_from_deg=95.0,
                        pair_share=v["pair"] / 100,
                    ),
                ),
            ),
            says=lambda c, v: (
                "With half the load the front knee is asked "
                f"{_more(_peak(c[1], 'knee'), _peak(c[0], 'knee'))} than "
                f"each knee of two, and the hip {_more(_peak(c[1], 'hip'), _peak(c[0], 'hip'))}: "
                "half is no rule for both."
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
                    default=48.9,
                    low=0.0,
                    high=300.0,
                ),
                Param(
                    name="three_end",
                    words="the same at full travel",
                    unit="N",
                    default=249.1,
                    low=1.0,
                    high=900.0,
                ),
                Param(
                    name="one",
                    words="the heavy one at the first mark",
                    unit="N",
                    default=44.5,
                    low=0.0,
                    high=300.0,
                ),
                Param(
                    name="one_end",
                    words="the same at full travel",
                    unit="N",
                    default=311.4,
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
                ("Machine with a round pulley", _setup("leg-extension", _round_stack(v["kg"]))),
                (
                    "Dumbbell held by the feet",
                    _setup("leg-extension-dumbbell", *_mass(v["foot"], "ankle"), seat_m=0.6),
                ),
            ),
            says=lambda c, v: (
                "Under a round pulley only the shank’s own weight makes a difference: "
                f"{_at(c[0], 'knee', 85):.0f} "
                f"N·m at 85°, {_at(c[0], 'knee', 10):.0f} at 10°. The dumbbell asks "
                f"{_at(c[1], 'knee', 85):.0f} at 85°, {_at(c[1], 'knee', 10):.0f} at 10°."
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
                ("To 90°", _squat({**v, "deep": 90.0})),
                (f"To {v['deep']:.0f}°", _squat(v)),
            ),
            says=lambda c, v: (
                f"Vasti do {_work(c[1], 'vasti'):.0f} against {_work(c[0], 'vasti'):.0f} J a "
                "rep, gluteus maximus "
                f"{_work(c[1], 'gluteus_maximus'):.0f} against "
                f"{_work(c[0], 'gluteus_maximus'):.0f}; the knee’s peak "
                f"is {_more(_peak(c[1], 'knee'), _peak(c[0], 'knee'))}."
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
                ("Back squat", _squat(v)),
                ("Leg extension, 40 kg", _setup("leg-extension", _round_stack(40.0))),
            ),
            says=lambda c, v: (
                f"In the last 15° before straight the squat has {_end(c[0]):.0f} % of its peak "
                "left at the knee, the "
                f"leg extension {_end(c[1]):.0f} %: stopping short skips little in the one and "
                "much in the other. "
                "Under load stop short of a locked knee."
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
                ("Back squat", _squat(v)),
                ("Back squat to 70°", _squat({**v, "deep": 70.0})),
                ("Hip thrust", _setup("hip-thrust", *_mass(v["kg"], "hip-crease"))),
                ("Romanian deadlift", _setup("romanian-deadlift", *_mass(v["kg"], "hands"))),
            ),
            says=lambda c, v: (
                "The knee’s peak: "
                + ", ".join(f"{_peak(x, 'knee'):.0f}" for x in c)
                + " N·m in this order. Options to try, not treatment."
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
                ("Short step, upright", _split_squat(v, 0.0, step_m=0.55)),
                ("Long step, leaning 30°", _split_squat(v, 30.0, step_m=0.9)),
            ),
            says=lambda c, v: (
                f"Hip : knee : ankle {_split(c[0])} short and upright, {_split(c[1])} long and "
                "leaning."
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
                    "Static",
                    _setup(
                        "split-squat",
                        *_mass(v["kg"], "hands"),
                        knee_from_deg=90.0,
                        trunk_lean_deg=20.0,
                        pair_share=v["pair"] / 100,
                    ),
                ),
                (
                    "Reverse lunge",
                    _setup(
                        "reverse-lunge",
                        *_mass(v["kg"], "hands"),
                        pair_share=v["pair"] / 100,
                        leaves_at=v["leaves"] / 100,
                    ),
                ),
            ),
            says=lambda c, v: (
                f"The front leg does {joint_work_j(c[1]):.0f} J a rep in the lunge and "
                f"{joint_work_j(c[0]):.0f} J in "
                "the static one, where the rear leg keeps a share. Hip : knee : ankle "
                f"{_split(c[1])} against {_split(c[0])}."
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
                ("Back squat, low bar", _squat(v, "back-squat-low", "back-low")),
                ("Front squat", _squat(v, "front-squat", "front-rack")),
            ),
            says=lambda c, v: (
                "At the lowest lumbar joint the front squat asks "
                f"{_more(low_back_ratio(c[0], c[1]) or 1.0, 1.0)} "
                "than the low bar, by a single-muscle estimate; only the ratio means anything."
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
}


def _longer(from_deg: float, to_deg_: float) -> float:
    """Return how much longer rectus femoris is at the second hip bend, mm, of the usual body."""
    number = MUSCLES.index("recfem")
    scale = (BODY.thigh_m + BODY.shank_m) / 0.804
    here, there = (
        paths_of({"hip": np.array([h * DEG]), "knee": np.array([0.9])}, scale).length_m[number, 0]
        for h in (from_deg, to_deg_)
    )
    return float(1000 * (there - here))


def _press(v: Values, foot_m: float) -> Setup:
    return _setup(
        "leg-press-45",
        Sled(kg=v["kg"], empty_kg=40),
        foot_height_m=foot_m,
        knee_from_deg=85.0,
        push=v["push"] / 100,
    )


def _split_squat(v: Values, lean: float, **more: Any) -> Setup:
    return _setup(
        "split-squat",
        *_mass(v["kg"], "hands"),
        trunk_lean_deg=lean,
        pair_share=v["pair"] / 100,
        **more,
    )


def _front(c: Curve) -> float:
    """Return the greatest share of the ground's push under the working foot, %."""
    up = {
        f.source: c.motion.full(f.force)[1][0]
        for f in c.motion.forces
        if f.source.startswith("contact")
    }
    total = np.sum(list(up.values()), axis=0)
    return float(100 * (up["contact foot"] / total).max()) if "contact foot" in up else 100.0


def _hand(*, same: bool) -> str:
    """Return the port of the hand on the working leg's side, or on the other."""
    side = str(EXERCISES["one-leg-romanian-deadlift"].options["side"].default)
    other = "left" if side == "right" else "right"
    return f"hand-{side if same else other}"


def _frontal(c: Curve) -> float:
    found = frontal_nm(c.setup, c.motion)
    return 0.0 if found is None else float(np.abs(found[0]).max())


def _band(v: Values, port: str = "shoulders") -> Band:
    law = LinearLaw(rest_m=v["rest"] / 100, rate_n_per_m=10 * v["rate"])
    return Band(law=law, port=port, anchor_port="sole", strands=2)


def _band_words(c: Curve, v: Values) -> str:
    band = c.setup.loads[0]
    assert isinstance(band, Band)
    pull = next(f for f in c.motion.forces if f.source == "load 0")
    size = c.motion.full(pull.force)
    force = np.hypot(size[0], size[1])[0]
    first, last = float(force[0]), float(force[-1])
    slack = "slack at first" if first < 1 else f"{first:.0f} N at the lengthened end"
    return (
        f"It is {slack} and pulls {last:.0f} N at the shortened end: it grows, though the joint’s "
        "demand may fall."
    )


def _long(c: Curve, group: str) -> float:
    use = muscles(c)
    if use is None:
        return 0.0
    found = use.of(group)
    return 100.0 * max(0.0, found.thirds_j[0]) / max(sum(max(0.0, t) for t in found.thirds_j), 1e-9)


def _at(c: Curve, joint: str, degrees: float) -> float:
    angle, demand = to_deg(c.motion.angles[joint][0]), c.demand_nm[joint][0]
    order = np.argsort(angle)
    return float(np.interp(degrees, angle[order], np.abs(demand[order])))


def _end(c: Curve) -> float:
    return 100 * (share_near_straight(c, "knee") or 0.0)


def _spring_words(v: Values) -> str:
    travel = 1.0
    for start, end in (("three", "three_end"), ("one", "one_end")):
        if v[end] < v[start]:
            raise InputError(end, v[end], f"at least the pull at the first mark, {v[start]:g} N")
    three = parallel([Spring(start_n=v["three"], end_n=v["three_end"], travel_m=travel)])
    one = Spring(start_n=v["one"], end_n=v["one_end"], travel_m=travel)
    until = lighter_until_m(three, one)
    if until <= 0:
        return "The heavy one pulls more all the way."
    if until >= travel:
        return "The heavy one pulls less all the way: by its pulls it is the lighter choice."
    return (
        f"The heavy one pulls less over the first {100 * until:.1f} % of the travel, and more "
        "after "
        "that."
    )


def claim(claim_id: str) -> Claim:
    """Return a claim by its id; UnknownNameError lists the others."""
    if claim_id not in CLAIMS:
        raise UnknownNameError("claim", claim_id, CLAIMS)
    return CLAIMS[claim_id]


def worked_out(found: Claim, values: Values) -> ClaimView:
    """Return a claim worked out for values by name, the usual ones where missing. InputError names
    the value.
    """
    full = {p.name: float(values.get(p.name, p.default)) for p in found.params}
    for p in found.params:
        p.check(full[p.name])
    if found.cases is None or found.says is None:
        return ClaimView(claim=found, values=full, curves=(), answer="")
    try:
        curves = tuple((words, curve(setup, lowering=False)) for words, setup in found.cases(full))
        return ClaimView(
            claim=found,
            values=full,
            curves=curves,
            answer=found.says(tuple(c for _, c in curves), full),
        )
    except PostureError as error:
        return ClaimView(claim=found, values=full, curves=(), answer="", problem=error.reason)
