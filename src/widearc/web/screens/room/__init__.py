"""Room: what is here, what is free, what it can train now."""

from widearc.web.screens.room import line
from widearc.web.screens.room.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint, line.blueprint),
    marks=(Mark(words="Room", endpoint="room.home", task="room", rank=1, where="edge"),),
)
