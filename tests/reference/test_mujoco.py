"""Statics against MuJoCo, a general-purpose physics engine: same posture and forces, inverse
dynamics at rest.
"""

from __future__ import annotations

import itertools

import mujoco
import numpy as np
import pytest

from tests.core.test_catalogue_loads import CASES as EVERY_LOAD
from tests.core.test_catalogue_loads import FREE, curve_or_refusal, loads_of
from tests.looked import looked
from widearc.core.body import Limits
from widearc.core.equipment import (
    Band,
    Cable,
    Chain,
    FreeMass,
    Lever,
    LinearLaw,
    Pendulum,
    Sled,
    Spring,
    SpringLoad,
)
from widearc.core.errors import PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import JOINTS, Setup, place_of
from widearc.core.statics import curve, dynamic_nm
from widearc.core.statics.dynamic import GYRATION, profile

SIGN = {"hip": 1, "knee": -1, "ankle": 1, "hip_abduction": -1}


def _body(name: str, motion, parent: str | None, at: str, k: int, extra: str = "") -> str:
    """Return one body of the engine's model: frame at a joint's place, hinge, and the segment's
    weight.
    """
    here = motion.full(motion.points[at])[:, 0, k]
    origin = np.zeros(2) if parent is None else motion.full(motion.points[parent])[:, 0, k]
    x, y = here - origin
    parts = []
    for segment in motion.segments:
        if segment.name in name.split("+"):
            px, py = motion.full(segment.com)[:, 0, k] - here
            parts.append(
                f'<geom type="sphere" size=".01" mass="{segment.mass_kg!r}" pos="{float(px)!r} '
                f'{float(py)!r} 0"/>'
            )
    if not parts:  # arms and toes that weigh nothing of their own: the engine asks for a mass
        parts.append('<geom type="sphere" size=".01" mass="1e-9"/>')
    start = (
        f'<body name="{name}" pos="{float(x)!r} {float(y)!r} 0"><joint name="{at}" axis="0 0 1"/>'
    )
    return start + "".join(parts) + extra


def _engine_moments(motion, chain, k, loads=(), turns=()):
    """Return the joint moments (N·m, anticlockwise on the parent side's child) that hold one
    posture at rest.

    chain: (segment, its joint) from the fixed end outward; loads: (segment, point, force) outside
    forces; turns: (segment, N·m anticlockwise) outside moments, as of a stack's cam.
    """
    xml, closing, parent = "", "", None
    for name, joint in chain:
        xml += _body(name, motion, parent, joint, k)
        closing += "</body>"
        parent = joint
    text = (
        '<mujoco><compiler inertiafromgeom="true"/><option gravity="0 -9.80665 0"/>'
        f"<worldbody>{xml}{closing}</worldbody></mujoco>"
    )
    model = mujoco.MjModel.from_xml_string(text)
    data = mujoco.MjData(model)
    mujoco.mj_forward(model, data)
    pulls = [
        (s, np.array([*force, 0.0]), np.zeros(3), np.array([*point, 0.0]))
        for s, point, force in loads
    ]
    pulls += [(s, np.zeros(3), np.array([0.0, 0.0, moment]), np.zeros(3)) for s, moment in turns]
    for segment, force, moment, at in pulls:
        body = mujoco.mj_name2id(model, mujoco.mjtObj.mjOBJ_BODY, segment)
        torque = np.zeros(model.nv)
        mujoco.mj_applyFT(model, data, force, moment, at, body, torque)
        data.qfrc_applied += torque
    data.qacc[:] = 0
    mujoco.mj_inverse(model, data)
    return {
        joint: data.qfrc_inverse[i] - data.qfrc_applied[i] for i, (_, joint) in enumerate(chain)
    }


def _force_of(motion, source, k):
    force = next(f for f in motion.forces if f.source == source)
    return motion.full(force.point)[:, 0, k], motion.full(force.force)[:, 0, k]


@pytest.mark.parametrize("k", [0, 30, 60, 100])
def test_squat_with_a_bar_and_a_band_from_the_floor(k):
    loads = [
        FreeMass(kg=60, port="back-high"),
        Band(law=LinearLaw(rest_m=0.8, rate_n_per_m=300), port="shoulders", anchor=(0.1, 0.0, 0.2)),
    ]
    # feet within the hips: the leg plane is the side view, as in the engine's model
    options = {"stance_m": 0.3}
    limits = Limits(hip_flexion_deg=150)
    got = curve(
        Setup(exercise=EXERCISES["back-squat-high"], options=options, loads=loads, limits=limits)
    )
    motion = got.motion
    outside = [
        ("trunk", *_force_of(motion, "load 0", k)),
        ("trunk", *_force_of(motion, "load 1", k)),
    ]
    # fixed at the foot: the moment at each joint carries everything above it
    chain = [("shank", "ankle"), ("thigh", "knee"), ("trunk", "hip")]
    engine = _engine_moments(motion, chain, k, outside)
    largest = max(np.abs(d).max() for d in got.demand_nm.values())
    for joint in looked(got.demand_nm, 3):
        sign = SIGN[joint]
        assert got.demand_nm[joint][0, k] * 2 == pytest.approx(
            sign * engine[joint], abs=1e-6 * largest
        ), joint


@pytest.mark.parametrize("k", [0, 30, 60, 100])
def test_sled_press_with_the_push_of_least_effort(k):
    got = curve(Setup(exercise=EXERCISES["leg-press-45"], loads=[Sled(kg=120, empty_kg=38)]))
    motion = got.motion
    outside = [("foot", *_force_of(motion, "contact foot", k))]
    # fixed at the hip: each joint carries foot, shank and thigh beyond it
    engine = _engine_moments(
        motion, [("thigh", "hip"), ("shank", "knee"), ("foot", "ankle")], k, outside
    )
    largest = max(np.abs(d).max() for d in got.demand_nm.values())
    for joint in looked(got.demand_nm, 3):
        sign = SIGN[joint]
        # the engine holds the leg up against the demand, so from this side the sign turns
        assert got.demand_nm[joint][0, k] * 2 == pytest.approx(
            -sign * engine[joint], abs=1e-6 * largest
        ), joint


FREE_END = [("thigh", "hip"), ("shank", "knee"), ("foot", "ankle")]


def _agrees_from_the_foot(got, k):
    """Compare the leg hung from a fixed hip: its weights and what meets foot and shank."""
    motion = got.motion
    outside = []
    for force in motion.forces:
        if force.source.startswith("weight") or force.segment not in (
            "foot",
            "shank",
            "thigh",
            "toes",
            "sled",
        ):
            continue
        segment = "foot" if force.segment == "toes" else force.segment
        point, pull = motion.full(force.point)[:, 0, k], motion.full(force.force)[:, 0, k]
        outside.append((segment, point, pull))
    turns = [
        (s, motion.full(m)[0, k]) for s, m, _ in motion.couples if s in ("foot", "shank", "thigh")
    ]
    engine = _engine_moments(motion, FREE_END, k, outside, turns)
    largest = max(1.0, *(np.abs(d).max() for d in got.demand_nm.values())) * motion.legs
    for joint in SIGN:
        if joint in got.demand_nm:
            want = -SIGN[joint] * engine["hip" if joint == "hip_abduction" else joint]
            assert got.demand_nm[joint][0, k] * motion.legs == pytest.approx(
                want, abs=1e-6 * largest
            ), joint


BAND = Band(law=LinearLaw(rest_m=0.7, rate_n_per_m=250), port="shoulders", anchor_port="sole")
CASES = {
    "hinge, bar over the foot": ("romanian-deadlift", [FreeMass(kg=70, port="hands")]),
    "hinge, one leg": ("one-leg-romanian-deadlift", [FreeMass(kg=20, port="hands")]),
    "split, dumbbells and a band": ("split-squat", [FreeMass(kg=32, port="hands"), BAND]),
    "rear-raised split": ("rear-raised-split-squat", [FreeMass(kg=24, port="goblet")]),
    "calf on a step": ("calf-raise-step", [FreeMass(kg=40, port="hands")]),
    "bridge": ("hip-thrust", [FreeMass(kg=80, port="hip-crease")]),
    "back extension": ("back-extension-45", [FreeMass(kg=15, port="goblet")]),
    "reverse nordic": ("reverse-nordic", [FreeMass(kg=8, port="goblet")]),
    "nordic": ("nordic-curl", []),
    "leg extension, dumbbell": ("leg-extension-dumbbell", [FreeMass(kg=14, port="ankle")]),
    "curl, prone": ("leg-curl-dumbbell", [FreeMass(kg=9, port="ankle")]),
    "squat with chains": ("back-squat-high", [Chain(kg_per_m=6, length_m=1.1, port="back-high")]),
    "belt squat on a cable": (
        "belt-squat-cable",
        [Cable(kg=60, port="hip-belt", pulley=(0.06, -0.1))],
    ),
    "deadlift": ("deadlift", [FreeMass(kg=60, port="hands")]),
    "lunge": ("walking-lunge", [FreeMass(kg=24, port="hands")]),
    "b-stance": ("b-stance-squat", [FreeMass(kg=24, port="goblet")]),
    "ball at the wall": ("ball-wall-squat", [FreeMass(kg=24, port="hands")]),
    "bar on rails": ("rail-squat", [FreeMass(kg=50, port="back-high")]),
    "belt with a handle": (
        "belt-squat-lever",
        [Lever(pivot=(-1, 0.4), kg=40, arm_m=1.2, port="hip-belt")],
    ),
    "hack squat": ("hack-squat", [Sled(kg=80, empty_kg=30)]),
    "arc squat": ("arc-squat", [Lever(pivot=(-1.1, 1.2), kg=40, arm_m=1.2, port="pad")]),
    "leg extension on a lever": (
        "leg-extension",
        [Lever(pivot=(0.46, 0.62), kg=30, arm_m=0.4, port="shin-pad")],
    ),
    "pendulum": ("pendulum-hip-extension", [Pendulum(kg=20, arm_m=0.9)]),
    "leg raise": ("hanging-leg-raise", [FreeMass(kg=4, port="ankle")]),
    "side raise": ("side-lying-raise", [FreeMass(kg=3, port="ankle")]),
    "sissy": ("sissy-squat", []),
    "seated calf": ("calf-raise-seated", [FreeMass(kg=40, port="thigh")]),
    "calf on a press": ("calf-raise-press", [Sled(kg=100, empty_kg=30)]),
    "couch press": ("couch-knee-press", []),
    "carriage": ("carriage-push", [SpringLoad(spring=Spring(start_n=40, end_n=200, travel_m=0.9))]),
    "carriage sideways": (
        "carriage-side-push",
        [SpringLoad(spring=Spring(start_n=40, end_n=200, travel_m=0.9))],
    ),
    "carriage kick": (
        "carriage-kick",
        [SpringLoad(spring=Spring(start_n=40, end_n=200, travel_m=0.9))],
    ),
    "wedge under the heels": ("heel-raised-squat", [FreeMass(kg=20, port="goblet")]),
}


@pytest.mark.parametrize("k", [0, 50, 100])
@pytest.mark.parametrize("case", list(CASES))
def test_one_exercise_of_every_family(case, k):
    name, loads = CASES[case]
    entry = EXERCISES[name]
    options = {"stance_m": 0.3} if "stance_m" in entry.options else {}
    got = curve(
        Setup(exercise=entry, options=options, loads=loads, limits=Limits(hip_flexion_deg=155))
    )
    _agrees_from_the_foot(got, k)


# thighs that open on a seat have a test of their own: their shanks hang, no ankle is placed
EVERY = sorted(
    {id_ for id_, _ in EVERY_LOAD if EXERCISES[id_].family not in ("thigh spread", "plain path")}
)


@pytest.mark.parametrize("exercise", EVERY)
def test_every_exercise_with_every_kind_of_load_it_takes(exercise):
    """At the start of the lift and well into it: each leg joint's demand is what the engine finds
    from the far side.
    """
    entry = EXERCISES[exercise]
    # feet within the hips: the leg plane is the side view, as in the engine's model
    options = {"stance_m": 0.3} if "stance_m" in entry.options else {}
    compared = 0
    for kind in (kind for id_, kind in EVERY_LOAD if id_ == exercise):
        loads = loads_of(exercise, kind)
        got = curve_or_refusal(
            Setup(exercise=entry, options=options, limits=FREE, loads=loads, samples=21)
        )
        if isinstance(got, PostureError) or not got.demand_nm:
            continue
        for k in (0, 13):
            _agrees_from_the_foot(got, k)
        compared += 1
    assert compared, "nothing of it was compared"


def _agrees_beyond(got, name, k):
    """Compare a joint beside the working leg's: everything beyond it as one rigid body that hangs
    from it.
    """
    motion, joint = got.motion, JOINTS[name]
    beyond = "+".join(sorted(joint.distal))
    outside = [
        (beyond, motion.full(f.point)[:, 0, k], motion.full(f.force)[:, 0, k])
        for f in motion.forces
        if f.segment in joint.distal and not f.source.startswith("weight")
    ]
    turns = [
        (beyond, motion.full(moment)[0, k]) for s, moment, _ in motion.couples if s in joint.distal
    ]
    place = place_of(name)
    engine = _engine_moments(motion, [(beyond, place)], k, outside, turns)[place]
    assert got.other_nm[name][0, k] == pytest.approx(-joint.sign * engine, abs=1e-5), (name, k)


def has_more(exercise):
    """Return whether any joint beside the working leg's moves."""
    got = curve(
        Setup(exercise=EXERCISES[exercise], limits=FREE, samples=11), strict=False, lowering=False
    )
    return bool(got.other_nm.keys() & JOINTS.keys())


@pytest.mark.parametrize("exercise", filter(has_more, EVERY))
def test_the_joints_beside_the_working_leg_s_with_every_kind_of_load(exercise):
    """Rear, other and free legs, shoulders, toes and low back; a hip's twist across its leg plane
    has no hinge here.
    """
    compared = 0
    for kind in (kind for id_, kind in EVERY_LOAD if id_ == exercise):
        setup = Setup(
            exercise=EXERCISES[exercise], limits=FREE, loads=loads_of(exercise, kind), samples=21
        )
        got = curve_or_refusal(setup)
        if isinstance(got, PostureError):
            continue
        for name, k in itertools.product(got.other_nm.keys() & JOINTS.keys(), (0, 13)):
            _agrees_beyond(got, name, k)
            compared += 1
    assert compared, "nothing of it was compared"


def test_a_band_as_the_engine_s_own_tendon():
    """The same band as a tendon with a slack length (`0 L0`) pulls with the same moment at hip and
    knee.
    """
    rest, rate, anchor = 0.9, 260.0, (0.12, 0.0)
    band = Band(
        law=LinearLaw(rest_m=rest, rate_n_per_m=rate), port="shoulders", anchor=(*anchor, 0.0)
    )
    options, limits = {"stance_m": 0.3}, Limits(hip_flexion_deg=155)
    entry = EXERCISES["band-squat"]
    for k in (0, 40, 100):
        got = curve(Setup(exercise=entry, options=options, loads=[band], limits=limits))
        motion = got.motion
        hip = motion.full(motion.points["hip"])[:, 0, k]
        shoulder = motion.full(motion.points["shoulder"])[:, 0, k]
        x, y = (float(v) for v in shoulder - hip)
        tendon = (
            f'<mujoco><option gravity="0 0 0"/><worldbody><site name="eye" pos="{anchor[0]} '
            f'{anchor[1]} 0"/>'
            f'<body pos="{float(hip[0])!r} {float(hip[1])!r} 0"><joint axis="0 0 1"/>'
            f'<geom type="sphere" size=".01" mass="1"/><site name="shoulder" pos="{x!r} {y!r} '
            '0"/></body></worldbody>'
            f'<tendon><spatial stiffness="{rate * 2}" springlength="0 {rest}">'
            '<site site="eye"/><site site="shoulder"/></spatial></tendon></mujoco>'
        )
        model = mujoco.MjModel.from_xml_string(tendon)
        data = mujoco.MjData(model)
        mujoco.mj_forward(model, data)
        point, pull = _force_of(motion, "load 0", k)
        r = point - hip
        ours = r[0] * pull[1] - r[1] * pull[0]
        assert data.qfrc_passive[0] == pytest.approx(ours, abs=1e-6 * max(abs(ours), 1))


def test_thighs_opening_against_a_loop_as_the_engine_s_tendon():
    """Two thighs seen from above with a loop as a tendon: the moment at each hip is the demand per
    leg.
    """
    rest, rate = 0.23, 300.0
    loop = Band(law=LinearLaw(rest_m=rest, rate_n_per_m=rate), port="thigh", anchor_port="thigh")
    got = curve(Setup(exercise=EXERCISES["abduction-loop"], loads=[loop]))
    half, at = 0.05 * 1.8, 0.9 * 0.441
    model = mujoco.MjModel.from_xml_string(
        '<mujoco><option gravity="0 0 0"/><worldbody>'
        + "".join(
            f'<body pos="{side * half} 0 0"><joint axis="0 0 1"/><geom type="sphere" size=".01" '
            'mass="1"/>'
            f'<site name="{name}" pos="0 {at} 0"/></body>'
            for name, side in (("left", -1), ("right", 1))
        )
        + f'</worldbody><tendon><spatial stiffness="{2 * rate}" springlength="0 {rest}">'
        '<site site="left"/><site site="right"/></spatial></tendon></mujoco>'
    )
    data = mujoco.MjData(model)
    for k in (0, 50, 100):
        opened = float(got.motion.angles["hip_abduction"][0, k])
        data.qpos[:] = (opened, -opened)
        mujoco.mj_forward(model, data)
        demand = got.demand_nm["hip_abduction"][0, k]
        assert -data.qfrc_passive[0] == pytest.approx(demand, abs=1e-6 * max(demand, 1))
    assert got.demand_nm["hip_abduction"][0, -1] > 50


def test_a_plain_path_against_the_engine_s_slide():
    rest, rate = 0.4, 250.0
    band = Band(
        law=LinearLaw(rest_m=rest, rate_n_per_m=rate),
        port="hands",
        anchor=(0.3, -0.2, 0.0),
        strands=1,
    )
    got = curve(
        Setup(
            exercise=EXERCISES["plain-path"],
            options={"start_y_m": 0.0},
            loads=[band, FreeMass(kg=5, port="hands")],
        )
    )
    model = mujoco.MjModel.from_xml_string(
        '<mujoco><option gravity="0 -9.80665 0"/><worldbody><site name="eye" pos=".3 -.2 0"/>'
        '<body><joint type="slide" axis="0 1 0"/><geom type="sphere" size=".01" mass="5"/><site '
        'name="hand"/></body>'
        f'</worldbody><tendon><spatial stiffness="{rate}" springlength="0 {rest}"><site '
        'site="eye"/><site site="hand"/>'
        "</spatial></tendon></mujoco>"
    )
    data = mujoco.MjData(model)
    for k in (0, 40, 100):
        data.qpos[0] = got.motion.path_travel[0, k]
        mujoco.mj_inverse(model, data)
        assert data.qfrc_inverse[0] == pytest.approx(got.motion.path_force[0, k], rel=1e-6)


@pytest.mark.parametrize("k", [400, 900, 1500])
def test_a_fast_squat_against_inverse_dynamics_with_speeds_and_accelerations(k):
    """Minimum-jerk lift in 0.8 s: the engine gets posture, speeds and accelerations and the
    segments' inertia.
    """
    limits, options = Limits(hip_flexion_deg=150), {"stance_m": 0.3, "knee_from_deg": 80}
    loads = [FreeMass(kg=60, port="back-high")]
    setup = Setup(
        exercise=EXERCISES["back-squat-high"],
        options=options,
        loads=loads,
        limits=limits,
        samples=2001,
    )
    got = curve(setup)
    fast = dynamic_nm(got, 0.8)
    motion, step = got.motion, 1 / 2000
    speed, acceleration = (float(v[k]) for v in profile(motion.position, 0.8))

    def turning(a, b):
        """Return angle's derivatives along the lift by plain central differences, an own route."""
        gap = motion.full(motion.points[b])[:, 0] - motion.full(motion.points[a])[:, 0]
        angle = np.unwrap(np.arctan2(gap[1], gap[0]))
        first = (angle[k + 1] - angle[k - 1]) / (2 * step)
        second = (angle[k + 1] - 2 * angle[k] + angle[k - 1]) / step**2
        return np.array([first * speed, second * speed**2 + first * acceleration])

    shank, thigh, trunk = (
        turning("ankle", "knee"),
        turning("knee", "hip"),
        turning("hip", "shoulder"),
    )
    rates = np.stack((shank, thigh - shank, trunk - thigh))
    xml, closing, parent = "", "", None
    ends = {"shank": ("ankle", "knee"), "thigh": ("knee", "hip"), "trunk": ("hip", "shoulder")}
    for name, (low, high) in ends.items():
        here, there = (motion.full(motion.points[p])[:, 0, k] for p in (low, high))
        origin = np.zeros(2) if parent is None else motion.full(motion.points[parent])[:, 0, k]
        segment = next(s for s in motion.segments if s.name == name)
        com = motion.full(segment.com)[:, 0, k] - here
        # two half masses a radius of gyration either side of the centre have the segment's moment
        # of inertia
        off = GYRATION[name] * (there - here)
        dots = [(segment.mass_kg / 2, com + sign * off) for sign in (-1, 1)]
        if name == "trunk":
            dots.append((60.0, _force_of(motion, "load 0", k)[0] - here))
        x, y = (float(v) for v in here - origin)
        xml += f'<body pos="{x!r} {y!r} 0"><joint axis="0 0 1"/>' + "".join(
            (
                f'<geom type="sphere" size=".0001" mass="{m!r}" pos="{float(p[0])!r} '
                f"{float(p[1])!r} "
                '0"/>'
            )
            for m, p in dots
        )
        closing, parent = closing + "</body>", low
    model = mujoco.MjModel.from_xml_string(
        f'<mujoco><option gravity="0 -9.80665 0"/><worldbody>{xml}{closing}</worldbody></mujoco>'
    )
    data = mujoco.MjData(model)
    data.qvel[:], data.qacc[:] = rates[:, 0], rates[:, 1]
    mujoco.mj_inverse(model, data)
    largest = max(np.abs(d).max() for d in fast.values())
    for i, joint in enumerate(("ankle", "knee", "hip")):
        assert fast[joint][0, k] * 2 == pytest.approx(
            SIGN[joint] * data.qfrc_inverse[i], abs=1e-5 * largest
        ), joint
    assert abs(fast["knee"][0, k] - got.demand_nm["knee"][0, k]) > 1, "the tempo matters"
