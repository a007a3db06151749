"""Whatever is asked for can be computed for every client of the demo, on machines that no place has
as well: refused only for what a body cannot do.
"""

from __future__ import annotations

from widearc import store
from widearc.core.errors import PostureError
from widearc.core.statics import curve
from widearc.core.words import Said
from widearc.usecases.holdings import Holdings
from widearc.usecases.room.room import room_view
from widearc.usecases.swap.wanted import SwapAsk, depths_of, kits_for, wantable, wanted_setup
from widearc.words import plain


def test_no_usual_machine_falls_apart(demo):
    held = Holdings(demo, 1)
    broken = []
    for client in store.clients(demo, 1):
        kits = kits_for(room_view(demo, 1, 1, client, held), held)
        for entry in wantable():
            depth = max(90.0, depths_of(entry)[0])
            ask = SwapAsk(
                place_id=1, client_id=client.id, exercise=entry.id, kg=40.0, depth_deg=depth
            )
            try:
                curve(wanted_setup(ask, client, kits).setup, lowering=False)
            except PostureError as error:
                if "does not hold together" in plain(Said("{why}", why=error.reason)):
                    broken.append((client.name, entry.id))
    assert broken == []
