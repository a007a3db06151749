"""Floor: a session under way, one set after the other."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from pathlib import Path
from urllib.parse import parse_qsl, urlencode

from flask import Blueprint, Response, current_app, jsonify, redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.words import Said
from widearc.store import DecisionRow, SessionRow, State
from widearc.usecases import floor
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.strip import strip_alone
from widearc.web.forms.typed import address_part, integer, known_id
from widearc.web.gate import in_turn
from widearc.web.page import rendered
from widearc.web.screens.arc.query import asked
from widearc.web.screens.floor.instead import KINDER_PICK, instead_of, source_of
from widearc.web.screens.swap.query import ask_of, query_of
from widearc.web.words.feel import feel_pieces, near_words, set_words
from widearc.web.words.words import piece_words
from widearc.words import tr

blueprint = Blueprint("floor", __name__, url_prefix="/floor")

KEPT_SHOWN = 8


@blueprint.get("/")
def home() -> ResponseReturnValue:
    """Go on with the session under way, else offer to begin one."""
    view = floor.under_way(connection(), trainer())
    if view and not request.args.get("new"):
        last = known_id(str(session.get("session", "")), [s.id for s in view])
        return redirect(url_for("floor.show", session_id=last or view[0].id))
    return rendered(
        "floor/begin.html",
        clients=held().clients,
        places=held().places,
        under_way=view,
        client_id=known_id(str(session.get("client", "")), [c.id for c in held().clients]),
        place_id=known_id(str(session.get("place", "")), [p.id for p in held().places]),
    )


@blueprint.post("/")
def begin() -> ResponseReturnValue:
    """Begin a session."""
    client = integer(request.form, "client", 0, what=tr("a client of the list"))
    place = integer(request.form, "place", 0, what=tr("a place of the list"))
    made = floor.begin(connection(), trainer(), client, place, now=now())
    return redirect(url_for("floor.show", session_id=made))


@blueprint.get("/<int:session_id>")
def show(session_id: int) -> ResponseReturnValue:
    """Show the present set of a session."""
    session["session"] = session_id
    what = tr("a lift of the session")
    lift_id = integer(request.args, "lift", 0, what=what) or None
    going_on = integer(request.args, "on", 0, what=what) or None
    view = floor.view_of(connection(), trainer(), session_id, lift_id=lift_id, going_on=going_on)
    chosen = view.now
    template = "floor/_answer.html" if request.headers.get("X-Part") else "floor/show.html"
    shown = [p for p in view.lifts if not p.done or p is chosen]
    return rendered(
        template,
        view=view,
        present=chosen,
        entry=EXERCISES[chosen.lift.exercise] if chosen else None,
        exercises=EXERCISES,
        strips={p.lift.id: strip_alone(floor.strip_of(p.lift)) for p in shown},
        proposal=_proposal(view, chosen),
        mark=floor.mark_of(connection(), trainer(), session_id),
        **panel_values(view.session.place_id),
        decisions=_decisions(view.session),
        change=held().last_change(floor.scope(session_id)),
    )


def _proposal(view: floor.SessionView, present: floor.Present | None) -> floor.Proposal | None:
    """Return what is proposed after the last set, where form broke in it and more are to do."""
    if present is None or present.done:
        return None
    form, place = floor.broke(present.lift, present.sets), view.session.place_id
    if not form:
        return None
    return floor.proposal_of(connection(), trainer(), present.lift, form, place)


@blueprint.get("/<int:session_id>/state")
def state(session_id: int) -> ResponseReturnValue:
    """Return a text that is another one as soon as anything of a session is."""
    floor.session_of(connection(), trainer(), session_id)
    return jsonify(mark=floor.mark_of(connection(), trainer(), session_id))


@blueprint.get("/worker.js")
def worker() -> ResponseReturnValue:
    """Send what keeps these pages on the device: from here, so that it sees no other page."""
    script = Path(current_app.static_folder or "") / "js/floor-worker.js"
    headers = {"Cache-Control": "no-cache"}
    return Response(script.read_bytes(), mimetype="text/javascript", headers=headers)


def _decisions(row: SessionRow) -> Sequence[DecisionRow]:
    """Return the client's newest stand-ins that can be done as they were set up."""
    found = held().decisions
    mine = [d for d in found if d.client_id == row.client_id and d.scenario is not None]
    return mine[:KEPT_SHOWN]


@blueprint.post("/<int:session_id>/end")
def end(session_id: int) -> ResponseReturnValue:
    """End a session."""
    floor.end(connection(), trainer(), session_id, now=now())
    session.pop("session", None)
    return redirect(url_for("floor.home"))


@blueprint.post("/<int:session_id>/add")
def add(session_id: int) -> ResponseReturnValue:
    """Put a kept stand-in, or what was done last time, on the session."""
    if request.form.get("from") == "last":
        floor.last_time(connection(), trainer(), session_id, now=now())
        return redirect(url_for("floor.show", session_id=session_id))
    wanted = integer(request.form, "decision", 0, what=tr("one of the kept ones"))
    rows = [d for d in held().decisions if d.id == wanted]
    if not rows:
        raise InputError("decision", str(wanted), Said("one of the kept ones"))
    facts = floor.facts_of_decision(rows[0])
    lift = floor.add_lift(connection(), trainer(), session_id, facts, now=now())
    return redirect(url_for("floor.show", session_id=session_id, lift=lift))


@blueprint.post("/decision/<int:decision_id>")
def do_kept(decision_id: int) -> ResponseReturnValue:
    """Do a kept stand-in: on its client's session at its place, begun where there is none."""
    rows = [d for d in held().decisions if d.id == decision_id]
    if not rows:
        raise InputError("decision", str(decision_id), Said("one of the kept ones"))
    facts = floor.facts_of_decision(rows[0])
    made, lift = floor.begin_with(
        connection(), trainer(), rows[0].client_id, rows[0].place_id, facts, now=now()
    )
    return redirect(url_for("floor.show", session_id=made, lift=lift))


@blueprint.post("/do")
def do() -> ResponseReturnValue:
    """Put a set-up of Arc on its client's session, begun where there is none."""
    ask = asked(dict(parse_qsl(address_part(request.form, "query"))), doubt=False)
    if ask.client is None or ask.found is None or ask.found.curve is None:
        raise InputError("set", ask.entry.id, Said("an exercise that is set up, and a client"))
    place = known_id(str(session.get("place", "")), [p.id for p in held().places])
    place = place or held().places[0].id
    facts = floor.LiftFacts(
        setup=ask.found.curve.setup, said=ask.kept_value, reps=ask.entry.reps[1]
    )
    made, lift = floor.begin_with(connection(), trainer(), ask.client.id, place, facts, now=now())
    return redirect(url_for("floor.show", session_id=made, lift=lift))


@blueprint.post("/lift/<int:lift_id>/set")
def log(lift_id: int) -> ResponseReturnValue:
    """Keep a set; sent twice it is kept once."""
    form = request.form
    row = floor.lift_of(connection(), trainer(), lift_id, uid=form.get("lift_uid", ""))
    what = tr("a whole number")
    facts = floor.SetFacts(
        uid=form.get("uid", ""),
        side=form.get("side", "both"),
        reps=integer(form, "reps", row.reps, what=tr("a whole number of reps")),
        form=form.get("form", ""),
        pain_joint=form.get("pain_joint", ""),
        pain_side=form.get("pain_side", ""),
        pain=integer(form, "pain", 0, what=tr("a whole number from 0 to 10"))
        if form.get("pain")
        else None,
        number=integer(form, "number", 0, what=what) or None,
        held_s=integer(form, "held_s", 0, what=what) if form.get("held_s") else None,
        done_at=form.get("done_at", "") or now(),
    )
    floor.log_set(connection(), trainer(), row.id, facts, now=now())
    if request.headers.get("X-Queue"):
        return jsonify(kept=facts.uid)
    if facts.pain is not None:
        return redirect(
            url_for("floor.instead", lift_id=row.id, why="hurts", joint=facts.pain_joint)
        )
    return redirect(url_for("floor.show", session_id=row.session_id, on=row.id))


@blueprint.post("/set/<int:set_id>")
def change(set_id: int) -> ResponseReturnValue:
    """Say how many were left, change the reps, or remove the set."""
    row = floor.set_of(connection(), trainer(), set_id)
    lift = floor.lift_of(connection(), trainer(), row.lift_id)
    if request.form.get("action") == "remove":
        floor.remove_done(connection(), trainer(), set_id, now=now())
    else:
        what = tr("a whole number of reps")
        changes: dict[str, object] = {
            name: integer(request.form, name, 0, what=what)
            for name in ("reps", "reserve")
            if request.form.get(name, "").strip()
        }
        if request.form.get("felt"):
            changes["felt"] = request.form["felt"]
        floor.edit_set(connection(), trainer(), set_id, changes, now=now())
    return redirect(url_for("floor.show", session_id=lift.session_id, on=lift.id))


@blueprint.post("/lift/<int:lift_id>/otherwise")
def otherwise(lift_id: int) -> ResponseReturnValue:
    """Do what is left of a lift as proposed after form broke."""
    row = floor.lift_of(connection(), trainer(), lift_id)
    place = floor.session_of(connection(), trainer(), row.session_id).place_id
    form = request.form.get("form", "")
    made = floor.take_proposal(connection(), trainer(), row, form, place, now=now())
    return redirect(url_for("floor.show", session_id=row.session_id, on=made))


@blueprint.post("/lift/<int:lift_id>/end")
def end_lift(lift_id: int) -> ResponseReturnValue:
    """Do no more of a lift."""
    row = floor.lift_of(connection(), trainer(), lift_id)
    floor.end_lift(connection(), trainer(), lift_id, now=now())
    return redirect(url_for("floor.show", session_id=row.session_id))


@blueprint.post("/lift/<int:lift_id>/taken")
def taken(lift_id: int) -> ResponseReturnValue:
    """Mark a thing that the lift uses as taken, and show what to do instead."""
    row = floor.lift_of(connection(), trainer(), lift_id)
    item = integer(request.form, "item", 0, what=tr("a thing of the list"))
    if item not in row.items:
        raise InputError("item", str(item), Said("a thing of the list"))
    usecases.mark(connection(), trainer(), item, State.TAKEN, now=now())
    return redirect(url_for("floor.instead", lift_id=lift_id, why="taken", item=item))


@blueprint.get("/lift/<int:lift_id>/instead")
@in_turn
def instead(lift_id: int) -> ResponseReturnValue:
    """Show three stand-ins for a lift from what is free now."""
    row = floor.lift_of(connection(), trainer(), lift_id)
    view = floor.view_of(connection(), trainer(), row.session_id, lift_id=lift_id)
    why, joint = request.args.get("why", "taken"), request.args.get("joint", "")
    found = instead_of(row, view.session, joint)
    names = {i.id: i.name for i in held().at(view.session.place_id).items}
    item = known_id(request.args.get("item", ""), names)
    return rendered(
        "floor/instead.html",
        view=view,
        lift=row,
        entry=EXERCISES[row.exercise],
        found=found,
        why=why,
        joint=joint,
        things={i: names[i] for i in row.items if i in names},
        item=names.get(item or 0, ""),
        change=held().last_change(f"place:{view.session.place_id}"),
        exercises=EXERCISES,
        **panel_values(view.session.place_id),
    )


def panel_values(place_id: int) -> dict[str, object]:
    """Return what the set that is to be done in a place is drawn with."""
    return {
        "new_uid": lambda: secrets.token_urlsafe(12),
        "forms": floor.FORMS,
        "joints": floor.JOINTS,
        "thirds": usecases.THIRDS,
        "piece_words": piece_words,
        "set_words": set_words,
        "near_words": near_words,
        "feel_pieces": lambda pieces: feel_pieces(pieces, held().at(place_id).kit),
    }


@blueprint.post("/lift/<int:lift_id>/instead")
@in_turn
def use(lift_id: int) -> ResponseReturnValue:
    """Do a stand-in in the place of a lift: it is kept as a decision, too."""
    row = floor.lift_of(connection(), trainer(), lift_id)
    view = floor.view_of(connection(), trainer(), row.session_id, lift_id=lift_id)
    ask = ask_of(source_of(row, view.session))
    why = request.form.get("why", "taken")
    if request.form.get("pick") == KINDER_PICK:
        memo, joint = current_app.extensions["memo"], request.form.get("joint", "")
        lift = floor.do_kinder(connection(), trainer(), ask, memo, lift_id, joint, now=now())
        return redirect(url_for("floor.show", session_id=row.session_id, on=lift))
    queued = request.headers.get("X-Queue") is not None
    lift = floor.do_instead(
        connection(),
        trainer(),
        ask,
        request.form.get("pick", ""),
        current_app.extensions["memo"],
        lift_id,
        why=why if why in ("taken", "hurts", "choice") else "choice",
        asked=urlencode(query_of(ask)),
        now=now(),
        uid=request.form.get("uid", "")[:64],
        scenario=request.form.get("scenario", "") if queued else "",
    )
    if queued:
        return jsonify(kept=lift)
    return redirect(url_for("floor.show", session_id=row.session_id, on=lift))
