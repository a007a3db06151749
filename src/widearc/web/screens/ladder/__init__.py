"""Ladder: the rungs that a place makes of a lift, and the next step."""

from widearc.web.screens.ladder.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Ladder", endpoint="ladder.show", task="ladder", rank=7),),
)
