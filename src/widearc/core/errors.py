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
from typing import Self, get_args

from widearc.core.words import Figure, Listed, Name, Said, Times, Value


class WideArcError(Exception):
    """Base of everything the core refuses. said: one plain sentence for the user."""

    def __init__(self, said: Said) -> None:
        self.said = said
        super().__init__(said)


class InputError(WideArcError, ValueError):
    """A value that is not allowed.

    where: a JSON pointer or a field name ("/loads/0/kg", "mass_kg"); value: as given;
    allowed: what would be accepted.
    """

    def __init__(self, where: str, value: object, allowed: Said) -> None:
        self.where, self.value, self.allowed = where, value, allowed
        super().__init__(self._sentence())

    def _sentence(self) -> Said:
        return Said(
            "{where}: {value} is not allowed; {allowed}",
            where=Name(self.where),
            value=said_of(self.value),
            allowed=self.allowed,
        )

    def at(self, where: str) -> Self:
        """Return the same refusal at another place."""
        moved = type(self).__new__(type(self))
        moved.__dict__.update(self.__dict__)
        moved.where = where
        moved.said = moved._sentence()
        moved.args = (moved.said,)
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
        super().__init__(where, value, self.between(lambda end: end, unit))

    def between(self, shown: Callable[[float], float], unit: str = "") -> Said:
        """Return what is allowed, each end in the unit that `shown` turns it into, said once."""
        if self.low is None:
            return Said("{most} or less", most=Figure(shown(self.high or 0.0), unit))
        if self.high is None:
            return Said("{least} or more", least=Figure(shown(self.low), unit))
        return Said(
            "from {low} to {high}",
            low=Figure(shown(self.low)),
            high=Figure(shown(self.high), unit),
        )


class UnknownNameError(InputError, LookupError):
    """A name that does not exist; the message lists those that do."""

    def __init__(self, where: str, value: object, known: Iterable[str]) -> None:
        names = Listed(tuple(Name(name) for name in sorted(known)))
        super().__init__(where, value, Said("known: {names}", names=names))


def one_of(names: Iterable[str]) -> Said:
    """Return that one of some names is allowed."""
    return Said("one of {names}", names=Listed(tuple(Name(name) for name in names)))


class PostureError(WideArcError, ValueError):
    """A posture that cannot be reached or balanced.

    position: rep position s of the first bad sample (0 start, 1 end of the lifting phase).
    """

    def __init__(self, position: float, reason: Said) -> None:
        self.position, self.reason = position, reason
        at = Times(position, digits=2)
        super().__init__(Said("{reason} (at {at} of the lifting phase)", reason=reason, at=at))


class TargetError(WideArcError, ValueError):
    """A target with nothing in it to match."""


def said_of(value: object) -> Value:
    """Return a refused value for a sentence: as it is where it is one, else its text."""
    return value if isinstance(value, get_args(Value)) else Name(show(value))


def show(value: object) -> str:
    """Return a value as text short enough for one line of an error."""
    text = repr(value)
    return text if len(text) <= 60 else text[:57] + "..."
