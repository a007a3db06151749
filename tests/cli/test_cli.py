"""The command line: JSON on standard output and 0, or one line on standard error and 2."""

from __future__ import annotations

import io
import json
import sys

import pytest

from widearc.cli import main
from widearc.formats import schema


@pytest.fixture
def run(capsys, monkeypatch):
    def call(*arguments, stdin=""):
        monkeypatch.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(stdin.encode()), encoding="utf-8"))
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
    code, out, _ = run("fit", "-", "--kind", "band", stdin="length_m,force_n\n1.0,0\n1.3,40\n1.6,70\n")
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
        (("fit", "-", "--kind", "spring"), "", "--kind"),
        (("fit", "-", "--kind", "band"), "length_m,force_n\n1,0\n", "two readings or more"),
        (("serve", "--port", "99999"), "", "--port"),
    ],
)
def test_bad_input_is_one_line_and_two(run, arguments, stdin, says):
    code, out, err = run(*arguments, stdin=stdin)
    assert (code, out) == (2, "")
    assert err.count("\n") == 1 and says in err


def test_style_and_tempo_are_said_to_be_unused(run):
    scenario = {**schema("scenario")["examples"][0], "tempo": {"lifting_s": 1}, "style": {"kind": "plain"}}
    _, out, _ = run("curve", "-", stdin=json.dumps(scenario))
    codes = [w["code"] for w in json.loads(out)["warnings"]]
    assert codes == ["style-not-used", "tempo-not-used"]
