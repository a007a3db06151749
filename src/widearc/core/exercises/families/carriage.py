"""Work on a sprung carriage."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.exercises.families.common import LEAN, LEGS, choice, number, of_body, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="carriage",
    words="Sprung carriage",
    rank=16,
    options=specs(
        (),
        replace(LEGS, default=1, choices=(1,)),
        of_body("travel_m", "carriage travel", 0.5, 0.1, 1.0),
        number("weight_share", "share of the weight on the carriage", 0.5, 0, 0.9),
        choice("spring_side", "springs", "resist", ("resist", "help")),
        of_body("start_m", "carriage foot ahead of the other at the start", -0.10, -1.2, 1.2),
        number("other_knee_from_deg", "standing leg's knee bend, start", 75, 5, 120),
        number("other_knee_to_deg", "standing leg's knee bend, end", 20, 5, 120),
        LEAN,
    ),
    own_legs=False,
)
