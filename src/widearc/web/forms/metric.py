"""Addresses in other units: what they say becomes metric text at the entrance, and what a form
shows is turned back at the exit.
"""

from __future__ import annotations

import json
from collections.abc import Mapping

from widearc.core.equipment import LOADS
from widearc.core.exercises import Exercise
from widearc.web.forms.loads import inputs
from widearc.words import How, how_of, metric_text

OPTION_SIGNS = {"m": "cm", "N": "N", "kg": "kg"}
"""The sign in which an option is typed, by the unit it is kept in."""


def in_metric(source: Mapping[str, str], entry: Exercise) -> dict[str, str]:
    """Return an address or form of a set-up with every number in its metric unit: bare numbers are
    in the units that `units` names (SI where it is not there), others as written behind them. What
    is no number stays as typed.
    """
    how = how_of(source.get("units", ""))
    found = _in_metric(dict(source.items()), entry, how)
    found.pop("units", None)
    try:
        was = json.loads(source.get("was", ""))
    except ValueError:
        return found
    if isinstance(was, dict) and all(isinstance(v, str) for v in was.values()):
        found["was"] = json.dumps(_in_metric(was, entry, how))
    return found


def _in_metric(texts: dict[str, str], entry: Exercise, how: How) -> dict[str, str]:
    return {key: metric_text(text, _sign(key, texts, entry), how) for key, text in texts.items()}


def _sign(key: str, texts: Mapping[str, str], entry: Exercise) -> str:
    """Return the metric sign of a field of the form, "" for one that has none."""
    if key == "kg":
        return "kg"
    if key.startswith("o-"):
        spec = entry.options.get(key.removeprefix("o-"))
        return "" if spec is None else OPTION_SIGNS.get(spec.unit, "")
    index, _, name = key.partition("-")
    kind = texts.get(index, "")
    if not (index[:1] == "l" and name and kind in LOADS):
        return ""
    item = next((shown.number for shown in inputs(kind) if shown.key == name), None)
    return "" if item is None else item.unit.sign
