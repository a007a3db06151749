"""A stand-in: the best set-up found for one exercise, with its numbers."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from widearc.core.curve import Action
from widearc.core.dose import RepStyle
from widearc.core.exercises import Exercise
from widearc.core.kit import Piece
from widearc.core.matching import Comparison, Target
from widearc.core.search.ceilings import HeldBack
from widearc.core.search.uncertainty import Uncertainty, Unsure, uncertainties_of
from widearc.core.setups import LoadedSetup
from widearc.core.statics import Curve
from widearc.core.words import Listed, Said

PLAIN = RepStyle()


@dataclass(frozen=True, slots=True, kw_only=True, eq=False, weakref_slot=True)
class Candidate:
    """The best set-up found for one exercise, with its numbers; shares 0 to 1.

    match: the shape where the target has no level. comparison holds one row; step is the next
    heavier set-up's mean demand over this one's, less 1 (None: nothing heavier here). bins: the
    target's and its own are in `comparison.bins`. held_back: the ceiling that kept its load down;
    over_strength: actions of which it asks more than usual strength. style: how its reps are done;
    its bins are weighted by it.
    """

    exercise: Exercise
    row: LoadedSetup
    pieces: tuple[Piece, ...]
    curve: Curve
    comparison: Comparison
    match: float
    shape: float
    reach: float
    level: float
    step: float | None
    sentence: Listed
    held_back: HeldBack | None = None
    over_strength: tuple[Action, ...] = ()
    style: RepStyle = PLAIN
    target: Target
    _unsure: Unsure
    _kept: list[Uncertainty] = field(default_factory=list)

    @property
    def extra(self) -> Said:
        """Return what it has beyond the plain set-up, "" for nothing."""
        return self.row.extra

    @property
    def uncertainty(self) -> Uncertainty:
        """Return how sure match and demands are: computed when it is first asked for."""
        make_sure([self])
        return self._kept[0]


def make_sure(candidates: Sequence[Candidate]) -> None:
    """Compute how sure many candidates are: together, in a fraction of the time of one after the
    other.
    """
    new = [c for c in candidates if not c._kept]
    for candidate, uncertainty in zip(new, uncertainties_of([c._unsure for c in new]), strict=True):
        candidate._kept.append(uncertainty)
