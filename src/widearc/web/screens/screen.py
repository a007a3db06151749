"""What a screen is: its addresses, and its marks on the ruled edge."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from flask import Blueprint


@dataclass(frozen=True, slots=True, kw_only=True)
class Mark:
    """A mark on the ruled edge: its words, the endpoint it leads to, the name by which a page says
    that it is the present one, its place (smaller further left), and whether it stands there: on
    every edge, on a desk's alone, or under More.
    """

    words: str
    endpoint: str
    task: str
    rank: int
    where: Literal["edge", "desk", "more"] = "desk"


@dataclass(frozen=True, slots=True, kw_only=True)
class Screen:
    """A screen: a folder of `screens` whose `SCREEN` this is."""

    blueprints: tuple[Blueprint, ...]
    marks: tuple[Mark, ...] = ()
