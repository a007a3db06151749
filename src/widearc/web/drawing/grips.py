"""Direct handles on the figure: foot on the plate, box, seat, anchor, step, bar place. Numbers to
px; draws only.

Each handle stands where the thing is, follows it through the lift, and goes the way the thing can
be moved; its value is the form's field of the same name, in the field's unit.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import HIP_OVER_SEAT_M, PORTS, TRUNK_PORTS
from widearc.core.statics import Curve
from widearc.core.units import to_rad
from widearc.core.words import Length
from widearc.web.drawing.figure import Figure, points_of
from widearc.web.forms.options import Field
from widearc.words import sign_of, size_of, tell, tr

Points = Mapping[str, Array]
Where = Callable[[Curve, Points], Array]
Way = Callable[[Curve, Points], tuple[float, float]]
MOST_CM = 1000.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Grip:
    """One handle. field: names of the form's fields, with a blank between two; dx, dy, px: the
    same, px per unit.

    key: its frames. stops: where it may stand instead of anywhere, (value, px, px) at the start of
    the lift. text_y: how far below the ring's middle its word stands, px.
    """

    field: str
    key: str
    dx: str
    dy: str
    px: str
    label: str
    text: str
    value: str
    least: float
    most: float
    step: float
    unit: str
    says: str
    arrows: tuple[tuple[float, float], ...]
    stops: tuple[tuple[str, float, float, str], ...] = ()
    text_y: int = -9


def _at(name: str, *, up: float = 0.0) -> Where:
    return lambda curve, p: p[name] + np.array([[0.0], [up]])


def _fixed_way(x: float, y: float) -> Way:
    return lambda curve, p: (x, y)


def _round_hip(curve: Curve, p: Points) -> tuple[float, float]:
    """Return m per degree of the shoulder as the trunk turns up about the hip."""
    arm = p["shoulder"][:, 0] - p["hip"][:, 0]
    turn = np.array([-arm[1], arm[0]]) * to_rad(1.0)
    return (float(turn[0]), float(turn[1])) if turn[1] >= 0 else (float(-turn[0]), float(-turn[1]))


def _lean(curve: Curve, p: Points) -> tuple[float, float]:
    """Return m per degree of the shoulder as the trunk leans forward about the hip."""
    arm = p["shoulder"][:, 0] - p["hip"][:, 0]
    return float(arm[1]) * to_rad(1.0), float(-arm[0]) * to_rad(1.0)


def _square_to_rail(curve: Curve, p: Points) -> tuple[float, float]:
    """Return m per centimetre of the foot's place on the plate: square to the rails, upwards."""
    along = p["plate"][:, -1] - p["plate"][:, 0]
    along = along / max(float(np.hypot(*along)), 1e-9)
    way = np.array([-along[1], along[0]])
    if way[1] < -1e-6 or (abs(way[1]) <= 1e-6 and way[0] < 0):
        way = -way
    return 0.01 * float(way[0]), 0.01 * float(way[1])


UP, AHEAD, BACK = _fixed_way(0.0, 0.01), _fixed_way(0.01, 0.0), _fixed_way(-0.01, 0.0)


# option: (families, or () for all; where it stands; m it moves per unit of the field; words)
PLACES: tuple[tuple[str, tuple[str, ...], Where, Way, str], ...] = (
    ("foot_height_m", ("sled press",), _at("ankle"), _square_to_rail, "foot on the plate"),
    ("backrest_deg", ("sled press",), _at("shoulder"), _round_hip, "backrest"),
    ("hip_deg", ("knee rotation",), _at("shoulder"), _round_hip, "seat angle"),
    ("trunk_lean_deg", (), _at("shoulder"), _lean, "lean"),
    ("box_m", (), _at("toe"), UP, "box"),
    ("foot_m", (), _at("toe"), UP, "box"),
    ("rear_m", (), _at("rear_ball"), UP, "bench"),
    ("bench_m", (), _at("bench"), UP, "bench"),
    ("couch_m", ("plank knee bend",), lambda curve, p: _couch(curve, p), UP, "height"),
    ("seat_m", ("knee rotation", "calf"), _at("hip", up=-HIP_OVER_SEAT_M), UP, "seat"),
    ("step_m", ("calf",), _at("mtp"), UP, "step"),
    ("step_m", ("split",), _at("rear_ball"), BACK, "step"),
    ("foot_ahead_m", ("supported stance", "sled squat", "bridge"), _at("ankle"), AHEAD, "feet"),
    ("heel_wedge_m", ("stance",), _at("heel"), UP, "wedge"),
)


def _couch(curve: Curve, p: Points) -> Array:
    """Return the couch's edge: at the room's origin, at its height; under the heels of who lies on
    the back.
    """
    if curve.setup.exercise.variant == "supine":
        return p["heel"]
    top = float(np.ravel(curve.setup.resolved["couch"])[0])
    return np.array([[0.0], [top]]) * np.ones_like(p["hip"])


def grips_on(
    curve: Curve, drawn: Figure, fields: Sequence[Field], loads: Sequence[Mapping[str, str]]
) -> tuple[Grip, ...]:
    """Return the handles of a figure; adds their frames to it. fields: the form's; loads: as typed,
    by row.
    """
    points = points_of(curve)
    by_name = {f.name: f for f in fields}
    found = [*_options(curve, points, drawn, by_name), *_loads(curve, points, drawn, loads)]
    return _apart(found, drawn)


LETTER_PX, LINE_PX = 7, 15


def _apart(found: Sequence[Grip], drawn: Figure) -> tuple[Grip, ...]:
    """Return handles with their words a line higher where another's word would lie over them at the
    start.
    """
    placed: list[tuple[float, float, float]] = []
    result = []
    for grip in sorted(found, key=lambda g: drawn.frames[g.key][0][0]):
        x, y = drawn.frames[grip.key][0]
        above, half = grip.text_y, 0.5 * LETTER_PX * len(grip.text)
        while grip.text and any(
            a < x + half and x - half < b and abs(y + above - c) < LINE_PX for a, b, c in placed
        ):
            above -= LINE_PX
        if grip.text:
            placed.append((x - half, x + half, y + above))
        result.append(replace(grip, text_y=above))
    return tuple(result)


SHOWN_PER = {True: 1.0, False: 0.01}
"""What a field counts in, of the core's unit: degrees of degrees, centimetres of metres."""


def _options(curve: Curve, p: Points, drawn: Figure, fields: Mapping[str, Field]) -> Iterator[Grip]:
    specs, family = curve.setup.exercise.options, curve.setup.exercise.family
    for name, families, where, way, words in PLACES:
        field = fields.get(f"o-{name}")
        if field is None or field.choices or (families and family not in families):
            continue
        try:
            at = where(curve, p)
        except KeyError:
            continue
        mx, my = way(curve, p)
        size = float(np.hypot(mx, my))
        if size < 1e-9 or not _is_number(field.value):
            continue
        spec, factor = specs[name], SHOWN_PER[name.endswith("_deg")]
        yield _grip(
            drawn,
            at,
            field.name,
            (mx / size, -my / size),
            size * drawn.scale * size_of(field.unit),
            words,
            field.shown,
            field.sign,
            (
                spec.low / factor / size_of(field.unit),
                spec.high / factor / size_of(field.unit),
            ),
        )


def _is_number(text: str) -> bool:
    try:
        return np.isfinite(float(text.replace(",", ".").replace("−", "-"))).item()  # type: ignore[no-any-return]
    except ValueError:
        return False


def _grip(
    drawn: Figure,
    at: Array,
    field: str,
    way: tuple[float, float],
    px: float,
    words: str,
    value: str,
    unit: str,
    ends: tuple[float, float],
) -> Grip:
    key = f"grip_{field}"
    drawn.frames[key] = drawn.dots(at)
    return Grip(
        field=field,
        key=key,
        dx=f"{way[0]:.4f}",
        dy=f"{way[1]:.4f}",
        px=f"{px:.4f}",
        label=tr(words),
        text=tr(words),
        value=value,
        least=round(ends[0], 3),
        most=round(ends[1], 3),
        step=0.5 if unit == "in" else 1.0,
        unit=unit,
        says=f"{value} {unit}".strip(),
        arrows=(way,),
    )


def _loads(
    curve: Curve, p: Points, drawn: Figure, loads: Sequence[Mapping[str, str]]
) -> Iterator[Grip]:
    for index, (load, typed) in enumerate(zip(curve.setup.loads, loads, strict=False)):
        end = load.fixed_at
        if end is not None and typed.get("tie", "point") == "point":
            x, y = (float(np.ravel(v)[0]) for v in end[:2])
            at = np.array([[x], [y]]) * np.ones_like(p[next(iter(p))])
            key = f"grip_l{index}"
            drawn.frames[key] = drawn.dots(at)
            per = size_of("cm")
            px = f"{drawn.scale / 100 * per:.4f}"
            yield Grip(
                field=f"l{index}-x l{index}-y",
                key=key,
                dx="1 0",
                dy="0 -1",
                px=f"{px} {px}",
                label=tr("anchor"),
                text=tr("anchor"),
                value=f"{100 * x / per:.3g}" if per != 1.0 else f"{100 * x:.0f}",
                least=round(-MOST_CM / per, 1),
                most=round(MOST_CM / per, 1),
                step=1.0,
                unit=sign_of("cm"),
                says=tell("{far} ahead, {high} high", far=Length(x), high=Length(y)),
                arrows=((1.0, 0.0), (0.0, -1.0)),
            )
        elif getattr(load, "kind", "") == "mass" and "shoulder" in p:
            yield from _bar_place(curve, p, drawn, index, str(getattr(load, "port", "")))


def _bar_place(curve: Curve, p: Points, drawn: Figure, index: int, here: str) -> Iterator[Grip]:
    """Yield a handle that stands at one of the places where the weight can be carried."""
    spots = {port: _spot(port, p) for port in curve.setup.exercise.ports}
    known = {port: at for port, at in spots.items() if at is not None}
    if here not in known or len(known) < 2:
        return
    key = f"grip_l{index}-port"
    drawn.frames[key] = drawn.dots(known[here])
    stops = tuple((port, *drawn.dots(at)[0], tr(PORTS[port].label)) for port, at in known.items())
    yield Grip(
        field=f"l{index}-port",
        key=key,
        dx="0",
        dy="1",
        px="1",
        label=tr("where the weight is"),
        text="",
        value=here,
        least=0,
        most=len(known) - 1,
        step=1.0,
        unit="",
        says=tr(PORTS[here].label),
        arrows=((0.0, 1.0),),
        stops=stops,  # type: ignore[arg-type]
    )


def _spot(port: str, p: Points) -> Array | None:
    if port in TRUNK_PORTS:
        trunk = p["shoulder"] - p["hip"]
        up = trunk / np.maximum(np.hypot(*trunk), 1e-9)
        ahead = np.stack((up[1], -up[0]))
        return np.asarray(p["shoulder"] - PORTS[port].below * up + PORTS[port].ahead * ahead)
    if port == "hip-belt":
        return p["hip"]
    return p.get("hand") if port == "hands" else None
