"""What a lift is done for, what was done of it, and what is proposed: the words of the rules."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from widearc.core.words import UNSAID, Said

TOP, LOW = 12, 8

EVENTS = ("pain", "failure", "missed", "light")
ACTS = ("same", "below", "share", "back")
EVENT_WORDS: Mapping[str, str] = MappingProxyType(
    {
        "pain": "After pain",
        "failure": "After a failed set",
        "missed": "After a missed session",
        "light": "After a light week",
    }
)


@dataclass(frozen=True, slots=True, kw_only=True)
class SetSeen:
    """A set as a rule sees it. side: both, left or right; reserve: reps left (None: not said);
    form: how it broke, "" where it did not; pain: 0 to 10; seconds: under load.
    """

    reps: int
    side: str = "both"
    reserve: int | None = None
    form: str = ""
    pain: int = 0
    seconds: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Occasion:
    """The sets of a lift on one day, counted in days from any first one; effort: its place on the
    ladder, over 0.
    """

    day: int
    sets: tuple[SetSeen, ...]
    effort: float


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnRule:
    """What a trainer does after an event: the same again, the rung below, a share of the load, or
    back to what was done before a light week; with the reason that was given.
    """

    act: str
    share: float = 0.9
    reason: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Aim:
    """What a lift is done for: sets, the range of reps, the rule by its name; percent: share a week
    of the rule that counts weeks; after weeks comes a light one at deload (share); own: the
    trainer's rules by event.
    """

    sets: int = 3
    low: int = LOW
    high: int = TOP
    rule: str = "all"
    percent: float = 0.025
    weeks: int = 4
    deload: float = 0.6
    own: Mapping[str, OwnRule] = field(default_factory=lambda: MappingProxyType({}))


@dataclass(frozen=True, slots=True, kw_only=True)
class Proposal:
    """What is proposed. step: rungs up (1), none (0) or down (-1); share: of the present load or
    effort to go down to, where a rung is not counted; most: how much more the next rung may be,
    share; reps: of each set; asks: an event of which the trainer's own rule is not known.
    """

    step: int = 0
    sets: int
    reps: int
    reason: Said
    share: float | None = None
    most: float | None = None
    warns: Said = UNSAID
    asks: str = ""
