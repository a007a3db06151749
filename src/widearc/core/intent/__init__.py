"""The loading that is wanted: the schools' shapes over a range of motion."""

from widearc.core.intent.shapes import HOLDS, SHAPES, Shape, shaped

__all__ = ["HOLDS", "SHAPES", "Shape", "shaped"]
