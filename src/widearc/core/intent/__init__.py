"""The loading that is wanted: said by handles or a school's shape over a range of motion, with its
rep style.
"""

from widearc.core.intent.shapes import HOLDS, SHAPES, Shape, shaped
from widearc.core.intent.wanted import HANDLES, Intent, WantedAction, handles_of

__all__ = ["HANDLES", "HOLDS", "SHAPES", "Intent", "Shape", "WantedAction", "handles_of", "shaped"]
