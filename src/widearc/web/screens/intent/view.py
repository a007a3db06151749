"""Intent: the loading that is wanted, by handles on its ribbon, from a shape or from an
exercise.
"""

from __future__ import annotations

import csv
import io
from urllib.parse import parse_qsl, urlencode

from flask import (
    Blueprint,
    redirect,
    request,
    session,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.core.body import Body
from widearc.core.errors import InputError, TargetError
from widearc.core.words import Said, Share
from widearc.web.db import connection, held, now, trainer
from widearc.web.download import sent
from widearc.web.drawing import intent as intentplot
from widearc.web.forms.typed import integer
from widearc.web.page import shown
from widearc.web.screens.arc.query import asked, told_of
from widearc.web.screens.intent.page import intent_page
from widearc.web.screens.intent.query import LONGEST, address, problems_of, read
from widearc.words import tell, tr

blueprint = Blueprint("intent", __name__, url_prefix="/intent")


def body_of_client() -> Body:
    """Return the body of the client who was looked at last, for the usual strength curve."""
    clients = held().clients
    last = next((c for c in clients if c.id == session.get("client")), None)
    return last.body if last is not None else Body()


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show the wanted loading of the address, and the kept ones."""
    return _page()


def _page(name: str = "", messages: dict[str, str] | None = None) -> ResponseReturnValue:
    page = intent_page(body_of_client(), name, messages)
    return shown("intent", page), 422 if messages else 200


@blueprint.get("/values.csv")
def values() -> ResponseReturnValue:
    """Send the wanted loading of the address as CSV: degrees and N·m of each action, every
    degree.
    """
    found = read(request.args, body_of_client())
    if found.intent is None:
        raise InputError("intent", None, problems_of(found))
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(["action", "angle_deg", "wanted_nm"])
    for words, angle, nm in intentplot.table(found.intent, body_of_client(), every=1.0):
        rows.writerow([words, angle, nm])
    return sent(out.getvalue(), "intent", "csv")


@blueprint.get("/from")
def from_exercise() -> ResponseReturnValue:
    """Turn an address of the Arc page into an intent of its own loading, and go there."""
    ask = asked(request.args, doubt=False)
    if ask.found is None or ask.found.curve is None:
        why = ask.found.problem if ask.found is not None else told_of(ask)
        raise InputError("exercise", ask.entry.name, why or Said("an exercise that has a curve"))
    try:
        intent, held = usecases.intent_of_curve(ask.found.curve)
    except TargetError as error:
        raise InputError("exercise", ask.entry.name, error.said) from None
    told = tell(
        "From {words}. Five handles hold {share} of it.", words=ask.words, share=Share(held)
    )
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
        raise InputError("query", query[:40], problems_of(found))
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
        integer(request.form, "intent", 0, what=tr("one of the kept ones")),
        now=now(),
    )
    query = request.form.get("query", "")[:LONGEST]
    return redirect(url_for("intent.show") + ("?" + query if query else ""))
