"""What Swap's page shows: the question, the ranking, and what stands beside it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import groupby
from typing import Any

import numpy as np
from flask import url_for

from widearc import store, usecases
from widearc.core.answers import (
    COLUMNS,
    FILTERS,
    MOST_WEIGHT,
    SORTED,
    WEIGHED,
    Beside,
    Bought,
    Column,
    EqualLoad,
    Needed,
    Pair,
    Tweak,
    WhyNot,
    beside,
    cautions_of,
    closer_pair,
    equal_loads,
    needed_for,
    needs_pair,
    sorted_by,
    tweaks_for,
    weighted,
    why_not_higher,
)
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES, FAMILIES, Exercise
from widearc.core.intent import HOLDS, SHAPES
from widearc.core.kit import Piece
from widearc.core.muscle import NAMES
from widearc.core.search import (
    Candidate,
    Uncertainty,
    compared_exercises,
    make_sure,
    variants_of,
    wanted_again,
)
from widearc.core.words import Figure, Name, Said
from widearc.usecases.swap.swap import SwapView, candidate_of, groups_of
from widearc.usecases.swap.wanted import SwapAsk, asks_depth, not_wantable, takes_kg
from widearc.web.db import connection, held, trainer
from widearc.web.drawing.areas import Areas
from widearc.web.drawing.compared import Drawing, drawing_of, strip_of
from widearc.web.forms.metric import in_metric
from widearc.web.forms.options import factor_of
from widearc.web.forms.typed import Texts, number
from widearc.web.screens.arc.link import arc_query
from widearc.web.screens.swap.asking import Asking, asking_of
from widearc.web.screens.swap.query import query_of, refusal_of
from widearc.web.screens.swap.sections import Row, Section, sections_of
from widearc.web.words.words import load_words, piece_words
from widearc.words import say, spoken_text, tell, tr


def _typed(source: Mapping[str, str], ask: SwapAsk, query: Mapping[str, Any]) -> dict[str, str]:
    """Return what the question's fields hold, in the units that are spoken."""
    texts = in_metric(source, EXERCISES[ask.exercise])
    typed = {name: str(texts.get(name, query[name])) for name in FIELDS}
    return typed | {"kg": spoken_text(typed["kg"], "kg")}


FIELDS = ("exercise", "kg", "depth", "sets", "reps", "client", "place")
KEPT_ARGS = (
    "sort",
    "muscle",
    *(f"only-{column.filter}" for column in FILTERS),
    *(f"w-{column.name}" for column in WEIGHED),
)
"""What of an address stays when another stand-in is chosen."""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SwapPage:
    """Swap's page: the question always; the rest where there is an answer.

    rows: stand-ins with their loads in words and their strips; sections: the same as listed,
    others of them folded. picked: the address names the stand-in; before, after: the ones listed
    beside it, by exercise id ("" for none); number: which of them it is, 1 the first. sums,
    muscles, columns: by exercise.
    """

    view: SwapView
    query: Texts
    typed: Texts
    problems: Texts
    back: str
    wanted_name: str
    wanted_exercise: str
    wantable: Sequence[tuple[str, Sequence[Exercise]]]
    shapes: Sequence[tuple[str, str, str]]
    shape_words: str
    feel: bool
    has_level: bool
    asks_depth: bool
    takes_kg: bool
    not_wantable: Sequence[tuple[str, str]]
    asking: Asking | None
    asking_problem: bool
    still_query: Mapping[str, str]
    still_words: str
    chosen: Candidate | None
    picked: bool

    before: str = ""
    after: str = ""
    number: int = 0
    rows: Sequence[Row] = ()
    sections: Sequence[Section] = ()
    variants: Mapping[str, Sequence[Row]] = field(default_factory=dict)
    sore: Mapping[str, str] = field(default_factory=dict)
    others: int = 0
    others_open: bool = False
    strip_joint: str = ""
    strip_ends: tuple[float, float] = (0.0, 0.0)
    again: Uncertainty | None = None
    drawing: Drawing | None = None
    chosen_load: str = ""
    known: str = ""
    client_notes: Sequence[str] = ()
    elsewhere: Texts = field(default_factory=Texts)
    on_arc: Mapping[str, str] | None = None
    packed: bool = False
    repeats: Sequence[str] = ()
    cautions: Sequence[str] = ()
    notices: Sequence[str] = ()
    assumptions: Sequence[str] = ()

    why: WhyNot | None = None
    why_listed: bool = False
    why_strip: Areas | None = None
    whys: Sequence[tuple[str, str]] = ()
    filtered: int = 0
    only: frozenset[str] = frozenset()
    columns: Mapping[str, Beside] = field(default_factory=dict)
    sorted_by: Sequence[Column] = SORTED
    filters: Sequence[Column] = FILTERS
    weighed: Sequence[Column] = WEIGHED
    sort: str = "match"
    weights: Texts = field(default_factory=Texts)
    sums: Mapping[str, float] = field(default_factory=dict)
    muscle: str = ""
    muscles: Mapping[str, float] = field(default_factory=dict)
    muscle_names: Mapping[str, str] = field(default_factory=lambda: NAMES)
    tweaks: Sequence[Tweak] = ()
    tweak: str = ""
    style_words: str = ""
    checks: Sequence[str] = ()
    changes: Sequence[str] = ()
    kinder: Mapping[str, Sequence[tuple[Any, str]]] = field(default_factory=dict)
    reps_words: str = ""
    favourites: Mapping[str, store.Favourite] = field(default_factory=dict)
    pieces: Sequence[Piece] = ()
    pair_offered: bool = False
    pair_asked: bool = False
    pair: Pair | None = None
    mine_aside: int = 0
    turn_at: str = ""
    turn_least: str = ""
    equal: Sequence[tuple[EqualLoad, str]] = ()
    needed: Sequence[Needed] = ()
    bought: Sequence[Bought] = ()
    reason_typed: str = ""
    room_open: bool = False


Part = dict[str, Any]


def swap_page(
    view: SwapView,
    source: Mapping[str, str],
    pick: str | None,
    problems: Texts,
    *,
    reason_typed: str = "",
) -> SwapPage:
    """Return the page for a view; source: the address or form; what it says wrongly goes to
    problems at its field.
    """
    tweak = source.get("tweak", "")
    chosen = candidate_of(view, pick, tweak)
    query = query_of(view.ask, view.client.body)
    query |= {name: source[name] for name in KEPT_ARGS if source.get(name)}
    wrong = any(name.startswith(("o-", "l")) for name in problems)
    page = _question(view, source, query, chosen, wrong=wrong) | _why(view, source.get("why", ""))
    if view.ranking is not None:
        drawn = {c.exercise.id: row for c, row in _drawn_rows(view)}
        page |= _answer(view, chosen, drawn)
        if chosen is not None and view.question is not None:
            page |= _chosen(view, chosen, source)
            page |= _listed(view, chosen, source, drawn, problems)
            page |= _turned(view, chosen, source, problems)
            page |= _paired(view, source)
    return SwapPage(view=view, problems=problems, reason_typed=reason_typed, **page)


def _question(
    view: SwapView,
    source: Mapping[str, str],
    query: dict[str, str],
    chosen: Candidate | None,
    *,
    wrong: bool,
) -> Part:
    ask, ranking = view.ask, view.ranking
    named = chosen is not None and source.get("pick") == chosen.exercise.id
    return {
        "query": Texts(query),
        "typed": Texts(_typed(source, view.ask, query)),
        "wantable": _by_shelf(),
        "shapes": [(s.value, words, HOLDS[s]) for s, words in SHAPES.items()],
        "feel": ask.intent is not None and ask.intent.by_feel,
        "has_level": ranking is None or ranking.target.has_level,
        "shape_words": SHAPES[ask.shape],
        "wanted_name": _wanted_name(view),
        "wanted_exercise": tr(EXERCISES[view.ask.exercise].name)
        if view.ask.intent is None
        else tr("what is wanted"),
        "asks_depth": asks_depth(EXERCISES[ask.exercise]),
        "takes_kg": takes_kg(EXERCISES[ask.exercise]),
        "not_wantable": not_wantable(),
        "asking": asking_of(view, source, held(), wrong=wrong),
        "asking_problem": wrong,
        **_still(view),
        "back": _address({**query, "pick": source["pick"]} if named else query),
        "chosen": chosen,
        "picked": named,
        "room_open": bool(source.get("room")),
    }


def _address(query: Mapping[str, Any]) -> str:
    return url_for("swap.show", **query)


def _still(view: SwapView) -> Part:
    """Return the address's part and the words of the nearest that can be had, where it cannot."""
    if view.still is None:
        return {"still_query": {}, "still_words": ""}
    if not view.still.option:
        deg = f"{view.still.value:.0f}"
        return {"still_query": {"depth": deg}, "still_words": f"{deg}°"}
    spec = EXERCISES[view.ask.exercise].options[view.still.option]
    text = f"{view.still.value / factor_of(spec):g}"
    unit = {"deg": "°", "m": "\N{NO-BREAK SPACE}cm", "N": "\N{NO-BREAK SPACE}N"}.get(spec.unit, "")
    return {
        "still_query": {"for": view.ask.exercise, f"o-{spec.name}": text},
        "still_words": f"{tr(spec.label)} {text}{unit}",
    }


def _by_shelf() -> list[tuple[str, list[Exercise]]]:
    """Return what can be asked for by kind of movement, in the order of the families."""
    order = list(dict.fromkeys(family.words for family in FAMILIES.values()))
    listed = sorted(usecases.wantable(), key=lambda e: (order.index(e.law.words), e.name))
    return [(words, list(entries)) for words, entries in groupby(listed, key=lambda e: e.law.words)]


def _drawn_rows(view: SwapView) -> list[tuple[Candidate, Row]]:
    ranking = view.ranking
    if ranking is None:
        return []
    make_sure(ranking.candidates)
    strips = (strip_of(ranking.target, view.wanted, c) for c in ranking.candidates)
    return [
        (c, (c, load_words(c), small)) for c, small in zip(ranking.candidates, strips, strict=True)
    ]


def _answer(view: SwapView, chosen: Candidate | None, drawn: Mapping[str, Row]) -> Part:
    assert view.ranking is not None
    target = view.ranking.target
    return {
        "rows": list(drawn.values()),
        "strip_joint": target.actions[target.main].joint,
        "strip_ends": target.range_deg(target.main),
        "drawing": drawing_of(target, view.wanted, chosen) if chosen else None,
        "again": wanted_again(view.question) if view.question is not None else None,
        "elsewhere": Texts({k: say(v) for k, v in usecases.elsewhere_of(view).items()}),
        "packed": view.room.place.crowding == "packed",
    }


def _repeats(view: SwapView, chosen: Candidate) -> list[str]:
    """Return what the things that a stand-in uses are set to, for this client and for everyone."""
    used = {*chosen.row.items(), *(piece.item for piece in chosen.pieces)}
    known = held().settings_at(view.ask.place_id)
    return [
        f"{item.name}: {setting.name} {setting.words}"
        for item in view.room.items
        if item.key in used
        for setting in known.get(item.id, ())
        if setting.client_id in (None, view.client.id)
    ]


def _kinder(view: SwapView, chosen: Candidate) -> dict[str, list[tuple[Any, str]]]:
    """Return the ways that are kinder to each sore joint, each with the words of its load."""
    ways = usecases.kinder_ways(view, chosen)
    return {joint: [(k, load_words(k.candidate)) for k in ways[joint]] for joint in ways}


def _chosen(view: SwapView, chosen: Candidate, source: Mapping[str, str]) -> Part:
    assert view.question is not None
    plain = candidate_of(view, chosen.exercise.id)
    own = beside(chosen, view.question)
    motion = chosen.curve.motion
    return {
        "chosen_load": load_words(chosen),
        "known": _known(view, chosen),
        "client_notes": usecases.client_notes(view, chosen),
        "on_arc": arc_query(chosen, view.client.id),
        "repeats": _repeats(view, chosen),
        "cautions": cautions_of(chosen),
        "notices": [n.text for n in motion.notices if n.where[0]],
        "assumptions": motion.assumptions,
        "tweaks": tweaks_for(plain, view.question) if plain is not None else (),
        "tweak": source.get("tweak", "") if chosen is not plain else "",
        "style_words": "" if chosen.style.kind.value == "plain" else chosen.style.sentence,
        "checks": usecases.set_up_checks(chosen, view),
        "changes": usecases.changes(chosen, view.wanted, own),
        "kinder": _kinder(view, chosen),
        "reps_words": usecases.reps_of(connection(), trainer(), view, chosen),
        "pieces": chosen.pieces,
        "mine_aside": sum(1 for client in view.aside.values() if client == view.client.id),
    }


def _steps(listed: Sequence[str], chosen: Candidate) -> Part:
    """Return the stand-ins beside the chosen one in the order of the list."""
    if chosen.exercise.id not in listed:
        return {}
    at = listed.index(chosen.exercise.id)
    return {
        "before": listed[at - 1] if at else "",
        "after": listed[at + 1] if at + 1 < len(listed) else "",
        "number": at + 1,
    }


def _listed(
    view: SwapView,
    chosen: Candidate,
    source: Mapping[str, str],
    drawn: Mapping[str, Row],
    problems: Texts,
) -> Part:
    """Return the rows sorted, filtered and weighed; the trainer's own choices first."""
    assert view.ranking is not None
    columns = usecases.columns_of(view)
    weights: dict[str, float] = {}
    muscle: dict[str, float] = {}
    by, group = source.get("sort", "match"), source.get("muscle", "")
    try:
        weights = _weights(source)
        if group:
            muscle = usecases.muscle_column(view, group)
    except InputError as error:
        problems[error.where] = refusal_of(error)
    known = by if by in COLUMNS or by == "sum" else "match"
    groups = groups_of(view)
    ordered = sorted_by([c for group in groups for c in group], columns, known, weights)
    if muscle:
        ordered = sorted(ordered, key=lambda c: -round(100 * muscle[c.exercise.id]))
    ordered = sorted(ordered, key=lambda c: c.exercise.id not in view.favourites)
    only = frozenset(c.filter for c in FILTERS if source.get(f"only-{c.filter}") == "1")
    shown = [c for c in ordered if columns[c.exercise.id].passes(only)]
    sums = {i: weighted(row[0].match, columns[i], weights) for i, row in drawn.items()}
    rows = [drawn[c.exercise.id] for c in shown]
    variants: dict[str, list[Row]] = {}
    if known == "match" and not muscle:
        again = wanted_again(view.question) if view.question is not None else None
        ids = {c.exercise.id for c in shown}
        lead = {
            variant: first
            for variant, first in variants_of(groups).items()
            if {variant, first} <= ids and variant not in view.favourites
        }
        for variant, first in lead.items():
            variants.setdefault(first, []).append(drawn[variant])
        harder = usecases.harder_of(view) if view.ask.sore_last else {}
        pinned = view.favourites.keys()
        same = usecases.first_of(view)
        sections = sections_of(groups, drawn, pinned, ids - lead.keys(), again, harder, same)
    else:
        sections = [Section(words="", rows=rows)]
    return {
        **_steps([row[0].exercise.id for part in sections for row in part.rows], chosen),
        "rows": rows,
        "sections": sections,
        "variants": variants,
        "sore": view.client.sore,
        **_folded(sections, variants, chosen),
        "filtered": len(ordered) - len(shown),
        "only": only,
        "columns": columns,
        "sort": by,
        "weights": Texts({c.name: source.get(f"w-{c.name}", "") for c in WEIGHED}),
        "sums": sums if weights else {},
        "muscle": group,
        "muscles": muscle,
        "favourites": view.favourites,
    }


def _folded(
    sections: Sequence[Section], variants: Mapping[str, Sequence[Row]], chosen: Candidate
) -> Part:
    """Return how many are folded; unfolded where the chosen one is among them."""
    rows = [row for part in sections if part.folded for row in part.rows]
    rows += [other for row in rows for other in variants.get(row[0].exercise.id, ())]
    names = [row[0].exercise.id for row in rows]
    return {"others": len(names), "others_open": chosen.exercise.id in names}


def _weights(source: Mapping[str, str]) -> dict[str, float]:
    """Return the typed weights of columns, those over 0; InputError names the field."""
    found = {}
    allowed = tell("a weight from 0 to {most}", most=Figure(MOST_WEIGHT))
    for column in WEIGHED:
        name = f"w-{column.name}"
        value = number(source, name, 0.0, what=allowed)
        if not 0 <= value <= MOST_WEIGHT:
            raise InputError(name, source.get(name), Said("{what}", what=Name(allowed)))
        if value > 0:
            found[column.name] = value
    return found


def _why(view: SwapView, exercise_id: str) -> Part:
    """Return why an exercise that was expected is not higher, with its strip where it has one."""
    if view.ranking is None or view.question is None:
        return {}
    found = None
    if exercise_id in EXERCISES:
        found = why_not_higher(EXERCISES[exercise_id], view.ranking, view.question)
    candidate = found.candidate if found is not None else None
    target = view.ranking.target
    return {
        "whys": [(e.id, e.name) for e in compared_exercises()],
        "why": found,
        "why_listed": candidate in view.ranking.candidates,
        "why_strip": strip_of(target, view.wanted, candidate) if candidate is not None else None,
    }


def _paired(view: SwapView, source: Mapping[str, str]) -> Part:
    assert view.ranking is not None
    assert view.question is not None
    best = max(view.ranking.candidates, key=lambda c: c.match)
    offered = needs_pair(best, view.question)
    asked = source.get("pair") == "1"
    return {
        "pair_offered": offered and not asked,
        "pair_asked": asked,
        "pair": closer_pair(best, view.question) if asked else None,
    }


def _turned(view: SwapView, chosen: Candidate, source: Mapping[str, str], problems: Texts) -> Part:
    """Return the answers to the question turned round, when it is asked."""
    assert view.question is not None
    at, least = source.get("at", ""), source.get("least", "")
    page: Part = {"turn_at": at, "turn_least": least}
    if not ("at" in source or "least" in source):
        return page
    try:
        degrees = number(source, "at", 0.0, what=tr("degrees")) if at.strip() else None
        found = equal_loads(chosen, view.question, degrees)
        page["equal"] = [(e, ", ".join(piece_words(e.pieces)) or tr("body weight")) for e in found]
    except InputError as error:
        problems["at"] = refusal_of(error)
    try:
        if least.strip():
            share = number(source, "least", 0.0, what=tr("percent, from 1 to 100")) / 100.0
            page["needed"] = needed_for(chosen, view.question, share)
    except InputError as error:
        problems["least"] = refusal_of(error)
    return page


def _known(view: SwapView, chosen: Candidate) -> str:
    """Return how what the set-up uses is known: measured, described or assumed, with the names."""
    used = {*chosen.row.items(), *(piece.item for piece in chosen.pieces)}
    badges: dict[str, list[str]] = {}
    for item in view.room.items:
        if item.key in used:
            badges.setdefault(tr(view.room.badges[item.id]), []).append(item.name.lower())
    said = sorted(badges.items(), reverse=True)
    return "; ".join(f"{badge}: {', '.join(names)}" for badge, names in said)


def _wanted_name(view: SwapView) -> str:
    if view.ask.intent is not None:
        return say(usecases.intent_words(view.ask.intent))
    item = EXERCISES[view.ask.exercise]
    if item.family == "sled press" and view.set_up is not None:
        rail = view.set_up.setup.options.get("rail_deg", item.options["rail_deg"].default)
        return f"{tr(item.name).lower().removesuffix(' 45°')} {float(np.ravel(rail)[0]):.0f}°"
    return tr(item.name).lower()
