"""The sheet that goes along: a page a day, with drawings, settings, warm-up, ready stand-ins."""

from __future__ import annotations

import base64
import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Any

import segno
from flask import current_app, request, url_for

from widearc import usecases
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.progression.warmup import WarmUpSet
from widearc.usecases import ladder
from widearc.usecases.ladder import LadderAsk
from widearc.usecases.week.coverage import Day, Slot, WeekView
from widearc.usecases.week.doing import facts_of_slot
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.areas import Areas
from widearc.web.drawing.coverage import Pose
from widearc.web.screens.floor.instead import source_of_exercise
from widearc.web.screens.swap.query import ask_of
from widearc.web.screens.week.drawn import drawn
from widearc.web.words.rungs import rung_words
from widearc.web.words.words import load_words, piece_words

READY = 2
"""Stand-ins of a slot that are printed beside it."""
PAPERS = ("A4", "letter")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Printed:
    """A slot as it is printed: its drawing and strip (None: none), sets before it, stand-ins with
    their loads, settings of what it uses.
    """

    slot: Slot
    pose: Pose | None
    strip: Areas | None
    warm_up: tuple[WarmUpSet, ...]
    ready: tuple[tuple[str, str], ...]
    settings: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Page:
    """A day as it is printed: its slots, and its address as a picture."""

    day: Day
    slots: tuple[Printed, ...]
    code: str


def sheet_values(view: WeekView, days: Sequence[Day], *, alone: bool) -> dict[str, Any]:
    """Return what the sheet's template places; alone: it goes along as a file of its own."""
    paper = request.args.get("paper", "A4")
    return {
        "view": view,
        "pages": [_page(view, day) for day in days],
        "exercises": EXERCISES,
        "rung_words": rung_words,
        "piece_words": piece_words,
        "paper": paper if paper in PAPERS else PAPERS[0],
        "papers": PAPERS,
        "only": request.args.get("day", ""),
        "styles": _styles() if alone else "",
    }


_FONT = re.compile(r'url\("(vendor/font/[^"]+)"\)')


def _styles() -> str:
    """Return the styles with their fonts inside: the file needs nothing beside it."""
    folder = Path(current_app.static_folder or "")

    def inside(found: re.Match[str]) -> str:
        font = base64.b64encode((folder / found[1]).read_bytes()).decode("ascii")
        return f"url(data:font/woff2;base64,{font})"

    return _FONT.sub(inside, (folder / "wide-arc.css").read_text(encoding="utf-8"))


def _page(view: WeekView, day: Day) -> Page:
    address = url_for("week.sheet", week_id=view.week.id, day=day.row.id, _external=True)
    code = segno.make(address, error="m", micro=False)
    slots = []
    for number, slot in enumerate(day.slots):
        first = number == 0 or slot.seen.exercise.prime != day.slots[number - 1].seen.exercise.prime
        slots.append(_printed(view, day, slot, warm=first and slot.row.kind == "lift"))
    return Page(
        day=day,
        slots=tuple(slots),
        code=code.svg_inline(scale=2, border=1, dark="black", light="white"),
    )


def _printed(view: WeekView, day: Day, slot: Slot, *, warm: bool) -> Printed:
    pose, strip = drawn(slot.row)
    return Printed(
        slot=slot,
        pose=pose,
        strip=strip,
        warm_up=_warm_up(view, day, slot) if warm else (),
        ready=_ready(view, day, slot),
        settings=_settings(slot),
    )


def _warm_up(view: WeekView, day: Day, slot: Slot) -> tuple[WarmUpSet, ...]:
    if view.client is None or slot.row.scenario is None:
        return ()
    ask = LadderAsk(client_id=view.client.id, place_id=day.row.place_id, exercise=slot.row.exercise)
    found = ladder.ladder_view(
        connection(),
        trainer(),
        ask,
        current_app.extensions["memo"],
        today=_today(),
        setup=facts_of_slot(slot.row),
    )
    return () if found.answer is None else found.answer.warm_up


def _today() -> date:
    return date.fromisoformat(now()[:10])


def _ready(view: WeekView, day: Day, slot: Slot) -> tuple[tuple[str, str], ...]:
    """Return the best stand-ins of other exercises that are free there, with their loads."""
    if view.client is None or slot.row.kind != "lift":
        return ()
    source = source_of_exercise(
        slot.row.exercise,
        slot.row.asked,
        client_id=view.client.id,
        place_id=day.row.place_id,
        sets=slot.row.sets_high,
        reps=slot.row.reps_high,
    )
    try:
        ask = ask_of(source, lenient=True)
        found = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
    except InputError:
        return ()
    if found.ranking is None:
        return ()
    others = [c for c in found.ranking.candidates if c.exercise.id != slot.row.exercise]
    return tuple((c.exercise.name, load_words(c)) for c in others[:READY])


def _settings(slot: Slot) -> tuple[str, ...]:
    """Return what the things that a slot uses are set to."""
    found = []
    for item in slot.row.items:
        found += [f"{s.name} {s.words}" for s in held().settings(item)]
    return tuple(found)
