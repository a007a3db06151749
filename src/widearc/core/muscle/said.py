"""What a movement does for the muscles, in plain sentences."""

from __future__ import annotations

import numpy as np

from widearc.core.muscle.data import GROUPS
from widearc.core.muscle.trained import THIRDS, GroupUse, MuscleUse
from widearc.core.words import UNSAID, Moment, Said, Share, Term

NAMES = {
    "rectus_femoris": "rectus femoris",
    "vasti": "vasti",
    "long_hamstrings": "long hamstrings",
    "biceps_femoris_short_head": "short head of biceps femoris",
    "gluteus_maximus": "gluteus maximus",
    "gluteus_medius": "gluteus medius",
    "adductor_magnus": "adductor magnus",
    "gastrocnemius": "gastrocnemius",
    "soleus": "soleus",
    "hip_flexors": "hip flexors",
    "tibialis_anterior": "tibialis anterior",
    "gracilis": "gracilis",
    "sartorius": "sartorius",
    "tensor_fasciae_latae": "tensor fasciae latae",
}
PLURAL = ("vasti", "long_hamstrings", "hip_flexors")
TENSE = 0.04  # of the greatest tension here: less is not spoken of
LITTLE = 0.10  # of the positive work: less is "hardly trained"
STILL_SHARE = 0.12  # of its own range: who shortens by less under its tension hardly shortens
UNANSWERED = 1e-3
HELD_NM = 3.0  # less is not spoken of


def positive_work_j(use: MuscleUse) -> float:
    """Return the positive work of all groups, J."""
    return float(sum(max(0.0, use.of(group).work_j) for group in GROUPS))


def sentences(use: MuscleUse) -> tuple[Said, ...]:
    """Return what stands out: where the work is done, and what is under tension and yet hardly
    trained.
    """
    groups = [use.of(name) for name in GROUPS]
    total = positive_work_j(use)
    most = max(float(g.force_n.max()) for g in groups)
    if total <= 0 or most <= 0:
        return ()
    said: list[Said] = []
    first = max(groups, key=lambda g: g.work_j)
    third = THIRDS[max(range(3), key=lambda i: first.thirds_j[i])]
    share = max(first.thirds_j) / first.work_j
    said.append(
        Said(
            "{muscle}: {share} of the work, {part} of that in the {third} third of the muscle’s "
            "own length.",
            begins=True,
            muscle=Term(NAMES[first.group]),
            share=Share(first.work_j / total),
            part=Share(share),
            third=Term(third),
        )
    )
    for group in groups:
        tense = float(group.force_n.max()) >= TENSE * most and group.work_j <= LITTLE * total
        if group is not first and tense:
            said += filter(bool, [_hardly(group, total)])
    if float(np.abs(use.held_nm).max()) > HELD_NM:
        said.append(
            Said(
                "The straight knee itself holds up to {moment}: ligaments, not muscles.",
                moment=Moment(float(np.abs(use.held_nm).max())),
            )
        )
    if use.unanswered > UNANSWERED:
        said.append(
            Said(
                "Up to {share} of the demand is answered by no muscle of this model.",
                share=Share(use.unanswered),
            )
        )
    return tuple(said)


def _hardly(group: GroupUse, total: float) -> Said:
    """Return a sentence for a group that is tense and does little, nothing where it works as it
    should.
    """
    name, share = Term(NAMES[group.group]), group.work_j / total
    many = group.group in PLURAL
    if share < -0.02:
        words = "{muscle}: under tension while it gets longer, as a brake."
        if many:
            words = "{muscle}: under tension while they get longer, as a brake."
        return Said(words, muscle=name, begins=True)
    if group.opposed and abs(group.travel) <= STILL_SHARE:
        return Said(
            "{muscle}: lengthened at one joint, shortened at the other; {share} of the work.",
            begins=True,
            muscle=name,
            share=Share(share),
        )
    if abs(group.travel) > STILL_SHARE:
        return UNSAID
    words = "{muscle}: under tension, but it hardly shortens there: {share} of the work."
    if many:
        words = "{muscle}: under tension, but they hardly shorten there: {share} of the work."
    return Said(words, muscle=name, share=Share(max(share, 0.0)), begins=True)
