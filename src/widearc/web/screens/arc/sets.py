"""Arc's forms: a set logged, where it was felt, an exercise's card."""

from __future__ import annotations

from urllib.parse import parse_qsl

from flask import redirect, request, url_for
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.core.errors import InputError
from widearc.core.words import Said
from widearc.web.db import connection, now, trainer
from widearc.web.forms.typed import Texts, address_part, integer
from widearc.web.page import rendered
from widearc.web.screens.arc.blueprint import blueprint
from widearc.web.screens.arc.query import asked
from widearc.web.words.refused import not_used
from widearc.words import tr


@blueprint.post("/set")
def log_set() -> ResponseReturnValue:
    """Keep a set that a client did of the exercise as it is set up; what is wrong is shown at its
    field.
    """
    form = request.form
    ask = asked(dict(parse_qsl(address_part(form, "query"))), doubt=False)
    if ask.client is None or ask.found is None or ask.found.curve is None:
        raise InputError("set", ask.entry.id, Said("an exercise that is set up, and a client"))
    typed = {name: form.get(name, "") for name in ("reps", "reserve", "side", "formula")}
    messages: dict[str, str] = {}
    counts = {}
    for name in ("reps", "reserve"):
        try:
            counts[name] = integer(typed, name, 0, what=tr("a whole number of reps"))
        except InputError as error:
            messages[name] = not_used(error)
    try:
        if messages:
            raise usecases.SheetError(messages)
        usecases.log_set(
            connection(),
            trainer(),
            ask.client.id,
            ask.found.curve,
            ask.kept_words,
            side=typed["side"],
            formula=typed["formula"],
            now=now(),
            **counts,
        )
    except usecases.SheetError as error:
        page = rendered(
            "arc/set.html",
            ask=ask,
            set_typed=Texts(typed),
            set_problems=Texts(error.messages | messages),
            entry=ask.entry,
            client=ask.client,
            query=form.get("query", ""),
        )
        return page, 422
    return redirect(url_for("arc.show") + "?" + form.get("query", ""))


@blueprint.post("/felt")
def felt() -> ResponseReturnValue:
    """Keep where the exercise as set up felt hardest."""
    query = address_part(request.form, "query")
    ask = asked(dict(parse_qsl(query)), doubt=False)
    if (
        ask.client is None
        or ask.found is None
        or ask.found.curve is None
        or not ask.found.curve.demand_nm
    ):
        raise InputError("felt", ask.entry.id, Said("an exercise that is set up, and a client"))
    usecases.keep_felt(
        connection(),
        trainer(),
        ask.client.id,
        ask.found.curve,
        ask.kept_words,
        request.form.get("felt", ""),
        now=now(),
    )
    return redirect(url_for("arc.show") + "?" + query)


@blueprint.post("/card/<exercise_id>/<section>")
def card(exercise_id: str, section: str) -> ResponseReturnValue:
    """Keep own words for a section of an exercise's card."""
    usecases.edit_card(
        connection(), trainer(), exercise_id, section, request.form.get("words", ""), now=now()
    )
    return redirect(_back(exercise_id))


def _back(exercise_id: str) -> str:
    back = request.form.get("back", "")
    if back.startswith("/arc/") and not back.startswith(("//", "/\\")):
        return back
    return url_for("arc.show", exercise=exercise_id)
