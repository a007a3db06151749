"""Method: formulas, sources, the self-check."""

from widearc.web.screens.method.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Method", endpoint="method.show", task="method", rank=12, where="more"),),
)
