"""Statics against MuJoCo, a general-purpose physics engine: same posture and forces, inverse dynamics at rest."""

from __future__ import annotations

import mujoco
import numpy as np
import pytest

from widearc.core.body import Limits
from widearc.core.catalogue import EXERCISES
from widearc.core.equipment import Band, FreeMass, LinearLaw, Sled
from widearc.core.movement import Setup
from widearc.core.statics import curve

SIGN = {"hip": 1, "knee": -1, "ankle": 1}


def _body(name: str, motion, parent: str | None, at: str, k: int, extra: str = "") -> str:
    """Return one body of the engine's model: frame at a joint's place, hinge, and the segment's weight."""
    here = motion.full(motion.points[at])[:, 0, k]
    origin = np.zeros(2) if parent is None else motion.full(motion.points[parent])[:, 0, k]
    x, y = here - origin
    parts = []
    for segment in motion.segments:
        if segment.name in name.split("+"):
            px, py = motion.full(segment.com)[:, 0, k] - here
            parts.append(
                f'<geom type="sphere" size=".01" mass="{segment.mass_kg!r}" pos="{float(px)!r} {float(py)!r} 0"/>'
            )
    start = f'<body name="{name}" pos="{float(x)!r} {float(y)!r} 0"><joint name="{at}" axis="0 0 1"/>'
    return start + "".join(parts) + extra


def _engine_moments(motion, chain, k, loads=()):
    """Return the joint moments (N·m, anticlockwise on the parent side's child) that hold one posture at rest.

    chain: (segment, its joint) from the fixed end outward; loads: (segment, point, force) outside forces.
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
    for segment, point, force in loads:
        body = mujoco.mj_name2id(model, mujoco.mjtObj.mjOBJ_BODY, segment)
        torque = np.zeros(model.nv)
        at = np.array([*point, 0.0])
        mujoco.mj_applyFT(model, data, np.array([*force, 0.0]), np.zeros(3), at, body, torque)
        data.qfrc_applied += torque
    data.qacc[:] = 0
    mujoco.mj_inverse(model, data)
    return {joint: data.qfrc_inverse[i] - data.qfrc_applied[i] for i, (_, joint) in enumerate(chain)}


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
    got = curve(Setup(exercise=EXERCISES["back-squat-high"], options=options, loads=loads, limits=limits))
    motion = got.motion
    outside = [("trunk", *_force_of(motion, "load 0", k)), ("trunk", *_force_of(motion, "load 1", k))]
    # fixed at the foot: the moment at each joint carries everything above it
    chain = [("shank", "ankle"), ("thigh", "knee"), ("trunk", "hip")]
    engine = _engine_moments(motion, chain, k, outside)
    largest = max(np.abs(d).max() for d in got.demand_nm.values())
    for joint, sign in SIGN.items():
        assert got.demand_nm[joint][0, k] * 2 == pytest.approx(sign * engine[joint], abs=1e-6 * largest), joint


@pytest.mark.parametrize("k", [0, 30, 60, 100])
def test_sled_press_with_the_push_of_least_effort(k):
    got = curve(Setup(exercise=EXERCISES["leg-press-45"], loads=[Sled(kg=120, empty_kg=38)]))
    motion = got.motion
    outside = [("foot", *_force_of(motion, "contact foot", k))]
    # fixed at the hip: each joint carries foot, shank and thigh beyond it
    engine = _engine_moments(motion, [("thigh", "hip"), ("shank", "knee"), ("foot", "ankle")], k, outside)
    largest = max(np.abs(d).max() for d in got.demand_nm.values())
    for joint, sign in SIGN.items():
        # the engine holds the leg up against the demand, so from this side the sign turns
        assert got.demand_nm[joint][0, k] * 2 == pytest.approx(-sign * engine[joint], abs=1e-6 * largest), joint
