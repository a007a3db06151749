"""Ports: the places of the body where a load can act. They move with their segment."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType


@dataclass(frozen=True, slots=True, kw_only=True)
class Port:
    """One place on a segment.

    Trunk ports: `below` and `ahead` of the shoulder along the trunk's axes, m.
    axial: a load here presses on the spine; hands: it is carried by the grip.
    """

    segment: str
    label: str
    below: float = 0.0
    ahead: float = 0.0
    axial: bool = False
    hands: bool = False


PORTS = MappingProxyType(
    {
        "back-high": Port(
            segment="trunk", label="on the traps", below=0.03, ahead=-0.06, axial=True
        ),
        "back-low": Port(
            segment="trunk", label="low on the back", below=0.08, ahead=-0.08, axial=True
        ),
        "shoulders": Port(segment="trunk", label="at the shoulders", axial=True),
        "front-rack": Port(
            segment="trunk", label="in the front rack", below=-0.02, ahead=0.10, axial=True
        ),
        "goblet": Port(
            segment="trunk", label="at the breastbone", below=0.15, ahead=0.22, axial=True
        ),
        "hands": Port(segment="arms", label="in the hands", axial=True, hands=True),
        "hand-left": Port(segment="arms", label="in the left hand", axial=True, hands=True),
        "hand-right": Port(segment="arms", label="in the right hand", axial=True, hands=True),
        "hip-belt": Port(segment="pelvis", label="on a belt"),
        "hip-crease": Port(segment="pelvis", label="in the hip crease"),
        "thigh": Port(segment="thigh", label="on the thigh"),
        "ankle": Port(segment="foot", label="at the ankles"),
        "shin-pad": Port(segment="shank", label="at the shin pad"),
        "sole": Port(segment="foot", label="under the foot"),
        "sled": Port(segment="sled", label="on the sled"),
        "carriage": Port(segment="foot", label="on the carriage"),
        "pad": Port(segment="pad", label="on the moving pad"),
    }
)
"""Every port by its name in files; distances are common practice, no source."""

TRUNK_PORTS = tuple(name for name, port in PORTS.items() if port.segment == "trunk")
