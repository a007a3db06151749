"""The screens, a folder each: view, what an address asks, what the page shows.

This folder is the list of them: a screen's package has its `SCREEN`.
"""

from __future__ import annotations

from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from widearc.web.screens.screen import Mark, Screen


@cache
def screens() -> tuple[Screen, ...]:
    """Return every screen."""
    packages = (item for item in iter_modules(__path__) if item.ispkg)
    return tuple(import_module(f"{__name__}.{item.name}").SCREEN for item in packages)


def marks() -> tuple[Mark, ...]:
    """Return the marks of the ruled edge, from the left."""
    every = (mark for screen in screens() for mark in screen.marks)
    return tuple(sorted(every, key=lambda mark: mark.rank))
