"""Floor: the set that is done, on a phone in one hand."""

from widearc.web.screens.floor.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Floor", endpoint="floor.home", task="floor", rank=9, where="edge"),),
)
