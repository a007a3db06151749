"""What a week covers: three weeks worked by hand, findings provoked and mended, order, time."""

from __future__ import annotations

import itertools

import pytest

from widearc.core.coverage import (
    FINDINGS,
    Person,
    SlotSeen,
    Traits,
    Worked,
    breaches,
    findings,
    mend_of,
    minutes_of,
    to_drop,
    units,
    whole_minutes,
)
from widearc.core.exercises import EXERCISES
from widearc.words import plain

PERSON = Person(mass_kg=80.0)
ids = itertools.count(1)
EVEN = (0.4, 0.4, 0.2)


def slot(exercise, day=0, position=0, *, sets=3.0, traits=None, worked=(), **more):
    """Return a slot; worked: group, counts, thirds."""
    return SlotSeen(
        id=next(ids),
        day=day,
        position=position,
        exercise=EXERCISES[exercise],
        sets=sets,
        traits=traits or Traits(),
        worked={g: Worked(counts=c, thirds=t) for g, c, t in worked},
        **more,
    )


def squat(day=0, position=0, kg=100.0, **more):
    return slot(
        "back-squat-high",
        day,
        position,
        traits=Traits(knee_deg=(5.0, 110.0), spine_kg=kg, free_bar=True),
        worked=[("vasti", 1.0, EVEN), ("gluteus_maximus", 0.4, (0.5, 0.4, 0.1))],
        **more,
    )


def hinge(day=0, position=0, kg=60.0, **more):
    return slot(
        "romanian-deadlift",
        day,
        position,
        traits=Traits(knee_deg=(10.0, 15.0), spine_kg=kg, free_bar=True),
        worked=[("long_hamstrings", 1.0, (0.6, 0.3, 0.1)), ("gluteus_maximus", 0.5, EVEN)],
        **more,
    )


def extension(**more):
    worked = [("vasti", 1.0, EVEN), ("rectus_femoris", 0.06, EVEN)]
    return slot("leg-extension", worked=worked, **more)


def curl(hip=85.0, exercise="seated-leg-curl", **more):
    worked = [("long_hamstrings", 1.0, EVEN), ("biceps_femoris_short_head", 0.1, EVEN)]
    return slot(exercise, traits=Traits(hip_deg=hip), worked=worked, **more)


def split(**more):
    worked = [("vasti", 1.0, EVEN), ("gluteus_maximus", 0.3, EVEN), ("gluteus_medius", 0.4, EVEN)]
    return slot("split-squat", traits=Traits(one_leg=True), worked=worked, **more)


def calf(bent=False, **more):
    knee = (90.0, 90.0) if bent else (3.0, 5.0)
    groups = [("soleus", 1.0, EVEN)] + ([] if bent else [("gastrocnemius", 0.4, EVEN)])
    exercise = "calf-raise-seated" if bent else "calf-raise-step"
    return slot(exercise, traits=Traits(knee_deg=knee), worked=groups, **more)


def whole_week():
    """A week in which nothing is missing."""
    return [
        squat(day=0, position=0),
        extension(day=0, position=1),
        split(day=0, position=2),
        calf(day=0, position=3),
        hinge(day=2, position=0),
        curl(day=2, position=1),
        calf(bent=True, day=2, position=2),
    ]


def ids_of(slots, person=PERSON):
    return {f.id for f in findings(slots, person)}


def test_unit_sets_of_a_week_by_hand():
    """Three sets of squat and four of a hinge: 3 for the vasti, 1.2 + 2 for gluteus maximus."""
    found = units([squat(day=0, sets=3.0), hinge(day=2, sets=4.0)])
    assert found["vasti"][0] == pytest.approx([1.2, 1.2, 0.6])
    assert found["vasti"].sum() == pytest.approx(3.0)
    assert found["gluteus_maximus"][0] == pytest.approx([0.6, 0.48, 0.12])
    assert found["gluteus_maximus"][2] == pytest.approx([0.8, 0.8, 0.4])
    assert found["long_hamstrings"][2] == pytest.approx([2.4, 1.2, 0.4])
    assert found["soleus"].sum() == 0.0


def test_a_second_week_by_hand_counts_every_day():
    found = units([calf(day=d, sets=2.0) for d in range(5)])
    assert found["soleus"].sum() == pytest.approx(10.0)
    assert found["gastrocnemius"].sum() == pytest.approx(4.0)
    assert (found["soleus"].sum(axis=1) > 0).sum() == 5


def test_a_third_week_by_hand_halves_between_low_and_high():
    found = units([split(day=1, sets=(2 + 3) / 2), curl(day=1, sets=4.0)])
    assert found["gluteus_medius"].sum() == pytest.approx(1.0)
    assert found["biceps_femoris_short_head"].sum() == pytest.approx(0.4)
    assert found["vasti"][1].sum() == pytest.approx(2.5)


def test_a_whole_week_lacks_nothing_and_an_empty_one_says_nothing():
    assert ids_of(whole_week()) == set()
    assert findings([], PERSON) == ()


@pytest.mark.parametrize(
    ("gone", "finding", "mended"),
    [
        ("leg-extension", "rectus-femoris", lambda: extension(day=4)),
        ("seated-leg-curl", "short-head", lambda: curl(day=4)),
        ("romanian-deadlift", "long-hamstrings", lambda: hinge(day=4)),
        ("split-squat", "gluteus-medius", lambda: split(day=4)),
        ("split-squat", "one-leg", lambda: split(day=4)),
        ("calf-raise-step", "straight-calves", lambda: calf(day=4)),
        ("calf-raise-seated", "bent-calves", lambda: calf(bent=True, day=4)),
    ],
)
def test_what_is_taken_away_is_found_and_mended_by_its_like(gone, finding, mended):
    less = [s for s in whole_week() if s.exercise.id != gone]
    found = {f.id: f for f in findings(less, PERSON)}
    assert finding in found
    assert gone in found[finding].remedies or finding in ("gluteus-medius", "one-leg")
    assert set(found[finding].remedies) <= set(EXERCISES)
    assert finding not in ids_of([*less, mended()])


def test_curls_are_mostly_with_flexed_hips():
    lying = [*whole_week(), curl(hip=5.0, exercise="lying-leg-curl", day=4)]
    found = next(f for f in findings(lying, PERSON) if f.id == "flexed-curls")
    assert found.slots == (lying[-1].id,)
    assert "flexed-curls" not in ids_of([*lying, *(curl(day=4) for _ in range(3))])


def test_a_group_that_is_never_long_is_found():
    week = [s for s in whole_week() if s.exercise.id not in ("back-squat-high", "leg-extension")]
    week = [s for s in week if s.exercise.id != "split-squat"]
    short = slot("leg-extension", worked=[("vasti", 1.0, (0.02, 0.4, 0.58))])
    assert "long-vasti" in ids_of([*week, short])
    assert "long-vasti" not in ids_of([*week, short, squat(day=4)])


def test_spine_days_are_not_adjacent_and_one_heavy_bar_a_day():
    apart = whole_week()
    assert "adjacent-spine" in ids_of([*apart, squat(day=1)])
    assert "adjacent-spine" not in ids_of([*apart, squat(day=1, kg=30.0)])
    two = next(
        f for f in findings([*apart, hinge(day=0, position=1)], PERSON) if f.id == "two-bars"
    )
    assert two.day == 0 and "two-bars" not in ids_of(apart)


def test_abduction_by_itself_wants_a_goal_or_an_imbalance():
    side = slot("side-lying-raise", day=4, worked=[("gluteus_medius", 1.0, EVEN)])
    week = [*whole_week(), side]
    assert "isolated-sides" in ids_of(week)
    assert "isolated-sides" not in ids_of(week, Person(mass_kg=80.0, wants_sides=True))


def test_eight_weeks_alike_are_told():
    assert "same-profile" in ids_of(whole_week(), Person(mass_kg=80.0, weeks_alike=8))
    assert "same-profile" not in ids_of(whole_week(), Person(mass_kg=80.0, weeks_alike=7))


def test_order_is_a_finding_and_no_ban():
    turned = [calf(day=0, position=0), squat(day=0, position=1)]
    ((first, then),) = breaches(turned)
    assert (first.exercise.id, then.exercise.id) == ("calf-raise-step", "back-squat-high")
    assert "order" in ids_of(turned)
    assert breaches(whole_week()) == ()
    # a warm-up before, mobility after: nothing is out of order
    before = slot("bodyweight-squat", kind="warm-up", position=0)
    after = slot("hip-flexor-stretch", kind="mobility", minutes=5.0, position=9)
    assert breaches([before, squat(position=1), after]) == ()


def test_minutes_by_hand():
    """1 to set up, 3 sets of 10 reps of 3 s with 2 min of rest: 1 + 3 × 2.5; a side after the
    other on one leg.
    """
    one = slot("split-squat", reps=10.0, rep_s=3.0, rest_s=120.0)
    entry = EXERCISES["split-squat"].minutes
    assert minutes_of(one) == pytest.approx(entry + 3 * 2.5)
    sides = slot("split-squat", traits=Traits(one_leg=True), reps=10.0, rep_s=3.0, rest_s=120.0)
    assert minutes_of(sides) == pytest.approx(entry + 3 * 3.0)
    assert minutes_of(slot("hip-flexor-stretch", minutes=6.0)) == 6.0
    assert whole_minutes([one, sides]) == pytest.approx(minutes_of(one) + minutes_of(sides) + 1.0)
    assert whole_minutes([]) == 0.0


def test_what_is_dropped_loses_least_and_the_rest_fits():
    day = [squat(position=0), split(position=1), extension(position=2), calf(position=3)]
    assert to_drop(day, 300.0) == ()
    gone = to_drop(day, 22.0)
    left = [s for s in day if s not in gone]
    assert whole_minutes(left) <= 22.0 and left
    # brute force: nothing else that is dropped first loses less for its minutes
    assert gone[0].exercise.id in {"leg-extension", "split-squat", "calf-raise-step"}
    assert to_drop(day, 0.0) and len(to_drop(day, 0.0)) == len(day)


def test_every_rule_was_provoked():
    names = {rule.__name__ for rule in FINDINGS}
    assert len(names) == 14


def mended(slots, finding, days=(0, 2, 4), person=PERSON):
    """Return the mend of a finding of slots, None where there is none."""
    found = next(f for f in findings(slots, person) if f.id == finding)
    return mend_of(found, slots, person, days)


def test_a_heavy_lift_moves_to_the_day_that_can_bear_it():
    week = [*whole_week(), hinge(day=0, position=1), extension(day=4)]
    mend = mended(week, "two-bars")
    assert "two-bars" not in ids_of(mend.slots) and ids_of(mend.slots) <= ids_of(week)
    # wednesday has its own hinge: friday takes it, before the isolation that is there
    friday = [s.exercise.id for s in mend.slots if s.day == 4]
    assert friday == ["romanian-deadlift", "leg-extension"]
    assert plain(mend.says) == "Move romanian deadlift to Fri"
    assert [s.position for s in mend.slots if s.day == 4] == [0, 1]
    # where every other day is heavy as well, nothing is moved: that would only shift it
    assert mended([*week, squat(day=4)], "two-bars") is None


def test_the_second_of_two_heavy_days_moves_its_lift_or_itself():
    week = [*whole_week(), squat(day=1)]
    alone = mended(week, "adjacent-spine", (0, 1, 2, 4))
    assert alone.day is None and "adjacent-spine" not in ids_of(alone.slots)
    assert [s.day for s in alone.slots if s.exercise.id == "back-squat-high"] == [0, 4]
    # two days, in a row, and both full: the second goes to the nearest free weekday that helps
    two = [squat(day=0), hinge(day=1), squat(day=1, position=1)]
    apart = mended(two, "adjacent-spine", (0, 1))
    assert apart.day == (1, 2) and {s.day for s in apart.slots} == {0, 2}
    assert plain(apart.says) == "Move Tue to Wed"


def test_a_day_is_put_in_order_and_keeps_the_rest_as_it_stood():
    turned = [calf(position=0), extension(position=1), squat(position=2), curl(position=3)]
    mend = mended(turned, "order")
    assert breaches(mend.slots) == ()
    names = [s.exercise.id for s in mend.slots]
    assert names == ["back-squat-high", "leg-extension", "seated-leg-curl", "calf-raise-step"]
    assert [s.position for s in mend.slots] == [0, 1, 2, 3]


def test_isolated_sides_are_taken_off_unless_that_leaves_something_out():
    side = slot("side-lying-raise", day=4, worked=[("gluteus_medius", 1.0, EVEN)])
    mend = mended([*whole_week(), side], "isolated-sides")
    assert side.id not in {s.id for s in mend.slots} and len(mend.slots) == 7
    # it is all that the gluteus medius gets: taking it off would be found in its place
    bare = [s for s in whole_week() if s.exercise.id != "split-squat"]
    assert mended([*bare, side], "isolated-sides") is None


def test_what_is_added_to_has_no_mend_of_its_own():
    assert mended([squat()], "short-head") is None
