"""Demands at the joints from every force on one side, what else they tell, and the energy audit that checks them."""

from widearc.core.statics.audit import Audit, audit
from widearc.core.statics.demand import Curve, curve, curves_in_parts, demand_from_above_nm, demand_nm
from widearc.core.statics.dynamic import STEPS, dynamic_nm, inertia_percent, lifted
from widearc.core.statics.frontal import frontal_nm, grip_n
from widearc.core.statics.lines import LineOfForce, line_of_force
from widearc.core.statics.spine import OCCUPATIONAL_N, Lumbar, lumbar

__all__ = [
    "OCCUPATIONAL_N",
    "STEPS",
    "Audit",
    "Curve",
    "LineOfForce",
    "Lumbar",
    "audit",
    "curve",
    "curves_in_parts",
    "demand_from_above_nm",
    "demand_nm",
    "dynamic_nm",
    "frontal_nm",
    "grip_n",
    "inertia_percent",
    "lifted",
    "line_of_force",
    "lumbar",
]
