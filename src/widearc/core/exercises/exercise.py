"""What an exercise's entry holds."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from widearc.core.curve import Action
from widearc.core.exercises.families import FAMILIES
from widearc.core.exercises.family import Family
from widearc.core.exercises.options import OptionSpec, with_defaults


@dataclass(frozen=True, slots=True, kw_only=True)
class LoadWay:
    """One way in which stock can load an exercise.

    stock: bar, dumbbells (a pair), dumbbell (one, or a kettlebell), band, sled; port: where it
    acts; from_: where a band is tied: "feet" (stood on), "eye-ahead" (an anchor of the room before
    the person). most_kg: what nobody sensible loads more there, in all (None: as any at that port;
    common practice, no source).
    """

    stock: str
    port: str
    from_: str = ""
    most_kg: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Exercise:
    """One exercise: what it is, how it may be set up, and what a trainer must know of it.

    variant: which of a family's forms this is (its solver says which there are). kinds: loads it
    takes besides those at a port (sled, stack, pendulum). ways: alternatives of load that stock
    makes, each a tuple of LoadWay used together; () means body weight alone. needs: furniture or
    machines without which it is excluded; steadiness 1 to 5, 5 = steadiest; fails_alone: "yes",
    "with stops" or "no"; minutes: to set up; reps and rest_s: (from, to).
    """

    id: str
    name: str
    aliases: tuple[str, ...] = ()
    family: str
    prime: tuple[Action, ...]
    ports: tuple[str, ...]
    ways: tuple[tuple[LoadWay, ...], ...] = ()
    kinds: tuple[str, ...] = ()
    defaults: Mapping[str, float | str] = field(default_factory=dict)
    variant: str = ""
    more_options: tuple[OptionSpec, ...] = ()
    without_options: tuple[str, ...] = ()
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
    options: Mapping[str, OptionSpec] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        """Gather the exercise's options with its own defaults."""
        legs: tuple[int, ...] | None = None
        if self.law.own_legs:
            alone = self.defaults.get("legs") == 1
            legs = (1,) if alone else (1, 2) if self.one_leg else (2,)
        options = with_defaults(
            self.law.options, self.defaults, self.more_options, self.without_options, legs
        )
        object.__setattr__(self, "options", options)

    @property
    def law(self) -> Family:
        """Return the record of its family."""
        return FAMILIES[self.family]

    @property
    def compared(self) -> bool:
        """Return whether it has a joint whose work can be compared."""
        return self.law.compared

    @property
    def has_curve(self) -> bool:
        """Return whether a resistance curve exists: not for mobility work."""
        return self.law.has_curve

    @property
    def adds_axial(self) -> bool:
        """Return whether every way of loading it presses on the spine."""
        return all(any(way.stock == "bar" for way in ways) for ways in self.ways)


def way(stock: str, port: str, from_: str = "", most_kg: float | None = None) -> LoadWay:
    """Return one way of loading; see LoadWay."""
    return LoadWay(stock=stock, port=port, from_=from_, most_kg=most_kg)
