"""Every built-in check value, and what no single number says. Sources stand beside the values in
usecases/checks.
"""

from __future__ import annotations

import numpy as np
import pytest

from widearc.core.body import Limits
from widearc.core.equipment import Sled
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import curve
from widearc.core.strength import strength_nm
from widearc.core.units import G
from widearc.usecases.selfcheck import CHECKS
from widearc.usecases.selfcheck.check import Group


@pytest.mark.parametrize("check", CHECKS, ids=lambda c: c.name)
def test_check_value(check):
    got = check.got()
    assert check.passes(got), (check.expected, got, check.source)
    # a check that also passes a tenth off (or a miss twice as large, or one unit) checks nothing
    off = [
        g * 1.1 if e else max(2.0 * abs(g), 1.0) for g, e in zip(got, check.expected, strict=True)
    ]
    assert not check.passes(off), "tolerance too wide"


def test_every_group_of_sources_is_checked_and_named():
    assert {c.group for c in CHECKS} == set(Group) and len({c.name for c in CHECKS}) == len(
        CHECKS
    ) > 60
    for check in CHECKS:
        assert (
            check.source == "common practice, no source"
            or check.group is Group.STATICS
            or "from memory" in check.source
            or ("exact" in check.source or "worked" in check.source)
        ), check.name


def result(name, options=None, loads=(), **limits):
    limits = Limits(**{"hip_flexion_deg": 155, **limits})
    return curve(Setup(exercise=EXERCISES[name], options=options or {}, loads=loads, limits=limits))


def test_least_effort_push_lowers_the_effort_it_minimises():
    def cost(push):
        got = result("leg-press-45", {"push": push}, [Sled(kg=120, empty_kg=38)])
        total = 0.0
        for joint, action in (
            ("hip", "hip_extension"),
            ("knee", "knee_extension"),
            ("ankle", "plantarflexion"),
        ):
            can = strength_nm(
                action, got.motion.angles[joint], mass_kg=80, stature_m=1.8, sex="mean"
            )
            total = total + (got.demand_nm[joint] / can) ** 2
        return total[0], got.motion.marks["push"][0]

    least, push = cost("least-effort")
    none, nothing = cost("none")
    assert np.all(least <= none + 1e-12) and np.all(nothing == 0)
    assert np.abs(push).max() <= 0.3 * 158 * G * np.sin(np.deg2rad(45)) + 1e-9


def test_strength_limits():
    angle = np.deg2rad(np.array([0.0, 20.0, 100.0, 140.0]))
    got = strength_nm("knee_extension", angle, mass_kg=80, stature_m=1.8, sex="male")
    peak = strength_nm(
        "knee_extension", np.deg2rad(np.array([65.0])), mass_kg=80, stature_m=1.8, sex="male"
    )[0]
    assert got[2] == got[3] and got[0] >= 0.45 * peak - 0.1
