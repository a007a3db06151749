"""Intents: from an exercise as it is set up, and kept under a name."""

from __future__ import annotations

from dataclasses import replace

from widearc import store
from widearc.core.body import Body
from widearc.core.curve import Action
from widearc.core.errors import InputError
from widearc.core.intent import HANDLES, Intent, Shape, WantedAction, handles_of
from widearc.core.matching import target_of
from widearc.core.statics import Curve
from widearc.core.words import Angle, Count, Name, Said, Term, Words, joined
from widearc.usecases.sheet import SheetError

SCOPE = "intents"
LONGEST_NAME = 60


def intent_of_curve(curve: Curve, *, sets: int = 3, reps: int = 10) -> tuple[Intent, float]:
    """Return the intent that asks for a curve's own loading by five handles, and how much of it
    they hold (0 to 1).

    Raises TargetError where the curve asks no work of its prime joints.
    """
    target = target_of(curve)
    parts, common, either = [], 0.0, 0.0
    for action, bins in zip(target.actions[:2], target.bins, strict=False):
        start, end, handles = handles_of(bins, action)
        part = WantedAction(action=action, from_deg=start, to_deg=end, handles=handles)
        made = part.demand_nm(curve.setup.body)
        common += float(abs(made + bins - abs(made - bins)).sum()) / 2
        either += float((made + bins + abs(made - bins)).sum()) / 2
        parts.append(part)
    return Intent(parts=tuple(parts), sets=sets, reps=reps), common / either


def with_handles(part: WantedAction, body: Body) -> tuple[tuple[float, float], ...]:
    """Return the five handles (fraction, N·m) that a wanted action has or, by its shape, would
    have.
    """
    if part.handles is not None:
        return tuple((f, float(part.at(f))) for f in HANDLES)  # type: ignore[arg-type]
    _, _, handles = handles_of(part.demand_nm(body), part.action)
    return handles


@store.at_once
def keep_intent(
    con: store.Connection, trainer_id: int, name: str, intent: Intent, *, now: str
) -> int:
    """Keep an intent under a name, in the place of one of that name, recorded for undo; return its
    id.

    SheetError at "name"; nothing is kept then.
    """
    clean = " ".join(name.split())
    if not clean or len(clean) > LONGEST_NAME:
        raise SheetError(
            {
                "name": Said(
                    "“{clean}” is not kept: a name of 1 to {most} characters",
                    clean=Name(clean[:20]),
                    most=Count(LONGEST_NAME),
                )
            }
        )
    with store.recorded(
        con,
        trainer_id,
        scope=SCOPE,
        kind="intent",
        words=Said("{clean} kept", clean=Name(clean)),
        now=now,
    ):
        return store.put_intent(con, trainer_id, clean, intent, now=now)


@store.at_once
def remove_intent(con: store.Connection, trainer_id: int, intent_id: int, *, now: str) -> None:
    """Remove a kept intent, recorded for undo. InputError if it is not there."""
    row = next((r for r in store.intents(con, trainer_id) if r.id == intent_id), None)
    if row is None:
        raise InputError("intent", intent_id, Said("one of the kept ones"))
    with store.recorded(
        con,
        trainer_id,
        scope=SCOPE,
        kind="intent",
        words=Said("{name} removed", name=Name(row.name)),
        now=now,
    ):
        store.remove_intent(con, trainer_id, intent_id)


def start_intent() -> Intent:
    """Return what the screen begins with: a knee extension, heavier where lengthened."""
    part = WantedAction(
        action=Action.KE, from_deg=95.0, to_deg=10.0, shape=Shape.STRETCH, mean_nm=100.0
    )
    return Intent(parts=(part,))


def by_handles(intent: Intent, body: Body) -> Intent:
    """Return an intent with every shape turned into its handles; one without a level stays as it
    is.
    """
    if not intent.has_level:
        return intent
    parts = tuple(
        replace(p, handles=with_handles(p, body), shape=None, mean_nm=None) for p in intent.parts
    )
    return replace(intent, parts=parts)


def intent_words(intent: Intent) -> Words:
    """Return an intent in one line: actions with range and shape, style."""
    ranges = joined(*map(_part_words, intent.parts), by="and")
    if intent.style.kind.value == "plain":
        return ranges
    return Said("{ranges}, {style}", ranges=ranges, style=intent.style.sentence)


def _part_words(part: WantedAction) -> Said:
    return Said(
        "{action} {start} to {end}" if part.shape is None else "{action} {start} to {end}, {shape}",
        action=Term(part.action.words),
        start=Angle.of_deg(part.from_deg),
        end=Angle.of_deg(part.to_deg),
        shape=Term("" if part.shape is None else SHAPE_WORDS[part.shape]),
    )


SHAPE_WORDS = {
    Shape.STRETCH: "heavier where lengthened",
    Shape.EVEN: "even all the way",
    Shape.SQUEEZE: "heavier where shortened",
    Shape.STRENGTH: "along the strength curve",
}
