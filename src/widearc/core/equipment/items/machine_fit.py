"""Laws fitted to readings of machines: springs, cams, sleds, bars on rails, carriages, levers,
pendulums, cables, the corner bar.

All by linear least squares (NumPy's lstsq); readings are forces in N unless said. A description
that leaves more than a tenth of the largest reading unexplained is said to fail.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType

import numpy as np

from widearc.core.equipment.items.fitted import (
    Columns,
    MachineFit,
    Numbers,
    column,
    fit_made,
    least_squares,
)
from widearc.core.errors import InputError, UnknownNameError
from widearc.core.units import DEG, G
from widearc.core.words import Force, Said


def fit_spring(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return F0 (N) and rate (N/m) of a spring from travel_m and force_n; end and travel of the
    last reading.
    """
    x, f = column(columns, "travel_m"), column(columns, "force_n")
    (start, rate), left = least_squares(np.column_stack((np.ones_like(x), x)), f, 2, "a spring")
    notes: list[Said] = []
    if rate <= 0:
        raise InputError("force_n", float(f[-1]), Said("a pull that grows with travel"))
    if start < 0:
        notes.append(Said("the line starts below 0 N: the first mark lies later than read"))
        start = 0.0
        left = f - rate * x
    end = {"end_n": float(start + rate * x.max()), "travel_m": float(x.max())}
    return fit_made(
        "spring", {"start_n": float(start), "rate_n_per_m": float(rate), **end}, left, f, notes
    )


def _spring_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["start_n"] + found.law["rate_n_per_m"] * at


def _spring_settles(law: Numbers, _: Numbers) -> Numbers:
    return {name: law[name] for name in ("start_n", "end_n", "travel_m")}


def fit_stack(columns: Columns, given: Mapping[str, float]) -> MachineFit:
    """Return the cam's moment per angle from angle_deg, force_n, pad_m; with `kg` given also its
    radius per ratio.
    """
    angle, force, pad = (column(columns, n) for n in ("angle_deg", "force_n", "pad_m"))
    if len(angle) < 2:
        raise InputError("rows", len(angle), Said("2 readings or more for a cam"))
    order = np.argsort(angle)
    if np.any(np.diff(angle[order]) <= 0):
        raise InputError("angle_deg", float(angle[order][0]), Said("each angle once"))
    moment = (force * pad)[order]
    tables = {"angle_deg": tuple(map(float, angle[order])), "moment_nm": tuple(map(float, moment))}
    law = {"mean_moment_nm": float(np.mean(moment))}
    if given.get("kg"):
        tables["radius_m"] = tuple(
            float(v) for v in moment / (given["kg"] * G * given.get("ratio", 1.0))
        )
        law["kg"] = given["kg"]
    notes = [
        Said("the table goes through every reading; angles between are joined by straight lines")
    ]
    return fit_made("stack", law, np.zeros(len(moment)), force, notes, tables)


def _stack_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float | None:
    angles, moments = found.tables["angle_deg"], found.tables["moment_nm"]
    if not angles[0] <= at <= angles[-1]:
        return None
    return float(np.interp(at, angles, moments)) / arm_m


def fit_sled(columns: Columns, given: Mapping[str, float]) -> MachineFit:
    """Return a sled's force along the rails and friction (N) from push and return; with `rail_deg`
    kg and μ.
    """
    direction, force = columns["direction"], column(columns, "force_n")
    pushed = np.array([str(d) == "push" for d in direction])
    push, back = force[pushed], force[[str(d) == "return" for d in direction]]
    if not len(push) or not len(back):
        raise InputError(
            "direction",
            ", ".join(map(str, direction)),
            Said("one push and one return reading or more"),
        )
    along, friction = float((push.mean() + back.mean()) / 2), float((push.mean() - back.mean()) / 2)
    if friction < 0:
        raise InputError(
            "force_n",
            float(push.mean()),
            Said("a push not below the return, {force}", force=Force(back.mean())),
        )
    left = force - along - np.where(pushed, friction, -friction)
    law = {"along_rail_n": along, "friction_n": friction}
    if "rail_deg" in given:
        rail = given["rail_deg"] * DEG
        if not 1.0 <= given["rail_deg"] <= 90.0:
            raise InputError("--rail-deg", given["rail_deg"], Said("from 1 to 90 degrees"))
        law["kg"] = along / (G * float(np.sin(rail)))
        if given["rail_deg"] < 89.0:
            law["friction"] = friction / (law["kg"] * G * float(np.cos(rail)))
    return fit_made("sled", law, left, force)


def _sled_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    friction = found.law["friction_n"]
    return found.law["along_rail_n"] + (friction if pushed else -friction)


def _sled_settles(law: Numbers, _: Numbers) -> Numbers:
    if "kg" not in law:
        return {}
    return {"empty_kg": law["kg"], "friction": law.get("friction", 0.0)}


def fit_rail_bar(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return what a bar on upright rails weighs as it hangs (kg) and the share of it that rubbing
    takes, from slow lifts ("push") and slow returns.
    """
    found = fit_sled(columns, {"rail_deg": 90.0})
    along = found.law["along_rail_n"]
    if along <= 0:
        raise InputError("force_n", along, Said("a bar that pulls down: above 0 N"))
    share = found.law["friction_n"] / along
    return replace(found, kind="rail-bar", law=MappingProxyType({**found.law, "friction": share}))


def fit_carriage(columns: Columns, given: Mapping[str, float]) -> MachineFit:
    """Return a level carriage's friction, a share of the weight on its wheels, from slow pulls
    without springs: on_kg (what lies on it) and force_n; with `kg` given that is the carriage
    itself, else its weight (kg) follows from two loads.
    """
    on, force = column(columns, "on_kg"), column(columns, "force_n")
    if "kg" in given:
        if not 0.1 <= given["kg"] <= 500.0:
            raise InputError("--kg", given["kg"], Said("from 0.1 to 500 kg"))
        (friction,), left = least_squares(
            ((on + given["kg"]) * G)[:, None], force, 1, "a carriage's friction"
        )
        return fit_made("carriage", {"friction": float(friction), "kg": given["kg"]}, left, force)
    (still, friction), left = least_squares(
        np.column_stack((np.ones_like(on), on * G)), force, 2, "a carriage's friction"
    )
    if friction <= 0:
        raise InputError("force_n", float(force[-1]), Said("a pull that grows with the weight"))
    law = {"friction": float(friction), "kg": float(still / (friction * G))}
    return fit_made("carriage", law, left, force)


def _carriage_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["friction"] * (at + found.law["kg"]) * G


def _carriage_settles(law: Numbers, known: Numbers) -> Numbers:
    # a weight that is known stays as it was come by
    weighed = {} if known.get("empty_kg") else {"empty_kg": law["kg"]}
    return {**weighed, "friction": law["friction"]}


def fit_lever(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return a lever's mass times distance (kg·m) and angle at reading 0 from angle_deg, force_n,
    arm_m.

    moment = K·g·cos(φ + φ0); angle_deg is the arm's turn in the lift's way.
    """
    angle, force, arm = (column(columns, n) for n in ("angle_deg", "force_n", "arm_m"))
    turn = angle * DEG
    design = np.column_stack((np.cos(turn), -np.sin(turn))) * G / arm[:, None]
    (c, s), left = least_squares(design, force, 2, "a lever")
    law = {"kg_m": float(np.hypot(c, s)), "angle_deg": float(np.arctan2(s, c) / DEG)}
    return fit_made("lever", law, left, force)


def _lever_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    turned = (at + found.law["angle_deg"]) * DEG
    return found.law["kg_m"] * G * float(np.cos(turned)) / arm_m


def _lever_settles(law: Numbers, known: Numbers) -> Numbers:
    angle = (law["angle_deg"] + 180.0) % 360.0 - 180.0
    return {"arm_kg": law["kg_m"] / known.get("user_arm_m", 0.4), "angle_deg": angle}


def fit_pendulum(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return a pendulum's mass times distance (kg·m) from angle_deg (from hanging), force_n,
    arm_m.
    """
    angle, force, arm = (column(columns, n) for n in ("angle_deg", "force_n", "arm_m"))
    design = (np.sin(angle * DEG) * G / arm)[:, None]
    (kg_m,), left = least_squares(design, force, 1, "a pendulum")
    return fit_made("pendulum", {"kg_m": float(kg_m)}, left, force)


def _pendulum_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["kg_m"] * G * float(np.sin(at * DEG)) / arm_m


def _pendulum_settles(law: Numbers, known: Numbers) -> Numbers:
    return {"arm_kg": law["kg_m"] / known["arm_m"]} if known.get("arm_m") else {}


def fit_cable(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return a cable's ratio and offset (N) from stack_kg and force_n: force = ratio·kg·g +
    offset.
    """
    kg, force = column(columns, "stack_kg"), column(columns, "force_n")
    (offset, ratio), left = least_squares(
        np.column_stack((np.ones_like(kg), kg * G)), force, 2, "a cable's ratio"
    )
    return fit_made("cable", {"ratio": float(ratio), "offset_n": float(offset)}, left, force)


def _cable_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["ratio"] * at * G + found.law["offset_n"]


def _cable_settles(law: Numbers, _: Numbers) -> Numbers:
    return {"ratio": law["ratio"]}


def fit_corner_bar(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return the bar's share (N) and d/r of a corner bar from plate_kg and force_n at the hand."""
    kg, force = column(columns, "plate_kg"), column(columns, "force_n")
    (bar, share), left = least_squares(
        np.column_stack((np.ones_like(kg), kg * G)), force, 2, "a corner bar"
    )
    return fit_made(
        "corner-bar", {"bar_n": float(bar), "sleeve_per_hand": float(share)}, left, force
    )


def _corner_bar_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["bar_n"] + found.law["sleeve_per_hand"] * at * G


def _corner_bar_settles(law: Numbers, known: Numbers) -> Numbers:
    if not known.get("hand_m"):
        return {}
    return {"sleeve_m": law["sleeve_per_hand"] * known["hand_m"]}


def _nothing(_: Numbers, __: Numbers) -> Numbers:
    return {}


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineLaw:
    """How one kind of machine is read: columns of its readings; the fit; the pull (N) that a fit
    foretells at a place (`at` in the unit of the readings), None outside a cam's table; and the
    quantities (SI) that it settles, beside those that are known.
    """

    columns: tuple[str, ...]
    fit: Callable[[Columns, Numbers], MachineFit]
    pull_n: Callable[[MachineFit, float, float, bool], float | None]
    settles: Callable[[Numbers, Numbers], Numbers] = _nothing


FITS: Mapping[str, MachineLaw] = MappingProxyType(
    {
        "spring": MachineLaw(
            columns=("travel_m", "force_n"),
            fit=fit_spring,
            pull_n=_spring_pull,
            settles=_spring_settles,
        ),
        "stack": MachineLaw(
            columns=("angle_deg", "force_n", "pad_m"), fit=fit_stack, pull_n=_stack_pull
        ),
        "sled": MachineLaw(
            columns=("direction", "force_n"),
            fit=fit_sled,
            pull_n=_sled_pull,
            settles=_sled_settles,
        ),
        "rail-bar": MachineLaw(
            columns=("direction", "force_n"),
            fit=fit_rail_bar,
            pull_n=_sled_pull,
            settles=_sled_settles,
        ),
        "carriage": MachineLaw(
            columns=("on_kg", "force_n"),
            fit=fit_carriage,
            pull_n=_carriage_pull,
            settles=_carriage_settles,
        ),
        "lever": MachineLaw(
            columns=("angle_deg", "force_n", "arm_m"),
            fit=fit_lever,
            pull_n=_lever_pull,
            settles=_lever_settles,
        ),
        "pendulum": MachineLaw(
            columns=("angle_deg", "force_n", "arm_m"),
            fit=fit_pendulum,
            pull_n=_pendulum_pull,
            settles=_pendulum_settles,
        ),
        "cable": MachineLaw(
            columns=("stack_kg", "force_n"),
            fit=fit_cable,
            pull_n=_cable_pull,
            settles=_cable_settles,
        ),
        "corner-bar": MachineLaw(
            columns=("plate_kg", "force_n"),
            fit=fit_corner_bar,
            pull_n=_corner_bar_pull,
            settles=_corner_bar_settles,
        ),
    }
)
"""Every kind of machine that is read."""


def fit_machine(
    kind: str, columns: Columns, given: Mapping[str, float] | None = None
) -> MachineFit:
    """Return the law of a machine of `kind` from its columns; `given` holds what is known (kg,
    ratio, rail_deg).
    """
    if kind not in FITS:
        raise UnknownNameError("--kind", kind, ("band", *FITS))
    return FITS[kind].fit(columns, given or {})
