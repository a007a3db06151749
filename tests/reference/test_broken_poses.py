"""No pose that is none: set-ups from all over the options' ranges, and the ones that were found."""

from __future__ import annotations

import os
import warnings
from collections import Counter

import numpy as np
import pytest

from tests.reference.sweep import swept
from tests.spoken import refused
from widearc.core.equipment import FreeMass, Stack
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.movement.motion import Motion
from widearc.core.statics import audit, curve, demand

COUNT = int(os.environ.get("WIDEARC_SWEEP", "2000"))
SEED = int(os.environ.get("WIDEARC_SWEEP_SEED", "16"))


def faults(made, audited, row):
    """Yield what is wrong with one set-up's curve."""
    curves = made.demand_nm | made.other_nm
    if not all(np.isfinite(values[row]).all() for values in curves.values()):
        yield "a number is missing"
    elif not audited.relative_error[row] <= 0.02:
        yield f"energy off by {100 * audited.relative_error[row]:.1f} %"
    for name, angle in made.motion.angles.items():
        if name.endswith("knee"):
            bend = np.degrees(angle[row])
            if bend.min() < -10.02 or bend.max() > 170.02:
                yield f"{name} from {bend.min():.0f} to {bend.max():.0f}°"
    if "pair_n" in made.motion.marks:
        pair = made.motion.marks["pair_n"][row]
        forces = {f.source: made.motion.full(f.force)[1, row] for f in made.motion.forces}
        smaller = np.minimum(forces["contact foot"], forces["contact rear foot"])
        if np.abs(np.diff(pair)).max() > 0.1 * smaller.max() + 1e-3:
            yield "the pair jumps"


def test_no_set_up_of_a_sweep_over_every_option_is_broken():
    """2,000 in `make test`, 20,000 others in `make fuzz`: each is refused in words, or is sound."""
    looked_at, refused, broken = 0, 0, Counter()
    for setup in swept(COUNT, SEED):
        looked_at += setup.rows
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")  # of rows that are refused
            try:
                made = curve(setup, strict=False, lowering=False)
            except (InputError, PostureError):
                refused += setup.rows
                continue
        audited = audit(made)
        for row in range(setup.rows):
            if row in made.motion.failed:
                refused += 1
                continue
            for fault in faults(made, audited, row):
                broken[setup.exercise.id, fault] += 1
    assert not broken
    assert looked_at >= COUNT and 0.1 * looked_at < refused < 0.5 * looked_at


@pytest.mark.parametrize(
    ("exercise", "options", "loads", "says"),
    [
        ("hip-thrust", {"foot_ahead_m": 0.3}, [FreeMass(kg=60, port="hip-crease")], "no knee does"),
        (
            "abduction-machine",
            {"abduction_from_deg": 60, "abduction_to_deg": 35},
            [Stack(kg=40, angle_deg=(0, 60), radius_m=(0.1, 0.1))],
            "a degree or more under the shortened end, 35 degrees",
        ),
        ("leg-extension", {"knee_from_deg": 0}, [], "a degree or more over the shortened end"),
        ("back-squat-high", {"knee_from_deg": 20, "knee_to_deg": 60}, [], "over the shortened"),
        ("romanian-deadlift", {"trunk_from_deg": 20, "trunk_to_deg": 30}, [], "over the shortened"),
    ],
)
def test_poses_that_were_found_broken_are_refused(exercise, options, loads, says):
    with refused((InputError, PostureError), says):
        curve(Setup(exercise=EXERCISES[exercise], options=options, loads=loads))


@pytest.mark.parametrize("samples", [11, 101])
def test_energy_off_by_more_than_two_percent_is_refused(monkeypatch, samples):
    """A closure that loses a force: the audit itself says so, at any number of samples."""
    lost = Motion.contact_work_j
    setup = Setup(
        exercise=EXERCISES["belt-squat-pin"],
        loads=[FreeMass(kg=40, port="hip-belt")],
        samples=samples,
    )
    assert curve(setup).demand_nm
    monkeypatch.setattr(Motion, "contact_work_j", lambda motion: lost(motion) + 40.0)
    with pytest.raises(PostureError, match="does not hold together: its energy is off by"):
        curve(setup)
    assert demand.BROKEN == 0.02


def test_a_pair_that_jumps_is_refused():
    """A given pair fades with the rear foot's share; one so large that it cannot is refused."""
    options = {"horizontal_pair": 60, "trunk_lean_deg": 10, "knee_from_deg": 110}
    made = curve(Setup(exercise=EXERCISES["walking-lunge"], options=options))
    pair = made.motion.marks["pair_n"][0]
    assert pair[0] == pytest.approx(60) and pair[-1] == 0.0
    assert np.ptp(np.diff(pair[:29])) < 1e-6, "it fades evenly"
    with pytest.raises(PostureError, match=r"slide|jump"):
        curve(
            Setup(exercise=EXERCISES["walking-lunge"], options=options | {"horizontal_pair": 290})
        )
