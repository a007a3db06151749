"""Every kind of equipment: what is measured of it, what it serves as, what settings it has."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from widearc.core.equipment.items.quantity import ItemKind, Quantity
from widearc.core.errors import UnknownNameError


def _kg(
    name: str = "kg", words: str = "weight", low: float = 0.1, high: float = 200.0, **more: object
) -> Quantity:
    return Quantity(name=name, words=words, unit="kg", per=1.0, low=low, high=high, **more)  # type: ignore[arg-type]


def _cm(name: str, words: str, low: float, high: float, **more: object) -> Quantity:
    return Quantity(name=name, words=words, unit="cm", per=0.01, low=low, high=high, **more)  # type: ignore[arg-type]


def _deg(name: str, words: str, low: float, high: float, **more: object) -> Quantity:
    return Quantity(name=name, words=words, unit="°", per=1.0, low=low, high=high, **more)  # type: ignore[arg-type]


def _newton(name: str, words: str, low: float, high: float, **more: object) -> Quantity:
    return Quantity(name=name, words=words, unit="N", per=1.0, low=low, high=high, **more)  # type: ignore[arg-type]


_SCALE = "stand it on a scale, or hang it from one"
_FLOOR_UP = "tape from the floor to its top"


_COUNT = Quantity(
    name="count", words="pieces", unit="", per=1.0, low=0, high=200, usual=1.0, whole=True
)


_FRICTION = Quantity(
    name="friction",
    words="friction",
    unit="%",
    per=0.01,
    low=0.0,
    high=0.5,
    usual=0.0,
    how="share of the load lost in rubbing: from a slow push and a slow return",
)


_RATIO = Quantity(
    name="ratio",
    words="force per weight of the stack",
    unit="",
    per=1.0,
    low=0.05,
    high=4.0,
    usual=1.0,
    how="hang a scale in the handle: its reading over the weight of the pin",
)


_TOP = _cm("height_m", "height", 0.02, 3.0, how=_FLOOR_UP)


_STACK = (
    _kg("smallest_kg", "lightest plate of the stack", 0.0, 200.0, usual=5.0),
    _kg("largest_kg", "whole stack", 1.0, 400.0, usual=100.0),
    _kg("step_kg", "one plate", 0.1, 50.0, usual=5.0),
    _RATIO,
    _FRICTION,
    _kg(
        "read_kg",
        "weight on the pin while it was read",
        1.0,
        400.0,
        optional=True,
        how="the pin's plate, when the pad was pulled: gives the cam's radius",
    ),
)


_MACHINE_SETTINGS = ("seat", "backrest", "pad", "start", "dial")


_LEVER = (
    _kg(
        "arm_kg",
        "bare arm, weighed at the pad",
        0.0,
        200.0,
        usual=0.0,
        how="hang the empty arm level from a scale at the pad",
    ),
    _cm(
        "arm_m",
        "pivot to where the weights sit",
        0.05,
        5.0,
        usual=1.0,
        how="tape from the pivot's middle",
    ),
    _cm(
        "user_arm_m",
        "pivot to the pad",
        0.02,
        3.0,
        usual=0.4,
        how="tape from the pivot's middle to the pad's middle",
    ),
    _deg(
        "angle_deg",
        "arm above level at the start",
        -180,
        180,
        usual=0.0,
        how="phone level on the arm at the start",
    ),
    _cm(
        "pivot_off_m",
        "pivot off the joint",
        0.0,
        0.5,
        usual=0.0,
        how="seated, tape from the knee's side to the pivot: the pad slides by about that much",
    ),
)


_RAILS = (
    _deg(
        "rail_deg", "rails over level", 0.0, 90.0, how="phone level on the rail, or rise over run"
    ),
    _kg(
        "empty_kg",
        "empty sled",
        0.0,
        500.0,
        how="scale along the rails, over the sine of their angle",
    ),
    _FRICTION,
)


STOCK, PULL, MACHINES, FURNITURE, ANCHORS = (
    "weights",
    "bands and springs",
    "machines",
    "furniture",
    "anchors",
)


KINDS: Mapping[str, ItemKind] = MappingProxyType(
    {
        kind.id: kind
        for kind in (
            ItemKind(
                id="bar",
                words="bar",
                group=STOCK,
                quantities=(
                    _kg(how=_SCALE, high=60.0),
                    _COUNT,
                    _cm("length_m", "length", 0.8, 2.6, usual=2.2, how="tape from end to end"),
                ),
            ),
            ItemKind(
                id="trap bar",
                words="trap bar",
                group=STOCK,
                quantities=(
                    _kg(how=_SCALE, high=80.0),
                    _COUNT,
                    _cm("length_m", "length", 0.8, 2.6, usual=1.5, how="tape from end to end"),
                ),
            ),
            ItemKind(id="plate", words="plates", group=STOCK, quantities=(_kg(how=_SCALE), _COUNT)),
            ItemKind(
                id="dumbbell", words="dumbbells", group=STOCK, quantities=(_kg(how=_SCALE), _COUNT)
            ),
            ItemKind(
                id="kettlebell",
                words="kettlebells",
                group=STOCK,
                quantities=(_kg(how=_SCALE), _COUNT),
            ),
            ItemKind(
                id="chain",
                words="chains",
                group=STOCK,
                quantities=(
                    Quantity(
                        name="kg_per_m",
                        words="weight of a metre",
                        unit="kg/m",
                        per=1.0,
                        low=0.1,
                        high=30.0,
                        how="weigh it, over its length",
                    ),
                    _cm("length_m", "length", 0.2, 5.0, how="tape along it"),
                    _COUNT,
                ),
            ),
            ItemKind(id="band", words="band", group=PULL),
            ItemKind(
                id="short loop",
                words="short loop for the thighs",
                group=PULL,
                serves=("short loop",),
            ),
            ItemKind(
                id="spring",
                words="springs",
                group=PULL,
                fit="spring",
                quantities=(
                    _newton(
                        "start_n",
                        "pull at the first mark",
                        0.0,
                        5000.0,
                        how="scale at the first mark",
                    ),
                    _newton(
                        "end_n",
                        "pull at full travel",
                        0.0,
                        5000.0,
                        how="scale at the stop",
                    ),
                    _cm(
                        "travel_m",
                        "full travel",
                        0.02,
                        3.0,
                        how="tape from the first mark to the stop",
                    ),
                    _COUNT,
                ),
            ),
            ItemKind(
                id="sled press",
                words="sled press",
                group=MACHINES,
                fit="sled",
                quantities=(
                    *_RAILS,
                    _deg(
                        "backrest_deg",
                        "backrest over level",
                        0.0,
                        80.0,
                        usual=15.0,
                        how="phone level on the backrest",
                    ),
                    _deg(
                        "plate_tilt_deg",
                        "foot plate from square to the rails",
                        -20.0,
                        30.0,
                        usual=10.0,
                        how="phone level on the plate and on the rail: 90° less their difference",
                    ),
                    _cm(
                        "peg_m",
                        "frame peg to sled peg, sled at its start",
                        0.05,
                        2.0,
                        optional=True,
                        how=(
                            "for bands: tape between the pegs, feet on the plate, knees bent as "
                            "for "
                            "the start"
                        ),
                    ),
                ),
                settings=("backrest", "foot place", "latch"),
            ),
            ItemKind(
                id="hack squat",
                words="hack squat",
                group=MACHINES,
                fit="sled",
                quantities=_RAILS,
                serves=("hack squat machine",),
                settings=("foot place", "latch"),
            ),
            ItemKind(
                id="arc squat",
                words="arc squat",
                group=MACHINES,
                fit="lever",
                quantities=_LEVER,
                serves=("arc squat machine",),
                settings=("foot place",),
            ),
            ItemKind(
                id="leg extension",
                words="leg extension machine",
                group=MACHINES,
                fit="stack",
                quantities=_STACK,
                serves=("leg extension machine",),
                settings=_MACHINE_SETTINGS,
            ),
            ItemKind(
                id="seated curl",
                words="seated curl machine",
                group=MACHINES,
                fit="stack",
                quantities=_STACK,
                serves=("seated curl machine",),
                settings=_MACHINE_SETTINGS,
            ),
            ItemKind(
                id="lying curl",
                words="lying curl machine",
                group=MACHINES,
                fit="stack",
                quantities=_STACK,
                serves=("lying curl machine",),
                settings=_MACHINE_SETTINGS,
            ),
            ItemKind(
                id="standing curl",
                words="standing curl machine",
                group=MACHINES,
                fit="stack",
                quantities=_STACK,
                serves=("standing curl machine",),
                settings=_MACHINE_SETTINGS,
            ),
            ItemKind(
                id="multi-hip",
                words="multi-hip machine",
                group=MACHINES,
                fit="stack",
                quantities=_STACK,
                serves=("multi-hip machine",),
                settings=_MACHINE_SETTINGS,
            ),
            ItemKind(
                id="abduction machine",
                words="abduction machine",
                group=MACHINES,
                fit="stack",
                quantities=_STACK,
                serves=("abduction machine",),
                settings=_MACHINE_SETTINGS,
            ),
            ItemKind(
                id="adduction machine",
                words="adduction machine",
                group=MACHINES,
                fit="stack",
                quantities=_STACK,
                serves=("adduction machine",),
                settings=_MACHINE_SETTINGS,
            ),
            ItemKind(
                id="hip thrust machine",
                words="hip thrust machine",
                group=MACHINES,
                fit="lever",
                quantities=_LEVER,
                serves=("hip thrust machine",),
                settings=("foot place", "pad"),
            ),
            ItemKind(
                id="standing calf",
                words="standing calf machine",
                group=MACHINES,
                fit="lever",
                quantities=_LEVER,
                serves=("calf machine",),
                settings=("pad",),
            ),
            ItemKind(
                id="seated calf",
                words="seated calf machine",
                group=MACHINES,
                fit="lever",
                quantities=_LEVER,
                serves=("seated calf machine",),
                settings=("pad",),
            ),
            ItemKind(
                id="pendulum",
                words="pendulum machine",
                group=MACHINES,
                fit="pendulum",
                quantities=(
                    _cm(
                        "arm_m",
                        "pivot to the weight",
                        0.1,
                        3.0,
                        how="tape from the pivot's middle to the weight's",
                    ),
                    _kg(
                        "arm_kg",
                        "bare arm, as if at the weight",
                        0.0,
                        100.0,
                        usual=0.0,
                        how="hang the arm level from a scale at the weight's place",
                    ),
                ),
                serves=("pendulum machine",),
            ),
            ItemKind(
                id="cable",
                words="cable pulley",
                group=MACHINES,
                fit="cable",
                quantities=(
                    _cm(
                        "height_m",
                        "pulley over the floor",
                        0.0,
                        3.0,
                        how="tape from the floor to the pulley's middle",
                    ),
                    *_STACK,
                ),
                serves=("cable pulley",),
                settings=("pulley", "clip link"),
            ),
            ItemKind(
                id="belt squat cable",
                words="belt squat with a cable",
                group=MACHINES,
                fit="cable",
                quantities=_STACK,
                serves=("belt-squat machine",),
                settings=("clip link", "box"),
            ),
            ItemKind(
                id="belt squat lever",
                words="belt squat with a lever",
                group=MACHINES,
                fit="lever",
                quantities=_LEVER,
                serves=("belt-squat lever",),
                settings=("clip link", "box"),
            ),
            ItemKind(
                id="dip belt",
                words="dip belt",
                group=MACHINES,
                quantities=(
                    _cm(
                        "ring_m",
                        "ring ahead of the hip's middle",
                        0.0,
                        0.4,
                        usual=0.12,
                        how="tape, standing in the belt",
                    ),
                ),
                serves=("dip belt",),
                settings=("clip link", "box"),
            ),
            ItemKind(
                id="corner pivot",
                words="corner for a bar end",
                group=MACHINES,
                fit="corner-bar",
                quantities=(
                    _cm(
                        "sleeve_m",
                        "pivot to the plates",
                        0.5,
                        2.6,
                        usual=2.0,
                        how="tape along the bar",
                    ),
                    _cm(
                        "hand_m",
                        "pivot to the hands",
                        0.5,
                        2.6,
                        usual=2.1,
                        how="tape along the bar",
                    ),
                ),
                serves=("corner for a bar end",),
            ),
            ItemKind(
                id="sprung carriage",
                words="sprung carriage",
                group=MACHINES,
                fit="carriage",
                quantities=(
                    _kg("empty_kg", "carriage", 0.0, 100.0, how=_SCALE),
                    _FRICTION,
                    _cm(
                        "travel_m",
                        "full travel",
                        0.2,
                        3.0,
                        usual=1.0,
                        how="tape along the rails, stop to stop",
                    ),
                ),
                serves=("sprung carriage",),
                settings=("spring set", "foot bar", "stop"),
            ),
            ItemKind(
                id="rail bar",
                words="bar on rails",
                group=MACHINES,
                fit="rail-bar",
                quantities=(
                    _kg("empty_kg", "bar, as it hangs", 0.0, 60.0, how="hang it from a scale"),
                    _FRICTION,
                ),
                serves=("bar on rails",),
                settings=("stops",),
            ),
            ItemKind(
                id="bench",
                words="bench",
                group=FURNITURE,
                quantities=(_TOP, _kg("own_kg", "own weight", 0.5, 300.0, usual=20.0, how=_SCALE)),
                serves=("bench", "seat"),
            ),
            ItemKind(
                id="box",
                words="box or step",
                group=FURNITURE,
                quantities=(_TOP, _kg("own_kg", "own weight", 0.5, 300.0, usual=10.0, how=_SCALE)),
                serves=("step", "seat"),
            ),
            ItemKind(
                id="rack",
                words="rack",
                group=FURNITURE,
                quantities=(_TOP,),
                serves=("rack", "post to hold"),
                settings=("hooks", "stops"),
            ),
            ItemKind(
                id="couch",
                words="couch",
                group=FURNITURE,
                quantities=(
                    _TOP,
                    _kg(
                        "own_kg",
                        "own weight",
                        1.0,
                        300.0,
                        usual=40.0,
                        how="lift one end on a scale, twice that",
                    ),
                    _cm("depth_m", "depth", 0.2, 2.0, usual=0.9, how="tape from front to back"),
                    _cm(
                        "foot_m",
                        "foot for a band, over the floor",
                        0.0,
                        0.5,
                        optional=True,
                        how="tape to where the band would lie; empty: none",
                    ),
                    _cm(
                        "gap_m",
                        "room for the ankles under it",
                        0.0,
                        0.4,
                        optional=True,
                        how="tape under the front edge; empty: none",
                    ),
                ),
                serves=("couch", "seat"),
            ),
            ItemKind(
                id="table",
                words="table",
                group=FURNITURE,
                quantities=(
                    _TOP,
                    _kg(
                        "own_kg",
                        "own weight",
                        1.0,
                        300.0,
                        usual=25.0,
                        how="lift one end on a scale, twice that",
                    ),
                    _cm("depth_m", "depth", 0.2, 2.0, usual=0.6, how="tape from front to back"),
                ),
                serves=("seat", "table"),
            ),
            ItemKind(
                id="bench 45",
                words="45° bench",
                group=FURNITURE,
                quantities=(
                    _deg(
                        "bench_deg",
                        "pad over level",
                        20.0,
                        70.0,
                        usual=45.0,
                        how="phone level on the thigh pad",
                    ),
                ),
                serves=("45° bench",),
                settings=("pad",),
            ),
            ItemKind(
                id="bench level",
                words="level extension bench",
                group=FURNITURE,
                quantities=(_TOP,),
                serves=("level extension bench",),
            ),
            ItemKind(
                id="glute-ham bench",
                words="glute-ham bench",
                group=FURNITURE,
                quantities=(_TOP,),
                serves=("glute-ham bench",),
                settings=("plate",),
            ),
            ItemKind(
                id="peg rail",
                words="rail with pegs",
                group=FURNITURE,
                quantities=(
                    _cm("height_m", "pegs over the floor", 0.0, 2.0, how="tape from the floor"),
                ),
                serves=("peg rail",),
            ),
            ItemKind(
                id="high bar",
                words="bar to hang from",
                group=FURNITURE,
                quantities=(_TOP,),
                serves=("bar to hang from",),
            ),
            ItemKind(
                id="post",
                words="post or handle to hold",
                group=FURNITURE,
                quantities=(_TOP,),
                serves=("post to hold",),
            ),
            ItemKind(
                id="ball",
                words="ball",
                group=FURNITURE,
                quantities=(
                    _cm(
                        "across_m",
                        "across",
                        0.2,
                        1.2,
                        usual=0.65,
                        how="between two boards, tape from one to the other",
                    ),
                ),
                serves=("ball",),
            ),
            ItemKind(
                id="half ball",
                words="half ball",
                group=FURNITURE,
                quantities=(
                    _cm(
                        "across_m",
                        "across",
                        0.2,
                        1.2,
                        usual=0.65,
                        how="between two boards, tape from one to the other",
                    ),
                ),
                serves=("half ball",),
            ),
            ItemKind(
                id="heel wedge",
                words="heel wedge",
                group=FURNITURE,
                quantities=(
                    _cm("thick_m", "thickness under the heel", 0.005, 0.12, how="tape or caliper"),
                ),
                serves=("heel wedge",),
            ),
            ItemKind(
                id="pad",
                words="pad to put in front of a pad",
                group=FURNITURE,
                quantities=(
                    _cm("thick_m", "thickness, pressed", 0.005, 0.2, how="press it, then tape"),
                ),
            ),
            ItemKind(
                id="ankle hold",
                words="hold for the ankles",
                group=FURNITURE,
                quantities=(
                    _cm(
                        "height_m",
                        "over the floor",
                        0.0,
                        1.0,
                        usual=0.08,
                        how="tape from the floor",
                    ),
                ),
                serves=("ankle hold",),
            ),
            ItemKind(
                id="anchor",
                words="anchor for a band",
                group=ANCHORS,
                quantities=(
                    _cm("height_m", "height", 0.0, 5.0, how="tape from the floor"),
                    _newton(
                        "holds_n",
                        "holds",
                        0.0,
                        100000.0,
                        optional=True,
                        how="rating on the eye or clip",
                    ),
                    _kg(
                        "own_kg",
                        "weighs",
                        0.5,
                        2000.0,
                        optional=True,
                        how="for a loose weight or furniture",
                    ),
                    _cm(
                        "depth_m",
                        "depth of the furniture",
                        0.1,
                        3.0,
                        optional=True,
                        how="tape from its near foot back",
                    ),
                ),
            ),
        )
    }
)
"""Every kind of equipment by its id."""


def kind_of(name: str, where: str = "kind") -> ItemKind:
    """Return a kind by its id; UnknownNameError lists the others."""
    if name not in KINDS:
        raise UnknownNameError(where, name, KINDS)
    return KINDS[name]
