"""Demands at the joints from every force on one side, what else they tell, and the energy audit
that checks them.
"""

from widearc.core.statics.demand import Curve, curve, curves_in_parts, demand_from_above_nm
from widearc.core.statics.dynamic import STEPS, dynamic_nm, inertia_percent
from widearc.core.statics.energy_audit import Audit, audit
from widearc.core.statics.frontal import frontal_nm, grip_n
from widearc.core.statics.hits import SHARED, Doubt, closure_variants, moved, sources_of
from widearc.core.statics.lines import line_of_force
from widearc.core.statics.muscular import asked_of_muscles
from widearc.core.statics.peaks import LOW_BACK, joint_peak_nm
from widearc.core.statics.points import knee_past_toes_m, points_of
from widearc.core.statics.rows import row_of
from widearc.core.statics.spine import OCCUPATIONAL_N, lumbar
from widearc.core.statics.summary import (
    joint_work_j,
    low_back_ratio,
    mean_split,
    share_near_straight,
)
from widearc.core.statics.together import Gathered, Share, computed, computed_across, gathered
from widearc.core.statics.uncertainty import (
    BodyUncertainty,
    body_variants,
    demand_error_nm,
    load_variants,
    uncertainty_of,
    variant_curve,
)
from widearc.core.statics.whole_effort import leg_effort, peak_effort, whole_effort

__all__ = [
    "LOW_BACK",
    "OCCUPATIONAL_N",
    "SHARED",
    "STEPS",
    "Audit",
    "BodyUncertainty",
    "Curve",
    "Doubt",
    "Gathered",
    "Share",
    "asked_of_muscles",
    "audit",
    "body_variants",
    "closure_variants",
    "computed",
    "computed_across",
    "curve",
    "curves_in_parts",
    "demand_error_nm",
    "demand_from_above_nm",
    "dynamic_nm",
    "frontal_nm",
    "gathered",
    "grip_n",
    "inertia_percent",
    "joint_peak_nm",
    "joint_work_j",
    "knee_past_toes_m",
    "leg_effort",
    "line_of_force",
    "load_variants",
    "low_back_ratio",
    "lumbar",
    "mean_split",
    "moved",
    "peak_effort",
    "points_of",
    "row_of",
    "share_near_straight",
    "sources_of",
    "uncertainty_of",
    "variant_curve",
    "whole_effort",
]
