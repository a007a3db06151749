"""Tables of words that the program says by their values: where they are, and which fields of their
values are texts.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from widearc.core.answers.columns import COLUMNS
from widearc.core.body import PORTS
from widearc.core.curve import Action
from widearc.core.dose import StyleKind
from widearc.core.equipment import KINDS, LOADS
from widearc.core.exercises import EXERCISES
from widearc.core.exercises.families import FAMILIES
from widearc.core.intent import shapes
from widearc.core.kit import stocks
from widearc.core.kit.needs import NEEDS
from widearc.core.movement.families import press
from widearc.core.muscle import said as muscles
from widearc.core.progression import aims, rules
from widearc.core.statics import points
from widearc.formats import FORMATS, schema
from widearc.usecases import floor
from widearc.usecases.arc import arc, felt
from widearc.usecases.bench import bands, columns
from widearc.usecases.claims.claims import CLAIMS
from widearc.usecases.client import client
from widearc.usecases.intent import intents
from widearc.usecases.room import elsewhere, items, kit, line, room
from widearc.usecases.swap import instead, wanted
from widearc.usecases.week import plans, presets
from widearc.web import errors
from widearc.web.drawing import curves, grips, views
from widearc.web.drawing import muscles as muscle_drawing
from widearc.web.forms import loads
from widearc.web.screens import marks
from widearc.web.screens.arc import page
from widearc.web.screens.bench import sheet
from widearc.web.screens.bench.gauge import STATES
from widearc.web.screens.claims import view as claims
from widearc.web.screens.client import sheet as clients
from widearc.web.screens.room import sheet as rooms
from widearc.web.screens.swap import asking
from widearc.web.screens.terms.terms import TERMS
from widearc.web.screens.week import view as weeks
from widearc.web.words import feel, how, rungs, words


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """A table: the module where it stands, its values, the fields that a person reads."""

    where: str
    values: Callable[[], object]
    fields: tuple[str, ...] = ()


def _spaced(text: object) -> str:
    return str(text).replace("_", " ").replace("-", " ")


def _choices(exercise) -> list[str]:  # type: ignore[no-untyped-def]
    return [_spaced(c) for spec in exercise.options.values() for c in spec.choices]


def _labels(fields) -> list[object]:  # type: ignore[no-untyped-def]
    """Return labels and choices of a sheet's fields."""
    return [(field.args, field.kwargs.get("choices", ())) for field in fields.values()]


def _titles() -> list[str]:
    return [schema(name)["title"] for name in ("common", *FORMATS)]


def _pieces() -> list[str]:
    return ["bar", "trap bar", "dumbbell", "dumbbells", "kettlebell", "kettlebells"]


JOINTS = ("hip", "knee", "ankle", "hip to the side", "low back", "hip abduction")
CARD = (
    "name",
    "aliases",
    "checks",
    "cues",
    "mistakes",
    "breathing",
    "cautions",
    "limits",
)
"""What of an exercise is read; its needs are said by `NEEDS`."""
CLAIM = ("title", "one_side", "other_side", "open", "act", "params", "words")

TABLES = (
    Table(where="core/exercises", values=lambda: EXERCISES, fields=CARD),
    Table(
        where="core/exercises",
        values=lambda: [e.options for e in EXERCISES.values()],
        fields=("label",),
    ),
    Table(where="core/exercises", values=lambda: [_choices(e) for e in EXERCISES.values()]),
    Table(where="core/exercises/families", values=lambda: FAMILIES, fields=("words",)),
    Table(where="core/body/ports.py", values=lambda: PORTS, fields=("label",)),
    Table(where="core/curve.py", values=lambda: [(a.words, a.place) for a in Action]),
    Table(where="core/curve.py", values=lambda: [f"{j} bend" for j in JOINTS[:3]]),
    Table(where="core/curve.py", values=lambda: JOINTS),
    Table(where="core/muscle/said.py", values=lambda: muscles.NAMES),
    Table(where="core/answers/columns.py", values=lambda: COLUMNS, fields=("words", "only")),
    Table(
        where="core/equipment",
        values=lambda: KINDS,
        fields=("words", "group", "quantities", "how"),
    ),
    Table(
        where="core/equipment/loads",
        values=lambda: [(x.words, x.FIELDS) for x in LOADS.values()],
        fields=("words", "choices", "rest", "rate", "x", "y", "left", "right"),
    ),
    Table(where="core/kit/needs.py", values=lambda: NEEDS, fields=("words", "template")),
    Table(where="core/kit/needs.py", values=lambda: list(NEEDS)),
    Table(where="core/kit/stocks.py", values=lambda: stocks.STOCKS, fields=("words",)),
    Table(where="core/dose/style.py", values=lambda: [k.words for k in StyleKind]),
    Table(where="usecases/arc/arc.py", values=lambda: arc.SECTION_WORDS),
    Table(where="usecases/arc/felt.py", values=lambda: (felt.WHERE, felt.THIRDS)),
    Table(where="usecases/bench/bands.py", values=lambda: (bands.LAWS, bands.SHAPES)),
    Table(where="usecases/bench/columns.py", values=lambda: columns.COLUMNS, fields=("at",)),
    Table(where="usecases/claims", values=lambda: CLAIMS, fields=CLAIM),
    Table(
        where="usecases/client/client.py",
        values=lambda: (client.GOALS, client.EXPERIENCE, client.STRONGER, client.SORE_SIDES),
    ),
    Table(where="usecases/client/client.py", values=lambda: client.TAPES),
    Table(where="usecases/floor/sets.py", values=lambda: floor.FORMS),
    Table(where="usecases/intent/intents.py", values=lambda: intents.SHAPE_WORDS),
    Table(where="usecases/room/elsewhere.py", values=lambda: elsewhere.WHY_NEAR),
    Table(where="usecases/room/items.py", values=lambda: (items.SIDES, items.HOLDS)),
    Table(where="usecases/room/kit.py", values=lambda: kit.STATE_WORDS),
    Table(where="usecases/room/room.py", values=lambda: (room.PEOPLE, room.CROWDING)),
    Table(
        where="usecases/swap/instead.py", values=lambda: (list(instead.RELIEFS), instead.RELIEFS)
    ),
    Table(where="web/errors.py", values=lambda: errors.WORDS),
    Table(where="web/errors.py", values=lambda: [title for _, _, title, _ in errors.REFUSED]),
    Table(where="web/drawing/curves.py", values=lambda: curves.NAMES),
    Table(where="web/drawing/muscles.py", values=lambda: muscle_drawing.COLUMNS),
    Table(where="web/drawing/views.py", values=lambda: [words for _, words in views.VIEWS]),
    Table(where="web/screens", values=lambda: [mark.words for mark in marks()]),
    Table(where="web/screens/bench/gauge.py", values=lambda: STATES),
    Table(where="web/screens/bench/sheet.py", values=lambda: sheet.BESIDE),
    Table(where="web/screens/claims/view.py", values=lambda: claims.LABELS),
    Table(where="web/screens/client/sheet.py", values=lambda: _labels(clients.FIELDS)),
    Table(where="web/screens/room/sheet.py", values=lambda: _labels(rooms.ITEM | rooms.PLACE)),
    Table(
        where="web/screens/bench/sheet.py", values=lambda: [_labels(w) for w in sheet.WAYS.values()]
    ),
    Table(where="web/screens/bench/sheet.py", values=lambda: _labels(sheet.SCALE)),
    Table(where="web/screens/swap/asking.py", values=lambda: asking.ON),
    Table(where="web/screens/swap/asking.py", values=lambda: list(LOADS)),
    Table(where="words/render.py", values=lambda: ("min", "s", "and", "or")),
    Table(where="web/screens/room/sheet.py", values=lambda: (rooms.SOURCES, rooms.SHAPES)),
    Table(
        where="web/words/how.py",
        values=lambda: [
            [words for three in how.HOW.values() for _, words in three],
            [words for screen in how.HOW for _, words in how.keys_of(screen)],
        ],
    ),
    Table(where="web/screens/terms/terms.py", values=lambda: TERMS, fields=("words",)),
    Table(where="core/intent/shapes.py", values=lambda: (shapes.SHAPES, shapes.HOLDS)),
    Table(where="core/exercises", values=lambda: [e.fails_alone for e in EXERCISES.values()]),
    Table(where="core/statics/points.py", values=lambda: points.WORDS),
    Table(where="core/movement/families/press.py", values=lambda: (press.NAMED, press.OTHER)),
    Table(where="usecases/swap/instead.py", values=lambda: instead.CHANGES),
    Table(where="usecases/swap/wanted.py", values=lambda: wanted.NOT_WANTED),
    Table(where="web/drawing/grips.py", values=lambda: [place[-1] for place in grips.PLACES]),
    Table(where="web/forms/loads.py", values=lambda: [words for _, words in loads.TIES]),
    Table(where="web/forms/loads.py", values=lambda: ("where", "tied to", "which")),
    Table(where="web/screens/arc/page.py", values=lambda: (page.HARDER, page.UP_DOWN)),
    Table(where="web/screens/formats", values=lambda: _titles()),
    Table(
        where="usecases/week/presets.py", values=lambda: [w for w, _ in presets.PRESETS.values()]
    ),
    Table(where="usecases/room/line.py", values=lambda: [w for w, _ in line.STARTS.values()]),
    Table(where="usecases/week/plans.py", values=lambda: plans.KINDS),
    Table(where="web/screens/week/view.py", values=lambda: weeks.WEEKDAYS),
    Table(where="core/progression/aims.py", values=lambda: aims.EVENT_WORDS),
    Table(where="core/progression/rules.py", values=lambda: rules.RULE_WORDS),
    Table(where="core/progression/rung.py", values=lambda: ("whole effort", "demand", "force")),
    Table(where="web/words/rungs.py", values=lambda: (rungs.STEPS_UP, rungs.STEPS_DOWN)),
    Table(where="web/words/feel.py", values=lambda: [words for _, words in feel.NEAR]),
    Table(where="web/words/feel.py", values=lambda: (feel.RANKS, feel.RANKS_DOWN, feel.MIDDLE)),
    Table(where="web/words/feel.py", values=lambda: (feel.SETS, "plate", "plates", "rail bar")),
    Table(where="web/words/words.py", values=lambda: _pieces()),
    Table(where="web/words/words.py", values=lambda: [what for _, what in words._SIZES]),
)
