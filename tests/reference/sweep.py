"""Set-ups from all over every option's range, by a seed: what a page or file may ask."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from tests.loads import admissible
from widearc.core.body import Body, Limits
from widearc.core.equipment import Load
from widearc.core.exercises import EXERCISES, Exercise
from widearc.core.movement import Setup
from widearc.core.movement.setup import LENGTHENED_ENDS

TOGETHER = 12  # set-ups of one exercise, body, load and choice of words


def _value(rng: np.random.Generator, low: float, high: float, usual: float, rows: int):
    """Half of them anywhere, a third near what is usual, the rest at the ends."""
    anywhere = rng.uniform(low, high, rows)
    near = np.clip(rng.normal(usual, 0.1 * (high - low), rows), low, high)
    ends = np.where(rng.random(rows) < 0.5, low, high)
    which = rng.random(rows)
    return np.where(which < 0.5, anywhere, np.where(which < 0.85, near, ends))


def _options(rng: np.random.Generator, entry: Exercise, body: Body, rows: int) -> dict:
    """Return random options: numbers row by row, words the same for all; most are left usual."""
    options = {}
    some = rng.choice((0.15, 0.5, 1.0))
    for spec in entry.options.values():
        if not spec.used or rng.random() > some:
            continue
        usual = spec.usual(body.stature_m)
        if spec.choices and (not spec.also_number or rng.random() < 0.5):
            options[spec.name] = spec.choices[rng.integers(len(spec.choices))]
        elif np.isfinite(spec.low):
            middle = 0.5 * (spec.low + spec.high) if isinstance(usual, str) else float(usual)
            options[spec.name] = _value(rng, spec.low, spec.high, middle, rows)
    for end in LENGTHENED_ENDS:
        _turned_round(entry, options, f"{end}_deg", f"{end.removesuffix('from')}to_deg")
    return options


def _turned_round(entry: Exercise, options: dict, first: str, last: str) -> None:
    """Put two ends that run backwards the other way round, two degrees apart at least."""
    if first not in entry.options or last not in entry.options:
        return
    specs = entry.options[first], entry.options[last]
    ends = [options.get(s.name, float(s.default)) for s in specs]
    way = np.sign(float(specs[1].default) - float(specs[0].default))
    travel = way * (ends[1] - ends[0])
    if np.all(travel >= 2.0):
        return
    for spec, usual in zip(specs, ends, strict=True):
        options[spec.name] = np.where(travel >= 2.0, usual, float(spec.default))


def _loads(rng: np.random.Generator, entry: Exercise) -> list[Load]:
    taken = [loads for _, loads in admissible(entry, scale=float(rng.choice((0.3, 1.0, 4.0))))]
    choice = rng.integers(len(taken) + 1)
    return [] if choice == len(taken) else taken[choice]


def swept(count: int, seed: int) -> Iterator[Setup]:
    """Yield set-ups of some rows each until there are `count`, every exercise in turn."""
    rng = np.random.default_rng(seed)
    entries = [e for e in EXERCISES.values() if e.has_curve]
    for turn in range(-(-count // TOGETHER)):
        entry = entries[turn % len(entries)]
        body = Body(
            mass_kg=float(rng.uniform(45, 120)), stature_m=round(float(rng.uniform(1.45, 2.05)), 3)
        )
        limits = Limits(
            dorsiflexion_deg=float(rng.choice((20, 35, 45))),
            hip_flexion_deg=float(rng.choice((95, 125, 140))),
            knee_deg=float(rng.choice((110, 140, 155))),
        )
        setup = Setup(
            exercise=entry,
            body=body,
            limits=limits,
            options=_options(rng, entry, body, TOGETHER),
            loads=_loads(rng, entry),
        )
        yield setup.repeated(TOGETHER)
