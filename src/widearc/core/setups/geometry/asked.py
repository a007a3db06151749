"""What a geometry is, and what is asked for when they are listed."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from widearc.core.body import Body
from widearc.core.exercises import Exercise, OptionSpec
from widearc.core.kit import Furniture, Kit, Machine, SledPress, Thing
from widearc.core.words import UNSAID, Said, Words, joined

Options = dict[str, float | str]


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

    options: Options
    words: Words = UNSAID
    furniture: tuple[Furniture, ...] = ()
    things: tuple[Thing, ...] = ()
    extra: Said = UNSAID

    @property
    def used(self) -> tuple[str, ...]:
        """Return the ids of what it stands on and wears."""
        return (*(f.id for f in self.furniture), *(t.id for t in self.things))

    def more(
        self,
        options: Mapping[str, float | str],
        words: Said = UNSAID,
        *,
        extra: Said = UNSAID,
        things: tuple[Thing, ...] | None = None,
    ) -> Geometry:
        """Return it with more options, and words for them; extra: what makes it more than plain."""
        return replace(
            self,
            options={**self.options, **options},
            words=joined(self.words, words),
            extra=extra or self.extra,
            things=self.things if things is None else things,
        )


@dataclass(frozen=True, kw_only=True, eq=False)
class Asked:
    """An exercise on what is here, over the knee range that is wanted."""

    exercise: Exercise
    kit: Kit
    body: Body
    wanted: Range | None
    machine: Machine | SledPress | None

    @property
    def specs(self) -> Mapping[str, OptionSpec]:
        """Return the exercise's options."""
        return self.exercise.options

    def usual(self, name: str) -> float:
        """Return an option's default for this body."""
        return float(self.specs[name].usual(self.body.stature_m))

    def of(self, *kinds: str) -> list[Furniture]:
        """Return the furniture of these kinds."""
        return [f for f in self.kit.furniture if f.kind in kinds]

    @cached_property
    def knee(self) -> tuple[float, float]:
        """Return the knee range to set up for, degrees: the wanted one within the exercise's."""
        start, end = self.specs["knee_from_deg"], self.specs["knee_to_deg"]
        deep, straight = self.usual("knee_from_deg"), self.usual("knee_to_deg")
        if self.wanted is not None:
            deep = round(self.wanted.from_deg, 1)
        first = float(np.clip(deep, start.low, start.high))
        if self.wanted is not None:
            asked = max(round(self.wanted.to_deg, 1), end.low)
            straight = asked if asked <= first - LEAST_TRAVEL_DEG else straight
        return first, straight

    @property
    def knee_options(self) -> Options:
        """Return the knee range as options."""
        first, last = self.knee
        return {"knee_from_deg": first, "knee_to_deg": last}


LEAST_TRAVEL_DEG = 20.0  # of the knee, for the wanted straight end to be taken over


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """How exercises of one sort are set up: the rule of the smallest rank that applies makes them
    all.
    """

    rank: int
    applies: Callable[[Asked], bool]
    make: Callable[[Asked], Iterator[Geometry]]
