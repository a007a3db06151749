"""Numbers as a trainer reads them: in the unit that is spoken, with the digits that are meant. The
one place that rounds.
"""

from __future__ import annotations

from widearc.core.units import FORCE_N, IN_M, LB_KG
from widearc.words.how import How

MINUS = "\N{MINUS SIGN}"


def whole(value: float) -> str:
    """Return a whole number with a true minus sign and no minus zero."""
    return f"{round(value) + 0:d}".replace("-", MINUS)


def short(value: float) -> str:
    """Return a number with the decimals it has, six figures at most."""
    return f"{value:.6g}".replace("-", MINUS)


def halves(value: float) -> str:
    """Return whole numbers, halves under 10."""
    return short(round(2 * value) / 2) if abs(value) < 10 else whole(value)


def mass(kg: float, how: How, *, rounded: bool = False, stamped: str = "") -> str:
    """Return a mass with its unit: as stamped where it is, kilograms as they are, pounds to the
    half.
    """
    unit = stamped or ("lb" if how.units == "imperial" else "kg")
    value = kg / LB_KG if unit == "lb" else kg
    if rounded:
        return f"{whole(value)} {unit}"
    return f"{short(round(2 * value) / 2 if unit == 'lb' else value)} {unit}"


def length(m: float, how: How) -> str:
    """Return centimetres, halves under 10; or inches to the half, quarters under 10."""
    if how.units == "imperial":
        inches = m / IN_M
        steps = 4 if abs(inches) < 10 else 2
        return f"{short(round(steps * inches) / steps)} in"
    return f"{halves(100 * m)} cm"


def distance(m: float, how: How) -> str:
    """Return metres or feet, to a tenth."""
    if how.units == "imperial":
        return f"{short(round(m / IN_M / 12, 1))} ft"
    return f"{short(round(m, 1))} m"


def force(n: float, how: How) -> str:
    """Return newtons, or pounds of force, whole."""
    if how.units == "imperial":
        return f"{whole(n / FORCE_N['lbf'])} lbf"
    return f"{whole(n)} N"
