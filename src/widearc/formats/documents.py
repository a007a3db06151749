"""JSON documents: strict reading, and JSON Schema 2020-12 on the way in and out."""

from __future__ import annotations

import functools
import json
import math
from collections.abc import Iterator, Mapping
from importlib.resources import files
from typing import TYPE_CHECKING, Any, cast

from widearc.core.errors import InputError, RangeError
from widearc.core.words import Listed, Name, Said
from widearc.formats.loads import load_schema

if TYPE_CHECKING:  # imported where used: a page that checks no document need not wait for it
    from jsonschema import Draft202012Validator
    from jsonschema.exceptions import ValidationError

FORMATS = (
    "scenario",
    "curve",
    "swap-request",
    "swap",
    "ladder-request",
    "ladder",
    "fit",
    "kit",
    "exercises",
    "check",
)
"""Every format by the name after "wide-arc/"."""

_FILES = ("common", *FORMATS)
MOST_CHARACTERS = 16_000_000  # as much as the largest file that is sent out


def load_json(text: str) -> Any:
    """Return the JSON value of a text; InputError for what is not JSON.

    NaN and Infinity are read, so that `check` can name their place.
    """
    if len(text) > MOST_CHARACTERS:
        raise InputError(
            "/", f"{len(text)} characters", Said("at most {_}", _=Name(str(MOST_CHARACTERS)))
        )
    try:
        value = json.loads(text.removeprefix("\ufeff"), parse_constant=float)
    except json.JSONDecodeError as error:
        raise InputError(f"line {error.lineno}", error.msg, Said("valid JSON")) from None
    except RecursionError:
        raise InputError("/", "nested too deep", Said("a document of a few levels")) from None
    except ValueError:
        # CPython refuses whole numbers of thousands of digits this way
        raise InputError(
            "/", "a number of thousands of digits", Said("numbers of ordinary size")
        ) from None
    if "\\u" in text:
        # only an escape can bring in what no text file holds
        for where, odd in _odd_texts(value, ""):
            raise InputError(where or "/", odd, Said("text without control characters"))
    return value


def _odd_texts(value: Any, where: str) -> Iterator[tuple[str, str]]:
    """Yield where a text has half a character or a control character, and which."""
    if isinstance(value, str):
        odd = next(
            (c for c in value if (c < " " and c not in "\n\r\t") or "\ud800" <= c <= "\udfff"), ""
        )
        if odd:
            yield where, f"U+{ord(odd):04X}"
    elif isinstance(value, list):
        for index, item in enumerate(value):
            yield from _odd_texts(item, f"{where}/{index}")
    elif isinstance(value, dict):
        for name, item in value.items():
            yield from _odd_texts(name, where)
            yield from _odd_texts(item, f"{where}/{name}")


@functools.cache
def schema(name: str) -> Mapping[str, Any]:
    """Return the schema of a format by its short name."""
    text = files("widearc.formats").joinpath("schemas", f"{name}.json").read_text(encoding="utf-8")
    loaded: dict[str, Any] = json.loads(text)
    if name == "common":
        # every kind of load writes its own branch
        loaded["$defs"]["load"] = load_schema()
    return loaded


@functools.cache
def _validator(name: str) -> Draft202012Validator:
    from jsonschema import Draft202012Validator
    from referencing import Registry, Resource

    # every reference names a whole address, so that a served schema can be read on its own
    pairs = [(schema(n)["$id"], Resource.from_contents(schema(n))) for n in _FILES]
    registry: Registry[Any] = Registry().with_resources(pairs)
    return Draft202012Validator(schema(name), registry=registry)


def check(document: Any, name: str) -> None:
    """Refuse a document that does not follow its schema, naming the JSON pointer, the value and
    what is allowed.
    """
    try:
        _refuse_endless(document, "")
        from jsonschema.exceptions import best_match

        error = best_match(_validator(name).iter_errors(document))
    except RecursionError:
        raise InputError("/", "nested too deep", Said("a document of a few levels")) from None
    if error is not None:
        raise _as_input_error(error)


def _refuse_endless(value: Any, pointer: str) -> None:
    if isinstance(value, float) and not math.isfinite(value):
        raise InputError(pointer or "/", value, Said("a finite number"))
    if isinstance(value, dict):
        for key, item in value.items():
            _refuse_endless(item, f"{pointer}/{key}")
    elif isinstance(value, list):
        for index, item in enumerate(value):
            _refuse_endless(item, f"{pointer}/{index}")


def _as_input_error(error: ValidationError) -> InputError:
    pointer = "/" + "/".join(str(part) for part in error.absolute_path)
    rule, value = error.validator, error.validator_value
    if rule == "additionalProperties" and isinstance(error.instance, dict):
        known = sorted(error.schema["properties"])  # type: ignore[index]
        extra = next(key for key in error.instance if key not in known)
        return InputError(
            f"{pointer.rstrip('/')}/{extra}",
            extra,
            Said("a key of: {names}", names=Listed(tuple(map(Name, known)))),
        )
    if rule == "required" and isinstance(error.instance, dict):
        missing = next(key for key in cast(list[str], value) if key not in error.instance)
        return InputError(f"{pointer.rstrip('/')}/{missing}", None, Said("this key is needed"))
    if rule in ("minimum", "maximum"):
        low, high = (value, None) if rule == "minimum" else (None, value)
        return RangeError(pointer, error.instance, low, high)  # type: ignore[arg-type]
    allowed = {
        "enum": "one of " + ", ".join(str(v) for v in value) if isinstance(value, list) else "",
        "const": f"{value!r}",
        "type": f"a value of type {value}",
        "minItems": f"{value} entries or more",
        "maxItems": f"{value} entries or fewer",
        "maxLength": f"{value} characters or fewer",
    }.get(str(rule), error.message[:120])
    return InputError(pointer, error.instance, Said("{allowed}", allowed=Name(str(allowed))))
