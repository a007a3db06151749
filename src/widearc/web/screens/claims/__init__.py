"""Claims: disputes of practice, worked out."""

from widearc.web.screens.claims.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Claims", endpoint="claims.listed", task="claims", rank=11, where="more"),),
)
