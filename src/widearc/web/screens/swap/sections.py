"""The list of stand-ins in sections: those alike together, the first few seen, the rest folded."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from widearc.core.search import Candidate, Groups, Uncertainty
from widearc.web.drawing.areas import Areas

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
) -> list[Section]:
    """Return the sections: the trainer's own choices, then groups until five are seen, the others
    folded.

    pinned, shown: exercise ids. again: the wanted lift set up again, None for an intent.
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
                words=_heading(number == 0, len(rows)),
                rows=rows,
                folded=seen >= SEEN_AT_LEAST,
                marked=mark,
            )
        )
        seen, marked = seen + len(rows), marked or mark
    return found


def _is_own(candidate: Candidate, pinned: Collection[str], shown: Collection[str]) -> bool:
    return candidate.exercise.id in pinned and candidate.exercise.id in shown


def _heading(first: bool, count: int) -> str:
    where = "First" if first else "Then"
    return where if count == 1 else f"{where}, {count} alike as far as can be known"
