"""Odd characters, numbers and addresses: each has a clear answer, none an error of ours."""

from __future__ import annotations

import sqlite3
from datetime import UTC, datetime

import pytest

from tests.looked import looked
from tests.web.test_pages import text
from widearc import store
from widearc.cli import main
from widearc.core.errors import InputError
from widearc.formats import load_json
from widearc.store.errors import StoreError
from widearc.store.schema import migrate, migrations
from widearc.web import create_app
from widearc.web.forms.typed import back_or
from widearc.web.server import Serving, serve
from widearc.web.zone import zone_of

NOW = "2026-11-24T09:00:00+00:00"


@pytest.mark.parametrize("odd", ["\x00", "a\x00b", "\x1b[31m", "line\nfeed", "\x7f", "\x85"])
def test_a_control_character_is_refused_by_the_name_of_its_field(client, con, odd):
    clients = len(store.clients(con, 1))
    answer = client.post("/clients/", data={"name": odd})
    assert answer.status_code == 400 and "Name U+" in text(answer)
    assert len(store.clients(con, 1)) == clients
    assert client.get("/swap", query_string={"exercise": odd}).status_code == 400
    assert client.get("/arc/", query_string={odd: "x"}).status_code == 400


def test_lines_are_kept_where_there_are_lines(client, con):
    form = {"name": "Writer", "note": "first line\r\nsecond\tline"}
    assert client.post("/clients/", data=form).status_code == 302
    kept = next(c for c in store.clients(con, 1) if c.name == "Writer")
    assert kept.note.splitlines() == ["first line", "second\tline"]


@pytest.mark.parametrize(
    "path", ["/room/{}", "/clients/{}", "/room/item/{}", "/bench/band/{}", "/exchange/{}.json"]
)
@pytest.mark.parametrize("number", ["9007199254740993", "9223372036854775808", "9" * 60])
def test_a_number_that_no_row_has_is_not_here(client, path, number):
    assert client.get(path.format(number)).status_code == 404


@pytest.mark.parametrize(
    "away",
    ["//evil.example", "/\\evil.example", "/\t/evil.example", "/\n/evil.example", "/ /evil",
     "https://evil.example", "javascript:alert(1)", "/a\\b", "", "evil", "/x\r\nSet-Cookie: a=b"],
)  # fmt: skip
def test_an_address_to_go_back_to_is_ours(client, away):
    assert back_or(away, "/room/1") == "/room/1"
    answer = client.post("/room/item/1/state", data={"state": "taken", "back": away})
    assert answer.status_code in (302, 400)
    assert "evil" not in answer.headers.get("Location", "") and "a=b" not in str(answer.headers)


def test_our_own_addresses_are_gone_back_to():
    for own in looked(("/", "/room/1", "/swap?exercise=leg-press-45&kg=80#x", "/arc/?a=%20b")):
        assert back_or(own, "/other") == own


def test_a_line_feed_in_a_query_is_no_header(client):
    form = {"query": "exercise=back-squat-high\r\nX-Evil: 1", "reps": "5", "reserve": "2"}
    answer = client.post("/arc/set", data=form)
    assert answer.status_code == 400 and "X-Evil" not in answer.headers


@pytest.mark.parametrize("scale", ["²", "٣", "-1", "1e9", "nan", "9" * 400, "0"])
def test_an_odd_scale_is_passed_over(client, scale):
    headers = {"X-Scale": scale.encode("utf-8").decode("latin-1"), "X-Part": "answer"}
    assert client.get("/intent/", headers=headers).status_code == 200


def test_an_empty_database_answers_every_post(tmp_path):
    app = create_app(tmp_path / "empty.db", secret_key="x", config={"WTF_CSRF_ENABLED": False})
    client = app.test_client()
    posts = [r for r in app.url_map.iter_rules() if "POST" in (r.methods or ())]
    for rule in looked(posts, 25):
        values = {name: {"exercise_id": "leg-press-45", "section": "cues"}.get(name, 1)
                  for name in rule.arguments}  # fmt: skip
        with app.test_request_context():
            path = app.url_map.bind("localhost").build(rule.endpoint, values, method="POST")
        for form in ({}, {"place": "1", "client": "1", "pick": "x"}, {"action": "save"}):
            assert client.post(path, data=form).status_code < 500, path
    gets = [r for r in app.url_map.iter_rules() if "GET" in (r.methods or ()) and not r.arguments]
    for rule in looked(gets, 20):
        if rule.endpoint != "gauge.stream":
            assert client.get(rule.rule).status_code < 500, rule.rule


@pytest.mark.parametrize(
    ("document", "where"),
    [
        ('{"a": "\\u0000"}', "/a"),
        ('{"a": ["x", "\\ud800"]}', "/a/1"),
        ('{"\\u0007": 1}', "/"),
        ('"\\udfff"', "/"),
    ],
)
def test_half_a_character_in_a_document_is_named_by_its_place(document, where):
    with pytest.raises(InputError) as refused:
        load_json(document)
    assert refused.value.where == where and str(refused.value.value).startswith("U+")


def test_a_byte_order_mark_is_passed_over_and_pairs_are_whole():
    assert load_json('\ufeff{"a": "\\ud83d\\udcaa \\u017b"}') == {"a": "💪 Ż"}


@pytest.mark.parametrize(
    ("option", "value"),
    [("--rest-m", "nan"), ("--rest-m", "0"), ("--rest-m", "5e-324"), ("--rest-m", "inf"),
     ("--kg", "-5"), ("--kg", "nan"), ("--ratio", "0"), ("--rail-deg", "91")],
)  # fmt: skip
def test_an_odd_option_of_fit_is_refused_by_its_name(tmp_path, capsys, option, value):
    file = tmp_path / "r.csv"
    file.write_text("length_m,force_n\n0.6,40\n0.8,90\n1.0,130\n")
    assert main(["fit", str(file), "--kind", "band", f"{option}={value}"]) == 2
    error = capsys.readouterr().err
    assert option in error and error.count("\n") == 1


@pytest.mark.parametrize("words", [["backup", "a\0b"], ["curve", "\0"], ["serve", "--host", "\0"]])
def test_no_word_of_a_command_ends_early(capsys, words):
    assert main(words) == 2
    error = capsys.readouterr().err
    assert "U+0000" in error and error.count("\n") == 1


@pytest.mark.parametrize("key", [b"", b"\xff\xfe\x00", b"short", "ключ".encode()])
def test_a_key_file_that_is_none_says_what_to_do(tmp_path, key):
    (tmp_path / "secret-key").write_bytes(key)
    with pytest.raises(StoreError, match="remove it"):
        serve(Serving(port=0, data=tmp_path))


def test_a_long_zone_of_an_old_database_is_kept_in_the_note(tmp_path):
    raw = sqlite3.connect(tmp_path / "old.db", isolation_level=None)
    raw.row_factory = sqlite3.Row
    migrate(raw, "old.db", migrations()[:3])
    raw.execute("INSERT INTO trainer (id, name, created_at) VALUES (1, 'You', ?)", (NOW,))
    raw.execute("INSERT INTO place (id, trainer_id, name) VALUES (1, 1, 'Cabin')")
    long = "behind the blue curtain"
    for number, zone in enumerate((long, "B"), start=1):
        raw.execute(
            "INSERT INTO equipment (id, trainer_id, place_id, kind, name, zone)"
            " VALUES (?, 1, 1, 'box', ?, ?)",
            (number, f"Box {number}", zone),
        )
        raw.execute(
            "INSERT INTO furniture (equipment_id, trainer_id, height_m) VALUES (?, 1, 0.3)",
            (number,),
        )
    migrate(raw, "old.db")
    rows = raw.execute("SELECT zone, note FROM equipment ORDER BY id").fetchall()
    assert [tuple(r) for r in rows] == [(long[:20], f"zone: {long}"), ("B", "")]
    raw.close()


def test_the_day_is_the_trainer_s(database, con):
    late = datetime(2026, 11, 24, 23, 30, tzinfo=UTC).isoformat()
    app = create_app(database, secret_key="x", now=lambda: late,
                     config={"WTF_CSRF_ENABLED": False})  # fmt: skip
    east, west = app.test_client(), app.test_client()
    east.set_cookie("wide-arc-zone", "Asia/Tokyo")
    west.set_cookie("wide-arc-zone", "America/Los_Angeles")
    day = {"length_unit": "m", "force_unit": "N", "strands": "2", "shape": "loop", "law": "best",
           "length": ["0.9", "1.3"], "force": ["20", "90"], "looked": "2026-11-25"}  # fmt: skip
    # in the east it is the 25th already
    assert west.post("/bench/band/16", data=day).status_code == 422
    assert east.post("/bench/band/16", data=day).status_code == 302
    east.post("/room/item/1/seen", data={"seen": "yes"})
    kept = con.execute("SELECT seen_at FROM equipment WHERE id = 1").fetchone()[0]
    assert kept.startswith("2026-11-25T08:30:00+09:00")
    assert "08:30" in text(east.get("/settings/")) and "15:30" in text(west.get("/settings/"))
    assert east.post("/settings/zone", data={"zone": "Europe/Oslo"}).status_code == 302
    assert "00:30" in text(west.get("/settings/"))
    bad = east.post("/settings/zone", data={"zone": "Mars/Olympus"})
    assert bad.status_code == 422 and "no time zone" in text(bad) and "Mars/Olympus" in bad.text
    assert east.post("/settings/zone", data={"zone": ""}).status_code == 302
    for odd in looked(("", "x" * 65, "../../etc/passwd", "Europe/Oslo\x00", "posixrules")):
        assert zone_of(odd) is None
        client = app.test_client()
        if odd.isprintable():
            client.set_cookie("wide-arc-zone", odd)
        assert client.get("/method/").status_code == 200


@pytest.mark.parametrize("mass", [25, 300])
@pytest.mark.parametrize("stature", [100, 240])
def test_a_body_that_may_be_kept_is_answered_on_every_screen(client, con, mass, stature):
    """The smallest and the largest body of a sheet: Swap and Arc take what it took."""
    form = {"name": "Cook", "mass_kg": f"{mass}", "stature_m": f"{stature}"}
    assert client.post("/clients/2", data=form).status_code == 302
    for exercise in looked(("leg-press-45", "wide-squat"), 2):
        for place in (1, 3):
            path = f"/swap?client=2&place={place}&exercise={exercise}&kg=40"
            answer = client.get(path)
            assert answer.status_code == 200, path
        assert client.get(f"/arc/?client=2&exercise={exercise}").status_code == 200
    assert 'class="wa-row' in client.get("/swap?client=2&place=3&kg=40").text
