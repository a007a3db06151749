"""Checks from statics: forces and moments worked out again by hand, virtual work, and both sides.

`by_hand` has the pictures; the design's trials of closures were computed three times apart from
this program.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import partial

import numpy as np

from widearc.core.body import Body
from widearc.core.equipment import (
    Cable,
    FreeMass,
    Lever,
    Load,
    Sled,
    Spring,
    SpringLoad,
    Stack,
)
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import (
    Curve,
    audit,
    curve,
    demand_from_above_nm,
    dynamic_nm,
    frontal_nm,
    lumbar,
    whole_effort,
)
from widearc.usecases.selfcheck import by_hand
from widearc.usecases.selfcheck.by_hand import G
from widearc.usecases.selfcheck.check import Group, check_of, curve_of

TRIAL = "worked: the design's trial, computed three times apart"
HAND = "statics by hand"


def _mass(kg: float, port: str) -> list[Load]:
    return [FreeMass(kg=kg, port=port)]


def _at(got: Curve, joint: str, *places: float) -> list[float]:
    """Return a joint's demand at places of the lift, N·m."""
    values = got.demand_nm.get(joint, got.other_nm.get(joint))
    assert values is not None
    return [float(v) for v in np.interp(places, got.motion.position, values[0])]


def _force(got: Curve, source: str, sample: int = 0) -> np.ndarray:
    item = next(f for f in got.motion.forces if f.source == source)
    return got.motion.full(item.force)[:, 0, sample]


def _point(got: Curve, name: str, sample: int = 0) -> np.ndarray:
    return got.motion.full(got.motion.points[name])[:, 0, sample]


# presses


def _pressed(share: float, bend: float, **sled: float) -> Sequence[float]:
    load = Sled(kg=120, empty_kg=38, **sled)
    got = curve_of("leg-press-45", {"push": share, "knee_from_deg": bend}, [load])
    return [got.demand_nm[j][0, 0] for j in ("hip", "knee", "ankle")]


def _rubbed(*, lowering: bool) -> Sequence[float]:
    """Return the force along rails at 30° with friction, N."""
    load = Sled(kg=120, empty_kg=38, friction=0.1)
    steep = {"push": 0.0, "rail_deg": 30.0}
    got = curve_of("leg-press-45", steep, [load])
    if not lowering:
        assert got.motion.path_force is not None
        return [got.motion.path_force[0, 0]]
    assert got.lowering_nm is not None
    # without a push each joint's demand is a weight's part and the rail force's part
    up, none = (curve_of("leg-press-45", steep, [Sled(kg=kg, empty_kg=0)]) for kg in (100.0, 0.0))
    a, b, down = (made["knee"][0, 0] for made in (up.demand_nm, none.demand_nm, got.lowering_nm))
    return [(down - b) / (a - b) * 100 * G * 0.5]


def _across() -> Sequence[float]:
    """Return by how much the rail force misses weight and friction of weight less push, N, and the
    push's sign.
    """
    load = Sled(kg=120, empty_kg=38, friction=0.1)
    got = curve_of("leg-press-45", {"push": 1.0}, [load])
    push, force = got.motion.marks["push"][0], got.motion.path_force
    assert force is not None
    rub = 0.1 * np.abs(158 * G * math.cos(math.radians(45)) - push)
    return [float(np.abs(force[0] - RAIL_N - rub).max()), float(np.sign(push[0]))]


RAIL_N = 158 * G * math.sin(math.radians(45))


# two feet


def _split(name: str, joints: Sequence[str], kg: float = 30.0) -> Sequence[float]:
    got = curve_of(name, loads=_mass(kg, "hands"), hip_flexion_deg=125.0)
    return [value for joint in joints for value in _at(got, joint, 0.0, 1.0)]


def _lunge() -> Sequence[float]:
    got = curve_of("walking-lunge", {"knee_from_deg": 110, "knee_to_deg": 5, "trunk_lean_deg": 10})
    return [*_at(got, "hip", 0.0, 0.1, 0.3), *_at(got, "knee", 0.0, 0.1, 0.3)]


def _step_up() -> Sequence[float]:
    got = curve_of("step-up", {"box_m": 0.4, "step_m": 0.252, "knee_to_deg": 5})
    return [*_at(got, "knee", 0.0, 0.05, 0.1, 0.3), *_at(got, "hip", 0.0, 0.05, 0.1, 0.3)]


def _pitch(got: Curve, sample: int) -> float:
    toe, heel = _point(got, "rear_toe", sample), _point(got, "rear_heel", sample)
    return float(np.degrees(np.arctan2(heel[1] - toe[1], toe[0] - heel[0])))


def _leaving() -> Sequence[float]:
    """Return of a step-up on 40 cm: the rear knee at the start; of a lunge from 91°: the heel's
    pitch as the foot leaves, and how far the thigh has swung home half-way through its swing.
    """
    stood = curve_of("step-up", {"box_m": 0.4, "step_m": 0.252, "knee_to_deg": 5})
    got = curve_of("walking-lunge", {"knee_from_deg": 91})
    share = 1.0 - got.motion.marks["front_share"][0]
    leaves = int(np.flatnonzero(share <= 1e-9)[0])
    hip, knee = (got.motion.full(got.motion.points[n])[:, 0] for n in ("hip", "rear_knee"))
    lean = np.arctan2(hip[0] - knee[0], hip[1] - knee[1])
    return [
        float(np.degrees(stood.motion.angles["rear_knee"][0, 0])),
        _pitch(got, leaves),
        float(lean[leaves + 15] / lean[leaves]),
    ]


def _high_box() -> Sequence[float]:
    """Return of a step-up on 60 cm at 1.65 m: front knee at its limit, rear heel raised."""
    body = Body(mass_kg=62, stature_m=1.65)
    got = curve(
        Setup(exercise=EXERCISES["step-up"], body=body, options={"box_m": 0.6, "step_m": 0.231})
    )
    return [float(np.degrees(got.motion.angles["knee"][0, 0])), float(_pitch(got, 0) > 15)]


def _steadied() -> Sequence[float]:
    """Return the rear foot's part of the weight in a b-stance, and the moment that is left about
    the front foot, N·m.
    """
    got = curve_of("b-stance-squat", hip_flexion_deg=125.0)
    rear = _force(got, "contact rear foot")[1]
    return [rear / (by_hand.MASS * G), audit(got).relative_error[0]]


def _turned() -> Sequence[float]:
    """Return the knee's demand of a wide stance over a narrow one at one bend: weights stand over
    the feet, and both offset and plane shrink alike.
    """
    wide, narrow = (
        curve_of("bodyweight-squat", {"stance_m": stance, "knee_from_deg": 90})
        for stance in (0.7, 0.3)
    )
    return [wide.demand_nm["knee"][0, 0] / narrow.demand_nm["knee"][0, 0]]


def _wedge_lean() -> Sequence[float]:
    """Return how much further a wedge lets the shank lean where the ankle's limit caps it, °."""
    flat, raised = (
        curve_of("bodyweight-squat", {"heel_wedge_m": h, "knee_travel": 0.5}) for h in (0.0, 0.03)
    )
    leans = []
    for got in (flat, raised):
        ankle, knee = _point(got, "ankle"), _point(got, "knee")
        leans.append(float(np.degrees(np.arctan2(knee[0] - ankle[0], knee[1] - ankle[1]))))
    return [leans[1] - leans[0]]


# supports


def _ball() -> Sequence[float]:
    got = curve_of("ball-wall-squat")
    return [got.motion.marks["support_n"][0, 0], got.demand_nm["knee"][0, 0]]


def _upright() -> Sequence[float]:
    got = curve_of("rail-squat", {"trunk_lean_deg": 20})
    lean = np.degrees(got.motion.marks["trunk_lean"][0])
    return [lean[0], lean[50], lean[100]]


def _hack() -> Sequence[float]:
    got = curve_of("hack-squat", loads=[Sled(kg=80, empty_kg=0)], dorsiflexion_deg=60)
    return [
        got.motion.marks["back_n"][0, 0],
        got.demand_nm["knee"][0, 0],
        got.demand_nm["hip"][0, 0],
    ]


def _arc() -> Sequence[float]:
    """Return an arc squat's arm, the trunk's angle to it, and what its balance of energy lacks."""
    got = curve_of("arc-squat", {"counterweight_kg": 20})
    pivot, shoulder, hip = (_point(got, n) for n in ("pivot", "shoulder", "hip"))
    arm, trunk = shoulder - pivot, hip - shoulder
    turn = np.degrees(np.arctan2(arm[0] * trunk[1] - arm[1] * trunk[0], arm @ trunk))
    return [float(np.hypot(*arm)), float(turn), 100 * float(audit(got).relative_error[0])]


def _thrust(kg: float, pair: float = 0.0) -> Sequence[float]:
    options = {"horizontal_pair_n": pair}
    got = curve_of("hip-thrust", options, _mass(kg, "hip-crease"))
    return [_force(got, "contact foot", -1)[1], got.demand_nm["hip"][0, -1]]


def _deficit() -> Sequence[float]:
    got = curve_of("deadlift", {"deficit_m": 0.05}, _mass(60, "hands"), hip_flexion_deg=125.0)
    return [_point(got, "hand")[1]]


def _swings() -> Sequence[float]:
    """Return how high the ankle is over the hip at the end of a lying leg raise to 80°, m."""
    got = curve_of("lying-leg-raise")
    return [_point(got, "ankle", -1)[1] - _point(got, "hip", -1)[1]]


def _opens(readings: str) -> Sequence[float]:
    cam = Stack(kg=40, angle_deg=(0, 60), radius_m=(0.1, 0.1))
    got = curve_of("abduction-machine", {"readings_for": readings}, [cam])
    return [got.demand_nm["hip_abduction"][0, 0]]


def _pad() -> Sequence[float]:
    """Return how far ahead of the shank a shin pad lies, sitting with the shank upright, m."""
    cable = Cable(kg=10, port="shin-pad", pulley=(-1.0, 0.2))
    got = curve_of("leg-extension-cable", {"knee_from_deg": 90}, [cable])
    load = next(f for f in got.motion.forces if f.source == "load 0")
    return [got.motion.full(load.point)[0, 0, 0] - _point(got, "knee")[0]]


# carriages


def _constant(exercise: str, pulls: Sequence[float]) -> Sequence[float]:
    efforts = []
    for pull in pulls:
        spring = Spring(start_n=pull, end_n=pull + 1e-6, travel_m=2.0)
        got = curve_of(
            exercise, loads=[SpringLoad(spring=spring)] if pull else [], hip_flexion_deg=125.0
        )
        effort = whole_effort(got)
        efforts.append(float("nan") if effort is None else float(effort[0]))
    return efforts


def _helps() -> Sequence[float]:
    """Return the pull of springs that help, at the start and at the end, N."""
    spring = Spring(start_n=40, end_n=200, travel_m=0.9)
    got = curve_of("carriage-lunge-front", {"travel_m": 0.45}, [SpringLoad(spring=spring)])
    assert got.motion.path_force is not None
    return [abs(got.motion.path_force[0, 0]), abs(got.motion.path_force[0, -1])]


# virtual work and both sides

WORKED_OUT: tuple[tuple[str, dict[str, float], list[Load]], ...] = (
    ("back-squat-high", {"knee_from_deg": 100}, _mass(60, "back-high")),
    ("split-squat", {}, _mass(20, "hands")),
    ("rear-raised-split-squat", {}, _mass(20, "hands")),
    ("reverse-lunge", {}, _mass(10, "hands")),
    ("b-stance-squat", {}, _mass(20, "hands")),
    ("ball-wall-squat", {"trunk_lean_deg": 10}, _mass(20, "hands")),
    ("ball-wall-squat", {"trunk_lean_deg": 20, "trunk_lean_to_deg": 5}, []),
    ("belt-squat-pin", {}, _mass(40, "hip-belt")),
    ("rail-squat", {}, _mass(40, "back-high")),
    ("hack-squat", {}, [Sled(kg=60, empty_kg=0)]),
    ("arc-squat", {"counterweight_kg": 20}, []),
    ("romanian-deadlift", {}, _mass(60, "hands")),
    ("deadlift", {}, _mass(60, "hands")),
    ("hip-thrust", {"horizontal_pair_n": 100}, _mass(60, "hip-crease")),
    ("couch-knee-press", {}, []),
    ("reverse-nordic", {}, []),
    ("nordic-curl", {}, []),
    ("sissy-squat", {}, []),
    ("back-extension-45", {}, _mass(10, "goblet")),
    ("calf-raise-step", {}, _mass(20, "hands")),
    (
        "calf-raise-seated",
        {},
        [Lever(pivot=(-0.5, 0.5), kg=30, arm_m=0.9, own_kg=4, own_arm_m=0.5, port="thigh")],
    ),
    ("calf-raise-press", {}, [Sled(kg=60, empty_kg=20)]),
    ("carriage-push", {}, [SpringLoad(spring=Spring(start_n=30, end_n=150, travel_m=0.9))]),
    (
        "carriage-lunge-front",
        {},
        [SpringLoad(spring=Spring(start_n=30, end_n=150, travel_m=0.9))],
    ),
    ("leg-press-45", {}, [Sled(kg=100, empty_kg=20)]),
)


def _virtual_work() -> Sequence[float]:
    """Return the largest error of the balance of energy over many set-ups, %."""
    found = [
        audit(curve_of(name, dict(options), loads, hip_flexion_deg=140.0)).relative_error[0]
        for name, options, loads in WORKED_OUT
    ]
    return [100 * float(max(found))]


def _both_sides() -> Sequence[float]:
    """Return how far a knee's demand from below and from above lie apart at most, N·m."""
    apart = 0.0
    for name, options, loads in WORKED_OUT:
        got = curve_of(name, dict(options), loads, hip_flexion_deg=140.0)
        if got.motion.complete and "knee" in got.demand_nm:
            above = demand_from_above_nm(got.motion, "knee")
            apart = max(apart, float(np.abs(above - got.demand_nm["knee"]).max()))
    return [apart]


def _audit_itself() -> Sequence[float]:
    """Return the error that the audit sees where a tenth more work is booked at each joint, %."""
    got = curve_of("bodyweight-squat", {"knee_from_deg": 90})
    more = replace(
        got,
        demand_nm={j: 1.1 * v for j, v in got.demand_nm.items()},
        other_nm={j: 1.1 * v for j, v in got.other_nm.items()},
    )
    return [100 * float(audit(more).relative_error[0])]


# what else is read off a curve


def _standing_spine() -> Sequence[float]:
    """Return the compression at the low back of who stands upright with 80 kg on the traps, N."""
    got = curve_of("good-morning", loads=_mass(80, "back-high"))
    found = lumbar(got.setup, got.motion)
    return [] if found is None else [float(found.compression_n[0, -1])]


def _one_leg_hip() -> Sequence[float]:
    """Return what one-leg standing asks of the hip's abduction, N·m."""
    got = curve_of("one-leg-squat", {"knee_from_deg": 60})
    found = frontal_nm(got.setup, got.motion)
    return [] if found is None else [float(found[0, -1])]


def _fast() -> Sequence[float]:
    """Return whether fast lifts ask more a fifth on, and less a fifth before the end, than slow."""
    found = []
    for name, loads in (("leg-extension-dumbbell", _mass(16, "ankle")), ("bodyweight-squat", [])):
        got = curve_of(name, {"knee_from_deg": 90}, loads)
        fast, still = dynamic_nm(got, 0.6)["knee"][0], got.demand_nm["knee"][0]
        found += [float(fast[20] > 1.02 * still[20]), float(fast[80] < 0.98 * still[80])]
    return found[:3]  # at the end of a squat the knee is asked hardly anything


def _seated_calf() -> Sequence[float]:
    """Return what a seated calf raise asks of hip and knee at most, N·m: nothing."""
    lever = Lever(pivot=(-0.5, 0.5), kg=30, arm_m=0.9, own_kg=4, own_arm_m=0.5, port="thigh")
    got = curve_of("calf-raise-seated", loads=[lever])
    return [float(np.abs(got.demand_nm[joint]).max()) for joint in ("hip", "knee")]


def _extension_effort() -> Sequence[float]:
    """Return the whole effort of a leg extension: both knees, each over its usual strength."""
    cam = Stack(kg=30, angle_deg=(-20, 120), radius_m=(0.12, 0.12))
    effort = whole_effort(curve_of("leg-extension", loads=[cam]))
    return [] if effort is None else [float(effort[0])]


def _extension_by_hand() -> float:
    total = 0.0
    for step in range(101):
        bend = 100 - 0.95 * step
        # a level thigh, the shank hangs `bend` below its line, the foot square to it
        arm = math.cos(math.radians(bend))
        shank = by_hand.NEAR * by_hand.SHANK * arm * by_hand.KG["shank"]
        foot_at = by_hand.off(
            (by_hand.SHANK * arm, 0.0),
            1.0,
            (
                by_hand.ANKLE / 2 * arm + 0.27 * by_hand.FOOT * math.sin(math.radians(bend)),
                0.0,
            ),
        )[0]
        moment = G * (30 * 0.12 / 2 + shank + by_hand.KG["foot"] * foot_at)
        total += (moment / by_hand.strength("knee_extension", bend)) ** 2
    return math.sqrt(2 * total / 101)


_check = partial(check_of, Group.STATICS)

STATICS = (
    *(
        _check(
            f"press at {bend}° with {words}: hip, knee, ankle",
            "N·m",
            by_hand.press_demands(bend, RAIL_N, share),
            0.05,
            HAND,
            lambda share=share, bend=bend: _pressed(share, bend),
        )
        for bend in (90.0, 60.0, 30.0)
        for share, words in ((0.0, "no push"), (0.5, "half the push"), (1.0, "the push"))
    ),
    _check(
        "press at its usual push: hip, knee, ankle",
        "N·m",
        by_hand.press_demands(90.0, RAIL_N, 0.5),
        0.05,
        HAND,
        lambda: [
            curve_of("leg-press-45", loads=[Sled(kg=120, empty_kg=38)]).demand_nm[j][0, 0]
            for j in ("hip", "knee", "ankle")
        ],
    ),
    _check(
        "sled of 158 kg at 30°, friction 0.1: up and down",
        "N",
        [158 * G * (0.5 + way * 0.1 * math.cos(math.pi / 6)) for way in (1, -1)],
        0.1,
        "statics by hand: m·g·(sin 30° ± 0.1·cos 30°)",
        lambda: [*_rubbed(lowering=False), *_rubbed(lowering=True)],
    ),
    _check(
        "a push across the plate takes weight off the rails",
        "N, sign",
        [0.0, 1.0],
        1e-6,
        "statics by hand: friction of weight less push, the push towards the toes",
        _across,
    ),
    _check(
        "split squat with 30 kg: hip, knee, rear knee at start and end",
        "N·m",
        [131, 70, 109, -29, 156, 50],
        1.5,
        TRIAL,
        lambda: _split("split-squat", ("hip", "knee", "rear_knee")),
    ),
    _check(
        "rear-raised split squat with 30 kg: hip, knee at start and end",
        "N·m",
        [155, 131, 131, -46],
        1.5,
        TRIAL,
        lambda: _split("rear-raised-split-squat", ("hip", "knee")),
    ),
    _check(
        "lunge: hip and knee at 0, 0.1 and 0.3 of the lift",
        "N·m",
        [74, 83, 103, 142, 142, 126],
        3.5,
        TRIAL,
        _lunge,
    ),
    _check(
        "step-up on 40 cm: knee and hip at 0, 0.05, 0.1 and 0.3 of the lift",
        "N·m",
        [86, 116, 146, 129, 83, 114, 139, 104],
        5.0,
        TRIAL,
        _step_up,
    ),
    _check(
        "rear knee of a step-up, heel of a lunge as it leaves",
        "°",
        [10.0, 73.5],
        1.6,
        "the closure's own words: 10°, and 75° within one sample's turn of 3°",
        lambda: _leaving()[:2],
    ),
    _check(
        "lunge: the free thigh half-way through its swing",
        "of its lean as it left",
        [0.5],
        0.02,
        "evenly home in three tenths of the lift",
        lambda: _leaving()[2:],
    ),
    _check(
        "step-up on 60 cm at 1.65 m: knee at its limit, heel raised",
        "°, yes",
        [140, 1],
        0.1,
        TRIAL,
        _high_box,
    ),
    _check(
        "b-stance: the rear foot's part of the weight, and what balance lacks",
        "of the weight, share",
        [0.15, 0.0],
        0.003,
        "given share, statics",
        _steadied,
    ),
    _check(
        "wide stance over narrow: the knee's demand",
        "times",
        [1.0],
        0.005,
        "statics by hand: offsets and leg plane turn alike, but for the feet themselves",
        _turned,
    ),
    _check(
        "wedge of 3 cm where the ankle's limit caps the shank",
        "°",
        [math.degrees(math.asin(0.03 / (0.66 * by_hand.FOOT)))],
        0.05,
        "by hand: the foot's slope",
        _wedge_lean,
    ),
    _check("ball at a wall: push and knee", "N, N·m", by_hand.at_the_ball(), 0.1, HAND, _ball),
    _check("rail squat: trunk at start, middle, end", "°", [20, 10, 0], 1e-6, HAND, _upright),
    _check(
        "hack squat 80 kg: back pad, knee, hip",
        "N, N·m, N·m",
        by_hand.hack(100, 80),
        0.1,
        HAND,
        _hack,
    ),
    _check(
        "arc squat: arm, trunk square to it, energy",
        "m, °, %",
        [0.9, -90.0, 0.0],
        0.3,
        "the machine's own lengths; virtual work",
        _arc,
    ),
    _check(
        "hip thrust 60 kg at the end: feet and hip",
        "N, N·m",
        by_hand.thrust(60),
        0.1,
        HAND,
        lambda: _thrust(60),
    ),
    _check(
        "deadlift on 5 cm: grip at the start",
        "m",
        [0.225 - 0.05],
        1e-6,
        "by hand: the weight's floor lies 5 cm under the feet",
        _deficit,
    ),
    _check(
        "seated calf raise: hip and knee bear no moment",
        "N·m",
        [0.0, 0.0],
        1e-6,
        "the closure's own words",
        _seated_calf,
    ),
    _check(
        "lying leg raise to 80°: ankle over hip",
        "m",
        [(by_hand.THIGH + by_hand.SHANK) * math.sin(math.radians(80))],
        1e-6,
        HAND,
        _swings,
    ),
    _check(
        "abduction stack of 40 kg at 10 cm: for one thigh, for both",
        "N·m",
        [40 * G * 0.1, 20 * G * 0.1],
        1e-6,
        HAND,
        lambda: [*_opens("one thigh"), *_opens("both")],
    ),
    _check(
        "shin pad ahead of an upright shank",
        "m",
        [0.05],
        1e-6,
        "the port's own place",
        _pad,
    ),
    _check(
        "carriage lunge in front at 0, 25, 50, 75, 100, 150 N: whole effort",
        "",
        [0.76, 0.65, 0.58, 0.56, 0.61, 0.87],
        0.032,
        TRIAL,
        lambda: _constant("carriage-lunge-front", (0, 25, 50, 75, 100, 150)),
    ),
    _check(
        "carriage push at 75 and 200 N, pull at the back at 0 and 100 N: whole effort",
        "",
        [0.45, 1.25, 0.46, 1.23],
        0.05,
        TRIAL,
        lambda: [
            *_constant("carriage-push", (75, 200)),
            *_constant("carriage-pull-back", (0, 100)),
        ],
    ),
    _check(
        "springs 40 to 200 N over 90 cm that help over 45 cm: pull at start and end",
        "N",
        [120.0, 40.0],
        1e-6,
        "by hand: 40 + 160 · 0.45 / 0.9, and the first mark",
        _helps,
    ),
    _check(
        f"virtual work over {len(WORKED_OUT)} set-ups: largest error",
        "%",
        [0.0],
        0.3,
        "principle of virtual work",
        _virtual_work,
    ),
    _check("the knee from below and from above", "N·m", [0.0], 1e-6, "equilibrium", _both_sides),
    _check(
        "the audit sees a tenth of false work",
        "%",
        [100 * 0.1 / 1.1],
        0.1,
        "by hand: 0.1 of 1.1",
        _audit_itself,
    ),
    _check(
        "low back upright under 80 kg on the traps: compression",
        "N",
        [80 * G * 0.06 / 0.06 + (0.678 - 0.142) * 80 * G + 80 * G],
        0.5,
        "by hand: the bar's 6 cm behind, one extensor at 6 cm, and the weights above",
        _standing_spine,
    ),
    _check(
        "one leg standing: the hip's abduction",
        "N·m",
        [80 * G * (0.678 * 0.09 + 0.161 * 0.18)],
        0.1,
        "by hand: trunk over the middle, 9 cm; the free leg 18 cm from the standing hip",
        _one_leg_hip,
    ),
    _check(
        "a fast extension asks more at first and less at last, a fast squat more at first",
        "yes",
        [1, 1, 1],
        0.0,
        "Newton: speeding up, then slowing down",
        _fast,
    ),
    _check(
        "whole effort of a leg extension of 30 kg",
        "",
        [_extension_by_hand()],
        1e-3,
        "by hand: both knees over Anderson's strength",
        _extension_effort,
    ),
)
