"""What brings a stand-in closer: one thing more in the set-up, or another way of doing the reps,
each with its gain.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from widearc.core.body import PORTS
from widearc.core.dose import RepStyle, StyleKind
from widearc.core.exercises import Exercise
from widearc.core.search import Candidate, Question
from widearc.core.setups import extras_here
from widearc.core.units import to_deg
from widearc.core.words import UNSAID, Said, joined

LEAST_GAIN = 0.005  # of the match: less is not shown
MOST_TWEAKS = 6
STRAPS = Said("lifting straps")


@dataclass(frozen=True, slots=True, kw_only=True)
class Tweak:
    """One change that is worth it: words, gain in match (share), and its key to apply it with."""

    words: Said
    gain: float
    key: str
    note: Said = UNSAID


LIGHTER = Said("lighter or fewer reps than plain ones")
AGAINST = {
    "pressure under the heel": Said("not common practice: the whole foot carries; it costs balance")
}
"""Extras that trainers rarely use, with the reason."""
HARDER = (StyleKind.PAUSE, StyleKind.SLOW_LOWERING, StyleKind.ONE_AND_A_QUARTER)
TO_FAILURE = (StyleKind.ONE_AND_A_QUARTER, StyleKind.PARTIALS)
"""Styles that end where the lift is hardest: only where failing is safe."""


def styles_for(chosen: Candidate, question: Question) -> tuple[RepStyle, ...]:
    """Return the rep styles that are tried on a stand-in: at both ends of its own range on the
    target's first joint; those that end where it is hardest only where failing alone is safe. Where
    demand is compared, whatever the time, partials alone: they cut the range.
    """
    joint = question.target.actions[0].joint
    angle = chosen.curve.motion.angles.get(joint)
    if angle is None or joint not in chosen.curve.demand_nm:
        return ()
    start, end = float(to_deg(angle[0, 0])), float(to_deg(angle[0, -1]))
    if abs(end - start) < 10.0:
        return ()
    third = round(start + (end - start) / 3.0)
    half = round(0.5 * (start + end))
    every = (
        RepStyle(kind=StyleKind.ONE_AND_A_QUARTER, end="lengthened"),
        RepStyle(kind=StyleKind.ONE_AND_A_QUARTER, end="shortened"),
        RepStyle(kind=StyleKind.PAUSE, at_deg=float(round(start)), seconds=1.0),
        RepStyle(kind=StyleKind.PAUSE, at_deg=float(third), seconds=1.0),
        RepStyle(kind=StyleKind.PAUSE, at_deg=float(round(end)), seconds=1.0),
        RepStyle(kind=StyleKind.PARTIALS, from_deg=float(round(start)), to_deg=float(half)),
        RepStyle(kind=StyleKind.SLOW_LOWERING, seconds=2.0 * question.target.tempo.lowering_s),
    )
    safe = chosen.exercise.fails_alone == "yes"
    return tuple(
        style
        for style in every
        if (question.by_dose or style.kind is StyleKind.PARTIALS)
        and (safe or style.kind not in TO_FAILURE)
    )


def style_key(style: RepStyle) -> str:
    """Return a key for a rep style in an address."""
    parts = [style.kind.value]
    parts += [style.end] if style.kind is StyleKind.ONE_AND_A_QUARTER else []
    parts += [
        f"{v:g}"
        for v in (style.at_deg, style.seconds, style.from_deg, style.to_deg)
        if v is not None
    ]
    return "style:" + "_".join(parts)


def extras_of(chosen: Candidate, question: Question) -> tuple[Said, ...]:
    """Return the extras that some set-up of the exercise has here."""
    return extras_here(chosen.exercise, question.tried, question.body, question.wanted.knee)


def ready_for_tweaks(candidates: Sequence[Candidate], question: Question) -> None:
    """Compute what the tweaks of many stand-ins need: together, in a fraction of the time of one
    after the other.
    """
    having: dict[Said, list[Exercise]] = {}
    for chosen in candidates:
        for extra in extras_of(chosen, question):
            having.setdefault(extra, []).append(chosen.exercise)
    for extra, exercises in having.items():
        question.prepare(exercises, extra)
        question.score(exercises, extra)


def tweaks_for(chosen: Candidate, question: Question) -> tuple[Tweak, ...]:
    """Return what would bring a plain stand-in closer, the best first."""
    found = []
    for extra in extras_of(chosen, question):
        best = question.best(chosen.exercise, extra=extra)
        if best is not None:
            note = AGAINST.get(extra.key, UNSAID)
            gain = best[0] - chosen.match
            found.append(Tweak(words=extra, gain=gain, key="extra:" + extra.key, note=note))
    strapped = _with_straps(chosen, question)
    if strapped is not None:
        found.append(Tweak(words=STRAPS, gain=strapped.match - chosen.match, key="relief:straps"))
    for style in styles_for(chosen, question):
        gain = question.score_in_style(chosen, style) - chosen.match
        note = LIGHTER if style.kind in HARDER else UNSAID
        found.append(Tweak(words=style.sentence, gain=gain, key=style_key(style), note=note))
    worth = [t for t in found if t.gain >= LEAST_GAIN]
    return tuple(sorted(worth, key=lambda t: (-round(t.gain, 4), t.key))[:MOST_TWEAKS])


def applied(chosen: Candidate, question: Question, key: str) -> Candidate | None:
    """Return a stand-in with a tweak of that key, None where it cannot be had here."""
    if key.startswith("extra:"):
        named = (e for e in extras_of(chosen, question) if e.key == key.removeprefix("extra:"))
        extra = next(named, None)
        best = None if extra is None else question.best(chosen.exercise, extra=extra)
        return None if best is None else question.candidate(best)
    if key == "relief:straps":
        return _with_straps(chosen, question)
    style = next((s for s in styles_for(chosen, question) if style_key(s) == key), None)
    return None if style is None else question.in_style(chosen, style)


def _with_straps(chosen: Candidate, question: Question) -> Candidate | None:
    """Return the best set-up where the grip no longer bounds the load; None where it bounds
    nothing.
    """
    if question.rules.grip_kg is None or not any(
        PORTS[w.port].hands for ways in chosen.exercise.ways for w in ways
    ):
        return None
    free = replace(question, rules=replace(question.rules, grip_kg=None))
    best = free.best(chosen.exercise)
    if best is None:
        return None
    found = free.candidate(best)
    words = joined(found.row.words, STRAPS)
    return replace(found, row=replace(found.row, extra=STRAPS, words=words))
