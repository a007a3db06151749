"""One limit, said beforehand: what is kept can be opened, kept again, sent out and brought in."""

from __future__ import annotations

import html
import io
import json
import re

import pytest
from werkzeug.datastructures import FileStorage
from werkzeug.test import stream_encode_multipart

from tests.web.test_pages import text
from widearc import store
from widearc.core.equipment import MOST_CHECKS, MOST_READINGS
from widearc.formats.documents import schema
from widearc.usecases import ItemFacts, add_item, export_kit, new_place
from widearc.usecases.bench.machines import add_check
from widearc.web.limits import LARGEST_FILE, LARGEST_FORM

NOW = "2026-11-24T09:00:00+00:00"


def as_multipart(fields: dict[str, object]) -> dict[str, object]:
    """Return a form as its bytes: the test client itself would leave a file open."""
    stream, _, boundary = stream_encode_multipart(fields, use_tempfile=False)
    kind = f'multipart/form-data; boundary="{boundary}"'
    return {"data": stream.getvalue(), "content_type": kind}


def csv_of(rows: int) -> str:
    lines = (f"{0.5 + 0.002 * i:.4f},{10 + 0.5 * i:.2f}" for i in range(rows))
    return "length_m,force_n\n" + "\n".join(lines)


def form_of(page: str, action: str) -> dict[str, list[str]]:
    found = re.search(rf'<form[^>]*action="{re.escape(action)}".*?</form>', page, re.S)
    assert found is not None
    typed: dict[str, list[str]] = {}
    for tag in re.findall(r"<input[^>]*>", found[0]):
        name = re.search(r'name="([^"]*)"', tag)
        value = re.search(r'value="([^"]*)"', tag)
        unticked = 'type="checkbox"' in tag and not re.search(r"\bchecked\b", tag.split("name=")[1])
        if name and not unticked and 'type="submit"' not in tag:
            typed.setdefault(name[1], []).append(html.unescape(value[1]) if value else "")
    for name, inner in re.findall(
        r'<select[^>]*name="([^"]*)"[^>]*>(.*?)</select>', found[0], re.S
    ):
        options = re.findall(r"<option([^>]*)>([^<]*)", inner)
        chosen = next((o for o in options if "selected" in o[0]), options[0])
        value = re.search(r'value="([^"]*)"', chosen[0])
        typed.setdefault(name, []).append(value[1] if value else chosen[1])
    return typed


@pytest.mark.parametrize("rows", [60, 61, 200, MOST_READINGS])
def test_readings_from_a_file_can_be_kept_again_and_sent_out(client, con, rows):
    path = "/bench/band/16"
    units = {"length_unit": "m", "force_unit": "N", "strands": "2", "shape": "loop", "law": "best"}
    answer = client.post(path, data=units | {"action": "import", "csv": csv_of(rows)})
    assert answer.status_code == 302
    before = store.readings(con, 1, 16)
    assert len(before) == rows
    typed = form_of(client.get(path).text, path)
    assert len([v for v in typed["length"] if v]) == rows
    assert client.post(path, data=typed | {"action": "save"}).status_code == 302
    after = store.readings(con, 1, 16)
    assert [r.length_m for r in after] == pytest.approx([r.length_m for r in before], rel=1e-3)
    assert client.get("/exchange/1.json").status_code == 200
    assert client.get(f"{path}.csv").data.count(b"\n") == rows + 1


def test_more_is_refused_with_the_number(client, con):
    units = {"length_unit": "m", "force_unit": "N", "strands": "2", "shape": "loop", "law": "best"}
    kept = store.readings(con, 1, 16)
    answer = client.post(
        "/bench/band/16", data=units | {"action": "import", "csv": csv_of(MOST_READINGS + 1)}
    )
    assert answer.status_code == 422 and f"at most {MOST_READINGS}" in text(answer)
    assert store.readings(con, 1, 16) == kept
    assert f"Up to {MOST_READINGS} readings" in text(client.get("/bench/band/16"))


def test_a_machine_s_dials_share_the_limit_and_old_checks_make_room(client, con):
    head = "angle_deg,force_n,arm_m,stack_kg"
    page = client.get("/bench/machine/35").text
    head = re.search(r"Header ([\w,]+), then", page)[1]
    columns = head.split(",")

    def rows(count: int) -> str:
        cells = {"angle_deg": lambda i: 10 + 0.15 * i, "force_n": lambda i: 100 + 0.1 * i}
        return "\n".join(
            [head, *(",".join(f"{cells.get(c, lambda _: 0.3)(i):.3f}" for c in columns)
                     for i in range(count))]
        )  # fmt: skip

    form = {"action": "import", "force_unit": "N"}
    first = client.post("/bench/machine/35", data=form | {"csv": rows(300), "csv_setting": "1"})
    assert first.status_code == 302, text(first)
    more = client.post("/bench/machine/35", data=form | {"csv": rows(300), "csv_setting": "2"})
    assert more.status_code == 422 and f"at most {MOST_READINGS} of a thing" in text(more)
    for number in range(MOST_CHECKS + 3):
        reading = store.MachineReading(at=40.0, force_n=100.0 + number, purpose="check")
        add_check(con, 1, 35, [reading], now=NOW)
    kept = store.machine_readings(con, 1, 35)
    checks = [r.force_n for r in kept if r.purpose == "check"]
    assert len(checks) == MOST_CHECKS and checks[-1] == 100.0 + MOST_CHECKS + 2
    assert len(kept) == 300 + MOST_CHECKS
    assert client.get("/exchange/3.json").status_code == 200


def test_the_file_s_schema_takes_all_that_is_kept():
    items = schema("kit")["properties"]["items"]["items"]["properties"]
    assert items["readings"]["maxItems"] == MOST_READINGS
    assert items["machine_readings"]["maxItems"] == MOST_READINGS + MOST_CHECKS


def test_a_large_place_goes_out_and_comes_in_as_a_file_and_as_text(client, con):
    trainer = store.local_trainer(con, now=NOW)
    place = new_place(con, trainer, store.PlaceFacts(name="Store room"), now=NOW)
    readings = [store.Reading(length_m=0.4 + 0.003 * i, force_n=5.0 * i) for i in range(300)]
    for number in range(120):
        name = f"band {number}"
        facts = ItemFacts(kind="band", name=name, quantities={}, sources={}, shape="loop")
        band = add_item(con, trainer, place, facts, now=NOW)
        with store.transaction(con):
            store.replace_readings(con, trainer, band, readings)
    sent = client.get(f"/exchange/{place}.json").data
    assert LARGEST_FORM < len(sent) < LARGEST_FILE
    other = new_place(con, trainer, store.PlaceFacts(name="Second store"), now=NOW)
    upload = FileStorage(io.BytesIO(sent), "kit.json")
    shown = client.post("/exchange/", **as_multipart({"place": str(other), "file": upload}))
    assert shown.status_code == 200 and "120 added" in text(shown)
    typed = {"place": str(other), "text": sent.decode(), "action": "import"}
    done = client.post("/exchange/", **as_multipart(typed))
    assert done.status_code == 302
    again = export_kit(con, trainer, other)
    assert again["items"] == json.loads(sent)["items"]
    assert client.post("/clients/", data={"name": "x" * 2 * LARGEST_FORM}).status_code == 413


def test_everything_goes_out_of_the_page_and_comes_in_again(client, con):
    sent = client.get("/exchange/all.zip")
    assert sent.mimetype == "application/zip"
    assert sent.data.startswith(b"PK")
    client.post("/clients/", data={"name": "Only here"})
    upload = FileStorage(io.BytesIO(sent.data), "all.zip")
    assert client.post("/exchange/all", **as_multipart({"archive": upload})).status_code == 302
    names = {c.name for c in store.clients(con, 1)}
    assert "Bosun" in names and "Only here" not in names
    change = store.last_change(con, 1, "places")
    client.post(f"/undo/{change.id}")
    assert "Only here" in {c.name for c in store.clients(con, 1)}
    for content in (b"", b"no zip"):
        upload = FileStorage(io.BytesIO(content), "all.zip")
        answer = client.post("/exchange/all", **as_multipart({"archive": upload}))
        assert answer.status_code == 422 and "Nothing was changed" in text(answer)
    assert "Last backup" in text(client.get("/method/")) or "No backup yet" in text(
        client.get("/method/")
    )
