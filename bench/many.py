"""The first answer in a place of 500 items, in a process of its own: seconds and peak memory."""

from __future__ import annotations

import resource
import time

import numpy as np

from widearc.core.body import Body, Limits
from widearc.core.equipment import FreeMass, LinearLaw, Spring
from widearc.core.exercises import EXERCISES
from widearc.core.kit import (
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    SledPress,
    SpringStock,
    Weight,
)
from widearc.core.movement import Setup
from widearc.core.search import Question, ranked
from widearc.core.statics import curve


def many() -> Kit:
    """Return 500 things: 60 bands and 20 springs among them, no two alike."""
    rng = np.random.default_rng(1)
    bands = (
        BandStock(
            id=f"band-{i}",
            name=f"band {i}",
            shape=BandShape.LOOP if i % 3 else BandShape.LONG,
            law=LinearLaw(rest_m=rng.uniform(0.3, 1.4), rate_n_per_m=rng.uniform(60, 900)),
            count=1 + i % 2,
        )
        for i in range(60)
    )
    springs = (
        SpringStock(
            id=f"spring-{i}",
            name=f"spring {i}",
            spring=Spring(start_n=20.0 + 3 * i, end_n=120.0 + 17 * i, travel_m=0.9),
            count=1 + i % 3,
        )
        for i in range(20)
    )
    sizes = (
        [("bar", 10.0 + 5 * i) for i in range(4)]
        + [("plate", round(0.5 + 0.61 * i, 2)) for i in range(36)]
        + [("dumbbell", 1.0 + i) for i in range(80)]
        + [("kettlebell", 4.0 + i) for i in range(60)]
    )
    weights = (
        Weight(id=f"weight-{i}", kind=kind, kg=kg, count=2 + 2 * (i % 3))
        for i, (kind, kg) in enumerate(sizes)
    )
    anchors = (Anchor(id=f"eye-{i}", name=f"eye {i}", height_m=0.05 + 0.04 * i) for i in range(60))
    heights = [("box", 0.1 + 0.01 * i) for i in range(90)] + [("bench", 0.42)] * 50
    furniture = (
        Furniture(id=f"place-{i}", name=f"{kind} {i}", kind=kind, height_m=height)
        for i, (kind, height) in enumerate([*heights, *[("rack", 1.5)] * 20])
    )
    presses = (
        SledPress(id=f"press-{i}", name=f"press {i}", rail_deg=40.0 + i, empty_kg=38.0)
        for i in range(20)
    )
    return Kit(
        weights=tuple(weights),
        bands=tuple(bands),
        springs=tuple(springs),
        anchors=tuple(anchors),
        furniture=tuple(furniture),
        presses=tuple(presses),
    )


def main() -> None:
    """Answer once, and print it."""
    kit = many()
    squat = EXERCISES["back-squat-high"]
    asked = curve(Setup(exercise=squat, loads=[FreeMass(kg=80.0, port="back-high")]))
    start = time.perf_counter()
    answer = ranked(Question(asked=asked, kit=kit, body=Body(), limits=Limits()))
    seconds = time.perf_counter() - start
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(
        f"first answer in a place of {len(kit.items())} items, 60 bands and 20 springs: "
        f"{seconds:.2f} s, {len(answer.candidates)} exercises, peak {peak:.0f} MB"
    )


if __name__ == "__main__":
    main()
