"""Rep styles and tempo: how long each joint angle is under demand."""

from widearc.core.dose.dose import Tempo, dose_on_grid
from widearc.core.dose.style import RepStyle, StyleKind
from widearc.core.dose.weight import style_weight

__all__ = ["RepStyle", "StyleKind", "Tempo", "dose_on_grid", "style_weight"]
