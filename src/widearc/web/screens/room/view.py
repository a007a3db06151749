"""Room: what is here and what is free; adding, changing and copying it."""

from __future__ import annotations

from itertools import groupby
from typing import Any

from flask import (
    Blueprint,
    abort,
    redirect,
    render_template,
    request,
    session,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.equipment import KINDS, ItemKind, Source, kind_of
from widearc.usecases.room.items import HOLDS, SIDES
from widearc.usecases.room.room import CROWDING, PEOPLE
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.elevation import elevation_of
from widearc.web.forms.typed import Texts, back_or, known_id, optional

blueprint = Blueprint("room", __name__)


GROUPS = tuple(dict.fromkeys(kind.group for kind in KINDS.values()))
PLACE_LENGTHS = (("floor_width_m", "m", 1.0), ("floor_length_m", "m", 1.0))


@blueprint.get("/")
def home() -> ResponseReturnValue:
    """Go to the last place, or say what to do first."""
    places = held().places
    if not places:
        return render_template("room/empty.html", change=held().last_change("places"))
    known = {p.id for p in places}
    last = session.get("place")
    return redirect(url_for("room.show", place_id=last if last in known else places[0].id))


@blueprint.get("/room/<int:place_id>")
def show(place_id: int) -> ResponseReturnValue:
    """Show a place's equipment with its states."""
    clients = held().clients
    client = next((c for c in clients if c.id == session.get("client")), None)
    view = usecases.room_view(connection(), trainer(), place_id, client)
    session["place"] = place_id
    # the newer of what changed here and what changed among the places
    changes = [c for c in (view.change, held().last_change("places")) if c]
    template = "room/_answer.html" if request.headers.get("X-Part") else "room/show.html"
    return render_template(
        template,
        view=view,
        zones=_zones(view.items),
        wall=elevation_of(view.items),
        client=client,
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
    seen = {item.id for item in view.items if item.seen_at and item.seen_at[:10] == today}
    template = "room/_look.html" if request.headers.get("X-Part") else "room/look.html"
    return render_template(
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
        return render_template("room/kinds.html", place=place, kinds=kinds)
    kind = kind_of(request.args["kind"])
    zone = request.args.get("zone", "")
    return _item_sheet(place, kind, None, {"zone": zone, "name": kind.words.capitalize()}, {})


@blueprint.post("/room/<int:place_id>/add")
def add(place_id: int) -> ResponseReturnValue:
    """Add an item, or show at each field what is wrong with everything as it was typed."""
    place = held().place(place_id)
    typed = request.form.to_dict()
    kind = kind_of(typed.get("kind", ""))
    messages: dict[str, str] = {}
    facts = _facts(kind, typed, messages)
    try:
        if messages:
            raise usecases.SheetError(messages)
        item_id = usecases.add_item(connection(), trainer(), place_id, facts, now=now())
    except usecases.SheetError as error:
        return _item_sheet(place, kind, None, typed, error.messages | messages)
    if kind.id == "band":
        return redirect(url_for("bench.band", item_id=item_id))
    return redirect(url_for("room.show", place_id=place_id))


@blueprint.get("/room/item/<int:item_id>")
def item(item_id: int) -> ResponseReturnValue:
    """Show an item's sheet."""
    row = held().item(item_id)
    place = held().place(row.place_id)
    return _item_sheet(place, kind_of(row.kind), row, _typed(row), {})


def _typed(row: store.ItemRow) -> dict[str, str]:
    typed = {
        "name": row.name,
        "zone": row.zone,
        "side": row.side,
        "hold": row.hold,
        "note": row.note,
    }
    for quantity in kind_of(row.kind).quantities:
        value = row.quantities.get(quantity.name)
        typed[quantity.name] = "" if value is None else quantity.shown(value)
        typed[f"{quantity.name}-source"] = row.sources.get(quantity.name, Source.DESCRIBED).value
    return typed


def _facts(kind: ItemKind, typed: dict[str, str], messages: dict[str, str]) -> usecases.ItemFacts:
    quantities: dict[str, float] = {}
    sources: dict[str, Source] = {}
    for q in kind.quantities:
        value = optional(typed, q.name, messages, per=q.per, unit=q.unit)
        if value is None:
            continue
        quantities[q.name] = value
        said = typed.get(f"{q.name}-source", "")
        sources[q.name] = Source(said) if said in {s.value for s in Source} else Source.DESCRIBED
    return usecases.ItemFacts(
        kind=kind.id,
        name=typed.get("name", ""),
        zone=typed.get("zone", ""),
        side=typed.get("side", ""),
        hold=typed.get("hold", ""),
        note=typed.get("note", ""),
        quantities=quantities,
        sources=sources,
        shape=typed.get("shape", "loop"),
    )


def _kept_settings(kind: ItemKind, row: store.ItemRow | None) -> list[tuple[str, str, str]]:
    """Return a machine's settings as kept, then those of its kind that are not: name, words, whose
    they are.
    """
    kept = held().settings(row.id) if row else ()
    rows = [(s.name, s.words, "" if s.client_id is None else str(s.client_id)) for s in kept]
    named = {name for name, _, _ in rows}
    return [*rows, *((name, "", "") for name in kind.settings if name not in named)]


def _item_sheet(
    place: store.PlaceRow,
    kind: ItemKind,
    row: store.ItemRow | None,
    typed: dict[str, str],
    messages: dict[str, str],
    settings: list[tuple[str, str, str]] | None = None,
) -> ResponseReturnValue:
    page = render_template(
        "room/item.html",
        place=place,
        kind=kind,
        row=row,
        typed=Texts(typed),
        messages=Texts(messages),
        sides=SIDES,
        holds=HOLDS,
        settings=[*(settings or _kept_settings(kind, row)), ("", "", "")],
        clients=held().clients,
        zones=sorted({i.zone for i in held().items(place.id) if i.zone}),
        change=held().last_change(f"place:{place.id}"),
    )
    return page, 422 if messages else 200


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
    typed = request.form.to_dict()
    messages: dict[str, str] = {}
    facts = _facts(kind_of(row.kind), typed, messages)
    try:
        if messages:
            raise usecases.SheetError(messages)
        usecases.change_item(connection(), trainer(), item_id, facts, now=now())
    except usecases.SheetError as error:
        return _item_sheet(place, kind_of(row.kind), row, typed, error.messages | messages)
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
        return _item_sheet(place, kind_of(row.kind), row, _typed(row), error.messages, filled)
    return redirect(url_for("room.item", item_id=row.id))


def _client(text: str, known: list[int]) -> int | None:
    """Return a setting's client: None for everyone, 0 (which nobody has) for a text that names
    none.
    """
    return None if not text else known_id(text, known) or 0


@blueprint.get("/room/new")
def new() -> ResponseReturnValue:
    """Show an empty sheet for a place."""
    return _place_sheet(None, {"wall": "yes", "people": "alone", "crowding": "some"}, {})


@blueprint.get("/room/<int:place_id>/edit")
def edit(place_id: int) -> ResponseReturnValue:
    """Show a place's sheet."""
    row = held().place(place_id)
    typed = {name: "" if value is None else str(value) for name, value in _place_facts(row).items()}
    typed["wall"] = "yes" if row.wall else ""
    for name, _, per in PLACE_LENGTHS:
        value = getattr(row, name)
        typed[name] = "" if value is None else f"{value / per:g}"
    return _place_sheet(row, typed, {})


def _place_sheet(
    row: store.PlaceRow | None, typed: dict[str, str], messages: dict[str, str]
) -> ResponseReturnValue:
    change = held().last_change(f"place:{row.id}" if row else "places")
    page = render_template(
        "room/place.html",
        row=row,
        typed=Texts(typed),
        messages=Texts(messages),
        people=PEOPLE,
        crowding=CROWDING,
        change=change,
    )
    return page, 422 if messages else 200


def _typed_place(typed: dict[str, str]) -> store.PlaceFacts:
    """Return a place as its sheet says; SheetError with a message at each wrong length."""
    messages: dict[str, str] = {}
    lengths = {
        name: optional(typed, name, messages, per=per, unit=unit)
        for name, unit, per in PLACE_LENGTHS
    }
    if messages:
        raise usecases.SheetError(messages)
    return store.PlaceFacts(
        name=" ".join(typed.get("name", "").split()),
        note=typed.get("note", "").strip(),
        people=typed.get("people", "alone"),
        crowding=typed.get("crowding", "some"),
        wall=typed.get("wall") == "yes",
        **lengths,
    )


@blueprint.post("/room/new")
@blueprint.post("/room/<int:place_id>/edit")
def save(place_id: int | None = None) -> ResponseReturnValue:
    """Keep a place's sheet, copy the place, or remove it."""
    row = None if place_id is None else held().place(place_id)
    typed = request.form.to_dict()
    if row is not None and typed.get("action") == "copy":
        return redirect(
            url_for(
                "room.show",
                place_id=usecases.copy_place(connection(), trainer(), row.id, now=now()),
            )
        )
    if row is not None and typed.get("action") == "remove":
        usecases.remove_place(connection(), trainer(), row.id, now=now())
        return redirect(url_for("room.home"))
    try:
        facts = _typed_place(typed)
        if row is None:
            place_id = usecases.new_place(connection(), trainer(), facts, now=now())
        else:
            usecases.change_place(connection(), trainer(), row.id, facts, now=now())
    except usecases.SheetError as error:
        return _place_sheet(row, typed, error.messages)
    return redirect(url_for("room.show", place_id=place_id))
