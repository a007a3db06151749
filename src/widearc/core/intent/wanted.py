"""A wanted loading said by itself: an action, its range, and a curve over it, by handles or by a
school's shape.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.curve import CENTRES_DEG, EDGES_DEG, Action
from widearc.core.dose import RepStyle, Tempo, style_weight
from widearc.core.errors import InputError
from widearc.core.intent.shapes import Shape, shaped
from widearc.core.strength import ACTIONS, strength_nm
from widearc.core.units import DEG
from widearc.core.words import Angle, Count, Figure, Moment, Said, Term

HANDLES = (0.0, 0.25, 0.5, 0.75, 1.0)  # of the range, 0 = lengthened: where the five handles stand
NARROWEST_DEG, LOW_DEG, HIGH_DEG = 5.0, -40.0, 160.0
MOST_NM = 2000.0


@dataclass(frozen=True, slots=True, kw_only=True)
class WantedAction:
    """One prime action's wanted loading over a range of its joint's angle (degrees, lengthened end
    first).

    Either handles: (fraction of the range from the lengthened end, N·m of one leg), two or more
    with the ends 0 and 1, joined without overshoot; or shape, with the mean demand mean_nm (None:
    only how it lies matters, not how much). Raises InputError naming the part.
    """

    action: Action
    from_deg: float
    to_deg: float
    handles: tuple[tuple[float, float], ...] | None = None
    shape: Shape | None = None
    mean_nm: float | None = None

    def __post_init__(self) -> None:
        """Check the range and the curve."""
        for name in ("from_deg", "to_deg"):
            value = getattr(self, name)
            if not math.isfinite(value) or not LOW_DEG <= value <= HIGH_DEG:
                raise InputError(
                    f"/{name}",
                    value,
                    Said(
                        "from {low} to {high}",
                        low=Figure(LOW_DEG),
                        high=Figure(HIGH_DEG, " degrees"),
                    ),
                )
        if (self.to_deg - self.from_deg) * self.action.direction < NARROWEST_DEG:
            words = (
                "at least {angle} less than the lengthened end"
                if self.action.direction < 0
                else "at least {angle} more than the lengthened end"
            )
            raise InputError("/to_deg", self.to_deg, Said(words, angle=Angle.of_deg(NARROWEST_DEG)))
        if (self.handles is None) == (self.shape is None):
            raise InputError("/handles", None, Said("either handles or a shape"))
        if self.handles is not None:
            self._check_handles(self.handles)
        if self.mean_nm is not None and not (
            math.isfinite(self.mean_nm) and 1.0 <= self.mean_nm <= MOST_NM
        ):
            raise InputError(
                "/mean_nm", self.mean_nm, Said("from 1 to {moment}", moment=Moment(MOST_NM))
            )
        if self.shape is Shape.ORIGINAL:
            raise InputError(
                "/shape", self.shape.value, Said("a shape that stands by itself, or handles")
            )
        if self.shape is Shape.STRENGTH and self.action.label not in ACTIONS:
            raise InputError(
                "/shape",
                self.shape.value,
                Said(
                    "another shape: no strength is known for {words}", words=Term(self.action.words)
                ),
            )

    @staticmethod
    def _check_handles(handles: tuple[tuple[float, float], ...]) -> None:
        places = [place for place, _ in handles]
        if places[:1] != [0] or places[-1] != 1 or any(np.diff(places) <= 0):
            raise InputError("/handles", places, Said("fractions that rise from 0 to 1"))
        for index, (_, nm) in enumerate(handles):
            if not 0 <= nm <= MOST_NM:
                raise InputError(
                    f"/handles/{index}/nm", nm, Said("from 0 to {moment}", moment=Moment(MOST_NM))
                )
        if max(nm for _, nm in handles) <= 0:
            raise InputError("/handles", 0, Said("a demand over 0 somewhere"))

    @property
    def has_level(self) -> bool:
        """Return whether it says how much, not only where."""
        return self.handles is not None or self.mean_nm is not None

    def demand_nm(self, body: Body) -> Array:
        """Return the wanted demand on the 1° grid, (220,), N·m times the share of each degree that
        is covered.

        body: for the usual strength curve. Without a level the mean is 100 N·m, which says nothing.
        """
        low, high = sorted((self.from_deg, self.to_deg))
        covered = np.clip(
            np.minimum(EDGES_DEG[1:], high) - np.maximum(EDGES_DEG[:-1], low), 0.0, 1.0
        )
        if self.handles is not None:
            along = np.clip((CENTRES_DEG - self.from_deg) / (self.to_deg - self.from_deg), 0.0, 1.0)
            return np.asarray(covered * self.at(along))
        assert self.shape is not None
        even = covered * (100.0 if self.mean_nm is None else self.mean_nm)
        usual = None
        if self.shape is Shape.STRENGTH:
            usual = strength_nm(
                self.action.label,
                CENTRES_DEG * DEG,
                mass_kg=body.mass_kg,
                stature_m=body.stature_m,
                sex=body.sex.value,
            )
        made = shaped(even, self.action.direction, self.shape, usual)
        return np.asarray(made * covered * (even.sum() / max(float((made * covered).sum()), 1e-9)))

    def at(self, fraction: Array) -> Array:
        """Return the demand of the handles, N·m, at fractions of the range (0 = lengthened), same
        shape.
        """
        assert self.handles is not None
        places, values = zip(*self.handles, strict=True)
        # scipy.interpolate costs most of a cold start: only when a shape is really read
        from scipy.interpolate import PchipInterpolator

        return np.asarray(np.maximum(PchipInterpolator(places, values)(fraction), 0.0))


@dataclass(frozen=True, slots=True, kw_only=True)
class Intent:
    """What a trainer wants: one or two prime actions with their loading, sets, reps, tempo and rep
    style.

    by_feel: no numbers are shown. Raises InputError naming the part.
    """

    parts: tuple[WantedAction, ...]
    sets: int = 3
    reps: int = 10
    tempo: Tempo = field(default_factory=Tempo)
    style: RepStyle = field(default_factory=RepStyle)
    by_feel: bool = False

    def __post_init__(self) -> None:
        """Check the counts, and that no action is named twice."""
        if not 1 <= len(self.parts) <= 2:
            raise InputError("/actions", len(self.parts), Said("one or two prime actions"))
        if len({part.action.joint for part in self.parts}) < len(self.parts):
            raise InputError(
                "/actions/1/action",
                self.parts[1].action.words,
                Said("another joint than the first"),
            )
        for name, most in (("sets", 20), ("reps", 100)):
            if not 1 <= getattr(self, name) <= most:
                raise InputError(
                    f"/{name}",
                    getattr(self, name),
                    Said("a whole number from 1 to {most}", most=Count(most)),
                )
        if len({part.has_level for part in self.parts}) > 1:
            raise InputError(
                "/actions/1/mean_nm", None, Said("a mean for both actions, or for none")
            )

    @property
    def has_level(self) -> bool:
        """Return whether it says how much, not only where."""
        return self.parts[0].has_level

    def weights(self, part: WantedAction) -> Array:
        """Return how much longer than in a plain rep each degree is under demand, (220,); 1 for a
        plain rep.

        What style names by an angle (pause, partials) is the first action's; the other's range is
        passed with it.
        """
        ends = part.from_deg, part.to_deg
        style = self.style
        first = self.parts[0]
        if part is not first:
            style = style.moved((first.from_deg, first.to_deg), ends)
        return style_weight(style, self.tempo, ends)

    def quarters(self, body: Body) -> tuple[tuple[float, float, float, float], ...]:
        """Return each action's share (0 to 1) of its dose in the quarters of its range, lengthened
        first.
        """
        found = []
        for part in self.parts:
            dose = part.demand_nm(body) * self.weights(part)
            along = (CENTRES_DEG - part.from_deg) / (part.to_deg - part.from_deg)
            total = max(float(dose.sum()), 1e-9)
            a, b, c, d = (
                float(dose[(along >= q / 4) & (along < (q + 1) / 4)].sum()) / total
                for q in range(4)
            )
            found.append((a, b, c, d))
        return tuple(found)

    @property
    def rep_s(self) -> float:
        """Return the seconds that one rep keeps the first action under demand, pauses and extra
        passes with it.
        """
        part = self.parts[0]
        low, high = sorted((part.from_deg, part.to_deg))
        inside = (low <= CENTRES_DEG) & (high >= CENTRES_DEG)
        return (self.tempo.lifting_s + self.tempo.lowering_s) * float(
            self.weights(part)[inside].mean()
        )


def handles_of(bins: Array, action: Action) -> tuple[float, float, tuple[tuple[float, float], ...]]:
    """Return the lengthened and the shortened end (degrees) of a demand on the 1° grid, and five
    handles along it.

    bins: N·m (220,) with demand over 0 somewhere. Each handle is the mean demand of the degrees
    nearest to it.
    """
    used = np.flatnonzero(bins > 0)
    span = np.arange(int(used[0]), int(used[-1]) + 1)
    ends = CENTRES_DEG[span[0]] - 0.5, CENTRES_DEG[span[-1]] + 0.5
    start, end = ends[::-1] if action.direction < 0 else ends
    inner = (
        bins[span[1:-1]] if len(span) > 4 else bins[span]
    )  # the outer degrees may be covered in part
    inner = inner[::-1] if action.direction < 0 else inner
    places = np.linspace(0.0, 1.0, len(inner))
    half = max(0.02, 1.01 / len(inner))
    values = [float(inner[np.abs(places - h) <= half].mean()) for h in HANDLES]
    return float(start), float(end), tuple(zip(HANDLES, values, strict=True))
