"""What a person can produce against joint angle: default isometric strength curves."""

from widearc.core.strength.curves import ACTIONS, strength_nm

__all__ = ["ACTIONS", "strength_nm"]
