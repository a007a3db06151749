"""What a week of lifts covers: muscles over their own length, what is missing, and how long it
takes.
"""

from widearc.core.coverage.finding import Finding, Person
from widearc.core.coverage.findings import FINDINGS, findings
from widearc.core.coverage.mends import WEEKDAYS, Mend, mend_of
from widearc.core.coverage.order import breaches, rank_of
from widearc.core.coverage.seen import GROUPS, SlotSeen, Traits, Worked, traits_of, units
from widearc.core.coverage.time import MINUTES_BETWEEN, minutes_of, to_drop, whole_minutes

__all__ = [
    "FINDINGS",
    "GROUPS",
    "MINUTES_BETWEEN",
    "WEEKDAYS",
    "Finding",
    "Mend",
    "Person",
    "SlotSeen",
    "Traits",
    "Worked",
    "breaches",
    "findings",
    "mend_of",
    "minutes_of",
    "rank_of",
    "to_drop",
    "traits_of",
    "units",
    "whole_minutes",
]
