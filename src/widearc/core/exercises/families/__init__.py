"""One record a family, each in a file of its own: this folder is the list of them."""

from __future__ import annotations

from collections.abc import Mapping
from importlib import import_module
from pkgutil import iter_modules
from types import MappingProxyType

from widearc.core.exercises.family import Family


def _families() -> list[Family]:
    modules = (import_module(f"{__name__}.{m.name}") for m in iter_modules(__path__))
    found = (getattr(module, "FAMILY", None) for module in modules)
    return sorted((f for f in found if f is not None), key=lambda family: family.rank)


FAMILIES: Mapping[str, Family] = MappingProxyType({f.name: f for f in _families()})
"""Every family by its name, in the order of lists."""
