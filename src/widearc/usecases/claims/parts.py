"""What claims are made of: a dispute, its values, and what is read of its curves."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
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
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.muscle import MUSCLES, paths_of, positive_work_j
from widearc.core.statics import (
    Curve,
    curve,
    frontal_nm,
    mean_split,
    share_near_straight,
)
from widearc.core.strength import strength_nm
from widearc.core.units import DEG, to_deg
from widearc.core.words import (
    UNSAID,
    Angle,
    Figure,
    Force,
    Length,
    Listed,
    Mass,
    Moment,
    Name,
    Said,
    Share,
    Times,
    Words,
    measured,
)
from widearc.usecases.arc.arc import muscles

Values = Mapping[str, float]
Cam = tuple[tuple[float, ...], tuple[float, ...]]
"""A stack's radius as it was read at the pad: degrees and m."""
Case = tuple[Words, Setup]
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
            allowed = Said(
                "from {low} to {high}",
                low=measured(self.unit, self.low),
                high=measured(self.unit, self.high),
            )
            raise InputError(self.name, measured(self.unit, value), allowed)


@dataclass(frozen=True, slots=True, kw_only=True)
class Claim:
    """One dispute. label: computed, published, practice or disputed; cases None: nothing to
    compute.

    says: the answer in a sentence with its numbers, from the curves in the order of the cases. act:
    what somebody who is not sure can do about it, in one sentence. own, own_says: a case and a
    sentence of a machine of the trainer's, of kind own_kind, with its name and cam.
    """

    id: str
    title: str
    one_side: str
    other_side: str
    open: str
    label: str
    params: tuple[Param, ...] = ()
    joint: str = "knee"
    act: str = ""
    own: Callable[[Values, str, Cam], Case] | None = None
    own_says: Callable[[Words, Curve], Said] | None = None
    own_kind: str = ""
    cases: Callable[[Values], tuple[Case, ...]] | None = None
    says: Callable[[tuple[Curve, ...], Values], Said] | None = None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class ClaimView:
    """A claim worked out: words and curve of each case, the answer; problem: why it cannot be
    worked out.
    """

    claim: Claim
    values: Values
    curves: tuple[tuple[Words, Curve], ...]
    answer: Words
    problem: Said = UNSAID


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


def _more(there: float, here: float) -> Said:
    change = there / here - 1
    return Said("{share} more" if change >= 0 else "{share} less", share=Share(abs(change)))


def _each(values: Iterable[float]) -> Listed:
    """Return whole numbers one after the other."""
    return Listed(tuple(Figure(round(value)) for value in values))


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


def _longer(from_deg: float, to_deg_: float) -> Length:
    """Return how much longer rectus femoris is at the second hip bend, of the usual body."""
    number = MUSCLES.index("recfem")
    scale = (BODY.thigh_m + BODY.shank_m) / 0.804
    here, there = (
        paths_of({"hip": np.array([h * DEG]), "knee": np.array([0.9])}, scale).length_m[number, 0]
        for h in (from_deg, to_deg_)
    )
    return Length(float(there - here), fine=True)


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


def _band_words(c: Curve, v: Values) -> Said:
    band = c.setup.loads[0]
    assert isinstance(band, Band)
    pull = next(f for f in c.motion.forces if f.source == "load 0")
    size = c.motion.full(pull.force)
    force = np.hypot(size[0], size[1])[0]
    first, last = float(force[0]), float(force[-1])
    words = (
        "It is slack at first and pulls {last} at the shortened end: it grows, though the joint’s "
        "demand may fall."
        if first < 1
        else "It is {first} at the lengthened end and pulls {last} at the shortened end: it grows, "
        "though the joint’s demand may fall."
    )
    return Said(words, first=Force(first), last=Force(last))


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


def _spring_words(v: Values) -> Said:
    travel = 1.0
    for start, end in (("three", "three_end"), ("one", "one_end")):
        if v[end] < v[start]:
            raise InputError(
                end,
                v[end],
                Said("at least the pull at the first mark, {force}", force=Force(v[start])),
            )
    three = parallel([Spring(start_n=v["three"], end_n=v["three_end"], travel_m=travel)])
    one = Spring(start_n=v["one"], end_n=v["one_end"], travel_m=travel)
    until = lighter_until_m(three, one)
    if until <= 0:
        return Said("The heavy one pulls more all the way.")
    if until >= travel:
        return Said("The heavy one pulls less all the way: by its pulls it is the lighter choice.")
    return Said(
        "The heavy one pulls less over the first {part} % of the travel, and more after that.",
        part=Times(100 * until),
    )


MOST_KG, HALVINGS = 200.0, 12


def _half_squat(v: Values, kg: float) -> Setup:
    return _setup(
        "split-squat", *_mass(kg, "goblet"), knee_from_deg=95.0, pair_share=v["pair"] / 100
    )


def _on_cam(v: Values, name: str, cam: Cam) -> Case:
    angles, radii = cam
    stack = Stack(kg=v["kg"], angle_deg=angles, radius_m=radii)
    return Said("{name}", name=Name(name)), _setup("leg-extension", stack)


def _cam_words(name: Words, c: Curve) -> Said:
    """Return where a machine asks how much of the knee, and where that is most of usual
    strength.
    """
    angle, demand = c.motion.angles["knee"][0], c.demand_nm["knee"][0]
    usual = strength_nm(
        "knee_extension",
        angle,
        mass_kg=BODY.mass_kg,
        stature_m=BODY.stature_m,
        sex=BODY.sex.value,
    )
    hardest = float(to_deg(angle)[int(np.argmax(demand / usual))])
    return Said(
        "{name}, as read at its pad, asks {bent} at 85°, {straight} at 10°; against the usual "
        "strength curve it is hardest at {angle}.",
        name=name,
        bent=Moment(_at(c, "knee", 85)),
        straight=Moment(_at(c, "knee", 10), bare=True),
        angle=Angle.of_deg(hardest),
    )


def _on_foot(c: Curve) -> float:
    """Return the force under the working foot, N, in the mean over the lift."""
    force = next(f for f in c.motion.forces if f.source == "contact foot").force
    return float(c.motion.full(force)[1][0].mean()) / (2 if c.motion.legs == 2 else 1)


def _one_leg_start(v: Values, two: Curve) -> Said:
    """Return in words the load with which the front foot carries what each of two does."""
    carried = _on_foot(two)
    low, high = 0.0, MOST_KG
    if _on_foot(curve(_half_squat(v, low), lowering=False)) >= carried:
        return Said("With no weight at all the front foot carries more than each of two did.")
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        less = _on_foot(curve(_half_squat(v, middle), lowering=False)) < carried
        low, high = (middle, high) if less else (low, middle)
    return Said(
        "With {mass} the front foot carries what each of two did.",
        mass=Mass(0.5 * (low + high), whole=True),
    )
