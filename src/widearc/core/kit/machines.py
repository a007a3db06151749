"""Which machine meets which need."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from widearc.core.body import PORTS
from widearc.core.equipment import AtPort, Load
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.kit.stock import Kit, SledPress

MACHINES: Mapping[str, str] = {
    "leg extension machine": "leg extension",
    "seated curl machine": "seated curl",
    "lying curl machine": "lying curl",
    "standing curl machine": "standing curl",
    "multi-hip machine": "multi-hip",
    "abduction machine": "abduction machine",
    "cable pulley": "cable",
    "belt-squat machine": "belt squat cable",
    "hack squat machine": "hack squat",
    "bar on rails": "rail bar",
    "corner for a bar end": "corner pivot",
    "sprung carriage": "sprung carriage",
    "arc squat machine": "arc squat",
    "hip thrust machine": "hip thrust machine",
    "calf machine": "standing calf",
    "seated calf machine": "seated calf",
    "belt-squat lever": "belt squat lever",
    "pendulum machine": "pendulum",
}
"""Which kind of machine meets a need."""


def presses_for(exercise: Exercise, kit: Kit) -> tuple[SledPress, ...]:
    """Return the sled presses of a kit whose rails suit an exercise."""
    low, high = {"level press": (0.0, 15.0), "vertical press": (75.0, 90.0)}.get(
        next((n for n in exercise.needs if n.endswith("press")), ""), (15.0, 75.0)
    )
    return tuple(p for p in kit.presses if low <= p.rail_deg <= high)


def is_axial(way: tuple[LoadWay, ...]) -> bool:
    """Return whether a way of loading presses on the spine."""
    return any(PORTS[part.port].axial for part in way)


def presses_on_spine(loads: Iterable[Load]) -> bool:
    """Return whether any of the loads presses on the spine."""
    return any(isinstance(load, AtPort) and PORTS[load.port].axial for load in loads)
