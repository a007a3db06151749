"""A ladder with what is proposed on it: which rung next, its reps, and what to do meanwhile."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from widearc.core.dose import Tempo
from widearc.core.kit import Kit, Machine, Piece
from widearc.core.movement import Setup
from widearc.core.progression.aims import Aim, Occasion, Proposal
from widearc.core.progression.bridge import Bridge, Harder, bridge_over, harder_ways
from widearc.core.progression.feel import by_feel
from widearc.core.progression.ladder import ladder_of
from widearc.core.progression.one_leg import OneLegStart, one_leg_start
from widearc.core.progression.purchase import ForLadder, purchase_for
from widearc.core.progression.rules import propose
from widearc.core.progression.rung import Ladder
from widearc.core.progression.steps import share_of
from widearc.core.progression.warmup import WarmUpSet, warm_up
from widearc.core.words import Said, Share


@dataclass(frozen=True, slots=True, kw_only=True)
class Advice:
    """What to do next. proposal: by the rule, its reps those of the rung; rung: which; felt: the
    same without a number, by form, range, tempo and duration; felt_rung: which; bridge: the way
    over a wide step above, None where there is none.
    """

    proposal: Proposal
    rung: int
    felt: Proposal
    felt_rung: int
    bridge: Bridge | None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LadderAnswer:
    """A ladder, what is proposed on it, what makes its present rung harder without weight, the sets
    before it, what to buy, and the start on one leg (None: nothing to say).
    """

    ladder: Ladder
    advice: Advice
    harder: tuple[Harder, ...]
    warm_up: tuple[WarmUpSet, ...]
    purchase: ForLadder | None
    start: OneLegStart | None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LadderQuestion:
    """What a ladder is asked of: a set-up of one row, its pieces, what is free; aim, what was done
    (oldest first), today as its days are counted; tempo of a rep; machine: whose stack or rail it
    is; two: what two legs did, for a start on one.
    """

    setup: Setup
    pieces: tuple[Piece, ...]
    kit: Kit
    aim: Aim
    seen: tuple[Occasion, ...]
    today: int
    tempo: Tempo
    machine: Machine | None = None
    two: Setup | None = None


def answer(question: LadderQuestion, ladder: Ladder | None = None) -> LadderAnswer:
    """Return the answer to a question; ladder: what was made of its set-up and kit before."""
    q = question
    found = ladder or ladder_of(q.setup, q.pieces, q.kit)
    return LadderAnswer(
        ladder=found,
        advice=advised(found, q.aim, q.seen, q.today),
        harder=harder_ways(found, q.tempo, q.aim.high),
        warm_up=warm_up(found),
        purchase=purchase_for(found, q.kit, q.machine),
        start=None if q.two is None else one_leg_start(q.two, found),
    )


def advised(ladder: Ladder, aim: Aim, seen: Sequence[Occasion], today: int) -> Advice:
    """Return what to do next on a ladder."""
    proposal = propose(aim, seen, today)
    felt = by_feel(aim, seen)
    bridge = None
    if ladder.above is not None and ladder.next is None and ladder.above.wide:
        bridge = bridge_over(ladder.now, ladder.above, aim.high)
    rung, said = _placed(ladder, proposal, bridge)
    felt_rung = min(max(ladder.present + felt.step, 0), len(ladder.rungs) - 1)
    return Advice(proposal=said, rung=rung, felt=felt, felt_rung=felt_rung, bridge=bridge)


def _placed(ladder: Ladder, proposal: Proposal, bridge: Bridge | None) -> tuple[int, Proposal]:
    """Return which rung a proposal leads to, and the proposal as it is there."""
    here = ladder.present
    if proposal.share is not None:
        return ladder.no_more_than(proposal.share), proposal
    if proposal.step < 0:
        return max(0, here - 1), proposal
    if not proposal.step:
        return here, proposal
    if ladder.above is None:
        top = Said("{reason} Nothing here is harder: see below.", reason=proposal.reason)
        return here, replace(proposal, step=0, reason=top)
    if ladder.next is not None:
        return _within(ladder, ladder.next, proposal)
    if bridge is None or bridge.after is None:
        # steps so small that none is a step by the rule: the one above; so wide that not one rep
        # is left after it: harder without weight first
        if bridge is None:
            return here + 1, proposal
        no = Said("{reason} The next rung is too far for one rep.", reason=proposal.reason)
        return here, replace(proposal, step=0, reason=no)
    over = Said("{reason} The step is wide: fewer reps after it.", reason=proposal.reason)
    return here + 1, replace(proposal, reason=over, reps=bridge.after)


def _within(ladder: Ladder, rung: int, proposal: Proposal) -> tuple[int, Proposal]:
    """Return the next rung unless it is more than the rule allows."""
    share = share_of(ladder.now, ladder.rungs[rung])[0]
    if proposal.most is None or share <= proposal.most + 1e-9:
        return rung, proposal
    words = Said(
        "{reason} The next rung is {share} more: not yet.",
        reason=proposal.reason,
        share=Share(share),
    )
    return ladder.present, replace(proposal, step=0, reason=words)
