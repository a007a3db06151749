"""The catalogue's entries. Set-up facts, cues and cautions are common practice, no source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from widearc.core.catalogue.options import OptionSpec, with_defaults
from widearc.core.curve import Action
from widearc.core.errors import UnknownNameError

KE, HE = Action.KE, Action.HE


@dataclass(frozen=True, slots=True, kw_only=True)
class LoadWay:
    """One way in which stock can load an exercise.

    stock: bar, dumbbells (a pair), dumbbell (one, or a kettlebell), band, sled; port: where it acts;
    from_: where a band is tied: "feet" (stood on), "eye-ahead" (an anchor of the room before the person).
    """

    stock: str
    port: str
    from_: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Exercise:
    """One exercise: what it is, how it may be set up, and what a trainer must know of it.

    ways: alternatives of load, each a tuple of LoadWay used together; () means body weight alone.
    needs: furniture or machines without which it is excluded; steadiness 1 to 5, 5 = steadiest;
    fails_alone: "yes", "with stops" or "no"; minutes: to set up; reps and rest_s: (from, to).
    """

    id: str
    name: str
    aliases: tuple[str, ...] = ()
    family: str
    prime: tuple[Action, ...]
    ports: tuple[str, ...]
    ways: tuple[tuple[LoadWay, ...], ...]
    defaults: Mapping[str, float | str] = field(default_factory=dict)
    needs: tuple[str, ...] = ()
    one_piece: bool = True
    steadiness: int
    fails_alone: str
    limits: tuple[str, ...]
    minutes: float
    one_leg: bool = False
    checks: tuple[str, ...]
    cues: tuple[str, ...]
    mistakes: tuple[str, ...]
    breathing: str = "In while lowering, out on effort."
    cautions: tuple[str, ...] = ()
    reps: tuple[int, int]
    rest_s: tuple[int, int] = (120, 180)
    replaces: tuple[str, ...] = ()

    @property
    def options(self) -> Mapping[str, OptionSpec]:
        """Return the exercise's options with its own defaults."""
        return with_defaults(self.family, self.defaults)

    @property
    def adds_axial(self) -> bool:
        """Return whether every way of loading it presses on the spine."""
        return all(any(way.stock == "bar" for way in ways) for ways in self.ways)


_SQUAT_CUES = (
    "Hips and knees break together.",
    "Knees in line with the toes, heels down.",
    "New brace each rep.",
)
_SQUAT_MISTAKES = ("Knees cave in.", "Heels lift at the lengthened end.", "Low back rounds when too deep.")
_STRAIGHT_KNEE = "Stop short of a locked knee under load."
_BAND_CHECKS = ("Band flat under the whole foot", "Both sides equal", "No slack before the first rep")
_BAND_CAUTION = "Look the band over first; keep your face out of its line of recoil."


def _way(stock: str, port: str, from_: str = "") -> LoadWay:
    return LoadWay(stock=stock, port=port, from_=from_)


_ENTRIES = (
    Exercise(
        id="back-squat-high",
        name="Back squat, high bar",
        aliases=("high-bar squat",),
        family="stance",
        prime=(KE, HE),
        ports=("back-high", "hip-belt", "shoulders"),
        ways=((_way("bar", "back-high"),),),
        needs=("rack",),
        steadiness=3,
        fails_alone="with stops",
        limits=("breath", "low back"),
        minutes=3,
        one_leg=False,
        checks=("Rack at armpit height", "Stops below your depth", "Collars on", "Heels can stay down"),
        cues=(*_SQUAT_CUES, "Two steps back from the rack."),
        mistakes=_SQUAT_MISTAKES,
        breathing="Hold and re-brace for a heavy bar, or out on effort: your choice.",
        cautions=(_STRAIGHT_KNEE, "Free bar: no burn-out sets; fail onto stops only."),
        reps=(5, 10),
        replaces=("leg-press-45", "front-squat"),
    ),
    Exercise(
        id="front-squat",
        name="Front squat",
        family="stance",
        prime=(KE, HE),
        ports=("front-rack", "hip-belt", "shoulders"),
        ways=((_way("bar", "front-rack"),),),
        defaults={"knee_travel": 0.36},
        needs=("rack or clean",),
        steadiness=3,
        fails_alone="yes",
        limits=("upper back", "breath"),
        minutes=3,
        checks=("Collars on", "Clear floor ahead to drop the bar", "Heels can stay down"),
        cues=(*_SQUAT_CUES, "Elbows high all the way."),
        mistakes=(*_SQUAT_MISTAKES, "Elbows drop and the bar rolls."),
        breathing="Hold and re-brace for a heavy bar, or out on effort: your choice.",
        cautions=(_STRAIGHT_KNEE, "Free bar: no burn-out sets."),
        reps=(5, 10),
        replaces=("back-squat-high", "leg-press-45"),
    ),
    Exercise(
        id="goblet-squat",
        name="Goblet squat",
        family="stance",
        prime=(KE, HE),
        ports=("goblet", "hip-belt", "shoulders"),
        ways=((_way("dumbbell", "goblet"),),),
        defaults={"knee_travel": 0.36},
        steadiness=4,
        fails_alone="yes",
        limits=("grip", "upper back"),
        minutes=1,
        checks=("Weight close to the breastbone", "Heels can stay down"),
        cues=_SQUAT_CUES,
        mistakes=_SQUAT_MISTAKES,
        cautions=(_STRAIGHT_KNEE,),
        reps=(8, 12),
        replaces=("back-squat-high", "leg-press-45"),
    ),
    Exercise(
        id="bodyweight-squat",
        name="Body-weight squat",
        aliases=("free squat",),
        family="stance",
        prime=(KE, HE),
        ports=("hip-belt", "shoulders", "hands"),
        ways=((),),
        steadiness=4,
        fails_alone="yes",
        limits=("breath",),
        minutes=0,
        one_leg=True,
        checks=("Heels can stay down",),
        cues=_SQUAT_CUES,
        mistakes=_SQUAT_MISTAKES,
        cautions=(_STRAIGHT_KNEE,),
        reps=(10, 20),
        rest_s=(60, 120),
        replaces=("leg-press-45",),
    ),
    Exercise(
        id="band-squat",
        name="Band squat",
        family="stance",
        prime=(KE, HE),
        ports=("shoulders", "hands", "hand-left", "hand-right", "goblet", "hip-belt"),
        ways=(
            (_way("band", "shoulders", "feet"),),
            (_way("band", "hands", "feet"),),
            (_way("band", "shoulders", "feet"), _way("dumbbells", "hands")),
        ),
        one_piece=False,
        steadiness=4,
        fails_alone="yes",
        limits=("grip", "upper back"),
        minutes=2,
        checks=_BAND_CHECKS,
        cues=(*_SQUAT_CUES, "Band level at both sides; if it is low, pull up while lowering."),
        mistakes=(*_SQUAT_MISTAKES, "Band slips towards the toes."),
        cautions=(_STRAIGHT_KNEE, _BAND_CAUTION),
        reps=(10, 15),
        rest_s=(60, 120),
        replaces=("leg-press-45",),
    ),
    Exercise(
        id="dumbbell-squat",
        name="Dumbbell squat",
        family="stance",
        prime=(KE, HE),
        ports=("hands", "hand-left", "hand-right", "hip-belt", "shoulders"),
        ways=((_way("dumbbells", "hands"),),),
        one_piece=False,
        steadiness=4,
        fails_alone="yes",
        limits=("grip",),
        minutes=1,
        checks=("Same weight in both hands", "Heels can stay down"),
        cues=(*_SQUAT_CUES, "Dumbbells at the sides, arms long."),
        mistakes=_SQUAT_MISTAKES,
        cautions=(_STRAIGHT_KNEE,),
        reps=(8, 12),
        replaces=("back-squat-high", "leg-press-45"),
    ),
    Exercise(
        id="leg-press-45",
        name="Leg press",
        aliases=("sled press", "45° leg press"),
        family="sled press",
        prime=(KE, HE),
        ports=("sled",),
        ways=((_way("sled", "sled"),),),
        needs=("sled press",),
        steadiness=5,
        fails_alone="with stops",
        limits=("breath",),
        minutes=2,
        one_leg=True,
        checks=(
            "You know the catch before you release it",
            "Stops above your depth",
            "Hips and low back on the pad",
        ),
        cues=("Hips and low back stay on the pad.", "Push through mid-foot and heel.", "Hold the handles."),
        mistakes=(
            "Pelvis rolls up at the lengthened end.",
            "Feet so low that the knees complain.",
            "Knees snap straight.",
        ),
        cautions=(_STRAIGHT_KNEE, "Stop where the pelvis would roll."),
        reps=(8, 12),
        replaces=("back-squat-high", "front-squat"),
    ),
    Exercise(
        id="leg-extension-dumbbell",
        name="Dumbbell leg extension",
        family="knee rotation",
        prime=(KE,),
        ports=("ankle", "sole"),
        ways=((_way("dumbbell", "ankle"),),),
        defaults={"knee_from_deg": 90},
        needs=("seat",),
        steadiness=4,
        fails_alone="yes",
        limits=("grip of the feet",),
        minutes=1,
        checks=("Dumbbell firm between the feet", "Seat high enough to hang free", "Thighs level"),
        cues=(
            "Start from the most bent knee.",
            "Hips stay in the seat.",
            "A brief hold straight, toes forward.",
        ),
        mistakes=("Dumbbell slides.", "Hips lift off the seat."),
        cautions=("Keep hands and head clear of the dumbbell's fall.",),
        reps=(10, 20),
        rest_s=(60, 120),
        replaces=("leg-extension",),
    ),
    Exercise(
        id="split-squat",
        name="Split squat",
        aliases=("static lunge",),
        family="split",
        prime=(KE, HE),
        ports=("hands", "hand-left", "hand-right", "goblet", "shoulders", "hip-belt"),
        ways=(
            (_way("dumbbells", "hands"),),
            (_way("dumbbell", "goblet"),),
            (_way("band", "hands", "feet"),),
            (_way("dumbbells", "hands"), _way("band", "shoulders", "feet")),
            (),
        ),
        one_piece=False,
        steadiness=3,
        fails_alone="yes",
        limits=("grip", "balance"),
        minutes=1,
        one_leg=True,
        checks=("Room for the rear knee", "Front heel can stay down", "Weak side first"),
        cues=(
            "Weight into the front leg.",
            "Rear knee just off the floor.",
            "Lean from the hip, do not round.",
        ),
        mistakes=("Pushing off the rear foot.", "Front heel lifts."),
        cautions=(_STRAIGHT_KNEE,),
        reps=(8, 12),
        replaces=("walking-lunge", "leg-press-45"),
    ),
    Exercise(
        id="reverse-nordic",
        name="Reverse nordic",
        family="kneeling",
        prime=(KE,),
        ports=("goblet", "shoulders", "hands"),
        ways=((), (_way("dumbbell", "goblet"),), (_way("band", "shoulders", "eye-ahead"),)),
        steadiness=3,
        fails_alone="yes",
        limits=("balance",),
        minutes=1,
        checks=("Padding under the knees", "Feet flat behind you", "Room to fall back on the hands"),
        cues=("One line from knee to shoulder.", "Lean only as far as you can come back from."),
        mistakes=("Hips fold.", "Dropping the last part."),
        cautions=("Work up to depth over weeks; the knee is bent far under load.",),
        reps=(6, 12),
        rest_s=(60, 120),
        replaces=("leg-extension", "leg-press-45"),
    ),
)

EXERCISES: Mapping[str, Exercise] = MappingProxyType({entry.id: entry for entry in _ENTRIES})
"""Every exercise by its stable id."""


def exercise(id_: str, where: str = "/exercise") -> Exercise:
    """Return the exercise of that id; UnknownNameError lists those that exist."""
    if not isinstance(id_, str) or id_ not in EXERCISES:
        raise UnknownNameError(where, id_, EXERCISES)
    return EXERCISES[id_]
