"""What to check before a set-up is loaded: anchors and furniture that must hold."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from widearc.core.equipment import margin, stands
from widearc.core.kit import Anchor, hold_of
from widearc.core.search import Candidate
from widearc.core.words import Force
from widearc.usecases.swap.swap import SwapView
from widearc.words import say


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
    words = f"{anchor.name} holds {say(Force(most))} of pull"
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
