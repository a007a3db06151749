"""What place, people and client allow, what a room can train, what a stand-in means for a
client.
"""

from __future__ import annotations

import dataclasses

import pytest

from tests.looked import looked
from widearc.core.answers import notes_for
from widearc.core.body import Body, Limits
from widearc.core.curve import Action
from widearc.core.equipment import KINDS, FreeMass, Sled
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Anchor, Furniture, Kit, Rules, SledPress, Thing, Weight, trainable_here
from widearc.core.kit.admission import LONG_MINUTES, left_out, step_by_step
from widearc.core.movement import Setup
from widearc.core.search import Memo, search
from widearc.core.statics import BodyUncertainty, curve
from widearc.words import plain

LIMITS = Limits()
PRESS = Setup(
    exercise=EXERCISES["leg-press-45"], options={"rail_deg": 40}, loads=[Sled(kg=60, empty_kg=38)]
)


def out(exercise, kit=Kit(), rules=Rules(), taken=frozenset(), limits=LIMITS):  # noqa: B008 - frozen
    found = left_out(EXERCISES[exercise], kit, limits, rules, taken, dict.fromkeys(taken, "taken"))
    return None if found is None else plain(found.reason)


@pytest.mark.parametrize("kind", [k for k in KINDS.values() if k.serves], ids=lambda k: k.id)
def test_each_kind_of_thing_admits_what_needs_it_and_taking_it_says_so(kind):
    for need in looked(kind.serves, 1):
        for exercise in [e for e in EXERCISES.values() if need in e.needs]:
            height = Furniture(id="x", name="Thing", kind=kind.id, height_m=0.3)
            made = kind.id in ("bench", "box", "rack", "couch", "table")
            kit = (
                Kit(furniture=(height,))
                if made
                else Kit(things=(Thing(id="x", name="Thing", kind=kind.id),))
            )
            partner = Rules(partner=True)
            assert out(exercise.id, Kit()) is not None, f"{exercise.id} needs {need}"
            if exercise.needs != (need,):
                continue
            assert out(exercise.id, kit, partner) is None, exercise.id
            if need != "ankle hold":
                assert out(exercise.id, kit, Rules(), frozenset({"x"})) == "thing taken"


def test_what_no_exercise_needs_is_needed_by_a_way_of_loading():
    needed = {need for e in EXERCISES.values() for need in e.needs}
    served = {need for kind in KINDS.values() for need in kind.serves}
    assert len(needed & served) > 10 and served - needed <= {"peg rail", "post", "rack"}


def test_needs_of_the_place_and_the_people():
    assert "partner" in out(
        "back-extension-couch",
        Kit(furniture=(Furniture(id="c", name="Couch", kind="couch", height_m=0.4),)),
    )
    wallless = Rules(wall=False)
    ball = Kit(things=(Thing(id="b", name="Ball", kind="ball"),))
    assert out("ball-wall-squat", ball) is None
    assert "wall" in out("ball-wall-squat", ball, wallless)
    assert "not measured" in out("walking-lunge")
    assert "3 m here" in out("walking-lunge", rules=Rules(floor_length_m=3.0))
    assert out("walking-lunge", rules=Rules(floor_length_m=6.0)) is None
    low = Kit(anchors=(Anchor(id="a", name="Eye", height_m=0.1),))
    high = Kit(anchors=(Anchor(id="a", name="Eye", height_m=1.1),))
    assert out("hack-squat-doubled-band", low) is None
    assert "below 25 cm" in out("hack-squat-doubled-band", high)
    boxes = Kit(
        furniture=tuple(Furniture(id=n, name="Box", kind="box", height_m=0.3) for n in "ab"),
        things=(
            Thing(id="d", name="Belt", kind="dip belt"),
            Thing(id="p", name="Post", kind="post"),
        ),
    )
    assert out("belt-squat-pin", boxes) is None
    assert out("belt-squat-pin", boxes, taken=frozenset({"a"})) == "box taken"


def test_presses_are_told_apart_by_their_rails():
    for rail, exercise in (
        (40.0, "leg-press-one-leg"),
        (5.0, "leg-press-flat"),
        (90.0, "leg-press-vertical"),
    ):
        kit = Kit(presses=(SledPress(id="p", name="Press", rail_deg=rail, empty_kg=20),))
        actions = {
            t.action: [e.id for e in t.now]
            for t in trainable_here(kit, taken=frozenset(), limits=LIMITS, rules=Rules())
        }
        assert ("leg-press-one-leg" in actions[Action.KE]) == (rail == 40.0)
        others = {"leg-press-one-leg", "leg-press-flat", "leg-press-vertical"} - {exercise}
        assert all("none here" in out(e, kit) for e in others)


def test_a_packed_place_hides_what_travels_and_what_takes_long():
    packed = Rules(packed=True, floor_length_m=9.0)
    assert "travels" in out("walking-lunge", rules=packed)
    long = [e for e in EXERCISES.values() if e.minutes > LONG_MINUTES and not e.needs]
    for exercise in long:
        assert f"{exercise.minutes:.0f} min" in out(exercise.id, rules=packed)
        assert out(exercise.id, rules=Rules()) is None
    assert out("goblet-squat", rules=packed) is None


def test_a_beginner_gets_static_before_raised_before_offset_and_nothing_that_travels(kit):
    assert "beginner" in out("walking-lunge", rules=Rules(beginner=True, floor_length_m=9.0))
    kit = dataclasses.replace(
        kit, furniture=(Furniture(id="bench", name="Bench", kind="bench", height_m=0.43),)
    )
    wanted = curve(PRESS)

    def order(rules):
        found = search(wanted, kit, body=Body(), limits=LIMITS, rules=rules)
        ids = [c.exercise.id for c in found.candidates]
        return ids, [i for i in ids if i in ("split-squat", "rear-raised-split-squat")]

    ids, staged = order(Rules(beginner=True))
    assert staged == ["split-squat", "rear-raised-split-squat"]
    plain, _ = order(Rules())
    assert set(ids) == set(plain), "the order changes, not what is offered"
    others = [i for i in plain if i not in staged]
    assert [i for i in ids if i not in staged] == others


def test_step_by_step_leaves_others_in_their_place():
    class One:
        def __init__(self, name):
            self.exercise = EXERCISES[name]

    given = [
        One("offset-lunge"),
        One("goblet-squat"),
        One("rear-raised-split-squat"),
        One("split-squat"),
    ]
    names = [c.exercise.id for c in step_by_step(given, Rules(beginner=True))]
    assert names == ["split-squat", "goblet-squat", "rear-raised-split-squat", "offset-lunge"]
    assert step_by_step(given, Rules()) == given


def test_a_weak_grip_leaves_out_what_the_hands_cannot_hold(kit):
    wanted = curve(PRESS)

    def dumbbells(grip):
        found = search(wanted, kit, body=Body(), limits=LIMITS, rules=Rules(grip_kg=grip))
        return [
            p.kg for c in found.candidates if c.exercise.id == "dumbbell-squat" for p in c.pieces
        ]

    assert dumbbells(None) == dumbbells(12.0) == [12]
    assert dumbbells(11.9) == []


def test_what_a_room_trains_follows_what_is_free(kit):
    def counts(taken):
        found = trainable_here(kit, taken=frozenset(taken), limits=LIMITS, rules=Rules())
        return {t.action: ({e.id for e in t.now}, {e.id for e in t.held_up}) for t in found}

    before, after = counts(()), counts(("d12", "d16", "k24"))
    gone = before[Action.KE][0] - after[Action.KE][0]
    assert {"goblet-squat", "dumbbell-squat", "leg-extension-dumbbell"} <= gone
    assert gone == after[Action.KE][1], "what is gone is said to be held up"
    assert before[Action.KE][1] == set()
    assert set(counts(())) == set(Action), (
        "every action has a line, if only to say nothing trains it"
    )
    empty = trainable_here(Kit(), taken=frozenset(), limits=LIMITS, rules=Rules())
    assert all("bodyweight-squat" in {e.id for e in t.now} for t in empty if t.action is Action.KE)


def test_a_spine_that_may_not_be_loaded_trains_less(kit):
    spared = trainable_here(
        kit, taken=frozenset(), limits=Limits(no_axial_load=True), rules=Rules()
    )
    now = {e.id for t in spared for e in t.now}
    assert not now & {"goblet-squat", "dumbbell-squat", "front-squat", "deadlift"}
    assert {"bodyweight-squat", "leg-extension-dumbbell"} <= now


def notes(own, rules):
    return " ".join(map(plain, notes_for(own, curve(PRESS), rules)))


def test_a_sore_joint_gets_its_peak_beside_the_wanted_one():
    squat = curve(Setup(exercise=EXERCISES["goblet-squat"], loads=[FreeMass(kg=24, port="goblet")]))
    press = curve(PRESS)
    said = notes(squat, Rules(sore={"knee": "left", "low back": "both", "ankle": "both"}))
    there, before = (abs(c.demand_nm["knee"][0]).max() for c in (squat, press))
    assert f"{there:.0f} against {before:.0f} N·m" in said
    assert f"{abs(there / before - 1) * 100:.0f} % {'more' if there > before else 'less'}" in said
    assert "presses on the spine" in said and "Sore ankles" in said
    lying = curve(
        Setup(
            exercise=EXERCISES["leg-extension-dumbbell"],
            options={"seat_m": 0.6},
            loads=[FreeMass(kg=10, port="ankle")],
        )
    )
    assert "hardly loaded" in notes(lying, Rules(sore={"hip": "right"}))
    assert "does not press" in notes(lying, Rules(sore={"low back": "both"}))


def test_the_other_notes_of_a_client():
    split = curve(
        Setup(exercise=EXERCISES["rear-raised-split-squat"], loads=[FreeMass(kg=40, port="hands")])
    )
    said = notes(split, Rules(stronger_side="right", grip_kg=12.0, beginner=True))
    assert "Start with the left leg" in said
    assert "Each hand holds up to 20 kg, more than the 12 kg" in said
    assert "static split squat comes first" in said
    back = curve(
        Setup(exercise=EXERCISES["back-squat-high"], loads=[FreeMass(kg=60, port="back-high")])
    )
    assert "set the stops" in notes(back, Rules(alone=True))
    assert notes(back, Rules(stronger_side="right")) == "", "both legs work: no side goes first"


# how sure a match is


def ranked(kit, body_uncertainty=BodyUncertainty(), memo=None):  # noqa: B008 - frozen
    return {
        c.exercise.id: c
        for c in search(
            curve(PRESS),
            kit,
            body=Body(),
            limits=LIMITS,
            body_uncertainty=body_uncertainty,
            memo=memo,
        ).candidates
    }


def test_a_match_is_as_sure_as_what_it_is_built_on(kit):
    weighed = dataclasses.replace(
        kit, weights=tuple(dataclasses.replace(w, error=0.002) for w in kit.weights)
    )
    guessed = dataclasses.replace(
        kit, weights=tuple(dataclasses.replace(w, error=0.15) for w in kit.weights)
    )
    sure = BodyUncertainty(mass=0.0, thigh=0.0, shank=0.0)
    small, large = ranked(weighed, sure)["goblet-squat"], ranked(guessed, sure)["goblet-squat"]
    assert small.match == large.match, "an error changes how sure a match is, not the match"
    (light, _), (heavy, _) = (c.uncertainty.effects["load 0"] for c in (small, large))
    assert 0 < abs(light) < abs(heavy) / 20
    assert large.uncertainty.sd > small.uncertainty.sd
    assert not {"mass", "thigh", "shank"} & small.uncertainty.effects.keys()


def test_a_match_s_error_is_the_change_that_one_standard_error_makes(kit):
    """Body weight alone: no load is unsure, so only mass and thigh speak; each is worked out here
    once more.
    """
    from widearc.core.matching import compare, target_of

    found = ranked(Kit())["bodyweight-squat"]
    bodies = {
        "mass": Body(mass_kg=80 * 1.01),
        "thigh": Body(segments={"thigh_m": Body().thigh_m * 1.03}),
        "shank": Body(segments={"shank_m": Body().shank_m * 1.03}),
    }
    for source, body in bodies.items():
        wanted = target_of(curve(dataclasses.replace(PRESS, body=body)))
        own = curve(dataclasses.replace(found.curve.setup, body=body))
        change = float(compare(wanted, own.motion.angles, own.demand_nm, 1).match[0]) - found.match
        assert found.uncertainty.effects[source] == pytest.approx((change, 0.0), rel=1e-6)
        assert abs(change) > 1e-4
    deep, shallow = (
        curve(
            dataclasses.replace(
                found.curve.setup, options={**found.row.options, "knee_from_deg": k}
            )
        )
        for k in (found.row.options["knee_from_deg"] + by for by in (4.0, -4.0))
    )
    up, down = (
        float(compare(found.target, c.motion.angles, c.demand_nm, 1).match[0])
        for c in (deep, shallow)
    )
    half, loss = 0.5 * (up - down), min(0.0, 0.5 * (up + down) - found.match)
    assert found.uncertainty.effects["depth"] == pytest.approx((half, loss), rel=1e-6)
    assert found.uncertainty.usual < found.match


def test_a_new_doubt_is_computed_anew_and_an_old_one_kept(kit):
    memo = Memo()
    first = ranked(kit, BodyUncertainty(mass=0.01), memo)["goblet-squat"]
    other = ranked(kit, BodyUncertainty(mass=0.10), memo)["goblet-squat"]
    assert other.uncertainty.sd > first.uncertainty.sd
    assert ranked(kit, BodyUncertainty(mass=0.01), memo)["goblet-squat"] is first


def test_only_what_is_in_the_kit_counts_as_its_weight():
    kit = Kit(weights=(Weight(id="k", kind="kettlebell", kg=24, error=0.01),))
    assert "goblet-squat" in ranked(kit)
