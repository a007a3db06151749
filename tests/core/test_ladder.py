"""Rungs of a ladder: against brute force, facts of the trade, and values computed by others."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np
import pytest

from tests.conftest import points_law
from widearc.core.body import Body, Limits
from widearc.core.dose import Tempo
from widearc.core.equipment import FreeMass, Sled, Spring, SpringLoad
from widearc.core.exercises import EXERCISES
from widearc.core.kit import (
    BandShape,
    BandStock,
    Kit,
    Machine,
    SledPress,
    SpringStock,
    Weight,
)
from widearc.core.movement import Setup
from widearc.core.progression.bridge import bridge_over, harder_ways, reps_after, reps_by_seconds
from widearc.core.progression.ladder import ladder_of
from widearc.core.progression.one_leg import is_two_legged_for, one_leg_start
from widearc.core.progression.purchase import purchase_for
from widearc.core.progression.steps import lighter_part, share_of, turns
from widearc.core.progression.warmup import warm_up
from widearc.core.setups import batches_of
from widearc.core.statics import curve, leg_effort, whole_effort
from widearc.words import plain

LBF = 4.4482216
BODY = Body(mass_kg=80, stature_m=1.8)
TRAVEL = 0.5  # of a carriage in its usual movement, m


def effort(setup: Setup) -> float:
    return float(whole_effort(curve(setup, lowering=False))[0])


def dumbbells(*kg: float) -> Kit:
    return Kit(weights=tuple(Weight(id=f"d{k}", kind="dumbbell", kg=k, count=2) for k in kg))


def split(kg: float = 0.0) -> Setup:
    loads = (FreeMass(kg=kg, port="hands"),) if kg else ()
    return Setup(exercise=EXERCISES["split-squat"], body=BODY, loads=loads)


def spring(start: float, end: float) -> Spring:
    """Return a spring of so many pounds over a carriage's whole way."""
    return Spring(start_n=start * LBF, end_n=end * LBF, travel_m=TRAVEL)


SPRINGS = {
    "light": (spring(1, 6), 1),
    "medium": (spring(2.5, 12.5), 2),
    "third": (spring(7.5, 37.5), 1),
    "fourth": (spring(10, 70), 1),
}
CARRIAGE = Kit(
    machines=(
        Machine(
            id="m",
            name="carriage",
            kind="sprung carriage",
            quantities={"empty_kg": 7.0, "friction": 0.02, "travel_m": TRAVEL},
        ),
    ),
    springs=tuple(
        SpringStock(id=name, name=name, spring=law, count=count)
        for name, (law, count) in SPRINGS.items()
    ),
)


def sprung(exercise: str, name: str = "third"):
    load = SpringLoad(spring=SPRINGS[name][0])
    setup = Setup(exercise=EXERCISES[exercise], body=BODY, loads=(load,))
    return ladder_of(setup, (), CARRIAGE)


def test_rungs_are_all_that_a_small_stock_makes():
    """Dumbbells: none, pairs of each, nothing else; each effort computed for itself."""
    found = ladder_of(split(24), (), dumbbells(8, 12, 16))
    in_pairs = {effort(split(2 * kg)) for kg in (8, 12, 16)}
    one = {
        effort(
            Setup(
                exercise=EXERCISES["split-squat"],
                body=BODY,
                loads=(FreeMass(kg=kg, port="goblet"),),
            )
        )
        for kg in (8, 12, 16)
    }
    made = [r.effort for r in found.rungs]
    assert made == sorted(made)
    for mine in {effort(split()), *in_pairs}:
        assert min(abs(m / mine - 1.0) for m in made) < 1e-6, mine
    for rung in made:  # and nothing that the stock does not make
        assert min(abs(rung / mine - 1.0) for mine in {effort(split()), *in_pairs, *one}) < 1e-6
    assert [r.kg for r in found.rungs] == [None, 16.0, 24.0, 32.0]
    assert found.now.kg == 24.0 and found.measure == "whole effort"


@pytest.mark.parametrize("plates", [(1.25, 2.5, 5), (5, 10, 20), (2.5, 10)])
def test_a_bar_s_rungs_are_every_total_of_its_plates(plates):
    kit = Kit(
        weights=(
            Weight(id="bar", kind="bar", kg=20),
            *(Weight(id=f"p{k}", kind="plate", kg=k, count=2) for k in plates),
        ),
    )
    load = FreeMass(kg=20, port="hands")
    hinge = Setup(exercise=EXERCISES["romanian-deadlift"], body=BODY, loads=(load,))
    totals = {
        20.0 + 2 * sum(chosen)
        for n in range(len(plates) + 1)
        for chosen in itertools.combinations(plates, n)
    }
    found = ladder_of(hinge, (), kit)
    assert [r.kg for r in found.rungs] == sorted(totals)
    for rung in found.rungs:
        mine = effort(replace(hinge, loads=(FreeMass(kg=rung.kg, port="hands"),)))
        assert rung.effort == pytest.approx(mine, rel=1e-9)
        assert sum(p.kg * p.number for p in rung.pieces) == rung.kg


def test_the_next_step_is_the_smallest_of_two_and_a_half_to_ten_percent():
    kit = Kit(
        weights=(
            Weight(id="bar", kind="bar", kg=20),
            Weight(id="a", kind="plate", kg=1.25, count=2),
            Weight(id="b", kind="plate", kg=2.5, count=2),
            Weight(id="c", kind="plate", kg=40, count=2),
        ),
    )

    def next_kg(kg):
        load = FreeMass(kg=kg, port="hands")
        hinge = Setup(exercise=EXERCISES["romanian-deadlift"], body=BODY, loads=(load,))
        found = ladder_of(hinge, (), kit)
        assert found.now.kg == kg
        return None if found.next is None else found.rungs[found.next].kg

    assert next_kg(22.5) is None  # 25 is 11 % more
    assert next_kg(25) is None  # 27.5 is 10 %: no more than that is a step
    assert next_kg(100) == 102.5  # 2.5 %
    assert next_kg(102.5) == 107.5  # 105 is 2.4 %, no step by itself


def test_percents_are_of_the_load_where_one_weight_changes_and_both_are_told():
    found = ladder_of(split(24), (), dumbbells(12, 13.25))
    up = found.rungs[-1]
    assert up.of_load and up.step == pytest.approx(26.5 / 24 - 1)
    assert 0.02 < up.effort_step < 0.04  # record.md: some 3 %
    assert found.now.step == pytest.approx(found.now.effort / found.rungs[0].effort - 1)
    assert not found.now.of_load and found.now.wide


def test_bands_come_in_above_what_weights_make_and_are_not_dropped_where_in_use():
    loop = BandStock(
        id="l", name="loop", shape=BandShape.LOOP, law=points_law(rest_m=0.5, top_n=120)
    )
    kit = replace(dumbbells(8, 16), bands=(loop,))
    found = ladder_of(split(16), (), kit)
    banded = [r for r in found.rungs if r.bands]
    assert banded and min(r.effort for r in banded) > max(
        r.effort for r in found.rungs if not r.bands
    )
    assert {r.kg for r in banded} <= {None, 32.0}
    # a band under the feet pulls most at the top, where the knee is asked least: nowhere less
    assert all(r.lighter is None or r.lighter.end - r.lighter.start < 0.5 for r in banded)
    again = ladder_of(banded[0].setup, banded[0].pieces, kit)
    assert again.now.bands == ("loop",) and again.present > 0


def test_spring_ladders_pull_what_practice_tells():
    """job.md: start, middle, end in pounds; light springs together and one by one."""
    found = {r.bands: [round(n / LBF, 2) for n in r.pull_n] for r in sprung("carriage-push").rungs}
    facts = {
        ("third",): (7.5, 22.5, 37.5),
        ("light", "third"): (8.5, 26, 43.5),
        ("medium", "third"): (10, 30, 50),
        ("light", "medium", "third"): (11, 33.5, 56),
        ("fourth",): (10, 40, 70),
        ("fourth", "light"): (11, 43.5, 76),
        ("fourth", "medium"): (12.5, 47.5, 82.5),
        ("fourth", "light", "medium"): (13.5, 51, 88.5),
        ("fourth", "third"): (17.5, 62.5, 107.5),
    }
    for springs, pulls in facts.items():
        assert found[springs] == pytest.approx(pulls, abs=0.01), springs


def test_a_pulling_ladder_steps_as_practice_tells():
    """job.md: light, medium, both, two medium, third at full travel: +108, +48, +35, +50 %."""
    found = {r.bands: r for r in sprung("carriage-pull-back").rungs}
    order = [("light",), ("medium",), ("light", "medium"), ("medium", "medium"), ("third",)]
    ends = [found[springs].pull_n[2] for springs in order]
    steps = [100 * (b / a - 1) for a, b in itertools.pairwise(ends)]
    assert steps == pytest.approx([108, 48, 35, 50], abs=0.6)
    efforts = [found[springs].effort for springs in order]
    assert efforts == sorted(efforts), "more spring is harder at the back"


def test_one_heavy_spring_for_three_is_lighter_at_first():
    """job.md: 11 to 56 against 10 to 70, lighter for the first 6.7 % of the travel."""
    along = np.linspace(0, 1, 101)
    three, one = 11 + 45 * along, 10 + 60 * along
    part = lighter_part(three, one, along)
    assert (part.start, part.end) == pytest.approx((0.0, 1 / 15), abs=0.004)
    assert lighter_part(three, three + 1, along) is None
    back = lighter_part(one, three, along)
    assert (back.start, back.end) == pytest.approx((1 / 15, 1.0), abs=0.004)


@pytest.mark.parametrize(
    ("exercise", "efforts"),
    [
        ("carriage-lunge-front", {0: 0.76, 25: 0.65, 50: 0.58, 75: 0.56, 100: 0.61, 150: 0.87}),
        ("carriage-push", {75: 0.45, 200: 1.25}),
        ("carriage-pull-back", {0: 0.46, 100: 1.23}),
    ],
)
def test_whole_effort_of_carriages_is_what_a_trial_computed(exercise, efforts):
    """record.md §4, 80 kg and 1.80 m, constant pull."""
    for pull, wanted in efforts.items():
        law = Spring(start_n=pull, end_n=pull + 1e-6, travel_m=0.9)
        loads = (SpringLoad(spring=law),) if pull else ()
        got = effort(Setup(exercise=EXERCISES[exercise], body=BODY, loads=loads))
        assert got == pytest.approx(wanted, rel=0.04), pull


def test_assistance_climbs_by_removing_help_without_a_special_case():
    """In front the ladder goes up by less spring to where springs push the feet apart, and beyond
    by more; the turning point is told.
    """
    found = sprung("carriage-lunge-front")
    turn = found.rungs[found.turning]
    helped = [r for r in found.rungs if r.elastic_n < turn.elastic_n]
    pushed = [r for r in found.rungs if r.elastic_n > turn.elastic_n]
    assert len(helped) >= 2 and len(pushed) >= 4
    by_pull = sorted(helped, key=lambda r: r.elastic_n)
    assert [r.effort for r in by_pull] == sorted((r.effort for r in by_pull), reverse=True)
    by_pull = sorted(pushed, key=lambda r: r.elastic_n)
    assert [r.effort for r in by_pull] == sorted(r.effort for r in by_pull)
    assert sprung("carriage-pull-back").turning is None
    # help that is taken away asks the knee more, and the hip less
    up, down = (
        turns(turn, by_pull[-1]) if not helped else turns(turn, max(helped, key=lambda r: r.effort))
    )
    assert ("knee" in up) != ("knee" in down)


def test_nothing_is_done_without_a_spring_on_a_carriage_that_is_not_free():
    assert all(r.bands for r in sprung("carriage-pull-back").rungs)


def test_a_sled_s_rungs_count_plates_and_an_empty_sled_is_one():
    kit = Kit(
        weights=(Weight(id="p", kind="plate", kg=20, count=4),),
        presses=(SledPress(id="s", name="Press", rail_deg=45, empty_kg=40),),
    )
    load = Sled(kg=40, empty_kg=40)
    setup = Setup(exercise=EXERCISES["leg-press-45"], body=BODY, loads=(load,))
    found = ladder_of(setup, (), kit)
    assert [r.kg for r in found.rungs] == [0.0, 40.0, 80.0]
    assert found.present == 1


def test_a_wide_step_is_bridged_by_reps_that_come_as_close_to_failure():
    found = ladder_of(split(16), (), dumbbells(8, 16))
    below, above = found.now, found.above
    bridge = bridge_over(below, above, 12)
    assert bridge.reach == 12 and bridge.after < 12
    # Epley, by hand: 12 and 2 left is 1 / (1 + 14/30) of the limit
    limit = (1 / (1 + 14 / 30)) * above.peak / below.peak
    assert bridge.after == round(30 * (1 / limit - 1) - 2)
    assert reps_after(1.0, 10) == 10 and reps_after(2.0, 10) is None
    assert reps_by_seconds(10, (0.8, 3.0), (0.8, 5.0)) == 6


def test_what_is_harder_without_weight_has_its_effort_and_reps():
    found = ladder_of(split(24), (), dumbbells(12))
    ways = {plain(w.words): w for w in harder_ways(found, Tempo(), 10)}
    assert ways["slower, 4 s down"].reps == 6 and ways["slower, 4 s down"].seconds
    assert ways["pause of 2 s"].reps == 6 and ways["one and a quarter reps"].reps == 8
    # 5 s a rep for 3 is as much with three fifths of the effort: body weight asks more. 1.25 times
    # is as much with four fifths: body weight asks less
    assert ways["slower, 4 s down"].lighter is None
    assert ways["one and a quarter reps"].lighter is found.rungs[0]
    longer = next(w for said, w in ways.items() if said.startswith("longer range"))
    assert longer.effort > found.now.effort and longer.reps < 10
    assert longer.effort == pytest.approx(effort(longer.setup), rel=0.01)


def test_a_ramp_goes_up_by_what_is_in_stock():
    kit = Kit(
        weights=(
            Weight(id="bar", kind="bar", kg=20),
            *(Weight(id=f"p{k}", kind="plate", kg=k, count=4) for k in (2.5, 5, 10, 20)),
        ),
    )
    load = FreeMass(kg=100, port="hands")
    hinge = Setup(exercise=EXERCISES["romanian-deadlift"], body=BODY, loads=(load,))
    ladder = ladder_of(hinge, (), kit)
    sets = warm_up(ladder)
    assert [(s.rung.kg, s.reps) for s in sets] == [(20, 8), (40, 8), (55, 5), (70, 3), (85, 2)]
    assert warm_up(ladder, again=True) == (), "the same joints are warm already"
    light = ladder_of(split(16), (), dumbbells(8))
    assert len(warm_up(light)) == 1


def test_one_leg_starts_at_equal_demand_beside_half_the_load():
    two = Setup(
        exercise=EXERCISES["back-squat-high"], body=BODY, loads=(FreeMass(kg=60, port="shoulders"),)
    )
    ladder = ladder_of(split(16), (), dumbbells(4, 8, 12, 16, 20, 24, 28))
    start = one_leg_start(two, ladder)
    half = leg_effort(curve(two, lowering=False))[0]
    assert start.leg == pytest.approx(half, rel=0.01) and start.half_kg == 30
    assert start.leg == pytest.approx(effort(two) / np.sqrt(2), rel=0.01), "two legs alike"
    assert start.half.kg == 32.0
    higher = [r for r in ladder.rungs if r.effort > start.rung.effort]
    assert all(r.leg > start.leg for r in higher)
    # body weight counts: half is too much of a light load, and less than it may be of a heavy one
    starts = []
    for kg in (20, 60, 100):
        one = one_leg_start(replace(two, loads=(FreeMass(kg=kg, port="shoulders"),)), ladder)
        starts.append(None if one.rung is None else one.rung.kg)
    assert starts == [8.0, 32.0, 56.0]
    assert is_two_legged_for("split-squat", "front-squat")
    assert not is_two_legged_for("split-squat", "leg-extension")


def test_one_purchase_closes_the_widest_gap():
    ladder = ladder_of(split(24), (), dumbbells(8, 12, 20))
    bought = purchase_for(ladder, dumbbells(8, 12, 20))
    assert plain(bought.words) == "a pair of 16 kg dumbbells"
    assert bought.gap == pytest.approx(40 / 24 - 1)
    assert bought.becomes == pytest.approx((32 / 24 - 1, 40 / 32 - 1))
    assert purchase_for(ladder_of(split(24), (), dumbbells(12)), dumbbells(12)) is None


def test_share_is_of_effort_where_a_band_comes_in():
    loop = BandStock(
        id="l", name="loop", shape=BandShape.LOOP, law=points_law(rest_m=0.5, top_n=120)
    )
    found = ladder_of(split(16), (), replace(dumbbells(8), bands=(loop,)))
    share, of_load = share_of(found.rungs[-2], found.rungs[-1])
    assert not of_load and share == pytest.approx(
        found.rungs[-1].effort / found.rungs[-2].effort - 1
    )


def test_an_unequal_pair_climbs_by_pairs_near_seventy_to_thirty():
    """Common practice, no source: the heavier opposite the working leg."""
    kit = Kit(
        weights=tuple(
            Weight(id=f"d{k}", kind="dumbbell", kg=k, count=2) for k in (4, 8, 10, 12, 16, 20)
        )
    )
    batches = batches_of(EXERCISES["offset-lunge"], kit, BODY, Limits(), None)
    batch = next(b for b in batches if b.stock == "unequal pair")
    row = batch.row(0, 0)
    found = ladder_of(batch.setup(BODY, Limits(), [row]), row.pieces, kit)
    pairs = [sorted((p.kg for p in r.pieces), reverse=True) for r in found.rungs]
    assert len(pairs) >= 4 and all(len(pair) == 2 for pair in pairs)
    stock = (4, 8, 10, 12, 16, 20)
    for heavy, light in pairs:
        total = heavy + light
        others = [a for a in stock for b in stock if a > b and a + b == total]
        best = min(others, key=lambda a: abs(a / total - 0.7))
        assert abs(heavy / total - 0.7) <= abs(best / total - 0.7) + 1e-9, (heavy, light)
    totals = [sum(pair) for pair in pairs]
    assert totals == sorted(totals), "in order of effort, so of weight"
