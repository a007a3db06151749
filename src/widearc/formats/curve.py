"""A curve as a document."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import CENTRES_DEG
from widearc.core.dose import RepStyle, Tempo, dose_on_grid
from widearc.core.equipment import Line
from widearc.core.movement import Motion
from widearc.core.muscle import GROUPS, muscle_use
from widearc.core.statics import (
    STEPS,
    Audit,
    Curve,
    asked_of_muscles,
    audit,
    dynamic_nm,
    frontal_nm,
    grip_n,
    lumbar,
)
from widearc.core.strength import ACTIONS as STRENGTH_ACTIONS
from widearc.core.strength import strength_nm
from widearc.core.units import DEG, to_deg
from widearc.formats.documents import check
from widearc.words import plain

ACTIONS = MappingProxyType(
    {
        "hip": "hip_extension",
        "knee": "knee_extension",
        "ankle": "plantarflexion",
        "hip_abduction": "hip_abduction",
    }
)


STANDS_STILL = 1e-4 * DEG  # a joint that turns less is left out of the angles


def curve_document(
    curve: Curve,
    strength_scale: Mapping[str, float] | None = None,
    row: int = 0,
    *,
    style: RepStyle | None = None,
    tempo: Tempo | None = None,
) -> dict[str, Any]:
    """Return the wide-arc/curve document of one set-up, checked by its schema.

    style or tempo add the dose over each prime joint, a tempo also the demands with inertia.
    """
    motion, setup = curve.motion, curve.setup
    balance = audit(curve)
    strength, effort = _strength(curve, strength_scale or {}, row)
    frontal = frontal_nm(setup, motion)
    demand = {ACTIONS[name]: _list(value[row]) for name, value in curve.demand_nm.items()}
    if frontal is not None:
        demand["hip_abduction"] = _list(frontal[row])
    document: dict[str, Any] = {
        "format": "wide-arc/curve",
        "version": 1,
        "exercise": setup.exercise.id,
        "working_legs": motion.legs,
        "position": _list(motion.position),
        "angles_deg": {
            name: _list(to_deg(motion.angles[name][row]))
            for name in (*curve.demand_nm, "mtp")
            if name in motion.angles and np.ptp(motion.angles[name][row]) > STANDS_STILL
        },
        "demand_nm": demand,
        "points_m": {
            name: _points(motion.full(point), row) for name, point in sorted(motion.points.items())
        },
        "loads": [_load_part(curve, index, row) for index in range(len(setup.loads))],
        "contacts": _contacts(motion, row),
        "other_joints": [
            {
                "joint": name,
                "angle_deg": _list(to_deg(motion.angles[name][row])),
                "demand_nm": _list(value[row]),
            }
            for name, value in curve.other_nm.items()
        ],
        "energy_j": {
            "gravity": _list(motion.gravity_j()[row]),
            "elastic": _list(motion.elastic_j()[row]),
        },
        "audit": {
            "joint_work_j": _number(balance.joint_work_j[row]),
            "energy_change_j": _number(balance.energy_change_j[row]),
            "relative_error": float(balance.relative_error[row]),
        },
        "strength_nm": strength,
        "effort": effort,
        "marks": {
            name: _list(motion.full(value)[row]) for name, value in sorted(motion.marks.items())
        },
        "warnings": _warnings(curve, balance, row, tempo),
        "assumptions": [plain(said) for said in motion.assumptions],
    }
    if curve.lowering_nm is not None:
        down = {ACTIONS[name]: _list(value[row]) for name, value in curve.lowering_nm.items()}
        document["lowering"] = {"demand_nm": down}
    if motion.path_travel is not None and motion.path_force is not None:
        document["path"] = {
            "travel_m": _list(motion.path_travel[row]),
            "force_n": _list(motion.path_force[row]),
        }
    document |= _derived(curve, row, style, tempo)
    document |= _muscles(curve, row)
    check(document, "curve")
    return document


def _contacts(motion: Motion, row: int) -> list[dict[str, Any]]:
    """Return where the body is carried: point m and force N along the lift."""
    return [
        {
            "at": force.source.removeprefix("contact "),
            "point_m": _points(motion.full(force.point), row),
            "force_n": _points(motion.full(force.force), row),
        }
        for force in motion.forces
        if force.source.startswith("contact")
    ]


def _warnings(curve: Curve, balance: Audit, row: int, tempo: Tempo | None) -> list[dict[str, str]]:
    """Return what a reader of the numbers must know."""
    found = [{"code": n.code, "text": plain(n.text)} for n in curve.motion.notices if n.where[row]]
    if not balance.balances[row]:
        text = (
            f"energy does not balance ({100 * balance.relative_error[row]:.1f} %): do not trust "
            "these numbers"
        )
        found.append({"code": "energy-does-not-balance", "text": text})
    if tempo is not None and curve.demand_nm and curve.setup.exercise.variant in STEPS:
        text = "inertia is not computed for a step: balance at rest does not describe a fast one"
        found.append({"code": "inertia-not-computed", "text": text})
    return found


def _muscles(curve: Curve, row: int) -> dict[str, Any]:
    """Return tension and place in its own range of each muscle group, where a leg joint is asked
    something.
    """
    angles, demand = asked_of_muscles(curve, row)
    if not demand:
        return {}
    use = muscle_use(angles, demand, curve.setup.body)
    groups = {name: use.of(name) for name in GROUPS}
    return {
        "muscles": {
            name: {
                "force_n": _list(g.force_n),
                "length_fraction": _list(g.fraction),
                "work_j": _number(g.work_j),
            }
            for name, g in groups.items()
        }
    }


def _derived(curve: Curve, row: int, style: RepStyle | None, tempo: Tempo | None) -> dict[str, Any]:
    """Return grip, spine, a pendulum's period, and what style and tempo add."""
    motion, setup = curve.motion, curve.setup
    part: dict[str, Any] = {}
    grip, spine = grip_n(setup, motion), lumbar(setup, motion)
    if grip is not None:
        part["grip_n"] = _list(grip[row])
    if spine is not None:
        part["lumbar"] = {
            "moment_nm": _list(spine.moment_nm[row]),
            "compression_n": _list(spine.compression_n[row]),
        }
    if "period_s" in motion.marks:
        part["period_s"] = _number(motion.marks["period_s"][row, 0])
    if style is not None or tempo is not None:
        doses = {}
        for action in setup.exercise.prime:
            bins = dose_on_grid(curve, action, style or RepStyle(), tempo or Tempo(), row)
            used = np.flatnonzero(bins > 0)
            if used.size:
                span = slice(int(used.min()), int(used.max()) + 1)
                doses[action.label] = {
                    "angle_deg": CENTRES_DEG[span].tolist(),
                    "nms_per_deg": _list(bins[span]),
                }
        part["dose"] = doses
    if tempo is not None and curve.demand_nm:
        fast = dynamic_nm(curve, tempo.lifting_s)
        if fast:
            part["dynamic"] = {
                "demand_nm": {ACTIONS[name]: _list(value[row]) for name, value in fast.items()}
            }
    return part


def _strength(
    curve: Curve, scale: Mapping[str, float], row: int
) -> tuple[dict[str, list[float]], dict[str, list[float]]]:
    """Return strength (N·m) and effort for the actions whose scale is known; both empty without
    one.
    """
    body, strength, effort = curve.setup.body, {}, {}
    for name, demand in curve.demand_nm.items():
        action = ACTIONS[name]
        if action in scale and action in STRENGTH_ACTIONS:
            can = scale[action] * strength_nm(
                action,
                curve.motion.angles[name][row],
                mass_kg=body.mass_kg,
                stature_m=body.stature_m,
                sex=body.sex.value,
            )
            strength[action], effort[action] = _list(can), _list(demand[row] / can)
    return strength, effort


def _load_part(curve: Curve, index: int, row: int) -> dict[str, Any]:
    motion, load = curve.motion, curve.setup.loads[index]
    part: dict[str, Any] = {"kind": load.kind}
    forces = [f for f in motion.forces if f.source == f"load {index}"]
    if forces:
        force = motion.full(forces[-1].force)[:, row]
        size = np.hypot(force[0], force[1])
        towards = np.divide(force, size, out=np.zeros_like(force), where=size > 0)
        part |= {
            "force_n": _list(size),
            "point_m": _points(motion.full(forces[-1].point), row),
            "direction": [[_number(x), _number(y)] for x, y in towards.T],
        }
    if index in motion.load_lengths:
        length = motion.load_lengths[index]
        part["length_m"] = _list(length[row])
        if isinstance(load, Line) and load.on_parts and not forces:
            part["force_n"] = _list(motion.full(load.pull_n(length, lowering=False))[row])
    if load.on_path and motion.path_force is not None:
        part["force_n"] = _list(motion.path_force[row])
    return part


def _number(value: float) -> float:
    return float(round(float(value), 6)) + 0.0


def _list(values: Array | Sequence[float]) -> list[float]:
    return [_number(v) for v in values]


def _points(values: Array, row: int) -> list[list[float]]:
    return [[_number(x), _number(y)] for x, y in values[:, row].T]
