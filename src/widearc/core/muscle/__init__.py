"""Muscles of the leg: lengths, moment arms, how they share a demand, and what trains them over
their own length.

Knows no exercise: angles and demands come in as arrays. Limits: sagittal plane; muscles of the side
of the hip have no frontal path here. Source and licence of the paths: NOTICE.md.
"""

from widearc.core.muscle.data import GROUPS, HOLD_DEG
from widearc.core.muscle.paths import FMAX_N, JOINTS, MUSCLES, Paths, paths_of, ranges_m, scale_of
from widearc.core.muscle.said import NAMES, positive_work_j, sentences
from widearc.core.muscle.sharing import share_n
from widearc.core.muscle.trained import THIRDS, GroupUse, MuscleUse, muscle_use

__all__ = [
    "FMAX_N",
    "GROUPS",
    "HOLD_DEG",
    "JOINTS",
    "MUSCLES",
    "NAMES",
    "THIRDS",
    "GroupUse",
    "MuscleUse",
    "Paths",
    "muscle_use",
    "paths_of",
    "positive_work_j",
    "ranges_m",
    "scale_of",
    "sentences",
    "share_n",
]
