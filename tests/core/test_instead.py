"""What stands beside the ranking: tweaks, pairs, why not, questions turned round, columns,
furniture that stands.
"""

from __future__ import annotations

import re
from dataclasses import replace

import numpy as np
import pytest

from tests.core.test_brute import BODY, HINGE, KIT, LIMITS, MEMO, PRESS, RULES
from widearc.core.answers import (
    SORTED,
    Beside,
    applied,
    beside,
    best_pair,
    equal_loads,
    muscle_match,
    muscle_thirds,
    needed_for,
    needs_pair,
    purchases_for,
    sorted_by,
    tweaks_for,
    weighted,
    why_not_higher,
)
from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.dose import RepStyle, StyleKind
from widearc.core.equipment import (
    Band,
    LinearLaw,
    MooneyRivlinLaw,
    PointsLaw,
    SpringLoad,
    held_down,
    stands,
)
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.core.matching import compare, covered, target_of_intent
from widearc.core.movement import Setup
from widearc.core.search import Question, ranked, sentence
from widearc.core.statics import curve
from widearc.core.units import G
from widearc.words import plain


@pytest.fixture(scope="module")
def question():
    return Question(
        asked=PRESS, kit=KIT, body=BODY, limits=LIMITS, rules=RULES, memo=MEMO, by_dose=True
    )


@pytest.fixture(scope="module")
def ranking(question):
    return ranked(question)


def of(ranking, exercise):
    return next(c for c in ranking.candidates if c.exercise.id == exercise)


def test_a_tweak_gains_what_it_says_when_it_is_applied(question, ranking):
    seen = set()
    for candidate in ranking.candidates:
        for tweak in tweaks_for(candidate, question):
            after = applied(candidate, question, tweak.key)
            assert after is not None and tweak.gain >= 0.005
            assert after.match - candidate.match == pytest.approx(tweak.gain, abs=1e-6)
            assert after.extra == tweak.words or after.style.sentence == tweak.words
            seen.add(tweak.key.split(":")[0])
    assert seen == {"extra", "style"}


def test_tweaks_come_best_first_and_unknown_ones_are_not_applied(question, ranking):
    gains = [t.gain for t in tweaks_for(of(ranking, "goblet-squat"), question)]
    assert gains == sorted(gains, reverse=True)
    assert applied(of(ranking, "goblet-squat"), question, "extra:a horse") is None
    assert applied(of(ranking, "goblet-squat"), question, "style:nothing") is None


def test_a_style_weighs_the_stand_in_s_own_dose(question, ranking):
    plain = of(ranking, "goblet-squat")
    quarter = question.in_style(plain, RepStyle(kind=StyleKind.ONE_AND_A_QUARTER))
    knee = question.target.actions.index(Action.KE)
    more = quarter.comparison.bins[knee][0] - plain.comparison.bins[knee][0]
    angle = np.rad2deg(plain.curve.motion.angles["knee"][0])
    first = angle[0] - 0.25 * (angle[0] - angle[-1])
    assert np.abs(more[first - 1 > CENTRES_DEG]).max() < 1e-9 and more.sum() > 0
    assert quarter.curve is plain.curve and quarter.level > plain.level


def test_a_pair_is_the_sum_of_two_and_says_what_each_covers(question):
    two = Intent(
        parts=(
            WantedAction(action=Action.KE, from_deg=95, to_deg=10, shape=Shape.SQUEEZE, mean_nm=70),
            WantedAction(action=Action.HE, from_deg=85, to_deg=5, shape=Shape.SQUEEZE, mean_nm=70),
        )
    )
    asked = replace(question, asked=two)
    best = ranked(asked).candidates[0]
    pair = best_pair(asked)
    assert pair is not None and pair.first.exercise.id != pair.second.exercise.id
    target, total = asked.target, [0.0, 0.0]
    covers = wants = gives = 0.0
    found = [
        compare(target, c.curve.motion.angles, c.curve.demand_nm, 1)
        for c in (pair.first, pair.second)
    ]
    own = [one.bins for one in found]
    for i, wanted in enumerate(target.bins):
        both = own[0][i][0] + own[1][i][0]
        covers, wants, gives = (
            covers + covered(wanted, both),
            wants + wanted.sum(),
            gives + both.sum(),
        )
        total[i] = float(np.minimum(own[0][i][0], wanted).sum() / wanted.sum())
    other = wants * sum(float(one.other[0]) for one in found)
    assert pair.match == pytest.approx(covers / (wants + (gives - covers) / 2 + other / 4))
    assert pair.covers[0] == pytest.approx(tuple(total))
    assert needs_pair(best, asked) == (min(float(m[0]) for m in best.comparison.by_joint) < 0.6)
    assert best_pair(replace(question, asked=HINGE)) is None and not needs_pair(
        best, replace(question, asked=HINGE)
    )


def test_why_not_gives_the_computed_difference(question, ranking):
    best = max(ranking.candidates, key=lambda c: c.uncertainty.usual)
    other = ranking.candidates[-1]
    answer = why_not_higher(other.exercise, ranking, question)
    under = round(100 * best.match) - round(100 * other.match)
    said = f"is {under} points under {best.exercise.name.lower()} as computed"
    assert under > 0 and said in plain(answer.words)
    assert answer.candidate is other and plain(other.sentence) in plain(answer.words)
    assert "is the best that can be made here" in plain(
        why_not_higher(best.exercise, ranking, question).words
    )
    original = why_not_higher(EXERCISES["leg-press-45"], ranking, question)
    assert "this is the exercise to replace" in plain(original.words) and original.candidate is None


def test_why_not_says_what_a_taken_item_would_give(question):
    taken = replace(
        question, taken=frozenset({"m leg extension"}), names={"m leg extension": "taken"}
    )
    answer = why_not_higher(EXERCISES["leg-extension"], ranked(taken), taken)
    assert "leg extension taken. Were that not so it would match" in plain(answer.words)
    assert answer.candidate is not None and answer.candidate.exercise.id == "leg-extension"


def test_the_load_that_equals_in_work_in_peak_and_at_an_angle_is_the_closest_of_the_stock(
    question, ranking
):
    chosen = of(ranking, "back-squat-high")
    target = question.target
    knee = int(np.argmax([b.sum() for b in target.bins]))
    answers = {plain(a.by): a for a in equal_loads(chosen, question, 70.0)}
    assert set(answers) == {"in work", "in peak", "at 70°"}
    part = question.prepared(chosen.exercise).parts[0]
    bare = next(
        i
        for i, f in enumerate(part.batch.unloaded)
        if f.options == chosen.row.options and not f.extra
    )
    place = int(np.argmin(np.abs(CENTRES_DEG - 70.0)))
    for by, reading in (
        ("in work", lambda b: b.sum()),
        ("in peak", lambda b: b.max()),
        ("at 70°", lambda b: b[place]),
    ):
        off = {}
        for k, pick in enumerate(part.batch.totals):
            made = curve(part.batch.setup(BODY, LIMITS, (part.batch.row(bare, k),)), lowering=False)
            bins = compare(target, made.motion.angles, made.demand_nm, 1).bins[knee][0]
            off[pick.kg] = abs(reading(bins) / reading(target.bins[knee]) - 1)
        assert off[answers[by].kg] == pytest.approx(min(off.values()), abs=1e-9)
    with pytest.raises(InputError, match="angle that is wanted"):
        equal_loads(chosen, question, 150.0)
    assert equal_loads(of(ranking, "bodyweight-squat"), question) == ()


def test_what_an_anchor_box_or_band_would_have_to_be(question, ranking):
    band = of(ranking, "leg-extension-band")
    found = {plain(n.thing): n for n in needed_for(band, question, 0.01)}
    assert any(thing.startswith("anchor") for thing in found) and any(
        "times its pull" in thing for thing in found
    )
    for need in found.values():
        assert need.low <= need.best <= need.high and 0 < need.match <= 1
    out_of_reach = needed_for(band, question, 1.0)
    assert all(np.isnan(n.low) for n in out_of_reach)
    with pytest.raises(InputError):
        needed_for(band, question, 0.0)
    assert needed_for(of(ranking, "leg-press-one-leg"), question, 0.5) == ()


@pytest.mark.parametrize(
    "law",
    [
        LinearLaw(rest_m=1.0, rate_n_per_m=80),
        MooneyRivlinLaw(rest_m=0.8, area_m2=1e-4, c1_pa=1.2e5, c2_pa=0.8e5),
        PointsLaw(rest_m=1.0, length_m=(1.0, 1.5, 2.0), force_n_at=(0, 40, 70)),
    ],
    ids=["linear", "rubber", "points"],
)
def test_a_stronger_band_pulls_as_many_times_at_every_length(law):
    length = np.linspace(law.rest_m * 1.02, law.rest_m * 1.9, 7)
    assert law.scaled(1.7).force_n(length) == pytest.approx(1.7 * law.force_n(length))


def test_a_purchase_is_never_worth_less_than_nothing_and_names_an_exercise(question, ranking):
    poor = replace(
        question,
        kit=replace(KIT, weights=KIT.weights[-1:], presses=(), machines=(), furniture=(), bands=()),
    )
    found = purchases_for(poor)
    assert [b.match for b in found] == sorted((b.match for b in found), reverse=True)
    assert any(b.exercise for b in found)
    assert not any("band" in plain(b.words) for b in found)  # there is none to have another of


def columns(**more):
    usual = {
        "minutes": 2.0,
        "step": 0.1,
        "steady": 3,
        "alone": "yes",
        "spine": 1.0,
        "hand_kg": None,
        "slack": None,
        "axial": False,
        "long": 0.4,
    }
    return Beside(values=usual | more)


def test_columns_are_better_towards_one_and_the_sum_weighs_them():
    assert columns(steady=5).good("steady") == 1.0 > columns(steady=2).good("steady")
    assert (
        columns(alone="yes").good("alone")
        > columns(alone="with stops").good("alone")
        > columns(alone="no").good("alone")
    )
    assert columns(minutes=1).good("minutes") > columns(minutes=5).good("minutes")
    assert columns(step=None).good("step") == 0.0 < columns(step=0.05).good("step")
    assert columns(spine=None).good("spine") == 1.0 > columns(spine=1.5).good("spine")
    assert weighted(0.8, columns(), {}) == 0.8
    assert weighted(0.8, columns(steady=5), {"steady": 1.0}) == pytest.approx(0.9)


def test_sorting_by_a_column_never_changes_a_match(question, ranking):
    beside_all = {c.exercise.id: beside(c, question) for c in ranking.candidates}
    for by in (*(c.name for c in SORTED), "sum"):
        made = sorted_by(ranking.candidates, beside_all, by, {"steady": 2.0})
        assert sorted(c.exercise.id for c in made) == sorted(
            c.exercise.id for c in ranking.candidates
        )
    steady = sorted_by(ranking.candidates, beside_all, "steady", {})
    values = [beside_all[c.exercise.id]["steady"] for c in steady]
    assert values == sorted(values, reverse=True)
    assert sorted_by(ranking.candidates, beside_all, "match", {}) == list(ranking.candidates)


def test_a_muscle_over_its_own_length_is_matched_in_thirds(ranking):
    wanted = muscle_thirds(PRESS, "vasti")
    assert wanted is not None and muscle_match(wanted, wanted) == 1.0
    assert muscle_match((10.0, 5.0, 0.0), (5.0, 10.0, 0.0)) == pytest.approx(10 / 20)
    assert muscle_match(wanted, None) == 0.0
    press, hinge = (
        muscle_match(wanted, muscle_thirds(of(ranking, e).curve, "vasti"))
        for e in ("leg-press-one-leg", "romanian-deadlift")
    )
    assert press > 0.9 > hinge


def test_a_couch_slides_before_it_tips_or_tips_before_it_slides():
    level, down = np.array([50.0]), np.array([0.0])
    found = stands(40.0, 0.9, 0.45, level, down)
    assert found.gives_by == "slides" and found.margin == pytest.approx(0.4 * 40 * G / 50)
    tall = stands(40.0, 0.4, 1.5, level, down)
    assert tall.gives_by == "tips" and tall.margin == pytest.approx(
        40 * G * (0.2 - 0.05) / (50 * 1.5)
    )
    # weight on the edge holds it against sliding and turns it over a little
    heavy = stands(40.0, 0.9, 0.45, np.array([0.0]), np.array([800.0]))
    assert heavy.gives_by == "tips" and heavy.margin == pytest.approx(40 * G * 0.4 / (800 * 0.05))
    assert stands(40.0, 0.9, 0.45, np.array([0.0]), np.array([0.0])).margin == float("inf")


def test_what_a_stand_in_asks_outside_the_wanted_range_is_said():
    narrow = Intent(
        parts=(
            WantedAction(action=Action.KE, from_deg=70, to_deg=40, shape=Shape.EVEN, mean_nm=100),
        )
    )
    target = target_of_intent(narrow, BODY)
    squat = curve(
        Setup(exercise=EXERCISES["bodyweight-squat"], options={"knee_from_deg": 110}),
        lowering=False,
    )
    found = compare(target, squat.motion.angles, squat.demand_nm, 1)
    words = plain(sentence(target, found, squat))
    assert re.search(r"goes on past 70°, to 1(09|10)°", words), words
    wide = Intent(
        parts=(
            WantedAction(action=Action.KE, from_deg=110, to_deg=5, shape=Shape.EVEN, mean_nm=100),
        )
    )
    target = target_of_intent(wide, BODY)
    found = compare(target, squat.motion.angles, squat.demand_nm, 1)
    assert "goes on past" not in plain(sentence(target, found, squat))


def test_a_bar_on_the_back_needs_a_rack_even_in_a_lunge(question):
    lunge = EXERCISES["reverse-lunge"]
    with_rack = question.prepared(lunge).parts
    assert any(part.batch.stock == "bar" for part in with_rack)
    for part in with_rack:
        if part.batch.stock == "bar":
            assert all("rack" in bare.items() for bare in part.batch.unloaded)
    without = replace(question, kit=KIT.without(frozenset({"rack"})))
    assert all(part.batch.stock != "bar" for part in without.prepared(lunge).parts)
    taken = replace(question, taken=frozenset({"rack"}))
    best = taken.best(lunge)
    assert best is not None and best[1].batch.stock != "bar"


@pytest.mark.parametrize(
    ("name", "fails"),
    [
        ("alone", {"alone": "with stops"}),
        ("spine", {"axial": True}),
        ("quick", {"minutes": 3.0}),
        ("step", {"step": None}),
        ("taut", {"slack": 0.3}),
    ],
)
def test_a_filter_keeps_out_only_what_fails_it(name, fails):
    assert columns().passes({"alone", "spine", "quick", "step"}) and columns().passes(())
    assert not columns(**fails).passes({name}) and columns(**fails).passes(())


def all_harder(question, chosen):
    """By brute force: mean demand of every set-up of the same place, other bands or totals, over
    the chosen one's; anchors count by their name, each set-up computed for itself.
    """
    target, own = question.target, float(sum(b.sum() for b in chosen.comparison.bins))
    found = []
    for part in question.prepared(chosen.exercise).parts:
        mask = question.allowed(part)
        for g, bare in enumerate(part.batch.unloaded):
            anchors = [a and a[0].id for a in (bare.anchor, chosen.row.anchor)]
            if bare.options != chosen.row.options or anchors[0] != anchors[1]:
                continue
            for k in np.flatnonzero(mask[g]):
                made = curve(part.batch.setup(BODY, LIMITS, (part.batch.row(g, int(k)),)))
                bins = compare(target, made.motion.angles, made.demand_nm, 1).bins
                found.append(float(sum(b.sum() for b in bins)) / own - 1.0)
    return sorted(f for f in found if f > 0.005)


@pytest.mark.parametrize(
    "exercise", ["band-squat", "leg-extension-band", "hack-squat-doubled-band"]
)
def test_the_next_step_of_a_band_is_the_next_harder_of_all_that_are_here(question, exercise):
    mine = replace(question, by_dose=False)
    chosen = mine.candidate(mine.best(EXERCISES[exercise]))
    harder = all_harder(mine, chosen)
    if chosen.step is None:
        assert not harder
    else:
        assert chosen.step == pytest.approx(harder[0], abs=0.01)


def test_where_springs_help_less_of_them_is_the_next_step():
    lunge = curve(
        Setup(
            exercise=EXERCISES["carriage-lunge-front"],
            loads=(SpringLoad(spring=KIT.springs[0].spring, count=2),),
        ),
        lowering=False,
    )
    asked = Question(
        asked=Intent(
            parts=(
                WantedAction(
                    action=Action.KE, from_deg=80, to_deg=20, mean_nm=60.0, shape=Shape.EVEN
                ),
            )
        ),
        kit=KIT,
        body=BODY,
        limits=LIMITS,
        rules=RULES,
        memo=MEMO,
    )
    assert lunge.demand_nm["knee"].max() > 0
    steps = {}
    for part in asked.prepared(EXERCISES["carriage-lunge-front"]).parts:
        for g, bare in enumerate(part.batch.unloaded):
            count = sum(n for _, n in bare.springs)
            found = asked.candidate((0.0, part, (g, 0)))
            steps[count] = (float(found.comparison.level[0]), found.step)
    levels = {count: level for count, (level, _) in steps.items()}
    harder = min(levels, key=lambda c: -levels[c])
    assert steps[harder][1] is None
    assert all(step is not None and step > 0 for c, (_, step) in steps.items() if c != harder)


def test_an_equal_band_is_found_among_all_that_are_here(question):
    chosen = question.candidate(question.best(EXERCISES["band-squat"]))
    answers = equal_loads(chosen, question)
    assert {plain(a.by) for a in answers} == {"in work", "in peak"}
    ids = {band.id for band in KIT.bands}
    assert all(a.pieces and {p.item for p in a.pieces if p.kind == "band"} <= ids for a in answers)
    assert all(abs(a.off) < 1.0 for a in answers)


def test_slack_is_the_share_of_the_way_where_a_band_is_no_longer_than_at_rest(question, ranking):
    """By the band's length beside its rest length, none of it from the pull itself."""
    seen = {}
    for candidate in ranking.candidates:
        own = candidate.curve
        bands = [(i, x) for i, x in enumerate(own.setup.loads) if isinstance(x, Band)]
        said = beside(candidate, question)
        if not bands:
            assert said["slack"] is None or said["slack"] == 0.0  # springs here start at a pull
            continue
        short = [
            np.mean(own.motion.load_lengths[i][0] <= band.law.rest_m * np.asarray(band.fold).item())
            for i, band in bands
        ]
        seen[candidate.exercise.id] = said
        assert said["slack"] == pytest.approx(max(short), abs=1e-9)
    slack = [k for k, said in seen.items() if said["slack"] > 0.2]
    assert slack and any(said["slack"] == 0.0 for said in seen.values())
    assert all(
        "slack for" in plain(seen[k].cell("slack")) and not seen[k].passes({"taut"}) for k in slack
    )
    order = sorted_by(
        ranking.candidates,
        {c.exercise.id: beside(c, question) for c in ranking.candidates},
        "slack",
        {},
    )
    assert {c.exercise.id for c in order[-len(slack) :]} == set(slack)


def test_furniture_that_is_pulled_up_at_its_edge_gives_at_half_its_weight():
    """40 kg: 196 N at the near edge tips it about its far feet; a push down never lifts it."""
    up = np.array([0.0, 98.0665, 50.0])
    found = held_down(40.0, up)
    assert found.margin == pytest.approx(2.0) and found.gives_by == "lifts"
    assert found.verdict != "refuse" and held_down(40.0, 10 * up).verdict == "refuse"
    assert held_down(40.0, -up).margin == np.inf
