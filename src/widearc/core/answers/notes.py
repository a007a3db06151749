"""What a stand-in means for this client: sore joints, weaker side, grip, failing alone. Never a
verdict.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

import numpy as np

from widearc.core.kit import STAGES, Rules, presses_on_spine
from widearc.core.statics import LOW_BACK, Curve, grip_n, joint_peak_nm
from widearc.core.units import G
from widearc.core.words import Mass, Moment, Said, Share, Words

SAME = 0.05  # a peak that differs by less is called the same


def notes_for(own: Curve, wanted: Curve | None, rules: Rules) -> tuple[Words, ...]:
    """Return sentences on a stand-in beside what was wanted (one set-up each; None: an intent), for
    this client.

    A sore joint is given its peak demand, on either leg, beside the wanted exercise's; the low
    back also whether the load presses on the spine.
    """
    exercise = own.setup.exercise
    notes: list[Words] = [
        _sore(joint, side, own, wanted) for joint, side in sorted(rules.sore.items())
    ]
    if rules.stronger_side in ("left", "right") and _one_leg(own):
        notes.append(START_WITH["right" if rules.stronger_side == "left" else "left"])
    if rules.grip_kg is not None and (force := grip_n(own.setup, own.motion)) is not None:
        most = float(np.nanmax(force)) / G
        if most > rules.grip_kg:
            notes.append(
                Said(
                    "Each hand holds up to {most}, more than the {grip} its grip bears.",
                    most=Mass(most, whole=True),
                    grip=Mass(rules.grip_kg),
                )
            )
    if rules.alone and exercise.fails_alone == "with stops":
        notes.append(Said("Alone: set the stops before the first rep."))
    if rules.beginner and any(exercise.id in ids for ids in STAGES[1:]):
        notes.append(Said("For a beginner the static split squat comes first."))
    return tuple(notes)


START_WITH = MappingProxyType(
    {
        "left": Said("Start with the left leg: the weaker side sets the reps."),
        "right": Said("Start with the right leg: the weaker side sets the reps."),
    }
)


def _one_leg(own: Curve) -> bool:
    return own.motion.legs == 1 or own.setup.exercise.law.one_leg


def _sore(joint: str, side: str, own: Curve, wanted: Curve | None) -> Words:
    there = joint_peak_nm(own, joint)
    name: Said = SORE[side, joint] if joint != LOW_BACK else SORE_BACK[True]
    if joint == LOW_BACK:
        name = SORE_BACK[presses_on_spine(own.setup.loads)]
        if there < 1.0:
            return Said("{name}.", name=name)
        name = Said("{name}; by a single-muscle estimate", name=name)
    if wanted is None:
        return Said("{name} asked {moment} at most.", name=name, moment=Moment(there))
    if there < 1.0:
        return Said("{name} hardly loaded here.", name=name)
    asked = _beside(there, joint_peak_nm(wanted, joint))
    if _on_other_leg(own, joint):
        return Said("{name} asked {asked}, on the other leg.", name=name, asked=asked)
    return Said("{name} asked {asked}.", name=name, asked=asked)


SORE: Mapping[tuple[str, str], Said] = MappingProxyType(
    {
        ("left", "knee"): Said("Sore left knee:"),
        ("right", "knee"): Said("Sore right knee:"),
        ("both", "knee"): Said("Sore knees:"),
        ("left", "hip"): Said("Sore left hip:"),
        ("right", "hip"): Said("Sore right hip:"),
        ("both", "hip"): Said("Sore hips:"),
        ("left", "ankle"): Said("Sore left ankle:"),
        ("right", "ankle"): Said("Sore right ankle:"),
        ("both", "ankle"): Said("Sore ankles:"),
    }
)
SORE_BACK: Mapping[bool, Said] = MappingProxyType(
    {
        True: Said("Sore low back: the load presses on the spine"),
        False: Said("Sore low back: the load does not press on the spine"),
    }
)


def _beside(there: float, before: float) -> Said:
    here = Moment(there)
    if before < 1.0:
        return Said("{here} at most, where the wanted exercise hardly loads it", here=here)
    change = there / before - 1.0
    if abs(change) <= SAME:
        return Said("the same at most, {here}", here=here)
    words = "{share} more at most, {here} against {before}"
    if change < 0:
        words = "{share} less at most, {here} against {before}"
    return Said(
        words, share=Share(abs(change)), here=Moment(there, bare=True), before=Moment(before)
    )


def _on_other_leg(own: Curve, joint: str) -> bool:
    """Return whether a joint's greatest demand is not the working leg's."""
    working = own.demand_nm.get(joint)
    front = 0.0 if working is None else float(np.nanmax(np.abs(working[0])))
    return joint_peak_nm(own, joint) > front + 1.0 and front > 0
