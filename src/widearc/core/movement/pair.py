"""The level pair between two feet: one pushes forward, the other back.

Closure: the pair of least effort over hip, knee and ankle of both legs, at every sample at most 0.4
of the smaller vertical force (a dry floor; common practice, no source). Option: a given value in N,
0 included. Without any pair a split squat's front hip would work hard even in standing.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.exercises import Options
from widearc.core.movement.effort import Push, least_effort_n, within
from widearc.core.movement.motion import LEG_JOINTS, Motion
from widearc.core.words import Said

LEG = LEG_JOINTS
REAR_LEG = tuple(f"rear_{joint}" for joint in LEG_JOINTS)

PAIR_SHARE = 0.4  # of the smaller vertical force
JUMP_SHARE = 0.10  # of it, between neighbours of 101 samples: more is a broken pose

AS_GIVEN = Said("The feet push apart as given.")
PAIR_SAYS = Said(
    "The feet push apart as costs the least effort, at most 0.4 of the smaller vertical force."
)


def pair_n(motion: Motion, body: Body, o: Options, front: Push, rear: Push) -> Array:
    """Return the force (N, (set-ups, samples)) with which the front foot pushes forward and the
    rear one back.

    A given one fades as the rear foot gives its share of the weight away.
    """
    asked = o["horizontal_pair"]
    if not isinstance(asked, str):
        return motion.full(np.atleast_2d(asked))
    bounds = [
        (PAIR_SHARE * foot.force[1], PAIR_SHARE * foot.per_newton[1]) for foot in (front, rear)
    ]
    least = within(least_effort_n(motion, body, (front, rear)), bounds)
    share = np.atleast_2d(o["pair_share"])
    return motion.full(least if np.all(share == 1.0) else within(share * least, bounds))


def refuse_broken(motion: Motion, pair: Array, front: Push, rear: Push) -> None:
    """Fail set-ups whose pair (N) the floor cannot hold, or that jumps between two samples.

    Measured by the smaller vertical force of the two feet, a jump by the greatest of it along the
    lift: where a foot leaves, it ends at nothing.
    """
    smaller = np.minimum(front.at(pair)[1], rear.at(pair)[1])
    motion.fail(
        np.abs(pair) > PAIR_SHARE * np.maximum(smaller, 0.0) + 1e-6,
        Said("the feet would slide apart or together: a smaller push between them"),
    )
    most = JUMP_SHARE * 100.0 / (motion.shape[1] - 1) * np.max(smaller, axis=1, keepdims=True)
    jumps = np.abs(np.diff(pair, axis=1)) > most + 1e-6
    bad = np.concatenate((jumps, np.zeros((motion.shape[0], 1), dtype=bool)), axis=1)
    motion.fail(bad, Said("the push between the feet would jump: another step, lean or depth"))
