"""What a family of exercises is, beside the closure that moves it (`movement/families`)."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

from widearc.core.exercises.options import Options, OptionSpec

if TYPE_CHECKING:
    from widearc.core.exercises.exercise import Exercise


@dataclass(frozen=True, slots=True, kw_only=True)
class Family:
    """Exercises that move by one closure.

    words: their heading; rank: its place in lists. takes: the only kinds of load it takes (all
    where empty). own_legs: whether its exercises say how many legs may work; one_leg: one works by
    itself. held: leg joints that seat, pad or floor holds, by the options. still: its posture never
    depends on the load; kept: whether an exercise's does not (kept_in_hands: only with a weight in
    the hands). upright: knees pass toes and thighs pass level. pad_slides: a lever's pad is not
    where its port is. from_above: drawn as seen from above. weighted: loaded with a weight first.
    has_curve: not so mobility; compared: whether it has a joint to compare. low_back_gives: the
    trunk may fold over the thighs past the hip's limit.
    """

    name: str
    words: str
    rank: int
    options: Mapping[str, OptionSpec]
    takes: tuple[str, ...] = ()
    own_legs: bool = True
    one_leg: bool = False
    held: Callable[[Options], frozenset[str]] = lambda _: frozenset()
    still: bool = False
    kept: Callable[[Exercise], bool] | None = None
    kept_in_hands: bool = False
    upright: bool = False
    pad_slides: bool = False
    from_above: bool = False
    weighted: bool = False
    has_curve: bool = True
    compared: bool = True
    low_back_gives: bool = False

    def keeps_posture(self, exercise: Exercise) -> bool:
        """Return whether an exercise's posture does not depend on its load."""
        return self.still or (self.kept is not None and self.kept(exercise))
