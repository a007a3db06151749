"""Every kind of load, each in a file of its own: this folder is the list of them."""

from __future__ import annotations

from collections.abc import Mapping
from importlib import import_module
from pkgutil import iter_modules
from types import MappingProxyType

from widearc.core.equipment.loads.load import Load


def _kinds() -> list[type[Load]]:
    found: set[type[Load]] = set()
    for module in iter_modules(__path__):
        every = vars(import_module(f"{__name__}.{module.name}")).values()
        found |= {
            v for v in every if isinstance(v, type) and issubclass(v, Load) and "kind" in vars(v)
        }
    return sorted(found, key=lambda kind: kind.rank)


LOADS: Mapping[str, type[Load]] = MappingProxyType({kind.kind: kind for kind in _kinds()})
"""Every kind of load by its name in documents, in the order of lists."""
