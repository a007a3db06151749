"""Sentences for a person: templates in plain English with typed values. The core makes them, the
edge says them: in the trainer's units, language and digits.

    Said("{short} short at {angle}", short=Share(0.2), angle=Angle.of_deg(70))

A template is also the name under which its translation is found, so no number and no name stands
in it. Everything here is frozen and hashable; numbers are SI.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import TypeAlias

from widearc.core.units import DEG, FORCE_N


class Unspoken:
    """What is not text before the edge says it: putting it into a text is an error."""

    __slots__ = ()

    def __format__(self, spec: str) -> str:
        """Refuse: a number would be fixed in one unit and one language."""
        raise TypeError(f"{type(self).__name__} is said at the edge, not put into a text")


@dataclass(frozen=True, slots=True)
class Mass(Unspoken):
    """A mass, kg. whole: an estimate, said without decimals. thing: what stands on one thing, said
    in the unit that it is a plain number of.
    """

    kg: float
    whole: bool = False
    thing: bool = False


@dataclass(frozen=True, slots=True)
class Force(Unspoken):
    """A force, N."""

    n: float


@dataclass(frozen=True, slots=True)
class Length(Unspoken):
    """A length, m, as a tape over furniture reads it. fine: as a muscle's change is told, in
    millimetres or tenths of an inch.
    """

    m: float
    fine: bool = False


@dataclass(frozen=True, slots=True)
class Distance(Unspoken):
    """A length, m, as floors and rails are measured."""

    m: float


@dataclass(frozen=True, slots=True)
class Angle(Unspoken):
    """An angle, rad."""

    rad: float

    @staticmethod
    def of_deg(degrees: float) -> Angle:
        """Return an angle that is known in degrees."""
        return Angle(float(degrees) * DEG)


@dataclass(frozen=True, slots=True)
class Moment(Unspoken):
    """A moment, N·m. bare: without its unit, which follows with another."""

    nm: float
    bare: bool = False


@dataclass(frozen=True, slots=True)
class Work(Unspoken):
    """Work, J."""

    j: float


@dataclass(frozen=True, slots=True)
class Duration(Unspoken):
    """A time, s. minutes: said in minutes."""

    s: float
    minutes: bool = False


@dataclass(frozen=True, slots=True)
class Share(Unspoken):
    """A part of a whole, 1 for all of it: said in percent. bare: without its sign, which follows
    with another.
    """

    share: float
    bare: bool = False


@dataclass(frozen=True, slots=True)
class Times(Unspoken):
    """How many times as much, said with one decimal or as few as are meant."""

    ratio: float
    digits: int = 1


@dataclass(frozen=True, slots=True)
class Figure(Unspoken):
    """A number with a unit as files and documents have it, the same in every unit that is spoken.
    unit: with its space (" m").
    """

    value: float
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Count(Unspoken):
    """A number of things: it chooses the plural, too."""

    n: int


@dataclass(frozen=True, slots=True)
class Name(Unspoken):
    """The name of one thing, as it was typed: never translated. lower: inside a sentence."""

    text: str
    lower: bool = False


@dataclass(frozen=True, slots=True)
class Term(Unspoken):
    """A word of the trade, translated. lower: inside a sentence."""

    text: str
    lower: bool = False


@dataclass(frozen=True, slots=True)
class Listed(Unspoken):
    """Values one after the other. by: what stands between them (", ", "; ", " "), or the word
    before the last one ("and", "or").
    """

    items: tuple[Value, ...]
    by: str = ", "

    def __bool__(self) -> bool:
        """Return whether anything is said at all."""
        return any(map(bool, self.items))


@dataclass(frozen=True, slots=True, init=False)
class Said(Unspoken):
    """A sentence or a part of one: its template, its values by name. plural: the template for any
    number but one, where a Count among the values chooses. begins: its first letter is a capital,
    whatever it is made of.
    """

    template: str
    plural: str
    values: tuple[tuple[str, Value], ...]
    begins: bool

    def __init__(
        self, template: str, plural: str = "", /, *, begins: bool = False, **values: Value
    ) -> None:
        """Keep them; values by the names that stand in the template."""
        keep = object.__setattr__
        keep(self, "template", template)
        keep(self, "plural", plural)
        keep(self, "values", tuple(values.items()))
        keep(self, "begins", begins)

    def __bool__(self) -> bool:
        """Return whether anything is said at all."""
        return bool(self.template)

    @property
    def key(self) -> str:
        """Return a key for an address: the template with its numbers in SI, the same in every
        language.
        """
        numbers = {name: f"{_number(value):.6g}" for name, value in self.values}
        return self.template.format(**numbers)

    def value(self, name: str) -> Value:
        """Return one of its values. Raises KeyError for a name that is not in it."""
        return dict(self.values)[name]

    def beginning(self) -> Said:
        """Return the same as the beginning of a sentence."""
        return Said(self.template, self.plural, begins=True, **dict(self.values))


def _number(value: object) -> float:
    """Return the number of a quantity."""
    return float(next(iter(getattr(value, name) for name in getattr(value, "__slots__", ()))))


Value: TypeAlias = (
    Mass
    | Force
    | Length
    | Distance
    | Angle
    | Moment
    | Work
    | Duration
    | Share
    | Times
    | Figure
    | Count
    | Name
    | Term
    | Listed
    | Said
)

Words: TypeAlias = Said | Listed

UNSAID = Said("")
"""Nothing."""


def measured(sign: str, value: float) -> Value:
    """Return a number in a unit that a page types as a sentence says it."""
    made = _MEASURED.get(sign)
    if made is not None:
        return made(value)
    return Figure(value, sign if sign in ("", "°") else f" {sign}")


_MEASURED: Mapping[str, Callable[[float], Value]] = MappingProxyType(
    {
        "kg": Mass,
        "cm": lambda value: Length(value / 100),
        "m": Distance,
        "N": Force,
    }
)


def joined(*parts: Value, by: str = ", ") -> Listed:
    """Return parts one after the other as one list, without those that say nothing."""
    items: list[Value] = []
    for part in parts:
        items += part.items if isinstance(part, Listed) and part.by == by else (part,)
    return Listed(tuple(item for item in items if item), by)


def sentences(parts: Iterable[Value]) -> Listed:
    """Return sentences one after the other, without those that say nothing."""
    return Listed(tuple(part for part in parts if part), " ")


def mass_of(force_n: float, *, whole: bool = False) -> Mass:
    """Return the mass that weighs a force, as a hanging scale says it."""
    return Mass(force_n / FORCE_N["kgf"], whole=whole)
