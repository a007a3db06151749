"""Which machine meets which need."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from types import MappingProxyType

from widearc.core.body import PORTS
from widearc.core.equipment import KINDS, AtPort, Load
from widearc.core.equipment import MACHINES as GROUP
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.kit.needs import meeting
from widearc.core.kit.stock import Kit, SledPress

LOOSE = ("dip belt",)  # among the machines, but nothing is done on it

MACHINES: Mapping[str, str] = MappingProxyType(
    {
        need: kind.id
        for kind in KINDS.values()
        if kind.group == GROUP
        for need in kind.serves
        if need not in LOOSE
    }
)
"""Which kind of machine meets a need."""


def presses_for(exercise: Exercise, kit: Kit) -> tuple[SledPress, ...]:
    """Return the sled presses of a kit whose rails suit an exercise."""
    need = next((name for name in exercise.needs if name.endswith("press")), "sled press")
    suited = {press.id for press in meeting(need, kit)}
    return tuple(press for press in kit.presses if press.id in suited)


def is_axial(way: tuple[LoadWay, ...]) -> bool:
    """Return whether a way of loading presses on the spine."""
    return any(PORTS[part.port].axial for part in way)


def presses_on_spine(loads: Iterable[Load]) -> bool:
    """Return whether any of the loads presses on the spine."""
    return any(isinstance(load, AtPort) and PORTS[load.port].axial for load in loads)
