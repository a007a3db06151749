"""The command line: JSON on standard output and 0, or one line on standard error and 2."""

from __future__ import annotations

import dataclasses
import io
import json
import shutil
import socket
import subprocess
import sys
from pathlib import Path

import pytest

from widearc.cli import main
from widearc.formats import schema
from widearc.usecases import selfcheck
from widearc.usecases.selfcheck import CHECKS


@pytest.fixture
def run(capsys, monkeypatch):
    def call(*arguments, stdin=""):
        monkeypatch.setattr(
            sys, "stdin", io.TextIOWrapper(io.BytesIO(stdin.encode()), encoding="utf-8")
        )
        code = main([*arguments])
        captured = capsys.readouterr()
        return code, captured.out, captured.err

    return call


def test_every_command_answers_json(run, tmp_path):
    scenario = tmp_path / "scenario.json"
    scenario.write_text(json.dumps(schema("scenario")["examples"][0]))
    code, out, err = run("curve", str(scenario))
    assert (code, err) == (0, "") and json.loads(out)["format"] == "wide-arc/curve"
    code, out, _ = run("curve", "-", stdin=json.dumps([schema("scenario")["examples"][0]] * 2))
    assert code == 0 and len(json.loads(out)) == 2
    code, out, _ = run("swap", "-", stdin=json.dumps(schema("swap-request")["examples"][0]))
    assert code == 0 and json.loads(out)["candidates"]
    code, out, _ = run("ladder", "-", stdin=json.dumps(schema("ladder-request")["examples"][0]))
    assert code == 0 and json.loads(out)["format"] == "wide-arc/ladder"
    code, out, _ = run(
        "fit", "-", "--kind", "band", stdin="length_m,force_n\n1.0,0\n1.3,40\n1.6,70\n"
    )
    assert code == 0 and json.loads(out)["linear"]["law"]["rate_n_per_m"] > 0
    code, out, _ = run("exercises")
    assert code == 0 and json.loads(out)["exercises"]


@pytest.mark.parametrize(
    ("arguments", "stdin", "says"),
    [
        (("curve", "-"), "[1,", "valid JSON"),
        (("curve", "-"), '[{"format": "wide-arc/scenario"}]', "/0/"),
        (("curve", "/no/such/file"), "", "/no/such/file"),
        (("swap", "-"), "{}", "this key is needed"),
        (("ladder", "-"), "{}", "this key is needed"),
        (("fit", "-", "--kind", "spring"), "", "header"),
        (("fit", "-", "--kind", "rope"), "", "--kind"),
        (("fit", "-", "--kind", "sled"), "direction,force_n\npush,10\n", "one push and one return"),
        (("fit", "-", "--kind", "band"), "length_m,force_n\n1,0\n", "two readings or more"),
        (("serve", "--port", "99999"), "", "--port"),
    ],
)
def test_bad_input_is_one_line_and_two(run, arguments, stdin, says):
    code, out, err = run(*arguments, stdin=stdin)
    assert (code, out) == (2, "")
    assert err.count("\n") == 1 and says in err


@pytest.mark.parametrize(
    ("kind", "rows"),
    [
        (
            "band",
            "length_m,force_n,direction\n1.0,0,loading\n1.3,40,loading\n1.6,70,loading\n1.3,36,unloading",
        ),
        ("spring", "travel_m,force_n\n0,20\n0.6,140"),
        ("stack", "angle_deg,force_n,pad_m\n0,100,0.4\n90,120,0.4"),
        ("sled", "direction,force_n\npush,600\nreturn,480"),
        ("rail-bar", "direction,force_n\npush,160\nreturn,132"),
        ("carriage", "on_kg,force_n\n0,9\n60,33"),
        ("lever", "angle_deg,force_n,arm_m\n0,300,0.5\n40,240,0.5"),
        ("pendulum", "angle_deg,force_n,arm_m\n30,90,0.9"),
        ("cable", "stack_kg,force_n\n10,52\n20,101"),
        ("corner-bar", "plate_kg,force_n\n0,105\n20,290"),
    ],
)
def test_fit_of_every_kind(run, kind, rows):
    code, out, err = run("fit", "-", "--kind", kind, stdin=rows + "\n")
    assert (code, err) == (0, "")
    document = json.loads(out)
    assert document["kind"] == kind and document["readings"]["force_n"]
    assert document["hysteresis"] == pytest.approx(0.1) if kind == "band" else document["law"]
    code, _, err = run(
        "fit", "-", "--kind", kind, stdin=rows.replace(rows.split(",")[-1], "heavy") + "\n"
    )
    assert code == 2 and "row" in err and "heavy" in err


def test_style_and_tempo_give_dose_and_inertia(run):
    scenario = {
        **schema("scenario")["examples"][0],
        "tempo": {"lifting_s": 1, "lowering_s": 3},
        "style": {"kind": "pause", "at_deg": 90, "seconds": 2},
    }
    _, out, _ = run("curve", "-", stdin=json.dumps(scenario))
    document = json.loads(out)
    knee, hip = (document["dose"][a] for a in ("knee_extension", "hip_extension"))
    assert (
        max(knee["nms_per_deg"]) == knee["nms_per_deg"][knee["angle_deg"].index(89.5)]
        and sum(hip["nms_per_deg"]) > 0
    )
    slow, fast = (
        document["demand_nm"]["knee_extension"],
        document["dynamic"]["demand_nm"]["knee_extension"],
    )
    assert fast[20] > slow[20] and fast[80] < slow[80], "sped up first, slowed down last"


def test_the_self_check_passes_and_a_failure_exits_one(run, monkeypatch):
    code, out, _ = run("check")
    document = json.loads(out)
    assert code == 0 and document["failed"] == 0 and document["passed"] > 60
    wrong = dataclasses.replace(CHECKS[0], expected=(2.0,))
    monkeypatch.setattr(selfcheck, "CHECKS", (*CHECKS[1:4], wrong))
    code, out, _ = run("check")
    assert code == 1 and [c["passes"] for c in json.loads(out)["checks"]] == [
        True,
        True,
        True,
        False,
    ]


@pytest.mark.parametrize(
    ("arguments", "named"),
    [(["--script", "rope"], "--script"), (["--script", "spring", "--port", "99999"], "--port")],
)
def test_a_gauge_that_cannot_be_played_is_named(run, arguments, named):
    code, out, err = run("gauge", *arguments)
    assert code == 2 and out == "" and named in err and len(err.splitlines()) == 1


def test_the_gauge_says_its_address_and_sends_lines(tmp_path):
    busy = socket.create_server(("127.0.0.1", 0))
    port = busy.getsockname()[1]
    command = [
        str(Path(sys.executable).with_name("wide-arc")),
        "gauge",
        "--script",
        "band-heavy",
        "--port",
        str(port),
    ]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        address = json.loads(process.stdout.readline())["address"]
        assert not address.endswith(f":{port}"), "a busy port is answered with a free one"
        with socket.create_connection(
            ("127.0.0.1", int(address.rsplit(":", 1)[1])), timeout=5
        ) as line:
            assert line.recv(200).startswith(b"#")
        process.terminate()
    busy.close()


def test_a_kit_goes_out_and_in_by_the_command(run, demo_file, tmp_path):
    """Export, import into another place with a preview first, and every refusal on one line."""
    shutil.copy(demo_file, tmp_path / "demo.db")
    here = ("--demo", "--data", str(tmp_path))
    code, out, _ = run("kit", "export", "-", "--place", "cabin 14", *here)
    assert code == 0 and json.loads(out)["format"] == "wide-arc/kit"
    file = tmp_path / "kit.json"
    code, out, _ = run("kit", "export", str(file), "--place", "Cabin 14", *here)
    assert code == 0 and json.loads(out) == {"written": str(file), "items": 6}
    for preview in (("--preview",), ()):
        code, out, _ = run("kit", "import", str(file), "--place", "Harbour gym", *here, *preview)
        answer = json.loads(out)
        assert (code, answer["done"], len(answer["new"]) + len(answer["changed"])) == (
            0,
            not preview,
            6,
        )
    code, out, _ = run("kit", "import", str(file), "--place", "Harbour gym", *here)
    assert json.loads(out)["same"] and not json.loads(out)["new"]
    for arguments, says in (
        (("kit", "export", "-", "--place", "Moon base", *here), "Cabin 14"),
        (
            ("kit", "export", "-", "--place", "x", "--data", str(tmp_path / "none")),
            "has run already",
        ),
        (
            ("kit", "export", str(tmp_path / "no" / "f.json"), "--place", "Cabin 14", *here),
            "can be written",
        ),
        (("kit", "import", "-", "--place", "Cabin 14", *here), "valid JSON"),
    ):
        code, out, err = run(*arguments)
        assert (code, out) == (2, "") and says in err and err.count("\n") == 1
