"""Demands at the joints from every force on one side, and the energy audit that checks them."""

from widearc.core.statics.audit import Audit, audit
from widearc.core.statics.demand import Curve, curve, demand_from_above_nm, demand_nm

__all__ = ["Audit", "Curve", "audit", "curve", "demand_from_above_nm", "demand_nm"]
