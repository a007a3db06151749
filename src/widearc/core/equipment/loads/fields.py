"""What a load's kind asks for: its numbers with range and unit, where it acts, what it is tied to.

A form, a document, its schema and every refusal are made from these; see `formats/loads.py` and
the Arc form.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import RangeError
from widearc.core.units import CENTIMETRE, PLAIN, Unit


@dataclass(frozen=True, slots=True, kw_only=True)
class Number:
    """One number of a load, kept in SI (angles in degrees), from low to high.

    name: of the load's value and in a document; key: in an address, "" where no form asks for it.
    usual: what a form begins with; default: what may be left out of a document (None: needed
    there); quiet: it is left out where it has that value. whole: counted. weighs: the load's
    forces grow with it. said: beside it in the schema.
    follows: another number's key, by which a form fills this one.
    """

    name: str
    words: str
    unit: Unit
    low: float
    high: float
    key: str = ""
    usual: float = 0.0
    default: float | None = None
    optional: bool = False
    quiet: bool = False
    whole: bool = False
    weighs: bool = False
    said: str = ""
    follows: str = ""

    def check(self, value: float | Array) -> None:
        """Refuse a value (float or array) that is not finite or out of range."""
        least, most = value, value
        if isinstance(value, np.ndarray):
            least, most = value.min(), value.max()
        # what is not a number is not between either
        if not (least >= self.low and most <= self.high):
            raise RangeError(self.name, value, self.low, self.high, self.unit.kept)


@dataclass(frozen=True, slots=True, kw_only=True)
class Port:
    """Where a load acts on the body: one of the exercise's ports.

    optional: left out of a document it is the exercise's first port, or `default`. alias: another
    name for it in documents.
    """

    name: str = "port"
    optional: bool = False
    default: str = ""
    alias: str = ""
    said: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Point:
    """A place of the room (x forward, y up, m); x, y: what a form begins with.

    optional: may be left out. typed: whether the Arc form asks for it. not_at: a port at which
    there is none.
    """

    name: str
    x: Number
    y: Number
    optional: bool = False
    typed: bool = True
    not_at: str = ""


@dataclass(frozen=True, slots=True)
class Tie:
    """What a band is tied to: a place of the room (with a sideways distance), or a port of the
    body.
    """

    x: Number
    y: Number
    name: str = "anchor"


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """One of a few values, each with the words of a form; typed: whether the Arc form asks."""

    name: str
    words: str
    choices: tuple[tuple[str | int, str], ...]
    default: str | int
    key: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """Two columns of numbers of one length, typed as pairs: "0: 11, 60: 14"."""

    name: str
    words: str
    key: str
    columns: tuple[Number, Number]
    usual: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Law:
    """How a band's pull grows: a measured law, or a line typed as rest length and rate."""

    rest: Number
    rate: Number
    name: str = "law"


Field = Number | Port | Point | Tie | Choice | Table | Law
"""Everything that a kind of load can ask for."""

FRICTION = Number(
    name="friction", words="friction", unit=PLAIN, low=0.0, high=0.5, key="friction", default=0.0
)
RATIO = Number(
    name="ratio",
    words="pull per weight",
    unit=PLAIN,
    low=0.05,
    high=4.0,
    key="ratio",
    usual=1.0,
    default=1.0,
)
COUNT = Number(
    name="count",
    words="how many",
    unit=PLAIN,
    low=0.0,
    high=20.0,
    key="count",
    usual=1.0,
    default=1.0,
    whole=True,
)


def place(
    name: str,
    words: tuple[str, str],
    x_cm: float,
    y_cm: float,
    *,
    optional: bool = False,
    typed: bool = True,
    not_at: str = "",
) -> Point:
    """Return a place of the room with the form's words for both axes and its first values (cm)."""
    x, y = axes(words, x_cm, y_cm)
    return Point(name=name, x=x, y=y, optional=optional, typed=typed, not_at=not_at)


def axes(words: tuple[str, str], x_cm: float, y_cm: float) -> tuple[Number, Number]:
    """Return both axes of a place, m."""
    x = Number(
        name="x_m", words=words[0], unit=CENTIMETRE, low=-10.0, high=10.0, key="x", usual=x_cm / 100
    )
    y = Number(
        name="y_m", words=words[1], unit=CENTIMETRE, low=-2.0, high=10.0, key="y", usual=y_cm / 100
    )
    return x, y
