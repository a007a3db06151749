"""Week: what is planned, and what to buy."""

from widearc.web.screens.screen import Mark, Screen
from widearc.web.screens.week.view import blueprint

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Week", endpoint="week.show", task="week", rank=8),),
)
