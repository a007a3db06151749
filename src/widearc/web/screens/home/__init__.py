"""Home: what is going on now, and the one next thing to do."""

from widearc.web.screens.home.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(Mark(words="Home", endpoint="home.show", task="home", rank=0, where="edge"),),
)
