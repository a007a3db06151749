"""Sets typed later at the desk, and a log that comes in: all of it or none."""

from __future__ import annotations

import csv
import io

import pytest
from playwright.sync_api import expect

from tests.web.test_floor_page import nothing_found


def row(i, **cells):
    return {f"{name}-{i}": value for name, value in cells.items()}


def count(con, table="set_done"):
    return con.execute(f"SELECT count(*) FROM {table}").fetchone()[0]


HEAD = {"day": "2026-11-20", "place": "1"}


def test_rows_become_a_session_and_empty_cells_take_the_row_above(client, con):
    data = HEAD | row(0, exercise="Goblet squat", load="24", reps="10", reserve="2")
    data |= row(1, reps="9") | row(2, exercise="split squat", load="16", side="left", reps="8")
    data |= row(3, side="r", reps="8", note="steadier")
    assert client.post("/clients/1/sets", data=data).status_code == 302
    rows = con.execute(
        """SELECT l.exercise, d.side, d.reps, d.reserve, d.note, d.done_at, l.scenario
           FROM set_done d JOIN lift l ON l.id = d.lift_id ORDER BY d.done_at"""
    ).fetchall()
    assert [tuple(r)[:5] for r in rows] == [
        ("goblet-squat", "both", 10, 2, ""),
        ("goblet-squat", "both", 9, None, ""),
        ("split-squat", "left", 8, None, ""),
        ("split-squat", "right", 8, None, "steadier"),
    ]
    assert all('"kg":24' in r["scenario"] for r in rows[:2])
    assert count(con, "session") == 1 and count(con, "lift") == 2
    page = client.get("/clients/1/sets").text
    assert 'placeholder="Goblet squat"' in page and 'placeholder="24"' in page
    again = client.post("/clients/1/sets", data={"day": "2026-11-22", "place": "1", "reps-0": "11"})
    assert again.status_code == 302, "what is offered is taken"
    last = con.execute("SELECT scenario FROM lift ORDER BY id DESC LIMIT 1").fetchone()[0]
    assert '"kg":24' in last


@pytest.mark.parametrize(
    ("cells", "words"),
    [
        ({"exercise": "Gobelt squat", "reps": "5"}, "an exercise of this program"),
        ({"exercise": "Goblet squat", "load": "heavy", "reps": "5"}, "a number from 0 to 1200"),
        ({"exercise": "Goblet squat", "load": "24", "reps": "5.5"}, "a whole number of reps"),
        ({"exercise": "Goblet squat", "load": "24", "reps": "5", "side": "up"}, "left, right"),
        ({"exercise": "Band squat", "load": "24", "reps": "5"}, "not loaded by weight"),
        ({"exercise": "Goblet squat", "load": "24"}, "How many reps?"),
    ],
)
def test_a_row_that_cannot_be_kept_is_named_and_none_is_kept(client, con, cells, words):
    good = row(0, exercise="Goblet squat", load="24", reps="10")
    answer = client.post("/clients/1/sets", data=HEAD | good | row(1, **cells))
    assert answer.status_code == 422 and words in answer.text
    assert 'aria-invalid="true"' in answer.text
    assert count(con) == count(con, "session") == 0
    for value in cells.values():
        assert f'value="{value}"' in answer.text, "what was typed is kept"


def test_pounds_are_typed_in_pounds(client, con):
    client.post("/settings/units", data={"choose": "imperial"})
    data = HEAD | row(0, exercise="Goblet squat", load="53", reps="10") | {"read_in": "imperial"}
    assert client.post("/clients/1/sets", data=data).status_code == 302
    scenario = con.execute("SELECT scenario FROM lift").fetchone()[0]
    assert '"kg":24.04' in scenario
    assert 'placeholder="53"' in client.get("/clients/1/sets").text


LOG = """Day;Lift;Weight (lb);Reps;RIR;Where
24.11.2026;Goblet squat;53;10;2;Deck container
24.11.2026;Goblet squat;53;9;1;Deck container
26.11.2026;Split squat;35,3;8;;Deck container
"""


def test_a_log_is_looked_at_then_kept_once(client, con):
    looked = client.post("/clients/1/import", data={"csv": LOG, "action": "look"})
    assert looked.status_code == 200 and "3 sets" in looked.text
    assert count(con) == 0, "looking keeps nothing"
    for _ in range(2):
        client.post("/clients/1/import", data={"csv": LOG, "action": "keep"})
    assert (count(con), count(con, "session")) == (3, 2)
    rows = con.execute("SELECT reps, reserve, done_at FROM set_done ORDER BY done_at").fetchall()
    assert [r["reps"] for r in rows] == [10, 9, 8] and rows[0]["done_at"].startswith("2026-11-24T")
    assert "are here already" in client.post("/clients/1/import", data={"csv": LOG}).text


def test_columns_can_be_chosen_where_the_header_says_nothing(client, con):
    text = "a,b,c,d\n03/04/2026,Goblet squat,24,10\n"
    first = client.post("/clients/1/import", data={"csv": text})
    assert first.status_code == 422 and "each set needs it" in first.text
    chosen = {"column-date": "0", "column-exercise": "1", "column-load": "2", "column-reps": "3"}
    for order, day in (("dmy", "2026-04-03"), ("mdy", "2026-03-04")):
        data = {"csv": text, "action": "keep", "order": order, **chosen}
        assert client.post("/clients/1/import", data=data).status_code == 302
        newest = con.execute("SELECT done_at FROM set_done ORDER BY id DESC").fetchone()[0]
        assert newest.startswith(day)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "a table with a header"),
        ("date,exercise,reps\n", "a table with a header"),
        ("date,exercise,reps\n2026-13-40,Goblet squat,8\n", "Line 2"),
        ("date,exercise,reps,load\n2026-11-24,Nothing known,8,1\n", "an exercise of this program"),
        ("date,exercise,reps,load\n2026-11-24,Goblet squat,8,nan\n", "a number from 0 to 1200"),
        ("date,exercise,reps,load\n1890-11-24,Goblet squat,8,20\n", "a year from 1970 to 2100"),
        ("date,exercise,reps,place\n2026-11-24,Bodyweight squat,8,Moon\n", "a place of yours"),
    ],
)
def test_a_log_with_a_fault_keeps_nothing_and_says_where(client, con, text, words):
    good = "date,exercise,reps,load\n2026-11-24,Goblet squat,8,24\n"
    body = text if text.count("\n") < 2 else text + good.split("\n")[1] + "\n"
    answer = client.post("/clients/1/import", data={"csv": body, "action": "keep"})
    assert answer.status_code == 422 and words in answer.text
    assert count(con) == count(con, "session") == 0


def test_what_goes_out_comes_in_again(client, con):
    data = HEAD | row(0, exercise="Goblet squat", load="24", reps="10", reserve="2")
    data |= row(1, exercise="Split squat", load="16", side="left", reps="8", note="a, b")
    client.post("/clients/1/sets", data=data)
    out = client.get("/clients/1/log.csv").text
    assert client.post("/clients/2/import", data={"csv": out, "action": "keep"}).status_code == 302
    back = client.get("/clients/2/log.csv").text
    named = [
        [r for n, r in line.items() if n != "client"] for line in csv.DictReader(io.StringIO(out))
    ]
    came = [
        [r for n, r in line.items() if n != "client"] for line in csv.DictReader(io.StringIO(back))
    ]
    assert named == came and len(came) == 2


def test_the_grid_by_the_keyboard_alone(watched, served, con):
    page = watched
    page.goto(f"{served}/clients/1/sets")
    nothing = page.locator("#exercise-0")
    nothing.focus()
    page.keyboard.type("Goblet squat")
    page.keyboard.press("Tab")
    page.keyboard.type("24")
    page.keyboard.press("Tab")
    page.keyboard.press("Tab")
    for reps in ("10", "9", "8"):
        page.keyboard.type(reps)
        page.keyboard.press("Enter")
    page.keyboard.press("Control+Enter")
    expect(page.get_by_text("over time")).to_be_visible()
    assert [r[0] for r in con.execute("SELECT reps FROM set_done ORDER BY id")] == [10, 9, 8]
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{served}/clients/1/sets")
    nothing_found(page)
