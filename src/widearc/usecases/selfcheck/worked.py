"""Worked values: computed once by hand for a body of 80 kg and 1.80 m (the design's mechanics
page).
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from widearc.core.equipment import Cable, FreeMass, Sled
from widearc.core.statics import audit, inertia_percent
from widearc.usecases.selfcheck.check import Check, Group, curve_of

SQUAT = "worked: high bar 80 kg, knee 115 to 5°, head-arms-trunk in one piece"
HINGE = "worked: hinge 80 kg, knees 15°, trunk 80 to 0°"


def _squat(kg: float, ankle_deg: float) -> Sequence[float]:
    got = curve_of(
        "back-squat-high",
        {"knee_from_deg": 115},
        [FreeMass(kg=kg, port="back-high")],
        dorsiflexion_deg=ankle_deg,
    )
    return [got.demand_nm["knee"][0, 0], got.demand_nm["hip"][0, 0]]


def _squat_energy() -> Sequence[float]:
    balance = audit(
        curve_of("back-squat-high", {"knee_from_deg": 115}, [FreeMass(kg=80, port="back-high")])
    )
    return [balance.joint_work_j[0], balance.energy_change_j[0]]


def _hinge(hold: str) -> Sequence[float]:
    got = curve_of("romanian-deadlift", {"hold": hold}, [FreeMass(kg=80, port="hands")])
    work = sum(
        -np.trapezoid(got.demand_nm[j][0], got.motion.angles[j][0]) for j in ("hip", "ankle")
    )
    return [got.demand_nm["hip"][0, 0], got.demand_nm["knee"][0, 0], float(work)]


def _press(height_m: float, tilt_deg: float = 10.0) -> tuple[float, float]:
    options = {"foot_height_m": height_m, "plate_tilt_deg": tilt_deg}
    motion = curve_of("leg-press-45", options, [Sled(kg=0, empty_kg=0)], dorsiflexion_deg=60).motion
    return float(np.rad2deg(motion.angles["ankle"][0, 0])), float(
        np.rad2deg(motion.angles["hip"][0, 0])
    )


def _press_moves() -> Sequence[float]:
    here, higher, square = _press(0.10), _press(0.15), _press(0.10, 0.0)
    return [here[0], here[0] - higher[0], higher[1] - here[1], square[0] - here[0]]


def _push() -> Sequence[float]:
    """Return what one leg pushes at the start on a laden sled, N."""
    force = curve_of(
        "leg-press-45", {"rail_deg": 40}, [Sled(kg=120, empty_kg=38)]
    ).motion.path_force
    return [] if force is None else [float(force[0, 0]) / 2]


def _belt_upright() -> Sequence[float]:
    """Return how far ahead of the hip a load on a hanging pin acts, upright, m."""
    options = {"trunk_lean_deg": 0, "knee_from_deg": 60}
    motion = curve_of("belt-squat-pin", options, [FreeMass(kg=50, port="hip-belt")]).motion
    load = next(f for f in motion.forces if f.source == "load 0")
    return [float(motion.full(load.point)[0, 0, -1] - motion.full(motion.points["hip"])[0, 0, -1])]


def _belt_in_depth() -> Sequence[float]:
    """Return the cable's arm about the hip at 115° of knee bend, m."""
    cable = Cable(kg=60, port="hip-belt", pulley=(0.06, 0.0))
    got = curve_of("belt-squat-cable", {"knee_from_deg": 115}, [cable])
    motion = got.motion
    load = next(f for f in motion.forces if f.source == "load 0")
    r = motion.full(load.point)[:, 0, 0] - motion.full(motion.points["hip"])[:, 0, 0]
    f = motion.full(load.force)[:, 0, 0]
    return [float(abs(r[0] * f[1] - r[1] * f[0]) / np.hypot(*f))]


WORKED = (
    *(
        Check(
            group=Group.WORKED,
            name=f"squat {kg:.0f} kg, ankle limit {cap:.0f}°: knee and hip at the lengthened end",
            unit="N·m",
            expected=expected,
            tolerance=0.6,
            source=SQUAT,
            compute=lambda kg=kg, cap=cap, wanted=expected: _squat(kg, cap)[: len(wanted)],  # type: ignore[misc]
        )
        for kg, cap, expected in (
            (80.0, 35.0, (146.0, 159.0)),
            (0.0, 35.0, (70.0, 65.0)),
            (80.0, 60.0, (182.0,)),
            (0.0, 60.0, (87.0,)),
            (80.0, 30.0, (121.0,)),
            (0.0, 30.0, (58.0,)),
        )
    ),
    Check(
        group=Group.WORKED,
        name="squat 80 kg: joint work and change of height",
        unit="J",
        expected=(728.0, 728.0),
        tolerance=0.6,
        source=SQUAT,
        compute=_squat_energy,
    ),
    Check(
        group=Group.WORKED,
        name="hinge, bar over the foot: hip, knee, work",
        unit="N·m, N·m, J",
        expected=(184.0, -77.0, 168.0),
        tolerance=1.0,
        source=HINGE,
        compute=lambda: _hinge("bar"),
    ),
    Check(
        group=Group.WORKED,
        name="hinge, weights hanging: hip, knee, work",
        unit="N·m, N·m, J",
        expected=(285.0, -132.0, 284.0),
        tolerance=1.0,
        source=HINGE,
        compute=lambda: _hinge("hang"),
    ),
    Check(
        group=Group.WORKED,
        name="press: ankle asked at 90°; 5 cm higher eases the ankle, asks the hip; "
        "square asks more",
        unit="°",
        expected=(26.0, 5.0, 5.0, 10.0),
        tolerance=0.5,
        source="worked: 45° press, foot 0.10 m, tilt 10°",
        compute=_press_moves,
    ),
    Check(
        group=Group.WORKED,
        name="push on a 38 kg sled with 120 kg at 40°, one leg",
        unit="N",
        expected=(498.0,),
        tolerance=0.6,
        source="worked: the picture of intent",
        compute=_push,
    ),
    Check(
        group=Group.WORKED,
        name="belt ring ahead of the hip upright",
        unit="m",
        expected=(0.12,),
        tolerance=1e-6,
        source="worked: belt ring 0.12 m ahead in the pelvis, hanging pin",
        compute=_belt_upright,
    ),
    Check(
        group=Group.WORKED,
        name="belt cable's arm at the hip at 115° of knee bend",
        unit="m",
        expected=(0.04,),
        tolerance=0.003,
        source="worked: cable to mid-foot, 49° of lean",
        compute=_belt_in_depth,
    ),
    Check(
        group=Group.WORKED,
        name="inertia of a free weight, 0.6 m in 1 s and in 2 s",
        unit="% either way",
        expected=(35.0, 9.0),
        tolerance=0.5,
        source="worked: minimum jerk, 59·d/T²",
        compute=lambda: [inertia_percent(0.6, 1.0), inertia_percent(0.6, 2.0)],
    ),
)
