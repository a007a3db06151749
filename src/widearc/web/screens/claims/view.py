"""Claims: one dispute of practice at a time, with what can be computed of it."""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping

from flask import Blueprint, request
from flask.typing import ResponseReturnValue

from widearc.core.errors import InputError
from widearc.core.words import Said
from widearc.usecases.claims.claims import CLAIMS, claim, worked_out
from widearc.usecases.claims.parts import DATED, Cam, Claim, Param
from widearc.web.db import held
from widearc.web.download import sent
from widearc.web.drawing import overlay
from widearc.web.forms.typed import Texts, number
from widearc.web.page import rendered
from widearc.web.words.refused import not_used, sentence
from widearc.web.words.words import MINUS
from widearc.words import how_of, metric_text, say, sign_of, spoken_text, tell
from widearc.words import shown as shown_value

blueprint = Blueprint("claims", __name__, url_prefix="/claims")


LABELS = {
    "computed": "computed by this program",
    "published": "published values",
    "practice": "common practice, no source",
    "disputed": "disputed",
}


def _cams(found: Claim) -> list[tuple[str, Cam]]:
    """Return the trainer's machines of a dispute's kind as they were read, by name, dial and
    place.
    """
    if not found.own_kind:
        return []
    kept = held()
    return [
        (
            ", ".join(part for part in (machine.name, dial and f"dial {dial}", place.name) if part),
            cam,
        )
        for place in kept.places
        for machine in kept.at(place.id).kit.machines
        if machine.kind == found.own_kind
        for dial, cam in machine.dials
    ]


@blueprint.get("/")
def listed() -> ResponseReturnValue:
    """List the disputes with their labels."""
    return rendered("claims/list.html", claims=CLAIMS.values(), labels=LABELS)


def _texts(found: Claim, source: Mapping[str, str]) -> dict[str, str]:
    """Return an address with every number of a dispute in its metric unit."""
    how, signs = how_of(source.get("units", "")), {p.name: p.unit for p in found.params}
    return {k: metric_text(v, signs.get(k, ""), how) for k, v in source.items()}


def _number(texts: Mapping[str, str], asked: Param) -> float:
    what = tell("a number of {unit}", unit=sign_of(asked.unit))
    return number(texts, asked.name, asked.default, what=what)


@blueprint.get("/<claim_id>.csv")
def values(claim_id: str) -> ResponseReturnValue:
    """Send the curves of a dispute for the values of the address as CSV."""
    found = claim(claim_id)
    typed = {p.name: _number(_texts(found, request.args), p) for p in found.params}
    view = worked_out(found, typed, _cams(found))
    pins = [
        overlay.Pinned(letter=letter, words=say(words), query="", curve=curve)
        for letter, (words, curve) in zip("ABCDE", view.curves, strict=False)
    ]
    if not pins:
        raise InputError("claim", claim_id, view.problem or Said("a dispute that has curves"))
    shown = overlay.overlaid(pins, request.args.get("joint", found.joint), own_peak=False)
    out = io.StringIO()
    head = [f"{shown.joint} bend, degrees", *(f"{d.letter}, N*m" for d in shown.drawn)]
    plain = (
        [cell.replace(MINUS, "-").rstrip("°").replace("–", "") for cell in row]
        for row in shown.table
    )
    csv.writer(out, lineterminator="\n").writerows([head, *plain])
    return sent(out.getvalue(), claim_id, "csv")


@blueprint.get("/<claim_id>")
def show(claim_id: str) -> ResponseReturnValue:
    """Show a dispute worked out for the values of the address."""
    found = claim(claim_id)
    texts = _texts(found, request.args)
    problems: dict[str, str] = {}
    values: dict[str, float] = {}
    for p in found.params:
        try:
            values[p.name] = _number(texts, p)
        except InputError as error:
            problems[p.name] = not_used(error)
    try:
        view = worked_out(found, values, _cams(found))
    except InputError as error:
        problems[error.where] = sentence(not_used(error, shown_value(error.value)))
        view = worked_out(found, {})
    pins = [
        overlay.Pinned(
            letter=letter,
            words=say(words),
            query=f"exercise={curve.setup.exercise.id}",
            curve=curve,
        )
        for letter, (words, curve) in zip("ABCDE", view.curves, strict=False)
    ]
    shown = (
        overlay.overlaid(pins, request.args.get("joint", found.joint), own_peak=False)
        if pins
        else None
    )
    typed = {p.name: spoken_text(texts.get(p.name, f"{p.default:g}"), p.unit) for p in found.params}
    order = list(CLAIMS)
    return rendered(
        "claims/show.html",
        view=view,
        claim=found,
        shown=shown,
        typed=Texts(typed),
        given={p.name: texts.get(p.name, f"{p.default:g}") for p in found.params},
        problems=Texts(problems),
        labels=LABELS,
        dated=DATED,
        after=CLAIMS[order[(order.index(claim_id) + 1) % len(order)]],
    )
