"""One exercise as set up: its curve, and its card with the trainer's own words."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from widearc import store
from widearc.core.dose import RepStyle, Tempo
from widearc.core.errors import InputError, PostureError, one_of
from widearc.core.exercises import Exercise, exercise_of
from widearc.core.muscle import MuscleUse, muscle_use
from widearc.core.statics import (
    BodyUncertainty,
    Curve,
    asked_of_muscles,
    audit,
    body_variants,
    closure_variants,
    curve,
    demand_error_nm,
    dynamic_nm,
    load_variants,
)
from widearc.core.words import UNSAID, Count, Said, Term
from widearc.formats import parse_scenario, parse_style

LONGEST_WORDS = 2000
LEAST_NM = 1.0  # less is nothing to share


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Arc:
    """A scenario's curve, or why there is none.

    refused: what of the scenario is not used, its value and what is allowed; problem: a posture
    that cannot be. fast: demands with inertia at the scenario's tempo, by joint. error_nm: one
    standard error of each demand.
    """

    exercise: Exercise
    curve: Curve | None
    fast: Mapping[str, Any]
    style: RepStyle
    tempo: Tempo | None
    refused: InputError | None = None
    problem: Said = UNSAID
    error_nm: Mapping[str, Any] = field(default_factory=dict)


def arc_of(
    document: Mapping[str, Any],
    load_errors: tuple[float, ...] = (),
    body: BodyUncertainty | None = None,
) -> Arc:
    """Return what a wide-arc/scenario document shows; refusals are part of the answer.

    load_errors: one standard error of each load as a share; body: of the body; None: no error is
    computed.

    Raises InputError only for an exercise that does not exist.
    """
    entry = exercise_of(str(document.get("exercise", "")), "exercise")
    nothing = Arc(exercise=entry, curve=None, fast={}, style=RepStyle(), tempo=None)
    if not entry.has_curve:
        return nothing
    try:
        setup, _ = parse_scenario(document)
        style, tempo = parse_style(document)
        found = curve(setup)
        fast = dynamic_nm(found, tempo.lifting_s) if tempo is not None and found.demand_nm else {}
    except InputError as error:
        return Arc(exercise=entry, curve=None, fast={}, style=RepStyle(), tempo=None, refused=error)
    except PostureError as error:
        return Arc(
            exercise=entry, curve=None, fast={}, style=RepStyle(), tempo=None, problem=error.reason
        )
    doubt: dict[str, Any] = {}
    if body is not None and found.demand_nm:
        doubt = dict(
            demand_error_nm(
                found,
                {
                    **load_variants(setup, load_errors),
                    **body_variants(setup, body),
                    **closure_variants(setup),
                },
            )
        )
    return Arc(exercise=entry, curve=found, fast=fast, style=style, tempo=tempo, error_nm=doubt)


def muscles(found: Curve) -> MuscleUse | None:
    """Return what a curve (one set-up) asks of the muscles; None where no leg joint is asked
    anything.
    """
    angles, demand = asked_of_muscles(found)
    if not demand or max(float(abs(d).max()) for d in demand.values()) < LEAST_NM:
        return None
    return muscle_use(angles, demand, found.setup.body)


def balances(found: Curve) -> bool:
    """Return whether a curve's energy balances within 0.5 %."""
    return bool(audit(found).balances[0])


@dataclass(frozen=True, slots=True, kw_only=True)
class CardSection:
    """One section of a card: lines as shown, whether they are the trainer's own, and the usual
    ones.
    """

    name: str
    lines: tuple[str, ...]
    own: bool
    usual: tuple[str, ...]


def card(con: store.Connection, trainer_id: int, entry: Exercise) -> tuple[CardSection, ...]:
    """Return an exercise's card: set-up checks, cues, mistakes, breathing, cautions, with own words
    in their place.
    """
    own = store.card_edits(con, trainer_id, entry.id)
    sections = []
    for name in store.SECTIONS:
        value = getattr(entry, name)
        usual = (value,) if isinstance(value, str) else tuple(value)
        lines = tuple(own[name].splitlines()) if name in own else usual
        sections.append(CardSection(name=name, lines=lines, own=name in own, usual=usual))
    return tuple(sections)


def edit_card(
    con: store.Connection, trainer_id: int, exercise_id: str, section: str, words: str, *, now: str
) -> None:
    """Keep own words for a section of a card, one line each; empty or the usual words go back to
    the usual.

    Raises InputError for a section that is not there or words that are too long.
    """
    entry = exercise_of(exercise_id, "exercise")
    if section not in store.SECTIONS:
        raise InputError("section", section, one_of(store.SECTIONS))
    clean = "\n".join(filter(None, (" ".join(line.split()) for line in words.splitlines())))
    if len(clean) > LONGEST_WORDS:
        raise InputError(
            "words", f"{len(clean)} characters", Said("at most {most}", most=Count(LONGEST_WORDS))
        )
    value = getattr(entry, section)
    usual = value if isinstance(value, str) else "\n".join(value)
    kept = None if clean in ("", usual) else clean
    if store.card_edits(con, trainer_id, exercise_id).get(section) == kept:
        return
    said = Said(
        "{exercise}, {section}: own words kept"
        if kept
        else "{exercise}, {section}: back to the usual words",
        exercise=Term(entry.name),
        section=Term(SECTION_WORDS[section]),
    )
    with store.recorded(
        con, trainer_id, scope=card_scope(exercise_id), kind="card", words=said, now=now
    ):
        store.set_card_edit(con, trainer_id, exercise_id, section, kept)


def card_scope(exercise_id: str) -> str:
    """Return the undo scope of an exercise's card."""
    return f"card:{exercise_id}"


SECTION_WORDS = {
    "checks": "set-up",
    "cues": "cues",
    "mistakes": "common mistakes",
    "breathing": "breathing",
    "cautions": "cautions",
}
