"""In which ways stock and machines load the exercises whose entries name none. Common practice, no
source.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from widearc.core.exercises.exercise import LoadWay, way

_NONE: tuple[LoadWay, ...] = ()
_SLED = ((way("sled", "sled"),),)
_STACK = ((way("stack", "shin-pad"),),)


_LUNGE = (
    _NONE,
    (way("dumbbells", "hands"),),
    (way("dumbbell", "goblet"),),
    (way("bar", "back-high"),),
)


_BACK = (_NONE, (way("dumbbell", "goblet"),))
_KNEELING = (_NONE, (way("dumbbell", "goblet", most_kg=10),))
_LEG = (_NONE, (way("dumbbell", "ankle", most_kg=10),))
_CARRIAGE = ((way("spring", "carriage"),),)


WAYS: Mapping[str, tuple[tuple[LoadWay, ...], ...]] = MappingProxyType(
    {
        "leg-press-flat": _SLED,
        "leg-press-vertical": _SLED,
        "leg-press-one-leg": _SLED,
        "calf-raise-press": _SLED,
        "hack-squat": ((way("hack", "sled"),),),
        "leg-extension": _STACK,
        "seated-leg-curl": _STACK,
        "lying-leg-curl": _STACK,
        "standing-leg-curl": _STACK,
        "multi-hip": ((way("stack", "thigh"),),),
        "abduction-machine": ((way("stack", "thigh"),),),
        "arc-squat": ((way("lever", "pad"),),),
        "hip-thrust-machine": ((way("lever", "hip-crease"),),),
        "calf-raise-standing": ((way("lever", "shoulders"),),),
        "calf-raise-seated": ((way("lever", "thigh"),),),
        "belt-squat-lever": ((way("lever", "hip-belt"),),),
        "pendulum-hip-extension": ((way("pendulum", "ankle"),),),
        "pendulum-abduction": ((way("pendulum", "ankle"),),),
        "leg-press-banded": ((way("sled", "sled"), way("band", "sled", "frame")),),
        "loop-squat": ((way("band", "thigh", "thighs"),),),
        "abduction-loop": ((way("band", "thigh", "thighs"),),),
        "leg-extension-cable": ((way("cable", "ankle", "behind", most_kg=30),),),
        "belt-squat-cable": ((way("cable", "hip-belt", "under"),),),
        "leg-extension-band": ((way("band", "ankle", "eye-behind"),),),
        "leg-curl-band": ((way("band", "ankle", "eye-behind"),),),
        "kickback": ((way("band", "ankle", "eye-ahead"),),),
        "hack-squat-ball-band": ((way("band", "shoulders", "eye-behind"),),),
        "ball-wall-squat": (_NONE, (way("dumbbells", "hands", most_kg=60),)),
        "deadlift": ((way("bar", "hands"),),),
        "wide-deadlift": ((way("bar", "hands"),),),
        "rail-squat": ((way("rail", "back-high"),),),
        "rail-good-morning": ((way("rail", "back-high"),),),
        "corner-bar-squat": ((way("corner", "goblet"),),),
        "corner-bar-wide-squat": ((way("corner", "hands"),),),
        "belt-squat-home": (
            (way("one hand", "hip-belt"),),
            (way("band", "hip-belt", "base"),),
            (way("one hand", "hip-belt"), way("band", "hip-belt", "base")),
        ),
        "belt-squat-pin": ((way("plate", "hip-belt"),),),
        "belt-hinge-boxes": (
            (way("one hand", "hands"),),
            (way("one hand", "hands"), way("band", "hip-belt", "base")),
        ),
        "banded-bar-squat": ((way("bar", "back-high"), way("band", "shoulders", "feet")),),
        "walking-lunge": _LUNGE,
        "reverse-lunge": _LUNGE,
        "lean-lunge": _LUNGE,
        "b-stance-squat": _LUNGE,
        "step-up": _LUNGE,
        "offset-lunge": ((way("one hand", "hand-left"),), (way("unequal pair", "hands"),)),
        "sissy-squat": _BACK,
        "nordic-curl": _KNEELING,
        "glute-ham-raise": (_NONE,),
        "glute-ham-ball": (_NONE,),
        "back-extension-45": _BACK,
        "back-extension-flat": _BACK,
        "back-extension-couch": _BACK,
        "lying-leg-raise": _LEG,
        "hanging-leg-raise": _LEG,
        "pendulum-hip-extension-couch": _LEG,
        "side-lying-raise": _LEG,
        "side-lying-raise-edge": _LEG,
        "hip-thrust-one-leg": (
            _NONE,
            (way("dumbbell", "hip-crease"),),
            (way("plate", "hip-crease"),),
        ),
        "hip-thrust-band": ((way("band", "hip-crease", "feet"),),),
        "couch-knee-press": (_NONE,),
        "hip-thrust-couch-table": (
            _NONE,
            (way("dumbbell", "hip-crease"),),
            (way("plate", "hip-crease"),),
        ),
        "slider-curl": (_NONE,),
        "ball-curl": (_NONE,),
        "lying-curl-cable": ((way("cable", "ankle", "past the feet", most_kg=30),),),
        "lying-curl-band-couch": ((way("band", "ankle", "eye-behind"),),),
        "calf-raise-seated-weights": (
            (way("dumbbells", "thigh"),),
            (way("plate", "thigh"),),
            (way("dumbbell", "thigh"),),
        ),
        "deficit-trap-bar-deadlift": ((way("trap bar", "hands"),),),
        "adduction-machine": ((way("stack", "thigh"),),),
        "abduction-cable": ((way("cable", "ankle", "across", most_kg=30),),),
        "adduction-cable": ((way("cable", "ankle", "ahead", most_kg=30),),),
        "adduction-band": ((way("band", "ankle", "eye-ahead"),),),
        "carriage-push": _CARRIAGE,
        "carriage-lunge-front": _CARRIAGE,
        "carriage-pull-back": _CARRIAGE,
        "carriage-side-push": _CARRIAGE,
        "carriage-kick": _CARRIAGE,
        "carriage-knee-drive": _CARRIAGE,
    }
)
"""By exercise: alternatives, each a tuple of what is used together; an empty one means body weight
alone.
"""
