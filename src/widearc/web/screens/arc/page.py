"""What Arc's page shows: the set-up that is asked, and its curves where it has any."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import groupby
from typing import Any
from urllib.parse import parse_qsl

from flask import request

from widearc import store, usecases
from widearc.core.body import PORTS
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES, FAMILIES, Exercise
from widearc.core.muscle import sentences
from widearc.core.statics import Curve, grip_n
from widearc.core.words import Listed, Said, Term, Times, mass_of
from widearc.usecases.arc.arc import Arc, CardSection
from widearc.usecases.arc.felt import Felt
from widearc.web.db import connection, held, trainer
from widearc.web.drawing import curves as curve_drawing
from widearc.web.drawing import muscles as muscle_drawing
from widearc.web.drawing import views as view_drawing
from widearc.web.drawing.figure import Figure, figure_of
from widearc.web.drawing.grips import Grip, grips_on
from widearc.web.forms.loads import LoadRow, kinds_for, load_rows
from widearc.web.forms.options import Field
from widearc.web.forms.typed import Texts
from widearc.web.screens.arc.intended import choices, laid_over
from widearc.web.screens.arc.pins import against, first_pin, pinned
from widearc.web.screens.arc.query import Asked, asked
from widearc.words import tell

FIGURE = (430.0, 446.0, 300.0)
USUAL_TEMPO_S = [2.0, 2.0]
USUAL_SET = {"reps": "8", "reserve": "2", "side": "both", "formula": "epley"}


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class ArcPage:
    """Arc's page: the set-up always; figure, plots, script and words where there is a curve."""

    entry: Exercise
    tall: float
    groups: Sequence[tuple[str, Sequence[tuple[str, str]]]]
    clients: Sequence[store.ClientRow]
    client: store.ClientRow | None
    fields: Sequence[Field]
    loads: Sequence[LoadRow]
    kinds: Sequence[tuple[str, str]]
    problems: Texts
    pins: Sequence[str]
    set_typed: Texts
    set_problems: Texts
    typed: Texts
    found: Arc | None
    card: Sequence[CardSection]
    section_words: Mapping[str, str]
    card_change: store.Change | None
    overs: Sequence[tuple[str, str]]
    over: str
    want: str
    views: Sequence[tuple[str, str]]
    view: str
    thirds: Sequence[str]
    here: str
    query: str

    efforts: Sequence[usecases.Effort] = ()
    muscles: Sequence[muscle_drawing.MuscleRow] = ()
    muscle_words: Sequence[str] = ()
    curves: curve_drawing.Curves | None = None
    columns: Sequence[str] = ()
    table: Sequence[Sequence[str]] = ()
    plots: Sequence[curve_drawing.Solo] = ()
    view_words: str = ""
    grips: Sequence[Grip] = ()
    rule_ticks: Sequence[Any] = ()
    rule_ends: tuple[str, str] = ("", "")
    rule_words: str = ""
    intended: Sequence[curve_drawing.Intended] = ()
    figure: Figure | None = None
    lines: Sequence[str] = ()
    width: float = 0.0
    height: float = 0.0
    script: Mapping[str, Any] = field(default_factory=dict)
    path_words: str = ""
    whole_words: str = ""
    posture_words: str = ""
    hand_words: str = ""
    tempo_words: str = ""
    notices: Sequence[str] = ()
    assumptions: Sequence[str] = ()
    balances: bool = True
    joint_names: Mapping[str, str] = field(default_factory=lambda: curve_drawing.NAMES)
    against: str = ""
    felt: Felt | None = None


def arc_page(ask: Asked, *, dragging: bool) -> ArcPage:
    """Return the page of what an address asks; while dragging only what moves."""
    args, entry = request.args, ask.entry
    page: dict[str, Any] = {
        "entry": entry,
        "tall": ask.stature_m,
        "groups": _groups(),
        "clients": ask.clients,
        "client": ask.client,
        "fields": ask.fields,
        "loads": load_rows(ask.loads, entry, ask.laws, {p: PORTS[p].label for p in PORTS}),
        "kinds": kinds_for(entry),
        "problems": Texts(ask.problems),
        "pins": pinned(),
        "set_typed": Texts(USUAL_SET),
        "set_problems": Texts(),
        "typed": Texts({name: args.get(name, "") for name in ("lift", "lower")}),
        "found": ask.found,
        "card": usecases.card(connection(), trainer(), entry),
        "section_words": usecases.SECTION_WORDS,
        "card_change": held().last_change(usecases.card_scope(entry.id)),
        "overs": choices(pinned()),
        "over": args.get("over", "want" if args.get("want") else ""),
        "want": args.get("want", "")[:2000],
        "views": view_drawing.VIEWS,
        "view": args.get("view", "joints"),
        "thirds": usecases.THIRDS,
        "here": request.full_path.rstrip("?"),
        "query": request.query_string.decode(),
    }
    if ask.found is not None and ask.found.curve is not None:
        page |= _answer(ask, ask.found.curve, page["view"], dragging=dragging)
    return ArcPage(**page)


def _answer(ask: Asked, curve: Curve, view: str, *, dragging: bool) -> dict[str, Any]:
    """Return the curve's part of the page, for the client where there is one."""
    client, first = ask.client, first_pin()
    known = {} if client is None else usecases.strength_of(connection(), trainer(), client.id)
    efforts = usecases.efforts(curve, known)
    over, ghost = laid_over(curve, first), _ghost(curve)
    page = _drawn(ask, efforts, over, view, first, ghost, dragging=dragging)
    page["against"] = against(first, curve, known)
    if client is not None and curve.demand_nm:
        page["felt"] = usecases.felt_of(connection(), trainer(), client.id, curve)
    return page


def _drawn(
    ask: Asked,
    efforts: tuple[usecases.Effort, ...],
    over: tuple[curve_drawing.Intended, ...],
    view: str,
    first: Asked | None,
    ghost: Curve | None,
    *,
    dragging: bool,
) -> dict[str, Any]:
    """Return figure, plots, script and words of a curve; while dragging only what moves."""
    found = ask.found
    assert found is not None and found.curve is not None
    curve = found.curve
    drawn = curve_drawing.curves_of(curve, found.fast, found.error_nm, efforts, over, ghost)
    width, height, most = FIGURE
    lines = [plot.joint for plot in drawn.plots if plot.joint in curve.demand_nm]
    picture = (
        figure_of(
            curve,
            width=width,
            height=height,
            most_px=most,
            lines=lines,
            arcs=not curve.setup.exercise.law.from_above,
            over=over,
        )
        if curve.motion.points
        else None
    )
    handles = grips_on(curve, picture, ask.fields, ask.loads) if picture is not None else ()
    plots, script, view_words = list(drawn.plots), drawn.script, ""
    shown = solo_view(view, curve, first)
    columns, table = drawn.columns, drawn.table
    if shown is not None:
        plots, more, view_words = shown
        script = script + more
        columns, table = view_drawing.table(plots, more)
    rule, rule_ticks, rule_ends, rule_words = view_drawing.rule(curve)
    use = usecases.muscles(curve) if view == "muscles" and not dragging else None
    return {
        "efforts": efforts,
        "muscles": muscle_drawing.rows(use) if use is not None else (),
        "muscle_words": sentences(use) if use is not None else (),
        "curves": drawn,
        "columns": columns,
        "table": table,
        "plots": plots,
        "view_words": view_words,
        "grips": handles,
        "rule_ticks": rule_ticks,
        "rule_ends": rule_ends,
        "rule_words": rule_words,
        "intended": over,
        "figure": picture,
        "lines": lines,
        "width": width,
        "height": height,
        "script": {
            "joints": [*script, rule],
            "frames": picture.frames if picture else {},
            "n": len(curve.motion.position),
            "tempo": [found.tempo.lifting_s, found.tempo.lowering_s]
            if found.tempo
            else USUAL_TEMPO_S,
        },
        "path_words": curve_drawing.path_words(curve),
        "whole_words": _whole_words(curve),
        "posture_words": curve_drawing.posture_words(curve),
        "hand_words": _hand_words(curve),
        "tempo_words": curve_drawing.tempo_words(found.tempo, found.fast, curve),
        "notices": [n.text for n in curve.motion.notices if n.where[0]],
        "assumptions": curve.motion.assumptions,
        "balances": dragging or bool(usecases.balances(curve)),
        "joint_names": curve_drawing.NAMES,
    }


HARDER = {
    "": "{tried}",
    "less": "{tried}: less spring is harder here",
    "more": "{tried}: more spring is harder here",
    "either": "{tried}: here it turns, less and more are both harder",
}

UP_DOWN = ("{joints} up", "{joints} down")


def _whole_words(curve: Curve) -> str:
    """Return the whole effort of a set-up in words, and which way its springs make it harder."""
    whole = usecases.whole_of(curve)
    if whole is None:
        return ""
    said = [
        Said(
            "{effort}: hip, knee and ankle of both legs, over what legs usually give",
            effort=Times(whole.effort, 2),
        )
    ]
    if whole.less is not None and whole.more is not None:
        tried = Said(
            "With a fifth less spring {less}, with a fifth more {more}",
            less=Times(whole.less, 2),
            more=Times(whole.more, 2),
        )
        said.append(Said(HARDER[whole.harder], tried=tried))
        ways = tuple(
            Said(way, joints=Listed(tuple(map(Term, names)), "and"))
            for names, way in zip((whole.rises, whole.falls), UP_DOWN, strict=True)
            if names
        )
        said += [Said("With more spring {ways}", ways=Listed(ways))] if ways else []
    return tell("{sentences}.", sentences=Listed(tuple(said), ". "))


def _seconds(found: Arc) -> list[float]:
    return [found.tempo.lifting_s, found.tempo.lowering_s] if found.tempo else USUAL_TEMPO_S


def solo_view(
    view: str, curve: Curve, first: Asked | None
) -> tuple[list[curve_drawing.Solo], list[dict[str, Any]], str] | None:
    """Return plots, cursors and words of the forces' or the low back's view, None for the
    others.
    """
    if view == "forces":
        return (*view_drawing.forces(curve), "")
    if view == "spine":
        reference = first.found.curve if first is not None and first.found is not None else None
        return view_drawing.spine(curve, reference)
    return None


def _ghost(found: Curve) -> Curve | None:
    """Return the curve from before the drag that is going on, None where there is none to draw."""
    before = request.headers.get("X-Was", "")[:4000]
    if not before:
        return None
    try:
        was = asked(dict(parse_qsl(before)), doubt=False)
    except InputError:
        return None
    if was.found is None or was.found.curve is None or was.entry.id != found.setup.exercise.id:
        return None
    return was.found.curve


def _hand_words(curve: Curve) -> str:
    """Return what one hand holds at most, in kg; empty where the hands are free."""
    force = grip_n(curve.setup, curve.motion)
    return (
        ""
        if force is None
        else tell("each hand holds up to {mass}", mass=mass_of(float(force[0].max()), whole=True))
    )


def _groups() -> list[tuple[str, list[tuple[str, str]]]]:
    """Return the catalogue by kind of movement, in the order of the families."""
    order = list(dict.fromkeys(family.words for family in FAMILIES.values()))
    listed = sorted(EXERCISES.values(), key=lambda e: (order.index(e.law.words), e.name))
    return [
        (words, [(e.id, e.name) for e in entries])
        for words, entries in groupby(listed, key=lambda e: e.law.words)
    ]
