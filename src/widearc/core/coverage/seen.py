"""A week as its findings see it: slots with what a set of them counts for, and what they are."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import Action
from widearc.core.equipment import FreeMass
from widearc.core.exercises import Exercise
from widearc.core.statics import Curve

DAYS = 7
GROUPS = (
    "vasti",
    "rectus_femoris",
    "long_hamstrings",
    "biceps_femoris_short_head",
    "gluteus_maximus",
    "gluteus_medius",
    "adductor_magnus",
    "gastrocnemius",
    "soleus",
)
"""Muscle groups of a week's map, in order."""

SPINE_PORTS = frozenset({"back-high", "back-low", "shoulders", "front-rack", "hands"})
BAR_PORTS = frozenset({"back-high", "back-low", "shoulders", "front-rack"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Worked:
    """What one set counts for a muscle group, and how that lies in thirds of its length: long,
    middle, short, together 1.
    """

    counts: float
    thirds: tuple[float, float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class Traits:
    """What a set-up is: its knee's least and greatest bend and its hip's in the middle of the lift,
    degrees (NaN: no such joint); the weight along the spine, kg, and whether it is a free bar; how
    the first half is weighted over the second, None where nothing is asked.
    """

    knee_deg: tuple[float, float] = (np.nan, np.nan)
    hip_deg: float = np.nan
    spine_kg: float = 0.0
    free_bar: bool = False
    one_leg: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class SlotSeen:
    """A slot of a week. id: its own; day: 0 (Monday) to 6; position: on its day; sets and reps as
    planned; rep_s, rest_s: seconds; minutes: of what is not counted in sets, None for lifts.
    """

    id: int
    day: int
    position: int
    exercise: Exercise
    kind: str = "lift"
    sets: float = 3.0
    reps: float = 10.0
    rep_s: float = 3.0
    rest_s: float = 120.0
    minutes: float | None = None
    traits: Traits = Traits()
    worked: Mapping[str, Worked] = field(default_factory=lambda: MappingProxyType({}))

    def units_of(self, group: str) -> float:
        """Return the unit sets of a muscle group: sets times what one counts."""
        found = self.worked.get(group)
        return 0.0 if found is None else self.sets * found.counts


def traits_of(curve: Curve) -> Traits:
    """Return what a set-up of one row is."""
    motion, setup = curve.motion, curve.setup
    knee, hip = motion.angles.get("knee"), motion.angles.get("hip")
    spine = [
        load for load in setup.loads if isinstance(load, FreeMass) and load.port in SPINE_PORTS
    ]
    return Traits(
        knee_deg=(np.nan, np.nan)
        if knee is None
        else (float(np.rad2deg(knee[0].min())), float(np.rad2deg(knee[0].max()))),
        hip_deg=np.nan if hip is None else float(np.rad2deg(np.median(hip[0]))),
        spine_kg=sum(float(np.ravel(load.kg)[0]) for load in spine),
        free_bar=any(load.port in BAR_PORTS for load in spine) or _is_pull(setup.exercise, spine),
        one_leg=round(float(motion.legs)) == 1,
    )


def _is_pull(exercise: Exercise, spine: list[FreeMass]) -> bool:
    return exercise.family == "hinge" and bool(spine)


def units(slots: Iterable[SlotSeen]) -> Mapping[str, Array]:
    """Return unit sets of every group by day and third of its length, (7 days, 3 thirds)."""
    found = {group: np.zeros((DAYS, 3)) for group in GROUPS}
    for slot in slots:
        for group, worked in slot.worked.items():
            if group in found:
                found[group][slot.day] += slot.sets * worked.counts * np.array(worked.thirds)
    return found


def trains(exercise: Exercise, action: Action) -> bool:
    """Return whether an action is a prime one of an exercise."""
    return action in exercise.prime
