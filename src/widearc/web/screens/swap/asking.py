"""How the wanted exercise is set up, as the question line's form has it: what of it is otherwise
than usual, and its fields.
"""

from __future__ import annotations

import json
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.body import PORTS, Body
from widearc.core.equipment import Band, Law, LinearLaw, Load
from widearc.core.exercises import EXERCISES, Exercise
from widearc.core.kit import BandStock
from widearc.core.setups import ELASTIC
from widearc.core.words import Count, Mass, Term
from widearc.usecases.swap.swap import SwapView
from widearc.usecases.swap.wanted import AS_USUAL, SetUp, asks_depth
from widearc.web.forms.bands import bench_bands
from widearc.web.forms.loads import (
    BenchBand,
    LoadRow,
    kinds_for,
    load_document,
    load_rows,
    typed_loads,
    typed_of,
)
from widearc.web.forms.metric import in_metric
from widearc.web.forms.options import Field, factor_of, option_fields, options_document
from widearc.words import say, spoken_text, tell, tr

OF_LOADS = re.compile(r"l\d+(-\w+)?")
DEPTHS = ("o-knee_from_deg", "o-lean_from_deg")
LONGEST_WAS = 8000


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Asking:
    """The fields of the wanted set-up. was: what they held when they were shown, as text, so that
    only what is changed counts as typed. words: what is otherwise than usual; can_add: kinds of
    load that may be added.
    """

    fields: Sequence[Field]
    loads: Sequence[LoadRow]
    was: str
    words: str
    load_words: str
    typed_loads: bool
    can_add: Sequence[tuple[str, str]]
    where: str
    assumed: bool


def set_up_of(source: Mapping[str, str], entry: Exercise, body: Body, kept: Any) -> SetUp:
    """Return what an address or form says of the wanted set-up beyond its load and depth;
    InputError names the field. kept: the trainer's Holdings.
    """
    if source.get("for") != entry.id or source.get("usual"):
        return AS_USUAL
    was = _was(source)
    every = option_fields(entry, source, belted=True, stature_m=body.stature_m)
    fields = [f for f in every if _is_typed(f.name, source, was) and not _is_depth(f.name, entry)]
    options = options_document(entry, fields)
    typed = {f.name: f.value for f in fields}
    if _loads_typed(source, was):
        return _with_loads(source, entry, options, typed, kept)
    return SetUp(options=options, typed=typed) if typed else AS_USUAL


def _is_typed(name: str, source: Mapping[str, str], was: Mapping[str, str]) -> bool:
    return name in source and was.get(name) != source[name]


def _loads_typed(source: Mapping[str, str], was: Mapping[str, str]) -> bool:
    """Return whether any load is otherwise than it was shown, or added, or taken off."""
    if source.get("add") or source.get("drop") or source.get("loads") == "none":
        return True
    return any(OF_LOADS.fullmatch(key) and _is_typed(key, source, was) for key in source)


def _with_loads(
    source: Mapping[str, str],
    entry: Exercise,
    options: Mapping[str, Any],
    typed: dict[str, str],
    kept: Any,
) -> SetUp:
    texts = typed_loads(source, entry)
    laws = bench_bands(kept) if any(t["kind"] in ELASTIC for t in texts) else {}
    loads = tuple(load_document(t, i, entry, laws) for i, t in enumerate(texts))
    for i, one in enumerate(texts):
        typed |= {f"l{i}": one["kind"]}
        typed |= {f"l{i}-{key}": value for key, value in one.items() if key != "kind"}
    if not texts:
        typed["loads"] = "none"
    return SetUp(options=options, loads=loads, typed=typed)


def _was(source: Mapping[str, str]) -> Mapping[str, str]:
    try:
        found = json.loads(source.get("was", "")[:LONGEST_WAS])
    except ValueError:
        return {}
    return found if isinstance(found, dict) else {}


def _is_depth(name: str, entry: Exercise) -> bool:
    """Return whether an option is what the question's own depth sets."""
    return name in DEPTHS and asks_depth(entry)


def asking_of(
    view: SwapView, source: Mapping[str, str], kept: Any, *, wrong: bool = False
) -> Asking | None:
    """Return the fields of what is asked for; None for an intent. wrong: what the source has typed
    is not used, and shown all the same.
    """
    if view.set_up is None:
        return None
    entry, own = EXERCISES[view.ask.exercise], view.ask.set_up
    source = in_metric(source, entry)
    texts = _usual_options(view) | dict(own.typed)
    typed_loads_too = own.loads is not None
    if wrong and source.get("for") == entry.id:
        refused = {k: v for k, v in source.items() if k.startswith("o-") or OF_LOADS.fullmatch(k)}
        texts |= refused
        typed_loads_too = typed_loads_too or "l0" in refused
    typed = typed_loads(texts, entry) if typed_loads_too else _usual_loads(view)
    laws = bench_bands(kept) if any(t["kind"] in ELASTIC for t in typed) else {}
    rows = load_rows(typed, entry, laws, {p: PORTS[p].label for p in PORTS})
    fields = _fields(view, entry, texts)
    changed = [f for f in fields if f.name in own.typed]
    return Asking(
        fields=fields,
        loads=rows,
        was=_shown(view, fields, () if typed_loads_too else rows),
        words=", ".join(f"{tr(f.label)} {_with_unit(f)}" for f in changed),
        load_words=_load_words(view, laws, typed),
        typed_loads=typed_loads_too,
        can_add=kinds_for(entry) if len(typed) == len(view.set_up.setup.loads) else (),
        where=view.set_up.where,
        assumed=view.set_up.assumed,
    )


def _usual_options(view: SwapView) -> dict[str, str]:
    """Return the usual set-up's options as a form types them."""
    assert view.set_up is not None
    usual = view.set_up.usual
    return {
        "for": usual.exercise.id,
        "tall": f"{view.client.body.stature_m}",
        **{f"o-{n}": _option_text(usual.exercise, n, v) for n, v in usual.options.items()},
    }


def _fields(view: SwapView, entry: Exercise, texts: Mapping[str, str]) -> list[Field]:
    assert view.set_up is not None
    belted = any(getattr(load, "port", "") == "hip-belt" for load in view.set_up.setup.loads)
    every = option_fields(entry, texts, belted=belted, stature_m=view.client.body.stature_m)
    return [f for f in every if not _is_depth(f.name, entry)]


def _shown(view: SwapView, fields: Sequence[Field], rows: Sequence[LoadRow]) -> str:
    """Return as JSON what the fields hold where nothing is typed."""
    usual = _usual_options(view)
    shown = {f.name: usual.get(f.name, f.usual) for f in fields}
    shown |= {f"l{row.index}": row.kind for row in rows}
    return json.dumps(
        _spoken(shown, fields) | {f.name: f.shown for row in rows for f in row.fields}
    )


def _spoken(shown: Mapping[str, str], fields: Sequence[Field]) -> dict[str, str]:
    """Return texts of fields as the page shows them."""
    signs = {f.name: f.unit for f in fields if not f.choices}
    return {name: spoken_text(text, signs.get(name, "")) for name, text in shown.items()}


def _with_unit(item: Field) -> str:
    if item.worded:
        return item.value
    return f"{item.shown}{'' if item.unit in ('°', '') else ' '}{item.sign}"


def _option_text(entry: Exercise, name: str, value: Any) -> str:
    if isinstance(value, str):
        return value
    return f"{float(np.ravel(value)[0]) / factor_of(entry.options[name]):.6g}"


def _usual_loads(view: SwapView) -> list[dict[str, str]]:
    """Return the usual loads as a form types them; those that no form can say are left out."""
    assert view.set_up is not None
    texts = (_typed(load, view.set_up.bands) for load in view.set_up.usual.loads)
    return [t for t in texts if t is not None]


def _typed(load: Load, bands: Sequence[BandStock]) -> dict[str, str] | None:
    typed = typed_of(load)
    if typed is None:
        return None
    part = {"kind": load.kind, **typed}
    if not isinstance(load, Band):
        return part
    which = _typed_band(load, bands)
    return None if which is None else part | which


def _typed_band(load: Band, bands: Sequence[BandStock]) -> dict[str, str] | None:
    """Return which band a form names, or its line; None for a law that no form can type."""
    known = (b for b in bands if load.law in (b.law, b.standing_law()))
    stock = next((b for b in known if not b.id.startswith("usual ")), None)
    if stock is not None:
        return {"band": stock.id}
    if not isinstance(load.law, LinearLaw):
        return None
    said = next(item for item in load.FIELDS if isinstance(item, Law))
    rest, rate = said.rest.unit.typed, said.rate.unit.typed
    return {"rest": rest(load.law.rest_m), "rate": rate(load.law.rate_n_per_m)}


def _load_words(
    view: SwapView, laws: Mapping[str, BenchBand], typed: Sequence[Mapping[str, str]]
) -> str:
    """Return the wanted loads in a few words."""
    assert view.set_up is not None
    loads = view.set_up.setup.loads
    if not loads:
        return tr("body weight")
    bands = {b.id: b.name for b in view.set_up.bands}
    named = [laws[t["band"]].name for t in typed if t.get("band") in laws] or list(bands.values())
    words = []
    for load in loads:
        if isinstance(load, Band) and named:
            words.append(named.pop(0))
        else:
            words.append(_in_words(load))
    return " + ".join(words)


ON = {
    "sled": "on the sled",
    "stack": "on the stack",
    "cable": "on the cable",
    "lever": "on the arm",
    "pendulum": "on the pendulum",
    "corner-bar": "on the bar's end",
}


def _in_words(load: Load) -> str:
    """Return a load in a few words: its weight and where it acts."""
    kg = getattr(load, "kg", getattr(load, "plate_kg", None))
    where = tr(ON.get(load.kind) or PORTS[getattr(load, "port", "hands")].label)
    if kg is not None:
        told = say(Mass(float(np.ravel(kg)[0]))).replace(" ", "\N{NO-BREAK SPACE}")
        return f"{told} {where}"
    count = round(float(np.ravel(getattr(load, "count", 1.0))[0]))
    kind = Term(load.kind)
    if count > 1:
        return tell("{count}\N{NO-BREAK SPACE}× {kind}", count=Count(count), kind=kind)
    return tell("a {kind}", kind=kind)
