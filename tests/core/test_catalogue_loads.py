"""Every exercise of the catalogue with every kind of load it takes: energy, both sides, and what
must not change.
"""

from __future__ import annotations

import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.loads import admissible
from tests.looked import looked
from widearc.core.body import Body, Limits
from widearc.core.equipment import Band, FreeMass, Sled, SpringLoad
from widearc.core.errors import PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import WORKING_JOINTS, Setup
from widearc.core.statics import audit, curve, demand_from_above_nm, frontal_nm, lumbar

CURVED = sorted(id_ for id_, entry in EXERCISES.items() if entry.has_curve)
FREE = Limits(hip_flexion_deg=155, dorsiflexion_deg=45)
CASES = [(id_, kind) for id_ in CURVED for kind, _ in admissible(EXERCISES[id_])]


def loads_of(id_, kind, scale=1.0):
    return dict(admissible(EXERCISES[id_], scale))[kind]


def curve_or_refusal(setup):
    try:
        return curve(setup)
    except PostureError as refusal:
        return refusal


def refusable(id_, kind):
    """Return whether a load may be refused: it can pull a body that only balances off its feet."""
    family = EXERCISES[id_].family
    return family in ("stance", "hinge", "split", "calf", "kneeling", "carriage") and kind != "mass"


@pytest.mark.parametrize(("id_", "kind"), CASES)
def test_energy_and_both_sides_with_every_kind_of_load(id_, kind):
    got = curve_or_refusal(Setup(exercise=EXERCISES[id_], limits=FREE, loads=loads_of(id_, kind)))
    if isinstance(got, PostureError):
        assert refusable(id_, kind), got
        return
    balance = audit(got)
    assert balance.relative_error.max() <= 0.005
    for array in (*got.demand_nm.values(), *got.motion.angles.values()):
        assert np.isfinite(array).all()
    if got.motion.complete and got.demand_nm:
        largest = max(1.0, *(np.abs(d).max() for d in got.demand_nm.values()))
        for joint, demand in got.demand_nm.items():
            assert (
                np.abs(demand - demand_from_above_nm(got.motion, joint)).max() <= 1e-9 * largest
            ), joint


def test_most_cases_are_not_refused():
    setups = [
        Setup(exercise=EXERCISES[i], limits=FREE, loads=loads_of(i, kind), samples=11)
        for i, kind in CASES
    ]
    refused = sum(isinstance(curve_or_refusal(setup), PostureError) for setup in setups)
    assert len(CASES) > 700 and refused < 0.06 * len(CASES)


@settings(max_examples=120, deadline=None)
@given(
    st.sampled_from(CASES),
    st.floats(50, 120),
    st.floats(1.55, 2.0),
    st.floats(0.2, 2.5),
    st.sampled_from([1, 2]),
    st.floats(0, 1),
)
def test_energy_for_any_body_load_legs_and_range(case, mass_kg, stature_m, scale, legs, share):
    id_, kind = case
    entry = EXERCISES[id_]
    options = {}
    if legs in entry.options["legs"].choices:
        options["legs"] = legs
    for name in (
        "knee_from_deg",
        "trunk_from_deg",
        "lean_from_deg",
        "hip_from_deg",
        "ankle_from_deg",
    ):
        if name in entry.options and entry.family != "knee rotation":
            default = float(entry.options[name].default)
            options[name] = default - share * 0.3 * abs(default)
    body = Body(mass_kg=mass_kg, stature_m=stature_m)
    loads = loads_of(id_, kind, scale)
    if kind == "lever" and entry.family in ("knee rotation", "hip rotation leg"):
        body = Body(mass_kg=mass_kg)  # a machine's pivot is set for one body
    got = curve_or_refusal(
        Setup(exercise=entry, body=body, limits=FREE, options=options, loads=loads)
    )
    if isinstance(got, PostureError):
        return
    assert audit(got).relative_error.max() <= 0.005


@pytest.mark.parametrize("id_", CURVED)
def test_defaults_are_reached_in_full_by_the_default_body(id_):
    entry = EXERCISES[id_]
    for legs in looked(entry.options["legs"].choices, 1):
        got = curve(Setup(exercise=entry, options={"legs": legs}))
        assert not got.motion.failed
        assert "range-cut" not in [n.code for n in got.motion.notices]
        assert got.motion.assumptions, "every family says what it assumes"


@pytest.mark.parametrize("id_", CURVED)
def test_curves_scale_with_the_body(id_):
    """Twice the mass doubles the demand; a fifth taller, at the same mass and angles, a fifth
    more.
    """
    entry = EXERCISES[id_]
    if entry.family == "plain path":
        return
    # furniture grows with the body, so that it is the same picture
    lengths = {
        n: 1.2 * float(s.default)
        for n, s in entry.options.items()
        if s.unit == "m" and _is_number(s.default)
    }
    lengths = {
        n: v
        for n, v in lengths.items()
        if v <= entry.options[n].high and n not in ("stance_m", "toe_out_deg")
    }
    small, heavy, tall = (
        curve(Setup(exercise=entry, body=body, limits=FREE, options=options))
        for body, options in (
            (Body(mass_kg=60, stature_m=1.8), {}),
            (Body(mass_kg=120, stature_m=1.8), {}),
            (Body(mass_kg=60, stature_m=2.16), lengths),
        )
    )
    for joint, demand in small.demand_nm.items():
        scale = max(1e-9, float(np.abs(demand).max()))
        np.testing.assert_allclose(heavy.demand_nm[joint], 2 * demand, atol=2e-6 * scale + 1e-9)
        if entry.family in (
            "stance",
            "hinge",
            "kneeling",
            "calf",
            "hip rotation leg",
            "knee rotation",
        ):
            if "stance_m" in entry.options or "bar_m" in entry.options:
                continue  # hip breadth and floor do not grow with these options
            np.testing.assert_allclose(tall.demand_nm[joint], 1.2 * demand, atol=2e-3 * scale)


def _is_number(value):
    return isinstance(value, int | float)


STILL_FAMILIES = (
    "knee rotation",
    "hip rotation leg",
    "hip rotation trunk",
    "sled squat",
    "arc squat",
    "bridge",
    "plank knee bend",
    "supported stance",
    "kneeling",
)
FIXED_POSTURE = [i for i in CURVED if EXERCISES[i].family in STILL_FAMILIES and i != "sissy-squat"]


@pytest.mark.parametrize("id_", FIXED_POSTURE)
def test_doubling_a_load_doubles_its_part_where_the_posture_stays(id_):
    entry = EXERCISES[id_]
    kind = "sled" if "sled" in entry.kinds else "mass"
    if kind == "mass" and not [p for p in entry.ports if p != "pad"]:
        kind = "lever"
    none, once, twice = (
        curve(Setup(exercise=entry, limits=FREE, loads=loads)).demand_nm
        for loads in ([], loads_of(id_, kind), loads_of(id_, kind) * 2)
    )
    for joint in none:
        scale = max(1.0, float(np.abs(twice[joint]).max()))
        np.testing.assert_allclose(
            twice[joint] - none[joint], 2 * (once[joint] - none[joint]), atol=1e-8 * scale
        )


@pytest.mark.parametrize("id_", [i for i in CURVED if EXERCISES[i].ports])
def test_a_load_of_nothing_is_body_weight(id_):
    entry = EXERCISES[id_]
    bare = curve(Setup(exercise=entry, limits=FREE))
    loads = (
        [Sled(kg=0, empty_kg=0)] if "sled" in entry.kinds else [FreeMass(kg=0, port=entry.ports[0])]
    )
    if entry.family == "thigh spread":
        loads = []
    if entry.family == "carriage":
        loads = [SpringLoad(spring=loads_of(id_, "spring")[0].spring, count=0)]
    zero = curve(Setup(exercise=entry, limits=FREE, loads=loads))
    for joint, demand in bare.demand_nm.items():
        np.testing.assert_allclose(
            zero.demand_nm[joint], demand, atol=1e-7 * max(1.0, np.abs(demand).max())
        )


def test_a_load_mirrored_to_the_other_hand_and_side_asks_the_same():
    for id_ in ("offset-lunge", "split-squat", "b-stance-squat", "walking-lunge"):
        right, left = (
            curve(
                Setup(
                    exercise=EXERCISES[id_],
                    options={"side": side},
                    loads=[FreeMass(kg=20, port=port)],
                )
            )
            for side, port in (("right", "hand-left"), ("left", "hand-right"))
        )
        for joint, demand in right.demand_nm.items():
            np.testing.assert_array_equal(left.demand_nm[joint], demand)
        one, other = (frontal_nm(got.setup, got.motion) for got in (right, left))
        np.testing.assert_allclose(one, other)
        same_side = curve(
            Setup(exercise=EXERCISES[id_], loads=[FreeMass(kg=20, port="hand-right")])
        )
        assert np.all(one[:, -1] > frontal_nm(same_side.setup, same_side.motion)[:, -1])


def test_higher_boxes_ask_more_where_a_band_hangs_from_the_floor():
    entry = EXERCISES["belt-squat-home"]
    band = loads_of("band-squat", "band")[0]
    pulls = []
    for box in (0.0, 0.1, 0.2, 0.3):
        hung = Band(law=band.law, port="hip-belt", anchor=(0.06, 0.0, 0.0))
        got = curve(
            Setup(
                exercise=entry,
                options={"box_m": box, "knee_from_deg": 80},
                limits=FREE,
                loads=[hung],
            )
        )
        pulls.append(got.demand_nm["knee"][0])
    asked = (
        pulls[0] > 0.2 * pulls[0].max()
    )  # near the straight end a vertical pull asks the other way
    for lower, higher in itertools.pairwise(pulls):
        assert np.all(higher[asked] > lower[asked])


def test_mobility_work_has_no_curve_and_says_so():
    mobility = [entry for entry in EXERCISES.values() if not entry.has_curve]
    assert len(mobility) == 5
    for entry in mobility:
        with pytest.raises(ValueError, match="mobility work has none"):
            Setup(exercise=entry)


def test_a_belt_load_spares_the_lumbar_joint_and_a_bar_does_not():
    def most(port, kg):
        # a held handle keeps the trunk's lean, so that only the load differs
        got = curve(
            Setup(
                exercise=EXERCISES["belt-squat-pin"],
                limits=FREE,
                loads=[FreeMass(kg=kg, port=port)],
            )
        )
        spine = lumbar(got.setup, got.motion)
        # the handle's own pull at the shoulder changes with the load: the vertical part alone is
        # compared
        return spine.compression_n[0, -1] - abs(spine.moment_nm[0, -1]) / 0.06

    assert most("hip-belt", 40) == pytest.approx(most("hip-belt", 0), abs=25)
    assert most("shoulders", 40) > most("shoulders", 0) + 300
    press = curve(Setup(exercise=EXERCISES["leg-press-45"]))
    assert lumbar(press.setup, press.motion) is None, "the pad carries the trunk"


def test_every_entry_holds_what_a_trainer_must_know():
    for id_, entry in EXERCISES.items():
        assert (
            entry.id == id_
            and entry.name
            and entry.checks
            and entry.cues
            and entry.mistakes
            and entry.breathing
        ), id_
        assert 1 <= entry.steadiness <= 5 and entry.fails_alone in ("yes", "with stops", "no"), id_
        assert (
            entry.reps[0] <= entry.reps[1]
            and entry.rest_s[0] <= entry.rest_s[1]
            and entry.minutes >= 0
        ), id_
        if entry.has_curve and entry.family != "plain path":
            assert entry.prime and {
                "legs",
                "side",
                "free_leg_deg",
                "belt_offset_m",
                "seat_m",
            } <= set(entry.options), id_
    assert len(CURVED) >= 85


def test_free_legs_and_held_joints_are_named():
    one = curve(Setup(exercise=EXERCISES["one-leg-squat"]))
    assert "free_hip" in one.other_nm and set(one.demand_nm) <= set(WORKING_JOINTS)
    assert frontal_nm(one.setup, one.motion).min() > 30, "one leg holds the pelvis up"
    two = curve(Setup(exercise=EXERCISES["back-squat-high"]))
    assert frontal_nm(two.setup, two.motion) is None
