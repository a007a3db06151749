"""The address at which Arc shows a stand-in as it was found: its options and loads as Arc's form
types them.
"""

from __future__ import annotations

import numpy as np

from widearc.core.equipment import Band, Load
from widearc.core.search import Candidate
from widearc.web.forms.loads import typed_of
from widearc.web.forms.options import factor_of


def arc_query(candidate: Candidate, client_id: int) -> dict[str, str] | None:
    """Return the parts of Arc's address for a stand-in; None where its form cannot say a load as it
    is.
    """
    name = candidate.exercise.id
    query = {"exercise": name, "for": name, "client": str(client_id)}
    specs = candidate.exercise.options
    for option, value in candidate.row.options.items():
        query[f"o-{option}"] = (
            value if isinstance(value, str) else _number(value / factor_of(specs[option]))
        )
    for index, load in enumerate(candidate.curve.setup.loads):
        typed = _load(load, candidate)
        if typed is None:
            return None
        query[f"l{index}"] = load.kind
        query |= {f"l{index}-{key}": value for key, value in typed.items()}
    return query


def _number(value: float) -> str:
    return f"{float(np.ravel(value)[0]):.6g}"


def _load(load: Load, candidate: Candidate) -> dict[str, str] | None:
    """Return a load's typed fields; a band is named as the Bench knows it."""
    typed = typed_of(load)
    if typed is None or not isinstance(load, Band):
        return typed
    taken = [piece.item for piece in candidate.pieces]
    bands = (band for band, _ in candidate.row.bands)
    stock = next((band for band in bands if band.law == load.law), None)
    if stock is None or stock.id not in taken:
        return None
    # half a long band cannot be chosen there
    return None if "folded" in stock.name and load.strands != 4 else {"band": stock.id, **typed}
