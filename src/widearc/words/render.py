"""Sentences of the core as text."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import lru_cache
from string import Formatter
from types import MappingProxyType
from typing import Any

from widearc.core import words as w
from widearc.core.units import DEG
from widearc.words import figures
from widearc.words.catalogue import translated, translated_number
from widearc.words.how import PLAIN, How, spoken


def say(value: w.Unspoken | str, how: How | None = None) -> str:
    """Return what is said, in the units and the language of `how` (None: as is spoken now). Raises
    TypeError for what is no value of a sentence.
    """
    return _said(value, spoken() if how is None else how)


def plain(value: w.Unspoken | str) -> str:
    """Return what is said in SI and English, as files and the command line have it."""
    return _said(value, PLAIN)


def tell(template: str, plural: str = "", /, **values: w.Value | str) -> str:
    """Return a sentence as it is spoken now, from its template and values; a text among them is put
    in as it is.
    """
    told = {name: w.Name(v) if isinstance(v, str) else v for name, v in values.items()}
    return say(w.Said(template, plural, begins=False, **told))


def shown(value: object) -> str:
    """Return a refused value as a message names it: what is said, else its own text."""
    return say(value) if isinstance(value, w.Unspoken) else str(value)


def _said(value: object, how: How) -> str:
    way = _WAYS.get(type(value))
    if way is None:
        raise TypeError(f"{type(value).__name__} cannot be said")
    return way(value, how)


@lru_cache(maxsize=4096)
def _parts(template: str) -> tuple[tuple[str, str | None], ...]:
    return tuple((text, field) for text, field, _, _ in Formatter().parse(template))


def _sentence(said: w.Said, how: How) -> str:
    values = dict(said.values)
    template = said.template
    if said.plural:
        count = next(v.n for v in values.values() if isinstance(v, w.Count))
        template = translated_number(template, said.plural, count == 1, how.language)
    elif how.language != "en":
        template = translated(template, how.language)
    parts = []
    for text, field in _parts(template):
        parts.append(text)
        if field is not None:
            parts.append(_said(values[field], how))
    told = "".join(parts)
    return told[:1].upper() + told[1:] if said.begins else told


def _listed(listed: w.Listed, how: How) -> str:
    told = [text for text in [_said(item, how) for item in listed.items] if text]
    if listed.by not in ("and", "or"):
        return listed.by.join(told)
    if len(told) < 2:
        return "".join(told)
    return f"{', '.join(told[:-1])} {translated(listed.by, how.language)} {told[-1]}"


def _name(name: w.Name, how: How) -> str:
    return name.text.lower() if name.lower else name.text


def _term(term: w.Term, how: How) -> str:
    text = translated(term.text, how.language)
    return text.lower() if term.lower else text


def _duration(time: w.Duration, how: How) -> str:
    value, unit = (
        (time.s / 60, translated("min", how.language))
        if time.minutes
        else (time.s, translated("s", how.language))
    )
    return f"{figures.short(value, how)} {unit}"


_WAYS: Mapping[type, Callable[[Any, How], str]] = MappingProxyType(
    {
        str: lambda text, how: text,
        w.Said: _sentence,
        w.Listed: _listed,
        w.Name: _name,
        w.Term: _term,
        w.Mass: lambda v, how: figures.mass(v.kg, how, rounded=v.whole, thing=v.thing),
        w.Length: lambda v, how: figures.length(v.m, how, fine=v.fine),
        w.Distance: lambda v, how: figures.distance(v.m, how),
        w.Force: lambda v, how: figures.force(v.n, how),
        w.Angle: lambda v, how: f"{figures.whole(round(v.rad / DEG, 6))}°",
        w.Moment: lambda v, how: figures.whole(v.nm) + ("" if v.bare else " N·m"),
        w.Work: lambda v, how: f"{figures.whole(v.j)} J",
        w.Duration: _duration,
        w.Share: lambda v, how: figures.whole(100 * v.share) + ("" if v.bare else " %"),
        w.Times: lambda v, how: figures.short(round(v.ratio, v.digits), how),
        w.Figure: lambda v, how: f"{figures.short(v.value, how)}{v.unit}",
        w.Count: lambda v, how: figures.whole(v.n),
    }
)
"""How each kind of value is said."""
