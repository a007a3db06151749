"""Documents: by schema in and out, refusals by pointer, round trips."""

from __future__ import annotations

import json

import pytest
from jsonschema import Draft202012Validator

from widearc.core.errors import InputError, WideArcError
from widearc.core.statics import curve
from widearc.formats import (
    FORMATS,
    ReadingRow,
    check,
    curve_document,
    exercises_document,
    fit_document,
    load_json,
    parse_scenario,
    parse_swap_request,
    read_readings,
    schema,
    write_readings,
)
from widearc.usecases import answer_request

SCENARIO = {
    "format": "wide-arc/scenario",
    "version": 1,
    "body": {
        "mass_kg": 80,
        "stature_m": 1.80,
        "sex": "male",
        "strength_scale": {"knee_extension": 1.2},
    },
    "limits": {"dorsiflexion_deg": 35},
    "exercise": "leg-press-45",
    "options": {"rail_deg": 40, "backrest_deg": 20, "foot_height_m": 0.20, "knee_from_deg": 90},
    "loads": [
        {"kind": "sled", "kg": 120, "empty_kg": 38, "friction": 0.05},
        {
            "kind": "band",
            "port": "sled",
            "anchor": {"x_m": 0.2, "y_m": 0.0},
            "strands": 2,
            "law": {
                "kind": "points",
                "rest_m": 1.0,
                "length_m": [1.0, 1.4, 1.8],
                "force_n": [0, 90, 150],
            },
        },
    ],
}


def changed(path, value):
    document = json.loads(json.dumps(SCENARIO))
    inner = document
    for key in path[:-1]:
        inner = inner[key]
    inner[path[-1]] = value
    return document


@pytest.mark.parametrize("name", ["common", *FORMATS])
def test_schemas_are_valid_and_their_examples_follow_them(name):
    Draft202012Validator.check_schema(dict(schema(name)))
    for example in schema(name).get("examples", []):
        check(example, name)


def test_a_curve_has_everything_per_sample():
    setup, scale = parse_scenario(SCENARIO)
    document = curve_document(curve(setup), scale)
    n = len(document["position"])
    assert n == 101
    assert set(document["demand_nm"]) == {"hip_extension", "knee_extension", "plantarflexion"}
    arrays = [
        *document["demand_nm"].values(),
        *document["angles_deg"].values(),
        *document["points_m"].values(),
    ]
    arrays += [
        *document["lowering"]["demand_nm"].values(),
        document["path"]["force_n"],
        document["energy_j"]["elastic"],
    ]
    assert all(len(a) == n for a in arrays)
    assert (
        document["lowering"]["demand_nm"]["knee_extension"][20]
        < document["demand_nm"]["knee_extension"][20]
    )
    assert list(document["effort"]) == ["knee_extension"], "only the scaled action has an effort"
    assert document["audit"]["relative_error"] < 0.005
    assert document["loads"][1]["length_m"][0] > 0


@pytest.mark.parametrize(
    ("path", "value", "where"),
    [
        (["bogus"], 1, "/bogus"),
        (["version"], 2, "/version"),
        (["exercise"], "nope", "/exercise"),
        (["options", "foo"], 3, "/options/foo"),
        (["options", "rail_deg"], 91, "/options/rail_deg"),
        (["options", "rail_deg"], "steep", "/options/rail_deg"),
        (["options", "rail_deg"], True, "/options/rail_deg"),
        (["loads", 0, "kg"], -1, "/loads/0/kg"),
        (["loads", 0, "kg"], 1e9, "/loads/0/kg"),
        (["loads", 0, "kg"], float("inf"), "/loads/0/kg"),
        (["loads", 0, "kg"], float("nan"), "/loads/0/kg"),
        (["loads", 1, "port"], "nose", "/loads/1/port"),
        (["loads", 1, "law", "force_n"], [0, 90, 80], "/loads/1/law/force_n/2"),
        (["loads", 1, "law", "length_m"], [1.0, 0.9, 0.8], "/loads/1/law/length_m/1"),
        (["loads", 1, "law", "force_n"], [0, 90], "/loads/1/law/force_n"),
        (["loads", 1, "anchor"], {}, "/loads/1/anchor/x_m"),
        (["samples"], 0, "/samples"),
        (["samples"], 10**9, "/samples"),
        (["body", "mass_kg"], 2, "/body/mass_kg"),
        (["body", "segments"], {"thigh_m": 1.4}, "/body/segments/thigh_m"),
        (["limits", "knee_deg"], 400, "/limits/knee_deg"),
    ],
)
def test_bad_scenarios_are_refused_at_their_place(path, value, where):
    with pytest.raises(InputError) as refused:
        parse_scenario(changed(path, value))
    assert refused.value.where == where
    assert str(refused.value).count("\n") == 0


@pytest.mark.parametrize(
    ("load", "where"),
    [
        (
            {"kind": "spring", "start_n": 50, "end_n": 10, "travel_m": 0.5, "attached": "carriage"},
            "/loads/0/end_n",
        ),
        (
            {"kind": "spring", "start_n": 5, "end_n": 10, "travel_m": 0.5, "attached": "hands"},
            "/loads/0/anchor",
        ),
        (
            {
                "kind": "spring",
                "start_n": 5,
                "end_n": 10,
                "travel_m": 0.5,
                "attached": "carriage",
                "port": "hands",
            },
            "/loads/0/attached",
        ),
        ({"kind": "lever", "kg": 10, "arm_m": 0.5}, "/loads/0/pivot"),
        (
            {"kind": "lever", "kg": 10, "arm_m": 0.5, "pivot": {"x_m": 0, "y_m": 1}, "sense": 1},
            "/loads/0/sense",
        ),
        ({"kind": "pendulum", "kg": 10, "arm_m": 0.5}, "/loads/0/kind"),
        (
            {"kind": "stack", "kg": 40, "radius": {"angle_deg": [0, 50], "radius_m": [0.1]}},
            "/loads/0/radius/radius_m",
        ),
        ({"kind": "rope", "kg": 1}, "/loads/0/kind"),
        ({"kind": "mass", "kg": 1, "port": "hands", "colour": "red"}, "/loads/0/colour"),
        (
            {
                "kind": "corner-bar",
                "plate_kg": 9,
                "bar_kg": 20,
                "bar_m": 2,
                "sleeve_m": 2,
                "hand_m": 2,
                "direction": "perpendicular",
                "port": "hands",
            },
            "/loads/0/pivot",
        ),
    ],
)
def test_bad_loads_are_refused_at_their_place(load, where):
    document = {
        "format": "wide-arc/scenario",
        "version": 1,
        "exercise": "carriage-push",
        "loads": [load],
    }
    with pytest.raises(InputError) as refused:
        parse_scenario(document)
    assert refused.value.where == where


def test_every_load_kind_goes_from_document_to_curve():
    loads = {
        "carriage-push": [
            {"kind": "spring", "attached": "carriage", "start_n": 30, "end_n": 150, "travel_m": 0.9}
        ],
        "leg-extension": [
            {
                "kind": "stack",
                "kg": 40,
                "radius": {"angle_deg": [0, 90], "radius_m": [0.1, 0.12]},
                "friction": 0.05,
            },
            {
                "kind": "lever",
                "kg": 20,
                "arm_m": 0.4,
                "pivot": {"x_m": 0.441, "y_m": 0.6},
                "user_arm_m": 0.35,
            },
        ],
        "pendulum-hip-extension": [{"kind": "pendulum", "kg": 20, "arm_m": 0.9}],
        "corner-bar-squat": [
            {
                "kind": "corner-bar",
                "plate_kg": 20,
                "bar_kg": 20,
                "bar_m": 2.2,
                "sleeve_m": 2.0,
                "hand_m": 2.1,
            }
        ],
        "belt-squat-cable": [
            {"kind": "cable", "kg": 60, "port": "hip-belt", "pulley": {"x_m": 0.06, "y_m": 0}}
        ],
        "back-squat-high": [
            {"kind": "mass", "kg": 60, "port": "back-high"},
            {"kind": "chain", "kg_per_m": 6, "length_m": 1.2, "port": "back-high"},
            {
                "kind": "band",
                "port": "shoulders",
                "anchor": {"port": "sole"},
                "hysteresis": 0.1,
                "law": {
                    "kind": "mooney-rivlin",
                    "rest_m": 0.8,
                    "area_m2": 1e-4,
                    "c1_pa": 1e5,
                    "c2_pa": 1e5,
                },
            },
        ],
        "hack-squat": [{"kind": "sled", "kg": 80, "empty_kg": 30}],
    }
    for name, parts in loads.items():
        scenario = {"format": "wide-arc/scenario", "version": 1, "exercise": name, "loads": parts}
        setup, _ = parse_scenario(scenario)
        document = curve_document(curve(setup))
        assert document["audit"]["relative_error"] <= 0.005, name
        assert [part["kind"] for part in document["loads"]] == [part["kind"] for part in parts]
        assert not [w for w in document["warnings"] if w["code"] == "energy-does-not-balance"]
    assert "lumbar" in curve_document(
        curve(parse_scenario({**scenario, "exercise": "goblet-squat", "loads": []})[0])
    )


def test_text_that_is_not_json_is_refused():
    for text in ("[1,2", "", "{'a': 1}", "[" * 5000, "[" * 5000 + "]" * 5000, "9" * 9000):
        with pytest.raises(InputError):
            check(load_json(text), "scenario")


def test_a_swap_answer_follows_its_schema_and_repeats_itself():
    request = schema("swap-request")["examples"][0]
    ticks = iter(range(100))
    first, second = (answer_request(request, clock=lambda: float(next(ticks))) for _ in range(2))
    assert first["elapsed_ms"] == 1000.0
    assert first == second
    numbers = [c["group"] for c in first["candidates"]]
    assert numbers[0] == 1 and numbers == sorted(numbers)
    best = first["candidates"][0]
    # the answer's own loads, asked as a scenario, give the curve it was ranked by
    scenario = {
        "format": "wide-arc/scenario",
        "version": 1,
        "body": request["body"],
        "exercise": best["exercise"],
    }
    setup, _ = parse_scenario({**scenario, "options": best["options"], "loads": best["loads"]})
    knee = curve_document(curve(setup))["demand_nm"]["knee_extension"]
    shown = next(j for j in best["joints"] if j["action"] == "knee_extension")
    assert max(knee) == pytest.approx(max(shown["candidate_nm"]), rel=0.02)


def test_swap_requests_are_refused_at_their_place():
    request = json.loads(json.dumps(schema("swap-request")["examples"][0]))
    request["kit"]["bands"][0]["law"]["force_n"] = [5, 4, 3]
    with pytest.raises(InputError) as refused:
        parse_swap_request(request)
    assert refused.value.where == "/kit/bands/0/law/force_n/1"
    request = json.loads(json.dumps(schema("swap-request")["examples"][0]))
    request["target"]["loads"][0]["port"] = "sled"
    with pytest.raises(InputError) as refused:
        parse_swap_request(request)
    assert refused.value.where == "/target/loads/0/port"


def test_no_two_items_share_an_id():
    request = json.loads(json.dumps(schema("swap-request")["examples"][0]))
    request["kit"]["kettlebells"][0]["id"] = "db16"
    with pytest.raises(WideArcError, match="db16"):
        parse_swap_request(request)


def test_readings_go_round_and_bad_rows_are_named():
    rows = (ReadingRow(length_m=1.0, force_n=0.0), ReadingRow(length_m=1.25, force_n=44.5))
    assert read_readings(write_readings(rows)) == rows
    for text, where in (
        ("", "header"),
        ("a,b\n1,2\n", "header"),
        ("length_m,force_n\n1,2,3\n", "row 1"),
        ("length_m,force_n\n1,0\n1.2,heavy\n", "row 2, force_n"),
        ("length_m,force_n\n1,0\ninf,3\n", "row 2, length_m"),
    ):
        with pytest.raises(InputError) as refused:
            read_readings(text)
        assert refused.value.where == where
    with pytest.raises(InputError) as refused:
        fit_document([*rows, ReadingRow(length_m=1.2, force_n=50)])
    assert refused.value.where == "row 3, length_m"


def test_the_catalogue_document_lists_every_option():
    entries = {e["id"]: e for e in exercises_document()["exercises"]}
    assert len(entries) >= 10
    for entry in entries.values():
        assert entry["cues"] and entry["checks"] and entry["breathing"], entry["id"]
        assert all("default" in option for option in entry["options"])
