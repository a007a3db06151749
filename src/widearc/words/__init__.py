"""The edge of words: sentences of the core as text, in units and a language."""

from widearc.words.how import PLAIN, How, speaking, spoken
from widearc.words.render import plain, say

__all__ = ["PLAIN", "How", "plain", "say", "speaking", "spoken"]
