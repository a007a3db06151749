"""Ways of loading a stand-in: levers, pendulums, pegs, loops, bases, chains, unequal pairs; kinder
set-ups.
"""

from __future__ import annotations

from dataclasses import replace
from types import MappingProxyType

import numpy as np
import pytest

from tests.core.test_brute import BODY, HINGE, KIT, KNEE, LIMITS, MEMO, PRESS, RULES
from widearc.core.answers import applied, kinder_setups, tweaks_for
from widearc.core.body import Limits
from widearc.core.curve import CENTRES_DEG
from widearc.core.equipment import Band, FreeMass, LinearLaw
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.kit import (
    Anchor,
    BandShape,
    BandStock,
    Kit,
    Machine,
    Weight,
    hold_of,
    meeting,
    near,
)
from widearc.core.kit.totals import unequal_totals
from widearc.core.movement import Setup
from widearc.core.search import Memo, Question, ranked
from widearc.core.setups.batches import batches_of, extras_here
from widearc.core.setups.pulls import FOLDED, band_sets
from widearc.core.statics import audit, curve, frontal_nm, joint_peak_nm, row_of
from widearc.core.units import DEG, G
from widearc.core.words import Length, Said
from widearc.words import plain

LINE = LinearLaw(rest_m=0.5, rate_n_per_m=200.0)


def first(exercise, kit=KIT, wanted=KNEE, **found):
    """Return the first batch of an exercise whose attributes are as given."""
    every = batches_of(EXERCISES[exercise], kit, BODY, LIMITS, wanted)
    return next(b for b in every if all(getattr(b, name) == value for name, value in found.items()))


@pytest.mark.parametrize(
    ("exercise", "kind", "behind"),
    [
        ("hip-thrust-machine", "hip thrust machine", True),
        ("calf-raise-standing", "standing calf", True),
        ("calf-raise-seated", "seated calf", False),
        ("belt-squat-lever", "belt squat lever", False),
    ],
)
def test_a_lever_meets_the_body_as_far_from_its_pivot_as_it_was_measured(exercise, kind, behind):
    q = {"arm_kg": 12.0, "arm_m": 1.1, "user_arm_m": 0.8, "angle_deg": -10.0}
    machine = Machine(id="m", name="Arm", kind=kind, quantities=MappingProxyType(q))
    batch = first(exercise, replace(KIT, machines=(machine,)))
    made = curve(batch.setup(BODY, LIMITS, (batch.row(0, 3),)), lowering=False)
    point = next(f for f in made.motion.forces if f.source == "load 0")
    pad, pull = made.motion.full(point.point)[:, 0, 0], made.motion.full(point.force)[:, 0, 0]
    pivot = np.array([batch.machine.quantities["pivot_x_m"], batch.machine.quantities["pivot_y_m"]])
    # a standing body leans with its load: there the pivot is placed for a middle one
    loose = 0.03 if exercise == "calf-raise-standing" else 1e-6
    assert (
        np.hypot(*(pad - pivot)) == pytest.approx(0.8, abs=loose)
        and bool(pivot[0] < pad[0]) is behind
    )
    assert pad[1] - pivot[1] == pytest.approx(0.8 * np.sin(-10 * DEG), abs=loose)
    # square to the arm: the plates' moment over the pad's distance, and the bare arm as weighed at
    # the pad
    kg = batch.totals[3].kg
    far = np.hypot(*(pad - pivot))
    assert np.hypot(*pull) == pytest.approx(
        (kg * 1.1 + 12.0 * 0.8) / far * np.cos(-10 * DEG) * G, rel=2 * loose + 1e-6
    )
    assert float(np.max(audit(made).relative_error)) < 0.005


def test_a_pendulum_s_own_arm_counts_with_its_plates():
    machine = Machine(
        id="m",
        name="Pendulum",
        kind="pendulum",
        quantities=MappingProxyType({"arm_m": 0.9, "arm_kg": 4}),
    )
    batch = first("pendulum-hip-extension", replace(KIT, machines=(machine,)))
    assert batch.totals[0].kg == 0
    heavy = batch.setup(BODY, LIMITS, (batch.row(0, 5),)).loads[0]
    assert float(np.ravel(heavy.kg)[0]) == batch.totals[5].kg + 4


def test_a_band_on_a_sled_is_as_long_at_the_start_as_the_pegs_are_apart_and_grows_with_the_sled():
    batch = first("leg-press-banded")
    made = curve(batch.setup(BODY, LIMITS, batch.unloaded), strict=False, lowering=False)
    length, travel = made.motion.load_lengths[1], made.motion.path_travel
    fine = [i for i in range(len(batch.unloaded)) if i not in made.motion.failed]
    np.testing.assert_allclose(length[fine][:, 0], 0.6, atol=1e-3)
    np.testing.assert_allclose((length - travel)[fine], 0.6, atol=1e-3)
    assert {row.anchor[0].id for row in batch.unloaded} == {"press"}, (
        "with the press taken the pegs are gone too"
    )


def test_only_a_short_loop_goes_round_the_thighs_and_nowhere_else():
    batch = first("abduction-loop")
    assert {b.id for row in batch.unloaded for b, _ in row.bands} == {"short"}
    assert "short" not in {b.id for chosen in band_sets(KIT) for b in chosen}
    unweighed = replace(KIT, bands=tuple(b for b in KIT.bands if b.id != "short"))
    assert not list(batches_of(EXERCISES["loop-squat"], unweighed, BODY, LIMITS, KNEE))


def test_what_a_band_is_tied_to_holds_or_the_set_up_is_not_offered():
    strong = BandStock(
        id="s", name="strong", shape=BandShape.LOOP, law=LinearLaw(rest_m=0.9, rate_n_per_m=900)
    )
    kit = Kit(
        weights=(Weight(id="k16", kind="kettlebell", kg=16),), bands=(strong,), things=KIT.things
    )
    question = Question(asked=PRESS, kit=kit, body=BODY, limits=LIMITS, rules=RULES, memo=Memo())
    light = [
        p
        for p in question.prepared(EXERCISES["belt-squat-home"]).parts
        if p.batch.unloaded[0].bands
    ]
    assert not any(p.usable.any() for p in light), "16 kg on the floor lift off"
    eye = replace(kit, anchors=(Anchor(id="eye", name="Eye", height_m=0.05, holds_n=9000),))
    held = replace(question, kit=eye, memo=Memo()).prepared(EXERCISES["belt-squat-home"]).parts
    used = {
        p.batch.unloaded[g].anchor[0].id
        for p in held
        if p.batch.unloaded[0].bands
        for g, _ in np.argwhere(p.usable)
    }
    assert used == {"eye"}
    assert hold_of(eye.anchors[0]).kind == "eye"
    assert (
        hold_of(Anchor(id="a", name="a", height_m=0.4, own_kg=40, depth_m=0.9)).kind == "furniture"
    )


def test_a_chain_before_a_band_does_not_stretch():
    plain, chained = (
        Band(law=LINE, port="hip-belt", anchor=(0, 0, 0)),
        Band(law=LINE, port="hip-belt", anchor=(0, 0, 0), lead_m=0.2),
    )
    far = np.linspace(0.1, 1.3, 25)
    np.testing.assert_allclose(chained.tension_n(far + 0.2), plain.tension_n(far))
    np.testing.assert_allclose(chained.energy_j(far + 0.2), plain.energy_j(far))
    made = curve(
        Setup(
            exercise=EXERCISES["belt-squat-home"],
            loads=(replace(chained, anchor=(0.06, 0.0, 0.0)),),
        )
    )
    assert float(np.max(audit(made).relative_error)) < 0.005
    with pytest.raises(InputError, match="lead_m"):
        replace(plain, lead_m=-0.1)


def test_an_unequal_pair_lies_near_seventy_to_thirty_and_asks_more_of_the_pelvis():
    sizes = (6, 10, 14, 18, 24)
    kit = Kit(weights=tuple(Weight(id=f"d{k}", kind="dumbbell", kg=k, count=2) for k in sizes))
    totals = unequal_totals(kit)
    assert len({p.kg for p in totals}) == len(totals)
    for pick in totals:
        heavy, light = (piece.kg for piece in pick.pieces)
        assert heavy > light and pick.left_share == pytest.approx(heavy / pick.kg, abs=1e-3)
        others = [a / pick.kg for a in sizes for b in sizes if a > b and a + b == pick.kg]
        assert abs(pick.left_share - 0.7) <= min(abs(o - 0.7) for o in others) + 1e-3
    batch = next(
        b
        for b in batches_of(EXERCISES["offset-lunge"], kit, BODY, LIMITS, KNEE)
        if b.stock == "unequal pair"
    )
    row = batch.row(0, 2)
    assert "opposite the working leg" in plain(row.words)
    uneven = curve(batch.setup(BODY, LIMITS, (row,)), strict=False)
    even = curve(
        replace(uneven.setup, options={**uneven.setup.options, "load_left_share": 0.5}),
        strict=False,
    )
    assert np.all(frontal_nm(uneven.setup, uneven.motion) > frontal_nm(even.setup, even.motion))
    np.testing.assert_allclose(uneven.demand_nm["knee"], even.demand_nm["knee"])


def test_one_leg_wider_feet_and_a_folded_band_are_extras_where_they_can_be_had():
    squat = extras_here(EXERCISES["goblet-squat"], KIT, BODY, KNEE)
    assert Said("feet {length} apart", length=Length(0.55)) in squat
    assert Said("one leg") in extras_here(EXERCISES["leg-press-flat"], KIT, BODY, KNEE)
    assert FOLDED in extras_here(EXERCISES["kickback"], KIT, BODY, KNEE)
    assert FOLDED not in extras_here(EXERCISES["kickback"], replace(KIT, bands=()), BODY, KNEE)
    assert any(
        "chain" in plain(extra)
        for extra in extras_here(EXERCISES["belt-squat-home"], KIT, BODY, KNEE)
    )
    question = Question(asked=PRESS, kit=KIT, body=BODY, limits=LIMITS, rules=RULES, memo=MEMO)
    part = question.prepared(EXERCISES["leg-press-flat"], Said("one leg")).parts[0]
    assert part.exact((0, 0), BODY, LIMITS).motion.legs == 1


def test_a_row_cut_out_of_many_is_the_row_by_itself():
    """Loads that only others have are gone, notices and the depth they name are its own."""
    bars = [
        FreeMass(kg=np.array([[10.0], [60.0], [30.0]]), port="back-high"),
        Band(law=LINE, port="shoulders", anchor_port="sole", count=np.array([[0.0], [0.0], [1.0]])),
    ]
    many = Setup(
        exercise=EXERCISES["back-squat-high"],
        limits=Limits(hip_flexion_deg=95, dorsiflexion_deg=30),
        loads=bars,
        options={"knee_from_deg": np.array([100.0, 110.0, 80.0])},
    )
    together = curve(many, strict=False)
    for i in range(3):
        alone = curve(many.part(i, i + 1), strict=False)
        cut = row_of(together, i)
        assert len(cut.setup.loads) == (1 if i < 2 else 2)
        for joint, demand in alone.demand_nm.items():
            np.testing.assert_allclose(cut.demand_nm[joint], demand, atol=1e-6)
        assert {n.text for n in cut.motion.notices} == {
            n.text for n in alone.motion.notices if n.where[0]
        }
        np.testing.assert_allclose(
            audit(cut).relative_error, audit(alone).relative_error, atol=1e-9
        )
    far = Setup(exercise=EXERCISES["split-squat"], options={"step_m": np.array([0.75, 1.29])})
    with pytest.raises(PostureError):
        row_of(curve(far, strict=False), 1)


@pytest.mark.parametrize(
    ("exercise", "joint"),
    [("split-squat", "knee"), ("leg-press-flat", "knee"), ("hip-thrust", "hip")],
)
def test_what_is_kinder_to_a_joint_asks_less_of_it_at_the_same_work(exercise, joint):
    asked = HINGE if exercise == "hip-thrust" else PRESS
    question = Question(asked=asked, kit=KIT, body=BODY, limits=LIMITS, rules=RULES, memo=MEMO)
    chosen = next(c for c in ranked(question).candidates if c.exercise.id == exercise)
    here = joint_peak_nm(chosen.curve, joint)
    found = kinder_setups(chosen, question, joint)
    assert found or exercise != "split-squat"
    for way in found:
        there = joint_peak_nm(way.candidate.curve, joint)
        assert way.change == pytest.approx(there / here - 1.0) and way.change <= -0.05
        assert 0.9 <= way.work <= 1.1 and way.candidate.exercise is chosen.exercise
        work = sum(float(b.sum()) for b in way.candidate.comparison.bins)
        assert work / sum(float(b.sum()) for b in chosen.comparison.bins) == pytest.approx(way.work)
    assert [w.change for w in found] == sorted(w.change for w in found)
    assert kinder_setups(chosen, question, "shoulder") == ()


def test_straps_free_the_load_that_a_weak_grip_bounds():
    weak = replace(RULES, grip_kg=9.0)
    question = Question(asked=HINGE, kit=KIT, body=BODY, limits=LIMITS, rules=weak, memo=MEMO)
    chosen = next(c for c in ranked(question).candidates if c.exercise.id == "romanian-deadlift")
    offered = {t.key: t for t in tweaks_for(chosen, question)}
    strapped = applied(chosen, question, "relief:straps")
    assert offered["relief:straps"].gain == pytest.approx(strapped.match - chosen.match)
    assert "lifting straps" in plain(strapped.row.words) and strapped.row.kg > chosen.row.kg
    strong = replace(question, rules=RULES)
    assert applied(chosen, strong, "relief:straps") is None


def test_what_meets_a_need_and_what_comes_near():
    low, high = (
        Anchor(id="down", name="down", height_m=0.1),
        Anchor(id="up", name="up", height_m=1.2),
    )
    kit = Kit(anchors=(low, high), furniture=KIT.furniture, bands=KIT.bands)
    assert [a.id for a in meeting("anchor under the feet", kit)] == ["down"]
    assert [a.id for a in near("anchor under the feet", kit)] == ["up"]
    assert {f.id for f in meeting("boxes", kit)} == {"box", "pair"}, "two of one height"
    assert {f.id for f in near("boxes", kit)} == {"low"}
    assert {b.id for b in near("short loop", kit)} == {"loop"}
    assert near("partner", kit) == []


def test_every_exercise_with_a_joint_to_compare_has_a_way_of_loading():
    missing = [
        e.id for e in EXERCISES.values() if e.has_curve and e.family != "plain path" and not e.ways
    ]
    assert missing == []
    assert len(CENTRES_DEG) == 220
