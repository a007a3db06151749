"""Open any sheet and keep it untouched: every stored value is the same, and no change is made of
it that was none.
"""

from __future__ import annotations

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.looked import looked
from tests.web.test_limits import form_of
from widearc import store
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.usecases.swap.wanted import SwapAsk, asks_depth, depths_of, wantable

NOW = "2026-11-24T09:00:00+00:00"
KEPT = (
    "client", "client_sore", "place", "equipment", "quantity", "band", "reading",
    "machine_reading", "setting",
)  # fmt: skip


def everything(con) -> dict[str, list[tuple[object, ...]]]:
    """Return every row of what sheets keep, less the numbers that rows are counted by."""
    found = {}
    for table in KEPT:
        columns = [c["name"] for c in con.execute(f"PRAGMA table_info({table})")]
        shown = ", ".join(c for c in columns if c not in ("id", "state_at"))
        found[table] = sorted(map(repr, map(tuple, con.execute(f"SELECT {shown} FROM {table}"))))
    return found


def keep_untouched(client, path: str, action: str = "save") -> int:
    typed = form_of(client.get(path).text, path.partition("?")[0])
    typed = {name: values for name, values in typed.items() if name != "once"}
    return client.post(path.partition("?")[0], data=typed | {"action": action}).status_code


def test_every_sheet_of_the_demo_kept_untouched_changes_nothing(client, con):
    before = everything(con)
    trainer = store.local_trainer(con, now=NOW)
    paths = [f"/clients/{c.id}" for c in store.clients(con, trainer)]
    for place in store.places(con, trainer):
        paths.append(f"/room/{place.id}/edit")
        for item in store.items(con, trainer, place.id):
            paths.append(f"/room/item/{item.id}")
            if item.kind == "band":
                paths += [
                    f"/bench/band/{item.id}?length_unit={length}&force_unit={force}"
                    for length, force in (("m", "N"), ("cm", "kgf"), ("in", "lbf"))
                ]
            elif store.machine_readings(con, trainer, item.id):
                paths += [f"/bench/machine/{item.id}?force_unit={unit}" for unit in ("N", "kgf")]
    for path in looked(paths, 60):
        assert keep_untouched(client, path) == 302, path
        assert everything(con) == before, path


@settings(
    max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(
    mass=st.floats(30.0, 250.0),
    stature=st.floats(1.3, 2.2),
    back=st.floats(0.0, 0.45),
    pulls=st.lists(st.floats(1.0, 900.0), min_size=2, max_size=6, unique=True),
    rest=st.floats(0.3, 0.5),
    grip=st.floats(1.0, 90.0),
)
def test_any_number_survives_being_shown(client, con, mass, stature, back, pulls, rest, grip):
    with store.transaction(con):
        con.execute(
            "UPDATE client SET mass_kg = ?, stature_m = ?, grip_kg = ? WHERE id = 1",
            (mass, stature, grip),
        )
        rows = [
            store.Reading(length_m=0.51 + 0.0317 * i, force_n=pull)
            for i, pull in enumerate(sorted(pulls))
        ]
        store.replace_readings(con, 1, 16, rows)
        con.execute(
            "UPDATE band SET rest_m = ?, back_share = ?, law = 'best' WHERE equipment_id = 16",
            (rest, back),
        )
    before = everything(con)
    assert keep_untouched(client, "/clients/1") == 302
    for units in ("length_unit=m&force_unit=N", "length_unit=cm&force_unit=lbf"):
        assert keep_untouched(client, f"/bench/band/16?{units}") == 302
        assert everything(con) == before


def test_a_measured_number_stays_measured_where_its_source_is_not_asked(client, con):
    row = con.execute("SELECT * FROM quantity WHERE source = 'measured' LIMIT 1").fetchone()
    other = con.execute(
        "SELECT * FROM quantity WHERE equipment_id = ? AND name = ?",
        (row["equipment_id"], row["name"]),
    ).fetchone()
    typed = form_of(
        client.get(f"/room/item/{row['equipment_id']}").text, f"/room/item/{row['equipment_id']}"
    )
    without = {k: v for k, v in typed.items() if not k.endswith("-source")}
    path = f"/room/item/{row['equipment_id']}"
    assert client.post(path, data=without | {"action": "save"}).status_code == 302
    again = con.execute(
        "SELECT * FROM quantity WHERE equipment_id = ? AND name = ?",
        (row["equipment_id"], row["name"]),
    ).fetchone()
    assert tuple(again)[1:] == tuple(other)[1:]


def test_a_depth_that_an_exercise_has_not_is_refused_and_never_moved(client):
    for exercise in looked([e for e in wantable() if asks_depth(e)], 30):
        low, high = depths_of(exercise)
        for depth in (low, high):
            SwapAsk(place_id=1, client_id=1, exercise=exercise.id, depth_deg=depth)
        for depth in (low - 1, high + 1):
            with pytest.raises(InputError) as refused:
                SwapAsk(place_id=1, client_id=1, exercise=exercise.id, depth_deg=depth)
            assert refused.value.where == "depth_deg"
    extension = EXERCISES["leg-extension"].options["knee_from_deg"].high
    page = client.get(f"/swap?exercise=leg-extension&kg=40&depth={extension + 5:g}").text
    assert f'value="{extension + 5:g}"' in page and 'id="p-depth"' in page
    assert f"from 30 to {extension:g} degrees" in page
