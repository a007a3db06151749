"""What is going on now: where, with whom, what is taken, who is on the floor, what is due."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from widearc import store
from widearc.core.exercises import Exercise
from widearc.core.kit.admission import left_out
from widearc.usecases import floor
from widearc.usecases.holdings import Holdings, Row
from widearc.usecases.room.kit import Stock, rules_of
from widearc.usecases.swap.wanted import wantable


@dataclass(frozen=True, slots=True, kw_only=True)
class Gone:
    """A thing that is not free, and the first lift that waits for it (None: none)."""

    item: store.ItemRow
    holds_up: Exercise | None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Going:
    """A session under way with its lifts, and the one that is next (None: all is done)."""

    session: store.SessionRow
    lifts: tuple[floor.Present, ...]
    now: floor.Present | None


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedDay:
    """A day of a client's week: 0 (Monday) to 6, where, its slots; state: "planned", "done" or
    "missed".
    """

    id: int
    weekday: int
    place: str
    slots: tuple[store.SlotRow, ...]
    state: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ClientWeek:
    """A client's week with its days that have something on them."""

    client: store.ClientRow
    days: tuple[PlannedDay, ...]

    def on(self, weekday: int) -> PlannedDay | None:
        """Return what is planned on a weekday (0: Monday), None for nothing."""
        return next((day for day in self.days if day.weekday == weekday), None)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Home:
    """What is going on. place, client: the present ones (None: there is none yet); free, things:
    how many are free at the place of how many; weeks: of the clients with something planned; today:
    0 (Monday) to 6; unweighed: bands of the place that nothing is known of.
    """

    place: store.PlaceRow | None
    client: store.ClientRow | None
    free: int
    things: int
    gone: tuple[Gone, ...]
    going: tuple[Going, ...]
    weeks: tuple[ClientWeek, ...]
    today: int
    unweighed: tuple[str, ...]

    @property
    def due(self) -> tuple[tuple[ClientWeek, PlannedDay], ...]:
        """Return what of the week is due: today's days, then those that were missed, the newest
        first; the present client's before others'. Without those that are on the floor now.
        """
        present = None if self.client is None else self.client.id
        going = {g.session.day_id for g in self.going}
        found = [
            (week, day)
            for week in self.weeks
            for day in week.days
            if day.id not in going and _is_due(day, self.today)
        ]
        return tuple(sorted(found, key=lambda p: (-p[1].weekday, p[0].client.id != present)))

    @property
    def later(self) -> tuple[tuple[ClientWeek, PlannedDay], ...]:
        """Return what is due besides the next thing."""
        return self.due[1:] if self.step == "day" else self.due

    @property
    def step(self) -> str:
        """Return the one next thing: "place", "things", "client", "session", "day" or "swap"."""
        steps = {
            "place": self.place is None,
            "things": self.things == 0,
            "client": self.client is None,
            "session": bool(self.going),
            "day": any(day.weekday == self.today for _, day in self.due),
        }
        return next((name for name, holds in steps.items() if holds), "swap")


def _is_due(day: PlannedDay, today: int) -> bool:
    return day.state == "missed" or (day.weekday == today and day.state == "planned")


def home_view(
    con: store.Connection,
    trainer_id: int,
    place_id: int | None,
    client_id: int | None,
    *,
    today: date,
    held: Holdings | None = None,
) -> Home:
    """Return what is going on at a place and with a client (None: the first there is)."""
    held = held or Holdings(con, trainer_id, errors=False)
    place = _chosen(held.places, place_id)
    client = _chosen(held.clients, client_id)
    stock = None if place is None else held.at(place.id)
    items = () if stock is None else stock.items
    free = sum(item.state is store.State.FREE for item in items)
    return Home(
        place=place,
        client=client,
        free=free,
        things=len(items),
        gone=() if place is None or stock is None else _gone(place, client, stock),
        going=tuple(_going(con, trainer_id, row) for row in floor.under_way(con, trainer_id)),
        weeks=_weeks(con, trainer_id, held, today),
        today=today.weekday(),
        unweighed=() if stock is None else stock.unread,
    )


def _chosen(rows: Sequence[Row], id_: int | None) -> Row | None:
    return next((row for row in rows if row.id == id_), rows[0] if rows else None)


def _going(con: store.Connection, trainer_id: int, row: store.SessionRow) -> Going:
    view = floor.view_of(con, trainer_id, row.id)
    return Going(session=row, lifts=view.lifts, now=view.now)


def _gone(place: store.PlaceRow, client: store.ClientRow | None, stock: Stock) -> tuple[Gone, ...]:
    waits = held_up(place, client, stock)
    rows = [item for item in stock.items if item.state is not store.State.FREE]
    newest = sorted(rows, key=lambda item: item.state_at or "", reverse=True)
    return tuple(Gone(item=item, holds_up=waits.get(item.key)) for item in newest)


def waiting(place: store.PlaceRow, client: store.ClientRow | None, stock: Stock) -> Exercise | None:
    """Return the first lift that waits for what was taken last, None where nothing does."""
    return next((g.holds_up for g in _gone(place, client, stock) if g.holds_up), None)


def held_up(
    place: store.PlaceRow, client: store.ClientRow | None, stock: Stock
) -> Mapping[str, Exercise]:
    """Return by a thing's key the first lift that waits for it, of those that can be asked for."""
    if not stock.taken:
        return {}
    who = client or store.ClientFacts(name="anyone")
    rules = rules_of(place, who, show_all=True)
    found: dict[str, Exercise] = {}
    for exercise in wantable():
        out = left_out(exercise, stock.kit, who.limits, rules, stock.taken, stock.words)
        for key in () if out is None else out.taken:
            found.setdefault(key, exercise)
    return found


def _weeks(
    con: store.Connection, trainer_id: int, held: Holdings, today: date
) -> tuple[ClientWeek, ...]:
    monday = today - timedelta(days=today.weekday())
    places = {place.id: place.name for place in held.places}
    found = []
    for client in held.clients:
        week = store.week_of(con, trainer_id, client.id, monday.isoformat())
        if week is None:
            continue
        days = _days(con, trainer_id, week, places, today.weekday())
        if days:
            found.append(ClientWeek(client=client, days=days))
    return tuple(found)


def _days(
    con: store.Connection,
    trainer_id: int,
    week: store.WeekRow,
    places: Mapping[int, str],
    today: int,
) -> tuple[PlannedDay, ...]:
    slots = store.slots_of(con, trainer_id, week.id)
    done = {d.slot_id for d in store.done_of(con, trainer_id, week.id) if d.sets}
    found = []
    for day in store.days_of(con, trainer_id, week.id):
        here = tuple(slot for slot in slots if slot.day_id == day.id)
        if not here:
            continue
        open_ = "missed" if day.weekday < today else "planned"
        found.append(
            PlannedDay(
                id=day.id,
                weekday=day.weekday,
                place=places[day.place_id],
                slots=here,
                state="done" if done & {slot.id for slot in here} else open_,
            )
        )
    return tuple(found)
