"""While the code moves house, every number stays: curves, swaps and checks as they were before the
first move.

`python -m tests.freeze.test_freeze` writes the values anew. Goes when the move is done.
"""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest

from widearc.core.errors import WideArcError
from widearc.core.statics import audit, curve
from widearc.formats import parse_scenario
from widearc.usecases import answer_request, check_document

HERE = Path(__file__).parent
INPUTS = json.loads((HERE / "inputs.json").read_text())
CLOSE = 1e-9  # of an array's largest value
ROUNDED = 2e-6  # documents are written with six digits


def frozen_curve(scenario):
    """Return every array of a curve by its name, or the refusal's words."""
    try:
        got = curve(parse_scenario(scenario)[0])
    except WideArcError as refusal:
        return {"refused": str(refusal)}
    motion = got.motion
    arrays = {f"demand {n}": v[0] for n, v in got.demand_nm.items()}
    arrays |= {f"other {n}": v[0] for n, v in got.other_nm.items()}
    arrays |= {f"angle {n}": motion.full(v)[0] for n, v in motion.angles.items()}
    arrays |= {f"lowering {n}": v[0] for n, v in (got.lowering_nm or {}).items()}
    arrays |= {f"length {n}": motion.full(v)[0] for n, v in motion.load_lengths.items()}
    arrays |= {"gravity": motion.gravity_j()[0], "elastic": motion.elastic_j()[0]}
    if motion.path_force is not None:
        arrays["path"] = motion.path_force[0]
    arrays["audit"] = np.array([audit(got).joint_work_j[0]])
    notices = sorted(n.code for n in motion.notices if n.where[0])
    return {
        "arrays": {n: np.asarray(v, dtype=float) for n, v in arrays.items()},
        "notices": notices,
    }


def frozen_swap(request):
    answer = answer_request(request, clock=lambda: 0.0)
    return json.loads(json.dumps(answer))


def write():
    flat, words = [], {}
    for item in INPUTS["scenarios"]:
        got = frozen_curve(item["scenario"])
        arrays = got.pop("arrays", {})
        words[item["name"]] = {**got, "arrays": [[n, len(v)] for n, v in arrays.items()]}
        flat += list(arrays.values())
    swaps = {item["name"]: frozen_swap(item["request"]) for item in INPUTS["requests"]}
    text = json.dumps(
        {"curves": words, "swaps": swaps, "check": check_document()}, separators=(",", ":")
    )
    np.savez_compressed(
        HERE / "values.npz",
        flat=np.concatenate(flat),
        text=np.frombuffer(text.encode(), dtype=np.uint8),
    )


def alike(old, new, where=""):
    """Refuse what differs by more than rounding, naming where."""
    if isinstance(old, dict):
        assert isinstance(new, dict) and set(old) == set(new), (where, set(old) ^ set(new))
        for key in old:
            alike(old[key], new[key], f"{where}/{key}")
    elif isinstance(old, list):
        assert isinstance(new, list) and len(old) == len(new), where
        for index, (a, b) in enumerate(zip(old, new, strict=True)):
            alike(a, b, f"{where}/{index}")
    elif isinstance(old, float) and isinstance(new, float | int):
        assert abs(old - new) <= ROUNDED * max(1.0, abs(old)), (where, old, new)
    else:
        assert old == new, (where, old, new)


@pytest.fixture(scope="module")
def kept():
    with np.load(HERE / "values.npz") as file:
        return file["flat"], json.loads(file["text"].tobytes())


def test_every_curve_stays(kept):
    flat, text = kept
    at = 0
    for item in INPUTS["scenarios"]:
        words, got = text["curves"][item["name"]], frozen_curve(item["scenario"])
        arrays = got.pop("arrays", {})
        assert got == {k: v for k, v in words.items() if k != "arrays"}, item["name"]
        assert [n for n, _ in words["arrays"]] == list(arrays), item["name"]
        for name, size in words["arrays"]:
            old, at = flat[at : at + size], at + size
            largest = max(float(np.abs(old).max()), 1e-3)
            assert np.abs(arrays[name] - old).max() <= CLOSE * largest, (item["name"], name)
    assert at == len(flat)


@pytest.mark.parametrize("number", range(len(INPUTS["requests"])))
def test_every_swap_stays(kept, number):
    item = INPUTS["requests"][number]
    alike(kept[1]["swaps"][item["name"]], frozen_swap(item["request"]), item["name"])


def test_every_check_value_stays(kept):
    alike(kept[1]["check"], check_document())


if __name__ == "__main__":
    write()
