"""The ways a rep is done (common practice, no source)."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from enum import Enum

from widearc.core.errors import InputError
from widearc.core.words import Angle, Duration, Figure, Said, Term


class StyleKind(Enum):
    """A rep style by its name in files."""

    PLAIN = "plain"
    PAUSE = "pause"
    SLOW_LOWERING = "slow-lowering"
    LOWERING_ONLY = "lowering-only"
    ONE_AND_A_QUARTER = "one-and-a-quarter"
    PARTIALS = "partials"
    HOLD = "hold"
    BURN_OUT = "burn-out"

    @property
    def words(self) -> str:
        """Return the style as a trainer says it."""
        return self.value.replace("-", " ")


@dataclass(frozen=True, slots=True, kw_only=True)
class RepStyle:
    """A rep style with what it needs.

    pause, hold: at_deg (prime joint's angle) and seconds; slow lowering: seconds of the lowering
    phase; one-and-a-quarter: end "lengthened" or "shortened"; partials: from_deg, to_deg of the
    prime joint.
    """

    kind: StyleKind = StyleKind.PLAIN
    at_deg: float | None = None
    seconds: float | None = None
    end: str = "lengthened"
    from_deg: float | None = None
    to_deg: float | None = None

    def __post_init__(self) -> None:
        """Check what the kind needs."""
        if self.kind in (StyleKind.PAUSE, StyleKind.HOLD):
            self._need("at_deg", -60.0, 180.0)
            self._need("seconds", 0.1, 600.0)
        if self.kind is StyleKind.SLOW_LOWERING:
            self._need("seconds", 0.5, 120.0)
        if self.kind is StyleKind.PARTIALS:
            self._need("from_deg", -60.0, 180.0)
            self._need("to_deg", -60.0, 180.0)
        if self.end not in ("lengthened", "shortened"):
            raise InputError("/style/end", self.end, Said("lengthened or shortened"))

    def moved(self, ends_deg: tuple[float, float], other_deg: tuple[float, float]) -> RepStyle:
        """Return the style with its angles laid from one joint's range (degrees) on another's,
        passed together.
        """

        def there(angle: float | None) -> float | None:
            """Return an angle of the first range at the same share of the other, degrees."""
            if angle is None:
                return None
            share = (angle - ends_deg[0]) / (ends_deg[1] - ends_deg[0])
            return other_deg[0] + share * (other_deg[1] - other_deg[0])

        return replace(
            self,
            at_deg=there(self.at_deg),
            from_deg=there(self.from_deg),
            to_deg=there(self.to_deg),
        )

    @property
    def sentence(self) -> Said:
        """Return the style with what it needs, as a trainer writes it down."""
        if self.kind in (StyleKind.PAUSE, StyleKind.HOLD):
            return Said(
                "{words} of {time} at {angle}",
                words=Term(self.kind.words),
                time=Duration(self.seconds or 0.0),
                angle=Angle.of_deg(self.at_deg or 0.0),
            )
        if self.kind is StyleKind.SLOW_LOWERING:
            return Said("lowering in {time}", time=Duration(self.seconds or 0.0))
        if self.kind is StyleKind.ONE_AND_A_QUARTER:
            return Said("one-and-a-quarter at the {end} end", end=Term(self.end))
        if self.kind is StyleKind.PARTIALS:
            return Said(
                "partials from {angle} to {angle_2}",
                angle=Angle.of_deg(self.from_deg or 0.0),
                angle_2=Angle.of_deg(self.to_deg or 0.0),
            )
        return Said("{words}", words=Term(self.kind.words))

    def _need(self, name: str, low: float, high: float) -> None:
        value = getattr(self, name)
        if value is None or not math.isfinite(value) or not low <= value <= high:
            raise InputError(
                f"/style/{name}",
                value,
                Said(
                    "from {low} to {high} for {style}",
                    low=Figure(low),
                    high=Figure(high),
                    style=Term(self.kind.words),
                ),
            )
