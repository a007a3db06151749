"""Intent: the loading that is wanted, by handles on its ribbon, from a shape or from an
exercise.
"""

from __future__ import annotations

import csv
import io
from urllib.parse import parse_qsl, urlencode

from flask import Blueprint, Response, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.body import Body
from widearc.core.dose import StyleKind
from widearc.core.errors import InputError, TargetError
from widearc.core.intent import HOLDS, SHAPES, Shape
from widearc.web import intentplot
from widearc.web.asked import asked
from widearc.web.db import connection, now, trainer
from widearc.web.forms import integer
from widearc.web.intentform import ASKS, LONGEST, address, read

blueprint = Blueprint("intent", __name__, url_prefix="/intent")


def body_of_client() -> Body:
    """Return the body of the client who was looked at last, for the usual strength curve."""
    clients = store.clients(connection(), trainer())
    last = next((c for c in clients if c.id == session.get("client")), None)
    return last.body if last is not None else Body()


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show the wanted loading of the address, and the kept ones."""
    return _page()


def _page(name: str = "", messages: dict[str, str] | None = None) -> ResponseReturnValue:
    source = (
        request.args
        if request.method == "GET"
        else dict(parse_qsl(request.form.get("query", "")[:LONGEST]))
    )
    body = body_of_client()
    found = read(source, body)
    kept = store.intents(connection(), trainer())
    scale = request.headers.get("X-Scale", "")
    keep_scale = float(scale) if scale.isdigit() and 0 < int(scale) <= 2000 else None
    kind = (
        StyleKind(found.typed.get("style", "plain"))
        if found.typed.get("style") in STYLES
        else StyleKind.PLAIN
    )
    values = {
        "found": found,
        "typed": found.typed,
        "problems": found.problems,
        "fans": intentplot.fans(found.intent, body, keep_scale) if found.intent else (),
        "quarters": intentplot.quarters(found.intent, body) if found.intent else (),
        "dose_words": intentplot.dose_words(found.intent) if found.intent else "",
        "words": usecases.intent_words(found.intent) if found.intent else "",
        "table": intentplot.table(found.intent, body) if found.intent else (),
        "actions": intentplot.action_choices(),
        "shapes": [(s.value, SHAPES[s]) for s in Shape if s is not Shape.ORIGINAL],
        "holds": {s.value: HOLDS[s] for s in Shape},
        "styles": [(k.value, k.words) for k in StyleKind if k is not StyleKind.BURN_OUT],
        "asks": ASKS.get(kind, ()),
        "handles": range(5),
        "kept": [
            (
                row,
                address(row.intent, body),
                usecases.intent_words(row.intent),
                intentplot.strip_of_intent(row.intent, body),
            )
            for row in kept
        ],
        "change": store.last_change(connection(), trainer(), usecases.INTENTS),
        "here": request.full_path.rstrip("?")
        if request.method == "GET"
        else url_for("intent.show"),
        "keep_name": name,
        "messages": messages or {},
        "told": request.args.get("told", "")[:200],
    }
    template = "intent/_answer.html" if request.headers.get("X-Part") else "intent/show.html"
    return render_template(template, **values), 422 if messages else 200


STYLES = [k.value for k in StyleKind]


@blueprint.get("/values.csv")
def values() -> ResponseReturnValue:
    """Send the wanted loading of the address as CSV: degrees and N·m of each action, every
    degree.
    """
    found = read(request.args, body_of_client())
    if found.intent is None:
        raise InputError("intent", None, "; ".join(found.problems.values()))
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(["action", "angle_deg", "wanted_nm"])
    for words, angle, nm in intentplot.table(found.intent, body_of_client(), every=1.0):
        rows.writerow([words, angle, nm])
    headers = {"Content-Disposition": 'attachment; filename="intent.csv"'}
    return Response(out.getvalue(), mimetype="text/csv", headers=headers)


@blueprint.get("/from")
def from_exercise() -> ResponseReturnValue:
    """Turn an address of the Arc page into an intent of its own loading, and go there."""
    ask = asked(request.args, doubt=False)
    if ask.found is None or ask.found.curve is None:
        why = ask.found.problem if ask.found is not None else " ".join(ask.problems.values())
        raise InputError("exercise", ask.entry.name, why or "an exercise that has a curve")
    try:
        intent, held = usecases.intent_of_curve(ask.found.curve)
    except TargetError as error:
        raise InputError("exercise", ask.entry.name, str(error)) from None
    told = f"From {ask.words}. Five handles hold {100 * held:.0f} % of it."
    return redirect(
        url_for("intent.show")
        + "?"
        + address(intent, body_of_client())
        + "&"
        + urlencode({"told": told})
    )


@blueprint.post("/keep")
def keep() -> ResponseReturnValue:
    """Keep the wanted loading under a name; what is wrong is shown at the name."""
    query = request.form.get("query", "")[:LONGEST]
    found = read(dict(parse_qsl(query)), body_of_client())
    if found.intent is None:
        raise InputError("query", query[:40], "; ".join(found.problems.values()))
    try:
        usecases.keep_intent(
            connection(), trainer(), request.form.get("name", ""), found.intent, now=now()
        )
    except usecases.SheetError as error:
        return _page(request.form.get("name", "")[:80], dict(error.messages))
    return redirect(url_for("intent.show") + "?" + found.query)


@blueprint.post("/remove")
def remove() -> ResponseReturnValue:
    """Remove a kept intent; it can be undone."""
    usecases.remove_intent(
        connection(),
        trainer(),
        integer(request.form, "intent", 0, what="one of the kept ones"),
        now=now(),
    )
    query = request.form.get("query", "")[:LONGEST]
    return redirect(url_for("intent.show") + ("?" + query if query else ""))
