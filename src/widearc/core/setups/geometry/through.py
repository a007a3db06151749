"""The wanted knee range on a seat, a machine, rails, a handle, a wedge, a couch or boxes."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from widearc.core.body import HIP_OVER_SEAT_M
from widearc.core.kit import Machine
from widearc.core.movement import clear_of_floor_deg
from widearc.core.setups.geometry.asked import Asked, Geometry, Rule
from widearc.core.setups.geometry.furnishing import on_boxes, seats
from widearc.core.words import Angle, Length, Name, Said

FEET_AHEAD_M = (0.2, 0.3, 0.4)
HANDLE_LEANS_DEG = (10.0, 20.0, 30.0)
SEAT_HIPS_DEG = (90.0, 65.0)
UPRIGHT_SEAT_DEG = 85.0
LEAST_RANGE_DEG = 10.0
MOVED_M = (-0.1, 0.0, 0.1)


def _seated(asked: Asked) -> Iterator[Geometry]:
    start, end = asked.knee
    for seat in seats(asked):
        hip = seat.height_m + HIP_OVER_SEAT_M
        clear = min(start, clear_of_floor_deg(asked.body, hip))
        if clear > end + LEAST_RANGE_DEG:
            yield Geometry(
                options={**asked.knee_options, "seat_m": hip, "knee_from_deg": clear},
                words=Said("on the {name}", name=Name(seat.name, lower=True)),
                furniture=(seat,),
            )


def _on_sled(asked: Asked) -> Iterator[Geometry]:
    assert isinstance(asked.machine, Machine)
    rail = float(asked.machine.quantities.get("rail_deg", asked.usual("rail_deg")))
    for ahead in FEET_AHEAD_M:
        options = {**asked.knee_options, "rail_deg": rail, "foot_ahead_m": ahead}
        yield Geometry(options=options, words=Said("feet {length} ahead", length=Length(ahead)))


def _on_arm(asked: Asked) -> Iterator[Geometry]:
    assert isinstance(asked.machine, Machine)
    arm, usual = asked.machine.quantities.get("user_arm_m", 0.9), asked.usual("pivot_x_m")
    for ahead in MOVED_M:
        options = {**asked.knee_options, "arm_m": arm, "pivot_x_m": usual - ahead}
        words = Said("feet {length} ahead of the pivot", length=Length(ahead - usual))
        yield Geometry(options=options, words=words)


def _at_handle(asked: Asked) -> Iterator[Geometry]:
    # the feet stay under the pull: how far the trunk leans back on the handle is free
    for lean in sorted({asked.usual("trunk_lean_deg"), *HANDLE_LEANS_DEG}):
        options = {**asked.knee_options, "trunk_lean_deg": lean}
        yield Geometry(
            options=options, words=Said("trunk {angle} forward", angle=Angle.of_deg(lean))
        )


def _supported(asked: Asked) -> Iterator[Geometry]:
    for ahead in sorted({asked.usual("foot_ahead_m"), *FEET_AHEAD_M}):
        options = {**asked.knee_options, "foot_ahead_m": ahead}
        yield Geometry(options=options, words=Said("feet {length} ahead", length=Length(ahead)))


def _in_machine(asked: Asked) -> Iterator[Geometry]:
    for hip in SEAT_HIPS_DEG:
        upright = hip >= UPRIGHT_SEAT_DEG
        words = (
            Said("upright seat")
            if upright
            else Said("leaning back, hip at {angle}", angle=Angle.of_deg(hip))
        )
        yield Geometry(options={**asked.knee_options, "hip_deg": hip}, words=words)


def _on_wedge(asked: Asked) -> Iterator[Geometry]:
    most = asked.specs["heel_wedge_m"].high
    for thing in (t for t in asked.kit.things if t.kind == "heel wedge"):
        thick = min(thing.thick_m or asked.usual("heel_wedge_m"), most)
        options = {**asked.knee_options, "heel_wedge_m": thick}
        yield Geometry(
            options=options,
            words=Said("heel wedge {length}", length=Length(thick)),
            things=(thing,),
        )


def _on_couch(asked: Asked) -> Iterator[Geometry]:
    spec = asked.specs["couch_m"]
    for couch in asked.of("couch", "table", "bench"):
        if spec.low <= couch.height_m <= spec.high:
            yield Geometry(
                options={**asked.knee_options, "couch_m": couch.height_m},
                words=Said("shins on the {name}", name=Name(couch.name, lower=True)),
                furniture=(couch,),
            )


def _on_base(asked: Asked) -> Iterator[Geometry]:
    for base in on_boxes(asked):
        yield base.more(asked.knee_options)


def _plain(asked: Asked) -> Iterator[Geometry]:
    yield Geometry(options=asked.knee_options)


def _family(name: str, *, on_machine: bool = False) -> Callable[[Asked], bool]:
    return lambda asked: (
        asked.exercise.family == name and (not on_machine or isinstance(asked.machine, Machine))
    )


def _held(asked: Asked) -> bool:
    return asked.exercise.family == "supported stance" and asked.exercise.variant == "handle"


def _rotated(asked: Asked) -> bool:
    machine = asked.machine
    own = isinstance(machine, Machine) and machine.kind != "cable"
    return asked.exercise.family == "knee rotation" and own


WAYS: tuple[tuple[Callable[[Asked], bool], Callable[[Asked], Iterator[Geometry]]], ...] = (
    (lambda a: "seat" in a.exercise.needs and "seat_m" in a.specs, _seated),
    (_family("sled squat", on_machine=True), _on_sled),
    (_family("arc squat", on_machine=True), _on_arm),
    (_held, _at_handle),
    (_family("supported stance"), _supported),
    (_rotated, _in_machine),
    (lambda a: "heel wedge" in a.exercise.needs and "heel_wedge_m" in a.specs, _on_wedge),
    (lambda a: "couch_m" in a.specs, _on_couch),
    (lambda a: any(w.from_ == "base" for ways in a.exercise.ways for w in ways), _on_base),
    (lambda a: True, _plain),
)
"""The first that applies makes them."""


def _make(asked: Asked) -> Iterator[Geometry]:
    return next(make for applies, make in WAYS if applies(asked))(asked)


RULE = Rule(rank=6, applies=lambda asked: True, make=_make)
