"""Laws fitted to readings of machines: springs, cams, sleds, levers, pendulums, cables, the corner
bar.

All by linear least squares (NumPy's lstsq); readings are forces in N unless said. A description
that leaves more than a tenth of the largest reading unexplained is said to fail.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError, UnknownNameError
from widearc.core.units import DEG, G

UNEXPLAINED = 0.10  # of the largest reading (mechanics, loads)


CONSTANTS = MappingProxyType(
    {"spring": 2, "sled": 2, "lever": 2, "pendulum": 1, "cable": 2, "corner-bar": 2}
)
"""How many numbers each law is fitted by; a cam's table goes through every reading."""


Column = Sequence[float]
Columns = Mapping[str, Column]
Numbers = Mapping[str, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineFit:
    """A law's numbers by name (SI units in the names), residuals reading less law (N), notes in
    words.

    tables: arrays by name, for a cam.
    """

    kind: str
    law: Mapping[str, float]
    tables: Mapping[str, tuple[float, ...]]
    residuals_n: tuple[float, ...]
    notes: tuple[str, ...] = ()

    @property
    def spread_n(self) -> float | None:
        """Return one standard error of a reading about the law, N; None where no reading is left
        over to tell.
        """
        left_over = len(self.residuals_n) - CONSTANTS.get(self.kind, len(self.residuals_n))
        return (
            float(np.sqrt(np.sum(np.square(self.residuals_n)) / left_over))
            if left_over > 0
            else None
        )

    @property
    def outlier(self) -> int | None:
        """Return the number (from 0) of the one reading that the law misses badly, None if none.

        Badly: by more than 2 N and three times the median miss.
        """
        missed = np.abs(self.residuals_n)
        if self.spread_n is None or len(missed) < 4:
            return None
        worst = int(np.argmax(missed))
        return worst if missed[worst] > max(3.0 * float(np.median(missed)), 2.0) else None

    @property
    def rms_n(self) -> float:
        """Return the root mean square of the residuals, N."""
        return float(np.sqrt(np.mean(np.square(self.residuals_n)))) if self.residuals_n else 0.0


def _lines(design: Array, readings: Array, least: int, what: str) -> tuple[Array, Array]:
    """Return least-squares coefficients and residuals; InputError when the readings do not tell
    them apart.
    """
    if len(readings) < least:
        raise InputError("rows", len(readings), f"{least} readings or more for {what}")
    if np.linalg.matrix_rank(design) < design.shape[1]:
        raise InputError(
            "rows", len(readings), f"readings at different places: these do not tell {what}"
        )
    found, *_ = np.linalg.lstsq(design, readings, rcond=None)
    return np.asarray(found), np.asarray(readings - design @ found)


def _made(
    kind: str,
    law: Mapping[str, float],
    left: Array,
    readings: Array,
    notes: Sequence[str] = (),
    tables: Mapping[str, tuple[float, ...]] | None = None,
) -> MachineFit:
    said = list(notes)
    largest = float(np.max(np.abs(readings)))
    if largest > 0 and float(np.max(np.abs(left))) > UNEXPLAINED * largest:
        share = 100 * np.max(np.abs(left)) / largest
        said.append(
            f"the description leaves {share:.0f} % unexplained: measure again, or describe it "
            "otherwise"
        )
    return MachineFit(
        kind=kind,
        law=MappingProxyType(dict(law)),
        tables=MappingProxyType(dict(tables or {})),
        residuals_n=tuple(float(v) for v in left),
        notes=tuple(said),
    )


def fit_spring(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return F0 (N) and rate (N/m) of a spring from travel_m and force_n; end and travel of the
    last reading.
    """
    x, f = _array(columns, "travel_m"), _array(columns, "force_n")
    (start, rate), left = _lines(np.column_stack((np.ones_like(x), x)), f, 2, "a spring")
    notes = []
    if rate <= 0:
        raise InputError("force_n", float(f[-1]), "a pull that grows with travel")
    if start < 0:
        notes.append("the line starts below 0 N: the first mark lies later than read")
        start = 0.0
        left = f - rate * x
    end = {"end_n": float(start + rate * x.max()), "travel_m": float(x.max())}
    return _made(
        "spring", {"start_n": float(start), "rate_n_per_m": float(rate), **end}, left, f, notes
    )


def _spring_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["start_n"] + found.law["rate_n_per_m"] * at


def _spring_settles(law: Numbers, _: Numbers) -> Numbers:
    return {name: law[name] for name in ("start_n", "rate_n_per_m", "travel_m")}


def fit_stack(columns: Columns, given: Mapping[str, float]) -> MachineFit:
    """Return the cam's moment per angle from angle_deg, force_n, pad_m; with `kg` given also its
    radius per ratio.
    """
    angle, force, pad = (_array(columns, n) for n in ("angle_deg", "force_n", "pad_m"))
    if len(angle) < 2:
        raise InputError("rows", len(angle), "2 readings or more for a cam")
    order = np.argsort(angle)
    if np.any(np.diff(angle[order]) <= 0):
        raise InputError("angle_deg", float(angle[order][0]), "each angle once")
    moment = (force * pad)[order]
    tables = {"angle_deg": tuple(map(float, angle[order])), "moment_nm": tuple(map(float, moment))}
    law = {"mean_moment_nm": float(np.mean(moment))}
    if given.get("kg"):
        tables["radius_m"] = tuple(
            float(v) for v in moment / (given["kg"] * G * given.get("ratio", 1.0))
        )
        law["kg"] = given["kg"]
    notes = ["the table goes through every reading; angles between are joined by straight lines"]
    return _made("stack", law, np.zeros(len(moment)), force, notes, tables)


def _stack_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float | None:
    angles, moments = found.tables["angle_deg"], found.tables["moment_nm"]
    if not angles[0] <= at <= angles[-1]:
        return None
    return float(np.interp(at, angles, moments)) / arm_m


def fit_sled(columns: Columns, given: Mapping[str, float]) -> MachineFit:
    """Return a sled's force along the rails and friction (N) from push and return; with `rail_deg`
    kg and μ.
    """
    direction, force = columns["direction"], _array(columns, "force_n")
    push = force[[str(d) == "push" for d in direction]]
    back = force[[str(d) == "return" for d in direction]]
    if not len(push) or not len(back):
        raise InputError(
            "direction", ", ".join(map(str, direction)), "one push and one return reading or more"
        )
    along, friction = float((push.mean() + back.mean()) / 2), float((push.mean() - back.mean()) / 2)
    if friction < 0:
        raise InputError(
            "force_n", float(push.mean()), f"a push not below the return, {back.mean():.0f} N"
        )
    left = np.where(
        [str(d) == "push" for d in direction], force - along - friction, force - along + friction
    )
    law = {"along_rail_n": along, "friction_n": friction}
    if "rail_deg" in given:
        rail = given["rail_deg"] * DEG
        if not 1.0 <= given["rail_deg"] <= 90.0:
            raise InputError("--rail-deg", given["rail_deg"], "from 1 to 90 degrees")
        law["kg"] = along / (G * float(np.sin(rail)))
        if given["rail_deg"] < 89.0:
            law["friction"] = friction / (law["kg"] * G * float(np.cos(rail)))
    return _made("sled", law, left, force)


def _sled_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    friction = found.law["friction_n"]
    return found.law["along_rail_n"] + (friction if pushed else -friction)


def _sled_settles(law: Numbers, _: Numbers) -> Numbers:
    if "kg" not in law:
        return {}
    return {"empty_kg": law["kg"], "friction": law.get("friction", 0.0)}


def fit_lever(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return a lever's mass times distance (kg·m) and angle at reading 0 from angle_deg, force_n,
    arm_m.

    moment = K·g·cos(φ + φ0); angle_deg is the arm's turn in the lift's way.
    """
    angle, force, arm = (_array(columns, n) for n in ("angle_deg", "force_n", "arm_m"))
    turn = angle * DEG
    design = np.column_stack((np.cos(turn), -np.sin(turn))) * G / arm[:, None]
    (c, s), left = _lines(design, force, 2, "a lever")
    law = {"kg_m": float(np.hypot(c, s)), "angle_deg": float(np.arctan2(s, c) / DEG)}
    return _made("lever", law, left, force)


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
    angle, force, arm = (_array(columns, n) for n in ("angle_deg", "force_n", "arm_m"))
    design = (np.sin(angle * DEG) * G / arm)[:, None]
    (kg_m,), left = _lines(design, force, 1, "a pendulum")
    return _made("pendulum", {"kg_m": float(kg_m)}, left, force)


def _pendulum_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["kg_m"] * G * float(np.sin(at * DEG)) / arm_m


def _pendulum_settles(law: Numbers, known: Numbers) -> Numbers:
    return {"arm_kg": law["kg_m"] / known["arm_m"]} if known.get("arm_m") else {}


def fit_cable(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return a cable's ratio and offset (N) from stack_kg and force_n: force = ratio·kg·g +
    offset.
    """
    kg, force = _array(columns, "stack_kg"), _array(columns, "force_n")
    (offset, ratio), left = _lines(
        np.column_stack((np.ones_like(kg), kg * G)), force, 2, "a cable's ratio"
    )
    return _made("cable", {"ratio": float(ratio), "offset_n": float(offset)}, left, force)


def _cable_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["ratio"] * at * G + found.law["offset_n"]


def _cable_settles(law: Numbers, _: Numbers) -> Numbers:
    return {"ratio": law["ratio"]}


def fit_corner_bar(columns: Columns, _: Mapping[str, float]) -> MachineFit:
    """Return the bar's share (N) and d/r of a corner bar from plate_kg and force_n at the hand."""
    kg, force = _array(columns, "plate_kg"), _array(columns, "force_n")
    (bar, share), left = _lines(
        np.column_stack((np.ones_like(kg), kg * G)), force, 2, "a corner bar"
    )
    return _made("corner-bar", {"bar_n": float(bar), "sleeve_per_hand": float(share)}, left, force)


def _corner_bar_pull(found: MachineFit, at: float, arm_m: float, pushed: bool) -> float:
    return found.law["bar_n"] + found.law["sleeve_per_hand"] * at * G


def _corner_bar_settles(law: Numbers, known: Numbers) -> Numbers:
    if not known.get("hand_m"):
        return {}
    return {"sleeve_m": law["sleeve_per_hand"] * known["hand_m"]}


def _nothing(_: Numbers, __: Numbers) -> Numbers:
    return {}


def _array(columns: Columns, name: str) -> Array:
    return np.asarray(columns[name], dtype=float)


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
