"""Values to the words a trainer reads: pieces to pick up, numbers with the digits that are
meant.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from widearc.core.body import PORTS
from widearc.core.equipment import Band, kind_of
from widearc.core.kit import Piece
from widearc.core.search import Candidate
from widearc.core.units import FORCE_N
from widearc.core.words import (
    Count,
    Distance,
    Figure,
    Force,
    Length,
    Mass,
    Name,
    Said,
    Term,
    Value,
)
from widearc.store import DecisionRow, ItemRow
from widearc.web.zone import local
from widearc.words import again, figures, say, sign_of, size_of, spoken, tr

MINUS = "\N{MINUS SIGN}"


def joint_name(joint: str) -> str:
    """Return a joint as a person says it."""
    return tr("hip to the side" if joint == "hip_abduction" else joint)


def joint_bend(joint: str) -> str:
    """Return the angle of a joint as a person says it."""
    return tr("hip opening" if joint == "hip_abduction" else f"{joint} bend")


def begins(words: Value | str) -> str:
    """Return words with a capital, as they begin a sentence."""
    text = say(words)
    return text[:1].upper() + text[1:]


def said_again(row: DecisionRow, name: str) -> str:
    """Return what was said of a decision, in the units that are spoken now; as it was kept where it
    cannot be said again.
    """
    value = again(getattr(row, f"{name}_said") or "")
    return say(value) if value is not None else str(getattr(row, name))


def whole(value: float) -> str:
    """Return a whole number with a true minus sign and no minus zero."""
    return f"{round(value) + 0:d}".replace("-", MINUS)


def kg(value: float) -> str:
    """Return a mass (kg) in the unit that is spoken, without it."""
    return figures.mass_in(sign_of("kg"), value, spoken())


def mass(value: float) -> str:
    """Return a mass (kg) with the unit that is spoken."""
    return say(Mass(value))


def thing(value: float) -> str:
    """Return what stands on a thing (kg), with the unit that it is a plain number of."""
    return say(Mass(value, thing=True))


def metres(value: float) -> str:
    """Return a distance (m) with the unit that is spoken."""
    return say(Distance(value))


def tape(value: float) -> str:
    """Return a length (m) with the unit that is spoken."""
    return say(Length(value))


def force(value: float) -> str:
    """Return a force (N) with the unit that is spoken."""
    return say(Force(value))


def newtons(value: float) -> str:
    """Return a force (N) in the unit that is spoken, without it."""
    return whole(value / size_of("N"))


def short(value: float) -> str:
    """Return a number with the decimals it has."""
    return figures.short(value, spoken())


def percent(share: float) -> str:
    """Return a share as whole percent, without the sign."""
    return whole(100 * share)


def kgf(newton: float) -> str:
    """Return a pull in whole kilograms or pounds, as a hanging scale reads it."""
    return whole(newton / FORCE_N["kgf"] / size_of("kg"))


def percent_up(share: float) -> str:
    """Return a share as whole percent, at least 1: what is said to be unsure is never said to be
    sure.
    """
    return f"{max(1, round(100 * share)):d}"


def centimetres(metres: float) -> str:
    """Return a length (m) in the unit that is spoken, without it: whole centimetres, halves under
    10; inches to the half, quarters under 10.
    """
    return say(Length(metres)).split(" ")[0]


def clock(iso: str) -> str:
    """Return the local time of day of an ISO time, h:mm."""
    return local(iso).strftime("%H:%M")


def day(iso: str) -> str:
    """Return the local date and time of an ISO time."""
    return local(iso).strftime(f"{_date_format()} %H:%M")


def date(iso: str) -> str:
    """Return an ISO date as it is written on a plan."""
    return datetime.fromisoformat(iso).strftime(_date_format())


def _date_format() -> str:
    return "%d/%m/%Y" if spoken().language == "id" else "%d.%m.%Y"


def stamp(weight: float) -> str:
    """Return what stands on a thing (kg), with a unit only where it is not the spoken one."""
    return stamps([weight])


def stamps(weights: Iterable[float]) -> str:
    """Return what stands on several things (kg), with a unit where it is not the spoken one."""
    masses, how = list(weights), spoken()
    units = {figures.own_unit(w) for w in masses}
    if len(units) > 1:
        return " + ".join(thing(w) for w in masses)
    unit = next(iter(units), "")
    numbers = " + ".join(figures.mass_in(unit, w, how) for w in masses)
    return numbers if unit in ("", sign_of("kg")) else f"{numbers} {unit}"


def piece_words(pieces: tuple[Piece, ...], *, single: bool = False) -> list[str]:
    """Return what to pick up, one phrase for the bar with its plates, one for each other thing.

    single: plates go on one by one (a pin, one end of a bar), not in pairs.
    """
    iron = _iron_words(pieces, single=single)
    return ([iron] if iron else []) + [w for w in map(_other_piece, pieces) if w]


def _iron_words(pieces: tuple[Piece, ...], *, single: bool) -> str:
    """Return what of bar and plates goes where, with its total, "" where there is neither."""
    bar = next((p for p in pieces if p.kind in ("bar", "trap bar", "rail bar")), None)
    plates = sorted((p for p in pieces if p.kind == "plate"), key=lambda p: -p.kg)
    iron = sum(p.kg * p.number for p in plates)
    side = Name(stamps(p.kg for p in plates for _ in range(p.number // 2)))
    if bar is not None:
        return say(
            Said(
                "{bar} {stamp}, {plates} each side: {total}",
                bar=Term(bar.kind) if bar.kind in ("bar", "trap bar") else Name(bar.label),
                stamp=Name(stamps([bar.kg])),
                plates=side if plates else Term("nothing"),
                total=Mass(bar.kg + iron),
            )
        )
    if not plates:
        return ""
    if single or any(p.number % 2 for p in plates):
        each = [p.kg for p in plates for _ in range(p.number)]
        if len(each) == 1:
            return say(Said("plate {stamp}", stamp=Mass(each[0], thing=True)))
        return say(Said("plates {stamps}: {total}", stamps=Name(stamps(each)), total=Mass(iron)))
    return say(Said("{plates} each side: {total}", plates=side, total=Mass(iron)))


def _other_piece(piece: Piece) -> str:
    """Return a piece that is neither bar nor plate in words, "" for those."""
    if piece.kind in ("dumbbell", "kettlebell"):
        if piece.number == 2:
            pair = Term(f"{piece.kind}s")
            return say(Said("{pair} {stamps}", pair=pair, stamps=Name(_with_unit([piece.kg] * 2))))
        kind = Term(piece.kind)
        return say(Said("{kind} {stamp}", kind=kind, stamp=Mass(piece.kg, thing=True)))
    if piece.kind == "stack":
        stack = Name(piece.label)
        return say(Said("{stack} at {stamp}", stack=stack, stamp=Mass(piece.kg, thing=True)))
    if piece.kind in ("band", "spring"):
        return piece.label if piece.number == 1 else f"{piece.number} × {piece.label}"
    return ""


def _with_unit(weights: list[float]) -> str:
    """Return what stands on things of one weight, with its unit."""
    told = stamps(weights)
    return told if told[-1].isalpha() else f"{told} {sign_of('kg')}"


CARRIERS = {
    "sled": (Said("{load} on the sled"), Term("the empty sled")),
    "lever": (Said("{load} on the arm"), Term("the empty arm")),
    "pendulum": (Said("{load} on the pendulum"), Term("the empty pendulum")),
}
"""What plates are put on, by the kind of load: with them, and without."""


def load_words(candidate: Candidate) -> str:
    """Return the pieces with where they go, in one line."""
    stocks = {way.stock for ways in candidate.exercise.ways for way in ways}
    loads = candidate.curve.setup.loads
    phrases = piece_words(candidate.pieces, single=bool(stocks & {"plate", "corner", "pendulum"}))
    if "load_left_share" in candidate.row.options and len(candidate.pieces) == 2:
        # which hand holds which is in the place's words
        phrases = [tr(f"{candidate.pieces[0].kind}s")]
    carrier = next((CARRIERS[x.kind] for x in loads if x.kind in CARRIERS), None)
    iron = any(p.kind == "plate" for p in candidate.pieces)
    text = ", ".join(phrases) or tr("body weight only")
    if carrier is not None and iron:
        text = say(Said(carrier[0].template, load=Name(text)))
    elif carrier is not None:
        text = ", ".join([say(carrier[1]), *phrases])
    where = _where(candidate)
    if where is not None:
        text = say(Said(where.template, begins=False, load=Name(text), **dict(where.values)))
    return ", ".join(part for part in (text, say(candidate.row.words)) if part)


def _where(candidate: Candidate) -> Said | None:
    """Return where a band is held, None for none: a template that has the load's place, too."""
    loads = candidate.curve.setup.loads
    band = next((x for x in loads if isinstance(x, Band)), None)
    if band is None or not candidate.row.bands:
        return None
    anchor = candidate.row.anchor
    if band.port == band.anchor_port:
        return Said("{load} round both thighs, above the knees")
    if band.port == "sled":
        return Said("{load} from the frame's peg to the sled's")
    if band.port == "hip-belt" and anchor is not None:
        return Said("{load} from the belt to {anchor}, under mid-foot", anchor=Name(anchor[0].name))
    if anchor is not None:
        return Said(
            "{load} from {anchor} at {height}, {away}",
            anchor=Name(anchor[0].name),
            height=Length(anchor[0].height_m),
            away=_away(candidate, anchor[1]),
        )
    return Said("{load} under the feet, {where}", where=Term(PORTS[band.port].label))


def _away(candidate: Candidate, far_m: float) -> Said:
    """Return how far an anchor is from the client; far_m: ahead of the room's origin."""
    body = candidate.curve.setup.body
    if candidate.exercise.family == "kneeling":
        return Said("knees {far} away", far=Length(far_m - body.shank_m))
    far = Length(abs(far_m))
    if candidate.exercise.family == "knee rotation" and candidate.exercise.variant != "prone":
        return Said("{far} behind the hips" if far_m < 0 else "{far} before the hips", far=far)
    if candidate.exercise.variant == "prone":
        past = Length(abs(far_m) - body.thigh_m - body.shank_m)
        return Said("{past} past the feet", past=past)
    return Said("{far} behind" if far_m < 0 else "{far} ahead", far=far)


def item_words(item: ItemRow) -> str:
    """Return what an item is, in a few words: sizes and counts."""
    q = item.quantities
    if item.kind in ("bar", "trap bar", "plate", "dumbbell", "kettlebell"):
        # the weight is mostly in the name already
        number, unit = thing(q.get("kg", 0.0)).split(" ")
        weight = Name(unit if number in item.name else f"{number} {unit}")
        if item.count == 1:
            return say(weight)
        return say(Said("{weight}, {number} pieces", weight=weight, number=Count(item.count)))
    if item.kind == "band":
        return tr(item.shape or "") + (f", {tape(item.rest_m)}" if item.rest_m else "")
    if item.kind in ("sled press", "hack squat"):
        return say(
            Said(
                "{rails}, sled {empty}",
                rails=Figure(round(q.get("rail_deg", 0.0)), "°"),
                empty=Mass(q.get("empty_kg", 0.0)),
            )
        )
    if item.kind == "spring":
        start, end = Force(q.get("start_n", 0.0)), Force(q.get("end_n", 0.0))
        return say(Said("{start} at the first mark, {end} at the stop", start=start, end=end))
    if "largest_kg" in q:
        smallest, largest = stamps([q["smallest_kg"]]), _with_unit([q["largest_kg"]])
        return say(
            Said("stack {smallest} to {largest}", smallest=Name(smallest), largest=Name(largest))
        )
    if item.kind == "anchor":
        holds = f", {force(q['holds_n'])}" if "holds_n" in q else ""
        side = f", {tr(item.side)}" if item.side else ""
        return f"{tape(item.height_m or 0.0)}{side}{holds}"
    for name, what in _SIZES:
        if name in q:
            return say(Said(what, size=Length(q[name])))
    if "bench_deg" in q:
        return f"{whole(q['bench_deg'])}°"
    own = kind_of(item.kind).words
    return tr(own) if own.lower() != item.name.lower() else ""


_SIZES = (
    ("height_m", "{size}"),
    ("thick_m", "{size} thick"),
    ("across_m", "{size} across"),
)
