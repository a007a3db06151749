"""Week: what is planned and what it covers, and what to buy."""

from widearc.web.screens.screen import Mark, Screen
from widearc.web.screens.week import wanted
from widearc.web.screens.week.view import blueprint

SCREEN = Screen(
    blueprints=(blueprint, wanted.blueprint),
    marks=(Mark(words="Week", endpoint="week.show", task="week", rank=8),),
)
