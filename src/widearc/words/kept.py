"""Sentences as text that can be kept, and back: what was said once is said later in other units."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import fields
from string import Formatter
from types import MappingProxyType
from typing import Any, get_args

from widearc.core import words as w

_KINDS = MappingProxyType({kind.__name__: kind for kind in get_args(w.Value)})
DEEPEST = 40


def kept(value: w.Value) -> str:
    """Return a sentence as JSON: a list of its kind's name and its fields."""
    return json.dumps(_parts(value), ensure_ascii=False, separators=(",", ":"))


def again(text: str) -> w.Value | None:
    """Return the sentence that was kept as a text, None for a text that is none."""
    try:
        return _value(json.loads(text), DEEPEST)
    except (ValueError, TypeError, KeyError, RecursionError):
        return None


def _parts(value: Any) -> list[Any]:
    if isinstance(value, w.Said):
        values = {name: _parts(item) for name, item in value.values}
        return ["Said", value.template, value.plural, value.begins, values]
    if isinstance(value, w.Listed):
        return ["Listed", value.by, [_parts(item) for item in value.items]]
    return [type(value).__name__, *(_plain(getattr(value, f.name)) for f in fields(value))]


def _plain(number: Any) -> Any:
    """Return a number of an array as one of the language."""
    return number.item() if hasattr(number, "item") else number


def _value(parts: Any, deep: int) -> w.Value:
    """Return the value of its parts. Raises ValueError, TypeError or KeyError for what is none."""
    if not isinstance(parts, list) or deep == 0:
        raise ValueError("no sentence")
    name, *rest = parts
    if name == "Said":
        template, plural, begins, values = rest
        inner = {key: _value(item, deep - 1) for key, item in values.items()}
        counted = any(isinstance(item, w.Count) for item in inner.values())
        if plural and not counted:
            raise ValueError("no count")
        for text in (_text(template), _text(plural)):
            _check(text, inner)
        return w.Said(template, plural, begins=begins is True, **inner)
    if name == "Listed":
        by, items = rest
        return w.Listed(tuple(_value(item, deep - 1) for item in items), _text(by))
    kind = _KINDS[name]
    for field, item in zip(fields(kind), rest, strict=True):
        if not isinstance(item, _TYPES[str(field.type)]) or isinstance(item, bool) != (
            field.type == "bool"
        ):
            raise TypeError(field.name)
    made: w.Value = kind(*rest)
    return made


_TYPES: Mapping[str, tuple[type, ...]] = MappingProxyType(
    {"float": (int, float), "int": (int,), "str": (str,), "bool": (bool,)}
)


def _check(template: str, values: Mapping[str, object]) -> None:
    """Raise KeyError or ValueError for a template that asks for more than its values."""
    for _, field, spec, conversion in Formatter().parse(template):
        if spec or conversion:
            raise ValueError(template)
        if field is not None:
            values[field]


def _text(text: Any) -> str:
    if not isinstance(text, str):
        raise TypeError("text")
    return text
