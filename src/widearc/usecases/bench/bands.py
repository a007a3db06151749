"""A band's measuring sheet: readings in any unit, the laws through them, and keeping them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from widearc import store
from widearc.core.arrays import Array
from widearc.core.equipment import (
    CLOSE_ENOUGH,
    MOST_READINGS,
    BandFit,
    PairMatch,
    drawn_pulls,
    fit_band,
    fit_linear,
    fit_mooney_rivlin,
    fit_points,
    pair_match,
    trust,
)
from widearc.core.errors import InputError, one_of, said_of
from widearc.core.units import FORCE_N, LENGTH_M
from widearc.core.words import Count, Figure, Name, Said, Share, Words
from widearc.store.errors import MissingError
from widearc.usecases.bench.machines import add_check
from widearc.usecases.room.room import scope
from widearc.usecases.sheet import SheetError, cell

LAWS = {
    "best": "what fits the readings best",
    "points": "through every reading",
    "linear": "straight line with slack",
    "mooney-rivlin": "rubber",
}


SHAPES = ("loop", "long")
MOST_BACK = 0.5  # no band gives back less than half
OUTLIER_READINGS = 4  # with fewer, line and rubber bend to the wrong reading
LEAST_PULL_N = 10.0  # a weaker pull says too little about what is given back


@dataclass(frozen=True, slots=True, kw_only=True)
class BandSheet:
    """A band with its readings as pulled on the scale (all strands together) and every law through
    them.

    fits by kind; scores: corrected Akaike, lower is better; refused: the reason for each law that
    the readings do not allow; used: the kind that is computed with, None without a law.
    """

    item: store.ItemRow
    readings: tuple[store.Reading, ...]
    fits: Mapping[str, BandFit]
    scores: Mapping[str, float]
    refused: Mapping[str, Said]
    used: str | None

    @property
    def rest_m(self) -> float | None:
        """Return the rest length of the law that is used, m."""
        return self.fits[self.used].law.rest_m if self.used else None

    @property
    def outlier(self) -> int | None:
        """Return the number of the reading (from 0) that line and rubber both miss most and badly,
        None if none.

        Badly: by more than a twentieth of the largest pull, and three times as much as the median
        reading.
        """
        missed = [
            np.abs(self.fits[k].residuals_n) for k in ("linear", "mooney-rivlin") if k in self.fits
        ]
        if len(self.readings) < OUTLIER_READINGS or not missed:
            return None
        least = np.min(missed, axis=0)
        worst = int(np.argmax(least))
        bad = least[worst] > CLOSE_ENOUGH * max(r.force_n for r in self.readings)
        return worst if bad and least[worst] > 3 * np.median(least) else None


def band_sheet(con: store.Connection, trainer_id: int, item_id: int) -> BandSheet:
    """Return a band's sheet; MissingError if the item is not a band of this trainer."""
    item = store.item(con, trainer_id, item_id)
    if item.kind != "band":
        raise MissingError(Said("{name} is not a band", name=Name(item.name)))
    rows = store.readings(con, trainer_id, item_id)
    lengths, forces = tuple(r.length_m for r in rows), tuple(r.force_n for r in rows)
    try:
        found = fit_band(lengths, forces, item.rest_m)
    except InputError as error:
        why = error.allowed if rows else Said("no readings yet")
        none: dict[str, Said] = {kind: why for kind in LAWS if kind != "best"}
        return BandSheet(item=item, readings=rows, fits={}, scores={}, refused=none, used=None)
    used = item.law if item.law in found.fits else found.chosen
    return BandSheet(
        item=item,
        readings=rows,
        fits=found.fits,
        scores=found.scores,
        refused=found.refused,
        used=used,
    )


def shown_row(reading: store.Reading, length_unit: str, force_unit: str) -> tuple[str, str]:
    """Return a reading as the sheet shows it: length and pull in units."""
    return (
        f"{reading.length_m / LENGTH_M[length_unit]:.4g}",
        f"{reading.force_n / FORCE_N[force_unit]:.4g}",
    )


def parse_rows(
    typed: Sequence[tuple[str, str]],
    length_unit: str,
    force_unit: str,
    kept: Sequence[store.Reading] = (),
) -> tuple[store.Reading, ...]:
    """Return readings in SI from typed pairs (length, pull); empty pairs are passed over.

    kept: a pair that is shown for one of these is that one, with all its digits.

    Raises SheetError with a message at each wrong cell; its keys count the rows as typed.
    """
    messages: dict[str, Words] = {}
    if length_unit not in LENGTH_M:
        messages["length_unit"] = Said(
            "{length_unit} is not a unit of length known here", length_unit=Name(length_unit)
        )
    if force_unit not in FORCE_N:
        messages["force_unit"] = Said(
            "{force_unit} is not a unit of force known here", force_unit=Name(force_unit)
        )
    if messages:
        raise SheetError(messages)
    rows: list[store.Reading] = []
    last: tuple[int, float, float] | None = None
    known = {shown_row(r, length_unit, force_unit): r for r in kept}
    for index, (length_text, force_text) in enumerate(typed):
        if not length_text.strip() and not force_text.strip():
            continue
        length = cell(
            length_text,
            f"row-{index}-length",
            Said("a length in {unit}", unit=Name(length_unit)),
            messages,
        )
        force = cell(
            force_text,
            f"row-{index}-force",
            Said("a pull in {unit}", unit=Name(force_unit)),
            messages,
        )
        if length is None or force is None:
            continue
        _check_row(
            index, length, force, last, length_unit, force_unit, messages, (length_text, force_text)
        )
        last = (index, length, force)
        fresh = store.Reading(
            length_m=length * LENGTH_M[length_unit], force_n=force * FORCE_N[force_unit]
        )
        rows.append(known.get((length_text.strip(), force_text.strip()), fresh))
    if not messages and len(rows) < 2:
        messages["rows"] = Said(
            "{rows} reading is too few: a law needs two or more",
            "{rows} readings are too few: a law needs two or more",
            rows=Count(len(rows)),
        )
    if len(rows) > MOST_READINGS:
        messages["rows"] = Said(
            "{rows} rows are too many: at most {most}",
            rows=Count(len(rows)),
            most=Count(MOST_READINGS),
        )
    if messages:
        raise SheetError(messages)
    return tuple(rows)


def _check_row(
    index: int,
    length: float,
    force: float,
    last: tuple[int, float, float] | None,
    length_unit: str,
    force_unit: str,
    messages: dict[str, Words],
    shown: tuple[str, str],
) -> None:
    longest = 20.0 / LENGTH_M[length_unit]
    if not 0 < length <= longest:
        messages[f"row-{index}-length"] = Said(
            "{shown} {length_unit} is not kept: from 0 to {longest} {length_unit_2}",
            shown=Name(str(shown[0])),
            length_unit=Name(length_unit),
            longest=Figure(longest),
            length_unit_2=Name(length_unit),
        )
    elif last is not None and length <= last[1]:
        messages[f"row-{index}-length"] = Said(
            "{shown} {length_unit} is not longer than the reading before, {last} {length_unit_2}",
            shown=Name(str(shown[0])),
            length_unit=Name(length_unit),
            last=Figure(last[1]),
            length_unit_2=Name(length_unit),
        )
    strongest = 20000.0 / FORCE_N[force_unit]
    if force < 0:
        messages[f"row-{index}-force"] = Said(
            "{shown} {force_unit} is not kept: a band pulls 0 {force_unit_2} or more",
            shown=Name(str(shown[1])),
            force_unit=Name(force_unit),
            force_unit_2=Name(force_unit),
        )
    elif force > strongest:
        messages[f"row-{index}-force"] = Said(
            "{force} is not kept: at most {most}",
            force=Name(f"{shown[1]} {force_unit}"),
            most=Figure(round(strongest), f" {force_unit}"),
        )
    elif last is not None and force < last[2] and length > last[1]:
        messages[f"row-{index}-force"] = Said(
            "{shown} {force_unit} is less than the reading before, {last} {force_unit_2}, though "
            "the band is longer: read it again",
            shown=Name(str(shown[1])),
            force_unit=Name(force_unit),
            last=Figure(last[2]),
            force_unit_2=Name(force_unit),
        )


@store.at_once
def save_band(
    con: store.Connection,
    trainer_id: int,
    item_id: int,
    *,
    rows: Sequence[store.Reading],
    rest_m: float | None,
    strands: int,
    shape: str,
    law: str,
    now: str,
    back_share: float | None = None,
    looked_over_on: str | None = None,
) -> None:
    """Keep a band's readings, recorded for undo. Raises SheetError and keeps nothing when they
    allow no law.
    """
    messages: dict[str, Words] = {}
    if strands not in (1, 2):
        messages["strands"] = Said("{strands} strands is not kept: 1 or 2", strands=Count(strands))
    if shape not in SHAPES:
        messages["shape"] = Said("{shape} is not kept: loop or long", shape=Name(shape))
    if law not in LAWS:
        messages["law"] = Said("{law} is not kept: {allowed}", law=Name(law), allowed=one_of(LAWS))
    if back_share is not None and not 0 <= back_share <= MOST_BACK:
        messages["back"] = Said(
            "{share} is not kept: from 0 to {share_2}",
            share=Share(back_share),
            share_2=Share(MOST_BACK),
        )
    _check_day(looked_over_on, now, messages)
    if not messages:
        lengths, forces = tuple(r.length_m for r in rows), tuple(r.force_n for r in rows)
        try:
            if law == "linear":
                fit_linear(lengths, forces)
            elif law == "mooney-rivlin":
                fit_mooney_rivlin(lengths, forces, rest_m)
            fit_points(lengths, forces, rest_m)
        except InputError as error:
            column, _, index = error.where.partition("/")
            place = (
                f"row-{index}-{column.split('_')[0]}"
                if index
                else {"rest_m": "rest"}.get(column, "rows")
            )
            messages[place] = Said(
                "{value} is not kept: {allowed}", value=said_of(error.value), allowed=error.allowed
            )
    if messages:
        raise SheetError(messages)
    before = store.item(con, trainer_id, item_id)
    if before.kind != "band":
        raise MissingError(Said("{name} is not a band", name=Name(before.name)))
    words = Said("{name}: readings kept", name=Name(before.name))
    with store.recorded(
        con, trainer_id, scope=scope(before.place_id), kind="readings", words=words, now=now
    ):
        store.replace_readings(con, trainer_id, item_id, rows)
        store.set_band(
            con,
            trainer_id,
            item_id,
            rest_m=rest_m,
            strands=strands,
            law=law,
            shape=shape,
            back_share=back_share,
            looked_over_on=looked_over_on,
        )


def _check_day(day: str | None, now: str, messages: dict[str, Words]) -> None:
    if day is None:
        return
    try:
        read = date.fromisoformat(day)
    except ValueError:
        messages["looked"] = Said("“{day}” is no date: year-month-day", day=Name(day[:20]))
        return
    if read.isoformat() > now[:10] or read.year < 2000:
        messages["looked"] = Said(
            "{day} is not kept: a day from 2000-01-01 to today", day=Name(day)
        )


def gives_back(readings: Sequence[tuple[float, float, str]]) -> float | None:
    """Return the share of the pull that is missing on the way down, 0 to 0.5; None without readings
    of both ways.

    Each reading is a length (m), a pull (N) and "loading" or "unloading". Each unloading reading is
    compared with the loading ones, joined by straight lines, within their range.
    """
    up = sorted((length, force) for length, force, way in readings if way == "loading")
    if len(up) < 2:
        return None
    lengths, forces = np.array(up).T
    shares = [
        1.0 - force / there
        for length, force, way in readings
        if way == "unloading"
        and lengths[0] < length <= lengths[-1]
        and (there := float(np.interp(length, lengths, forces))) > LEAST_PULL_N
    ]
    return float(np.clip(np.mean(shares), 0.0, MOST_BACK)) if shares else None


@dataclass(frozen=True, slots=True, kw_only=True)
class BandUse:
    """A band's pull as it is used: hand distance m, pull N on the scale's strands, and folded once
    (loops).
    """

    length_m: float
    as_read_n: float
    folded_m: float
    folded_n: float | None


def band_uses(sheet: BandSheet) -> tuple[BandUse, ...]:
    """Return what a band pulls at a quarter, half, three quarters and twice over its rest length,
    read range only.
    """
    if not sheet.used or sheet.rest_m is None:
        return ()
    law = sheet.fits[sheet.used].law
    strands = sheet.item.strands or 1
    longest = sheet.readings[-1].length_m
    stretches = [s for s in (1.25, 1.5, 1.75, 2.0) if s * sheet.rest_m <= longest + 1e-9]
    uses = []
    for stretch in stretches:
        length = stretch * sheet.rest_m
        pull = float(law.force_n(np.array([length]))[0])
        # the same stretch with half the length in twice the strands
        folded = 2.0 * pull * (2 / strands) if sheet.item.shape == "loop" else None
        uses.append(BandUse(length_m=length, as_read_n=pull, folded_m=length / 2, folded_n=folded))
    return tuple(uses)


def pairs_of(
    con: store.Connection, trainer_id: int, sheet: BandSheet
) -> tuple[tuple[str, PairMatch], ...]:
    """Return how each other measured band of the place matches this one, name and match, the likest
    first.
    """
    if not sheet.used:
        return ()
    mine = sheet.fits[sheet.used].law
    found = []
    for item in store.items(con, trainer_id, sheet.item.place_id):
        if item.kind != "band" or item.id == sheet.item.id or item.shape != sheet.item.shape:
            continue
        other = band_sheet(con, trainer_id, item.id)
        if not other.used or other.item.strands != sheet.item.strands:
            continue
        longest = min(sheet.readings[-1].length_m, other.readings[-1].length_m)
        try:
            found.append((item.name, pair_match(mine, other.fits[other.used].law, longest)))
        except InputError:
            continue
    return tuple(sorted(found, key=lambda pair: abs(pair[1].off)))


@dataclass(frozen=True, slots=True, kw_only=True)
class BandCheck:
    """One check reading of a band beside what its law says, N; off as a share of the reading."""

    length_m: float
    read_n: float
    predicted_n: float
    error_n: float
    off: float
    says: str
    read_on: str | None


def band_checks(con: store.Connection, trainer_id: int, sheet: BandSheet) -> tuple[BandCheck, ...]:
    """Return a band's check readings beside the law: whether to trust it, read again, or weigh it
    anew.
    """
    if not sheet.used:
        return ()
    law = sheet.fits[sheet.used].law
    rows = [
        r for r in store.machine_readings(con, trainer_id, sheet.item.id) if r.purpose == "check"
    ]
    lengths = np.array([r.length_m for r in sheet.readings])
    forces = np.array([r.force_n for r in sheet.readings])
    found = []
    for row in rows:
        at = np.array([row.at])
        predicted = float(law.force_n(at)[0])
        error = float(drawn_pulls(lengths, forces, at).std(axis=0)[0])
        off, says = trust(predicted, error, row.force_n)
        found.append(
            BandCheck(
                length_m=row.at,
                read_n=row.force_n,
                predicted_n=predicted,
                error_n=error,
                off=off,
                says=says,
                read_on=row.read_on,
            )
        )
    return tuple(found)


def _check_units(length_unit: str, force_unit: str) -> None:
    if length_unit not in LENGTH_M or force_unit not in FORCE_N:
        raise SheetError({"check-length": Said("choose units of the list")})


@store.at_once
def check_band(
    con: store.Connection,
    trainer_id: int,
    item_id: int,
    length: str,
    force: str,
    length_unit: str,
    force_unit: str,
    *,
    now: str,
) -> None:
    """Keep one check reading of a band, with undo. SheetError at the cell."""
    sheet = band_sheet(con, trainer_id, item_id)
    messages: dict[str, Words] = {}
    if not sheet.used:
        raise SheetError(
            {"check-length": Said("weigh the band first: there is nothing to check yet")}
        )
    _check_units(length_unit, force_unit)
    at = cell(length, "check-length", Said("a length in {unit}", unit=Name(length_unit)), messages)
    pull = cell(force, "check-force", Said("a pull in {unit}", unit=Name(force_unit)), messages)
    longest = sheet.readings[-1].length_m
    if at is not None and not 0 < at * LENGTH_M[length_unit] <= longest + 0.005:
        shown = longest / LENGTH_M[length_unit]
        messages["check-length"] = Said(
            "{length} is beyond what was read: at most {most}",
            length=Name(f"{length} {length_unit}"),
            most=Figure(float(f"{shown:.4g}"), f" {length_unit}"),
        )
    if pull is not None and not 0 <= pull * FORCE_N[force_unit] <= 20000:
        messages["check-force"] = Said(
            "{force} is not kept: from 0 to {most}",
            force=Name(f"{force} {force_unit}"),
            most=Figure(round(20000 / FORCE_N[force_unit])),
        )
    if messages or at is None or pull is None:
        raise SheetError(messages)
    row = store.MachineReading(
        at=at * LENGTH_M[length_unit],
        force_n=pull * FORCE_N[force_unit],
        purpose="check",
        read_on=now[:10],
    )
    add_check(con, trainer_id, item_id, [row], now=now)


def spread_at(sheet: BandSheet, reach_m: Array) -> tuple[Array, Array] | None:
    """Return where a drawn law lies 19 times in 20, N: low and high at lengths (m); None without a
    law.
    """
    if len(sheet.readings) < 2 or not sheet.used:
        return None
    lengths = np.array([r.length_m for r in sheet.readings])
    forces = np.array([r.force_n for r in sheet.readings])
    low, high = np.quantile(drawn_pulls(lengths, forces, reach_m), (0.025, 0.975), axis=0)
    return low, high
