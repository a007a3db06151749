"""Rubber bands: a tension that grows with stretch and is never a push."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import partial
from typing import Self

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import COUNT, Choice, Law, Number, Port, Tie, axes
from widearc.core.equipment.loads.load import Line, Note, Stored
from widearc.core.equipment.loads.rubber import REFUSED_STRETCH, SAFE_STRETCH, BandLaw, _number
from widearc.core.errors import InputError
from widearc.core.geometry import vec
from widearc.core.units import CENTIMETRE, NEWTON_PER_10_CM, PERCENT
from widearc.core.words import Length, Said, Times

OVERSTRETCHED = Said(
    "the band would be stretched past {times} times its rest length; use a longer band or less "
    "range",
    times=Times(REFUSED_STRETCH),
)


LONG = Said(
    "band stretched past {times} times its rest length: use a longer band",
    times=Times(SAFE_STRETCH),
)


SLACK = Said("band slack in part of the range")


IDLE = Said("band slack all the way: it adds nothing")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Band(Line):
    """A band from an anchor to a port.

    law speaks for one unfolded strand; strands 1 or 2 at full length, 4 = a loop folded once, so
    half the length each; count = how many such bands (float or (set-ups, 1)), all sides together.
    anchor: x, y, z in the room frame (m, floats or (set-ups, 1)), z sideways from the port; or
    anchor_port, a port of the body: then two opposite forces. hysteresis 0 to 0.5: share of the
    pull missing on the way down. lead_m: chain or strap between that does not stretch (m); lengths
    are from end to end.
    """

    kind = "band"
    words = "band"
    short = "band"
    again = "weigh the band again at the length it has there"
    rank = 2
    FIELDS = (
        Law(
            rest=Number(
                name="rest_m",
                words="rest length",
                unit=CENTIMETRE,
                low=0.02,
                high=10.0,
                key="rest",
                usual=0.7,
            ),
            rate=Number(
                name="rate_n_per_m",
                words="stiffness, one strand",
                unit=NEWTON_PER_10_CM,
                low=0.0,
                high=1e5,
                key="rate",
                usual=150.0,
            ),
        ),
        Port(),
        Tie(*axes(("anchor ahead", "anchor height"), 10.0, 0.0)),
        Choice(
            name="strands",
            words="strands",
            choices=((1, "1"), (2, "2"), (4, "4, folded")),
            default=2,
            key="strands",
        ),
        COUNT,
        Number(
            name="hysteresis",
            words="gives back less",
            unit=PERCENT,
            low=0.0,
            high=0.5,
            key="back",
            usual=0.1,
            default=0.0,
        ),
        Number(
            name="lead_m",
            words="chain or strap before it",
            unit=CENTIMETRE,
            low=0.0,
            high=2.0,
            key="lead",
            default=0.0,
            quiet=True,
        ),
    )
    made_of = "elastic"
    amount = "count"
    held = "anchor"
    can_be_none = True
    on_parts = True
    law: BandLaw
    port: str
    anchor: tuple[float | Array, float | Array, float | Array] | None = None
    anchor_port: str | None = None
    strands: int = 2
    count: float | Array = 1
    hysteresis: float = 0.0
    lead_m: float = 0.0

    def __post_init__(self) -> None:
        """Check what can be checked without a body."""
        _number("lead_m", self.lead_m, 0.0, 2.0, "m")
        if (self.anchor is None) == (self.anchor_port is None):
            raise InputError(
                "anchor", self.anchor, Said("either a point of the room or a port of the body")
            )
        if self.strands not in (1, 2, 4):
            raise InputError("strands", self.strands, Said("1, 2 or 4"))
        number = self.count
        low, high = (
            (number.min(), number.max()) if isinstance(number, np.ndarray) else (number, number)
        )
        if not (low >= 0 and high < np.inf):
            raise InputError("count", self.count, Said("0 or more"))
        if not 0 <= self.hysteresis <= 0.5:
            raise InputError("hysteresis", self.hysteresis, Said("from 0 to 0.5"))

    @property
    def fold(self) -> float:
        """Return a strand's length over its unfolded length: 0.5 for a folded loop."""
        return 0.5 if self.strands == 4 else 1.0

    def stretch(self, length: Array) -> Array:
        """Return length over own rest length λ, same shape as `length` (m)."""
        return self.own_m(length) / (self.law.rest_m * self.fold)

    def own_m(self, length: Array) -> Array:
        """Return how much of a length from end to end (m) is the band itself."""
        return np.maximum(length - self.lead_m, 0.0) if self.lead_m else length

    def tension_n(self, length: Array, *, lowering: bool = False) -> Array:
        """Return the pull (N) of all strands together between anchor and port `length` m apart."""
        number = self.strands * self.count * (1.0 - self.hysteresis if lowering else 1.0)
        return np.asarray(number * self.law.force_n(self.strand_m(length)))

    def strand_m(self, length: Array) -> Array:
        """Return how long (m) a strand would be unfolded, between ends `length` m apart."""
        return self.own_m(length) / self.fold if self.strands == 4 else self.own_m(length)

    def energy_j(self, length: Array) -> Array:
        """Return the energy stored (J) by all strands together at `length` m."""
        per_strand = self.law.energy_j(self.strand_m(length)) * self.fold
        return np.asarray(self.strands * np.asarray(self.count) * per_strand)

    def scaled(self, factor: float) -> Self:
        """Return a band that pulls `factor` times as much at every length."""
        return replace(self, law=self.law.scaled(factor))

    @property
    def other_port(self) -> str | None:
        """Return the port of the body that it is tied to, or None."""
        return self.anchor_port

    @property
    def fixed_at(self) -> tuple[float | Array, float | Array, float | Array] | None:
        """Return the anchor, m; None where it is tied to the body."""
        return self.anchor

    def ends(self, point: Array, other: Array | None) -> tuple[Array, Array]:
        """Return its length (m) and the unit vector (2, …) from its port towards its other end.

        Sideways spacing counts in the length; the sagittal part of the unit vector is shorter by
        it.
        """
        z: float | Array = 0.0
        if self.anchor is not None:
            x, y, z = self.anchor
            end = vec(np.asarray(x, dtype=float), np.asarray(y, dtype=float))
            end = end.reshape(2, *((1, 1) if end.ndim == 1 else end.shape[1:]))
        elif other is None:
            raise InputError("anchor", self.anchor_port, Said("a port that this exercise has"))
        else:
            end = other
        gap = end - point
        length = np.sqrt(gap[0] ** 2 + gap[1] ** 2 + np.square(z))
        return length, gap / np.maximum(length, 1e-9)

    def pull_n(self, length: Array, *, lowering: bool) -> Array:
        """Return the pull (N) of all strands together over a length (m)."""
        return self.tension_n(length, lowering=lowering)

    def stores_along(self, length: Array, towards: Array) -> Stored:
        """Return its stretch's energy; what must be known of its stretch, and refused of it."""
        used = np.broadcast_to(np.asarray(self.count) > 0, (length.shape[0], 1))[:, 0]
        stretch = self.stretch(length)
        # where balance is lost there is no length: `fmax` and `fmin` pass over it
        least, most = np.fmin.reduce(stretch, axis=1), np.fmax.reduce(stretch, axis=1)
        refused = (used & (most > REFUSED_STRETCH))[:, None] & (stretch > REFUSED_STRETCH)
        measured = self.law.measured_to_m * self.fold
        idle = used & ~(most > 1.0)
        return Stored(
            elastic_j=partial(self.energy_j, length),
            length=length,
            fails=((refused, OVERSTRETCHED),),
            notices=(
                Note(code="band-overstretch", text=LONG, where=used & (most > SAFE_STRETCH)),
                Note(
                    code="band-outside-readings",
                    text=Said(
                        "band pulled longer than it was measured ({length}): its pull there is a "
                        "guess",
                        length=Length(float(np.max(measured))),
                    ),
                    where=used & (most * self.law.rest_m * self.fold > measured + 1e-9),
                ),
                Note(code="band-slack", text=SLACK, where=used & (least <= 1.0) & ~idle),
                Note(code="band-idle", text=IDLE, where=idle),
            ),
        )
