"""What can go wrong, as a short tree.

WideArcError ├── InputError (ValueError)        a value that is not allowed: where, what it is, what
is │   └── UnknownNameError (LookupError)  a name that does not exist: lists those that do ├──
PostureError (ValueError)      a posture that cannot be reached or balanced: where in the lift, why
└── TargetError (ValueError)       a wanted loading that cannot be compared with anything
"""

from __future__ import annotations

from collections.abc import Iterable


class WideArcError(Exception):
    """Base of everything the core refuses; its text is one plain sentence for the user."""


class InputError(WideArcError, ValueError):
    """A value that is not allowed.

    where: a JSON pointer or a field name ("/loads/0/kg", "mass_kg"); value: as given;
    allowed: what would be accepted, in words.
    """

    def __init__(self, where: str, value: object, allowed: str) -> None:
        self.where, self.value, self.allowed = where, value, allowed
        super().__init__(f"{where}: {show(value)} is not allowed; {allowed}")


class UnknownNameError(InputError, LookupError):
    """A name that does not exist; the message lists those that do."""

    def __init__(self, where: str, value: object, known: Iterable[str]) -> None:
        super().__init__(where, value, "known: " + ", ".join(sorted(known)))


class PostureError(WideArcError, ValueError):
    """A posture that cannot be reached or balanced.

    position: rep position s of the first bad sample (0 start, 1 end of the lifting phase).
    """

    def __init__(self, position: float, reason: str) -> None:
        self.position, self.reason = position, reason
        super().__init__(f"{reason} (at {position:.2f} of the lifting phase)")


class TargetError(WideArcError, ValueError):
    """A target with nothing in it to match."""


def show(value: object) -> str:
    """Return a value as text short enough for one line of an error."""
    text = repr(value)
    return text if len(text) <= 60 else text[:57] + "..."
