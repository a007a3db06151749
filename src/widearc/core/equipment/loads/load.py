"""What a load is to the body that meets it: a force at a point, what it stores, what it is made of.

A kind of load is one class in one file of this folder. `AtPort` acts at a port of the body, `Line`
along a straight line from there; the others (a sled, a stack, a pendulum) are parts of a machine,
which the movement itself asks.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, fields, replace
from functools import cache
from types import MappingProxyType
from typing import Any, ClassVar, Literal, Self

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.equipment.loads.fields import Field, Number
from widearc.core.words import Said


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Moving:
    """The mass that a fast lift must speed up: kg, and, where it moves along a line only, the unit
    vector `towards` (2, …) of that line and the travel (m) along it.
    """

    kg: Array
    towards: Array | None = None
    travel: Array | None = None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Note:
    """What a reader must know where it holds: a mask (set-ups,)."""

    code: str
    text: Said
    where: BoolArray


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Stored:
    """What a load stores along a lift, and what else must be known of it there.

    gravity_j, elastic_j: energy of height and of stretch, J, worked out when asked. friction_j:
    work lost on the way up. length: of a band, cable or spring, m. fails: where (set-ups, samples)
    it cannot be, with the reason. marks: numbers by name, (set-ups, 1).
    """

    gravity_j: Callable[[], Array] | None = None
    elastic_j: Callable[[], Array] | None = None
    friction_j: Array | None = None
    length: Array | None = None
    moving: Moving | None = None
    notices: tuple[Note, ...] = ()
    fails: tuple[tuple[Array | BoolArray, Said], ...] = ()
    marks: Mapping[str, Array] = field(default_factory=lambda: MappingProxyType({}))


class Load:
    """A kind of load.

    kind: in documents; words: in forms; short: on a plot; again: what to measure anew when it is
    felt elsewhere than computed. rank: its place in lists. made_of: whose error it has: loose iron,
    a machine, or the pull of rubber and steel. amount: the field that may differ between set-ups
    computed together, held: the place that may; can_be_none: whether an amount of 0 is no load.
    sideways: whether it acts in the frontal plane and seen from above (weight does not).
    on_parts: whether it can pull at a moving part of a machine. on_path: its force is the path's.
    """

    __slots__: tuple[str, ...] = ()

    kind: ClassVar[str]
    words: ClassVar[str]
    short: ClassVar[str]
    again: ClassVar[str]
    rank: ClassVar[int]
    FIELDS: ClassVar[tuple[Field, ...]]
    made_of: ClassVar[Literal["iron", "machine", "elastic"]] = "machine"
    amount: ClassVar[str] = ""
    held: ClassVar[str] = ""
    can_be_none: ClassVar[bool] = False
    sideways: ClassVar[bool] = True
    on_parts: ClassVar[bool] = False
    on_path: ClassVar[bool] = False

    @classmethod
    def numbers(cls) -> tuple[Number, ...]:
        """Return the numbers among its fields."""
        return tuple(item for item in cls.FIELDS if isinstance(item, Number))

    @classmethod
    def of(cls, **values: Any) -> Self:
        """Return a load of the values of its fields, by their names."""
        return cls(**values)

    def value(self, name: str) -> Any:
        """Return the value of one of its fields."""
        return getattr(self, name)

    def check_numbers(self) -> None:
        """Refuse a number out of its range."""
        for number in self.numbers():
            value = self.value(number.name)
            if value is not None:
                number.check(value)

    def scaled(self, factor: float) -> Self:
        """Return a load whose forces are `factor` times as much, everything else alike."""
        heavier = {n.name: self.value(n.name) * factor for n in self.numbers() if n.weighs}
        return replace(self, **heavier)  # type: ignore[type-var]

    @property
    def hangs(self) -> bool:
        """Return whether it pulls straight down with a force that does not depend on its place."""
        return False

    @property
    def other_port(self) -> str | None:
        """Return the port of the body that its far end is tied to, or None."""
        return None

    @property
    def fixed_at(self) -> tuple[Any, ...] | None:
        """Return the place of the room that it comes from (x, y, m), None where it has none."""
        return None

    @property
    def disc_kg(self) -> float | None:
        """Return the weight to write on it in a drawing, kg; None: drawn as a line."""
        return None

    def far_end(self, here: Array) -> Array | None:
        """Return where it comes from, for what it pulls at `here`, m (2, …): the room's origin
        where that is not known; None for a weight that hangs from nothing.
        """
        if self.fixed_at is None and self.disc_kg is not None:
            return None
        x, y = (float(np.ravel(v)[0]) for v in (self.fixed_at or (0.0, 0.0))[:2])
        return np.array([[x], [y]]) * np.ones_like(here)

    def unread(self) -> bool:
        """Return whether it needs what only the movement tells; see `read_off`."""
        return False

    def alike(self) -> tuple[object, ...]:
        """Return what must be equal of two loads for them to be one with two amounts."""
        return (type(self), *self._rest())

    @classmethod
    def given(cls) -> tuple[str, ...]:
        """Return the names of the values that it is made of."""
        return _given(cls)  # type: ignore[arg-type]

    def _rest(self) -> tuple[object, ...]:
        names = (f for f in self.given() if f not in (self.amount, self.held))
        values = (getattr(self, name) for name in names)
        return tuple(v.tobytes() if isinstance(v, np.ndarray) else v for v in values)

    def many(self) -> set[tuple[int, ...]]:
        """Return the shapes of its values that differ from set-up to set-up."""
        shapes = set()
        for name in _maybe_many(type(self)):  # type: ignore[arg-type]
            value = getattr(self, name)
            if isinstance(value, np.ndarray):
                shapes.add(value.shape)
            elif isinstance(value, tuple):
                # a tuple of numbers is one point for all set-ups
                shapes |= {v.shape for v in value if isinstance(v, np.ndarray)}
        return shapes


class AtPort(Load):
    """A load that pulls at a port of the body, or of a machine's pad."""

    __slots__ = ()

    port: str

    def force(self, point: Array, *, lowering: bool) -> Array:
        """Return the force (N, (2, …)) that it puts on the body at its port's point (m)."""
        raise NotImplementedError

    def stores(self, point: Array) -> Stored:
        """Return what it stores with its port at a point (m, (2, set-ups, samples))."""
        raise NotImplementedError

    def read_off(self, point: Array) -> Self:
        """Return it with what its port's points (m) along the movement without it tell."""
        return self

    def read_again(self, point: Array) -> tuple[Self, float]:
        """Return it read off the movement with it, and how far (m) that moved what was read."""
        return self, 0.0


class Line(AtPort):
    """A load that pulls along the straight line from its port to its far end."""

    __slots__ = ()

    def ends(self, point: Array, other: Array | None) -> tuple[Array, Array]:
        """Return the length (m) and the unit vector (2, …) from the port towards the far end.

        other: the point (m) of `other_port`.
        """
        far = self.fixed_at or (0.0, 0.0)
        gap = np.array(far)[:, None, None] - point
        length = np.sqrt(gap[0] ** 2 + gap[1] ** 2)
        return length, gap / np.maximum(length, 1e-9)

    def tied(self) -> tuple[object, ...]:
        """Return what is equal of lines that run between the same two places."""
        far = self.fixed_at or ()
        return (
            self.port,
            self.other_port,
            *(np.asarray(v, dtype=float).tobytes() for v in far),
        )

    def pull_n(self, length: Array, *, lowering: bool) -> Array:
        """Return the pull (N) over a length (m)."""
        raise NotImplementedError

    def stores_along(self, length: Array, towards: Array) -> Stored:
        """Return what it stores over a length (m, (set-ups, samples)); towards: its line."""
        raise NotImplementedError

    def force(self, point: Array, *, lowering: bool) -> Array:
        """Return the force (N, (2, …)) that it puts on the body at its port's point (m)."""
        length, towards = self.ends(point, None)
        return np.asarray(self.pull_n(length, lowering=lowering) * towards)

    def stores(self, point: Array) -> Stored:
        """Return what it stores with its port at a point (m, (2, set-ups, samples))."""
        return self.stores_along(*self.ends(point, None))


@cache
def _given(kind: Any) -> tuple[str, ...]:
    return tuple(f.name for f in fields(kind) if f.init)


@cache
def _maybe_many(kind: Any) -> tuple[str, ...]:
    return tuple(f.name for f in fields(kind) if f.init and "Array" in str(f.type))
