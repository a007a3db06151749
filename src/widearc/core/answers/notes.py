"""What a stand-in means for this client: sore joints, weaker side, grip, failing alone. Never a
verdict.
"""

from __future__ import annotations

import numpy as np

from widearc.core.kit import STAGES, Rules, presses_on_spine
from widearc.core.statics import LOW_BACK, Curve, grip_n, joint_peak_nm
from widearc.core.units import G

SAME = 0.05  # a peak that differs by less is called the same


def notes_for(own: Curve, wanted: Curve | None, rules: Rules) -> tuple[str, ...]:
    """Return sentences on a stand-in beside what was wanted (one set-up each; None: an intent), for
    this client.

    A sore joint is given its peak demand, on either leg, beside the wanted exercise's; the low
    back also whether the load presses on the spine.
    """
    exercise = own.setup.exercise
    notes = [_sore(joint, side, own, wanted) for joint, side in sorted(rules.sore.items())]
    if rules.stronger_side in ("left", "right") and _one_leg(own):
        weaker = "right" if rules.stronger_side == "left" else "left"
        notes.append(f"Start with the {weaker} leg: the weaker side sets the reps.")
    if rules.grip_kg is not None and (force := grip_n(own.setup, own.motion)) is not None:
        most = float(np.nanmax(force)) / G
        if most > rules.grip_kg:
            notes.append(
                f"Each hand holds up to {most:.0f} kg, more than the {rules.grip_kg:g} kg its "
                "grip bears."
            )
    if rules.alone and exercise.fails_alone == "with stops":
        notes.append("Alone: set the stops before the first rep.")
    if rules.beginner and any(exercise.id in ids for ids in STAGES[1:]):
        notes.append("For a beginner the static split squat comes first.")
    return tuple(notes)


def _one_leg(own: Curve) -> bool:
    return own.motion.legs == 1 or own.setup.exercise.law.one_leg


def _sore(joint: str, side: str, own: Curve, wanted: Curve | None) -> str:
    there = joint_peak_nm(own, joint)
    name = f"Sore {side} {joint}{'s' if side == 'both' else ''}:"
    if joint == LOW_BACK:
        presses = presses_on_spine(own.setup.loads)
        name = f"Sore low back: the load {'presses' if presses else 'does not press'} on the spine"
        if there < 1.0:
            return f"{name}."
        name = f"{name}; by a single-muscle estimate"
    if wanted is None:
        return f"{name} asked {there:.0f} N·m at most."
    if there < 1.0:
        return f"{name} hardly loaded here."
    return (
        f"{name} asked {_beside(there, joint_peak_nm(wanted, joint))}{_on_which_leg(own, joint)}."
    )


def _beside(there: float, before: float) -> str:
    if before < 1.0:
        return f"{there:.0f} N·m at most, where the wanted exercise hardly loads it"
    change = there / before - 1.0
    if abs(change) <= SAME:
        return f"the same at most, {there:.0f} N·m"
    words = f"{100 * abs(change):.0f} % {'more' if change > 0 else 'less'}"
    return f"{words} at most, {there:.0f} against {before:.0f} N·m"


def _on_which_leg(own: Curve, joint: str) -> str:
    """Return words where a joint's greatest demand is not the working leg's."""
    working = own.demand_nm.get(joint)
    front = 0.0 if working is None else float(np.nanmax(np.abs(working[0])))
    return ", on the other leg" if joint_peak_nm(own, joint) > front + 1.0 and front > 0 else ""
