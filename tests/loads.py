"""Loads for tests: every kind that an exercise admits, at a place where it can act."""

from __future__ import annotations

from collections.abc import Iterator

from widearc.core.equipment import (
    Band,
    Cable,
    Chain,
    CornerBar,
    FreeMass,
    Lever,
    LinearLaw,
    Load,
    MooneyRivlinLaw,
    Pendulum,
    Sled,
    Spring,
    SpringLoad,
    Stack,
)
from widearc.core.exercises import Exercise

LINE = LinearLaw(rest_m=0.7, rate_n_per_m=90.0)
RUBBER = MooneyRivlinLaw(rest_m=0.8, area_m2=1e-4, c1_pa=1.2e5, c2_pa=0.8e5)
FLAT_CAM = Stack(kg=40, angle_deg=(-30, 40, 130), radius_m=(0.10, 0.14, 0.11), friction=0.05)


def pivot_for(entry: Exercise) -> tuple[float, float]:
    """Return where a lever's pivot makes sense: at the knee or hip of a machine, else behind the
    person.
    """
    seat = float(entry.options["seat_m"].default)
    if entry.family == "knee rotation":
        knee = {"": (0.441, seat), "prone": (-0.441, seat), "standing": (0.0, seat - 0.441)}[
            entry.variant
        ]
        return knee[0] + 0.02, knee[1] + 0.02
    if entry.family == "hip rotation leg":
        return 0.02, seat + 0.02
    return (-1.1, 1.0)


def admissible(entry: Exercise, scale: float = 1.0) -> Iterator[tuple[str, list[Load]]]:
    """Yield (kind, loads) for every kind of load that an exercise takes; scale makes them
    heavier.
    """
    port = entry.ports[0] if entry.ports else ""
    weighs = (
        entry.family not in ("sled press", "sled squat", "thigh spread")
        and entry.variant != "press"
    )
    on_body = [p for p in entry.ports if p not in ("carriage", "sled", "pad")]
    if weighs and on_body:
        yield "mass", [FreeMass(kg=12 * scale, port=on_body[0])]
        yield "chain", [Chain(kg_per_m=6 * scale, length_m=1.2, port=on_body[0])]
        yield (
            "corner-bar",
            [
                CornerBar(
                    plate_kg=10 * scale,
                    bar_kg=10,
                    bar_m=2.2,
                    sleeve_m=2,
                    hand_m=2.1,
                    port=on_body[0],
                )
            ],
        )
        ahead = {"direction": "perpendicular", "pivot": (2.2, 0.0)}
        bar = CornerBar(
            plate_kg=10 * scale,
            bar_kg=10,
            bar_m=2.2,
            sleeve_m=2,
            hand_m=2.1,
            port=on_body[0],
            **ahead,
        )
        yield "corner-bar square", [bar]
    if port:
        yield "band", [Band(law=LINE, port=port, anchor=(0.2, 0.0, 0.1), count=scale)]
        yield (
            "rubber",
            [
                Band(
                    law=RUBBER,
                    port=port,
                    anchor=(-0.1, 0.0, 0.2),
                    strands=1,
                    count=scale,
                    hysteresis=0.1,
                )
            ],
        )
        yield (
            "cable",
            [Cable(kg=12 * scale, port=port, pulley=(0.4, 0.1), ratio=0.5, friction=0.05)],
        )
        yield "assistance", [Cable(kg=6 * scale, port=port, pulley=(0.1, 2.6))]
    if port == "carriage":
        yield (
            "spring",
            [SpringLoad(spring=Spring(start_n=20, end_n=160, travel_m=0.9), count=2 * scale)],
        )
    elif on_body and weighs:
        spring = Spring(start_n=10 * scale, end_n=120 * scale, travel_m=1.6)
        yield "spring", [SpringLoad(spring=spring, port=on_body[0], anchor=(0.3, 0.1))]
    if (on_body or "pad" in entry.ports) and entry.family not in ("sled press", "sled squat"):
        lever = Lever(
            pivot=pivot_for(entry), kg=15 * scale, arm_m=0.9, own_kg=6, own_arm_m=0.5, port=port
        )
        yield (
            "lever",
            [lever]
            if port != "carriage"
            else [Lever(pivot=(-1.1, 1.0), kg=9, arm_m=0.9, port=on_body[0])],
        )
    if "sled" in entry.kinds:
        yield "sled", [Sled(kg=80 * scale, empty_kg=20)]
        yield "sled with friction", [Sled(kg=80 * scale, empty_kg=20, friction=0.08)]
    if "stack" in entry.kinds:
        yield "stack", [FLAT_CAM]
    if "pendulum" in entry.kinds:
        yield "pendulum", [Pendulum(kg=15 * scale, arm_m=0.9)]


def one_of_each(entry: Exercise, port: str) -> Iterator[Load]:
    """Yield a load of every kind, those at a port at this one, whether the exercise takes it or
    not.
    """
    spring = Spring(start_n=10, end_n=100, travel_m=1.6)
    bar = {"plate_kg": 5, "bar_kg": 10, "bar_m": 2.2, "sleeve_m": 2, "hand_m": 2.1}
    if port:
        yield FreeMass(kg=5, port=port)
        yield Band(law=LINE, port=port, anchor=(0.2, 0.0, 0.1))
        yield Cable(kg=6, port=port, pulley=(0.4, 0.1))
        yield Chain(kg_per_m=3, length_m=1.2, port=port)
        yield CornerBar(port=port, **bar)
        yield (
            SpringLoad(spring=spring)
            if port == "carriage"
            else SpringLoad(spring=spring, port=port, anchor=(0.3, 0.1))
        )
        yield Lever(pivot=pivot_for(entry), kg=8, arm_m=0.9, own_kg=6, own_arm_m=0.5, port=port)
        return
    yield Sled(kg=40, empty_kg=20)
    yield FLAT_CAM
    yield Pendulum(kg=5, arm_m=0.9)
