"""What to check before a set-up is loaded: anchors and furniture that must hold."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from widearc.core.equipment import held_down, margin, stands
from widearc.core.kit import Anchor, Furniture, hold_of
from widearc.core.search import Candidate
from widearc.core.words import Force, Mass, Name, Said, Term, Times, Words
from widearc.usecases.swap.swap import SwapView


def set_up_checks(chosen: Candidate, view: SwapView) -> tuple[Words, ...]:
    """Return what to look at before the first rep: the exercise's own checks, then what this set-up
    adds.
    """
    own: list[Words] = [*map(Said, chosen.exercise.checks)]
    if chosen.row.anchor is not None:
        own += _anchor_check(chosen, chosen.row.anchor[0])
    if len(chosen.row.bands) > 1:
        own.append(Said("Bands equal on both sides, flat, none over an edge"))
    for thing in chosen.row.furniture:
        item = next((i for i in view.room.items if i.key == thing.id), None)
        if item is not None and thing.kind in ("couch", "table"):
            own += _furniture_check(chosen, thing.name, item.quantities)
    own += _hold_check(chosen, view)
    if chosen.row.springs:
        own.append(Said("Springs hooked as listed, latch closed, stop set"))
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


def _anchor_check(chosen: Candidate, anchor: Anchor) -> list[Said]:
    pull = _pull(chosen)
    if pull is None:
        return []
    most = float(np.max(np.hypot(*pull)))
    hold = hold_of(anchor)
    found = margin(hold, *pull)
    if found is None:
        words = "{anchor} holds {force} of pull: what it is rated for is not known"
        return [Said(words, anchor=Name(anchor.name), force=Force(most))]
    words = "{anchor} holds {force} of pull: it {gives_by} at {share}"
    if found.verdict == "refuse":
        words = "{anchor} holds {force} of pull: it does not, it {gives_by}. Do not use it"
    elif hold.kind == "eye":
        words = "{anchor} holds {force} of pull: rated for {share}"
    return [
        Said(
            words,
            anchor=Name(anchor.name),
            force=Force(most),
            gives_by=Term(found.gives_by),
            share=_times(found.margin),
        )
    ]


def _times(margin_: float) -> Said:
    if margin_ >= 100:
        return Said("many times that")
    return Said("{times} times that", times=Times(margin_))


def _furniture_check(chosen: Candidate, name: str, quantities: Mapping[str, float]) -> list[Said]:
    """Return whether a couch or table tips or slides under what rests on its edge, by simple
    statics.
    """
    kg = quantities.get("own_kg")
    depth = quantities.get("depth_m", 0.6)
    if kg is None:
        return [Said("{name} stands fast: its weight is not known", name=Name(name))]
    contacts = [f for f in chosen.curve.motion.forces if f.source in ON_FURNITURE]
    if not contacts:
        return [Said("{name} stands fast", name=Name(name))]
    force = -chosen.curve.motion.full(contacts[0].force)[:, 0]
    found = stands(kg, depth, quantities.get("height_m", 0.45), force[0], -force[1])
    words = "{name}, {mass}, {gives_by} only at {times} times the {force} on its edge"
    if found.verdict == "refuse":
        words = "{name}, {mass}, {gives_by} with {force} on its edge. Weigh it down or leave it"
    elif found.margin > 20:
        words = "{name}, {mass}, neither tips nor slides with {force} on its edge"
    return [
        Said(
            words,
            name=Name(name),
            mass=Mass(kg, whole=True),
            gives_by=Term(found.gives_by),
            times=Times(found.margin),
            force=Force(float(np.max(np.hypot(*force)))),
        )
    ]


def _couch_that_holds(view: SwapView) -> Furniture | None:
    """Return the heaviest free couch that the ankles go under, None where something else here holds
    them.
    """
    assert view.question is not None
    free = view.question.kit.without(frozenset(view.question.taken))
    holds = {thing.id for thing in free.things if thing.kind == "ankle hold"}
    couches = [f for f in free.furniture if f.id in holds]
    if len(couches) < len(holds):
        return None
    return max(couches, key=lambda f: f.own_kg or 0.0, default=None)


def _hold_check(chosen: Candidate, view: SwapView) -> list[Said]:
    """Return whether the couch that the ankles go under stays down."""
    couch = _couch_that_holds(view) if "ankle hold" in chosen.exercise.needs else None
    straps = [f for f in chosen.curve.motion.forces if f.source == "contact strap"]
    if couch is None or not straps:
        return []
    if couch.own_kg is None:
        return [Said("{name} stays down: its weight is not known", name=Name(couch.name))]
    up = -chosen.curve.motion.full(straps[0].force)[1, 0]
    found = held_down(couch.own_kg, up)
    words = "{name}, {mass}, lifts only at {times} times the {force} at the ankles"
    if found.verdict == "refuse":
        words = "{name}, {mass}, lifts at {force} at the ankles. Weigh it down or leave it"
    return [
        Said(
            words,
            name=Name(couch.name),
            mass=Mass(couch.own_kg, whole=True),
            times=Times(found.margin),
            force=Force(float(np.maximum(up, 0.0).max())),
        )
    ]


ON_FURNITURE = ("contact pad", "contact instep", "contact bench")
"""Contacts with what stands on the floor."""
