"""Large stocks: what differs is tried, under a budget, and nothing that matters is lost."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from widearc.core.body import Body, Limits
from widearc.core.equipment import FreeMass, LinearLaw, Spring
from widearc.core.exercises import EXERCISES
from widearc.core.kit import (
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    SledPress,
    SpringStock,
    Weight,
)
from widearc.core.kit import differing as stock
from widearc.core.kit.differing import spread, tried_of, untried
from widearc.core.kit.totals import bar_totals
from widearc.core.movement import Setup
from widearc.core.search import Question, ranked
from widearc.core.setups import batches_of, pulls
from widearc.core.statics import curve
from widearc.words import plain


def bands(number: int, seed: int = 5, count: int = 1) -> tuple[BandStock, ...]:
    rng = np.random.default_rng(seed)
    return tuple(
        BandStock(
            id=f"band {i}",
            name=f"band {i}",
            shape=BandShape.LOOP,
            law=LinearLaw(rest_m=rng.uniform(0.5, 1.3), rate_n_per_m=rng.uniform(60, 700)),
            count=count,
        )
        for i in range(number)
    )


def springs(number: int) -> tuple[SpringStock, ...]:
    return tuple(
        SpringStock(
            id=f"spring {i}",
            name=f"spring {i}",
            spring=Spring(start_n=20.0 + 7 * i, end_n=150.0 + 23 * i, travel_m=0.9),
            count=3,
        )
        for i in range(number)
    )


def squat(kg: float) -> Setup:
    return Setup(exercise=EXERCISES["back-squat-high"], loads=[FreeMass(kg=kg, port="back-high")])


def question(kit: Kit, kg: float = 60.0, taken: frozenset[str] = frozenset()) -> Question:
    return Question(asked=curve(squat(kg)), kit=kit, body=Body(), limits=Limits(), taken=taken)


def test_a_small_kit_is_tried_as_it_is():
    kit = Kit(bands=bands(stock.CROWDED_BANDS), springs=springs(5))
    assert tried_of(kit, frozenset({"band 1"})).signature() == kit.signature()
    assert untried(kit, tried_of(kit, frozenset())) == ()


def test_of_many_bands_free_ones_that_differ_are_tried_and_the_rest_is_said():
    kit = Kit(bands=bands(60), springs=springs(20))
    taken = frozenset(f"band {i}" for i in range(0, 60, 2))
    tried = tried_of(kit, taken)
    assert len(tried.bands) == stock.MOST_BANDS_TRIED and len(tried.springs) == 5
    assert taken.isdisjoint(b.id for b in tried.bands)
    said = " ".join(map(plain, untried(kit, tried)))
    assert "Of 60 bands, 12" in said and "Of 20 springs, 5" in said
    # every band that is not tried lies beside one that is
    pull = {b.id: stock.shares(stock.band_pull(b)) for b in kit.bands if b.id not in taken}
    used = np.stack([pull[b.id] for b in tried.bands])
    far = [float(np.abs(used - own).max(axis=1).min()) for own in pull.values()]
    every = np.stack(list(pull.values()))
    assert max(far) < 0.35 * float(np.ptp(every, axis=0).max())


def test_a_band_that_was_tried_and_is_taken_makes_room_for_another():
    kit = Kit(bands=bands(60))
    first = tried_of(kit, frozenset())
    gone = first.bands[0].id
    again = tried_of(kit, frozenset({gone}))
    assert gone not in {b.id for b in again.bands} and len(again.bands) == len(first.bands)
    untouched = next(b.id for b in kit.bands if b.id not in {x.id for x in first.bands})
    assert tried_of(kit, frozenset({untouched})).signature() == first.signature()


def test_bands_alike_make_no_more_sets_than_their_number():
    same = tuple(
        BandStock(
            id=f"band {i}",
            name=f"band {i}",
            shape=BandShape.LOOP,
            law=LinearLaw(rest_m=0.6, rate_n_per_m=200.0),
        )
        for i in range(40)
    )
    kit = tried_of(Kit(bands=same), frozenset())
    assert len(kit.bands) == 1
    found = [((b, 2),) for b in same]
    every = [(chosen, (), None) for chosen in found]
    every += [(a + b, (), None) for i, a in enumerate(found) for b in found[i + 1 :]]
    tried = pulls.differing(every, 100)
    assert sorted(len(chosen) for chosen, _, _ in tried) == [1, 2]


@settings(max_examples=40, deadline=None)
@given(st.integers(1, 80), st.integers(1, 30), st.integers(0, 10**6))
def test_what_is_chosen_leaves_nothing_farther_than_it_says(rows, most, seed):
    features = np.random.default_rng(seed).normal(size=(rows, 3))
    at, off = spread(features, most)
    assert len(set(at.tolist())) == len(at) <= max(1, most)
    far = np.abs(features[:, None] - features[None, at]).max(axis=2).min(axis=1)
    assert far.max() == pytest.approx(off)
    assert len(at) == min(rows, most) or off <= stock.ALIKE


@pytest.mark.parametrize("kg", [30.0, 60.0, 100.0])
def test_the_budget_costs_less_than_a_point_of_match(monkeypatch, kg):
    bars = (Weight(id="bar", kind="bar", kg=20.0), Weight(id="p", kind="plate", kg=5.0, count=8))
    kit = Kit(bands=bands(12, seed=11), weights=bars)
    ids = ("band-squat", "banded-bar-squat")
    sets = sum(1 for _ in pulls.band_sets(kit))
    assert sets > pulls.MOST_PULLS

    def matches() -> list[float]:
        asked = question(kit, kg)
        found = [asked.best(EXERCISES[id_]) for id_ in ids]
        return [one[0] for one in found if one is not None]

    capped = matches()
    monkeypatch.setattr(pulls, "MOST_PULLS", sets)
    monkeypatch.setattr(pulls, "MOST_ROWS", 10**6)
    free = matches()
    assert len(capped) == len(free) == 2
    for some, every in zip(capped, free, strict=True):
        assert every - 0.01 <= some <= every + 0.003


def test_five_hundred_items_ask_for_no_more_than_a_budget_of_set_ups():
    kit = Kit(
        weights=(
            Weight(id="bar", kind="bar", kg=20.0),
            *(Weight(id=f"d{i}", kind="dumbbell", kg=1.0 + i, count=2) for i in range(90)),
            *(Weight(id=f"p{i}", kind="plate", kg=0.5 + 0.61 * i, count=4) for i in range(40)),
        ),
        bands=bands(60),
        springs=springs(20),
        anchors=tuple(
            Anchor(id=f"a{i}", name=f"eye {i}", height_m=0.04 * (1 + i)) for i in range(50)
        ),
        furniture=tuple(
            Furniture(id=f"x{i}", name=f"box {i}", kind="box", height_m=0.1 + 0.01 * i)
            for i in range(80)
        ),
        presses=tuple(
            SledPress(id=f"s{i}", name=f"sled {i}", rail_deg=40.0 + i, empty_kg=30.0)
            for i in range(20)
        ),
    )
    asked = question(kit)
    rows = 0
    for exercise in EXERCISES.values():
        for batch in batches_of(exercise, asked.tried, Body(), Limits(), asked.wanted.knee):
            rows += len(batch.unloaded)
            assert len(batch.unloaded) <= pulls.MOST_ROWS + 200, exercise.id
            assert len(batch.totals) <= 301
    assert 1000 < rows < 12_000
    answer = ranked(asked)
    assert answer.candidates and len(answer.untried) >= 4


def test_many_plates_still_make_totals_close_together_with_few_pieces():
    plates = tuple(Weight(id=f"p{i}", kind="plate", kg=0.5 + 0.613 * i, count=4) for i in range(30))
    kit = Kit(weights=(Weight(id="bar", kind="bar", kg=20.0), *plates))
    found = bar_totals(kit)
    kg = [total.kg for total in found]
    assert kg[0] == 20.0 and kg == sorted(kg) and len(kg) <= 301
    assert max(b / a for a, b in itertools.pairwise(kg[5:])) < 1.05
    for total in found:
        assert math.isclose(sum(p.number * p.kg for p in total.pieces), total.kg, abs_tol=1e-6)
