"""Checks of laws one by one: loads, strength, muscles, what is compared, how sure it is."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import numpy as np

from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.dose import RepStyle, StyleKind, dose_on_grid
from widearc.core.equipment import (
    Band,
    Cable,
    Chain,
    CornerBar,
    FreeMass,
    Hold,
    Lever,
    LinearLaw,
    MooneyRivlinLaw,
    Pendulum,
    Sled,
    Stack,
    margin,
)
from widearc.core.matching import Target, compare
from widearc.core.muscle import FMAX_N, MUSCLES, muscle_use, share_n
from widearc.core.muscle.fibres import FIBRES, short_side_factor
from widearc.core.search import Uncertainty, chance_better
from widearc.core.statics import Curve, asked_of_muscles
from widearc.core.strength import effort_of_reps, equal_effort_reps, strength_nm
from widearc.core.units import DEG
from widearc.usecases.selfcheck.by_hand import G, strength
from widearc.usecases.selfcheck.check import Check, Group, check_of, curve_of

HAND = "by hand"
Compute = Callable[..., Sequence[float]]
FLAT = Stack(kg=40, angle_deg=(-20, 120), radius_m=(0.1, 0.1), ratio=0.5, friction=0.1)


def _size(force: np.ndarray) -> float:
    return float(np.hypot(*force.reshape(2, -1)[:, 0]))


def _point(x: float, y: float) -> np.ndarray:
    return np.array([[[x]], [[y]]])


def _extension(*loads: object, **options: float) -> Curve:
    return curve_of("leg-extension", dict(options), loads)  # type: ignore[arg-type]


def _stack() -> Sequence[float]:
    got = _extension(FLAT)
    bare = _extension()
    assert got.lowering_nm is not None
    weight = bare.demand_nm["knee"][0, 0]
    return [
        2 * (got.demand_nm["knee"][0, 0] - weight),
        2 * (got.lowering_nm["knee"][0, 0] - weight),
    ]


def _cable() -> Sequence[float]:
    cable = Cable(kg=20, port="ankle", pulley=(0.0, 0.0), ratio=0.5, friction=0.1)
    return [_size(cable.force(_point(1.0, 1.0), lowering=down)) for down in (False, True)]


def _lever() -> Sequence[float]:
    """Return what a lever asks of its user level, 60 cm from the pivot, and raised by 60°, N."""
    lever = Lever(pivot=(0.0, 0.0), kg=30, arm_m=0.9, own_kg=8, own_arm_m=0.5, port="thigh")
    angle = np.array([0.0, 60.0]) * DEG
    points = 0.6 * np.stack((np.cos(angle), np.sin(angle)))[:, None, :]
    force = lever.force(points, lowering=False)
    return [float(v) for v in np.hypot(force[0], force[1])[0]]


def _corner() -> Sequence[float]:
    """Return a bar's force square to itself, its hand 2.1 m up a slope of 30°, kgf."""
    bar = CornerBar(
        plate_kg=20,
        bar_kg=20,
        bar_m=2.2,
        sleeve_m=2.0,
        hand_m=2.1,
        port="goblet",
        direction="perpendicular",
        pivot=(0.0, 0.0),
    )
    hand = _point(2.1 * math.cos(math.pi / 6), 2.1 * math.sin(math.pi / 6))
    return [_size(bar.force(hand, lowering=False)) / G]


def _band() -> Sequence[float]:
    """Return a band's pull over a step of 60 cm and 80 cm sideways, and what it gives back, N."""
    law = LinearLaw(rest_m=0.5, rate_n_per_m=100)
    band = Band(law=law, port="hands", anchor=(0.0, 0.0, 0.8), strands=1, hysteresis=0.1)
    length, _ = band.ends(_point(0.6, 0.0), None)
    return [
        float(length.ravel()[0]),
        *(float(band.pull_n(length, lowering=down).ravel()[0]) for down in (False, True)),
    ]


def _rubber() -> Sequence[float]:
    """Return a rubber's pull at twice its length, N."""
    law = MooneyRivlinLaw(rest_m=1.0, area_m2=1e-4, c1_pa=1e5, c2_pa=1e5)
    return [float(law.force_n(np.array([2.0]))[0])]


def _slides() -> Sequence[float]:
    found = margin(Hold(kind="weight", kg=40), np.array([[100.0]]), np.array([[100.0]]))
    return [] if found is None else [found.margin]


def _strengths() -> Sequence[float]:
    pairs = (
        ("knee_extension", 120.0),
        ("hip_extension", 115.0),
        ("knee_extension", 10.0),
        ("plantarflexion", -20.0),
        ("knee_flexion", 70.0),
    )
    return [
        float(strength_nm(a, np.array([d * DEG]), mass_kg=80, stature_m=1.8, sex="mean")[0])
        for a, d in pairs
    ]


def _equal() -> Sequence[float]:
    reps = equal_effort_reps(0.6, 0.7, 8).reps
    return [] if reps is None else [float(reps)]


def _two_muscles() -> Sequence[float]:
    """Return how two muscles of one arm share a moment, over the square of their strengths."""
    arm, demand = np.zeros((len(MUSCLES), 1, 1)), np.full((1, 1), 50.0)
    one, two = MUSCLES.index("vaslat"), MUSCLES.index("vasmed")
    arm[[one, two]] = -0.05
    force = share_n(arm, demand)[:, 0]
    return [
        float(force[one] / force[two] / (FMAX_N[one] / FMAX_N[two]) ** 2),
        float(0.05 * force.sum()),
    ]


def _short() -> Sequence[float]:
    """Return the force left to a vastus whose fibres are half as long as at their best."""
    best, slack, pennation = (np.array(v)[:, None] for v in zip(*FIBRES.values(), strict=True))
    across = best * np.sin(pennation * DEG)
    along = np.sqrt(np.maximum((0.5 * best) ** 2 - across**2, 0.0))
    row = MUSCLES.index("soleus")
    return [float(short_side_factor(slack + along)[MUSCLES.index("vasint"), 0]), float(row > 0)]


def _shares(exercise: str, groups: Sequence[str], *loads: object, **options: float) -> list[float]:
    got = curve_of(exercise, dict(options), loads)  # type: ignore[arg-type]
    angles, demand = asked_of_muscles(got)
    use = muscle_use(angles, demand, got.setup.body)
    positive = np.maximum(use.work_j, 0.0).sum()
    return [100 * use.of(group).work_j / positive for group in groups]


def _curl() -> Sequence[float]:
    cam = Stack(kg=40, angle_deg=(-20, 120), radius_m=(0.12, 0.12))
    return _shares("lying-leg-curl", ("long_hamstrings", "gastrocnemius"), cam)


def _hinge() -> Sequence[float]:
    return _shares(
        "romanian-deadlift",
        ("long_hamstrings", "gluteus_maximus"),
        FreeMass(kg=80, port="hands"),
    )


def _no_work_lost() -> Sequence[float]:
    """Return muscle work less joint work of a hinge whose calves are stretched, J."""
    got = curve_of("romanian-deadlift", loads=[FreeMass(kg=80, port="hands")])
    angles, demand = asked_of_muscles(got)
    use = muscle_use(angles, demand, got.setup.body)
    joints = sum(-np.trapezoid(demand[j], angles[j]) for j in demand)
    return [float(use.work_j.sum() + use.held_j - joints)]


def _knee_held() -> Sequence[float]:
    """Return what a knee holds itself, pushed straight by 40 N·m at 4° and at 6°: something, or
    nothing.
    """
    held = []
    for bend in (4.0, 6.0):
        angles = {"hip": np.full(21, 0.5), "knee": np.full(21, bend * DEG)}
        demand = {"hip": np.full(21, 60.0), "knee": np.full(21, -40.0)}
        body = curve_of("bodyweight-squat", {"knee_from_deg": 40}).setup.body
        held.append(float(np.abs(muscle_use(angles, demand, body).held_nm).max() > 0.1))
    return held


KE = Action.KE


def _compared() -> Sequence[float]:
    """Return match and level of an even demand of 150 N·m to an even one of 100 N·m from 60 to 10°;
    the match of the same 100 N·m from 120 to 70°; and of what asks the hip besides, 50 N·m over
    100°.
    """
    wanted = np.where((CENTRES_DEG > 10) & (CENTRES_DEG < 60), 100.0, 0.0)
    target = Target(actions=(KE,), bins=(wanted,))
    here, there, hip = (
        np.linspace(a, b, 101)[None, :] * DEG for a, b in ((60, 10), (120, 70), (100, 0))
    )
    even = np.ones((1, 101))
    over = compare(target, {"knee": here}, {"knee": 150.0 * even}, 1)
    away = compare(target, {"knee": there}, {"knee": 100.0 * even}, 1)
    beside = compare(
        target, {"knee": here, "hip": hip}, {"knee": 100.0 * even, "hip": 50.0 * even}, 1
    )
    return [float(v[0]) for v in (over.match, over.level, away.match, beside.match)]


def _elsewhere() -> float:
    """Return the match of as much work 60° further on, from areas of single hats."""

    def area(low: float, high: float, knot: float, spacing: float) -> float:
        """Return the area under a hat between two angles, in steps of a tenth of a degree."""
        steps = [low + 0.05 + 0.1 * i for i in range(round(10 * (high - low)))]
        return sum(0.1 * max(0.0, 1.0 - abs(x - knot) / spacing) for x in steps)

    covers = 50.0  # over the whole range all of it is there
    for spacing in (20.0, 60.0):
        knot = -60.0 - spacing
        while knot < 240.0:
            covers += min(area(10, 60, knot, spacing), area(70, 120, knot, spacing))
            knot += spacing
    covers /= 4.0
    return covers / (50.0 + (50.0 - covers) / 2)


def _doses() -> Sequence[float]:
    """Return a rep's dose over one second of it, plain and with a quarter more, in seconds."""
    cam = Stack(kg=40, angle_deg=(-20, 120), radius_m=(0.12, 0.12))
    got = _extension(cam)
    demand, angle = got.demand_nm["knee"][0], got.motion.angles["knee"][0]
    mean = float(demand.mean())
    quarter = RepStyle(kind=StyleKind.ONE_AND_A_QUARTER, end="lengthened")
    plain, more = (float(dose_on_grid(got, KE, style).sum()) for style in (RepStyle(), quarter))
    first = angle > angle[0] - 0.25 * (angle[0] - angle[-1])
    part = float(demand[first].sum() / demand.sum())
    return [plain / mean, more / plain - 1.0 - part]


def _sure() -> Sequence[float]:
    """Return what is usual and its spread of 0.90 with a loss of 0.10, and the chances of two that
    share an error and of two that do not.
    """
    one = Uncertainty(nominal=0.90, effects={"depth": (0.03, -0.10)}, demand_nm={})
    chances = []
    for source in ("mass", "load 0"):
        first, other = (
            Uncertainty(nominal=v, effects={source: (0.05, 0.0)}, demand_nm={})
            for v in (0.80, 0.75)
        )
        chances.append(chance_better(first, other))
    return [one.usual, one.sd, *chances]


def _law(
    name: str, unit: str, expected: Sequence[float], tolerance: float, why: str, compute: Compute
) -> Check:
    return check_of(Group.STATICS, name, unit, expected, tolerance, f"{HAND}: {why}", compute)


LAWS = (
    _law(
        "stack of 40 kg on a cam of 10 cm, ratio 0.5, friction 0.1: up and down",
        "N·m",
        [40 * G * 0.5 * 0.1 * 1.1, 40 * G * 0.5 * 0.1 * 0.9],
        1e-6,
        "m·g·ratio·r·(1 ± μ)",
        _stack,
    ),
    _law(
        "cable of 20 kg, ratio 0.5, friction 0.1: up and down",
        "N",
        [20 * G * 0.5 * 1.1, 20 * G * 0.5 * 0.9],
        1e-6,
        "m·g·ratio·(1 ± μ)",
        _cable,
    ),
    _law(
        "lever of 30 kg at 90 cm and 8 kg at 50 cm, met at 60 cm: level, and raised by 60°",
        "N",
        [(30 * 0.9 + 8 * 0.5) * G / 0.6, (30 * 0.9 + 8 * 0.5) * G / 0.6 / 2],
        1e-6,
        "moments about the pivot; cos 60° is a half",
        _lever,
    ),
    _law(
        "chain of 6 kg a metre, 1.2 m long: at 50 cm, and clear of the floor",
        "N",
        [6 * G * 0.5, 6 * G * 1.2],
        1e-6,
        "what hangs free",
        lambda: [
            float(Chain(kg_per_m=6, length_m=1.2, port="hands").weight_n(np.array([y]))[0])
            for y in (0.5, 1.5)
        ],
    ),
    _law(
        "corner bar square to itself at a slope of 30°",
        "kgf",
        [(20 * 1.1 + 20 * 2.0) / 2.1 * math.cos(math.pi / 6)],
        1e-6,
        "moments about the pivot",
        _corner,
    ),
    _law(
        "pendulum of 1 m: its swing",
        "s",
        [2 * math.pi * math.sqrt(1.0 / G)],
        1e-9,
        "2π√(l/g)",
        lambda: [Pendulum(kg=10, arm_m=1.0).period_s],
    ),
    _law(
        "sled of 100 kg at 60°, friction 0.1: up and down",
        "N",
        [100 * G * (math.sin(math.pi / 3) + way * 0.1 * 0.5) for way in (1, -1)],
        1e-6,
        "m·g·(sin ± μ·cos)",
        lambda: [
            float(Sled(kg=80, empty_kg=20, friction=0.1).along_rail_n(math.pi / 3, lowering=down))
            for down in (False, True)
        ],
    ),
    _law(
        "band of 50 cm and 10 N a dm over 60 cm and 80 cm sideways: length, up, down",
        "m, N, N",
        [1.0, 50.0, 45.0],
        1e-9,
        "a right triangle of 6, 8 and 10; a tenth less comes back",
        _band,
    ),
    _law(
        "rubber at twice its length",
        "N",
        [2 * 1e-4 * (1e5 + 1e5 / 2) * (2 - 1 / 4)],
        1e-9,
        "2·A·(C1 + C2/λ)·(λ - 1/λ²)",
        _rubber,
    ),
    _law(
        "loose 40 kg pulled 100 N up and 100 N along: margin",
        "times",
        [0.4 * 40 * G / (100 + 0.4 * 100)],
        1e-9,
        "it slides when λ·level = 0.4·(W - λ·up)",
        _slides,
    ),
    _law(
        "knee extension at 120° and at 10°, hip at 115°, calf and knee flexion at their ends",
        "N·m",
        [
            strength("knee_extension", 120),
            strength("hip_extension", 115),
            strength("knee_extension", 10),
            strength("plantarflexion", -20),
            strength("knee_flexion", 70),
        ],
        1e-6,
        "Anderson's formula, held past 100°, at least 0.45 of a straight knee's peak",
        _strengths,
    ),
    _law(
        "ten reps to the limit: effort by Epley and by Brzycki",
        "of the limit",
        [1 / (1 + 10 / 30), 27 / 36],
        1e-12,
        "the formulas as published (1985, 1993; from memory)",
        lambda: [effort_of_reps(10, "epley"), effort_of_reps(10, "brzycki")],
    ),
    _law(
        "eight reps at an effort of 0.6, as near failure at 0.7",
        "reps",
        [1],
        0,
        "20 reps to the limit leave 12; 12.9 less 12",
        _equal,
    ),
    _law(
        "two muscles of one arm: their shares over the squares of their strengths, and the moment",
        "times, N·m",
        [1.0, 50.0],
        1e-6,
        "least sum of squared shares",
        _two_muscles,
    ),
    _law(
        "a fibre of half its best length",
        "of its force",
        [math.exp(-0.25 / 0.45), 1],
        1e-9,
        "the bell at a half",
        _short,
    ),
    _law(
        "lying curl: long hamstrings, gastrocnemius",
        "% of the work",
        [74, 16],
        3.0,
        "the design's trial",
        _curl,
    ),
    _law(
        "hinge 80 kg: long hamstrings, gluteus maximus",
        "% of the work",
        [60, 29],
        3.0,
        "the design's trial",
        _hinge,
    ),
    _law("hinge: muscle work less joint work", "J", [0.0], 0.6, "no work is lost", _no_work_lost),
    _law(
        "a knee pushed straight holds itself at 4°, not at 6°",
        "yes, no",
        [1, 0],
        0,
        "the model's own limit of 5°",
        _knee_held,
    ),
    _law(
        "an even 150 N·m for 100: match, level; 100 at another bend; 100 and the hip besides",
        "share, times, share, share",
        [100 / (100 + 50 / 2), 1.5, _elsewhere(), 50 / (50 + 50 / 4)],
        0.012,
        "covered over wanted, half of what is over and a quarter of what is asked elsewhere",
        _compared,
    ),
    _law(
        "a rep of 1 s up and 2 s down: its seconds, and what a quarter more adds",
        "s, share",
        [3.0, 0.0],
        0.03,
        "demand times time",
        _doses,
    ),
    _law(
        "0.90 with a loss of 0.10: usual, spread; chance of 0.80 over 0.75, shared error and own",
        "share",
        [0.90 - 0.08, math.sqrt(0.03**2 + 0.36 * 0.1**2), 1.0, 0.76025],
        1e-4,
        "a half-normal loss; Φ(0.05 / 0.0707)",
        _sure,
    ),
)
