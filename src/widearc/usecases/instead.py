"""What the Swap page says beside a ranking: set-up checks, changes, favourites, items set aside,
questions back.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

import numpy as np

from widearc import store
from widearc.core.answers import Beside, Kinder, beside, kinder, muscle_match, muscle_thirds
from widearc.core.equipment import margin, stands
from widearc.core.errors import InputError
from widearc.core.exercises import exercise
from widearc.core.kit import Anchor, hold_of
from widearc.core.muscle import NAMES
from widearc.core.search import Candidate, Memo
from widearc.core.statics import Curve
from widearc.usecases.arc import muscles
from widearc.usecases.sheet import SheetError
from widearc.usecases.strength import equal_reps, strength_of
from widearc.usecases.swap import SwapAsk, SwapView, swap_view, wanted_key

GAINS = 0.08  # of the work: a muscle whose share changes by less is not named
LONGEST_REASON = 200


def set_up_checks(chosen: Candidate, view: SwapView) -> tuple[str, ...]:
    """Return what to look at before the first rep: the exercise's own checks, then what this set-up
    adds.
    """
    own = list(chosen.exercise.checks)
    if chosen.row.anchor is not None:
        own += _anchor_check(chosen, chosen.row.anchor[0])
    if len(chosen.row.bands) > 1:
        own.append("Bands equal on both sides, flat, none over an edge")
    for thing in chosen.row.furniture:
        item = next((i for i in view.room.items if i.key == thing.id), None)
        if item is not None and thing.kind in ("couch", "table"):
            own += _furniture_check(chosen, thing.name, item.quantities)
    if chosen.row.springs:
        own.append("Springs hooked as listed, latch closed, stop set")
    return tuple(own)


def _pull(chosen: Candidate) -> tuple[np.ndarray, np.ndarray] | None:
    """Return the pull on the room of the bands that are tied to it, N (samples,): ahead and up,
    taken together.
    """
    total: np.ndarray | None = None
    for index, load in enumerate(chosen.curve.setup.loads):
        if getattr(load, "anchor", None) is None:
            continue
        acting = [f for f in chosen.curve.motion.forces if f.source == f"load {index}"]
        if acting:
            force = -chosen.curve.motion.full(acting[-1].force)[:, 0]
            total = force if total is None else total + force
    return None if total is None else (total[0], total[1])


def _anchor_check(chosen: Candidate, anchor: Anchor) -> list[str]:
    pull = _pull(chosen)
    if pull is None:
        return []
    most = float(np.max(np.hypot(*pull)))
    words = f"{anchor.name} holds {most:.0f} N of pull"
    hold = hold_of(anchor)
    found = margin(hold, *pull)
    if found is None:
        return [f"{words}: what it is rated for is not known"]
    if found.verdict == "refuse":
        return [f"{words}: it does not, it {found.gives_by}. Do not use it"]
    share = f"{found.margin:.1f} times that" if found.margin < 100 else "many times that"
    return [
        f"{words}: rated for {share}"
        if hold.kind == "eye"
        else f"{words}: it {found.gives_by} at {share}"
    ]


def _furniture_check(chosen: Candidate, name: str, quantities: Mapping[str, float]) -> list[str]:
    """Return whether a couch or table tips or slides under what rests on its edge, by simple
    statics.
    """
    kg = quantities.get("own_kg")
    depth = quantities.get("depth_m", 0.6)
    if kg is None:
        return [f"{name} stands fast: its weight is not known"]
    contacts = [f for f in chosen.curve.motion.forces if f.source in ON_FURNITURE]
    if not contacts:
        return [f"{name} stands fast"]
    force = -chosen.curve.motion.full(contacts[0].force)[:, 0]
    found = stands(kg, depth, quantities.get("height_m", 0.45), force[0], -force[1])
    most = float(np.max(np.hypot(*force)))
    if found.verdict == "refuse":
        return [
            (
                f"{name}, {kg:.0f} kg, {found.gives_by} with {most:.0f} N on its edge. Weigh it "
                "down "
                "or leave it"
            )
        ]
    if found.margin > 20:
        return [f"{name}, {kg:.0f} kg, neither tips nor slides with {most:.0f} N on its edge"]
    return [
        (
            f"{name}, {kg:.0f} kg, {found.gives_by} only at {found.margin:.1f} times the "
            f"{most:.0f} "
            "N on its edge"
        )
    ]


ON_FURNITURE = ("contact pad", "contact instep", "contact bench")
"""Contacts with what stands on the floor."""


def changes(chosen: Candidate, wanted: Curve | None, columns: Beside) -> tuple[str, ...]:
    """Return what is otherwise with a stand-in: muscles, low back, grip, steadiness, failing alone,
    time, step.
    """
    said = []
    if wanted is not None:
        said += _muscle_changes(wanted, chosen.curve)
    if columns.spine is not None and abs(columns.spine - 1.0) > 0.1:
        how = "more" if columns.spine > 1 else "less"
        much = (
            f"{100 * abs(columns.spine - 1):.0f} % {how}"
            if columns.spine < 2
            else f"{columns.spine:.1f} times as much"
        )
        said.append(f"Low back: {much} at most, by a single-muscle estimate.")
    elif columns.spine is None and columns.axial:
        said.append("Low back: the load presses on the spine.")
    if columns.hand_kg is not None:
        said.append(f"Grip: up to {columns.hand_kg:.0f} kg in one hand.")
    links = [
        f"{link} ({RELIEFS[link]})" if link in RELIEFS else link for link in chosen.exercise.limits
    ]
    if links:
        said.append(f"May give out before the muscle: {', '.join(links)}.")
    said.append(
        (
            f"Steadiness {columns.steady} of 5; failing alone: {columns.alone}; "
            f"{columns.minutes:g} "
            "min to set up; "
        )
        + (
            "no heavier load here."
            if columns.step is None
            else f"next load {100 * columns.step:.0f} % more."
        )
    )
    return tuple(said)


RELIEFS: Mapping[str, str] = MappingProxyType(
    {
        "grip": "straps, a belt, or the weight on the back",
        "balance": "hold on to something",
        "breath": "a longer rest",
        "upper back": "another place for the load",
        "low back": "support, or a belt load",
        "pad pressure": "padding",
        "wrists": "fists or handles",
        "hold at the ankles": "a firmer strap or a partner",
    }
)
"""What relieves a link that gives out before the muscle (common practice, no source)."""


def _muscle_changes(wanted: Curve, own: Curve) -> list[str]:
    before, after = muscles(wanted), muscles(own)
    if before is None or after is None:
        return []
    shares = []
    for use in (before, after):
        work = {g: max(use.of(g).work_j, 0.0) for g in NAMES}
        total = sum(work.values()) or 1.0
        shares.append({g: w / total for g, w in work.items()})
    more = [g for g in NAMES if shares[1][g] - shares[0][g] > GAINS]
    less = [g for g in NAMES if shares[0][g] - shares[1][g] > GAINS]
    said = []
    for verb, groups in (("gains", more), ("loses", less)):
        if groups:
            named = ", ".join(
                f"{NAMES[g]} ({100 * shares[0][g]:.0f} to {100 * shares[1][g]:.0f} % of the work)"
                for g in groups
            )
            said.append(f"{verb.capitalize()}: {named}.")
    return said


def kinder_ways(view: SwapView, chosen: Candidate) -> dict[str, tuple[Kinder, ...]]:
    """Return, for each sore joint of the client, what asks less of it with the chosen exercise at
    the same work.
    """
    if view.question is None:
        return {}
    found = {
        joint: kinder(chosen, view.question, joint) for joint in sorted(view.question.rules.sore)
    }
    return {joint: ways for joint, ways in found.items() if ways}


def columns_of(view: SwapView) -> dict[str, Beside]:
    """Return every candidate's columns by exercise id."""
    assert view.ranking is not None
    return {c.exercise.id: beside(c, view.wanted) for c in view.ranking.candidates}


def muscle_column(view: SwapView, group: str) -> dict[str, float]:
    """Return how much of a muscle's wanted work over its own length each candidate has, 0 to 1, by
    exercise id.

    Raises InputError for a group that is not there, or an intent (it asks joints, not muscles).
    """
    assert view.ranking is not None
    if group not in NAMES:
        raise InputError("muscle", group, "one of " + ", ".join(NAMES))
    if view.wanted is None:
        raise InputError(
            "muscle", group, "an exercise to replace: an intent asks for joints, not muscles"
        )
    asked = muscle_thirds(view.wanted, group)
    if asked is None or sum(asked) < 1.0:
        name = view.wanted.setup.exercise.name.lower()
        raise InputError("muscle", group, f"a muscle that the {name} gives work to")
    return {
        c.exercise.id: muscle_match(asked, muscle_thirds(c.curve, group))
        for c in view.ranking.candidates
    }


def reps_of(con: store.Connection, trainer_id: int, view: SwapView, chosen: Candidate) -> str:
    """Return the reps of a stand-in that come as close to failure, or why none can be said."""
    if view.wanted is None:
        return ""
    known = strength_of(con, trainer_id, view.client.id)
    found = equal_reps(view.wanted, chosen.curve, known, view.ask.reps)
    return found.words


def keep_favourite(
    con: store.Connection, trainer_id: int, ask: SwapAsk, exercise_id: str, reason: str, *, now: str
) -> None:
    """Keep a stand-in as preferred for what is wanted, with the reason, recorded for undo.
    SheetError at "reason".
    """
    entry = exercise(exercise_id, "exercise")
    clean = " ".join(reason.split())
    if not 1 <= len(clean) <= LONGEST_REASON:
        raise SheetError(
            {"reason": f"“{clean[:20]}” is not kept: a reason of 1 to {LONGEST_REASON} characters"}
        )
    words = f"{entry.name} pinned: {clean}"
    with store.recorded(
        con, trainer_id, scope=f"place:{ask.place_id}", kind="favourite", words=words, now=now
    ):
        row = store.Favourite(wanted=wanted_key(ask), exercise=entry.id, reason=clean, kept_at=now)
        store.put_favourite(con, trainer_id, row)


def drop_favourite(
    con: store.Connection, trainer_id: int, ask: SwapAsk, exercise_id: str, *, now: str
) -> None:
    """Forget a preferred stand-in, recorded for undo."""
    entry = exercise(exercise_id, "exercise")
    words = f"{entry.name} not pinned any more"
    with store.recorded(
        con, trainer_id, scope=f"place:{ask.place_id}", kind="favourite", words=words, now=now
    ):
        store.drop_favourite(con, trainer_id, wanted_key(ask), entry.id)


def set_aside(
    con: store.Connection, trainer_id: int, ask: SwapAsk, chosen: str, memo: Memo, *, now: str
) -> None:
    """Set everything that a stand-in uses aside for the client, recorded for undo.

    Raises InputError when it is not among the candidates any more.
    """
    view = swap_view(con, trainer_id, ask, memo)
    candidates = view.ranking.candidates if view.ranking is not None else ()
    found = next((c for c in candidates if c.exercise.id == chosen), None)
    if found is None:
        raise InputError(
            "exercise", chosen, "one of the stand-ins listed now; the room changed since"
        )
    used = {*found.row.items(), *(piece.item for piece in found.pieces)}
    items = [item.id for item in view.room.items if item.key in used]
    words = (
        f"{len(items)} item{'' if len(items) == 1 else 's'} set aside for the "
        f"{view.client.name.lower()}"
    )
    with store.recorded(
        con, trainer_id, scope=f"place:{ask.place_id}", kind="aside", words=words, now=now
    ):
        store.set_aside(con, trainer_id, items, view.client.id, now=now)


def give_back(con: store.Connection, trainer_id: int, ask: SwapAsk, *, now: str) -> None:
    """Free everything the client has set aside, recorded for undo."""
    client = store.client(con, trainer_id, ask.client_id)
    words = f"what the {client.name.lower()} had is free again"
    with store.recorded(
        con, trainer_id, scope=f"place:{ask.place_id}", kind="aside", words=words, now=now
    ):
        store.give_back(con, trainer_id, client.id)
