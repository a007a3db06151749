"""What a fit of a machine's readings is: its law's numbers, how far readings lie off it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError
from widearc.core.words import Count, Said, Share, Term

UNEXPLAINED = 0.10  # of the largest reading (mechanics, loads)


CONSTANTS = MappingProxyType(
    {
        "spring": 2,
        "sled": 2,
        "rail-bar": 2,
        "carriage": 2,
        "lever": 2,
        "pendulum": 1,
        "cable": 2,
        "corner-bar": 2,
    }
)
"""How many numbers each law is fitted by; a cam's table goes through every reading."""


Column = Sequence[float]
Columns = Mapping[str, Column]
Numbers = Mapping[str, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineFit:
    """A law's numbers by name (SI units in the names), residuals reading less law (N), notes in
    words.

    tables: arrays by name, for a cam.
    """

    kind: str
    law: Mapping[str, float]
    tables: Mapping[str, tuple[float, ...]]
    residuals_n: tuple[float, ...]
    notes: tuple[Said, ...] = ()

    @property
    def spread_n(self) -> float | None:
        """Return one standard error of a reading about the law, N; None where no reading is left
        over to tell.
        """
        left_over = len(self.residuals_n) - CONSTANTS.get(self.kind, len(self.residuals_n))
        return (
            float(np.sqrt(np.sum(np.square(self.residuals_n)) / left_over))
            if left_over > 0
            else None
        )

    @property
    def outlier(self) -> int | None:
        """Return the number (from 0) of the one reading that the law misses badly, None if none.

        Badly: by more than 2 N and three times the median miss.
        """
        missed = np.abs(self.residuals_n)
        if self.spread_n is None or len(missed) < 4:
            return None
        worst = int(np.argmax(missed))
        return worst if missed[worst] > max(3.0 * float(np.median(missed)), 2.0) else None

    @property
    def rms_n(self) -> float:
        """Return the root mean square of the residuals, N."""
        return float(np.sqrt(np.mean(np.square(self.residuals_n)))) if self.residuals_n else 0.0


def least_squares(design: Array, readings: Array, least: int, what: str) -> tuple[Array, Array]:
    """Return least-squares coefficients and residuals; InputError when the readings do not tell
    them apart.
    """
    if len(readings) < least:
        raise InputError(
            "rows",
            len(readings),
            Said("{least} readings or more for {what}", least=Count(least), what=Term(what)),
        )
    if np.linalg.matrix_rank(design) < design.shape[1]:
        raise InputError(
            "rows",
            len(readings),
            Said("readings at different places: these do not tell {what}", what=Term(what)),
        )
    found, *_ = np.linalg.lstsq(design, readings, rcond=None)
    return np.asarray(found), np.asarray(readings - design @ found)


def fit_made(
    kind: str,
    law: Mapping[str, float],
    left: Array,
    readings: Array,
    notes: Sequence[Said] = (),
    tables: Mapping[str, tuple[float, ...]] | None = None,
) -> MachineFit:
    """Return a fit of its law's numbers, what is left of the readings (N) and notes; it is said
    where more than a tenth of the largest reading is left.
    """
    said = list(notes)
    largest = float(np.max(np.abs(readings)))
    if largest > 0 and float(np.max(np.abs(left))) > UNEXPLAINED * largest:
        said.append(
            Said(
                "the description leaves {share} unexplained: measure again, or describe it "
                "otherwise",
                share=Share(float(np.max(np.abs(left))) / largest),
            )
        )
    return MachineFit(
        kind=kind,
        law=MappingProxyType(dict(law)),
        tables=MappingProxyType(dict(tables or {})),
        residuals_n=tuple(float(v) for v in left),
        notes=tuple(said),
    )


def column(columns: Columns, name: str) -> Array:
    """Return a column of readings as numbers, (rows,)."""
    return np.asarray(columns[name], dtype=float)
