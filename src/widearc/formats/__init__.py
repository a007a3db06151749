"""Open formats: JSON by schema and CSV, to and from core values.

May import core only. Every document is checked on the way in and on the way out; a refusal names
the place as a JSON pointer (or a row), the value, and what is allowed.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from widearc.formats.archive import Archive, read_archive, write_archive
    from widearc.formats.curve import curve_document
    from widearc.formats.documents import FORMATS, check, load_json, schema
    from widearc.formats.exercises import exercises_document
    from widearc.formats.intent import intent_part, parse_intent, style_part
    from widearc.formats.kitfile import KitFile, KitItem, kit_document, parse_kit_file
    from widearc.formats.loads import parse_load
    from widearc.formats.readings import (
        ReadingRow,
        fit_document,
        machine_document,
        read_columns,
        read_readings,
        write_columns,
        write_readings,
    )
    from widearc.formats.scenario import (
        parse_body,
        parse_limits,
        parse_scenario,
        parse_style,
        scenario_document,
    )
    from widearc.formats.swap import (
        SwapRequest,
        parse_swap_request,
        swap_document,
        swap_request_document,
    )

__all__ = [
    "FORMATS",
    "Archive",
    "KitFile",
    "KitItem",
    "ReadingRow",
    "SwapRequest",
    "check",
    "curve_document",
    "exercises_document",
    "fit_document",
    "intent_part",
    "kit_document",
    "load_json",
    "machine_document",
    "parse_body",
    "parse_intent",
    "parse_kit_file",
    "parse_limits",
    "parse_load",
    "parse_scenario",
    "parse_style",
    "parse_swap_request",
    "read_archive",
    "read_columns",
    "read_readings",
    "scenario_document",
    "schema",
    "style_part",
    "swap_document",
    "swap_request_document",
    "write_archive",
    "write_columns",
    "write_readings",
]

# a name is imported from its module when it is first asked for: the catalogue of exercises must
# not wait for the statics (PEP 562)
_NAMES = {
    "archive": "Archive read_archive write_archive",
    "curve": "curve_document",
    "documents": "FORMATS check load_json schema",
    "exercises": "exercises_document",
    "intent": "intent_part parse_intent style_part",
    "loads": "parse_load",
    "kitfile": "KitFile KitItem kit_document parse_kit_file",
    "readings": "ReadingRow fit_document machine_document read_columns read_readings"
    " write_columns write_readings",
    "scenario": "parse_body parse_limits parse_scenario parse_style scenario_document",
    "swap": "SwapRequest parse_swap_request swap_document swap_request_document",
}
_HOMES = {name: module for module, names in _NAMES.items() for name in names.split()}


def __getattr__(name: str) -> Any:
    if name not in _HOMES:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    found = globals()[name] = getattr(import_module(f"{__name__}.{_HOMES[name]}"), name)
    return found
