"""Intent: the loading that is wanted."""

from widearc.web.screens.intent.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Intent", endpoint="intent.show", task="intent", rank=4, where="more"),),
)
