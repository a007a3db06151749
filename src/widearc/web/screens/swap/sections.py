"""The list of stand-ins in sections: those alike together, the first few seen, the rest folded."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from widearc.core.search import Candidate, Groups, Uncertainty
from widearc.core.words import Count, Listed, Term
from widearc.web.drawing.areas import Areas
from widearc.words import tell, tr

SEEN_AT_LEAST = 5

Row = tuple[Candidate, str, Areas]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Section:
    """Rows under a heading ("" for none). folded: behind "others"; marked: the wanted lift set up
    again comes just before it.
    """

    words: str
    rows: Sequence[Row]
    folded: bool = False
    marked: bool = False


def sections_of(
    groups: Groups,
    drawn: Mapping[str, Row],
    pinned: Collection[str],
    shown: Collection[str],
    again: Uncertainty | None,
    harder: Mapping[str, Sequence[str]] = MappingProxyType({}),
    same: Collection[str] = (),
) -> list[Section]:
    """Return the sections: the trainer's own choices, then groups until five are seen, the others
    folded.

    pinned, shown: exercise ids. again: the wanted lift set up again, None for an intent. harder:
    by exercise id the sore joints of which it asks more than what is wanted. same: what is the
    wanted lift itself with another load, offered first.
    """
    own = [drawn[c.exercise.id] for g in groups for c in g if _is_own(c, pinned, shown)]
    found = [Section(words="Your own choice", rows=own)] if own else []
    seen, marked = len(own), again is None
    for number, group in enumerate(groups):
        rows = [
            drawn[c.exercise.id]
            for c in group
            if c.exercise.id in shown and c.exercise.id not in pinned
        ]
        if not rows:
            continue
        best = max(c.uncertainty.usual for c in group)
        mark = not marked and again is not None and again.usual >= best
        found.append(
            Section(
                words=_heading(number == 0, len(rows), _sore(group, harder))
                if not all(c.exercise.id in same for c in group)
                else tr("The same lift, otherwise loaded"),
                rows=rows,
                folded=seen >= SEEN_AT_LEAST,
                marked=mark,
            )
        )
        seen, marked = seen + len(rows), marked or mark
    return found


def _is_own(candidate: Candidate, pinned: Collection[str], shown: Collection[str]) -> bool:
    return candidate.exercise.id in pinned and candidate.exercise.id in shown


def _sore(group: Sequence[Candidate], harder: Mapping[str, Sequence[str]]) -> str:
    """Return words for the sore joints of which all of a group ask more, "" for none."""
    every = [frozenset(harder.get(c.exercise.id, ())) for c in group]
    joints = sorted(frozenset.union(*every)) if all(every) else []
    if not joints:
        return ""
    return tell("harder on the sore {joints}", joints=Listed(tuple(map(Term, joints)), "and"))


def _heading(first: bool, count: int, sore: str) -> str:
    parts = [tr("First" if first else "Then"), sore]
    if count > 1:
        parts.append(tell("{count} alike as far as can be known", count=Count(count)))
    return ", ".join(part for part in parts if part)
