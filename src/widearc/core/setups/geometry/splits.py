"""Split squats and steps: step, lean, hip place and depth, the rear foot on the floor or on each
bench.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence

from widearc.core.kit import Furniture
from widearc.core.setups.geometry.asked import Asked, Geometry, Options, Rule
from widearc.core.words import Length, Name, Said, joined

STEPS_M = (0.55, 0.65, 0.75, 0.85)
LEANS_DEG = (10.0, 25.0)
BACKS = (0.35, 0.45)
HIGHEST_BENCH_M = 0.6
SHORTER_M, LONGER_M = 0.15, 0.12


def _applies(asked: Asked) -> bool:
    return asked.exercise.family == "split"


def _bases(asked: Asked) -> Iterator[Geometry]:
    """Yield where the feet stand: rear foot on a bench, front foot on a box, or both on the
    floor.
    """
    needs, specs = asked.exercise.needs, asked.specs
    low = [f for f in asked.of("bench") if f.height_m <= HIGHEST_BENCH_M]
    benches: Sequence[Furniture | None] = low if "bench" in needs else [None]
    boxes: Sequence[Furniture | None] = asked.of("box") if "step" in needs else [None]
    for bench, box in itertools.product(benches, boxes):
        here = Geometry(options={}, furniture=tuple(filter(None, (bench, box))))
        if bench is not None:
            here = here.more(
                {"rear_m": bench.height_m},
                Said("rear foot on the {name}", name=Name(bench.name, lower=True)),
            )
        if box is not None and "box_m" in specs:
            height = min(box.height_m, specs["box_m"].high)
            here = here.more(
                {"box_m": height}, Said("onto the {name}", name=Name(box.name, lower=True))
            )
        yield here


def _leans(asked: Asked) -> Sequence[float | None]:
    if "trunk_lean_deg" not in asked.specs:
        return (None,)
    if asked.exercise.variant == "":
        return LEANS_DEG
    usual = asked.usual("trunk_lean_deg")
    return sorted({usual, *(lean for lean in LEANS_DEG if lean >= 0.5 * usual)})


def _lengths(asked: Asked) -> Sequence[float | None]:
    """Return step lengths, m: the usual ones of a split squat, else its own and a shorter (or
    longer) one.
    """
    if "step_m" not in asked.specs:
        return (None,)
    spec, usual = asked.specs["step_m"], asked.usual("step_m")
    if asked.exercise.variant == "" and usual >= STEPS_M[0]:
        return STEPS_M
    # a long step cannot be reached in a shallow lunge; a short one has room to be longer
    other = usual - SHORTER_M if usual >= STEPS_M[0] else usual + LONGER_M
    return tuple(sorted(round(v, 2) for v in (usual, other) if spec.low <= v <= spec.high))


DEPTHS = (float("inf"), 85.0)
STATIC_DEPTHS = (*DEPTHS, 95.0)
"""Depths to try, degrees of knee bend, none deeper than what is wanted."""


def _depths(asked: Asked) -> Sequence[Options]:
    """Return the knee ranges to try; a step-up's depth is its box's height."""
    if "knee_from_deg" not in asked.specs:
        return ({},)
    start, end = asked.knee
    depths = STATIC_DEPTHS if asked.exercise.variant == "" else DEPTHS
    return [
        {"knee_from_deg": depth, "knee_to_deg": end}
        for depth in sorted({min(start, most) for most in depths})
    ]


def _make(asked: Asked) -> Iterator[Geometry]:
    static = asked.exercise.variant == ""
    backs: Sequence[float | None] = BACKS if static and "hip_back" in asked.specs else (None,)
    for base in _bases(asked):
        for step, lean, back, depth in itertools.product(
            _lengths(asked), _leans(asked), backs, _depths(asked)
        ):
            options: Options = dict(base.options)
            words = base.words
            if lean is not None:
                options["trunk_lean_deg"] = lean
            if step is not None:
                options["step_m"] = step
                words = joined(Said("step {length}", length=Length(step)), base.words)
            if back is not None:
                options["hip_back"] = back
            yield Geometry(options={**options, **depth}, words=words, furniture=base.furniture)


RULE = Rule(rank=5, applies=_applies, make=_make)
