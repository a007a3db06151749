"""One thing more in a set-up: offered as a tweak, with its gain. Each is one function here."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from widearc.core.body import Body
from widearc.core.equipment import shim_bend_deg
from widearc.core.exercises import Exercise
from widearc.core.movement.families.stance import widest_stance_m
from widearc.core.setups.geometry.asked import Asked, Geometry
from widearc.core.words import Angle, Length, Said

WIDER_M = (0.2, 0.35)  # than usual: the leg plane turns only past the hips' own breadth
SHANK_PAD_M = 0.35  # knee to pad
BACK_STEPS_DEG = (-10.0, 10.0)


def _wedge(asked: Asked, plain: Geometry) -> Iterator[Geometry]:
    if "heel_wedge_m" not in asked.specs or "heel wedge" in asked.exercise.needs:
        return
    for thing in (t for t in asked.kit.things if t.kind == "heel wedge" and t.thick_m > 0):
        words = Said("heel wedge {length}", length=Length(thing.thick_m))
        thick = min(thing.thick_m, asked.specs["heel_wedge_m"].high)
        yield plain.more({"heel_wedge_m": thick}, words, extra=words, things=(thing,))


def _pad(asked: Asked, plain: Geometry) -> Iterator[Geometry]:
    entry = asked.exercise
    padded = entry.family == "knee rotation" and "stack" in entry.kinds and entry.needs
    if not padded or entry.prime[0].direction >= 0:
        return
    start = float(plain.options.get("knee_from_deg", asked.usual("knee_from_deg")))
    for thing in (t for t in asked.kit.things if t.kind == "pad"):
        more = shim_bend_deg(thing.thick_m, SHANK_PAD_M)
        deeper = min(start + more, asked.specs["knee_from_deg"].high)
        if deeper > start:
            words = Said("pad {length} before the pad", length=Length(thing.thick_m))
            options = {"knee_from_deg": round(deeper, 1)}
            yield plain.more(options, words, extra=words, things=(thing,))


def _heel(asked: Asked, plain: Geometry) -> Iterator[Geometry]:
    if "pressure" in asked.specs and asked.exercise.family == "stance":
        words = Said("pressure under the heel")
        yield plain.more({"pressure": "heel"}, words, extra=words, things=())


EASY_SHARE = 0.9  # of the widest stance, for who cannot stand as wide as is usual


def within_reach(asked: Asked, plain: Geometry) -> Geometry:
    """Return a geometry with the feet no wider apart than the client's legs are long."""
    feet = narrower_stance_m(asked.exercise, asked.body)
    if feet is None:
        return plain
    return plain.more({"stance_m": feet}, Said("feet {length} apart", length=Length(feet)))


def narrower_stance_m(exercise: Exercise, body: Body) -> float | None:
    """Return how far apart the feet stand of who cannot stand as wide as an exercise usually is, m;
    None for who can.
    """
    spec = exercise.options.get("stance_m")
    if spec is None or float(spec.usual(body.stature_m)) <= widest_stance_m(body):
        return None
    return round(EASY_SHARE * widest_stance_m(body), 2)


def _wider(asked: Asked, plain: Geometry) -> Iterator[Geometry]:
    stands = asked.exercise.family in ("stance", "supported stance")
    if "stance_m" not in asked.specs or not stands:
        return
    spec = asked.specs["stance_m"]
    widest = min(spec.high, widest_stance_m(asked.body))
    for wider in WIDER_M:
        feet = asked.usual("stance_m") + wider
        if spec.low <= feet <= widest:
            words = Said("feet {length} apart", length=Length(feet))
            yield plain.more({"stance_m": round(feet, 3)}, words, extra=words, things=())


ONE_LEG = Said("one leg")


def _one_leg(asked: Asked, plain: Geometry) -> Iterator[Geometry]:
    legs = asked.specs.get("legs")
    if legs is not None and legs.default == 2 and 1 in legs.choices:
        yield plain.more({"legs": 1}, ONE_LEG, extra=ONE_LEG, things=())


def _backrest(asked: Asked, plain: Geometry) -> Iterator[Geometry]:
    if asked.exercise.family != "sled press" or "backrest_deg" not in plain.options:
        return
    spec = asked.specs["backrest_deg"]
    for step in BACK_STEPS_DEG:
        back = float(plain.options["backrest_deg"]) + step
        if spec.low <= back <= spec.high:
            words = Said("backrest {angle} over level", angle=Angle.of_deg(back))
            yield plain.more({"backrest_deg": back}, words, extra=words, things=())


EXTRAS: tuple[Callable[[Asked, Geometry], Iterator[Geometry]], ...] = (
    _wedge,
    _pad,
    _heel,
    _wider,
    _one_leg,
    _backrest,
)


def with_extras(asked: Asked, plain: Geometry) -> Iterator[Geometry]:
    """Yield a plain geometry with one thing more: a wedge under the heels, a pad before the pad,
    pressure elsewhere.
    """
    for extra in EXTRAS:
        yield from extra(asked, plain)
