"""What to buy: what is wanted at a place this week, and which single purchase would help most."""

from __future__ import annotations

import time
from collections.abc import Callable

from flask import Blueprint, current_app, redirect, request, url_for
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.words import Count
from widearc.usecases.room.room import scope
from widearc.usecases.swap.wanted import SwapAsk
from widearc.usecases.week.gaps import gaps_here
from widearc.web.db import connection, held, now, trainer
from widearc.web.forms.typed import Texts, integer
from widearc.web.gate import in_turn
from widearc.web.page import rendered
from widearc.web.screens.swap.query import ask_of, query_of, refusal_of
from widearc.words import tell

blueprint = Blueprint("wanted", __name__, url_prefix="/week/wanted")


USUAL_TIMES = 2


@blueprint.get("/")
@in_turn
def show() -> ResponseReturnValue:
    """Show this week's plan at the place of the address, and with `buy` what one purchase would do
    for it.
    """
    if not held().places or not held().clients:
        return redirect(url_for("home.show"))
    return _page(ask_of(request.args), buy=request.args.get("buy") == "1")


@blueprint.post("/add")
@in_turn
def add() -> ResponseReturnValue:
    """Plan what the form asks so many times, or what the last planned week had."""
    ask = ask_of(request.form)
    if request.form.get("action") == "again":
        usecases.plan_again(connection(), trainer(), ask.place_id, now=now())
        return redirect(_here(ask))
    try:
        what = tell("a whole number from 1 to {most}", most=Count(usecases.MOST_TIMES))
        times = integer(request.form, "times", USUAL_TIMES, what=what)
        usecases.plan(connection(), trainer(), ask, times, now=now())
    except InputError as error:
        return _page(ask, messages={"times": refusal_of(error)}), 422
    except usecases.SheetError as error:
        return _page(ask, messages=error.messages), 422
    return redirect(_here(ask))


@blueprint.post("/<int:planned_id>/remove")
def remove(planned_id: int) -> ResponseReturnValue:
    """Take a line off the plan."""
    ask = ask_of(request.form)
    usecases.unplan(connection(), trainer(), ask.place_id, planned_id, now=now())
    return redirect(_here(ask))


COMPUTES_S = 1.0  # then the page says how far it is, and goes on


def _after(seconds: float) -> Callable[[], bool]:
    end = time.monotonic() + seconds
    return lambda: time.monotonic() > end


def _here(ask: SwapAsk) -> str:
    who = held().client(ask.client_id)
    return url_for("wanted.show", **query_of(ask, who.body))


def _page(ask: SwapAsk, *, buy: bool = False, messages: dict[str, str] | None = None) -> str:
    # both refuse what is not the trainer's
    who, place = (
        held().client(ask.client_id),
        held().place(ask.place_id),
    )
    bodies = {c.id: c.body for c in held().clients}
    plan = usecases.week_plan(connection(), trainer(), ask.place_id, now=now())
    memo = current_app.extensions["memo"]
    found = (
        usecases.worth_buying(
            connection(), trainer(), ask, memo, now=now(), enough=_after(COMPUTES_S)
        )
        if buy
        else None
    )
    change = held().last_change(scope(ask.place_id))
    template = "week/_wanted.html" if request.headers.get("X-Part") else "week/wanted.html"
    return rendered(
        template,
        ask=ask,
        query=query_of(ask, who.body),
        place=place,
        places=held().places,
        client=who,
        plan=plan,
        gaps=gaps_here(connection(), trainer(), ask.place_id, memo, now=now()),
        exercises=EXERCISES,
        lines=[(line, query_of(line.ask, bodies[line.ask.client_id])) for line in plan.lines],
        wanted=usecases.asked_words(ask),
        times=request.form.get("times", str(USUAL_TIMES)),
        most=usecases.MOST_TIMES,
        messages=Texts(messages or {}),
        change=change if change is not None and change.kind == "plan" else None,
        found=found,
    )
