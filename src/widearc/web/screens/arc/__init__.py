"""Arc: an exercise set up, its line of force and its curves; set-ups compared."""

from widearc.web.screens.arc import pinned, sets, view  # noqa: F401 - they add addresses
from widearc.web.screens.arc.blueprint import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Arc", endpoint="arc.show", task="arc", rank=3),),
)
