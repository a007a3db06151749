"""What is said without a number: how near a stand-in comes, what to pick up, which set it is."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from widearc.core.kit import Kit, Piece
from widearc.core.words import Name, Said, Term
from widearc.words import say, tr

NEAR = ((0.9, "as good as the same"), (0.75, "close"), (0.55, "in part"), (0.0, "far off"))
RANKS = ("lightest", "second lightest", "third lightest", "fourth lightest")
RANKS_DOWN = ("heaviest", "second heaviest", "third heaviest", "fourth heaviest")
MIDDLE = "in the middle"
SETS = ("first set", "second set", "third set", "fourth set", "fifth set")


def near_words(match: float) -> str:
    """Return how near a stand-in comes."""
    return tr(next(words for least, words in NEAR if match >= least))


def set_words(number: int, sets: int) -> str:
    """Return which set it is."""
    named = tr(SETS[number - 1] if number <= len(SETS) else "another set")
    return say(Said("{which}, the last", which=Name(named))) if number >= sets else named


def rank_words(kg: float, stock: Iterable[float]) -> str:
    """Return where a weight stands among those there are, counted from the nearer end."""
    weights = sorted({round(w, 3) for w in stock} | {round(kg, 3)})
    up = weights.index(round(kg, 3))
    down = len(weights) - 1 - up
    if not up and not down:
        return ""
    if up <= down and up < len(RANKS):
        return RANKS[up]
    return RANKS_DOWN[down] if down < len(RANKS_DOWN) else MIDDLE


def feel_pieces(pieces: Sequence[Piece], kit: Kit) -> list[str]:
    """Return what to pick up without a number: things by their rank among their like."""
    return [words for piece in pieces if (words := _piece(piece, kit))]


def _piece(piece: Piece, kit: Kit) -> str:
    if piece.kind in ("band", "spring"):
        return piece.label
    if piece.kind == "stack":
        return say(Said("{stack}, by feel", stack=Name(piece.label)))
    kind = f"{piece.kind}s" if piece.number > 1 else piece.kind
    rank = rank_words(piece.kg, (w.kg for w in kit.of(piece.kind)))
    if not rank:
        return tr(kind)
    return say(Said("{kind}, the {rank}", kind=Term(kind), rank=Term(rank)))
