"""What an exercise needs of a place: each need one object, with what meets it and what is near."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Protocol

from widearc.core.equipment import KINDS
from widearc.core.exercises import EXERCISES
from widearc.core.kit.rules import Rules
from widearc.core.kit.stock import BandShape, Kit, box_pairs
from widearc.core.words import Distance, Length, Name, Said, Term

WALK_M = 5.0  # free floor that walking lunges need (assumed)
LOW_M, BEHIND_M = 0.25, 0.7  # an anchor "under" lies below the first, one "behind" below the second
HIGHEST_M = 5.0  # of any anchor
LEVEL_DEG, UPRIGHT_DEG = 15.0, 75.0
"""Rails under the first make a level press, over the second a vertical one."""


class Named(Protocol):
    """Anything with an id and a name."""

    @property
    def id(self) -> str: ...
    @property
    def name(self) -> str: ...


@dataclass(frozen=True, slots=True, kw_only=True)
class Lack:
    """Why a need is not met: the reason, what would admit it, and the taken items' ids."""

    reason: Said
    admits: Said
    taken: tuple[str, ...] = ()


def nothing(kit: Kit) -> Sequence[Named]:
    """Return that nothing of a kit meets or is near a need."""
    return ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Need:
    """One need.

    words: with its article. meets: what of a kit meets it, free or not; near: what is of the same
    sort but does not do as it is. people: what people or place settle, whatever the kit has: None
    where that is not theirs to settle. instead: whether people stand in for what is not there.
    anew: what meets it is told by all of the kit together, so that it is asked of what is free.
    lacking: what is said where it lacks, in place of the usual words.
    """

    name: str
    words: Said
    meets: Callable[[Kit], Sequence[Named]] = nothing
    near: Callable[[Kit], Sequence[Named]] = nothing
    people: Callable[[Rules], Lack | None] | None = None
    instead: Callable[[Rules], bool] = lambda _: False
    anew: bool = False
    lacking: Lack | None = None

    def lack(
        self, kit: Kit, rules: Rules, taken: frozenset[str], states: Mapping[str, str | Said]
    ) -> Lack | None:
        """Return why it is not met here now, or None. states: a word for a taken item's state."""
        if self.people is not None:
            return self.people(rules)
        if self.instead(rules):
            return None
        owned = self.meets(kit)
        free = (
            self.meets(kit.without(taken)) if self.anew else [i for i in owned if i.id not in taken]
        )
        if free:
            return None
        if self.lacking is not None:
            return self.lacking
        held = [item for item in owned if item.id in taken]
        if not held:
            return Lack(
                reason=Said("needs {words}: none here", words=self.words),
                admits=self.words,
            )
        return Lack(
            reason=taken_words(held[0].name, states.get(held[0].id, "taken")),
            admits=Said("free it, or another: it needs {words}", words=self.words),
            taken=tuple(item.id for item in held),
        )


def taken_words(name: str, state: str | Said) -> Said:
    """Return that an item is in use or broken, in words."""
    told = state if isinstance(state, Said) else Term(state)
    return Said("{name} {state}", name=Name(name, lower=True), state=told)


def _presses(low: float, high: float) -> Callable[[Kit], Sequence[Named]]:
    return lambda kit: [p for p in kit.presses if low <= p.rail_deg <= high]


def _furniture(*kinds: str) -> Callable[[Kit], Sequence[Named]]:
    return lambda kit: [f for f in kit.furniture if f.kind in kinds]


def _anchors(high: float) -> Callable[[Kit], Sequence[Named]]:
    return lambda kit: [a for a in kit.anchors if 0.0 <= a.height_m <= high]


def _served(need: str) -> Callable[[Kit], Sequence[Named]]:
    kinds = {kind.id for kind in KINDS.values() if need in kind.serves}

    def serving(kit: Kit) -> Sequence[Named]:
        furniture = [f for f in kit.furniture if f.kind in kinds]
        things = [t for t in kit.things if t.kind in kinds]
        return [*furniture, *things, *(m for m in kit.machines if m.kind in kinds)]

    return serving


def _loops(kit: Kit) -> Sequence[Named]:
    short = [band for band in kit.bands if band.goes_round_thighs]
    return [*short, *_served("short loop")(kit)]


def _floor(rules: Rules) -> Lack | None:
    if rules.floor_length_m is not None and rules.floor_length_m >= WALK_M:
        return None
    walk = Distance(WALK_M)
    reason = (
        Said("needs {walk} of floor: not measured", walk=walk)
        if rules.floor_length_m is None
        else Said(
            "needs {walk} of floor: {distance} here",
            walk=walk,
            distance=Distance(rules.floor_length_m),
        )
    )
    return Lack(reason=reason, admits=Said("{distance} of free floor", distance=Distance(WALK_M)))


def _partner(rules: Rules) -> Lack | None:
    return None if rules.partner else Lack(reason=Said("needs a partner"), admits=Said("a partner"))


def _wall(rules: Rules) -> Lack | None:
    return (
        None if rules.wall else Lack(reason=Said("needs a free wall"), admits=Said("a free wall"))
    )


OWN: tuple[Need, ...] = (
    Need(name="partner", words=Said("a partner"), people=_partner),
    Need(name="wall", words=Said("a wall"), people=_wall),
    Need(name="floor to walk", words=Said("a floor to walk"), people=_floor),
    Need(name="sled press", words=Said("a sled press"), meets=_presses(LEVEL_DEG, UPRIGHT_DEG)),
    Need(name="level press", words=Said("a level press"), meets=_presses(0.0, LEVEL_DEG)),
    Need(name="vertical press", words=Said("a vertical press"), meets=_presses(UPRIGHT_DEG, 90.0)),
    Need(
        name="seat",
        words=Said("a bench or box"),
        meets=_furniture("bench", "box", "couch", "table"),
    ),
    Need(
        name="peg rail",
        words=Said("pegs, or the feet on the band"),
        meets=_served("peg rail"),
        instead=lambda _: True,  # the feet hold the band as well
    ),
    Need(
        name="half ball",
        words=Said("a ball or half ball"),
        meets=lambda kit: [t for t in kit.things if t.kind in ("half ball", "ball")],
    ),
    Need(name="table", words=Said("a table"), meets=_furniture("table")),
    Need(name="rack", words=Said("a rack"), meets=_furniture("rack")),
    Need(
        name="rack or clean",
        words=Said("a rack or clean"),
        meets=_furniture("rack"),
        instead=lambda rules: rules.to_shoulders_kg is not None,
        lacking=Lack(
            reason=Said("needs a rack"),
            admits=Said("a rack, or the weight the client brings to the shoulders"),
        ),
    ),
    Need(
        name="bench",
        words=Said("a bench"),
        meets=_furniture("bench"),
        near=_furniture("box", "couch", "table"),
    ),
    Need(
        name="step",
        words=Said("a step"),
        meets=_furniture("box"),
        near=_furniture("bench", "couch", "table"),
    ),
    Need(
        name="boxes",
        words=Said("two boxes of one height"),
        meets=lambda kit: [box for pair in box_pairs(kit, 0.0, 2.0) for box in pair],
        near=_furniture("box"),
        anew=True,
    ),
    Need(
        name="short loop",
        words=Said("a short loop"),
        meets=_loops,
        near=lambda kit: [b for b in kit.bands if b.shape is BandShape.LOOP],
    ),
    Need(
        name="anchor behind",
        words=Said("an anchor"),
        meets=_anchors(BEHIND_M),
        near=lambda kit: kit.anchors,
    ),
    Need(name="anchor ahead", words=Said("an anchor"), meets=_anchors(HIGHEST_M)),
    Need(
        name="anchor under the feet",
        words=Said("an anchor below {length}", length=Length(LOW_M)),
        meets=_anchors(LOW_M),
        near=lambda kit: kit.anchors,
    ),
    Need(
        name="couch",
        words=Said("a couch"),
        meets=_served("couch"),
        near=_furniture("bench", "table"),
    ),
    Need(
        name="45° bench",
        words=Said("a 45° bench"),
        meets=_served("45° bench"),
        near=_furniture("couch"),
    ),
    Need(
        name="ankle hold",
        words=Said("an ankle hold"),
        meets=_served("ankle hold"),
        instead=lambda rules: rules.partner,
    ),
)
"""Needs that are more than a kind of thing."""


def _every() -> Mapping[str, Need]:
    known = {need.name: need for need in OWN}
    for name in (n for entry in EXERCISES.values() for n in entry.needs):
        if name not in known:
            article = "an" if name[0] in "aeiou" else "a"
            known[name] = Need(name=name, words=Said(f"{article} {name}"), meets=_served(name))
    return MappingProxyType(known)


NEEDS: Mapping[str, Need] = _every()
"""Every need by its name: those above, and each thing that an exercise names."""


def meeting(need: str, kit: Kit) -> Sequence[Named]:
    """Return what of a kit meets a need, free or not."""
    return NEEDS[need].meets(kit)


def near(need: str, kit: Kit) -> Sequence[Named]:
    """Return what of a kit is of the same sort but does not meet a need as it is: an anchor too
    high, another bench.
    """
    meets = {item.id for item in meeting(need, kit)}
    return [item for item in NEEDS[need].near(kit) if item.id not in meets]
