"""Form broke: one change that the model can show, to be taken for the next set."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

import numpy as np

from widearc import store
from widearc.core.errors import InputError, PostureError
from widearc.core.kit import Kit, Machine
from widearc.core.movement import Setup
from widearc.core.movement.setup import LENGTHENED_ENDS
from widearc.core.progression.weights import Weighted, other_weights, weight_of
from widearc.core.statics import Curve, curve, grip_n
from widearc.core.units import G
from widearc.core.words import Angle, Duration, Length, Mass, Said, Share, Term, joined
from widearc.usecases.floor.lifts import LiftFacts, do_otherwise, facts_of
from widearc.usecases.holdings import Holdings

LIGHTER = (0.025, 0.15)
"""How much lighter a next set is, of the load: the heaviest in between, else the next below."""
SHALLOWER_DEG, LEAST_RANGE_DEG = 10.0, 30.0
LONGER_REST_S, SLOWER = 60, (3.0, 2.0)
WEDGE_M = 0.025


@dataclass(frozen=True, slots=True, kw_only=True)
class Proposal:
    """One change: what it is and what it does, in words; the lift as it then is. form: what
    broke.
    """

    said: Said
    form: str = ""
    facts: LiftFacts


@dataclass(frozen=True, slots=True, kw_only=True)
class _Now:
    """The lift as it is, its curve, and what is there to change it with."""

    facts: LiftFacts
    curve: Curve
    kit: Kit
    machine: Machine | None


def _less(now: _Now, setup: Setup) -> tuple[str, float] | None:
    """Return the joint that the lift asks most, and by how much less another set-up asks it at
    most, share; None where that one cannot be done.
    """
    try:
        other = curve(replace(setup, samples=51), lowering=False)
    except (PostureError, InputError):
        return None
    before = {j: float(np.abs(nm[0]).max()) for j, nm in now.curve.demand_nm.items()}
    joint = max(before, key=lambda j: before[j], default="")
    if not joint or before[joint] <= 0.0 or joint not in other.demand_nm:
        return ("", 0.0)
    return joint, 1.0 - float(np.abs(other.demand_nm[joint]).max()) / before[joint]


def _with_less(told: Said, less: tuple[str, float]) -> Said:
    joint, share = less
    if not joint or abs(share) < 0.005:
        return told
    words = "{told}: {joint} {share} less at most" if share > 0 else "{told}: {joint} {share} more"
    return Said(words, told=told, joint=Term(joint), share=Share(abs(share)))


def _lighter(now: _Now) -> Proposal | None:
    kg = weight_of(now.facts.setup)
    if not kg:
        return None
    below = [
        w
        for w in other_weights(now.facts.setup, now.facts.pieces, now.kit, now.machine)
        if w.kg <= kg * (1.0 - LIGHTER[0]) + 1e-9
    ]
    if not below:
        return None
    found: Weighted = below[-1]
    less = _less(now, found.setup)
    if less is None:
        return None
    told = Said("lighter, {mass} instead of {mass_2}", mass=Mass(found.kg), mass_2=Mass(kg))
    facts = replace(now.facts, setup=found.setup, pieces=found.pieces)
    return Proposal(said=_with_less(told, less), facts=facts)


def _shallower(now: _Now) -> Proposal | None:
    setup = now.facts.setup
    if setup.resolved.get("box") or "box_m" in setup.options:
        return None  # the box says how deep
    for start in LENGTHENED_ENDS:
        name, end = f"{start}_deg", start.removesuffix("from") + "to"
        if name not in setup.exercise.options or end not in setup.resolved:
            continue
        first, last = (float(np.rad2deg(np.ravel(setup.resolved[n])[0])) for n in (start, end))
        way = np.sign(last - first)
        if abs(last - first) < LEAST_RANGE_DEG + SHALLOWER_DEG:
            return None
        deg = 5.0 * round((first + way * SHALLOWER_DEG) / 5.0)
        other = setup.like({**setup.options, name: deg}, setup.loads)
        less = _less(now, other)
        if less is None:
            return None
        told = Said(
            "stop short, at {angle} instead of {angle_2}",
            angle=Angle.of_deg(deg),
            angle_2=Angle.of_deg(first),
        )
        return Proposal(said=_with_less(told, less), facts=replace(now.facts, setup=other))
    return None


def _wedge(now: _Now) -> Proposal | None:
    setup = now.facts.setup
    if "heel_wedge_m" not in setup.exercise.options or setup.resolved.get("heel_wedge"):
        return None
    wedge = next((t.thick_m for t in now.kit.things if t.kind == "heel wedge" and t.thick_m), None)
    if wedge is None and not now.kit.of("plate"):
        return None
    high = WEDGE_M if wedge is None else wedge
    other = setup.like({**setup.options, "heel_wedge_m": high}, setup.loads)
    less = _less(now, other)
    if less is None:
        return None
    on_plates = Said("{length} under the heels, on plates", length=Length(high))
    on_wedge = Said("{length} under the heels, on the wedge", length=Length(high))
    said = joined(now.facts.said, Said("{length} under the heels", length=Length(high)))
    facts = replace(now.facts, setup=other, said=said)
    return Proposal(said=_with_less(on_plates if wedge is None else on_wedge, less), facts=facts)


def _straps(now: _Now) -> Proposal | None:
    grip = grip_n(now.curve.setup, now.curve.motion)
    if grip is None:
        return None
    kg = float(np.nanmax(grip[0])) / G
    told = Said("straps: one hand holds up to {mass}", mass=Mass(kg, whole=True))
    return Proposal(said=told, facts=_noted(now.facts, Said("with straps")))


def _support(now: _Now) -> Proposal | None:
    told = Said("one hand on something that stands: the same demand, less balance")
    return Proposal(said=told, facts=_noted(now.facts, Said("one hand supported")))


def _rest(now: _Now) -> Proposal | None:
    rest = (now.facts.rest_s or now.facts.setup.exercise.rest_s[0]) + LONGER_REST_S
    told = Said("longer rest: {time} between sets", time=Duration(float(rest)))
    return Proposal(said=told, facts=replace(now.facts, rest_s=rest))


def _slower(now: _Now) -> Proposal | None:
    down, up = max(SLOWER[0], now.facts.lowering_s), max(SLOWER[1], now.facts.lifting_s)
    if (down, up) == (now.facts.lowering_s, now.facts.lifting_s):
        return None
    told = Said(
        "slower, {time} down and {time_2} up: what swings adds nothing then",
        time=Duration(down),
        time_2=Duration(up),
    )
    return Proposal(said=told, facts=replace(now.facts, lowering_s=down, lifting_s=up))


def _noted(facts: LiftFacts, words: Said) -> LiftFacts:
    return replace(facts, said=joined(facts.said, words))


CHANGES: Mapping[str, tuple[Callable[[_Now], Proposal | None], ...]] = MappingProxyType(
    {
        "hips lift": (_shallower, _lighter),
        "heels lift": (_wedge, _shallower, _lighter),
        "knees cave": (_lighter, _shallower),
        "back rounds": (_shallower, _lighter),
        "grip": (_straps, _lighter),
        "balance": (_support,),
        "breath": (_rest,),
        "swing": (_slower, _lighter),
        "depth lost": (_lighter,),
    }
)
"""What is proposed for each way in which form breaks: the first that can be done (common practice,
no source).
"""


def proposal_of(
    con: store.Connection, trainer_id: int, lift: store.LiftRow, form: str, place_id: int
) -> Proposal | None:
    """Return the one change proposed after form broke so; None where nothing can be changed here.
    The room says what is free; what the lift uses itself counts as free.
    """
    facts = facts_of(lift)
    stock = Holdings(con, trainer_id).at(place_id)
    own = {item.key for item in stock.items if item.id in lift.items}
    kit = stock.kit.without(frozenset(stock.taken - own))
    machine = next((m for m in kit.machines if m.id in own), None)
    found = curve(replace(facts.setup, samples=51), lowering=False)
    now = _Now(facts=facts, curve=found, kit=kit, machine=machine)
    for change in CHANGES.get(form, ()):
        proposal = change(now)
        if proposal is not None:
            return replace(proposal, form=form)
    return None


def broke(lift: store.LiftRow, sets: Sequence[store.SetRow]) -> str:
    """Return how form broke in the last set, of either side; "" where it did not."""
    last = sets[-2:] if lift.one_sided and len(sets) % 2 == 0 else sets[-1:]
    return next((s.form for s in reversed(last) if s.form), "")


def take_proposal(
    con: store.Connection,
    trainer_id: int,
    lift: store.LiftRow,
    form: str,
    place_id: int,
    *,
    now: str,
) -> int:
    """Do what is left of a lift as proposed; return the new lift's id. InputError where nothing is
    proposed.
    """
    proposal = proposal_of(con, trainer_id, lift, form, place_id)
    if proposal is None:
        raise InputError("form", form, Said("a way in which form broke, with a change for it here"))
    return do_otherwise(con, trainer_id, lift.id, proposal.facts, why="form", now=now)
