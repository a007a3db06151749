"""Stand-ins of the trade: each is admissible where its needs are met, and what it loses is said.
Common practice, no source.
"""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from tests.looked import looked
from widearc.core.answers import cautions_of
from widearc.core.answers.cautions import BAND, BOXES, DEEPER, PARTNER, WARM_UP
from widearc.core.body import Body, Limits
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Kit, Rules, Weight, left_out
from widearc.core.search import Memo, Question, ranked
from widearc.core.statics import curve
from widearc.core.words import UNSAID
from widearc.store import ClientRow
from widearc.usecases.swap.usual import USUAL_KIT, usual_kg
from widearc.usecases.swap.wanted import Stocked, SwapAsk, wanted_setup
from widearc.words import plain

EVERYTHING: Kit = replace(
    USUAL_KIT,
    weights=(
        Weight(id="bar", kind="bar", kg=20),
        *(Weight(id=f"p{kg}", kind="plate", kg=kg, count=4) for kg in (2.5, 5, 10, 20)),
        *(Weight(id=f"d{kg}", kind="dumbbell", kg=kg, count=2) for kg in (4, 8, 12, 16, 24, 32)),
        Weight(id="k24", kind="kettlebell", kg=24, count=2),
    ),
)
RULES = Rules(partner=True, to_shoulders_kg=60.0, floor_length_m=9.0)
MEMO = Memo()
BODY, LIMITS = Body(), Limits()

TRADE = [
    *(("leg-press-45", x) for x in ("bodyweight-squat", "band-squat", "loop-squat")),
    *(("leg-press-45", x) for x in ("ball-wall-squat", "ball-squeeze-squat")),
    *(("hack-squat", x) for x in ("hack-squat-ball-band", "hack-squat-doubled-band")),
    ("belt-squat-cable", "corner-bar-wide-squat"),
    ("belt-squat-cable", "belt-squat-home"),
    ("romanian-deadlift", "belt-hinge-boxes"),
    *(("leg-extension", x) for x in ("couch-knee-press", "leg-extension-dumbbell")),
    *(("leg-extension", x) for x in ("reverse-nordic", "sissy-squat")),
    ("back-extension-45", "back-extension-couch"),
    ("hip-thrust-raised-feet", "hip-thrust-couch-table"),
    ("hip-thrust-machine", "hip-thrust-band"),
    ("abduction-machine", "abduction-loop"),
    ("pendulum-hip-extension", "pendulum-hip-extension-couch"),
    ("pendulum-abduction", "side-lying-raise-edge"),
    ("glute-ham-raise", "glute-ham-ball"),
    ("lying-leg-curl", "leg-curl-dumbbell"),
    ("nordic-curl", "seated-leg-curl"),
    ("romanian-deadlift", "rail-good-morning"),
    ("walking-lunge", "split-squat"),
    *(("back-squat-high", x) for x in ("front-squat", "leg-press-45")),
    ("split-squat", "offset-lunge"),
]


def client():
    return ClientRow(id=1, name="Cook", mass_kg=80.0, stature_m=1.8)


@cache
def asked(exercise):
    kits = (Stocked(read=lambda: EVERYTHING),)
    ask = SwapAsk(place_id=1, client_id=1, exercise=exercise, kg=usual_kg(EXERCISES[exercise]))
    return curve(wanted_setup(ask, client(), kits).setup, lowering=False)


@cache
def answer(exercise):
    return ranked(
        Question(
            asked=asked(exercise),
            kit=EVERYTHING,
            body=client().body,
            limits=LIMITS,
            rules=RULES,
            memo=MEMO,
        )
    )


@pytest.mark.parametrize(("wanted", "instead"), TRADE)
def test_a_stand_in_of_the_trade_is_offered_and_what_it_loses_is_said(wanted, instead):
    found = answer(wanted)
    left = {e.exercise.id: plain(e.reason) for e in found.excluded}
    own = next((c for c in found.candidates if c.exercise.id == instead), None)
    assert own is not None, left.get(instead)
    assert plain(own.sentence).endswith(".")
    # what lacks is named where it lacks
    lacking = [float(share[0]) for share in own.comparison.covered if share[0] < 0.6]
    words = ("short", "not loaded", "covered", "nothing", "no load")
    assert not lacking or any(word in plain(own.sentence).lower() for word in words)


def test_nothing_that_cannot_admit_a_lift_is_said_to():
    """As found: a front squat "needs a load on a belt"."""
    spine = replace(LIMITS, no_axial_load=True)
    out = left_out(EXERCISES["front-squat"], EVERYTHING, spine, RULES, frozenset(), {})
    assert "no load on the spine" in plain(out.reason) and out.admits == UNSAID


def deeper(own):
    """Degrees by which the main joint goes further into its long end than what is wanted, by the
    curves themselves, where it is asked anything there.
    """
    action = own.target.actions[own.target.main]
    if action.joint not in own.curve.demand_nm:
        return 0.0
    angle = np.degrees(own.curve.motion.angles[action.joint][0])
    asked = angle[action.sign * own.curve.demand_nm[action.joint][0] > 0.5]
    if not asked.size or np.ptp(angle) < 5:
        return 0.0
    start = own.target.range_deg(own.target.main)[0]
    return asked.max() - start if action.direction < 0 else start - asked.min()


def test_cautions_stand_where_the_hand_is():
    """Every set-up with a band, box under a belt, partner or heavy free load that the answers above
    hold.
    """
    seen = Counter()
    for wanted in looked(sorted({w for w, _ in TRADE}), 10):
        for own in answer(wanted).candidates:
            said = cautions_of(own)
            assert len(said) == len(set(said))
            belted = "hip-belt" in {w.port for ways in own.exercise.ways for w in ways}
            for there, caution, name in (
                (bool(own.row.bands), BAND, "band"),
                (belted and float(own.row.options.get("box_m", 0)) > 0, BOXES, "box"),
                ("partner" in own.exercise.needs, PARTNER, "partner"),
                (own.row.kg >= 40, WARM_UP, "heavy"),
                (deeper(own) > 10.5 and own.row.kg > 0, DEEPER, "deeper"),
            ):
                seen[name] += there
                assert not there or caution in said, (own.exercise.id, caution)
    assert set(seen) == {"band", "box", "partner", "heavy", "deeper"} and min(seen.values()) > 0


def test_a_bar_on_the_back_on_the_toes_says_that_it_costs_balance():
    assert any("costs balance" in c for c in EXERCISES["calf-raise-bar"].cautions)


def test_for_a_seated_calf_raise_straight_knees_are_said_not_to_replace_it():
    found = {c.exercise.id: plain(c.sentence) for c in answer("calf-raise-seated").candidates}
    assert "does not replace raises with a bent knee" in found["calf-raise-step"]
    assert "does not replace" not in found["calf-raise-seated-weights"]
    back = {c.exercise.id: plain(c.sentence) for c in answer("calf-raise-step").candidates}
    assert "does not replace raises with a straight knee" in back["calf-raise-seated"]
