"""What the Swap page says beside a ranking: set-up checks, changes, favourites, items set aside,
questions back.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from widearc import store
from widearc.core.answers import Beside, Kinder, beside, kinder_setups, muscle_match, muscle_thirds
from widearc.core.errors import InputError, one_of
from widearc.core.exercises import exercise_of
from widearc.core.muscle import NAMES
from widearc.core.search import Candidate, Memo
from widearc.core.statics import Curve
from widearc.core.words import UNSAID, Count, Listed, Name, Said, Share, Term, Words, joined
from widearc.usecases.arc.arc import muscles
from widearc.usecases.client.strength import equal_reps, strength_of_sets
from widearc.usecases.holdings import Holdings
from widearc.usecases.sheet import SheetError
from widearc.usecases.swap.swap import SwapView, swap_view
from widearc.usecases.swap.wanted import SwapAsk, wanted_key

GAINS = 0.08  # of the work: a muscle whose share changes by less is not named
LONGEST_REASON = 200

CHANGES = ("Gains: {muscles}.", "Loses: {muscles}.")


def changes(chosen: Candidate, wanted: Curve | None, columns: Beside) -> tuple[Words, ...]:
    """Return what is otherwise with a stand-in: muscles, low back, slack, grip, steadiness, failing
    alone, time, step.
    """
    said: list[Words] = []
    if wanted is not None:
        said += _muscle_changes(wanted, chosen.curve)
    spine = columns.cell("spine")
    said += [spine] if columns["spine"] is not None else [columns.cell("axial")]
    said += [_slack(chosen, columns), columns.cell("hand_kg")]
    links = joined(*map(_link, chosen.exercise.limits))
    if links:
        said.append(Said("May give out before the muscle: {links}.", links=links))
    cells = (columns.cell(n) for n in ("steady", "alone", "minutes", "step"))
    said.append(Said("{columns}.", columns=joined(*cells, by="; ")))
    return tuple(text for text in said if text)


def _link(name: str) -> Said:
    """Return a link that gives out, with what relieves it."""
    if name not in RELIEFS:
        return Said("{link}", link=Term(name))
    return Said("{link} ({relief})", link=Term(name), relief=Term(RELIEFS[name]))


def _slack(chosen: Candidate, columns: Beside) -> Said:
    """Return what is said of slack, and of which band or spring, where there is one."""
    said = columns.cell("slack")
    elastic = {p.label for p in chosen.pieces if p.kind in ("band", "spring")}
    if not said or len(elastic) != 1:
        return said
    share = said.value("share")
    return Said("{name} hangs slack for {share} of the way.", name=Name(elastic.pop()), share=share)


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


def _muscle_changes(wanted: Curve, own: Curve) -> list[Said]:
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
    for words, groups in zip(CHANGES, (more, less), strict=True):
        named = tuple(
            Said(
                "{muscle} ({before} to {after} of the work)",
                muscle=Term(NAMES[g]),
                before=Share(shares[0][g]),
                after=Share(shares[1][g]),
            )
            for g in groups
        )
        said += [Said(words, muscles=Listed(named))] if named else []
    return said


def kinder_ways(view: SwapView, chosen: Candidate) -> dict[str, tuple[Kinder, ...]]:
    """Return, for each sore joint of the client, what asks less of it with the chosen exercise at
    the same work.
    """
    if view.question is None:
        return {}
    found = {
        joint: kinder_setups(chosen, view.question, joint)
        for joint in sorted(view.question.rules.sore)
    }
    return {joint: ways for joint, ways in found.items() if ways}


def columns_of(view: SwapView) -> dict[str, Beside]:
    """Return every candidate's columns by exercise id."""
    assert view.ranking is not None
    assert view.question is not None
    return {c.exercise.id: beside(c, view.question) for c in view.ranking.candidates}


def muscle_column(view: SwapView, group: str) -> dict[str, float]:
    """Return how much of a muscle's wanted work over its own length each candidate has, 0 to 1, by
    exercise id.

    Raises InputError for a group that is not there, or an intent (it asks joints, not muscles).
    """
    assert view.ranking is not None
    if group not in NAMES:
        raise InputError("muscle", group, one_of(NAMES))
    if view.wanted is None:
        raise InputError(
            "muscle", group, Said("an exercise to replace: an intent asks for joints, not muscles")
        )
    asked = muscle_thirds(view.wanted, group)
    if asked is None or sum(asked) < 1.0:
        name = view.wanted.setup.exercise.name.lower()
        raise InputError(
            "muscle", group, Said("a muscle that the {name} gives work to", name=Name(name))
        )
    return {
        c.exercise.id: muscle_match(asked, muscle_thirds(c.curve, group))
        for c in view.ranking.candidates
    }


def reps_of(con: store.Connection, trainer_id: int, view: SwapView, chosen: Candidate) -> Said:
    """Return the reps of a stand-in that come as close to failure, or why none can be said."""
    if view.wanted is None:
        return UNSAID
    held = view.held or Holdings(con, trainer_id)
    known = strength_of_sets(held.strength_sets(view.client.id))
    found = equal_reps(view.wanted, chosen.curve, known, view.ask.reps)
    return found.words


@store.at_once
def keep_favourite(
    con: store.Connection, trainer_id: int, ask: SwapAsk, exercise_id: str, reason: str, *, now: str
) -> None:
    """Keep a stand-in as preferred for what is wanted, with the reason, recorded for undo.
    SheetError at "reason".
    """
    entry = exercise_of(exercise_id, "exercise")
    clean = " ".join(reason.split())
    if not 1 <= len(clean) <= LONGEST_REASON:
        raise SheetError(
            {
                "reason": Said(
                    "“{clean}” is not kept: a reason of 1 to {most} characters",
                    clean=Name(clean[:20]),
                    most=Count(LONGEST_REASON),
                )
            }
        )
    words = Said("{name} pinned: {clean}", name=Name(entry.name), clean=Name(clean))
    with store.recorded(
        con, trainer_id, scope=f"place:{ask.place_id}", kind="favourite", words=words, now=now
    ):
        row = store.Favourite(wanted=wanted_key(ask), exercise=entry.id, reason=clean, kept_at=now)
        store.put_favourite(con, trainer_id, row)


@store.at_once
def drop_favourite(
    con: store.Connection, trainer_id: int, ask: SwapAsk, exercise_id: str, *, now: str
) -> None:
    """Forget a preferred stand-in, recorded for undo."""
    entry = exercise_of(exercise_id, "exercise")
    words = Said("{name} not pinned any more", name=Name(entry.name))
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
            "exercise", chosen, Said("one of the stand-ins listed now; the room changed since")
        )
    used = {*found.row.items(), *(piece.item for piece in found.pieces)}
    items = [item.id for item in view.room.items if item.key in used]
    words = Said(
        "{items} item set aside for the {name}",
        "{items} items set aside for the {name}",
        items=Count(len(items)),
        name=Name(view.client.name, lower=True),
    )
    with store.recorded(
        con, trainer_id, scope=f"place:{ask.place_id}", kind="aside", words=words, now=now
    ):
        store.set_aside(con, trainer_id, items, view.client.id, now=now)


@store.at_once
def give_back(con: store.Connection, trainer_id: int, ask: SwapAsk, *, now: str) -> None:
    """Free everything the client has set aside, recorded for undo."""
    client = store.client(con, trainer_id, ask.client_id)
    words = Said("what the {name} had is free again", name=Name(client.name, lower=True))
    with store.recorded(
        con, trainer_id, scope=f"place:{ask.place_id}", kind="aside", words=words, now=now
    ):
        store.give_back(con, trainer_id, client.id)
