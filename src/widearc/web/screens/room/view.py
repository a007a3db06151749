"""Room: what is here and what is free; adding, changing and copying it."""

from __future__ import annotations

from itertools import groupby
from typing import Any

from flask import (
    Blueprint,
    abort,
    redirect,
    request,
    session,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.equipment import KINDS, ItemKind, kind_of
from widearc.core.exercises import EXERCISES
from widearc.usecases.home.home import waiting
from widearc.usecases.room.room import CROWDING, PEOPLE
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.elevation import elevation_of
from widearc.web.forms.fields import Sheet
from widearc.web.forms.typed import back_or, known_id
from widearc.web.page import rendered
from widearc.web.screens.room.sheet import (
    item_facts,
    item_sheet,
    kept_item,
    place_facts,
    place_sheet,
)
from widearc.web.zone import day_of

blueprint = Blueprint("room", __name__)


GROUPS = tuple(dict.fromkeys(kind.group for kind in KINDS.values()))


@blueprint.get("/room/")
def home() -> ResponseReturnValue:
    """Go to the last place, or say what to do first."""
    places = held().places
    if not places:
        return redirect(url_for("home.show"))
    known = {p.id for p in places}
    last = session.get("place")
    return redirect(url_for("room.show", place_id=last if last in known else places[0].id))


@blueprint.get("/room/<int:place_id>")
def show(place_id: int) -> ResponseReturnValue:
    """Show a place's equipment with its states."""
    clients = held().clients
    client = next((c for c in clients if c.id == session.get("client")), None)
    known = usecases.Holdings(connection(), trainer(), errors=False)
    view = usecases.room_view(connection(), trainer(), place_id, client, known)
    waits = waiting(view.place, client, known.at(place_id))
    session["place"] = place_id
    # the newer of what changed here and what changed among the places
    changes = [c for c in (view.change, held().last_change("places")) if c]
    template = "room/_answer.html" if request.headers.get("X-Part") else "room/show.html"
    return rendered(
        template,
        view=view,
        zones=_zones(view.items),
        wall=elevation_of(view.items),
        client=client,
        waits=waits.id if waits else "",
        exercises=EXERCISES,
        people=PEOPLE,
        crowding=CROWDING,
        change=max(changes, key=lambda c: c.id, default=None),
    )


def _zones(items: tuple[store.ItemRow, ...]) -> list[tuple[str, list[store.ItemRow]]]:
    order = {kind: i for i, kind in enumerate(KINDS)}
    # anchors and furniture last: what changes hands comes first
    ordered = sorted(items, key=lambda i: (i.zone, order[i.kind], i.kg or i.height_m or 0.0, i.id))
    return [(zone, list(group)) for zone, group in groupby(ordered, key=lambda i: i.zone)]


@blueprint.post("/room/item/<int:item_id>/state")
def state(item_id: int) -> ResponseReturnValue:
    """Mark an item free, taken or broken; kept at once."""
    item = usecases.mark(connection(), trainer(), item_id, _state(), now=now())
    return redirect(_back(item.place_id))


def _state() -> store.State:
    try:
        return store.State(request.form.get("state", ""))
    except ValueError:
        abort(400)


@blueprint.post("/room/<int:place_id>/zone")
def zone(place_id: int) -> ResponseReturnValue:
    """Mark everything in a zone free or taken."""
    wanted = _state()
    if wanted is store.State.BROKEN:
        abort(400)
    held().place(place_id)
    usecases.mark_zone(
        connection(), trainer(), place_id, request.form.get("zone", ""), wanted, now=now()
    )
    return redirect(_back(place_id))


@blueprint.post("/room/<int:place_id>/space")
def space(place_id: int) -> ResponseReturnValue:
    """Change who is here or how crowded it is, by one tap."""
    row = held().place(place_id)
    facts = _place_facts(row) | {
        k: v for k, v in request.form.items() if k in ("people", "crowding")
    }
    usecases.change_place(connection(), trainer(), place_id, store.PlaceFacts(**facts), now=now())
    return redirect(_back(place_id))


def _place_facts(row: store.PlaceRow) -> dict[str, Any]:
    return {name: getattr(row, name) for name in store.PlaceFacts.__dataclass_fields__}


@blueprint.get("/room/<int:place_id>/look")
def look(place_id: int) -> ResponseReturnValue:
    """Show the look-round list: what to see, ask and tick while warming up."""
    view = usecases.room_view(connection(), trainer(), place_id)
    today = now()[:10]
    seen = {item.id for item in view.items if item.seen_at and day_of(item.seen_at) == today}
    template = "room/_look.html" if request.headers.get("X-Part") else "room/look.html"
    return rendered(
        template, view=view, zones=_zones(view.items), seen=seen, people=PEOPLE, crowding=CROWDING
    )


@blueprint.post("/room/item/<int:item_id>/seen")
def seen(item_id: int) -> ResponseReturnValue:
    """Tick an item on the look-round list."""
    item = usecases.see(
        connection(), trainer(), item_id, seen=request.form.get("seen") == "yes", now=now()
    )
    return redirect(
        back_or(request.form.get("back", ""), url_for("room.look", place_id=item.place_id))
    )


@blueprint.post("/undo/<int:change_id>")
def undo(change_id: int) -> ResponseReturnValue:
    """Take a change back."""
    usecases.take_back(connection(), trainer(), change_id, now=now())
    return redirect(back_or(request.form.get("back", ""), url_for("room.home")))


def _back(place_id: int) -> str:
    return back_or(request.form.get("back", ""), url_for("room.show", place_id=place_id))


@blueprint.get("/room/<int:place_id>/add")
def choose(place_id: int) -> ResponseReturnValue:
    """Show the kinds that can be added, or an empty sheet of one kind."""
    place = held().place(place_id)
    if "kind" not in request.args:
        kinds = [(group, [k for k in KINDS.values() if k.group == group]) for group in GROUPS]
        return rendered("room/kinds.html", place=place, kinds=kinds)
    kind = kind_of(request.args["kind"])
    kept = {"zone": request.args.get("zone", ""), "name": kind.words.capitalize()}
    return _item_shown(place, kind, None, item_sheet(kind, None, kept))


@blueprint.post("/room/<int:place_id>/add")
def add(place_id: int) -> ResponseReturnValue:
    """Add an item, or show at each field what is wrong with everything as it was typed."""
    place = held().place(place_id)
    kind = kind_of(request.form.get("kind", ""))
    sheet = item_sheet(kind, request.form)
    try:
        facts = item_facts(kind, sheet)
        sheet.settled()
        item_id = usecases.add_item(connection(), trainer(), place_id, facts, now=now())
    except usecases.SheetError as error:
        sheet.refuse(error.messages)
        return _item_shown(place, kind, None, sheet)
    if kind.id == "band":
        return redirect(url_for("bench.band", item_id=item_id))
    return redirect(url_for("room.show", place_id=place_id))


@blueprint.get("/room/item/<int:item_id>")
def item(item_id: int) -> ResponseReturnValue:
    """Show an item's sheet."""
    row = held().item(item_id)
    place = held().place(row.place_id)
    kind = kind_of(row.kind)
    return _item_shown(place, kind, row, kept_item(row, kind))


def _kept_settings(kind: ItemKind, row: store.ItemRow | None) -> list[tuple[str, str, str]]:
    """Return a machine's settings as kept, then those of its kind that are not: name, words, whose
    they are.
    """
    kept = held().settings(row.id) if row else ()
    rows = [(s.name, s.words, "" if s.client_id is None else str(s.client_id)) for s in kept]
    named = {name for name, _, _ in rows}
    return [*rows, *((name, "", "") for name in kind.settings if name not in named)]


def _item_shown(
    place: store.PlaceRow,
    kind: ItemKind,
    row: store.ItemRow | None,
    sheet: Sheet,
    settings: list[tuple[str, str, str]] | None = None,
) -> ResponseReturnValue:
    page = rendered(
        "room/item.html",
        place=place,
        kind=kind,
        row=row,
        sheet=sheet,
        messages=sheet.messages,
        settings=[*(settings or _kept_settings(kind, row)), ("", "", "")],
        clients=held().clients,
        zones=sorted({i.zone for i in held().items(place.id) if i.zone}),
        change=held().last_change(f"place:{place.id}"),
    )
    return page, 422 if sheet.messages else 200


@blueprint.post("/room/item/<int:item_id>")
def change(item_id: int) -> ResponseReturnValue:
    """Change an item, copy it, remove it, or keep its settings."""
    row = held().item(item_id)
    action = request.form.get("action", "save")
    if action == "duplicate":
        new = usecases.duplicate_item(connection(), trainer(), item_id, now=now())
        return redirect(url_for("room.item", item_id=new))
    if action == "remove":
        usecases.remove_item(connection(), trainer(), item_id, now=now())
        return redirect(url_for("room.show", place_id=row.place_id))
    place = held().place(row.place_id)
    if action == "settings":
        return _settings(place, row)
    kind = kind_of(row.kind)
    sheet = kept_item(row, kind, request.form)
    try:
        facts = item_facts(kind, sheet)
        sheet.settled()
        usecases.change_item(connection(), trainer(), item_id, facts, now=now())
    except usecases.SheetError as error:
        sheet.refuse(error.messages)
        return _item_shown(place, kind, row, sheet)
    return redirect(url_for("room.show", place_id=row.place_id))


def _settings(place: store.PlaceRow, row: store.ItemRow) -> ResponseReturnValue:
    form = request.form
    typed = list(
        zip(form.getlist("s-name"), form.getlist("s-words"), form.getlist("s-client"), strict=False)
    )
    known = [client.id for client in held().clients]
    rows = [
        store.Setting(
            name=" ".join(n.split()), words=" ".join(w.split()), client_id=_client(c, known)
        )
        for n, w, c in typed
        if w.strip()
    ]
    try:
        usecases.keep_settings(connection(), trainer(), row.id, rows, now=now())
    except usecases.SheetError as error:
        filled = [t for t in typed if t[1].strip()]
        kind = kind_of(row.kind)
        sheet = kept_item(row, kind)
        sheet.refuse(error.messages)
        return _item_shown(place, kind, row, sheet, filled)
    return redirect(url_for("room.item", item_id=row.id))


def _client(text: str, known: list[int]) -> int | None:
    """Return a setting's client: None for everyone, 0 (which nobody has) for a text that names
    none.
    """
    return None if not text else known_id(text, known) or 0


@blueprint.get("/room/new")
def new() -> ResponseReturnValue:
    """Show an empty sheet for a place."""
    return _place_shown(None, place_sheet(None))


@blueprint.get("/room/<int:place_id>/edit")
def edit(place_id: int) -> ResponseReturnValue:
    """Show a place's sheet."""
    row = held().place(place_id)
    return _place_shown(row, place_sheet(row))


def _place_shown(row: store.PlaceRow | None, sheet: Sheet) -> ResponseReturnValue:
    change = held().last_change(f"place:{row.id}" if row else "places")
    page = rendered("room/place.html", row=row, sheet=sheet, messages=sheet.messages, change=change)
    return page, 422 if sheet.messages else 200


@blueprint.post("/room/new")
@blueprint.post("/room/<int:place_id>/edit")
def save(place_id: int | None = None) -> ResponseReturnValue:
    """Keep a place's sheet, copy the place, or remove it."""
    row = None if place_id is None else held().place(place_id)
    action = request.form.get("action", "save")
    if row is not None and action == "copy":
        return redirect(
            url_for(
                "room.show",
                place_id=usecases.copy_place(connection(), trainer(), row.id, now=now()),
            )
        )
    if row is not None and action == "remove":
        usecases.remove_place(connection(), trainer(), row.id, now=now())
        return redirect(url_for("room.home"))
    sheet = place_sheet(row, request.form)
    try:
        facts = place_facts(sheet)
        if row is None:
            place_id = usecases.new_place(connection(), trainer(), facts, now=now())
        else:
            usecases.change_place(connection(), trainer(), row.id, facts, now=now())
    except usecases.SheetError as error:
        sheet.refuse(error.messages)
        return _place_shown(row, sheet)
    return redirect(url_for("room.show", place_id=place_id))
