"""Scenarios in, curves out."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits, Sex
from widearc.core.catalogue import exercise
from widearc.core.equipment import (
    Band,
    BandLaw,
    Cable,
    Chain,
    CornerBar,
    FreeMass,
    LinearLaw,
    Load,
    PointsLaw,
    Sled,
    Stack,
)
from widearc.core.errors import InputError
from widearc.core.movement import Setup
from widearc.core.statics import Curve, audit
from widearc.core.strength import strength_nm
from widearc.core.units import to_deg
from widearc.formats.documents import check

ACTIONS = MappingProxyType({"hip": "hip_extension", "knee": "knee_extension", "ankle": "plantarflexion"})


def parse_scenario(document: Any) -> tuple[Setup, Mapping[str, float]]:
    """Return the set-up of a wide-arc/scenario document and the client's strength scale per action (may be empty).

    Raises InputError (JSON pointer, value, what is allowed) and writes nothing.
    """
    check(document, "scenario")
    return parse_setup(document, document.get("body", {}), document.get("limits", {}), "")


def parse_setup(
    part: Mapping[str, Any], body: Mapping[str, Any], limits: Mapping[str, Any], where: str
) -> tuple[Setup, Mapping[str, float]]:
    """Return the set-up of a scenario's inner part; `where` is the pointer of that part."""
    try:
        setup = Setup(
            exercise=exercise(part["exercise"], "/exercise"),
            body=parse_body(body),
            limits=parse_limits(limits),
            options=part.get("options", {}),
            loads=tuple(_load(item, f"/loads/{i}") for i, item in enumerate(part.get("loads", []))),
            samples=part.get("samples", 101),
        )
    except InputError as error:
        prefix = "" if error.where.startswith(("/body", "/limits")) else where
        raise InputError(prefix + error.where, error.value, error.allowed) from None
    return setup, body.get("strength_scale", {})


def parse_body(part: Mapping[str, Any]) -> Body:
    """Return a body from its document part; the default body where a value is left out."""
    return Body(
        mass_kg=float(part.get("mass_kg", 80.0)),
        stature_m=float(part.get("stature_m", 1.80)),
        sex=Sex(part.get("sex", "mean")),
        segments=MappingProxyType({k: float(v) for k, v in part.get("segments", {}).items()}),
    )


def parse_limits(part: Mapping[str, Any]) -> Limits:
    """Return limits from their document part."""
    return Limits(**part)


def parse_law(part: Mapping[str, Any], where: str) -> BandLaw:
    """Return a band's law, errors named under `where`."""
    try:
        if part["kind"] == "linear":
            return LinearLaw(rest_m=part["rest_m"], rate_n_per_m=part["rate_n_per_m"])
        return PointsLaw(
            rest_m=part["rest_m"],
            length_m=tuple(float(v) for v in part["length_m"]),
            force_n_at=tuple(float(v) for v in part["force_n"]),
        )
    except InputError as error:
        raise InputError(f"{where}/{error.where}", error.value, error.allowed) from None


def law_part(law: BandLaw) -> dict[str, Any]:
    """Return a law as its document part."""
    if isinstance(law, LinearLaw):
        return {"kind": "linear", "rest_m": law.rest_m, "rate_n_per_m": law.rate_n_per_m}
    return {
        "kind": "points",
        "rest_m": law.rest_m,
        "length_m": list(law.length_m),
        "force_n": list(law.force_n_at),
    }


def _load(part: Mapping[str, Any], where: str) -> Load:
    try:
        if part["kind"] == "mass":
            return FreeMass(kg=float(part["kg"]), port=part["port"])
        if part["kind"] == "sled":
            return Sled(kg=float(part["kg"]), empty_kg=float(part["empty_kg"]), friction=part.get("friction", 0.0))
        if part["kind"] in _OTHERS:
            return _OTHERS[part["kind"]](part)
        anchor = part["anchor"]
        point = None if "port" in anchor else (anchor["x_m"], anchor["y_m"], anchor.get("z_m", 0.0))
        return Band(
            law=parse_law(part["law"], "law"),
            port=part["port"],
            anchor=point,
            anchor_port=anchor.get("port"),
            strands=part.get("strands", 2),
            count=float(part.get("count", 1)),
            hysteresis=part.get("hysteresis", 0.0),
        )
    except InputError as error:
        raise InputError(f"{where}/{error.where.lstrip('/')}", error.value, error.allowed) from None


def _cable(part: Mapping[str, Any]) -> Load:
    pulley = (float(part["pulley"]["x_m"]), float(part["pulley"]["y_m"]))
    return Cable(
        kg=float(part["kg"]),
        port=part["port"],
        pulley=pulley,
        ratio=part.get("ratio", 1.0),
        friction=part.get("friction", 0.0),
    )


def _stack(part: Mapping[str, Any]) -> Load:
    radius = part["radius"]
    return Stack(
        kg=float(part["kg"]),
        angle_deg=tuple(float(v) for v in radius["angle_deg"]),
        radius_m=tuple(float(v) for v in radius["radius_m"]),
        ratio=part.get("ratio", 1.0),
        friction=part.get("friction", 0.0),
    )


def _plain(part: Mapping[str, Any]) -> dict[str, Any]:
    return {key: value for key, value in part.items() if key not in ("kind", "direction")}


_OTHERS: Mapping[str, Callable[[Mapping[str, Any]], Load]] = MappingProxyType(
    {
        "cable": _cable,
        "stack": _stack,
        "chain": lambda part: Chain(**_plain(part)),
        "corner-bar": lambda part: CornerBar(**_plain(part)),
    }
)


def curve_document(curve: Curve, strength_scale: Mapping[str, float] | None = None, row: int = 0) -> dict[str, Any]:
    """Return the wide-arc/curve document of one set-up, checked by its schema."""
    motion, setup = curve.motion, curve.setup
    balance = audit(curve)
    strength, effort = _strength(curve, strength_scale or {}, row)
    document: dict[str, Any] = {
        "format": "wide-arc/curve",
        "version": 1,
        "exercise": setup.exercise.id,
        "working_legs": motion.legs,
        "position": _list(motion.position),
        "angles_deg": {name: _list(to_deg(motion.angles[name][row])) for name in curve.demand_nm},
        "demand_nm": {ACTIONS[name]: _list(value[row]) for name, value in curve.demand_nm.items()},
        "points_m": {name: _points(motion.full(point), row) for name, point in sorted(motion.points.items())},
        "loads": [_load_part(curve, index, row) for index in range(len(setup.loads))],
        "contacts": [
            {
                "at": force.source.removeprefix("contact "),
                "point_m": _points(motion.full(force.point), row),
                "force_n": _points(motion.full(force.force), row),
            }
            for force in motion.forces
            if force.source.startswith("contact")
        ],
        "other_joints": [
            {
                "joint": name,
                "angle_deg": _list(to_deg(motion.angles[name][row])),
                "demand_nm": _list(value[row]),
            }
            for name, value in curve.other_nm.items()
        ],
        "energy_j": {"gravity": _list(motion.gravity_j()[row]), "elastic": _list(motion.elastic_j()[row])},
        "audit": {
            "joint_work_j": _number(balance.joint_work_j[row]),
            "energy_change_j": _number(balance.energy_change_j[row]),
            "relative_error": float(balance.relative_error[row]),
        },
        "strength_nm": strength,
        "effort": effort,
        "warnings": [{"code": n.code, "text": n.text} for n in motion.notices if n.where[row]],
        "assumptions": list(motion.assumptions),
    }
    if curve.lowering_nm is not None:
        down = {ACTIONS[name]: _list(value[row]) for name, value in curve.lowering_nm.items()}
        document["lowering"] = {"demand_nm": down}
    if motion.path_travel is not None and motion.path_force is not None:
        document["path"] = {
            "travel_m": _list(motion.path_travel[row]),
            "force_n": _list(motion.path_force[row]),
        }
    check(document, "curve")
    return document


def _strength(
    curve: Curve, scale: Mapping[str, float], row: int
) -> tuple[dict[str, list[float]], dict[str, list[float]]]:
    """Return strength (N·m) and effort for the actions whose scale is known; both empty without one."""
    body, strength, effort = curve.setup.body, {}, {}
    for name, demand in curve.demand_nm.items():
        action = ACTIONS[name]
        if action in scale:
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
        if isinstance(load, Band) and not forces:
            part["force_n"] = _list(motion.full(load.tension_n(length))[row])
    if isinstance(load, Sled) and motion.path_force is not None:
        part["force_n"] = _list(motion.path_force[row])
    return part


def _number(value: float) -> float:
    return float(round(float(value), 6)) + 0.0


def _list(values: Array | Sequence[float]) -> list[float]:
    return [_number(v) for v in values]


def _points(values: Array, row: int) -> list[list[float]]:
    return [[_number(x), _number(y)] for x, y in values[:, row].T]
