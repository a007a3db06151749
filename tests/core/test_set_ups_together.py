"""Set-ups computed together are what each is by itself: whatever may differ between them."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from tests.looked import looked
from widearc.core.body import Body, Limits
from widearc.core.equipment import FreeMass, LinearLaw, Sled
from widearc.core.errors import InputError, WideArcError
from widearc.core.exercises import EXERCISES, Exercise
from widearc.core.kit import (
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    Rules,
    SledPress,
    Weight,
)
from widearc.core.matching import compare, target_of
from widearc.core.movement import Setup
from widearc.core.search import make_sure, search
from widearc.core.search.uncertainty import Unsure, WantedUncertainty, uncertainties_of
from widearc.core.statics import (
    BodyUncertainty,
    Curve,
    Doubt,
    computed,
    computed_across,
    curve,
    moved,
    sources_of,
)

MOVED = 0.03  # of an option's range: so far a second set-up differs from the usual one
CURVED = [e for e in EXERCISES.values() if e.has_curve]


def two_values(exercise: Exercise, name: str) -> np.ndarray | None:
    """Return an option's default and a value beside it; None for a choice of words or counts."""
    spec = exercise.options[name]
    if isinstance(spec.default, str) or spec.choices:
        return None
    step = MOVED * (spec.high - spec.low)
    other = spec.default + step if spec.default + step <= spec.high else spec.default - step
    return np.array([float(spec.default), other])


@pytest.mark.parametrize("exercise", CURVED, ids=lambda e: e.id)
def test_any_option_may_differ_between_set_ups_that_are_computed_together(
    exercise: Exercise,
) -> None:
    for name in looked(exercise.options, 8):
        values = two_values(exercise, name)
        if values is None:
            continue
        together = curve(
            Setup(exercise=exercise, options={name: values}, samples=21),
            strict=False,
            lowering=False,
        )
        assert together.motion.shape == (2, 21), name
        for index, value in looked(enumerate(values), 2):
            alone = curve(
                Setup(exercise=exercise, options={name: float(value)}, samples=21), strict=False
            )
            assert (index in together.motion.failed) == bool(alone.motion.failed), name
            for joint, demand in alone.demand_nm.items():
                np.testing.assert_allclose(
                    np.broadcast_to(together.demand_nm[joint], (2, 21))[index],
                    np.broadcast_to(demand, (1, 21))[0],
                    rtol=1e-7,
                    atol=1e-6,
                    err_msg=f"{name} {joint}",
                )


def room() -> Kit:
    """Return a kit in which the same movement is loaded in many ways."""
    return Kit(
        weights=(
            Weight(id="bar", kind="bar", kg=20),
            Weight(id="p10", kind="plate", kg=10, count=4),
            Weight(id="p2", kind="plate", kg=2.5, count=4),
            Weight(id="d8", kind="dumbbell", kg=8, count=2),
            Weight(id="d16", kind="dumbbell", kg=16, count=2),
            Weight(id="k24", kind="kettlebell", kg=24),
        ),
        bands=(
            BandStock(
                id="loop",
                name="loop",
                shape=BandShape.LOOP,
                law=LinearLaw(rest_m=1.0, rate_n_per_m=120),
            ),
            BandStock(
                id="long",
                name="long",
                shape=BandShape.LONG,
                law=LinearLaw(rest_m=1.9, rate_n_per_m=60),
            ),
        ),
        furniture=(
            Furniture(id="bench", name="Bench", kind="bench", height_m=0.43),
            Furniture(id="box", name="Box", kind="box", height_m=0.30),
            Furniture(id="rack", name="Rack", kind="rack", height_m=1.4),
        ),
        anchors=(
            Anchor(id="eye", name="eye", height_m=0.1, holds_n=900.0),
            Anchor(id="beam", name="beam", height_m=2.0),
        ),
        presses=(SledPress(id="press", name="Press", rail_deg=8, empty_kg=30),),
        machines=(
            Machine(
                id="belt",
                name="Belt lever",
                kind="belt squat lever",
                quantities={"arm_m": 1.2, "arm_kg": 12.0, "user_arm_m": 0.7, "angle_deg": -5.0},
            ),
            Machine(
                id="thrust",
                name="Thrust",
                kind="hip thrust machine",
                quantities={"arm_m": 0.9, "arm_kg": 10.0, "user_arm_m": 0.6, "angle_deg": 0.0},
            ),
        ),
    )


PRESS = curve(
    Setup(exercise=EXERCISES["leg-press-45"], loads=(Sled(kg=100, empty_kg=38),)), lowering=False
)


def test_what_a_search_offers_is_the_curve_of_its_own_set_up_and_of_nothing_else() -> None:
    answer = search(
        PRESS, room(), body=Body(), limits=Limits(), rules=Rules(to_shoulders_kg=60.0, partner=True)
    )
    assert len(answer.candidates) > 25
    families = {c.exercise.family for c in answer.candidates}
    assert {"stance", "split", "hinge", "sled press", "supported stance", "kneeling"} <= families
    for candidate in answer.candidates:
        there, setup = candidate.curve, candidate.curve.setup
        alone = curve(setup, lowering=False)
        assert (
            setup.exercise is candidate.exercise
            and there.motion.shape == alone.motion.shape == (1, 101)
        )
        for ours, own in (
            (there.demand_nm, alone.demand_nm),
            (there.other_nm, alone.other_nm),
            (there.motion.angles, alone.motion.angles),
            (there.motion.points, alone.motion.points),
            (there.motion.load_lengths, alone.motion.load_lengths),
        ):
            assert ours.keys() == own.keys(), candidate.exercise.id
            for name, values in own.items():
                np.testing.assert_allclose(
                    *np.broadcast_arrays(ours[name], values), rtol=1e-7, atol=1e-7
                )
        assert forces(there) == forces(alone), candidate.exercise.id
        assert [n.text for n in there.motion.notices] == [n.text for n in alone.motion.notices]
        assert there.motion.assumptions == alone.motion.assumptions
        assert there.motion.elastic_j() == pytest.approx(alone.motion.elastic_j(), abs=1e-6)
        rise = [np.ptp(c.motion.gravity_j()) for c in (there, alone)]
        assert rise[0] == pytest.approx(rise[1], abs=1e-6)


def forces(found: Curve) -> list[tuple[str, str, float]]:
    """Return every force's source, segment and mean size over the lift, N."""
    motion = found.motion
    size = [np.hypot(*np.broadcast_arrays(*motion.full(f.force))).mean() for f in motion.forces]
    return sorted(
        (f.source, f.segment, round(float(s), 4)) for f, s in zip(motion.forces, size, strict=True)
    )


def test_a_load_that_others_lack_and_rows_alike_are_computed_once_and_given_back() -> None:
    bar = [
        Setup(
            exercise=EXERCISES["back-squat-high"],
            loads=[FreeMass(kg=np.array([[kg], [0.0]]), port="back-high")],
            samples=21,
        )
        for kg in (40.0, 60.0)
    ]
    bare = Setup(exercise=EXERCISES["bodyweight-squat"], samples=21)
    held = Setup(
        exercise=EXERCISES["goblet-squat"], loads=[FreeMass(kg=16.0, port="goblet")], samples=21
    )
    seated = Setup(
        exercise=EXERCISES["leg-extension-dumbbell"],
        loads=[FreeMass(kg=5.0, port="ankle")],
        samples=21,
    )
    shares = computed([*bar, bare, held, seated, bare])
    assert len({id(share.whole) for share in shares}) == 2
    assert shares[0].whole.motion.shape == (4, 21)  # 40 kg, nothing, 60 kg, 16 kg in front
    assert [share.rows.tolist() for share in shares] == [[0, 1], [2, 1], [1], [3], [0], [1]]
    for share in shares:
        for index in range(len(share.rows)):
            row = share.row(index)
            alone = curve(row.setup)
            assert row.setup.exercise is share.setup.exercise
            assert len(row.setup.loads) == len(share.setup.loads)
            for joint, demand in alone.demand_nm.items():
                np.testing.assert_allclose(
                    *np.broadcast_arrays(row.demand_nm[joint], demand), rtol=1e-9, atol=1e-9
                )


def test_one_that_cannot_be_computed_with_the_others_leaves_them_be() -> None:
    wide = Setup(
        exercise=EXERCISES["back-squat-high"],
        options={"stance_m": 1.19},
        body=Body(stature_m=1.4),
        samples=21,
    )
    usual = replace(wide, options={})
    with pytest.raises(InputError, match="stance_m"):
        computed([usual, wide])
    (share,) = computed([usual])
    assert share.row(0).demand_nm["knee"].shape == (1, 21)


def test_two_benches_of_one_height_are_two_set_ups_though_no_number_of_them_differs() -> None:
    benches = [
        Furniture(id=name, name=name, kind="bench", height_m=0.43) for name in ("one", "two")
    ]
    kit = Kit(furniture=tuple(benches))
    asked = curve(
        Setup(exercise=EXERCISES["hip-thrust"], loads=(FreeMass(kg=40.0, port="hip-crease"),))
    )
    found = {}
    for taken in (frozenset[str](), frozenset({"one"}), frozenset({"one", "two"})):
        answer = search(asked, kit, body=Body(), limits=Limits(), taken=taken)
        found[taken] = {c.exercise.id: [f.id for f in c.row.furniture] for c in answer.candidates}
    assert found[frozenset()]["hip-thrust-one-leg"] == ["one"]
    assert found[frozenset({"one"})]["hip-thrust-one-leg"] == ["two"]
    assert "hip-thrust-one-leg" not in found[frozenset({"one", "two"})]


def test_how_sure_many_stand_ins_are_is_how_sure_each_is_by_itself() -> None:
    together, alone = (
        search(PRESS, room(), body=Body(), limits=Limits(hip_flexion_deg=115.0)).candidates
        for _ in range(2)
    )
    make_sure(together)
    assert len(together) > 15
    for one, other in zip(together, alone, strict=True):
        assert one.exercise is other.exercise and one.uncertainty.sd > 0
        assert one.uncertainty.effects.keys() == other.uncertainty.effects.keys()
        for source, effect in other.uncertainty.effects.items():
            assert one.uncertainty.effects[source] == pytest.approx(effect, abs=1e-9), (
                one.exercise.id,
                source,
            )
        for joint, error in other.uncertainty.demand_nm.items():
            np.testing.assert_allclose(one.uncertainty.demand_nm[joint], error, atol=1e-6)


def test_a_doubt_that_would_break_off_the_set_up_says_nothing_and_the_others_still_count() -> None:
    """At nearly the widest stance this body has, a shorter thigh is refused."""
    body = Body(stature_m=1.4)
    stance = 0.99 * (body.outer_hip_breadth_m + 2 * 0.98 * body.thigh_m)
    setup = Setup(
        exercise=EXERCISES["wide-squat"],
        body=body,
        options={"stance_m": stance, "knee_from_deg": 60},
        loads=(FreeMass(kg=40.0, port="hands"),),
    )
    own = curve(setup, strict=False, lowering=False)
    target = target_of(PRESS)
    compared = compare(target, own.motion.angles, own.demand_nm, 1)
    wanted = WantedUncertainty(body=BodyUncertainty(mass=0.01, thigh=-0.05, shank=0.0))
    unsure = Unsure(own=own, compared=compared, target=target, wanted=wanted, errors=(0.02,))
    (doubt,) = uncertainties_of([unsure])
    (only_load,) = uncertainties_of(
        [
            replace(
                unsure,
                wanted=WantedUncertainty(body=BodyUncertainty(mass=0.0, thigh=0.0, shank=0.0)),
            )
        ]
    )
    heavier = replace(wanted, body=BodyUncertainty(mass=0.01, thigh=0.0, shank=0.0))
    (no_thigh,) = uncertainties_of([replace(unsure, wanted=heavier)])
    assert doubt.sd == pytest.approx(no_thigh.sd) and doubt.sd > only_load.sd > 0
    assert "thigh" not in doubt.effects


@pytest.mark.parametrize("exercise", [e.id for e in EXERCISES.values() if e.has_curve])
def test_bodies_and_ankles_that_differ_a_little_are_computed_in_one_call(exercise):
    """Each as by itself: demands and angles, and what cannot be done; with its range cut too."""
    doubt = Doubt(body=BodyUncertainty(mass=0.02, thigh=0.04, shank=0.05))
    entry = EXERCISES[exercise]
    for limits in (Limits(), Limits(hip_flexion_deg=95.0, knee_deg=100.0, dorsiflexion_deg=25.0)):
        setup = Setup(exercise=entry, limits=limits)
        errors = [{}, *({s: w} for s in sources_of(setup, doubt) for w in (1.0, -1.0))]
        setups = [moved(setup, e, doubt) for e in errors]
        compared = 0
        for share, own in zip(computed_across(setups), setups, strict=True):
            try:
                alone = curve(own, strict=False, lowering=False, others=False)
            except WideArcError:
                continue
            row, motion = int(share.rows[0]), share.whole.motion
            assert (row in motion.failed) == (0 in alone.motion.failed), (exercise, own.options)
            if row in motion.failed:
                continue
            compared += 1
            for joint, values in alone.demand_nm.items():
                there = motion.full(share.whole.demand_nm[joint])[row]
                np.testing.assert_allclose(there, alone.motion.full(values)[0], atol=1e-6)
                np.testing.assert_allclose(
                    motion.full(motion.angles[joint])[row],
                    alone.motion.full(alone.motion.angles[joint])[0],
                    atol=1e-9,
                )
        assert compared > 3 or limits != Limits(), exercise
