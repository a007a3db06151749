"""The gauge at the Bench: connect, stop, and the live trace as server-sent events."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator
from typing import Any

from flask import Blueprint, Response, current_app, jsonify, request
from flask.typing import ResponseReturnValue

from widearc.core.errors import InputError
from widearc.core.units import FORCE_N, LENGTH_M
from widearc.core.words import Count, Force, Share
from widearc.gauge import Reader, Snapshot
from widearc.usecases.bench.bands import gives_back
from widearc.web.screens.bench.gaugedesk import GaugeDesk
from widearc.web.words.refused import sentence
from widearc.words import tell, tr

blueprint = Blueprint("gauge", __name__, url_prefix="/bench/gauge")


EVERY_S = 0.08  # at least ten times a second
LEAST_S = 0.05  # and at most twenty, however fast the gauge
TRACE_S = 20.0
QUIET_S = 15.0  # a page that went away is noticed when something is sent


STATES = {
    "connecting": "looking for the gauge",
    "reading": "reading",
    "silent": "connected, but nothing is sent",
    "unplugged": "unplugged: waiting for it; nothing is lost",
    "stopped": "stopped",
}


def _desk() -> GaugeDesk:
    desk: GaugeDesk = current_app.extensions["gauge"]
    return desk


@blueprint.post("/connect")
def connect() -> ResponseReturnValue:
    """Read the gauge at the address of the form."""
    try:
        reader = _desk().connect(request.form.get("address", "").strip())
    except InputError as error:
        return jsonify(
            problem=sentence(
                tell(
                    "“{address}” is no gauge: type {allowed}",
                    address=str(error.value)[:40],
                    allowed=error.allowed,
                )
            )
        ), 422
    return jsonify(address=reader.address)


@blueprint.post("/stop")
def stop() -> ResponseReturnValue:
    """Stop reading."""
    _desk().stop()
    return jsonify(stopped=True)


@blueprint.get("/stream")
def stream() -> ResponseReturnValue:
    """Send the live trace and steady readings in the units asked, ten times a second or more."""
    desk = _desk()
    reader = desk.reader
    length, force = request.args.get("length_unit", "m"), request.args.get("force_unit", "N")
    if reader is None or length not in LENGTH_M or force not in FORCE_N:
        return jsonify(problem="Connect a gauge first."), 409
    if not desk.streams.acquire(blocking=False):
        return jsonify(problem="Too many pages watch the gauge: close one."), 503
    events = _Watch(desk, reader, length, force)
    return Response(
        events,
        mimetype="text/event-stream",
        headers={"Cache-Control": "no-store", "X-Accel-Buffering": "no"},
    )


class _Watch:
    """One page's events; gives its place back when the page goes away."""

    def __init__(self, desk: GaugeDesk, reader: Reader, length: str, force: str) -> None:
        self._desk, self._reader, self._length, self._force = desk, reader, length, force
        self._open = True

    def __iter__(self) -> Iterator[str]:
        seen, captured = 0, 0
        yield "retry: 1000\n\n"
        while True:
            news = self._reader.snapshot(seen, captured, wait_s=EVERY_S)
            event = event_of(news, self._reader, seen == 0, captured, self._length, self._force)
            seen, captured = news.seen, captured + len(news.captures)
            yield f"data: {json.dumps(event)}\n\n"
            if news.state == "stopped":
                return
            time.sleep(LEAST_S)
            if not news.samples:
                # nothing new: no need to say so ten times a second
                self._reader.snapshot(seen, captured, wait_s=1.0)

    def close(self) -> None:
        """Give the place back; the server calls this when the answer ends, however it ends."""
        if self._open:
            self._open = False
            self._desk.streams.release()


def event_of(
    news: Snapshot, reader: Reader, first: bool, captured: int, length: str, force: str
) -> dict[str, Any]:
    """Return one event: state, points (time s, position and force in the units asked), readings as
    text.
    """
    per_length, per_force = LENGTH_M[length], FORCE_N[force]
    whole = reader.snapshot(0, 0)
    samples = news.samples
    if first and samples:
        samples = tuple(s for s in samples if s.time_s > samples[-1].time_s - TRACE_S)
    event: dict[str, Any] = {
        "state": news.state,
        "words": tr(STATES[news.state]),
        "points": [
            [
                round(s.time_s, 3),
                round(s.position_m / per_length, 4),
                None if s.overload else round(s.force_n / per_force, 2),
            ]
            for s in samples
        ],
        "captures": [
            {
                "number": captured + i + 1,
                "length": f"{c.position_m / per_length:.4g}",
                "force": f"{max(c.force_n, 0.0) / per_force:.3g}",
                "direction": c.direction,
            }
            for i, c in enumerate(news.captures)
        ],
        "warnings": [],
    }
    if samples:
        last = samples[-1]
        pull = tr("overload") if last.overload else f"{last.force_n / per_force:.3g} {force}"
        long = f"{last.position_m / per_length:.4g} {length}"
        event["now"] = tell("{pull} at {length}", pull=pull, length=long)
    if news.overloads:
        event["warnings"].append(
            tr(
                "The gauge was overloaded: those readings are left out. Use a stronger gauge or "
                "less stretch."
            )
        )
    if news.drift_n is not None:
        event["warnings"].append(
            tell(
                "The zero moved by {drift}: set the gauge to zero and pull again.",
                drift=Force(news.drift_n),
            )
        )
    if news.wrong_lines > 5:
        event["warnings"].append(
            tell(
                "{lines} lines could not be read: check the gauge's line format.",
                lines=Count(news.wrong_lines),
            )
        )
    back = gives_back([(c.position_m, c.force_n, c.direction) for c in whole.captures])
    if back is not None:
        event["back"] = tell("Gives back {share} less on the way down.", share=Share(back))
        event["back_percent"] = f"{100 * back:.0f}"
    return event
