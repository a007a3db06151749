"""Facts of the trade: common practice, no source. For checks only, never for the demo."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence

import numpy as np

from widearc.core.body import Body
from widearc.core.equipment import (
    Band,
    CornerBar,
    FreeMass,
    LinearLaw,
    Sled,
    Spring,
    hung_rest_m,
    lighter_until_m,
    parallel,
)
from widearc.core.progression import change_percent, compounded, one_leg_start_kg, step_share
from widearc.core.statics import Curve, frontal_nm
from widearc.core.statics.frontal import HAND_OUT_M
from widearc.core.units import FORCE_N, IN_M, G
from widearc.usecases.selfcheck.check import Check, Group, check_of, curve_of

SOURCE = "common practice, no source"
Compute = Callable[..., Sequence[float]]
LBF, TRAVEL = FORCE_N["lbf"], 0.9


def _spring(start: float, end: float) -> Spring:
    return Spring(start_n=start * LBF, end_n=end * LBF, travel_m=TRAVEL)


LIGHT, MEDIUM, THIRD, FOURTH = (
    _spring(1, 6),
    _spring(2.5, 12.5),
    _spring(7.5, 37.5),
    _spring(10, 70),
)


LADDER = {
    "third": ([THIRD], (7.5, 22.5, 37.5)),
    "third + light": ([THIRD, LIGHT], (8.5, 26.0, 43.5)),
    "third + medium": ([THIRD, MEDIUM], (10.0, 30.0, 50.0)),
    "third + medium + light": ([THIRD, MEDIUM, LIGHT], (11.0, 33.5, 56.0)),
    "fourth": ([FOURTH], (10.0, 40.0, 70.0)),
    "fourth + light": ([FOURTH, LIGHT], (11.0, 43.5, 76.0)),
    "fourth + medium": ([FOURTH, MEDIUM], (12.5, 47.5, 82.5)),
    "fourth + medium + light": ([FOURTH, MEDIUM, LIGHT], (13.5, 51.0, 88.5)),
    "fourth + third": ([FOURTH, THIRD], (17.5, 62.5, 107.5)),
    "light + medium, against half the third": ([LIGHT, MEDIUM], (3.5, 11.0, 18.5)),
    "two medium, two thirds of the third": ([MEDIUM, MEDIUM], (5.0, 15.0, 25.0)),
}


def _pulls(springs: list[Spring]) -> Sequence[float]:
    return list(parallel(springs).force_n(np.array([0, 0.5, 1]) * TRAVEL) / LBF)


def _ratios(heavy: Spring, light: Spring) -> Sequence[float]:
    return [
        heavy.rate_n_per_m / light.rate_n_per_m,
        heavy.start_n / light.start_n,
        heavy.end_n / light.end_n,
    ]


def _pulling_ladder() -> Sequence[float]:
    ends = [
        parallel(s).end_n for s in ([LIGHT], [MEDIUM], [MEDIUM, LIGHT], [MEDIUM, MEDIUM], [THIRD])
    ]
    return [change_percent(a, b) for a, b in itertools.pairwise(ends)]


def _at(
    got: Curve, joint: str, angles: Sequence[float], part: np.ndarray | None = None
) -> Sequence[float]:
    """Return demand at joint angles (degrees) as shares of the greatest."""
    bend = np.rad2deg(got.motion.angles[joint][0])
    value = np.abs(got.demand_nm[joint][0] if part is None else part)
    order = np.argsort(bend)
    return [float(v) for v in np.interp(angles, bend[order], (value / value.max())[order])]


def _dumbbell() -> Sequence[float]:
    options = {"knee_from_deg": 90, "knee_to_deg": 0}
    full, bare = (
        curve_of("leg-extension-dumbbell", options, [FreeMass(kg=kg, port="ankle")])
        for kg in (16.0, 0.0)
    )
    return _at(
        full, "knee", (0, 30, 45, 60, 90), full.demand_nm["knee"][0] - bare.demand_nm["knee"][0]
    )


def _straight_body() -> Sequence[float]:
    got = curve_of("nordic-curl", {"lean_from_deg": 90})
    # straight up the knee is at 90°, level at 0°
    return _at(got, "knee", (60, 30, 0))


def _sled(rail: float) -> Sequence[float]:
    path = curve_of(
        "leg-press-45", {"rail_deg": rail}, [Sled(kg=100, empty_kg=0)]
    ).motion.path_force
    assert path is not None
    return [float(path[0, 0] / (100 * G)), float(np.ptp(path))]


def _corner(height: float) -> Sequence[float]:
    bar = CornerBar(plate_kg=20, bar_kg=20, bar_m=2.2, sleeve_m=2.0, hand_m=2.1, port="goblet")
    got = curve_of("corner-bar-squat", {"box_m": height}, [bar])
    load = next(f for f in got.motion.forces if f.source == "load 0")
    size = np.hypot(*got.motion.full(load.force)[:, 0])
    return [float(size.min() / G), float(size.max() / G)]


def _pad(lever_m: float) -> Sequence[float]:
    bare, padded = (
        curve_of("leg-extension", {"pad_m": lever_m, "pad_extra_m": extra}).motion.angles["knee"][
            0, 0
        ]
        for extra in (0.0, 0.0508)
    )
    return [float(np.rad2deg(padded - bare))]


def _wedge(height_m: float) -> Sequence[float]:
    # a foot whose heel to ball measures 18 cm
    body = Body(stature_m=0.18 / 0.66 / 0.152)
    flat, raised = (
        curve_of(
            "bodyweight-squat",
            {"knee_from_deg": 60, "heel_wedge_m": h},
            body=body,
            dorsiflexion_deg=60,
        )
        for h in (0.0, height_m)
    )
    return [
        float(np.rad2deg(flat.motion.angles["ankle"][0, 0] - raised.motion.angles["ankle"][0, 0]))
    ]


def _box() -> Sequence[float]:
    band = Band(
        law=LinearLaw(rest_m=0.5, rate_n_per_m=60), port="hip-belt", anchor=(0.06, 0.0, 0.0)
    )
    on_floor, on_box = (
        curve_of("belt-squat-home", {"box_m": h, "knee_from_deg": 60}, [band]).motion.load_lengths[
            0
        ][0, -1]
        for h in (0.0, 12 * IN_M)
    )
    return [100.0 * float(on_box - on_floor)]


def _folded() -> Sequence[float]:
    law = LinearLaw(rest_m=1.0, rate_n_per_m=100.0)
    flat, folded = (Band(law=law, port="hands", anchor_port="sole", strands=n) for n in (2, 4))
    return [float(folded.tension_n(np.array(0.5 + 0.3)) / flat.tension_n(np.array(1.0 + 0.3)))]


def _surplus(total: float, left_share: float) -> Sequence[float]:
    """Return the one-sided surplus (kg) that a pair's abduction demand at the working hip amounts
    to.
    """
    even, uneven = (
        frontal_nm(got.setup, got.motion)
        for got in (
            curve_of("offset-lunge", {"load_left_share": share}, [FreeMass(kg=total, port="hands")])
            for share in (0.5, left_share)
        )
    )
    assert even is not None and uneven is not None
    hand = 0.5 * Body().outer_hip_breadth_m + HAND_OUT_M
    return [float((uneven - even)[0, -1] / (hand * G))]


def _fact(
    name: str, unit: str, expected: Sequence[float], tolerance: float, compute: Compute
) -> Check:
    return check_of(Group.TRADE, name, unit, expected, tolerance, SOURCE, compute)


TRADE = (
    _fact(
        "hung carriage of 15 lb: where four springs rest",
        "of travel",
        (1, 1, 0.25, 0.083),
        5e-4,
        lambda: [hung_rest_m(s, 15 * LBF) / TRAVEL for s in (LIGHT, MEDIUM, THIRD, FOURTH)],
    ),
    *(
        _fact(
            f"spring ladder, {name}: start, middle, end",
            "lbf",
            expected,
            1e-6,
            lambda s=springs: _pulls(s),
        )
        for name, (springs, expected) in LADDER.items()
    ),
    _fact(
        "medium against light spring: rate, start, end",
        "times",
        (2, 2.5, 2.08),
        0.005,
        lambda: _ratios(MEDIUM, LIGHT),
    ),
    _fact(
        "third against medium spring: rate, start, end",
        "times",
        (3, 3, 3),
        0.005,
        lambda: _ratios(THIRD, MEDIUM),
    ),
    _fact(
        "fourth against third spring: rate, start, end",
        "times",
        (2, 1.33, 1.87),
        0.005,
        lambda: _ratios(FOURTH, THIRD),
    ),
    _fact(
        "third + medium + light to fourth: lighter for the first",
        "% of travel",
        (6.7,),
        0.05,
        lambda: [100 * lighter_until_m(parallel([THIRD, MEDIUM, LIGHT]), FOURTH) / TRAVEL],
    ),
    _fact("pulling ladder at full travel", "%", (108, 48, 35, 50), 0.5, _pulling_ladder),
    _fact(
        "dumbbell on the foot, knee at 0, 30, 45, 60, 90°",
        "of the greatest",
        (1, 0.87, 0.71, 0.50, 0),
        0.005,
        _dumbbell,
    ),
    _fact(
        "straight body leaning 30, 60, 90° from the knees",
        "of the greatest",
        (0.50, 0.87, 1),
        0.005,
        _straight_body,
    ),
    _fact(
        "trunk on a 45° bench at hip bend 0, 45, 90°",
        "of the greatest",
        (0.71, 1, 0.71),
        0.005,
        lambda: _at(curve_of("back-extension-45"), "hip", (0, 45, 90)),
    ),
    _fact(
        "trunk on a level bench at hip bend 0, 45, 90°",
        "of the greatest",
        (1, 0.71, 0),
        0.005,
        lambda: _at(curve_of("back-extension-flat"), "hip", (0, 45, 90)),
    ),
    *(
        _fact(
            f"sled along rails at {rail}°, and its change over the travel",
            "of the weight, N",
            (share, 0),
            0.005,
            lambda rail=rail: _sled(rail),
        )
        for rail, share in ((30, 0.50), (35, 0.57), (45, 0.71), (90, 1.0))
    ),
    _fact(
        "corner bar 20 kg with 20 kg: least and most at the hand",
        "kgf",
        (29.5, 29.5),
        0.05,
        lambda: _corner(0.0),
    ),
    *(
        _fact(
            f"5.08 cm pad at a lever of {100 * lever:.0f} cm: more knee bend at the start",
            "°",
            (more,),
            0.05,
            lambda lever=lever: _pad(lever),
        )
        for lever, more in ((0.30, 9.6), (0.35, 8.3), (0.40, 7.2), (0.45, 6.4))
    ),
    *(
        _fact(
            f"wedge of {100 * h:g} cm over 18 cm: ankle relief",
            "°",
            (relief,),
            0.1,
            lambda h=h: _wedge(h),
        )
        for h, relief in ((0.025, 8.0), (0.03, 9.6), (0.04, 12.8), (0.05, 16.1))
    ),
    _fact("12-inch box, band anchored on the floor: more stretch", "cm", (30.5,), 0.3, _box),
    _fact(
        "loop folded once against two full strands over the same hand travel",
        "times",
        (4,),
        1e-9,
        _folded,
    ),
    _fact(
        "70/30 pair of 100 kg: one-sided surplus", "kg", (40,), 0.01, lambda: _surplus(100, 0.70)
    ),
    _fact("one weight of 80 kg: one-sided surplus", "kg", (80,), 0.01, lambda: _surplus(80, 1.0)),
    _fact(
        "65/35 pair of 100 kg: one-sided surplus", "kg", (30,), 0.01, lambda: _surplus(100, 0.65)
    ),
    _fact(
        "same load deeper, 120 to 100 kg", "%", (-16.7,), 0.05, lambda: [change_percent(120, 100)]
    ),
    _fact(
        "5 and 10 % a week after 4 weeks",
        "times",
        (1.22, 1.46),
        0.005,
        lambda: [compounded(p, 4) for p in (0.05, 0.10)],
    ),
    _fact(
        "5 and 10 % a week after 12 weeks",
        "times",
        (1.80, 3.14),
        0.005,
        lambda: [compounded(p, 12) for p in (0.05, 0.10)],
    ),
    _fact(
        "a 2.5 kg step on 25 and on 50 kg",
        "of the load",
        (0.10, 0.05),
        1e-9,
        lambda: [step_share(2.5, kg) for kg in (25, 50)],
    ),
    _fact(
        "one-leg start for 20, 60, 100 kg at 75 kg body mass",
        "kg",
        (-12, 13, 38),
        0.5,
        lambda: [one_leg_start_kg(kg, 75) for kg in (20, 60, 100)],
    ),
    _fact(
        "leg extension study positions are admitted: hip",
        "°",
        (90, 40, 0),
        1e-6,
        lambda: [
            float(
                np.rad2deg(
                    curve_of(
                        "leg-extension", {"hip_deg": hip, "knee_from_deg": 110, "knee_to_deg": 0}
                    ).motion.angles["hip"][0, 0]
                )
            )
            for hip in (90, 40, 0)
        ],
    ),
)
