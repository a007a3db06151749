"""The arithmetic behind rules of thumb: half for one leg, percents a week, steps of a plate."""

from __future__ import annotations


def one_leg_start_kg(
    two_leg_kg: float, body_kg: float, *, working_share: float = 0.88, front_share: float = 0.80
) -> float:
    """Return the load (kg) at which one leg bears what each of two bore; below 0 where body weight
    alone is more.

    working_share: of body weight on the working joints; front_share: of everything on the front leg
    (common practice, no source). L1 = (w·B + L) / (2·front_share) − w·B.
    """
    on_joints = working_share * body_kg
    return (on_joints + two_leg_kg) / (2.0 * front_share) - on_joints


def compounded(share_a_week: float, weeks: int) -> float:
    """Return by what a load is multiplied after so many weeks of growing by a share each."""
    return (1.0 + share_a_week) ** weeks


def step_share(step_kg: float, load_kg: float) -> float:
    """Return a step as a share of the load."""
    return step_kg / load_kg


def change_percent(before: float, after: float) -> float:
    """Return the change from before to after in percent of before."""
    return 100.0 * (after - before) / before
