"""Where a thing that is missing may be had: what is near to it here, by zone, and in the trainer's
other places.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping

from widearc.core.kit import Kit, meeting, near
from widearc.core.words import Listed, Name, Said, Term, Value
from widearc.store import ItemRow
from widearc.usecases.swap.swap import SwapView

WHY_NEAR: Mapping[str, str] = {
    "anchor behind": "too high",
    "anchor under the feet": "too high",
    "short loop": "too long for the thighs",
    "boxes": "not of one height",
}
"""Why what is near does not do as it is, where that is known."""


def elsewhere_of(view: SwapView) -> dict[str, Value]:
    """Return, by exercise id, where what is missing or taken stands, or what is near to it; only
    where there is any.
    """
    if view.ranking is None or view.question is None or view.held is None:
        return {}
    others: dict[str, Kit] | None = None
    found: dict[str, Value] = {}
    for out in view.ranking.excluded:
        if out.taken:
            zones = _zones([i for i in view.room.items if i.key in out.taken])
            if zones:
                found[out.exercise.id] = Said("it stands in {zones}", zones=zones)
            continue
        if not out.need:
            continue
        if others is None:
            # other places are read only where something is missing
            others = {
                place.name: view.held.at(place.id).kit
                for place in view.room.places
                if place.id != view.room.place.id
            }
        words = _words(out.need, view, others)
        if words:
            found[out.exercise.id] = words
    return found


def _words(need: str, view: SwapView, others: Mapping[str, Kit]) -> Listed:
    assert view.question is not None
    said = []
    close = {item.id for item in near(need, view.question.free)}
    here = [i for i in view.room.items if i.key in close]
    if here:
        why = Term(WHY_NEAR.get(need, "but that is not the same"))
        said.append(Said("free here: {things}, {why}", things=_listed(here), why=why))
    places = [name for name, kit in others.items() if meeting(need, kit)]
    if places:
        words = "there are two in {places}" if need == "boxes" else "there is one in {places}"
        said.append(Said(words, places=Listed(tuple(map(Name, places[:2])), "and")))
    return Listed(tuple(said), "; ")


def _listed(items: Iterable[ItemRow]) -> Listed:
    """Return things with their zones: two eyes in zone B, a bench in zone A."""
    counted = Counter((i.name.lower(), i.zone) for i in items)
    parts = []
    for (name, zone), n in list(counted.items())[:3]:
        thing = Name(f"{n} × {name}" if n > 1 else name)
        parts.append(
            Said("{thing} in zone {zone}", thing=thing, zone=Name(zone)) if zone else thing
        )
    return Listed(tuple(parts))


def _zones(items: Iterable[ItemRow]) -> Listed:
    zones = sorted({i.zone for i in items if i.zone})
    return Listed(tuple(Said("zone {zone}", zone=Name(zone)) for zone in zones), "and")
