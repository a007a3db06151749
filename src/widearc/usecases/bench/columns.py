"""What is read of each kind of machine, and the law through its readings."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from widearc import store
from widearc.core.equipment import MachineFit, fit_machine


@dataclass(frozen=True, slots=True, kw_only=True)
class Columns:
    """What is read of a kind: `at` in words and unit (SI per unit), and which further columns there
    are.
    """

    at: str
    unit: str
    per: float
    arm: bool = False
    direction: bool = False
    setting: bool = False


COLUMNS: Mapping[str, Columns] = MappingProxyType(
    {
        "spring": Columns(at="travel past the first mark", unit="cm", per=0.01),
        "stack": Columns(at="joint angle", unit="°", per=1.0, arm=True, setting=True),
        "sled": Columns(at="", unit="", per=1.0, direction=True),
        "rail-bar": Columns(at="", unit="", per=1.0, direction=True),
        "carriage": Columns(at="weight lying on it", unit="kg", per=1.0),
        "lever": Columns(at="arm turned from the start", unit="°", per=1.0, arm=True),
        "pendulum": Columns(at="arm from hanging", unit="°", per=1.0, arm=True),
        "cable": Columns(at="weight on the pin", unit="kg", per=1.0),
        "corner-bar": Columns(at="plates", unit="kg", per=1.0),
    }
)


NAMES = MappingProxyType(
    {
        "spring": "travel_m",
        "stack": "angle_deg",
        "lever": "angle_deg",
        "pendulum": "angle_deg",
        "cable": "stack_kg",
        "corner-bar": "plate_kg",
        "carriage": "on_kg",
    }
)


def _arm_m(reading: store.MachineReading) -> float:
    return reading.arm_m or 0.4


def columns_of(fit: str, rows: Sequence[store.MachineReading]) -> dict[str, list[Any]]:
    """Return readings as the fit's columns, SI by name."""
    columns: dict[str, list[Any]] = {"force_n": [r.force_n for r in rows]}
    if fit in NAMES:
        columns[NAMES[fit]] = [r.at for r in rows]
    if COLUMNS[fit].direction:
        columns["direction"] = [r.direction for r in rows]
    if COLUMNS[fit].arm:
        arm = "pad_m" if fit == "stack" else "arm_m"
        columns[arm] = list(map(_arm_m, rows))
    return columns


def fit_of(
    fit: str, rows: Sequence[store.MachineReading], quantities: Mapping[str, float]
) -> MachineFit:
    """Return the law through a machine's readings of one setting; quantities: what is described, SI
    by name.

    Raises InputError where the readings are not enough.
    """
    columns = columns_of(fit, rows)
    given = (
        {"rail_deg": quantities["rail_deg"]}
        if fit == "sled" and quantities.get("rail_deg", 0) >= 1
        else {}
    )
    if fit == "stack" and "read_kg" in quantities:
        given = {"kg": quantities["read_kg"], "ratio": quantities.get("ratio", 1.0)}
    if fit == "carriage" and quantities.get("empty_kg"):
        given = {"kg": quantities["empty_kg"]}
    return fit_machine(fit, columns, given)
