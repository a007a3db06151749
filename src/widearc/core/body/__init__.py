"""The trained body: segments from stature and mass, ports where loads meet it, limits that bound it.

Knows no equipment and no exercise.
"""

from widearc.core.body.limits import Limits
from widearc.core.body.ports import PORTS, TRUNK_PORTS, Port
from widearc.core.body.segments import Body, Sex

__all__ = ["PORTS", "TRUNK_PORTS", "Body", "Limits", "Port", "Sex"]
