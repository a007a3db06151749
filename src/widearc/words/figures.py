"""Numbers as a trainer reads them: in the unit that is spoken, with the digits that are meant. The
one place that rounds.
"""

from __future__ import annotations

from types import MappingProxyType

from widearc.core.units import FORCE_N, IN_M, LB_KG
from widearc.words.how import How
from widearc.words.units import sign_of

MINUS = "\N{MINUS SIGN}"

POINTS = MappingProxyType({"id": ","})
"""The decimal mark of a language, where it is no point."""


def whole(value: float) -> str:
    """Return a whole number with a true minus sign and no minus zero."""
    return f"{round(value) + 0:d}".replace("-", MINUS)


def pointed(text: str, how: How) -> str:
    """Return a number's text with the decimal mark of a language."""
    return text.replace(".", POINTS.get(how.language, "."))


def short(value: float, how: How) -> str:
    """Return a number with the decimals it has, six figures at most."""
    return pointed(f"{value:.6g}".replace("-", MINUS), how)


def halves(value: float, how: How) -> str:
    """Return whole numbers, halves under 10."""
    return short(round(2 * value) / 2, how) if abs(value) < 10 else whole(value)


def own_unit(kg: float) -> str:
    """Return the unit that a mass is a plain number of: "lb" for whole or half pounds that are no
    plain number of kilograms, else "kg".
    """
    return "lb" if _even(2 * kg / LB_KG) and not _even(100 * kg) else "kg"


def plain_kg(kg: float) -> bool:
    """Return whether a mass is a plain number of kilograms, as a plate says it."""
    return _even(8 * kg) or _even(10 * kg)


def _even(value: float) -> bool:
    return abs(value - round(value)) < 1e-4


def mass(kg: float, how: How, *, rounded: bool = False, thing: bool = False) -> str:
    """Return a mass with its unit."""
    unit = own_unit(kg) if thing else sign_of("kg", how)
    return f"{mass_in(unit, kg, how, rounded=rounded)} {unit}"


def mass_in(unit: str, kg: float, how: How, *, rounded: bool = False) -> str:
    """Return a mass in a unit, without it: as a plate says it where it is a plain number of the
    unit, else kilograms to a tenth and pounds to the half.
    """
    value = kg / LB_KG if unit == "lb" else kg
    if rounded:
        return whole(value)
    if _even(100 * value):
        return short(round(value, 3), how)
    return short(round(2 * value) / 2 if unit == "lb" else round(value, 1), how)


def length(m: float, how: How, *, fine: bool = False) -> str:
    """Return centimetres, halves under 10; or inches to the half, quarters under 10. fine: whole
    millimetres, or tenths of an inch.
    """
    if fine and how.units == "metric":
        return f"{whole(1000 * m)} mm"
    if how.units == "imperial":
        inches = m / IN_M
        if fine:
            return f"{short(round(inches, 1), how)} in"
        steps = 4 if abs(inches) < 10 else 2
        return f"{short(round(steps * inches) / steps, how)} in"
    return f"{halves(100 * m, how)} cm"


def distance(m: float, how: How) -> str:
    """Return metres or feet, to a tenth."""
    if how.units == "imperial":
        return f"{short(round(m / IN_M / 12, 1), how)} ft"
    return f"{short(round(m, 1), how)} m"


def force(n: float, how: How) -> str:
    """Return newtons, or pounds of force, whole."""
    if how.units == "imperial":
        return f"{whole(n / FORCE_N['lbf'])} lbf"
    return f"{whole(n)} N"
