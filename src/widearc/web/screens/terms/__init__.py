"""The terms of the trade that the pages use: a sentence each, and a drawing where it helps."""

from widearc.web.screens.screen import Mark, Screen
from widearc.web.screens.terms.view import blueprint

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Terms", endpoint="terms.show", task="terms", rank=13, where="more"),),
)
