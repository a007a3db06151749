"""How sure a match is, against what it is meant to foretell: paired draws of every error at once.

Five wanted lifts, eight stand-ins each. A draw moves the body, the pushes that nobody knows, how
the wanted lift is hit and how each stand-in is hit, all by their standard errors; the stand-ins of
a draw share what they would share. The formulas see one error at a time.
"""

from __future__ import annotations

import itertools
from functools import cache

import numpy as np
import pytest

from tests.looked import looked
from widearc.core.body import Body
from widearc.core.equipment import FreeMass, Sled, Stack
from widearc.core.exercises import EXERCISES
from widearc.core.matching import compare, target_of
from widearc.core.movement import Setup
from widearc.core.search.uncertainty import (
    WANTED,
    WANTED_LOAD,
    Uncertainty,
    Unsure,
    _computed,
    chance_better,
    uncertainties_of,
    wanted_uncertainty,
)
from widearc.core.statics import SHARED, BodyUncertainty, Doubt, curve, gathered, moved, sources_of

DRAWS, TOGETHER = 1000, 40
SAMPLES = 21  # of each drawn curve: the same for all that is compared
LOAD = 0.02


def mass(kg, port):
    return (FreeMass(kg=kg, port=port),)


CAM = Stack(kg=40, angle_deg=(0, 30, 60, 90, 110), radius_m=(0.14, 0.16, 0.17, 0.15, 0.13))
SQUATS = {
    "back-squat-high": mass(60, "back-high"),
    "front-squat": mass(50, "front-rack"),
    "goblet-squat": mass(32, "goblet"),
    "split-squat": mass(20, "hands"),
    "rear-raised-split-squat": mass(16, "hands"),
    "ball-wall-squat": mass(30, "hands"),
    "step-up": mass(16, "hands"),
    "walking-lunge": mass(8, "hands"),
}
HINGES = {
    "romanian-deadlift": mass(90, "hands"),
    "deadlift": mass(80, "hands"),
    "good-morning": mass(50, "back-high"),
    "back-extension-45": mass(20, "goblet"),
    "one-leg-romanian-deadlift": mass(30, "hands"),
    "lean-lunge": mass(10, "hands"),
    "hip-thrust-one-leg": mass(20, "hip-crease"),
    "b-stance-squat": mass(30, "back-high"),
}
ASKED = {
    "leg-press-45": ((Sled(kg=120, empty_kg=38),), SQUATS),
    "back-squat-high": (
        mass(80, "back-high"),
        {
            **{k: v for k, v in SQUATS.items() if k != "back-squat-high"},
            "leg-press-45": (Sled(kg=140, empty_kg=38),),
        },
    ),
    "leg-extension": (
        (CAM,),
        {
            **{k: v for k, v in SQUATS.items() if k not in ("back-squat-high", "front-squat")},
            "sissy-squat": (),
            "reverse-nordic": (),
        },
    ),
    "hip-thrust": (mass(100, "hip-crease"), HINGES),
    "rear-raised-split-squat": (
        mass(20, "hands"),
        {
            **{k: v for k, v in SQUATS.items() if k != "rear-raised-split-squat"},
            "reverse-lunge": mass(10, "hands"),
        },
    ),
}


def setup_of(name, loads):
    return Setup(exercise=EXERCISES[name], body=Body(), loads=loads, samples=SAMPLES)


@cache
def foretold(wanted):
    """Return the formulas' answer for a wanted lift and each of its stand-ins."""
    loads, others = ASKED[wanted]
    asked = curve(setup_of(wanted, loads), lowering=False)
    target = target_of(asked)
    doubt = wanted_uncertainty(asked, BodyUncertainty(), lambda t: t)
    unsure = []
    for name, own in others.items():
        made = curve(setup_of(name, own), lowering=False)
        compared = compare(target, made.motion.angles, made.demand_nm, 1)
        unsure.append(
            Unsure(
                own=made, compared=compared, target=target, wanted=doubt, errors=(LOAD,) * len(own)
            )
        )
    return dict(zip(others, uncertainties_of(unsure), strict=True))


@cache
def drawn(wanted):
    """Return the matches of all stand-ins in each draw, (draws, stand-ins); NaN where one cannot be
    done.
    """
    loads, others = ASKED[wanted]
    rng = np.random.default_rng(1944)
    body = BodyUncertainty()
    asked, doubt = setup_of(wanted, loads), Doubt(body=body, loads=(WANTED_LOAD,) * len(loads))
    setups = [setup_of(name, own) for name, own in others.items()]
    doubts = [Doubt(body=body, loads=(LOAD,) * len(setup.loads)) for setup in setups]
    found = np.full((DRAWS, len(setups)), np.nan)
    for start in range(0, DRAWS, TOGETHER):
        # those computed together have one body and one ankle each, and differ in all else
        bodies = {name: rng.normal() for name in ("mass", "thigh", "shank")}
        ankles = [rng.normal() for _ in range(1 + len(setups))]
        moves = []
        for _ in range(TOGETHER):
            shared = {s: rng.normal() for s in sorted(SHARED - bodies.keys())} | bodies
            for one, d, ankle in zip((asked, *setups), (doubt, *doubts), ankles, strict=True):
                own = {s: rng.normal() for s in sources_of(one, d) if s not in SHARED}
                moves.append(moved(one, shared | own | {"ankle limit": ankle}, d))
        shares = _computed(moves)
        for row in range(TOGETHER):
            target, *rest = shares[row * (1 + len(setups)) : (row + 1) * (1 + len(setups))]
            if target is not None:
                found[start + row] = matches(target_of(target.row(0)), rest)
    return found


def matches(target, shares):
    """Return the matches of some shares' only rows, NaN for None."""
    made = np.full(len(shares), np.nan)
    there = [index for index, share in enumerate(shares) if share is not None]
    got = gathered([shares[index] for index in there])
    scores = compare(target, got.angles, got.demand, got.rows).score(target)
    made[there] = [scores[int(at[0])] for at in got.at]
    return made


@pytest.mark.parametrize("wanted", ASKED)
def test_what_is_usual_and_how_far_it_spreads_is_what_draws_show(wanted):
    sure, found = foretold(wanted), drawn(wanted)
    assert len(sure) == 8
    off = []
    for column, (name, one) in enumerate(sure.items()):
        values = found[:, column]
        values = values[np.isfinite(values)]
        assert len(values) > 0.7 * DRAWS, name
        assert one.usual == pytest.approx(values.mean(), abs=0.08), name
        assert one.sd == pytest.approx(values.std(), abs=0.08), name
        assert one.usual <= one.nominal
        off.append(abs(one.usual - values.mean()))
    assert np.mean(off) < 0.03


def test_the_chance_that_one_beats_the_other_is_what_paired_draws_show():
    off = []
    for wanted in ASKED:
        sure, found = list(foretold(wanted).values()), drawn(wanted)
        for a, b in itertools.combinations(range(len(sure)), 2):
            both = found[np.isfinite(found[:, a]) & np.isfinite(found[:, b])]
            off.append(chance_better(sure[a], sure[b]) - np.mean(both[:, a] > both[:, b]))
    size = np.abs(looked_at := np.array(off))
    assert len(looked_at) == 5 * 28
    assert size.mean() < 0.06
    assert size.max() < 0.2


def test_a_pair_is_weighed_by_what_it_does_not_share():
    """Two stand-ins moved alike by the body are told apart; by their own loads they are not."""
    apart = {"first": 0.80, "other": 0.78}
    for source, sure in (("mass", True), ("load 0", False), (f"{WANTED}depth", True)):
        first, other = (
            Uncertainty(nominal=value, effects={source: (0.05, 0.0)}, demand_nm={})
            for value in apart.values()
        )
        chance = chance_better(first, other)
        assert (chance == 1.0) if sure else (0.5 < chance < 0.7)
        assert chance_better(other, first) == pytest.approx(1.0 - chance)


def test_a_loss_lowers_what_is_usual_and_never_the_nominal():
    for loss in looked((0.0, 0.05, 0.2)):
        one = Uncertainty(nominal=0.97, effects={"depth": (0.02, -loss)}, demand_nm={})
        assert one.nominal == 0.97
        assert one.usual == pytest.approx(0.97 - 0.8 * loss)
        assert one.sd == pytest.approx(np.hypot(0.02, 0.6 * loss))
