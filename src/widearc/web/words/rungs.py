"""A rung in a few words: what loads it, and without a number where that is wished."""

from __future__ import annotations

from collections import Counter

from widearc.core.kit import Piece
from widearc.core.progression.rung import Ladder, Rung
from widearc.core.progression.steps import turns
from widearc.core.words import Force, Mass, Moment, Said, Share, Term, Times, joined
from widearc.web.words.words import CARRIERS, stamps
from widearc.words import say, sign_of, tr

LONGEST = 27


def rung_words(rung: Rung) -> str:
    """Return what loads a rung as it stands at a ladder: "16 + 16 kg, light loop"."""
    parts = [p for p in (_weight(rung), *_elastic(rung.pieces)) if p]
    text = ", ".join(parts) or tr("body weight")
    return text if len(text) <= LONGEST else f"{text[: LONGEST - 1].rstrip(' ,')}…"


def _weight(rung: Rung) -> str:
    held = [p for p in rung.pieces if p.kind in ("dumbbell", "kettlebell")]
    if held:
        each = [p.kg for p in held for _ in range(p.number)]
        told = stamps(each)
        return told if told[-1].isalpha() else f"{told} {sign_of('kg')}"
    if rung.kg:
        return say(Mass(rung.kg))
    loads = rung.setup.loads
    carrier = next((CARRIERS[x.kind] for x in loads if x.kind in CARRIERS), None)
    return say(carrier[1]) if carrier else ""


def _elastic(pieces: tuple[Piece, ...]) -> list[str]:
    number: Counter[str] = Counter()
    for piece in pieces:
        if piece.kind in ("band", "spring"):
            number[piece.label] += piece.number
    return [name if n == 1 else f"{n} × {name}" for name, n in number.items()]


STEPS_UP = ("one step harder", "two steps harder", "three steps harder")
STEPS_DOWN = ("one step easier", "two steps easier", "three steps easier")


def rung_by_feel(index: int, present: int) -> str:
    """Return where a rung stands beside the present one, without a number; "" far from it."""
    if index == present:
        return tr("now")
    steps = STEPS_UP if index > present else STEPS_DOWN
    far = abs(index - present)
    return tr(steps[far - 1]) if far <= len(steps) else ""


def effort_words(ladder: Ladder, effort: float) -> str:
    """Return a place on a ladder by its measure: whole effort, N·m or a force."""
    if ladder.measure == "whole effort":
        return say(Times(effort, 2))
    return say(Force(effort) if ladder.measure == "force" else Moment(effort, bare=True))


def lighter_words(rung: Rung) -> str:
    """Return in which part of the way a rung is lighter than the one below, "" where nowhere."""
    part = rung.lighter
    if part is None:
        return ""
    if part.start <= 0.01:
        said = Said("lighter for the first {share} of the way", share=Share(part.end))
    elif part.end >= 0.99:
        said = Said("lighter for the last {share} of the way", share=Share(1.0 - part.start))
    else:
        said = Said(
            "lighter from {share} to {share_2} of the way",
            share=Share(part.start),
            share_2=Share(part.end),
        )
    return say(said)


def turn_words(below: Rung, rung: Rung) -> str:
    """Return which joints a step asks more and which less, "" where all go one way."""
    up, down = turns(below, rung)
    if not up:
        return ""
    more = joined(*(Said("{joint} up", joint=Term(j)) for j in up))
    less = joined(*(Said("{joint} down", joint=Term(j)) for j in down))
    return say(joined(more, less))
