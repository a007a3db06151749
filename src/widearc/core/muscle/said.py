"""What a movement does for the muscles, in plain sentences."""

from __future__ import annotations

import numpy as np

from widearc.core.muscle.data import GROUPS
from widearc.core.muscle.trained import THIRDS, GroupUse, MuscleUse

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


def sentences(use: MuscleUse) -> tuple[str, ...]:
    """Return what stands out: where the work is done, and what is under tension and yet hardly
    trained.
    """
    groups = [use.of(name) for name in GROUPS]
    total = positive_work_j(use)
    most = max(float(g.force_n.max()) for g in groups)
    if total <= 0 or most <= 0:
        return ()
    said = []
    first = max(groups, key=lambda g: g.work_j)
    third = THIRDS[max(range(3), key=lambda i: first.thirds_j[i])]
    share = max(first.thirds_j) / first.work_j
    said.append(
        f"{_name(first)}: {100 * first.work_j / total:.0f} % of the work, {100 * share:.0f} % of "
        f"that in the {third} "
        "third of the muscle’s own length."
    )
    for group in groups:
        tense = float(group.force_n.max()) >= TENSE * most and group.work_j <= LITTLE * total
        if group is not first and tense:
            said += filter(None, [_hardly(group, total)])
    if float(np.abs(use.held_nm).max()) > HELD_NM:
        said.append(
            f"The straight knee itself holds up to {np.abs(use.held_nm).max():.0f} N·m: ligaments, "
            "not muscles."
        )
    if use.unanswered > UNANSWERED:
        said.append(
            f"Up to {100 * use.unanswered:.0f} % of the demand is answered by no muscle of this "
            "model."
        )
    return tuple(said)


def _name(group: GroupUse) -> str:
    name = NAMES[group.group]
    return name[0].upper() + name[1:]


def _hardly(group: GroupUse, total: float) -> str:
    """Return a sentence for a group that is tense and does little, an empty text where it works as
    it should.
    """
    share = 100 * group.work_j / total
    they = "they" if group.group in PLURAL else "it"
    if group.work_j < -0.02 * total:
        gets = "get" if they == "they" else "gets"
        return f"{_name(group)}: under tension while {they} {gets} longer, as a brake."
    if group.opposed and abs(group.travel) <= STILL_SHARE:
        return (
            f"{_name(group)}: lengthened at one joint, shortened at the other; {share:.0f} % of "
            "the "
            "work."
        )
    if abs(group.travel) > STILL_SHARE:
        return ""
    short = "shorten" if they == "they" else "shortens"
    return (
        f"{_name(group)}: under tension, but {they} hardly {short} there: {max(share, 0.0):.0f} "
        "% of "
        "the work."
    )
