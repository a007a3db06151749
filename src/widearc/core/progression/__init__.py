"""What to do next time: for now the arithmetic that rules of thumb rest on."""

from widearc.core.progression.arithmetic import (
    change_percent,
    compounded,
    one_leg_start_kg,
    step_share,
)

__all__ = ["change_percent", "compounded", "one_leg_start_kg", "step_share"]
