"""Ready weeks of practice (common practice, no source): exercises by day; of each slot the first
that the place has.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from widearc import store
from widearc.core.errors import InputError, one_of
from widearc.core.words import Said
from widearc.usecases.week import plans

SQUAT = ("back-squat-high", "front-squat", "leg-press-45", "goblet-squat", "dumbbell-squat")
FRONT = ("front-squat", "goblet-squat", "heel-raised-squat", "dumbbell-squat")
HINGE = ("romanian-deadlift", "stiff-leg-deadlift", "one-leg-romanian-deadlift")
SPLIT = ("rear-raised-split-squat", "split-squat", "reverse-lunge")
OFFSET = ("offset-lunge", "step-up", "reverse-lunge")
CURL = ("seated-leg-curl", "lying-leg-curl", "leg-curl-band", "slider-curl", "ball-curl")
KNEE = ("leg-extension", "reverse-nordic", "leg-extension-band")
THRUST = ("hip-thrust", "hip-thrust-one-leg", "hip-thrust-band")
STRAIGHT = ("calf-raise-step", "calf-raise-standing", "calf-raise-one-leg", "calf-raise-bar")
BENT = ("calf-raise-seated-weights", "calf-raise-seated")
STRETCH = ("hip-flexor-stretch",)

Days = Mapping[int, tuple[tuple[str, ...], ...]]

PRESETS: Mapping[str, tuple[str, Days]] = MappingProxyType(
    {
        "two-days": (
            "Two different leg days",
            {0: (SQUAT, HINGE, SPLIT, STRAIGHT), 3: (HINGE[:1] + THRUST, FRONT, CURL, BENT)},
        ),
        "apart": (
            "Quads and hamstrings apart",
            {0: (SQUAT, SPLIT, KNEE, STRAIGHT), 3: (HINGE, THRUST, CURL, BENT)},
        ),
        "calves": (
            "Daily calves",
            {
                0: (SQUAT, STRAIGHT),
                1: (BENT,),
                2: (HINGE, STRAIGHT),
                3: (BENT,),
                4: (SPLIT, STRAIGHT),
            },
        ),
        "offset": (
            "Weight on the other side for half of the one-leg sets",
            {0: (SQUAT, OFFSET, STRAIGHT), 3: (HINGE, SPLIT, OFFSET, BENT)},
        ),
        "back-front": (
            "Back squat and front squat",
            {0: (SQUAT[:1] + SQUAT[2:], SPLIT, STRAIGHT), 3: (FRONT, HINGE, CURL)},
        ),
        "carriage": (
            "Sprung carriage only",
            {
                0: (("carriage-push",), ("carriage-lunge-front",)),
                3: (("carriage-pull-back",), ("carriage-side-push",)),
            },
        ),
        "bands": (
            "Body weight and bands",
            {
                0: (
                    ("band-squat", "bodyweight-squat"),
                    SPLIT,
                    ("nordic-curl", *CURL[2:]),
                    STRAIGHT,
                ),
                3: (("hip-thrust-band", "hip-thrust-one-leg"), ("reverse-nordic",), SPLIT, BENT),
            },
        ),
    }
)
"""By id: words, and the slots of each weekday."""


@store.at_once
def begin(
    con: store.Connection,
    trainer_id: int,
    client_id: int,
    monday: str,
    preset: str,
    place_id: int,
    *,
    now: str,
) -> int:
    """Begin a client's week with a ready one at a place, or with empty days (""); return its id."""
    week = plans.begin_week(con, trainer_id, client_id, monday, now=now)
    if preset:
        add_preset(con, trainer_id, week, preset, place_id, now=now)
        return week
    for weekday in plans.USUAL_DAYS:
        plans.add_day(con, trainer_id, week, weekday, place_id, now=now)
    return week


@store.at_once
def add_preset(
    con: store.Connection, trainer_id: int, week_id: int, preset: str, place_id: int, *, now: str
) -> int:
    """Put a ready week's days on a week at a place, beside what is there; return how many slots
    the place has something for.
    """
    if preset not in PRESETS:
        raise InputError("preset", preset[:40], one_of(tuple(PRESETS)))
    week = plans.week_row(con, trainer_id, week_id)
    put = 0
    words = Said("a ready week")
    with store.recorded(
        con, trainer_id, scope=plans.scope(week_id), kind="week", words=words, now=now
    ):
        days = {d.weekday: d.id for d in store.days_of(con, trainer_id, week_id)}
        for weekday, slots in PRESETS[preset][1].items():
            if weekday not in days:
                row = store.DayRow(week_id=week_id, weekday=weekday, place_id=place_id)
                days[weekday] = store.add_day(con, trainer_id, row)
            put += sum(
                _add_first(con, trainer_id, week, days[weekday], choices) for choices in slots
            )
    return put


def _add_first(
    con: store.Connection,
    trainer_id: int,
    week: store.WeekRow,
    day_id: int,
    choices: tuple[str, ...],
) -> bool:
    """Put the first of some exercises that can be done there on a day; return whether one can."""
    day = plans.day_row(con, trainer_id, day_id)
    for exercise in choices:
        facts = plans.facts_here(con, trainer_id, week.client_id, day.place_id, exercise)
        if facts is not None:
            row = plans.slot_of(day_id, plans.free_place(con, trainer_id, day), exercise, facts)
            store.add_slot(con, trainer_id, row)
            return True
    return False
