"""What place, people and client allow: why an exercise is left out, and what would admit it."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from types import MappingProxyType
from typing import Protocol, TypeVar

from widearc.core.body import Limits
from widearc.core.equipment import KINDS
from widearc.core.exercises import Exercise
from widearc.core.kit.machines import is_axial
from widearc.core.kit.stock import BandShape, Kit, box_pairs

LONG_MINUTES = 3.0  # a longer set-up is hidden in a packed place (assumed)
WALK_M = 5.0  # free floor that travelling lunges need (assumed)


LOW_M, HIGH_M = (
    0.25,
    0.7,
)  # an anchor "under the feet" lies below the first, one "behind" below the second


LEVEL_DEG, UPRIGHT_DEG = (
    15.0,
    75.0,
)  # rails under the first make a level press, over the second a vertical one


@dataclass(frozen=True, slots=True, kw_only=True)
class Rules:
    """What the people and the place allow.

    to_shoulders_kg: the heaviest bar the client brings to the shoulders without a rack (None: not
    asked). alone: nobody to spot; partner: somebody who helps. wall, floor_length_m: space. packed:
    hide travelling exercises and long set-ups. beginner: static before raised rear foot before
    offset load. grip_kg: what one hand holds for a set. sore: joint to side. stronger_side: "left"
    or "right".
    """

    to_shoulders_kg: float | None = None
    alone: bool = False
    partner: bool = False
    wall: bool = True
    floor_length_m: float | None = None
    packed: bool = False
    beginner: bool = False
    grip_kg: float | None = None
    sore: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    stronger_side: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Excluded:
    """An exercise that is left out: the reason, what would admit it, taken items' ids, and the need
    that is not met.
    """

    exercise: Exercise
    reason: str
    admits: str = ""
    taken: tuple[str, ...] = ()
    need: str = ""


class Named(Protocol):
    """Anything with an id and a name."""

    @property
    def id(self) -> str: ...
    @property
    def name(self) -> str: ...


def taken_words(name: str, state: str) -> str:
    """Return that an item is in use or broken, in words."""
    return f"{name.lower()} {state}"


def left_out(
    exercise: Exercise,
    kit: Kit,
    limits: Limits,
    rules: Rules,
    taken: frozenset[str],
    names: Mapping[str, str],
) -> Excluded | None:
    """Return why place, people or client rule the exercise out, or None. names: a word for a taken
    item's state.
    """
    out = unmet(exercise, kit, rules, taken, names)
    if out is not None:
        return out
    if limits.no_axial_load and exercise.ways and all(is_axial(way) for way in exercise.ways):
        return Excluded(
            exercise=exercise,
            reason="no load on the spine for this client",
            admits="a load on a belt",
        )
    return _by_rule(exercise, rules)


def unmet(
    exercise: Exercise, kit: Kit, rules: Rules, taken: frozenset[str], names: Mapping[str, str]
) -> Excluded | None:
    """Return the first of an exercise's needs that nothing here meets, or None."""
    for need in exercise.needs:
        out = _need_missing(exercise, need, kit, rules, taken, names)
        if out is not None:
            return out
    return None


def _by_rule(exercise: Exercise, rules: Rules) -> Excluded | None:
    travels = "floor to walk" in exercise.needs
    if rules.beginner and travels:
        return Excluded(
            exercise=exercise,
            reason="no travelling lunge for a beginner",
            admits="a lunge on the spot",
        )
    if rules.alone and exercise.fails_alone == "no":
        return Excluded(
            exercise=exercise, reason="cannot be failed safely alone", admits="a partner"
        )
    if rules.packed and travels:
        return Excluded(
            exercise=exercise, reason="packed: it travels", admits="show what takes room or time"
        )
    if rules.packed and exercise.minutes > LONG_MINUTES:
        reason = f"packed: {exercise.minutes:.0f} min to set up"
        return Excluded(exercise=exercise, reason=reason, admits="show what takes room or time")
    return None


def _presses(low: float, high: float) -> Callable[[Kit], Sequence[Named]]:
    return lambda kit: [p for p in kit.presses if low <= p.rail_deg <= high]


def _furniture(*kinds: str) -> Callable[[Kit], Sequence[Named]]:
    return lambda kit: [f for f in kit.furniture if f.kind in kinds]


def _served(need: str) -> Callable[[Kit], Sequence[Named]]:
    kinds = {kind.id for kind in KINDS.values() if need in kind.serves}
    return lambda kit: [
        *(f for f in kit.furniture if f.kind in kinds),
        *(t for t in kit.things if t.kind in kinds),
        *(m for m in kit.machines if m.kind in kinds),
    ]


def _anchors(low: float, high: float) -> Callable[[Kit], Sequence[Named]]:
    return lambda kit: [a for a in kit.anchors if low <= a.height_m <= high]


_MET_BY: Mapping[str, tuple[str, Callable[[Kit], Sequence[Named]]]] = MappingProxyType(
    {
        "sled press": ("a sled press", _presses(LEVEL_DEG, UPRIGHT_DEG)),
        "level press": ("a level press", _presses(0.0, LEVEL_DEG)),
        "vertical press": ("a vertical press", _presses(UPRIGHT_DEG, 90.0)),
        "seat": ("a bench or box", _furniture("bench", "box", "couch", "table")),
        "rack": ("a rack", _furniture("rack")),
        "bench": ("a bench", _furniture("bench")),
        "step": ("a step", _furniture("box")),
        "short loop": (
            "a short loop",
            lambda kit: [
                *(b for b in kit.bands if b.goes_round_thighs),
                *_served("short loop")(kit),
            ],
        ),
        "anchor behind": ("an anchor", _anchors(0.0, HIGH_M)),
        "anchor ahead": ("an anchor", _anchors(0.0, 5.0)),
        "anchor under the feet": (f"an anchor below {100 * LOW_M:.0f} cm", _anchors(0.0, LOW_M)),
    }
)
"""For each need that is not met by a kind of thing alone: its words, and what meets it."""


def _need_missing(
    exercise: Exercise,
    need: str,
    kit: Kit,
    rules: Rules,
    taken: frozenset[str],
    names: Mapping[str, str],
) -> Excluded | None:
    if need == "partner":
        return (
            None
            if rules.partner
            else Excluded(exercise=exercise, reason="needs a partner", admits="a partner")
        )
    if need == "wall":
        return (
            None
            if rules.wall
            else Excluded(exercise=exercise, reason="needs a free wall", admits="a free wall")
        )
    if need == "floor to walk":
        if rules.floor_length_m is None or rules.floor_length_m < WALK_M:
            known = (
                "not measured"
                if rules.floor_length_m is None
                else f"{rules.floor_length_m:.1f} m here"
            )
            reason = f"needs {WALK_M:.0f} m of floor: {known}"
            return Excluded(
                exercise=exercise, reason=reason, admits=f"{WALK_M:.0f} m of free floor"
            )
        return None
    if need == "rack or clean":
        if rules.to_shoulders_kg is not None or any(
            r.id not in taken for r in _furniture("rack")(kit)
        ):
            return None
        admits = "a rack, or the weight the client brings to the shoulders"
        return Excluded(exercise=exercise, reason="needs a rack", admits=admits)
    if need == "ankle hold" and rules.partner:
        return None
    owned = meeting(need, kit)
    free = (
        meeting(need, kit.without(taken))
        if need == "boxes"
        else [i for i in owned if i.id not in taken]
    )
    if free:
        return None
    return replace(
        _missing(exercise, words_of(need), [i for i in owned if i.id in taken], names), need=need
    )


def words_of(need: str) -> str:
    """Return a need in words, with its article."""
    return (
        "two boxes of one height"
        if need == "boxes"
        else _MET_BY[need][0]
        if need in _MET_BY
        else _article(need)
    )


def meeting(need: str, kit: Kit) -> Sequence[Named]:
    """Return what of a kit meets a need, free or not."""
    if need == "boxes":
        return [box for pair in box_pairs(kit, 0.0, 2.0) for box in pair]
    return _MET_BY[need][1](kit) if need in _MET_BY else _served(need)(kit)


_NEAR: Mapping[str, Callable[[Kit], Sequence[Named]]] = MappingProxyType(
    {
        "anchor behind": lambda kit: kit.anchors,
        "anchor under the feet": lambda kit: kit.anchors,
        "boxes": lambda kit: [f for f in kit.furniture if f.kind == "box"],
        "step": lambda kit: [f for f in kit.furniture if f.kind in ("bench", "couch", "table")],
        "bench": lambda kit: [f for f in kit.furniture if f.kind in ("box", "couch", "table")],
        "couch": lambda kit: [f for f in kit.furniture if f.kind in ("bench", "table")],
        "45° bench": lambda kit: [f for f in kit.furniture if f.kind == "couch"],
        "short loop": lambda kit: [b for b in kit.bands if b.shape is BandShape.LOOP],
    }
)


def near(need: str, kit: Kit) -> Sequence[Named]:
    """Return what of a kit is of the same sort but does not meet a need as it is: an anchor too
    high, another bench.
    """
    meets = {item.id for item in meeting(need, kit)}
    return [item for item in _NEAR[need](kit) if item.id not in meets] if need in _NEAR else []


def _article(thing: str) -> str:
    return f"{'an' if thing[0] in 'aeiou' else 'a'} {thing}"


def _missing(
    exercise: Exercise, what: str, owned: Sequence[Named], names: Mapping[str, str]
) -> Excluded:
    if owned:
        return Excluded(
            exercise=exercise,
            reason=taken_words(owned[0].name, names.get(owned[0].id, "taken")),
            admits=f"free it, or another: it needs {what}",
            taken=tuple(item.id for item in owned),
        )
    return Excluded(exercise=exercise, reason=f"needs {what}: none here", admits=what)


STAGES = (("split-squat",), ("rear-raised-split-squat",), ("offset-lunge",))
"""The order in which a beginner is offered split work (common practice, no source)."""


class _Ranked(Protocol):
    @property
    def exercise(self) -> Exercise: ...


T = TypeVar("T", bound=_Ranked)


def step_by_step(ordered: list[T], rules: Rules) -> list[T]:
    """Return candidates with, for a beginner, no later stage of split work before an earlier
    one.
    """
    if not rules.beginner:
        return ordered
    stage = {exercise: n for n, ids in enumerate(STAGES) for exercise in ids}
    places = [i for i, c in enumerate(ordered) if c.exercise.id in stage]
    staged = sorted((ordered[i] for i in places), key=lambda c: stage[c.exercise.id])
    result = list(ordered)
    for place, candidate in zip(places, staged, strict=True):
        result[place] = candidate
    return result
