"""What can go wrong, as a short tree.

- WideArcError
  - InputError (ValueError): a value that is not allowed: where, what it is, what is
    - RangeError: a number out of its range, with the range's ends
    - UnknownNameError (LookupError): a name that does not exist: lists those that do
  - PostureError (ValueError): a posture that cannot be reached or balanced: where in the lift, why
  - TargetError (ValueError): a wanted loading that cannot be compared with anything
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Self


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

    def at(self, where: str) -> Self:
        """Return the same refusal at another place."""
        moved = type(self).__new__(type(self))
        moved.__dict__.update(self.__dict__)
        moved.where = where
        moved.args = (f"{where}: {show(self.value)} is not allowed; {self.allowed}",)
        return moved


class RangeError(InputError):
    """A number out of its range: low and high as kept (SI, angles in degrees), None where open.

    unit: the words for that unit, with their space (" kg"). The sentence can be said anew in
    another unit, by `between`.
    """

    def __init__(
        self, where: str, value: object, low: float | None, high: float | None, unit: str = ""
    ) -> None:
        self.low, self.high, self.unit = low, high, unit
        super().__init__(where, value, self.between(lambda end: f"{end:g}", unit))

    def between(self, shown: Callable[[float], str], unit: str = "") -> str:
        """Return what is allowed in words, each end as `shown` says it, the unit once."""
        if self.low is None:
            return f"{shown(self.high or 0.0)}{unit} or less"
        if self.high is None:
            return f"{shown(self.low)}{unit} or more"
        return f"from {shown(self.low)} to {shown(self.high)}{unit}"


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
