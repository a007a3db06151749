"""The trainer's clock: a day is theirs, wherever the server stands."""

from __future__ import annotations

from datetime import UTC, datetime, tzinfo
from functools import lru_cache
from zoneinfo import ZoneInfo, available_timezones

from flask import g, has_request_context, request

from widearc import usecases

COOKIE = "wide-arc-zone"
LONGEST = 64


@lru_cache(maxsize=64)
def zone_of(name: str) -> tzinfo | None:
    """Return a time zone by its name, None for a name that is none."""
    if not 0 < len(name) <= LONGEST or name not in available_timezones():
        return None
    return ZoneInfo(name)


def zone() -> tzinfo | None:
    """Return the zone of whom is answered: as set, else as the browser says; None: the server's."""
    if not has_request_context():
        return None
    if "zone" not in g:
        # here, not at the top: who counts days and who reads the setting need each other
        from widearc.web.db import connection, trainer

        kept = usecases.time_zone(connection(), trainer())
        g.zone = zone_of(kept) or zone_of(request.cookies.get(COOKIE, ""))
    found: tzinfo | None = g.zone
    return found


def day_of(iso: str) -> str:
    """Return the day (ISO date) of an ISO time by the trainer's clock."""
    return local(iso).date().isoformat()


def local(iso: str) -> datetime:
    """Return an ISO time by the trainer's clock; without an offset it is taken as UTC."""
    moment = datetime.fromisoformat(iso)
    return (moment if moment.tzinfo else moment.replace(tzinfo=UTC)).astimezone(zone())
