"""What a stand-in asks of a client's sore joints, beside what the wanted lift asks."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.intent import Intent
from widearc.core.kit import Rules
from widearc.core.matching import Target
from widearc.core.search.candidate import Candidate
from widearc.core.statics import Curve, joint_peak_nm

HARDER = 1.05
"""How far over the wanted lift's peak a stand-in is called harder on a joint."""
LEAST_NM = 5.0  # a joint that is asked less is not asked
STEP = 0.1  # of the wanted peak: joints asked so alike are spared alike


@dataclass(frozen=True, slots=True, kw_only=True)
class Sore:
    """A client's sore joints, with what the wanted lift asks of each at most, N·m (0: nothing, or
    the low back of an intent).
    """

    wanted_nm: Mapping[str, float]

    def shares(self, own: Curve) -> Mapping[str, float]:
        """Return by sore joint a set-up's peak there, either leg, over the wanted lift's; where
        that asks nothing, 0 for nothing and 2 for something.
        """
        return {
            joint: _share(joint_peak_nm(own, joint), wanted)
            for joint, wanted in self.wanted_nm.items()
        }

    def harder(self, own: Curve) -> tuple[str, ...]:
        """Return the sore joints of which a set-up asks over a twentieth more than the wanted
        lift.
        """
        return tuple(joint for joint, share in self.shares(own).items() if share > HARDER)

    def step(self, candidate: Candidate) -> int:
        """Return how much a stand-in asks of the sorest joint, in tenths of the wanted peak: those
        equal here are alike to it.
        """
        shares = self.shares(candidate.curve).values()
        return round(max(shares, default=0.0) / STEP)


def _share(there: float, wanted: float) -> float:
    if wanted >= LEAST_NM:
        return there / wanted
    return 0.0 if there < LEAST_NM else 2.0


def sore_of(rules: Rules, asked: Curve | Intent, target: Target) -> Sore:
    """Return a client's sore joints beside what is asked."""
    return Sore(wanted_nm={joint: _wanted_nm(joint, asked, target) for joint in sorted(rules.sore)})


def _wanted_nm(joint: str, asked: Curve | Intent, target: Target) -> float:
    if isinstance(asked, Curve):
        return joint_peak_nm(asked, joint)
    return max(
        (
            float(np.max(bins))
            for action, bins in zip(target.actions, target.bins, strict=True)
            if action.joint == joint
        ),
        default=0.0,
    )
