"""An exercise's own range, on every bench, couch, step and pair of boxes that its set-up takes."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence

from widearc.core.kit import Furniture, SledPress, box_pairs
from widearc.core.setups.geometry.asked import Asked, Geometry, Options, Rule
from widearc.core.words import Name, Said

LOW_STEP_M = 0.2  # highest box to stand on for a deficit (assumed)
STEP_M = 0.35  # and for calves or feet (assumed)
LEAST_BOX_M = 0.05
SEAT_KINDS = ("bench", "box", "couch", "table")
SEAT_M = (0.3, 1.0)


def seats(asked: Asked) -> list[Furniture]:
    """Return what can be sat on."""
    low, high = SEAT_M
    return [f for f in asked.of(*SEAT_KINDS) if low <= f.height_m <= high]


def _applies(asked: Asked) -> bool:
    """Return whether there is nothing to fit to a knee range."""
    prime = asked.exercise.prime[0]
    bends = prime.direction > 0 or "plantarflexion" in prime.label
    return "knee_from_deg" not in asked.specs or bends


def _benches(asked: Asked) -> Sequence[Furniture | None]:
    needs = asked.exercise.needs
    kind = next((name for name in ("bench", "couch") if name in needs), None)
    if kind is not None:
        return asked.of(kind)
    sits = asked.exercise.family == "thigh spread" and "seat" in needs
    return seats(asked) if sits else [None]


def _steps(asked: Asked) -> Sequence[Furniture | None]:
    if "table" in asked.exercise.needs:
        return asked.of("table")
    if "step" not in asked.exercise.needs:
        return [None]
    highest = LOW_STEP_M if "trunk_from_deg" in asked.specs else STEP_M
    return [f for f in asked.of("box") if f.height_m <= highest]


def furnished(asked: Asked) -> Iterator[Geometry]:
    """Yield the exercise's own range on every bench, couch and step that its set-up takes."""
    machine, specs = asked.machine, asked.specs
    rails: Options = {}
    if isinstance(machine, SledPress) and "rail_deg" in specs:
        rails = {"rail_deg": machine.rail_deg, "backrest_deg": machine.backrest_deg}
    raised = next((name for name in ("foot_m", "box_m", "step_m") if name in specs), None)
    for bench, step in itertools.product(_benches(asked), _steps(asked)):
        here = Geometry(options={}, furniture=tuple(f for f in (bench, step) if f is not None))
        if bench is not None:
            own = {"bench_m": bench.height_m} if "bench_m" in specs else {}
            here = here.more(own, Said("on the {name}", name=Name(bench.name, lower=True)))
        if step is not None:
            own = {raised: min(step.height_m, specs[raised].high)} if raised else {}
            here = here.more(own, Said("feet on the {name}", name=Name(step.name, lower=True)))
        yield here.more(rails)


def on_boxes(asked: Asked) -> Iterator[Geometry]:
    """Yield standing on the floor, where it can be done there, and on each pair of boxes."""
    if "boxes" not in asked.exercise.needs:
        yield Geometry(options={"box_m": 0.0})
    for a, b in box_pairs(asked.kit, LEAST_BOX_M, asked.specs["box_m"].high):
        yield Geometry(
            options={"box_m": min(a.height_m, b.height_m)},
            words=Said(
                "feet on {name} and {name_2}",
                name=Name(a.name, lower=True),
                name_2=Name(b.name, lower=True),
            ),
            furniture=(a, b),
        )


RULE = Rule(rank=4, applies=_applies, make=furnished)
