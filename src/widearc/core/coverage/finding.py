"""A finding of a week, of whom it is told, and what mends it."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from widearc.core.coverage.seen import SlotSeen
from widearc.core.words import Said

LEAST_UNITS = 2.0
"""Unit sets a week under which a group counts as not trained (common practice, no source)."""
LEAST_RECTUS = 0.03
"""Of the most worked group's work: a squat's rectus femoris does less."""
STRAIGHT_DEG, BENT_DEG = 30.0, 60.0
FLEXED_HIP_DEG, FLEXED_SHARE = 45.0, 0.8
LONG_SHARE = 0.1
HEAVY = 0.5
"""Of body mass: more along the spine is heavy (assumed)."""
SAME_WEEKS = 8


@dataclass(frozen=True, slots=True, kw_only=True)
class Person:
    """Of whom a week is: body mass, kg; whether abduction or adduction is a goal of theirs or one
    side is stronger; for how many weeks nearly every set lay alike.
    """

    mass_kg: float
    wants_sides: bool = False
    weeks_alike: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """A finding: its id, what is so, why it matters; slots: which it is about, by id; remedies:
    exercises that would mend it, the first that can be done here; day: where, None for any.
    """

    id: str
    says: Said
    why: Said
    slots: tuple[int, ...] = ()
    remedies: tuple[str, ...] = ()
    day: int | None = None


Rule = Callable[[Sequence[SlotSeen], Person], Finding | None]

KNEE = ("leg-extension", "reverse-nordic", "leg-extension-dumbbell", "leg-extension-band")
CURLS_SEATED = ("seated-leg-curl",)
CURLS = (
    *CURLS_SEATED,
    *(
        "leg-curl-band",
        "lying-leg-curl",
        "lying-curl-band-couch",
        "leg-curl-dumbbell",
        "lying-curl-cable",
    ),
    *("slider-curl", "ball-curl", "nordic-curl", "glute-ham-ball"),
)
HINGES = (
    *("romanian-deadlift", "stiff-leg-deadlift", "one-leg-romanian-deadlift", "good-morning"),
    *("back-extension-45", "back-extension-flat", "back-extension-couch"),
)
SIDES = ("side-lying-raise", "abduction-loop", "abduction-cable", "pendulum-abduction")
OFFSET = ("offset-lunge", "step-up", "split-squat")
STRAIGHT_CALVES = (
    *("calf-raise-standing", "calf-raise-step", "calf-raise-bar", "calf-raise-one-leg"),
    "calf-raise-press",
)
BENT_CALVES = ("calf-raise-seated", "calf-raise-seated-weights")
ONE_LEG = (
    *("rear-raised-split-squat", "split-squat", "reverse-lunge", "step-up", "leg-press-one-leg"),
    "hip-thrust-one-leg",
)
LONG: Mapping[str, tuple[str, ...]] = MappingProxyType(
    {
        "vasti": ("sissy-squat", "front-squat", "goblet-squat", "leg-press-45"),
        "gluteus_maximus": ("romanian-deadlift", "rear-raised-split-squat", "split-squat"),
        "long_hamstrings": HINGES,
        "adductor_magnus": ("wide-squat", "romanian-deadlift", "split-squat"),
        "gastrocnemius": ("calf-raise-step", "calf-raise-one-leg", "calf-raise-press"),
        "soleus": BENT_CALVES,
    }
)
