"""The loads of the Arc form: what is typed, the document's part, and where a refusal belongs.

All of it comes from the fields of each kind of load; a new kind needs nothing here.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.equipment import (
    LOADS,
    Choice,
    Field,
    Law,
    Load,
    Number,
    Point,
    Port,
    Table,
    Tie,
)
from widearc.core.errors import InputError, RangeError, one_of
from widearc.core.exercises import Exercise, OptionSpec
from widearc.core.kit import READ
from widearc.core.movement import kinds_of
from widearc.core.units import Unit
from widearc.core.words import Figure, Name, Said, Term
from widearc.web.forms.first import first_load
from widearc.web.forms.options import Field as Shown
from widearc.web.forms.options import factor_of
from widearc.web.forms.typed import known_id, number
from widearc.words import say, tell, tr

MOST_LOADS = 6
TIES = (("point", "a point of the room"), ("feet", "the feet"), ("thigh", "the other thigh"))
TIED_PORTS = {"feet": "sole", "thigh": "thigh"}


@dataclass(frozen=True, slots=True, kw_only=True)
class LoadRow:
    """One load of the form."""

    index: int
    kind: str
    title: str
    fields: tuple[Shown, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchBand:
    """A band or spring as the Bench knows it: its law's document, the share read that it does not
    give back, its error; kind: of load that it is.
    """

    law: dict[str, Any]
    kind: str = "band"
    name: str = ""
    back: float | None = None
    error: float = READ


@dataclass(frozen=True, slots=True, kw_only=True)
class Input:
    """One input: its key in the address, label, what it begins with, its number and that number's
    place in a document.
    """

    key: str
    label: str
    usual: str
    number: Number | None = None
    pointer: str = ""


def inputs(kind: str) -> tuple[Input, ...]:
    """Return what the form asks for a kind of load, in order."""
    found = tuple(shown for item in LOADS[kind].FIELDS for shown in _INPUTS[type(item)](item))
    # a spring is weighed, too: its numbers are known then
    return (Input(key="band", label="which", usual=""), *found) if kind == "spring" else found


def _of_number(item: Number, pointer: str = "") -> Iterator[Input]:
    if item.key:
        yield Input(
            key=item.key,
            label=item.words,
            usual=item.unit.typed(item.usual),
            number=item,
            pointer=pointer + item.name,
        )


def _of_port(item: Port) -> Iterator[Input]:
    yield Input(key="port", label="where", usual="")


def _of_point(item: Point) -> Iterator[Input]:
    if item.typed:
        for axis in (item.x, item.y):
            yield from _of_number(axis, f"{item.name}/")


def _of_tie(item: Tie) -> Iterator[Input]:
    yield Input(key="tie", label="tied to", usual="point")
    for axis in (item.x, item.y):
        yield from _of_number(axis, f"{item.name}/")


def _of_choice(item: Choice) -> Iterator[Input]:
    if item.key:
        yield Input(key=item.key, label=item.words, usual=str(item.default))


def _of_table(item: Table) -> Iterator[Input]:
    yield Input(key=item.key, label=item.words, usual=item.usual)


def _of_law(item: Law) -> Iterator[Input]:
    yield Input(key="band", label="which", usual="")
    for part in (item.rest, item.rate):
        yield from _of_number(part, f"{item.name}/")


_INPUTS: Mapping[type, Callable[[Any], Iterator[Input]]] = {
    Number: _of_number,
    Port: _of_port,
    Point: _of_point,
    Tie: _of_tie,
    Choice: _of_choice,
    Table: _of_table,
    Law: _of_law,
}


def kinds_for(entry: Exercise) -> tuple[tuple[str, str], ...]:
    """Return (kind, title) of every load that an exercise takes."""
    return tuple((kind.kind, kind.words) for kind in kinds_of(entry))


def _typed_load(source: Mapping[str, str], index: int, kind: str) -> dict[str, str]:
    keys = [shown.key for shown in inputs(kind)]
    there = {k: source[f"l{index}-{k}"] for k in keys if f"l{index}-{k}" in source}
    return {"kind": kind, **there}


def typed_loads(source: Mapping[str, str], entry: Exercise) -> list[dict[str, str]]:
    """Return the loads of the form as typed, with one added or dropped where that was asked."""
    if source.get("for") != entry.id:
        return first_load(entry)
    kinds = ((i, source.get(f"l{i}", "")) for i in range(MOST_LOADS))
    loads = [_typed_load(source, i, kind) for i, kind in kinds if kind in LOADS]
    gone = known_id(source.get("drop", ""), range(len(loads)))
    if gone is not None:
        loads.pop(gone)
    add = source.get("add", "")
    if add in dict(kinds_for(entry)) and len(loads) < MOST_LOADS:
        loads.append({"kind": add})
    return loads


@dataclass(frozen=True, slots=True, kw_only=True)
class _Typed:
    """One load's texts, with the exercise and the bands that they may name."""

    texts: Mapping[str, str]
    kind: str
    index: int
    entry: Exercise
    laws: Mapping[str, BenchBand]

    def text(self, key: str) -> str:
        """Return what is typed, or what a form begins with."""
        usual = next((shown.usual for shown in inputs(self.kind) if shown.key == key), "")
        return self.texts.get(key, usual)

    def name(self, key: str) -> str:
        """Return an input's name in the address."""
        return f"l{self.index}-{key}"

    def number(self, item: Number, key: str = "") -> float:
        """Return a typed number as kept; InputError names its field."""
        key = key or item.key
        sign = item.unit.sign
        what = tell(
            "{words}: a number of {unit}" if sign else "{words}: a number",
            words=Term(item.words),
            unit=sign,
        )
        typed = number({self.name(key): self.text(key)}, self.name(key), 0.0, what=what)
        if item.whole and (typed != int(typed) or not 1 <= typed <= item.high):
            whole = Said("a whole number from 1 to {most}", most=Figure(item.high))
            raise InputError(self.name(key), f"{typed:g}", whole)
        return item.unit.per * typed

    @property
    def port(self) -> str:
        """Return where it acts: what is typed, else the exercise's first port."""
        return self.text("port") or next(iter(self.entry.ports), "")

    @property
    def bench(self) -> BenchBand | None:
        """Return the weighed band that is named; InputError for one that is not there."""
        name = self.text("band")
        if not name:
            return None
        if name not in self.laws or self.laws[name].kind != self.kind:
            of_list = "a spring of the list" if self.kind == "spring" else "a band of the list"
            raise InputError(self.name("band"), name, Said(of_list))
        return self.laws[name]


def load_document(
    typed: Mapping[str, str], index: int, entry: Exercise, laws: Mapping[str, BenchBand]
) -> dict[str, Any]:
    """Return a load's document part; InputError names the field. laws: the bands in stock by id."""
    load = _Typed(texts=typed, kind=typed["kind"], index=index, entry=entry, laws=laws)
    part: dict[str, Any] = {"kind": load.kind}
    for item in LOADS[load.kind].FIELDS:
        part |= _PARTS[type(item)](item, load)
    return part


def _number_part(item: Number, load: _Typed) -> dict[str, Any]:
    if not item.key and not item.follows:
        return {}
    if load.kind == "spring" and load.bench is not None and item.name in load.bench.law:
        return {item.name: load.bench.law[item.name]}
    measured = load.bench if item.name == "hysteresis" else None
    if measured is not None and measured.back is not None:
        return {item.name: measured.back}
    value = load.number(item, item.follows)
    return {item.name: int(value) if item.whole else value}


def _point_part(item: Point, load: _Typed) -> dict[str, Any]:
    if not item.typed or (item.not_at and load.port == item.not_at):
        return {}
    return {item.name: {axis.name: load.number(axis) for axis in (item.x, item.y)}}


def _tie_part(item: Tie, load: _Typed) -> dict[str, Any]:
    there = {axis.name: load.number(axis) for axis in (item.x, item.y)}
    port = TIED_PORTS.get(load.text("tie"))
    return {item.name: {"port": port} if port else there}


def _choice_part(item: Choice, load: _Typed) -> dict[str, Any]:
    if not item.key:
        return {}
    text = load.text(item.key)
    known = {str(value): value for value, _ in item.choices}
    if text not in known:
        raise InputError(load.name(item.key), text, one_of(known))
    return {item.name: known[text]}


def _table_part(item: Table, load: _Typed) -> dict[str, Any]:
    text = load.text(item.key)
    rows: list[list[float]] = []
    for pair in text.split(","):
        try:
            rows.append(
                [
                    column.unit.per * number({"v": typed}, "v", 0.0, what="")
                    for column, typed in zip(item.columns, pair.split(":"), strict=True)
                ]
            )
        except ValueError:
            allowed = Said("pairs of degrees and centimetres: 0: 11, 60: 14")
            raise InputError(load.name(item.key), text, allowed) from None
    return {item.name: {c.name: [r[n] for r in rows] for n, c in enumerate(item.columns)}}


def _law_part(item: Law, load: _Typed) -> dict[str, Any]:
    if load.bench is not None:
        return {item.name: load.bench.law}
    line = {part.name: load.number(part) for part in (item.rest, item.rate)}
    return {item.name: {"kind": "linear", **line}}


_PARTS: Mapping[type, Callable[[Any, _Typed], dict[str, Any]]] = {
    Number: _number_part,
    Port: lambda item, load: {item.name: load.port},
    Point: _point_part,
    Tie: _tie_part,
    Choice: _choice_part,
    Table: _table_part,
    Law: _law_part,
}


def _lists(kind: type[Load]) -> dict[str, tuple[tuple[str, str], ...]]:
    return {
        item.key: tuple((str(v), tr(words)) for v, words in item.choices)
        for item in kind.FIELDS
        if isinstance(item, Choice)
    }


def _shown(typed: _Typed, at: Input, lists: Mapping[str, tuple[tuple[str, str], ...]]) -> Shown:
    return Shown(
        name=typed.name(at.key),
        label=at.label,
        unit="" if at.number is None else at.number.unit.sign,
        value=typed.port if at.key == "port" else typed.text(at.key),
        choices=lists.get(at.key, ()),
    )


def load_rows(
    loads: Sequence[Mapping[str, str]],
    entry: Exercise,
    laws: Mapping[str, BenchBand],
    port_words: Mapping[str, str],
) -> list[LoadRow]:
    """Return the form's rows for the loads, with what was typed."""
    given = {
        "port": tuple((p, tr(port_words.get(p, p))) for p in entry.ports),
        "tie": tuple(
            (tie, tr(words)) for tie, words in (TIES if "thigh" in entry.ports else TIES[:2])
        ),
    }
    rows = []
    for index, texts in enumerate(loads):
        kind = LOADS[texts["kind"]]
        typed = _Typed(texts=texts, kind=kind.kind, index=index, entry=entry, laws=laws)
        line = tr("typed here") if kind.kind == "spring" else tr("typed here: a straight line")
        known = ((k, one.name) for k, one in laws.items() if one.kind == kind.kind)
        lists = given | {"band": (("", line), *known)} | _lists(kind)
        hidden = _hidden(typed)
        fields = tuple(
            _shown(typed, shown, lists) for shown in inputs(kind.kind) if shown.key not in hidden
        )
        rows.append(LoadRow(index=index, kind=kind.kind, title=kind.words, fields=fields))
    return rows


def _hidden(typed: _Typed) -> set[str]:
    """Return what does not matter now: the line of a measured band, the anchor of one tied to the
    body, a carriage's anchor.
    """
    hidden: set[str] = set()
    band = typed.text("band")
    if band:
        hidden |= {"rest", "rate"} if typed.kind == "band" else {"start", "end", "travel"}
        if band in typed.laws and typed.laws[band].back is not None:
            hidden |= {"back"}
    if typed.text("tie") in TIED_PORTS or typed.port == "carriage":
        hidden |= {"x", "y"}
    return hidden


def _input_at(where: str, kinds: Sequence[str]) -> tuple[str, Unit] | None:
    """Return the number field that a pointer into a scenario's loads means, and its unit."""
    parts = where.strip("/").split("/", 2)
    if len(parts) != 3 or parts[0] != "loads" or not parts[1].isdigit():
        return None
    here = int(parts[1])
    every = inputs(kinds[here]) if here < len(kinds) else ()
    shown = next((s for s in every if s.pointer == parts[2]), None)
    if shown is None or shown.number is None:
        return None
    return f"l{here}-{shown.key}", shown.number.unit


def refusal(error: InputError, kinds: Sequence[str], entry: Exercise) -> tuple[str, str]:
    """Return the form's field for what of a scenario is not used, and the words, in the unit that
    it is typed in.

    kinds: of the form's loads, in their order.
    """
    option = error.where.removeprefix("/options/")
    if option in entry.options and isinstance(error, RangeError):
        return f"o-{option}", _option_not_used(error, entry.options[option])
    at = _input_at(error.where, kinds)
    if at is not None and isinstance(error.value, int | float):
        field, unit = at
        allowed = (
            error.between(lambda v: v / unit.per, unit.said)
            if isinstance(error, RangeError)
            else error.allowed
        )
        return field, _not_used(unit.shown(error.value), allowed)
    value = "" if error.value is None else str(error.value)[:40]
    return field_of(error.where), _not_used(value, error.allowed)


def _option_not_used(error: RangeError, spec: OptionSpec) -> str:
    per = factor_of(spec)
    sign = {"m": " cm", "deg": "°", "N": " N"}.get(spec.unit, "")
    typed = f"{error.value / per:g}" if isinstance(error.value, int | float) else str(error.value)
    said = error.between(lambda v: v / per, sign)
    return _not_used(typed, said)


def _not_used(shown: str, allowed: Said) -> str:
    return say(
        Said("“{shown}” is not used: {allowed}", shown=Name(shown), allowed=allowed)
        if shown
        else allowed
    )


def field_of(pointer: str) -> str:
    """Return the form's field for a scenario's JSON pointer: an option, a load's row, a tempo, or
    the whole.
    """
    place, *rest = pointer.strip("/").split("/")
    if rest and place in ("options", "loads"):
        return f"{'o-' if place == 'options' else 'l'}{rest[0]}"
    if rest and place == "tempo":
        return {"lifting_s": "lift", "lowering_s": "lower"}.get(rest[0], "lift")
    return pointer if pointer.startswith(("o-", "l")) else "all"


def typed_of(load: Load) -> dict[str, str] | None:
    """Return a load as the form types it; None where the form cannot say it as it is.

    A band's law is not among it: the form names a weighed band.
    """
    typed: dict[str, str] = {}
    for item in load.FIELDS:
        own = _SAID[type(item)](item, load)
        if own is None:
            return None
        typed |= own
    return typed


def _one(value: Any) -> float:
    return float(np.ravel(value)[0])


def _say_number(item: Number, load: Load) -> dict[str, str] | None:
    value = load.value(item.name)
    if item.key:
        return {item.key: item.unit.typed(_one(value))}
    # what no form asks for must be as it is when left out
    usual = item.default if not item.follows else _one(load.value(_followed(item, load)))
    return {} if value is None or usual is None or _one(value) == usual else None


def _followed(item: Number, load: Load) -> str:
    return next(n.name for n in load.numbers() if n.key == item.follows)


def _say_place(axes: tuple[Number, Number], there: Sequence[Any]) -> dict[str, str]:
    return {a.key: a.unit.typed(_one(v)) for a, v in zip(axes, there[:2], strict=True)}


def _say_point(item: Point, load: Load) -> dict[str, str] | None:
    there = load.value(item.name)
    if there is None:
        return {}
    return _say_place((item.x, item.y), there) if item.typed else None


def _say_tie(item: Tie, load: Load) -> dict[str, str]:
    if load.fixed_at is None:
        names = {port: tie for tie, port in TIED_PORTS.items()}
        return {"tie": names.get(load.other_port or "", "thigh")}
    return {"tie": "point"} | _say_place((item.x, item.y), load.fixed_at)


def _say_choice(item: Choice, load: Load) -> dict[str, str] | None:
    value = load.value(item.name)
    if item.key:
        return {item.key: str(value)}
    return {} if value == item.default else None


def _say_table(item: Table, load: Load) -> dict[str, str]:
    columns = [[c.unit.typed(v) for v in load.value(c.name)] for c in item.columns]
    return {item.key: ", ".join(": ".join(row) for row in zip(*columns, strict=True))}


_SAID: Mapping[type[Field], Callable[[Any, Load], dict[str, str] | None]] = {
    Number: _say_number,
    Port: lambda item, load: {"port": load.value(item.name)},
    Point: _say_point,
    Tie: _say_tie,
    Choice: _say_choice,
    Table: _say_table,
    Law: lambda item, load: {},
}
