"""What a search is made of: each shortcut gives what the long way gives."""

from __future__ import annotations

import itertools
from types import MappingProxyType

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.test_brute import HINGE, KIT, LOOSE, PRESS, RULES
from tests.looked import looked
from widearc.core.arrays import changed
from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG, ROWS_AT_ONCE, Action, on_grid
from widearc.core.equipment import (
    Band,
    FreeMass,
    Hold,
    LinearLaw,
    Spring,
    SpringLoad,
    gives_way,
    margin,
)
from widearc.core.exercises import EXERCISES
from widearc.core.geometry import bracketed_root
from widearc.core.kit import (
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    Rules,
    SpringStock,
    Thing,
    Weight,
)
from widearc.core.matching import Target, compare, covered, target_of_intent
from widearc.core.movement import Motion, Setup, move
from widearc.core.movement.families import carriage
from widearc.core.movement.families.carriage_ride import ride_of
from widearc.core.movement.lift import Lift
from widearc.core.search import Memo, Question, ranked
from widearc.core.search.memo import _prepare
from widearc.core.search.plans import KNOTS
from widearc.core.search.prepared import score_together
from widearc.core.search.solved import SEARCH_SAMPLES, _on_grid, finer
from widearc.core.setups.batches import OnceCache, batches_of, totals_of
from widearc.core.setups.geometry import Range
from widearc.core.setups.unloaded import (
    LoadedSetup,
    UnloadedSetups,
    pieces_to_carry,
    table_of,
    users_of,
)
from widearc.core.statics import curve
from widearc.core.units import G
from widearc.core.words import UNSAID, Said

BODY, LIMITS = Body(), Limits()
KNEE = Range(from_deg=95.0, to_deg=10.0)
FRAMED = (
    "split-squat",
    "belt-squat-home",
    "back-squat-high",
    "leg-extension",
    "carriage-push",
    "hip-thrust-band",
)


def every_batch(exercise: str, extra: Said = UNSAID):
    """Return an exercise's batches on the kit of the brute-force tests."""
    return list(batches_of(EXERCISES[exercise], KIT, BODY, LIMITS, KNEE, extra))


# unloaded: places with what pulls


@pytest.mark.parametrize("exercise", FRAMED)
def test_frames_are_every_place_with_every_pull_place_after_place(exercise):
    for batch in looked(every_batch(exercise), 1):
        unloaded = batch.unloaded
        assert isinstance(unloaded, UnloadedSetups) and len(unloaded) == len(
            unloaded.geometries
        ) * len(unloaded.pulls)
        rows = list(unloaded)
        assert len(rows) == len(unloaded)
        wanted = itertools.product(unloaded.geometries, unloaded.pulls)
        for row, (place, pull) in looked(zip(rows, wanted, strict=True), 1):
            assert row.options is place.options and row.words == place.words
            assert (row.bands, row.springs, row.anchor, row.pieces) == (
                pull.bands,
                pull.springs,
                pull.anchor,
                pull.pieces,
            )
        assert unloaded[-1].options == rows[-1].options and [r.words for r in unloaded[::2]] == [
            r.words for r in rows[::2]
        ]
        with pytest.raises(IndexError):
            unloaded[len(unloaded)]


@pytest.mark.parametrize("exercise", FRAMED)
def test_rows_made_of_frames_say_the_same_of_themselves_as_the_frames(exercise):
    for batch in looked(every_batch(exercise), 1):
        unloaded, rows = batch.unloaded, tuple(batch.unloaded)
        np.testing.assert_array_equal(pieces_to_carry(unloaded), pieces_to_carry(rows))
        assert (
            set(users_of(unloaded))
            == set(users_of(rows))
            == {item for row in rows for item in row.items()}
        )
        for item, there in users_of(rows).items():
            np.testing.assert_array_equal(users_of(unloaded)[item], there, err_msg=item)
        for table in (table_of(unloaded), table_of(rows)):
            for index, row in looked(enumerate(rows), 1):
                assert table.geometries[table.at_geometry[index]].options == row.options
                assert table.pulls[table.at_pull[index]].bands == row.bands
            for (band, strands), (_, number) in table.counts.items():
                wanted = [sum(b.id == band and n == strands for b, n in row.bands) for row in rows]
                np.testing.assert_array_equal(number, wanted)


@pytest.mark.parametrize("exercise", FRAMED)
def test_frames_and_their_rows_make_the_same_set_up(exercise):
    for batch in looked(every_batch(exercise), 1):
        kg = np.array([10.0, 35.0])
        whole = batch.setup(BODY, LIMITS, batch.unloaded, samples=11, kg=kg)
        rows = batch.setup(BODY, LIMITS, tuple(batch.unloaded), samples=11, kg=kg)
        assert whole.rows == rows.rows == 2 * len(batch.unloaded) and len(whole.loads) == len(
            rows.loads
        )
        for name, value in looked(whole.resolved.items(), 12):
            np.testing.assert_array_equal(value, rows.resolved[name], err_msg=name)
        for one, other in zip(whole.loads, rows.loads, strict=True):
            assert type(one) is type(other)
            for name in ("kg", "count"):
                np.testing.assert_array_equal(getattr(one, name, 0), getattr(other, name, 0))


def test_what_ways_share_is_listed_once_and_is_the_same_as_listed_apart():
    listed = OnceCache()
    together = [
        list(batches_of(EXERCISES[e], KIT, BODY, LIMITS, KNEE, UNSAID, listed)) for e in FRAMED
    ]
    apart = [every_batch(e) for e in FRAMED]
    for these, those in zip(together, apart, strict=True):
        assert [(b.way, len(b.unloaded), b.totals) for b in these] == [
            (b.way, len(b.unloaded), b.totals) for b in those
        ]
        for one, other in zip(these, those, strict=True):
            assert [(r.options, r.words, r.items()) for r in one.unloaded] == [
                (r.options, r.words, r.items()) for r in other.unloaded
            ]
    calls = []

    def make() -> list[int]:
        """Return numbers, and remember to have been asked."""
        calls.append(1)
        return [1, 2]

    assert listed.once(("a",), make) == listed.once(("a",), make) == (1, 2) and len(calls) == 1


def test_totals_of_a_machine_are_its_own():
    """Two stacks of other weights: what one makes is never listed for the other."""
    quantities = {"step_kg": 5.0, "height_m": 0.1, "travel_m": 1.0}
    machines = tuple(
        Machine(
            id=f"c{n}",
            name=f"Cable {n}",
            kind="cable",
            quantities=MappingProxyType(
                {**quantities, "smallest_kg": 5.0 * n, "largest_kg": 50.0 * n}
            ),
        )
        for n in (1, 2)
    )
    kit = Kit(machines=machines)
    found = list(
        batches_of(EXERCISES["leg-extension-cable"], kit, BODY, LIMITS, KNEE, UNSAID, OnceCache())
    )
    assert {b.machine.id: b.totals for b in found} == {
        m.id: totals_of("cable", "ankle", kit, m) for m in machines
    }


# the grid


@given(
    st.lists(st.tuples(st.floats(0.3, 1.0), st.booleans()), min_size=10, max_size=10),
    st.floats(-60.0, 60.0),
    st.lists(st.floats(-10.0, 10.0), min_size=10, max_size=10),
    st.sampled_from([Action.KE, Action.HE, Action.KF]),
)
def test_the_grid_holds_the_work_of_the_parts_that_move_with_the_action(
    steps, level, wobble, action
):
    """A walk that turns back any number of times: its sum is what small steps add up to."""
    theta = 0.9 + 0.15 * np.cumsum([size if ahead else -size for size, ahead in steps])
    demand = level + np.array(wobble)
    fine = np.linspace(0, 9, 9001)
    walk, asked = np.interp(fine, np.arange(10), theta), np.interp(fine, np.arange(10), demand)
    rises = np.rad2deg(np.maximum(np.diff(walk) * action.direction, 0.0))
    middle = 0.5 * (asked[1:] + asked[:-1]) * action.sign
    wanted = np.sum(middle * rises) if np.ptp(theta) >= np.deg2rad(5) else 0.0
    # lines between the degrees' edges cut the corner of each sample, of at most 8 N·m to a degree
    # on either side
    found = on_grid(theta[None, :], demand[None, :], action, signed=True).sum()
    assert found == pytest.approx(wanted, abs=9 * 2.5)


def test_a_row_that_turns_back_once_is_as_good_as_one_without_the_way_back():
    rise = np.linspace(100.0, 20.0, 41)
    theta = np.deg2rad(
        np.concatenate([np.linspace(80.0, 99.0, 6), rise, np.linspace(21.0, 40.0, 6)])
    )
    demand = np.linspace(5.0, 45.0, len(theta))
    found = on_grid(theta, demand, Action.KE)[0]
    alone = on_grid(np.deg2rad(rise), demand[6:47], Action.KE)[0]
    np.testing.assert_allclose(found, alone, atol=1e-9)


def test_rows_that_never_move_with_the_action_and_lost_ones_ask_for_nothing():
    good = np.deg2rad(np.linspace(95.0, 10.0, 21))
    theta = np.stack([good, good[::-1], np.full(21, np.nan), np.full(21, 1.0), good])
    demand = np.broadcast_to(np.linspace(10.0, 60.0, 21), theta.shape)
    found = on_grid(theta, demand, Action.KE, signed=True)
    np.testing.assert_array_equal(found[1:4], 0.0)
    np.testing.assert_allclose(
        found[[0, 4]], np.repeat(on_grid(good, demand[0], Action.KE), 2, axis=0)
    )


def test_more_rows_than_are_laid_out_at_once_are_laid_out_like_each_alone():
    rng = np.random.default_rng(7)
    rows = 2 * ROWS_AT_ONCE + 37
    theta = np.deg2rad(np.sort(rng.uniform(-10, 130, (rows, 11)), axis=1)[:, ::-1])
    demand = rng.uniform(-20, 150, (rows, 11))
    found = on_grid(theta, demand, Action.KE, signed=True)
    for row in (0, ROWS_AT_ONCE - 1, ROWS_AT_ONCE, rows - 1):
        np.testing.assert_allclose(
            found[row], on_grid(theta[row], demand[row], Action.KE, signed=True)[0], atol=1e-6
        )


def test_one_matrix_serves_all_that_move_a_joint_alike():
    rng = np.random.default_rng(8)
    usual, other = np.deg2rad(np.linspace(95, 10, 21)), np.deg2rad(np.linspace(80, 5, 21))
    theta = np.concatenate(
        [np.tile(usual, (60, 1)), np.tile(other, (3, 1)), np.tile(usual, (20, 1))]
    )
    theta[70] += 0.01  # one of its own among them
    demand = rng.uniform(-30, 200, theta.shape)
    found = _on_grid(theta, demand, Action.KE)
    np.testing.assert_allclose(found, on_grid(theta, demand, Action.KE, signed=True), atol=1e-3)
    assert found.dtype == np.float32


def test_between_samples_no_cubic_reaches_across_a_knot():
    """Three stretches, each of its own law: a line, a cubic and a cubic, with corners between."""
    x = np.linspace(0.0, 1.0, SEARCH_SAMPLES)

    def law(at: np.ndarray) -> np.ndarray:
        """Return a path whose slope jumps at a tenth and at four tenths."""
        first, then = 3.0 - 8.0 * at, 2.2 + (at - 0.1) - 9.0 * (at - 0.1) ** 3
        last = 2.2 + 0.3 - 9.0 * 0.3**3 + 4.0 * (at - 0.4) ** 2 - (at - 0.4) ** 3
        return np.where(at <= 0.1, first, np.where(at <= 0.4, then, last))

    knots = KNOTS["step-up"]
    assert knots == (1, 4)
    fine = np.linspace(0.0, 1.0, 2 * SEARCH_SAMPLES - 1)
    np.testing.assert_allclose(finer(law(x), knots), law(fine), atol=1e-9)
    assert np.abs(finer(law(x)) - law(fine)).max() > 0.02, "without knots it rings"
    np.testing.assert_allclose(finer(np.array([[1.0, 3.0]]), ()), [[1.0, 2.0, 3.0]])


# guesses


@pytest.mark.parametrize("intent", [HINGE, LOOSE], ids=["level", "shape"])
def test_a_guess_is_work_in_common_over_work_in_either(intent):
    """Where every total is its own reference at full samples, the guess is the comparison
    itself.
    """
    target = target_of_intent(intent, BODY)
    seen = 0
    for exercise in (
        "back-extension-45",
        "leg-extension",
        "hip-thrust-one-leg",
        "hack-squat",
        "romanian-deadlift",
    ):
        for part in _prepare([EXERCISES[exercise]], KIT, BODY, LIMITS, KNEE, UNSAID)[0].parts:
            if part.own is None:
                continue
            rows = [(int(g), int(k)) for g, k in np.argwhere(part.usable)]
            score_together([(part, rows)], target, BODY, LIMITS)
            for row in rows:
                assert part.match(target)[row] == pytest.approx(
                    part.known(target)[row], abs=1e-4
                ), exercise
                seen += 1
    assert seen > 10


def test_degrees_at_which_nothing_is_given_are_missing_all_the_same():
    """A target that asks where the whole batch gives nothing: its guesses count that as missing."""
    part = next(
        p
        for p in _prepare([EXERCISES["back-squat-high"]], KIT, BODY, LIMITS, KNEE, UNSAID)[0].parts
        if len(p.batch.totals) > 3 * p.mix.shape[1] or len(p.batch.totals) > 5
    )
    knee = np.where((CENTRES_DEG > 20) & (CENTRES_DEG < 90), 60.0, 0.0)
    hip = MappingProxyType({Action.HE: 1e9})  # the hip may do what it likes
    plain = Target(actions=(Action.KE,), bins=(knee,), works=hip)
    further = knee + np.where(CENTRES_DEG > 130, 60.0, 0.0)
    more = Target(actions=(Action.KE,), bins=(further,), works=hip)
    own = np.einsum("pr,frb->fpb", part.mix, np.maximum(part.bins(Action.KE), 0.0))
    for target in (plain, more):
        wanted = target.bins[0]
        covers = covered(wanted, own)
        expected = covers / (wanted.sum() + 0.5 * (own.sum(axis=2) - covers))
        np.testing.assert_allclose(
            part.match(target)[part.usable], expected[part.usable], atol=2e-3
        )
    assert np.all(part.match(more)[part.usable] < part.match(plain)[part.usable])


def test_what_is_taken_is_worked_out_when_it_is_first_asked_for():
    question = Question(asked=PRESS, kit=KIT, body=BODY, limits=LIMITS, rules=RULES, memo=Memo())
    ranked(question)
    parts = question.prepared(EXERCISES["split-squat"]).parts
    assert all(part._users is None for part in parts), (
        "nothing is taken: nothing asks who uses what"
    )
    banded = next(part for part in parts if any(row.bands for row in part.batch.unloaded))
    item = next(row.bands[0][0].id for row in banded.batch.unloaded if row.bands)
    mask = banded.allowed(frozenset({item}), KIT.without(frozenset({item})))
    uses = np.array([item in row.items() for row in banded.batch.unloaded])
    assert not mask[uses].any() and mask[~uses].any()


# set-ups


def test_rows_taken_out_of_a_set_up_are_as_if_made_anew():
    count = np.array([[0.0], [1.0], [2.0], [3.0]])
    band = Band(
        law=LinearLaw(rest_m=0.8, rate_n_per_m=90),
        port="shoulders",
        anchor_port="sole",
        count=count,
    )
    depth = np.array([80.0, 90.0, 100.0, 110.0])
    whole = Setup(
        exercise=EXERCISES["band-squat"],
        options={"knee_from_deg": depth, "pressure": "mid"},
        loads=(band,),
        samples=21,
    )
    rows = np.array([3, 1])
    taken = whole.taken(rows)
    anew = Setup(
        exercise=EXERCISES["band-squat"],
        options={"knee_from_deg": depth[rows], "pressure": "mid"},
        samples=21,
        loads=(Band(law=band.law, port="shoulders", anchor_port="sole", count=count[rows]),),
    )
    assert taken.rows == anew.rows == 2 and set(taken.resolved) == set(anew.resolved)
    for name, value in anew.resolved.items():
        np.testing.assert_array_equal(taken.resolved[name], value, err_msg=name)
    one, other = curve(taken, strict=False), curve(anew, strict=False)
    for joint, demand in other.demand_nm.items():
        np.testing.assert_array_equal(one.demand_nm[joint], demand)


def test_a_changed_copy_keeps_the_rest_and_leaves_the_record_alone():
    mass = FreeMass(kg=20.0, port="hands")
    other = changed(mass, kg=np.array([[5.0], [6.0]]))
    assert (
        mass.kg == 20.0
        and other.port == "hands"
        and other.kg.shape == (2, 1)
        and other.weight_n[1, 0] == 6.0 * G
    )
    exercise = changed(EXERCISES["front-squat"], ports=("hands",))
    assert exercise.ports == ("hands",) and exercise.options is EXERCISES["front-squat"].options
    assert EXERCISES["front-squat"].ports != ("hands",)


# forces and roots


def test_forces_summed_as_they_join_are_the_sum_of_all():
    rng = np.random.default_rng(3)
    shape = (4, 7)
    motion = Motion(position=np.linspace(0, 1, 7), shape=shape)
    about = rng.normal(size=(2, *shape))

    def checked() -> None:
        """Compare the sums with a plain loop over everything that acts."""
        force = sum(
            (np.broadcast_to(f.force, (2, *shape)) for f in motion.forces), np.zeros((2, *shape))
        )
        moment = np.zeros(shape)
        for f in motion.forces:
            r = f.point - about
            moment = moment + r[0] * f.force[1] - r[1] * f.force[0]
        for _, couple, _ in motion.couples:
            moment = moment + couple
        np.testing.assert_allclose(motion.total_force(), force, atol=1e-9)
        np.testing.assert_allclose(motion.moment_about(about), moment, atol=1e-9)

    checked()
    motion.add_segment("thigh", 8.0, rng.normal(size=(2, *shape)))
    checked()
    motion.add_force(
        "foot", rng.normal(size=(2, *shape)), rng.normal(size=(2, *shape)), "contact foot"
    )
    motion.couples.append(("foot", rng.normal(size=shape), "contact foot"))
    checked()
    motion.add_force("trunk", rng.normal(size=(2, 1, 1)), np.array([[[0.0]], [[-300.0]]]), "load 0")
    checked()
    # taken away again, as a fast lift does with the contacts of the slow one
    motion.forces = [f for f in motion.forces if not f.source.startswith("contact")]
    motion.couples = []
    checked()


@pytest.mark.parametrize(
    "exercise", ["carriage-push", "carriage-lunge-front", "carriage-pull-back"]
)
def test_balance_on_a_carriage_is_tried_as_the_whole_body_would_balance(exercise):
    """At any trial posture the light sum is the moment of the whole motion, the carriage's lift
    included.
    """
    entry = EXERCISES[exercise]
    loads = (
        SpringLoad(spring=Spring(start_n=30, end_n=150, travel_m=0.9), port="carriage"),
        FreeMass(kg=12.0, port="hands"),
    )
    if "hands" not in entry.ports:
        loads = loads[:1]
    setup = Setup(exercise=entry, loads=loads, samples=11)
    lift = Lift(
        exercise=entry,
        body=BODY,
        limits=Limits(),
        o=setup.resolved,
        loads=loads,
        position=np.linspace(0, 1, 11)[None, :],
    )
    ride = ride_of(lift, -1.0)
    stance = carriage._Stance(ride)
    for lean in (-0.3, 0.0, 0.2):
        found = stance.moment(np.full((1, 11), lean))
        motion = stance.motion()
        carried = -stance.share * motion.total_force()[1]
        arm = motion.points["pressure"][0] - motion.points["other_pressure"][0]
        np.testing.assert_allclose(
            found, motion.moment_about(motion.points["other_pressure"]) + arm * carried, atol=1e-8
        )
    moved = move(setup)
    np.testing.assert_allclose(moved.total_force(), 0.0, atol=1e-6)
    np.testing.assert_allclose(moved.moment_about(moved.points["other_pressure"]), 0.0, atol=1e-5)


def test_a_root_is_found_without_a_guess_and_none_where_there_is_none():
    low, high = np.zeros(4), np.full(4, 2.0)
    level = np.array([0.5, 1.7, 5.0, -1.0])
    found, there = bracketed_root(lambda x: x**3 - level, low, high)
    np.testing.assert_array_equal(there, [True, True, True, False])
    np.testing.assert_allclose(found[:3], np.cbrt(level[:3]), rtol=1e-9)
    assert np.isnan(found[3])


def test_a_root_at_a_kink_is_found_to_the_tolerance():
    """A band that comes tight: its pull has a corner there."""
    where = np.array([0.3, 0.7, 1.1])
    found, there = bracketed_root(
        lambda x: np.maximum(0.0, x - where) * 800.0 + 0.02 * (x - where),
        np.zeros(3),
        np.full(3, 1.5),
    )
    assert there.all()
    np.testing.assert_allclose(found, where, atol=1e-8)


# anchors


HOLDS = (
    Hold(kind="eye", holds_n=400.0),
    Hold(kind="partner", holds_n=250.0),
    Hold(kind="weight", kg=32.0),
    Hold(kind="furniture", kg=40.0, height_m=0.6, depth_m=0.5),
    Hold(kind="feet", kg=80.0),
    Hold(kind="eye"),
)


@given(
    st.lists(st.tuples(st.floats(-400, 400), st.floats(-200, 600)), min_size=1, max_size=8),
    st.sampled_from(HOLDS),
)
def test_what_is_asked_of_many_set_ups_at_once_refuses_what_is_refused_of_each(pulls, hold):
    x, y = (
        np.array([[p[axis] * share for share in (0.2, 0.7, 1.0)] for p in pulls]) for axis in (0, 1)
    )
    found = gives_way(hold, x, y)
    for row in range(len(pulls)):
        one = margin(hold, x[row], y[row])
        if one is None or abs(one.margin - 1.0) > 1e-9:
            assert found[row] == (one is not None and one.verdict == "refuse")


# the answer, whatever way it came about


def small_kit() -> Kit:
    """Return a kit of a cabin: few things, each used by several exercises."""
    return Kit(
        weights=(
            Weight(id="d10", kind="dumbbell", kg=10, count=2),
            Weight(id="k16", kind="kettlebell", kg=16),
        ),
        bands=(
            BandStock(
                id="loop",
                name="Loop",
                shape=BandShape.LOOP,
                law=LinearLaw(rest_m=1.0, rate_n_per_m=100),
            ),
        ),
        furniture=(
            Furniture(id="bench", name="Bench", kind="bench", height_m=0.43),
            Furniture(id="box", name="Box", kind="box", height_m=0.3),
        ),
        anchors=(Anchor(id="eye", name="Eye", height_m=0.1, holds_n=90.0),),
        things=(Thing(id="pad", name="Pad", kind="pad", thick_m=0.03),),
        springs=(
            SpringStock(
                id="s", name="Spring", spring=Spring(start_n=20, end_n=90, travel_m=0.8), count=2
            ),
        ),
    )


def test_the_chosen_is_what_its_row_gives_when_computed_alone():
    found = ranked(
        Question(asked=PRESS, kit=small_kit(), body=BODY, limits=LIMITS, rules=Rules(), memo=Memo())
    )
    assert len(found.candidates) > 5
    for candidate in found.candidates:
        setup = candidate.curve.setup
        alone = curve(
            Setup(
                exercise=setup.exercise,
                options=setup.options,
                loads=setup.loads,
                body=BODY,
                limits=LIMITS,
            )
        )
        compared = compare(found.target, alone.motion.angles, alone.demand_nm, 1)
        assert float(compared.match[0]) == pytest.approx(candidate.match, abs=1e-6), (
            candidate.exercise.id
        )
        assert isinstance(candidate.row, LoadedSetup)


def test_an_anchor_that_would_break_is_never_chosen():
    """The only eye holds 90 N: whatever is tied to it pulls less at every sample, or is not
    offered.
    """
    kit = small_kit()
    found = ranked(
        Question(asked=PRESS, kit=kit, body=BODY, limits=LIMITS, rules=Rules(), memo=Memo())
    )
    for candidate in looked(found.candidates, 18):
        if candidate.row.anchor is None or candidate.row.anchor[0].id != "eye":
            continue
        pulled = sum(
            (
                f.force
                for f in candidate.curve.motion.forces
                if f.source.startswith("load")
                and isinstance(candidate.curve.setup.loads[int(f.source.split()[1])], Band)
            ),
            np.zeros((2, 1, 1)),
        )
        assert float(np.hypot(*pulled).max()) <= 90.0 + 1e-6
