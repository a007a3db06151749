"""What is measured of a thing: a number with its unit, range and how to take it."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from widearc.core.errors import InputError, UnknownNameError
from widearc.core.words import Figure, Said, Value, measured


class Source(Enum):
    """Where a number is from; the weakest of several speaks for what is computed with them."""

    MEASURED = "measured"
    DESCRIBED = "described"
    ASSUMED = "assumed"


_WEAKNESS = {Source.MEASURED: 0, Source.DESCRIBED: 1, Source.ASSUMED: 2}


def weakest(sources: Iterable[Source]) -> Source:
    """Return the weakest of several sources; described when there are none."""
    return max(sources, key=lambda s: _WEAKNESS[s], default=Source.DESCRIBED)


MOST_READINGS = 500  # of one thing, all its dials together: typed, from a file, kept and sent
MOST_CHECKS = 100  # check readings of one thing: older ones are forgotten


@dataclass(frozen=True, slots=True, kw_only=True)
class Quantity:
    """One number of a kind: SI name, words, the unit it is typed in and its size in SI, range in
    SI.

    usual: taken where nothing is typed, marked assumed; None: needed, unless `optional` (then it is
    not known). measured: whether a tape, scale or level gives it, so that the sheet asks which it
    was.
    """

    name: str
    words: str
    unit: str
    per: float
    low: float
    high: float
    usual: float | None = None
    optional: bool = False
    whole: bool = False
    how: str = ""

    def said(self, value: float) -> Value:
        """Return a value (SI) as a sentence says it."""
        return measured(self.unit, value / self.per)

    def shown(self, value: float) -> str:
        """Return a value in its typed unit, with the digits that are meant."""
        return f"{round(value / self.per, 6):.6g}"


@dataclass(frozen=True, slots=True, kw_only=True)
class ItemKind:
    """A kind of equipment: words, group on the page, quantities, the fit of its readings, needs it
    meets.
    """

    id: str
    words: str
    group: str
    quantities: tuple[Quantity, ...] = ()
    fit: str = ""
    serves: tuple[str, ...] = ()
    settings: tuple[str, ...] = ()

    def quantity(self, name: str) -> Quantity:
        """Return one quantity by its SI name; UnknownNameError lists the others."""
        for one in self.quantities:
            if one.name == name:
                return one
        raise UnknownNameError(name, name, [q.name for q in self.quantities])


def check_quantity(quantity: Quantity, value: float, where: str) -> float:
    """Return a value (SI) within the quantity's range; InputError names `where`, in the unit it is
    typed in.
    """
    slack = 1e-9 * max(1.0, abs(quantity.high))
    if not math.isfinite(value) or not quantity.low - slack <= value <= quantity.high + slack:
        raise InputError(
            where,
            quantity.said(value) if math.isfinite(value) else str(value),
            Said(
                "from {low} to {high}",
                low=quantity.said(quantity.low),
                high=quantity.said(quantity.high),
            ),
        )
    if quantity.whole and value != round(value):
        raise InputError(where, Figure(value), Said("a whole number"))
    return value
