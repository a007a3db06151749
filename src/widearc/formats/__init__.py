"""Open formats: JSON by schema and CSV, to and from core values.

May import core only. Every document is checked on the way in and on the way out; a refusal names
the place as a JSON pointer (or a row), the value, and what is allowed.
"""

from widearc.formats.curve import curve_document
from widearc.formats.documents import FORMATS, check, load_json, schema
from widearc.formats.exercises import exercises_document
from widearc.formats.intent import intent_part, parse_intent
from widearc.formats.kitfile import KitFile, KitItem, kit_document, parse_kit_file
from widearc.formats.readings import (
    ReadingRow,
    fit_document,
    machine_document,
    read_columns,
    read_readings,
    write_columns,
    write_readings,
)
from widearc.formats.scenario import parse_body, parse_limits, parse_scenario, parse_style
from widearc.formats.swap import (
    SwapRequest,
    parse_swap_request,
    swap_document,
    swap_request_document,
)

__all__ = [
    "FORMATS",
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
    "parse_scenario",
    "parse_style",
    "parse_swap_request",
    "read_columns",
    "read_readings",
    "schema",
    "swap_document",
    "swap_request_document",
    "write_columns",
    "write_readings",
]
