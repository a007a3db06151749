"""What the people and the place allow."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType


@dataclass(frozen=True, slots=True, kw_only=True)
class Rules:
    """What the people and the place allow.

    to_shoulders_kg: the heaviest bar the client brings to the shoulders without a rack (None: not
    asked). alone: nobody to spot; partner: somebody who helps. wall, floor_length_m: space. packed:
    hide exercises that walk and long set-ups. beginner: static before raised rear foot before
    offset load. grip_kg: what one hand holds for a set. sore: joint to side; sore_last: what
    asks more of a sore joint than the wanted lift comes last. stronger_side: "left" or "right".
    """

    to_shoulders_kg: float | None = None
    alone: bool = False
    partner: bool = False
    wall: bool = True
    floor_length_m: float | None = None
    packed: bool = False
    beginner: bool = False
    grip_kg: float | None = None
    sore: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    sore_last: bool = True
    stronger_side: str | None = None
