"""What a movement asks of each muscle over the muscle's own length: tension, shortening, work in
thirds.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body
from widearc.core.muscle.fibres import short_side_factor
from widearc.core.muscle.paths import FMAX_N, JOINTS, MEMBERS, paths_of, ranges_m, scale_of
from widearc.core.muscle.sharing import share_n
from widearc.core.units import DEG

# of the larger: a net that is smaller counts as lengthened at one joint, shortened at the other
OPPOSED = 0.20
THIRDS = ("long", "middle", "short")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class MuscleUse:
    """The muscles of one leg through one lifting phase.

    force_n, length_m: (muscles, samples); fraction: length within the anatomical range, 0 shortest,
    1 longest. work_j: positive while shortening, (muscles,); thirds_j: the same by thirds of the
    range, long first, (muscles, 3). shortening_m: start less end, (muscles,); by_joint_m: the part
    of each joint, (muscles, joints). unanswered: the largest share of a demand that no muscle could
    answer. held_nm: what a straight knee itself holds, N·m (samples,), flexion asked negative, and
    held_j its work, J: Σ work_j + held_j is the work of the joints.
    """

    force_n: Array
    length_m: Array
    fraction: Array
    work_j: Array
    thirds_j: Array
    shortening_m: Array
    change_m: Array
    by_joint_m: Array
    unanswered: float
    held_nm: Array
    held_j: float

    def of(self, group: str) -> GroupUse:
        """Return a group's use, its muscles together."""
        members = MEMBERS[group]
        weight = FMAX_N[members] / FMAX_N[members].sum()
        by_joint = weight @ self.by_joint_m[members]
        net, largest = abs(float(by_joint.sum())), float(np.abs(by_joint).max())
        two = int((np.abs(self.by_joint_m[members]).sum(axis=0) > 1e-4).sum()) > 1
        return GroupUse(
            group=group,
            force_n=self.force_n[members].sum(axis=0),
            fraction=weight @ self.fraction[members],
            work_j=float(self.work_j[members].sum()),
            thirds_j=tuple(float(v) for v in self.thirds_j[members].sum(axis=0)),
            shortening_m=float(by_joint.sum()),
            most_m=float(self.change_m[members].max()),
            travel=_travel(self.force_n[members].sum(axis=0), weight @ self.fraction[members]),
            opposed=two and largest > 0.005 and net < OPPOSED * largest,
        )


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class GroupUse:
    """A muscle group's use: tension N and fraction of the range (samples,), work J, by thirds (long
    first) J.

    shortening_m: mean of its muscles by strength, start less end; most_m: of the one that changes
    most; travel: share of its range that it shortens by under its tension; opposed: lengthened at
    one joint and shortened at the other, so that it hardly changes.
    """

    group: str
    force_n: Array
    fraction: Array
    work_j: float
    thirds_j: tuple[float, ...]
    shortening_m: float
    most_m: float
    travel: float
    opposed: bool


def _travel(force: Array, fraction: Array) -> float:
    """Return how much of its range a group shortens by, weighted by tension: work over greatest
    tension and range.
    """
    most = float(force.max())
    if most <= 0:
        return 0.0
    return float(-(0.5 * (force[1:] + force[:-1]) * np.diff(fraction)).sum() / most)


STRAIGHT = 5 * DEG  # a knee that is less bent can be pushed no further: its ligaments hold


def _straight_knee(joints: list[str], demand: Array, angles: Mapping[str, Array]) -> BoolArray:
    """Return where a straight knee holds itself, (joints, samples)."""
    found = np.zeros(demand.shape, dtype=bool)
    if "knee" in joints:
        at = joints.index("knee")
        found[at] = (np.asarray(angles.get("knee", 0.0)) < STRAIGHT) & (demand[at] < 0.0)
    return found


def muscle_use(
    angles: Mapping[str, Array], demand_nm: Mapping[str, Array], body: Body
) -> MuscleUse:
    """Return what one set-up asks of the muscles.

    angles: rad (samples,) by joint, 0 where missing; demand_nm: N·m (samples,) by joint, extension
    and plantarflexion positive, only joints that no seat or pad holds. A knee under 5° that is
    pushed further straight is held by the joint itself. Limits of the model: as `paths`; other
    muscles, and whatever contracts against itself, are not in it.
    """
    scale = scale_of(body)
    found = paths_of(angles, scale)
    answering = [j for j in JOINTS if j in demand_nm]
    index = [JOINTS.index(j) for j in answering]
    demand = np.array([np.broadcast_to(demand_nm[j], found.length_m.shape[1:]) for j in answering])
    muscles_hold = ~_straight_knee(answering, demand, angles)
    arm = found.arm_m[:, index]
    force = share_n(
        arm * muscles_hold, demand * muscles_hold, short_side_factor(found.length_m / scale)
    )
    left = demand + np.einsum("mjs,ms->js", arm, force)
    held = np.where(muscles_hold, 0.0, left).sum(axis=0)
    left = np.where(muscles_hold, left, 0.0)
    largest = float(np.abs(demand).max()) if demand.size else 0.0
    shortest, longest = ranges_m(scale).T[..., None]
    fraction = (found.length_m - shortest) / (longest - shortest)
    step = -0.5 * (force[:, 1:] + force[:, :-1]) * np.diff(found.length_m, axis=1)
    middle = 0.5 * (fraction[:, 1:] + fraction[:, :-1])
    which = np.clip(np.floor((1.0 - middle) * 3.0), 0, 2)
    thirds = np.stack(
        [np.where(which == third, step, 0.0).sum(axis=1) for third in range(3)], axis=1
    )
    turn = np.array(
        [np.diff(np.broadcast_to(angles.get(j, 0.0), found.length_m.shape[1:])) for j in JOINTS]
    )
    arm = 0.5 * (found.arm_m[:, :, 1:] + found.arm_m[:, :, :-1])
    return MuscleUse(
        force_n=force,
        length_m=found.length_m,
        fraction=fraction,
        work_j=step.sum(axis=1),
        thirds_j=thirds,
        shortening_m=found.length_m[:, 0] - found.length_m[:, -1],
        change_m=np.ptp(found.length_m, axis=1),
        by_joint_m=np.einsum("mjs,js->mj", arm, turn),
        held_nm=held,
        held_j=float(-(0.5 * (held[1:] + held[:-1]) * turn[JOINTS.index("knee")]).sum()),
        unanswered=0.0 if largest <= 0 else float(np.abs(left).max() / largest),
    )
