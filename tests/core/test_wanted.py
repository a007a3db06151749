"""A wanted loading said by itself: handles, shapes, rep style as dose; as a target of the
search.
"""

from __future__ import annotations

import numpy as np
import pytest
from scipy.interpolate import PchipInterpolator

from tests.core.test_brute import KIT, MEMO, RULES
from tests.looked import looked
from tests.spoken import refused
from widearc.core.answers import tweaks_for
from widearc.core.answers.tweaks import styles_for
from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.dose import RepStyle, StyleKind, Tempo, dose_on_grid, style_weight
from widearc.core.equipment import FreeMass
from widearc.core.errors import InputError, TargetError
from widearc.core.exercises import EXERCISES
from widearc.core.intent import HANDLES, Intent, Shape, WantedAction, handles_of
from widearc.core.matching import compare, styled, target_of, target_of_intent
from widearc.core.movement import Setup
from widearc.core.search import Question, ranked, search
from widearc.core.search.wanted import USUAL_KNEE, wanted_of
from widearc.core.statics import curve
from widearc.core.strength import equal_effort_reps, hardest
from widearc.words import plain

BODY, LIMITS = Body(), Limits()
FIVE = tuple(zip(HANDLES, (120.0, 150.0, 130.0, 90.0, 40.0), strict=True))


def knee(**more):
    return WantedAction(
        action=Action.KE, **({"from_deg": 95.0, "to_deg": 10.0, "handles": FIVE} | more)
    )


SQUAT = curve(
    Setup(exercise=EXERCISES["goblet-squat"], body=BODY, loads=(FreeMass(kg=24, port="goblet"),)),
    lowering=False,
)


def test_the_curve_passes_through_its_handles_and_never_over_them():
    part = knee()
    assert part.at(np.array(HANDLES)) == pytest.approx([nm for _, nm in FIVE])
    along = np.linspace(0, 1, 500)
    assert part.at(along).max() <= 150.0 + 1e-9
    assert part.at(along) == pytest.approx(
        PchipInterpolator(HANDLES, [nm for _, nm in FIVE])(along)
    )


def test_the_lengthened_end_is_where_the_muscle_is_long():
    bins = knee().demand_nm(BODY)
    assert bins[np.searchsorted(CENTRES_DEG, 94.5)] == pytest.approx(120, abs=2)
    assert bins[np.searchsorted(CENTRES_DEG, 10.5)] == pytest.approx(40, abs=2)
    curl = WantedAction(action=Action.KF, from_deg=5, to_deg=90, handles=FIVE).demand_nm(BODY)
    assert curl[np.searchsorted(CENTRES_DEG, 5.5)] == pytest.approx(120, abs=2)


def test_a_degree_covered_in_part_counts_in_part():
    bins = knee(from_deg=90.4, to_deg=20.0, handles=((0.0, 100.0), (1.0, 100.0))).demand_nm(BODY)
    assert bins.sum() == pytest.approx(70.4 * 100, rel=1e-9)


@pytest.mark.parametrize("shape", [s for s in Shape if s is not Shape.ORIGINAL])
def test_a_shape_has_the_mean_it_was_given(shape):
    bins = knee(handles=None, shape=shape, mean_nm=80.0, from_deg=93.3).demand_nm(BODY)
    assert bins.sum() / 83.3 == pytest.approx(80.0, rel=1e-6)


@pytest.mark.parametrize(
    ("more", "where"),
    [
        ({"from_deg": 10.0, "to_deg": 95.0}, "/to_deg"),
        ({"from_deg": 12.0}, "/to_deg"),
        ({"to_deg": float("nan")}, "/to_deg"),
        ({"from_deg": 400.0}, "/from_deg"),
        ({"handles": None}, "/handles"),
        ({"shape": Shape.EVEN}, "/handles"),
        ({"handles": ((0.0, 10.0), (0.5, 10.0))}, "/handles"),
        ({"handles": ((0.0, 0.0), (1.0, 0.0))}, "/handles"),
        ({"handles": ((0.0, 10.0), (1.0, -5.0))}, "/handles/1/nm"),
        ({"handles": None, "shape": Shape.EVEN, "mean_nm": 0.0}, "/mean_nm"),
        ({"handles": None, "shape": Shape.ORIGINAL}, "/shape"),
    ],
)
def test_what_is_wrong_with_a_wanted_action_is_named(more, where):
    with pytest.raises(InputError) as refused:
        knee(**more)
    assert refused.value.where == where


def test_no_strength_shape_to_the_side():
    with pytest.raises(InputError, match="no strength is known"):
        WantedAction(action=Action.AB, from_deg=0, to_deg=30, shape=Shape.STRENGTH)


def test_an_intent_has_one_or_two_joints_and_one_kind_of_level():
    even = {"handles": None, "shape": Shape.EVEN}
    hip = WantedAction(action=Action.HE, from_deg=90, to_deg=10, shape=Shape.EVEN)
    with pytest.raises(InputError, match="another joint"):
        Intent(parts=(knee(), WantedAction(action=Action.KF, from_deg=5, to_deg=90, handles=FIVE)))
    with pytest.raises(InputError, match="for both actions, or for none"):
        Intent(parts=(knee(), hip))
    with pytest.raises(InputError, match="one or two"):
        Intent(parts=())
    with refused(InputError, "1 to 20"):
        Intent(parts=(knee(),), sets=0)
    assert not Intent(parts=(knee(**even), hip)).has_level


def test_five_handles_hold_an_exercise_s_own_curve():
    target = target_of(SQUAT)
    for action, bins in looked(zip(target.actions, target.bins, strict=True), 2):
        start, end, handles = handles_of(bins, action)
        made = WantedAction(action=action, from_deg=start, to_deg=end, handles=handles).demand_nm(
            BODY
        )
        assert np.minimum(made, bins).sum() / np.maximum(made, bins).sum() > 0.95
        assert (start - end) * -action.direction > 0


def test_a_plain_rep_weighs_every_degree_alike():
    assert np.all(style_weight(RepStyle(), Tempo(), (95, 10)) == 1.0)


def test_a_quarter_more_at_the_lengthened_end_doubles_that_quarter():
    weight = style_weight(RepStyle(kind=StyleKind.ONE_AND_A_QUARTER), Tempo(), (100.0, 20.0))
    assert np.all(weight[(CENTRES_DEG > 80) & (CENTRES_DEG < 100)] == 2.0)
    assert np.all(weight[(CENTRES_DEG > 20) & (CENTRES_DEG < 80)] == 1.0)


def test_a_pause_keeps_its_whole_time_even_at_the_end_of_the_range():
    tempo = Tempo(lowering_s=2, lifting_s=1)
    for at in (60.0, 95.0):
        weight = style_weight(
            RepStyle(kind=StyleKind.PAUSE, at_deg=at, seconds=2.0), tempo, (95.0, 10.0)
        )
        inside = (CENTRES_DEG > 10) & (CENTRES_DEG < 95)
        assert (weight[inside] - 1.0).sum() * 3.0 / 85.0 == pytest.approx(2.0, rel=1e-6)


def test_partials_leave_nothing_outside_their_part():
    weight = style_weight(
        RepStyle(kind=StyleKind.PARTIALS, from_deg=95, to_deg=60), Tempo(), (95, 10)
    )
    assert np.all(weight[(CENTRES_DEG < 60) & (CENTRES_DEG > 0)] == 0)
    with pytest.raises(TargetError, match="partials"):
        styled(
            target_of(SQUAT), RepStyle(kind=StyleKind.PARTIALS, from_deg=150, to_deg=160), Tempo()
        )


@pytest.mark.parametrize(
    "style",
    [
        RepStyle(kind=StyleKind.SLOW_LOWERING, seconds=5.0),
        RepStyle(kind=StyleKind.ONE_AND_A_QUARTER),
    ],
    ids=["slow", "quarter"],
)
def test_weights_agree_with_the_dose_of_a_curve_that_turns_evenly(style):
    """A leg extension turns at an even speed, so demand times weight is its dose in the plain rep's
    unit.
    """
    found = curve(
        Setup(
            exercise=EXERCISES["leg-extension-dumbbell"],
            body=BODY,
            options={"seat_m": 0.6},
            loads=(FreeMass(kg=10, port="ankle"),),
        ),
        lowering=False,
    )
    tempo = Tempo(lowering_s=2.0, lifting_s=2.0)
    plain = dose_on_grid(found, Action.KE, RepStyle(), tempo)
    dose = dose_on_grid(found, Action.KE, style, tempo)
    angle = np.rad2deg(found.motion.angles["knee"][0])
    weight = style_weight(style, tempo, (float(angle[0]), float(angle[-1])))
    used = plain > 1.0
    assert dose[used][2:-2] == pytest.approx((plain * weight)[used][2:-2], rel=0.02)


def test_a_style_named_by_the_knee_is_passed_on_to_the_hip():
    target = styled(
        target_of(SQUAT), RepStyle(kind=StyleKind.PARTIALS, from_deg=110, to_deg=70), Tempo()
    )
    assert len(target.weights) == 2 and all(0 < w.mean() < 1 for w in target.weights)
    hip = target.actions.index(Action.HE)
    left = CENTRES_DEG[target.bins[hip] > 0]
    assert left.min() > 30  # the shortened end of the hip is cut as well


def test_without_a_level_only_where_it_lies_counts():
    loose = Intent(parts=(knee(handles=None, shape=Shape.STRETCH),))
    target = target_of_intent(loose, BODY)
    assert not target.has_level
    found = compare(target, SQUAT.motion.angles, SQUAT.demand_nm, 1)
    assert found.score(target)[0] == found.shape[0]
    brought = target.at_level_of(found)
    assert sum(b.sum() for b in brought.bins) == pytest.approx(sum(b.sum() for b in found.bins))
    heavy = target_of_intent(
        Intent(parts=(knee(handles=None, shape=Shape.STRETCH, mean_nm=100),)), BODY
    )
    assert heavy.has_level and heavy.key != target.key


def test_an_intent_is_searched_for(kit):
    ranking = search(Intent(parts=(knee(),)), kit, body=BODY, limits=LIMITS)
    assert len(ranking.candidates) > 4
    best = ranking.candidates[0]
    assert best.match == pytest.approx(float(best.comparison.match[0]))
    again = compare(ranking.target, best.curve.motion.angles, best.curve.demand_nm, 1)
    assert again.match[0] == pytest.approx(best.match)
    assert not any("exercise to replace" in plain(out.reason) for out in ranking.excluded)


def test_an_intent_without_level_ranks_by_shape(kit):
    ranking = search(
        Intent(parts=(knee(handles=None, shape=Shape.STRETCH),)), kit, body=BODY, limits=LIMITS
    )
    assert all(c.match == pytest.approx(c.shape) for c in ranking.candidates)
    assert [round(100 * c.match) for c in ranking.candidates] == sorted(
        (round(100 * c.match) for c in ranking.candidates), reverse=True
    )


def test_a_hip_intent_uses_the_usual_knee_range():
    hip = Intent(parts=(WantedAction(action=Action.HE, from_deg=90, to_deg=10, handles=FIVE),))
    wanted = wanted_of(hip, BODY)
    assert (wanted.knee.from_deg, wanted.knee.to_deg) == USUAL_KNEE
    assert wanted.exercise is None and wanted.uncertainty(None).targets == {}


def test_equal_effort_keeps_the_reps_in_reserve():
    # Epley: 15 reps to the limit at 2/3, 10 at 3/4
    same = equal_effort_reps(1 / (1 + 15 / 30), 1 / (1 + 10 / 30), 12)
    assert same.reps == 7
    assert equal_effort_reps(0.7, 0.7, 8).reps == 8


@pytest.mark.parametrize(
    ("first", "other", "reps", "says"),
    [
        (1.1, 0.7, 5, "above"),
        (0.7, 1.0, 5, "above"),
        (0.4, 0.7, 5, "more than 30"),
        (0.9, 0.8, 10, "more than this"),
        (0.6, 0.95, 5, "not one rep"),
    ],
)
def test_where_no_reps_can_be_said_the_reason_is(first, other, reps, says):
    found = equal_effort_reps(first, other, reps)
    assert found.reps is None and says in plain(found.words)


def test_the_hardest_place_is_by_strength_not_by_demand():
    demand = {"knee_extension": np.array([50.0, 80.0]), "hip_extension": np.array([90.0, 20.0])}
    usual = {"knee_extension": np.array([100.0, 100.0]), "hip_extension": np.array([300.0, 300.0])}
    assert hardest(demand, usual) == ("knee_extension", pytest.approx(0.8), 1)
    assert hardest({"knee_extension": np.array([1.0])}, usual) is None


def test_quarters_share_the_whole_dose_and_a_pause_adds_its_time():
    plain = Intent(
        parts=(knee(handles=((0.0, 80.0), (1.0, 80.0))),), tempo=Tempo(lowering_s=2, lifting_s=1)
    )
    (shares,) = plain.quarters(BODY)
    assert sum(shares) == pytest.approx(1.0, abs=1e-6) and shares == pytest.approx(
        (0.25,) * 4, abs=0.01
    )
    assert plain.rep_s == pytest.approx(3.0)
    held = Intent(
        parts=plain.parts,
        tempo=plain.tempo,
        style=RepStyle(kind=StyleKind.PAUSE, at_deg=90, seconds=2),
    )
    assert held.rep_s == pytest.approx(5.0, rel=0.02)
    assert held.quarters(BODY)[0][0] > 0.4
    quarter = Intent(
        parts=plain.parts, tempo=plain.tempo, style=RepStyle(kind=StyleKind.ONE_AND_A_QUARTER)
    )
    assert quarter.rep_s == pytest.approx(3.75, rel=0.02)


def test_demand_is_compared_whatever_the_time_unless_dose_is_asked_for():
    """As found: a goblet squat lowered in four seconds was 83 % of a back squat of 100 kg."""
    slow = RepStyle(kind=StyleKind.SLOW_LOWERING, seconds=4.0)
    plain = wanted_of(SQUAT, BODY)
    by_demand = wanted_of(SQUAT, BODY, style=slow)
    by_dose = wanted_of(SQUAT, BODY, style=slow, by_dose=True)
    assert by_demand.target.key == plain.target.key
    assert by_dose.target.work_j > 1.2 * plain.target.work_j
    part = RepStyle(kind=StyleKind.PARTIALS, from_deg=110, to_deg=70)
    cut = wanted_of(SQUAT, BODY, style=part).target
    assert cut.work_j < plain.target.work_j
    knee = cut.actions.index(Action.KE)
    assert cut.bins[knee][CENTRES_DEG < 70].sum() == 0


def test_only_what_cuts_the_range_is_a_tweak_of_the_reps_unless_dose_is_asked_for():
    questions = {
        dose: Question(
            asked=SQUAT, kit=KIT, body=BODY, limits=LIMITS, rules=RULES, memo=MEMO, by_dose=dose
        )
        for dose in (False, True)
    }
    kinds: dict[bool, set[str]] = {False: set(), True: set()}
    for dose, question in questions.items():
        for candidate in ranked(question).candidates:
            tried = styles_for(candidate, question)
            kinds[dose] |= {style.kind.value for style in tried}
            if candidate.exercise.fails_alone != "yes":
                assert not {s.kind.value for s in tried} & {"partials", "one-and-a-quarter"}
            for tweak in tweaks_for(candidate, question):
                slow = tweak.key.startswith(("style:pause", "style:slow", "style:one"))
                assert ("lighter or fewer" in plain(tweak.note)) is slow
    assert kinds[False] == {"partials"}
    assert {"pause", "slow-lowering", "one-and-a-quarter", "partials"} <= kinds[True]
