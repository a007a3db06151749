"""Steel springs between two stops, alone and in parallel, and the hung-carriage test."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Any, Self

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import COUNT, Number, Port, place
from widearc.core.equipment.loads.load import Line, Note, Stored
from widearc.core.errors import InputError
from widearc.core.units import CENTIMETRE, NEWTON
from widearc.core.words import Force, Length, Said


@dataclass(frozen=True, slots=True, kw_only=True)
class Spring:
    """A spring that pulls start_n at the first mark and end_n at full travel_m; a straight line
    between.
    """

    start_n: float
    end_n: float
    travel_m: float

    def __post_init__(self) -> None:
        """Check the marks."""
        if not 0 <= self.start_n <= 5000:
            raise InputError("start_n", self.start_n, Said("from 0 to 5000 N"))
        if not self.start_n <= self.end_n <= 5000:
            raise InputError(
                "end_n",
                self.end_n,
                Said("from start_n, {force}, to 5000 N", force=Force(self.start_n)),
            )
        if not 0.02 <= self.travel_m <= 3:
            raise InputError("travel_m", self.travel_m, Said("from 0.02 to 3 m"))

    @property
    def rate_n_per_m(self) -> float:
        """Return the rate k = (F_end - F_start) / travel, N/m."""
        return (self.end_n - self.start_n) / self.travel_m

    def scaled(self, factor: float) -> Spring:
        """Return a spring that pulls `factor` times as much at every mark."""
        return replace(self, start_n=self.start_n * factor, end_n=self.end_n * factor)

    def force_n(self, travel: Array) -> Array:
        """Return the pull (N) at `travel` (m from the first mark); NaN past a stop."""
        inside = (travel >= -1e-9) & (travel <= self.travel_m + 1e-9)
        return np.where(inside, self.start_n + self.rate_n_per_m * travel, np.nan)

    def energy_j(self, travel: Array) -> Array:
        """Return the energy stored (J) since the first mark; NaN past a stop."""
        inside = (travel >= -1e-9) & (travel <= self.travel_m + 1e-9)
        return np.where(inside, self.start_n * travel + 0.5 * self.rate_n_per_m * travel**2, np.nan)


HOOK_PLAY_M = 0.005  # before the first mark over which a hook comes free (assumed)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SpringLoad(Line):
    """Springs alike, pulling between a port and an anchor, or on a carriage (port "carriage").

    spring: one of them; count (float or (set-ups, 1)) pull in parallel. anchor: x, y in the room
    frame, m. mark_m: distance from anchor to port at the first mark, (set-ups, 1); None: the
    shortest distance of the movement.
    """

    kind = "spring"
    words = "springs"
    short = "spring"
    again = "weigh the springs again at the first mark and at full travel"
    rank = 4
    FIELDS = (
        Number(
            name="start_n",
            words="at the first mark",
            unit=NEWTON,
            low=0.0,
            high=5000.0,
            key="start",
            usual=40.0,
        ),
        Number(
            name="end_n",
            words="at full travel",
            unit=NEWTON,
            low=0.0,
            high=5000.0,
            key="end",
            usual=200.0,
        ),
        Number(
            name="travel_m",
            words="full travel",
            unit=CENTIMETRE,
            low=0.02,
            high=3.0,
            key="travel",
            usual=0.9,
        ),
        COUNT,
        Port(
            name="attached",
            optional=True,
            default="carriage",
            alias="port",
            said="carriage, or a port with an anchor",
        ),
        place(
            "anchor",
            ("anchor ahead", "anchor height"),
            30.0,
            10.0,
            optional=True,
            not_at="carriage",
        ),
        Number(
            name="mark_m",
            words="",
            unit=CENTIMETRE,
            low=0.0,
            high=10.0,
            optional=True,
            said="distance from anchor to port at the first mark; left out: the shortest of the "
            "movement",
        ),
    )
    made_of = "elastic"
    spring: Spring
    port: str = "carriage"
    anchor: tuple[float, float] | None = None
    count: float | Array = 1
    mark_m: float | Array | None = None
    _marked: float | Array = field(init=False, repr=False)

    def __post_init__(self) -> None:
        """Check count, mark and anchor."""
        if not np.all(np.asarray(self.count) >= 0):
            raise InputError("count", self.count, Said("0 or more"))
        if np.any(np.asarray(self.count) > 20):
            raise InputError("count", self.count, Said("at most 20"))
        if self.port == "carriage" and self.anchor is not None:
            raise InputError(
                "anchor", self.anchor, Said("none on a carriage: its springs run along the rails")
            )
        if self.port != "carriage" and self.anchor is None:
            raise InputError(
                "anchor", None, Said("a point of the room for a spring at a port of the body")
            )
        marked = 0.0 if self.mark_m is None else self.mark_m
        if not np.all(np.isfinite(marked)):
            raise InputError("mark_m", self.mark_m, Said("a length in m"))
        object.__setattr__(self, "_marked", marked)

    def travel(self, length: Array) -> Array:
        """Return the travel past the first mark (m) with port and anchor `length` (m) apart."""
        return np.asarray(length - self._marked)

    def tension_n(self, travel: Array) -> Array:
        """Return the pull of all springs (N) at `travel` (m); past the stop it is held.

        Before the first mark the hook's play takes the pull away evenly, so that no step is left.
        """
        inside = np.clip(travel, 0.0, self.spring.travel_m)
        hooked = np.clip(1.0 + travel / HOOK_PLAY_M, 0.0, 1.0)
        pull = self.spring.start_n * hooked + self.spring.rate_n_per_m * inside
        return np.asarray(np.asarray(self.count) * pull)

    def energy_j(self, travel: Array) -> Array:
        """Return the energy stored since the first mark (J) at `travel` (m), below 0 before it."""
        inside = np.clip(travel, 0.0, self.spring.travel_m)
        past = np.maximum(travel - self.spring.travel_m, 0.0)
        play = np.clip(travel, -HOOK_PLAY_M, 0.0)
        before = self.spring.start_n * (play + play**2 / (2.0 * HOOK_PLAY_M))
        one = (
            self.spring.start_n * inside
            + 0.5 * self.spring.rate_n_per_m * inside**2
            + self.spring.end_n * past
        )
        return np.asarray(np.asarray(self.count) * (one + before))

    @classmethod
    def of(cls, **values: Any) -> Self:
        """Return the load of the values of its fields, by their names."""
        marks = {name: values.pop(name) for name in ("start_n", "end_n", "travel_m")}
        return cls(spring=Spring(**marks), port=values.pop("attached"), **values)

    def value(self, name: str) -> Any:
        """Return the value of one of its fields."""
        if name == "attached":
            return self.port
        return getattr(self.spring if name in ("start_n", "end_n", "travel_m") else self, name)

    def scaled(self, factor: float) -> Self:
        """Return springs that pull `factor` times as much."""
        return replace(self, spring=self.spring.scaled(factor))

    @property
    def fixed_at(self) -> tuple[float, float] | None:
        """Return the anchor, m; None on a carriage."""
        return self.anchor

    def pull_n(self, length: Array, *, lowering: bool) -> Array:
        """Return the pull of all springs (N) with port and anchor `length` (m) apart."""
        return self.tension_n(self.travel(length))

    def stores_along(self, length: Array, towards: Array) -> Stored:
        """Return its travel's energy; refused where it runs past its stop."""
        travel = self.travel(length)
        slack = np.any(travel < -1e-6, axis=1)
        text = Said("spring not yet at its first mark in part of the range")
        stop = Said(
            "the spring passes its stop at {distance} of travel",
            distance=Length(self.spring.travel_m),
        )
        return Stored(
            elastic_j=partial(self.energy_j, travel),
            length=length,
            notices=(Note(code="spring-slack", text=text, where=slack),),
            fails=((self.past_stop(travel), stop),),
        )

    def unread(self) -> bool:
        """Return whether its first mark is where the movement is shortest."""
        return self.anchor is not None and self.mark_m is None

    def read_off(self, point: Array) -> Self:
        """Return it hooked at the shortest place of its port's points (m)."""
        return replace(self, mark_m=self._shortest(point))

    def read_again(self, point: Array) -> tuple[Self, float]:
        """Return it hooked anew, and how far (m) its first mark moved."""
        mark = self._shortest(point)
        return replace(self, mark_m=mark), float(np.max(np.abs(mark - np.asarray(self.mark_m))))

    def _shortest(self, point: Array) -> Array:
        """Return the shortest distance from anchor to port (m, (set-ups, 1)); 0 where nothing was
        found.
        """
        length = np.nan_to_num(self.ends(point, None)[0], nan=np.inf).min(axis=1)[:, None]
        return np.where(np.isfinite(length), length, 0.0)

    def past_stop(self, travel: Array) -> Array:
        """Return where `travel` (m) lies past the end stop, bool."""
        return np.asarray((np.asarray(self.count) > 0) & (travel > self.spring.travel_m + 1e-6))


def parallel(springs: Sequence[Spring]) -> Spring:
    """Return the one spring that several in parallel make: pulls add. All must have the same travel
    (m).
    """
    if not springs:
        raise InputError("springs", 0, Said("one spring or more"))
    travel = springs[0].travel_m
    if any(abs(s.travel_m - travel) > 1e-6 for s in springs):
        raise InputError(
            "travel_m",
            [s.travel_m for s in springs],
            Said("the same travel for springs on one carriage"),
        )
    return Spring(
        start_n=sum(s.start_n for s in springs),
        end_n=sum(s.end_n for s in springs),
        travel_m=travel,
    )


def hung_rest_m(spring: Spring, weight_n: float) -> float:
    """Return where a carriage of weight_n (N) hung from a spring comes to rest, m from the first
    mark.

    x = (W - F0) / k; 0 at the start stop if W ≤ F0, the full travel at the end stop if W ≥ F_end.
    """
    if weight_n <= spring.start_n:
        return 0.0
    if weight_n >= spring.end_n:
        return spring.travel_m
    return (weight_n - spring.start_n) / spring.rate_n_per_m


def lighter_until_m(now: Spring, then: Spring) -> float:
    """Return up to which travel (m) a supposedly heavier spring `then` pulls less than `now`; 0 if
    nowhere.
    """
    gap, rate = now.start_n - then.start_n, then.rate_n_per_m - now.rate_n_per_m
    if gap <= 0:
        return 0.0
    return min(gap / rate, now.travel_m) if rate > 0 else now.travel_m
