r"""The line format: ASCII, one sample a line, `time_s,position_m,force_n`, ended by a line feed.

Time in seconds from the gauge's start (never falling), position in metres, force in newtons;
decimals with a point. A force of `OL` is an overload. Lines that begin with `#` are remarks. 10 to
200 lines a second.

    # wide-arc gauge 1: time_s,position_m,force_n
    12.340,1.3020,118.4
    12.390,1.3021,OL
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from widearc.core.errors import InputError
from widearc.core.words import Name, Said

LONGEST_LINE = 120
GREETING = "# wide-arc gauge 1: time_s,position_m,force_n"


@dataclass(frozen=True, slots=True, kw_only=True)
class Sample:
    """One sample: time s, position m, force N; overload: the force is beyond the gauge and not
    known.
    """

    time_s: float
    position_m: float
    force_n: float
    overload: bool = False


def parse_line(text: str) -> Sample | None:
    """Return the sample of a line, None for a remark or an empty line; InputError for anything
    else.
    """
    clean = text.strip()
    if not clean or clean.startswith("#"):
        return None
    if len(clean) > LONGEST_LINE:
        raise InputError(
            "line", clean[:40], Said("at most {_} characters", _=Name(str(LONGEST_LINE)))
        )
    parts = clean.split(",")
    if len(parts) != 3:
        raise InputError("line", clean, Said("time_s,position_m,force_n"))
    overload = parts[2].strip().upper() == "OL"
    try:
        time_s, position_m, force_n = map(float, (*parts[:2], "0" if overload else parts[2]))
    except ValueError:
        raise InputError("line", clean, Said("numbers with a decimal point")) from None
    # so written, what is not a number is refused too
    if not (math.isfinite(time_s) and abs(position_m) <= 50 and abs(force_n) <= 1e5):
        raise InputError(
            "line", clean, Said("finite numbers: position within 50 m, force within 100,000 N")
        )
    return Sample(time_s=time_s, position_m=position_m, force_n=force_n, overload=overload)


def format_line(sample: Sample) -> str:
    """Return a sample as a line without its line feed."""
    force = "OL" if sample.overload else f"{sample.force_n:.1f}"
    return f"{sample.time_s:.3f},{sample.position_m:.4f},{force}"
