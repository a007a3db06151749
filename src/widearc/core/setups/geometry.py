"""Geometry of an exercise on what is here: ranges, foot and step places, seats and boxes; extras as
tweaks.

Plain places cost nothing to set: where the foot stands, how long the step is, how the trunk leans.
Extras need something more under the heels or before the pad, or another habit; the search offers
them as tweaks with their gain.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from widearc.core.body import Body
from widearc.core.equipment import shim_bend_deg
from widearc.core.exercises import Exercise
from widearc.core.kit import Furniture, Kit, Machine, SledPress, Thing, box_pairs
from widearc.core.movement import clear_of_floor_deg

HIP_OVER_SEAT_M = 0.09  # hip centre over the seat's top (assumed: half a thigh's depth)
SPLIT_STEPS = (0.55, 0.65, 0.75, 0.85)
SPLIT_LEANS = (10.0, 25.0)
SPLIT_BACK = (0.35, 0.45)
FOOT_HEIGHTS = (0.0, 0.05, 0.10, 0.15, 0.20, 0.25)
STANCES = (0.2, 0.35)  # wider than usual, m: the leg plane turns only past the hips' own breadth
FEET_AHEAD = (0.2, 0.3, 0.4)
HANDLE_LEANS = (10.0, 20.0, 30.0)
HINGE_KNEES = (5.0, 15.0, 25.0)
HINGE_TRUNKS = (80.0, 65.0, 50.0)
SEAT_HIPS = (90.0, 65.0)


LOW_STEP_M, STEP_M = (
    0.2,
    0.35,
)  # highest box to stand on for a deficit, and for calves or feet (assumed)


SHANK_PAD_M = 0.35  # knee to pad


@dataclass(frozen=True, slots=True, kw_only=True)
class Range:
    """The knee range the target asks for, degrees; lengthened end first."""

    from_deg: float
    to_deg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Geometry:
    """One geometry: options (degrees, metres), the set-up in words, the furniture it uses, and an
    extra's words.
    """

    options: dict[str, float | str]
    words: str = ""
    furniture: tuple[Furniture, ...] = ()
    things: tuple[Thing, ...] = ()
    extra: str = ""

    @property
    def used(self) -> tuple[str, ...]:
        """Return the ids of what it stands on and wears."""
        return (*(f.id for f in self.furniture), *(t.id for t in self.things))


def geometries(
    exercise: Exercise,
    kit: Kit,
    body: Body,
    wanted: Range | None,
    machine: Machine | SledPress | None,
    extra: str | None = "",
) -> Iterator[Geometry]:
    """Yield every geometry of an exercise on what is here, over the knee range that is wanted.

    extra: "" for the plain ones, an extra's words for those with it, None for those with any.
    """
    for place in _plain(exercise, kit, body, wanted, machine):
        if extra == "":
            yield place
        else:
            yield from (
                more for more in _extras(exercise, kit, place) if extra in (None, more.extra)
            )


def _extras(exercise: Exercise, kit: Kit, place: Geometry) -> Iterator[Geometry]:
    """Yield a place with one thing more: a wedge under the heels, a pad before the pad, pressure
    elsewhere.
    """
    specs = exercise.options
    if "heel_wedge_m" in specs and "heel wedge" not in exercise.needs:
        for thing in (t for t in kit.things if t.kind == "heel wedge" and t.thick_m > 0):
            cm = f"{100 * thing.thick_m:.3g} cm"
            thick = min(thing.thick_m, specs["heel_wedge_m"].high)
            yield _with(place, {"heel_wedge_m": thick}, f"heel wedge {cm}", things=(thing,))
    if exercise.family == "knee rotation" and "stack" in exercise.kinds and exercise.needs:
        for thing in (t for t in kit.things if t.kind == "pad" and t.thick_m > 0):
            more = shim_bend_deg(thing.thick_m, SHANK_PAD_M)
            start = float(place.options.get("knee_from_deg", specs["knee_from_deg"].default))
            deeper = min(start + more * -exercise.prime[0].direction, specs["knee_from_deg"].high)
            if exercise.prime[0].direction < 0 and deeper > start:
                words = f"pad {100 * thing.thick_m:.3g} cm before the pad"
                yield _with(place, {"knee_from_deg": round(deeper, 1)}, words, things=(thing,))
    if "pressure" in specs and exercise.family == "stance":
        yield _with(place, {"pressure": "heel"}, "pressure under the heel")
    if "stance_m" in specs and exercise.family in ("stance", "supported stance"):
        for wider in STANCES:
            feet = float(specs["stance_m"].default) + wider
            if specs["stance_m"].low <= feet <= specs["stance_m"].high:
                yield _with(place, {"stance_m": round(feet, 3)}, f"feet {100 * feet:.0f} cm apart")
    if "legs" in specs and specs["legs"].default == 2 and 1 in (specs["legs"].choices or ()):
        yield _with(place, {"legs": 1}, "one leg")
    if exercise.family == "sled press" and "backrest_deg" in place.options:
        low, high = specs["backrest_deg"].low, specs["backrest_deg"].high
        for step in (-10.0, 10.0):
            back = float(place.options["backrest_deg"]) + step
            if low <= back <= high:
                yield _with(place, {"backrest_deg": back}, f"backrest {back:.0f}° over level")


def _with(
    place: Geometry, options: dict[str, float | str], extra: str, *, things: tuple[Thing, ...] = ()
) -> Geometry:
    words = ", ".join(w for w in (place.words, extra) if w)
    return replace(
        place, options={**place.options, **options}, words=words, extra=extra, things=things
    )


def _plain(
    exercise: Exercise,
    kit: Kit,
    body: Body,
    wanted: Range | None,
    machine: Machine | SledPress | None,
) -> Iterator[Geometry]:
    specs = exercise.options
    if (
        exercise.family == "kneeling"
        and "lean_from_deg" in specs
        and exercise.prime[0].direction < 0
    ):
        usual = float(specs["lean_from_deg"].default)
        deepest = usual if wanted is None else max(10.0, min(usual, wanted.from_deg - 90.0))
        for lean in sorted({deepest, 30.0, usual}):
            yield Geometry(options={"lean_from_deg": lean}, words=f"lean to {lean:.0f}°")
        return
    if exercise.family == "hinge" and "knee_deg" in specs:
        yield from _hinges(exercise, kit)
        return
    if isinstance(machine, SledPress) and exercise.family == "sled press":
        yield from _presses(exercise, wanted, machine)
        return
    if (
        "knee_from_deg" not in specs
        or exercise.prime[0].direction > 0
        or "plantarflexion" in exercise.prime[0].label
    ):
        # nothing to fit to a knee range: its own range, on the furniture that is there
        yield from _furnished(exercise, kit, machine)
        return
    low, high = specs["knee_from_deg"].low, specs["knee_from_deg"].high
    start = float(
        np.clip(
            round(wanted.from_deg, 1) if wanted else float(specs["knee_from_deg"].default),
            low,
            high,
        )
    )
    end = float(specs["knee_to_deg"].default)
    if wanted is not None and max(round(wanted.to_deg, 1), specs["knee_to_deg"].low) <= start - 20:
        end = max(round(wanted.to_deg, 1), specs["knee_to_deg"].low)
    if exercise.family == "split":
        yield from _splits(exercise, kit, start, end)
    else:
        yield from _through(exercise, kit, body, machine, start, end)


def _through(
    exercise: Exercise,
    kit: Kit,
    body: Body,
    machine: Machine | SledPress | None,
    start: float,
    end: float,
) -> Iterator[Geometry]:
    """Yield an exercise through the wanted knee range (degrees) on its seat, machine, rails,
    handle, wedge or boxes.
    """
    specs = exercise.options
    knee: dict[str, float | str] = {"knee_from_deg": start, "knee_to_deg": end}
    if "seat" in exercise.needs and "seat_m" in specs:
        for seat in _seats(kit):
            hip = seat.height_m + HIP_OVER_SEAT_M
            clear = min(start, clear_of_floor_deg(body, hip))
            if clear > end + 10:
                words = f"on the {seat.name.lower()}"
                yield Geometry(
                    options={**knee, "seat_m": hip, "knee_from_deg": clear},
                    words=words,
                    furniture=(seat,),
                )
    elif exercise.family == "sled squat" and isinstance(machine, Machine):
        rail = float(machine.quantities.get("rail_deg", specs["rail_deg"].default))
        for ahead in FEET_AHEAD:
            words = f"feet {100 * ahead:.0f} cm ahead"
            yield Geometry(options={**knee, "rail_deg": rail, "foot_ahead_m": ahead}, words=words)
    elif exercise.family == "arc squat" and isinstance(machine, Machine):
        arm, usual = machine.quantities.get("user_arm_m", 0.9), float(specs["pivot_x_m"].default)
        for ahead in (-0.1, 0.0, 0.1):
            words = f"feet {100 * (ahead - usual):.0f} cm ahead of the pivot"
            yield Geometry(options={**knee, "arm_m": arm, "pivot_x_m": usual - ahead}, words=words)
    elif exercise.family == "supported stance" and exercise.variant == "handle":
        # the feet stay under the pull: how far the trunk leans back on the handle is free
        for lean in sorted({float(specs["trunk_lean_deg"].default), *HANDLE_LEANS}):
            yield Geometry(
                options={**knee, "trunk_lean_deg": lean}, words=f"trunk {lean:.0f}° forward"
            )
    elif exercise.family == "supported stance":
        for ahead in sorted({float(specs["foot_ahead_m"].default), *FEET_AHEAD}):
            yield Geometry(
                options={**knee, "foot_ahead_m": ahead}, words=f"feet {100 * ahead:.0f} cm ahead"
            )
    elif (
        exercise.family == "knee rotation"
        and isinstance(machine, Machine)
        and machine.kind != "cable"
    ):
        for hip_deg in SEAT_HIPS:
            yield Geometry(options={**knee, "hip_deg": hip_deg}, words=_seat_words(hip_deg))
    elif "heel wedge" in exercise.needs and "heel_wedge_m" in specs:
        for thing in (t for t in kit.things if t.kind == "heel wedge"):
            thick = min(
                thing.thick_m or float(specs["heel_wedge_m"].default), specs["heel_wedge_m"].high
            )
            words = f"heel wedge {100 * thick:.3g} cm"
            yield Geometry(options={**knee, "heel_wedge_m": thick}, words=words, things=(thing,))
    else:
        yield from _on_furniture(exercise, kit, knee)


def _seat_words(hip_deg: float) -> str:
    return "upright seat" if hip_deg >= 85 else f"leaning back, hip at {hip_deg:.0f}°"


def _presses(exercise: Exercise, wanted: Range | None, press: SledPress) -> Iterator[Geometry]:
    specs = exercise.options
    low, high = specs["knee_from_deg"].low, specs["knee_from_deg"].high
    start = float(np.clip(round(wanted.from_deg, 1) if wanted else 90.0, low, high))
    end = float(specs["knee_to_deg"].default)
    heights = [
        h for h in FOOT_HEIGHTS if specs["foot_height_m"].low <= h <= specs["foot_height_m"].high
    ]
    usual = float(specs["foot_height_m"].default)
    for depth, height in itertools.product(
        sorted({start, min(start, 90.0)}), sorted({*heights, usual})
    ):
        options: dict[str, float | str] = {
            "rail_deg": press.rail_deg,
            "backrest_deg": press.backrest_deg,
            "plate_tilt_deg": press.plate_tilt_deg,
            "foot_height_m": height,
            "knee_from_deg": depth,
            "knee_to_deg": end,
        }
        yield Geometry(options=options, words=f"ankles {100 * height:.0f} cm over the hip line")


def _hinges(exercise: Exercise, kit: Kit) -> Iterator[Geometry]:
    """Yield hinges: how far the knees are bent and the trunk goes down, on each low step where one
    is needed.
    """
    specs = exercise.options
    knees = (
        sorted({float(specs["knee_deg"].default), *HINGE_KNEES})
        if exercise.id != "stiff-leg-deadlift"
        else [float(specs["knee_deg"].default)]
    )
    based = any(way.from_ == "base" for ways in exercise.ways for way in ways)
    for base in _on_boxes(exercise, kit) if based else _furnished(exercise, kit, None):
        for knee, trunk in itertools.product(knees, HINGE_TRUNKS):
            words = ", ".join(
                w for w in (base.words, f"knees {knee:.0f}°, trunk to {trunk:.0f}°") if w
            )
            yield replace(
                base,
                options={**base.options, "knee_deg": knee, "trunk_from_deg": trunk},
                words=words,
            )


def _splits(exercise: Exercise, kit: Kit, start: float, end: float) -> Iterator[Geometry]:
    """Yield split squats: step, lean, hip place and depth, the rear foot on the floor or on each
    bench.
    """
    specs = exercise.options
    depths = sorted(
        {start, min(start, 95.0), min(start, 85.0)}
        if exercise.variant == ""
        else {start, min(start, 85.0)}
    )
    benches: list[Furniture | None] = [None]
    if "bench" in exercise.needs:
        benches = [f for f in kit.furniture if f.kind == "bench" and f.height_m <= 0.6]
    steps = [f for f in kit.furniture if f.kind == "box"] if "step" in exercise.needs else [None]
    for bench, box in itertools.product(benches, steps):
        raised = {} if bench is None else {"rear_m": bench.height_m}
        behind = "" if bench is None else f", rear foot on the {bench.name.lower()}"
        if box is not None and "box_m" in specs:
            raised = {**raised, "box_m": min(box.height_m, specs["box_m"].high)}
            behind += f", onto the {box.name.lower()}"
        backs = SPLIT_BACK if "hip_back" in specs and exercise.variant == "" else (None,)
        lengths = _steps(exercise)
        usual = float(specs["trunk_lean_deg"].default) if "trunk_lean_deg" in specs else None
        leans = (
            (None,)
            if usual is None
            else SPLIT_LEANS
            if exercise.variant == ""
            else tuple(sorted({usual, *(lean for lean in SPLIT_LEANS if lean >= 0.5 * usual)}))
        )
        for step, lean, back, depth in itertools.product(lengths, leans, backs, depths):
            options: dict[str, float | str] = {**raised}
            if lean is not None:
                options["trunk_lean_deg"] = lean
            words = behind.removeprefix(", ")
            if step is not None:
                options["step_m"] = step
                words = f"step {100 * step:.0f} cm{behind}"
            if back is not None:
                options["hip_back"] = back
            used = tuple(f for f in (bench, box) if f is not None)
            yield Geometry(
                options={**options, "knee_from_deg": depth, "knee_to_deg": end},
                words=words,
                furniture=used,
            )


def _steps(exercise: Exercise) -> tuple[float | None, ...]:
    """Return step lengths, m: the usual ones of a split squat, else its own and a shorter (or
    longer) one.
    """
    if "step_m" not in exercise.options:
        return (None,)
    spec = exercise.options["step_m"]
    usual = float(spec.default)
    if exercise.variant == "" and usual >= SPLIT_STEPS[0]:
        return SPLIT_STEPS
    # a long step cannot be reached in a shallow lunge; a short one has room to be longer
    other = usual - 0.15 if usual >= SPLIT_STEPS[0] else usual + 0.12
    return tuple(sorted(round(v, 2) for v in (usual, other) if spec.low <= v <= spec.high))


def _on_furniture(exercise: Exercise, kit: Kit, knee: dict[str, float | str]) -> Iterator[Geometry]:
    """Yield the wanted knee range on what the exercise needs: a couch or table at its height, else
    nothing.
    """
    specs = exercise.options
    if "couch_m" in specs:
        for couch in (f for f in kit.furniture if f.kind in ("couch", "table", "bench")):
            if specs["couch_m"].low <= couch.height_m <= specs["couch_m"].high:
                words = f"shins on the {couch.name.lower()}"
                yield Geometry(
                    options={**knee, "couch_m": couch.height_m}, words=words, furniture=(couch,)
                )
        return
    if any(way.from_ == "base" for ways in exercise.ways for way in ways):
        for base in _on_boxes(exercise, kit):
            yield replace(base, options={**base.options, **knee})
        return
    yield Geometry(options=dict(knee))


def _furnished(
    exercise: Exercise, kit: Kit, machine: Machine | SledPress | None
) -> Iterator[Geometry]:
    """Yield the exercise's own range on every bench, couch and step that its set-up takes."""
    specs = exercise.options
    benches: list[Furniture | None] = [None]
    if "bench" in exercise.needs:
        benches = [f for f in kit.furniture if f.kind == "bench"]
    elif "couch" in exercise.needs:
        benches = [f for f in kit.furniture if f.kind == "couch"]
    elif exercise.family == "thigh spread" and "seat" in exercise.needs:
        benches = list(_seats(kit))
    highest = LOW_STEP_M if "trunk_from_deg" in specs else STEP_M
    steps = (
        [f for f in kit.furniture if f.kind == "box" and f.height_m <= highest]
        if "step" in exercise.needs
        else [None]
    )
    for bench, step in itertools.product(benches, steps):
        options: dict[str, float | str] = {}
        words = []
        if bench is not None:
            words.append(f"on the {bench.name.lower()}")
            if "bench_m" in specs:
                options["bench_m"] = bench.height_m
        if step is not None:
            name = next((n for n in ("foot_m", "box_m", "step_m") if n in specs), None)
            if name is not None:
                options[name] = min(step.height_m, specs[name].high)
            words.append(f"feet on the {step.name.lower()}")
        if isinstance(machine, SledPress) and "rail_deg" in specs:
            options |= {"rail_deg": machine.rail_deg, "backrest_deg": machine.backrest_deg}
        used = tuple(f for f in (bench, step) if f is not None)
        yield Geometry(options=options, words=", ".join(words), furniture=used)


def _on_boxes(exercise: Exercise, kit: Kit) -> Iterator[Geometry]:
    """Yield standing on the floor, where it can be done there, and on each pair of boxes."""
    if "boxes" not in exercise.needs:
        yield Geometry(options={"box_m": 0.0})
    spec = exercise.options["box_m"]
    for a, b in box_pairs(kit, 0.05, spec.high):
        height = min(a.height_m, b.height_m)
        words = f"feet on {a.name.lower()} and {b.name.lower()}"
        yield Geometry(options={"box_m": height}, words=words, furniture=(a, b))


def _seats(kit: Kit) -> tuple[Furniture, ...]:
    return tuple(
        f
        for f in kit.furniture
        if f.kind in ("bench", "box", "couch", "table") and 0.3 <= f.height_m <= 1.0
    )
